"""What a tour asks for beyond supplies and limits, and whether the kit answers."""

from typing import Literal

from pydantic import Field

from omnifer.core.model.part import PartKind
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.roles import Piece

Grade = Literal["stops_you", "slows_you", "worth_knowing"]
QuestionId = Literal["warm", "dressed", "clean", "mended", "seen", "safe", "complete", "spared", "supplied", "packed"]
"""What a rider asks before leaving; see `findings.questions`."""


class SleptNight(Noun):
    """One night of one rider."""

    day: int
    low_c: float = Field(description="Cold night to plan for [°C]")
    indoors: bool = Field(description="In a room: nothing to sleep in is asked for")
    bears_c: float | None = Field(description="Down to where the rider sleeps warm [°C]; None: there is nothing to sleep in")
    short_k: float = Field(description="So much colder it is than the rider sleeps warm [K]; 0: warm enough")
    far_too_warm: bool = Field(description="What the rider has is carried for nothing that night")


class Sleeper(Noun):
    """A rider's nights, and what keeps the rider warm on the coldest of them."""

    rider_id: str
    nights: list[SleptNight]
    thing_ids: list[str] = Field(description="Bag, mats and layers on the night that is shortest, or on the coldest")
    spare_k: float | None = Field(
        description="Between what the rider bears and what the coldest night out of doors of the tour falls below with the chosen"
        " odds; below 0: so much is lacking; None: no such night, or nothing to sleep in"
    )
    some_colder: float = Field(description="Chance that some night out of doors is colder than the rider sleeps warm [-]")


class ClothesDay(Noun):
    """A day's clothes of one kind."""

    day: int
    clean: int = Field(description="Clean and dry in the morning, before one is put on")
    washed: bool = Field(description="In the evening")


class Wardrobe(Noun):
    """A rider's pieces of one kind along the tour."""

    rider_id: str
    piece: Piece
    owned: int = Field(description="The one that is worn counted")
    thing_ids: list[str]
    days: list[ClothesDay]


AskState = Literal["answered", "too_deep", "lacking", "by_choice", "not_for_me"]


class Ask(Noun):
    """Something that this tour asks for, and what answers it."""

    id: str = Field(description="The same while it is about the same, whatever the days")
    question: QuestionId
    words: str = Field(description="What is asked for")
    serves: list[str] = Field(description="What answers it, each by itself; the first is the usual one")
    rider_id: str | None
    bike_id: str | None
    because: Text
    grade: Grade = Field(description="What its lack would be")
    state: AskState
    reason: str = Field(description="Of the rider's own answer")
    thing_ids: list[str] = Field(description="What answers it on some of its days")
    count: int = Field(description="So many of it are asked for at once")
    from_day: int
    to_day: int
    days: int = Field(description="On so many of them it is asked for")
    lacks: int = Field(description="On so many of them nothing answers it")
    lacks_day: int | None = Field(description="The first of them")


class LayersDay(Noun):
    """A day's cold and what is worn against it."""

    day: int
    felt_c: float = Field(description="In the coldest hour of riding or on a long descent after a cold night [°C]")
    evening_c: float = Field(description="At nine in the evening before a cold night [°C]")
    worn_clo: float = Field(description="All that can be worn in the evening [clo]")
    bears_h: float = Field(description="So long the rider can sit and cook out of doors in it [h]")


class Layers(Noun):
    """A rider's days against the cold out of doors."""

    rider_id: str
    levels_c: list[float] = Field(description="Felt colder than each of them, another layer is asked for, the coldest first [°C]")
    longest_h: float = Field(description="What is borne so long is borne all evening [h]")
    days: list[LayersDay]


CellState = Literal["at_hand", "makeshift", "missing", "not_asked"]


class Fault(Noun):
    """Something that may break, and whether the party can mend it."""

    id: str
    words: str
    bike_id: str | None = Field(description="None: a thing of the camp")
    tool: CellState
    part: CellState
    fits: CellState
    skill: CellState
    wanted: int = Field(description="Parts that the chance of running out asks for")
    owned: int = Field(description="Parts on board at the start of the longest gap that fit")
    expected: float = Field(description="How often it is expected on the longest gap between bike shops [-]")
    gap_km: float
    stops_you: bool
    lacks: list[str] = Field(description="What is missing or does not fit, in words")
    serves: list[str] = Field(description="What would answer it: tool, then part")
    note: Text | None = Field(None, description="How good the tool is that is there; None: nothing is to be said")
    thing_ids: list[str]


class WornPart(Noun):
    """A part of a bike that wears, and where it will be worn out."""

    bike_id: str
    kind: PartKind
    words: str
    behind_km: float = Field(description="At the start [km]")
    said: bool = Field(description="Its rider said what is behind it; else it is a guess by the state of the bike")
    life_km: float = Field(description="It lasts so far on usual road [km]")
    takes_km: float = Field(description="The tour wears it by so many kilometres of usual road [km]")
    chance: float = Field(description="That it is worn out before the end, or before it is renewed [-]")
    ends_km: float | None = Field(description="Where it is worn out, a usual one; None: it lasts [km]")
    ends_day: int | None
    sold_at: str | None = Field(description="The last stop before that where such a part is sold")
    renewed_km: float | None = Field(description="Where a new one goes on [km]")
    spare: list[str] = Field(description="Things on board that stand in for it")
    stops: bool = Field(description="Without it the ride ends")
    state: Literal["lasts", "renewed", "spare", "ends"]


CareKind = Literal["oil", "clean", "pressure", "look", "spokes", "renew"]
"""Of a chain; after sand and dust; of tyres; bolts and straps; loose spokes; a part that wears."""


class CareTask(Noun):
    """Something to do for the bikes in the evening of a day."""

    day: int
    kind: CareKind
    bike_ids: list[str]
    part: PartKind | None = Field(None, description="Of a renewal")
    words: Text
    because: Text
