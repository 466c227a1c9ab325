"""A season, 52 courses of the sample, beside one whole assessment of it in the same process."""

import datetime as dt
import sys
import time

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.tour import Tour
from omnifer.core.season import season_of
from omnifer.demo.sample import demo_tour

BOUND, TURNS = 6.0, 5


def seconds(tour: Tour, days: int, whole: bool) -> float:
    """Of a core for a start that was not asked yet, on a road that was measured before."""
    begun, road = tour.model_copy(update={"start_date": tour.start_date + dt.timedelta(days=days)}), profile_of(tour)
    assert road is not None
    began = time.process_time()
    if whole:
        assess(begun, road)
    else:
        season_of(begun, road)
    return time.process_time() - began


def main() -> int:
    tour = demo_tour()
    seconds(tour, 0, whole=True)
    ratios = sorted(seconds(tour, 100 + n, whole=False) / seconds(tour, 1 + n, whole=True) for n in range(TURNS))
    print(f"{ratios[0]:.1f} to {ratios[-1]:.1f} whole assessments, {ratios[TURNS // 2]:.1f} in the middle (bound {BOUND:g})")
    return int(ratios[TURNS // 2] > BOUND)


if __name__ == "__main__":
    sys.exit(main())
