"""What a thing is, of all kinds that are known; and a thing as its name, or somebody who says what it is, tells it."""

from collections.abc import Collection

from omnifer.core.kit.kinds import ThingKind, kinds
from omnifer.core.kit.told import Told, told_of
from omnifer.core.model.kit import Guessable, Thing, Whereabouts
from omnifer.core.model.library import GUESSED
from omnifer.core.model.roles import FuelVessel, UsedUp

WORN = (Whereabouts(how="worn"),)
TOLD_APART = ("burns", "piece", "by")
"""What tells kinds apart that do the same: stoves by what they burn, garments by the piece, treatments by how."""


def kind_of_thing(thing: Thing) -> str | None:
    """The kind of a thing: what its name says, where it does or serves some of that; else what does and serves the same. None:
    not known."""
    named = told_of(thing.name, thing.mass_kg, thing.group).kind
    if not (thing.role or thing.serves or thing.holds_water_l) or (named and _agrees(thing, kinds()[named])):
        return named
    alike = [kind for kind in kinds().values() if _same(thing, kind)]
    if not alike or (named and len(alike) > 1):
        return named
    return min(alike, key=lambda kind: _unlike(thing, kind)).id


def _does(thing: Thing | ThingKind) -> tuple[object, ...]:
    return (thing.role.does, *(getattr(thing.role, name, None) for name in TOLD_APART)) if thing.role else ()


def _agrees(thing: Thing, kind: ThingKind) -> bool:
    if thing.role is not None and kind.role is not None and thing.role.does == kind.role.does:
        return _does(thing) == _does(kind)
    return bool(set(thing.serves) & set(kind.serves)) or (thing.holds_water_l > 0 and kind.holds_l > 0)


def _same(thing: Thing, kind: ThingKind) -> bool:
    vessels = (thing.holds_water_l > 0) == (kind.holds_l > 0)
    return vessels and _does(thing) == _does(kind) and set(thing.serves) == set(kind.serves)


def _unlike(thing: Thing, kind: ThingKind) -> tuple[float, ...]:
    moments = (thing.reach != kind.reach) + (thing.dry != kind.dry) + (thing.longest_mm != kind.longest_mm)
    return moments + len(set(thing.natures) ^ set(kind.natures)), abs(thing.mass_kg - kind.kg), abs(thing.volume_l - kind.l)


def as_told(thing: Thing, kind_id: str | None, about: Collection[Guessable], riders: Collection[str] = ()) -> Thing:
    """A thing as its name, or what it is, tells it; each part that was told is marked as a guess.

    Parameters
    ----------
    kind_id : str, optional
        What it is, where somebody said so.
    about : collection of str
        What nobody said of it: this is told, all else stays as it is. A said mass is that of an empty one, where it holds
        something.
    riders : collection of str
        Identifiers; of one, they have what each has.
    """
    told = told_of(thing.name, thing.mass_kg, thing.group, kind_id)
    kind = kinds().get(told.kind or "")
    if kind is not None and "mass" in about:
        told = told_of(thing.name, kind.kg, thing.group, kind.id)
    fields = dict(told.fields)
    if "mass" not in about and isinstance(fields.get("role"), FuelVessel | UsedUp):
        fields["role"] = told_of(thing.name, 0, thing.group, told.kind).fields["role"]
    silent = Thing.model_validate({"id": thing.id, "name": thing.name, "mass_kg": 0, "volume_l": 0})
    new = {name: fields.get(name, getattr(silent, name)) for mark in about for name in GUESSED[mark]}
    if kind is None and "mass" in about:
        del new["mass_kg"]
    if told.understood.figures.pieces > 1 and thing.count == 1:
        new |= {"count": fields["count"], "name": fields["name"]}
    if "reach" in about and thing.inside is None and thing.where in ((), WORN):
        new["where"] = fields.get("where", ())
    if kind is not None and kind.each and len(riders) == 1 and thing.rider_id is None:
        new["rider_id"] = next(iter(riders))
    marks = {*(set(thing.guessed) - set(about)), *(_marks(told, kind) & set(about))}
    return Thing.model_validate(thing.model_dump() | new | {"guessed": tuple(mark for mark in GUESSED if mark in marks)})


def _marks(told: Told, kind: ThingKind | None) -> set[Guessable]:
    return {*told.guessed, "mass"} if kind is not None else set(told.guessed)
