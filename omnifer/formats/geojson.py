"""GeoJSON: lines in as a track; the road, its days and stops out (RFC 7946)."""

import json
from collections.abc import Iterator
from typing import Any

import numpy as np

from omnifer.core.model.assessment import Day
from omnifer.core.model.road import Part, Stop, Track, Waypoint
from omnifer.core.physics.geodesy import segment_lengths
from omnifer.formats.found import MOST_POINTS, MOST_WAYPOINTS, FoundRoad, bounded, is_height, is_real, jumps
from omnifer.formats.problem import InputProblem

Position = tuple[float, float, float | None]
FARTHEST = 10**9
"""No figure of a position is larger, whatever it counts."""


def read_geojson(content: bytes) -> FoundRoad:
    """Read the lines and points of a GeoJSON document. Raises InputProblem with what is wrong and what to do."""
    bounded(content)
    try:
        document = json.loads(content)
    except (ValueError, RecursionError) as error:
        where = f"line {error.lineno}" if isinstance(error, json.JSONDecodeError) else ""
        raise InputProblem("The file is not JSON", where, "Export it again as GeoJSON or GPX.") from None
    lines: list[list[Position]] = []
    waypoints: list[Waypoint] = []
    dropped = total = 0
    for geometry, properties in _geometries(document, 0):
        kind, coordinates = geometry.get("type"), geometry.get("coordinates")
        raw = {"LineString": [coordinates], "MultiLineString": coordinates}.get(str(kind))
        if isinstance(raw, list):
            total += sum(len(line) for line in raw if isinstance(line, list))
            if total > MOST_POINTS:
                raise InputProblem(f"The track has more than {MOST_POINTS:,} points", "", "Thin it or split it first.")
            for line in raw:
                positions = [_position(p) for p in line] if isinstance(line, list) else []
                dropped += positions.count(None)
                lines.append([p for p in positions if p is not None])
        elif kind == "Point" and (place := _position(coordinates)) is not None:
            if len(waypoints) >= MOST_WAYPOINTS:
                raise InputProblem(f"The file has more than {MOST_WAYPOINTS:,} places", "", "Export fewer of them.")
            name = str(properties.get("name") or "Unnamed place")[:120]
            note = str(properties.get("desc") or "")[:2000]
            waypoints.append(Waypoint(name=name, lat_deg=place[1], lon_deg=place[0], note=note))
    points = [point for line in lines for point in line]
    if len(points) < 2:
        raise InputProblem("The file has no LineString with two usable points", "", "Export the road as a line.")
    first = np.cumsum([0, *(len(line) for line in lines[:-1])])
    track = Track(
        lat_deg=tuple(p[1] for p in points),
        lon_deg=tuple(p[0] for p in points),
        elevation_m=tuple(p[2] for p in points),
        parts=tuple(Part(first=int(f)) for f, line in zip(first, lines, strict=True) if line),
    )
    remarks = [f"{dropped} positions that are none were left out."] if dropped else []
    if all(height is None for height in track.elevation_m):
        remarks.append("The track has no heights: climbs cannot be known.")
    return FoundRoad(track, waypoints, [*remarks, *jumps(track)])


def _geometries(node: Any, depth: int) -> Iterator[tuple[dict[str, Any], dict[str, Any]]]:
    """Every geometry with the properties of its feature."""
    if depth > 20 or not isinstance(node, dict):
        return
    kind = node.get("type")
    if kind == "Feature":
        properties = node.get("properties")
        for geometry, _ in _geometries(node.get("geometry"), depth + 1):
            yield geometry, properties if isinstance(properties, dict) else {}
    elif kind in ("FeatureCollection", "GeometryCollection"):
        members = node.get("features" if kind == "FeatureCollection" else "geometries")
        for member in members if isinstance(members, list) else []:
            yield from _geometries(member, depth + 1)
    elif "coordinates" in node:
        yield node, {}


def _position(raw: Any) -> Position | None:
    """Longitude, latitude and height of a position; None where it is none, or lies at 0/0."""
    if not isinstance(raw, list) or len(raw) < 2 or not all(isinstance(v, int | float) for v in raw[:3]):
        return None
    if any(abs(v) > FARTHEST for v in raw[:3]):
        return None
    lon, lat = float(raw[0]), float(raw[1])
    if not is_real(lat, lon):
        return None
    height = float(raw[2]) if len(raw) > 2 else None
    return lon, lat, height if height is not None and is_height(height) else None


def write_geojson(track: Track, days: list[Day], places: list[tuple[Stop, float, float]]) -> str:
    """A FeatureCollection with one LineString a riding day and one Point a stop."""
    along = np.concatenate([[0.0], np.cumsum(segment_lengths(track.lat_deg, track.lon_deg))]) / 1000
    features: list[dict[str, Any]] = []
    for day in days:
        if day.rest:
            continue
        first, last = (int(np.searchsorted(along, km)) for km in (day.from_km, day.to_km))
        line = [
            [track.lon_deg[i], track.lat_deg[i], *([] if track.elevation_m[i] is None else [track.elevation_m[i]])]
            for i in range(first, min(last, along.size - 1) + 1)
        ]
        if len(line) < 2:
            continue
        properties = {"name": f"Day {day.number}", "date": day.date.isoformat(), "distance_km": day.distance_km,
                      "ascent_m": day.ascent_m, "riding_hours": day.riding_hours}  # fmt: skip
        features.append({"type": "Feature", "properties": properties, "geometry": {"type": "LineString", "coordinates": line}})
    for stop, lat, lon in places:
        properties = {"name": stop.name, "at_km": stop.at_km, "water": stop.water, "shop": stop.shop, "desc": stop.note}
        features.append({"type": "Feature", "properties": properties, "geometry": {"type": "Point", "coordinates": [lon, lat]}})
    return json.dumps({"type": "FeatureCollection", "features": features}, ensure_ascii=False)
