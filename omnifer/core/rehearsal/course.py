"""The tour as its plays run over it: what lies between places that follow each other, and what is had at each of them."""

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, replace
from itertools import pairwise
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray

from omnifer.core.findings.situation import days, reached, sleepers
from omnifer.core.model.practice import Practice
from omnifer.core.model.road import Stop
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import sleeps_indoors
from omnifer.core.needs.asking import Asking
from omnifer.core.needs.repair import Risk, risks_of
from omnifer.core.physics import body
from omnifer.core.rehearsal.fate import DAYS
from omnifer.core.road import arrivals, pace
from omnifer.core.road.climate import Climate
from omnifer.core.road.days import ANY_NIGHT, SAME_PLACE_KM, Days, wished_nights
from omnifer.core.stages import Reading
from omnifer.core.supplies import food, power, water
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage, voyage_of
from omnifer.core.world.expected import COUNTED, EXPECTED, known_people

APART_KM, PIECES, SHORTEST_KM = 5.0, 80, 0.5
"""Places lie no farther apart than the first; a short road has about so many pieces, none shorter than the last [km, -, km]."""
HEAD_MS, HEADWINDS = 3.0, 4
"""Winds for which the road is ridden: so many steps of so much against, and as many along [m/s, -]."""
COLDEST_C, HOTTEST_C = -40, 60
"""Between these the thirst is reckoned, degree by degree [°C]."""
DAY_H = 24.0
LATEST_H = 21.0
"""Where nobody knows when it gets dark, riding ends by then [h]; practice."""
POWER_STEPS, POWER_SPREADS = 6, 3.0
"""The uses of electricity that are played: so many to each side of what is reckoned, over so many widths."""
UNPAVED = ("gravel", "soft", "push")
CLIMATE = (
    "mean_max_c", "mean_min_c", "day_high_c", "night_low_c", "spread_min_k", "width_k", "humidity_pct", "rain_chance", "wind_ms"
)  # fmt: skip

Array = NDArray[np.float64]
Bools = NDArray[np.bool_]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class Store:
    """One supply along the course; amounts in its unit, arrays over places or the pieces behind them.

    Attributes
    ----------
    used : shape (pieces,)
        As planned while riding.
    night, rest, passing : shape (places,)
        What a night there takes, each day of rest, and passing it.
    leaving : shape (places,)
        What is then on board as planned, where it is handed over; NaN elsewhere.
    offer : shape (places,)
        What the place gives at most.
    anew : shape (places,)
        Whether nothing is brought there from before.
    planned : shape (places,)
        On board as planned on leaving each place.
    capacity, ahead, wanted : shape (places,)
        What the vessels hold from there on, what is used as planned up to the next place that hands it over, and what leaving
        should then take.
    gap : shape (pieces,)
        The stretch between two places that hand it over.
    gap_km, gap_names
        Where these stretches begin, with the end of the road; and what the places are called.
    """

    name: str
    unit_kg: float
    used: Array
    night: Array
    rest: Array
    passing: Array
    leaving: Array
    offer: Array
    anew: Bools
    planned: Array
    capacity: Array
    ahead: Array
    wanted: Array
    gap: Ints
    gap_km: Array
    gap_names: list[str]


@dataclass(frozen=True)
class Air:
    """Usual high and low of a day, how far they vary [°C, K], and which part of that is not known of the climate [-]."""

    high_c: Array
    high_k: Array
    low_c: Array
    low_k: Array
    unsure: Array


@dataclass(frozen=True)
class Source:
    """A place where water may be had.

    Attributes
    ----------
    chance : shape (DAYS,)
        That there is water, by the day of the tour.
    sure : bool
        Whether the plan counts on it.
    """

    stop: Stop
    place: int
    chance: Array
    sure: bool


@dataclass(frozen=True)
class Shop:
    """A food shop.

    Attributes
    ----------
    shut : shape (DAYS,)
        By the day of the tour.
    failing : float
        Chance that it is shut when it should be open, or not there at all [-].
    """

    stop: Stop
    place: int
    shut: Bools
    failing: float
    sure: bool
    near_night: bool
    """Whether a night of the plan is spent so near that it is gone to from there."""


