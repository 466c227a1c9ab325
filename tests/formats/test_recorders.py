"""FIT, TCX, KML and KMZ: what is read of each, and what is refused in words."""

import io
import math
import struct
import zipfile

import pytest

from omnifer.formats.found import MOST_BYTES
from omnifer.formats.problem import InputProblem
from omnifer.formats.tracks import kind_of, read_recording, read_track

WAY = ((45.0, 7.0, 200.0), (45.001, 7.001, 210.0), (45.002, 7.002, 205.5))
NOON = 1_809_172_800
"""2027-05-01 12:00:00 UTC, seconds since 1970."""
EPOCH = 631_065_600
"""FIT counts seconds from 1989-12-31; the published protocol."""


def crc(data: bytes) -> int:
    """CRC-16 of the published FIT protocol, its table of sixteen."""
    table = (
        0x0,
        0xCC01,
        0xD801,
        0x1400,
        0xF001,
        0x3C00,
        0x2800,
        0xE401,
        0xA001,
        0x6C00,
        0x7800,
        0xB401,
        0x5000,
        0x9C01,
        0x8801,
        0x4400,
    )
    value = 0
    for byte in data:
        for nibble in (byte & 15, byte >> 4):
            value = (value >> 4) & 0xFFF ^ table[value & 15] ^ table[nibble]
    return value


def fit(points=WAY, broken=False) -> bytes:
    """A FIT file by hand: a definition of records (message 20: time, place in semicircles, height in fifths of a metre from
    -500 m), then the records."""
    body = struct.pack("<BBBHB", 0x40, 0, 0, 20, 4) + bytes((253, 4, 0x86, 0, 4, 0x85, 1, 4, 0x85, 2, 2, 0x84))
    for n, (lat, lon, height) in enumerate(points):
        steps = [0x7FFFFFFF if of is None else round(of * 2**31 / 180) for of in (lat, lon)]
        body += struct.pack("<BIiiH", 0, NOON + 60 * n - EPOCH, *steps, round((height + 500) * 5))
    head = struct.pack("<BBHI4s", 14, 0x10, 2100, len(body), b".FIT")
    head += struct.pack("<H", crc(head))
    return head + body + struct.pack("<H", crc(head + body) ^ broken)


def tcx(points=WAY) -> bytes:
    def point(n, lat, lon, height):
        where = (
            ""
            if lat is None
            else f"<Position><LatitudeDegrees>{lat}</LatitudeDegrees><LongitudeDegrees>{lon}</LongitudeDegrees></Position>"
        )
        return f"<Trackpoint><Time>2027-05-01T12:{n:02}:00Z</Time>{where}<AltitudeMeters>{height}</AltitudeMeters></Trackpoint>"

    track = "".join(point(n, *of) for n, of in enumerate(points))
    place = ("<CoursePoint><Name>Well</Name><Position><LatitudeDegrees>45.001</LatitudeDegrees><LongitudeDegrees>7.001</LongitudeDegrees>"
             "</Position><PointType>Water</PointType><Notes>cold</Notes></CoursePoint>")  # fmt: skip
    return (f'<?xml version="1.0"?><TrainingCenterDatabase xmlns="x"><Courses><Course><Name>Up</Name><Track>{track}</Track>{place}'
            "</Course></Courses></TrainingCenterDatabase>").encode()  # fmt: skip


def kml(points=WAY, more="") -> bytes:
    line = " ".join(f"{lon},{lat},{height}" for lat, lon, height in points)
    return (f'<kml xmlns="http://www.opengis.net/kml/2.2"><Document><name>Up</name><Placemark><name>Way</name><LineString><coordinates>'
            f"{line}</coordinates></LineString></Placemark><Placemark><name>Well</name><description>cold</description><Point><coordinates>"
            f"7.001,45.001</coordinates></Point></Placemark>{more}</Document></kml>").encode()  # fmt: skip


def kmz(content: bytes, name="doc.kml") -> bytes:
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(name, content)
    return packed.getvalue()


FILES = {"fit": fit, "tcx": tcx, "kml": kml, "kmz": lambda points=WAY: kmz(kml(points))}


@pytest.mark.parametrize("kind", FILES)
def test_points_heights_and_places_are_read(kind):
    content = FILES[kind]()
    assert kind_of(content) == kind
    found = read_track(content)
    for axis, told in zip(("lat_deg", "lon_deg", "elevation_m"), zip(*WAY, strict=True), strict=True):
        assert getattr(found.track, axis) == pytest.approx(told, abs=0.11 if axis == "elevation_m" else 1e-6)
    if kind != "fit":
        assert found.track.name == "Up"
        assert [(w.name, w.lat_deg, w.note) for w in found.waypoints] == [("Well", 45.001, "cold")]


@pytest.mark.parametrize("kind", ["fit", "tcx"])
def test_a_recording_has_its_times_and_points_without_a_fix_are_left_out(kind):
    unfixed = ((None, None, 200.0), *WAY)
    track, seconds = read_recording(FILES[kind](unfixed))
    assert len(track.lat_deg) == 3
    assert seconds.tolist() == [NOON + 60, NOON + 120, NOON + 180]
    assert math.isnan(read_recording(kml())[1][0])


def test_recorded_tracks_and_several_lines_of_kml_are_parts():
    more = ('<Placemark><gx:Track xmlns:gx="g"><when>2027-05-01T12:00:00Z</when><when>2027-05-01T12:01:00Z</when>'
            "<gx:coord>7.003 45.003 0</gx:coord><gx:coord>7.004 45.004 0</gx:coord></gx:Track></Placemark>")  # fmt: skip
    found = read_track(kml(more=more))
    assert [part.first for part in found.track.parts] == [0, 3]
    assert read_recording(kml(more=more))[1][3:].tolist() == [NOON, NOON + 60]
    flat = read_track(kml([(lat, lon, 0) for lat, lon, _ in WAY]))
    assert flat.track.elevation_m == (None, None, None)
    assert any("no heights" in remark for remark in flat.remarks)


ENTITY = b'<!DOCTYPE a [<!ENTITY x "y">]>'
BAD = {
    "fit cut": (fit()[:-9], "damaged"),
    "fit sum wrong": (fit(broken=True), "damaged"),
    "fit head alone": (fit()[:14], "damaged"),
    "fit without points": (fit(()), "0 usable"),
    "tcx cut": (tcx()[:-40], "breaks off"),
    "tcx entities": (ENTITY + tcx()[21:], "document type"),
    "tcx without points": (b"<TrainingCenterDatabase/>", "0 usable"),
    "kml entities": (ENTITY + kml(), "document type"),
    "kml deep": (b"<kml>" + b"<Folder>" * 60 + b"</Folder>" * 60 + b"</kml>", "deep"),
    "kml of nonsense": (kml([("north", "x", "y"), (95, 7, 1), (45, 7, 1)]), "1 usable"),
    "kmz bomb": (kmz(b"<kml>" + b" " * (3 * MOST_BYTES)), "MB can be read"),
    "kmz without a document": (kmz(b"x", "readme.txt"), "no KML"),
    "kmz cut": (kmz(kml())[:-30], "damaged"),
}


@pytest.mark.parametrize("case", BAD)
def test_bad_files_are_refused_in_words(case):
    content, words = BAD[case]
    with pytest.raises(InputProblem, match=words) as refused:
        read_track(content)
    assert refused.value.mend or "usable" in words or "MB" in words
