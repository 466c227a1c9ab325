"""The map of the invented country: what the stand-in of a map service knows, in the form in which such a service tells it."""

from functools import cache
from importlib import resources
from itertools import pairwise
from typing import Any

import numpy as np

from omnifer.core.model.road import Stop
from omnifer.core.road.profile import Profile, from_track
from omnifer.demo.country import SEED, demo_track
from omnifer.formats.stops_csv import read_stops_csv

SURVEYED = "2027-03-28T21:20:00Z"
"""How new the map is."""
TAP_EVERY_KM, HUT_EVERY_KM, WAY_KM = 61.0, 233.0, 20.0
DRY_KM = ((676, 1004), (1384, 1566))
"""Where there is neither tap nor shelter: the basin, and the pass."""
GROUND = ((712, 884, "surface", "paving_stones"), (1004, 1016, "surface", "compacted"), (1384, 1527, "surface", "gravel"))
"""From and to a kilometre, what is said of the way there; elsewhere asphalt."""
TUNNEL_KM = (1498.2, 1499.0)
FERRY_KM = (1841.0, 1844.0)
CLOSED_SHOPS = frozenset({"Vine Cross"})
"""Places whose shop the map does not have."""
WORKSHOPS = frozenset({"Sarrant", "Caldon"})
SHOPS = {
    "full": {"shop": "supermarket", "opening_hours": "Mo-Sa 08:00-19:30"},
    "basic": {"shop": "convenience", "opening_hours": "Mo-Sa 09:00-12:30,14:00-18:00"},
    "snacks": {"shop": "kiosk"},
}
HAD: dict[str, dict[str, str]] = {
    "meals": {"amenity": "restaurant"}, "laundry": {"shop": "laundry"}, "post": {"amenity": "post_office"},
    "gas": {"shop": "outdoor"}, "petrol": {"amenity": "fuel"}, "site": {"tourism": "camp_site"},
    "room": {"tourism": "guest_house"}, "hut": {"tourism": "wilderness_hut"},
}  # fmt: skip


@cache
def demo_map() -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    """Places, each with tags and a position, and ways with a line each, numbered from 1."""
    profile = from_track(demo_track())
    text = (resources.files("omnifer.demo") / "stops.csv").read_text(encoding="utf-8")
    chance = np.random.Generator(np.random.PCG64(SEED))
    places: list[dict[str, Any]] = []

    def put(km: float, tags: dict[str, str]) -> None:
        lat, lon = profile.position_at(min(km, profile.length_km)) or (0.0, 0.0)
        north, east = (chance.random(2) - 0.5) * 0.004
        places.append({
            "type": "node", "id": len(places) + 1, "lat": round(lat + north, 6), "lon": round(lon + east, 6), "tags": tags,
        })  # fmt: skip

    for stop in read_stops_csv(text, set(), profile.length_km).stops:
        for tags in _tags_of(stop):
            put(stop.at_km, tags)
    lone = ((TAP_EVERY_KM, {"amenity": "drinking_water"}), (HUT_EVERY_KM, {"amenity": "shelter", "shelter_type": "basic_hut"}))
    for every, tags in lone:
        for km in np.arange(every / 2, profile.length_km, every).tolist():
            if not any(start < km < end for start, end in DRY_KM):
                put(km, tags)
    return places, _ways(profile)


def _tags_of(stop: Stop) -> list[dict[str, str]]:
    """What the map has at a stop of the sample."""
    found = []
    if stop.shop in ("full", "basic"):
        kind, people = ("town", 4200) if stop.shop == "full" else ("village", 640)
        found.append({"place": kind, "name": stop.name, "population": str(people)})
    if stop.shop in SHOPS and stop.name not in CLOSED_SHOPS:
        found.append({**SHOPS[stop.shop], "name": f"{stop.name} stores"})
    elif stop.water == "reliable":
        found.append({"amenity": "drinking_water", "name": stop.name})
    found += [HAD[one] for one in (*stop.services, *stop.fuels, stop.shelter) if one in HAD]
    if stop.name in WORKSHOPS:
        found.append({"shop": "bicycle"})
    return found


def _ways(profile: Profile) -> list[dict[str, Any]]:
    edges = sorted({*np.arange(0, profile.length_km, WAY_KM).tolist(), profile.length_km, *TUNNEL_KM, *FERRY_KM}
                   | {km for a, b, _, _ in GROUND for km in (float(a), float(b))})  # fmt: skip
    found: list[dict[str, Any]] = []
    for a, b in pairwise(edges):
        points = profile.between(a, b)
        step = slice(points.start, points.stop, 4)
        assert profile.lat_deg is not None
        assert profile.lon_deg is not None
        line = [
            {"lat": round(lat, 6), "lon": round(lon, 6)}
            for lat, lon in zip(profile.lat_deg[step].tolist(), profile.lon_deg[step].tolist(), strict=True)
        ]
        tags = {"highway": "tertiary", "surface": "asphalt"}
        tags |= {key: value for start, end, key, value in GROUND if start <= a and b <= end}
        if (a, b) == TUNNEL_KM:
            tags["tunnel"] = "yes"
        if (a, b) == FERRY_KM:
            tags = {"route": "ferry", "duration": "1:15"}
        found.append({"type": "way", "id": len(found) + 1, "tags": tags, "geometry": line})
    return found
