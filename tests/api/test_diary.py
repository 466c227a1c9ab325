"""Diary, weigh-in, checks and debrief over HTTP: what comes in is kept once, and what follows is told at once."""

import csv
import io
import json
import threading

import pytest
from PIL import Image

from omnifer.demo.ridden import ridden_diary, ridden_tour
from omnifer.devices.scale import Scale
from omnifer.devices.scale_service import ScaleServer
from omnifer.store.library import Library
from tests.conftest import tours_of
from tests.core.test_diary import KIT, STOWED, straight_tour, told
from tests.formats.test_gpx import gpx


def note(client, path, *received):
    entries = [json.loads(one.entry.model_dump_json()) for one in received]
    return client.post(f"{path}/diary", json={"entries": entries})


@pytest.fixture
def path(tours):
    return f"/api/tours/{tours.create(straight_tour(*KIT, load=STOWED)).id}"


def test_what_is_noted_is_kept_once_and_re_plans_the_rest(client, path):
    before = client.get(f"{path}/diary").json
    assert (before["entries"], before["now"]["begun"]) == ([], False)
    first = [
        told("set_out", hour=7, km=0),
        told("slept", hour=20, km=40),
        told("slept", day=2, hour=20, km=80),
        told("here", day=3, hour=9, km=85),
    ]
    for _ in range(3):
        answer = note(client, path, *first[::-1])
        assert answer.status_code == 200
        assert (len(answer.json["taken"]), answer.json["otherwise"]) == (4, [])
    after = client.get(f"{path}/diary").json
    assert [one["entry"]["verb"] for one in after["entries"]] == ["set_out", "slept", "slept", "here"]
    assert (after["now"]["day"], after["now"]["at_km"]) == (3, 85)
    assert after["now"]["behind_km"] > 30
    # The tour's own document and its undo know nothing of it.
    tour = client.get(path).json["tour"]
    assert (tour["revision"], tour["can_undo"], tour["sheet"]["road"]["nights"]) == (1, False, [])


def test_what_cannot_be_is_refused_in_words_and_nothing_of_its_batch_is_kept(client, path):
    good, bad = (json.loads(told("here", km=5).entry.model_dump_json()) for _ in range(2))
    answer = client.post(f"{path}/diary", json={"entries": [good, bad | {"verb": "sent_home"}]})
    assert answer.status_code == 422
    assert "say which thing" in answer.json["detail"]
    assert client.get(f"{path}/diary").json["entries"] == []
    for broken in (
        {"entries": []},
        {"entries": [good | {"at": "2027-05-01T10:00:00"}]},
        {"entries": [good | {"km": -1}]},
        {"entries": "x"},
    ):
        assert client.post(f"{path}/diary", json=broken).status_code == 422
    assert note(client, "/api/tours/00000000-0000-0000-0000-000000000000", told("note")).status_code == 404


def test_a_picture_is_kept_with_its_entry_without_its_place(client, path):
    one = told("note", note="The pass")
    note(client, path, one)
    image, out = Image.new("RGB", (1200, 900), "green"), io.BytesIO()
    exif = image.getexif()
    exif.get_ifd(0x8825)[1] = "N"
    exif[0x010F] = "Camera"
    image.save(out, "JPEG", exif=exif)
    address = f"{path}/diary/{one.entry.id}/picture"
    for _ in range(2):
        assert client.post(address, data={"file": (io.BytesIO(out.getvalue()), "a.jpg")}).status_code == 204
    kept = Image.open(io.BytesIO(client.get(address).data))
    assert dict(kept.getexif()) == {}
    assert max(kept.size) <= 480
    assert client.get(f"{path}/diary").json["entries"][0]["has_picture"]
    assert (
        client.post(
            f"{path}/diary/{told('note').entry.id}/picture", data={"file": (io.BytesIO(out.getvalue()), "a.jpg")}
        ).status_code
        == 404
    )


def test_the_diary_goes_out_as_a_sheet_that_runs_nothing(client, path):
    one = told("lost", about="chair", km=12, note="=HYPERLINK(1)", author="Ada")
    note(client, path, one, told("undo", hour=13, undoes=one.entry.id))
    rows = list(csv.DictReader(io.StringIO(client.get(f"{path}/diary.csv").text)))
    assert [rows[0][name] for name in ("what", "about", "km", "who", "undone")] == ["lost", "chair", "12", "Ada", "undone"]
    assert rows[0]["note"] == "'=HYPERLINK(1)"
    assert rows[1]["id"] == rows[0]["id"]


def test_a_ride_laid_on_the_road_tells_where_one_is(client, path):
    ride = gpx(*((46 + k * 0.0054, 8.0, 400) for k in range(200)))
    laid = client.post(f"{path}/diary/track", data={"file": (io.BytesIO(ride), "ride.gpx")})
    assert laid.status_code == 200
    assert laid.json["km"] == pytest.approx(199 * 0.6003, abs=0.4)
    elsewhere = client.post(f"{path}/diary/track", data={"file": (io.BytesIO(gpx((10, 8, 1), (10.2, 8, 1))), "ride.gpx")})
    assert (elsewhere.status_code, "does not end anywhere near" in elsewhere.json["detail"]) == (422, True)


