"""Risk shared out: how often each of several things may fail, so that all of them together cost the least.

Amounts are those that plays asked for. Who takes the largest but k of them along fails in k plays; a play counts for every
thing that fails in it, so that no more plays fail than were accepted.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


def asked_but(asked: Array, failing: int) -> Array:
    """The amounts with which no, one, two ... plays fail, shape (failing + 1,), falling; 0 once there are no more plays.

    Parameters
    ----------
    asked : numpy.ndarray, shape (plays,)
        What each play asks for.
    """
    falling = np.sort(asked)[::-1]
    return np.asarray(np.append(falling, np.zeros(max(failing + 1 - falling.size, 0)))[: failing + 1])


def shared(costs: Sequence[Array], failing: int) -> list[int]:
    """How many plays each thing may fail in, with no more than `failing` for all together, so that the whole costs the least.

    Parameters
    ----------
    costs : sequence of numpy.ndarray, shape (failing + 1,)
        What each thing costs where it fails in no, one, two ... plays; never rising.

    Notes
    -----
    Exact, thing by thing over what is left of the accepted number: a resource allocation by dynamic programming, as in any
    textbook of operations research (Bellman 1957); it needs no convexity.
    """
    best = np.zeros(failing + 1)
    chosen: list[NDArray[np.intp]] = []
    for cost in costs:
        # Row: what is left before; column: what this thing takes of it.
        left = np.subtract.outer(np.arange(failing + 1), np.arange(failing + 1))
        whole = np.where(left >= 0, best[np.maximum(left, 0)] + cost[None, :], np.inf)
        chosen.append(whole.argmin(axis=1))
        best = whole.min(axis=1)
    result, left_over = [0] * len(costs), failing
    for k in range(len(costs) - 1, -1, -1):
        result[k] = int(chosen[k][left_over])
        left_over -= result[k]
    return result
