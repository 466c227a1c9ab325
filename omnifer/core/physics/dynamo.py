"""What a hub dynamo gives."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

VOLTS_PER_MS = 2.943
"""Open voltage for each metre a second, fitted to 0.5 A through 12 ohms at 15 km/h and 0.62 A at most [V s/m]."""
INDUCTANCE_H = 0.116
INNER_OHM = 2.5
POLE_PAIRS = 14
WHEEL_M = 2.155
"""Circumference of the wheel for which the figures are fitted [m]."""
LAMP_OHM = 12.0
"""The load for which hub dynamos are specified: 6 V and 3 W."""


def lamp_power(speed_ms: ArrayLike) -> NDArray[np.float64]:
    """Power that a hub dynamo brings into its rated load of 12 ohms [W]: 3 W at 15 km/h, hardly more beyond.

    Hubs are made for a size of wheel and rated by the speed of the bike: one for small wheels turns faster and is wound for it.

    Parameters
    ----------
    speed_ms : array_like
        [m/s]

    References
    ----------
    A generator with inner resistance and inductance behind a voltage that grows with speed, 28 poles; rated as ISO 6742-4
    and the German TA 23 ask (from memory: at least 3 V at 5 km/h, 5.7 to 7.5 V at 15, 7.5 V at most at 30).
    """
    speed = np.asarray(speed_ms, dtype=float)
    turns = 2 * np.pi * POLE_PAIRS * speed / WHEEL_M
    current = VOLTS_PER_MS * speed / np.hypot(INNER_OHM + LAMP_OHM, turns * INDUCTANCE_H)
    return np.asarray(current**2 * LAMP_OHM)
