"""Small things that are used up at a rate: wipes, creams, oil, tablets; and the waste that is carried to the next bin."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Quantity
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import UsedUp
from omnifer.core.model.tour import TourSheet
from omnifer.core.supplies import water
from omnifer.core.supplies.carried import Terms
from omnifer.core.supplies.ride import Ride
from omnifer.core.supplies.supply import Demand, Kind, Supply, nights_between, places_of, planned

Array = NDArray[np.float64]
COUNTED: Quantity = "count"
SHOPS: dict[str, tuple[str, ...]] = {"basic": ("basic", "full"), "full": ("full",), "nowhere": ()}
"""Kinds of shop that sell it."""
PRESCRIBED = "medicine"
"""What serves as this is bought in no shop on the way."""
BINS = frozenset({"site", "hut", "room"})
"""Nights that have a bin."""


def users_of(tour: TourSheet, thing: Thing) -> int:
    """How many use up a thing that is for each person: its owner, or all."""
    return 1 if thing.rider_id is not None else len(tour.riders)


def plan(ride: Ride, thing: Thing, water_supply: Supply) -> Supply:
    """One thing that is used up, in its own unit."""
    role = thing.role
    assert isinstance(role, UsedUp)
    kind = Kind(thing.id, "small things", role.unit, COUNTED, role.per_unit_kg, limited=True)
    sold_at = "nowhere" if PRESCRIBED in thing.serves else role.sold_at
    refills = places_of(ride, thing.id, ride.open_shops(SHOPS[sold_at]))
    used, at_km, at_once = _use(ride, thing, role, water_supply)
    some = at_once > 0
    whole = role.holds * thing.count
    weightless = np.full(refills.km.size - 1, whole)
    capacity = ride.capacity([(thing, thing.count)], refills.km) / role.per_unit_kg if role.content_kg else weightless
    nights = nights_between(refills, ride.rests_km(), np.ones(len(ride.night_stops), dtype=int))
    price = None if thing.price is None else thing.price / role.holds
    terms = Terms(pack=role.holds, opened_beside=True, price=price)
    # What nothing is planned to use is a reserve, and comes along full.
    spare = np.full(refills.km.size - 1, 0.0 if some.any() or used[-1] > 0 else whole)
    return planned(kind, ride, refills, Demand(used, at_km[some], at_once[some]), nights, spare, capacity, terms)


def _use(ride: Ride, thing: Thing, role: UsedUp, water_supply: Supply) -> tuple[Array, Array, Array]:
    """What is used evenly along the road, and where what goes at once."""
    nodes_km, days, people = ride.nodes.km, ride.days, users_of(ride.tour, thing)
    still = np.zeros(nodes_km.size)
    match role.per:
        case "person_day":
            riding = np.interp(nodes_km, days.km, np.arange(days.km.size, dtype=float))
            return role.rate * people * riding, ride.rests_km(), role.rate * people * days.rests.astype(float)
        case "km":
            return role.rate * nodes_km, np.zeros(0), np.zeros(0)
        case "litre_treated":
            things = [water.treatment_of(ride, km).thing for km in water_supply.refills.km.tolist()]
            treats = np.array([thing is not None and isinstance(thing.role, UsedUp) for thing in things], dtype=bool)
            return still, water_supply.refills.km, role.rate * water.treated(water_supply) * treats


def bins(ride: Ride) -> list[Stop]:
    """Stops where waste is thrown away."""
    return [stop for stop in ride.stops() if stop.shop != "none" or stop.shelter in BINS or "meals" in stop.services]


def waste(ride: Ride, supplies: dict[str, Supply], at_km: Array, leaving: NDArray[np.bool_]) -> Array:
    """Waste on board at each moment: wrappings of food and what small things leave, since the last bin [kg]."""
    usual = ride.tour.practice
    roles = {thing.id: thing.role for thing in ride.tour.kit}
    total = np.zeros(at_km.size)
    made = {"food": usual.waste_per_food}
    made |= {name: role.waste * role.per_unit_kg for name, role in roles.items() if isinstance(role, UsedUp) and role.waste}
    marks = np.array([0.0, *(stop.at_km for stop in bins(ride))])
    for name, per_unit in made.items():
        if name in supplies:
            gone = supplies[name].gone(at_km, leaving, ride.nodes.km)
            at_bins = supplies[name].gone(marks, np.ones(marks.size, dtype=bool), ride.nodes.km)
            last = np.clip(
                np.where(leaving, np.searchsorted(marks, at_km, side="right"), np.searchsorted(marks, at_km)) - 1, 0, None
            )
            total += per_unit * np.maximum(gone - at_bins[last], 0.0)
    return total
