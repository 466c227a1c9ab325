"""How far a rider fills a vessel: to the brim, or as far as what carries it bears."""

from collections.abc import Collection
from math import floor

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.rig import Carrier

WORTHWHILE = 0.5
"""A bag that does not bear a vessel filled by this part is none for it [-]; practice."""

STEP_L = 0.25


def filled_l(vessel: Thing, carrier: Carrier) -> float:
    """Water in one vessel that is filled as far as a carrier bears it, alone in there, in steps that a hand can tell [l]."""
    bears = floor((carrier.limit_kg - vessel.mass_kg) / STEP_L) * STEP_L
    return min(vessel.holds_water_l, max(bears, WORTHWHILE * vessel.holds_water_l))


def filled_where_it_may_be(
    vessel: Thing, placed: Collection[tuple[Placement, Carrier]], everywhere: Collection[Carrier]
) -> float:
    """Water in one vessel where it rides, or before it has a place where most of it would go in; what rides in another thing is
    filled to the brim [l]."""
    if vessel.inside is not None or not vessel.holds_water_l:
        return vessel.holds_water_l
    if placed:
        most = (vessel.holds_water_l if p.filled_l is None else p.filled_l for p, _ in placed)
        return min([*most, *(filled_l(vessel, carrier) for _, carrier in placed)])
    takes = ("anything", "soft_vessels" if vessel.soft_vessel else "bottles")
    return max((filled_l(vessel, c) for c in everywhere if KINDS[c.kind].takes in takes), default=vessel.holds_water_l)
