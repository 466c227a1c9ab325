"""Power, speed and time of a rider on a gradient."""

from collections.abc import Callable

import numpy as np
from numba import float64, vectorize
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.air import GRAVITY

FASTEST_MS = 60.0
"""Upper bracket of the speed solution [m/s]."""
FIRST_MS, CLOSE_MS, MOST_STEPS = 5.0, 1e-12, 80
"""Where the solution starts, how small its last step is [m/s], and how many it may take."""

for_each: Callable[[Callable[..., float]], np.ufunc] = vectorize([float64(float64, float64, float64, float64)], cache=True)


def resistance(
    speed_ms: ArrayLike,
    gradient: ArrayLike,
    mass_kg: ArrayLike,
    drag_area_m2: float,
    rolling: ArrayLike,
    air_density: ArrayLike,
    headwind_ms: ArrayLike = 0.0,
) -> NDArray[np.float64]:
    """Force against the direction of travel at a steady speed [N].

    Parameters
    ----------
    speed_ms : array_like
        Ground speed [m/s].
    gradient : array_like
        Rise over run [-].
    mass_kg : array_like
        Rider, bicycle and load [kg].
    drag_area_m2 : float
        Drag coefficient times frontal area [m²].
    rolling : array_like
        Coefficient of rolling resistance [-].
    air_density : array_like
        [kg/m³]
    headwind_ms : array_like
        Wind component against the rider at rider height [m/s].

    References
    ----------
    Martin, Milliken, Cobb, McFadden, Coggan (1998), Validation of a mathematical model for road cycling
    power, J. Appl. Biomech. 14:276-291, doi:10.1123/jab.14.3.276, without the acceleration and bearing terms; from memory.
    """
    slope = np.arctan(np.asarray(gradient, dtype=float))
    air_speed = np.asarray(speed_ms, dtype=float) + np.asarray(headwind_ms, dtype=float)
    weight = np.asarray(mass_kg, dtype=float) * GRAVITY
    return np.asarray(
        0.5 * np.asarray(air_density) * drag_area_m2 * air_speed * np.abs(air_speed)
        + np.asarray(rolling, dtype=float) * weight * np.cos(slope)
        + weight * np.sin(slope)
    )


def crank_power(speed_ms: ArrayLike, force_n: ArrayLike, efficiency: float) -> NDArray[np.float64]:
    """Power at the crank that holds a speed against a force [W] (Martin et al. 1998).

    Parameters
    ----------
    speed_ms : array_like
        Ground speed [m/s].
    force_n : array_like
        Total resistance [N].
    efficiency : float
        Drivetrain efficiency [-].
    """
    return np.asarray(np.asarray(speed_ms) * force_n / efficiency)


def steady_speed(
    power_w: ArrayLike,
    gradient: ArrayLike,
    mass_kg: ArrayLike,
    drag_area_m2: float,
    rolling: ArrayLike,
    air_density: ArrayLike,
    efficiency: float,
    headwind_ms: ArrayLike = 0.0,
) -> NDArray[np.float64]:
    """Ground speed that a power holds [m/s]: the one positive root of v F(v) = efficiency x power.

    The root is found by Newton's steps, halving the bracket [0, 60] m/s where they leave it, to 1e-12 m/s.
    With no power the speed is that of coasting, or 0 where the bicycle does not roll by itself.

    Parameters
    ----------
    power_w : array_like
        Power at the crank, >= 0 [W].
    gradient, mass_kg, drag_area_m2, rolling, air_density, headwind_ms
        As in `resistance`.
    efficiency : float
        Drivetrain efficiency [-].

    References
    ----------
    Martin et al. (1998), as in `resistance`.
    """
    angle = np.arctan(np.asarray(gradient, dtype=float))
    along = np.asarray(mass_kg) * GRAVITY * (np.asarray(rolling) * np.cos(angle) + np.sin(angle))
    half_drag = 0.5 * np.asarray(air_density) * drag_area_m2
    return np.asarray(_balanced(np.asarray(power_w) * efficiency, along, half_drag, headwind_ms))


@for_each
def _balanced(target: float, along: float, half_drag: float, wind: float) -> float:
    """Speed at which a steady force along the road and the air take the target power [m/s]."""
    low, high, speed = 0.0, FASTEST_MS, FIRST_MS
    for _ in range(MOST_STEPS):
        air_speed = speed + wind
        drag = half_drag * abs(air_speed)
        over = speed * (drag * air_speed + along) - target
        if over > 0:
            high = speed
        else:
            low = speed
        slope = drag * (air_speed + 2 * speed) + along
        better = speed - over / slope if slope > 0 else low
        if not low < better < high:
            better = 0.5 * (low + high)
        if abs(better - speed) < CLOSE_MS:
            return better
        speed = better
    return speed
