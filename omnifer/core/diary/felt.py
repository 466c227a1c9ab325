"""How cold nights were felt, and how much colder than labels say the party is by them."""

import datetime as dt
import math
from collections.abc import Iterable, Iterator, Mapping, Sequence

import numpy as np

from omnifer.core.diary.journal import Told
from omnifer.core.model.assessment import Day
from omnifer.core.model.needs import Sleeper
from omnifer.core.physics import learning
from omnifer.core.physics.learning import Belief

SLEEPERS_K, NIGHT_K, TOO_WARM_K, UNKNOWN_SPREAD_K = 3.0, 2.0, 12.0, 3.0
"""How far sleepers differ from labels, how differently the same night is felt, how much warmer than is borne a night is before
it is too warm in an opened bag, and how far nights differ where nobody says it [K]; practice."""
FELT = {"cold": -1, "right": 0, "warm": 1}
Night = tuple[float, float, int]
"""How much warmer than is borne the usual night there is, how far nights differ [K, K], and how it felt."""


def nights_felt(
    sleepers: Sequence[Sleeper], days: Mapping[int, Day], entries: Iterable[Told], set_out: dt.date
) -> Iterator[Night]:
    """Nights out of doors of which somebody said how warm they were. A morning tells of the night before."""
    by_night = {(s.rider_id, n.day): n for s in sleepers for n in s.nights}
    riders = [sleeper.rider_id for sleeper in sleepers]
    for one in entries:
        if one.entry.verb != "slept" or one.entry.word not in FELT:
            continue
        number = max((one.date - set_out).days, 1)
        who = [one.entry.about] if one.entry.about in riders else riders
        bears = [n.bears_c for r in who if (n := by_night.get((r, number))) and not n.indoors and n.bears_c is not None]
        day = days.get(number)
        if bears and day is not None:
            yield day.mean_min_c - max(bears), math.hypot(day.spread_min_k, day.width_k) or UNKNOWN_SPREAD_K, FELT[one.entry.word]


def felt_colder(assumed_k: float, nights: Sequence[Night]) -> Belief:
    """So much colder than labels say the party is, after nights of which it said so [K]."""
    margin, spread, felt = (np.array(column) for column in zip(*nights, strict=True))
    blur = float((NIGHT_K**2 + (spread**2).mean()) ** 0.5)
    found = learning.shift(SLEEPERS_K, margin, felt, blur, TOO_WARM_K)
    return Belief(assumed_k + found.mean, found.sd, assumed_k + found.low, assumed_k + found.high)
