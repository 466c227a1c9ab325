"""The road cut into days."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import DayCut, Stop, TypedDay
from omnifer.core.road.profile import Profile

LONGEST_TOUR_DAYS = 400
SHORTEST_LAST_DAY = 0.25
"""A rest of the road shorter than this part of a day is ridden on the day before."""
NEAR_SHARE = 0.3
"""A stop is near a day's end within this part of a day's length; practice."""

Array = NDArray[np.float64]


def boundaries(profile: Profile, hours: Array, cut: DayCut, typed: tuple[TypedDay, ...], stops: tuple[Stop, ...]) -> Array:
    """Kilometres at which the days begin, and the end of the road [km].

    Parameters
    ----------
    hours : numpy.ndarray
        Riding hours to each point of the profile [h].
    typed : tuple of TypedDay
        Where the road was typed, its days stand as they are.
    stops : tuple of Stop
        Where the cut says so, a day ends at the stop with sure water nearest to its length.
    """
    if typed:
        ends = np.cumsum([day.distance_km for day in typed])
        ends[-1] = profile.length_km
        return np.concatenate([[0.0], ends])
    along, size = (hours, cut.hours) if cut.by == "hours" else (profile.km, cut.distance_km)
    size = max(size, along[-1] / LONGEST_TOUR_DAYS)
    sure_km = sorted(s.at_km for s in stops if s.water == "reliable" and 0 < s.at_km < profile.length_km)
    sure = np.interp(sure_km, profile.km, along) if cut.to_stops else np.array([])
    ends_along = [0.0]
    while along[-1] - ends_along[-1] > size * (1 + SHORTEST_LAST_DAY):
        target = ends_along[-1] + size
        near = sure[np.abs(sure - target) <= NEAR_SHARE * size]
        ends_along.append(float(near[np.argmin(np.abs(near - target))]) if near.size else target)
    inner = np.interp(ends_along[1:], along, profile.km)
    return np.concatenate([[0.0], inner, [profile.length_km]])
