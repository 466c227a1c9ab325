"""The web side: changes, refusals, guards, and the document that describes it."""

import gzip
import io
import json

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis.specs.openapi.checks import positive_data_acceptance

from omnifer.api.app import create_app
from omnifer.demo.sample import demo_tour
from omnifer.formats.bundle import write_bundle
from omnifer.store.tours import pack_track, unpack_track
from tests.conftest import pannier_bike, small_tour, thing, tours_of
from tests.formats.test_gpx import LINE, gpx


@pytest.fixture
def tour(app):
    bottle = thing("bottle", 0.1, 0.9, holds_water_l=0.75)
    return tours_of(app).create(small_tour(thing("tent", 2, 8), thing("pot"), bottle)).id


def upload(client, path, content, **fields):
    return client.post(path, data={"file": (io.BytesIO(content), "file"), **fields}, content_type="multipart/form-data")


def test_a_rider_starts_changes_undoes_and_redoes(client):
    person = {"id": "ada", "name": "Ada", "body_mass_kg": 70, "all_day_power_w": 110}
    made = client.post("/api/tours", json={"name": "Way", "start_date": "2027-05-01", "riders": [person]})
    assert made.status_code == 201
    path = f"/api/tours/{made.json['tour']['id']}"
    kit = [{"id": "tent", "name": "Tent", "mass_kg": 2, "volume_l": 8}]
    changed = client.patch(
        path, json={"revision": 1, "what": "Add", "kit": kit, "rig": {"bikes": [json.loads(pannier_bike().model_dump_json())]}}
    )
    assert changed.json["tour"]["revision"] == 2
    assert changed.json["assessment"]["shelf"] == {"tent": 1}
    proposed = client.post(f"{path}/proposal", json={"revision": 2, "effort": 0.1}).json
    assert proposed["proposal"]["complete"]
    undone = client.post(f"{path}/step", json={"revision": 3, "step": "undo"}).json["tour"]
    assert (undone["sheet"]["load"]["placements"], undone["can_redo"]) == ([], True)
    redone = client.post(f"{path}/step", json={"revision": 4, "step": "redo"}).json["tour"]
    assert len(redone["sheet"]["load"]["placements"]) == 1
    assert client.delete(f"{path}/99").status_code == 409
    assert client.delete(f"{path}/{client.get(path).json['tour']['revision']}").status_code == 204
    assert client.get(path).status_code == 404
    listed = client.get("/api/tours").json
    assert (listed["tours"], [line["name"] for line in listed["removed"]]) == ([], ["Way"])
    assert client.post(f"{path}/restore").status_code == 204
    assert client.post(f"{path}/restore").status_code == 404
    assert client.get(path).json["tour"]["revision"] == 5


def test_a_tour_is_copied_and_glanced_at(client, tours, sample, sample_road):
    path = f"/api/tours/{tours.create(sample).id}"
    seen = client.get(f"{path}/glance").json
    assert (seen["days"], seen["riders"], seen["lacks"], seen["on_shelf"]) == (42, ["Runa", "Edvin"], [], 6)
    assert seen["heaviest"]["name"] == "Kestin Wells"
    assert 12 <= seen["heaviest"]["at"] < 13, "leaving on day 13"
    assert (seen["skyline"]["at"][0], seen["skyline"]["at"][-1]) == (0, 42)
    weights = seen["weights"]
    summed = [sum(at) for at in zip(*(weights[f"{part}_kg"] for part in ("gear", "fuel", "food", "water")), strict=True)]
    assert max(summed) == pytest.approx(seen["heaviest_kg"], abs=0.02)
    assert weights["at"] == sorted(weights["at"])
    copied = client.post(f"{path}/copy")
    assert copied.status_code == 201
    assert copied.json["tour"]["sheet"]["name"] == f"{sample.name}, a copy"
    assert copied.json["tour"]["sheet"]["kit"] == client.get(path).json["tour"]["sheet"]["kit"]
    person = {"id": "ada", "name": "Ada", "body_mass_kg": 70, "all_day_power_w": 110}
    empty = client.post("/api/tours", json={"name": "Bare", "start_date": "2027-05-01", "riders": [person]}).json["tour"]["id"]
    bare = client.get(f"/api/tours/{empty}/glance").json
    assert (bare["days"], bare["skyline"], bare["lacks"]) == (0, None, ["road", "rig", "kit", "load"])


