"""A rider's own things, kept once across tours."""

from pydantic import Field

from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Noun

OF_THE_CHOICE: frozenset[str] = frozenset(
    {"id", "count", "rider_id", "inside", "where", "because", "may_stay", "must", "closed", "library_id", "instead_of"}
)
"""What belongs to a thing on one tour; all else belongs to the thing itself and is the same wherever it comes along."""


class Owned(Noun):
    """A thing of the library as its owner keeps it."""

    id: str
    version: int
    thing: Thing = Field(description="Its figures, and how it usually comes: how many, in what, instead of what")
    has_picture: bool
    tours: list[str] = Field(description="Names of the open tours that chose it")


class KitOfThings(Noun):
    """Things that belong together, by what they are packed with."""

    name: str
    things: int
    mass_kg: float


def as_owned(thing: Thing) -> Thing:
    """A thing as the library keeps it: without what one tour says of it."""
    return Thing.model_validate(
        thing.model_dump() | {"rider_id": None, "inside": None, "where": (), "library_id": None, "because": "", "closed": False}
    )


def chosen(owned: Owned, thing_id: str) -> Thing:
    """A copy for a tour, which remembers where it is from."""
    return Thing.model_validate(owned.thing.model_dump() | {"id": thing_id, "library_id": owned.id, "instead_of": None})


def told_by(thing: Thing, owned: Thing) -> Thing:
    """A thing of a tour with the figures that its owner's has."""
    own = {name: value for name, value in owned.model_dump().items() if name not in OF_THE_CHOICE}
    return Thing.model_validate(thing.model_dump() | own)


def same_thing(a: Thing, b: Thing) -> bool:
    """Whether two copies say the same of the thing itself."""
    return all(getattr(a, name) == getattr(b, name) for name in Thing.model_fields if name not in OF_THE_CHOICE)
