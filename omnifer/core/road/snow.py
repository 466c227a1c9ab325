"""Passes under snow: which a road has, and how cold the weeks before each day of the year are up there."""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import Road
from omnifer.core.road.climate import months_at
from omnifer.core.road.normals import smooth_year
from omnifer.core.road.profile import Profile

PASS_M, STANDS_OUT_M = 1500.0, 400.0
"""A pass so high, and so high above the road on both its sides, may be shut by snow; lower roads are kept open [m]; practice."""
SNOW_DAYS, FREEZES_C = 60, 0.0
"""Snow lies where the air of so many days is on average no warmer [d, °C]; practice. By normals of mountain stations, from
memory, it lies at 2,750 m in the Alps until the middle of June, when a road there opens."""


@lru_cache(maxsize=4)
def passes_of(road: Profile) -> tuple[tuple[float, float], ...]:
    """The passes of a high road: where they are, and how high [km, m]; none of a road without heights."""
    if not road.has_heights or float(road.elevation_m.max()) < PASS_M:
        return ()
    from scipy.signal import find_peaks  # a fifth of a second that only high roads cost

    found = find_peaks(road.elevation_m, height=PASS_M, prominence=STANDS_OUT_M)[0].tolist()
    return tuple((float(road.km[top]), float(road.elevation_m[top])) for top in found)


def air_before(profile: Profile, road: Road, at_km: float) -> NDArray[np.float64]:
    """Usual air, on average of the weeks before each day of the year, where the road is at a kilometre, shape (365,) [°C]."""
    months = months_at(profile, road, at_km)
    mean = np.array([(month.mean_max_c + month.mean_min_c) / 2 for month in months])
    weeks = np.arange(365.0)[:, None] - np.arange(1, SNOW_DAYS + 1)
    return np.asarray(smooth_year(weeks, mean).mean(axis=1))
