"""At which moment a hand finds a thing in a bag."""

from omnifer.core.model.carrier_kind import CarrierKind
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import REACHES
from omnifer.core.model.rig import Carrier

ROLLED: frozenset[CarrierKind] = frozenset({"rack_top_bag", "handlebar_roll", "saddle_pack"})
"""Bags that are opened in camp, and at whose mouth lies what is wanted when the weather turns."""
AT_THE_MOUTH = frozenset(
    {"rain_jacket", "rain_cape", "rain_trousers", "light_shell", "wind_shell", "shoe_covers", "proof_gloves", "warm_gloves"}
)
"""Rain wear and what warms hands is stowed last; so is first aid. Practice."""


def found_at(thing: Thing, carrier: Carrier) -> int:
    """The moment at which a hand finds a thing there, as a place in `REACHES`: 0 is while riding."""
    mouth = set(thing.serves) & AT_THE_MOUTH or "first_aid" in thing.natures or "first_aid" in thing.serves
    reach = REACHES.index(carrier.reach)
    return min(reach, REACHES.index("stop")) if carrier.kind in ROLLED and mouth else reach
