"""Cold, heat and odds: what weather figures mean to a rider."""

from statistics import NormalDist

import numpy as np
from numpy.typing import ArrayLike, NDArray

LAPSE_K_PER_M = 0.0065
"""ISO 2533, fall of temperature with height [K/m]."""


def wind_chill(temperature_c: ArrayLike, wind_kmh: ArrayLike) -> NDArray[np.float64]:
    """Wind chill temperature [°C]; the air's own temperature above 10 °C or below 4.8 km/h, where it is not defined.

    Parameters
    ----------
    temperature_c : array_like
        Air temperature [°C].
    wind_kmh : array_like
        Wind at 10 m, or the air speed at the face, which makes it slightly too mild [km/h].

    References
    ----------
    JAG/TI (2001); Osczevski and Bluestein (2005), Bull. Amer. Meteor. Soc. 86:1453.
    """
    air, wind = np.asarray(temperature_c, dtype=float), np.asarray(wind_kmh, dtype=float)
    power = np.maximum(wind, 4.8) ** 0.16
    felt = 13.12 + 0.6215 * air - 11.37 * power + 0.3965 * air * power
    return np.where((air <= 10) & (wind >= 4.8), np.minimum(felt, air), air)


def heat_index(temperature_c: ArrayLike, humidity_pct: ArrayLike) -> NDArray[np.float64]:
    """Heat index in the shade [°C]; the air's own temperature where the index says less.

    Add up to 8 K in full sun. Understates extreme heat.

    References
    ----------
    Rothfusz (1990), NWS Technical Attachment SR 90-23, with its adjustments for dry and for humid air.
    """
    air, damp = np.asarray(temperature_c, dtype=float), np.asarray(humidity_pct, dtype=float)
    f = air * 1.8 + 32
    simple = 0.5 * (f + 61 + (f - 68) * 1.2 + damp * 0.094)
    full = (
        -42.379 + 2.04901523 * f + 10.14333127 * damp - 0.22475541 * f * damp - 6.83783e-3 * f**2
        - 5.481717e-2 * damp**2 + 1.22874e-3 * f**2 * damp + 8.5282e-4 * f * damp**2 - 1.99e-6 * f**2 * damp**2
    )  # fmt: skip
    dry = (13 - damp) / 4 * np.sqrt(np.maximum(17 - np.abs(f - 95), 0) / 17)
    humid = (damp - 85) / 10 * (87 - f) / 5
    full = full - np.where((damp < 13) & (f >= 80) & (f <= 112), dry, 0.0)
    full = full + np.where((damp > 85) & (f >= 80) & (f <= 87), humid, 0.0)
    index = np.where((simple + f) / 2 < 80, simple, full)
    return np.asarray(np.maximum((index - 32) / 1.8, air))


def exceeded(mean: ArrayLike, spread: ArrayLike, odds: float) -> NDArray[np.float64]:
    """The value that a normally distributed figure exceeds with the given odds; of the mirrored figure, falls below.

    Parameters
    ----------
    mean, spread : array_like
        Mean and standard deviation; a negative spread gives the value that is undercut.
    odds : float
        Probability, 0.1 for one day in ten [-].
    """
    return np.asarray(np.asarray(mean, dtype=float) + NormalDist().inv_cdf(1 - odds) * np.asarray(spread, dtype=float))


def coldest_of(mean_c: float, spread_k: float, nights: int, odds: float) -> float:
    """The temperature that the coldest of so many nights falls below with the given odds [°C].

    Nights are taken as independent, which is cautious: cold comes in spells.

    References
    ----------
    Extreme of a normal sample: mean + spread * z(1 - (1 - odds)^(1/n)).
    """
    return mean_c + spread_k * NormalDist().inv_cdf(1 - (1 - odds) ** (1 / nights))
