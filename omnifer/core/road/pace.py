"""How long each cell of the road takes a rider."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

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

WALKED_NEAR = 0.01
"""Ridden no faster than walking and this part more counts as walked [-]."""

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
    """What the road is like: surface and whether it is ridden for each cell, wind and hours in transfers for each node."""

    surface: NDArray[np.intp]
    ridden: NDArray[np.bool_]
    wind_ms: Array
    transfer_hours: Array
    """Hours spent in transfers up to each node [h]."""


@dataclass(frozen=True)
class Pace:
    """Sums from the start to each node: riding hours [h], and kilometres on foot."""

    hours: Array
    walked_km: Array


def conditions(profile: Profile, surfaces: Sequence[SurfaceStretch], transfers: Sequence[Transfer], wind_ms: Array) -> Conditions:
    """What a road is like; later stretches of surface lie over earlier ones. `wind_ms` is over its nodes."""

    def cells(stretch: SurfaceStretch | Transfer) -> slice:
        first, last = np.searchsorted(profile.km, [stretch.from_km, stretch.to_km])
        return slice(int(first), int(last))

    surface = np.zeros(profile.km.size - 1, dtype=np.intp)
    for stretch in surfaces:
        surface[cells(stretch)] = SURFACES.index(stretch.surface)
    ridden = np.ones(profile.km.size - 1, dtype=bool)
    nodes_km = profile.nodes.km
    spent = np.zeros(nodes_km.size)
    for transfer in transfers:
        ridden[cells(transfer)] = False
        spent += transfer.hours * np.clip((nodes_km - transfer.from_km) / (transfer.to_km - transfer.from_km), 0, 1)
    return Conditions(surface, ridden, wind_ms, spent)


def pace_along(profile: Profile, party: Sequence[RidingMass], here: Conditions, stores_kg: Array) -> Pace:
    """How fast the road is ridden, cell by cell, at the pace of whoever is slowest there, summed up to each node.

    Pace is solved once for each gradient (0.1 %), altitude (100 m), surface, wind (0.5 m/s) and mass (2 kg) that occur
    together. A wind of unknown direction blows half of the time against and half of the time along the road.

    Parameters
    ----------
    stores_kg : numpy.ndarray, shape (nodes,)
        Water and food of the party on board at each node [kg].
    """
    slopes, _, slope_class = profile.slope_classes
    wind = np.minimum(np.rint(here.wind_ms[:-1] * WIND_AT_RIDER * MEAN_COMPONENT * 2), 63).astype(np.int64)
    stores = np.minimum(np.rint(stores_kg[:-1] / 2), 127).astype(np.int64)
    states, state = np.unique(wind * 128 + stores, return_inverse=True)
    present = np.flatnonzero(np.bincount(here.surface, minlength=len(SURFACES)))
    surface = np.searchsorted(present, here.surface) if present.size > 1 else 0
    row = surface * states.size + np.repeat(state, np.diff(profile.node_cells))
    key = row * slopes.size + slope_class
    there = np.zeros((present.size * states.size, slopes.size), dtype=bool)
    there.ravel()[key] = True
    rows = [(int(kind), int(of)) for kind in present for of in states]
    slowest = np.max([_table(profile, rider).hours_per_km(rows, there) for rider in party], axis=0)
    km = profile.cell_km * here.ridden

    def summed(rate: Array) -> Array:
        return np.concatenate([[0.0], np.cumsum(np.add.reduceat(km * rate.ravel()[key], profile.node_cells[:-1]))])

    return Pace(summed(slowest), summed((slowest * practice.WALKING_KMH * (1 + WALKED_NEAR) >= 1).astype(float)))


class _Table:
    """The pace of one rider on one road for every slope and state that was asked for, each solved once [h/km]."""

    def __init__(self, profile: Profile, rider: RidingMass) -> None:
        self.slopes, self.heights, _ = profile.slope_classes
        self.rider = rider
        self.rows: dict[tuple[int, int], Array] = {}

    def hours_per_km(self, rows: list[tuple[int, int]], there: NDArray[np.bool_]) -> Array:
        """Paces where `there` says so, shape (rows, slopes); a row is a surface, and wind and stores in classes."""
        known = np.array([self.rows.setdefault(row, np.full(self.slopes.size, np.nan)) for row in rows])
        wanted, slope = np.nonzero(there & np.isnan(known))
        if wanted.size:
            surface, state = np.array(rows).T[:, wanted]
            known[wanted, slope] = _hours_per_km(
                self.rider, self.slopes[slope], self.heights[slope], surface, state // 128 / 2.0, state % 128 * 2.0
            )
            self.rows |= {row: known[i] for i, row in enumerate(rows)}
        return np.where(there, known, 0.0)


@lru_cache(maxsize=16)
def _table(profile: Profile, rider: RidingMass) -> _Table:
    """Kept for the tours last asked for: most changes leave the road and the masses on it as they were."""
    return _Table(profile, rider)


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


@lru_cache(maxsize=16)
def minutes_per_kilogram(profile: Profile, rider: RidingMass, days: int) -> float:
    """Minutes a day that one kilogram more costs this rider on this road, both ways averaged [min/day/kg]."""
    slopes, heights, slope_class = profile.slope_classes
    km = np.bincount(slope_class, np.diff(profile.km), minlength=slopes.size)
    asphalt, still = np.zeros(slopes.size, dtype=np.int64), np.zeros(slopes.size)

    def hours(more_kg: float) -> float:
        changed = replace(rider, dry_kg=rider.dry_kg + more_kg)
        return float(km @ _hours_per_km(changed, slopes, heights, asphalt, still, still))

    return (hours(5) - hours(-5)) * 60 / 10 / max(days, 1)
