"""Omnifer as bin/start runs it, in a folder of its own, with a rider who works on a tour while things are killed."""

import contextlib
import os
import shutil
import signal
import socket
import subprocess
import sys
import threading
import time
import uuid
from pathlib import Path

import requests

from tests.conftest import small_tour, thing
from tests.patience import PATIENCE_S, until

STREAM = {"Accept": "text/event-stream"}


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class House:
    """A data folder that Debian's user postgres can enter, and what runs on it."""

    def __init__(self, root: Path | None = None) -> None:
        root = root or Path("/dev/shm" if Path("/dev/shm").is_dir() else "/tmp")
        self.folder = root / f"omnifer-start-{uuid.uuid4().hex[:8]}"
        self.folder.mkdir()
        self.said = self.folder / "said"
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.served: subprocess.Popen | None = None

    def start(self, wait: bool = True) -> None:
        environment = {k: v for k, v in os.environ.items() if k != "DATABASE_URL"}
        environment |= {"OMNIFER_DATA": str(self.folder), "OMNIFER_PORT": str(self.port), "SPT_NOENV": "1"}
        command = [sys.executable, "-m", "omnifer.cli", "serve", "--empty"]
        with self.said.open("ab") as said:
            self.served = subprocess.Popen(command, env=environment, stdout=said, stderr=said)
        if wait:
            until(lambda: self.answers() or self.served.poll() is not None, "it does not answer")
            assert self.served.poll() is None, self.said.read_text()

    def end(self, ending: signal.Signals = signal.SIGTERM) -> tuple[int, float]:
        """End it; its exit status, and how long that took [s]."""
        began = time.monotonic()
        self.served.send_signal(ending)
        status = self.served.wait(timeout=PATIENCE_S)
        return status, time.monotonic() - began

    def answers(self) -> bool:
        try:
            return requests.get(f"{self.address}/api/tours", timeout=2).status_code == 200
        except requests.RequestException:
            return False

    def running(self, *words: str) -> list[int]:
        """Living processes of this house whose command line has all these words."""
        found = []
        for process in Path("/proc").glob("[0-9]*"):
            try:
                line = (process / "cmdline").read_text().replace("\0", " ")
                environment = (process / "environ").read_text()
                state = (process / "stat").read_text().rpartition(")")[2].split()[0]
            except OSError:
                continue
            ours = str(self.folder) in line or f"OMNIFER_DATA={self.folder}\0" in environment
            if ours and state not in "ZX" and int(process.name) != os.getpid() and all(word in line for word in words):
                found.append(int(process.name))
        return sorted(found)

    def kill(self, *words: str) -> int:
        """Kill the first such process, as soon as there is one; its number."""
        killed: list[int] = []

        def hit() -> bool:
            with contextlib.suppress(IndexError, ProcessLookupError):
                number = self.running(*words)[0]
                os.kill(number, signal.SIGKILL)
                killed.append(number)
            return bool(killed)

        until(hit, f"{words} does not run")
        return killed[0]

    def read(self, path: str) -> dict:
        """What is read there, asked again where the connection breaks off, as the page asks again."""
        answers: list[requests.Response] = []

        def answered() -> bool:
            try:
                answers.append(requests.get(self.address + path, timeout=PATIENCE_S))
            except requests.ConnectionError:
                return False
            return True

        until(answered, f"{path} is never answered")
        return dict(answers[0].json())

    def remove(self) -> None:
        """End it; what it and its servers had to say stands beside a test that failed."""
        if self.served is not None and self.served.poll() is None:
            self.end()
        for said in (self.said, self.folder / "log" / "web.log"):
            if said.exists():
                print("\n".join(line for line in said.read_text().splitlines() if '"status": 2' not in line)[-3000:])
        shutil.rmtree(self.folder, ignore_errors=True)


