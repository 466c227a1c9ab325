"""Daily weather out of a climate's normals: what a weather service would tell, invented day by day."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.outlook import Outlook, OutlookDay
from omnifer.core.model.road import MonthNormals
from omnifer.core.road.normals import YEAR, smooth_year, table_of

SAME_DAY = np.array([[1.0, 0.633, 0.186], [0.633, 1.0, -0.193], [0.186, -0.193, 1.0]])
NEXT_DAY = np.array([[0.621, 0.445, 0.087], [0.563, 0.674, -0.100], [0.015, -0.091, 0.251]])
"""Correlations of maximum, minimum and radiation on one day, and with the day before [-]; Richardson and Wright (1984),
WGEN, USDA ARS-8, from memory; the matrices that follow from them are the published ones (checked in tests)."""
WET_AFTER_WET = 0.25
WET_PER_RAIN_DAY = 0.75
"""A wet day follows a dry one with 0.75 times the share of wet days, a wet one with 0.25 more [-]; Geng, Penning de Vries and
Supit (1986), Agric. For. Meteorol. 36:363."""
WET_COOLER_K = 3.0
"""Maximum of a wet day below that of a dry one [K]; practice."""
RAIN_MM = 7.0
"""Mean rain of a wet day, exponentially distributed as in Richardson (1981) [mm]; practice."""
WIND_SHAPE = 2.0
"""Shape of the Weibull distribution of daily wind [-]; practice."""
SKILL = 0.85
"""How much of a day's departure from the normals a service still knows a day later [-]; practice."""
SETTLING_DAYS = 60
"""Days after which a chain has forgotten how it began [d]."""
NAME = "a stand-in that invents weather from the normals of the place"
YEAR_AND_MORE = 400
"""A year and what may be told across its end [d]."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Days:
    """Daily weather, one value a day."""

    wet: NDArray[np.bool_]
    rain_mm: Array
    high_c: Array
    low_c: Array
    wind_ms: Array


def matrices() -> tuple[Array, Array]:
    """A and B of x(t) = A x(t-1) + B e(t), x the standardised maximum, minimum and radiation, e independent normals.

    References
    ----------
    Matalas (1967), Water Resources Research 3:937; Richardson (1981), Water Resources Research 17:182, eq. 10 to 13.
    """
    a = NEXT_DAY @ np.linalg.inv(SAME_DAY)
    return a, np.linalg.cholesky(SAME_DAY - a @ NEXT_DAY.T)


def normals_on(months: Sequence[MonthNormals], day_of_year: Array) -> Array:
    """The normals on days of the year, shape (figures, days), in the order of MonthNormals."""
    return np.array([smooth_year(day_of_year, row) for row in table_of(tuple(months))])


def generate(months: Sequence[MonthNormals], first_day_of_year: int, days: int, seed: int) -> Days:
    """Daily weather by a chain of wet and dry days and autocorrelated extremes around the normals.

    Parameters
    ----------
    months : sequence of MonthNormals
        Twelve.
    first_day_of_year : int
        Days since 1 January [d].
    days : int
        Number of days [d].
    seed : int
        The same seed gives the same weather.

    References
    ----------
    Richardson (1981), Water Resources Research 17:182. Wet days are WET_COOLER_K cooler than dry ones; means and spreads over
    all days stay the normals'. Minima never exceed maxima: where they would, both give half.
    """
    draw = np.random.default_rng(seed)
    count = days + SETTLING_DAYS
    day = (first_day_of_year + np.arange(count) - SETTLING_DAYS).astype(float)
    mean_max, mean_min, spread_max, spread_min, rain_days, _, wind = normals_on(months, day)
    often = np.clip(rain_days / (YEAR / 12), 0, 1)
    wet = _chain(often, draw.random(count))
    a, b = matrices()
    shocks = draw.standard_normal((count, 3)) @ b.T
    residual = np.zeros((count, 3))
    for t in range(1, count):
        residual[t] = a @ residual[t - 1] + shocks[t]
    within = np.sqrt(np.maximum(spread_max**2 - often * (1 - often) * WET_COOLER_K**2, 0))
    high = mean_max - WET_COOLER_K * (wet - often) + within * residual[:, 0]
    low = mean_min + spread_min * residual[:, 1]
    middle = (high + low) / 2
    rain = np.where(wet, draw.exponential(RAIN_MM, count), 0.0)
    # The mean of a Weibull distribution of shape 2 is sqrt(pi) / 2 of its scale.
    blown = wind * draw.weibull(WIND_SHAPE, count) / (np.sqrt(np.pi) / 2)
    kept = slice(SETTLING_DAYS, None)
    return Days(wet[kept], rain[kept], np.maximum(high, middle)[kept], np.minimum(low, middle)[kept], blown[kept])


def _chain(often: Array, chance: Array) -> NDArray[np.bool_]:
    """Wet and dry days, each depending on the day before."""
    wet = np.zeros(often.size, dtype=bool)
    for t in range(often.size):
        before = WET_AFTER_WET * wet[t - 1] if t else 0.0
        wet[t] = chance[t] < before + WET_PER_RAIN_DAY * often[t]
    return wet


def outlook(months: Sequence[MonthNormals], elevation_m: float, first: dt.date, days: int, seed: int) -> Outlook:
    """What a service tells on the morning of a date: the weather to come, ever nearer to the normals the further off it is."""
    begin = dt.date(first.year, 1, 1)
    ahead = (first - begin).days
    # The weather of a year is one piece, so that two mornings tell of the same days.
    coming = generate(months, 0, YEAR_AND_MORE, seed * 10_000 + first.year)
    part = slice(ahead, ahead + days)
    mean_max, mean_min, _, _, rain_days, _, wind = normals_on(months, (ahead + np.arange(days)).astype(float))
    known = SKILL ** np.arange(days)

    def told(normal: Array, true: Array) -> Array:
        return np.asarray(normal + known * (true[part] - normal))

    high, low = told(mean_max, coming.high_c), told(mean_min, coming.low_c)
    often = told(np.clip(rain_days / (YEAR / 12), 0, 1), coming.wet.astype(float))
    rain = told(np.full(days, RAIN_MM), np.where(coming.wet, coming.rain_mm, RAIN_MM))
    blown = told(wind, coming.wind_ms)
    return Outlook(
        told_by=NAME,
        elevation_m=elevation_m,
        days=tuple(
            OutlookDay(
                date=first + dt.timedelta(days=i),
                high_c=round(float(high[i]), 1),
                low_c=round(float(low[i]), 1),
                rain_chance=round(float(often[i]), 2),
                rain_mm=round(float(rain[i]), 1),
                wind_ms=round(float(blown[i]), 1),
            )
            for i in range(days)
        ),
    )
