"""At which moment a hand finds a thing in a bag."""

from collections.abc import Iterable

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import REACHES
from omnifer.core.model.rig import Carrier

AT_THE_MOUTH = frozenset(
    {"rain_jacket", "rain_cape", "rain_trousers", "light_shell", "wind_shell", "shoe_covers", "proof_gloves", "warm_gloves"}
)
"""Rain wear and what warms hands is stowed last; so is first aid. Practice."""


MOUTH_L = 2.0
"""So much of what is wanted at a stop finds room at each mouth [l]; practice."""
MOUTHS = {"": 0, "one": 1, "both": 2}


def at_mouth(things: Iterable[tuple[Thing, float]], carrier: Carrier) -> set[str]:
    """What lies at the mouth of a bag that is opened in camp: rain wear first, then the smallest of what is wanted at a stop.

    Parameters
    ----------
    things : iterable of (Thing, float)
        What is in it, and its litres [l].
    """
    room = MOUTHS[KINDS[carrier.kind].mouth] * MOUTH_L
    if not room or REACHES.index(carrier.reach) <= REACHES.index("stop"):
        return set()
    wanted = [(t, litres) for t, litres in things if REACHES.index(t.reach) <= REACHES.index("stop") or _last_in(t)]
    found = set[str]()
    for thing, litres in sorted(wanted, key=lambda one: (not _last_in(one[0]), one[1], one[0].id)):
        if _last_in(thing) or litres <= room:
            found.add(thing.id)
            room -= litres
    return found


def _last_in(thing: Thing) -> bool:
    """Rain wear, and first aid: at the mouth whatever else is."""
    return bool(set(thing.serves) & AT_THE_MOUTH) or "first_aid" in thing.natures or "first_aid" in thing.serves


def found_at(thing: Thing, carrier: Carrier) -> int:
    """The moment at which a hand finds a thing there, as a place in `REACHES`: 0 is while riding."""
    reach = REACHES.index(carrier.reach)
    return min(reach, REACHES.index("stop")) if KINDS[carrier.kind].mouth and _last_in(thing) else reach
