"""How many spares a stretch without a shop asks for.

References
----------
Standard spares provisioning: demand is Poisson, or negative binomial where failures cluster (variance over mean above 1), and
the smallest number is wanted with which the chance of running out is no larger than accepted. Wear: conditional Weibull.
"""

import math

CLUSTERED = 2.0
"""Variance over mean of demand that comes in clusters (a field of thorns, a badly built wheel) [-]; practice."""
MOST = 60


def spares_wanted(expected: float, risk: float, dispersion: float = 1.0) -> int:
    """The smallest number of spares with which the chance that more are needed is at most `risk`.

    Parameters
    ----------
    expected : float
        Demand on the stretch [-].
    risk : float
        Accepted chance of running out [-].
    dispersion : float
        Variance over mean of the demand; 1: Poisson [-].
    """
    covered = 0.0
    for n in range(MOST):
        covered += _chance_of(n, expected, dispersion)
        if 1 - covered <= risk:
            return n
    return MOST


def running_out(spares: int, expected: float, dispersion: float = 1.0) -> float:
    """Chance that more than so many are needed [-]; parameters as of `spares_wanted`."""
    return max(1 - sum(_chance_of(n, expected, dispersion) for n in range(spares + 1)), 0.0)


def _chance_of(n: int, expected: float, dispersion: float) -> float:
    if expected <= 0:
        return float(n == 0)
    if dispersion <= 1:
        return math.exp(n * math.log(expected) - expected - math.lgamma(n + 1))
    r, p = expected / (dispersion - 1), 1 / dispersion
    return math.exp(math.lgamma(n + r) - math.lgamma(r) - math.lgamma(n + 1) + r * math.log(p) + n * math.log1p(-p))


def wearing_out(used_km: float, next_km: float, life_km: float, shape: float = 3.0) -> float:
    """Chance that a part that has lasted so far wears out on the next stretch [-].

    Parameters
    ----------
    used_km, next_km : float
        Behind it, and before it [km].
    life_km : float
        Characteristic life: by then 63 % are worn out [km].
    shape : float
        Of the Weibull distribution; about 3 for wear [-].
    """
    return -math.expm1((used_km / life_km) ** shape - ((used_km + next_km) / life_km) ** shape)
