"""Puts a load right after a change by hand, with as few other things moved as will do."""

from collections.abc import Collection

from omnifer.core.load.explain import placing_of
from omnifer.core.load.formulate import formulate
from omnifer.core.load.problem import Placing, Problem, Score, evaluate
from omnifer.core.load.proposal import Proposal, answer_of
from omnifer.core.load.search import REHEATED, Search, without_clashes
from omnifer.core.model.tour import TourSheet
from omnifer.core.supplies.stock import Stock

HABIT_OF_REPAIR = 3.0
"""Times the usual price of a thing that moves: a repair moves a thing only for what is worth a kit's splitting."""
STEPS_OF_REPAIR = 25
"""Annealing steps for each thing and carrier, where descent alone does not mend a load."""


def repair(tour: TourSheet, stock: Stock, in_hand: Collection[str] = ()) -> Proposal:
    """The standing load with what does not fit put right, by few moves; what is in hand stays where it is, as pins do.

    Descends from the load as it stands, with a price for every thing that moves; where that leaves a limit broken or a
    thing out, one round of annealing follows.
    """
    aims = tour.aims.model_copy(update={"changes": max(tour.aims.changes, HABIT_OF_REPAIR)})
    pins = tuple(
        p.model_copy(update={"pinned": p.pinned or p.thing_id in in_hand}) for p in tour.load.placements
    )  # fmt: skip
    pinned = tour.model_copy(update={"aims": aims, "load": tour.load.model_copy(update={"placements": pins})})
    problem = formulate(pinned, stock)
    placing, score = put_right(problem, placing_of(pinned, problem))
    answer = answer_of(pinned, problem, placing, score, None, 1.0)
    was = {(p.thing_id, p.carrier_id) for p in tour.load.placements if p.pinned}
    kept = tuple(
        p.model_copy(update={"pinned": p.pinned and (p.thing_id, p.carrier_id) in was}) for p in answer.load.placements
    )  # fmt: skip
    return answer.model_copy(update={"load": answer.load.model_copy(update={"placements": kept})})


def put_right(problem: Problem, standing: Placing) -> tuple[Placing, Score]:
    """The nearest load to one that stands in which nothing can be had cheaper by single moves and exchanges."""
    state = Search(problem, without_clashes(problem, standing))
    state.insert_all()
    state.descend()
    placing = state.placing()
    score = evaluate(problem, placing)
    if score.broken or score.out:
        state.anneal(STEPS_OF_REPAIR * problem.allowed.size, 0, REHEATED)
        state.descend()
        if (again := evaluate(problem, state.placing())).order < score.order:
            placing, score = state.placing(), again
    return placing, score
