"""A library of 2,000 things listed and searched, beside an empty answer with one SQL read under the same server.

python -m bench.library [--asks 200]
"""

import argparse
import logging
import shutil
import statistics
import tempfile
import threading
import time
from pathlib import Path

import requests
from werkzeug.serving import make_server

from omnifer.api.app import create_app
from omnifer.core.model.kit import Thing
from omnifer.core.model.serves import SERVICES
from omnifer.store.cluster import Cluster
from omnifer.store.database import LOCAL_RIDER, migrate, owner_named
from omnifer.store.library import Library

THINGS = 2000
logging.getLogger("werkzeug").setLevel(logging.ERROR)


def filled(pool, owner: int) -> None:
    words = list(SERVICES.values())
    library = Library(pool, owner)
    library.add([
        Thing(id=f"t{n}", name=f"{words[n % len(words)].words} {n}", group=f"kit {n % 40}", mass_kg=0.1 + n % 9 / 10, volume_l=1,
              serves=(words[n % len(words)].id,))
        for n in range(THINGS)
    ])  # fmt: skip


def median_ms(session: requests.Session, address: str, asks: int) -> float:
    seconds = []
    for _ in range(asks):
        begun = time.perf_counter()
        answer = session.get(address, timeout=30)
        seconds.append(time.perf_counter() - begun)
        assert answer.ok, answer.text
    return statistics.median(seconds) * 1000


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--asks", type=int, default=200)
    asks = arguments.parse_args().asks
    folder = Path(tempfile.mkdtemp(prefix="omnifer-bench-"))
    folder.chmod(0o755)
    cluster = Cluster(folder / "data", fast_and_forgetful=True)
    try:
        address = cluster.start()
        migrate(address)
        app = create_app(address, "bench")
        pool = app.extensions["omnifer"].pool
        filled(pool, owner_named(pool, LOCAL_RIDER))

        @app.get("/empty")
        def empty() -> str:
            with pool.connection() as connection:
                connection.execute("SELECT 1").fetchone()
            return "{}"

        server = make_server("127.0.0.1", 0, app, threaded=True)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        here, session = f"http://127.0.0.1:{server.port}", requests.Session()
        base = median_ms(session, f"{here}/empty", asks)
        print(f"empty answer with one SQL read {base:.1f} ms")
        for name, query in (
            ("listed", ""),
            ("searched by word", "?find=rain"),
            ("one kit", "?kit=kit+7"),
            ("last page", "?first=1940"),
        ):
            ms = median_ms(session, f"{here}/api/library{query}", asks)
            print(f"{name}: {ms:.1f} ms, {ms / base:.1f} x")
        server.shutdown()
        pool.close()
    finally:
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)


if __name__ == "__main__":
    main()
