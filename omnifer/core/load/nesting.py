"""Things that ride in other things: the stove in the pot, the mat rolled in the tent. They weigh, but take no room."""

from collections import defaultdict
from collections.abc import Iterable

from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import REACHES
from omnifer.core.model.tour import TourSheet


def nested_in(kit: Iterable[Thing]) -> dict[str, list[Thing]]:
    """What rides in each thing, by the outer one's identifier."""
    found: dict[str, list[Thing]] = defaultdict(list)
    for thing in kit:
        if thing.inside is not None:
            found[thing.inside].append(thing)
    return found


def as_one(tour: TourSheet) -> TourSheet:
    """The tour with each thing and what rides in it as one thing that has the mass and the needs of all of them."""
    nested = nested_in(tour.kit)
    if not nested:
        return tour
    kit = tuple(_together(thing, nested[thing.id]) if thing.id in nested else thing for thing in tour.kit if thing.inside is None)
    known = {thing.id for thing in kit}
    placements = tuple(p for p in tour.load.placements if p.thing_id in known)
    return tour.model_copy(update={"kit": kit, "load": tour.load.model_copy(update={"placements": placements})})


def _together(outer: Thing, inner: list[Thing]) -> Thing:
    every = [outer, *inner]
    dry = "own_bag" if outer.dry == "own_bag" else "must" if any(t.dry == "must" for t in every) else outer.dry
    return outer.model_copy(
        update={
            "mass_kg": sum(t.mass_kg * t.count for t in every),
            "natures": tuple(dict.fromkeys(n for t in every for n in t.natures)),
            "not_with": tuple(dict.fromkeys(n for t in every for n in t.not_with)),
            "wet": any(t.wet for t in every),
            "dry": dry,
            "reach": min((t.reach for t in every), key=REACHES.index),
        }
    )


def taken_along(placements: Iterable[Placement], kit: Iterable[Thing]) -> tuple[Placement, ...]:
    """The placements with those of nested things, which ride wherever the outer one does."""
    nested = nested_in(kit)
    result = []
    for placement in placements:
        result.append(placement)
        for thing in nested.get(placement.thing_id, ()):
            result.append(placement.model_copy(update={"thing_id": thing.id, "count": thing.count}))
    return tuple(result)


def litres_of(inside: list[tuple[Thing, Placement]], pressed: bool = False) -> list[float]:
    """Litres of each placement in one carrier, as packed or pressed; what rides in a thing that is there takes none [l]."""
    here = {thing.id for thing, _ in inside}
    return [
        0.0 if thing.inside in here else (thing.least_l if pressed else thing.volume_l) * placement.count
        for thing, placement in inside
    ]
