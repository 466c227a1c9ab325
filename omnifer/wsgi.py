"""The application for the web server, which is told its database, weather service and folders by the environment.

The server loads this once and then divides into its processes; each makes its own application, with connections of its own,
when it is asked for the first time.
"""

import logging
import os
import sys
from collections.abc import Iterable
from functools import cache
from pathlib import Path
from threading import Lock
from typing import Any

from flask import Flask

from omnifer.api.app import create_app
from omnifer.hosting import hosting_of
from omnifer.outside.services import services_of

# One line a request, as JSON and nothing else.
requests = logging.getLogger("omnifer.requests")
requests.addHandler(logging.StreamHandler(sys.stdout))
requests.setLevel(logging.INFO)
requests.propagate = False
making = Lock()


@cache
def _made() -> Flask:
    roads = os.environ.get("OMNIFER_ROADS")
    return create_app(
        os.environ["OMNIFER_DATABASE"], os.environ["OMNIFER_SECRET_KEY"], services=services_of(),
        queued=True, roads_folder=Path(roads) if roads else None, scale_port=int(os.environ.get("OMNIFER_SCALE") or 0) or None,
        hosting=hosting_of(),
    )  # fmt: skip


def application() -> Flask:
    """The application of this process, made once however many ask for it at first."""
    with making:
        return _made()


def app(environ: dict[str, Any], start_response: Any) -> Iterable[bytes]:
    """Answer one request."""
    return application()(environ, start_response)
