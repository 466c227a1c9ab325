"""The supplies along the tour as lanes over its moments, and what to do about them at each stop."""

import datetime as dt
from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import CarriedSupply, Noun, Text

LaneGroup = Literal[CarriedSupply, "power", "small", "waste"]
Verb = Literal["fill", "buy", "refuel", "charge", "restock"]
LaneColumn = Annotated[list[float], Field(description="A value for each moment; a single one where it never changes")]


class LaneNote(Noun):
    """Something to know at a place of a lane."""

    km: float
    day: int
    words: Text


class Gone(Noun):
    """A stretch on which something is used up and none is left."""

    from_km: float
    to_km: float
    from_day: int
    to_day: int
    words: Text


class Lane(Noun):
    """One supply at every moment, in its unit."""

    key: str = Field(description="water, food, fuel, power, waste, or the identifier of what is used up")
    group: LaneGroup
    name: str
    unit: str = Field(description="The name of a quantity, or as it is: g, ml, pieces")
    stock: LaneColumn
    capacity: LaneColumn | None = Field(description="What there is room for; None: not limited")
    reserve: LaneColumn = Field(description="To be left where the stretch being ridden ends")
    short: LaneColumn = Field(description="What the stretch being ridden asks for beyond what is taken along")
    days_left: LaneColumn = Field(description="How long what is on board lasts [days]")
    a_day: float = Field(description="Used on a mean day")
    gone: list[Gone]
    notes: list[LaneNote]


class VesselFill(Noun):
    """A kind of vessel as it leaves a place."""

    thing_id: str
    name: str
    count: int
    holds: float = Field(description="One of them, in the unit of its supply")
    filled: float = Field(description="In one of them")
    soft: bool
    until_day: int | None = Field(description="When an empty one is filled next; None: it is filled, or never again")


class ShopItem(Noun):
    """Something to buy."""

    id: str
    name: str
    packs: int
    pack: float = Field(description="Of one pack, in the unit")
    unit: str
    kg: float
    litres: float = Field(description="Decanted [l]")
    sold_litres: float = Field(description="As it is sold [l]")
    price: float | None
    eat_first: bool = Field(description="Keeps only a few days there")


class Deed(Noun):
    """What to do for one supply at one stop."""

    lane: str
    verb: Verb
    unit: str
    amount: float = Field(description="Taken on, in the unit")
    leaves: float = Field(description="On board on leaving")
    asked: float = Field(description="What leaving asks for")
    short: float
    most: float | None = Field(description="What can be taken at most; None: as much as one likes")
    fixed: bool = Field(description="The amount is the rider's own")
    minutes: float = Field(description="By hand")
    money: float | None
    words: Text
    note: Text | None
    vessels: list[VesselFill]
    items: list[ShopItem]


class AtStop(Noun):
    """A place where something can be taken on, and what to do there."""

    stop_id: str | None = Field(description="None: the start")
    name: str
    at_km: float
    day: int
    date: dt.date
    hour: float = Field(description="Of arrival, wall clock")
    stays: bool
    minutes: float = Field(description="Of handling and charging, where one does not stay overnight")
    bin_kg: float = Field(description="Waste that goes into the bin here")
    deeds: list[Deed]


class PlanFigures(Noun):
    """What carrying and getting the supplies comes to."""

    kg_km: float
    minutes: float = Field(description="Of carrying them and of treating water")
    money: float | None = Field(description="Where everything that is bought has a price")


class StoresTold(Noun):
    """Everything that a tour's supplies come to."""

    lanes: list[Lane]
    stops: list[AtStop]
    plan: PlanFigures
    everywhere: PlanFigures = Field(description="The same with everything filled up wherever it can be")
    cooking_saves: float | None = Field(description="Money that cooking saves against eating out every evening")
    panel_days: int | None = Field(description="Days on which the panel gives something that finds room; None: there is none")
