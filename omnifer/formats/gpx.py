"""GPX in, as a stream without entities; GPX out, through gpxpy."""

import math
import re
import secrets
from collections.abc import Iterable
from xml.parsers import expat
from xml.sax.saxutils import escape, quoteattr

import gpxpy.gpx
import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.assessment import Day
from omnifer.core.model.road import MOST_UNREAD, Part, Stop, Track, Waypoint
from omnifer.core.physics.geodesy import segment_lengths
from omnifer.core.road.symbols import words_of
from omnifer.formats.found import (
    MOST_ATTRIBUTES,
    MOST_DEPTH,
    MOST_PARTS,
    MOST_POINTS,
    MOST_WAYPOINTS,
    PIECE_BYTES,
    FoundRoad,
    Tell,
    bounded,
    is_height,
    is_real,
    jumps,
    left_out,
    nobody,
    second_of,
)
from omnifer.formats.problem import InputProblem

MOST_TAGS, MOST_TAGS_A_POINT = 400_000, 12
"""Elements that a file may have, and so many more with every point: what a device hangs on one is some eight."""
POINTS = frozenset({"trkpt", "rtept", "wpt"})
FIELDS = frozenset({"ele", "name", "desc", "cmt", "sym", "type"})
TITLED = frozenset({"trk", "rte", "metadata"})


class _Reader:
    """Collects points while expat streams by; a document type is refused before it can define anything."""

    def __init__(self, timed: bool = False) -> None:
        self.read = FIELDS | {"time"} if timed else FIELDS
        self.times: list[str] = []
        self.lat: list[float] = []
        self.lon: list[float] = []
        self.height: list[float | None] = []
        self.route: list[tuple[float, float, float | None]] = []
        self.waypoints: list[Waypoint] = []
        self.parts: list[Part] = []
        self.extensions: dict[int, str] = {}
        self.name = ""
        self.dropped = 0
        self.absurd = 0
        self._path: list[str] = []
        self._locals: dict[str, str] = {}
        self._text: list[str] = []
        self._point: tuple[float, float] | None = None
        self._fields: dict[str, str] = {}
        self._unread: list[str] | None = None
        self._unread_size = 0
        self._tags = 0
        self._part_name = ""
        self._part_begins = False
        self._namespaces: dict[str, str] = {}
        self._explained: list[set[str]] = []
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
        local = self._locals.get(tag)
        if local is None:
            local = self._locals[tag] = tag.rpartition(":")[2]
        path = self._path
        self._tags += 1
        if self._tags > MOST_TAGS and self._tags > MOST_TAGS + MOST_TAGS_A_POINT * (len(self.lat) + len(self.route)):
            raise InputProblem(
                f"The file has {self._tags:,} elements and only {len(self.lat) + len(self.route):,} points",
                f"line {self.parser.CurrentLineNumber}", "Export it again with the track alone.",
            )  # fmt: skip
        if not path and local != "gpx":
            raise InputProblem(f"This is not a GPX file: it begins with <{tag}>", "line 1", "Choose a .gpx file.")
        if len(attributes) > MOST_ATTRIBUTES:
            raise InputProblem(
                f"<{tag[:40]}> has {len(attributes):,} attributes", f"line {self.parser.CurrentLineNumber}",
                "Export it again from your planner or device.",
            )  # fmt: skip
        path.append(local)
        if len(path) > MOST_DEPTH:
            raise InputProblem("The file is nested too deep", f"line {self.parser.CurrentLineNumber}")
        for name in attributes:
            if name.startswith("xmlns:"):
                self._namespaces[name.removeprefix("xmlns:")] = attributes[name]
        if self._unread is not None:
            self._unread.append(f"{escape(''.join(self._text))}<{tag}{self._attributes(tag, attributes)}>")
        elif local in POINTS:
            self._point = self._position(attributes)
            self._fields = {}
        elif local == "extensions" and path[-2] == "trkpt":
            self._unread = []
        elif local == "trkseg":
            self._part_begins = True
        elif local == "trk":
            self._part_name = ""
        self._text.clear()

    def _attributes(self, tag: str, attributes: dict[str, str]) -> str:
        """Attributes as they stood, with what their prefixes and that of their element mean."""
        prefixes = {name.rpartition(":")[0] for name in (tag, *attributes)} - {"", "xml", "xmlns"}
        missing = sorted(prefixes.intersection(self._namespaces).difference(*self._explained))
        meant = {f"xmlns:{prefix}": self._namespaces[prefix] for prefix in missing}
        self._explained.append(set(missing))
        return "".join(f" {name}={quoteattr(value)}" for name, value in (meant | attributes).items())

    def _position(self, attributes: dict[str, str]) -> tuple[float, float] | None:
        try:
            lat, lon = float(attributes["lat"]), float(attributes["lon"])
        except (KeyError, ValueError):
            return None
        return (lat, lon) if is_real(lat, lon) else None

    def _end(self, tag: str) -> None:
        path = self._path
        local = path.pop()
        parent = path[-1] if path else ""
        if self._unread is not None:
            if local != "extensions" or parent != "trkpt":
                self._explained.pop()
                self._unread.append(f"{escape(''.join(self._text))}</{tag}>")
            else:
                self._keep_unread()
        elif local in POINTS:
            self._take(local)
        elif local in self.read and parent in POINTS:
            self._fields[local] = "".join(self._text).strip()
        elif local == "name" and parent in TITLED:
            title = "".join(self._text).strip()[:120]
            self.name = self.name or title
            if parent == "trk":
                self._part_name = title
        self._text.clear()

    def _keep_unread(self) -> None:
        """Keep what a maker hung on a point, as it stands, to hand it on."""
        text = "".join(self._unread or ())
        self._unread = None
        self._unread_size += len(text)
        if self._point is not None and self._unread_size <= MOST_UNREAD:
            self.extensions[len(self.lat)] = text

    def _take(self, kind: str) -> None:
        if self._point is None:
            self.dropped += 1
            return
        lat, lon = self._point
        height = self._height()
        if kind == "trkpt":
            if self._part_begins and len(self.parts) < MOST_PARTS:
                self.parts.append(Part(first=len(self.lat), name=self._part_name))
            self._part_begins = False
            self.lat.append(lat)
            self.lon.append(lon)
            self.height.append(height)
            if len(self.read) > len(FIELDS):
                self.times.append(self._fields.get("time", ""))
            if len(self.lat) > MOST_POINTS:
                raise InputProblem(f"The track has more than {MOST_POINTS:,} points", "", "Thin it or split it first.")
        elif kind == "rtept":
            self.route.append((lat, lon, height))
            if len(self.route) > MOST_POINTS:
                raise InputProblem(f"The route has more than {MOST_POINTS:,} points", "", "Thin it or split it first.")
        else:
            fields = self._fields
            note = fields.get("desc") or fields.get("cmt", "")
            if len(self.waypoints) >= MOST_WAYPOINTS:
                raise InputProblem(f"The file has more than {MOST_WAYPOINTS:,} places", "", "Export fewer of them.")
            symbol = f"{fields.get('sym', '')} {fields.get('type', '')}".strip()[:80]
            self.waypoints.append(
                Waypoint(
                    name=fields.get("name", "")[:120] or "Unnamed place",
                    lat_deg=lat,
                    lon_deg=lon,
                    note=note[:2000],
                    symbol=symbol,
                )
            )

    def _height(self) -> float | None:
        if "ele" not in self._fields:
            return None
        try:
            height = float(self._fields["ele"])
        except ValueError:
            height = math.nan
        if not is_height(height):
            self.absurd += 1
            return None
        return height


