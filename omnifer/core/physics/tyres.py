"""Tyre pressure for a wheel's load, and what it takes to pump it up."""

from math import pi

import numpy as np
from numpy.typing import ArrayLike, NDArray

BAR_PER_PSI = 0.06894757293168
"""Exact by the definitions of pound and inch."""
POUNDS_PER_KG = 2.2046226
UNSURE = 0.2
"""The pressure is a starting point, good to a fifth either way [-]."""
LOADS_KG, WIDTHS_MM = (30.0, 80.0), (20.0, 50.0)
"""What the chart was drawn for [kg, mm]."""


def pressure(load_kg: ArrayLike, width_mm: ArrayLike) -> NDArray[np.float64]:
    """Pressure at which a tyre sinks by 15 % of its height [bar]; a starting point, give or take `UNSURE`.

    Parameters
    ----------
    load_kg : array_like
        Load of the wheel, rider included; the rule is drawn for `LOADS_KG` [kg].
    width_mm : array_like
        Measured width of the tyre; the rule is drawn for `WIDTHS_MM` [mm].

    References
    ----------
    Linear fit of F. Berto's chart (Bicycle Quarterly, about 2007), from memory; a membrane
    model asks for 1.25 to 1.6 times as much.
    """
    psi = 153.6 * np.asarray(load_kg) * POUNDS_PER_KG / np.asarray(width_mm, dtype=float) ** 1.5785 - 7.17
    return np.asarray(np.maximum(psi, 0.0) * BAR_PER_PSI)


def drawn_for(load_kg: float, width_mm: float) -> bool:
    """Whether the rule knows such a wheel."""
    return LOADS_KG[0] <= load_kg <= LOADS_KG[1] and WIDTHS_MM[0] <= width_mm <= WIDTHS_MM[1]


AIR_BAR = 1.01325
"""Of the air that a pump takes in, at the sea [bar]."""
PUMP_FILLS = 0.75
"""Of a stroke's volume, what a hand pump brings into the tyre: the rest stays in hose and barrel [-]; practice."""


def strokes(width_mm: float, bead_seat_mm: float, bar: float, stroke_ml: float) -> float:
    """Strokes of a hand pump that fill an empty tyre to a pressure above that of the air [-].

    A tyre is a torus as wide as the tyre and as high; by Boyle's law its air at `bar` was so many times its volume before.

    Parameters
    ----------
    width_mm, bead_seat_mm : float
        Of the tyre, and the diameter of its seat, ETRTO [mm].
    bar : float
        By the gauge [bar].
    stroke_ml : float
        Volume of one stroke [ml].
    """
    holds_ml = pi * (width_mm / 2) ** 2 * pi * (bead_seat_mm + width_mm) / 1000
    return holds_ml * bar / AIR_BAR / (stroke_ml * PUMP_FILLS)
