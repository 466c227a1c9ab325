"""Weighing a bicycle one wheel at a time: what the scale says, and how far it can be trusted.

Axes as in `statics`: x forward from the rear tyre's contact point, y up.
"""

import math

import numpy as np
from numpy.typing import ArrayLike, NDArray

BAND_KG, STILL_S = 0.2, 2.0
"""Readings that stay within such a band for so long are still [kg, s]; practice."""


def raised_wheel_lack(mass_kg: float, centre_m: float, radius_m: float, wheelbase_m: float, raised_m: float) -> float:
    """What a wheel on a scale weighs too little because the scale lifts it and nothing lifts the other [kg].

    Parameters
    ----------
    mass_kg, centre_m : float
        Bike with its load [kg], and height of its centre of gravity over the ground [m].
    radius_m, wheelbase_m : float
        [m]
    raised_m : float
        Height of the scale less that of what is under the other wheel [m].

    References
    ----------
    Moments about the contact point of the wheel on the ground: tilting by `raised_m / wheelbase_m` moves a centre above the
    axles backwards by `(centre_m - radius_m) raised_m / wheelbase_m`. First order in the tilt; good to 1 % up to 150 mm.
    """
    return mass_kg * (centre_m - radius_m) * raised_m / wheelbase_m**2


def levelled(readings_kg: ArrayLike) -> float:
    """The median of readings of one weight [kg]. Raises ValueError where there are none."""
    readings = np.asarray(readings_kg, dtype=float)
    if readings.size == 0:
        raise ValueError("nothing was read")
    return float(np.median(readings))


def unsure_of(step_kg: float, parts: int = 1) -> float:
    """How far a sum or difference of readings may be off [kg].

    Parameters
    ----------
    step_kg : float
        How far one reading may be off [kg].
    parts : int
        Readings that it is made of.

    References
    ----------
    Independent errors add as squares (JCGM 100:2008, GUM, 5.1.2).
    """
    return step_kg * math.sqrt(parts)


def rider_centre(
    front_kg: float, rear_kg: float, bare_front_kg: float, bare_rear_kg: float, wheelbase_m: float
) -> tuple[float, float]:
    """Mass of a rider who sits on the bike, and how far ahead of the rear contact point the rider's centre is [kg, m].

    Parameters
    ----------
    front_kg, rear_kg : float
        Wheels with the rider on the bike [kg].
    bare_front_kg, bare_rear_kg : float
        The same without the rider [kg].

    References
    ----------
    Moments about the rear contact point. Raises ValueError where the rider weighs nothing.
    """
    front, rear = front_kg - bare_front_kg, rear_kg - bare_rear_kg
    if front + rear <= 0:
        raise ValueError("with its rider the bike weighs no more than without")
    return front + rear, front / (front + rear) * wheelbase_m


def still_since(times_s: NDArray[np.float64], values_kg: NDArray[np.float64], band_kg: float) -> float:
    """For how long the newest readings have stayed within a band [s]; 0 where there are none."""
    if times_s.size == 0:
        return 0.0
    low = high = values_kg[-1]
    begun = times_s[-1]
    for at, value in zip(times_s[::-1], values_kg[::-1], strict=True):
        low, high = min(low, value), max(high, value)
        if high - low > band_kg:
            break
        begun = at
    return float(times_s[-1] - begun)
