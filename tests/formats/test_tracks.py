"""Tracks of every kind joined, turned and cut; stops, stations and calendars as files."""

import datetime as dt
import json

import icalendar
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.assess import assess
from omnifer.core.model.road import Stop, Track
from omnifer.core.road.profile import from_track
from omnifer.formats.geojson import write_geojson
from omnifer.formats.gpx import read_gpx, read_ride, write_gpx
from omnifer.formats.ics import write_ics
from omnifer.formats.problem import InputProblem
from omnifer.formats.stations import read_station
from omnifer.formats.stops_csv import read_stops_csv, write_stops_csv
from omnifer.formats.tracks import join, read_track, reverse, trim
from tests.formats.test_gpx import HEAD, LINE, gpx

COORDINATES = [[lon, lat, h] for lat, lon, h in LINE]


def geojson(geometry: object, **more: object) -> bytes:
    return json.dumps({"type": "Feature", "properties": {}, "geometry": geometry} | more).encode()


GOOD = {
    "line": geojson({"type": "LineString", "coordinates": COORDINATES}),
    "bare geometry": json.dumps({"type": "LineString", "coordinates": COORDINATES}).encode(),
    "two lines": geojson({"type": "MultiLineString", "coordinates": [COORDINATES[:2], COORDINATES[1:]]}),
    "collection": json.dumps({
        "type": "FeatureCollection",
        "features": [json.loads(geojson({"type": "LineString", "coordinates": COORDINATES})),
                     json.loads(geojson({"type": "Point", "coordinates": [7.0, 45.0]}, properties={"name": "Inn"}))],
    }).encode(),
    "heights missing": geojson({"type": "LineString", "coordinates": [c[:2] for c in COORDINATES]}),
    "a 0/0 island": geojson({"type": "LineString", "coordinates": [COORDINATES[0], [0, 0, 0], *COORDINATES[1:]]}),
    "a spike": geojson({"type": "LineString", "coordinates": [COORDINATES[0], [7.0, 45.005, 99999], *COORDINATES[1:]]}),
    "byte order mark": b"\xef\xbb\xbf" + geojson({"type": "LineString", "coordinates": COORDINATES}),
    "gpx all the same": gpx(*LINE),
    "two tracks": (HEAD + gpx(*LINE[:2]).decode().split("1/1\">")[1].replace("</gpx>", "") + gpx(*LINE[1:]).decode().split("1/1\">")[1]).encode(),
    "time going backwards": gpx(*LINE).replace(b"</ele>", b"</ele><time>2027-05-01T10:00:00Z</time>", 1),
    "a comment and a CDATA": gpx(*LINE).replace(b"<name>Way</name>", b"<!-- x --><name><![CDATA[W & y]]></name>"),
}  # fmt: skip


@pytest.mark.parametrize("case", GOOD)
def test_tracks_of_any_kind_are_read(case):
    found = read_track(GOOD[case])
    assert 2.2 < from_track(found.track).length_km < 2.8
    assert max((h for h in found.track.elevation_m if h is not None), default=0) < 300


BAD = {
    "no line": (geojson({"type": "Point", "coordinates": [7, 45]}), "no LineString"),
    "one point": (geojson({"type": "LineString", "coordinates": COORDINATES[:1]}), "no LineString"),
    "words for numbers": (geojson({"type": "LineString", "coordinates": [["a", "b"], ["c", "d"]]}), "no LineString"),
    "beyond the poles": (geojson({"type": "LineString", "coordinates": [[7, 95], [7, 96]]}), "no LineString"),
    "cut off": (GOOD["line"][:60], "not JSON"),
    "a list": (b"[1, 2]", "no LineString"),
    "nested without end": (b'{"type":"FeatureCollection","features":' * 3000, "not JSON"),
    "null": (geojson(None), "no LineString"),
    "coordinates that are a string": (geojson({"type": "LineString", "coordinates": "x"}), "no LineString"),
}