class Rider:
    """Works on a tour all the time, remembers what was acknowledged, and tries again as the page does."""

    def __init__(self, house: House, pause_s: float = 0.0) -> None:
        self.house, self.pause_s = house, pause_s
        self.session = requests.Session()
        self.acknowledged = self.retries = self.stumbles = 0
        things = [thing(f"thing-{n}", 0.2 + n % 7 / 10, 0.5 + n % 5, group=f"kit {n % 6}") for n in range(60)]
        body = small_tour(*things).model_dump_json(exclude={"track"})
        bundle = f'{{"format": "omnifer-tour", "version": {version()}, "tour": {body}}}'
        answer = self.send("POST", "/api/tours/bundle", files={"file": ("tour.json", bundle)})
        answer.raise_for_status()
        self.tour = f"/api/tours/{answer.json()['tour']['id']}"
        self.revision, self.name, self.trying = 1, "Small", "Small"
        self._stop, self._at_work = threading.Event(), threading.Lock()
        self._thread = threading.Thread(target=self._work, daemon=True)

    def send(self, method: str, path: str, **what: object) -> requests.Response:
        """The same, tried again until it is answered."""
        for _ in range(PATIENCE_S):
            try:
                answer = self._send(method, path, **what)
                if answer.status_code != 503:
                    return answer
            except (requests.RequestException, ValueError):
                pass
            self.retries += 1
            time.sleep(0.2)
        raise AssertionError(f"{path} is never answered")

    def _send(self, method: str, path: str, **what: object) -> requests.Response:
        token = self.session.get(f"{self.house.address}/api/session", timeout=5).json()["csrf_token"]
        return self.session.request(method, self.house.address + path, headers={"X-CSRFToken": token}, timeout=20, **what)

    def _work(self) -> None:
        while not self._stop.is_set():
            with self._at_work:
                done = self._change()
            time.sleep(self.pause_s if done else 0.05)

    def _change(self) -> bool:
        """Try one change; whether it is acknowledged."""
        self.trying = f"Name {self.acknowledged + 1}"
        try:
            answer = self._send("PATCH", self.tour, json={"revision": self.revision, "what": "Name", "name": self.trying})
        except (requests.RequestException, ValueError):
            self.retries += 1
            return False
        if answer.status_code == 200:
            self.revision, self.name = answer.json()["tour"]["revision"], self.trying
            self.acknowledged += 1
            return True
        self.stumbles += answer.status_code == 500
        self.retries += 1
        if answer.status_code == 409:
            self.revision = answer.json()["current_revision"]
        return False

    def begin(self) -> None:
        self._thread.start()

    def rest(self) -> None:
        self._stop.set()
        self._thread.join()

    def search(self, rounds: int = 60) -> "Search":
        return Search(self, rounds)

    def lost(self) -> int:
        """Acknowledged changes that are not there any more, and states that cannot be read."""
        with self._at_work:
            now = self.send("GET", self.tour).json()["tour"]
        wrong = now["sheet"]["name"] not in (self.name, self.trying) or now["revision"] < self.revision
        return int(wrong) + int(len(now["sheet"]["kit"]) != 60)


class Search:
    """A search for a load that somebody waits for, on a tour of its own."""

    def __init__(self, rider: Rider, rounds: int) -> None:
        copy = rider.send("POST", f"{rider.tour}/copy").json()["tour"]
        self.house, self.path = rider.house, f"/api/tours/{copy['id']}"
        token = rider.session.get(f"{self.house.address}/api/session").json()["csrf_token"]
        self.response = rider.session.post(
            f"{self.house.address}{self.path}/proposal", json={"revision": 1, "rounds": rounds, "effort": 0.5},
            headers=STREAM | {"X-CSRFToken": token}, stream=True, timeout=60,
        )  # fmt: skip
        self._lines = self.response.iter_lines(decode_unicode=True)
        self.heard = ""
        """What it told last."""

    def until(self, event: str) -> bool:
        """Whether such an event comes before the answer breaks off."""
        try:
            for line in self._lines:
                self.heard = line or self.heard
                if line == f"event: {event}":
                    return True
        except requests.RequestException as broke:
            self.heard = repr(broke)
        return False

    def close(self) -> None:
        self.response.close()

    def doers(self) -> list[int]:
        """Processes that do errands just now: what uses the processor among those that wait to do them."""
        found = []
        for number in self.house.running("forkserver"):
            try:
                state = Path(f"/proc/{number}/stat").read_text().rpartition(")")[2].split()[0]
            except OSError:
                continue
            found += [number] if state == "R" else []
        return found

    def kept(self) -> bool:
        return requests.get(self.house.address + self.path, timeout=20).json()["tour"]["revision"] > 1


def version() -> int:
    from omnifer.core.model.tour import VERSION

    return VERSION
