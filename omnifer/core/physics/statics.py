"""Wheel loads, centre of gravity and hitch load of a loaded bicycle and its trailer.

Axes: x forward from the rear tyre's contact point, y up, z to the rider's right.
"""

import math

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.air import GRAVITY


def hitch_load(mass_kg: ArrayLike, ahead_of_axle_m: ArrayLike, hitch_to_axle_m: float) -> NDArray[np.float64]:
    """Vertical load of a level trailer on its hitch, rolling resistance left out [kg].

    Negative values lift the rear wheel.

    Parameters
    ----------
    mass_kg : array_like
        Trailer and load [kg].
    ahead_of_axle_m : array_like
        Centre of gravity ahead of the trailer's axle [m].
    hitch_to_axle_m : float
        [m]

    References
    ----------
    Moments about the trailer's axle (rigid-body statics).
    """
    return np.asarray(np.asarray(mass_kg) * ahead_of_axle_m / hitch_to_axle_m)


def front_lift_gradient(
    x_m: ArrayLike, y_m: ArrayLike, trailer_part: ArrayLike = 0.0, hitch_m: float = 0.0, pushed_at_m: float | None = None
) -> NDArray[np.float64]:
    """Gradient at which the front wheel leaves the ground at a steady speed [-]; infinite where none lifts it.

    Parameters
    ----------
    x_m, y_m : array_like
        Centre of gravity of all but the trailer [m].
    trailer_part : array_like
        Mass of the trailer with its load over that of all else [-]; it hitches at the rear axle.
    hitch_m : float
        Height of the hitch, at which the trailer pulls backwards [m].
    pushed_at_m : float, optional
        Height at which a walker pushes; the rear wheel drives where left out [m].

    References
    ----------
    Moments about the rear contact point (rigid-body statics): tan(angle) = x / (y + part * hitch - (1 + part) * pushed).
    """
    part = np.asarray(trailer_part, dtype=float)
    lever = np.asarray(y_m, dtype=float) + part * hitch_m - (1 + part) * (pushed_at_m or 0.0)
    ahead = np.asarray(x_m, dtype=float) + 0 * lever
    with np.errstate(divide="ignore"):
        return np.where(ahead <= 0, 0.0, np.where(lever > 0, ahead / np.where(lever > 0, lever, 1.0), np.inf))


def pitch_over_deceleration(x_m: float, y_m: float, wheelbase_m: float, gradient: float = 0.0) -> float:
    """Deceleration at which the rear wheel leaves the ground [m/s²].

    References
    ----------
    Moments about the front contact point; downhill gradients are negative.
    """
    angle = math.atan(gradient)
    return GRAVITY * ((wheelbase_m - x_m) * math.cos(angle) / y_m + math.sin(angle))
