"""What findings look at, and what a finding is before it is ranked."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from functools import partial, update_wrapper
from typing import Any, Literal, ParamSpec

import numpy as np

from omnifer.core.itinerary import days_of, gaps_of
from omnifer.core.load.limits import Limit, Loaded, limits_of
from omnifer.core.load.stance import stance_of
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.assessment import Day, Gap
from omnifer.core.model.finding import FindingKind, Grade, Mend, QuestionId
from omnifer.core.model.kit import Thing
from omnifer.core.model.needs import Sleeper, Wardrobe
from omnifer.core.model.quantities import Quantity, Text
from omnifer.core.model.stance import Stance
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import clothes, sleep
from omnifer.core.needs.asking import reached_when
from omnifer.core.needs.needed import Needed
from omnifer.core.needs.needed import needed as all_needed
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import km, number, say
from omnifer.core.stages import PROFILE, Kept, Reading, Stage, stage
from omnifer.core.supplies.stock import Stock, vessels
from omnifer.core.voyage import Voyage, voyage_of


@stage("kit", "load", "rig", by_value=True)
def held(at: Reading) -> list[tuple[Thing, int]]:
    """The vessels on board, and how many of each."""
    return vessels(at.tour)


@stage(voyage_of, held, "kit")
def stock(at: Reading) -> Stock:
    """What is on board of every supply at each moment, and what holds it."""
    voyage = at[voyage_of]
    if voyage is None:
        return Stock.none(at.tour, at[held])
    return Stock.of(at.tour, voyage.stock, voyage.at_km, at[held])


@stage("kit", "own_values", "riders", "rig")
def limits(at: Reading) -> list[Limit]:
    """Every limit of the rig."""
    return limits_of(at.tour)


@stage(stock, limits, "aims", "kit", "load", "own_values", "riders", "rig", "stores")
def loaded(at: Reading) -> Loaded:
    """Every bike as it is loaded along the road; a bike on which nothing moved stays as it is."""
    tour, same = at.tour, at.all_but("load")
    bikes = [
        _BIKES.of(
            (bike, *same),
            (tuple(p for p in tour.load.placements if p.carrier_id in {c.id for c in bike.carriers}), tour.load.food),
            lambda bike=bike: BikeLoad(tour, bike, at[stock]),  # type: ignore[misc]
        )
        for bike in tour.rig.bikes
    ]
    return Loaded(tour, at[stock], bikes, at[limits])


_BIKES: Kept[BikeLoad] = Kept(24)
"""Of three tours with the most bikes that there can be."""


@stage(loaded, "own_values", "riders", PROFILE)
def stances(at: Reading) -> dict[str, Stance]:
    """How each bike stands and rolls as it is loaded."""
    riders, road = {rider.id: rider for rider in at.tour.riders}, at.profile
    steepest = float(np.max(road.gradient)) if road is not None and road.has_heights else None
    return {load.bike.id: stance_of(load, riders[load.bike.rider_id], steepest, at.tour.practice) for load in at[loaded].bikes}


@stage(voyage_of, "own_values", "road", "start_date", by_value=True)
def days(at: Reading) -> list[Day]:
    """Every day, rest days included; none without a road."""
    voyage = at[voyage_of]
    return days_of(at.tour, voyage) if voyage else []


@stage(voyage_of, "own_values", "road", by_value=True)
def gaps(at: Reading) -> list[Gap]:
    """Every stretch between supplies; none without a road."""
    voyage = at[voyage_of]
    return gaps_of(at.tour, voyage) if voyage else []


@stage(days, "kit", "own_values", "riders", "road", by_value=True)
def sleepers(at: Reading) -> list[Sleeper]:
    """Every rider's nights."""
    return sleep.sleepers(at.tour, at[days])


@stage(days, "kit", "own_values", "riders", "road", "stores", by_value=True)
def wardrobes(at: Reading) -> list[Wardrobe]:
    """Every rider's clothes along the tour."""
    return clothes.wardrobes(at.tour, at[days])


@stage("kit", "load", "rig", by_value=True)
def reached(at: Reading) -> dict[str, int]:
    """The most urgent moment at which a hand finds each thing that is stowed."""
    return reached_when(at.tour)


@stage(voyage_of, days, reached, "answers", "kit", "own_values", "riders", "rig", "road", "stores")
def needed(at: Reading) -> Needed:
    """What the tour asks for, and what answers it."""
    when = at[reached]
    return all_needed(at.tour, at[voyage_of], at[days], when)


