"""The road over the web: joining, shaping, sheets of stops, stations, the learned pace, and everything that goes out."""

import io
import threading

import pytest
from werkzeug.serving import make_server

from omnifer.core.model.road import Road
from omnifer.core.road.profile import from_track
from omnifer.demo.country import demo_track
from omnifer.devices import PATHS
from omnifer.devices.services import create_services
from omnifer.devices.weather_service import create_service
from omnifer.formats.gpx import write_gpx
from omnifer.formats.tracks import trim
from omnifer.jobs.queue import Inline
from omnifer.outside.services import services_of
from tests.conftest import small_tour, thing
from tests.core.test_road import ridden, stop, straight
from tests.formats.test_gpx import LINE, gpx


def upload(client, path, *contents, **fields):
    files = [(io.BytesIO(content), f"{n}.gpx") for n, content in enumerate(contents)]
    return client.post(path, data={"file": files, **fields}, content_type="multipart/form-data")


def test_files_are_joined_in_the_order_of_their_names_and_at_the_end(client, tours):
    path = f"/api/tours/{tours.create(small_tour(thing('tent'))).id}"
    south, north = gpx(*LINE), gpx((45.03, 7.01, 200.0), (45.04, 7.01, 200.0))
    whole = upload(client, f"{path}/track", south, north, revision="1").json
    assert whole["assessment"]["road"]["length_km"] == pytest.approx(4.6, abs=0.2)
    longer = upload(client, f"{path}/track", gpx((45.05, 7.01, 1.0), (45.06, 7.01, 1.0)), revision="2", after="yes").json
    assert longer["assessment"]["road"]["length_km"] == pytest.approx(6.9, abs=0.3)
    far = upload(client, f"{path}/track", south, gpx((48.0, 7.0, 1.0), (48.1, 7.0, 1.0)), revision="3").json
    assert any("Mark a ferry or train" in r for r in far["remarks"])


def test_a_track_is_turned_and_trimmed_with_its_stops(client, tours):
    path = f"/api/tours/{tours.create(straight(100, (stop(20, water='reliable'), stop(90)))).id}"
    turned = client.post(f"{path}/track/shape", json={"revision": 1, "shape": "reverse"}).json
    assert [s["at_km"] for s in turned["tour"]["sheet"]["road"]["stops"]] == [
        pytest.approx(10, abs=0.1),
        pytest.approx(80, abs=0.1),
    ]
    cut = client.post(f"{path}/track/shape", json={"revision": 2, "shape": "trim", "from_km": 50, "to_km": 95}).json
    assert cut["assessment"]["road"]["length_km"] == pytest.approx(45, abs=0.5)
    assert [s["name"] for s in cut["tour"]["sheet"]["road"]["stops"]] == ["Place 20"]
    back = client.post(f"{path}/step", json={"revision": 3, "step": "undo"}).json
    assert back["assessment"]["road"]["length_km"] == pytest.approx(100, abs=0.2)
    short = client.post(f"{path}/track/shape", json={"revision": 4, "shape": "trim", "from_km": 50, "to_km": 50.01})
    assert short.status_code == 422
    assert "fewer than two points" in short.json["detail"]


@pytest.fixture
def stand_ins(app):
    """Services that know the invented country, asked by the application."""
    server = make_server("127.0.0.1", 0, create_services(), threaded=True)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    settings = {name: f"http://127.0.0.1:{server.port}{path}" for name, path in PATHS.items()}
    app.extensions["errands"] = Inline(services_of(settings))
    yield
    server.shutdown()


def in_the_country(to_km, **changed):
    """A tour over the begin of the sample's road, with nothing of it known but the line."""
    return small_tour(thing("tent"), track=trim(demo_track(), 0, to_km), road=Road()).model_copy(update=changed)


