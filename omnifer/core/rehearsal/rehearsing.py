"""A rehearsal as a whole: the course, the plays block by block, and what they say."""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from omnifer.core.model.quantities import ROUNDING
from omnifer.core.model.rehearsal import FIRST_PLAYS, AtGap, PlayTold, Rehearsal, WithMore
from omnifer.core.model.supplies import CARRIED
from omnifer.core.rehearsal.answers import counted, gone_h, play_told, tell
from omnifer.core.rehearsal.course import Course, course_of
from omnifer.core.rehearsal.drawn import AS_WIDE, NO_WIDTHS, Draws, draw
from omnifer.core.rehearsal.fate import DAYS, Fate
from omnifer.core.rehearsal.kept import Plays
from omnifer.core.rehearsal.play import rehearse
from omnifer.core.stages import Reading

BLOCK = 250
"""Plays at a time: bounds what is held, and how long one waits for news."""
A_PLACE_KM = 0.1
"""Kilometres that are told are rounded [km]."""
LATE_DAYS = 60
"""So much later than planned a play may be, with draws of its own for each day [d]."""
MATTERS = {"riders", "rig", "kit", "load", "road", "start_date", "stores", "own_values"}
"""Parts of a tour, its track apart."""
SEED = 1
"""Of the fate that is shown unless another is asked for."""


def drawn_for(course: Course, first: int, plays: int, seed: int = SEED, on: float = AS_WIDE) -> Draws:
    """What is drawn for so many plays of a course, from a number on."""
    days = min(course.days + LATE_DAYS, DAYS)
    return draw(Fate(seed, first, plays), course.usual, course.tour.road.odds, on, days)


def played(course: Course, first: int, plays: int, seed: int = SEED) -> Plays:
    """So many plays of a course, from a number on."""
    return rehearse(course, drawn_for(course, first, plays, seed))


def as_planned(course: Course) -> Plays:
    """The plan as a play: nothing is drawn."""
    return rehearse(course, drawn_for(course, 0, 1, on=NO_WIDTHS))


def rehearsed(at: Reading, plays: int, seed: int = SEED) -> Iterator[Rehearsal]:
    """What so many plays say, told after the first few and refined block by block. Raises ValueError where nobody rides."""
    course = course_of(at)
    plan = as_planned(course)
    so_far = played(course, 0, min(plays, FIRST_PLAYS), seed)
    yield tell(so_far, plan, seed) if so_far.count < plays else _with_more(tell(so_far, plan, seed), course, seed)
    while so_far.count < plays:
        so_far = so_far.and_then(played(course, so_far.count, min(BLOCK, plays - so_far.count), seed))
        yield tell(so_far, plan, seed) if so_far.count < plays else _with_more(tell(so_far, plan, seed), course, seed)


def _with_more(told: Rehearsal, course: Course, seed: int) -> Rehearsal:
    """The same, and of what runs out how often it still would with a little more, taken along where it runs out most often."""
    outcomes = []
    for outcome in told.outcomes:
        supply = outcome.supply
        if supply is not None and outcome.where and outcome.counted.count:
            outcome = outcome.model_copy(update={"more": _one_more(course, supply, outcome.where[0], told.plays, seed)})
        outcomes.append(outcome)
    return told.model_copy(update={"outcomes": outcomes})


def _one_more(course: Course, supply: str, where: AtGap, plays: int, seed: int) -> WithMore | None:
    store = course.stores[supply]
    places = np.flatnonzero(~np.isnan(store.leaving) & (np.abs(course.km - where.from_km) < A_PLACE_KM))
    if not places.size:
        return None
    place = int(places[-1])
    spec = CARRIED[supply]
    fits = min(spec.a_little, float(store.capacity[place] - store.leaving[place]))
    gap = int(store.gap[min(place, store.gap.size - 1)])
    if fits <= ROUNDING:
        return WithMore(name=where.from_name, amount=0.0, quantity=spec.quantity, counted=where.counted)
    leaving, offer = store.leaving.copy(), store.offer.copy()
    leaving[place], offer[place] = leaving[place] + fits, max(offer[place], leaving[place] + fits)
    more = replace(course, stores={**course.stores, supply: replace(store, leaving=leaving, offer=offer)})
    gone = [gone_h(played(more, first, min(BLOCK, plays - first), seed), supply)[:, gap] > 0 for first in range(0, plays, BLOCK)]
    return WithMore(name=where.from_name, amount=round(fits, 2), quantity=spec.quantity, counted=counted(np.concatenate(gone)))


def one_play(at: Reading, number: int, seed: int = SEED) -> PlayTold:
    """One play along the road. Raises ValueError where nobody rides."""
    course = course_of(at)
    return play_told(played(course, number, 1, seed), as_planned(course), 0)


def what_matters(at: Reading) -> str:
    """All of a tour that its rehearsal depends on, as text: a rehearsal of one that says the same is its own."""
    asked = at.tour.model_dump_json(include=MATTERS)
    return f"{at.from_km:.3f} {asked}"
