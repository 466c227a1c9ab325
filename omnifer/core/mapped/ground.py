"""What the ways of a map that lie under a road say of its ground: surfaces, tunnels, ferries."""

import datetime as dt
import re
from collections.abc import Callable, Iterator
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from omnifer.core.mapped.reading import Tags, Way
from omnifer.core.model.road import Hazard, Surface, SurfaceStretch, Transfer
from omnifer.core.physics import geodesy
from omnifer.core.physics.geodesy import EARTH_KM
from omnifer.core.road.profile import Profile

EVERY = 2
"""Every second point of the road is looked at: 50 m."""
APART_M = 15.0
"""Points laid along a way [m]."""
OFF_M = 30.0
"""A way so near to the road lies under it: what receivers and mapping are off; practice [m]."""
FERRY_OFF_M = 300.0
"""Ferries do not sail where they are drawn; practice [m]."""
TURNED_DEG = 35.0
"""A way that runs otherwise crosses the road; practice [°]."""
NEIGHBOURS = 6
SHORTEST_KM = 0.3
"""Shorter stretches are not worth a line; steps that must be pushed are told however short; practice [km]."""
TUNNEL_KM = 0.15
"""Shorter ones are bridges over the road; practice [km]."""
FERRY_H = 2.0
"""A crossing of which nobody says how long it takes, waiting counted; practice [h]."""

SURFACES: dict[Surface, tuple[str, ...]] = {
    "asphalt": ("asphalt", "paved", "concrete", "chipseal", "concrete:lanes"),
    "rough_asphalt": ("paving_stones", "sett", "cobblestone", "unhewn_cobblestone", "concrete:plates", "bricks", "metal", "wood"),
    "gravel": ("compacted", "fine_gravel", "gravel", "unpaved", "ground", "dirt", "earth", "pebblestone", "shells", "clay"),
    "soft": ("sand", "mud", "grass", "snow", "salt", "woodchips"),
    "push": ("rock", "stepping_stones"),
}
"""Values of surface=*; how a laden bicycle rolls on them is practice."""
BY_GRADE: dict[str, Surface] = {"grade2": "gravel", "grade3": "gravel", "grade4": "soft", "grade5": "soft"}
"""tracktype=*, where no surface is said."""
ROUGH = {"bad": "rough_asphalt", "very_bad": "gravel", "horrible": "soft", "very_horrible": "push", "impassable": "push"}
"""smoothness=*: no better than this."""
ROUGHER: tuple[Surface, ...] = ("asphalt", "rough_asphalt", "gravel", "soft", "push")
_SURFACE_OF: dict[str, Surface] = {value: surface for surface, values in SURFACES.items() for value in values}

Array = NDArray[np.float64]
Indices = NDArray[np.intp]
Said = TypeVar("Said")


def surface_of(tags: Tags) -> Surface | None:
    """What a way is like under the wheels; None where it does not say.

    Examples
    --------
    >>> surface_of({"highway": "track", "surface": "gravel"})
    'gravel'
    >>> surface_of({"highway": "residential", "surface": "asphalt", "smoothness": "bad"})
    'rough_asphalt'
    """
    if tags.get("highway") == "steps":
        return "push"
    found = _SURFACE_OF.get(tags.get("surface", "")) or BY_GRADE.get(tags.get("tracktype", ""))
    rough = ROUGH.get(tags.get("smoothness", ""))
    said = [one for one in ROUGHER if one in (found, rough)]
    return said[-1] if said else None


def in_tunnel(tags: Tags) -> bool:
    """Whether a way runs through a tunnel one can ride into; passages under houses are none."""
    return tags.get("tunnel") in ("yes", "avalanche_protector")


def _hours(text: str | None) -> float:
    """A duration as the map writes it (1:30, 90, PT1H30M) [h]."""
    clock = re.fullmatch(r"(\d{1,3}):(\d\d)(?::\d\d)?", text or "")
    if clock:
        return int(clock[1]) + int(clock[2]) / 60
    return int(text) / 60 if text and text.isascii() and text.isdecimal() and len(text) < 5 else FERRY_H


def surfaces_under(profile: Profile, ways: list[Way], on: dt.date) -> list[SurfaceStretch]:
    """The stretches whose ground the map says to be other than asphalt."""
    land = [way for way in ways if "highway" in way.tags]
    said = [surface_of(way.tags) for way in land]
    runs = _runs(profile, land, OFF_M, lambda way: said[way])
    return [
        SurfaceStretch(from_km=a, to_km=b, surface=surface, mapped=on)
        for a, b, surface in _joined(runs)
        if surface != "asphalt" and (b - a >= SHORTEST_KM or surface == "push")
    ]


