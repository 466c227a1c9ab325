"""Changes of the same tour from two windows, put together where they touch different parts, and different things of a list."""

from collections.abc import Callable, Hashable, Sequence
from typing import Any

from omnifer.core.load.keep import standing
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import Road
from omnifer.core.model.tour import TourSheet


class Collision(Exception):
    """Both changed the same part. `parts` names the fields."""

    def __init__(self, parts: list[str]) -> None:
        super().__init__(", ".join(parts))
        self.parts = parts


def changed_parts(before: TourSheet, after: TourSheet) -> set[str]:
    """The fields of a sheet that a change touched; a load that only let go of what is gone was not."""
    parts = {name for name in TourSheet.model_fields if getattr(before, name) != getattr(after, name)}
    if "load" in parts and standing(after.model_copy(update={"load": before.load})).load == after.load:
        parts.remove("load")
    return parts


def merged(seen: TourSheet, mine: TourSheet, theirs: TourSheet) -> TourSheet:
    """The sheet with both changes of what both writers had seen, not validated yet. Raises Collision.

    Things, stops and placements are put together one by one: only what both changed in different ways collides. What one
    removed and the other changed collides too.
    """
    my_parts = changed_parts(seen, mine)
    both = {name for name in my_parts & changed_parts(seen, theirs) if getattr(mine, name) != getattr(theirs, name)}
    together = {
        name: MERGED_BY_MEMBER[name](*(getattr(s, name) for s in (seen, mine, theirs))) for name in both & {*MERGED_BY_MEMBER}
    }
    collided = {name for name in both if together.get(name) is None}
    if collided:
        raise Collision(sorted(collided))
    return standing(theirs.model_copy(update={name: getattr(mine, name) for name in my_parts} | together))


def _members(
    seen: Sequence[Any], mine: Sequence[Any], theirs: Sequence[Any], key: Callable[[Any], Hashable]
) -> tuple[Any, ...] | None:
    """A list with the members that either writer changed, added or removed; None where both changed the same one differently.

    In the order of the writer; what the other added comes last.
    """
    was, ours, others = ({key(one): one for one in every} for every in (seen, mine, theirs))
    if any(len(named) != len(every) for named, every in ((was, seen), (ours, mine), (others, theirs))):
        return None
    made: dict[Hashable, Any] = {}
    for name in [*ours, *(n for n in others if n not in ours)]:
        before, here, there = was.get(name), ours.get(name), others.get(name)
        if here != before and there != before and here != there:
            return None
        now = there if here == before else here
        if now is not None:
            made[name] = now
    for name in was.keys() - ours.keys():
        if others.get(name) not in (None, was[name]):
            return None
    return tuple(made.values())


def _load(seen: Load, mine: Load, theirs: Load) -> Load | None:
    """Loads put together thing by thing: where a thing rides is one decision."""
    food = mine.food if mine.food != seen.food else theirs.food
    if seen.food not in (mine.food, theirs.food) and mine.food != theirs.food:
        return None

    def by_thing(load: Load) -> list[tuple[str, tuple[Placement, ...]]]:
        found: dict[str, list[Placement]] = {}
        for placement in load.placements:
            found.setdefault(placement.thing_id, []).append(placement)
        return [(thing, tuple(placements)) for thing, placements in found.items()]

    things = _members(by_thing(seen), by_thing(mine), by_thing(theirs), lambda one: str(one[0]))
    if things is None:
        return None
    return theirs.model_copy(update={"placements": tuple(p for _, placements in things for p in placements), "food": food})


def _road(seen: Road, mine: Road, theirs: Road) -> Road | None:
    """Roads put together field by field, stops one by one."""
    changed: dict[str, Any] = {}
    for name in Road.model_fields:
        before, here, there = (getattr(road, name) for road in (seen, mine, theirs))
        if here == before:
            continue
        if there in (before, here):
            changed[name] = here
        elif name == "stops" and (stops := _members(before, here, there, _identifier)) is not None:
            changed[name] = stops
        else:
            return None
    return theirs.model_copy(update=changed)


def _identifier(one: Any) -> str:
    return str(one.id)


MERGED_BY_MEMBER: dict[str, Callable[[Any, Any, Any], Any]] = {
    "kit": lambda seen, mine, theirs: _members(seen, mine, theirs, _identifier), "load": _load, "road": _road,
}  # fmt: skip
"""Parts of a sheet whose members are put together one by one; None where the same member was changed twice."""
