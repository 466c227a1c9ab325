"""An assessment in stages: each says what it reads, and is worked out again only where something of that has changed.

A stage is a pure function of a `Reading`: some parts of a tour, and other stages. What it made is kept, by the very values that
it read, for whoever asks next in this process: an assessment, a course, a mend that is tried. Nothing but time depends on it.

    @stage("riders", "rig", PROFILE)
    def stances(at: Reading) -> dict[str, Stance]: ...

    Reading(tour, profile)[stances]
"""

import logging
from collections import deque
from collections.abc import Callable, Mapping
from threading import Lock
from typing import Any, Generic, TypeVar, cast

from pydantic import PrivateAttr

from omnifer.core.model.kit import NOTED, UNRIDDEN, Thing, Unread
from omnifer.core.model.quantities import blank_of
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile

log = logging.getLogger(__name__)

Made = TypeVar("Made")
PROFILE, FROM_KM = "profile", "from_km"
"""What a reading has besides the parts of the tour."""
RIDDEN = "kit.ridden"
"""The kit with no more of each thing than a ride depends on: not what it is called, nor what it is packed beside."""


def _where_unread(mark: Unread) -> dict[str, object]:
    """Fields of a thing that are so marked, and what all things have there: what a blank one has."""
    blank = dict(blank_of(Thing))
    return {name: blank[name] for name, field in Thing.model_fields.items() if mark in field.metadata}


NOT_RIDDEN: Mapping[str, object] = _where_unread(UNRIDDEN)
NOTES: Mapping[str, object] = _where_unread(NOTED)
PARTS = frozenset(TourSheet.model_fields)
KEPT_PARTS = 8
"""Values of each part that are known again."""
KEPT = 3
"""Results of each stage that are kept: of the voyage, the largest by far, each weighs some 20 MB."""


def _undeclared(stage: str, part: str) -> None:
    """Told of each such reading; what was made by it is not kept. Tests make it an error."""
    log.error("stage %s read %s, which it does not declare: its result is not kept", stage, part)


on_undeclared: Callable[[str, str], None] = _undeclared


class _Watched(TourSheet):
    """A tour as a stage reads it: it knows what it may be asked for."""

    _asked: "_Asked" = PrivateAttr()

    def __getattribute__(self, name: str) -> Any:
        if name in PARTS:
            private = object.__getattribute__(self, "__pydantic_private__")
            if private is not None:
                private["_asked"].for_(name)
        return super().__getattribute__(name)


class _Asked:
    """What a stage may ask for, and whether it asked for more."""

    def __init__(self, stage: str, may: frozenset[str]) -> None:
        self.stage, self.may, self.more = stage, may, False

    def for_(self, name: str) -> None:
        if name not in self.may:
            self.more = True
            on_undeclared(self.stage, name)


class Kept(Generic[Made]):
    """The last few things that were made of one kind.

    Parameters
    ----------
    most : int
        How many; what was not asked for longest goes first.
    """

    def __init__(self, most: int = KEPT) -> None:
        self._kept: deque[tuple[tuple[object, ...], tuple[object, ...], Made]] = deque(maxlen=most)
        self._lock = Lock()
        EVERY.append(self)

    def of(self, very: tuple[object, ...], equal: tuple[object, ...], make: Callable[[], Made]) -> Made:
        """What was made of the very same, and of what is equal; made now where nothing was."""
        for one in reversed(self.all()):
            if all(a is b for a, b in zip(one[0], very, strict=True)) and one[1] == equal:
                self._last(one)
                return one[2]
        made = make()
        self.keep(very, equal, made)
        return made

    def all(self) -> list[tuple[tuple[object, ...], tuple[object, ...], Made]]:
        """What is kept, the oldest first: what it was made of, and what was made."""
        with self._lock:
            return list(self._kept)

    def keep(self, very: tuple[object, ...], equal: tuple[object, ...], made: Made) -> None:
        """Keep something."""
        with self._lock:
            self._kept.append((very, equal, made))

    def again(self, very: tuple[object, ...]) -> tuple[bool, Made | None]:
        """Whether something was made of the very same, and what."""
        one = next((one for one in reversed(self.all()) if all(a is b for a, b in zip(one[0], very, strict=True))), None)
        if one is None:
            return False, None
        self._last(one)
        return True, one[2]

    def _last(self, one: tuple[tuple[object, ...], tuple[object, ...], Made]) -> None:
        """What was asked for just now goes last."""
        with self._lock:
            for k, other in enumerate(self._kept):
                if other is one:
                    del self._kept[k]
                    self._kept.append(one)
                    break

    def forget(self) -> None:
        """Let go of all of it."""
        with self._lock:
            self._kept.clear()


EVERY: "list[Kept[Any]]" = []
"""All that keeps anything."""


