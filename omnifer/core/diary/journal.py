"""Entries put in order: whichever phone they come from, in whichever order they arrive, whatever its clock said."""

import datetime as dt
from bisect import bisect_right
from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import cached_property
from uuid import UUID

from omnifer.core.model.diary import Entry, Received
from omnifer.core.physics.weighing import levelled

AHEAD = dt.timedelta(minutes=10)
"""A clock so far ahead of the hour at which its entry arrived is not believed; practice."""


AT_HOME = frozenset({"weighed", "checked", "verdict"})
"""What is noted before leaving and after coming home as well."""


@dataclass(frozen=True)
class Told:
    """An entry and when it is believed to have been noted."""

    received: Received
    at: dt.datetime
    """UTC."""
    doubted: bool
    """Whether the clock of its device was not believed."""

    @property
    def entry(self) -> Entry:
        """The entry itself."""
        return self.received.entry

    @property
    def weighs_kg(self) -> float:
        """Of a weighing: the middle one of its readings, or what was typed [kg]."""
        return levelled(self.entry.readings_kg) if self.entry.readings_kg else self.entry.amount or 0.0

    @property
    def wall(self) -> dt.datetime:
        """Wall clock where it was noted."""
        return self.at.replace(tzinfo=None) + dt.timedelta(minutes=self.entry.offset_min)

    @property
    def date(self) -> dt.date:
        """The day on which it was noted, by the wall clock there."""
        return self.wall.date()


@dataclass(frozen=True)
class Journal:
    """All entries of a tour, in the order in which they were noted."""

    every: tuple[Told, ...]

    @classmethod
    def of(cls, received: Iterable[Received]) -> "Journal":
        """Entries in order. The same entries give the same journal, however they are given."""
        by_phone: dict[str, list[Received]] = defaultdict(list)
        for one in {one.entry.id: one for one in received}.values():
            by_phone[one.entry.phone].append(one)
        told = [t for entries in by_phone.values() for t in _believed(entries)]
        return cls(tuple(sorted(told, key=lambda t: (t.at, t.entry.phone, t.entry.number, t.entry.id))))

    @cached_property
    def undone(self) -> frozenset[UUID]:
        """Entries that a counter-entry undid; a counter-entry can itself be undone."""
        found: set[UUID] = set()
        for told in reversed(self.every):
            if told.entry.undoes is not None and told.entry.id not in found:
                found.add(told.entry.undoes)
        return frozenset(found)

    @cached_property
    def standing(self) -> tuple[Told, ...]:
        """What holds: neither undone nor only there to undo."""
        return tuple(t for t in self.every if t.entry.verb != "undo" and t.entry.id not in self.undone)

    def of_verbs(self, *verbs: str) -> list[Told]:
        """What holds, of some kinds."""
        return [told for told in self.standing if told.entry.verb in verbs]


def on_road(journal: Journal) -> list[Told]:
    """Entries from setting out on: those of the last days at home and of the debrief are none."""
    out = set_out_at(journal)
    return [t for t in journal.standing if t.entry.verb not in AT_HOME and (out is None or t.at >= out)]


def placed(journal: Journal) -> Iterator[tuple[Told, float]]:
    """Entries on the road, each with its place [km]; one that says none is where the one before it was."""
    at_km = 0.0
    for told in on_road(journal):
        at_km = told.entry.km if told.entry.km is not None else at_km
        yield told, at_km


def set_out_at(journal: Journal) -> dt.datetime | None:
    """When the tour began, as noted."""
    told = journal.of_verbs("set_out")
    return told[0].at if told else None


def _believed(entries: list[Received]) -> list[Told]:
    """Entries of one device in the order of their numbers, with times that never run backwards.

    Of a clock that jumped the fewest entries are disbelieved: the longest row of times that follow each other counts, and the
    others were noted when the one before them was.
    """
    entries.sort(key=lambda one: (one.entry.number, one.entry.id))
    times = [one.entry.at.astimezone(dt.UTC) for one in entries]
    known = [at <= one.received_at + AHEAD for at, one in zip(times, entries, strict=True)]
    right = set(_longest([k for k, good in enumerate(known) if good], times))
    found: list[Told] = []
    first = min((times[k] for k in right), default=min(one.received_at for one in entries)) if entries else None
    for k, one in enumerate(entries):
        before = found[-1].at if found else first
        assert before is not None
        found.append(Told(one, times[k] if k in right else before, k not in right))
    return found


def _longest(candidates: list[int], times: list[dt.datetime]) -> list[int]:
    """The longest row of candidates whose times never fall."""
    ends: list[dt.datetime] = []
    last: list[int] = []
    before: dict[int, int | None] = {}
    for k in candidates:
        place = bisect_right(ends, times[k])
        before[k] = last[place - 1] if place else None
        ends[place : place + 1] = [times[k]]
        last[place : place + 1] = [k]
    row: list[int] = []
    at: int | None = last[-1] if last else None
    while at is not None:
        row.append(at)
        at = before[at]
    return row[::-1]
