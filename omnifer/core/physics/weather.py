"""Cold, heat and odds: what weather figures mean to a rider."""

from collections.abc import Sequence
from functools import cache
from statistics import NormalDist

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy import special

LAPSE_K_PER_M = 0.0065
"""ISO 2533, fall of temperature with height [K/m]."""
HIGH_LAG_H, LOW_LAG_H, COOLING = 1.86, -0.17, 2.20
"""Lag of the day's high behind noon and of its low behind sunrise [h], and how fast a night cools [-]; Parton and Logan 1981."""
MOST_SPREADS, CLOSE_K = 8.0, 1e-4
"""How far from the mean the coldest night is sought [standard deviations], and how closely [K]."""
NINE_IN_TEN = 1.645
"""Standard deviations to each side that hold nine of ten; the normal distribution."""
QUADRATURE = 12
"""Points at which an error that all nights share is looked at: within 0.01 of a probability (checked in tests)."""


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
    JAG/TI (2001); Osczevski and Bluestein (2005), Bull. Amer. Meteor. Soc. 86:1453,
    doi:10.1175/BAMS-86-10-1453; from memory.
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
    Rothfusz (1990), NWS Technical Attachment SR 90-23, with its adjustments for dry and for humid air;
    from memory.
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


def coldest_of(mean_c: ArrayLike, spread_k: ArrayLike, odds: float, width_k: ArrayLike = 0.0) -> float:
    """The temperature that the coldest of several nights falls below with the given odds [°C].

    Nights are taken as independent, which is cautious: cold comes in spells. What is not known of their means is not: it is one
    error for all of them.

    Parameters
    ----------
    mean_c, spread_k : array_like, shape (nights,)
        Mean and standard deviation of each night's minimum [°C, K].
    odds : float
        Probability that some night is colder [-].
    width_k : array_like, shape (nights,), optional
        How far the means may be off together: standard deviations [K].

    References
    ----------
    Extreme of independent normal figures: 1 - product of (1 - Phi((x - mean) / spread)) = odds, solved by halving. Of n
    nights alike: mean + spread * z(1 - (1 - odds)^(1/n)).
    """
    mean, spread = np.atleast_1d(np.asarray(mean_c, dtype=float)), np.atleast_1d(np.asarray(spread_k, dtype=float))
    whole = np.hypot(spread, width_k)
    low, high = float((mean - MOST_SPREADS * whole).min()), float((mean + MOST_SPREADS * whole).min())
    while high - low > CLOSE_K:
        middle = (low + high) / 2
        low, high = (middle, high) if some_below(mean, spread, middle, width_k) < odds else (low, middle)
    return (low + high) / 2


def some_below(mean_c: ArrayLike, spread_k: ArrayLike, borne_c: ArrayLike, width_k: ArrayLike = 0.0) -> float:
    """Probability that some of several nights is colder than is borne on it [-]; see `coldest_of`.

    Parameters
    ----------
    mean_c, spread_k : array_like, shape (nights,)
        Mean and standard deviation of each night's minimum [°C, K].
    borne_c : float or array_like, shape (nights,)
        Down to where each is borne [°C].
    width_k : array_like, shape (nights,), optional
        How far the means may be off together: standard deviations [K].

    References
    ----------
    The shared error is summed over by the quadrature of Gauss and Hermite (Abramowitz and Stegun 1964, 25.4.46).
    """
    mean, spread, borne, width = (np.ravel(x) for x in np.broadcast_arrays(mean_c, spread_k, borne_c, width_k))
    errors, weights = _quadrature() if width.any() else (np.zeros(1), np.ones(1))
    colder = borne - (mean + errors[:, None] * width)
    known = spread <= 0
    each = np.where(known, colder < 0, special.ndtr(-colder / np.where(known, 1.0, spread)))
    return 1 - float(weights @ each.prod(axis=1) / weights.sum())


@cache
def _quadrature() -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Points and weights for the standard normal distribution."""
    return np.polynomial.hermite_e.hermegauss(QUADRATURE)


def chance_of_run(chances: Sequence[float], length: int) -> float:
    """Probability that so many days running are wet, each wet by itself [-].

    Parameters
    ----------
    chances : sequence of float
        Of each day in turn [-].
    length : int
        Of the run [d].
    """
    running = [1.0] + [0.0] * (length - 1)
    come = 0.0
    for wet in chances:
        come += running[-1] * wet
        running = [sum(running) * (1 - wet), *(been * wet for been in running[:-1])]
    return come


def daily_course(
    hour: ArrayLike, low_c: ArrayLike, high_c: ArrayLike, sunrise_h: ArrayLike, sunset_h: ArrayLike
) -> NDArray[np.float64]:
    """Air temperature at an hour of a day between its low and its high [°C]; see `share_of_day`.

    Parameters
    ----------
    hour, sunrise_h, sunset_h : array_like
        By one and the same clock, the hour beyond 24 after midnight [h].
    low_c, high_c : array_like
        Of the day [°C].
    """
    low, high = np.asarray(low_c, dtype=float), np.asarray(high_c, dtype=float)
    return np.asarray(low + (high - low) * share_of_day(hour, sunrise_h, sunset_h))


def share_of_day(hour: ArrayLike, sunrise_h: ArrayLike, sunset_h: ArrayLike) -> NDArray[np.float64]:
    """Where the air is between the low and the high of its day at an hour of it [-].

    A sine from the low near sunrise to sunset, highest some two hours after the sun's noon, then an exponential fall.

    Parameters
    ----------
    hour, sunrise_h, sunset_h : array_like
        By one and the same clock, the hour beyond 24 after midnight [h].

    References
    ----------
    Parton and Logan (1981), A model for diurnal variation in soil and air temperature, Agric. Meteorol. 23:205-216,
    doi:10.1016/0002-1571(81)90105-9, air at 1.5 m; from memory.
    """
    at, rise, fall = (np.asarray(h, dtype=float) for h in (hour, sunrise_h, sunset_h))
    coldest, light = rise + LOW_LAG_H, fall - rise

    def by_day(hours: NDArray[np.float64]) -> NDArray[np.float64]:
        return np.asarray(np.sin(np.pi * np.maximum(hours, 0) / (light + 2 * HIGH_LAG_H)))

    dark = (at - fall) % 24
    cooled = by_day(fall - coldest) * np.exp(-COOLING * dark / (24 - light))
    return np.where((at >= coldest) & (at <= fall), by_day(at - coldest), cooled)
