"""A rider's own things, kept once across tours."""

from pydantic import Field

from omnifer.core.model.diary import Verdict
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import REACHES, Noun
from omnifer.core.model.rig import Carrier

OF_THE_CHOICE: frozenset[str] = frozenset(
    {"id", "count", "rider_id", "inside", "where", "because", "may_stay", "must", "closed", "library_id", "instead_of"}
)
"""What belongs to a thing on one tour; all else belongs to the thing itself and is the same wherever it comes along."""


GUESSED: dict[str, tuple[str, ...]] = {
    "mass": ("mass_kg",), "volume": ("volume_l", "pressed_l"), "reach": ("reach", "longest_mm", "thick_mm"),
    "dry": ("dry", "wet"),
    "natures": ("natures", "not_with"), "serves": ("serves", "fit"),
    "role": ("role", "holds_water_l", "soft_vessel", "salts"),
}  # fmt: skip
"""What of a thing a guess by its name is about."""


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


BAGS = "bags of the rig"
"""What bags of the rig are kept with."""
LESS_SWAYS, LEAKS = 0.8, "let water in on its last tour: seal it and try it"
"""Of what a bag held when it swayed, what is its limit from then on [-]; and what is known of one that let water in; practice."""


def bag_owned(carrier: Carrier) -> Thing:
    """A bag of a rig as a thing of the library: where it hung is the tour's."""
    return Thing(
        id=carrier.id, name=carrier.name, group=BAGS, mass_kg=carrier.mass_kg, volume_l=0, price=carrier.price,
        hung=carrier.model_copy(update={"library_id": None}),
    )  # fmt: skip


def bag_taught(owned: Thing, verdict: Verdict, words: str, fullest_kg: float) -> Thing:
    """An own bag with what a tour taught of it, so that it acts on the next rig: its limit, its reach, whether it is proof.

    Parameters
    ----------
    fullest_kg : float
        What it held at its fullest on that tour [kg].
    """
    bag = owned.hung
    if bag is None:
        return owned
    told: dict[str, object] = {}
    if verdict == "wet":
        told["leaks"] = bag.leaks or LEAKS
    elif verdict == "sways" and fullest_kg > 0:
        told["limit_kg"] = round(min(bag.limit_kg, LESS_SWAYS * fullest_kg), 2)
    elif verdict == "hard_to_reach":
        told["reach"] = REACHES[min(REACHES.index(bag.reach) + 1, REACHES.index("camp"))]
    condition = {"good": "trusted", "wet": "worn"}.get(verdict, owned.condition)
    hung = bag.model_dump() | told
    return Thing.model_validate(owned.model_dump() | {"hung": hung, "last_time": words, "condition": condition})


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


def known_by(thing: Thing, owned: Thing) -> Thing:
    """A thing of a list as its owner's library knows it: what was guessed by the name is as it is there, the list's own figures
    stand."""
    guessed = set(thing.guessed)
    own = {name for mark, names in GUESSED.items() if mark in guessed for name in names}
    if thing.role is None and not thing.serves:
        own |= {*GUESSED["role"], *GUESSED["serves"], *GUESSED["reach"]}
    marks = tuple(mark for mark in owned.guessed if mark in guessed or mark in ("role", "serves"))
    return thing.model_copy(
        update={name: getattr(owned, name) for name in own} | {"guessed": marks, "library_id": thing.library_id}
    )


def corrected_by(owned: Thing, thing: Thing, kind: bool) -> Thing:
    """A thing of the library with what its owner answered of it in a list, and with what it is where that was answered too; its
    price, its state and all else stay as they are."""
    marks = ("role", "serves", "natures") if kind else ("role",)
    return owned.model_copy(update={name: getattr(thing, name) for mark in marks for name in GUESSED[mark] if name != "fit"})


def same_thing(a: Thing, b: Thing) -> bool:
    """Whether two copies say the same of the thing itself."""
    return all(getattr(a, name) == getattr(b, name) for name in Thing.model_fields if name not in OF_THE_CHOICE)
