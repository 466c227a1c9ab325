"""The placing problem against another solver (HiGHS, from its own package) and against plain enumeration."""

import itertools
from dataclasses import replace

import numpy as np
import pytest

from bench.by_hand import hand_order
from bench.highs import run_highs
from bench.tours import bench_problem
from omnifer.core.load.problem import Placing, Problem, evaluate
from omnifer.core.load.search import better_and_better, search
from omnifer.core.load.solver import solve


def least_by_enumeration(problem: Problem) -> int:
    """The best objective of all placings that hold, every one of them looked at; the food stays out."""
    food = np.zeros(problem.limit_g.size, dtype=np.int64)
    best = None
    for places in itertools.product(range(problem.limit_g.size + 1), repeat=problem.count.size):
        x = np.zeros(problem.allowed.shape, dtype=np.int64)
        for thing, place in enumerate(places):
            if place < problem.limit_g.size:
                x[thing, place] = 1
        score = evaluate(problem, Placing(x, food))
        if score.broken == 0 and (best is None or score.objective < best):
            best = score.objective
    assert best is not None
    return best


def without_food(problem: Problem) -> Problem:
    """The problem with no bag that takes food, so that enumeration stays small."""
    return replace(problem, food_allowed=np.zeros_like(problem.food_allowed))


@pytest.mark.parametrize("seed", range(2))
def test_the_optimum_is_that_of_every_placing_looked_at(seed):
    problem = without_food(bench_problem(10, 4, "loose", seed))
    cut = {
        name: getattr(problem, name)[:5]
        for name in (
            "thing_ids",
            "mass_g",
            "volume_ml",
            "pressed_ml",
            "allowed",
            "out_cost",
            "may",
            "group",
            "opened",
            "has",
            "repels",
            "pinned",
            "food_repelled",
        )
    }
    parts = {aim: part[:5] for aim, part in problem.cost_parts.items()}
    small = replace(problem, **cut, cost_parts=parts, count=np.minimum(problem.count[:5], 1))
    least = least_by_enumeration(small)
    solved = solve(small, effort=4)
    assert solved.proven
    assert solved.placing is not None
    assert evaluate(small, solved.placing).objective == least
    assert round(solved.bound) == least
    _, found = search(small, rounds=6)
    assert (found.objective, found.broken) == (least, 0)


@pytest.mark.parametrize("packed", ["loose", "tight"])
def test_two_solvers_agree_on_the_optimum(packed):
    """HiGHS proves with continuous slacks, CP-SAT in whole grams: they may differ by the rounding of the slacks."""
    problem = bench_problem(9, 4, packed, 3)
    found, bound = run_highs(problem, 30)
    theirs = evaluate(problem, found[-1][1])
    ours = solve(problem, effort=8)
    assert ours.proven
    assert ours.placing is not None
    assert theirs.broken == 0
    slack = int(problem.soft.weight.sum()) * (problem.states + problem.worst_times)
    assert ours.bound <= theirs.objective + slack
    assert bound <= ours.bound + slack
    _, searched = search(problem, rounds=6)
    assert ours.bound <= searched.objective <= 1.01 * ours.bound


@pytest.mark.parametrize(("things", "carriers", "seed"), [(40, 8, 1), (60, 14, 2)])
def test_the_search_beats_the_hand_order_at_once(things, carriers, seed):
    """A rider's own order, heavy things first, low and in the middle, sides in turn (common practice, no source)."""
    problem = bench_problem(things, carriers, "loose", seed)
    by_hand = evaluate(problem, hand_order(problem))
    rounds = better_and_better(problem)
    _, first = next(rounds)
    _, second = next(rounds)
    assert by_hand.broken == first.broken == second.broken == 0
    assert first.out == 0
    assert first.objective < by_hand.objective
    assert second.objective <= first.objective