class Stage(Generic[Made]):
    """One stage: what it reads, and how it is worked out.

    Parameters
    ----------
    reads : sequence of str or Stage
        Parts of the tour, `PROFILE`, `FROM_KM`, `RIDDEN` in place of the kit, and other stages.
    named : callable, optional
        Whose name and summary it has; else those of what makes it.
    by_value : bool
        Whether an equal result counts as the same one, so that what reads it need not be worked out again.
    """

    def __init__(
        self, make: "Callable[[Reading], Made]", reads: "tuple[str | Stage[Any], ...]", by_value: bool = False,
        named: Callable[..., Any] | None = None,
    ) -> None:  # fmt: skip
        after = named or make
        self.name = f"{after.__module__.removeprefix('omnifer.core.')}.{after.__name__}"
        self.summary = (after.__doc__ or "").split("\n")[0]
        self.reads, self.by_value, self.make = reads, by_value, make
        parts = {read for read in reads if isinstance(read, str)}
        self.may = frozenset(parts | ({"kit"} if RIDDEN in parts else set()))
        self.before = frozenset(read for read in reads if isinstance(read, Stage))
        self._kept: Kept[Made] = Kept()
        ALL.append(self)

    def __repr__(self) -> str:
        return self.name

    def of(self, at: "Reading") -> Made:
        """What was made of the very same, or is made now."""
        read = tuple(at.part(r) if isinstance(r, str) else at[r] for r in self.reads)
        there, before = self._kept.again(read)
        if there:
            return cast(Made, before)
        within = at.for_(self)
        made = self.make(within)
        if self.by_value:
            made = next((one for _, _, one in reversed(self._kept.all()) if one == made), made)
        if not within.asked.more:
            self._kept.keep(read, (), made)
        return made


ALL: list[Stage[Any]] = []
"""Every stage there is, each after those that it reads."""


def stage(*reads: str | Stage[Any], by_value: bool = False) -> "Callable[[Callable[[Reading], Made]], Stage[Made]]":
    """Makes a stage of a function; see `Stage`."""

    def staged(make: "Callable[[Reading], Made]") -> Stage[Made]:
        return Stage(make, reads, by_value)

    return staged


class Reading:
    """A tour on its road, for stages to read.

    Parameters
    ----------
    profile : Profile or None
        None while the tour has no road.
    from_km : float
        Where the party is; what lies behind is ridden [km].
    given : mapping, optional
        What some stages are taken to have made, though the tour may say otherwise.
    """

    def __init__(
        self, tour: TourSheet, profile: Profile | None, from_km: float = 0.0, given: Mapping[Stage[Any], Any] | None = None
    ) -> None:  # fmt: skip
        self._tour = self._whole = tour
        self._profile, self._from_km = profile, from_km
        self._parts: dict[str, object] = {}
        self._made: dict[Stage[Any], Any] = dict(given or {})
        self.asked = _Asked("", frozenset())
        self._stage: Stage[Any] | None = None

    @property
    def tour(self) -> TourSheet:
        """The tour; within a stage one that tells what is read of it."""
        return self._tour

    @property
    def profile(self) -> Profile | None:
        """The road."""
        if self._stage is not None:
            self.asked.for_(PROFILE)
        return self._profile

    @property
    def from_km(self) -> float:
        """Where the party is [km]."""
        if self._stage is not None:
            self.asked.for_(FROM_KM)
        return self._from_km

    def __getitem__(self, stage: Stage[Made]) -> Made:
        """What a stage makes of it."""
        if self._stage is not None and stage not in self._stage.before:
            self.asked.for_(stage.name)
        if stage not in self._made:
            self._made[stage] = stage.of(self)
        made: Made = self._made[stage]
        return made

    def part(self, name: str) -> object:
        """A part of the tour, the very one that an earlier reading had where it was equal."""
        if name not in self._parts:
            self._parts[name] = self._known(name)
        return self._parts[name]

    def _known(self, name: str) -> object:
        match name:
            case "profile":
                return self._profile
            case "from_km":
                return _PARTS.known(name, self._from_km)
            case "kit":
                return _PARTS.known(name, tuple(_without_notes(thing) for thing in self._whole.kit))
            case "kit.ridden":
                kit = cast(tuple[Thing, ...], self.part("kit"))
                ridden = _RIDDEN.of((kit,), (), lambda: tuple(t.model_copy(update=dict(NOT_RIDDEN)) for t in kit))
                return _PARTS.known(name, ridden)
            case _:
                return _PARTS.known(name, getattr(self._whole, name))

    def all_but(self, *names: str) -> tuple[object, ...]:
        """Within a stage: the very values of all that it declares, but for some parts."""
        reads = self._stage.reads if self._stage is not None else ()
        return tuple(self.part(r) if isinstance(r, str) else self[r] for r in reads if r not in names)

    def for_(self, stage: Stage[Any]) -> "Reading":
        """The same for one stage, which tells what it reads."""
        tour = _Watched.model_construct(**{name: self._told(name, stage) for name in PARTS})
        within = Reading(tour, self._profile, self._from_km)
        within._whole = self._whole
        within._parts, within._made, within._stage = self._parts, self._made, stage
        within.asked = _Asked(stage.name, stage.may)
        tour._asked = within.asked
        return within

    def _told(self, name: str, stage: Stage[Any]) -> Any:
        if name == "kit" and RIDDEN in stage.may:
            return self.part(RIDDEN)
        return self.part(name) if name in stage.may else getattr(self._whole, name)


class _Parts:
    """Values of parts, to know them again."""

    def __init__(self) -> None:
        self._kept: dict[str, Kept[object]] = {name: Kept(KEPT_PARTS) for name in (*PARTS, FROM_KM, RIDDEN)}

    def known(self, name: str, value: object) -> object:
        """The value that was equal to this one, if there was one lately."""
        return self._kept[name].of((), (value,), lambda: value)


_PARTS = _Parts()
_RIDDEN: Kept[tuple[Thing, ...]] = Kept(KEPT_PARTS)


def _without_notes(thing: Thing) -> Thing:
    noted = {name for name, nothing in NOTES.items() if getattr(thing, name) != nothing}
    return thing.model_copy(update={name: NOTES[name] for name in noted}) if noted else thing


def forget() -> None:
    """Let go of all that is kept: what comes next is worked out from scratch."""
    for kept in EVERY:
        kept.forget()