def test_two_windows_are_merged_where_they_touch_different_parts_and_else_the_later_is_refused(client, tour):
    path = f"/api/tours/{tour}"
    load = {"placements": [{"thing_id": "tent", "carrier_id": "left"}, {"thing_id": "pot", "carrier_id": "right"}]}
    assert client.patch(path, json={"revision": 1, "what": "mine", "name": "First"}).status_code == 200
    both = client.patch(path, json={"revision": 1, "what": "stow", "load": load}).json["tour"]
    assert (both["revision"], both["sheet"]["name"], len(both["sheet"]["load"]["placements"])) == (3, "First", 2)
    kit = [t for t in both["sheet"]["kit"] if t["id"] != "tent"]
    after = client.patch(path, json={"revision": 1, "what": "no tent", "kit": kit})
    assert [p["thing_id"] for p in after.json["tour"]["sheet"]["load"]["placements"]] == ["pot"]
    late = client.patch(path, json={"revision": 1, "what": "theirs", "name": "Second"})
    assert (late.status_code, late.json["current_revision"], late.mimetype) == (409, 4, "application/problem+json")
    assert client.get(path).json["tour"]["sheet"]["name"] == "First"


def test_things_that_go_take_their_placements_with_them(client, tour):
    path = f"/api/tours/{tour}"
    load = {"placements": [{"thing_id": "tent", "carrier_id": "left"}, {"thing_id": "pot", "carrier_id": "right"}]}
    before = client.patch(path, json={"revision": 1, "what": "stow", "load": load}).json["tour"]["sheet"]
    kit = [t for t in before["kit"] if t["id"] != "tent"]
    after = client.patch(path, json={"revision": 2, "what": "leave the tent", "kit": kit}).json["tour"]["sheet"]
    assert [p["thing_id"] for p in after["load"]["placements"]] == ["pot"]


@pytest.mark.parametrize(
    ("part", "where"),
    [
        ({"kit": [{"id": "x", "name": "X", "mass_kg": -1, "volume_l": 1}]}, "kit.0.mass_kg"),
        ({"kit": [{"id": "x", "name": "X", "mass_kg": "NaN", "volume_l": 1}]}, "kit.0.mass_kg"),
        ({"load": {"placements": [{"thing_id": "no", "carrier_id": "left"}]}}, ""),
        ({"start_date": "yesterday"}, "start_date"),
        ({"elephants": 3}, "elephants"),
    ],
)
def test_bad_changes_say_what_and_where_and_keep_nothing(client, tour, part, where):
    refused = client.patch(f"/api/tours/{tour}", json={"revision": 1, "what": "bad", **part})
    assert (refused.status_code, refused.mimetype) == (422, "application/problem+json")
    assert where in refused.json["where"]
    assert client.get(f"/api/tours/{tour}").json["tour"]["revision"] == 1


def test_a_track_brings_stops_and_leaves_those_there_were(client, tour):
    extra = '<wpt lat="45.01" lon="7.0"><name>Well</name></wpt><wpt lat="50" lon="9"><name>Far</name></wpt>'
    answer = upload(client, f"/api/tours/{tour}/track", gpx(*LINE, extra=extra), revision="1")
    assert [s["name"] for s in answer.json["tour"]["sheet"]["road"]["stops"]] == ["Well"]
    assert answer.json["tour"]["has_track"]
    assert any("1 places lie more than" in r for r in answer.json["remarks"])
    again = upload(client, f"/api/tours/{tour}/track", gpx(*LINE, extra=extra), revision="2")
    assert len(again.json["tour"]["sheet"]["road"]["stops"]) == 1
    out = client.get(f"/api/tours/{tour}/road.gpx")
    assert out.status_code == 200
    assert b"Well" in out.data


