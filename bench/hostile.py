"""What outsiders may send: cases that schemathesis makes of the interface's own document, bad input, foreign tracks.

    python -m bench.hostile [CASES]

At least so many cases (5,000); exits with 1 where an answer is a 5xx, or is none that the document describes. Then, hosted,
twice as many of a rider who knows what another's things are called: no answer holds a word of them.
"""

import http.client
import importlib
import logging
import shutil
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any
from urllib.parse import quote

from flask import Flask
from werkzeug.serving import make_server
from werkzeug.test import EnvironBuilder

from omnifer.api.app import create_app
from omnifer.api.openapi import document
from omnifer.hosting import Hosting
from omnifer.outside.mail import Mail
from omnifer.store.cluster import Cluster
from omnifer.store.database import migrate
from omnifer.store.tours import Tours
from tests.api.hosted import SITE
from tests.api.snooping import snooped
from tests.api.test_api import attacked
from tests.conftest import tours_of
from tests.hostile.inputs import Input, inputs
from tests.hostile.test_exports import FOREIGN
from tests.hostile.test_inputs import READERS, TOUR


def over_http(app: Flask) -> tuple[int, int, list[str]]:
    """All bad inputs sent over a real connection: how many, how many files came to a reader, and what was answered with a 5xx."""
    reached = 0

    def counting(read: Callable[..., Any]) -> Callable[..., Any]:
        def reader(*args: Any, **more: Any) -> Any:
            nonlocal reached
            reached += 1
            return read(*args, **more)

        return reader

    for where, _ in READERS.values():
        module, _, name = where.rpartition(".")
        room = importlib.import_module(module)
        setattr(room, name, counting(getattr(room, name)))
    logging.getLogger("werkzeug").setLevel(logging.ERROR)
    server = make_server("127.0.0.1", 0, app, threaded=True)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    tours: Tours = tours_of(app)
    tour, sent, stumbled = f"/api/tours/{tours.create(TOUR).id}", 0, []
    for given in inputs():
        sent += 1
        if (status := _answered(server.port, tour, given)) >= 500:
            stumbled.append(f"{given.what}: {status}")
    server.shutdown()
    return sent, reached, stumbled


def _answered(port: int, tour: str, given: Input) -> int:
    """The status of an answer; what is no HTTP at all is refused before it is sent, as by any client (400)."""
    path = given.path.replace("{{tour}}", tour).replace("{tour}", tour)
    made = EnvironBuilder(method=given.method.upper(), path=path, **given.sent)
    body = made.get_environ()["wsgi.input"].read()
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
    try:
        headers = {"Content-Type": made.content_type} if made.content_type else {}
        connection.request(made.method, quote(made.path, safe="/%") + f"?{made.query_string}", body, headers)
        return connection.getresponse().status
    except http.client.InvalidURL:
        return 400
    finally:
        connection.close()


def _snooped(address: str, operations: int, wanted: int) -> int:
    """How many cases two accounts were kept apart in."""
    hosted = create_app(address, "bench", hosting=Hosting(SITE, 1, Mail("smtp://127.0.0.1:1", "omnifer@tours.example")))
    hosted.config["WTF_CSRF_ENABLED"] = False
    sent = snooped(hosted, -(-wanted // operations) * 2)
    assert sent >= wanted, sent
    return sent


def main() -> int:
    wanted = int(sys.argv[1]) if len(sys.argv) > 1 else 5000
    folder = Path(tempfile.mkdtemp(dir="/dev/shm" if Path("/dev/shm").is_dir() else None))
    cluster = Cluster(folder, fast_and_forgetful=True)
    address = cluster.start()
    try:
        migrate(address)
        app = create_app(address, "bench")
        app.config["WTF_CSRF_ENABLED"] = False
        operations = sum(len(methods) for methods in document(app)["paths"].values())
        began, each, sent = time.monotonic(), -(-wanted // operations), 0
        while sent < wanted:
            sent += attacked(app, each)
            each *= 2
        took = time.monotonic() - began
        print(f"schemathesis: {operations} operations, {sent:,} cases in {took:.0f} s, no 5xx, none undocumented")
        print(f"as another rider: {_snooped(address, operations, 2 * wanted):,} cases, no word of another's")
        sent, reached, stumbled = over_http(app)
        print(
            f"over HTTP: {sent} bad inputs, {reached} of them files that came to a reader, {len(stumbled)} x 5xx {stumbled or ''}"
        )
        print(f"by hand (tests/hostile): {len(FOREIGN)} foreign tracks")
    finally:
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)
    return int(bool(stumbled))


if __name__ == "__main__":
    sys.exit(main())
