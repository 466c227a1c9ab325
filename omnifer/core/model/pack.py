"""The last days at home as they are told: checks, the companion's page, and travelling with the bike."""

from typing import Literal

from pydantic import Field

from omnifer.core.model.quantities import Noun, Text

CheckList = Literal["service", "trial", "again", "first_aid", "last", "home"]
CheckState = Literal["open", "done", "trouble"]


class Check(Noun):
    """One thing to look at or to try before leaving."""

    key: str = Field(description="What an entry about it names")
    of: CheckList
    bike_id: str | None
    words: Text
    state: CheckState
    by: str = Field(description="Who noted it last")
    costs: Text | None = Field(description="What follows while it is not done, or once it is trouble; None: nothing here tells")
    view: str = Field(description="Where the rule behind it is seen; empty: nowhere")


class WhereIs(Noun):
    """A line of the page for a companion: what is wanted in a hurry, and the bag that has it."""

    words: str
    thing: str
    bike: str
    carrier_id: str
    bag: str
    mark: str = Field(description="Side, and the rider's own colour or label")
    step: str = Field(description="How deep it lies")


class RiderPage(Noun):
    """One page a rider: for the companion who has to find something."""

    rider_id: str
    name: str
    lines: list[WhereIs]


class Straps(Noun):
    """The straps of a bike, each to be counted."""

    bike_id: str
    needed: int
    spare: int
    hang: list[str] = Field(description="Bags that one lost strap stops")


Answer = Literal["fits", "over", "ask", "not_allowed", "to_do", "told"]


class TravelLine(Noun):
    """One thing to do or to know before getting in."""

    answer: Answer
    words: Text


class Travel(Noun):
    """One journey with the bikes."""

    at_km: float
    by: str
    goes: str
    name: str
    departs_h: float | None
    leave_by_h: float | None = Field(description="From where the night before is spent, wall clock [h]")
    ride_km: float = Field(description="From there to where one gets in")
    pace_kmh: float
    boxing_minutes: float = Field(description="Before, and as long again after")
    lines: list[TravelLine]


class PackPage(Noun):
    """Everything before leaving but cards and scale."""

    checks: list[Check]
    riders: list[RiderPage]
    straps: list[Straps]
    travel: list[Travel]
    caution: str
    first_aid: str = Field(description="What is to be said of the list of a first-aid kit")
    trial: str = Field(description="How the trial ride is ridden")
