"""Proposes a load: the better of search and solver, what stays out, and which limits fall short."""

from concurrent.futures import ThreadPoolExecutor

import numpy as np
from pydantic import Field

from omnifer.core.load.aims import OUT_THING
from omnifer.core.load.formulate import formulate
from omnifer.core.load.problem import LEVER, Placing, Problem, Score, evaluate
from omnifer.core.load.search import Search, forced_contents, search
from omnifer.core.load.solver import solve
from omnifer.core.load.trace import Stores
from omnifer.core.model.load import FoodShare, Load, Placement
from omnifer.core.model.quantities import Noun
from omnifer.core.model.tour import TourSheet

ROUNDS = 8
"""Annealing rounds of the search: some four seconds at a hundred things, the first good load after 50 ms."""
EFFORT = 1.0
"""Deterministic effort of the solver: some four seconds on one core."""


class Shortfall(Noun):
    """A limit that everything together would exceed, and by how much at the worst moment."""

    limit: str
    mass_kg: float = 0
    volume_l: float = 0


class Proposal(Noun):
    """A proposed load and how good it is."""

    load: Load
    holds: bool = Field(description="Every hard limit holds at every moment that governs")
    complete: bool = Field(description="Nothing is left out")
    points: float = Field(description="The objective: fewer is better")
    bound: float | None = Field(description="No load of this kit on this rig can have fewer points; None: not known")
    proven: bool
    out: dict[str, int] = Field(description="How many of each thing stay out")
    food_out_tenths: int
    short: list[Shortfall] = Field(description="What everything together would need more of, where something stays out")


def propose(tour: TourSheet, stores: Stores, rounds: int = ROUNDS, effort: float = EFFORT) -> Proposal:
    """The best load found for the whole tour. The same tour and effort give the same load.

    Parameters
    ----------
    stores : Stores
        Water and food along the tour, with every vessel of the kit on board.
    rounds : int
        Effort of the search.
    effort : float
        Effort of the solver; 0 leaves it out, and with it the bound.
    """
    problem = formulate(tour, stores)
    if not problem.thing_ids or not problem.carrier_ids:
        return _empty(tour, problem)
    # Each counts its own steps, so that side by side they give what they would give one after the other.
    with ThreadPoolExecutor(max_workers=1) as beside:
        solving = beside.submit(solve, problem, effort) if effort > 0 else None
        placing, score = search(problem, rounds)
        solved = solving.result() if solving else None
    bound, proven = None, False
    if solved is not None:
        bound = max(solved.bound, 0.0) if not solved.infeasible else None
        if solved.placing is not None:
            polished, better = _polish(problem, solved.placing)
            if better.order < score.order:
                placing, score = polished, better
        proven = bound is not None and score.objective <= bound + 0.5
    return _answer(tour, problem, placing, score, bound, proven)


def _polish(problem: Problem, placing: Placing) -> tuple[Placing, Score]:
    """Descend from the solver's load; keep its own where rounding makes that better."""
    state = Search(problem, placing)
    state.descend()
    after, before = state.placing(), placing
    scores = [(evaluate(problem, after), after), (evaluate(problem, before), before)]
    score, best = min(scores, key=lambda pair: pair[0].order)
    return best, score


def _answer(tour: TourSheet, problem: Problem, placing: Placing, score: Score, bound: float | None, proven: bool) -> Proposal:
    placements = []
    for i, thing_id in enumerate(problem.thing_ids):
        for j in np.flatnonzero(placing.x[i]):
            count, pinned = int(placing.x[i, j]), int(problem.pinned[i, j])
            for part, is_pinned in ((pinned, True), (count - pinned, False)):
                if part > 0:
                    placements.append(
                        Placement(thing_id=thing_id, carrier_id=problem.carrier_ids[j], count=part, pinned=is_pinned)
                    )
    food = tuple(FoodShare(carrier_id=problem.carrier_ids[j], tenths=int(placing.food[j])) for j in np.flatnonzero(placing.food))
    out = problem.count - placing.x.sum(axis=1)
    missing = {problem.thing_ids[i]: int(out[i]) for i in np.flatnonzero(out)}
    food_out = int(10 - placing.food.sum())
    return Proposal(
        load=Load(placements=tuple(placements), food=food),
        holds=score.broken == 0,
        complete=not missing and food_out == 0,
        points=score.objective / 1000,
        bound=None if bound is None else round(bound / 1000, 3),
        proven=proven and score.broken == 0,
        out=missing,
        food_out_tenths=food_out,
        short=_shortfalls(tour, problem, placing) if missing or food_out else [],
    )


def _shortfalls(tour: TourSheet, problem: Problem, placing: Placing) -> list[Shortfall]:
    """Put back what was left out wherever it hurts least, and read off which limits then fall short."""
    grams, millilitres = forced_contents(problem, placing)
    names = {c.id: c.name for c in tour.carriers}
    result = []
    for j, carrier_id in enumerate(problem.carrier_ids):
        over_g = float(np.max(grams[j]) - problem.limit_g[j])
        over_ml = float(np.max(millilitres[j]) - problem.room_ml[j])
        if over_g > 0 or over_ml > 0:
            kg, litres = round(max(over_g, 0) / 1000, 3), round(max(over_ml, 0) / 1000, 3)
            result.append(Shortfall(limit=names[carrier_id], mass_kg=kg, volume_l=litres))
    hard = problem.hard
    values = hard.lever @ grams
    beyond = np.maximum(values - hard.high[:, None], hard.low[:, None] - values).max(axis=1) / LEVER
    for r in np.flatnonzero(beyond > 0):
        result.append(Shortfall(limit=hard.names[r], mass_kg=round(float(beyond[r]) / 1000, 3)))
    return sorted(result, key=lambda s: (-s.mass_kg - s.volume_l, s.limit))


def _empty(tour: TourSheet, problem: Problem) -> Proposal:
    """Nothing to place, or nowhere to place it."""
    out = {thing.id: thing.count for thing in tour.kit}
    return Proposal(
        load=Load(),
        holds=True,
        complete=not out,
        points=float(problem.out_cost @ problem.count) / 1000 + 10 * OUT_THING,
        bound=None,
        proven=False,
        out=out,
        food_out_tenths=10,
        short=[],
    )
