"""Heights for a track that has none, or not everywhere."""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import Track
from omnifer.core.physics.geodesy import segment_lengths

APART_M = 90.0
"""A service is asked from one point to the next so far on: what published grids are apart [m]."""

Array = NDArray[np.float64]


def lacking(track: Track) -> NDArray[np.intp]:
    """Points without a height."""
    return np.flatnonzero([height is None for height in track.elevation_m])


def thinned(track: Track, points: NDArray[np.intp]) -> NDArray[np.intp]:
    """Of some points of a track the first of each `APART_M`, and the last; between them heights are bridged."""
    along = np.concatenate([[0.0], np.cumsum(segment_lengths(track.lat_deg, track.lon_deg))])[points]
    first = np.concatenate([[True], np.diff(np.floor(along / APART_M)) > 0])
    return np.asarray(points[first | (np.arange(points.size) == points.size - 1)])


def bridged(track: Track) -> Track:
    """The track with straight lines between the points that have a height; one without any stays as it is."""
    known = np.flatnonzero([height is not None for height in track.elevation_m])
    if not known.size:
        return track
    along = np.concatenate([[0.0], np.cumsum(segment_lengths(track.lat_deg, track.lon_deg))])
    heights = np.interp(along, along[known], np.array([track.elevation_m[n] for n in known.tolist()], dtype=float))
    return track.model_copy(update={"elevation_m": tuple(np.round(heights, 1).tolist())})


def with_heights(track: Track, points: NDArray[np.intp], heights_at: Callable[[Array, Array], Array]) -> tuple[Track, int]:
    """A track with heights at some points, and for how many of these nobody knows one."""
    lat, lon = np.array(track.lat_deg)[points], np.array(track.lon_deg)[points]
    found = heights_at(lat, lon)
    told: list[float | None] = list(track.elevation_m)
    for point, height in zip(points.tolist(), found.tolist(), strict=True):
        if np.isfinite(height):
            told[point] = round(height, 1)
    return track.model_copy(update={"elevation_m": tuple(told)}), int(np.isnan(found).sum())
