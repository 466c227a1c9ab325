"""GPX in, as a stream without entities; GPX out, through gpxpy."""

import math
from collections.abc import Iterable
from dataclasses import dataclass, field
from xml.parsers import expat

import gpxpy.gpx
import numpy as np

from omnifer.core.model.assessment import Day
from omnifer.core.model.road import Stop, Track
from omnifer.core.physics.geodesy import segment_lengths
from omnifer.formats.problem import InputProblem

MOST_BYTES = 32 * 1024 * 1024
MOST_POINTS = 1_000_000
MOST_DEPTH = 40
ABSURD_M = 9000.0
"""Heights beyond this (or below -500 m) are taken as missing."""


@dataclass(frozen=True)
class Waypoint:
    """A named place of the file."""

    name: str
    lat_deg: float
    lon_deg: float
    note: str = ""


@dataclass(frozen=True)
class GpxRoad:
    """What a GPX file holds: its points as one track, its waypoints, and what was dropped on the way, in words."""

    track: Track
    waypoints: list[Waypoint]
    remarks: list[str] = field(default_factory=list)


class _Reader:
    """Collects points while expat streams by; a document type is refused before it can define anything."""

    def __init__(self) -> None:
        self.lat: list[float] = []
        self.lon: list[float] = []
        self.height: list[float | None] = []
        self.route: list[tuple[float, float, float | None]] = []
        self.waypoints: list[Waypoint] = []
        self.name = ""
        self.dropped = 0
        self.absurd = 0
        self._depth = 0
        self._path: list[str] = []
        self._text: list[str] = []
        self._point: tuple[float, float] | None = None
        self._fields: dict[str, str] = {}
        self.parser = expat.ParserCreate()
        self.parser.buffer_text = True
        self.parser.StartElementHandler = self._start
        self.parser.EndElementHandler = self._end
        self.parser.CharacterDataHandler = self._text.append
        self.parser.StartDoctypeDeclHandler = self._refuse

    def _refuse(self, *_: object) -> None:
        raise InputProblem(
            "The file declares a document type, which a GPX file never needs and which can hide entities",
            f"line {self.parser.CurrentLineNumber}",
            "Export it again from your planner or device.",
        )

    def _start(self, tag: str, attributes: dict[str, str]) -> None:
        local = tag.rpartition(":")[2]
        self._depth += 1
        if self._depth == 1 and local != "gpx":
            raise InputProblem(f"This is not a GPX file: it begins with <{tag}>", "line 1", "Choose a .gpx file.")
        if self._depth > MOST_DEPTH:
            raise InputProblem("The file is nested too deep", f"line {self.parser.CurrentLineNumber}")
        self._path.append(local)
        self._text.clear()
        if local in ("trkpt", "rtept", "wpt"):
            self._point = self._position(attributes)
            self._fields = {}

    def _position(self, attributes: dict[str, str]) -> tuple[float, float] | None:
        try:
            lat, lon = float(attributes["lat"]), float(attributes["lon"])
        except (KeyError, ValueError):
            return None
        if not (math.isfinite(lat) and math.isfinite(lon) and abs(lat) <= 90 and abs(lon) <= 180):
            return None
        return None if lat == 0 and lon == 0 else (lat, lon)

    def _end(self, tag: str) -> None:
        local = tag.rpartition(":")[2]
        self._depth -= 1
        self._path.pop()
        parent = self._path[-1] if self._path else ""
        if local in ("ele", "name", "desc", "cmt") and parent in ("trkpt", "rtept", "wpt"):
            self._fields[local] = "".join(self._text).strip()
        elif local == "name" and parent in ("trk", "rte", "metadata") and not self.name:
            self.name = "".join(self._text).strip()[:120]
        elif local in ("trkpt", "rtept", "wpt"):
            self._take(local)
        self._text.clear()

    def _take(self, kind: str) -> None:
        if self._point is None:
            self.dropped += 1
            return
        lat, lon = self._point
        height = self._height()
        if kind == "trkpt":
            self.lat.append(lat)
            self.lon.append(lon)
            self.height.append(height)
            if len(self.lat) > MOST_POINTS:
                raise InputProblem(f"The track has more than {MOST_POINTS:,} points", "", "Thin it or split it first.")
        elif kind == "rtept":
            self.route.append((lat, lon, height))
        else:
            note = self._fields.get("desc") or self._fields.get("cmt", "")
            self.waypoints.append(Waypoint(self._fields.get("name", "")[:120] or "Unnamed place", lat, lon, note[:2000]))

    def _height(self) -> float | None:
        if "ele" not in self._fields:
            return None
        try:
            height = float(self._fields["ele"])
        except ValueError:
            height = math.nan
        if not -500 <= height <= ABSURD_M:
            self.absurd += 1
            return None
        return height


