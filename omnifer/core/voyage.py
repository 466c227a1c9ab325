"""Plays a tour over its road: the days, and what of each supply is on board where."""

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import ABOARD, Thing
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics.weather import heat_index, share_of_day
from omnifer.core.rig import riding
from omnifer.core.road import arrivals, climate, days, light, pace, zones
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.profile import Profile
from omnifer.core.stages import PROFILE, RIDDEN, Reading, stage
from omnifer.core.supplies import food, power, supplies_of, water
from omnifer.core.supplies.ride import Ride
from omnifer.core.supplies.stock import vessels
from omnifer.core.supplies.supply import THE_END, Supply

MOMENTS_BETWEEN = 400
"""About this many moments are placed between the stops and nights."""
PLANNED, SETTLED = 2, 2
"""How often days and weather, then pace, opening hours and supplies are settled against each other."""
FIRST_GUESS_KM = 70.0
"""Kilometres a day before anything is known [km]; practice."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Moment:
    """A place and side of the road at which the load is known."""

    km: float
    leaving: bool
    place: str


@dataclass(frozen=True)
class Voyage:
    """The tour played over its road; arrays are over the road's nodes unless said otherwise."""

    profile: Profile
    climate: climate.Climate
    conditions: pace.Conditions
    ridden: pace.Pace
    stores_kg: Array
    """All supplies, and what is not on board all the way, with which it is ridden [kg]."""
    watch: arrivals.Watch
    light: list[light.Light]
    """Of each riding day."""
    riding_c: Array
    """Air on a hot day in the hour in which each node is passed [°C]."""
    cold_c: Array
    """The same between a cold night and the usual day after it [°C]."""
    days: days.Days
    night_stops: list[Stop | None]
    """The stop of each night, None for a camp away from stops."""
    visits: dict[str, Visit]
    supplies: dict[str, Supply]
    power: power.Power | None
    ride: Ride
    """What the supplies were asked with."""
    moments: list[Moment]
    stock: dict[str, Array]
    """What is on board of each supply at each moment [kg]."""
    riding: list[pace.RidingMass]

    @property
    def nodes(self) -> Profile:
        """The road at the nodes that the arrays are over."""
        return self.profile.nodes

    @property
    def clocks(self) -> zones.Clocks:
        """The time zones of the road."""
        return self.watch.clocks

    @property
    def hours(self) -> Array:
        """Riding hours from the start [h]."""
        return self.ridden.hours

    @cached_property
    def at_km(self) -> Array:
        """Kilometre of each moment."""
        return np.array([moment.km for moment in self.moments])

    @cached_property
    def leaving(self) -> NDArray[np.bool_]:
        """Whether each moment is on the leaving side of its place."""
        return np.array([moment.leaving for moment in self.moments])

    @cached_property
    def noon_heat_index_c(self) -> Array:
        """How the hottest hour of a hot day feels in the shade [°C]."""
        return heat_index(self.climate.day_high_c, self.climate.humidity_at(self.climate.day_high_c))

    def between(self, along: Array, km: Array) -> Array:
        """How much of a sum along the road falls between each two kilometres that follow each other."""
        return np.diff(np.interp(km, self.nodes.km, along))

    def day_of(self, km: float, leaving: bool = True) -> int:
        """Number of the day, from 1 and rest days counted, on which a kilometre is ridden."""
        return int(self.days.offset[int(self.days.riding_day(km, leaving))]) + 1


def play(tour: TourSheet, profile: Profile) -> Voyage:
    """Ride the tour: days and dates, pace with the mass that is there, demand, and what each place must hand over.

    Days are cut with a usual stock on board, so that they do not move with every bottle. Supplies weigh on the pace that
    decides how much of them is needed and which shops are open; a few rounds settle it. A load that weighs the same on each bike
    and leaves the same vessels there is the same voyage. Raises ValueError where nobody rides.
    """
    ridden = Reading(tour, profile)[voyage_of]
    if ridden is None:
        raise ValueError("nobody rides")
    return ridden


@stage("riders", "rig", "load", RIDDEN, "own_values", by_value=True)
def party_of(at: Reading) -> list[pace.RidingMass]:
    """Who rides with how much: of the load no more than what each bike weighs."""
    return _party(at.tour)


@stage("rig", "load", RIDDEN, by_value=True)
def vessels_of(at: Reading) -> list[tuple[Thing, int]]:
    """The vessels on board, and how many of each."""
    return vessels(at.tour)


@stage(PROFILE, party_of, vessels_of, RIDDEN, "riders", "rig", "road", "start_date", "stores", "own_values", "money", "over")
def voyage_of(at: Reading) -> Voyage | None:
    """The tour played over its road; None without a road or riders."""
    if at.profile is None or not at.tour.riders:
        return None
    return _played(at.tour, at.profile, at[party_of], at[vessels_of])


