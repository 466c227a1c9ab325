"""Clothing against the cold: how long a body bears it, and how much clothing it would want for good.

References
----------
ISO 11079:2007, Determination and interpretation of cold stress when using required clothing insulation (IREQ), annex A, its
"minimal" criterion (skin 33.34 - 0.0354 M °C, wetness 0.06, heat debt 144 kJ/m²); from memory. Its limits (10 °C and colder,
some movement) are not kept here: beyond them the figures are extrapolated.
"""

import numpy as np
from numpy.typing import ArrayLike, NDArray

CLO = 0.155
"""One clo [m²K/W]."""
MET = 58.15
"""One met [W/m²]."""
HEAT_DEBT_WH = 40.0
"""What a body may lose beyond what it makes, 144 kJ/m² [Wh/m²]."""
LONGEST_H = 8.0
"""Beyond a working day an exposure counts as without end [h]."""
MOST_CLO = 12.0
HALVINGS = 40
AIR_PERMEABILITY = 8.0
"""Of windproof clothing [l/(m²s)]."""

Array = NDArray[np.float64]


def bearable_hours(air_c: ArrayLike, clo: ArrayLike, met: float, air_ms: float, humidity_pct: ArrayLike = 60.0) -> Array:
    """How long a body in such clothing bears such air before it has lost too much heat [h]; `LONGEST_H` at most.

    Parameters
    ----------
    air_c : array_like
        Air temperature, taken as that of everything around as well [°C].
    clo : array_like
        Insulation of the clothing itself, windproof outside [clo].
    met : float
        Heat that the body makes [met].
    air_ms : float
        Air past the body [m/s].
    humidity_pct : array_like
        Relative humidity [%].
    """
    air, worn, damp = (np.asarray(x, dtype=float) for x in np.broadcast_arrays(air_c, clo, humidity_pct))
    debt = -_storage(air, worn, damp, met, air_ms)
    return np.where(debt > HEAT_DEBT_WH / LONGEST_H, HEAT_DEBT_WH / np.maximum(debt, 1e-9), LONGEST_H)


def required_clo(air_c: ArrayLike, met: float, air_ms: float, humidity_pct: ArrayLike = 60.0) -> Array:
    """Clothing with which a body bears such air without end [clo]; parameters as of `bearable_hours`."""
    air, damp = np.broadcast_arrays(np.asarray(air_c, dtype=float), np.asarray(humidity_pct, dtype=float))
    low, high = np.zeros(air.shape), np.full(air.shape, MOST_CLO)
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        enough = _storage(air, middle, damp, met, air_ms) >= 0
        low, high = np.where(enough, low, middle), np.where(enough, middle, high)
    return np.asarray((low + high) / 2)


def _storage(air_c: Array, clo: Array, humidity_pct: Array, met: float, air_ms: float) -> Array:
    """Heat that a body keeps; below 0 it cools [W/m²]."""
    made = met * MET
    skin = 33.34 - 0.0354 * made
    layer = 0.092 * np.exp(-0.15 * air_ms) - 0.0045
    worn = clo * CLO
    windy = 0.54 * np.exp(-0.15 * air_ms) * AIR_PERMEABILITY**0.075 - 0.06 * np.log(AIR_PERMEABILITY) + 0.5
    inside = worn.copy()
    for _ in range(30):
        area = 1 + 1.197 * inside
        inside = (worn + 0.085 / area) * windy - layer / area
    inside = np.maximum(inside, 1e-3)
    area = 1 + 1.197 * inside
    outside_vapour = humidity_pct / 100 * _vapour(air_c)
    sweat = 0.06 * (_vapour(skin) - outside_vapour) / ((0.06 / 0.38) * (layer + inside))
    breath_c = 29 + 0.2 * air_c
    breath = 0.0173 * made * (_vapour(breath_c) - outside_vapour) + 0.0014 * made * (breath_c - air_c)
    return np.asarray(made - sweat - breath - (skin - air_c) / (inside + layer / area))


def _vapour(air_c: ArrayLike) -> Array:
    """Saturated vapour pressure [kPa]."""
    return np.asarray(0.1333 * np.exp(18.6686 - 4030.183 / (np.asarray(air_c, dtype=float) + 235)))