@pytest.mark.parametrize("case", BAD)
def test_what_is_no_track_is_refused_in_words(case):
    content, words = BAD[case]
    with pytest.raises(InputProblem, match=words):
        read_track(content)


def test_odd_places_of_the_world():
    """The dateline is a step of 22 km and not the way round; the pole is where all longitudes meet."""
    across = read_gpx(gpx((0.0, 179.9, 1), (0.0, -179.9, 1))).track
    assert from_track(across).length_km == pytest.approx(22.26, abs=0.02)
    assert abs(from_track(across).position_at(11.0)[1]) > 179.8
    pole = read_gpx(gpx((89.9, 0, 1), (89.9, 180, 1))).track
    assert from_track(pole).length_km < 500
    jump = read_gpx(gpx(*[(45 + i * 1e-4, 7.0, 200 + (10 if i == 30 else 0)) for i in range(60)])).track
    assert from_track(jump).elevation_m.max() < 206


def test_many_waypoints_at_one_place_are_kept_apart():
    extra = "".join(f'<wpt lat="45.01" lon="7.0"><name>P{i}</name><sym>Campground</sym></wpt>' for i in range(200))
    found = read_gpx(gpx(*LINE, extra=extra))
    assert len(found.waypoints) == 200
    assert found.waypoints[7].symbol == "Campground"


EXTENDED = gpx(*LINE).replace(
    b"<ele>210.0</ele>", b'<ele>210.0</ele><extensions><x:heart a="1 &amp; 2">140 &lt; 150</x:heart><y/></extensions>'
)


def test_extensions_go_out_as_they_came_in(sample, sample_road):
    found = read_gpx(EXTENDED.replace(b"<gpx ", b'<gpx xmlns:x="urn:x" '))
    assert found.track.extensions == {1: '<x:heart xmlns:x="urn:x" a="1 &amp; 2">140 &lt; 150</x:heart><y></y>'}
    day = assess(sample, sample_road).days[0].model_copy(update={"from_km": 0, "to_km": 3})
    out = write_gpx("Way", found.track, [day], [])
    assert '<extensions><x:heart xmlns:x="urn:x" a="1 &amp; 2">140 &lt; 150</x:heart><y></y></extensions>' in out
    assert "unread" not in out


def test_parts_that_do_not_join_are_named():
    far = read_gpx(gpx((46.0, 7.0, 1), (46.01, 7.0, 1)))
    joined = join([read_gpx(gpx(*LINE)), far])
    assert len(joined.track.parts) == 2
    assert joined.track.parts[1].first == 3
    assert any("straight lines join them" in r for r in joined.remarks)
    assert join([far]) is far


def test_a_crossing_drawn_as_one_line_is_asked_about():
    """Forty points a minute of arc apart, 1.84 km each, and half a degree more in the middle: 19 x 1.84 = 35 km, then 57 km."""
    lat = [n / 60 + (0.5 if n >= 20 else 0) for n in range(40)]
    points = "".join(f'<trkpt lat="{at}" lon="7"/>' for at in lat)
    found = read_gpx(f"<gpx><trk><trkseg>{points}</trkseg></trk></gpx>".encode())
    assert any("From km 35 on the track has a straight line of up to 57 km" in remark for remark in found.remarks)
    even = "".join(f'<trkpt lat="{n / 2}" lon="0"/>' for n in range(9))
    assert not any("straight line" in r for r in read_gpx(f"<gpx><trk><trkseg>{even}</trkseg></trk></gpx>".encode()).remarks)


