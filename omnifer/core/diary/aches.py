"""Where it hurt on the way, after which hours, what was changed, and whether that helped."""

from collections.abc import Iterator

import numpy as np

from omnifer.core.diary.journal import Journal, on_road
from omnifer.core.diary.now import Replanned
from omnifer.core.model.debrief import Ache, ChangedContact
from omnifer.core.model.diary import ACHES, CHANGED

ENOUGH_DAYS, FEWER = 3, 0.5
"""After so many riding days one can say whether a change helped: it did where it then hurt on no more than this part as many of
them as before [d, -]; practice."""


def aches_of(made: Replanned, journal: Journal) -> list[Ache]:
    """Every place that was noted, the one that hurt on most days first."""
    return sorted(_aches(made, journal), key=lambda ache: (-len(ache.days), ache.where))


def _aches(made: Replanned, journal: Journal) -> Iterator[Ache]:
    set_out, riding = made.ridden.here.set_out, [day.number for day in made.rest.days if not day.rest]
    noted = [((told.date - set_out).days + 1, told.entry) for told in on_road(journal) if told.entry.verb == "hurt"]
    for where in ACHES:
        mine = [(day, entry) for day, entry in noted if entry.about == where]
        hurt = sorted({day for day, entry in mine if entry.word not in CHANGED})
        changed = [ChangedContact(day=day, what=entry.word) for day, entry in mine if entry.word in CHANGED]
        if not hurt and not changed:
            continue
        hours = [entry.amount for _, entry in mine if entry.amount is not None and entry.word not in CHANGED]
        yield Ache(
            where=where, days=hurt, after_h=round(float(np.median(hours)), 1) if hours else None, changed=changed,
            better=_better(hurt, changed, [day for day in riding if day <= made.ridden.here.day]),
        )  # fmt: skip


def _better(hurt: list[int], changed: list[ChangedContact], riding: list[int]) -> bool | None:
    """Whether it hurt on fewer days after the last change; None: nothing was changed, or too few days tell."""
    if not changed:
        return None
    last = changed[-1].day
    before, after = [d for d in riding if d <= last], [d for d in riding if d > last]
    if not before or len(after) < ENOUGH_DAYS:
        return None
    part = [sum(day in hurt for day in days) / len(days) for days in (before, after)]
    return part[0] > 0 and part[1] <= FEWER * part[0]
