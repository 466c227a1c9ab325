"""A rehearsal of the sample beside one whole assessment of it, and a thousand plays of 120 days: seconds of a core, memory.

python -m bench.rehearsal
"""

import datetime as dt
import resource
import sys
import time

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.rehearsal import FIRST_PLAYS, MORE_PLAYS, USUAL_PLAYS
from omnifer.core.model.road import DayCut
from omnifer.core.model.tour import Tour
from omnifer.core.rehearsal.rehearsing import rehearsed
from omnifer.core.stages import Reading, forget
from omnifer.demo.sample import demo_tour

BOUND, LONGEST_S, MOST_GB, TURNS, LONG_DAYS = 8.0, 60.0, 1.0, 5, 120


def begun(tour: Tour, days: int) -> Tour:
    """A start that was not asked for yet: nothing is known of it."""
    return tour.model_copy(update={"start_date": tour.start_date + dt.timedelta(days=days)})


def seconds(tour: Tour, plays: int) -> float:
    """Of a core for so many plays from scratch; 0: one whole assessment."""
    road = profile_of(tour)
    assert road is not None
    forget()
    start = time.process_time()
    if plays:
        list(rehearsed(Reading(tour, road), plays))
    else:
        assess(tour, road)
    return time.process_time() - start


def main() -> int:
    tour = demo_tour()
    seconds(tour, 0)
    found = sorted(
        (seconds(begun(tour, n), USUAL_PLAYS), seconds(begun(tour, n), 0), seconds(begun(tour, n), FIRST_PLAYS))
        for n in range(TURNS)
    )
    ratios = sorted(played / whole for played, whole, _ in found)
    print(f"{USUAL_PLAYS} plays: {ratios[0]:.1f} to {ratios[-1]:.1f} whole assessments, {ratios[TURNS // 2]:.1f} in the middle "
          f"(bound {BOUND:g}); the first {FIRST_PLAYS} after {found[TURNS // 2][2]:.1f} s")  # fmt: skip
    long = tour.model_copy(update={"road": tour.road.model_copy(update={"cut": DayCut(by="days", days=LONG_DAYS), "nights": ()})})
    took = seconds(long, MORE_PLAYS)
    gb = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 2**20
    print(
        f"{MORE_PLAYS} plays of {LONG_DAYS} days: {took:.1f} s of a core (bound {LONGEST_S:g}), {gb:.2f} GB (bound {MOST_GB:g})"
    )
    return int(ratios[TURNS // 2] > BOUND or took > LONGEST_S or gb > MOST_GB)


if __name__ == "__main__":
    sys.exit(main())
