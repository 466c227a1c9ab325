"""A recorded ride laid on the road as planned."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import Track
from omnifer.core.physics import geodesy
from omnifer.core.road.profile import Profile

OFF_KM = 2.0
"""Further off, a point is not on the road [km]; practice."""


@dataclass(frozen=True)
class Laid:
    """Where a ride ends on the road.

    Attributes
    ----------
    km, off_km : float
        Kilometre of the road, and how far the ride's end lies off it [km].
    on_road : float
        Part of the ride's points that lie on the road [-].
    """

    km: float
    off_km: float
    on_road: float


def laid_on(road: Profile, track: Track) -> Laid | None:
    """Where a ride's last point lies on the road; None where it ends nowhere near it.

    Where the road comes by the same place twice, the pass counts that the ride's own length leads to.
    """
    lat, lon = np.array(track.lat_deg), np.array(track.lon_deg)
    found = road.nearest_of_all(lat, lon)
    if found is None:
        return None
    at_km, off_km = found
    near = off_km <= OFF_KM
    if not near[-1]:
        return None
    first = int(np.argmax(near))
    ridden_km = float(geodesy.segment_lengths(lat[first:], lon[first:]).sum()) / 1000 if first < lat.size - 1 else 0.0
    distance = road.distance_to(float(lat[-1]), float(lon[-1]))
    passes = _lowest(distance, float(off_km[-1]) + 0.1)
    expected = float(at_km[first]) + ridden_km
    best = min(passes, key=lambda k: abs(float(road.km[k]) - expected))
    return Laid(round(float(road.km[best]), 2), round(float(distance[best]), 3), round(float(near.mean()), 3))


def _lowest(distance: NDArray[np.float64], most: float) -> list[int]:
    """The nearest point of each pass of the road that comes within a distance."""
    inside = np.flatnonzero(distance <= most)
    passes = np.split(inside, np.flatnonzero(np.diff(inside) > 1) + 1)
    return [int(one[np.argmin(distance[one])]) for one in passes if one.size]
