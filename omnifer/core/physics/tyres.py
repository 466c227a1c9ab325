"""Tyre pressure for a wheel's load."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

BAR_PER_PSI = 0.0689476
POUNDS_PER_KG = 2.2046226
UNSURE = 0.2
"""The pressure is a starting point, good to a fifth either way [-]."""


def pressure(load_kg: ArrayLike, width_mm: ArrayLike) -> NDArray[np.float64]:
    """Pressure at which a tyre sinks by 15 % of its height [bar]; a starting point, give or take a fifth.

    Parameters
    ----------
    load_kg : array_like
        Load of the wheel, rider included, 30 to 80 [kg].
    width_mm : array_like
        Measured width of the tyre, 20 to 50 [mm].

    References
    ----------
    Linear fit of F. Berto's chart (Bicycle Quarterly, about 2007), from memory; a membrane
    model asks for 1.25 to 1.6 times as much.
    """
    psi = 153.6 * np.asarray(load_kg) * POUNDS_PER_KG / np.asarray(width_mm, dtype=float) ** 1.5785 - 7.17
    return np.asarray(np.maximum(psi, 0.0) * BAR_PER_PSI)
