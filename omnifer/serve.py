"""Starts everything that serving takes, and ends it again: database, tables, sample tour, weather stand-in, web server."""

import contextlib
import hashlib
import os
import secrets
import signal
import socket
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import psycopg

from omnifer.demo.sample import demo_tour
from omnifer.store.cluster import Cluster, ClusterProblem, only_one
from omnifer.store.tours import Tours, migrate, open_pool

HERE = Path(__file__).parents[1]
DEFAULT_PORT = 8470
THREADS = 8


def data_folder() -> Path:
    """Where the data lives: OMNIFER_DATA, or a folder of the checkout, or one that root's server can enter."""
    if chosen := os.environ.get("OMNIFER_DATA"):
        return Path(chosen).resolve()
    beside = HERE / ".data"
    if os.geteuid() == 0 and not all(parent.stat().st_mode & 0o001 for parent in beside.parents):
        return Path("/var/lib/omnifer") / hashlib.sha256(str(HERE).encode()).hexdigest()[:12]
    return beside


def serve(empty: bool, reset_demo: bool) -> int:
    """Serve until Ctrl-C. Returns the exit status."""
    signal.signal(signal.SIGTERM, _interrupt)
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
    if address := os.environ.get("DATABASE_URL"):
        folder.mkdir(parents=True, exist_ok=True)
        port = _free_port()
        try:
            psycopg.connect(address, connect_timeout=10).close()
        except psycopg.Error as error:
            raise ClusterProblem(f"The server of DATABASE_URL does not answer: {str(error).strip()}") from None
        yield address, folder, port
        return
    with only_one(folder) as lock:
        port = _free_port()
        cluster = Cluster(folder)
        address = cluster.start()
        lock.write(f"http://127.0.0.1:{port}/")
        lock.flush()
        try:
            yield address, folder, port
        finally:
            cluster.stop()


def _prepare(address: str, empty: bool, reset_demo: bool) -> None:
    migrate(address)
    pool = open_pool(address)
    try:
        tours = Tours.of_local_rider(pool)
        if reset_demo:
            name = demo_tour(load=False).name
            for line in tours.list():
                if line.name == name:
                    tours.delete(line.id)
        if reset_demo or (not empty and tours.count() == 0):
            print("Loading the sample tour ...", flush=True)
            tours.create(demo_tour(), "The sample tour")
    finally:
        pool.close()


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
    key = folder / "session-key"
    if not key.exists():
        key.write_text(secrets.token_hex(32))
        key.chmod(0o600)
    weather_port = _any_port()
    environment = os.environ | {"OMNIFER_DATABASE": address, "OMNIFER_SECRET_KEY": key.read_text()}
    environment.setdefault("OMNIFER_WEATHER", f"http://127.0.0.1:{weather_port}")
    weather = _gunicorn("omnifer.devices.weather_service:create_service()", weather_port, 2, environment)
    server = _gunicorn("omnifer.wsgi:app", port, THREADS, environment)
    print(f"Omnifer is at http://127.0.0.1:{port}/  (Ctrl-C ends it)", flush=True)
    try:
        return server.wait()
    except KeyboardInterrupt:
        server.terminate()
        server.wait(timeout=20)
        return 0
    finally:
        weather.terminate()
        weather.wait(timeout=20)


def _gunicorn(app: str, port: int, threads: int, environment: dict[str, str]) -> subprocess.Popen[bytes]:
    command = [
        sys.executable, "-m", "gunicorn", app, "--bind", f"127.0.0.1:{port}", "--worker-class", "gthread",
        "--threads", str(threads), "--timeout", "120", "--no-control-socket", "--log-level", "warning",
    ]  # fmt: skip
    return subprocess.Popen(command, env=environment, cwd=HERE, start_new_session=True)
