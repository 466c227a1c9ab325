"""How long wet clothes take to dry."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.air import vapour_pressure

STILL_C, STILL_PCT = 20.0, 50.0
"""Air for which drying times of clothes are told [°C, %]; practice: still air in a room."""
WIND_S_M = 0.54
"""Of Penman's wind function, per metre a second two metres up [s/m]."""
LEAST_DEFICIT_KPA = 0.05
"""In air more saturated than this nothing dries; it is counted as this."""


def drying_hours(told_h: ArrayLike, temperature_c: ArrayLike, humidity_pct: ArrayLike, wind_ms: ArrayLike) -> NDArray[np.float64]:
    """Hours until clothes are dry that take so many in still air at 20 °C and half saturated [h].

    Water leaves by what the air lacks of saturation, times a function of the wind: E = 0.26 (1 + 0.54 u) (e_s - e_a).
    Sun is left out; it shortens the time.

    Parameters
    ----------
    told_h : array-like
        In still air at 20 °C and 50 % [h].
    temperature_c, humidity_pct, wind_ms : array-like
        Of the air where they hang [°C, %, m/s].

    References
    ----------
    Penman (1948), Natural evaporation from open water, bare soil and grass, Proc. R. Soc. A 193, doi:10.1098/rspa.1948.0037,
    wind function from memory.
    """
    saturated = vapour_pressure(temperature_c, 100.0)
    lacks = np.maximum(saturated - vapour_pressure(temperature_c, humidity_pct), LEAST_DEFICIT_KPA)
    told = vapour_pressure(STILL_C, 100.0) - vapour_pressure(STILL_C, STILL_PCT)
    return np.asarray(np.asarray(told_h) * told / (lacks * (1 + WIND_S_M * np.asarray(wind_ms))))
