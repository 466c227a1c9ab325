"""How cold a night a bag and what lies under it bear."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

SKIN_C = 33.0
"""Mean skin temperature of a sleeper who is just not cold [°C]."""
HEAT_W_M2 = 46.5
"""Metabolic heat of a sleeper, 0.8 met [W/m²]."""
DRY_PART = 0.9
"""Of it that leaves through the bag and the mat; the rest is breath and moisture [-]."""
ON_GROUND = 0.25
"""Part of the body's surface that rests on the ground [-]."""
R_SI = 0.17611
"""Of one ft²·°F·h/Btu, in which mats are labelled [m²K/W]."""
LABEL_MAT_R = 4.83
"""Of the mat on which bags are tested, in the unit of mats: 0.85 m²K/W."""
BARE_GROUND_R = 0.5
"""Taken where nothing lies under the bag [ft²·°F·h/Btu]; practice."""


def bears_c(comfort_c: ArrayLike, mat_r: ArrayLike) -> NDArray[np.float64]:
    """The coldest night in which a bag is comfortable on a mat other than that of its label [°C].

    The bag's upper side is what the label says on the mat of the test; the heat that a thinner mat lets into the ground is
    then missing. Use the direction and the size, not as a rating: one person differs from another by 5 K.

    Parameters
    ----------
    comfort_c : array-like
        Comfort temperature on the label [°C]; never the extreme one.
    mat_r : array-like
        R of all that lies under the sleeper, which adds up [ft²·°F·h/Btu].

    Returns
    -------
    ndarray
        [°C]

    References
    ----------
    Labels: EN ISO 23537-1:2016, from memory; mats: ASTM F3340-18, from memory. The balance of heat is our own; from
    10 to -20 °C it asks for something between the minimal and the neutral criterion of ISO 11079 (IREQ), 0.4 clo apart.
    """
    comfort, mat = np.asarray(comfort_c, dtype=float), np.maximum(np.asarray(mat_r, dtype=float), BARE_GROUND_R)
    heat = HEAT_W_M2 * DRY_PART
    top = (1 - ON_GROUND) / (heat / (SKIN_C - comfort) - ON_GROUND / (LABEL_MAT_R * R_SI))
    return np.asarray(SKIN_C - heat / ((1 - ON_GROUND) / top + ON_GROUND / (mat * R_SI)))
