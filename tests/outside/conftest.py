"""Stand-ins served over HTTP."""

import threading
from collections.abc import Callable, Iterator

import pytest
from flask import Flask
from werkzeug.serving import make_server

Serve = Callable[[Flask], str]


@pytest.fixture
def serve() -> Iterator[Serve]:
    servers = []

    def start(app: Flask) -> str:
        server = make_server("127.0.0.1", 0, app, threaded=True)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        servers.append(server)
        return f"http://127.0.0.1:{server.port}"

    yield start
    for server in servers:
        server.shutdown()
