"""All needs of a 120-day tour beside one bare pass over its track, and the whole kit ranked beside one assessment.

    python -m bench.needs [--runs 7]

Needs are layers, nights, clothes, shelter, light, hazards, papers, spares and companions, each day by day, and on which days
each thing is needed. The tour is that of `bench.assessment`, its 250 things (and 300 for the ranking) serving what the table of
services has, in turn.
"""

import argparse

import numpy as np

from bench.assessment import DAYS, KM_A_DAY, bare_pass, long_tour, median_of
from bench.roads import long_track
from omnifer.core.assess import assess, profile_of, situation_of
from omnifer.core.model.road import DayCut, Hazard, MonthNormals, Station
from omnifer.core.model.roles import BedLayer, Garment, Mat, SleepingBag
from omnifer.core.model.serves import SERVICES
from omnifer.core.model.tour import Tour
from omnifer.core.needs.asking import reached_when
from omnifer.core.needs.clothes import wardrobes
from omnifer.core.needs.needed import needed
from omnifer.core.needs.sleep import sleepers
from omnifer.core.ranking import rank
from omnifer.core.worth import price

KINDS = ("bears", "insects", "sun", "thorns", "no_signal", "tunnels")
ROLES = (SleepingBag(comfort_c=2), Mat(r_value=3), BedLayer(warms_k=2), Garment(piece="shirt"), Garment(piece="socks"))


def asking_tour(things: int) -> tuple[Tour, object]:
    """The long tour with weather, hazards and so many things that say what they serve."""
    track = long_track(300_000, DAYS * KM_A_DAY)
    tour = long_tour(track)
    words = list(SERVICES)
    more = max(things - len(tour.kit), 0)
    kit = [*tour.kit, *(tour.kit[n % len(tour.kit)].model_copy(update={"id": f"more-{n}"}) for n in range(more))]
    kit = [
        thing.model_copy(update={"serves": (words[n % len(words)],), "role": ROLES[n] if n < len(ROLES) else thing.role})
        for n, thing in enumerate(kit)
    ]
    months = tuple(MonthNormals(mean_max_c=14 + 9 * np.sin(m / 2), mean_min_c=4 + 7 * np.sin(m / 2)) for m in range(12))
    hazards = tuple(Hazard(from_km=300.0 * n, to_km=300.0 * n + 200, kind=KINDS[n % len(KINDS)]) for n in range(25))
    station = Station(id="s", name="S", at_km=0, elevation_m=200, months=months)
    cut = DayCut(by="days", days=DAYS)
    road = tour.road.model_copy(update={"stations": (station,), "hazards": hazards, "cut": cut})
    tour = tour.model_copy(update={"kit": tuple(kit), "road": road})
    return tour, profile_of(tour)


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--runs", type=int, default=7)
    runs = arguments.parse_args().runs
    tour, road = asking_tour(250)
    here = situation_of(tour, road)
    bare = median_of(bare_pass(tour.track, road), runs)

    def all_needs() -> None:
        found = needed(tour, here.voyage, here.days, reached_when(tour))
        sleepers(tour, here.days), wardrobes(tour, here.days)
        for thing in tour.kit:
            found.days_of(thing)

    told = median_of(
        lambda: (needed(tour, here.voyage, here.days, reached_when(tour)), sleepers(tour, here.days), wardrobes(tour, here.days)),
        runs,
    )
    days = median_of(all_needs, runs)
    told_of = f"{len(here.needed.asks)} asks, {len(here.needed.faults)} faults, {len(here.days)} days"
    print(f"bare pass {bare * 1000:.0f} ms; needs {told * 1000:.0f} ms, {told / bare:.2f} x of it; {told_of}")
    print(f"with the days of each thing {days * 1000:.0f} ms, {days / bare:.2f} x")
    tour, road = asking_tour(300)
    one = median_of(lambda: assess(tour, road), 3)
    ranked = median_of(lambda: rank(tour, road), 3)
    alone = median_of(lambda: price(tour, road, tour.kit[7].id), 3)
    print(f"one assessment {one:.2f} s; {len(tour.kit)} things ranked {ranked:.2f} s, {ranked / one:.2f} x of it")
    print(f"one thing priced by itself {alone:.2f} s, all of them so {alone * len(tour.kit) / one:.0f} x")


if __name__ == "__main__":
    main()
