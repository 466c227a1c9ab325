"""Mends that change the tour: one thing more, a thing otherwise set, another way of eating."""

from typing import Any

from omnifer.core.findings.situation import Situation
from omnifer.core.load.limits import InHand, fits
from omnifer.core.load.rules import spot_of, why_not
from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import REACHES, Reach, Text
from omnifer.core.model.reach import found_at
from omnifer.core.model.stores import Stores
from omnifer.core.sentence import say


def with_role(thing: Thing, **changed: Any) -> Thing:
    """A thing whose role is set otherwise, checked."""
    role = None if thing.role is None else thing.role.model_dump() | changed
    return Thing.model_validate(thing.model_dump() | {"role": role})


def otherwise(thing: Thing, **changed: Any) -> Thing:
    """A thing that is otherwise, checked."""
    return Thing.model_validate(thing.model_dump() | changed)


def eating(stores: Stores, **changed: Any) -> Stores:
    """Another way of eating, checked."""
    return Stores.model_validate(stores.model_dump() | changed)


def one_more(s: Situation, thing: Thing, name: Text, consequence: Text, more: int = 1) -> Mend:
    """So many more of a thing, stowed beside what is there or in the roomiest bag that takes it."""
    count = thing.count + more
    there = [p for p in s.tour.load.placements if p.thing_id == thing.id]
    moves = list(there)
    if s.tour.load.placements and thing.ever_packed and thing.inside is None:
        at = _place_for(s, thing, more, [p.carrier_id for p in there])
        if at is not None:
            before = next((p for p in there if p.carrier_id == at), None)
            moves = [p for p in there if p is not before]
            moves.append(Placement(thing_id=thing.id, carrier_id=at, count=more + (before.count if before else 0)))
    return Mend(name=name, consequence=consequence, things=[otherwise(thing, count=count)], moves=moves)


def a_new(s: Situation, thing: Thing, name: Text, consequence: Text) -> Mend:
    """A thing that is not in the kit yet, each piece stowed in the bag that takes it and has the most to spare."""
    moves = _spread(s, thing) if s.tour.load.placements else []
    return Mend(name=name, consequence=consequence, things=[thing], moves=moves)


def from_shelf(s: Situation, thing: Thing, name: Text, consequence: Text) -> Mend | None:
    """A thing of the kit that rides nowhere yet; None where no bag takes it."""
    at = _place_for(s, thing, thing.count, [])
    if at is None:
        return None
    return Mend(name=name, consequence=consequence, moves=[Placement(thing_id=thing.id, carrier_id=at, count=thing.count)])


def into_reach(s: Situation, thing: Thing, reach: Reach) -> Mend | None:
    """A thing put where a hand finds it at such a moment; None where no bag in reach has room for it."""
    at = [p.carrier_id for p in s.tour.load.placements if p.thing_id == thing.id]
    if thing.inside is not None or len(at) > 1:
        return None
    for bike in s.bikes:
        for inside in bike.contents:
            bag = inside.carrier
            in_reach = found_at(thing, bag) <= REACHES.index(reach)
            if not in_reach or why_not(thing, spot_of(bike.bike, bag)) is not None:
                continue
            if fits(s.loaded, [InHand(thing, thing.count, at[0] if at else None)], bag.id):
                continue
            return Mend(
                name=say("{thing} into {bag}", thing=thing.name, bag=bag.name), consequence=say("in reach there"),
                things=[otherwise(thing, reach=reach, guessed=tuple(g for g in thing.guessed if g != "reach"))],
                moves=[Placement(thing_id=thing.id, carrier_id=bag.id, count=thing.count)],
            )  # fmt: skip
    return None


def new_id(s: Situation, stem: str) -> str:
    """An identifier that no thing has."""
    taken, k = {thing.id for thing in s.tour.kit}, 2
    found = stem
    while found in taken:
        found, k = f"{stem}-{k}", k + 1
    return found


def _spread(s: Situation, thing: Thing) -> list[Placement]:
    """Each piece of a thing in the bag that then has the most kilograms to spare."""
    spare = {
        inside.carrier.id: inside.carrier.limit_kg - float(inside.borne_kg.max(initial=0))
        for bike in s.bikes
        for inside in bike.contents
        if why_not(thing, spot_of(bike.bike, inside.carrier)) is None
    }
    placed = dict[str, int]()
    for _ in range(thing.count if spare else 0):
        best = max(spare, key=lambda i: spare[i])
        placed[best] = placed.get(best, 0) + 1
        spare[best] -= thing.mass_kg + thing.holds_kg
    return [Placement(thing_id=thing.id, carrier_id=i, count=n) for i, n in placed.items()]


def _place_for(s: Situation, thing: Thing, count: int, beside: list[str]) -> str | None:
    """The bag that takes it without breaking a limit: beside its like, else where most room is left."""
    rows = [(bike, inside) for bike in s.bikes for inside in bike.contents]

    def room(row: tuple[Any, Any]) -> tuple[bool, float]:
        inside = row[1]
        return inside.carrier.id not in beside, -(inside.room_l - float(inside.litres.max(initial=0)))

    allowed = [
        (bike, inside) for bike, inside in sorted(rows, key=room) if why_not(thing, spot_of(bike.bike, inside.carrier)) is None
    ]
    for _, inside in allowed:
        if thing.id not in {t.id for t in s.tour.kit} or not fits(s.loaded, [InHand(thing, count, None)], inside.carrier.id):
            return str(inside.carrier.id)
    return None
