"""The best load known of each generated tour, from long searches: what the bars of quality are measured against.

    python -m bench.best_known [--seeds 5] [--size 120x14]

Searches each tour for longer than anyone waits and keeps the points in best_known.json where they are lower than before.
"""

import argparse
import json
import time
from pathlib import Path

from bench.tours import FILLED, SIZES, bench_problem
from omnifer.core.load.search import better_and_better

FILE = Path(__file__).with_suffix(".json")
SECONDS = {60: 15, 120: 30, 200: 60, 250: 90}
"""How long a tour of so many things is searched [s]."""


def name_of(things: int, carriers: int, packed: str, seed: int) -> str:
    return f"{things}x{carriers} {packed} {seed}"


def best_known() -> dict[str, int]:
    """Objective of the best load known of each tour [thousandths of a point]."""
    found: dict[str, int] = json.loads(FILE.read_text()) if FILE.exists() else {}
    return found


def note(name: str, objective: int) -> None:
    """Keep a load's objective where none as good is known."""
    known = best_known()
    if objective < known.get(name, objective + 1):
        FILE.write_text(json.dumps(known | {name: objective}, indent=1, sort_keys=True) + "\n")


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--seeds", type=int, default=5)
    arguments.add_argument("--size", action="append", help="things x carriers; may be given again")
    wanted = arguments.parse_args()
    sizes = [tuple(map(int, size.split("x"))) for size in wanted.size] if wanted.size else SIZES
    for things, carriers in sizes:
        for packed in FILLED:
            for seed in range(1, wanted.seeds + 1):
                started = time.perf_counter()
                for _, score in better_and_better(bench_problem(things, carriers, packed, seed)):
                    if score.broken == 0:
                        note(name_of(things, carriers, packed, seed), score.objective)
                    if time.perf_counter() - started > SECONDS.get(things, 60):
                        break


if __name__ == "__main__":
    main()
