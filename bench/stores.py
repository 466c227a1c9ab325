"""All five supplies of a long tour, beside one bare pass over its track, and the best schedule of them.

    python -m bench.stores [--runs 7]

The tour is that of `bench.assessment`: 120 days, 300,000 points; here with a stop every 70 km, a stove, bottles, devices, banks
and six things that are used up. The supplies are planned on the tour as it is already cut and ridden; the bare pass is what no
assessment can do without.
"""

import argparse
import resource
import time
from collections.abc import Callable

import numpy as np

from bench.assessment import DAYS, KM_A_DAY, median_of
from bench.roads import long_track
from bench.tours import bench_tour
from omnifer.core.assess import assess, profile_of
from omnifer.core.model.kit import Thing
from omnifer.core.model.road import DayCut, Road, Stop, Track
from omnifer.core.model.stores import Stores, StoreStep
from omnifer.core.model.tour import Tour
from omnifer.core.physics import geodesy, riding
from omnifer.core.stores.buying import solve
from omnifer.core.stores.schedule import schedule
from omnifer.core.stores.told import stores_told
from omnifer.core.supplies import power, supplies_of
from omnifer.core.voyage import play

ROLES: tuple[dict[str, object], ...] = (
    {"does": "stove", "burns": "petrol"}, {"does": "fuel_vessel", "burns": "petrol", "holds_kg": 0.6, "fill_price": 2},
    {"does": "fuel_vessel", "burns": "petrol", "holds_kg": 0.6}, {"does": "treatment", "by": "pump"},
    {"does": "device", "wh_a_day": 12, "battery_wh": 16, "navigates": True}, {"does": "device", "wh_a_day": 7, "battery_wh": 12},
    {"does": "device", "wh_a_day": 5, "battery_wh": 10}, {"does": "bank", "holds_wh": 74, "takes_w": 18},
    {"does": "charger", "outputs": 4, "output_w": 12}, {"does": "hub"}, {"does": "panel", "peak_w": 8},
    *({"does": "used_up", "holds": 40.0 + 30 * n, "content_kg": 0.1, "rate": 2.0 + 3 * n, "sold_at": ("basic", "full")[n % 2]}
      for n in range(6)),
)  # fmt: skip


def stored_tour(track: Track) -> Tour:
    """120 days with a stop every 70 km, of which every second has a shop, every third fuel and every fourth a plug."""
    sheet, _ = bench_tour(120, 14, "loose", 1)
    things = [
        Thing.model_validate({"id": f"role-{n}", "name": f"Thing {n} with a role", "mass_kg": 0.2, "volume_l": 0.3, "role": role})
        for n, role in enumerate(ROLES)
    ]
    sack = Thing(id="sack", name="Sack", mass_kg=0.2, volume_l=0.3, holds_water_l=12, soft_vessel=True)
    stops = tuple(
        Stop(
            id=f"s{n}", name=f"Stop {n}", at_km=70.0 * n, water="reliable", treat_water=n % 5 == 0,
            shop=("none", "full", "none", "basic")[n % 4], fuels=("petrol",) if n % 3 == 0 else (),
            services=("plugs",) if n % 4 == 0 else (),
        )
        for n in range(1, 120)
    )  # fmt: skip
    road = Road(cut=DayCut(by="distance", distance_km=KM_A_DAY), stops=stops)
    parts = {"road": road, "kit": (*sheet.kit, *things, sack), "stores": Stores(cooking="cook"), "track": track}
    return Tour.model_validate({name: getattr(sheet, name) for name in type(sheet).model_fields} | parts)


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--runs", type=int, default=7)
    runs = arguments.parse_args().runs
    track = long_track(300_000, DAYS * KM_A_DAY)
    tour = stored_tour(track)
    road = profile_of(tour)
    assert road is not None
    lat, lon = np.array(track.lat_deg), np.array(track.lon_deg)
    voyage = play(tour, road)

    def bare() -> None:
        geodesy.segment_lengths(lat, lon)
        riding.resistance(5.0, road.gradient, 100.0, 0.5, 0.008, 1.2)

    def five() -> None:
        supplies_of(voyage.ride)
        power.plan(voyage.ride)

    def told() -> None:
        stores_told(tour, voyage).model_dump_json()

    turn = iter(range(10**6))

    def changed() -> None:
        step = StoreStep(supply="food", stop_id="s5", amount=float(next(turn) % 3))
        assess(tour.model_copy(update={"stores": Stores(cooking="cook", steps=(step,))}), road).model_dump_json()

    one = report("bare pass over 300,000 points", bare, runs, None)
    report("five supplies planned", five, runs, one)
    report("lanes, stops and shopping lists to JSON", told, runs, one)
    report("a step changed, all assessed anew", changed, runs, one)
    places = sum(s.refills.km.size for s in voyage.supplies.values())
    report(
        f"schedule of 120 stops, {len(voyage.supplies)} stores, {places} places",
        lambda: schedule(tour, road),
        max(runs // 2, 1),
        one,
    )
    seconds = {name: _seconds(lambda s=supply: solve(s, 30.0)) for name, supply in voyage.supplies.items()}
    slowest = max(seconds, key=lambda name: seconds[name])
    found = schedule(tour, road)
    print(f"proven {found.proven}, solver alone {sum(seconds.values()):.2f} s, slowest {slowest} {seconds[slowest]:.2f} s")
    less, everywhere = found.stands.kg_km / found.best.kg_km, found.everywhere.kg_km / found.best.kg_km
    print(f"plain backwards rule carries {less:.3f} x the best, filling up everywhere {everywhere:.2f} x")
    print(f"peak memory {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB")


def _seconds(what: Callable[[], object]) -> float:
    begun = time.perf_counter()
    what()
    return time.perf_counter() - begun


def report(name: str, what: Callable[[], object], runs: int, one: float | None) -> float:
    """Prints the median of some runs, and how many times that is the bare pass."""
    taken = median_of(what, runs)
    print(f"{name:>48}: {1000 * taken:7.1f} ms" + ("" if one is None else f"  {taken / one:5.2f} x the bare pass"))
    return taken


if __name__ == "__main__":
    main()
