"""Why a thing rides where it does, and what each aim costs: read off the placing problem, never guessed."""

from dataclasses import replace
from typing import Literal

import numpy as np
from pydantic import Field

from omnifer.core.load.formulate import formulate
from omnifer.core.load.nesting import as_one
from omnifer.core.load.problem import Placing, Problem, beyond_limits, bill, evaluate, overshoot
from omnifer.core.load.rules import clash, spot_of, why_not
from omnifer.core.load.trace import Stores
from omnifer.core.model.aims import AimName
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import kg, litres, say

Paid = dict[AimName | Literal["out"], float]
"""Points by aim."""


class Elsewhere(Noun):
    """One other place for a thing, all else standing still."""

    carrier_id: str | None = Field(description="None: the shelf")
    points: float = Field(description="Points more than where it rides now; below 0 it would be better there")
    by_aim: Paid = Field(description="What of that each aim says, where it says anything")
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


def breaks_at(tour: TourSheet, stores: Stores) -> list[int]:
    """Moments at which the load of a tour is furthest beyond a limit, one for each limit that it breaks; none: it holds."""
    problem = formulate(tour, stores, every_moment=True)
    beyond = beyond_limits(problem, placing_of(tour, problem))
    return sorted({int(moment) for moment in beyond.argmax(axis=1)[beyond.any(axis=1)]})


def bill_of(tour: TourSheet, stores: Stores) -> Paid:
    """What the load of a tour costs, by aim [points]; habit apart, which asks where things ride now."""
    problem = formulate(tour, stores)
    return _points(bill(problem, placing_of(tour, problem)))


def _points(costs: dict[AimName | Literal["out"], int]) -> Paid:
    return {name: cost / 1000 for name, cost in costs.items()}


def why(tour: TourSheet, stores: Stores, thing_id: str, carrier_id: str | None) -> Why:
    """What every other place would cost one of a thing; of a nested one, the thing it rides in.

    Raises KeyError where it is not at the place it is said to be.
    """
    thing_id = next((t.inside for t in tour.kit if t.id == thing_id and t.inside is not None), thing_id)
    tour = as_one(tour)
    problem = formulate(tour, stores)
    standing = placing_of(tour, problem)
    i = problem.thing_ids.index(thing_id) if thing_id in problem.thing_ids else -1
    at = problem.carrier_ids.index(carrier_id) if carrier_id in problem.carrier_ids else -1
    if i < 0 or (carrier_id is not None and (at < 0 or standing.x[i, at] == 0)):
        raise KeyError(thing_id)
    free = replace(problem, pinned=np.zeros_like(problem.pinned))
    here, broken = bill(free, standing), evaluate(free, standing).broken
    places = []
    for j, other in enumerate((*problem.carrier_ids, None)):
        if other == carrier_id:
            continue
        moved = _moved(standing, i, at, j if other is not None else -1)
        there = bill(free, moved)
        by_aim = {name: (there[name] - here[name]) / 1000 for name in there if there[name] != here[name]}
        against = None
        if evaluate(free, moved).broken > broken:
            against = _against(tour, problem, moved, i, j)
        points = (sum(there.values()) - sum(here.values())) / 1000
        places.append(Elsewhere(carrier_id=other, points=points, by_aim=by_aim, against=against))
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


def _against(tour: TourSheet, problem: Problem, moved: Placing, i: int, j: int) -> Text:
    """The first reason against a thing in a carrier with the load as it stands."""
    thing, carrier = tour.kit[i], tour.carriers[j]
    if (reason := why_not(thing, spot_of(tour.bike_of(carrier.id), carrier))) is not None:
        return reason
    for k in np.flatnonzero(moved.x[:, j]):
        if k != i and (reason := clash(thing, tour.kit[k])) is not None:
            return reason
    load = moved.x.T @ problem.mass_g + moved.food[:, None] * problem.food_g
    pressed = moved.x.T @ problem.pressed_ml + moved.food[:, None] * problem.food_ml
    if (over_ml := int((pressed[j] - problem.brim_ml[j]).max())) > 0:
        return say("{over} too full then", over=litres(over_ml / 1000))
    if (over_g := int((load[j] - problem.limit_g[j]).max())) > 0:
        return say("{over} over its limit then", over=kg(over_g / 1000))
    beyond = overshoot(problem.hard.lever @ load, problem.hard).max(axis=1)
    row = int(np.argmax(beyond * (problem.hard.lever[:, j] != 0)))
    return say("{limit} over by {over} then", limit=problem.hard.names[row], over=kg(float(beyond[row]) / 1000))
