"""How the server does: a line for each request, counters, and whether all that it needs is there."""

import contextlib
import json
import logging
import os
import time
from typing import Any

from flask import Blueprint, Flask, Response, current_app, g, request
from prometheus_client import CONTENT_TYPE_LATEST, REGISTRY, CollectorRegistry, Counter, Gauge, Histogram, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector

from omnifer.api.openapi import operation
from omnifer.core.model.quantities import Noun
from omnifer.store.database import AWAY, QUERIES, WORKING, Pool, one_of

blueprint = Blueprint("health", __name__)
log = logging.getLogger("omnifer.requests")
REQUESTS = Counter("omnifer_requests_total", "Requests answered", ("route", "method", "status"))
SECONDS = Histogram("omnifer_request_seconds", "How long answers took", ("route",))
ERRANDS = Counter("omnifer_errands_total", "Errands asked for", ("kind",))
SHARED = "PROMETHEUS_MULTIPROC_DIR"
"""Folder in which the processes of one server count together; told before this is loaded."""


class Queued(Noun):
    """A queue of errands."""

    waiting: int
    under_way: int


class Health(Noun):
    """Whether all that the server needs is there."""

    database: bool
    workers: int
    queues: dict[str, Queued]


def register(app: Flask) -> None:
    """Write a line and count for each request: its route and never its address, which may name things."""

    @app.before_request
    def begin() -> None:
        g.began = time.perf_counter()

    @app.after_request
    def note(response: Response) -> Response:
        route = request.url_rule.rule if request.url_rule else "none"
        seconds = time.perf_counter() - g.get("began", time.perf_counter())
        REQUESTS.labels(route, request.method, response.status_code).inc()
        SECONDS.labels(route).observe(seconds)
        line = {"route": route, "method": request.method, "status": response.status_code, "ms": round(seconds * 1000, 1)}
        log.info(json.dumps(line))
        return response


@blueprint.get("/healthz")
@operation(gives=Health)
def healthz() -> Response:
    """Whether the database answers, how many workers there are, and what waits for them."""
    found = _health(current_app.extensions["omnifer"].pool)
    status = 200 if found.database else 503
    return current_app.response_class(found.model_dump_json(), status=status, mimetype="application/json")


@blueprint.get("/metrics")
@operation(media="text/plain")
def metrics() -> Response:
    """Counters of requests and errands, and the length of the queues, as Prometheus reads them."""
    registry: Any = REGISTRY
    if SHARED in os.environ:
        registry = CollectorRegistry()
        MultiProcessCollector(registry)
    told = generate_latest(registry) + generate_latest(_queues(_health(current_app.extensions["omnifer"].pool)))
    return current_app.response_class(told, mimetype=CONTENT_TYPE_LATEST)


def _queues(found: Health) -> CollectorRegistry:
    registry = CollectorRegistry()
    jobs = Gauge("omnifer_queue", "Errands in a queue", ("queue", "state"), registry=registry)
    for name, queue in found.queues.items():
        jobs.labels(name, "waiting").set(queue.waiting)
        jobs.labels(name, "under way").set(queue.under_way)
    Gauge("omnifer_workers", "Workers there", registry=registry).set(found.workers)
    return registry


def _health(pool: Pool) -> Health:
    with contextlib.suppress(*AWAY), pool.connection() as connection:
        rows = {(r["queue_name"], r["status"]): r["jobs"] for r in QUERIES.queue_lengths(connection)}
        workers = int(one_of(QUERIES.workers_there(connection, lock=WORKING)))
        names = sorted({name for name, _ in rows})
        queues = {n: Queued(waiting=rows.get((n, "todo"), 0), under_way=rows.get((n, "doing"), 0)) for n in names}
        return Health(database=True, workers=workers, queues=queues)
    return Health(database=False, workers=0, queues={})
