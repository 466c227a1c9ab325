"""What follows from a month's mean temperature and rain: the day's range, how days vary, rain days, moisture, how sure it is."""

import datetime as dt

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.air import vapour_pressure
from omnifer.core.physics.sun import declination

SOLAR_CONSTANT = 0.0820
"""[MJ/(m² min)]; FAO Irrigation and Drainage Paper 56 (1998), eq. 21; from memory."""
RANGE_K, RANGE_RAIN_MM, RANGE_BY_RAIN, RANGE_BY_SEA, RANGE_BY_SUN, RANGE_SUN_MJ = 14.1, 20.0, 0.207, 1.27, 0.351, 30.0
LEAST_SUN_MJ = 4.0
"""Fitted to four months of 35 places' normals (from memory): 95 % of their mean minima within 3 K; see tests for 40 others."""
WIDTH_K, WIDTH_BY_ROUGH = 1.5, 0.005
"""What of a mean minimum is not known on even land, and for each metre that the land rises and falls within a cell [K, K/m];
standard deviations, fitted to the same places."""
SPREAD_MIN_K, SPREAD_MIN_YEAR, SPREAD_MIN_WINTER = 1.1, 0.04, 0.16
SPREAD_MAX_K, SPREAD_MAX_YEAR = 1.5, 0.11
MOST_SPREAD_K = 7.0
"""How daily minima and maxima vary, by the year's swing of the means: fitted by eye to daily records of seven places that
statistics packages carry (Clemson, Auckland, Beijing, Chicago, Mumbai, San Diego, Seattle): within 1 K for most months."""
RAIN_OF_A_WET_DAY_MM, DAYS_A_MONTH = 8.0, 30.4
"""Fitted to the same records."""
EVAPORATION = 0.0023
"""Hargreaves and Samani (1985), Appl. Eng. Agric. 1:96, as FAO-56 eq. 52; from memory."""
LATENT_MJ = 2.45
"""To evaporate a kilogram of water [MJ/kg]; FAO-56."""
ARID_K = 4.0
"""By how much the dew point lies below the minimum where nothing grows [K]; FAO-56 annex 6 says 2 to 5, from memory."""

Array = NDArray[np.float64]
MIDDLES = tuple(dt.date(2001, month, 15) for month in range(1, 13))


def daily_radiation(lat_deg: ArrayLike, date: dt.date) -> Array:
    """Sunlight outside the atmosphere on level ground in a day [MJ/m²].

    References
    ----------
    FAO Irrigation and Drainage Paper 56 (1998), eq. 21 to 25; from memory.
    """
    lat, tilt = np.radians(lat_deg), declination(date)
    nearer = 1 + 0.033 * np.cos(2 * np.pi * date.timetuple().tm_yday / 365)
    half_day = np.arccos(np.clip(-np.tan(lat) * np.tan(tilt), -1, 1))
    up = half_day * np.sin(lat) * np.sin(tilt) + np.cos(lat) * np.cos(tilt) * np.sin(half_day)
    return np.asarray(24 * 60 / np.pi * SOLAR_CONSTANT * nearer * up)


def daily_range(rain_mm: ArrayLike, radiation_mj: ArrayLike, sea: ArrayLike) -> Array:
    """Mean maximum less mean minimum [K]: wide under a dry sky and a high sun, narrow by the sea.

    Parameters
    ----------
    rain_mm : array_like
        Of the month [mm]; it stands for clouds.
    radiation_mj : array_like
        Outside the atmosphere [MJ/m² a day].
    sea : array_like
        Share of sea within some 50 km [-].

    References
    ----------
    The quantities are those of Hargreaves and Samani (1985); the figures were fitted here, see RANGE_K.
    """
    clouds = (1 + np.asarray(rain_mm, dtype=float) / RANGE_RAIN_MM) ** -RANGE_BY_RAIN
    sun = (np.maximum(radiation_mj, LEAST_SUN_MJ) / RANGE_SUN_MJ) ** RANGE_BY_SUN
    return np.asarray(RANGE_K * clouds * sun * np.exp(-RANGE_BY_SEA * np.asarray(sea, dtype=float)))


def spreads(mean_c: Array) -> tuple[Array, Array]:
    """Standard deviations of daily maxima and minima in each month, from the months' means, shape (12, places) [K, K]."""
    year = np.ptp(mean_c, axis=0)
    winter = (mean_c.max(axis=0) - mean_c) / np.maximum(year, 1e-9)
    of_max = np.broadcast_to(SPREAD_MAX_K + SPREAD_MAX_YEAR * year, mean_c.shape)
    of_min = SPREAD_MIN_K + year * (SPREAD_MIN_YEAR + SPREAD_MIN_WINTER * winter)
    return np.minimum(of_max, MOST_SPREAD_K), np.minimum(of_min, MOST_SPREAD_K)


def rain_days(rain_mm: ArrayLike) -> Array:
    """Days of a month with 1 mm or more [d]; see RAIN_OF_A_WET_DAY_MM."""
    return np.asarray(DAYS_A_MONTH * -np.expm1(-np.asarray(rain_mm, dtype=float) / (RAIN_OF_A_WET_DAY_MM * DAYS_A_MONTH)))


def humidity(mean_c: ArrayLike, range_k: ArrayLike, rain_mm: ArrayLike, radiation_mj: ArrayLike) -> Array:
    """Mean relative humidity of a day [%]: the dew point is the minimum, or lower where more would evaporate than rains.

    References
    ----------
    FAO Irrigation and Drainage Paper 56 (1998), eq. 48, 52 and annex 6; from memory.
    """
    mean, wide = np.asarray(mean_c, dtype=float), np.asarray(range_k, dtype=float)
    low, high = mean - wide / 2, mean + wide / 2
    would = DAYS_A_MONTH * EVAPORATION * np.maximum(mean + 17.8, 0) * np.sqrt(wide) * np.asarray(radiation_mj) / LATENT_MJ
    arid = 1 - np.minimum(np.asarray(rain_mm) / np.maximum(would, 1e-9), 1)
    saturated = (vapour_pressure(low, 100.0) + vapour_pressure(high, 100.0)) / 2
    return np.asarray(np.clip(100 * vapour_pressure(low - ARID_K * arid, 100.0) / saturated, 5, 100))


def width(rough_m: ArrayLike) -> Array:
    """How far the mean minima may be off: a standard deviation [K]; see WIDTH_K.

    Parameters
    ----------
    rough_m : array_like
        How much the land rises and falls within a cell (standard deviation) [m].
    """
    return np.hypot(WIDTH_K, WIDTH_BY_ROUGH * np.asarray(rough_m, dtype=float))
