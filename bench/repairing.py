"""One change by hand on a loaded tour, and the rest put right around it.

    python -m bench.repairing [--seeds 5]

A proposal of two rounds is the standing load. Then a thing picked by lot goes to another bag that may hold it and is
pinned there; the repair is timed whole, problem building included, and its load is scored by the evaluator. Prints the
median and worst time over the seeds, how many things moved besides, and how many repairs broke a limit or left
a thing out where the search, given four rounds, did not.
"""

import argparse
import statistics
import time

import numpy as np

from bench.tours import FILLED, SIZES, bench_tour
from omnifer.core.load.explain import placing_of
from omnifer.core.load.formulate import formulate
from omnifer.core.load.problem import evaluate
from omnifer.core.load.proposal import propose
from omnifer.core.load.repair import repair
from omnifer.core.model.load import Load, Placement

CHANGES_A_TOUR = 4


def _one_size(things: int, carriers: int, packed: str, seeds: int) -> None:
    milliseconds, moved, bad, impossible = [], [], 0, 0
    for seed in range(1, seeds + 1):
        tour, stores = bench_tour(things, carriers, packed, seed)
        load = propose(tour, stores, rounds=2, effort=0).load
        lot = np.random.default_rng(seed)
        for _ in range(CHANGES_A_TOUR):
            placement = load.placements[int(lot.integers(len(load.placements)))]
            problem = formulate(tour, stores)
            row = problem.thing_ids.index(placement.thing_id)
            others = [
                c for c, may in zip(problem.carrier_ids, problem.allowed[row], strict=True) if may and c != placement.carrier_id
            ]
            if not others:
                continue
            to = others[int(lot.integers(len(others)))]
            held = Placement(thing_id=placement.thing_id, carrier_id=to, count=placement.count, pinned=True)
            by_hand = Load(placements=(*(p for p in load.placements if p != placement), held), food=load.food)
            changed = tour.model_copy(update={"load": by_hand})
            started = time.perf_counter()
            found = repair(changed, stores)
            milliseconds.append(1000 * (time.perf_counter() - started))
            after = tour.model_copy(update={"load": found.load})
            again = formulate(after, stores)
            if evaluate(again, placing_of(after, again)).broken > 0 or not found.complete:
                searched = propose(changed, stores, rounds=4, effort=0)
                bad += searched.holds and searched.complete
                impossible += not (searched.holds and searched.complete)
            was = {(p.thing_id, p.carrier_id) for p in by_hand.placements}
            moved.append(sum((p.thing_id, p.carrier_id) not in was for p in found.load.placements))
    tour_words = f"{things}x{carriers} {packed}"
    print(
        f"{tour_words:>16}  median {statistics.median(milliseconds):5.0f} ms, worst {max(milliseconds):5.0f} ms; "
        f"moved besides: median {statistics.median(moved):3.0f}, most {max(moved):3d}; "
        f"of {len(moved)} changes {impossible} leave no load that the search completes, {bad} the repair missed",
        flush=True,
    )


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--seeds", type=int, default=5)
    wanted = arguments.parse_args()
    tour, stores = bench_tour(20, 8, "loose", 0)
    repair(tour, stores)
    for things, carriers in SIZES:
        for packed in FILLED:
            _one_size(things, carriers, packed, wanted.seeds)


if __name__ == "__main__":
    main()
