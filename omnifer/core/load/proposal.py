"""Proposes a load: the better of search and solver, what stays out, and which limits fall short."""

from collections import deque
from collections.abc import Container, Iterator
from concurrent.futures import ThreadPoolExecutor
from typing import TYPE_CHECKING

import numpy as np
from pydantic import Field

from omnifer.core.load.explain import placing_of
from omnifer.core.load.formulate import formulate
from omnifer.core.load.nesting import as_one, taken_along
from omnifer.core.load.problem import Placing, Problem, Score, evaluate
from omnifer.core.load.relief import Relief, Shortfall, best_change, shortfalls
from omnifer.core.load.rules import first_against, spot_of
from omnifer.core.load.search import Search, better_and_better
from omnifer.core.model.load import FoodShare, Load, Placement
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.tour import TourSheet
from omnifer.core.supplies.stock import Stock

if TYPE_CHECKING:
    from omnifer.core.load.solver import Solved

ROUNDS = 9
"""Annealing rounds of the search: some six seconds at a hundred things."""
EFFORT = 1.0
"""Deterministic effort of the solver: some four to six seconds on one core."""


class Proposal(Noun):
    """A proposed load and how good it is."""

    load: Load
    holds: bool = Field(description="Every hard limit holds at every moment of the tour")
    complete: bool = Field(description="Nothing is left out")
    points: float = Field(description="By the aims: fewer is better; what stays out counts before them and apart")
    bound: float | None = Field(description="No load that takes as much along can have fewer; None: not known")
    proven: bool
    out: dict[str, int] = Field(description="How many of each thing stay out")
    things: int = Field(0, description="Of the whole kit that is packed anywhere")
    food_out_tenths: int
    reasons: dict[str, Text] = Field({}, description="Of what stays out, why no carrier could take it even by itself")
    done: float = Field(1.0, description="How much of the search is behind it [-]")
    short: list[Shortfall] = Field(description="What everything together would need more of, where something stays out")
    change: Relief | None = Field(None, description="The single change that lets most in, where something stays out")


def propose(tour: TourSheet, stock: Stock, rounds: int = ROUNDS, effort: float = EFFORT) -> Proposal:
    """The best load found for the whole tour: the last of `proposing`. The same tour and effort give the same load."""
    return deque(proposing(tour, stock, rounds, effort), maxlen=1)[0]


def proposing(
    tour: TourSheet, stock: Stock, rounds: int = ROUNDS, effort: float = EFFORT, start: Load | None = None
) -> Iterator[Proposal]:
    """Ever better loads for the whole tour, the first at once; whoever has seen enough closes the iterator.

    Parameters
    ----------
    stock : Stock
        Water and food along the tour, with every vessel of the kit on board.
    rounds : int
        Effort of the search.
    effort : float
        Effort of the solver; 0 leaves it out, and with it the bound.
    start : Load, optional
        A load to begin with.
    """
    problem = formulate(tour, stock)
    if not problem.thing_ids or not problem.carrier_ids:
        yield _empty(tour, problem)
        return
    begun = placing_of(tour.model_copy(update={"load": start}), problem) if start else None
    # Each counts its own steps, so that side by side they give what they would give one after the other; the solver
    # begins when the first load is there, which building its model would hold up.
    beside = ThreadPoolExecutor(max_workers=1)
    solving = None
    try:
        for turn, (placing, score) in enumerate(better_and_better(problem, begun)):
            if turn == 0 and effort > 0:
                solving = beside.submit(_solved, problem, effort)
            done = turn / (rounds + 1)
            if turn < rounds:
                bound = (
                    max(solving.result().bound, 0.0) if solving and solving.done() and not solving.result().infeasible else None
                )
                yield answer_of(tour, problem, placing, score, bound, done)
                continue
            yield _settled(tour, problem, placing, score, solving.result() if solving else None)
            return
    finally:
        beside.shutdown(wait=False, cancel_futures=True)


def _solved(problem: Problem, effort: float) -> "Solved":
    from omnifer.core.load.solver import solve  # half a second that only a search costs

    return solve(problem, effort)


def _settled(tour: TourSheet, problem: Problem, placing: Placing, score: Score, solved: "Solved | None") -> Proposal:
    """The better of search and solver, with the solver's bound."""
    if solved is not None and solved.placing is not None:
        polished, better = _polish(problem, solved.placing)
        if better.order < score.order:
            placing, score = polished, better
    return answer_of(tour, problem, placing, score, solved.floor if solved else None, 1.0)


