"""What is kept of plays, to be counted; rows are plays."""

from dataclasses import dataclass, field, fields
from typing import Any

import numpy as np

from omnifer.core.rehearsal.course import Array, Course, Ints

A_MOMENT_D = 1e-9
"""What is lost in rounding of days [d]."""


@dataclass
class Kept:
    """What is told of one supply, rows are plays."""

    level: Array
    """On board on leaving each place, shape (plays, places)."""
    asked: Array
    """What each stretch between places that hand it over would have taken, shape (plays, gaps)."""
    foreseen: Array
    """What of that was seen coming where it was handed over, and taken beyond the plan, shape (plays, gaps)."""
    lacking: Array
    """What was wanted and not had, shape (plays, gaps)."""
    without_h: Array
    """Hours without it on each such stretch, shape (plays, gaps) [h]."""
    without_km: Array
    """From where, NaN where never, shape (plays, gaps)."""


@dataclass
class Plays:
    """What became of each play; rows are plays.

    Attributes
    ----------
    first : int
        Number of the first play.
    when : shape (plays, places)
        When each place is reached: days since the start, with the part of the day that is over.
    kept : dict of str
        Of each supply.
    coldest_c, colder_k, cold_nights : shape (plays,)
        The coldest night, by how much the worst one out of doors was colder than is borne, and how many were.
    cold_at : shape (plays,)
        The place of the worst; -1: none.
    rests, ill, tired, wet_days : shape (plays,)
        Days of rest as planned that were had, of illness, of rest for tiredness, and wet ones.
    ill_at : shape (plays,)
        The place where the first illness began; -1: none.
    power : shape (plays,)
        Use of electricity over what is reckoned.
    stuck_at : shape (plays,)
        Where the first fault stopped them that nothing mended [km]; NaN: nowhere.
    mended, unmended : dict of str
        Faults of each kind, shape (plays,).
    most_wanted : dict of str
        The most faults of each kind from one workshop to the next, shape (plays,).
    drivers : dict of str
        What was drawn, in a number a play, by what it is called; shape (plays,).
    """

    course: Course
    first: int
    when: Array
    kept: dict[str, Kept]
    coldest_c: Array
    colder_k: Array
    cold_nights: Ints
    cold_at: Ints
    rests: Ints
    ill: Ints
    tired: Ints
    wet_days: Ints
    ill_at: Ints
    power: Array
    stuck_at: Array
    mended: dict[str, Ints] = field(default_factory=dict)
    unmended: dict[str, Ints] = field(default_factory=dict)
    most_wanted: dict[str, Ints] = field(default_factory=dict)
    drivers: dict[str, Array] = field(default_factory=dict)

    @property
    def count(self) -> int:
        """How many."""
        return int(self.when.shape[0])

    @property
    def days_late(self) -> Ints:
        """Days later at the end than planned."""
        ends = np.floor([self.when[:, -1] + A_MOMENT_D, np.full(self.count, self.course.planned[-1] + A_MOMENT_D)])
        return np.asarray(ends[0] - ends[1]).astype(np.int64)

    @property
    def power_step(self) -> Ints:
        """Which of the played uses of electricity each play comes nearest to."""
        dark = self.course.dark
        if dark is None:
            return np.zeros(self.count, dtype=np.int64)
        return np.asarray(np.searchsorted(np.sqrt(dark.times[:-1] * dark.times[1:]), self.power))

    def and_then(self, more: "Plays") -> "Plays":
        """These plays and those that follow them."""

        def both(mine: Any, theirs: Any) -> Any:
            if isinstance(mine, np.ndarray):
                return np.concatenate([mine, theirs])
            if isinstance(mine, dict):
                return {name: both(one, theirs[name]) for name, one in mine.items()}
            if isinstance(mine, Kept):
                return Kept(*(both(getattr(mine, f.name), getattr(theirs, f.name)) for f in fields(Kept)))
            return mine

        return Plays(*(both(getattr(self, f.name), getattr(more, f.name)) for f in fields(Plays)))