def test_what_the_map_service_has_is_offered_and_taken(stand_ins, client, tours):
    path = f"/api/tours/{tours.create(in_the_country(140)).id}"
    found = client.post(f"{path}/map/asked").json
    names = {one["name"]: one for one in found["stops"]}
    assert {"Tamsen Quay", "Brask", "Sandle Bay", "Orrick", "Teveny"} <= names.keys()
    assert names["Orrick"]["stop"]["closed_weekdays"] == [6]  # open from Monday to Saturday, as the map writes it
    assert found["credit"] == "Invented: the country of the sample."
    road = client.get(path).json["tour"]["sheet"]["road"] | {"stops": [one["stop"] for one in found["stops"]]}
    kept = client.patch(path, json={"revision": 1, "what": "Take the map", "road": road}).json
    assert [gap["to_name"] for gap in kept["assessment"]["gaps"] if gap["supply"] == "water"][:2] == ["Brask", "Sandle Bay"]
    assert client.post(f"{path}/map/asked").json["stops"] == []
    assert upload(client, f"{path}/map", b"").json["detail"] == "The file is empty"
    nowhere = f"/api/tours/{tours.create(small_tour()).id}"
    assert client.post(f"{nowhere}/map/asked").json["detail"] == "This road lies nowhere"


def test_a_silent_map_service_is_said_and_a_file_does_without(client, tours):
    path = f"/api/tours/{tours.create(small_tour(track=straight(60, ()).track, road=Road())).id}"
    refused = client.post(f"{path}/map/asked")
    assert (refused.status_code, refused.json["detail"]) == (502, "No map service is set up")
    middle = from_track(straight(60, ()).track).position_at(30)
    node = f'<node id="5" lat="{middle[0]}" lon="{middle[1]}"><tag k="amenity" v="drinking_water"/></node>'
    found = upload(client, f"{path}/map", f'<osm version="0.6">{node}</osm>'.encode()).json
    assert [(one["at_km"], one["stop"]["mapped"]["ids"]) for one in found["stops"]] == [(pytest.approx(30, abs=0.1), ["n5"])]


def test_a_track_without_heights_is_given_them(stand_ins, client, tours):
    whole = in_the_country(60)
    bare = whole.model_copy(update={"track": whole.track.model_copy(update={"elevation_m": (None,) * len(whole.track.lat_deg)})})
    path = f"/api/tours/{tours.create(bare).id}"
    known = client.get(f"/api/tours/{tours.create(whole).id}").json["assessment"]["road"]
    given = client.post(f"{path}/track/heights/asked", json={"revision": 1}).json
    assert given["assessment"]["road"]["ascent_m"] == pytest.approx(known["ascent_m"], rel=0.15)
    again = client.post(f"{path}/track/heights/asked", json={"revision": 2})
    assert again.json["detail"] == "Every point of the track has a height"
    back = client.post(f"{path}/step", json={"revision": 2, "step": "undo"}).json
    assert not back["assessment"]["road"]["has_heights"]
    tile = (io.BytesIO(b"\0\x64" * 1201 * 1201), "N37W036.hgt")
    data = {"file": tile, "revision": "3", "anew": "yes"}
    flat = client.post(f"{path}/track/heights", data=data, content_type="multipart/form-data").json
    assert (flat["assessment"]["road"]["highest_m"], flat["assessment"]["road"]["ascent_m"]) == (100, 0)


def test_a_road_without_a_track_cannot_be_turned_or_sent_out(client, tours):
    path = f"/api/tours/{tours.create(small_tour()).id}"
    assert client.post(f"{path}/track/shape", json={"revision": 1, "shape": "reverse"}).status_code == 422
    for name in ("road.gpx", "road.geojson"):
        assert client.get(f"{path}/{name}").status_code == 422
    assert client.get(f"{path}/days.ics").status_code == 200


