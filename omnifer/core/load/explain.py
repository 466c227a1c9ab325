"""Why a thing rides where it does, and what each aim costs: read off the placing problem, never guessed."""

from dataclasses import replace
from typing import Literal

import numpy as np
from pydantic import Field

from omnifer.core.load.aims import AIMS
from omnifer.core.load.formulate import formulate, in_its_own_order
from omnifer.core.load.limits import InHand, Loaded
from omnifer.core.load.nesting import as_one
from omnifer.core.load.places import against
from omnifer.core.load.problem import Placing, Problem, bill, evaluate
from omnifer.core.model.aims import AimName
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.tour import TourSheet
from omnifer.core.supplies.stock import Stock


class Paid(Noun):
    """Points for one aim, or for what is left out."""

    aim: AimName | Literal["out"]
    words: str
    points: float


OUT = "What no bag takes"


class Elsewhere(Noun):
    """One other place for a thing, all else standing still."""

    carrier_id: str | None = Field(description="None: the shelf")
    points: float = Field(description="Points more than where it rides now; below 0 it would be better there")
    by_aim: list[Paid] = Field(description="What of that each aim says, where it says anything")
    against: Text | None = Field(description="Why it cannot ride there as the load stands")


class Why(Noun):
    """Why a thing rides in a carrier."""

    thing_id: str
    carrier_id: str | None
    pinned: bool
    places: list[Elsewhere] = Field(description="All other places, those that are possible first, the cheapest of them first")


def placing_of(tour: TourSheet, problem: Problem) -> Placing:
    """The load of a tour as a placing."""
    things = {identifier: i for i, identifier in enumerate(problem.thing_ids)}
    carriers = {identifier: j for j, identifier in enumerate(problem.carrier_ids)}
    x, food = np.zeros_like(problem.pinned), np.zeros(problem.limit_g.size, dtype=np.int64)
    for placement in as_one(tour).load.placements:
        x[things[placement.thing_id], carriers[placement.carrier_id]] += placement.count
    for share in tour.load.food:
        food[carriers[share.carrier_id]] = share.tenths
    return Placing(x, food)


def breaks_at(tour: TourSheet, stock: Stock) -> list[int]:
    """Moments at which the load of a tour is furthest beyond a limit, one for each limit that it breaks; none: it holds."""
    return sorted({int(beyond.argmax()) for _, beyond in Loaded.of(tour, stock).broken})


def bill_of(tour: TourSheet, stock: Stock) -> list[Paid]:
    """What the load of a tour costs, by aim [points]; habit apart, which asks where things ride now."""
    problem = formulate(tour, stock)
    return _told(bill(problem, placing_of(tour, problem)))


def _told(costs: dict[AimName | Literal["out"], int]) -> list[Paid]:
    """Costs in the order of the aims, in points; what costs nothing is told too."""
    words: dict[AimName | Literal["out"], str] = {aim.name: aim.words for aim in AIMS} | {"out": OUT}
    return [Paid(aim=name, words=words[name], points=costs[name] / 1000) for name in words if name in costs]


def why(tour: TourSheet, stock: Stock, thing_id: str, carrier_id: str | None) -> Why:
    """What every other place would cost one of a thing; of a nested one, the thing it rides in.

    Raises KeyError where it is not at the place it is said to be.
    """
    thing_id = next((t.inside for t in tour.kit if t.id == thing_id and t.inside is not None), thing_id)
    tour = in_its_own_order(as_one(tour))
    problem = formulate(tour, stock)
    standing = placing_of(tour, problem)
    i = problem.thing_ids.index(thing_id) if thing_id in problem.thing_ids else -1
    at = problem.carrier_ids.index(carrier_id) if carrier_id in problem.carrier_ids else -1
    if i < 0 or (carrier_id is not None and (at < 0 or standing.x[i, at] == 0)):
        raise KeyError(thing_id)
    free = replace(problem, pinned=np.zeros_like(problem.pinned))
    here, violation = bill(free, standing), evaluate(free, standing).broken
    loaded, in_hand = Loaded.of(tour, stock), [InHand(tour.kit[i], 1, carrier_id)]
    insides = [(bike.bike, inside) for bike in loaded.bikes for inside in bike.contents]
    places = []
    for j, other in enumerate((*problem.carrier_ids, None)):
        if other == carrier_id:
            continue
        moved = _moved(standing, i, at, j if other is not None else -1)
        there = bill(free, moved)
        by_aim = {name: there[name] - here[name] for name in there if there[name] != here[name]}
        reason = None
        if other is not None and evaluate(free, moved).broken > violation:
            bike, inside = insides[j]
            reason = next(against(loaded, bike, inside, in_hand), None)
        points = (sum(there.values()) - sum(here.values())) / 1000
        places.append(Elsewhere(carrier_id=other, points=points, by_aim=_told(by_aim), against=reason))
    places.sort(key=lambda place: (place.against is not None, place.points))
    pinned = at >= 0 and bool(problem.pinned[i, at] > 0)
    return Why(thing_id=thing_id, carrier_id=carrier_id, pinned=pinned, places=places)


def _moved(placing: Placing, i: int, a: int, b: int) -> Placing:
    x = placing.x.copy()
    if a >= 0:
        x[i, a] -= 1
    if b >= 0:
        x[i, b] += 1
    return Placing(x, placing.food)
