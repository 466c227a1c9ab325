"""Tracks of any kind: read by their content, joined, reversed, trimmed."""

import re
from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import Part, Track
from omnifer.core.physics.geodesy import segment_lengths
from omnifer.formats.fit import read_fit_file
from omnifer.formats.found import FoundRoad, Tell, jumps, nobody
from omnifer.formats.geojson import read_geojson
from omnifer.formats.gpx import read_gpx, read_ride
from omnifer.formats.kml import read_kml, read_kmz
from omnifer.formats.points import Points
from omnifer.formats.tcx import read_tcx


def read_tracks(contents: Sequence[bytes], tell: Tell) -> FoundRoad:
    """Track files joined in the order given. Raises InputProblem."""
    total = sum(map(len, contents)) or 1

    def part(number: int) -> Tell:
        before, size = sum(map(len, contents[:number])), len(contents[number])
        return lambda share: tell((before + share * size) / total)

    return join([read_track(content, part(number)) for number, content in enumerate(contents)])


def read_track(content: bytes, tell: Tell = nobody) -> FoundRoad:
    """A track file, by what stands in it: GPX, GeoJSON, FIT, TCX, KML or KMZ. Raises InputProblem."""
    kind = kind_of(content)
    if kind in RECORDERS:
        return RECORDERS[kind](content, tell).road()
    return read_geojson(content) if kind == "geojson" else read_gpx(content, tell)


def read_recording(content: bytes) -> tuple[Track, NDArray[np.float64]]:
    """A recorded ride of any kind: its points and their times [s], not-a-number where there is none. Raises InputProblem."""
    kind = kind_of(content)
    return RECORDERS[kind](content, nobody).ride() if kind in RECORDERS else read_ride(content)


RECORDERS: dict[str, Callable[[bytes, Tell], Points]] = {"fit": read_fit_file, "tcx": read_tcx, "kml": read_kml, "kmz": read_kmz}
SUFFIXES = (".gpx", ".fit", ".tcx", ".kml", ".kmz", ".geojson", ".json")
"""What files of a road are called."""
ROOTS = re.compile(rb"<(?:[\w.-]+:)?(gpx|TrainingCenterDatabase|kml)[\s>/]")
LOOKED_AT = 4096
"""Of the begin of a file, to know what it is [bytes]."""


def kind_of(content: bytes) -> str:
    """What kind of track file this is, by its content; what is no other is taken for GPX, whose reader says what is wrong."""
    head = content[:LOOKED_AT].lstrip(b"\xef\xbb\xbf \t\r\n")
    if content[8:12] == b".FIT":
        return "fit"
    if head[:2] == b"PK":
        return "kmz"
    if head[:1] in (b"{", b"["):
        return "geojson"
    root = ROOTS.search(head)
    return {b"TrainingCenterDatabase": "tcx", b"kml": "kml"}.get(root[1] if root else b"", "gpx")


def join(roads: list[FoundRoad]) -> FoundRoad:
    """Several roads, one after the other in the order given. A single road stays as it is."""
    if len(roads) == 1:
        return roads[0]
    parts: list[Part] = []
    extensions: dict[int, str] = {}
    start = 0
    for road in roads:
        own = road.track.parts or (Part(first=0, name=road.track.name),)
        parts += [Part(first=start + part.first, name=part.name or road.track.name) for part in own]
        extensions |= {start + point: text for point, text in road.track.extensions.items()}
        start += len(road.track.lat_deg)
    track = Track(
        name=roads[0].track.name,
        lat_deg=tuple(v for road in roads for v in road.track.lat_deg),
        lon_deg=tuple(v for road in roads for v in road.track.lon_deg),
        elevation_m=tuple(v for road in roads for v in road.track.elevation_m),
        parts=tuple(parts),
        extensions=extensions,
    )
    remarks = [remark for road in roads for remark in road.remarks if "straight lines join" not in remark]
    return FoundRoad(track, [w for road in roads for w in road.waypoints], [*dict.fromkeys(remarks), *jumps(track)])


def reverse(track: Track) -> Track:
    """The track ridden the other way."""
    size = len(track.lat_deg)
    starts = [part.first for part in track.parts] or [0]
    ends = [*starts[1:], size]
    names = [part.name for part in track.parts] or [track.name]
    parts = [Part(first=size - end, name=name) for end, name in zip(ends, names, strict=True)][::-1]
    return track.model_copy(
        update={
            "lat_deg": track.lat_deg[::-1],
            "lon_deg": track.lon_deg[::-1],
            "elevation_m": track.elevation_m[::-1],
            "parts": tuple(parts) if track.parts else (),
            "extensions": {size - 1 - point: text for point, text in track.extensions.items()},
        }
    )


def trim(track: Track, from_km: float, to_km: float) -> Track:
    """The points between two kilometres. Raises ValueError where fewer than two are left."""
    along = np.concatenate([[0.0], np.cumsum(segment_lengths(track.lat_deg, track.lon_deg))]) / 1000
    first = int(np.searchsorted(along, from_km - 1e-6))
    last = int(np.searchsorted(along, to_km + 1e-6, side="right"))
    if last - first < 2:
        raise ValueError(f"between km {from_km:g} and km {to_km:g} lie fewer than two points")
    kept = [p for p in track.parts if first < p.first < last]
    before = [p for p in track.parts if p.first <= first]
    parts = [Part(first=0, name=before[-1].name if before else track.name), *kept]
    return Track(
        name=track.name,
        lat_deg=track.lat_deg[first:last],
        lon_deg=track.lon_deg[first:last],
        elevation_m=track.elevation_m[first:last],
        parts=tuple(Part(first=max(p.first - first, 0) if p in kept else 0, name=p.name) for p in parts) if track.parts else (),
        extensions={point - first: text for point, text in track.extensions.items() if first <= point < last},
    )