def test_weighing_on_the_simulated_scale(app, client, path):
    answer = client.post(f"{path}/scale", json={"zero": True})
    assert (answer.status_code, answer.json["detail"]) == (422, "There is no scale")
    server = ScaleServer(0, Scale(noise_kg=0.0))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    app.extensions["scale"].port = server.server_address[1]
    assert client.post(f"{path}/scale", json={"key": "thing/chair"}).status_code == 204
    assert server.shared.scale.load_kg == pytest.approx(0.9, abs=0.05)
    assert client.post(f"{path}/scale", json={"key": "thing/nothing"}).status_code == 404
    events = iter(client.get("/api/scale/readings").response)
    hello, reading = next(events), next(events)
    assert b"event: scale" in hello
    assert b"event: reading" in reading
    server.shutdown()
    server.server_close()
    note(client, path, told("weighed", about="chair", word="thing", amount=0.96, readings_kg=(0.95, 0.96, 0.97)))
    line = next(one for one in client.get(f"{path}/weigh").json["lines"] if one["key"] == "thing/chair")
    assert (line["difference_kg"], line["told"]) == (pytest.approx(0.06), "to_explain")
    taken = client.post(f"{path}/weigh/take", json={"revision": 1, "key": "thing/chair"})
    assert taken.json["tour"]["sheet"]["kit"][0]["mass_kg"] == 0.96
    assert taken.json["tour"]["what"] == "Weighed: chair"
    assert client.post(f"{path}/weigh/take", json={"revision": 2, "key": "thing/none"}).status_code == 404
    page = client.get(f"{path}/pack").json
    assert {check["of"] for check in page["checks"]} == {"service", "trial", "again", "first_aid", "last"}


@pytest.fixture(scope="module")
def lately():
    tour = ridden_tour()
    return tour, ridden_diary(tour)


def test_six_weeks_teach_the_next_tour(app, client, tours, sample, lately):
    """The demo's second tour: what it learned, taken over, changes the forecast of the first; its verdicts reach the library."""
    ridden, diary = lately
    desk = app.extensions["omnifer"].desk_of("local rider")
    library: Library = desk.library
    chair = next(t for t in sample.kit if t.id == "folding-chair")
    owned = library.add([chair])[0]

    def linked(tour):
        return tuple(t.model_copy(update={"library_id": owned}) if t.id == "folding-chair" else t for t in tour.kit)

    old = tours.create(ridden.model_copy(update={"kit": linked(ridden)}))
    new = tours.create(sample.model_copy(update={"kit": linked(sample)}))
    desk.diary.add(old.id, diary)
    path = f"/api/tours/{old.id}"
    kept = client.post(f"{path}/library", json={"revision": 1, "carriers": ["runa-roll"]}).json["tour"]["sheet"]["rig"]
    roll = next(c["library_id"] for bike in kept["bikes"] for c in bike["carriers"] if c["id"] == "runa-roll")
    found = client.get(f"{path}/debrief?into={new.id}").json
    # Of six days with hands asleep up to the new gloves one came after; oil lasted as far as it was noted.
    (ache,) = found["aches"]
    assert (ache["where"], len(ache["days"]), ache["after_h"], ache["better"]) == ("hands", 7, 3.0, True)
    rates = {rate["key"]: rate for rate in found["rates"]}
    assert {
        "water",
        "food",
        "fuel",
        "power",
        "wet-wipes",
        "sun-cream",
        "punctures",
        "pads",
        "oil",
        "km_a_day",
        "sleep",
        "packing",
    } <= rates.keys()
    assert all(rate["low"] <= rate["mean"] <= rate["high"] for rate in rates.values())
    before = client.get(f"/api/tours/{new.id}").json["assessment"]

    def most(assessment, supply):
        return max(gap["need"] for gap in assessment["gaps"] if gap["supply"] == supply)

    for revision, key in ((1, "water"), (2, "food"), (3, "wet-wipes"), (4, "sleep")):
        answer = client.post(f"{path}/debrief/take", json={"into": new.id, "revision": revision, "key": key})
        assert answer.status_code == 200, answer.json
    after = client.get(f"/api/tours/{new.id}").json
    for supply in ("water", "food"):
        ratio = rates[supply]["mean"] / rates[supply]["assumed"]
        assert ratio > 1.02
        assert most(after["assessment"], supply) / most(before, supply) == pytest.approx(ratio, abs=0.04)
    assert after["tour"]["sheet"]["own_values"].keys() - {"water_width", "food_width"} == {
        "water_times",
        "food_times",
        "sleeps_colder_k",
    }
    again = {rate["key"]: rate["taken"] for rate in client.get(f"{path}/debrief?into={new.id}").json["rates"]}
    assert [again[key] for key in ("water", "food", "wet-wipes", "sleep", "fuel")] == [True, True, True, True, False]
    assert client.post(f"{path}/debrief/take", json={"into": new.id, "revision": 5, "key": "nothing"}).status_code == 404
    handed = client.post(f"{path}/debrief/hand").json["remarks"]
    assert any("2 things of the library" in remark for remark in handed)
    told_of = library.read(owned).thing
    assert told_of.unused_tours == chair.unused_tours + 1
    assert "leave it" in told_of.last_time
    assert "On Ebban Strand to Grey Stair, 41 days" in told_of.last_time
    own = library.read(roll).thing
    assert own.hung.leaks
    assert "let water in" in own.last_time
    none = client.post(f"/api/tours/{new.id}/choose", json={"revision": 5, "ids": [roll]}).json["tour"]["sheet"]["kit"]
    assert roll not in {t["library_id"] for t in none}
    there = next(t for t in tours_of(app).read(new.id).sheet.kit if t.id == "folding-chair")
    assert there.last_time == told_of.last_time
    history = client.get(f"{path}/diary").json["now"]["history"]
    assert len(history["weighings"]) == 4
    assert sum(step["kg"] for step in history["steps"]) < -2.5
    assert abs(sum(w["kg"] for w in history["weighings"] if w["day"] == 1) - history["start_kg"]) < 3
