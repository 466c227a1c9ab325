"""What is refused is not kept: over every route a change that cannot be valid, or cannot be worked out, leaves the tour as it
was, readable, and able to be removed."""

import io
import json
import time

import pytest

from omnifer.core.model.tour import Tour
from omnifer.formats.bundle import write_bundle
from tests.api.test_api import upload
from tests.conftest import RIDER, pannier_bike, small_tour, thing
from tests.formats.test_gpx import LINE, gpx

MONTHS = "month;max;min\n" + "\n".join(f"{n};{10 + n};{n}" for n in range(1, 13))


@pytest.fixture
def path(tours) -> str:
    return f"/api/tours/{tours.create(small_tour(thing('tent', 2, 8))).id}"


def stands(client, path: str, revision: int) -> None:
    """The tour is as a revision left it, can be read, and can be removed."""
    assert client.get(path).json["tour"]["revision"] == revision
    assert client.delete(f"{path}/{revision}").status_code == 204
    assert client.get(path).status_code == 404


def test_more_places_than_can_be_kept(client, path):
    extra = "".join(f'<wpt lat="45.01" lon="7.0"><name>W{n}</name></wpt>' for n in range(3100))
    refused = upload(client, f"{path}/track", gpx(*LINE, extra=extra), revision="1")
    assert (refused.status_code, refused.json["where"]) == (422, "road.stops")
    assert refused.json["detail"] == "there are 3100, at most 3000 can be kept"
    stands(client, path, 1)


def test_two_lists_that_are_too_long_together(client, path):
    text = "km;name\n" + "\n".join(f"{n / 100};Stop {n}" for n in range(1600))
    assert client.post(f"{path}/stops/import", json={"revision": 1, "text": text}).status_code == 200
    refused = client.post(f"{path}/stops/import", json={"revision": 2, "text": text})
    assert refused.status_code == 422
    assert "3200" in refused.json["detail"]
    stands(client, path, 2)


def test_one_station_too_many(client, tours):
    months = [{"mean_max_c": 20, "mean_min_c": 10}] * 12
    full = small_tour().model_dump(mode="json")
    full["road"]["stations"] = [{"id": f"s{n}", "name": f"S{n}", "at_km": n, "months": months} for n in range(200)]
    path = f"/api/tours/{tours.create(Tour.model_validate(full)).id}"
    assert upload(client, f"{path}/stations", MONTHS.encode(), revision="1", at_km="3", name="One more").status_code == 422
    stands(client, path, 1)


def test_a_bundle_whose_road_has_no_length_or_too_much(client):
    document = json.loads(write_bundle(small_tour()))
    for lat, lon in (([45.0, 45.0], [7.0, 7.0]), ([45.0, -45.0] * 20, [7.0, -170.0] * 20)):
        document["tour"]["track"] = {"lat_deg": lat, "lon_deg": lon, "elevation_m": [None] * len(lat)}
        refused = upload(client, "/api/tours/bundle", json.dumps(document).encode())
        assert refused.status_code == 422
        assert "nothing was kept" in refused.json["mend"]
    assert client.get("/api/tours").json["tours"] == []


@pytest.mark.parametrize("what", ["track that jumps", "typed days"])
def test_a_road_longer_than_roads_are_is_refused_at_once(client, path, what):
    """Before anything is laid out for every 25 m of it: 41 points across the world took 54 s and 3 GB."""
    began = time.process_time()
    if what == "typed days":
        days = [{"distance_km": 500}] * 400
        refused = client.patch(path, json={"revision": 1, "what": "far", "road": {"typed_days": days}})
    else:
        points = [(60.0 if n % 2 else -60.0, -170.0 + 8 * n, 1) for n in range(41)]
        refused = upload(client, f"{path}/track", gpx(*points), revision="1")
    assert refused.status_code == 422
    assert "km long, at most 50,000 km" in refused.json["detail"]
    assert time.process_time() - began < 5
    stands(client, path, 1)