def _played(tour: TourSheet, profile: Profile, party: list[pace.RidingMass], held: list[tuple[Thing, int]]) -> Voyage:
    road, nodes, usual = tour.road, profile.nodes, tour.practice
    coming = _coming_and_going(tour, nodes.km)
    stores_kg = usual_kg = coming + usual.usual_stores_kg * len(tour.riders)
    clocks = zones.clocks_of(road, profile)
    stops = tuple(stop for stop in road.stops if arrivals.reached(stop, usual))
    detours = [(stop.at_km, stop.detour_km) for stop in stops if stop.detour_km > 0 and stop.at_km <= profile.length_km]
    reached = road.model_copy(update={"stops": stops})
    wished = days.wished_nights(road, tour.riders)
    day = np.floor(nodes.km / FIRST_GUESS_KM)
    for turn in range(PLANNED):
        weather = climate.along(nodes, road, tour.start_date, day, usual)
        here = pace.conditions(profile, road.surfaces, road.transfers, weather.wind_ms, weather.mean_c, detours)
        if turn == 0 or weather.source in ("stations", "grid"):
            ridden, stores_kg = pace.pace_along(profile, party, here, usual_kg), usual_kg
        plan = days.cut(nodes, ridden.hours, reached, wished)
        day = plan.offset[plan.riding_day(nodes.km, leaving=False)].astype(float)
    weather = climate.along(nodes, road, tour.start_date, day, usual)
    night_stops = days.night_stops(stops, plan.km[1:-1], usual.night_near_stop_km)
    suns = light.along(nodes, plan, tour.start_date, clocks)
    everywhere = np.ones(nodes.km.size, dtype=bool)
    busy = None
    for again in range(SETTLED, -1, -1):
        watch = arrivals.Watch(nodes.km, ridden.hours, here.transfer_hours, plan, road, tour.start_date, clocks, busy)
        by_hour = _share_of_day(watch.along(), plan, nodes.km, suns)
        warm = _between(weather.night_low_c, weather.day_high_c, by_hour)
        visits = arrivals.visits(stops, watch, usual)
        ride = Ride(tour, nodes, weather, warm, ridden, plan, night_stops, visits, watch, suns, held)
        supplies = supplies_of(ride)
        if again:
            stores_kg = coming + sum(s.kg_on_board(nodes.km, everywhere, nodes.km) for s in supplies.values())
            air_c = _between(weather.mean_min_c, weather.mean_max_c, by_hour)
            here = pace.conditions(profile, road.surfaces, road.transfers, weather.wind_ms, air_c, detours)
            ridden = pace.pace_along(profile, party, here, stores_kg)
            busy = water.hours_at_sources(ride, supplies["water"])
    electric = power.plan(ride)
    moments = _moments(profile, plan.km, night_stops, list(supplies.values()), _events(tour, electric))
    at_km, leaving = np.array([moment.km for moment in moments]), np.array([moment.leaving for moment in moments])
    stock = {name: supply.kg_on_board(at_km, leaving, nodes.km) for name, supply in supplies.items()}
    cold = _between(weather.night_low_c, weather.mean_max_c, by_hour)
    return Voyage(
        profile, weather, here, ridden, stores_kg, watch, suns, warm, cold, plan, night_stops, visits, supplies, electric, ride,
        moments, stock, party,
    )  # fmt: skip


def begun_on(voyage: Voyage, tour: TourSheet) -> Voyage:
    """The same days ridden in the same hours, begun on the date of another tour that differs in nothing else.

    Weather, light, what is open and what is drunk and eaten are those of the date; pace, power and what is on board at each
    moment are left as they were.
    """
    road, nodes, plan, start = tour.road, voyage.nodes, voyage.days, tour.start_date
    day = plan.offset[plan.riding_day(nodes.km, leaving=False)].astype(float)
    weather = climate.along(nodes, road, start, day, tour.practice)
    suns = light.along(nodes, plan, start, voyage.clocks)
    watch = replace(voyage.watch, start=start)
    by_hour = _share_of_day(watch.along(), plan, nodes.km, suns)
    warm = _between(weather.night_low_c, weather.day_high_c, by_hour)
    visits = arrivals.visits(tuple(visit.stop for visit in voyage.visits.values()), watch, tour.practice)
    before = voyage.ride
    ride = Ride(tour, nodes, weather, warm, before.pace, plan, voyage.night_stops, visits, watch, suns, before.vessels)
    supplies = voyage.supplies | {"water": water.plan(ride), "food": food.plan(ride)}
    return replace(
        voyage, climate=weather, light=suns, watch=watch, riding_c=warm, visits=visits, ride=ride, supplies=supplies,
        cold_c=_between(weather.night_low_c, weather.mean_max_c, by_hour),
    )  # fmt: skip


def ridden_with(voyage: Voyage, tour: TourSheet) -> pace.Pace:
    """The same days in the same weather with the same stores, ridden with another kit, load or rig."""
    return pace.pace_along(voyage.profile, _party(tour), voyage.conditions, voyage.stores_kg)


