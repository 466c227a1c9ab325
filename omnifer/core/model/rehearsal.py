"""The tour played many times: how often what went wrong, where, and how bad; and the plan at a chosen risk."""

from typing import Literal

from pydantic import Field

from omnifer.core.model.kinds_of_finding import FindingKind
from omnifer.core.model.lanes import PlanFigures
from omnifer.core.model.quantities import CarriedSupply, Noun, Quantity, Text
from omnifer.core.model.stores import StoreStep

OutcomeId = Literal["dry", "cold", "stuck", "hungry", "dark", "fuelless", "late"]
"""What goes wrong in a play; the harm first."""
Rank = Literal["middling", "bad", "worst", "asked"]
FIRST_PLAYS, USUAL_PLAYS, MORE_PLAYS, MOST_PLAYS = 50, 200, 1000, 2000
"""Told at once; played where nothing else is asked; offered for who wants to be surer; and at most."""


class Counted(Noun):
    """A share of plays, with how sure it is: nine and a half in ten such intervals hold the share of endless plays."""

    count: int
    of: int
    low: float = Field(description="Wilson's interval, 95 % [-]")
    high: float


class AtGap(Noun):
    """A stretch between two places of a supply, or a place, and how often it went wrong there."""

    from_name: str
    to_name: str = Field(description="Empty: at the place")
    from_km: float
    to_km: float
    counted: Counted
    middle: float = Field(description="Half of these plays were worse; as the outcome's quantity")
    worst: float


class WithMore(Noun):
    """A little more of a supply taken along at one place, on the same fate."""

    name: str = Field(description="Of the place")
    amount: float = Field(description="More than planned [l, kg]; 0: the vessels hold no more there")
    quantity: Quantity
    counted: Counted = Field(description="Plays in which it then still runs out on the stretch from there")


class Decides(Noun):
    """What of an outcome one draw explains."""

    words: str
    share: float = Field(description="Of how the plays differ in it [-]; first order, by regression")


class Outcome(Noun):
    """Something that went wrong, over all plays."""

    id: OutcomeId
    supply: CarriedSupply | None = Field(description="What runs out; None: it is about no supply")
    name: str
    words: Text
    counted: Counted
    quantity: Quantity = Field(description="Of how bad it was")
    noun: str = Field(description="What is counted, where its quantity is a count")
    middle: float
    worst: float
    speaks_to: list[FindingKind] = Field(description="Findings that rest on a fixed reserve, and whose trouble this is")
    planned: bool = Field(description="Whether the plan itself already has it: without any chance")
    where: list[AtGap]
    decides: list[Decides]
    more: WithMore | None = Field(None, description="Of what runs out, where it does so most often")


class SupplyGap(Noun):
    """A stretch between two places that hand a supply over."""

    supply: CarriedSupply
    place: AtGap
    middle_use: float = Field(description="Half of the plays use more [l, kg]")
    high_use: float = Field(description="One in ten uses more")
    leaving: float = Field(description="Taken along as planned")


class FanPoint(Noun):
    """When a place is reached: days since the start, with the part of the day that is over."""

    km: float
    name: str
    planned: float
    low: float = Field(description="One in ten plays is sooner")
    middle: float
    high: float = Field(description="One in ten plays is later")
    heavy_low_kg: float = Field(description="Supplies on board on leaving [kg]")
    heavy_kg: float
    heavy_high_kg: float


class Range(Noun):
    """A figure of the tour over all plays."""

    name: str
    quantity: Quantity
    planned: float | None
    low: float
    middle: float
    high: float


class Told(Noun):
    """One play in a line."""

    number: int
    rank: Rank
    days_late: int
    wrong: list[OutcomeId]


class Event(Noun):
    """Something that happened in a play."""

    km: float
    day: float
    words: Text


class LeftToChance(Noun):
    """Something that is drawn anew for each play."""

    words: str
    how: str = Field(description="From which distribution")
    widths: list[str] = Field(description="Defaults that say how wide, or how likely, as they stand")


class Rehearsal(Noun):
    """What came of all plays. A share is of this model: the sure thing stays to carry more and to turn back."""

    plays: int
    seed: int
    fine: Counted = Field(description="Plays in which nothing went wrong")
    outcomes: list[Outcome]
    gaps: list[SupplyGap]
    fan: list[FanPoint]
    year: list[Range]
    told: list[Told]
    drawn: list[LeftToChance]
    leaves_out: list[str]


class PlayTold(Noun):
    """One play, along the road; lists are alike long."""

    told: Told
    km: list[float]
    names: list[str]
    when: list[float] = Field(description="Days since the start, with the part of the day that is over")
    behind: list[float] = Field(description="Days later than planned")
    water_l: list[float]
    food_kg: list[float]
    fuel_kg: list[float]
    events: list[Event]


class RiskPoint(Noun):
    """A plan, by how much it carries and how often somebody runs out on it."""

    name: str = Field(description="Empty: at the risk that is shared out")
    kg_km: float = Field(description="Of the supply, over the whole road [kg km]")
    counted: Counted = Field(description="Plays in which it is used up somewhere")


class RiskPlan(Noun):
    """The least to carry at a chosen risk."""

    supply: CarriedSupply
    risk: float = Field(description="Accepted share of tours like this on which it is used up somewhere [-]")
    plays: int
    now: Counted = Field(description="Plays in which it runs out as planned now")
    reached: Counted = Field(description="Plays in which it runs out with this plan, played as a whole")
    curve: list[RiskPoint] = Field(description="From the rarest to the most often")
    plans: list[RiskPoint] = Field(description="Plans as they are made by rule")
    steps: list[StoreStep]
    cannot: list[AtGap] = Field(description="Stretches on which no vessel holds what the risk asks for")
    stands: PlanFigures = Field(description="Of all supplies as planned now")
    figures: PlanFigures = Field(description="Of all supplies with this plan")


class SparesWanted(Noun):
    """A kind of fault, and the parts for it."""

    words: str
    stops: bool
    owned: int = Field(description="Faults of the kind that what is on board mends")
    wanted: int = Field(description="At the chosen risk, from one workshop to the next")
    short: Counted = Field(description="Plays in which there are more than are mended")


class SparesAtRisk(Noun):
    """Parts to carry at a chosen risk for the whole tour."""

    risk: float
    now: Counted = Field(description="Plays in which some part is lacking as the kit is")
    parts: list[SparesWanted]


class Compared(Noun):
    """An outcome of two plans on the same fate."""

    id: OutcomeId
    name: str
    words: Text
    now: Counted
    then: Counted
    better: int = Field(description="Plays that go wrong now and not then")
    worse: int = Field(description="Plays that go wrong then and not now")


class Middle(Noun):
    """The middle of a figure over all plays, of two plans."""

    name: str
    quantity: Quantity
    now: float
    then: float


class TwoPlans(Noun):
    """Two plans on the same fate, play by play."""

    plays: int
    outcomes: list[Compared]
    year: list[Middle]
