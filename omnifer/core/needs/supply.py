"""How much must be on board on leaving each place, so that the next place that has it is reached."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Carried:
    """Amounts at the places of one supply, in road order (start first, end last)."""

    arriving: Array
    leaving: Array
    required: Array
    """What leaving would take if vessels were no limit."""


def carried(offers: Array, used: Array, reserve: Array, capacity: float = np.inf) -> Carried:
    """Plan a supply backwards from the end, then live through it forwards.

    Parameters
    ----------
    offers : numpy.ndarray, shape (n,)
        What each place can give, `inf` for as much as wanted; the first place is the start.
    used : numpy.ndarray, shape (n - 1,)
        What is used up from each place to the next.
    reserve : numpy.ndarray, shape (n - 1,)
        What should be left of a stretch on reaching its end.
    capacity : float
        What the vessels hold.

    The requirement is the least that works: leaving place i asks for use, reserve and whatever the next place cannot
    give. What is short is never made up from nowhere: the amount on board stops at 0.
    """
    count = offers.size
    required = np.zeros(count)
    wanted = 0.0
    for i in range(count - 2, -1, -1):
        required[i] = used[i] + max(float(reserve[i]), wanted)
        wanted = max(required[i] - offers[i], 0.0)
    arriving, leaving = np.zeros(count), np.zeros(count)
    leaving[0] = min(required[0], capacity)
    for i in range(1, count):
        arriving[i] = max(leaving[i - 1] - used[i - 1], 0.0)
        target = min(required[i], arriving[i] + offers[i], capacity)
        leaving[i] = max(arriving[i], target)
    return Carried(arriving, leaving, required)
