"""How long each cell of the road takes a rider."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.physics import air, riding
from omnifer.core.road.profile import Profile

Array = NDArray[np.float64]


@dataclass(frozen=True)
class RidingMass:
    """One rider as the road sees them: power, total mass and drag."""

    power_w: float
    total_kg: float
    drag_area_m2: float
    rolling_resistance: float


def hours_along(profile: Profile, party: list[RidingMass]) -> Array:
    """Riding hours from the start to each point, at the pace of whoever is slowest there [h].

    Speed is solved once for each gradient (0.1 %) and altitude (100 m) that the road has.
    """
    slopes, heights, cell = profile.slope_classes
    speed_ms = np.min([_speeds(rider, slopes, heights) for rider in party], axis=0)
    seconds = np.diff(profile.km) * 1000 / speed_ms[cell]
    return np.concatenate([[0.0], np.cumsum(seconds) / 3600])


def _speeds(rider: RidingMass, slopes: Array, heights_m: Array) -> Array:
    """Speeds that a rider keeps: never below walking, never above the downhill cap [m/s]."""
    free = riding.steady_speed(
        rider.power_w,
        slopes,
        rider.total_kg,
        rider.drag_area_m2,
        rider.rolling_resistance,
        air.density(heights_m),
        practice.DRIVETRAIN_EFFICIENCY,
    )
    return np.clip(free, practice.WALKING_KMH / 3.6, practice.DESCENT_CAP_KMH / 3.6)


def minutes_per_kilogram(profile: Profile, rider: RidingMass, days: int) -> float:
    """Minutes a day that one kilogram more costs this rider on this road, both ways averaged [min/day/kg]."""
    heavier = RidingMass(rider.power_w, rider.total_kg + 5, rider.drag_area_m2, rider.rolling_resistance)
    lighter = RidingMass(rider.power_w, rider.total_kg - 5, rider.drag_area_m2, rider.rolling_resistance)
    hours = hours_along(profile, [heavier])[-1] - hours_along(profile, [lighter])[-1]
    return float(hours * 60 / 10 / max(days, 1))
