"""Processes that are watched: begun again where they end by themselves, ended with whoever began them."""

import contextlib
import ctypes
import json
import os
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from queue import Empty, SimpleQueue
from typing import IO

Process = subprocess.Popen[bytes]
GRACE_S = 1.2
"""How long a process may take to end before it is killed; with the database after it all is over within three seconds [s]."""
SHORT_LIVED_S, LONGEST_PAUSE_S = 10.0, 5.0
"""What ends sooner than this after it began is begun again after ever longer pauses [s]."""
DIES_WITH_PARENT = 1
"""PR_SET_PDEATHSIG of Linux's prctl."""
LARGEST_LOG_BYTES = 5 * 2**20


def dying_with_parent(ending: signal.Signals = signal.SIGTERM) -> Callable[[], None]:
    """What a new process does first: asks the system to end it when the one that began it is gone, killed or not."""

    def ask() -> None:
        ctypes.CDLL(None).prctl(DIES_WITH_PARENT, ending)

    return ask


def begun_at(number: int) -> str | None:
    """When a process began, as the system counts it; None where there is none. A number is given again, a beginning is not."""
    try:
        fields = Path(f"/proc/{number}/stat").read_text().rpartition(")")[2].split()
    except OSError:
        return None
    return None if fields[0] in "ZX" else fields[19]


def end_stranger(number: int, began: str, patience_s: float) -> None:
    """End a process that is not ours to wait for."""
    for ending in (signal.SIGTERM, signal.SIGKILL):
        with contextlib.suppress(ProcessLookupError):
            os.kill(number, ending)
        until = time.monotonic() + patience_s
        while begun_at(number) == began and time.monotonic() < until:
            time.sleep(0.02)


def end_offspring(leaders: Sequence[int], patience_s: float = 0.5) -> None:
    """Kill what services that are gone have begun themselves and left behind: the groups of processes they led."""
    until = time.monotonic() + patience_s
    for leader in leaders:
        with contextlib.suppress(ProcessLookupError, PermissionError):
            while True:
                os.killpg(leader, signal.SIGKILL)  # goes on succeeding until the last of them is gone
                if time.monotonic() > until:
                    break
                time.sleep(0.01)


@dataclass
class Service:
    """A process that should be there, and how it is begun."""

    begin: Callable[[], Process]
    process: Process
    began: float
    pause_s: float = 0.0


class Watch:
    """Services that are watched. All is begun in the thread that made it: with that thread's end they end.

    Parameters
    ----------
    noted : Path
        File that names them, for a start after one that was killed.
    """

    def __init__(self, noted: Path) -> None:
        self._noted = noted
        self._services: dict[str, Service] = {}
        self._ended: SimpleQueue[tuple[str, Process]] = SimpleQueue()

    def begin(self, name: str, begin: Callable[[], Process]) -> None:
        """Begin a service and watch it from then on."""
        self._services[name] = Service(begin, begin(), time.monotonic())
        self._look_after(name)

    def _look_after(self, name: str) -> None:
        process = self._services[name].process

        def wait() -> None:
            process.wait()
            self._ended.put((name, process))

        threading.Thread(target=wait, name=f"watch {name}", daemon=True).start()
        # Where the disk is full the note is not there for a start after one that was killed; what runs goes on.
        with contextlib.suppress(OSError):
            self._noted.write_text(json.dumps({str(s.process.pid): begun_at(s.process.pid) for s in self._services.values()}))

    def keep(self, for_s: float) -> None:
        """Begin again what ends, for so long."""
        until = time.monotonic() + for_s
        while (left := until - time.monotonic()) > 0:
            try:
                name, process = self._ended.get(timeout=left)
            except Empty:
                return
            service = self._services[name]
            if process is service.process:
                self._begin_again(name, service)

    def _begin_again(self, name: str, service: Service) -> None:
        lived = time.monotonic() - service.began
        service.pause_s = min(max(2 * service.pause_s, 0.2), LONGEST_PAUSE_S) if lived < SHORT_LIVED_S else 0.0
        time.sleep(service.pause_s)
        print(f"The {name} ended by itself and is begun again; nothing that was kept is lost.", file=sys.stderr, flush=True)
        with contextlib.suppress(OSError):
            service.process = service.begin()
        service.began = time.monotonic()
        self._look_after(name)

    def end(self, last: str) -> None:
        """End all, one of them after all others; what does not end by itself is killed."""
        for names in ([name for name in self._services if name != last], [last]):
            ending = [self._services[name].process for name in names if name in self._services]
            for process in ending:
                process.send_signal(signal.SIGINT if names == [last] else signal.SIGTERM)
            until = time.monotonic() + GRACE_S
            for process in ending:
                try:
                    process.wait(timeout=max(until - time.monotonic(), 0.01))
                except subprocess.TimeoutExpired:
                    process.kill()
                    process.wait()
            end_offspring([process.pid for process in ending])
        self._noted.unlink(missing_ok=True)


def end_leftovers(noted: Path) -> None:
    """End the services of an earlier start that was killed before it could end them itself."""
    if not noted.exists():
        return
    with contextlib.suppress(ValueError, TypeError):
        for number, began in json.loads(noted.read_text()).items():
            if began is not None and begun_at(int(number)) == began:
                print("Ending a server that an earlier start left behind ...", flush=True)
                end_stranger(int(number), began, GRACE_S)
    noted.unlink()


def log_file(folder: Path, name: str) -> IO[bytes]:
    """Where a service writes what it has to say; what is there already is moved aside where it has grown large."""
    folder.mkdir(parents=True, exist_ok=True)
    file = folder / f"{name}.log"
    trim_log(file)
    return file.open("ab")


def trim_log(file: Path) -> None:
    """Move a log aside that has grown large, without taking it from whoever writes it."""
    if file.exists() and file.stat().st_size > LARGEST_LOG_BYTES:
        file.with_suffix(".old.log").write_bytes(file.read_bytes())
        os.truncate(file, 0)
