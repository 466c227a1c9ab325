"""The corridor of a road out of an extract, beside passes of osmium itself over the same file, in one process.

    python -m bench.extract [COPIES] [FILE]

makes an extract of small towns along a line (13 MB a copy), or reads a given file. A bare pass asks for nothing; one with
places knows where nodes lie, which is what it takes to know where a way lies.
"""

import random
import resource
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
import osmium
from osmium.filter import KeyFilter
from osmium.osm import mutable

from omnifer.formats.osm import read_map

BOUND, MOST_BYTES = 1.5, 1.5e9
LAT, LON = np.linspace(46.2, 48.8, 20_000), np.linspace(8.2, 11.8, 20_000)
NODES_A_TOWN, TOWNS = 1000, 2000
PLACES = (
    {"amenity": "drinking_water"}, {"shop": "supermarket", "name": "Market", "opening_hours": "Mo-Sa 08:00-19:00"},
    {"tourism": "camp_site", "name": "Camp"}, {"place": "village", "name": "Village", "population": "812"},
)  # fmt: skip
WAYS = ({"building": "yes"}, {"building": "yes"}, {"highway": "residential", "surface": "asphalt"}, {"landuse": "meadow"},
        {"building": "retail", "shop": "supermarket"})  # fmt: skip


def make(path: Path, copies: int) -> None:
    """Towns scattered around the line, each of a thousand nodes and 125 ways; sorted as extracts are."""
    chance, number, lines = random.Random(1), 0, []
    header = osmium.io.Header()
    header.set("sorting", "Type_then_ID")
    with osmium.SimpleWriter(str(path), header=header, overwrite=True) as writer:
        for _ in range(TOWNS * copies):
            lat, lon = 46 + 3 * chance.random(), 8 + 4 * chance.random()
            for n in range(NODES_A_TOWN):
                number += 1
                tags = PLACES[n // 250] if n % 250 == 1 else {"highway": "crossing"} if n % 30 == 0 else {}
                at = (lon + chance.gauss(0, 0.01), lat + chance.gauss(0, 0.01))
                writer.add_node(mutable.Node(id=number, location=at, tags=tags, version=1))
                if n % 8 == 7:
                    lines.append((number, n))
        for n, (last, kind) in enumerate(lines, 1):
            writer.add_way(mutable.Way(id=n, nodes=range(last - 7, last + 1), tags=WAYS[kind % 5], version=1))


def timed(work: Callable[[], object]) -> float:
    """By the clock: osmium reads with threads of its own."""
    began = time.perf_counter()
    work()
    return time.perf_counter() - began


def main(copies: int = 1, path: str = "") -> int:
    with tempfile.TemporaryDirectory() as folder:
        file = Path(path or Path(folder) / "towns.osm.pbf")
        if not path:
            make(file, copies)
        ours = timed(lambda: read_map(file, LAT, LON, np.full(LAT.size, 1.0)))
        memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024
        nothing = KeyFilter("nothing")
        bare = timed(lambda: osmium.apply(str(file), nothing))
        placed = timed(lambda: list(osmium.FileProcessor(str(file)).with_locations("sparse_mmap_array").with_filter(nothing)))
        size, used = file.stat().st_size / 2**20, memory / 2**20
        print(f"{size:.0f} MB: the corridor in {ours:.1f} s and {used:.0f} MB")
        print(f"{ours / placed:.2f} x a pass that knows where nodes lie ({placed:.1f} s; bound {BOUND:g})")
        print(f"{ours / bare:.2f} x one that asks for nothing ({bare:.1f} s)")
    return int(ours / placed > BOUND or memory > MOST_BYTES)


if __name__ == "__main__":
    sys.exit(main(*(int(n) for n in sys.argv[1:2]), *sys.argv[2:3]))
