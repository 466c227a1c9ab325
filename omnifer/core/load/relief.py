"""When not everything goes in: by how much each limit falls short, and which single change mends most."""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np
from pydantic import Field

from omnifer.core.load.formulate import in_its_own_order
from omnifer.core.load.limits import limits_of
from omnifer.core.load.nesting import as_one
from omnifer.core.load.problem import LEVER, Placing, Problem, Score
from omnifer.core.load.rules import clash, spot_of, why_not
from omnifer.core.load.search import forced_contents, search
from omnifer.core.model.carrier_kind import KINDS, LARGEST
from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.rig import Carrier
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import kg, litres, say

LIMITS_TRIED, ROUNDS = 4, 1
"""Limits tried when something stays out, and rounds of the search for each."""
PIN_PRICE = 150_000
"""Of freeing one pin, less than leaving one thing out [thousandths of a point]."""


class Shortfall(Noun):
    """A limit that everything together would exceed, and by how much at the worst moment."""

    key: str = Field(description="Of the limit, as the load's limits call it")
    limit: str = Field(description="In words")
    mass_kg: float = 0
    volume_l: float = 0
    too_light: bool = Field(False, description="Too little presses there, not too much")


class Relief(Noun):
    """A single change of the rig or the wishes that lets more in."""

    words: Text
    still_out: int = Field(description="Things that would then stay out")
    food_still_out: int = Field(0, description="Tenths of the food that would then stay out")
    frees: list[Placement] = Field([], description="The pins that it frees, if it is that")


def shortfalls(tour: TourSheet, problem: Problem, placing: Placing) -> list[Shortfall]:
    """Put back what was left out wherever it hurts least, and read off which limits then fall short."""
    grams, millilitres = forced_contents(problem, placing)
    names = {limit.key: limit.name for limit in limits_of(tour)}
    found: dict[str, Shortfall] = {}
    for j, carrier_id in enumerate(problem.carrier_ids):
        over_g = float(np.max(grams[j]) - problem.limit_g[j])
        over_ml = float(np.max(millilitres[j]) - problem.brim_ml[j])
        if over_g > 0 or over_ml > 0:
            key, mass, volume = f"bag_mass:{carrier_id}", round(max(over_g, 0) / 1000, 3), round(max(over_ml, 0) / 1000, 3)
            found[key] = Shortfall(key=key, limit=names[key], mass_kg=mass, volume_l=volume)
    hard = problem.hard
    values = hard.lever @ grams
    above = (values - hard.high[:, None]).max(axis=1)
    below = (hard.low[:, None] - values).max(axis=1)
    for r in np.flatnonzero(np.maximum(above, below) > 0):
        off, key = round(float(max(above[r], below[r])) / LEVER / 1000, 3), hard.names[r]
        too_light, volume = bool(below[r] > above[r]), found[key].volume_l if key in found else 0
        found[key] = Shortfall(key=key, limit=names[key], mass_kg=off, volume_l=volume, too_light=too_light)
    return sorted(found.values(), key=lambda s: (-s.mass_kg - s.volume_l, s.limit))


def best_change(tour: TourSheet, problem: Problem, short: list[Shortfall], score: Score) -> Relief | None:
    """Which one of these lets most in: few pins freed, or one of the limits that fall short raised by what it lacks."""
    found = []
    for words, frees, easier in _changes(tour, problem, short[:LIMITS_TRIED]):
        _, then = search(easier, ROUNDS)
        if then.broken == 0 and (then.missing < score.missing or score.broken > 0):
            relief = Relief(words=words, still_out=then.things_out, food_still_out=then.food_out, frees=frees)
            found.append((then.lacking, then.missing, len(frees), relief))
    return min(found, key=lambda f: f[:3])[3] if found else None


