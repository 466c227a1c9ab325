"""The air a rider moves through."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

GRAVITY = 9.80665
"""Standard acceleration of free fall, exact by definition [m/s²]."""
DRY_AIR_GAS_CONSTANT = 287.05287
"""Specific gas constant of dry air, ISO 2533:1975 [J/(kg K)]."""


def standard_temperature(altitude_m: ArrayLike) -> NDArray[np.float64]:
    """Air temperature of the standard atmosphere [K].

    Parameters
    ----------
    altitude_m : array_like
        Geopotential altitude, -2000 to 11000 [m].

    References
    ----------
    ISO 2533:1975, Standard Atmosphere (troposphere).
    """
    return 288.15 - 0.0065 * np.asarray(altitude_m, dtype=float)


def standard_pressure(altitude_m: ArrayLike) -> NDArray[np.float64]:
    """Air pressure of the standard atmosphere [Pa].

    Parameters
    ----------
    altitude_m : array_like
        Geopotential altitude, -2000 to 11000 [m].

    References
    ----------
    ISO 2533:1975, Standard Atmosphere (troposphere).
    """
    return np.asarray(101325.0 * (standard_temperature(altitude_m) / 288.15) ** 5.25588)


def density(altitude_m: ArrayLike, temperature_c: ArrayLike | None = None) -> NDArray[np.float64]:
    """Density of dry air at the standard pressure of an altitude [kg/m³].

    Parameters
    ----------
    altitude_m : array_like
        Geopotential altitude [m].
    temperature_c : array_like, optional
        Actual air temperature [°C]; the standard atmosphere's where left out.

    References
    ----------
    ISO 2533:1975, Standard Atmosphere; ideal gas law.
    """
    kelvin = standard_temperature(altitude_m) if temperature_c is None else np.asarray(temperature_c, dtype=float) + 273.15
    return np.asarray(standard_pressure(altitude_m) / (DRY_AIR_GAS_CONSTANT * kelvin))


def vapour_pressure(temperature_c: ArrayLike, humidity_pct: ArrayLike) -> NDArray[np.float64]:
    """Partial pressure of water vapour [kPa].

    Parameters
    ----------
    temperature_c : array_like
        Air temperature [°C].
    humidity_pct : array_like
        Relative humidity [%].

    References
    ----------
    ISO 7933, annex on the saturated vapour pressure (Magnus form).
    """
    t = np.asarray(temperature_c, dtype=float)
    return np.asarray(np.asarray(humidity_pct) / 100 * 0.6105 * np.exp(17.27 * t / (t + 237.3)))
