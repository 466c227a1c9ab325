"""What was noted and does not go together: nothing is lost or refused, all of it is shown."""

from collections import Counter
from collections.abc import Iterator
from itertools import pairwise

from omnifer.core.diary.journal import AT_HOME, Journal, Told, on_road, set_out_at
from omnifer.core.diary.ridden import Ridden
from omnifer.core.model.diary import ABOUT_A_THING, GONE
from omnifer.core.model.ridden import Doubt
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import number, say

NO_THINGS = frozenset({*CARRIED, "power", "puncture", "pads", ""})
"""What entries are about besides things."""


def doubts_of(sheet: TourSheet, made: Ridden, journal: Journal) -> list[Doubt]:
    """Every contradiction, in the order in which it was noted."""
    return [*_otherwise(journal), *_clocks(journal), *_before_start(journal), *_things(sheet, made, journal), *_zones(journal)]


def _otherwise(journal: Journal) -> Iterator[Doubt]:
    for told in journal.standing:
        other = told.received.says_otherwise
        if other is not None:
            words = say(
                "{author} noted the same entry twice with different words: both are kept.", author=told.entry.author or "Somebody"
            )
            yield Doubt(kind="says_otherwise", entry_ids=[str(told.entry.id), str(other)], words=words)


def _clocks(journal: Journal) -> Iterator[Doubt]:
    wrong = [told for told in journal.standing if told.doubted]
    if wrong:
        words = say("The clock of a phone jumped: {count} entries are put where they were noted.", count=number(len(wrong)))
        yield Doubt(kind="clock", entry_ids=[str(t.entry.id) for t in wrong], words=words)


def _before_start(journal: Journal) -> Iterator[Doubt]:
    out = set_out_at(journal)
    early = [t for t in journal.standing if out is not None and t.at < out and t.entry.verb not in AT_HOME]
    if early:
        words = say("{count} entries lie before the start: they do not count for the road.", count=number(len(early)))
        yield Doubt(kind="before_start", entry_ids=[str(t.entry.id) for t in early], words=words)


def _things(sheet: TourSheet, made: Ridden, journal: Journal) -> Iterator[Doubt]:
    things = {thing.id: thing for thing in sheet.kit}
    left: Counter[str] = Counter()
    first: dict[str, Told] = {}
    for told in on_road(journal):
        entry = told.entry
        thing = things.get(entry.about)
        if thing is None:
            if entry.verb in ABOUT_A_THING and entry.about and entry.about not in NO_THINGS:
                words = say(
                    "{name} is no thing of this tour: its entry is kept and changes nothing.", name=entry.name or entry.about
                )
                yield Doubt(kind="unknown", entry_ids=[str(entry.id)], words=words)
            continue
        if entry.verb in GONE:
            left[thing.id] += int(entry.amount or thing.count)
            if left[thing.id] > thing.count:
                before = first.get(thing.id)
                kind = "gone_twice" if before is not None else "more_than_owned"
                words = say("{name} left the bikes more often than there were of it ({count}): undo one.", name=thing.name,
                            count=number(thing.count))  # fmt: skip
                ids = [str(t.entry.id) for t in (before, told) if t is not None]
                yield Doubt(kind=kind, entry_ids=ids, words=words)
            first.setdefault(thing.id, told)
        elif entry.verb == "used" and left[thing.id] >= thing.count:
            words = say("{name} was used after it had left: undo one of the two.", name=thing.name)
            yield Doubt(kind="used_when_gone", entry_ids=[str(first[thing.id].entry.id), str(entry.id)], words=words)
        elif entry.verb == "used" and thing.role is None and (entry.amount or 1) > thing.count:
            words = say("{amount} of {name} were used, there are {count}.", amount=number(entry.amount or 0), name=thing.name,
                        count=number(thing.count))  # fmt: skip
            yield Doubt(kind="more_than_owned", entry_ids=[str(entry.id)], words=words)


def _zones(journal: Journal) -> Iterator[Doubt]:
    """Where the wall clock changed: days count by the clock of the place."""
    road = on_road(journal)
    changed = [b for a, b in pairwise(road) if a.entry.offset_min != b.entry.offset_min]
    if changed and len({t.entry.offset_min for t in road}) > 1:
        words = say("The clock changed at a border: days count by the clock of the place.")
        yield Doubt(kind="zone", entry_ids=[str(t.entry.id) for t in changed], words=words)
