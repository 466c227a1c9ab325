"""Plays a tour over its road: the days, and what of each supply is on board where."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.quantities import CarriedSupply
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics import gearing
from omnifer.core.physics.weather import heat_index
from omnifer.core.road import arrivals, climate, days, pace
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.profile import Profile
from omnifer.core.supplies import supplies_of
from omnifer.core.supplies.stock import mass_of, vessels
from omnifer.core.supplies.supply import THE_END, Ride, Supply

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
    clock_h: Array
    days: days.Days
    night_stops: list[Stop | None]
    """The stop of each night, None for a camp away from stops."""
    visits: dict[str, Visit]
    supplies: dict[CarriedSupply, Supply]
    moments: list[Moment]
    stock: dict[CarriedSupply, Array]
    """What is on board of each supply at each moment, in its unit."""
    riding: list[pace.RidingMass]

    @property
    def nodes(self) -> Profile:
        """The road at the nodes that the arrays are over."""
        return self.profile.nodes

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
    decides how much of them is needed and which shops are open; a few rounds settle it.
    """
    party, road, nodes = _party(tour), tour.road, profile.nodes
    held_l = sum(thing.holds_water_l * count for thing, count in vessels(tour))
    usual_kg = np.full(nodes.km.size, practice.USUAL_STORES_KG * len(tour.riders))
    day = np.floor(nodes.km / FIRST_GUESS_KM)
    for turn in range(PLANNED):
        weather = climate.along(nodes, road, tour.start_date, day)
        here = pace.conditions(profile, road.surfaces, road.transfers, weather.wind_ms)
        if turn == 0 or weather.wind_ms.any():
            ridden = pace.pace_along(profile, party, here, usual_kg)
        plan = days.cut(nodes, ridden.hours, road)
        day = plan.offset[plan.riding_day(nodes.km, leaving=False)].astype(float)
    weather = climate.along(nodes, road, tour.start_date, day)
    here = pace.conditions(profile, road.surfaces, road.transfers, weather.wind_ms)
    night_stops = days.night_stops(road.stops, plan.km[1:-1], practice.NIGHT_NEAR_STOP_KM)
    everywhere = np.ones(nodes.km.size, dtype=bool)
    for again in range(SETTLED, -1, -1):
        clock_h = arrivals.clock_along(ridden.hours, here.transfer_hours, nodes.km, plan, road)
        visits = arrivals.visits(road, tour.start_date, nodes.km, clock_h, plan)
        supplies = supplies_of(Ride(tour, nodes, weather, ridden.hours, plan, night_stops, visits, held_l))
        if again:
            stores_kg = mass_of({name: supply.on_board(nodes.km, everywhere, nodes.km) for name, supply in supplies.items()})
            ridden = pace.pace_along(profile, party, here, stores_kg)
    moments = _moments(profile, plan.km, night_stops, list(supplies.values()))
    at_km, leaving = np.array([moment.km for moment in moments]), np.array([moment.leaving for moment in moments])
    stock = {name: supply.on_board(at_km, leaving, nodes.km) for name, supply in supplies.items()}
    return Voyage(profile, weather, here, ridden, clock_h, plan, night_stops, visits, supplies, moments, stock, party)


def _party(tour: TourSheet) -> list[pace.RidingMass]:
    """Each rider with bike, bags and gear, and an even part of the stores; things on the shelf ride with their owner."""
    bike_of = {carrier.id: bike.id for bike in tour.rig.bikes for carrier in bike.carriers}
    by_thing = {thing.id: thing for thing in tour.kit}
    gear = {bike.id: 0.0 for bike in tour.rig.bikes}
    on_shelf = {thing.id: thing.count for thing in tour.kit}
    for placement in tour.load.placements:
        gear[bike_of[placement.carrier_id]] += by_thing[placement.thing_id].mass_kg * placement.count
        on_shelf[placement.thing_id] -= placement.count
    owned = {rider.id: 0.0 for rider in tour.riders}
    shared = 0.0
    for thing in tour.kit:
        mass = thing.mass_kg * on_shelf[thing.id]
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
            drag += sum(KINDS[c.kind].drag_area_m2 for c in bike.carriers)
            rolling = bike.rolling_resistance
            turn = gearing.development(bike.radius_mm / 1000, bike.low_chainring, bike.low_cog, bike.low_hub_ratio)
            slowest = float(gearing.speed_kmh(turn, practice.SLOWEST_CADENCE_RPM))
        result.append(pace.RidingMass(rider.all_day_power_w, total, 1 / len(tour.riders), drag, rolling, slowest))
    return result


def _moments(profile: Profile, day_km: Array, night_stops: list[Stop | None], supplies: list[Supply]) -> list[Moment]:
    """Both sides of every refill and night, and evenly spaced points between them."""
    names: dict[float, str] = {}
    for km, stop in zip(day_km[1:-1], night_stops, strict=True):
        names[float(km)] = stop.name if stop else ""
    for supply in reversed(supplies):
        for km, name in zip(supply.refills.km[:-1], supply.refills.names[:-1], strict=True):
            names[float(km)] = name
    end = profile.length_km
    events = sorted(km for km in names if 0 < km < end)
    spacing = max(end / MOMENTS_BETWEEN, 1.0)
    moments = [Moment(0.0, True, names.get(0.0, ""))]
    for km in [*events, end]:
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
