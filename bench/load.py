"""Many at once: readers of a tour beside an empty answer with one SQL read, everything else while searches run, and memory.

    python -m bench.load

The server is the one that bin/start runs, on the sample; the peer runs under a server of the same kind with as many processes
and threads. Readers keep their connection and ask again as soon as they are answered.
"""

import asyncio
import os
import subprocess
import sys
import time
from pathlib import Path

import numpy as np
import requests

from omnifer.demo.sample import demo_tour
from omnifer.formats.bundle import write_bundle
from omnifer.serve import _gunicorn
from tests.faults.house import House, Rider, Search, free_port
from tests.formats.test_gpx import gpx
from tests.patience import until

READERS, SECONDS, SEARCHES, HANG_UPS, IMPORTS = 50, 6.0, 4, 30, 100
MOST_TIMES, MOST_TIMES_BESIDE_SEARCHES, MOST_GROWN_MB = 3.0, 2.0, 60.0


async def reader(port: int, path: str, until_s: float, took: list[float]) -> None:
    """One reader, who knows just enough of HTTP."""
    ask = f"GET {path} HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nAccept-Encoding: br\r\n\r\n".encode()
    into, out = await asyncio.open_connection("127.0.0.1", port, limit=2**22)
    while time.monotonic() < until_s:
        began = time.perf_counter()
        out.write(ask)
        head = (await into.readuntil(b"\r\n\r\n")).decode("latin-1").lower()
        assert " 200 " in head.partition("\r\n")[0], head
        size = int(head.partition("content-length: ")[2].partition("\r\n")[0])
        await into.readexactly(size)
        took.append(time.perf_counter() - began)
        if "connection: close" in head:
            out.close()
            into, out = await asyncio.open_connection("127.0.0.1", port, limit=2**22)
    out.close()


def read(port: int, paths: list[str], readers: int = READERS, seconds: float = SECONDS) -> tuple[float, float, float]:
    """Median and 95th percentile of how long answers took [ms], and answers a second."""
    took: list[float] = []

    async def all_of_them() -> None:
        end = time.monotonic() + seconds
        await asyncio.gather(*(reader(port, paths[n % len(paths)], end, took) for n in range(readers)))

    asyncio.run(all_of_them())
    return float(np.percentile(took, 50)) * 1000, float(np.percentile(took, 95)) * 1000, len(took) / seconds


def resident_mb(house: House) -> float:
    """Memory of all its Python processes [MB]."""
    pages = 0
    for number in house.running("python"):
        pages += int(Path(f"/proc/{number}/statm").read_text().split()[1])
    for number in house.running("gunicorn"):
        pages += int(Path(f"/proc/{number}/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE") / 2**20


def changes(rider: Rider, tour: str, count: int) -> float:
    """Change a tour so many times; the 95th percentile of how long that took [ms]."""
    took, revision = [], rider.session.get(rider.house.address + tour).json()["tour"]["revision"]
    for number in range(count):
        began = time.perf_counter()
        answer = rider.send("PATCH", tour, json={"revision": revision, "what": "Name", "name": f"Name {number} {began}"})
        took.append(time.perf_counter() - began)
        revision = answer.json()["tour"]["revision"]
    return float(np.percentile(took, 95)) * 1000


def main() -> int:
    house = House()
    house.start()
    rider = Rider(house)
    sample = rider.send("POST", "/api/tours/bundle", files={"file": ("tour.json", write_bundle(demo_tour()))})
    tour = f"/api/tours/{sample.json()['tour']['id']}"
    address = Path(f"/proc/{house.running('omnifer.jobs.worker')[0]}/environ").read_text()
    environment = os.environ | dict(part.split("=", 1) for part in address.split("\0") if part.startswith("OMNIFER_DATABASE="))
    port = free_port()
    peer = subprocess.Popen(_gunicorn("bench.empty:app", port, max(os.cpu_count() or 1, 2), 32), env=environment)
    try:
        until(lambda: _answers(port), "the peer does not answer")
        return report(house, rider, tour, port)
    finally:
        peer.terminate()
        peer.wait()
        house.remove()


def _answers(port: int) -> bool:
    try:
        return requests.get(f"http://127.0.0.1:{port}/", timeout=1).status_code == 200
    except requests.RequestException:
        return False


def report(house: House, rider: Rider, tour: str, peer: int) -> int:
    worst = []
    for path in (tour, "/api/tours", "/"):
        read(house.port, [path], 8, 1.0)
    empty = read(peer, ["/"])
    print(f"{'':44}{'median':>10}{'p95':>10}{'a second':>10}{'x empty':>9}")
    print(f"{'empty answer, one SQL read, 50 readers':44}{empty[0]:8.1f}ms{empty[1]:8.1f}ms{empty[2]:10.0f}{1:9.2f}")
    for words, path in (("a tour with its assessment, 50 readers", tour), ("the list of tours, 50 readers", "/api/tours")):
        found = read(house.port, [path])
        print(f"{words:44}{found[0]:8.1f}ms{found[1]:8.1f}ms{found[2]:10.0f}{found[1] / empty[1]:9.2f}")
        worst.append(found[1] / empty[1] <= MOST_TIMES)
    mix = [tour, "/api/tours", "/api/session", f"{tour}/glance", f"{tour}/packed", "/api/library"]
    alone, changed = read(house.port, mix, 6), changes(rider, tour, 15)
    searches = [Search(rider, 60) for _ in range(SEARCHES)]
    for search in searches[:2]:
        search.until("proposal")
    beside, changed_beside = read(house.port, mix, 6), changes(rider, tour, 15)
    for search in searches:
        search.close()
    for words, before, after in (("six readers of everything", alone[1], beside[1]), ("a change", changed, changed_beside)):
        print(f"{words + ', p95 alone and beside 4 searches':44}{before:8.1f}ms{after:8.1f}ms{'':10}{after / before:9.2f}")
        worst.append(after / before <= MOST_TIMES_BESIDE_SEARCHES)
    until(lambda: not searches[0].doers(), "searches run on")
    hang_up(rider, 3)
    bring(rider, 5)
    before = resident_mb(house)
    hang_up(rider, HANG_UPS)
    bring(rider, IMPORTS)
    grown = resident_mb(house) - before
    print(f"memory: {before:.0f} MB, after {HANG_UPS} hang-ups and {IMPORTS} imports {grown:+.0f} MB")
    worst.append(grown <= MOST_GROWN_MB)
    return int(not all(worst))


def hang_up(rider: Rider, times: int) -> None:
    for _ in range(times):
        search = Search(rider, 60)
        search.until("proposal")
        search.close()


def bring(rider: Rider, times: int) -> None:
    copy = rider.send("POST", f"{rider.tour}/copy").json()["tour"]
    revision = copy["revision"]
    for number in range(times):
        content = gpx(*((45 + n / 10_000, 7.0 + number / 1000, 200.0) for n in range(2000)))
        path = f"/api/tours/{copy['id']}/track"
        answer = rider.send("POST", path, data={"revision": str(revision)}, files={"file": ("a.gpx", content)})
        revision = answer.json()["tour"]["revision"]


if __name__ == "__main__":
    sys.exit(main())
