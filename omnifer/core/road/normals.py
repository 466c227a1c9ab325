"""Weather of any day of the year from twelve months of records."""

from functools import cache

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import MonthNormals

Array = NDArray[np.float64]

DAYS = np.array([31, 28.25, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31])
YEAR = float(DAYS.sum())
FIGURES = tuple(MonthNormals.model_fields)
_STEPS_A_DAY = 8


@cache
def _knots() -> Array:
    """The matrix that turns monthly means into values at mid-month, such that the line through them keeps the means."""
    start = np.concatenate([[0.0], np.cumsum(DAYS)])
    middle = (start[:-1] + start[1:]) / 2
    means = np.zeros((12, 12))
    for month in range(12):
        count = int(DAYS[month] * _STEPS_A_DAY)
        day = start[month] + (np.arange(count) + 0.5) / count * DAYS[month]
        for knot in range(12):
            means[month, knot] = _between(day, middle, np.eye(12)[knot]).mean()
    return np.asarray(np.linalg.inv(means))


def _between(day: Array, middle: Array, values: Array) -> Array:
    """Straight lines from mid-month to mid-month, round the year."""
    x = np.concatenate([[middle[-1] - YEAR], middle, [middle[0] + YEAR]])
    y = np.concatenate([values[-1:], values, values[:1]])
    return np.asarray(np.interp(day % YEAR, x, y))


def smooth_year(day_of_year: Array, monthly: Array) -> Array:
    """A figure on days of the year, from its monthly means; the mean over each month is kept exactly.

    Parameters
    ----------
    day_of_year : numpy.ndarray
        Days since 1 January, fractions allowed [d].
    monthly : numpy.ndarray, shape (12,)

    References
    ----------
    Mean-preserving interpolation with straight lines, as Rymes and Myers (2001), Solar Energy 71:225, solved directly.
    """
    start = np.concatenate([[0.0], np.cumsum(DAYS)])
    return _between(day_of_year, (start[:-1] + start[1:]) / 2, _knots() @ monthly)


def table_of(months: tuple[MonthNormals, ...]) -> Array:
    """Monthly figures as an array, shape (figures, 12), in the order of FIGURES."""
    return np.array([[getattr(month, name) for month in months] for name in FIGURES], dtype=float)
