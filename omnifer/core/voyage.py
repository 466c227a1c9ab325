"""Plays a tour over its road: the days, and what water and food is on board where."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice, stores
from omnifer.core.model.kit import Thing
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics import gearing
from omnifer.core.road import arrivals, climate, days, pace
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.profile import Profile

MOMENTS_BETWEEN = 400
"""About this many moments are placed between the stops and nights."""
ROUNDS = 3
"""How often load, pace, days, weather and opening hours are settled against each other."""
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
    """The tour played over its road."""

    profile: Profile
    climate: climate.Climate
    conditions: pace.Conditions
    hours: Array
    clock_h: Array
    days: days.Days
    night_stops: list[Stop | None]
    """The stop of each night, None for a camp away from stops."""
    visits: dict[str, Visit]
    water: stores.Places
    food: stores.Places
    capacity_l: float
    moments: list[Moment]
    water_l: Array
    food_kg: Array
    riding: list[pace.RidingMass]

    @cached_property
    def noon_humidity_pct(self) -> Array:
        """Relative humidity at the hottest hour of a hot day [%]."""
        return self.climate.humidity_at(self.climate.day_high_c)

    def day_of(self, km: float, leaving: bool = True) -> int:
        """Number of the day, from 1 and rest days counted, on which a kilometre is ridden."""
        return int(self.days.offset[int(self.days.riding_day(km, leaving))]) + 1


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


@dataclass(frozen=True)
class _Round:
    """The tour ridden once, with a guess at what is on board and on which day each point is passed."""

    climate: climate.Climate
    conditions: pace.Conditions
    hours: Array
    clock_h: Array
    days: days.Days
    night_stops: list[Stop | None]
    visits: dict[str, Visit]
    wet: tuple[stores.Places, stores.Spent]
    fed: tuple[stores.Places, stores.Spent]
    profile_km: Array

    def on_board(self, km: Array, leaving: NDArray[np.bool_]) -> tuple[Array, Array]:
        """Water [l] and food [kg] at kilometres in road order."""
        water_l, food_kg = (stores.on_board(km, leaving, self.profile_km, *supply) for supply in (self.wet, self.fed))
        return water_l, food_kg


def play(tour: TourSheet, profile: Profile) -> Voyage:
    """Ride the tour: pace with the mass that is there, days and dates, demand, and what each place must hand over.

    Water and food weigh on the pace that decides how much of them is needed, and the day decides the weather and which shops
    are open; a few rounds settle it, all but the last on a sample of the road's points.
    """
    party = _party(tour)
    held_l = sum(thing.holds_water_l * count for thing, count in vessels(tour))
    road, ridden = profile.sampled, None
    for left in range(ROUNDS, 0, -1):
        road = profile if left == 1 else road
        ridden = _ride(tour, road, party, held_l, ridden)
    assert ridden is not None
    moments = _moments(profile, ridden.days.km, ridden.night_stops, ridden.wet[0], ridden.fed[0])
    at_km, leaving = np.array([moment.km for moment in moments]), np.array([moment.leaving for moment in moments])
    water_l, food_kg = ridden.on_board(at_km, leaving)
    return Voyage(
        profile=profile,
        climate=ridden.climate,
        conditions=ridden.conditions,
        hours=ridden.hours,
        clock_h=ridden.clock_h,
        days=ridden.days,
        night_stops=ridden.night_stops,
        visits=ridden.visits,
        water=ridden.wet[0],
        food=ridden.fed[0],
        capacity_l=held_l,
        moments=moments,
        water_l=water_l,
        food_kg=food_kg,
        riding=party,
    )


def _ride(tour: TourSheet, profile: Profile, party: list[pace.RidingMass], held_l: float, before: _Round | None) -> _Round:
    """One round, with the days and stores of the one before."""
    road, start = tour.road, tour.start_date
    stores_kg, day = np.zeros(profile.km.size), np.floor(profile.km / FIRST_GUESS_KM)
    if before is not None:
        stores_kg = sum(before.on_board(profile.km, np.ones(profile.km.size, dtype=bool)), stores_kg)
        day = before.days.offset[before.days.riding_day(profile.km, leaving=False)].astype(float)
    weather = climate.along(profile, road, start, day)
    here = pace.conditions(profile, road.surfaces, road.transfers, weather.wind_ms, stores_kg)
    hours = pace.hours_along(profile, party, here)
    plan = days.cut(profile, hours, road)
    clock_h = arrivals.clock_along(hours, here.transfer_hours, profile.km, plan, road)
    visits = arrivals.visits(road, start, profile.km, clock_h, plan)
    night_stops = days.night_stops(road.stops, plan.km[1:-1], practice.NIGHT_NEAR_STOP_KM)
    wet = stores.water_of(tour, profile, weather, hours, plan, night_stops, visits, held_l)
    fed = stores.food_of(tour, profile, hours, plan, visits)
    return _Round(weather, here, hours, clock_h, plan, night_stops, visits, wet, fed, profile.km)


def _party(tour: TourSheet) -> list[pace.RidingMass]:
    """Each rider with bike, bags and gear, and an even part of the stores; things on the shelf ride with their owner."""
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
        total = rider.body_mass_kg + owned[rider.id] + shared / len(tour.riders)
        drag, rolling, slowest = practice.DRAG_AREA_M2, practice.ROLLING_RESISTANCE, 0.0
        for bike in bikes:
            total += bike.mass_kg + gear[bike.id]
            total += sum(s.mass_kg for s in bike.supports) + sum(c.mass_kg for c in bike.carriers)
            drag = bike.drag_area_m2 + sum(s.trailer.drag_area_m2 for s in bike.supports if s.trailer)
            rolling = bike.rolling_resistance
            turn = gearing.development(bike.radius_mm / 1000, bike.low_chainring, bike.low_cog, bike.low_hub_ratio)
            slowest = float(gearing.speed_kmh(turn, practice.SLOWEST_CADENCE_RPM))
        result.append(pace.RidingMass(rider.all_day_power_w, total, 1 / len(tour.riders), drag, rolling, slowest))
    return result


def _moments(
    profile: Profile, day_km: Array, night_stops: list[Stop | None], wet: stores.Places, fed: stores.Places
) -> list[Moment]:
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
