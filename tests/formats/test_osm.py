"""Maps as files: what is written by osmium and lies in the corridor is found, in either form; what is damaged is refused in words."""

import datetime as dt

import numpy as np
import osmium
import pytest
from osmium.osm import mutable
from pyproj import Geod

from omnifer.formats import osm
from omnifer.formats.osm import Corridor, read_map
from omnifer.formats.problem import InputProblem

LAT, LON = np.linspace(46.9, 47.3, 400), np.linspace(179.6, 180.4, 400)
LON = (LON + 180) % 360 - 180
"""A road over the date line."""
EARTH = Geod(ellps="WGS84")


def away_km(lat, lon):
    """Distance of a place from the nearest point of the road."""
    return EARTH.inv(np.full(LAT.size, lon), np.full(LAT.size, lat), LON, LAT)[2].min() / 1000


@pytest.fixture(scope="module")
def places():
    """Places around the road, as (number, latitude, longitude, tags)."""
    chance = np.random.default_rng(4)
    tags = [{"amenity": "drinking_water"}, {"shop": "supermarket", "name": "Käse"}, {"natural": "tree"}, {"highway": "crossing"}]
    lat, lon = chance.uniform(46.85, 47.35, 3000), chance.uniform(179.5, 180.5, 3000)
    lon = (lon + 180) % 360 - 180
    return [(n + 1, float(lat[n]), float(lon[n]), tags[n % 4]) for n in range(3000)]


@pytest.fixture(params=["sorted.osm.pbf", "unsaid.osm.pbf", "plain.osm"])
def extract(request, tmp_path, places):
    """A file of them, and of ways between every second of them."""
    path = tmp_path / request.param
    header = osmium.io.Header()
    if request.param.startswith("sorted"):
        header.set("sorting", "Type_then_ID")
        header.set("osmosis_replication_timestamp", "2026-11-02T21:20:00Z")
    with osmium.SimpleWriter(str(path), header=header) as writer:
        for number, lat, lon, tags in places:
            writer.add_node(mutable.Node(id=number, location=(lon, lat), tags=tags, version=1, timestamp="2024-05-01T00:00:00Z"))
        for n, (number, _, _, _) in enumerate(places[::2]):
            kinds = [
                {"highway": "track", "surface": "gravel"},
                {"building": "yes"},
                {"tourism": "camp_site"},
                {"highway": "motorway"},
            ]
            writer.add_way(mutable.Way(id=n + 1, nodes=[number, number + 1], tags=kinds[n % 4], version=1))
    return path


def test_what_lies_in_the_corridor_is_found(extract, places, monkeypatch):
    monkeypatch.setattr(osm, "PIECE_BYTES", 4096)
    told = []
    found = read_map(extract, LAT, LON, np.full(LAT.size, 1.0), told.append)
    wanted = {f"n{n}" for n, lat, lon, tags in places if away_km(lat, lon) <= 1 and ("amenity" in tags or "shop" in tags)}
    nodes = {feature.id: feature for feature in found.features if feature.id[0] == "n"}
    assert len(wanted) > 20
    assert wanted <= nodes.keys()
    # Cells touch the corridor: nothing lies far beyond it, and nothing else is there.
    assert all(away_km(one.lat_deg, one.lon_deg) < 2.5 for one in nodes.values())
    assert {tuple(one.tags) for one in nodes.values()} == {("amenity",), ("shop", "name")}
    by_number = {n: (lat, lon) for n, lat, lon, _ in places}
    sites = {f"w{n + 1}" for n, (number, *_) in enumerate(places[::2]) if n % 4 == 2
             and min(away_km(*by_number[number]), away_km(*by_number[number + 1])) <= 1}  # fmt: skip
    assert sites <= {feature.id for feature in found.features if feature.id[0] == "w"}
    assert {way.tags["highway"] for way in found.ways} <= {"track"}
    assert told[-1] == pytest.approx(1)
    assert told == sorted(told)
    if extract.name.startswith("sorted"):
        assert found.on == dt.date(2026, 11, 2)


def test_ways_that_leave_the_corridor_are_cut_there(tmp_path):
    path = tmp_path / "one.osm"
    points = [(47.1, 180.0), (47.1005, 180.001), (47.6, 180.0), (47.101, 180.002), (47.1015, 180.003)]
    with osmium.SimpleWriter(str(path)) as writer:
        for n, (lat, lon) in enumerate(points, 1):
            writer.add_node(mutable.Node(id=n, location=(lon - 360 if lon > 180 else lon, lat)))
        writer.add_way(mutable.Way(id=9, nodes=[1, 2, 3, 4, 5], tags={"highway": "path"}))
    found = read_map(path, LAT, LON, np.full(LAT.size, 1.0))
    assert [(one.id, one.lat_deg.tolist()) for one in found.ways] == [
        ("w9", pytest.approx([47.1, 47.1005])), ("w9", pytest.approx([47.101, 47.1015])),
    ]  # fmt: skip


def test_a_corridor_round_the_world_stays_small():
    lon = np.linspace(-180, 179.9, 4000)
    corridor = Corridor(np.full(4000, 60.0), lon, np.full(4000, 5.0))
    assert corridor.holds(np.array([60.02, 60.02, 61.5]), np.array([179.99, -179.99, 0.0])).tolist() == [True, True, False]
    assert corridor.has(60.02, 12.3)


@pytest.mark.parametrize(
    ("damage", "words"),
    [
        (lambda data: data[: len(data) // 2], "breaks off"),
        (lambda data: data[:200] + bytes(len(data) - 200), "cannot be read|damaged"),
        (lambda data: b"\xff\xff\xff\xff" + data[4:], "damaged at byte 0"),
        (lambda data: b"", "no map"),
        (lambda data: b"PK\x03\x04" + data, "no map"),
        (lambda data: b'<osm version="0.6"><node id="1" lat="x" lon="1"/></osm>', "cannot be read"),
        (lambda data: b'<osm version="0.6"><node id="1" lat="1"', "cannot be read"),
        (lambda data: b'<!DOCTYPE osm [<!ENTITY a "b">]><osm version="0.6"/>', "no map"),
        (lambda data: b'<?xml version="1.0"?><osm version="0.6"><!DOCTYPE a [<!ENTITY a "b">]></osm>', "cannot be read"),
    ],
)
def test_damage_is_said_in_words(extract, damage, words):
    if extract.suffix != ".pbf":
        pytest.skip("once is enough")
    extract.write_bytes(damage(extract.read_bytes()))
    with pytest.raises(InputProblem, match=words):
        read_map(extract, LAT, LON, np.full(LAT.size, 1.0))
