"""What a rider's own days teach of a rate or a figure, and how surely.

References
----------
Conjugate updates: Gamma prior of a Poisson rate, and Normal prior of a mean whose spread is known (Gelman et al., Bayesian Data
Analysis, 3rd ed., 2.5 and 2.6). Quantiles by scipy.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy import special

NINE_IN_TEN = 0.9
QUANTILES = np.array([(1 - NINE_IN_TEN) / 2, (1 + NINE_IN_TEN) / 2])
GRID = 2001
"""Points at which a belief without a formula is worked out."""


@dataclass(frozen=True)
class Belief:
    """A figure that is believed: its mean, its standard deviation, and where it lies with nine chances in ten."""

    mean: float
    sd: float
    low: float
    high: float


def rate(prior: float, worth: float, used: float, units: float, lump: float = 1.0) -> Belief:
    """A rate of use after some use, which comes one at a time.

    Parameters
    ----------
    prior : float
        What was assumed, per unit.
    worth : float
        How many units of own use the assumption is worth; above 0.
    used, units : float
        What was used, and on how many units (person-days, kilometres, litres).
    lump : float
        How many at a time are noted, when they are all used: what was used since the last note is not known and is less than
        that. The count is then censored to an interval, and the belief worked out on a grid.
    """
    if worth <= 0 or units < 0 or used < 0 or prior < 0:
        raise ValueError("an assumption is worth something, and nothing is used less than not at all")
    shape, exposure = worth * prior + used, worth + units
    if shape == 0:
        return Belief(0.0, 0.0, 0.0, 0.0)
    if lump > 1:
        return _censored(shape - used, worth, used, units, lump)
    low, high = special.gammaincinv(shape, QUANTILES) / exposure
    return Belief(shape / exposure, shape**0.5 / exposure, float(low), float(high))


def _censored(shape: float, worth: float, used: float, units: float, lump: float) -> Belief:
    """The belief in a rate of which at least `used` and less than a lump more is known."""
    most = (shape + used + lump + 10 * (shape + used + lump) ** 0.5 + 10) / (worth + units)
    rates = np.linspace(0, most, GRID)[1:]
    expected = rates * units
    # A Poisson count is below n with the chance of the upper incomplete gamma function at n.
    fewer = special.gammaincc(used, expected) if used > 0 else 0.0
    return _on_a_grid(
        rates, np.exp(special.xlogy(shape - 1, rates) - worth * rates) * (special.gammaincc(used + lump, expected) - fewer)
    )


def _on_a_grid(values: NDArray[np.float64], weight: NDArray[np.float64]) -> Belief:
    part = weight / weight.sum()
    middle = float(values @ part)
    low, high = np.interp(QUANTILES, np.cumsum(part), values)
    return Belief(middle, float(((values - middle) ** 2 @ part) ** 0.5), float(low), float(high))


def shift(
    sd_k: float, margins_k: NDArray[np.float64], felt: NDArray[np.int_], blur_k: float, band_k: float, most_k: float = 10.0
) -> Belief:
    """How much colder than reckoned somebody sleeps, from how nights felt that were so much warmer than is borne.

    Parameters
    ----------
    sd_k : float
        Standard deviation by which people differ from the label [K]; the assumption is no difference.
    margins_k : numpy.ndarray, shape (nights,)
        How much warmer each night was than what the bed bears [K].
    felt : numpy.ndarray of int, shape (nights,)
        -1 cold, 0 right, 1 too warm.
    blur_k : float
        Standard deviation of a single night: its own temperature, and how it is felt [K].
    band_k : float
        From what is just borne to what is too warm [K].
    most_k : float
        Nobody differs by more [K].

    References
    ----------
    Ordered probit: a night is felt cold where margin less shift, with normal noise, is below 0, too warm where it is above the
    band. Worked out on a grid.
    """
    shifts = np.linspace(-most_k, most_k, GRID)
    left = margins_k[:, None] - shifts[None, :]
    cold, warm = special.ndtr(-left / blur_k), special.ndtr((left - band_k) / blur_k)
    chance = np.where(felt[:, None] < 0, cold, np.where(felt[:, None] > 0, warm, 1 - cold - warm))
    return _on_a_grid(shifts, np.exp(-0.5 * (shifts / sd_k) ** 2) * np.maximum(chance, 1e-12).prod(axis=0))


def mean(prior: float, worth: float, values: tuple[float, ...], spread: float) -> Belief:
    """A figure after some days on which it was noted.

    Parameters
    ----------
    prior : float
        What was assumed.
    worth : float
        How many days of noting the assumption is worth; above 0.
    values : tuple of float
        What was noted.
    spread : float
        Standard deviation of a single day; above 0.
    """
    if worth <= 0 or spread <= 0:
        raise ValueError("an assumption is worth something, and days differ")
    days = worth + len(values)
    middle, sd = (worth * prior + sum(values)) / days, spread / days**0.5
    low, high = middle + sd * special.ndtri(QUANTILES)
    return Belief(middle, sd, float(low), float(high))
