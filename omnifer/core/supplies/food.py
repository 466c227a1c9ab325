"""Food: the energy of riding and living, as mass of bought food, and the shops that are open when the rider is there."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.people import Rider
from omnifer.core.physics import body
from omnifer.core.road import arrivals
from omnifer.core.supplies.supply import Demand, Kind, Refills, Ride, Supply, planned

Array = NDArray[np.float64]


def eaten_along(nodes_km: Array, hours: Array, day_km: Array, riders: tuple[Rider, ...]) -> Array:
    """Food that the party eats from the start to each node of the road [kg].

    Riding energy falls where the hours fall; each day's energy off the bicycle is spread evenly over its kilometres.
    """
    kcal = np.zeros(nodes_km.size)
    day_hours = np.diff(np.interp(day_km, nodes_km, hours))
    for rider in riders:
        kcal += body.riding_energy(rider.all_day_power_w, hours, practice.GROSS_EFFICIENCY)
        off_bike = resting(rider) * practice.OFF_BIKE_FACTOR * np.clip(24 - day_hours, 0, 24) / 24
        kcal += np.interp(nodes_km, day_km, np.concatenate([[0.0], np.cumsum(off_bike)]))
    return kcal / practice.FOOD_KCAL_PER_G / 1000


def rest_day(riders: tuple[Rider, ...]) -> float:
    """Food that the party eats on a day off the bicycle [kg]."""
    kcal = sum(resting(rider) * practice.OFF_BIKE_FACTOR for rider in riders)
    return kcal / practice.FOOD_KCAL_PER_G / 1000


def resting(rider: Rider) -> float:
    """A rider's resting energy, defaults where height, age or sex are open [kcal/day]."""
    male = None if rider.sex is None else rider.sex == "male"
    height = rider.height_cm or practice.RIDER_HEIGHT_CM
    return body.resting_energy(rider.body_mass_kg, height, rider.age_years or practice.RIDER_AGE_YEARS, male)


def _plan(kind: Kind, ride: Ride) -> Supply:
    """Food at the shops that are open when the rider is there; a rest day takes its own at once."""
    plan, start_hour = ride.days, ride.tour.road.start_hour
    shops = [
        stop
        for stop in ride.stops()
        if stop.shop in arrivals.FOOD_SHOPS and arrivals.shop_shut(ride.visits[stop.id], start_hour) is None
    ]
    eaten = eaten_along(ride.nodes.km, ride.hours, plan.km, ride.tour.riders)
    resting_kg: Array = np.asarray(rest_day(ride.tour.riders) * plan.rests)
    daily = (float(eaten[-1]) + float(resting_kg.sum())) / plan.count
    basic = practice.BASIC_SHOP_DAYS * daily
    refills = Refills.at(shops, ride.nodes.length_km, lambda stop: np.inf if stop.shop == "full" else basic)
    nights = np.diff(np.searchsorted(plan.km[1:-1], refills.km, side="right"))
    rests = plan.rests > 0
    demand = Demand(eaten, eaten, plan.km[1:-1][rests], resting_kg[rests])
    reserve = np.full(refills.km.size - 1, practice.FOOD_RESERVE_DAYS * daily)
    return planned(kind, ride, refills, demand, nights, reserve)


KIND = Kind("food", "kg", "mass", 1.0, limited=False, plan=_plan)
