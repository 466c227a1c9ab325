"""Food: the energy of riding and living, as mass of bought food, and the shops that are open when the rider is there."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.people import Rider
from omnifer.core.model.practice import USUAL, Practice
from omnifer.core.physics import body
from omnifer.core.road import arrivals
from omnifer.core.supplies.supply import Demand, Kind, Refills, Ride, Supply, planned

Array = NDArray[np.float64]


def eaten_along(nodes_km: Array, effort_hours: Array, day_km: Array, riders: tuple[Rider, ...], usual: Practice = USUAL) -> Array:
    """Food that the party eats from the start to each node of the road [kg].

    Riding energy falls where work is done, downhill next to nothing; each day's energy of the other hours is spread evenly
    over its kilometres.

    Parameters
    ----------
    effort_hours : numpy.ndarray, shape (riders, nodes)
        Work of each rider from the start, as hours at all-day power [h].
    """
    kcal = np.zeros(nodes_km.size)
    for rider, effort in zip(riders, effort_hours, strict=True):
        kcal += body.riding_energy(rider.all_day_power_w, effort, usual.gross_efficiency)
        at_work = np.diff(np.interp(day_km, nodes_km, effort))
        off_bike = resting(rider, usual) * usual.off_bike_factor * np.clip(24 - at_work, 0, 24) / 24
        kcal += np.interp(nodes_km, day_km, np.concatenate([[0.0], np.cumsum(off_bike)]))
    return kcal / usual.food_kcal_per_g / 1000


def rest_day(riders: tuple[Rider, ...], usual: Practice = USUAL) -> float:
    """Food that the party eats on a day off the bicycle [kg]."""
    kcal = sum(resting(rider, usual) * usual.off_bike_factor for rider in riders)
    return kcal / usual.food_kcal_per_g / 1000


def resting(rider: Rider, usual: Practice = USUAL) -> float:
    """A rider's resting energy, defaults where height, age or sex are open [kcal/day]."""
    male = None if rider.sex is None else rider.sex == "male"
    height = rider.height_cm or usual.rider_height_cm
    return body.resting_energy(rider.body_mass_kg, height, rider.age_years or usual.rider_age_years, male)


def _plan(kind: Kind, ride: Ride) -> Supply:
    """Food at the shops that are open when the rider is there; a rest day eats from where it is spent."""
    plan, start_hour, usual = ride.days, ride.tour.road.start_hour, ride.tour.practice
    shops = [
        stop
        for stop in ride.stops()
        if stop.shop in arrivals.FOOD_SHOPS and arrivals.shop_shut(ride.visits[stop.id], start_hour, usual) is None
    ]
    eaten = eaten_along(ride.nodes.km, ride.pace.effort_hours, plan.km, ride.tour.riders, usual)
    resting_kg: Array = np.asarray(rest_day(ride.tour.riders, usual) * plan.rests)
    daily = (float(eaten[-1]) + float(resting_kg.sum())) / plan.count
    basic = usual.basic_shop_days * daily
    refills = Refills.at(shops, ride.nodes.length_km, lambda stop: np.inf if stop.shop == "full" else basic)
    nights = np.diff(np.searchsorted(np.sort(ride.rests_km()), refills.km, side="right"))
    rests = plan.rests > 0
    demand = Demand(eaten, eaten, ride.rests_km()[rests], resting_kg[rests])
    reserve = np.full(refills.km.size - 1, usual.food_reserve_days * daily)
    return planned(kind, ride, refills, demand, nights, reserve)


KIND = Kind("food", "kg", "mass", 1.0, limited=False, plan=_plan)
