"""The tour as ridden up to here, what is left of it, and how its load came to be what it is."""

import datetime as dt
from typing import Literal

from pydantic import Field

from omnifer.core.model.assessment import Day, Moments
from omnifer.core.model.finding import Finding
from omnifer.core.model.lanes import Verb as StoreVerb
from omnifer.core.model.needs import CareTask
from omnifer.core.model.quantities import Noun, Text


class Doubt(Noun):
    """Something noted that does not go together with the rest; it is kept, and shown."""

    kind: Literal["before_start", "more_than_owned", "used_when_gone", "gone_twice", "clock", "says_otherwise", "unknown", "zone"]
    entry_ids: list[str]
    words: Text


class Planned(Noun):
    """What comes next of one supply."""

    verb: StoreVerb
    supply: str
    amount: float = Field(description="In the unit of the supply")
    words: Text
    where: Text
    at_km: float
    ahead_km: float


class LoadStep(Noun):
    """A place at which the load changed for good, and by what."""

    entry_id: str
    km: float
    day: int
    kg: float = Field(description="Off the bikes where negative")
    words: Text


class Weighing(Noun):
    """The laden bikes as a scale had them."""

    km: float
    day: int
    kg: float
    bike_id: str


class LoadHistory(Noun):
    """Mass on the bikes, day by day: as planned, as ridden, and what made the difference."""

    day: list[float] = Field(description="On the axis of days, from 0")
    planned_kg: list[float]
    ridden_day: list[float]
    ridden_kg: list[float]
    steps: list[LoadStep]
    weighings: list[Weighing]
    start_kg: float
    now_kg: float


class RiddenCourse(Noun):
    """The tour as it went, and from where the party is as it is planned now: what a drawing of it along the road needs."""

    days: list[Day]
    moments: Moments | None
    at_km: float = Field(description="Up to here it is ridden")


class Spent(Noun):
    """Money noted, by what it was for."""

    what: str
    money: float
    a_day: float


class Used(Noun):
    """What one thing or supply had to do so far."""

    about: str
    name: str
    amount: float
    unit: str
    days: list[int] = Field(description="Days on which it was noted")


class DefaultAmount(Noun):
    """What a button offers: the amount that the plan has for a day."""

    about: str
    name: str
    amount: float
    unit: str
    step: float


class AskedTonight(Noun):
    """A question that is due this evening."""

    key: Literal["slept", "water_left", "food_left", "load", "bolts"]
    about: str = Field("", description="The check that it is")
    words: str


class DayMade(Noun):
    """One day as it was ridden, or as it is planned now."""

    number: int
    date: dt.date
    from_km: float
    to_km: float
    ridden: bool


class Now(Noun):
    """Where the party is, and what is left."""

    begun: bool
    over: bool
    at_km: float
    day: int
    date: dt.date
    wall: dt.datetime | None = Field(description="Of the last entry that says so")
    known_by: Literal["plan", "entry", "track"]
    planned_km: float = Field(description="Where the plan would be now")
    behind_km: float
    behind_days: float
    more_km_a_day: float = Field(description="That would end the tour on its day; 0: it does anyway")
    days_left: int
    end_date: dt.date
    planned_end: dt.date
    sentence: Text
    second: Text
    planned: list[Planned]
    findings: list[Finding] = Field(description="Of the rest only")
    days: list[DayMade]
    history: LoadHistory
    spent: list[Spent]
    used: list[Used]
    defaults: list[DefaultAmount]
    tonight: list[AskedTonight]
    care: list[CareTask] = Field(description="What the bikes ask for this evening")
    doubts: list[Doubt]
    gone: dict[str, str] = Field(description="Things that are on board no more, and why")