def test_stops_come_as_a_sheet_and_go_out_as_one(client, tours):
    path = f"/api/tours/{tours.create(straight(100, (stop(20),))).id}"
    text = "km;name;shop;closed\n30;Mill;full;sun\n40;Inn;basic;\nx;Bad;;\n"
    seen = client.post(f"{path}/stops/preview", json={"text": text}).json
    assert (len(seen["stops"]), seen["problems"][0]["row"]) == (2, 4)
    assert len(client.get(path).json["tour"]["sheet"]["road"]["stops"]) == 1
    taken = client.post(f"{path}/stops/import", json={"revision": 1, "text": text, "replace": False}).json
    assert [s["name"] for s in taken["tour"]["sheet"]["road"]["stops"]] == ["Place 20", "Mill", "Inn"]
    stale = client.post(f"{path}/stops/import", json={"revision": 1, "text": text, "replace": True})
    # What was seen is replaced, and what came meanwhile stays: here the same two.
    assert [s["name"] for s in stale.json["tour"]["sheet"]["road"]["stops"]] == ["Mill", "Inn"]
    out = client.get(f"{path}/stops.csv")
    assert out.data.decode().splitlines()[1].startswith("30;Mill;")


def test_a_station_moves_the_weather(client, tours):
    path = f"/api/tours/{tours.create(straight(100)).id}"
    months = b"max;min\n" + b"31;17\n" * 12
    nowhere = upload(client, f"{path}/stations", months, revision="1", name="Mill")
    assert nowhere.status_code == 422
    assert "kilometre" in nowhere.json["mend"]
    found = upload(client, f"{path}/stations", months, revision="1", name="Mill", at_km="10").json
    assert found["assessment"]["climate"]["source"] == "stations"
    assert found["assessment"]["days"][0]["mean_max_c"] == pytest.approx(31, abs=0.2)
    assert "as high as the road" in found["remarks"][-1]
    lower = upload(client, f"{path}/stations", months, revision="1", name="Mill", at_km="10", elevation_m="0")
    assert lower.status_code == 409, "both windows changed the road"
    bad = upload(client, f"{path}/stations", b"nonsense", revision="2", at_km="10")
    assert bad.status_code == 422
    assert upload(client, f"{path}/stations", months, revision="2", at_km="ten").status_code == 422


def test_pace_is_learned_from_a_recording_and_nothing_is_taken(client, tours):
    path = f"/api/tours/{tours.create(straight(100)).id}"
    track, seconds, _ = ridden(110, (0.0, 0.03, -0.02, 0.01), pauses=2)
    text = write_gpx("Ride", track, [], [])
    points = "".join(
        f'<trkpt lat="{a}" lon="{b}"><ele>{h}</ele><time>2027-05-01T{int(s) // 3600 + 8:02d}:{int(s) // 60 % 60:02d}:{int(s) % 60:02d}Z</time></trkpt>'
        for a, b, h, s in zip(track.lat_deg, track.lon_deg, track.elevation_m, seconds, strict=True)
    )
    content = text.replace("</gpx>", f"<trk><trkseg>{points}</trkseg></trk></gpx>").encode()
    found = upload(client, f"{path}/pace", content, rider="ada")
    assert found.status_code == 200
    assert 60 < found.json["power_w"] < 160
    assert found.json["pause_factor"] > 1.02
    assert client.get(path).json["tour"]["revision"] == 1
    assert upload(client, f"{path}/pace", gpx(*LINE)).status_code == 422


def test_everything_goes_out_as_files(client, tours):
    path = f"/api/tours/{tours.create(straight(100, (stop(20, shop='full', closed_weekdays=(0,)),))).id}"
    for name, media, words in (
        ("road.gpx", "application/gpx+xml", b"Day 1"), ("road.geojson", "application/geo+json", b"LineString"),
        ("days.ics", "text/calendar", b"BEGIN:VEVENT"), ("stops.csv", "text/csv", b"mon"), ("bundle.json", "application/json", b"omnifer-tour"),
    ):  # fmt: skip
        answer = client.get(f"{path}/{name}")
        assert answer.status_code == 200
        assert answer.mimetype == media
        assert words in answer.data
        assert "attachment" in answer.headers["Content-Disposition"]


