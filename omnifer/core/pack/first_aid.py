"""What a first-aid kit holds for a tour: by hours to help, riders and hazards.

References
----------
After lay guidance: IFRC, International First Aid, Resuscitation, and Education Guidelines (2020), and the lists that national
societies give for travel kits; items from memory, counts are common practice.
"""

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import NamedTuple

from omnifer.core.model.assessment import Assessment
from omnifer.core.model.quantities import Text
from omnifer.core.model.roles import Stove
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import hours, number, say

FAR_H, VERY_FAR_H = 3.0, 8.0
"""So many hours from people a wound is dressed for longer, and a broken bone is splinted [h]; practice."""
HOT_C = 32.0
"""A day that feels so hot asks for salts against thirst [°C]; practice."""
CAUTION = (
    "After lay guidance; it is no course. Own medicine is a matter for your doctor. Learn to use what you carry, call for help"
    " first, and renew what is out of date."
)


class Item(NamedTuple):
    """One line of the list."""

    key: str
    words: Text
    because: Text | None


def hours_to_help(found: Assessment) -> float:
    """The longest ride from a place with people to the nearer of the places around it [h]."""
    stops = sorted({0.0, *(gap.from_km for gap in found.gaps if gap.supply == "food"),
                    *(gap.to_km for gap in found.gaps if gap.supply == "food")})  # fmt: skip
    longest = max((b - a for a, b in pairwise(stops)), default=0.0)
    ridden = found.road.riding_hours / max(found.road.length_km, 1e-6) if found.road is not None else 0.0
    return longest / 2 * ridden


def contents(tour: TourSheet, found: Assessment) -> list[Item]:
    """What the kit holds, each with how many and why."""
    return list(_items(tour, found))


def _items(tour: TourSheet, found: Assessment) -> Iterator[Item]:
    riders, days = len(tour.riders), max(len(found.days), 1)
    far = hours_to_help(found)
    hazards = {hazard.kind for hazard in tour.road.hazards}
    away = say("up to {far} from people", far=hours(far))
    always = say("for {n:rider|riders} and {d:day|days}", n=number(riders), d=number(days))

    def some(key: str, words: str, n: float, because: Text | None = None) -> Item:
        return Item(key, say("{n} " + words, n=number(math.ceil(n))), because)

    yield some("plasters", "plasters, some for blisters", 4 * riders + days / 5, always)
    yield some("dressings", "sterile dressings, small and large", 2 * riders + (2 if far >= FAR_H else 0))
    yield some("bandages", "bandages, an elastic one among them", 1 + riders / 2)
    yield some("tape", "roll of tape for skin", 1)
    yield some("gloves", "pairs of gloves", 2)
    yield Item("scissors", say("Scissors and tweezers"), None)
    yield Item("wash", say("Something to wash wounds with: drinking water does"), say("grazes are what cyclists get"))
    yield Item("pain", say("Something against pain and fever, as a pharmacist says"), None)
    yield Item("card", say("Emergency numbers of every country, on paper"), say("phones die"))
    if far >= FAR_H:
        yield some("pressure", "bandage that presses on a bleeding wound", 1, away)
        yield some("triangle", "triangular bandages", 2, away)
    if far >= VERY_FAR_H:
        yield some("splint", "splint that bends", 1, away)
    if any(isinstance(thing.role, Stove) for thing in tour.kit):
        yield some("burns", "dressing for burns", 1, say("a stove"))
    if "ticks" in hazards:
        yield some("ticks", "tool for ticks, and something to mark the place", 1, say("ticks on the road"))
    if hazards & {"insects", "ticks"}:
        yield Item("stings", say("Something against itching and swelling, as a pharmacist says"), say("insects on the road"))
    hottest = max((day.heat_index_c for day in found.days), default=0.0)
    if hottest >= HOT_C or far >= FAR_H:
        yield some("salts", "sachets of salts to drink", 4 * riders, say("heat, and bad stomachs"))
    yield some("blanket", "emergency blankets", riders, say("a night that was not planned"))
