"""What every reader of a track collects: points with heights and times, parts, places; and words on what was dropped."""

import math
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import Part, Track, Waypoint
from omnifer.formats.found import MOST_PARTS, MOST_POINTS, MOST_WAYPOINTS, FoundRoad, is_height, is_real, jumps, left_out
from omnifer.formats.problem import InputProblem

UNNAMED = "Unnamed place"


@dataclass
class Points:
    """A track as it is read, point by point."""

    name: str = ""
    lat: list[float] = field(default_factory=list)
    lon: list[float] = field(default_factory=list)
    height: list[float | None] = field(default_factory=list)
    seconds: list[float] = field(default_factory=list)
    parts: list[Part] = field(default_factory=list)
    places: list[Waypoint] = field(default_factory=list)
    dropped: int = 0
    absurd: int = 0

    def begin(self, name: str = "") -> None:
        """A part begins with the next point; one without points is none."""
        if self.parts and self.parts[-1].first == len(self.lat):
            self.parts.pop()
        if len(self.parts) < MOST_PARTS:
            self.parts.append(Part(first=len(self.lat), name=name[:120]))

    def add(self, lat: float | None, lon: float | None, height: float | None, seconds: float = math.nan) -> None:
        """A point; one without a real position is left out and counted. Raises InputProblem beyond what can be read."""
        if not is_real(lat, lon):
            self.dropped += 1
            return
        if len(self.lat) >= MOST_POINTS:
            raise InputProblem(f"The track has more than {MOST_POINTS:,} points", "", "Thin it or split it first.")
        if height is not None and not is_height(height):
            height, self.absurd = None, self.absurd + 1
        assert lat is not None
        assert lon is not None
        self.lat.append(lat)
        self.lon.append(lon)
        self.height.append(height)
        self.seconds.append(seconds)

    def place(self, name: str, lat: float | None, lon: float | None, note: str = "", symbol: str = "") -> None:
        """A named place. Raises InputProblem beyond what can be read."""
        if not is_real(lat, lon):
            self.dropped += 1
            return
        if len(self.places) >= MOST_WAYPOINTS:
            raise InputProblem(f"The file has more than {MOST_WAYPOINTS:,} places", "", "Export fewer of them.")
        assert lat is not None
        assert lon is not None
        self.places.append(Waypoint(name=name[:120] or UNNAMED, lat_deg=lat, lon_deg=lon, note=note[:2000], symbol=symbol[:80]))

    def road(self) -> FoundRoad:
        """All of it as a road. Raises InputProblem where it is none."""
        track = self._track()
        return FoundRoad(track, self.places, left_out(self.dropped, self.absurd, self.height) + jumps(track))

    def ride(self) -> tuple[Track, NDArray[np.float64]]:
        """As a recorded ride: the points and their times [s], not-a-number where there is none. Raises InputProblem."""
        return self._track(), np.array(self.seconds)

    def _track(self) -> Track:
        if len(self.lat) < 2:
            what = f"The file has {len(self.lat)} usable track points; a road needs at least two"
            raise InputProblem(what, "", "Export the track, not only places.")
        parts = tuple(part for part in self.parts if part.first < len(self.lat))
        return Track(
            name=self.name[:120], lat_deg=tuple(self.lat), lon_deg=tuple(self.lon), elevation_m=tuple(self.height), parts=parts
        )


def number(text: str) -> float | None:
    """A figure as it is written in a file; None where it is none."""
    try:
        found = float(text)
    except ValueError:
        return None
    return found if math.isfinite(found) else None
