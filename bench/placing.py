"""The proposal on generated tours, beside HiGHS on the same arrays and beside loading by hand, in one run.

    python -m bench.placing [--seeds 5] [--seconds 20] [--size 120x14] [--markdown]

Prints how far the objective is above the best proven bound of the run at 1, 2, 5 and 20 s, and above the best load known
(bench.best_known). The search and CP-SAT run side by side, as in the product; HiGHS (one thread) runs after them, alone.
"""

import argparse
import resource
import statistics
import threading
import time
from collections.abc import Callable

from ortools.sat.python import cp_model

from bench.best_known import best_known, name_of, note
from bench.by_hand import hand_order
from bench.highs import run_highs
from bench.tours import FILLED, SIZES, bench_problem
from omnifer.core.load.problem import Placing, Problem, Score, evaluate
from omnifer.core.load.search import better_and_better
from omnifer.core.load.solver import Model, parameters

MARKS = (1.0, 2.0, 5.0, 20.0)
Timeline = list[tuple[float, Score]]


class Heard(cp_model.CpSolverSolutionCallback):
    """Tells of what CP-SAT finds."""

    def __init__(self, model: Model, note: Callable[[Placing], None]) -> None:
        super().__init__()
        self.model, self.note = model, note

    def on_solution_callback(self) -> None:
        self.note(self.model.read(self.value))


def run_ours(problem: Problem, seconds: float) -> tuple[Timeline, Timeline, float]:
    """What the search and CP-SAT find side by side, and CP-SAT's bound."""
    started = time.perf_counter()
    searched: Timeline = []
    solved: Timeline = []
    bound = [0.0]

    def solve() -> None:
        model = Model(problem)
        solver = parameters(1e6)
        solver.parameters.max_time_in_seconds = seconds - (time.perf_counter() - started)
        heard = Heard(model, lambda placing: solved.append((time.perf_counter() - started, evaluate(problem, placing))))
        solver.solve(model.model, heard)
        bound[0] = solver.best_objective_bound

    beside = threading.Thread(target=solve)
    for turn, (_, score) in enumerate(better_and_better(problem)):
        if turn == 0:
            beside.start()
        now = time.perf_counter() - started
        searched.append((now, score))
        if now > seconds:
            break
    beside.join()
    return searched, solved, bound[0]


def best_at(timeline: Timeline, second: float) -> Score | None:
    """The best load found up to then that holds every limit."""
    found = [score for at, score in timeline if at <= second and score.broken == 0]
    return min(found, key=lambda score: score.objective) if found else None


def points(score: Score | None) -> float:
    return score.objective / 1000 if score is not None else float("inf")


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--seeds", type=int, default=5)
    arguments.add_argument("--seconds", type=float, default=20)
    arguments.add_argument("--size", action="append", help="things x carriers, such as 120x14; may be given again")
    wanted = arguments.parse_args()
    sizes = [tuple(map(int, size.split("x"))) for size in wanted.size] if wanted.size else SIZES
    next(better_and_better(bench_problem(20, 8, "loose", 0)))
    print("Points above the proven bound, in %, median over the seeds (worst). '-': nothing that holds yet.")
    marks = [mark for mark in MARKS if mark <= wanted.seconds]
    at = " ".join(f"{f'at {m:g} s':>14}" for m in marks)
    theirs = " ".join(f"{f'at {m:g} s':>9}" for m in marks)
    print(f"{'tour':>16} {'first load':>12} {at} | HiGHS {theirs} | best known {at} | by hand | ours/hand at 5 s")
    for things, carriers in sizes:
        for packed in FILLED:
            _one_size(things, carriers, packed, wanted.seeds, wanted.seconds, marks)
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"Peak memory of this process, HiGHS included: {peak:.0f} MB")


def _one_size(things: int, carriers: int, packed: str, seeds: int, seconds: float, marks: list[float]) -> None:
    first, ours, highs, hand, behind, share, known = [], [], [], [], 0, [], []
    for seed in range(1, seeds + 1):
        problem = bench_problem(things, carriers, packed, seed)
        searched, solved, bound = run_ours(problem, seconds)
        found, highs_bound = run_highs(problem, seconds)
        peer = [(at, evaluate(problem, placing)) for at, placing in found]
        best = max(bound, highs_bound) / 1000
        first.append((1000 * searched[0][0], searched[0][1].out))
        mine = [points(best_at(searched + solved, mark)) for mark in marks]
        theirs = [points(best_at(peer, mark)) for mark in marks]
        by_hand = evaluate(problem, hand_order(problem))
        behind += sum(a > b + 1e-9 for a, b in zip(mine, theirs, strict=True))
        name = name_of(things, carriers, packed, seed)
        note(name, round(1000 * min(mine)))
        known.append([100 * (1000 * v / best_known()[name] - 1) for v in mine])
        ours.append([100 * (v / best - 1) for v in mine])
        highs.append([100 * (v / best - 1) for v in theirs])
        hand.append(100 * (by_hand.objective / 1000 / best - 1))
        share.append(points(best_at(searched + solved, 5)) / (by_hand.objective / 1000) if by_hand.out == 0 else float("nan"))
    at_once = f"{statistics.median(f for f, _ in first):.0f} ms, {max(o for _, o in first)} out"
    complete = [s for s in share if s == s]
    print(
        f"{f'{things}x{carriers} {packed}':>16} {at_once:>12} "
        + " ".join(f"{statistics.median(c):6.1f} ({max(c):4.1f})" for c in zip(*ours, strict=True))
        + " |       "
        + " ".join(f"{statistics.median(c):9.1f}" for c in zip(*highs, strict=True))
        + " | best known "
        + " ".join(f"{statistics.median(c):6.1f} ({max(c):4.1f})" for c in zip(*known, strict=True))
        + f" | {statistics.median(hand):7.0f} | {f'{statistics.median(complete):.2f}' if complete else 'left out':>8}"
        + f" | behind HiGHS at {behind} marks",
        flush=True,
    )


if __name__ == "__main__":
    main()
