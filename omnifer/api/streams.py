"""Long work told while it goes on, as server-sent events; whoever hangs up stops it before anything is kept."""

import threading
from collections.abc import Callable, Iterator
from queue import Empty, SimpleQueue

from flask import Response, copy_current_request_context, current_app, request
from pydantic import BaseModel, Field

from omnifer.api.desk import answer
from omnifer.api.openapi import EVENT_STREAM, event_name
from omnifer.core.model.quantities import Noun

HEARTBEAT_S = 0.5
"""A line is sent at least so often: writing to a closed connection is how a hang-up is noticed [s]."""

WORKER = "long work"
"""Name of the threads that do it."""


class Progress(Noun):
    """How far long work is."""

    what: str
    share: float | None = Field(None, description="Part that is done [-]; None: not known")


class HungUp(Exception):
    """Nobody waits for the answer any more."""


Tell = Callable[[BaseModel], None]
"""Tells something on the way; raises HungUp where nobody listens any more."""


def told(work: Callable[[Tell], BaseModel]) -> Response:
    """The answer of some work: as JSON, or with what it tells on the way where the request accepts an event stream.

    Events carry the name of their model; the last is `answer`, or `problem` with what would have been the refusal.
    """
    if EVENT_STREAM not in request.accept_mimetypes.values():
        return answer(work(lambda _: None))
    lines: SimpleQueue[str | None] = SimpleQueue()
    hung_up = threading.Event()

    def tell(news: BaseModel) -> None:
        if hung_up.is_set():
            raise HungUp
        lines.put(_event(event_name(type(news)), news.model_dump_json()))

    @copy_current_request_context
    def run() -> None:
        try:
            lines.put(_event("answer", work(tell).model_dump_json()))
        except HungUp:
            pass
        except Exception as error:
            refusal = current_app.make_response(current_app.handle_user_exception(error))
            lines.put(_event("problem", refusal.get_data(as_text=True)))
        finally:
            lines.put(None)

    def events() -> Iterator[str]:
        threading.Thread(target=run, name=WORKER, daemon=True).start()
        try:
            while True:
                try:
                    line = lines.get(timeout=HEARTBEAT_S)
                except Empty:
                    line = ":\n\n"
                if line is None:
                    return
                yield line
        finally:
            hung_up.set()

    response = current_app.response_class(events(), mimetype=EVENT_STREAM)
    response.headers["X-Accel-Buffering"] = "no"
    return response


def _event(name: str, content: str) -> str:
    return f"event: {name}\ndata: {content}\n\n"