def read_gpx(content: bytes) -> GpxRoad:
    """Read the tracks (or, without any, the routes) and waypoints of a GPX 1.0 or 1.1 file.

    Raises InputProblem with what is wrong, where and what to do.
    """
    if len(content) > MOST_BYTES:
        size, most = len(content) / 2**20, MOST_BYTES // 2**20
        raise InputProblem(f"The file has {size:.0f} MB; {most} MB can be read", "", "Thin the track or split it.")
    if not content.strip():
        raise InputProblem("The file is empty", "", "Export it again from your planner or device.")
    reader = _Reader()
    try:
        reader.parser.Parse(content, True)
    except expat.ExpatError as error:
        points = len(reader.lat) or len(reader.route)
        raise InputProblem(
            f"The file breaks off or is damaged after {points} points: {expat.errors.messages[error.code]}",
            f"line {error.lineno}",
            "Copy or export it again; nothing was taken.",
        ) from None
    lat, lon, heights = reader.lat, reader.lon, reader.height
    remarks = []
    if not lat and reader.route:
        lat, lon, heights = ([p[i] for p in reader.route] for i in range(3))  # type: ignore[assignment]
        remarks.append("The file has a route and no track: its points were joined by straight lines.")
    if len(lat) < 2:
        raise InputProblem(
            f"The file has {len(lat)} usable track points; a road needs at least two", "", "Export the track, not only places."
        )
    if reader.dropped:
        remarks.append(f"{reader.dropped} points without a real position (missing, or at 0/0) were left out.")
    if reader.absurd:
        remarks.append(f"{reader.absurd} heights beyond -500 to 9000 m were taken as missing.")
    if all(h is None for h in heights):
        remarks.append("The track has no heights: climbs cannot be known.")
    track = Track(name=reader.name, lat_deg=tuple(lat), lon_deg=tuple(lon), elevation_m=tuple(heights))
    return GpxRoad(track, reader.waypoints, remarks)


def write_gpx(name: str, track: Track, days: list[Day], places: Iterable[tuple[Stop, float, float]]) -> str:
    """A GPX 1.1 file with one track a day and a waypoint a stop, given as (stop, latitude, longitude)."""
    document = gpxpy.gpx.GPX()
    document.creator = "Omnifer"
    document.name = name
    for stop, lat, lon in places:
        supplies = [f"{kind}: {what}" for kind, what in (("water", stop.water), ("shop", stop.shop)) if what != "none"]
        note = ", ".join(supplies)
        document.waypoints.append(
            gpxpy.gpx.GPXWaypoint(lat, lon, name=stop.name, description=note or None, comment=stop.note or None)
        )
    along = np.concatenate([[0.0], np.cumsum(segment_lengths(track.lat_deg, track.lon_deg))]) / 1000
    cuts = [int(np.searchsorted(along, day.from_km)) for day in days] + [along.size - 1]
    for day, first, last in zip(days, cuts[:-1], cuts[1:], strict=True):
        part = gpxpy.gpx.GPXTrack(name=f"Day {day.number}, {day.date.isoformat()}, {day.distance_km:.0f} km")
        segment = gpxpy.gpx.GPXTrackSegment()
        segment.points += [
            gpxpy.gpx.GPXTrackPoint(track.lat_deg[i], track.lon_deg[i], elevation=track.elevation_m[i])
            for i in range(first, last + 1)
        ]
        part.segments.append(segment)
        document.tracks.append(part)
    return str(document.to_xml())