@dataclass(frozen=True)
class Dark:
    """What runs down where the devices use so many times what is reckoned."""

    times: Array
    """Ascending; among them 1."""
    days: Ints
    """Days on which something is dead, for each."""
    first_km: Array
    """Where the first runs down; NaN: nothing does."""
    names: list[str]
    """What runs down first; empty: nothing."""


@dataclass(frozen=True)
class Course:
    """Places in road order and the pieces between them; arrays over places or pieces.

    Attributes
    ----------
    clock_h, day : shape (places,)
        When each place is reached as planned: wall clock [h], and day of the tour.
    night : shape (places,)
        The riding day that ends there as planned; -1: none.
    rests : shape (places,)
        Days of rest as planned.
    start_h, until_h : shape (places,)
        When a day begins that begins there; and the latest that one still rides there [h].
    good, better : shape (places,)
        Whether one stays there rather than go on too late: at water that the plan counts on, or for who wants no wild camp at a
        site, hut or room; and the next such place, or the night of the plan, the sooner.
    watered : shape (places,)
        Whether the plan counts on water there.
    wild : bool
        Whether one camps where it gets dark.
    riding_h, other_h : shape (pieces,)
        Hours of riding, and what else the clock goes on by: ferries, hands busy, another zone [h].
    in_wind : shape (pieces, 2 HEADWINDS + 1)
        Time in a wind along the road, then against it, over that of the plan [-].
    bearing : shape (pieces,) or None
        Of the road [rad]; None: it lies nowhere.
    unpaved, rain, wind_ms, share : shape (pieces,)
        Whether most of it is gravel or softer, the chance of rain, wind at the rider [m/s], and where the air is between the
        day's low and high when it is ridden [-].
    riding, nights : Air
        The weather of the pieces, and of the places.
    thirst : shape (pieces, degrees)
        Litres an hour of the party by the air, from COLDEST_C.
    bears_c, indoors : shape (places,)
        Down to where those who sleep coldest are warm there [°C], NaN where nobody says; and whether one sleeps in a room.
    """

    tour: TourSheet
    usual: Practice
    km: Array
    names: list[str]
    clock_h: Array
    day: Ints
    night: Ints
    rests: Ints
    start_h: Array
    until_h: Array
    good: Bools
    better: Ints
    watered: Bools
    wild: bool
    riding_h: Array
    other_h: Array
    in_wind: Array
    bearing: Array | None
    unpaved: Bools
    rain: Array
    wind_ms: Array
    share: Array
    riding: "Air"
    nights: "Air"
    planned_c: Array
    thirst: Array
    bears_c: Array
    indoors: Bools
    long_h: float
    """A day on the road that tires [h]."""
    stores: Mapping[str, Store]
    extra_food: float
    """What a day more than planned eats."""
    sources: list[Source]
    shops: list[Shop]
    risks: list[Risk]
    workshops: Ints
    """Places with a bicycle shop."""
    dark: Dark | None
    begin: int
    """Where the plays begin: what lies before was ridden."""

    @property
    def places(self) -> int:
        """How many."""
        return self.km.size

    @property
    def planned(self) -> Array:
        """When each place is reached as planned: days since the start, with the part of the day that is over."""
        return np.asarray(self.day + self.clock_h / DAY_H)

    @property
    def days(self) -> int:
        """Days of the plan."""
        return int(self.day[-1]) + 1


def course_of(at: Reading) -> Course:
    """The course of a tour. Raises ValueError where there is no road or nobody rides."""
    voyage = at[voyage_of]
    if voyage is None:
        raise ValueError("nobody rides")
    return _Course(at, voyage).made()


def with_supply(course: Course, at: Reading, supply: Supply) -> Course:
    """The same course with another plan of one supply, ridden as before."""
    voyage = at[voyage_of]
    assert voyage is not None
    return replace(course, stores={**course.stores, supply.kind.name: _Course(at, voyage).store(supply)})


