"""How the server does: counted and told, without a name of anything; and nobody comes in through a proxy."""

import json
import logging
import re
import time

import pytest

from omnifer.api.app import FORWARDED, create_app
from tests.conftest import small_tour, tours_of


def test_requests_are_counted_and_noted_by_route_alone(app, caplog):
    client = app.test_client()
    tour = tours_of(app).create(small_tour(name="Secret way")).id
    with caplog.at_level(logging.INFO, "omnifer.requests"):
        client.get(f"/api/tours/{tour}")
        client.get(f"/api/tours/{tour}/mends?finding=secret")
        client.get("/nowhere/secret.txt")
    lines = [json.loads(record.getMessage()) for record in caplog.records if record.name == "omnifer.requests"]
    assert [(line["route"], line["status"]) for line in lines] == [
        ("/api/tours/<tour_id>", 200), ("/api/tours/<tour_id>/mends", 404), ("none", 404),
    ]  # fmt: skip
    told = client.get("/metrics").text
    assert 'omnifer_requests_total{method="GET",route="/api/tours/<tour_id>",status="200"}' in told
    assert 'omnifer_errands_total{kind="mends"}' in told
    for text in (json.dumps(lines), told):
        assert "ecret" not in text
        assert tour not in text
    assert client.get("/healthz").json == {"database": True, "workers": 0, "queues": {}}


@pytest.mark.parametrize("name", FORWARDED)
def test_nobody_comes_in_through_a_proxy(name, client):
    refused = client.get("/api/tours", headers={name: "for=192.0.2.7"})
    assert (refused.status_code, refused.mimetype) == (403, "application/problem+json")
    assert "through a proxy" in refused.json["detail"]


def test_a_database_that_is_away_is_said_within_a_second(database):
    away = create_app(re.sub(r":\d+/", ":1/", database), "test")  # a port where nobody listens
    client = away.test_client()
    began = time.monotonic()
    answer = client.get("/api/tours")
    assert time.monotonic() - began < 1
    assert (answer.status_code, answer.json["title"], answer.headers["Retry-After"]) == (503, "Back in a moment", "2")
    assert "What was kept before is safe" in answer.json["detail"]
    assert client.get("/healthz").status_code == 503
    away.extensions["omnifer"].pool.close(timeout=0.1)
