"""The missing kilo: what riders forget, and the fewest causes that explain what the scale shows beyond the parts."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.tour import TourSheet
from omnifer.core.model.trace import BikeTrace
from omnifer.core.model.weigh import Cause, Missing, WeighLine
from omnifer.core.rig.statics import Levers
from omnifer.core.sentence import fine_kg, say

GUESS = 0.2
"""A guessed mass may be off by so much of itself [-]; practice."""
WET_CLOTH = 0.5
"""Wet cloth weighs so much more than dry, 0.3 to 1 [-]; practice."""
MUD_KG = 0.3
"""On a bike that was ridden in the wet [kg]; practice."""
SCALE_UNSURE_KG = {"thing": 0.005, "bag": 0.05, "front_wheel": 0.05, "rear_wheel": 0.05, "trailer_wheel": 0.05, "hitch": 0.05,
                   "whole": 0.05, "rider_with": 0.1, "rider_without": 0.1, "front_ridden": 0.1, "rear_ridden": 0.1}  # fmt: skip
"""How far one reading of the scale that is used for it may be off either way [kg]; practice."""
MOST_CAUSES = 4


@dataclass(frozen=True)
class Candidate:
    """Something that may be there and was not counted.

    Attributes
    ----------
    low_kg, high_kg : float
        What it may come to, either of them or anything between; `whole` where it is all or nothing.
    front : float
        Part of it that presses on the front wheel [-].
    """

    words: Text
    low_kg: float
    high_kg: float
    deed: Literal["fill", "weigh_thing", "weigh_carrier", "stow", "dry", "leave"]
    about: str = ""
    whole: bool = False
    front: float = 0.5


def smallest_set(
    to_explain_kg: float, candidates: list[Candidate], unsure_kg: float
) -> tuple[list[tuple[Candidate, float]], float]:
    """The fewest causes that explain a difference, each with what it explains, and what is left [kg].

    A cause more is taken only where it explains more than the scale is unsure of. Of sets alike the one with what is all or
    nothing goes first: it can be looked at.
    """

    def left_by(chosen: Iterable[Candidate]) -> float:
        low, high = 0.0, 0.0
        for one in chosen:
            low, high = low + (one.high_kg if one.whole else one.low_kg), high + one.high_kg
        return to_explain_kg - min(max(to_explain_kg, low), high)

    best: tuple[Candidate, ...] = ()
    for size in range(1, min(MOST_CAUSES, len(candidates)) + 1):
        tried = min(
            combinations(candidates, size), key=lambda c: (round(abs(left_by(c)), 4), -sum(one.whole for one in c))
        )  # fmt: skip
        if abs(left_by(best)) - abs(left_by(tried)) <= unsure_kg:
            break
        best = tried
    left = left_by(best)
    rest, found = to_explain_kg - left, []
    for one in sorted(best, key=lambda c: not c.whole):
        takes = one.high_kg if one.whole else min(max(rest, one.low_kg), one.high_kg)
        rest -= takes
        found.append((one, takes))
    return found, left


def things_in(tour: TourSheet, carriers: set[str]) -> Iterator[tuple[Thing, int]]:
    """What is stowed in some carriers, and how many of each."""
    things = {thing.id: thing for thing in tour.kit}
    yield from ((things[p.thing_id], p.count) for p in tour.load.placements if p.carrier_id in carriers)


def off_by_kg(thing: Thing) -> float:
    """How far the mass of one may be off either way; 0 where it is no guess [kg]."""
    return thing.mass_kg * GUESS if "mass" in thing.guessed else 0.0


def missing_of(tour: TourSheet, bike: Bike, trace: BikeTrace, levers: Levers, lines: list[WeighLine]) -> Iterator[Missing]:
    """What is to be explained of a bike that was weighed; nothing where the scale says what the parts come to."""
    whole = next(line for line in lines if line.weighed == "whole")
    if whole.scale_kg is None or whole.difference_kg is None or whole.told == "same":
        return
    candidates = list(_candidates(tour, bike, trace, levers, whole))
    chosen, left = smallest_set(whole.difference_kg, candidates, whole.unsure_kg)
    taken = {id(one) for one, _ in chosen}
    others = sorted((c for c in candidates if id(c) not in taken), key=lambda c: -abs(c.high_kg))
    yield Missing(
        bike_id=bike.id, parts_kg=whole.parts_kg, scale_kg=whole.scale_kg, to_explain_kg=whole.difference_kg,
        causes=[_told(one, takes) for one, takes in chosen], left_kg=round(left, 3), unsure_kg=whole.unsure_kg,
        others=[_told(one, 0.0) for one in others[:6]],
    )  # fmt: skip


def _told(one: Candidate, takes: float) -> Cause:
    return Cause(
        words=one.words, low_kg=round(one.low_kg, 3), high_kg=round(one.high_kg, 3), takes_kg=round(takes, 3), deed=one.deed,
        about=one.about,
    )  # fmt: skip


def _candidates(tour: TourSheet, bike: Bike, trace: BikeTrace, levers: Levers, whole: WeighLine) -> Iterator[Candidate]:
    """What riders forget: a full bottle, a thing not stowed in the plan, a bag without a mass, guesses, wet cloth, mud."""
    carriers: dict[str, Carrier] = {c.id: c for c in bike.carriers}
    here = [(p.carrier_id, t) for p in tour.load.placements if p.carrier_id in carriers for t in tour.kit if t.id == p.thing_id]
    water = {c.carrier_id: c.supply_l["water"][0] for c in trace.carriers}
    room: dict[str, float] = {}
    for carrier_id, thing in here:
        if thing.holds_water_l > 0 and not thing.soft_vessel:
            room[carrier_id] = room.get(carrier_id, 0.0) + thing.holds_water_l
    for carrier_id, litres in room.items():
        spare = litres - (0.0 if whole.dry else water.get(carrier_id, 0.0))
        if spare > SCALE_UNSURE_KG["bag"]:
            words = say("{bag} is full: {kg} more water than planned", bag=carriers[carrier_id].name, kg=fine_kg(spare))
            yield Candidate(words, 0.0, spare, "fill", carrier_id, True, levers.carrier_shares(carriers[carrier_id]).front)
    placed: dict[str, int] = {}
    for placement in tour.load.placements:
        placed[placement.thing_id] = placed.get(placement.thing_id, 0) + placement.count
    for thing in tour.kit:
        out = thing.count - placed.get(thing.id, 0)
        if out > 0 and not thing.where and thing.rider_id in (None, bike.rider_id):
            words = say("{thing} is in a bag and not in the plan: {kg}", thing=thing.name, kg=fine_kg(thing.mass_kg * out))
            yield Candidate(words, 0.0, thing.mass_kg * out, "stow", thing.id, True)
    for carrier in bike.carriers:
        if carrier.mass_kg == 0:
            yield Candidate(say("{bag} has no mass of its own yet", bag=carrier.name), 0.0, 1.5, "weigh_carrier", carrier.id)
    guessed = [t for _, t in here if "mass" in t.guessed]
    off = sum(off_by_kg(t) * t.count for t in guessed)
    if off > 0:
        names = ", ".join(t.name for t in sorted(guessed, key=lambda t: -t.mass_kg)[:3])
        yield Candidate(say("{things}: guesses", things=names), -off, off, "weigh_thing", guessed[0].id)
    bags = sum(c.mass_kg * GUESS for c in bike.carriers if c.source == "default")
    if bags > 0:
        yield Candidate(say("Bags and racks as the catalogue has them"), -bags, bags, "weigh_carrier", bike.carriers[0].id)
    cloth = sum(t.mass_kg * t.count for _, t in here if t.wet)
    if cloth > 0:
        yield Candidate(say("What gets wet is wet"), 0.0, cloth * WET_CLOTH, "dry")
    yield Candidate(say("Mud on the bike"), 0.0, MUD_KG, "leave")
