"""Food: the energy of riding and living, as mass of bought food."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.people import Rider
from omnifer.core.physics import body

Array = NDArray[np.float64]


def eaten_along(profile_km: Array, hours: Array, day_km: Array, riders: tuple[Rider, ...]) -> Array:
    """Food that the party eats from the start to each point of the profile [kg].

    Riding energy falls where the hours fall; each day's energy off the bicycle is spread evenly over its kilometres.
    """
    kcal = np.zeros(profile_km.size)
    day_hours = np.diff(np.interp(day_km, profile_km, hours))
    for rider in riders:
        kcal += body.riding_energy(rider.all_day_power_w, hours, practice.GROSS_EFFICIENCY)
        off_bike = resting(rider) * practice.OFF_BIKE_FACTOR * np.clip(24 - day_hours, 0, 24) / 24
        kcal += np.interp(profile_km, day_km, np.concatenate([[0.0], np.cumsum(off_bike)]))
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
