"""What a tour asks for beyond supplies and limits, and whether the kit answers."""

from pydantic import Field

from omnifer.core.model.quantities import Noun
from omnifer.core.model.roles import Piece


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
