"""Water: what riding and dry camps take."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.people import Rider
from omnifer.core.physics import body
from omnifer.core.road.climate import Climate

Array = NDArray[np.float64]


def along(hours: Array, climate: Climate, riders: tuple[Rider, ...]) -> tuple[Array, Array]:
    """Water that the whole party needs from the start to each point of the profile [l, l].

    First what is expected to be drunk, then what should be carried for it, cautiously. The second is a size for vessels,
    never a drinking target: drinking more than is lost is dangerous too.
    """
    drunk, bottled = np.zeros(hours.size), np.zeros(hours.size)
    warm = climate.riding_c
    damp = climate.humidity_at(warm)
    for rider in riders:
        loss = body.sweat_loss(warm, damp, rider.all_day_power_w)
        drunk += np.maximum(practice.DRUNK_FLOOR_L_PER_H, loss)
        bottled += np.maximum(practice.BOTTLE_FLOOR_L_PER_H, practice.CARRY_FACTOR * loss)
    spent = np.diff(hours)
    drunk, bottled = (np.concatenate([[0.0], np.cumsum(rate[:-1] * spent)]) for rate in (drunk, bottled))
    return drunk, bottled


def dry_camp(riders: int) -> float:
    """Water for one night away from a source [l]."""
    return practice.DRY_CAMP_L * riders
