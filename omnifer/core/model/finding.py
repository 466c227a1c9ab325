"""What goes wrong on a tour or is worth knowing, and what would help."""

import datetime as dt

from pydantic import Field

from omnifer.core.model.kinds_of_finding import FindingKind as FindingKind
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import FoodShare, Placement
from omnifer.core.model.needs import Grade as Grade
from omnifer.core.model.needs import QuestionId as QuestionId
from omnifer.core.model.part import BikePart
from omnifer.core.model.quantities import Noun, Quantity, Text
from omnifer.core.model.rig import Carrier
from omnifer.core.model.road import DayCut, DayStart, Night, Stop
from omnifer.core.model.stores import Stores

GRADES: tuple[Grade, ...] = ("stops_you", "slows_you", "worth_knowing")


class PartTold(Noun):
    """What is said of a part of a bike."""

    bike_id: str
    part: BikePart


class Mend(Noun):
    """Something that would help, and what it does."""

    name: Text
    consequence: Text
    moves: list[Placement] = Field([], description="Placements to take instead of those of the same things")
    food: list[FoodShare] | None = Field(None, description="Shares of the food to take instead of those that are there")
    things: list[Thing] = Field([], description="Things to take instead of those with the same identifiers, or besides")
    gone: list[str] = Field([], description="Things that stay at home")
    stores: Stores | None = Field(None, description="What is decided of the stores instead")
    carriers: list[Carrier] = Field([], description="Carriers to take instead of those with the same identifiers")
    parts: list[PartTold] = Field([], description="What to say of parts of bikes instead")
    stops: list[Stop] = Field([], description="Stops to take instead of those with the same identifiers")
    start_date: dt.date | None = None
    starts: list[DayStart] = Field(
        [], description="Days to set out at another hour, instead of those that begin at the same places"
    )
    nights: list[Night] | None = Field(None, description="Nights to set instead of those that are set")
    cut: DayCut | None = Field(None, description="Another way to cut the days")

    @property
    def changes(self) -> bool:
        """Whether it changes the tour; else it only says what to do."""
        return self != Mend(name=self.name, consequence=self.consequence)


class Finding(Noun):
    """One thing that goes wrong, or is worth knowing."""

    id: str = Field(description="The same while it is about the same thing at the same place, whatever its figures")
    kind: FindingKind
    grade: Grade
    rank: int
    size: float = Field(description="Of two findings of a kind the larger is the worse")
    of_kit: bool = Field(description="About what the kit is for, rather than about how it rides and what it uses up")
    aside: str | None = Field(description="Why the rider has set it aside; such findings come last and stop nobody")
    small: bool = Field(description="Harms little, or there is enough that harms more: folded, after all others")
    cases: list[str] = Field(description="What it was gathered from, each as it would be called alone; empty: from nothing else")
    sentence: Text
    place: Text
    reason: Text
    at_km: float | None
    to_km: float | None
    day: int | None
    bike_id: str | None
    carrier_id: str | None
    thing_ids: list[str] = Field(description="The things that it is about")
    need: float | None
    holds: float | None
    parts: dict[str, float]
    quantity: Quantity | None


class Question(Noun):
    """What a rider asks before leaving, and the kinds of trouble that speak to it."""

    id: QuestionId
    words: str
    kinds: list[FindingKind]
    open: bool = Field(description="Nothing was said that could answer it")
    unsaid: str = Field(description="What to say, and where, so that it can be answered")
