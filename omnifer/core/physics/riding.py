"""Power, speed and time of a rider on a gradient."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.air import GRAVITY

FASTEST_MS = 60.0
"""Upper bracket of the speed solution [m/s]."""


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
    power, J. Appl. Biomech. 14:276-291, without the acceleration and bearing terms.
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

    The root is found by bisection over all elements at once, 48 halvings of [0, 60] m/s (2e-13 m/s).
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
    arrays = np.broadcast_arrays(power_w, gradient, mass_kg, rolling, air_density, headwind_ms)
    power, slope, mass, roll, rho, wind = (np.asarray(a, dtype=float) for a in arrays)
    angle = np.arctan(slope)
    along = mass * GRAVITY * (roll * np.cos(angle) + np.sin(angle))
    half_drag = 0.5 * rho * drag_area_m2
    target = power * efficiency
    low = np.zeros_like(along)
    high = np.full_like(along, FASTEST_MS)
    for _ in range(48):
        middle = 0.5 * (low + high)
        air_speed = middle + wind
        force = half_drag * air_speed * np.abs(air_speed) + along
        too_fast = middle * force > target
        high = np.where(too_fast, middle, high)
        low = np.where(too_fast, low, middle)
    return np.asarray(0.5 * (low + high))


def seconds_per_kilogram(
    length_m: float, gradient: float, mass_kg: float, speed_ms: float, drag_area_m2: float, rolling: float, rho: float
) -> float:
    """Time that one more kilogram costs on a stretch at constant power in still air [s/kg].

    Derivative of length / v with v from v F(v) = constant; see `resistance` for the arguments.

    References
    ----------
    Implicit differentiation of Martin et al. (1998).
    """
    angle = np.arctan(gradient)
    force_per_kg = GRAVITY * (np.sin(angle) + rolling * np.cos(angle))
    stiffness = mass_kg * force_per_kg + 3 * 0.5 * rho * drag_area_m2 * speed_ms**2
    return float(length_m * force_per_kg / (speed_ms * stiffness))
