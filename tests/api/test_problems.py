"""Refusals: always problem+json, always in words with where and what to do, and never half of a change."""

import io
import json

import pytest

from tests.conftest import small_tour, thing

ROAD = {"stops": [{"id": "s", "name": "Mill", "at_km": 10}]}


@pytest.fixture
def path(tours):
    return f"/api/tours/{tours.create(small_tour(thing('tent'), thing('pot', count=2))).id}"


def changed(**parts: object) -> dict:
    return {"revision": 1, "what": "Try", **parts}


BAD_CHANGES = {
    "a night before the road": ({"road": {"nights": [{"at_km": -5}]}}, "nights"),
    "a ferry that ends before it begins": ({"road": {"transfers": [{"from_km": 50, "to_km": 20, "by": "ferry"}]}}, "road"),
    "a surface of nothing": ({"road": {"surfaces": [{"from_km": 20, "to_km": 20, "surface": "gravel"}]}}, "road"),
    "an unknown surface": ({"road": {"surfaces": [{"from_km": 1, "to_km": 2, "surface": "lava"}]}}, "surface"),
    "a thirteenth month": ({"road": {"stops": [ROAD["stops"][0] | {"dry_months": [13]}]}}, "dry_months"),
    "an eighth weekday": ({"road": {"stops": [ROAD["stops"][0] | {"closed_weekdays": [7]}]}}, "closed_weekdays"),
    "a shop open past midnight": ({"road": {"stops": [ROAD["stops"][0] | {"closes_h": 25}]}}, "closes_h"),
    "odds of nothing": ({"road": {"odds": 0}}, "odds"),
    "pauses shorter than riding": ({"road": {"pause_factor": 0.5}}, "pause_factor"),
    "a station nowhere": ({"road": {"stations": [{"id": "a", "name": "A", "months": [{"mean_max_c": 20, "mean_min_c": 9}] * 12}]}}, "stations"),
    "a station with eleven months": ({"road": {"stations": [{"id": "a", "name": "A", "at_km": 1, "months": []}]}}, "months"),
    "two stops of one name tag": ({"road": {"stops": ROAD["stops"] * 2}}, ""),
    "an unknown field": ({"road": {"weathr": []}}, "weathr"),
    "a load of more than there is": ({"load": {"placements": [{"thing_id": "tent", "carrier_id": "left", "count": 5}]}}, ""),
    "a date that is none": ({"start_date": "2027-02-30"}, "start_date"),
    "no riders at all": ({"riders": []}, "rider"),
}  # fmt: skip


@pytest.mark.parametrize("case", BAD_CHANGES)
def test_a_bad_change_is_refused_whole(case, client, path):
    part, where = BAD_CHANGES[case]
    answer = client.patch(path, json=changed(**part, name="Half written"))
    assert answer.status_code == 422, case
    assert answer.mimetype == "application/problem+json"
    assert where in json.dumps(answer.json)
    assert answer.json["detail"]
    assert "Traceback" not in answer.text
    now = client.get(path).json["tour"]
    assert (now["revision"], now["sheet"]["name"]) == (1, "Small")


REQUESTS = [
    ("get", "/api/tours/none", 404), ("get", "/api/nothing", 404), ("post", "/api/tours", 422), ("put", "/api/tours", 405),
    ("delete", "/api/tours/00000000-0000-0000-0000-000000000000/1", 404),
]  # fmt: skip


@pytest.mark.parametrize(("method", "address", "status"), REQUESTS)
def test_what_cannot_be_done_is_a_problem_document(method, address, status, client):
    answer = getattr(client, method)(address)
    assert answer.status_code == status
    assert answer.mimetype == "application/problem+json"
    assert answer.json["status"] == status
    assert answer.json["title"]


@pytest.mark.parametrize(
    "body", ["", "{", "[]", "null", '{"revision": 1e400}', '{"revision": "NaN", "what": "x"}', '{"what": "x"}']
)
def test_bodies_that_are_no_change(body, client, path):
    answer = client.patch(path, data=body, content_type="application/json")
    assert answer.status_code == 422
    assert answer.mimetype == "application/problem+json"


@pytest.mark.parametrize("place", ["track", "stations", "pace"])
def test_an_upload_without_a_file_or_with_too_much_is_refused(place, client, path):
    assert client.post(f"{path}/{place}", data={"revision": "1"}, content_type="multipart/form-data").status_code == 422
    heavy = {"file": (io.BytesIO(b" " * (41 * 1024 * 1024)), "heavy.gpx"), "revision": "1"}
    answer = client.post(f"{path}/{place}", data=heavy, content_type="multipart/form-data")
    assert answer.status_code in (413, 422)
    assert answer.json["mend"]


def test_a_problem_names_the_newer_state(client, path):
    assert client.patch(path, json=changed(name="First")).status_code == 200
    late = client.patch(path, json=changed(name="Second"))
    assert late.status_code == 409
    assert late.json["current_revision"] == 2
    assert client.get(path).json["tour"]["sheet"]["name"] == "First"
