"""Plays a tour over its road: the days, and what water and food is on board where."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.kit import Thing
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import food, water
from omnifer.core.needs.supply import Carried, carried
from omnifer.core.road import days, pace, weather
from omnifer.core.road.profile import Profile

MOMENTS_BETWEEN = 400
"""About this many moments are placed between the stops and nights."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Places:
    """The places of one supply along the road, start and end included."""

    km: Array
    names: list[str]
    stops: list[Stop | None]
    amounts: Carried
    used: Array
    reserve: Array
    riding: Array
    nights: NDArray[np.int_]


@dataclass(frozen=True)
class Moment:
    """A place and side of the road at which the load is known."""

    km: float
    leaving: bool
    place: str


@dataclass(frozen=True)
class Voyage:
    """The tour played over its road."""

    profile: Profile
    climate: weather.Climate
    hours: Array
    day_km: Array
    night_stops: list[Stop | None]
    """The stop of each night, None for a camp away from stops."""
    water: Places
    food: Places
    capacity_l: float
    moments: list[Moment]
    water_l: Array
    food_kg: Array
    riding: list[pace.RidingMass]

    def day_of(self, km: float, leaving: bool = True) -> int:
        """Number of the day, from 1, on which a kilometre is ridden."""
        number = np.searchsorted(self.day_km, km, side="right" if leaving else "left")
        return int(np.clip(number, 1, self.day_km.size - 1))


def vessels(tour: TourSheet) -> list[tuple[Thing, int]]:
    """The vessels on the bikes and how many of each, in the order in which they are filled.

    Before anything is placed all vessels of the kit count. Those in reach while riding come first.
    """
    placed = {thing.id: 0 for thing in tour.kit}
    for placement in tour.load.placements:
        placed[placement.thing_id] += placement.count
    anything = any(placed.values())
    chosen = [(t, placed[t.id] if anything else t.count) for t in tour.kit if t.holds_water_l > 0]
    order = ("riding", "stop", "camp", "night", "breaks")
    return sorted(((t, n) for t, n in chosen if n), key=lambda pair: order.index(pair[0].reach))


def fills(held: list[tuple[Thing, int]], water_l: Array) -> list[Array]:
    """Water in one of each kind of vessel at each moment [l]; vessels alike are filled evenly."""
    result, before = [], 0.0
    for thing, count in held:
        total = thing.holds_water_l * count
        result.append(np.clip(water_l - before, 0, total) / count)
        before += total
    return result


def play(tour: TourSheet, profile: Profile) -> Voyage:
    """Ride the tour: pace with the real mass, days, demand, and what each place must hand over.

    Water and food weigh on the pace that decides how much of them is needed; two rounds settle it.
    """
    stores_kg = 0.0
    climate = weather.along(profile, tour.road.weather)
    for _ in range(2):
        riding = _riding(tour, stores_kg)
        hours = pace.hours_along(profile, riding)
        day_km = days.boundaries(profile, hours, tour.road.cut, tour.road.typed_days, tour.road.stops)
        night_stops = [_stop_at(tour, km) for km in day_km[1:-1]]
        held_l = sum(thing.holds_water_l * count for thing, count in vessels(tour))
        wet = _water(tour, profile, climate, hours, day_km, night_stops, held_l)
        fed = _food(tour, profile, hours, day_km)
        stores_kg = _mean(wet) + _mean(fed)
    moments = _moments(profile, day_km, night_stops, wet, fed)
    drunk = water.drunk_along(hours, climate, tour.riders)
    eaten = food.eaten_along(profile.km, hours, day_km, tour.riders)
    camp_km = np.array([km for km, stop in zip(day_km[1:-1], night_stops, strict=True) if _dry(stop)])
    camp_l = water.dry_camp(len(tour.riders))
    return Voyage(
        profile=profile,
        climate=climate,
        hours=hours,
        day_km=day_km,
        night_stops=night_stops,
        water=wet,
        food=fed,
        capacity_l=held_l,
        moments=moments,
        water_l=_on_board(moments, wet, profile.km, drunk, camp_km, camp_l),
        food_kg=_on_board(moments, fed, profile.km, eaten, np.array([]), 0.0),
        riding=riding,
    )