@given(st.integers(2, 40), st.data())
def test_turned_twice_is_the_same_and_trimming_keeps_what_it_says(count, data):
    lat = np.linspace(45, 45.5, count)
    track = Track(
        name="Way", lat_deg=tuple(lat.tolist()), lon_deg=(7.0,) * count, elevation_m=tuple(range(count)),
        extensions={count // 2: "<a/>"},
    )  # fmt: skip
    assert reverse(reverse(track)) == track
    assert reverse(track).elevation_m == track.elevation_m[::-1]
    whole = from_track(track).length_km
    low = data.draw(st.floats(0, whole))
    high = data.draw(st.floats(low, whole))
    try:
        part = trim(track, low, high)
    except ValueError:
        return
    assert set(part.lat_deg) <= set(track.lat_deg)
    assert from_track(part).length_km <= high - low + 0.01
    for point, text in part.extensions.items():
        assert part.elevation_m[point] == count // 2
        assert text == "<a/>"


def test_parts_turn_with_the_track():
    track = join([read_gpx(gpx(*LINE)), read_gpx(gpx(*LINE[:2]))]).track
    turned = reverse(track)
    assert [p.first for p in turned.parts] == [0, 2]
    assert reverse(turned) == track


def test_geojson_out_and_in_again(sample, sample_road):
    days = assess(sample, sample_road).days
    place = (sample.road.stops[3], 37.0, -35.0)
    text = write_geojson(sample.track, days, [place])
    kinds = [f["geometry"]["type"] for f in json.loads(text)["features"]]
    assert kinds.count("LineString") == sum(not d.rest for d in days)
    found = read_track(text.encode())
    assert from_track(found.track).length_km == pytest.approx(sample_road.length_km, rel=0.002)
    assert found.waypoints[0].name == sample.road.stops[3].name


def test_times_of_a_ride():
    content = gpx(*LINE).replace(b"</ele>", b"</ele><time>2027-05-01T10:00:00Z</time>", 1)
    _, seconds = read_ride(content)
    assert np.isfinite(seconds).tolist() == [True, False, False]
    with pytest.raises(InputProblem, match="no recorded track"):
        read_ride((HEAD + "</gpx>").encode())


SHEETS = {
    "own": "km;name;water;shop\n12,5;Mill;reliable;full\n",
    "other words": "at,place,water,shop,shelter\n12.5,Mill,sure,supermarket,campsite\n",
    "tabs": "km\tname\twater\tshop\n12.5\tMill\tx\tyes\n",
    "blank lines": "\n\nkm;name;water;shop\n\n12,5;Mill;sure;full\n\n",
}


@pytest.mark.parametrize("case", SHEETS)
def test_sheets_of_stops_are_understood(case):
    found = read_stops_csv(SHEETS[case], set())
    assert [(s.at_km, s.name, s.water, s.shop) for s in found.stops] == [(12.5, "Mill", "reliable", "full")]
    assert found.problems == []


def test_rows_that_are_no_stops_are_named():
    text = (
        "km;name;water;opens;mood\nfar;Mill;sure;;\n10;Inn;perhaps;;\n20;;sure;;\n30;Well;sure;25:00;\n40;Good;sure;9:30;fine\n"
    )
    found = read_stops_csv(text, {"row-6"})
    assert [p.row for p in found.problems] == [2, 3, 4, 5]
    assert "'far' is not a number" in found.problems[0].what
    assert "not a time of day" in found.problems[3].what
    assert found.left_aside == ["mood"]
    assert [(s.name, s.opens_h, s.id) for s in found.stops] == [("Good", 9.5, "row-6-")]
    for bad, words in (("", "empty"), ("a;b\n1;2\n", "No columns")):
        with pytest.raises(InputProblem, match=words):
            read_stops_csv(bad, set())


stops = st.builds(
    Stop,
    id=st.just("s"),
    name=st.text("abc ÄÖ;,\"'", min_size=1, max_size=12).map(str.strip).filter(bool),
    at_km=st.integers(0, 3000).map(float),
    water=st.sampled_from(["reliable", "seasonal", "unsure", "none"]),
    dry_months=st.lists(st.integers(1, 12), unique=True, max_size=3).map(lambda m: tuple(sorted(m))),
    treat_water=st.booleans(),
    shop=st.sampled_from(["full", "basic", "snacks", "none"]),
    closed_weekdays=st.lists(st.integers(0, 6), unique=True, max_size=3).map(lambda d: tuple(sorted(d))),
    opens_h=st.none() | st.sampled_from([7.0, 8.5, 9.25]),
    closes_h=st.none() | st.sampled_from([12.0, 18.5]),
    closed_dates=st.lists(st.dates(dt.date(2027, 1, 1), dt.date(2028, 1, 1)), max_size=2).map(tuple),
    services=st.sampled_from([(), ("meals",), ("laundry", "plugs")]),
    fuels=st.sampled_from([(), ("gas",), ("gas", "petrol")]),
    bike_shop=st.sampled_from(["none", "basic", "full"]),
    shelter=st.sampled_from(["none", "wild", "site", "hut", "room"]),
)


@given(stops)
def test_stops_written_read_back_the_same(one):
    again = read_stops_csv(write_stops_csv((one,)), set())
    assert again.problems == []
    assert again.stops[0].model_copy(update={"id": "s"}) == one


def test_a_calendar_has_a_day_each(sample, sample_road):
    """Read back by icalendar itself."""
    found = assess(sample, sample_road)
    text = write_ics(sample.name, found.days, found.passings, sample.road.stops)
    events = icalendar.Calendar.from_ical(text).walk("VEVENT")
    assert len(events) == len(found.days)
    assert events[0]["dtstart"].dt == sample.start_date
    assert "Sun " in str(events[0]["description"])
    assert any("shut" in str(e["description"]) for e in events)
    assert any("rest" in str(e["summary"]) for e in events)


STATION_TROUBLE = {
    "empty": (b"", "empty"),
    "eleven months": (b"max;min\n" + b"20;10\n" * 11, "12 rows"),
    "no columns": (b"a;b\n" + b"20;10\n" * 12, "max"),
    "words": (b"max;min\n" + b"20;10\n" * 11 + b"hot;10\n", "not a number"),
    "too short a record": (b"DATE,TMAX,TMIN\n2001-01-01,10,1\n", "several whole years"),
    "no minima": (b"DATE,TMAX\n2001-01-01,10\n", "no column TMIN"),
    "dates in words": (b"DATE,TMAX,TMIN\nyesterday,10,1\n", "is no date"),
    "a broken year": (b"LOCATION,x,y\n1,2,3\n", "cannot be read"),
    "hotter than any place": (b"max;min\n" + b"200;10\n" * 12, "do not make sense"),
}


@pytest.mark.parametrize("case", STATION_TROUBLE)
def test_bad_station_records_are_refused_in_words(case):
    content, words = STATION_TROUBLE[case]
    with pytest.raises(InputProblem, match=words):
        read_station(content, "s", "S", 10)


def test_a_station_typed_as_months():
    text = "month;max;min;rain days;humidity;wind\n" + "".join(f"{m};{10 + m},5;{m};7;60;2,5\n" for m in range(1, 13))
    station, remarks = read_station(text.encode(), "s", "Mill", 40)
    assert station.months[0].mean_max_c == 11.5
    assert station.months[11].wind_ms == 2.5
    assert (station.at_km, station.elevation_m) == (40, None)
    assert ["as high as the road" in remark for remark in remarks] == [True]
    assert read_station(text.encode(), "s", "Mill", 40, 250)[0].elevation_m == 250


def test_a_station_pasted_in_another_language_names_what_it_leaves_aside():
    rows = "".join(f"{m};{m - 5};{10 + m} °C;7;3\n" for m in range(1, 13))
    text = f"Klima von Dorfheim;;;;\nMonat;Tief;Hoch (°C);Regentage;Sonnenstunden\n{rows}Jahr;2;16;84;\n"
    station, remarks = read_station(text.encode("cp1252"), "s", "Dorfheim", 10)
    assert (station.months[0].mean_min_c, station.months[0].mean_max_c, station.months[11].rain_days) == (-4, 11, 7)
    assert "Sonnenstunden" in remarks[0]
