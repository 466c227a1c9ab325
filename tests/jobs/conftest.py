"""A database with workers on it, and the application served to them over a real connection."""

import subprocess
import threading
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

import pytest
from flask import Flask
from werkzeug.serving import make_server

from omnifer.api.app import create_app
from omnifer.store.cluster import Cluster
from tests.conftest import cloned, end_worker, start_worker


@pytest.fixture
def queued(database: str, tmp_path: Path) -> Iterator[tuple]:
    """The application that leaves long work to workers, and where it is served."""
    yield from _served(database, tmp_path)


def _served(database: str, folder: Path) -> Iterator[tuple]:
    application = create_app(database, "test", queued=True, roads_folder=folder / "roads")
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


@dataclass(frozen=True)
class Office:
    """A database with the application and one worker on it, for all tests that leave both as they are."""

    database: str
    application: Flask
    address: str
    worker: subprocess.Popen


@pytest.fixture(scope="session")
def office(cluster: Cluster, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Office]:
    for database in cloned(cluster):
        running = start_worker(database)
        for application, address in _served(database, tmp_path_factory.mktemp("office")):
            yield Office(database, application, address, running)
        end_worker(running)
