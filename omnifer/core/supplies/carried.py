"""The plain rule of every supply: asked for backwards from the end, taken as late as possible, in the packs it is sold in."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

LITTLE = 1e-9
"""Less than this is nothing."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Terms:
    """How a supply is bought.

    Attributes
    ----------
    pack : float
        Whole packs only; 0 for any amount.
    levels : tuple of float
        Bottles are filled to their lines: what is then on board, ascending; none for any amount.
    least : float
        Nobody stops for less.
    opened_beside : bool
        Whether an opened pack may ride beside as many full ones as there is room for.
    price : float or None
        Of a unit, in the tour's money.
    """

    pack: float = 0.0
    levels: tuple[float, ...] = ()
    least: float = 0.0
    opened_beside: bool = False
    price: float | None = None

    def bought(self, lacking: float, have: float, room: float) -> float:
        """What is taken on where so much is lacking, with so much on board and vessels that hold `room` in all."""
        if lacking <= LITTLE:
            return 0.0
        if self.pack:
            opened = _whole(have, self.pack) if self.opened_beside else _packs(have, self.pack)
            return min(_packs(lacking, self.pack), max(_whole(room, self.pack) - opened, 0.0))
        if self.levels:
            lines = [level for level in self.levels if level <= room + LITTLE]
            enough = next((level for level in lines if level >= have + lacking - LITTLE), lines[-1] if lines else have)
            return max(enough - have, 0.0)
        return max(min(max(lacking, self.least), room - have), 0.0)


ANY_AMOUNT = Terms()
"""Bought as much as is wanted."""


@dataclass(frozen=True)
class Carried:
    """Amounts at the places of one supply, in road order (start first, end last)."""

    arriving: Array
    leaving: Array
    required: Array
    """What leaving would take if vessels were no limit on the way to the next place."""


def carried(
    offers: Array, used: Array, reserve: Array, capacity: Array | float = np.inf, terms: Terms = ANY_AMOUNT,
    fixed: Array | None = None, emptied: NDArray[np.bool_] | None = None,
) -> Carried:  # fmt: skip
    """Plan a supply backwards from the end, then live through it forwards.

    Parameters
    ----------
    offers : numpy.ndarray, shape (n,)
        What each place can give, `inf` for as much as wanted; the first place is the start, which gives all.
    used : numpy.ndarray, shape (n - 1,)
        What is used up from each place to the next.
    reserve : numpy.ndarray, shape (n - 1,)
        What should be left of a stretch on reaching its end.
    capacity : numpy.ndarray or float
        What the vessels hold on each stretch.
    terms : Terms
        How it is bought.
    fixed : numpy.ndarray, shape (n,)
        What is taken at a place whatever is wanted, as far as it fits; NaN where that is free.
    emptied : numpy.ndarray, shape (n,)
        Places that nothing is brought beyond.

    The requirement is the least that works: leaving place i asks for use, reserve and whatever the next place cannot
    give of what its vessels hold. What is short is never made up from nowhere: the amount on board stops at 0.
    """
    count = used.size + 1
    holds = np.append(np.broadcast_to(np.asarray(capacity, dtype=float), used.shape), np.inf).tolist()
    free = [np.nan] * count if fixed is None else fixed.tolist()
    gone = [False] * count if emptied is None else emptied.tolist()
    most = [_whole(offer, terms.pack) if f != f else f for offer, f in zip(offers.tolist(), free, strict=True)]
    if free[0] != free[0]:
        most[0] = np.inf
    use, keep = used.tolist(), reserve.tolist()
    required, wanted = [0.0] * count, 0.0
    for i in range(count - 2, -1, -1):
        required[i] = use[i] + max(keep[i], wanted)
        # What no vessel holds here can come from nowhere: only what fits and is not to be had here is brought along.
        wanted = 0.0 if gone[i] else max(min(required[i], holds[i]) - most[i], 0.0)
    arriving, leaving = [0.0] * count, [0.0] * count
    for i in range(count):
        if i:
            arriving[i] = max(leaving[i - 1] - use[i - 1], 0.0)
        have = 0.0 if gone[i] else arriving[i]
        if free[i] == free[i]:
            beside = terms.pack if terms.opened_beside else 0.0
            taken = min(free[i], max(holds[i] + beside - have, 0.0))
        else:
            taken = min(terms.bought(required[i] - have, have, holds[i]), most[i])
        leaving[i] = have + taken
    return Carried(np.array(arriving), np.array(leaving), np.array(required))


def _packs(amount: float, pack: float) -> float:
    """The least whole packs that are enough."""
    return max(math.ceil(amount / pack - 1e-9) * pack, 0.0) if pack else max(amount, 0.0)


def _whole(amount: float, pack: float) -> float:
    """The most whole packs that an amount makes up."""
    return math.floor(amount / pack + 1e-9) * pack if pack and math.isfinite(amount) else amount
