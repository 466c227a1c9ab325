"""Where each thing rides."""

from typing import Annotated

from pydantic import Field

from omnifer.core.model.quantities import Id, Name, Noun, VolumeL


class Placement(Noun):
    """A number of one thing in one carrier."""

    thing_id: Id
    carrier_id: Id
    count: Annotated[int, Field(ge=1, le=200)] = 1
    pinned: bool = Field(False, description="A proposal leaves it where it is")
    filled_l: VolumeL | None = Field(
        None, description="Water in one vessel at most, for the sake of what rides beside it; None: as much as its bag bears"
    )


class FoodShare(Noun):
    """The part of all bought food that rides in one carrier; it is eaten evenly from all of them."""

    carrier_id: Id
    tenths: Annotated[int, Field(ge=1, le=10)]


class Load(Noun):
    """One placing of the gear for the whole tour. What is placed nowhere lies on the shelf."""

    placements: tuple[Placement, ...] = Field((), max_length=4000)
    food: tuple[FoodShare, ...] = Field((), max_length=60)


class NamedLoad(Noun):
    """A load kept under a name, to go back to or to compare with."""

    id: Id
    name: Name
    load: Load
