"""Long work over server-sent events: what is told on the way."""

import io
import json

import pytest

from tests.conftest import small_tour, thing
from tests.formats.test_gpx import gpx

LONG = gpx(*((45 + n / 10_000, 7.0, 200.0) for n in range(40_000)))
STREAM = {"Accept": "text/event-stream"}


@pytest.fixture
def path(tours) -> str:
    return f"/api/tours/{tours.create(small_tour(thing('tent'))).id}"


def bring(client, path, content):
    data = {"file": (io.BytesIO(content), "long.gpx"), "revision": "1"}
    return client.post(f"{path}/track", data=data, headers=STREAM, content_type="multipart/form-data")


def events(response) -> list[tuple[str, dict]]:
    blocks = [block.split("\n") for block in response.get_data(as_text=True).split("\n\n") if block.startswith("event")]
    return [(name.removeprefix("event: "), json.loads(data.removeprefix("data: "))) for name, data in blocks]


def test_a_long_track_tells_how_far_it_is(app, path):
    client = app.test_client()
    *news, (last, answer) = events(bring(client, path, LONG))
    assert {name for name, _ in news} == {"progress"}
    shares = [progress["share"] for _, progress in news]
    assert shares == sorted(shares)
    assert len(set(shares)) >= 4
    assert last == "answer"
    assert answer["tour"]["revision"] == client.get(path).json["tour"]["revision"] == 2
    assert answer["assessment"]["road"]["length_km"] == pytest.approx(444.6, abs=1)


def test_a_refusal_in_a_stream_is_the_same_problem(app, path):
    client = app.test_client()
    (name, problem), *_ = [event for event in events(bring(client, path, LONG[:-40])) if event[0] != "progress"]
    assert (name, problem["status"]) == ("problem", 422)
    assert "damaged after 39999 points" in problem["detail"]
