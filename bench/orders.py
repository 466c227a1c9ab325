"""The same tour told in another order and under other identifiers: how far the loads found lie apart.

    python -m bench.orders [--orders 10] [--rounds 9] [--size 120x14]

Prints the spread (worst over best) of the objective over so many shuffled orders, once with the identifiers as they are and once
with new ones. Rounds are counted, so that nothing depends on the clock.
"""

import argparse
from typing import Any

import numpy as np

from bench.tours import FILLED, FOOD_KG, WATER_L, bench_tour
from omnifer.core.load.formulate import formulate
from omnifer.core.load.proposal import ROUNDS
from omnifer.core.load.search import search
from omnifer.core.model.tour import TourSheet
from omnifer.core.supplies.stock import Stock, vessels


def told_anew(tour: TourSheet, seed: int, renamed: bool) -> TourSheet:
    """The tour with things, bikes and bags shuffled, under other identifiers where asked for."""
    chance = np.random.default_rng(seed)

    def shuffled(items: tuple[Any, ...]) -> list[Any]:
        return [items[k] for k in chance.permutation(len(items))]

    def named(items: list[Any], prefix: str) -> tuple[Any, ...]:
        return tuple(item.model_copy(update={"id": f"{prefix}{n}"}) if renamed else item for n, item in enumerate(items))

    bikes = [
        bike.model_copy(update={"carriers": named(shuffled(bike.carriers), f"bag-{n}-")})
        for n, bike in enumerate(shuffled(tour.rig.bikes))
    ]
    rig = tour.rig.model_copy(update={"bikes": tuple(bikes)})
    return tour.model_copy(update={"kit": named(shuffled(tour.kit), "it-"), "rig": rig})


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--orders", type=int, default=10)
    arguments.add_argument("--rounds", type=int, default=ROUNDS)
    arguments.add_argument("--size", action="append", help="things x carriers; may be given again")
    wanted = arguments.parse_args()
    for size in wanted.size or ["120x14", "250x24"]:
        things, carriers = map(int, size.split("x"))
        for packed in FILLED:
            tour, _ = bench_tour(things, carriers, packed, 1)
            spreads = []
            for renamed in (False, True):
                found = []
                for order in range(wanted.orders):
                    other = told_anew(tour, order, renamed)
                    problem = formulate(other, Stock(vessels(other), {"water": WATER_L, "food": FOOD_KG}))
                    found.append(search(problem, wanted.rounds)[1].objective)
                spreads.append(100 * (max(found) / min(found) - 1))
            print(
                f"{size} {packed}: {spreads[0]:.2f} % in other orders, {spreads[1]:.2f} % under other identifiers too", flush=True
            )


if __name__ == "__main__":
    main()
