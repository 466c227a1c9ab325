"""What a riding body burns and sweats."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.air import vapour_pressure

KJ_PER_KCAL = 4.184
"""Thermochemical calorie."""


def resting_energy(mass_kg: float, height_cm: float, age_years: float, male: bool | None) -> float:
    """Resting energy expenditure [kcal/day]; the mean of both sexes where none is given.

    References
    ----------
    Mifflin, St Jeor et al. (1990), A new predictive equation for resting energy expenditure in healthy
    individuals, Am. J. Clin. Nutr. 51:241-247, doi:10.1093/ajcn/51.2.241; from memory. Individual error about 10 %.
    """
    sex = {True: 5.0, False: -161.0, None: -78.0}[male]
    return 10 * mass_kg + 6.25 * height_cm - 5 * age_years + sex


def riding_energy(power_w: ArrayLike, hours: ArrayLike, gross_efficiency: float) -> NDArray[np.float64]:
    """Food energy burnt while riding, resting metabolism included [kcal].

    Parameters
    ----------
    power_w : array_like
        Mean power at the crank [W].
    hours : array_like
        [h]
    gross_efficiency : float
        Work over food energy, 0.18 to 0.25 [-].

    References
    ----------
    Definition of gross efficiency (exercise physiology).
    """
    work_kj = 3.6 * np.asarray(power_w, dtype=float) * np.asarray(hours, dtype=float)
    return np.asarray(work_kj / gross_efficiency / KJ_PER_KCAL)


def aerobic_share(height_m: ArrayLike) -> NDArray[np.float64]:
    """Power that a rider used to a height holds there, over that at sea level [-].

    Parameters
    ----------
    height_m : array_like
        Above the sea, 0 to 5000; beyond, the values of the ends hold [m].

    References
    ----------
    Bassett, Kyle, Passfield, Broker, Burke (1999), Comparing cycling world hour records, 1967-1996: modeling with empirical
    data, Med. Sci. Sports Exerc. 31:1665-1676, doi:10.1097/00005768-199911000-00025, acclimatised athletes; from memory. Who
    comes up within days holds some 7 % less at 3,000 m.
    """
    km = np.clip(np.asarray(height_m, dtype=float) / 1000, 0, 5)
    return np.asarray(1 - 0.0190 * km - 0.0112 * km**2)


def sweat_loss(temperature_c: ArrayLike, humidity_pct: ArrayLike, power_w: ArrayLike) -> NDArray[np.float64]:
    """Water lost by a rider in the sun on a slow climb [l/h].

    A fit to ISO 7933 (predicted heat strain) with air at 1.5 m/s and radiation 30 K above air:
    good to 0.3 l/h inside that standard's limits (15 to 45 °C, vapour pressure up to 4.5 kPa).

    Parameters
    ----------
    temperature_c, humidity_pct : array_like
        Air temperature [°C] and relative humidity [%].
    power_w : array_like
        Power at the crank [W].

    References
    ----------
    ISO 7933:2004 as computed by pythermalcomfort 4.8.1; coefficients fitted to 1414 of its grid points.
    """
    steam = vapour_pressure(temperature_c, humidity_pct)
    power = np.asarray(power_w, dtype=float)
    dry = np.maximum(0.0013 * power, -0.81 + 0.0050 * power + 0.031 * np.asarray(temperature_c, dtype=float))
    return np.asarray(np.minimum(1.40, dry * (1 + 0.05 * np.maximum(0.0, steam - 1.7) ** 2)))
