"""How long each cell of the road takes a rider."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.road import Surface, SurfaceStretch, Transfer
from omnifer.core.physics import air, riding
from omnifer.core.road.profile import Profile

ROLLING_TIMES: dict[Surface, float] = {"asphalt": 1.0, "rough_asphalt": 1.4, "gravel": 2.0, "soft": 4.0, "push": np.inf}
"""Rolling resistance over the bike's own on good asphalt [-]; practice: 0.005, 0.007 to 0.012, 0.010 to 0.020, 0.02 up."""
CAP_TIMES: dict[Surface, float] = {"asphalt": 1.0, "rough_asphalt": 0.85, "gravel": 0.65, "soft": 0.5, "push": 1.0}
"""Fastest descent over that on asphalt [-]; practice."""
WIND_AT_RIDER = 0.654
"""Wind at 1.2 m over wind at 10 m [-]; power law with exponent 0.20, open country with some shelter."""
MEAN_COMPONENT = 2 / np.pi
"""Mean of a wind's component along the road when its direction is not known [-]."""
SURFACES: tuple[Surface, ...] = ("asphalt", "rough_asphalt", "gravel", "soft", "push")

Array = NDArray[np.float64]


@dataclass(frozen=True)
class RidingMass:
    """One rider as the road sees them: power, mass at each point of the road without stores of water and food, and drag."""

    power_w: float
    dry_kg: float
    stores_part: float
    """Part of the party's water and food that this rider moves [-]."""
    drag_area_m2: float
    rolling_resistance: float
    slowest_kmh: float = 0.0
    """Slower than this the lowest gear cannot be turned, and the bicycle is walked [km/h]."""


@dataclass(frozen=True)
class Conditions:
    """What the road is like at each point: surface, wind, stores on board, and whether it is ridden at all."""

    surface: NDArray[np.intp]
    wind_ms: Array
    stores_kg: Array
    ridden: NDArray[np.bool_]
    transfer_hours: Array
    """Hours spent in transfers up to each point [h]."""


def conditions(
    profile: Profile, surfaces: Sequence[SurfaceStretch], transfers: Sequence[Transfer], wind_ms: Array, stores_kg: Array
) -> Conditions:
    """What a road is like; later stretches of surface lie over earlier ones."""
    surface = np.zeros(profile.km.size, dtype=np.intp)
    for stretch in surfaces:
        surface[(profile.km >= stretch.from_km) & (profile.km < stretch.to_km)] = SURFACES.index(stretch.surface)
    ridden = np.ones(profile.km.size, dtype=bool)
    spent = np.zeros(profile.km.size)
    for transfer in transfers:
        ridden[(profile.km >= transfer.from_km) & (profile.km < transfer.to_km)] = False
        spent += transfer.hours * np.clip((profile.km - transfer.from_km) / (transfer.to_km - transfer.from_km), 0, 1)
    return Conditions(surface, wind_ms, stores_kg, ridden, spent)


def hours_along(profile: Profile, party: Sequence[RidingMass], here: Conditions) -> Array:
    """Riding hours from the start to each point, at the pace of whoever is slowest there [h].

    Pace is solved once for each gradient (0.1 %), altitude (100 m), surface, wind (0.5 m/s) and mass (2 kg) that occur
    together. A wind of unknown direction blows half of the time against and half of the time along the road.
    """
    slopes, heights, slope_class = profile.slope_classes
    wind = np.rint(here.wind_ms[:-1] * WIND_AT_RIDER * MEAN_COMPONENT * 2).astype(np.int64)
    stores = np.rint(here.stores_kg[:-1] / 2).astype(np.int64)
    key = ((slope_class * len(SURFACES) + here.surface[:-1]) * 64 + np.minimum(wind, 63)) * 128 + np.minimum(stores, 127)
    classes, cell = np.unique(key, return_inverse=True)
    rest, stores_class = classes // 128, classes % 128 * 2.0
    rest, wind_class = rest // 64, rest % 64 / 2.0
    surface, slope = rest % len(SURFACES), rest // len(SURFACES)
    pace = np.max(
        [_hours_per_km(rider, slopes[slope], heights[slope], surface, wind_class, stores_class) for rider in party], axis=0
    )
    hours = np.diff(profile.km) * pace[cell] * here.ridden[:-1]
    return np.concatenate([[0.0], np.cumsum(hours)])


def _hours_per_km(
    rider: RidingMass, slopes: Array, heights_m: Array, surface: NDArray[np.int64], wind_ms: Array, stores_kg: Array
) -> Array:
    """Time for a kilometre [h/km]: never slower than walking, never faster than the cap downhill."""
    times = np.array([ROLLING_TIMES[name] for name in SURFACES])[surface]
    cap = practice.DESCENT_CAP_KMH * np.array([CAP_TIMES[name] for name in SURFACES])[surface]
    rolling = rider.rolling_resistance * np.where(np.isfinite(times), times, 1.0)
    mass = rider.dry_kg + rider.stores_part * stores_kg
    density = air.density(heights_m)

    def pace_in(wind: Array) -> Array:
        free = 3.6 * riding.steady_speed(
            rider.power_w, slopes, mass, rider.drag_area_m2, rolling, density, practice.DRIVETRAIN_EFFICIENCY, wind
        )
        turned = np.where(free < rider.slowest_kmh, practice.WALKING_KMH, free)
        ridden = np.clip(turned, practice.WALKING_KMH, np.maximum(cap, practice.WALKING_KMH))
        return np.asarray(1 / np.where(np.isfinite(times), ridden, practice.WALKING_KMH))

    if not wind_ms.any():
        return pace_in(wind_ms)
    return (pace_in(wind_ms) + pace_in(-wind_ms)) / 2


def minutes_per_kilogram(profile: Profile, rider: RidingMass, days: int) -> float:
    """Minutes a day that one kilogram more costs this rider on this road, both ways averaged [min/day/kg]."""
    slopes, heights, slope_class = profile.slope_classes
    km = np.bincount(slope_class, np.diff(profile.km), minlength=slopes.size)
    asphalt, still = np.zeros(slopes.size, dtype=np.int64), np.zeros(slopes.size)

    def hours(more_kg: float) -> float:
        changed = replace(rider, dry_kg=rider.dry_kg + more_kg)
        return float(km @ _hours_per_km(changed, slopes, heights, asphalt, still, still))

    return (hours(5) - hours(-5)) * 60 / 10 / max(days, 1)
