"""Tracks as they come: read, or refused in words that say where and what to do."""

import gpxpy
import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.assess import assess
from omnifer.core.road.profile import from_track
from omnifer.formats.found import MOST_BYTES
from omnifer.formats.gpx import read_gpx, write_gpx
from omnifer.formats.problem import InputProblem

HEAD = '<?xml version="1.0" encoding="UTF-8"?><gpx version="1.1" creator="t" xmlns="http://www.topografix.com/GPX/1/1">'


def gpx(*points: tuple[float, float, float | None], extra: str = "", kind: str = "trk") -> bytes:
    inner = "".join(
        f'<{"trkpt" if kind == "trk" else "rtept"} lat="{a}" lon="{b}">{"" if h is None else f"<ele>{h}</ele>"}</{"trkpt" if kind == "trk" else "rtept"}>'
        for a, b, h in points
    )
    body = f"<trk><name>Way</name><trkseg>{inner}</trkseg></trk>" if kind == "trk" else f"<rte>{inner}</rte>"
    return (HEAD + extra + body + "</gpx>").encode()


LINE = [(45.0, 7.0, 200.0), (45.01, 7.0, 210.0), (45.02, 7.01, 205.0)]

REFUSED = {
    "empty": (b"", "empty"),
    "blank": (b"  \n ", "empty"),
    "not xml": (b"hello", "damaged"),
    "other xml": (b"<kml></kml>", "not a GPX file"),
    "truncated": (gpx(*LINE)[:-40], "breaks off"),
    "one point": (gpx(LINE[0]), "at least two"),
    "no points": ((HEAD + "</gpx>").encode(), "0 usable"),
    "only 0/0": (gpx((0, 0, 1), (0, 0, 2)), "0 usable"),
    "entity bomb": (
        b'<!DOCTYPE gpx [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]><gpx>&b;</gpx>',
        "document type",
    ),
    "outside entity": (b'<!DOCTYPE gpx SYSTEM "file:///etc/passwd"><gpx/>', "document type"),
    "too deep": ((HEAD + "<a>" * 60 + "</a>" * 60 + "</gpx>").encode(), "nested"),
    "too large": (b" " * (MOST_BYTES + 1), "MB can be read"),
}


@pytest.mark.parametrize("case", REFUSED)
def test_bad_files_are_refused_in_words(case):
    content, words = REFUSED[case]
    with pytest.raises(InputProblem, match=words):
        read_gpx(content)


ODD = {
    "no heights": gpx(*[(a, b, None) for a, b, _ in LINE]),
    "a 0/0 island": gpx(LINE[0], (0, 0, 0), *LINE[1:]),
    "a 9 km spike": gpx(LINE[0], (45.005, 7.0, 99999), *LINE[1:]),
    "heights in words": gpx(*LINE).replace(b"<ele>210.0", b"<ele>high"),
    "positions missing": gpx(*LINE, extra="").replace(b"<trkseg>", b'<trkseg><trkpt lat="x"/>'),
    "utf-16": gpx(*LINE).decode().replace("UTF-8", "UTF-16").encode("utf-16"),
    "byte order mark": b"\xef\xbb\xbf" + gpx(*LINE),
    "prefixed": gpx(*LINE).replace(b"<trk", b"<g:trk").replace(b"</trk", b"</g:trk").replace(b"xmlns=", b'xmlns:g="u" xmlns='),
    "route only": gpx(*LINE, kind="rte"),
    "twice the same point": gpx(LINE[0], LINE[0], *LINE),
    "version 1.0": gpx(*LINE).replace(b"1.1", b"1.0").replace(b"GPX/1/1", b"GPX/1/0"),
    "extensions": gpx(*LINE, extra="<extensions><x><ele>9</ele><name>no</name></x></extensions>"),
}


@pytest.mark.parametrize("case", ODD)
def test_odd_files_are_read(case):
    found = read_gpx(ODD[case])
    road = from_track(found.track)
    assert 2.2 < road.length_km < 2.8
    assert road.elevation_m.max() < 400 or not road.has_heights
    assert (
        case in ("no heights", "a 0/0 island", "a 9 km spike", "heights in words", "positions missing", "route only")
    ) == bool(found.remarks)


def test_waypoints_in_any_script():
    extra = '<wpt lat="45.01" lon="7.0"><name>Källa &amp; 水</name><desc>under the oak</desc></wpt><wpt lat="45.02" lon="7.01"/>'
    places = read_gpx(gpx(*LINE, extra=extra)).waypoints
    assert [(p.name, p.note) for p in places] == [("Källa & 水", "under the oak"), ("Unnamed place", "")]


@given(
    st.lists(
        st.tuples(st.floats(-80, 80), st.floats(-179, 179), st.one_of(st.none(), st.floats(-400, 8000))),
        min_size=2,
        max_size=30,
    )
)
def test_the_same_points_as_another_reader(points):
    """gpxpy 1.6.2 as the oracle."""
    content = gpx(*[p for p in points if p[:2] != (0, 0)] or LINE)
    theirs = [
        (p.latitude, p.longitude, p.elevation) for t in gpxpy.parse(content.decode()).tracks for s in t.segments for p in s.points
    ]
    if len(theirs) >= 2:
        track = read_gpx(content).track
        assert list(zip(track.lat_deg, track.lon_deg, track.elevation_m, strict=True)) == theirs


def test_out_and_in_again(sample, sample_road):
    days = assess(sample, sample_road).days
    places = [(s, *sample_road.position_at(s.at_km)) for s in sample.road.stops]
    again = read_gpx(write_gpx(sample.name, sample.track, days, places).encode())
    assert [w.name for w in again.waypoints] == [s.name for s in sample.road.stops]
    assert from_track(again.track).length_km == pytest.approx(sample_road.length_km, rel=1e-4)
    for waypoint, stop in zip(again.waypoints, sample.road.stops, strict=True):
        at_km, off_km = sample_road.nearest(waypoint.lat_deg, waypoint.lon_deg)
        assert (at_km, off_km) == pytest.approx((min(stop.at_km, sample_road.length_km), 0), abs=0.1)
