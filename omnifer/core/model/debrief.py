"""What a tour that was ridden teaches: of each thing, bag and rule, of rates, and for the next time."""

from typing import Literal

from pydantic import Field

from omnifer.core.model.diary import Verdict
from omnifer.core.model.quantities import Noun, Text

Sure = Literal["sure", "fair", "a_hint"]


class LearnedRate(Noun):
    """A rate or a figure as the days of this tour teach it."""

    key: str
    name: str
    unit: str = Field(description="A quantity, or as it is")
    per: str
    assumed: float
    mean: float
    low: float = Field(description="Nine in ten lie between low and high")
    high: float
    sure: Sure
    noted: Text = Field(description="On what it rests, and under which conditions")
    takes: Literal["own_value", "thing_rate", "cut", "nothing"]
    takes_key: str = Field(description="The default, or the name of the thing, that it would change")
    takes_value: float = Field(description="What it would then be")
    taken: bool = Field(False, description="The tour it is offered to has it already")


class Mark(Noun):
    """Something that happened to a thing on a day."""

    day: int
    kind: Literal["left", "came", "broke", "lost", "wore_out"]


class ThingStory(Noun):
    """A thing's tour: carried, used, and what becomes of it."""

    thing_id: str
    library_id: str | None
    name: str
    bag: str
    carried_from: int
    carried_to: int = Field(description="Days on which it was on board, both counted")
    used_days: list[int] = Field(description="Days on which its use was noted")
    used: str = Field(description="In words: daily, on 9 of 40 days, ...")
    marks: list[Mark]
    kg: float
    litres: float
    minutes: float = Field(description="What it cost the party over the tour, riding and packing [min]")
    verdict: Verdict | None = Field(description="None: nobody said, and the diary does not tell")
    said: bool = Field(description="Its rider's own verdict; else as the diary proposes")
    words: Text
    deed: Literal["stays", "leave", "post", "replace", "take", "mark"]
    insurance: bool
    warms: bool = Field(description="It can be too cold")


class Lesson(Noun):
    """What a bag or a rule taught."""

    about: str
    name: str
    verdict: Verdict
    words: Text


class ChangedContact(Noun):
    """Something that was changed against an ache."""

    day: int
    what: str


class Ache(Noun):
    """A place that hurt on the way."""

    where: str
    days: list[int] = Field(description="On which it was noted")
    after_h: float | None = Field(description="In the middle after so long; None: nobody said [h]")
    changed: list[ChangedContact]
    better: bool | None = Field(description="After the last change; None: nothing was, or too few days tell")


class BikeMark(Noun):
    """Something that a bike had done to it on the way."""

    day: int
    km: float
    words: Text


class BikeStory(Noun):
    """A bike's tour: what was renewed, changed and weighed on it."""

    bike_id: str
    name: str
    marks: list[BikeMark]


class NextTime(Noun):
    """A line of the list for next time."""

    deed: Literal["leave", "post", "replace", "take"]
    thing_ids: list[str]
    names: list[str]
    kg: float = Field(description="Of the next load, less where negative")
    litres: float
    minutes_a_day: float


class Debrief(Noun):
    """The whole debrief."""

    days: int
    km: float
    unpacked: int = Field(description="Things with a verdict of their rider's")
    stories: list[ThingStory] = Field(description="Bag by bag as the cards have them")
    lessons: list[Lesson]
    rates: list[LearnedRate]
    aches: list[Ache]
    bikes: list[BikeStory] = Field(description="Those of which anything was noted")
    next_time: list[NextTime]
    kg: float = Field(description="What the next load would be lighter by")
    litres: float
    minutes_a_day: float
