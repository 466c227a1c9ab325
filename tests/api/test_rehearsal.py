"""The rehearsal over the interface: kept by what matters, refused in words, and nothing kept of what is only tried."""

import pytest

from omnifer.core.model.variant import Variant
from tests.api.test_diary import note
from tests.core.test_diary import KIT, STOWED, straight_tour, told
from tests.core.test_rehearsal import small


@pytest.fixture
def path(tours) -> str:
    tour = small(0)
    return f"/api/tours/{tours.create(tour.model_copy(update={'variants': (Variant(id='v', name='Other', rig=tour.rig),)})).id}"


def test_a_rehearsal_is_kept_until_the_tour_changes_in_what_matters(client, path):
    assert client.get(f"{path}/rehearsal").json["rehearsal"] is None
    kept = client.post(f"{path}/rehearsal", json={"plays": 200}).json
    assert kept["plays"] == 200
    assert client.get(f"{path}/rehearsal").json["rehearsal"] == kept
    assert client.patch(path, json={"revision": 1, "what": "Call it otherwise", "name": "Otherwise"}).status_code == 200
    assert client.get(f"{path}/rehearsal").json["rehearsal"] == kept
    client.patch(path, json={"revision": 2, "what": "Leave later", "start_date": "2027-06-01"})
    assert client.get(f"{path}/rehearsal").json["rehearsal"] is None


def test_a_play_is_the_one_that_was_counted(client, path):
    worst = client.post(f"{path}/rehearsal", json={"plays": 60}).json["told"][-1]
    play = client.post(f"{path}/rehearsal/play", json={"number": worst["number"]}).json
    assert play["told"]["wrong"] == worst["wrong"]
    assert play["told"]["days_late"] == worst["days_late"]


def test_plans_are_tried_and_nothing_is_kept(client, path):
    plan = client.post(f"{path}/rehearsal/risk", json={"supply": "water", "risk": 0.05, "plays": 60}).json
    assert {point["name"] for point in plan["plans"]} >= {"as it is planned", "no reserve"}
    assert client.post(f"{path}/rehearsal/spares", json={"plays": 60}).json["parts"]
    for other in ({"start_date": "2027-08-01"}, {"turned": True}, {"variant_id": "v"}, {"own_values": {"carry_factor": 2}}):
        compared = client.post(f"{path}/rehearsal/compare", json={"plays": 60, **other})
        assert (compared.status_code, compared.json["plays"]) == (200, 60), other
    assert client.get(path).json["tour"]["revision"] == 1


@pytest.mark.parametrize(
    ("what", "asked", "status"),
    [
        ("", {"plays": 3}, 422), ("", {"plays": 10**9}, 422), ("/play", {"number": -1}, 422), ("/risk", {"supply": "tea"}, 422),
        ("/risk", {"supply": "water", "risk": 0}, 422), ("/compare", {"variant_id": "none"}, 404),
        ("/compare", {"own_values": {"pace_width": -5}}, 422), ("/compare", {"own_values": {"no_such": 1}}, 422),
    ],
)  # fmt: skip
def test_what_cannot_be_played_is_refused_in_words(client, path, what, asked, status):
    refused = client.post(f"{path}/rehearsal{what}", json=asked)
    assert refused.status_code == status, refused.json
    assert refused.json["detail"]


def test_without_a_road_or_a_stove_it_says_what_is_missing(client, tours):
    bare = small(0).model_copy(update={"track": None})
    empty = f"/api/tours/{tours.create(bare.model_copy(update={'road': type(bare.road)()})).id}"
    refused = client.post(f"{empty}/rehearsal", json={})
    assert (refused.status_code, "road" in refused.json["detail"]) == (422, True)
    assert client.get(f"{empty}/rehearsal").json["rehearsal"] is None
    cold = small(0)
    cold = cold.model_copy(update={"kit": tuple(t for t in cold.kit if t.id not in ("stove", "canister"))})
    refused = client.post(f"/api/tours/{tours.create(cold).id}/rehearsal/risk", json={"supply": "fuel", "plays": 50})
    assert (refused.status_code, refused.json["detail"]) == (422, "This tour carries no fuel")


def test_under_way_the_rest_is_rehearsed(client, tours):
    path = f"/api/tours/{tours.create(straight_tour(*KIT, load=STOWED)).id}"
    note(client, path, told("set_out", hour=7, km=0), told("slept", hour=20, km=40), told("here", day=3, hour=9, km=85))
    rest = client.post(f"{path}/rehearsal", json={"plays": 60}).json
    assert min(gap["place"]["to_km"] for gap in rest["gaps"]) > 84
    assert rest["fan"][0]["low"] == rest["fan"][0]["high"]
    assert client.post(f"{path}/rehearsal/compare", json={"turned": True}).json["detail"] == "The tour is under way"
