"""What may stay at home together: each thing alone may be spared by another that is spared by it."""

from collections.abc import Callable, Sequence

from omnifer.core.assess import situation_of
from omnifer.core.findings import OF_THE_KIT, SPECS, find
from omnifer.core.load.keep import still_standing
from omnifer.core.model.finding import Finding
from omnifer.core.model.quantities import Text
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile

NOTHING_LACKS = frozenset(kind for kind, spec in SPECS.items() if spec.preparing or spec.no_lack)
WORSE = 0.05
"""A trouble that was there before is worse where it grew by more than this part [-]."""


Without = Callable[[TourSheet, Sequence[str]], TourSheet]
"""A tour without some things: left at home, or posted on a part of it."""


def spared(
    tour: TourSheet, road: Profile | None, candidates: Sequence[str], without: Without | None = None
) -> tuple[set[str], dict[str, Text]]:
    """The things of those named that may stay at home together, and of each other one what would be lacking then.

    All of them, where the tour without them lacks nothing that it does not lack with them; else one after the other in the order
    given, each tried on the tour without those that stay already. What stays in the end is therefore tried as a whole.
    """
    without = without or _left
    if not candidates:
        return set(), {}
    before = _lacks(tour, road)
    if not _worse(before, _lacks(without(tour, candidates), road)):
        return set(candidates), {}
    staying, refused = list[str](), dict[str, Text]()
    for thing_id in candidates:
        lack = _worse(before, _lacks(without(tour, [*staying, thing_id]), road))
        if lack is None:
            staying.append(thing_id)
        else:
            refused[thing_id] = lack.sentence
    return set(staying), refused


def _left(tour: TourSheet, ids: Sequence[str]) -> TourSheet:
    kit = tuple(thing for thing in tour.kit if thing.id not in ids and thing.inside not in ids)
    return tour.model_copy(update={"kit": kit, "load": still_standing(tour.load, kit, tour.rig)})


def _lacks(tour: TourSheet, road: Profile | None) -> dict[str, Finding]:
    """What the kit lacks, by what it is called; lacks of several riders or kinds count each."""
    found = find(situation_of(tour, road), but=NOTHING_LACKS)
    return {f.id: f for f in found if f.kind in OF_THE_KIT}


def _worse(before: dict[str, Finding], after: dict[str, Finding]) -> Finding | None:
    """A lack that was not there, or is worse; None where there is none."""
    return next((f for f in after.values() if f.id not in before or f.size > before[f.id].size * (1 + WORSE)), None)