def test_bad_uploads(client, tour):
    path = f"/api/tours/{tour}/track"
    for content, fields in ((b"", {"revision": "1"}), (gpx(*LINE), {}), (gpx((45, 7, 1), (45, 7, 1)), {"revision": "1"})):
        assert upload(client, path, content, **fields).status_code == 422
    assert client.post(path, data={"revision": "1"}).status_code == 422
    large = upload(client, path, b"x" * 40 * 2**20, revision="1")
    assert large.status_code == 422
    assert "MB can be read" in large.json["detail"]
    assert upload(client, path, b"x" * 70 * 2**20, revision="1").status_code == 413


def test_a_sheet_is_previewed_and_then_taken(client, tour):
    text = "name;mass g;volume l\nTent;2100;8\nBad;;\nMug;80;0,4\n"
    preview = client.post(f"/api/tours/{tour}/kit/preview", json={"text": text}).json
    assert (len(preview["things"]), len(preview["problems"])) == (2, 1)
    assert client.get(f"/api/tours/{tour}").json["tour"]["revision"] == 1
    taken = client.post(f"/api/tours/{tour}/kit/import", json={"revision": 1, "text": text}).json["tour"]["sheet"]
    assert [t["id"] for t in taken["kit"]] == ["tent", "pot", "bottle", "mug"], "the tent is here already"
    again = client.post(f"/api/tours/{tour}/kit/import", json={"revision": 2, "text": text, "again": True}).json["tour"]["sheet"]
    assert [t["id"] for t in again["kit"]][4:] == ["tent-2", "mug-2"]
    column = [{"column": 1, "field": "mass", "unit": "oz"}]
    ounces = client.post(f"/api/tours/{tour}/kit/preview", json={"text": text, "columns": column}).json
    assert ounces["things"][0]["mass_kg"] == pytest.approx(2.268, abs=0.001)
    assert client.get(f"/api/tours/{tour}/kit.csv").data.decode().startswith("name,group")


def test_a_file_of_any_encoding_becomes_text(client):
    assert upload(client, "/api/sheets/text", "Mütze;70".encode("cp1252")).json["text"] == "Mütze;70"


def test_a_bundle_goes_out_and_comes_in(client, tour):
    bundle = client.get(f"/api/tours/{tour}/bundle.json").data
    copy = upload(client, "/api/tours/bundle", bundle)
    assert copy.status_code == 201
    assert client.get(f"/api/tours/{copy.json['tour']['id']}/bundle.json").data == bundle
    assert len(client.get("/api/tours").json["tours"]) == 2


def test_looking_at_places_and_trying_a_load_keeps_nothing(client, tour):
    found = client.get(f"/api/tours/{tour}/places?things=tent:1").json["places"]
    assert found[0]["fits"]
    assert client.get(f"/api/tours/{tour}/places?things=none:1").status_code == 404
    for nonsense in ("tent", "tent:0", "tent:x", "tent:-1"):
        refused = client.get(f"/api/tours/{tour}/places?things={nonsense}")
        assert refused.status_code == 422
        assert "tent:1,mug:2" in refused.json["mend"]
    load = {"placements": [{"thing_id": "tent", "carrier_id": "left"}]}
    tried = client.post(f"/api/tours/{tour}/trial", json={"load": load}).json
    assert tried["assessment"]["shelf"] == {"pot": 1, "bottle": 1}
    assert {"name": "things stay out", "quantity": "count", "before": 3, "after": 2} in tried["figures"]
    assert client.get(f"/api/tours/{tour}").json["tour"]["revision"] == 1


