"""What leaves is well-formed whatever came in: every export is read back by a reader that is not ours."""

import csv
import io
import json
import re
import xml.etree.ElementTree as ET

import jsonschema
import pyogrio
import pytest
import vobject

from omnifer.core.model.kit import Thing
from omnifer.core.model.road import Track
from omnifer.core.model.tour import Tour
from omnifer.formats.bundle import bundle_schema, read_bundle
from omnifer.formats.gpx import read_gpx
from tests.conftest import small_tour, tours_of
from tests.formats.test_gpx import LINE, gpx

NASTY = (
    "=HYPERLINK(1)", "+1", "-2+3", "@SUM(A1)", "'=x", "'", "''=y", "unread-1-here", "<b>&amp;</b>", "]]>", 'a "quoted" name', "a;b,c\td",
    "a\0\x01\x1b\ud800b", "line\r\nbreak", "Ünïcode 道 🏕️", "\\n BEGIN:VEVENT", "END:VCALENDAR", "{place}",
)  # fmt: skip
FORMULA = re.compile(r"[=+@\t\r]|-(?!\d+([.,]\d+)?$)")
EXTENSIONS = {
    0: '<a xmlns:x="urn:x" x:b="1"/>', 1: "</extensions></trkpt><trkpt lat='0' lon='0'><extensions>", 2: "<x:unbound/>", 3: "plain &amp; text", 4: "<open>",
    5: "<!DOCTYPE a><a/>", 6: "unread-3-here", 7: "\x01", 8: "</whole><whole>",
}  # fmt: skip


def nasty_tour() -> Tour:
    kit = [Thing(id=f"t{n}", name=name, mass_kg=0.1, volume_l=0.1, group=name[:60], because=name) for n, name in enumerate(NASTY)]
    stops = [{"id": f"s{n}", "name": name, "at_km": n / 10, "note": name, "shop": "basic"} for n, name in enumerate(NASTY)]
    size = 12
    track = Track(
        name="a",
        lat_deg=tuple(45 + n / 100 for n in range(size)),
        lon_deg=(7.0,) * size,
        elevation_m=(1.0,) * size,
        extensions=EXTENSIONS,
    )
    return small_tour(*kit, name=NASTY[0], road={"stops": stops}, track=track)


@pytest.fixture
def exported(app):
    client = app.test_client()
    path = f"/api/tours/{tours_of(app).create(nasty_tour()).id}"

    def read(name: str) -> bytes:
        answer = client.get(f"{path}/{name}")
        assert answer.status_code == 200
        return answer.data

    return read


def test_geographic_files_are_read_by_gdal(exported, tmp_path):
    text = exported("road.gpx")
    assert 'lat="0"' not in text.decode()
    root = ET.fromstring(text)
    where = {"g": "http://www.topografix.com/GPX/1/1"}
    assert len(root.findall(".//g:extensions", where)) == 3  # those that are XML of their own, or words
    points = root.findall(".//g:trkpt", where)
    (tmp_path / "road.gpx").write_bytes(text)
    layers = {name for name, _ in pyogrio.list_layers(tmp_path / "road.gpx")}
    assert {"waypoints", "track_points"} <= layers
    assert pyogrio.read_info(tmp_path / "road.gpx", layer="track_points", force_feature_count=True)["features"] == len(points)
    fields = pyogrio.raw.read(tmp_path / "road.gpx", layer="waypoints")
    names = list(fields[3][list(fields[0]["fields"]).index("name")])
    assert "unread-1-here" in names
    assert "<b>&amp;</b>" in names
    assert len(names) == len(NASTY)
    (tmp_path / "road.geojson").write_bytes(exported("road.geojson"))
    assert pyogrio.read_info(tmp_path / "road.geojson")["features"] > len(NASTY)


def test_the_calendar_is_read_by_vobject(exported):
    calendar = vobject.readOne(exported("days.ics").decode())
    days = calendar.vevent_list
    assert [day.summary.value[:5] for day in days] == [f"Day {n}" for n in range(1, len(days) + 1)]
    assert sum("BEGIN:VEVENT" in day.description.value for day in days) == 1  # as a name, not as an event


@pytest.mark.parametrize(("name", "delimiter"), [("kit.csv", ","), ("stops.csv", ";"), ("shopping.csv", ",")])
def test_no_cell_is_a_formula_and_it_reads_back_the_same(name, delimiter, exported, app):
    text = exported(name).decode()
    rows = list(csv.reader(io.StringIO(text), delimiter=delimiter))
    assert len({len(row) for row in rows}) == 1
    assert [cell for row in rows for cell in row if FORMULA.match(cell)] == []
    if name != "shopping.csv":
        client = app.test_client()
        again = f"/api/tours/{tours_of(app).create(small_tour()).id}/{name.removesuffix('.csv')}"
        found = client.post(f"{again}/preview", json={"text": text}).json
        was = nasty_tour()
        if name == "kit.csv":
            assert [(t["name"], t["group"]) for t in found["things"]] == [(t.name, t.group) for t in was.kit]
        else:
            assert [stop["name"] for stop in found["stops"]] == [stop.name for stop in was.road.stops]


def test_a_bundle_holds_to_its_schema_and_reads_back_the_same(exported):
    text = exported("bundle.json")
    jsonschema.validate(json.loads(text), bundle_schema())
    assert read_bundle(text) == nasty_tour()


