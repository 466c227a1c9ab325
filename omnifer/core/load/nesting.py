"""Things in things. They weigh and ride with the outer one; in a hollow (stove in the pot) they take no room, in a soft
bag (a kit in its bag) their own."""

from collections import defaultdict
from collections.abc import Iterable, Mapping
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import REACHES
from omnifer.core.model.tour import TourSheet

Array = NDArray[np.float64]


def nested_in(kit: Iterable[Thing]) -> dict[str, list[Thing]]:
    """What rides in each thing, by the outer one's identifier."""
    found: dict[str, list[Thing]] = defaultdict(list)
    for thing in kit:
        if thing.inside is not None:
            found[thing.inside].append(thing)
    return found


class Vessel(NamedTuple):
    """What of a thing holds a supply: how many of which kind."""

    thing_id: str
    number: int
    holds_kg: float
    soft: bool
    water: bool


class Whole(Thing):
    """A thing with what rides in it, as one that has the mass, the contents and the needs of all of them."""

    inner: tuple[Vessel, ...] = ()
    owners: tuple[str, ...] = ()
    """Everybody to whom something of it belongs."""


def vessels_in(thing: Thing) -> tuple[Vessel, ...]:
    """The vessels of which one thing consists, itself and what rides in it."""
    own = (_vessel(thing, 1),) if thing.holds_kg > 0 else ()
    return own + (thing.inner if isinstance(thing, Whole) else ())


def _vessel(thing: Thing, number: int) -> Vessel:
    return Vessel(thing.id, number, thing.holds_kg, thing.soft_vessel, thing.holds_water_l > 0)


def holds_kg(thing: Thing) -> float:
    """What is in one thing when all its vessels are full [kg]."""
    return sum(vessel.holds_kg * vessel.number for vessel in vessels_in(thing))


def bears_water(thing: Thing) -> bool:
    """Whether any of its vessels is for water."""
    return any(vessel.water for vessel in vessels_in(thing))


def held_in(thing: Thing, in_vessels: Mapping[str, Array], soft_only: bool = False) -> Array | float:
    """What is in the vessels of one thing at each moment, of soft ones only where asked: those grow with it [kg]."""
    chosen = [vessel for vessel in vessels_in(thing) if vessel.soft or not soft_only]
    return sum((vessel.number * in_vessels[vessel.thing_id] for vessel in chosen if vessel.thing_id in in_vessels), 0.0)


def owners_of(thing: Thing) -> tuple[str, ...]:
    """Those who carry one thing and what rides in it; nobody: it is shared."""
    if isinstance(thing, Whole):
        return thing.owners
    return () if thing.rider_id is None else (thing.rider_id,)


def as_one(tour: TourSheet) -> TourSheet:
    """The tour with each thing and what rides in it as one thing; where one of them is pinned all of it is. What is never
    packed is left aside."""
    nested = nested_in(tour.kit)
    if not nested and all(thing.ever_packed for thing in tour.kit):
        return tour
    outermost = [thing for thing in tour.kit if thing.inside is None and thing.ever_packed]
    kit = tuple(_together(thing, nested[thing.id]) if thing.id in nested else thing for thing in outermost)
    known = {thing.id for thing in tour.kit if thing.ever_packed}
    outer = {thing.id: thing.inside for thing in tour.kit if thing.inside is not None}
    pinned = {(outer[p.thing_id], p.carrier_id) for p in tour.load.placements if p.pinned and p.thing_id in outer}
    placements = tuple(
        p.model_copy(update={"pinned": True}) if (p.thing_id, p.carrier_id) in pinned else p
        for p in tour.load.placements
        if p.thing_id not in outer and p.thing_id in known
    )
    return tour.model_copy(update={"kit": kit, "load": tour.load.model_copy(update={"placements": placements})})


def _together(outer: Thing, inner: list[Thing]) -> Whole:
    every = [outer, *inner]
    loose_l = outer.volume_l + sum(t.volume_l * t.count for t in inner if outer.bag)
    least_l = outer.least_l + sum(t.least_l * t.count for t in inner if outer.bag)
    dry = "own_bag" if outer.dry == "own_bag" else "must" if any(t.dry == "must" for t in every) else outer.dry
    owners = tuple(dict.fromkeys(t.rider_id for t in every if t.rider_id is not None))
    fields = {
        "mass_kg": sum(t.mass_kg * t.count for t in every),
        "volume_l": loose_l,
        "pressed_l": least_l if least_l < loose_l else 0,
        "longest_mm": max((t.longest_mm for t in (every if outer.bag else [outer])), default=0),
        "thick_mm": max((t.thick_mm for t in (every if outer.bag else [outer])), default=0),
        "natures": tuple(dict.fromkeys(n for t in every for n in t.natures)),
        "not_with": tuple(dict.fromkeys(n for t in every for n in t.not_with)),
        "wet": any(t.wet for t in every),
        "dry": dry,
        "reach": outer.reach if outer.closed else min((t.reach for t in every), key=REACHES.index),
        "may_stay": all(t.may_stay for t in every),
        "rider_id": owners[0] if owners else None,
        "owners": owners,
        "inner": tuple(_vessel(t, t.count) for t in inner if t.holds_kg > 0),
    }
    return Whole.model_construct(**(dict(outer) | fields))


def taken_along(placements: Iterable[Placement], kit: Iterable[Thing]) -> tuple[Placement, ...]:
    """The placements with those of nested things, which ride wherever the outer one does."""
    nested = nested_in(kit)
    result = []
    for placement in placements:
        result.append(placement)
        for thing in nested.get(placement.thing_id, ()):
            result.append(placement.model_copy(update={"thing_id": thing.id, "count": thing.count}))
    return tuple(result)


def sheltered(inside: list[tuple[Thing, Placement]]) -> list[Thing]:
    """The things of one carrier as their neighbours find them: what lies in a dry bag is in its own dry bag, and what lies in a
    closed one is not wanted before that is."""
    outer = {thing.id: thing for thing, _ in inside}
    found = []
    for thing, _ in inside:
        around = outer.get(thing.inside or "")
        if around is not None:
            changed = {"dry": "own_bag"} if around.dry == "own_bag" else {}
            thing = thing.model_copy(update=changed | ({"reach": around.reach} if around.closed else {}))
        found.append(thing)
    return found


def litres_of(inside: list[tuple[Thing, Placement]], pressed: bool = False) -> list[float]:
    """Litres of each placement in one carrier, as packed or pressed; what fills a hollow there takes none [l]."""
    hollow = {thing.id for thing, _ in inside if not thing.bag}
    return [
        0.0 if thing.inside in hollow else (thing.least_l if pressed else thing.volume_l) * placement.count
        for thing, placement in inside
    ]
