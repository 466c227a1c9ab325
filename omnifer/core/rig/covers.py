"""Which bag stands over the mouth of another, so that it comes off before the other opens."""

from collections.abc import Mapping

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.practice import Practice
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.trace import Box

CLOSE_MM, MUCH = 100.0, 0.5
"""A bag that stands no higher over another's mouth, over so much of it, is in its way [mm, -]; practice."""
SUNK_MM = 40.0
"""Bags give way: one may sink so far into the other [mm]; practice."""
CLOSED = frozenset({"roll", "lid", "zip", "drawstring"})


def covers(bike: Bike, boxes: Mapping[str, Box]) -> dict[str, list[Carrier]]:
    """By each bag that others on the same rack or trailer stand over, those others.

    Parameters
    ----------
    boxes : mapping
        Of every carrier of the bike, by its identifier.
    """
    bags = [c for c in bike.carriers if KINDS[c.kind].part is None]
    found = {
        bag.id: [
            other
            for other in bags
            if other is not bag and other.hangs_on == bag.hangs_on and _over(boxes[other.id], boxes[bag.id])
        ]
        for bag in bags
        if bag.opening in CLOSED and not KINDS[bag.kind].mouth
    }
    return {bag_id: others for bag_id, others in found.items() if others}


def _over(upper: Box, lower: Box) -> bool:
    if not -SUNK_MM <= upper.y0 - lower.y1 <= CLOSE_MM:
        return False
    long = min(upper.x1, lower.x1) - max(upper.x0, lower.x0)
    wide = min(upper.z1, lower.z1) - max(upper.z0, lower.z0)
    return long > 0 and wide > 0 and long * wide >= MUCH * (lower.x1 - lower.x0) * (lower.z1 - lower.z0)


def minutes_off(others: list[Carrier], usual: Practice) -> float:
    """Taking bags off and putting them on again [min]."""
    seconds = sum(usual.packing_strap_s if bag.straps else usual.packing_thing_s for bag in others)
    return 2 * seconds * usual.packing_times / 60
