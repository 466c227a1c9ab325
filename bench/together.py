"""How soon a companion has what a rider changed, with many shared tours open at once, beside the pause between two questions.

    python -m bench.together [--tours 20] [--changes 60]

Omnifer is served as `bin/start` does, hosted on this machine. On each tour a companion asks once a second who is there and how
far the tour is, and reads the tour where that is news, as the page does; the owners change one tour after the other.
"""

import argparse
import os
import signal
import statistics
import threading
import time

import requests

from omnifer.office.passwords import kept
from omnifer.store.accounts import Accounts
from omnifer.store.cluster import Cluster
from omnifer.store.database import open_pool
from tests.faults.house import House
from tests.patience import until

ASKED_AGAIN_S = 1.0
PASSWORD = "four mild lentils"


class Device:
    """A browser on which a rider is signed in."""

    def __init__(self, site: str, address: str) -> None:
        self.site, self.session = site, requests.Session()
        self._token()
        self.ask("POST", "/api/session", {"address": address, "password": PASSWORD}).raise_for_status()
        self._token()

    def _token(self) -> None:
        self.session.headers["X-CSRFToken"] = self.session.get(f"{self.site}/api/session").json()["csrf_token"]

    def ask(self, method: str, path: str, body: object = None) -> requests.Response:
        return self.session.request(method, self.site + path, json=body, timeout=60)


class Companion(threading.Thread):
    """Asks who is there once a second, and reads the tour where it is further than what was read."""

    def __init__(self, device: Device, tour: str, over: threading.Event) -> None:
        super().__init__(daemon=True)
        self.device, self.tour, self.over = device, tour, over
        self.revision, self.read_at, self.asked_s = 1, {}, []

    def run(self) -> None:
        while not self.over.is_set():
            began = time.monotonic()
            there = self.device.ask("POST", f"/api/tours/{self.tour}/here", {"view": "load"}).json()
            self.asked_s.append(time.monotonic() - began)
            if there["revision"] > self.revision:
                self.revision = self.device.ask("GET", f"/api/tours/{self.tour}").json()["tour"]["revision"]
                self.read_at[self.revision] = time.monotonic()
            self.over.wait(ASKED_AGAIN_S)


def measure(tours: int, changes: int) -> tuple[list[float], list[float], list[float]]:
    """Seconds until each change was read, that its owner waited for it, and that each question took."""
    house = House()
    os.environ |= {"OMNIFER_HOSTED": f"http://localhost:{house.port}", "OMNIFER_PROXIES": "0"}
    site, over = os.environ["OMNIFER_HOSTED"], threading.Event()
    house.start(wait=False)
    until(lambda: _answers(site), "it does not answer")
    cluster = Cluster(house.folder)
    assert cluster.running()
    pool = open_pool(cluster.address())
    try:
        pairs = []
        for n in range(tours):
            for who in ("owner", "rides"):
                Accounts(pool).made(f"{who}{n}@example.org", kept(PASSWORD))
            owner, rides = (Device(site, f"{who}{n}@example.org") for who in ("owner", "rides"))
            tour = owner.ask("POST", "/api/tours/sample").json()["tour"]["id"]
            secret = owner.ask("POST", f"/api/tours/{tour}/invitations", {"rides": True}).json()["link"].partition("=")[2]
            rides.ask("POST", "/api/invitations", {"invitation": secret}).raise_for_status()
            pairs.append((owner, Companion(rides, tour, over)))
        for _, companion in pairs:
            companion.start()
        time.sleep(2 * ASKED_AGAIN_S)
        kept_at, waited = [], []
        for turn in range(changes):
            owner, companion = pairs[turn % tours]
            revision, began = 1 + turn // tours, time.monotonic()
            change = {"revision": revision, "what": "Rename", "name": f"Way {turn}"}
            owner.ask("PATCH", f"/api/tours/{companion.tour}", change).raise_for_status()
            waited.append(time.monotonic() - began)
            kept_at.append((companion, revision + 1, time.monotonic()))
            time.sleep(0.4)
        time.sleep(4 * ASKED_AGAIN_S)
        seen = [min(at for read, at in c.read_at.items() if read >= revision) - kept for c, revision, kept in kept_at]
        return seen, waited, [s for _, companion in pairs for s in companion.asked_s]
    finally:
        over.set()
        pool.close()
        house.end(signal.SIGTERM)


def _answers(site: str) -> bool:
    try:
        return requests.get(f"{site}/api/session", timeout=2).ok
    except requests.RequestException:
        return False


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--tours", type=int, default=20)
    arguments.add_argument("--changes", type=int, default=60)
    wanted = arguments.parse_args()
    names = "seen by the companion", "kept for its owner", "who is there"
    for what, seconds in zip(names, measure(wanted.tours, wanted.changes), strict=True):
        middle, p95 = statistics.median(seconds), statistics.quantiles(seconds, n=20)[-1]
        print(f"{what:>22}: median {middle:.3f} s, p95 {p95:.3f} s, most {max(seconds):.3f} s, of {len(seconds)}")


if __name__ == "__main__":
    main()
