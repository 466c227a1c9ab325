"""What chance does: intervals of counted shares, weather that keeps from day to day, and things that happen together."""

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy import special

SURE = 1.959964
"""Standard deviations to each side that hold 95 of 100; the normal distribution."""
Array = NDArray[np.float64]


def wilson(count: int, of: int, z: float = SURE) -> tuple[float, float]:
    """The interval of a share that was counted [-]; the whole range where nothing was.

    References
    ----------
    Wilson (1927), Probable inference, the law of succession, and statistical inference, J. Am. Stat. Assoc. 22:209-212,
    doi:10.1080/01621459.1927.10502953; from memory.
    """
    if of <= 0:
        return 0.0, 1.0
    share, spread = count / of, z * z / of
    middle = (share + spread / 2) / (1 + spread)
    half = z * float(np.sqrt(share * (1 - share) / of + spread / (4 * of))) / (1 + spread)
    # What was never seen, or always, ends at the very end but for rounding.
    return (0.0 if count == 0 else max(middle - half, 0.0)), (1.0 if count == of else min(middle + half, 1.0))


def kept_from_day_to_day(shocks: Array, kept: float) -> Array:
    """A standard normal series in which each day keeps a part of the day before, shape (plays, days) [-].

    References
    ----------
    First-order autoregression: Wilks, Statistical Methods in the Atmospheric Sciences, chapter on time series; from memory.
    """
    series = shocks.copy()
    fresh = np.sqrt(1 - kept * kept)
    for day in range(1, shocks.shape[1]):
        series[:, day] = kept * series[:, day - 1] + fresh * shocks[:, day]
    return series


def rayleigh(uniform: ArrayLike) -> Array:
    """Wind over its mean from a uniform number: Weibull of shape 2 [-].

    References
    ----------
    Distribution of wind speeds of IEC 61400-1; from memory.
    """
    return np.asarray(np.sqrt(-np.log1p(-np.asarray(uniform, dtype=float))) * 2 / np.sqrt(np.pi))


def wet_after(chance: ArrayLike, wet_before: ArrayLike, kept: float) -> Array:
    """Chance that a day is wet after a wet or a dry one, of a chain in which a share of days is wet and a part is kept [-].

    References
    ----------
    First-order Markov chain of two states with lag-1 autocorrelation `kept`: Wilks, as above; from memory.
    """
    share = np.asarray(chance, dtype=float)
    return np.asarray(share + kept * (np.asarray(wet_before, dtype=float) - share))


def drawn_together(own: ArrayLike, common: ArrayLike, together: float) -> Array:
    """A uniform number of each thing that moves with what all have in common: a one-factor Gaussian copula [-].

    Parameters
    ----------
    own, common : array_like
        Standard normal.
    together : float
        Correlation between any two [-].
    """
    mixed = np.sqrt(together) * np.asarray(common, dtype=float) + np.sqrt(1 - together) * np.asarray(own, dtype=float)
    return np.asarray(special.ndtr(mixed))