def _riding(tour: TourSheet, stores_kg: float) -> list[pace.RidingMass]:
    """Each rider with bike, bags, gear and an even part of the stores; things on the shelf ride with their owner."""
    bike_of = {carrier.id: bike.id for bike in tour.rig.bikes for carrier in bike.carriers}
    by_thing = {thing.id: thing for thing in tour.kit}
    gear = {bike.id: 0.0 for bike in tour.rig.bikes}
    left = {thing.id: thing.count for thing in tour.kit}
    for placement in tour.load.placements:
        gear[bike_of[placement.carrier_id]] += by_thing[placement.thing_id].mass_kg * placement.count
        left[placement.thing_id] -= placement.count
    owned = {rider.id: 0.0 for rider in tour.riders}
    shared = 0.0
    for thing in tour.kit:
        mass = thing.mass_kg * left[thing.id]
        if thing.rider_id is None:
            shared += mass
        else:
            owned[thing.rider_id] += mass
    result = []
    for rider in tour.riders:
        bikes = [bike for bike in tour.rig.bikes if bike.rider_id == rider.id]
        total = rider.body_mass_kg + owned[rider.id] + (shared + stores_kg) / len(tour.riders)
        drag, rolling = 0.55, 0.009
        for bike in bikes:
            total += bike.mass_kg + gear[bike.id]
            total += sum(s.mass_kg for s in bike.supports) + sum(c.mass_kg for c in bike.carriers)
            drag = bike.drag_area_m2 + sum(s.trailer.drag_area_m2 for s in bike.supports if s.trailer)
            rolling = bike.rolling_resistance
        result.append(pace.RidingMass(rider.all_day_power_w, total, drag, rolling))
    return result


def _stop_at(tour: TourSheet, km: float) -> Stop | None:
    near = [stop for stop in tour.road.stops if abs(stop.at_km - km) <= practice.NIGHT_NEAR_STOP_KM]
    return min(near, key=lambda stop: (stop.water != "reliable", abs(stop.at_km - km)), default=None)


def _dry(stop: Stop | None) -> bool:
    return stop is None or stop.water != "reliable"


def _water(
    tour: TourSheet,
    profile: Profile,
    climate: weather.Climate,
    hours: Array,
    day_km: Array,
    night_stops: list[Stop | None],
    capacity_l: float,
) -> Places:
    sources = [stop for stop in _ordered(tour, profile) if stop.water == "reliable"]
    km, names, stops = _with_ends(sources, profile)
    drunk = np.diff(np.interp(km, profile.km, water.drunk_along(hours, climate, tour.riders)))
    bottled = np.diff(np.interp(km, profile.km, water.bottled_along(hours, climate, tour.riders)))
    nights = np.zeros(km.size - 1, dtype=int)
    for night, stop in zip(day_km[1:-1], night_stops, strict=True):
        if _dry(stop):
            nights[int(np.clip(np.searchsorted(km, night, side="left") - 1, 0, nights.size - 1))] += 1
    used = drunk + nights * water.dry_camp(len(tour.riders))
    reserve = np.maximum(bottled - drunk, 0)
    amounts = carried(np.full(km.size, np.inf), used, reserve, capacity_l)
    return Places(km, names, stops, amounts, used, reserve, drunk, nights)