@pytest.mark.parametrize("cell", ["9" * 40_000, "3" * 40_000 + "x", "1 " * 20_000, "1.1" * 13_000, "g" * 40_000])
def test_a_cell_without_end_is_a_refused_row_at_once(client, path, cell):
    text = f"name;mass g;volume l\nTent;{cell};8\nMug;80;0,4\n"
    began = time.process_time()
    preview = client.post(f"{path}/kit/preview", json={"text": text})
    assert preview.status_code == 200
    assert [t["name"] for t in preview.json["things"]] == ["Mug"]
    assert "too long for an amount" in preview.json["problems"][0]["what"]
    assert time.process_time() - began < 2


@pytest.mark.parametrize("text", ['name;mass\n"Tent;2\n' + "x" * 140_000, ";;;\n;;;\n", "name;mass\rTent;2\r"])
def test_odd_sheets_are_answered_in_words(client, path, text):
    for route in ("kit", "stops"):
        assert client.post(f"{path}/{route}/preview", json={"text": text}).status_code in (200, 422)


def test_what_rides_in_a_thing_is_not_torn_out_of_it(client, tours):
    pot, stove = thing("pot", 0.4, 3), thing("stove", 0.3, 1, inside="pot")
    path = f"/api/tours/{tours.create(small_tour(pot, stove)).id}"
    apart = {"placements": [{"thing_id": "pot", "carrier_id": "left"}, {"thing_id": "stove", "carrier_id": "right"}]}
    refused = client.patch(path, json={"revision": 1, "what": "apart", "load": apart})
    assert refused.status_code == 422
    assert "take it out of there first" in refused.json["detail"]
    stands(client, path, 1)


def test_a_state_that_cannot_be_read_says_so_and_can_be_saved_left_and_removed(client, tours, path):
    assert client.patch(path, json={"revision": 1, "what": "rename", "name": "B"}).status_code == 200
    with tours._connection() as connection:
        connection.execute("UPDATE tour_state SET version = 99 WHERE what = 'rename'")
    said = client.get(path)
    assert (said.status_code, said.json["title"]) == (422, "Kept, but not readable")
    saved = json.loads(client.get(f"{path}/bundle.json").data)
    assert (saved["version"], saved["tour"]["name"]) == (99, "B")
    assert client.patch(path, json={"revision": 2, "what": "rename", "name": "C"}).status_code == 422
    back = client.post(f"{path}/step", json={"revision": said.json["current_revision"], "step": "undo"})
    assert back.json["tour"]["sheet"]["name"] == "Small"
    stands(client, path, 3)


def test_riders_change_and_those_who_leave_take_their_bikes(client, tours):
    ben = RIDER.model_copy(update={"id": "ben", "name": "Ben"})
    second = pannier_bike(id="second", rider_id="ben", supports=[], carriers=[])
    tour = small_tour(thing("tent"), thing("novel", rider_id="ben"), bikes=(pannier_bike(), second), riders=(RIDER, ben))
    path = f"/api/tours/{tours.create(tour).id}"
    heavier = [RIDER.model_copy(update={"name": "Ada L.", "body_mass_kg": 99}).model_dump(mode="json")]
    sheet = client.patch(path, json={"revision": 1, "what": "riders", "name": "Way", "riders": heavier}).json["tour"]["sheet"]
    assert (sheet["name"], [r["body_mass_kg"] for r in sheet["riders"]]) == ("Way", [99])
    assert [b["id"] for b in sheet["rig"]["bikes"]] == [pannier_bike().id]
    assert [t["rider_id"] for t in sheet["kit"]] == [None, None]
    assert client.patch(path, json={"revision": 2, "what": "nobody", "riders": []}).status_code == 422
    stands(client, path, 2)


def test_a_load_searched_while_another_window_wrote_is_kept_beside_it(client, path):
    assert client.patch(path, json={"revision": 1, "what": "date", "start_date": "2027-06-01"}).status_code == 200
    found = client.post(f"{path}/proposal", json={"revision": 1, "effort": 0, "rounds": 0}).json["answer"]["tour"]["sheet"]
    assert found["start_date"] == "2027-06-01"
    assert found["load"]["placements"]


def test_an_upload_of_nothing(client, path):
    assert client.post(f"{path}/track", data={"revision": "1", "file": (io.BytesIO(b""), "")}).status_code == 422
    stands(client, path, 1)