def advice(tour: TourSheet, stock: Stock, proposal: Proposal, besides: int) -> Relief | None:
    """The single change that would let most in, where a proposal leaves things out; `besides` stay out in any case."""
    problem = formulate(tour, stock)
    if not problem.thing_ids or not problem.carrier_ids:
        return None
    score = evaluate(problem, placing_of(tour.model_copy(update={"load": proposal.load}), problem))
    found = best_change(tour, problem, proposal.short, score)
    return found and found.model_copy(update={"still_out": found.still_out + besides})


def _polish(problem: Problem, placing: Placing) -> tuple[Placing, Score]:
    """Descend from the solver's load; keep its own where rounding makes that better."""
    state = Search(problem, placing)
    state.descend()
    after, before = state.placing(), placing
    scores = [(evaluate(problem, after), after), (evaluate(problem, before), before)]
    score, best = min(scores, key=lambda pair: pair[0].order)
    return best, score


def answer_of(tour: TourSheet, problem: Problem, placing: Placing, score: Score, bound: float | None, done: float) -> Proposal:
    """A placing as a proposal; `bound` in thousandths of a point, `done` the part of the search behind it [-]."""
    proven = bound is not None and score.objective <= bound + 0.5
    placements = []
    filled = {(p.thing_id, p.carrier_id): p.filled_l for p in tour.load.placements}
    for i, thing_id in enumerate(problem.thing_ids):
        for j in np.flatnonzero(placing.x[i]):
            count, pinned = int(placing.x[i, j]), int(problem.pinned[i, j])
            for part, is_pinned in ((pinned, True), (count - pinned, False)):
                if part > 0:
                    at = (thing_id, problem.carrier_ids[j])
                    kept = filled.get(at)
                    placements.append(Placement(thing_id=at[0], carrier_id=at[1], count=part, pinned=is_pinned, filled_l=kept))
    food = tuple(FoodShare(carrier_id=problem.carrier_ids[j], tenths=int(placing.food[j])) for j in np.flatnonzero(placing.food))
    out = problem.count - placing.x.sum(axis=1)
    missing = {problem.thing_ids[i]: int(out[i]) for i in np.flatnonzero(out)}
    missing |= {thing.id: thing.count for thing in tour.kit if thing.inside in missing}
    food_out = int(10 - placing.food.sum())
    return Proposal(
        load=Load(placements=taken_along(placements, tour.kit), food=food),
        holds=score.broken == 0,
        complete=not missing and food_out == 0,
        points=(score.objective - score.missing) / 1000,
        bound=round((bound - score.missing) / 1000, 3) if bound is not None and (proven or not score.missing) else None,
        proven=proven and score.broken == 0,
        out=missing,
        things=sum(thing.count for thing in tour.kit if thing.ever_packed),
        food_out_tenths=food_out,
        reasons=_reasons(tour, missing),
        done=round(done, 3),
        short=shortfalls(tour, problem, placing) if missing or food_out or score.broken else [],
    )


def _reasons(tour: TourSheet, missing: Container[str]) -> dict[str, Text]:
    """Why things that stay out could ride nowhere at all: what speaks against the carrier that comes nearest to taking them."""
    one = as_one(tour)
    spots = [spot_of(bike, carrier) for bike in one.rig.bikes for carrier in bike.carriers]
    found = {}
    for thing in one.kit:
        against = [(spot, *reason) for spot in spots if (reason := first_against(thing, spot)) is not None]
        if thing.id in missing and spots and len(against) == len(spots):
            spot, _, text = max(against, key=lambda entry: entry[1])
            words = "{thing} fits nowhere: " + text.words + " in {bag}, the likeliest place"
            found[thing.id] = Text(
                words=words, figures=text.figures, names=text.names | {"thing": thing.name, "bag": spot.carrier.name}
            )
    return found


def leaving_out(proposal: Proposal, out: dict[str, int]) -> Proposal:
    """A proposal for a tour without some things as one for the whole tour, which leaves them out; a bound of the smaller
    problem is none of the whole one."""
    both = proposal.out | {thing_id: n + proposal.out.get(thing_id, 0) for thing_id, n in out.items()}
    things = proposal.things + sum(out.values())
    return proposal.model_copy(update={"complete": False, "bound": None, "proven": False, "out": both, "things": things})


def _empty(tour: TourSheet, problem: Problem) -> Proposal:
    """Nothing to place, or nowhere to place it."""
    out = {thing.id: thing.count for thing in tour.kit}
    return Proposal(
        load=Load(),
        holds=True,
        complete=not out,
        points=0,
        bound=None,
        proven=False,
        out=out,
        things=sum(out.values()),
        food_out_tenths=10,
        short=[],
    )