class Situation:
    """All that findings look at: the tour as it is ridden and loaded, worked out as it is asked for.

    Parameters
    ----------
    at : Reading
        The tour on its road, and where the party is.
    """

    def __init__(self, at: Reading) -> None:
        self.at = at

    @property
    def tour(self) -> TourSheet:
        """The tour."""
        return self.at.tour

    @property
    def from_km(self) -> float:
        """Where the party is; what lies behind is ridden [km]."""
        return self.at.from_km

    @property
    def voyage(self) -> Voyage | None:
        """The tour played over its road; None without one."""
        return self.at[voyage_of]

    @property
    def loaded(self) -> Loaded:
        """Every bike as it is loaded along the road."""
        return self.at[loaded]

    @property
    def days(self) -> list[Day]:
        """Every day."""
        return self.at[days]

    @property
    def gaps(self) -> list[Gap]:
        """Every stretch between supplies."""
        return self.at[gaps]

    @property
    def stances(self) -> dict[str, Stance]:
        """How each bike stands and rolls."""
        return self.at[stances]

    @property
    def sleepers(self) -> list[Sleeper]:
        """Every rider's nights."""
        return self.at[sleepers]

    @property
    def wardrobes(self) -> list[Wardrobe]:
        """Every rider's clothes along the tour."""
        return self.at[wardrobes]

    @property
    def needed(self) -> Needed:
        """What the tour asks for."""
        return self.at[needed]

    def loaded_otherwise(self, tour: TourSheet, road: Profile | None) -> "Situation":
        """The same tour loaded otherwise, at the pace and with the supplies that it has now: near enough to try a change."""
        as_now: tuple[Stage[Any], ...] = (voyage_of, stock, days, gaps, sleepers, wardrobes, needed)
        return Situation(Reading(tour, road, self.from_km, {one: self.at[one] for one in as_now}))

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
    mends: "Sequence[Mend] | Making" = ()
    """What would help: at hand, or what makes it once somebody asks; see `later`."""
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

    def offers(self) -> list[Mend]:
        """What would help, made now."""
        return list(self.mends() if callable(self.mends) else self.mends)


Look = Callable[[Situation], Iterator[Draft]]
READ_AS: dict[str, Stage[Any]] = {
    "voyage": voyage_of, "loaded": loaded, "stances": stances, "days": days, "gaps": gaps, "sleepers": sleepers,
    "wardrobes": wardrobes, "needed": needed,
}  # fmt: skip
"""What a situation calls the stages that it shows."""


Harm = Literal["hurts", "strands", "delays", "costs"]
"""Whom or what trouble harms, the worst first: somebody is hurt; the tour ends or somebody is stranded; hours are lost; it costs
comfort or money. Practice."""


@dataclass(frozen=True)
class Spec:
    """All that is said of a kind of trouble, once, where it is looked for: a decorator of the check that finds it."""

    kind: FindingKind
    question: QuestionId
    """The rider's question that it answers."""
    harm: Harm
    small: bool = False
    """Where it is only worth knowing it is a small thing: folded, and never told first."""
    preparing: bool = False
    """It is mended at home, and nobody wants to hear of it on the road."""
    no_lack: bool = False
    """It says that something is too much, worn or of no use, not that something lacks."""
    needless: bool = False
    """It makes needless what a mend of another trouble brings along."""
    quantity: Quantity = "mass"
    """Of need and what holds it."""
    loaded: Literal["bag", "bike", "things", "out"] | None = None
    """Loading otherwise can mend it: what lies in that bag, on that bike, those things, or what is left out."""
    too_much: bool = False
    """Leaving a thing at home can end it."""
    of_size: bool = False
    """Another bag can end it."""
    seasonal: bool = False
    """Another date can end it."""
    advice: tuple[str, str] | None = None
    """Said, with why, where nothing that can be tried helps; practice."""

    def __call__(self, check: "Check") -> "Check":
        """Says of a check that it finds this."""
        check.finds = (self, *check.finds)
        return check


class Check:
    """A look for some kinds of trouble, which says what of a situation it looks at.

    Parameters
    ----------
    look : callable
        Gives what is found.
    reads : sequence of str or Stage
        As of a stage.
    """

    def __init__(self, look: Look, reads: tuple[str | Stage[Any], ...]) -> None:
        self.look, self.reads = look, reads
        self.finds: tuple[Spec, ...] = ()
        """What it looks for."""
        update_wrapper(self, look)

    @property
    def kinds(self) -> frozenset[FindingKind]:
        """The kinds of trouble that it looks for."""
        return frozenset(spec.kind for spec in self.finds)

    def __call__(self, s: Situation) -> Iterator[Draft]:
        """What is found in a situation."""
        return self.look(s)


def looks_at(*names: str | Stage[Any]) -> Callable[[Look], Check]:
    """Makes a check of a function: says by name which parts of the tour and of its situation it looks at."""
    return lambda look: Check(look, tuple(READ_AS.get(name, name) if isinstance(name, str) else name for name in names))


Making = Callable[[], Iterable[Mend]]
P = ParamSpec("P")


def later(make: Callable[P, Mend | Iterable[Mend]], *args: P.args, **kwargs: P.kwargs) -> Making:
    """Mends that are made once somebody asks for them: looking for a place for what they bring takes its time."""
    return partial(_made, partial(make, *args, **kwargs))


def _made(make: Callable[[], Mend | Iterable[Mend]]) -> Iterable[Mend]:
    made = make()
    return (made,) if isinstance(made, Mend) else made


def stretch(day: int, from_km: float, to_km: float) -> Text:
    """Where a stretch of the road lies, in words."""
    return say("day {day}, {from_km} to {to_km}", day=number(day), from_km=km(from_km), to_km=km(to_km))
