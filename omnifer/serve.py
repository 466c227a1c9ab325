"""Starts everything that serving takes, and ends it again: database, tables, sample tour, weather stand-in, web server."""

import contextlib
import ctypes
import hashlib
import json
import os
import secrets
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator, Sequence
from pathlib import Path

import psycopg

from omnifer.core.model.kit import Thing
from omnifer.core.model.library import as_owned
from omnifer.demo.library import SHARED, WEEKEND, at_home, weekend
from omnifer.demo.sample import demo_tour
from omnifer.store.cluster import Cluster, ClusterProblem, only_one
from omnifer.store.database import LOCAL_RIDER, migrate, open_pool, owner_named
from omnifer.store.library import Library
from omnifer.store.tours import Tours

HERE = Path(__file__).parents[1]
DEFAULT_PORT = 8470
THREADS = 8
PATIENCE_S = 20
"""How long a process may take to end before it is killed [s]."""
PROCESSES = "processes.json"
"""File of the data folder that names the servers under way."""
DIES_WITH_PARENT = 1
"""PR_SET_PDEATHSIG of Linux's prctl."""


def data_folder() -> Path:
    """Where the data lives: OMNIFER_DATA, or a folder of the checkout, or one that root's server can enter."""
    if chosen := os.environ.get("OMNIFER_DATA"):
        return Path(chosen).resolve()
    beside = HERE / ".data"
    if os.geteuid() == 0 and not all(parent.stat().st_mode & 0o001 for parent in beside.parents):
        return Path("/var/lib/omnifer") / hashlib.sha256(str(HERE).encode()).hexdigest()[:12]
    return beside


