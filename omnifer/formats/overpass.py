"""Questions to a map service in the Overpass query language, and its answers.

References
----------
wiki.openstreetmap.org/wiki/Overpass_API/Overpass_QL; the answer's form is that of [out:json].
"""

import datetime as dt
import json
from collections.abc import Iterator
from typing import Any

import numpy as np
from numpy.typing import NDArray

from omnifer.core.mapped import tags
from omnifer.core.mapped.reading import Feature, Reading, Way
from omnifer.core.model.road import MAP_CREDIT
from omnifer.formats.found import is_real
from omnifer.formats.osm import LONGEST_TAG, NEAR_KM

WAITS_S = 90
"""How long the service may work on one question [s]."""
MOST_BYTES = 2**28
"""It may use so much memory for it [bytes]."""

Array = NDArray[np.float64]


class NotToldError(ValueError):
    """An answer that tells nothing; the message says why."""


def question(lat_deg: Array, lon_deg: Array, within_km: float) -> str:
    """What is asked about the land along a line of points [°, km]."""
    line = ",".join(f"{lat:.5f},{lon:.5f}" for lat, lon in zip(lat_deg, lon_deg, strict=True))
    places = "".join(
        f'nwr(around:{within_km * 1000:.0f},{line})["{key}"~"^({"|".join(values)})$"];' for key, values in tags.keys().items()
    )
    near = f"way(around:{NEAR_KM * 1000:.0f},{line})"
    ways = f'{near}["highway"];{near}["route"~"^(ferry)$"];'
    return f"[out:json][timeout:{WAITS_S}][maxsize:{MOST_BYTES}];({places});out tags center;({ways});out tags geom;"


def read_answer(content: bytes) -> Reading:
    """What a service told. Raises NotToldError."""
    try:
        told = json.loads(content)
    except (ValueError, RecursionError):
        raise NotToldError("tells what is no JSON") from None
    if not isinstance(told, dict) or not isinstance(told.get("elements"), list):
        raise NotToldError("tells no elements")
    if remark := str(told.get("remark", "")):
        # A question that takes too long is answered with success and a remark.
        raise NotToldError(f"broke off: {remark[:120]}")
    features: list[Feature] = []
    ways: list[Way] = []
    for one in told["elements"]:
        if isinstance(one, dict) and one.get("type") in ("node", "way", "relation") and isinstance(one.get("id"), int):
            features.extend(_feature(one))
            ways.extend(_way(one))
    about = told.get("osm3s")
    return Reading(features=features, ways=ways, on=_day(about), credit=_whose(about))


def joined(readings: list[Reading]) -> Reading:
    """Answers about one piece of a road after the other, as one; what two pieces have counts once."""
    features = {feature.id: feature for reading in readings for feature in reading.features}
    ways = {way.id: way for reading in readings for way in reading.ways}
    days = [reading.on for reading in readings if reading.on is not None]
    credit = next((reading.credit for reading in readings), MAP_CREDIT)
    return Reading(features=list(features.values()), ways=list(ways.values()), on=min(days, default=None), credit=credit)


def _described(one: dict[str, Any]) -> dict[str, str]:
    told = one.get("tags")
    if not isinstance(told, dict):
        return {}
    return {str(key)[:LONGEST_TAG]: str(value)[:LONGEST_TAG] for key, value in told.items()}


def _feature(one: dict[str, Any]) -> Iterator[Feature]:
    where = one.get("center", one)
    described = _described(one)
    if isinstance(where, dict) and described and "geometry" not in one:
        lat, lon = where.get("lat"), where.get("lon")
        if isinstance(lat, int | float) and isinstance(lon, int | float) and is_real(lat, lon):
            yield Feature(f"{one['type'][0]}{one['id']}", float(lat), float(lon), described)


def _way(one: dict[str, Any]) -> Iterator[Way]:
    line = one.get("geometry")
    if one["type"] != "way" or not isinstance(line, list):
        return
    points = [point for point in line if isinstance(point, dict) and is_real(point.get("lat"), point.get("lon"))]
    if len(points) > 1:
        lat, lon = (np.array([point[axis] for point in points], dtype=float) for axis in ("lat", "lon"))
        yield Way(f"w{one['id']}", lat, lon, _described(one))


def _whose(told: object) -> str:
    """Whose map a service tells of; nearly all tell of one."""
    said = str(told.get("copyright", "")) if isinstance(told, dict) else ""
    return said[:120] if said and "OpenStreetMap" not in said else MAP_CREDIT


def _day(told: object) -> dt.date | None:
    if not isinstance(told, dict):
        return None
    try:
        return dt.datetime.fromisoformat(str(told.get("timestamp_osm_base")).replace("Z", "+00:00")).date()
    except ValueError:
        return None
