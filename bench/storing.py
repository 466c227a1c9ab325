"""Bytes that one change adds to the history of a 120-day tour, beside keeping the whole document each time.

    python -m bench.storing [--changes 100]

Sizes are those of the tables with their indexes after a vacuum, as PostgreSQL compresses them. The track is kept once and
counts for neither.
"""

import argparse
import shutil
import tempfile
from collections.abc import Callable
from pathlib import Path

import psycopg
from psycopg.types.json import Jsonb

from bench.assessment import DAYS, KM_A_DAY, long_tour
from bench.roads import long_track
from omnifer.core.model.tour import Tour, TourSheet
from omnifer.store.cluster import MASTER, Cluster
from omnifer.store.database import LOCAL_RIDER, migrate, open_pool, owner_named
from omnifer.store.tours import Tours

TABLES = ("tour", "tour_state", "tour_part", "state_part", "tour_step")


def moved(sheet: TourSheet, turn: int) -> TourSheet:
    """One more thing pinned: a change of the load."""
    placements = list(sheet.load.placements)
    placements[turn] = placements[turn].model_copy(update={"pinned": not placements[turn].pinned})
    return sheet.model_copy(update={"load": sheet.load.model_copy(update={"placements": tuple(placements)})})


def lighter(sheet: TourSheet, turn: int) -> TourSheet:
    """One thing weighed anew: a change of the kit."""
    first, *others = sheet.kit
    return sheet.model_copy(update={"kit": (first.model_copy(update={"mass_kg": 0.1 + turn / 1000}), *others)})


def wetter(sheet: TourSheet, turn: int) -> TourSheet:
    """One stop told otherwise: a change of the road."""
    first, *others = sheet.road.stops
    stops = (first.model_copy(update={"name": f"Stop told {turn}"}), *others)
    return sheet.model_copy(update={"road": sheet.road.model_copy(update={"stops": stops})})


CHANGES: dict[str, Callable[[TourSheet, int], TourSheet]] = {"load": moved, "kit": lighter, "road": wetter}


def measure(address: str, tour: Tour, changes: int) -> dict[str, tuple[float, float]]:
    """Bytes a change by the part that it touches: as kept, and as whole documents."""
    pool = open_pool(address)
    tours = Tours(pool, owner_named(pool, LOCAL_RIDER))
    stored = tours.create(tour)
    sheet, found = stored.sheet, {}
    with psycopg.connect(address, autocommit=True) as connection:

        def size(*tables: str) -> int:
            for table in tables:
                connection.execute(f"VACUUM FULL {table}")
            return sum(connection.execute(f"SELECT pg_total_relation_size('{table}')").fetchone()[0] for table in tables)

        connection.execute("CREATE TEMPORARY TABLE whole (sheet jsonb)")
        for name, change in CHANGES.items():
            before, before_whole = size(*TABLES), size("whole")
            for turn in range(changes):
                sheet = change(sheet, turn)
                stored = tours.change(stored.id, stored.revision, "Change it", sheet)
                connection.execute("INSERT INTO whole VALUES (%s)", [Jsonb(sheet.model_dump(mode="json", exclude={"track"}))])
            found[name] = ((size(*TABLES) - before) / changes, (size("whole") - before_whole) / changes)
    pool.close()
    return found


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--changes", type=int, default=100)
    changes = arguments.parse_args().changes
    folder = Path(tempfile.mkdtemp(prefix="omnifer-storing-"))
    cluster = Cluster(folder, fast_and_forgetful=True)
    try:
        cluster.start()
        address = cluster.address(role=MASTER)
        migrate(address)
        for name, (kept, whole) in measure(address, long_tour(long_track(30_000, DAYS * KM_A_DAY)), changes).items():
            print(f"{name:>5}: {kept / 1000:6.1f} kB a change, whole document {whole / 1000:6.1f} kB  ({whole / kept:.1f} x)")
    finally:
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)


if __name__ == "__main__":
    main()