def _parsed(content: bytes, timed: bool, tell: Tell = nobody) -> _Reader:
    bounded(content)
    if not content.strip():
        raise InputProblem("The file is empty", "", "Export it again from your planner or device.")
    reader = _Reader(timed)
    try:
        for start in range(0, len(content), PIECE_BYTES):
            tell(start / len(content))
            reader.parser.Parse(content[start : start + PIECE_BYTES], False)
        reader.parser.Parse(b"", True)
    except (LookupError, UnicodeError, ValueError) as error:
        if isinstance(error, InputProblem):
            raise
        mend = "Export it again, in UTF-8."
        raise InputProblem("The file is written in an encoding that cannot be read", "line 1", mend) from None
    except expat.ExpatError as error:
        points = len(reader.lat) or len(reader.route)
        raise InputProblem(
            f"The file breaks off or is damaged after {points} points: {expat.errors.messages[error.code]}",
            f"line {error.lineno}",
            "Copy or export it again; nothing was taken.",
        ) from None
    return reader


def read_ride(content: bytes) -> tuple[Track, NDArray[np.float64]]:
    """A recorded ride: its points and their times [s], not-a-number where there is none. Raises InputProblem."""
    reader = _parsed(content, timed=True)
    if len(reader.lat) < 2:
        raise InputProblem("The file has no recorded track", "", "Bring the recording of a ride, not a planned route.")
    seconds = np.array([second_of(time) for time in reader.times])
    track = Track(lat_deg=tuple(reader.lat), lon_deg=tuple(reader.lon), elevation_m=tuple(reader.height))
    return track, seconds


