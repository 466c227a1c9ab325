"""Water: what riding and dry camps take."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.people import Rider
from omnifer.core.physics import body
from omnifer.core.road.climate import Climate

Array = NDArray[np.float64]


def drunk_along(hours: Array, climate: Climate, riders: tuple[Rider, ...]) -> Array:
    """Water expected to be drunk by the whole party from the start to each point of the profile [l]."""
    return _cumulative(hours, climate, riders, practice.DRUNK_FLOOR_L_PER_H, 1.0)


def bottled_along(hours: Array, climate: Climate, riders: tuple[Rider, ...]) -> Array:
    """Water that should be carried for riding, cautious, from the start to each point [l].

    A size for vessels, never a drinking target: drinking more than is lost is dangerous too.
    """
    return _cumulative(hours, climate, riders, practice.BOTTLE_FLOOR_L_PER_H, practice.CARRY_FACTOR)


def _cumulative(hours: Array, climate: Climate, riders: tuple[Rider, ...], floor: float, factor: float) -> Array:
    rate = np.zeros(hours.size)
    for rider in riders:
        loss = body.sweat_loss(climate.riding_c, climate.humidity_pct, rider.all_day_power_w)
        rate += np.maximum(floor, factor * loss)
    return np.concatenate([[0.0], np.cumsum(rate[:-1] * np.diff(hours))])


def dry_camp(riders: int) -> float:
    """Water for one night away from a source [l]."""
    return practice.DRY_CAMP_L * riders