def _food(tour: TourSheet, profile: Profile, hours: Array, day_km: Array) -> Places:
    shops = [stop for stop in _ordered(tour, profile) if stop.shop != "none"]
    km, names, stops = _with_ends(shops, profile)
    eaten = food.eaten_along(profile.km, hours, day_km, tour.riders)
    daily = float(eaten[-1]) / max(day_km.size - 1, 1)
    offers = np.array([np.inf if stop is None or stop.shop == "full" else practice.BASIC_SHOP_DAYS * daily for stop in stops])
    used = np.diff(np.interp(km, profile.km, eaten))
    reserve = np.full(used.size, practice.FOOD_RESERVE_DAYS * daily)
    nights = np.diff(np.searchsorted(day_km[1:-1], km, side="right"))
    return Places(km, names, stops, carried(offers, used, reserve), used, reserve, used, nights)


def _ordered(tour: TourSheet, profile: Profile) -> list[Stop]:
    on_road = [stop for stop in tour.road.stops if stop.at_km <= profile.length_km]
    return sorted(on_road, key=lambda stop: stop.at_km)


def _with_ends(chosen: list[Stop], profile: Profile) -> tuple[Array, list[str], list[Stop | None]]:
    """Places with the start and the end added; both supply everything, and a stop there gives them its name."""
    at_start = [stop for stop in chosen if stop.at_km <= 0.5]
    at_end = [stop for stop in chosen if stop.at_km > 0.5 and stop.at_km >= profile.length_km - 0.5]
    inner: list[Stop | None] = [stop for stop in chosen if stop not in at_start and stop not in at_end]
    stops: list[Stop | None] = [None, *inner, None]
    km = np.array([0.0, *(stop.at_km for stop in inner if stop), profile.length_km])
    first = at_start[0].name if at_start else "the start"
    last = at_end[-1].name if at_end else "the end"
    return km, [first, *(stop.name for stop in inner if stop), last], stops


def _mean(places: Places) -> float:
    """Mean amount on board over the road."""
    spans = np.diff(places.km)
    middle = (places.amounts.leaving[:-1] + places.amounts.arriving[1:]) / 2
    return float(np.sum(middle * spans) / max(np.sum(spans), 1e-9))


def _moments(profile: Profile, day_km: Array, night_stops: list[Stop | None], wet: Places, fed: Places) -> list[Moment]:
    """Both sides of every refill and night, and evenly spaced points between them."""
    names: dict[float, str] = {}
    for km, stop in zip(day_km[1:-1], night_stops, strict=True):
        names[float(km)] = stop.name if stop else ""
    for places in (fed, wet):
        for km, name in zip(places.km[:-1], places.names[:-1], strict=True):
            names[float(km)] = name
    end = profile.length_km
    events = sorted(km for km in names if 0 < km < end)
    spacing = max(end / MOMENTS_BETWEEN, 1.0)
    moments = [Moment(0.0, True, names.get(0.0, ""))]
    for km in [*events, end]:
        before = moments[-1].km
        inner = int((km - before) / spacing)
        moments += [Moment(before + (km - before) * i / (inner + 1), False, "") for i in range(1, inner + 1)]
        moments.append(Moment(km, False, names.get(km, fed.names[-1])))
        if km < end:
            moments.append(Moment(km, True, names[km]))
    return moments


def _on_board(moments: list[Moment], places: Places, profile_km: Array, used_along: Array, camp_km: Array, camp: float) -> Array:
    """What is left of a supply at each moment: what was taken along at the last place, less what was used since."""
    km = np.array([moment.km for moment in moments])
    leaving = np.array([moment.leaving for moment in moments])
    since = np.where(leaving, np.searchsorted(places.km, km, side="right"), np.searchsorted(places.km, km, side="left"))
    since = np.clip(since - 1, 0, places.km.size - 2)
    used = np.interp(km, profile_km, used_along) - np.interp(places.km[since], profile_km, used_along)
    passed = np.where(leaving, np.searchsorted(camp_km, km, side="right"), np.searchsorted(camp_km, km, side="left"))
    passed_at_place = np.searchsorted(camp_km, places.km[since], side="right")
    # A dry camp at the very place where the last refill was is paid before leaving it.
    used = used + camp * np.maximum(passed - passed_at_place, 0)
    return np.asarray(np.maximum(places.amounts.leaving[since] - used, 0.0))
