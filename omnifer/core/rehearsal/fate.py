"""Random numbers that belong to a play and to what they are drawn for: the same whatever else is drawn, carried or changed."""

from dataclasses import dataclass
from hashlib import blake2b

import numpy as np
from numpy.typing import NDArray
from scipy import special

DAYS = 512
"""Days of a play that have draws of their own; a tour has no more than 400."""
SPELLS = 4
"""Of wind in a day: mean winds of whole days vary much less than those of hours."""
EVENTS = 16
"""Faults of a kind in a play; there are no more."""
AT_ONCE = 4
"""Numbers that the generator makes with one step of its counter."""
Array = NDArray[np.float64]


@dataclass(frozen=True)
class Fate:
    """The plays from a number on, so many of them.

    Every name has a stream of its own, and every play a fixed stretch of it: play 37 has the same rain on day 12 whether it is
    drawn alone or among a thousand, whatever is carried, and however many stops there are.

    Notes
    -----
    Counter-based: numpy's Philox, keyed by the seed and the name; Salmon, Moraes, Dror and Shaw (2011), Parallel random numbers:
    as easy as 1, 2, 3, doi:10.1145/2063384.2063405.
    """

    seed: int
    first: int
    plays: int

    def uniform(self, name: str, row: int = 1) -> Array:
        """Numbers between 0 and 1, shape (plays, row)."""
        key = np.frombuffer(blake2b(f"{self.seed}:{name}".encode(), digest_size=16).digest(), dtype=np.uint64)
        wide = -(-row // AT_ONCE) * AT_ONCE
        stream = np.random.Philox(key=key, counter=self.first * wide // AT_ONCE)
        return np.random.Generator(stream).random((self.plays, wide))[:, :row]

    def normal(self, name: str, row: int = 1, first: int | None = None) -> Array:
        """Standard normal numbers, shape (plays, row); only the first of each row, where no more are wanted."""
        return np.asarray(special.ndtri(np.clip(self.uniform(name, row)[:, :first], 1e-12, 1 - 1e-12)))