def test_an_outlook_is_told_beside_the_plan_and_kept_for_a_silent_hour(app, client, tours, sample):
    """The stand-in serves; then it is gone, and what it told before is shown as old."""
    tour_id = tours.create(sample).id
    silent = client.get(f"/api/tours/{tour_id}/outlook/4").json
    assert (silent["days"], silent["stale"], silent["trouble"]) == ([], False, "No weather service is set up")
    server = make_server("127.0.0.1", 0, create_service(3))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    app.extensions["weather"].address = f"http://127.0.0.1:{server.port}"
    told = client.get(f"/api/tours/{tour_id}/outlook/4").json
    assert [day["number"] for day in told["days"]] == [4, 5, 6, 7, 8]
    assert not told["trouble"]
    days = client.get(f"/api/tours/{tour_id}").json["assessment"]["days"]
    for day in told["days"]:
        planned = days[day["number"] - 1]
        assert (day["date"], day["planned_low_c"]) == (planned["date"], planned["night_low_c"])
        assert day["colder"] == (day["low_c"] < planned["night_low_c"])
    server.shutdown()
    server.server_close()
    old = client.get(f"/api/tours/{tour_id}/outlook/4").json
    assert (old["days"], old["told_at"], old["stale"]) == (told["days"], told["told_at"], True)
    assert old["trouble"] == "The weather service cannot be reached"
    assert client.get(f"/api/tours/{tour_id}/outlook/999").status_code == 422


def test_a_bare_track_has_nights_and_places_and_they_become_stops(client, tours):
    """From Vienna to its woods, as GeoNames and the ERA5 grid have them; no network is asked."""
    path = f"/api/tours/{tours.create(small_tour(thing('tent'))).id}"
    track = gpx((48.21, 16.37, 170.0), (48.06, 16.13, 320.0), (47.80, 15.60, 700.0), (47.26, 11.39, 574.0))
    told = upload(client, f"{path}/track", track, revision="1").json
    assert told["assessment"]["climate"]["source"] == "grid"
    assert told["assessment"]["climate"]["offered"][0]["name"] == "Vienna"
    night = told["assessment"]["days"][0]
    assert 0 < night["night_around_k"] < 12
    assert night["night_past"]
    offered = client.get(f"{path}/stops/offered").json["stops"]
    assert offered[0]["stop"]["name"] == "Vienna"
    assert "a supermarket" in offered[0]["counted"]
    road = told["tour"]["sheet"]["road"] | {"stops": [one["stop"] for one in offered]}
    taken = client.patch(path, json={"revision": 2, "what": "Take them", "road": road}).json
    assert [gap for gap in taken["assessment"]["gaps"] if gap["supply"] == "food"]
    assert client.get(f"{path}/stops/offered").json["stops"] == []
    unsure = next(one for one in offered if one["stop"]["shop"] == "none" and one["perhaps"][0]["words"] == "a small shop")
    missed = [m for gap in taken["assessment"]["gaps"] if gap["supply"] == "food" for m in gap["missed"]]
    why = next(m["why"] for m in missed if m["stop_id"] == unsure["stop"]["id"])
    assert "not sure" in why["words"]  # a chance does not end a gap, and is told


def test_the_world_is_asked_by_name_and_by_place(client):
    found = client.get("/api/places?called=innsbr").json["places"]
    assert found[0]["name"] == "Innsbruck"
    assert 500 < found[0]["elevation_m"] < 2000
    assert client.get("/api/places?called=%00").json["places"] == []
    station = client.get("/api/climate?lat=47.26&lon=11.39&elevation=574&name=Innsbruck").json
    assert station["months"][6]["mean_max_c"] == pytest.approx(25.8, abs=3)  # published normal, from memory
    for asked in ("lat=91&lon=0&name=x", "lat=a&lon=0&name=x", "lon=0&name=x", "lat=40&lon=-40&name=x", "lat=nan&lon=0&name=x"):
        refused = client.get(f"/api/climate?{asked}")
        assert (refused.status_code, bool(refused.json["mend"])) == (422, True), asked


def test_a_season_is_told_and_an_empty_tour_has_none(client, tours):
    path = f"/api/tours/{tours.create(straight(100, (stop(20, water='reliable'),))).id}"
    starts = client.get(f"{path}/season").json["starts"]
    assert [start["way"] for start in starts] == ["as_planned"] * 26 + ["reversed"] * 26
    empty = f"/api/tours/{tours.create(small_tour(thing('tent'), road=Road())).id}"
    assert client.get(f"{empty}/season").json["starts"] == []