def known_km(profile: Profile, ways: list[Way]) -> float:
    """How much of the road lies on ways that say what they are like [km]."""
    land = [way for way in ways if "highway" in way.tags]
    said = [surface_of(way.tags) for way in land]
    return sum(b - a for a, b, _ in _runs(profile, land, OFF_M, lambda way: said[way]))


def tunnels_under(profile: Profile, ways: list[Way]) -> list[Hazard]:
    """The tunnels the road runs through."""
    land = [way for way in ways if "highway" in way.tags]
    names = [way.tags.get("name", way.tags.get("tunnel:name", ""))[:120] if in_tunnel(way.tags) else None for way in land]
    runs = _joined(_runs(profile, land, OFF_M, lambda way: names[way]))
    return [Hazard(from_km=a, to_km=b, kind="tunnels", note=name) for a, b, name in runs if b - a >= TUNNEL_KM]


def ferries_under(profile: Profile, ways: list[Way]) -> list[Transfer]:
    """The ferries that sail where the road crosses water."""
    sails = [way for way in ways if way.tags.get("route") == "ferry"]
    hours = [_hours(way.tags.get("duration")) for way in sails]
    runs = _joined(_runs(profile, sails, FERRY_OFF_M, lambda way: hours[way]))
    return [Transfer(from_km=a, to_km=b, by="ferry", hours=round(h, 2)) for a, b, h in runs if b - a >= SHORTEST_KM]


def _joined(runs: Iterator[tuple[float, float, Said]]) -> list[tuple[float, float, Said]]:
    """Runs of the same kind with less between them than is worth a line, as one."""
    found: list[tuple[float, float, Said]] = []
    for start, end, said in runs:
        if found and found[-1][2] == said and start - found[-1][1] < SHORTEST_KM:
            found[-1] = (found[-1][0], end, said)
        else:
            found.append((start, end, said))
    return found


def _runs(
    profile: Profile, ways: list[Way], off_m: float, said: Callable[[int], Said | None]
) -> Iterator[tuple[float, float, Said]]:
    """Stretches of the road on ways that say the same, in road order; nothing where they say nothing."""
    if profile.lat_deg is None or profile.lon_deg is None or not ways:
        return
    lat, lon, km = profile.lat_deg[::EVERY], profile.lon_deg[::EVERY], profile.km[::EVERY]
    under = _under(lat, lon, ways, off_m)
    half = EVERY * float(profile.km[1]) / 2
    start, now = 0.0, None
    for at, way in zip(km.tolist(), under.tolist(), strict=True):
        found = None if way < 0 else said(way)
        if found == now:
            continue
        edge = max(at - half, 0.0)
        if now is not None:
            yield round(start, 3), round(edge, 3), now
        start, now = edge, found
    if now is not None and start < profile.length_km:
        yield round(start, 3), round(profile.length_km, 3), now


def _under(lat: Array, lon: Array, ways: list[Way], off_m: float) -> Indices:
    """Which way lies under each point of a line: the nearest that runs along it; -1 where there is none."""
    from scipy.spatial import cKDTree  # half a second that only maps cost

    laid = [_laid(way) for way in ways]
    of_way = np.repeat(np.arange(len(ways)), [points[0].size for points in laid])
    there, headed = (np.concatenate([points[n] for points in laid]) for n in (0, 1)), np.concatenate([p[2] for p in laid])
    tree = cKDTree(geodesy.on_sphere(*there))
    distance, at = tree.query(geodesy.on_sphere(lat, lon), k=NEIGHBOURS, distance_upper_bound=off_m / 1000 / EARTH_KM)
    found = np.isfinite(distance)
    at = np.where(found, at, 0)
    turned = np.abs((headed[at] - _headings(lat, lon)[:, None] + 90) % 180 - 90)
    along = found & (turned <= TURNED_DEG)
    best = np.argmax(along, axis=1)
    rows = np.arange(lat.size)
    return np.where(along[rows, best], of_way[at[rows, best]], -1)


def _headings(lat: Array, lon: Array) -> Array:
    """Direction of a line at each of its points [°]; which end it is ridden from does not count."""
    if lat.size < 2:
        return np.zeros(lat.size)
    east = np.gradient(np.unwrap(lon, period=360.0)) * np.cos(np.radians(lat))
    return np.asarray(np.degrees(np.arctan2(east, np.gradient(lat))) % 180)


def _laid(way: Way) -> tuple[Array, Array, Array]:
    """Points along a way close enough together to be found from any point of it, each with the direction there."""
    lengths = geodesy.segment_lengths(way.lat_deg, way.lon_deg)
    along = np.concatenate([[0.0], np.cumsum(lengths)])
    points = np.linspace(0.0, along[-1], max(int(np.ceil(along[-1] / APART_M)), 1) + 1)
    lat, lon = (np.interp(points, along, axis) for axis in (way.lat_deg, np.unwrap(way.lon_deg, period=360.0)))
    return lat, (lon + 180) % 360 - 180, _headings(lat, lon)