def read_gpx(content: bytes, tell: Tell = nobody) -> FoundRoad:
    """Read the tracks (or, without any, the routes) and waypoints of a GPX 1.0 or 1.1 file.

    Raises InputProblem with what is wrong, where and what to do.
    """
    reader = _parsed(content, timed=False, tell=tell)
    lat, lon, heights = reader.lat, reader.lon, reader.height
    remarks = []
    if not lat and reader.route:
        lat, lon, heights = ([p[i] for p in reader.route] for i in range(3))  # type: ignore[assignment]
        remarks.append("The file has a route and no track: its points were joined by straight lines.")
    if len(lat) < 2:
        raise InputProblem(
            f"The file has {len(lat)} usable track points; a road needs at least two", "", "Export the track, not only places."
        )
    remarks += left_out(reader.dropped, reader.absurd, heights)
    if reader._unread_size > MOST_UNREAD:
        remarks.append("The file hangs more than 8 MB of its own on its points; what goes beyond is not handed on.")
    track = Track(
        name=reader.name,
        lat_deg=tuple(lat),
        lon_deg=tuple(lon),
        elevation_m=tuple(heights),
        parts=tuple(reader.parts) if reader.lat else (),
        extensions=reader.extensions,
    )
    remarks += jumps(track)
    return FoundRoad(track, reader.waypoints, remarks)


def write_gpx(name: str, track: Track, days: list[Day], places: Iterable[tuple[Stop, float, float]]) -> str:
    """A GPX 1.1 file with one track a day and a waypoint a stop, given as (stop, latitude, longitude)."""
    document = gpxpy.gpx.GPX()
    document.creator = "Omnifer"
    document.name = name
    for stop, lat, lon in places:
        supplies = [f"{kind}: {what}" for kind, what in (("water", stop.water), ("shop", stop.shop)) if what != "none"]
        note = ", ".join(supplies)
        words = words_of(stop)
        document.waypoints.append(
            gpxpy.gpx.GPXWaypoint(
                lat, lon, name=stop.name, description=note or None, comment=stop.note or None,
                symbol=words[-1].capitalize() if words else None, type=", ".join(words) or None,
            )
        )  # fmt: skip
    along = np.concatenate([[0.0], np.cumsum(segment_lengths(track.lat_deg, track.lon_deg))]) / 1000
    riding = [day for day in days if not day.rest]
    cuts = [int(np.searchsorted(along, day.from_km)) for day in riding] + [along.size - 1]
    unread = _Unread(track.extensions)
    for day, first, last in zip(riding, cuts[:-1], cuts[1:], strict=True):
        part = gpxpy.gpx.GPXTrack(name=f"Day {day.number}, {day.date.isoformat()}, {day.distance_km:.0f} km")
        segment = gpxpy.gpx.GPXTrackSegment()
        for i in range(first, last + 1):
            point = gpxpy.gpx.GPXTrackPoint(track.lat_deg[i], track.lon_deg[i], elevation=track.elevation_m[i])
            point.comment = unread.mark(i)
            segment.points.append(point)
        part.segments.append(segment)
        document.tracks.append(part)
    return unread.put_back(str(document.to_xml()))


class _Unread:
    """Carries makers' extensions past the writer: a mark goes in as a comment and is replaced by what stood there.

    The mark is one that nobody can have written, and what is no XML of its own is left out: it would break the file, or put
    into it what is none of the maker's.
    """

    def __init__(self, extensions: dict[int, str]) -> None:
        self.extensions = {point: text for point, text in extensions.items() if is_whole(text)}
        self._word = secrets.token_hex(16)

    def mark(self, point: int) -> str | None:
        """The comment of a point that had extensions."""
        return f"unread-{self._word}-{point}" if point in self.extensions else None

    def put_back(self, text: str) -> str:
        """The text with every mark replaced."""
        if not self.extensions:
            return text
        pattern = rf"<cmt>unread-{self._word}-(\d+)</cmt>"
        return re.sub(pattern, lambda m: f"<extensions>{self.extensions[int(m[1])]}</extensions>", text)


def is_whole(fragment: str) -> bool:
    """Whether a piece of XML stands by itself: every element closed, every prefix explained, no document type."""
    parser = expat.ParserCreate(namespace_separator=" ")
    declared = []
    parser.StartDoctypeDeclHandler = lambda *_: declared.append(True)
    depth = [0, 0]

    def start(*_: object) -> None:
        depth[0] += 1
        depth[1] += depth[0] == 1

    def end(_: str) -> None:
        depth[0] -= 1

    parser.StartElementHandler, parser.EndElementHandler = start, end
    try:
        parser.Parse(f"<whole>{fragment}</whole>".encode(), True)
    except (expat.ExpatError, UnicodeEncodeError):
        return False
    return not declared and depth[1] == 1
