"""What findings look at, and what a finding is before it is ranked."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from omnifer.core.load.limits import Loaded
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.assessment import Day, Gap
from omnifer.core.model.finding import FindingKind, Grade, Mend
from omnifer.core.model.needs import Sleeper, Wardrobe
from omnifer.core.model.quantities import Text
from omnifer.core.model.stance import Stance
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs.needed import Needed
from omnifer.core.sentence import km, number, say
from omnifer.core.voyage import Voyage


@dataclass(frozen=True)
class Situation:
    """All that findings look at."""

    tour: TourSheet
    voyage: Voyage | None
    loaded: Loaded
    days: list[Day]
    gaps: list[Gap]
    stances: dict[str, Stance]
    """By bike."""
    sleepers: list[Sleeper]
    wardrobes: list[Wardrobe]
    needed: Needed
    from_km: float = 0.0
    """Where the party is; what lies behind is ridden [km]."""

    @property
    def ahead_km(self) -> float:
        """How far it still is [km]."""
        return max(self.voyage.profile.length_km - self.from_km, 0.0) if self.voyage is not None else 0.0

    @property
    def bikes(self) -> list[BikeLoad]:
        """Every bike as it is loaded."""
        return self.loaded.bikes

    def when(self, moment: int) -> tuple[float | None, int | None, Text]:
        """Kilometre, day and words for a moment."""
        if self.voyage is None or not self.voyage.moments:
            return None, None, say("at the start")
        at = self.voyage.moments[moment]
        day = self.voyage.day_of(at.km, at.leaving)
        if at.place:
            return at.km, day, say("day {day}, leaving {place}", day=number(day), place=at.place)
        return at.km, day, say("day {day}, {km}", day=number(day), km=km(at.km))


@dataclass(frozen=True)
class Draft:
    """A finding before it is ranked."""

    kind: FindingKind
    grade: Grade
    sentence: Text
    reason: Text
    place: Text
    size: float
    at_km: float | None = None
    to_km: float | None = None
    day: int | None = None
    bike_id: str | None = None
    carrier_id: str | None = None
    need: float | None = None
    holds: float | None = None
    parts: dict[str, float] = field(default_factory=dict)
    mends: list[Mend] = field(default_factory=list)
    things: tuple[str, ...] = ()
    about: str | None = None
    """What tells it from others of its kind on its bike and in its bag; None: the names in its sentence, else its day."""

    hurts: bool = False
    """Somebody is hurt by it, though others of its kind only cost hours."""
    cause: str = ""
    """Drafts of a kind with one cause are one trouble, and are told as one finding; empty: each is its own."""
    cases: tuple[str, ...] = ()
    """Of one that was gathered: what each case would be called alone."""
    case: Text | None = None
    """This one among others of its cause, in a few words."""

    @property
    def key(self) -> str:
        """What stays the same while it is about the same, whatever its figures."""
        if self.cause:
            return f"{self.kind}:::{self.cause}"
        names = sorted(self.sentence.names.values()) or [str(self.day or "")]
        about = "+".join(names) if self.about is None else self.about
        return ":".join([self.kind, self.bike_id or "", self.carrier_id or "", about])


Check = Callable[[Situation], Iterator[Draft]]


def stretch(day: int, from_km: float, to_km: float) -> Text:
    """Where a stretch of the road lies, in words."""
    return say("day {day}, {from_km} to {to_km}", day=number(day), from_km=km(from_km), to_km=km(to_km))
