"""Bad input of all kinds, as (what it is, method, path after the tour's, what is sent); each is refused in words or understood."""

import io
import json
from collections.abc import Iterator
from typing import Any, NamedTuple
from urllib.parse import quote

from omnifer.core.model.tour import VERSION
from tests.conftest import RIDER, small_tour, thing
from tests.formats.test_gpx import LINE, gpx
from tests.formats.test_recorders import BAD as RECORDERS

HUGE = "1" + "0" * 400
CHARACTERS = {
    "NUL": "a\0b", "bell": "a\ab", "escape": "a\x1b[31mb", "a vertical tab": "a\vb", "a lone surrogate": "a\ud800b",
    "a right-to-left override": "a\u202eb", "a noncharacter": "a\uffffb", "a line break": "a\nb", "a carriage return": "a\rb",
    "delete": "a\x7fb", "C1": "a\x85b", "only spaces": "   ", "nothing": "", "an emoji": "🏕️", "a formula": "=1+1", "markup": "<b>&amp;",
}  # fmt: skip
NUMBERS: dict[str, Any] = {
    "a huge integer": 10**400, "a negative": -1, "a truth": True, "a word": "ten", "a superscript": "²", "null": None, "a list": [1],
    "an object": {"a": 1}, "beyond 64 bits": 2**63, "beyond 32 bits": 2**31, "a fraction": 1.5, "a tiny number": 5e-324,
    "an Arabic digit": "٣", "a sign": "+1", "an underscore": "1_0",
}  # fmt: skip
DATES = {
    "30 February": "2027-02-30", "month 13": "2027-13-01", "year 0": "0000-01-01", "year 10000": "10000-01-01", "a word": "soon",
    "a number": 20270101, "a time too": "2027-05-01T10:00:60Z", "nothing": "", "other digits": "٢٠٢٧-٠٥-٠١", "far off": "9999-12-31",
}  # fmt: skip
BODIES = {
    "no JSON": b"{", "an empty body": b"", "null": b"null", "a list": b"[]", "bytes": b"\xff\xfe\x00", "NaN": b'{"revision": NaN}',
    "infinity": b'{"revision": 1e999}', "nested deep": b"[" * 100_000, "UTF-16": '{"revision": 1}'.encode("utf-16"),
    "a huge number": b'{"revision": %b}' % HUGE.encode(), "a key twice": b'{"revision": 1, "revision": 2, "what": "x"}',
    "an escaped surrogate": b'{"revision": 1, "what": "\\ud800"}', "a byte-order mark": b'\xef\xbb\xbf{"revision": 1, "what": "x"}',
}  # fmt: skip
SHEETS = {
    "only carriage returns": "name;kg\rtent;2\rpot;1\r", "an open quote": 'name;kg\n"tent;2\npot;1', "a long cell": f"name;kg\n{'x' * 140_000};2",
    "a long quoted cell": f'name;kg\n"{"x" * 140_000}";2', "only semicolons": ";;;;\n;;;;\n", "NUL": "name;kg\nte\0nt;2", "one word": "tent",
    "control characters": "name;kg\nte\x1bnt;2\npo\at;1", "a lone surrogate": "name;kg\nte\ud800nt;2", "nothing": "", "spaces": "  \n \t ",
    "formulas": "name;kg\n=HYPERLINK(1);2\n@SUM(1);1", "a huge number": f"name;kg\ntent;{HUGE}", "infinity": "name;kg\ntent;inf\npot;nan",
    "a superscript": "name;kg\ntent;²", "many columns": "name" + ";x" * 20_000 + "\ntent", "a short row": "km;name;water\n1;Mill\n2", "a row of one cell": "name;kg;km\ntent\n3",
    "many rows": "name;kg\n" + "a;1\n" * 20_000,
    "headings twice": "name;name;kg;kg\na;b;1;2", "quotes in quotes": 'name;kg\n"a""b"""";1', "mixed ends": "name;kg\r\na;1\rb;2\nc;3",
    "a date that is none": "km;name;opens\n1;Mill;2027-02-30", "second 60": "km;name;opens\n1;Mill;10:00:60", "years": "km;name;closed\n1;a;99999-1-1",
    "an open role": "name;kg;does\ntent;2;burner power_w=", "an odd role": "name;kg;does\ntent;2;=;==", "an odd place": "name;kg;where\na;1;posted km=²",
}  # fmt: skip
TRACKS = {
    "nothing": b"", "spaces": b"   ", "no XML": b"hello", "HTML": b"<html></html>", "cut off": gpx(*LINE)[:-20], "a list": b"[]", "an object": b"{}",
    "an unknown encoding": gpx(*LINE).replace(b"UTF-8", b"klingon"), "a wrong encoding": gpx(*LINE).replace(b"Way", "Küste".encode()).replace(b"UTF-8", b"ascii"),
    "UTF-16 in name only": gpx(*LINE).replace(b"UTF-8", b"UTF-16"), "UTF-32": gpx(*LINE).decode().replace("UTF-8", "UTF-32").encode("utf-32"),
    "a document type": b"<?xml version='1.0'?><!DOCTYPE g [<!ENTITY a 'b'>]>" + gpx(*LINE).partition(b"?>")[2], "NUL": gpx(*LINE).replace(b"<trk>", b"<trk>\0"),
    "a control character": gpx(*LINE).replace(b"Way", b"a&#1;"), "one point": gpx(LINE[0]), "no points": gpx(),
    "positions that are none": gpx(*LINE).replace(b'lat="4', b'lat="9999'), "words": gpx(*LINE).replace(b'lat="4', b'lat="north'),
    "infinity": gpx(*LINE).replace(b'lat="4', b'lat="inf'), "empty segments": gpx(*LINE).replace(b"<trkseg>", b"<trkseg></trkseg>" * 5000 + b"<trkseg>"),
    "an unbound prefix": gpx(*LINE).replace(b"</trkpt>", b"<extensions><x:y>1</x:y></extensions></trkpt>"),
    "depth": b"<gpx>" + b"<a>" * 500, "GeoJSON of nothing": b'{"type": "FeatureCollection", "features": []}', "a point": b'{"type": "Point", "coordinates": [1, 2]}',
    "GeoJSON of words": b'{"type": "LineString", "coordinates": [["a", "b"], [1, 2]]}', "GeoJSON far off": b'{"type": "LineString", "coordinates": [[1e9, 1e9], [2, 2]]}',
    "GeoJSON of nulls": b'{"type": "Feature", "geometry": null}', "GeoJSON, deep": b'{"type": "GeometryCollection", "geometries": ' + b"[" * 5000,
    "GeoJSON, a huge number": b'{"type": "LineString", "coordinates": [[%b, 1], [2, 2]]}' % HUGE.encode(), "GeoJSON, NaN": b'{"type": "LineString", "coordinates": [[NaN, 1], [2, 2]]}',
    "GeoJSON, objects": b'{"type": "LineString", "coordinates": {"a": 1}}', "GeoJSON, heights": b'{"type": "LineString", "coordinates": [[1, 2, "x"], [2, 2, null]]}',
    "saw-tooth heights": b'{"type": "LineString", "coordinates": [%b]}' % b",".join(b"[8, 4%d.%02d, %d]" % (k // 100, k % 100, 10**10 * (k % 2)) for k in range(300)),
    "many attributes": gpx(*LINE).replace(b"<trk>", b"<trk " + b" ".join(b'a%d="1"' % k for k in range(300)) + b">"),
    "an encoding of several bytes": gpx(*LINE).replace(b"UTF-8", b"shift_jis"), "an encoding that is none": gpx(*LINE).replace(b"UTF-8", b"rot13"),
    "a ZIP": b"PK\x03\x04" + bytes(range(256)), "a picture": b"\x89PNG\r\n\x1a\n" + bytes(200),
}  # fmt: skip
TRACKS |= {f"recorder: {what}": content for what, (content, _) in RECORDERS.items() if "bomb" not in what}
MAPS = {
    "words": b"hello", "a head and nothing": b"\0\0\0\x0d\n\x09OSMHeader", "no length": b"\xff" * 40, "a ZIP": b"PK\x03\x04" + bytes(range(256)),
    "junk in a blob": b"\0\0\0\x0d\n\x09OSMHeader\x18\x04" + bytes(4), "too long a blob": b"\0\0\0\x11\n\x09OSMHeader\x18\xff\xff\xff\x7f" + bytes(40),
    "an empty map": b"<osm version='0.6'/>", "no end": b"<osm version='0.6'><node id='1'", "entities": b"<osm version='0.6'><!DOCTYPE a [<!ENTITY a 'b'>]></osm>",
    "a place nowhere": b"<osm version='0.6'><node id='1' lat='946' lon='8'/></osm>", "no number": b"<osm version='0.6'><node id='x' lat='46' lon='8'/></osm>",
    "a way of nothing": b"<osm version='0.6'><way id='1'><nd ref='7'/><tag k='highway' v='track'/></way></osm>",
    "odd words": "<osm version='0.6'><node id='1' lat='46.5' lon='8'><tag k='shop' v='bakery'/><tag k='name' v='\u202e\u200b'/><tag k='opening_hours' v='Mo-Fr 99:00-\U0001f600'/></node></osm>".encode(),
    "a large number": b"<osm version='0.6'><node id='99999999999999999999' lat='46.5' lon='8'><tag k='shop' v='bakery'/></node></osm>",
    "people": b"<osm version='0.6'><node id='1' lat='46.5' lon='8'><tag k='place' v='city'/><tag k='name' v='A'/><tag k='population' v='9999999999999999'/></node></osm>",
}  # fmt: skip
RELIEFS = {
    "nothing": b"",
    "words": b"hello",
    "a TIFF of junk": b"II*\0" + b"\xff" * 300,
    "half a TIFF": b"MM\0*\0\0\0\x08",
    "two bytes": b"\0\1",
    "a tile without a name": bytes(2 * 1201 * 1201),
}
STATIONS = {
    "nothing": b"", "words": b"hello\nworld", "NUL": b"month;max;min\n" + b"1;\0;2\n" * 12, "a short year": b"month;max;min\n1;2;3", "epw": b"LOCATION,X\n" + b"1,2,3\n" * 20,
    "tmy3": b"1,2\nDate (MM/DD/YYYY),Time\n02/30/2027,24:60\n", "30 February": b"DATE,TMAX,TMIN\n" + b"2021-02-30,1,2\n" * 1200, "no figures": b"DATE,TMAX,TMIN\n" + b"2021-02-03,x,y\n" * 1200,
    "huge": b"month;max;min\n" + b"1;%b;2\n" % HUGE.encode() * 12, "a long cell": b"month;max;min\n" + b"x" * 140_000 + b";1;2\n", "open quote": b'month;max;min\n"1;2;3\n',
    "daily, a long cell": b"DATE,TMAX,TMIN\n2021-02-03," + b"9" * 140_000 + b",1\n", "daily, NUL": b"DATE,TMAX,TMIN\n2021-02-0\0,1,2\n", "semicolons": b";;;\n;;;",
}  # fmt: skip
RIDES = {
    "hour 24": "2027-05-01T24:00:00Z", "minute 60": "2027-05-01T10:60:00Z", "second 60": "2027-05-01T10:00:60Z", "30 February": "2027-02-30T10:00:00Z", "hour 25": "2027-05-01T25:00:00Z", "year 0": "0000-05-01T10:00:00Z",
    "words": "noon", "other digits": "٢٠٢٧-٠٥-٠١T10:00:00Z", "nothing": "",
}  # fmt: skip


class Input(NamedTuple):
    what: str
    method: str
    path: str
    sent: dict[str, Any]


def inputs() -> Iterator[Input]:
    """All of them; `{tour}` stands for the address of a tour."""
    yield from _characters()
    yield from _numbers_and_dates()
    for what, body in BODIES.items():
        for method, path in (("patch", "{tour}"), ("post", "/api/tours"), ("put", "{tour}/packed"), ("post", "{tour}/proposal")):
            yield Input(f"{what} to {path}", method, path, {"data": body, "content_type": "application/json"})
    for what, text in SHEETS.items():
        for path in ("kit/preview", "stops/preview"):
            yield Input(f"sheet: {what} to {path}", "post", f"{{tour}}/{path}", {"json": {"text": text}})
        for path in ("kit/import", "stops/import"):
            yield Input(f"sheet taken: {what} by {path}", "post", f"{{tour}}/{path}", {"json": {"text": text, "revision": 1}})
    for what, content in TRACKS.items():
        yield _upload(f"track: {what}", "{tour}/track", content, revision="1")
        yield _upload(f"track of the diary: {what}", "{tour}/diary/track", content)
        yield _upload(f"ride: {what}", "{tour}/pace", content)
    for what, content in MAPS.items():
        yield _upload(f"map: {what}", "{tour}/map", content)
    for what, content in RELIEFS.items():
        yield _upload(f"heights: {what}", "{tour}/track/heights", content, revision="1")
    for what, content in STATIONS.items():
        yield _upload(f"station: {what}", "{tour}/stations", content, revision="1", name="S", at_km="1")
    for what, time in RIDES.items():
        content = gpx(*LINE).replace(b"</trkpt>", f"<time>{time}</time></trkpt>".encode())
        yield _upload(f"ride at: {what}", "{tour}/pace", content)
    for what, number in NUMBERS.items():
        yield _upload(f"revision: {what}", "{tour}/track", gpx(*LINE), revision=str(number))
        yield _upload(f"kilometre: {what}", "{tour}/stations", b"month;max;min\n", revision="1", name="S", at_km=str(number))
    yield from _bundles()
    yield from _diaries()
    yield from _addresses()


def _upload(what: str, path: str, content: bytes, **form: str) -> Input:
    # A name with a NUL would make a field of it, and nothing would reach a reader.
    data = form | {"file": (io.BytesIO(content), "a file\u202e.gpx")}
    return Input(what, "post", path, {"data": data, "content_type": "multipart/form-data"})


def _characters() -> Iterator[Input]:
    for what, text in CHARACTERS.items():
        for field, value in (
            ("name", text), ("what", text), ("money", text), ("own_values", {text: 1}), ("kit", [{"id": "a", "name": text, "mass_kg": 1, "volume_l": 1}]),
            ("riders", [RIDER.model_dump() | {"name": text}]), ("road", {"stops": [{"id": "s", "name": text, "at_km": 1, "note": text}]}),
            ("road", {"zones": [{"from_km": 0, "zone": text}]}), ("set_aside", [{"key": text, "reason": text}]), ("kit", [{"id": text, "name": "a", "mass_kg": 1, "volume_l": 1}]),
        ):  # fmt: skip
            sent = json.dumps({"revision": 1, "what": "Try"} | {field: value})
            yield Input(f"{what} in {field}", "patch", "{tour}", {"data": sent, "content_type": "application/json"})
        for path in (
            "/api/library?find={}",
            "/api/library?kit={}",
            "/api/places?called={}",
            "/api/climate?lat=45&lon=7&name={}",
            "{{tour}}/places?things={}",
            "{{tour}}/mends?finding={}",
            "{{tour}}/things/tent/why?carrier={}",
        ):
            yield Input(f"{what} in {path}", "get", path.format(quote(text, errors="replace")), {})


def _numbers_and_dates() -> Iterator[Input]:
    for what, number in NUMBERS.items():
        for change in (
            {"revision": number}, {"road": {"odds": number}}, {"road": {"typed_days": [{"distance_km": number}]}}, {"own_values": {"dry_camp_l": number}},
            {"kit": [{"id": "a", "name": "a", "mass_kg": number, "volume_l": 1, "count": number}]}, {"riders": [RIDER.model_dump() | {"age_years": number}]},
        ):  # fmt: skip
            sent = json.dumps({"revision": 1, "what": "Try"} | change)
            yield Input(f"{what} as {next(iter(change))}", "patch", "{tour}", {"data": sent, "content_type": "application/json"})
    for what, date in DATES.items():
        yield Input(f"date: {what}", "patch", "{tour}", {"json": {"revision": 1, "what": "Try", "start_date": date}})
        yield Input(f"date tried: {what}", "post", "{tour}/trial", {"json": {"start_date": date}})


def _bundles() -> Iterator[Input]:
    good = {"format": "omnifer-tour", "version": VERSION, "tour": small_tour(thing("tent")).model_dump(mode="json")}
    for what, version in NUMBERS.items():
        yield _upload(f"bundle of version: {what}", "/api/tours/bundle", json.dumps(good | {"version": version}).encode())
    track = {"lat_deg": [1, 2], "lon_deg": [1, 2], "elevation_m": [1, 2]}
    for what, part in {
        "raw markup": {"extensions": {"0": "</extensions></trkpt><script/>"}}, "an odd point": {"extensions": {"x": "a"}}, "a far point": {"extensions": {"99": "<a/>"}},
        "a mark": {"extensions": {"0": "unread-0-here"}}, "no heights": {"elevation_m": []}, "lists of other lengths": {"lat_deg": [1]},
        "an odd part": {"parts": [{"first": 99, "name": "a"}]}, "poles": {"lat_deg": [90, -90]}, "NaN": {"lat_deg": [1, "NaN"]}, "one point": {"lat_deg": [1], "lon_deg": [1], "elevation_m": [1]},
        "the same point": {"lat_deg": [1, 1], "lon_deg": [1, 1]},
    }.items():  # fmt: skip
        tour = good["tour"] | {"track": track | part, "road": {}}
        yield _upload(f"bundle: {what}", "/api/tours/bundle", json.dumps(good | {"tour": tour}).encode())
    for what, content in {
        "cut off": b'{"format"',
        "a list": b"[]",
        "deep": b'{"format": ' + b"[" * 100_000,
        "bytes": b"\xff\xfe",
        "nothing": b"",
    }.items():
        yield _upload(f"bundle: {what}", "/api/tours/bundle", content)


def _diaries() -> Iterator[Input]:
    """Entries one after the other, each followed by a look at what it came to."""
    entry = {"phone": "a", "number": 1, "at": "2027-05-01T10:00:00Z"}
    rows = {
        "food before setting out": [{"verb": "ate", "about": "food", "amount": 1, "at": "2027-04-01T10:00:00Z"}, {"verb": "set_out", "km": 0}],
        "a weight beyond all": [{"verb": "weighed", "about": "touring", "word": "whole", "amount": 1, "readings_kg": [1e308]}],
        "an amount beyond all": [{"verb": "used", "about": "food", "amount": 1e300}], "far ahead": [{"verb": "here", "km": 1e7}],
        "long ago": [{"verb": "set_out", "at": "1970-01-01T00:00:00Z", "km": 0}, {"verb": "here", "at": "2199-12-31T00:00:00Z", "km": 3}],
        "nothing burnt": [{"verb": "set_out", "km": 0}, {"verb": "used", "about": "fuel", "amount": 0}, {"verb": "ate", "about": "food", "amount": 0}],
    }  # fmt: skip
    for n, (what, told) in enumerate(rows.items()):
        entries = [
            {**entry, "id": f"00000000-0000-4000-8000-{n:06d}{k:06d}", "number": n * 10 + k + 1} | one
            for k, one in enumerate(told)
        ]
        yield Input(f"diary: {what}", "post", "{tour}/diary", {"json": {"entries": entries}})
        for path in ("diary", "diary/course", "debrief", "pack", "weighin", "diary.csv"):
            yield Input(f"{path} after {what}", "get", f"{{tour}}/{path}", {})


def _addresses() -> Iterator[Input]:
    for what in (
        "%00",
        "..%2f..",
        "x" * 5000,
        "%ff",
        "%F0%9F%8F%95",
        "00000000-0000-0000-0000-000000000000",
        "²",
        "'--",
        "{urn:uuid}",
    ):
        for method, path in (
            ("get", "/api/tours/{}"),
            ("delete", "/api/tours/{}/1"),
            ("get", "/api/library/{}/picture"),
            ("post", "/api/tours/{}/restore"),
        ):
            yield Input(f"{method} {path} of {what[:20]}", method, path.format(what), {})
        for path in ("things/{}/price", "assumptions/{}", "outlook/{}", "things/{}/why"):
            yield Input(f"{path} of {what[:20]}", "get", f"{{tour}}/{path.format(what)}", {})
    for number in ("99999999999999999999", "-1", "1.5", "0"):
        yield Input(f"delete at {number}", "delete", f"{{tour}}/{number}", {})
        yield Input(f"outlook of day {number}", "get", f"{{tour}}/outlook/{number}", {})
        yield Input(f"library from {number}", "get", f"/api/library?first={number}", {})
