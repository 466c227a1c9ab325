"""Starts everything that serving takes, watches it, and ends it again: database, tables, sample tour, workers, web server."""

import contextlib
import errno
import hashlib
import os
import secrets
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from typing import NoReturn

from omnifer.backup import RULE, nightly
from omnifer.devices import PATHS
from omnifer.hosting import HostingProblem, hosting_of
from omnifer.processes import Process, Watch, dying_with_parent, end_leftovers, log_file, trim_log
from omnifer.store.cluster import Cluster, ClusterProblem, only_one
from omnifer.store.database import (
    LOCAL_RIDER,
    QUERIES,
    AddressError,
    acting,
    connect,
    migrate,
    one_of,
    open_pool,
    owner_named,
    plain_address,
)

HERE = Path(__file__).parents[1]
DEFAULT_PORT = 8470
THREADS = 32
"""Of one web process: most of them wait for news of errands."""
MOST_WEB_PROCESSES = 4
GRACE_S = 1
"""How long the web server lets requests come to their end when it is told to end [s]."""
PROCESSES = "processes.json"
"""File of the data folder that names the servers under way."""
ROUND_S = 3600.0
"""How often logs are looked after, and whether a copy is due [s]."""
DATABASE = "database"


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
    for ending in (signal.SIGTERM, signal.SIGHUP, signal.SIGINT):
        signal.signal(ending, _interrupt)
    try:
        with _database() as (address, folder, port, watch):
            hosting_of()
            migrate(address)
            # What the servers load takes longer than what is prepared meanwhile; nobody is told of them before that is done.
            _begin_servers(address, folder, port, watch)
            _prepare(address, empty, reset_demo)
            _serve(folder, port, watch)
    except (ClusterProblem, AddressError, HostingProblem) as problem:
        full = os.strerror(errno.ENOSPC)
        words = in_words(OSError(errno.ENOSPC, full)) if full in str(problem) else str(problem)
        print(f"Omnifer cannot start. {words}", file=sys.stderr)
        return 1
    except OSError as trouble:
        print(f"Omnifer cannot start. {in_words(trouble)}", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        return 0


def in_words(trouble: OSError) -> str:
    """What a file or folder that cannot be used is told as."""
    where = f" ({trouble.filename})" if trouble.filename else ""
    if trouble.errno in (errno.ENOSPC, errno.EDQUOT):
        return f"The disk is full{where}. Free some space and start again; what was kept is safe."
    return f"{trouble.strerror or trouble}{where}. See that the folder can be written, or choose another: OMNIFER_DATA=FOLDER"


def _interrupt(*_: object) -> None:
    # What ends is ended in order: a second signal, as a terminal sends when it is closed, must not cut that short.
    for ending in (signal.SIGTERM, signal.SIGHUP, signal.SIGINT):
        signal.signal(ending, signal.SIG_IGN)
    raise KeyboardInterrupt


@contextlib.contextmanager
def _database() -> Iterator[tuple[str, Path, int, Watch]]:
    """Address of the database, data folder, free port, and the watch over what runs."""
    folder = data_folder()
    with only_one(folder) as lock:
        end_leftovers(folder / PROCESSES)
        port = _free_port()
        lock.write(f"http://127.0.0.1:{port}/")
        lock.flush()
        watch = Watch(folder / PROCESSES)
        try:
            if address := os.environ.get("DATABASE_URL"):
                address = plain_address(address)
                connect(address).close()
            else:
                cluster = Cluster(folder)
                address = cluster.start(lambda begin: watch.begin(DATABASE, begin))
            yield address, folder, port, watch
        finally:
            watch.end(last=DATABASE)
            shutil.rmtree(_counters(folder), ignore_errors=True)


def _prepare(address: str, empty: bool, reset_demo: bool) -> None:
    """Load the sample into a database without any tour, or anew."""
    pool = open_pool(address)
    try:
        owner = owner_named(pool, LOCAL_RIDER)
        with acting(pool, owner) as connection:
            there = int(one_of(QUERIES.count_tours(connection, owner_id=owner)))
        if reset_demo or (not empty and there == 0 and hosting_of() is None):
            print("Loading the sample tour ...", flush=True)
            from omnifer.office.sample import keep_sample

            keep_sample(pool, owner)
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


def _begin_servers(address: str, folder: Path, port: int, watch: Watch) -> None:
    """Begin the web server, the worker, and the stand-ins of outside services and of a scale."""
    key = folder / "session-key"
    if not key.exists():
        key.write_text(secrets.token_hex(32))
        key.chmod(0o600)
    services_port, cores, hosting = _any_port(), os.cpu_count() or 1, hosting_of()
    environment = os.environ | {
        "OMNIFER_DATABASE": address, "OMNIFER_SECRET_KEY": key.read_text(), "OMNIFER_ROADS": str(folder / "roads"),
        "PROMETHEUS_MULTIPROC_DIR": str(_counters(folder)),
    }  # fmt: skip
    logs = folder / "log"
    if hosting is not None and not hosting.mail.server:
        _begin_mailbox(folder, environment, watch)
    if hosting is None:
        for setting, path in PATHS.items():
            environment.setdefault(setting, f"http://127.0.0.1:{services_port}{path}")
    scale_port = environment.setdefault("OMNIFER_SCALE", str(_any_port()))
    services = _gunicorn("omnifer.devices.services:create_services()", services_port, 1, 4)
    web = _gunicorn("omnifer.wsgi:app", port, min(max(cores, 2), MOST_WEB_PROCESSES), THREADS)
    beside = [("services", services), ("scale", [sys.executable, "-m", "omnifer.devices.scale_service", scale_port])]
    for name, command in (
        ("web server", web), ("worker", [sys.executable, "-m", "omnifer.jobs.worker"]), *([] if hosting else beside),
    ):  # fmt: skip
        watch.begin(name, _beginning(command, environment, logs, name.partition(" ")[0]))


def _begin_mailbox(folder: Path, environment: dict[str, str], watch: Watch) -> None:
    """Begin the stand-in for a mail server, and say that it sends nothing."""
    port = str(_any_port())
    environment["OMNIFER_SMTP"] = f"smtp://127.0.0.1:{port}"
    command = [sys.executable, "-m", "omnifer.devices.mailbox", port, str(folder / "mailbox")]
    watch.begin("mailbox", _beginning(command, environment, folder / "log", "mailbox"))
    print(f"No mail goes out: OMNIFER_SMTP names no server. Mails are kept in {folder / 'mailbox'} instead.", flush=True)


def _serve(folder: Path, port: int, watch: Watch) -> NoReturn:
    """Say where it is, and look after what runs until a KeyboardInterrupt."""
    _wait_until_it_answers(port)
    hosting = hosting_of()
    seen = f", seen from outside as {hosting.site}/" if hosting else ""
    print(f"Omnifer is at http://127.0.0.1:{port}/{seen}  (Ctrl-C ends it)", flush=True)
    own = "DATABASE_URL" not in os.environ
    while True:
        try:
            for log in (folder / "log").glob("*.log"):
                trim_log(log)
            if own and (said := nightly(Cluster(folder), folder / "backups")):
                print(f"{said} {RULE}", flush=True)
        except OSError as trouble:
            print(f"No copy was made. {in_words(trouble)}", file=sys.stderr, flush=True)
        watch.keep(ROUND_S)


def _counters(data: Path) -> Path:
    """An empty folder for what the web processes count together: in memory, for it is mapped, and a full disk would kill whoever
    touches it."""
    memory = Path("/dev/shm") if os.access("/dev/shm", os.W_OK) else Path(tempfile.gettempdir())
    folder = memory / f"omnifer-counters-{hashlib.sha256(str(data).encode()).hexdigest()[:12]}"
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    for file in folder.iterdir():
        file.unlink()
    return folder


def _wait_until_it_answers(port: int) -> None:
    """Wait until the web server listens; it says itself what stands in its way."""
    for _ in range(600):
        with socket.socket() as probe:
            probe.settimeout(0.05)
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                return
        signal.sigtimedwait([], 0.05)


def _beginning(command: Sequence[str], environment: dict[str, str], logs: Path, name: str) -> Callable[[], Process]:
    """How a service is begun; what it has to say goes to a log of its own."""

    def begin() -> Process:
        with log_file(logs, name) as log:
            return subprocess.Popen(
                command, env=environment, cwd=HERE, stdin=subprocess.DEVNULL, stdout=log, stderr=log, start_new_session=True,
                preexec_fn=dying_with_parent(),
            )  # fmt: skip

    return begin


def _gunicorn(app: str, port: int, processes: int, threads: int) -> list[str]:
    return [
        sys.executable, "-m", "gunicorn", app, "--bind", f"127.0.0.1:{port}", "--preload", "--config", "python:omnifer.gunicorn",
        "--worker-class", "omnifer.gunicorn.Worker",
        "--workers", str(processes), "--threads", str(threads), "--timeout", "120", "--graceful-timeout", str(GRACE_S),
        "--no-control-socket", "--log-level", "warning",
    ]  # fmt: skip
