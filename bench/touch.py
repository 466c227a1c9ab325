"""What a change costs: in the core beside a whole assessment, as an answer beside the smallest change that is kept, and in bytes.

python -m bench.touch [--asks 15]

Random changes of the sample, each kind by itself. Core: share of an assessment by a process that has just begun. Answer: over
HTTP with the change kept, beside a tick (one SQL write); bytes as a browser takes them.
"""

import argparse
import logging
import random
import shutil
import statistics
import tempfile
import threading
import time
from collections.abc import Callable, Iterable
from pathlib import Path

import requests
from werkzeug.serving import make_server

from omnifer.api.app import create_app
from omnifer.core import stages
from omnifer.core.assess import assess, profile_of
from omnifer.core.model.load import Load
from omnifer.core.model.tour import Tour, TourSheet
from omnifer.demo.sample import demo_tour
from omnifer.office.desk import checked
from omnifer.store.cluster import Cluster
from omnifer.store.database import migrate

logging.getLogger("werkzeug").setLevel(logging.ERROR)


def moved(sheet: TourSheet, chance: random.Random, across: bool) -> TourSheet:
    """A thing that lies in one bag goes to another, on its bike or on another one."""
    bike_of = {carrier.id: bike.id for bike in sheet.rig.bikes for carrier in bike.carriers}
    outer = {thing.inside for thing in sheet.kit} | {
        thing.id for thing in sheet.kit if thing.inside or thing.role or thing.holds_water_l
    }
    placements, there = list(sheet.load.placements), {(p.thing_id, p.carrier_id) for p in sheet.load.placements}
    while True:
        k, to = chance.randrange(len(placements)), chance.choice(list(bike_of))
        placed = placements[k]
        free = placed.thing_id not in outer and (placed.thing_id, to) not in there
        if free and (bike_of[to] != bike_of[placed.carrier_id]) == across:
            placements[k] = placed.model_copy(update={"carrier_id": to})
            return sheet.model_copy(update={"load": Load(placements=tuple(placements), food=sheet.load.food)})


def of_a_thing(**otherwise: Callable[[random.Random], object]) -> Callable[[TourSheet, random.Random], TourSheet]:
    def change(sheet: TourSheet, chance: random.Random) -> TourSheet:
        kit, k = list(sheet.kit), chance.randrange(len(sheet.kit))
        kit[k] = kit[k].model_copy(update={name: value(chance) for name, value in otherwise.items()})
        return sheet.model_copy(update={"kit": tuple(kit)})

    return change


def at_a_stop(sheet: TourSheet, chance: random.Random) -> TourSheet:
    """Sure water is there, or it is not."""
    stops, k = list(sheet.road.stops), chance.randrange(len(sheet.road.stops))
    stops[k] = stops[k].model_copy(update={"water": "none" if stops[k].water == "reliable" else "reliable"})
    return sheet.model_copy(update={"road": sheet.road.model_copy(update={"stops": tuple(stops)})})


CHANGES: dict[str, Callable[[TourSheet, random.Random], TourSheet]] = {
    "moved within a bike": lambda sheet, chance: moved(sheet, chance, across=False),
    "moved to another bike": lambda sheet, chance: moved(sheet, chance, across=True),
    "mass of a thing": of_a_thing(mass_kg=lambda chance: round(chance.uniform(0.05, 1.5), 3)),
    "volume of a thing": of_a_thing(volume_l=lambda chance: round(chance.uniform(2, 6), 2)),
    "name of a thing": of_a_thing(name=lambda chance: f"Thing {chance.random():.6f}"),
    "note of a thing": of_a_thing(because=lambda chance: f"For {chance.random():.6f}"),
    "name of the tour": lambda sheet, chance: sheet.model_copy(update={"name": f"Tour {chance.random():.6f}"}),
    "water of a stop": at_a_stop,
}


def seconds(work: Callable[[], object]) -> float:
    begun = time.process_time()
    work()
    return time.process_time() - begun


def core(tour: Tour, asks: int) -> None:
    road, chance = profile_of(tour), random.Random(1)
    sheet = checked(TourSheet.model_construct(**{name: getattr(tour, name) for name in TourSheet.model_fields}))

    def from_scratch() -> float:
        stages.forget()
        return seconds(lambda: assess(sheet, road))

    for name, change in CHANGES.items():
        took, whole = [], []
        for _ in range(asks):
            # In turns: a shared machine is now faster and now slower.
            whole.append(from_scratch())
            other = checked(change(sheet, chance))
            took.append(seconds(lambda: assess(other, road)))  # noqa: B023
        share = statistics.median(took) / statistics.median(whole)
        print(f"core, {name}: {share:.2f} of a whole assessment ({statistics.median(whole) * 1000:.0f} ms)")


def answers(tour: Tour, asks: int) -> None:
    folder = Path(tempfile.mkdtemp(prefix="omnifer-bench-"))
    folder.chmod(0o755)
    cluster = Cluster(folder / "data", fast_and_forgetful=True)
    try:
        address = cluster.start()
        migrate(address)
        app = create_app(address, "bench")
        server = make_server("127.0.0.1", 0, app, threaded=True)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        there = f"http://127.0.0.1:{server.port}/api"
        session = requests.Session()
        session.headers["Accept-Encoding"] = "br"
        session.headers["X-CSRFToken"] = session.get(f"{there}/session", timeout=60).json()["csrf_token"]
        told = session.post(f"{there}/tours/sample", timeout=60).json()
        at = f"{there}/tours/{told['tour']['id']}"
        bag, thing = tour.load.placements[0].carrier_id, tour.load.placements[0].thing_id
        tick = list(
            timed(lambda k: session.put(f"{at}/packed", json={"carrier_id": bag, "thing_id": thing, "packed": k % 2 == 0}), asks)
        )
        base = statistics.median(s for s, _, _ in tick)
        print(f"a tick kept {base * 1000:.1f} ms")
        for name, change in CHANGES.items():
            chance, now, state = random.Random(2), told["tour"], told["state"]
            took, size = [], []
            for _ in range(asks):
                revision = now["revision"]
                other = change(TourSheet.model_validate(now["sheet"]), chance)
                parts = {
                    part: value for part, value in other.model_dump(mode="json").items()
                    if part in ("kit", "load", "road", "name") and value != now["sheet"][part]
                }  # fmt: skip
                body = {"revision": revision, "what": name, **parts}
                ((s, n, answer),) = timed(lambda _: session.patch(at, json=body, headers={"Omnifer-Holds": state}), 1)  # noqa: B023
                assert "changes" in answer, answer
                took.append(s)
                size.append(n)
                whole = session.get(at, timeout=60).json()
                now, state = whole["tour"], whole["state"]
            told = whole
            took.sort()
            print(
                f"answer, {name}: {statistics.median(took) / base:.1f} x a tick, worst {took[-1] / base:.1f} x; "
                f"{statistics.median(size) / 1000:.1f} kB, at most {max(size) / 1000:.1f}"
            )
        server.shutdown()
        app.extensions["omnifer"].pool.close()
    finally:
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)


def timed(ask: Callable[[int], requests.Response], times: int) -> Iterable[tuple[float, int, dict]]:
    for k in range(times):
        begun = time.perf_counter()
        answer = ask(k)
        took = time.perf_counter() - begun
        assert answer.ok, answer.text[:400]
        yield took, int(answer.headers["Content-Length"]), answer.json()


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--asks", type=int, default=15)
    asks, tour = arguments.parse_args().asks, demo_tour()
    core(tour, asks)
    answers(tour, asks)


if __name__ == "__main__":
    main()