def _changes(tour: TourSheet, problem: Problem, short: list[Shortfall]) -> Iterator[tuple[Text, list[Placement], Problem]]:
    """Single changes in words, the pins each frees, and the problem it leaves."""
    if frees := _pins_in_the_way(problem):
        kept = problem.pinned.copy()
        for i, j, _ in frees:
            kept[i, j] = 0
        pins = [Placement(thing_id=problem.thing_ids[i], carrier_id=problem.carrier_ids[j], count=n) for i, j, n in frees]
        yield _freed_words(tour, problem, frees), pins, replace(problem, pinned=kept)
    hard = problem.hard
    bags = {f"bag_mass:{carrier.id}": carrier for carrier in tour.carriers}
    for lacking in short:
        if lacking.key in bags and not _can_exist(bags[lacking.key], lacking):
            continue
        more_g, more_ml = round(lacking.mass_kg * 1000) + 1, round(lacking.volume_l * 1000) + 1
        here = np.array([f"bag_mass:{c}" == lacking.key for c in problem.carrier_ids])
        row = np.array([name == lacking.key for name in hard.names])
        raised = replace(
            hard,
            high=np.where(row, hard.high + LEVER * more_g, hard.high),
            low=np.where(row, hard.low - LEVER * more_g, hard.low),
        )
        limits = {"limit_g": problem.limit_g + more_g * here, "brim_ml": problem.brim_ml + more_ml * here}
        yield _raised_words(lacking), [], replace(problem, hard=raised, **limits)


def _can_exist(bag: Carrier, lacking: Shortfall) -> bool:
    """Whether bags of its kind are made so much larger and stronger."""
    kind = KINDS[bag.kind]
    largest_l, strongest_kg = (
        max(LARGEST * usual, own) for usual, own in ((kind.volume_l, bag.volume_l), (kind.limit_kg, bag.limit_kg))
    )
    return bag.volume_l + lacking.volume_l <= largest_l and bag.limit_kg + lacking.mass_kg <= strongest_kg


def _raised_words(lacking: Shortfall) -> Text:
    if lacking.too_light:
        return say("{kg} more on the {limit}", kg=kg(lacking.mass_kg), limit=lacking.limit)
    more = {"litres": litres(lacking.volume_l)} if lacking.volume_l else {}
    more |= {"kg": kg(lacking.mass_kg)} if lacking.mass_kg else {}
    return say("{limit} larger by " + " and ".join(f"{{{name}}}" for name in more), limit=lacking.limit, **more)


def _pins_in_the_way(problem: Problem) -> list[tuple[int, int, int]]:
    """Thing, carrier and number of the pins whose freeing lets most in: pins become wishes at a price."""
    pinned = problem.pinned
    if not pinned.any():
        return []
    elsewhere = np.where((pinned.sum(axis=1, keepdims=True) > 0) & (pinned == 0), PIN_PRICE, 0)
    wished = replace(
        problem,
        pinned=np.zeros_like(pinned),
        cost_parts=problem.cost_parts | {"changes": problem.cost_parts["changes"] + elsewhere},
        out_cost=problem.out_cost + np.where(pinned.any(axis=1), PIN_PRICE, 0),
    )
    placing, _ = search(wished, ROUNDS)
    missing = np.maximum(pinned - placing.x, 0)
    return [(int(i), int(j), int(pinned[i, j])) for i, j in np.argwhere(missing)]


def _freed_words(tour: TourSheet, problem: Problem, frees: list[tuple[int, int, int]]) -> Text:
    """Which pins to free; of a single one also what it clashes with."""
    one = in_its_own_order(as_one(tour))
    things, carriers = one.kit, one.carriers
    if len(frees) != 1:
        named = ", ".join(f"{things[i].name} in {carriers[j].name}" for i, j, _ in frees[:3])
        return say("free the pins of {pins}", pins=named + (" and others" if len(frees) > 3 else ""))
    i, j, _ = frees[0]
    thing, carrier = things[i], carriers[j]
    beside = (clash(thing, things[k]) for k in np.flatnonzero(problem.pinned[:, j]) if k != i)
    reason = why_not(thing, spot_of(tour.bike_of(carrier.id), carrier)) or next((r for r in beside if r is not None), None)
    words = say("free the pin of {thing} in {bag}", thing=thing.name, bag=carrier.name)
    if reason is None:
        return words
    return Text(words=f"{words.words} ({reason.words})", figures=words.figures | reason.figures, names=words.names | reason.names)
