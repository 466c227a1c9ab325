"""Two plans on the same fate: the same weather, thirst, springs and faults befall both, play by play."""

import numpy as np

from omnifer.core.model.rehearsal import Compared, Middle, OutcomeId, TwoPlans
from omnifer.core.rehearsal.answers import NAMES, Wrong, counted, wrongs_of, year_of
from omnifer.core.rehearsal.course import Bools, course_of
from omnifer.core.rehearsal.rehearsing import SEED, as_planned, played
from omnifer.core.stages import Reading


def two_plans(now: Reading, then: Reading, plays: int, seed: int = SEED) -> TwoPlans:
    """What another plan does better and worse, counted play by play. Raises ValueError where nobody rides."""
    courses = [course_of(plan) for plan in (now, then)]
    each = [(played(course, 0, plays, seed), as_planned(course)) for course in courses]
    (mine, first), (other, second) = each
    before = {wrong.id: wrong for wrong in wrongs_of(mine, first)}
    after = {wrong.id: wrong for wrong in wrongs_of(other, second)}
    outcomes = []
    for key, wrong in (before | after).items():
        here, there = (_happened(side, key, plays) for side in (before, after))
        outcomes.append(
            Compared(id=key, name=NAMES[key][0], words=wrong.words, now=counted(here), then=counted(there),
                     better=int((here & ~there).sum()), worse=int((there & ~here).sum()))
        )  # fmt: skip
    years = [{figure.name: figure for figure in year_of(*side)} for side in each]
    both = [
        Middle(name=name, quantity=figure.quantity, now=figure.middle, then=years[1][name].middle)
        for name, figure in years[0].items() if name in years[1]
    ]  # fmt: skip
    return TwoPlans(plays=plays, outcomes=outcomes, year=both)


def _happened(side: dict[OutcomeId, Wrong], key: OutcomeId, plays: int) -> Bools:
    return np.asarray(side[key].bad > 0) if key in side else np.zeros(plays, dtype=bool)
