"""Gears: how far a turn of the cranks goes, and how steep that lets a rider climb."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.air import GRAVITY


def development(
    wheel_radius_m: ArrayLike, chainring: ArrayLike, cog: ArrayLike, hub_ratio: ArrayLike = 1.0
) -> NDArray[np.float64]:
    """Way made good in one turn of the cranks [m].

    Parameters
    ----------
    wheel_radius_m : array_like
        Rim seat plus tyre height [m].
    chainring, cog : array_like
        Teeth.
    hub_ratio : array_like
        Ratio of a gear hub, 1 without one [-].

    References
    ----------
    Definition; ISO 5775-1 for the sizes of tyres.
    """
    return np.asarray(2 * np.pi * np.asarray(wheel_radius_m) * np.asarray(chainring) / np.asarray(cog) * hub_ratio)


def speed_kmh(development_m: ArrayLike, cadence_rpm: ArrayLike) -> NDArray[np.float64]:
    """Speed at a cadence [km/h]."""
    return np.asarray(np.asarray(development_m, dtype=float) * cadence_rpm * 0.06)


def steepest_gradient(
    power_w: ArrayLike,
    mass_kg: ArrayLike,
    development_m: ArrayLike,
    cadence_rpm: float,
    drag_area_m2: float,
    rolling: float,
    air_density: float,
    efficiency: float,
) -> NDArray[np.float64]:
    """Steepest gradient that a power climbs steadily at a cadence [-]; infinite where power is not what ends it.

    References
    ----------
    Balance of forces as in `riding.resistance`, solved for the slope: sin(slope + phi) = T cos(phi) / (m g), tan(phi) = rolling.
    """
    speed = speed_kmh(development_m, cadence_rpm) / 3.6
    thrust = np.asarray(power_w) * efficiency / speed - 0.5 * air_density * drag_area_m2 * speed**2
    friction = np.arctan(rolling)
    share = thrust / (np.asarray(mass_kg) * GRAVITY) * np.cos(friction)
    return np.where(share >= 1, np.inf, np.tan(np.arcsin(np.clip(share, -1, 1)) - friction))
