"""The design weather along the road."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.road import Weather
from omnifer.core.road.profile import Profile

LAPSE_K_PER_M = 0.0065
"""ISO 2533, fall of temperature with height [K/m]."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Climate:
    """Hot days, cold nights and humidity at every point of a profile."""

    day_high_c: Array
    night_low_c: Array
    humidity_pct: Array
    known: bool

    @property
    def riding_c(self) -> Array:
        """Temperature of the hours in which one rides on a hot day [°C]."""
        return self.night_low_c + practice.RIDING_HEAT_SHARE * (self.day_high_c - self.night_low_c)


def along(profile: Profile, weather: Sequence[Weather]) -> Climate:
    """The weather of each point: the stretch it lies in, corrected for height by the standard lapse rate.

    Without weather the named defaults hold everywhere, and the climate says that it is not known.
    """
    stretches = sorted(weather, key=lambda w: w.from_km)
    known = bool(stretches)
    if not known:
        stretches = [
            Weather(
                from_km=0,
                day_high_c=practice.DEFAULT_DAY_HIGH_C,
                night_low_c=practice.DEFAULT_NIGHT_LOW_C,
                humidity_pct=practice.DEFAULT_HUMIDITY_PCT,
            )
        ]
    starts = np.array([w.from_km for w in stretches])
    index = np.clip(np.searchsorted(starts, profile.km, side="right") - 1, 0, None)

    def figures(name: str) -> Array:
        return np.array([float(getattr(w, name)) for w in stretches])[index]

    cooling = LAPSE_K_PER_M * (profile.elevation_m - figures("at_elevation_m")) if profile.has_heights else 0.0
    return Climate(figures("day_high_c") - cooling, figures("night_low_c") - cooling, figures("humidity_pct"), known)