def test_guards(database):
    app = create_app(database, "test")
    client = app.test_client()
    assert client.post("/api/tours", json={}).status_code == 400
    outlived = client.post("/api/tours", json={}, headers={"X-CSRFToken": "of another session"})
    assert (outlived.status_code, outlived.json["again"]) == (400, True)
    token = client.get("/api/session").json["csrf_token"]
    assert client.post("/api/tours", json={}, headers={"X-CSRFToken": token}).status_code == 422
    assert client.get("/api/tours", environ_base={"REMOTE_ADDR": "192.0.2.7"}).status_code == 403
    assert client.get("/api/tours", headers={"Host": "evil.example"}).status_code == 400
    page = client.get("/tours/x/load")
    policy = page.headers["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "unsafe" not in policy
    nonce = policy.split("nonce-")[1].split("'")[0]
    assert nonce.encode() in page.data
    assert client.get("/assets/none.js").status_code == 404
    cookie = client.get("/api/session").headers.get("Set-Cookie", "SameSite=Strict; HttpOnly")
    assert "SameSite=Strict" in cookie
    assert "HttpOnly" in cookie
    app.extensions["omnifer"].pool.close()


def test_tracks_are_kept_as_they_came():
    track = demo_tour(load=False).track
    odd = track.model_copy(update={"elevation_m": (None, *track.elevation_m[1:])})
    assert unpack_track(pack_track(odd)) == odd


def test_the_whole_sample_goes_through_the_store(app, client, sample):
    tour_id = tours_of(app).create(sample).id
    answer = client.get(f"/api/tours/{tour_id}").json
    assert len(answer["assessment"]["days"]) > 30
    assert client.get(f"/api/tours/{tour_id}/bundle.json").data.decode() == write_bundle(sample)


def attacked(app, cases: int) -> int:
    """schemathesis sends what the OpenAPI document allows, and more; answers are as described, never a 500. How many it sent.

    References within a document (a bike naming its rider) are beyond JSON Schema, so valid-looking data may be refused.
    """
    sent = []
    serve = app.wsgi_app
    here = {"REMOTE_ADDR": "127.0.0.1", "HTTP_ACCEPT_ENCODING": "identity"}  # nothing unpacks what is sent packed
    app.wsgi_app = lambda environ, start: serve(environ | here, start)
    schema = schemathesis.openapi.from_wsgi("/api/openapi.json", app)
    for result in schema.get_all_operations():
        operation = result.ok()

        @settings(max_examples=cases, suppress_health_check=list(HealthCheck), deadline=None, database=None, derandomize=True)
        @given(case=operation.as_strategy())
        def attack(case):
            response = case.call()
            sent.append(response.status_code)
            assert response.status_code < 500
            case.validate_response(response, excluded_checks=[positive_data_acceptance])

        attack()
    return len(sent)


def test_the_document_describes_what_happens(app):
    assert attacked(app, 4) > 150


def test_what_is_packed_belongs_to_the_tour_and_to_no_revision(client, tour):
    path = f"/api/tours/{tour}/packed"
    assert client.get(path).json == {"ticked": []}
    for thing_id in ("tent", "pot", "tent"):
        client.put(path, json={"carrier_id": "left", "thing_id": thing_id, "packed": True})
    told = client.put(path, json={"carrier_id": "left", "thing_id": "pot", "packed": False}).json
    assert told == client.get(path).json == {"ticked": [{"carrier_id": "left", "thing_id": "tent"}]}
    assert client.get(f"/api/tours/{tour}").json["tour"]["revision"] == 1
    assert client.put(path, json={"carrier_id": "left", "packed": True}).status_code == 422
    assert client.delete(path).json == {"ticked": []}
    for call in (client.get, client.delete):
        assert call("/api/tours/00000000-0000-0000-0000-000000000000/packed").status_code == 404


def test_answers_and_screens_are_sent_packed(client, tour, tmp_path):
    plain = client.get(f"/api/tours/{tour}")
    packed = client.get(f"/api/tours/{tour}", headers={"Accept-Encoding": "gzip"})
    assert (plain.headers.get("Content-Encoding"), packed.headers["Content-Encoding"]) == (None, "gzip")
    assert gzip.decompress(packed.data) == plain.data
    assert len(packed.data) < len(plain.data) / 2
    (tmp_path / "assets").mkdir()
    (tmp_path / "assets" / "a.js").write_text("1")
    (tmp_path / "assets" / "a.js.gz").write_bytes(gzip.compress(b"1"))
    screens = create_app(None, built=tmp_path).test_client()
    sent = screens.get("/assets/a.js", headers={"Accept-Encoding": "gzip"})
    assert (gzip.decompress(sent.data), sent.mimetype) == (b"1", "text/javascript")
    assert screens.get("/assets/a.js").data == b"1"
