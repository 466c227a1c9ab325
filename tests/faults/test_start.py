"""A start that ends badly: a closed terminal, a killed command. Nothing stays behind, and the next start just starts."""

import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
import uuid
from collections.abc import Iterator
from pathlib import Path

import pytest

from omnifer.serve import PROCESSES, end_leftovers

PATIENCE_S = 60


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@pytest.fixture
def folder() -> Iterator[Path]:
    """A data folder that Debian's user postgres can enter."""
    made = Path("/dev/shm" if Path("/dev/shm").is_dir() else "/tmp") / f"omnifer-start-{uuid.uuid4().hex[:8]}"
    made.mkdir()
    yield made
    shutil.rmtree(made, ignore_errors=True)


def start(folder: Path, port: int) -> subprocess.Popen[str]:
    environment = {k: v for k, v in os.environ.items() if k != "DATABASE_URL"}
    environment |= {"OMNIFER_DATA": str(folder), "OMNIFER_PORT": str(port)}
    command = [sys.executable, "-m", "omnifer.cli", "serve", "--empty"]
    return subprocess.Popen(command, env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)


def answers(port: int) -> bool:
    try:
        return urllib.request.urlopen(f"http://127.0.0.1:{port}/api/tours", timeout=5).status == 200
    except (OSError, urllib.error.URLError):
        return False


def until(true, what: str) -> None:
    deadline = time.monotonic() + PATIENCE_S
    while not true():
        assert time.monotonic() < deadline, what
        time.sleep(0.05)


def running(folder: Path) -> list[str]:
    """Command lines of processes that name the folder, or serve on its behalf."""
    lines = []
    for process in Path("/proc").glob("[0-9]*"):
        try:
            line = (process / "cmdline").read_text().replace("\0", " ")
            environment = (process / "environ").read_text()
        except OSError:
            continue
        if str(folder) in line or f"OMNIFER_DATA={folder}\0" in environment:
            lines.append(line)
    return lines


def test_a_closed_terminal_ends_everything_and_a_killed_start_is_no_hindrance(folder):
    port = free_port()
    for ending in (signal.SIGHUP, signal.SIGKILL, signal.SIGTERM):
        served = start(folder, port)
        until(lambda: answers(port) or served.poll() is not None, "it does not answer")  # noqa: B023
        assert served.poll() is None, served.stdout.read()
        served.send_signal(ending)
        assert served.wait(timeout=PATIENCE_S) == (-signal.SIGKILL if ending == signal.SIGKILL else 0)
        until(lambda: not any("gunicorn" in line for line in running(folder)), "a web server stayed behind")
        if ending != signal.SIGKILL:
            assert running(folder) == []
        served.stdout.close()


def test_only_its_own_old_processes_are_ended(folder):
    """A process of that number which began at another time is somebody else's."""
    ours, theirs = (subprocess.Popen(["sleep", "60"]) for _ in range(2))
    began = Path(f"/proc/{ours.pid}/stat").read_text().rpartition(")")[2].split()[19]
    (folder / PROCESSES).write_text(f'{{"{ours.pid}": "{began}", "{theirs.pid}": "1", "999999": "5"}}')
    end_leftovers(folder)
    assert ours.wait(timeout=5) == -signal.SIGTERM
    assert theirs.poll() is None
    assert not (folder / PROCESSES).exists()
    theirs.kill()
    theirs.wait()
    (folder / PROCESSES).write_text("cut off in the midd")
    end_leftovers(folder)
    assert not (folder / PROCESSES).exists()