def _share_of_day(clock_h: Array, plan: days.Days, km: Array, suns: list[light.Light]) -> Array:
    """Where the air is at each node in the hour in which it is passed, between the low and the high of its day [-]."""
    day = plan.riding_day(km, leaving=False)
    rise, fall = (np.array(hours)[day] for hours in zip(*(sun.for_course() for sun in suns), strict=True))
    return share_of_day(clock_h, rise, fall)


def _between(low: Array, high: Array, share: Array) -> Array:
    return low + (high - low) * share


def _party(tour: TourSheet) -> list[pace.RidingMass]:
    """Each rider with bike, bags and gear, and an even part of the stores; things on the shelf ride with their owner.

    What is not on board all the way counts with the stores, whose mass changes along the road.
    """
    bike_of = {carrier.id: bike.id for bike in tour.rig.bikes for carrier in bike.carriers}
    by_thing = {thing.id: thing for thing in tour.located if thing.always_aboard}
    gear = {bike.id: 0.0 for bike in tour.rig.bikes}
    on_shelf = {thing.id: thing.count for thing in by_thing.values()}
    for placement in tour.load.placements:
        if placement.thing_id not in by_thing:
            continue
        gear[bike_of[placement.carrier_id]] += by_thing[placement.thing_id].mass_kg * placement.count
        on_shelf[placement.thing_id] -= placement.count
    owned = {rider.id: 0.0 for rider in tour.riders}
    shared = 0.0
    for thing in by_thing.values():
        mass = thing.mass_kg * on_shelf[thing.id]
        if thing.rider_id is None:
            shared += mass
        else:
            owned[thing.rider_id] += mass
    usual, result = tour.practice, []
    for rider in tour.riders:
        bikes = [bike for bike in tour.rig.bikes if bike.rider_id == rider.id]
        total = rider.body_mass_kg + owned[rider.id] + shared / len(tour.riders)
        drag, rolling, slowest, ground = usual.drag_area_m2, usual.rolling_resistance, 0.0, (1.0,) * len(pace.SURFACES)
        for bike in bikes:
            total += bike.mass_kg + gear[bike.id]
            total += sum(s.mass_kg for s in bike.supports) + sum(c.mass_kg for c in bike.carriers)
            drag, rolling = riding.drag_area_m2(bike), riding.rolling_resistance(bike)
            slowest, ground = riding.slowest_kmh(bike, usual), riding.ground_times(bike)
        result.append(pace.RidingMass(rider.all_day_power_w, total, 1 / len(tour.riders), drag, rolling, slowest, usual, ground))
    return result


def _coming_and_going(tour: TourSheet, km: Array) -> Array:
    """Mass of what is not on board all the way, where it is [kg]."""
    there = (t.mass_kg * t.count * t.is_how(ABOARD, km) for t in tour.located if not t.always_aboard)
    return np.asarray(sum(there, np.zeros(km.size)))


def _events(tour: TourSheet, electric: power.Power | None) -> dict[float, str]:
    """Places besides refills and nights at which what is on board changes: where things come and go, and plugs."""
    names = {stop.id: stop.name for stop in tour.road.stops}
    found = {
        start: names.get(place.stop_id or "", "")
        for thing in tour.located
        if thing.comes_and_goes
        for start, _, place in thing.stretches()
        if start > 0
    }
    return found | {charge.stop.at_km: charge.stop.name for charge in (electric.charges if electric else [])}


def _moments(
    profile: Profile, day_km: Array, night_stops: list[Stop | None], supplies: list[Supply], events: dict[float, str]
) -> list[Moment]:
    """Both sides of every event, refill and night, and evenly spaced points between them."""
    names = dict(events)
    for km, stop in zip(day_km[1:-1], night_stops, strict=True):
        names[float(km)] = stop.name if stop else ""
    for supply in reversed(supplies):
        for km, name in zip(supply.refills.km[:-1], supply.refills.names[:-1], strict=True):
            names[float(km)] = name
    end = profile.length_km
    events_km = sorted(km for km in names if 0 < km < end)
    spacing = max(end / MOMENTS_BETWEEN, 1.0)
    moments = [Moment(0.0, True, names.get(0.0, ""))]
    for km in [*events_km, end]:
        before = moments[-1].km
        inner = int((km - before) / spacing)
        moments += [Moment(before + (km - before) * i / (inner + 1), False, "") for i in range(1, inner + 1)]
        moments.append(Moment(km, False, names.get(km, last_name(supplies))))
        if km < end:
            moments.append(Moment(km, True, names[km]))
    return moments


def last_name(supplies: list[Supply]) -> str:
    """What the end of the road is called: the name of a stop there that supplies something, if there is one."""
    names = [supply.refills.names[-1] for supply in supplies]
    return next((name for name in names if name != THE_END), THE_END)
