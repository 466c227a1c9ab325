"""The whole assessment of a 120-day tour with 250 things, beside one bare vectorised pass over its track.

    python -m bench.assessment [--runs 7]

The bare pass is what no assessment can do without: ellipsoidal lengths of all segments and the power of one rider over
the cells. The ratio says how much the rules of the job cost on top.
"""

import argparse
import itertools
import statistics
import time
from collections.abc import Callable

import numpy as np

from bench.roads import long_track
from bench.tours import bench_tour
from omnifer.core.assess import assess, profile_of
from omnifer.core.load.settle import propose_load
from omnifer.core.model.road import DayCut, Road, Stop, Track
from omnifer.core.model.tour import Tour
from omnifer.core.physics import geodesy, riding
from omnifer.core.road.profile import Profile

DAYS, KM_A_DAY, THINGS, CARRIERS = 120, 70.0, 250, 24


def long_tour(track: Track) -> Tour:
    """120 days with water every 40 km and a shop every 100 km, loaded."""
    sheet, _ = bench_tour(THINGS, CARRIERS, "loose", 1)
    stops = tuple(
        Stop(
            id=f"s{n}", name=f"Stop {n}", at_km=20.0 * n, water="reliable" if n % 2 else "none", shop="none" if n % 5 else "full"
        )
        for n in range(1, int(DAYS * KM_A_DAY / 20))
    )
    road = Road(cut=DayCut(by="distance", distance_km=KM_A_DAY), stops=stops)
    tour = Tour.model_validate(sheet.model_dump() | {"road": road.model_dump(), "track": track.model_dump()})
    proposal = propose_load(tour, profile_of(tour), rounds=0, effort=0)
    return tour.model_copy(update={"load": proposal.load})


def median_of(what: Callable[[], object], runs: int) -> float:
    """Median seconds of some runs after one to warm up."""
    what()
    seconds = []
    for _ in range(runs):
        started = time.perf_counter()
        what()
        seconds.append(time.perf_counter() - started)
    return statistics.median(seconds)


def bare_pass(track: Track, road: Profile) -> Callable[[], None]:
    """What no assessment can do without: lengths of all segments and the power of one rider over the cells."""
    lat, lon = np.array(track.lat_deg), np.array(track.lon_deg)

    def bare() -> None:
        geodesy.segment_lengths(lat, lon)
        riding.resistance(5.0, road.gradient, 100.0, 0.5, 0.008, 1.2)

    return bare


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--runs", type=int, default=7)
    runs = arguments.parse_args().runs
    track = long_track(300_000, DAYS * KM_A_DAY)
    tour = long_tour(track)
    road = profile_of(tour)
    assert road is not None
    bare = bare_pass(track, road)

    def whole() -> None:
        again = profile_of(tour)
        assess(tour, again).model_dump_json()

    turn = itertools.count()

    def recut() -> None:
        """A stop in the middle loses and regains its water: days are cut and everything is judged anew."""
        stops = list(tour.road.stops)
        middle = len(stops) // 2
        stops[middle] = stops[middle].model_copy(update={"water": ("none", "reliable")[next(turn) % 2], "shelter": "site"})
        changed = tour.road.model_copy(update={"stops": tuple(stops)})
        assess(tour.model_copy(update={"road": changed}), road).model_dump_json()

    names = {
        "bare pass over 300,000 points": bare,
        "whole assessment, track to JSON": whole,
        "after a stop changes (track kept)": recut,
    }
    seconds = {name: median_of(what, runs) for name, what in names.items()}
    one = seconds["bare pass over 300,000 points"]
    for name, taken in seconds.items():
        print(f"{name:>34}: {1000 * taken:7.0f} ms  {taken / one:5.1f} x the bare pass")


if __name__ == "__main__":
    main()