G = 'xmlns="http://www.topografix.com/GPX/1/1"'
POINTS = "".join(f'<trkpt lat="{a}" lon="{b}"><ele>{h}</ele></trkpt>' for a, b, h in LINE)


def foreign(
    head: str = f'<gpx version="1.1" creator="x" {G}>',
    inside: str = POINTS,
    before: str = "",
    after: str = "",
    segment: str = "trkseg",
) -> str:
    return f'<?xml version="1.0" encoding="UTF-8"?>{before}{head}<trk><name>Way</name><{segment}>{inside}</{segment}></trk>{after}</gpx>'


def hung(extension: str) -> str:
    return POINTS.replace("</trkpt>", f"<extensions>{extension}</extensions></trkpt>", 1)


FOREIGN: dict[str, bytes] = {
    "version 1.0": foreign('<gpx version="1.0" creator="x" xmlns="http://www.topografix.com/GPX/1/0">').encode(),
    "no namespace": foreign("<gpx>").encode(),
    "a prefix for everything": re.sub(r"<(/?)(\w)", r"<\1g:\2", foreign(f'<gpx {G.replace("xmlns", "xmlns:g")}>').partition("?>")[2]).encode(),
    "UTF-16": foreign().replace("UTF-8", "UTF-16").encode("utf-16"),
    "Latin-1": foreign().replace("UTF-8", "ISO-8859-1").replace("Way", "Straße").encode("latin-1"),
    "a byte-order mark": b"\xef\xbb\xbf" + foreign().encode(),
    "no declaration": foreign().partition("?>")[2].encode(),
    "single quotes": foreign().replace('"', "'").encode(),
    "Windows line ends": foreign().replace("><", ">\r\n<").encode(),
    "old Macintosh line ends": foreign().replace("><", ">\r<").encode(),
    "a comment": foreign(before="<!-- made by hand -->").encode(),
    "an instruction": foreign(before='<?xml-stylesheet href="a.xsl"?>').encode(),
    "CDATA": foreign().replace("Way", "<![CDATA[Way & <more>]]>").encode(),
    "character references": foreign().replace("Way", "W&#228;y &#x1F3D5;").encode(),
    "an empty segment": foreign(after="<trk><trkseg/></trk>").encode(),
    "two tracks": foreign(after="<trk><trkseg></trkseg></trk>").encode(),
    "a route besides": foreign(after='<rte><rtept lat="1" lon="1"/></rte>').encode(),
    "only a route": gpx(*LINE, kind="rte"),
    "times": foreign(inside=POINTS.replace("</trkpt>", "<time>2027-05-01T10:00:00Z</time></trkpt>")).encode(),
    "heights after extensions": foreign(inside=POINTS.replace("<ele>", "<fix>3d</fix><ele>")).encode(),
    "heart and cadence": foreign(f'<gpx {G} xmlns:t="urn:track-point">', hung("<t:Point><t:hr>120</t:hr><t:cad>80</t:cad></t:Point>")).encode(),
    "a namespace declared late": foreign(inside=hung('<p:power xmlns:p="urn:power">200</p:power>')).encode(),
    "one prefix, two meanings": foreign(f'<gpx {G} xmlns:p="urn:one">', hung('<p:a/><q xmlns:p="urn:two"><p:b/></q>')).encode(),
    "attributes with a prefix": foreign(f'<gpx {G} xmlns:p="urn:p">', hung('<a p:b="1"/>')).encode(),
    "extensions of the track": foreign(f'<gpx {G} xmlns:p="urn:p">', after="<extensions><p:colour>red</p:colour></extensions>").encode(),
    "another default in an extension": foreign(inside=hung('<speed xmlns="urn:s">5</speed>')).encode(),
    "schema places": foreign(f'<gpx {G} xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xsi:schemaLocation="a b">').encode(),
    "waypoints with links": foreign(after='<wpt lat="45.01" lon="7"><name>Mill</name><link href="http://x/?a=1&amp;b=2"><text>a</text></link></wpt>').encode(),
    "signs and exponents": foreign().replace('lon="7.0"', 'lon="+7.0"').replace('lat="45.0"', 'lat="4.5e1"').encode(),
    "spaces in attributes": foreign().replace('lat="45.0"', 'lat=" 45.0 "').encode(),
}  # fmt: skip


@pytest.mark.parametrize("case", FOREIGN)
def test_a_foreign_track_comes_in_and_goes_out_well_formed(case, app):
    assert len(FOREIGN) == 30
    found = read_gpx(FOREIGN[case])
    assert len(found.track.lat_deg) == 3
    client, tours = app.test_client(), tours_of(app)
    path = f"/api/tours/{tours.create(small_tour()).id}"
    data = {"file": (io.BytesIO(FOREIGN[case]), "a.gpx"), "revision": "1"}
    assert client.post(f"{path}/track", data=data, content_type="multipart/form-data").status_code == 200
    out = ET.fromstring(client.get(f"{path}/road.gpx").data)
    inside = {element.tag: element.attrib for element in out.iter() if "GPX/1/1" not in element.tag}
    meant = {element.tag for element in ET.fromstring(FOREIGN[case]).iter() if "GPX" not in element.tag and element.tag[0] == "{"}
    assert meant - {"{urn:p}colour"} <= set(inside)
