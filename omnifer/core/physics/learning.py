"""What a rider's own days teach of a rate or a figure, and how surely.

References
----------
Conjugate updates: Gamma prior of a Poisson rate, and Normal prior of a mean whose spread is known (Gelman et al., Bayesian Data
Analysis, 3rd ed., 2.5 and 2.6). Quantiles by scipy.
"""

from dataclasses import dataclass

from scipy import stats

NINE_IN_TEN = 0.9


@dataclass(frozen=True)
class Belief:
    """A figure that is believed: its mean, its standard deviation, and where it lies with nine chances in ten."""

    mean: float
    sd: float
    low: float
    high: float


def rate(prior: float, worth: float, used: float, units: float) -> Belief:
    """A rate of use after some use.

    Parameters
    ----------
    prior : float
        What was assumed, per unit.
    worth : float
        How many units of own use the assumption is worth; above 0.
    used, units : float
        What was used, and on how many units (person-days, kilometres, litres).
    """
    if worth <= 0 or units < 0 or used < 0 or prior < 0:
        raise ValueError("an assumption is worth something, and nothing is used less than not at all")
    shape, exposure = worth * prior + used, worth + units
    if shape == 0:
        return Belief(0.0, 0.0, 0.0, 0.0)
    low, high = stats.gamma.ppf([(1 - NINE_IN_TEN) / 2, (1 + NINE_IN_TEN) / 2], shape, scale=1 / exposure)
    return Belief(shape / exposure, shape**0.5 / exposure, float(low), float(high))


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
    low, high = stats.norm.ppf([(1 - NINE_IN_TEN) / 2, (1 + NINE_IN_TEN) / 2], middle, sd)
    return Belief(middle, sd, float(low), float(high))
