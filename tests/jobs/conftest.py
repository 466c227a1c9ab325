"""A database with workers on it, and the application served to them over a real connection."""

import subprocess
import threading
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from werkzeug.serving import make_server

from omnifer.api.app import create_app
from tests.conftest import end_worker, start_worker

PATIENCE_S = 40


def until(true: Callable[[], object], what: str, patience_s: float = PATIENCE_S) -> None:
    deadline = time.monotonic() + patience_s
    while not true():
        assert time.monotonic() < deadline, what
        time.sleep(0.02)


@pytest.fixture
def queued(database: str, tmp_path: Path) -> Iterator[tuple]:
    """The application that leaves long work to workers, and where it is served."""
    application = create_app(database, "test", queued=True, roads_folder=tmp_path / "roads")
    application.config["WTF_CSRF_ENABLED"] = False
    server = make_server("127.0.0.1", 0, application, threaded=True)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    yield application, f"http://127.0.0.1:{server.port}"
    server.shutdown()
    thread.join()
    application.extensions["errands"].close()
    application.extensions["omnifer"].pool.close()


@pytest.fixture
def worker(database: str) -> Iterator[subprocess.Popen]:
    """A worker that does one errand of each queue at a time."""
    running = start_worker(database)
    yield running
    end_worker(running)