def serve(empty: bool, reset_demo: bool) -> int:
    """Serve until Ctrl-C, or until the terminal is closed. Returns the exit status."""
    for ending in (signal.SIGTERM, signal.SIGHUP):
        signal.signal(ending, _interrupt)
    try:
        with _database() as (address, folder, port):
            _prepare(address, empty, reset_demo)
            return _web_server(address, folder, port)
    except ClusterProblem as problem:
        print(f"Omnifer cannot start. {problem}", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        return 0


def _interrupt(*_: object) -> None:
    raise KeyboardInterrupt


@contextlib.contextmanager
def _database() -> Iterator[tuple[str, Path, int]]:
    """Address of the database, data folder and free port."""
    folder = data_folder()
    with only_one(folder) as lock:
        end_leftovers(folder)
        port = _free_port()
        lock.write(f"http://127.0.0.1:{port}/")
        lock.flush()
        if address := os.environ.get("DATABASE_URL"):
            try:
                psycopg.connect(address, connect_timeout=10).close()
            except psycopg.Error as error:
                raise ClusterProblem(f"The server of DATABASE_URL does not answer: {str(error).strip()}") from None
            yield address, folder, port
            return
        cluster = Cluster(folder)
        try:
            yield cluster.start(), folder, port
        finally:
            cluster.stop()


def end_leftovers(folder: Path) -> None:
    """End the servers of an earlier start that was killed before it could end them itself."""
    noted = folder / PROCESSES
    if not noted.exists():
        return
    with contextlib.suppress(ValueError, TypeError):
        for number, began in json.loads(noted.read_text()).items():
            if _began(int(number)) == began:
                print("Ending a server that an earlier start left behind ...", flush=True)
                _end(int(number), began)
    noted.unlink()


def _began(number: int) -> str | None:
    """When a process began, as the system counts it; None where there is none. A number is given again, a beginning is not."""
    try:
        fields = Path(f"/proc/{number}/stat").read_text().rpartition(")")[2].split()
    except OSError:
        return None
    return None if fields[0] in "ZX" else fields[19]


def _end(number: int, began: str) -> None:
    """End a process that is not ours to wait for."""
    for ending in (signal.SIGTERM, signal.SIGKILL):
        with contextlib.suppress(ProcessLookupError):
            os.kill(number, ending)
        until = time.monotonic() + PATIENCE_S
        while _began(number) == began and time.monotonic() < until:
            time.sleep(0.05)


def _prepare(address: str, empty: bool, reset_demo: bool) -> None:
    migrate(address)
    pool = open_pool(address)
    try:
        owner = owner_named(pool, LOCAL_RIDER)
        tours = Tours(pool, owner)
        if reset_demo:
            names = {demo_tour(load=False).name, WEEKEND}
            for line in tours.list():
                if line.name in names:
                    tours.delete(line.id)
        if reset_demo or (not empty and tours.count() == 0):
            print("Loading the sample tour ...", flush=True)
            _load_sample(tours, Library(pool, owner))
    finally:
        pool.close()


def _load_sample(tours: Tours, library: Library) -> None:
    """The sample's things into the library, and the two tours that share them; the long one is the last changed."""
    sample = demo_tour()
    known = _kept(library, sample.kit)
    kit = tuple(Thing.model_validate(t.model_dump() | {"library_id": known[t.id]}) for t in sample.kit)
    home = [t.model_copy(update={"instead_of": known.get(t.instead_of or "")}) for t in at_home()]
    _kept(library, home)
    shared = tuple(Thing.model_validate(t.model_dump() | {"where": ()}) for t in kit if t.id in SHARED)
    tours.create(weekend(shared), "The sample of a short tour")
    tours.create(sample.model_copy(update={"kit": kit}), "The sample tour")


def _kept(library: Library, things: Sequence[Thing]) -> dict[str, str]:
    """Where in the library things are, by their own identifiers; those of a name that is there already are not doubled."""
    there = library.named([thing.name for thing in things])
    new = [thing for thing in things if thing.name.lower() not in there]
    ids = dict(zip((thing.id for thing in new), library.add([as_owned(thing) for thing in new]), strict=True))
    return ids | {thing.id: there[thing.name.lower()].id for thing in things if thing.name.lower() in there}


def _free_port() -> int:
    wanted = os.environ.get("OMNIFER_PORT", str(DEFAULT_PORT))
    if not wanted.isdecimal() or not 0 < int(wanted) < 65536:
        raise ClusterProblem(f"OMNIFER_PORT is {wanted!r}; it must be a number from 1 to 65535.")
    port = int(wanted)
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError as error:
            why = "is not yours to use" if isinstance(error, PermissionError) else "is taken"
            raise ClusterProblem(f"Port {port} {why}. Choose another: OMNIFER_PORT=8471 bin/start") from None
    return port


def _any_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def _web_server(address: str, folder: Path, port: int) -> int:
    """Run the servers until they end; a KeyboardInterrupt ends them first."""
    key = folder / "session-key"
    if not key.exists():
        key.write_text(secrets.token_hex(32))
        key.chmod(0o600)
    weather_port = _any_port()
    environment = os.environ | {"OMNIFER_DATABASE": address, "OMNIFER_SECRET_KEY": key.read_text()}
    environment.setdefault("OMNIFER_WEATHER", f"http://127.0.0.1:{weather_port}")
    with contextlib.ExitStack() as running:
        weather = _gunicorn("omnifer.devices.weather_service:create_service()", weather_port, 2, environment)
        running.callback(_stop, weather)
        server = _gunicorn("omnifer.wsgi:app", port, THREADS, environment)
        running.callback(_stop, server)
        (folder / PROCESSES).write_text(json.dumps({str(p.pid): _began(p.pid) for p in (weather, server)}))
        running.callback((folder / PROCESSES).unlink, missing_ok=True)
        print(f"Omnifer is at http://127.0.0.1:{port}/  (Ctrl-C ends it)", flush=True)
        return server.wait()


def _stop(server: subprocess.Popen[bytes]) -> None:
    server.terminate()
    try:
        server.wait(timeout=PATIENCE_S)
    except subprocess.TimeoutExpired:
        server.kill()
        server.wait()


def _gunicorn(app: str, port: int, threads: int, environment: dict[str, str]) -> subprocess.Popen[bytes]:
    command = [
        sys.executable, "-m", "gunicorn", app, "--bind", f"127.0.0.1:{port}", "--worker-class", "gthread",
        "--threads", str(threads), "--timeout", "120", "--no-control-socket", "--log-level", "warning",
    ]  # fmt: skip
    return subprocess.Popen(command, env=environment, cwd=HERE, start_new_session=True, preexec_fn=_die_with_parent)


def _die_with_parent() -> None:
    """Asks the system to end this process when the one that started it is gone, killed or not."""
    ctypes.CDLL(None).prctl(DIES_WITH_PARENT, signal.SIGTERM)
