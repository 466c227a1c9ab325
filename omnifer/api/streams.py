"""Long work told while it goes on, as server-sent events; whoever hangs up stops it before anything is kept."""

import contextlib
import json
import socket
import time
from collections.abc import Generator, Iterator, Sequence

from flask import Response, current_app, request, stream_with_context
from pydantic import BaseModel

from omnifer.api.desk import desk
from omnifer.api.health import ERRANDS
from omnifer.api.openapi import EVENT_STREAM
from omnifer.jobs.errands import News
from omnifer.jobs.queue import Errands
from omnifer.office.problems import BrokenOff, problem_of

HEARTBEAT_S = 5.0
"""A line is sent at least so often, so that nobody between takes the connection for dead [s]."""


def errand(kind: str, tour_id: str, asked: BaseModel, files: Sequence[bytes] = ()) -> Response:
    """The answer of an errand: as JSON, or with what is told on the way where the request accepts an event stream.

    Events carry the name of their model; the last is `answer`, or `problem` with what would have been the refusal.
    """
    ERRANDS.labels(kind).inc()
    errands: Errands = current_app.extensions["errands"]
    following = errands.follow(desk(), kind, tour_id, asked, files)
    if EVENT_STREAM in request.accept_mimetypes.values():
        response = current_app.response_class(stream_with_context(_events(following)), mimetype=EVENT_STREAM)
        response.headers["X-Accel-Buffering"] = "no"
        return response
    return _answered(_last(following))


def _last(following: Generator[News | None, None, None]) -> News:
    last = None
    with contextlib.closing(following):
        for news in following:
            last = news or last
            if news is None and hung_up():
                break
    if last is None or last.event not in ("answer", "problem"):
        raise BrokenOff
    return last


def _answered(last: News) -> Response:
    problem = last.event == "problem"
    status = json.loads(last.body)["status"] if problem else 200
    media = "application/problem+json" if problem else "application/json"
    return current_app.response_class(last.body, status=status, mimetype=media)


def _events(following: Generator[News | None, None, None]) -> Iterator[str]:
    sent = time.monotonic()
    with contextlib.closing(following):
        try:
            for news in following:
                if news is not None:
                    yield f"event: {news.event}\ndata: {news.body}\n\n"
                elif time.monotonic() - sent > HEARTBEAT_S:
                    yield ":\n\n"
                elif hung_up():
                    return
                else:
                    continue
                sent = time.monotonic()
        except Exception as error:
            yield f"event: problem\ndata: {problem_of(error).model_dump_json(exclude_none=True)}\n\n"


def hung_up() -> bool:
    """Whether whoever asked has closed the connection; False where the server does not tell."""
    connection: socket.socket | None = request.environ.get("gunicorn.socket") or request.environ.get("werkzeug.socket")
    if connection is None:
        return False
    try:
        return connection.recv(1, socket.MSG_PEEK | socket.MSG_DONTWAIT) == b""
    except BlockingIOError:
        return False
    except OSError:
        return True
