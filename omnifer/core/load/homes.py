"""What rides well in what: a stove in its pot, a mat rolled in the tent; common practice, no source."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from omnifer.core.load.nesting import nested_in
from omnifer.core.load.rules import clash
from omnifer.core.model.kit import Thing
from omnifer.core.model.roles import FuelVessel, Mat, Stove
from omnifer.core.model.tour import TourSheet

HOLLOW = 0.8
"""Of a hollow thing's packed volume, what goes into it [-]; practice."""
ROLLED_IN = 0.3
"""Of a tent's packed volume, what can be rolled in with it [-]; practice: a thin mat, not a thick one."""


@dataclass(frozen=True)
class Home:
    """A kind of thing that others ride in."""

    service: str
    """What the outer one serves."""
    takes: Callable[[Thing], bool]
    part: float
    """Of the outer one's packed volume, what goes in [-]."""


HOMES: tuple[Home, ...] = (
    Home("pot", lambda t: isinstance(t.role, Stove) or (isinstance(t.role, FuelVessel) and t.role.whole), HOLLOW),
    Home("tent", lambda t: isinstance(t.role, Mat), ROLLED_IN),
)


def homes_of(tour: TourSheet) -> Iterator[tuple[Thing, Thing]]:
    """Things that ride by themselves and could ride in another, the largest first, each with that other; a home is filled once.

    What comes and goes along the road, or is another rider's, or may not lie there, stays out.
    """
    nested = nested_in(tour.kit)
    for home in HOMES:
        for outer in (t for t in tour.kit if home.service in t.serves and _stays(t)):
            inside = list(nested.get(outer.id, []))
            room_l = home.part * outer.volume_l - sum(t.volume_l * t.count for t in inside)
            for thing in sorted((t for t in tour.kit if home.takes(t)), key=lambda t: -t.volume_l * t.count):
                fits = thing.volume_l * thing.count <= room_l and _beside(thing, outer, inside)
                if fits and thing.id not in nested and thing.id != outer.id and _stays(thing):
                    room_l -= thing.volume_l * thing.count
                    inside.append(thing)
                    yield thing, outer


def _stays(thing: Thing) -> bool:
    return not thing.where and thing.inside is None


def _beside(thing: Thing, outer: Thing, inside: list[Thing]) -> bool:
    """Whether a thing may lie with another and what is in it already."""
    longer = thing.longest_mm > outer.longest_mm > 0
    others = thing.rider_id is not None and outer.rider_id not in (None, thing.rider_id)
    return not longer and not others and all(clash(thing, t) is None for t in (outer, *inside))
