"""What all readers of tracks share: bounds, what they give, and words on what is odd or was left out."""

import datetime as dt
import math
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np

from omnifer.core.model.road import HIGHEST_M, LOWEST_M, Track, Waypoint
from omnifer.core.physics.geodesy import segment_lengths
from omnifer.formats.problem import InputProblem

MOST_BYTES = 32 * 1024 * 1024
MOST_POINTS = 1_000_000
MOST_DEPTH = 40
MOST_PARTS = 2000
MOST_WAYPOINTS = 20_000
MOST_ATTRIBUTES = 64
"""Of one element."""
JUMP_M = 2000.0
"""Parts of a track farther apart than this do not join [m]."""
BARE_M = 15_000.0
"""A line this long without a point is no ridden road, where most of the track has more points [m]; practice."""
PIECE_BYTES = 1 << 20
"""Read at a time, telling how far it is."""
Tell = Callable[[float], None]
"""Is told the part that has been read [-]."""


def nobody(_: float) -> None:
    """Nobody wants to know."""


@dataclass(frozen=True)
class FoundRoad:
    """What a file holds: its points as one track, its waypoints, and what was dropped on the way, in words."""

    track: Track
    waypoints: list[Waypoint]
    remarks: list[str] = field(default_factory=list)


def bounded(content: bytes) -> None:
    """Raises InputProblem where a file is larger than can be read."""
    if len(content) > MOST_BYTES:
        size, most = len(content) / 2**20, MOST_BYTES // 2**20
        raise InputProblem(f"The file has {size:.0f} MB; {most} MB can be read", "", "Thin the track or split it.")


def is_real(lat: float | None, lon: float | None) -> bool:
    """Whether this is a position, and not one that a device writes while it knows none."""
    if lat is None or lon is None or not (math.isfinite(lat) and math.isfinite(lon)):
        return False
    return abs(lat) <= 90 and abs(lon) <= 180 and not (lat == 0 and lon == 0)


def is_height(height: float) -> bool:
    """Whether a road can lie so high [m]."""
    return LOWEST_M <= height <= HIGHEST_M


def left_out(dropped: int, absurd: int, heights: Sequence[float | None]) -> list[str]:
    """A word on points without a position, on heights that no road has, and where there are none at all."""
    remarks = []
    if dropped:
        remarks.append(f"{dropped} points without a real position (missing, or at 0/0) were left out.")
    if absurd:
        remarks.append(f"{absurd} heights beyond {LOWEST_M:.0f} to {HIGHEST_M:.0f} m were taken as missing.")
    if all(h is None for h in heights):
        remarks.append("The track has no heights: climbs cannot be known.")
    return remarks


def second_of(text: str) -> float:
    """A time of the form 2027-05-01T10:00:00Z as seconds since 1970; not-a-number where there is none such."""
    stamp = text.replace("Z", "").split("+")[0][:19]
    if not re.fullmatch(r"\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d", stamp):
        return math.nan
    try:
        return dt.datetime.fromisoformat(stamp).replace(tzinfo=dt.UTC).timestamp()
    except ValueError:
        return math.nan


def jumps(track: Track) -> list[str]:
    """A word on parts that do not join, and on long lines without a point: perhaps a ferry, perhaps a missing day."""
    steps = segment_lengths(np.array(track.lat_deg), np.array(track.lon_deg))
    begin = np.array([part.first - 1 for part in track.parts[1:]], dtype=int)
    far = int((steps[begin] > JUMP_M).sum())
    bare = np.setdiff1d(np.flatnonzero(steps > BARE_M), begin)
    remarks = []
    if far:
        words = f"{far} parts begin more than {JUMP_M / 1000:.0f} km from where the one before ends; straight lines join them."
        remarks.append(words + " Mark a ferry or train as a transfer.")
    if bare.size and bare.size < steps.size / 2:
        km, first = steps[bare].max() / 1000, float(steps[: bare[0]].sum()) / 1000
        lines = f"{bare.size} straight lines" if bare.size > 1 else "a straight line"
        words = f"From km {first:.0f} on the track has {lines} of up to {km:.0f} km without a point."
        remarks.append(words + " Over water it counts as ridden until you mark it as a transfer.")
    return remarks