class _Course:
    """A course in the making."""

    def __init__(self, at: Reading, voyage: Voyage) -> None:
        self.at, self.tour, self.voyage, self.usual = at, at.tour, voyage, at.tour.practice
        self.ride, self.nodes = voyage.ride, voyage.nodes
        self.plan = _nights_where_slept(voyage)
        self.watch = replace(voyage.watch, days=self.plan)
        self.stops = self.ride.stops()
        self.dates = [self.tour.start_date + dt.timedelta(days=day) for day in range(DAYS)]
        self.km = self._places()
        self.day = self.plan.offset[self.plan.riding_day(self.km, leaving=False)]
        self.middle = (self.km[:-1] + self.km[1:]) / 2

    def _places(self) -> Array:
        """Nights, stops, refills and the ends of transfers; between them no more than a step."""
        length = self.voyage.profile.length_km
        step = min(APART_KM, max(length / PIECES, SHORTEST_KM))
        moves = [km for t in self.tour.road.transfers for km in (t.from_km, t.to_km)]
        refills = [km for name in CARRIED if name in self.voyage.supplies for km in self.voyage.supplies[name].refills.km]
        marks = np.unique([0.0, length, *self.plan.km, *(s.at_km for s in self.stops), *moves, *refills])
        marks = marks[(marks >= 0) & (marks <= length)]
        between = [np.linspace(a, b, int(np.ceil((b - a) / step)) + 1)[:-1] for a, b in pairwise(marks.tolist())]
        return np.append(np.concatenate(between), length)

    def _on(self, along: Array, km: Array | None = None) -> Array:
        return np.interp(self.km if km is None else km, self.nodes.km, along)

    def made(self) -> Course:
        """All of it."""
        voyage, plan, usual = self.voyage, self.plan, self.usual
        riding_day = plan.riding_day(self.km, leaving=False)
        clock = self.watch.at(self.km, riding_day)
        begins = np.isin(self.km, plan.km[:-1])
        start = np.array([self.tour.road.start_h(km) for km in self.km.tolist()])
        riding = np.diff(self._on(voyage.ridden.hours))
        other = clock[1:] - np.where(begins, start, clock)[:-1] - self.tour.road.pause_factor * riding
        night = np.full(self.km.size, -1)
        night[np.searchsorted(self.km, plan.km[1:-1])] = np.arange(plan.km.size - 2)
        rests = np.zeros(self.km.size, dtype=np.int64)
        rests[night >= 0] = plan.rests
        arrives = self.watch.at(plan.km[1:], np.arange(plan.km.size - 1))
        dusk = np.array([LATEST_H if sun.sun is None else 24.0 if sun.dusk_h is None else sun.dusk_h for sun in voyage.light])
        on_road = arrives - np.array([self.tour.road.start_h(km) for km in plan.km[:-1].tolist()])
        of_pieces = _at(voyage.climate, self.nodes.km, self.middle)
        planned_c = self._on(voyage.riding_c, self.middle)
        swing = of_pieces.day_high_c - of_pieces.night_low_c
        bears, indoors = self._nights(riding_day)
        return Course(
            self.tour, usual, self.km, self._names(), clock, self.day, night, rests, start,
            np.maximum(dusk, arrives)[riding_day], *self._where_to_stay(night >= 0), riding, other, self._in_wind(riding),
            self._bearing(), self._unpaved(),
            of_pieces.rain_chance, of_pieces.wind_ms * usual.wind_at_rider,
            np.clip((planned_c - of_pieces.night_low_c) / np.maximum(swing, 1e-9), 0, 1),
            self._air(of_pieces), self._air(_at(voyage.climate, self.nodes.km, self.km)), planned_c, self._thirst(of_pieces),
            bears, indoors,
            max(usual.long_day_times * float(on_road.mean()), float(on_road.max())),
            {n: self.store(voyage.supplies[n]) for n in CARRIED if n in voyage.supplies},
            self._extra_food(), self._sources(), self._shops(), *self._risks(), self._dark(), self._begin(),
        )  # fmt: skip

    def _where_to_stay(self, ends: Bools) -> tuple[Bools, Ints, Bools, bool]:
        watered = np.isin(self.km, self.voyage.supplies["water"].refills.km)
        wished = wished_nights(self.tour.road, self.tour.riders)
        sheltered = np.isin(self.km, [stop.at_km for stop in self.stops if stop.shelter in wished])
        good = watered if wished == ANY_NIGHT else sheltered
        marks = np.flatnonzero(good | ends | (np.arange(self.km.size) == self.km.size - 1))
        after = np.minimum(np.searchsorted(marks, np.arange(self.km.size), side="right"), marks.size - 1)
        return good, marks[after], watered, wished == ANY_NIGHT

    def _names(self) -> list[str]:
        names = {stop.at_km: stop.name for stop in reversed(self.stops)}
        for supply in self.voyage.supplies.values():
            names |= dict(zip(supply.refills.km.tolist(), supply.refills.names, strict=True))
        return [names.get(km, "") for km in self.km.tolist()]

    def _in_wind(self, riding: Array) -> Array:
        voyage, usual = self.voyage, self.usual
        table = np.ones((riding.size, 2 * HEADWINDS + 1))
        if not voyage.climate.wind_ms.any():
            return table
        # The pace takes a mean wind and rides it half against, half along, at a part of its strength: undone here.
        unit = usual.wind_at_rider * pace.MEAN_COMPONENT
        for step in range(HEADWINDS + 1):
            blown = np.full(self.nodes.km.size, step * HEAD_MS / unit)
            there = replace(voyage.conditions, wind_ms=blown)
            each = pace.pace_along(voyage.profile, voyage.riding, there, voyage.stores_kg).hours_each_way()
            ahead, behind = (np.diff(self._on(hours)) for hours in each)
            table[:, HEADWINDS + step], table[:, HEADWINDS - step] = ahead, behind
        return np.where(riding[:, None] > 0, table / np.maximum(riding[:, None], 1e-9), 1.0)

    def _bearing(self) -> Array | None:
        if self.nodes.lat_deg is None or self.nodes.lon_deg is None:
            return None
        lat, lon = np.radians(self._on(self.nodes.lat_deg)), np.radians(self._on(np.unwrap(self.nodes.lon_deg, period=360)))
        return np.asarray(np.arctan2(np.diff(lon) * np.cos(lat[:-1]), np.diff(lat)))

    def _unpaved(self) -> Bools:
        rough = [pace.SURFACES.index(name) for name in UNPAVED]
        cells, cell_km = self.voyage.conditions.surface, self.voyage.profile.cell_km
        summed = np.concatenate([[0.0], np.cumsum(cell_km * np.isin(cells, rough))])
        return np.asarray(np.diff(np.interp(self.km, self.voyage.profile.km, summed)) > np.diff(self.km) / 2)

    def _air(self, weather: Climate) -> Air:
        beyond = NormalDist().inv_cdf(1 - self.tour.road.odds)
        all_k = np.hypot(weather.spread_min_k, weather.width_k)
        high_k = (weather.day_high_c - weather.mean_max_c) / beyond if beyond > 0 else all_k
        low_k = (weather.mean_min_c - weather.night_low_c) / beyond if beyond > 0 else all_k
        unsure = np.clip(weather.width_k / np.maximum(low_k, 1e-9), 0, 1)
        return Air(weather.mean_max_c, high_k, weather.mean_min_c, low_k, unsure)

    def _thirst(self, weather: Climate) -> Array:
        air = np.arange(COLDEST_C, HOTTEST_C + 1, dtype=float)[None, :]
        column = replace(weather, **{name: getattr(weather, name)[:, None] for name in CLIMATE})
        damp, usual = column.humidity_at(air), self.usual
        losses = (body.sweat_loss(air, damp, rider.all_day_power_w) for rider in self.tour.riders)
        return np.asarray(sum(usual.water_times * np.maximum(usual.drunk_floor_l_per_h, loss) for loss in losses))

    def _nights(self, riding_day: NDArray[np.intp]) -> tuple[Array, Bools]:
        bears, inside = np.full(self.km.size, np.nan), np.zeros(self.km.size, dtype=bool)
        slept = self.at[sleepers]
        number = self.plan.offset[np.minimum(riding_day, max(self.plan.km.size - 3, 0))] + 1
        near = {stop.at_km: stop for stop in reversed(self.stops)}
        for place, km in enumerate(self.km.tolist()):
            inside[place] = sleeps_indoors(self.tour, [near[km]] if km in near else [])
        for sleeper in slept:
            by_day = {night.day: night for night in sleeper.nights}
            for place, day in enumerate(number.tolist()):
                night = by_day.get(day)
                if night is not None and night.bears_c is not None:
                    bears[place] = np.fmax(bears[place], night.bears_c)
        ends = np.flatnonzero(np.isin(self.km, self.plan.km[1:-1]))
        for place in ends.tolist() if slept else ():
            nights = [n for s in slept for n in s.nights if n.day == number[place]]
            inside[place] = bool(nights) and all(night.indoors for night in nights)
        return bears, inside

    def _extra_food(self) -> float:
        riders, usual = self.tour.riders, self.usual
        eaten = food.energy_along(self.nodes.km, self.voyage.ridden.effort_hours, self.voyage.days.km, riders, usual)[-1]
        kg = float(self.voyage.supplies["food"].demand.along[-1])
        return food.rest_day_energy(riders, usual) * kg / float(eaten) if eaten > 0 else 0.0

    def store(self, supply: Supply) -> Store:
        """One supply of the course."""
        km, refills, demand, size = self.km, supply.refills, supply.demand, self.km.size
        where = np.searchsorted(km, refills.km)
        leaving, offer = np.full(size, np.nan), np.zeros(size)
        anew = np.zeros(size, dtype=bool)
        leaving[where] = supply.amounts.leaving
        offer[where] = np.maximum(refills.offers, supply.taken)
        anew[where] = refills.emptied
        taken = np.zeros(size)
        np.add.at(taken, np.searchsorted(km, demand.at_km), demand.at_once)
        ends = np.isin(km, self.plan.km[1:-1])
        night, rest = self._at_night(supply.kind.name, ends, taken)
        gap = np.maximum(np.searchsorted(refills.km, km[:-1], side="right") - 1, 0)
        everywhere = np.ones(size, dtype=bool)
        gone = supply.gone(km, everywhere, self.nodes.km)
        following = gone[where][np.minimum(np.append(gap, gap[-1]) + 1, where.size - 1)]
        ahead = np.maximum(following - gone, 0.0)
        reserve = supply.reserve[np.append(gap, gap[-1])]
        capacity = supply.capacity[np.append(gap, gap[-1])]
        return Store(
            supply.kind.name, supply.kind.kg_per_unit, np.diff(self._on(demand.along)), night, rest, np.where(ends, 0.0, taken),
            leaving, offer, anew, supply.on_board(km, everywhere, self.nodes.km), capacity, ahead,
            np.minimum(ahead + reserve, capacity), gap, refills.km, refills.names,
        )  # fmt: skip

    def _at_night(self, name: str, ends: Bools, taken: Array) -> tuple[Array, Array]:
        """What a night, and a day of rest, takes at each place: as planned where it is planned, elsewhere as is usual."""
        tour, usual, size = self.tour, self.usual, self.km.size
        rests = np.zeros(size)
        rests[ends] = self.plan.rests
        if name == "water":
            night = np.full(size, water.dry_camp(len(tour.riders), usual, tour.stores))
            rest = night + usual.dry_day_l * len(tour.riders)
            watered = np.isin(self.km, self.voyage.supplies["water"].refills.km)
            night, rest = np.where(watered, 0.0, night), np.where(watered, 0.0, rest)
            if self.ride.in_snow.any():
                # Where the night of the plan melts snow, so does one near it.
                near = np.clip(self.plan.riding_day(self.km, leaving=False), 0, self.ride.in_snow.size - 1)
                melts = self.ride.in_snow[near] & np.array([self.ride.melts(km) for km in self.km.tolist()])
                night, rest = np.where(melts, 0.0, night), np.where(melts, 0.0, rest)
        elif name == "food":
            night, rest = np.zeros(size), np.full(size, self._extra_food())
        else:
            of_nights = taken[ends] / (1 + rests[ends])
            night = np.interp(self.km, self.km[ends], of_nights) if ends.any() else np.zeros(size)
            rest = night.copy()
        asked = night + rests * rest
        part = np.where(ends & (asked > 0), taken / np.maximum(asked, 1e-12), 1.0)
        return night * part, rest * part

    def _sources(self) -> list[Source]:
        by_day = [date.month for date in self.dates]
        sure = {stop.id for stop in self.voyage.supplies["water"].refills.stops if stop is not None}
        found = []
        for stop in self.stops:
            if stop.water in ("none", "snow"):
                continue
            place = int(np.searchsorted(self.km, stop.at_km))
            found.append(Source(stop, place, _water_chance(stop, by_day, self.usual), stop.id in sure))
        return found

    def _shops(self) -> list[Shop]:
        nights = self.plan.km[1:-1]
        sure = {stop.id for stop in self.voyage.supplies["food"].refills.stops if stop is not None}
        near = {s.id for s in self.stops if self.voyage.visits[s.id].stays_until is not None and s.at_km not in nights}
        return [
            Shop(
                stop, int(np.searchsorted(self.km, stop.at_km)), np.array([arrivals.shut_on(stop, date) for date in self.dates]),
                max(self.usual.shop_shut, 1 - _expected_chance(stop, "shop")), stop.id in sure,
                stop.id in near,
            )
            for stop in self.stops if stop.shop in arrivals.FOOD_SHOPS
        ]  # fmt: skip

    def _risks(self) -> tuple[list[Risk], Ints]:
        when = self.at[reached]
        asking = Asking(self.tour, self.voyage, self.at[days], when)
        marks = np.unique([*self.plan.km, *(s.at_km for s in self.stops if s.bike_shop != "none")])
        shops = [np.searchsorted(self.km, stop.at_km) for stop in self.stops if stop.bike_shop != "none"]
        found = [replace(r, expected=np.interp(self.km, marks, r.expected)) for r in risks_of(asking, marks.tolist())]
        return found, np.array(sorted(shops), dtype=np.int64)

    def _begin(self) -> int:
        return min(int(np.searchsorted(self.km, self.at.from_km)), self.km.size - 2)

    def _dark(self) -> Dark | None:
        if self.voyage.power is None:
            return None
        wide = POWER_SPREADS * self.usual.power_width
        times = np.exp(np.linspace(-wide, wide, 2 * POWER_STEPS + 1)) if wide else np.ones(1)
        played = [power.using(self.ride, float(t)) for t in times]
        deaths = [p.deaths if p is not None else [] for p in played]
        return Dark(
            times, np.array([len(p.dead_days) if p is not None else 0 for p in played]),
            np.array([d[0].from_km if d else np.nan for d in deaths]), [d[0].thing.name if d else "" for d in deaths],
        )  # fmt: skip


def _nights_where_slept(voyage: Voyage) -> Days:
    """The days cut where nights are really spent: at the kilometre of their stop."""
    km = voyage.days.km.copy()
    slept = voyage.ride.rests_km()
    for k, at in enumerate(slept.tolist(), 1):
        if km[k - 1] + SAME_PLACE_KM < at < voyage.days.km[k + 1] - SAME_PLACE_KM:
            km[k] = at
    return Days(km, voyage.days.rests)


def _at(climate: Climate, nodes_km: Array, km: Array) -> Climate:
    """The weather at some places."""
    return replace(climate, **{name: np.interp(km, nodes_km, getattr(climate, name)) for name in CLIMATE})


def _water_chance(stop: Stop, months: list[int], usual: Practice) -> Array:
    """Chance that a source has water, by the day of the tour."""
    if stop.water == "reliable":
        return np.full(DAYS, _expected_chance(stop, "water"))
    if stop.water == "seasonal" and stop.dry_months:
        dry = np.isin(months, stop.dry_months)
        return np.where(dry, 0.0, usual.seasonal_wet)
    guessed = stop.water == "unsure" and "water" in stop.guessed
    return np.full(DAYS, _expected_chance(stop, "water") if guessed else usual.unsure_wet)


def _expected_chance(stop: Stop, part: str) -> float:
    """How likely what is said of a stop is so; 1 where somebody said it."""
    if part not in stop.guessed or stop.people is None:
        return 1.0
    chances = [row.chance(known_people(stop.people)) for row in EXPECTED if row.part == part]
    return max([c for c in chances if c >= COUNTED] or chances, default=1.0)
