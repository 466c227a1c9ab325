"""How long each cell of the road takes a rider, and what work it takes.

All-day power decides the time of every cell. Where the lowest gear cannot be turned slowly enough for it, a rider pushes
harder for a while and rests from it afterwards, which takes the same time; where even that is not enough, the bike is
pushed, at a speed that the same power bounds.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.practice import USUAL, Practice
from omnifer.core.model.road import Surface, SurfaceStretch, Transfer
from omnifer.core.physics import air, body, riding
from omnifer.core.road.profile import Profile

MEAN_COMPONENT = 2 / np.pi
"""Mean of a wind's component along the road when its direction is not known [-]."""
SURFACES: tuple[Surface, ...] = ("asphalt", "rough_asphalt", "gravel", "soft", "push")
WALK_BAND = 0.2
"""From where the ramp's power no longer turns the lowest gear, parts of the road are walked; this part more, and all is [-]."""
CLASS_KG, CLASS_MS, CLASS_K = 2.0, 0.5, 5.0
"""Pace is solved once for each class of stores, wind and air that occurs."""
ALIKE = 8
"""So many pieces that follow each other by conditions and gradient are ridden as one where a sum is wanted."""
STORES, WINDS, AIRS, FREEZING = 128, 64, 64, 24
"""How many classes there are of stores, wind and air, and which class of air 0 °C is."""

Array = NDArray[np.float64]
Ints = NDArray[np.int64]


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
    """The lowest gear cannot be turned slower than this [km/h]."""
    usual: Practice = USUAL
    ground_times: tuple[float, ...] = (1.0,) * len(SURFACES)
    """Rolling resistance of the tyres over that of usual ones, by surface [-]."""


@dataclass(frozen=True)
class Conditions:
    """What the road is like: surface and whether it is ridden for each cell, the rest for each node."""

    surface: NDArray[np.intp]
    ridden: NDArray[np.bool_]
    wind_ms: Array
    """At 10 m [m/s]."""
    air_c: Array
    """Air in the hour in which one rides there [°C]."""
    transfer_hours: Array
    """Hours spent in transfers up to each node [h]."""
    detour_km: Array
    """Kilometres off the road and back up to each node [km]."""


@dataclass(frozen=True)
class Places:
    """Pieces of road that differ, as arrays of one length."""

    slope: Array
    height_m: Array
    surface: Ints
    wind_ms: Array
    """Ahead or behind, at the rider [m/s]."""
    stores_kg: Array
    air_c: Array

    def chosen(self, which: NDArray[np.bool_] | Ints) -> "Places":
        """Some of them."""
        return Places(
            self.slope[which], self.height_m[which], self.surface[which], self.wind_ms[which], self.stores_kg[which],
            self.air_c[which],
        )  # fmt: skip


@dataclass(frozen=True, eq=False)
class Ridden:
    """What pieces of road take a party at the pace of whoever is slowest at each and in each wind; worked out as asked for."""

    party: Sequence[RidingMass]
    where: Places
    alone: Sequence[Array]
    """Of each rider, as `_alone` gives it."""

    def lighter(self, rider: int, less_kg: float) -> "Ridden":
        """The same pieces with one rider so much lighter."""
        return self.otherwise(rider, replace(self.party[rider], dry_kg=self.party[rider].dry_kg - less_kg))

    def otherwise(self, rider: int, riding: RidingMass) -> "Ridden":
        """The same pieces with one rider riding otherwise."""
        directions = self.alone[rider].shape[1]
        party, alone = list(self.party), list(self.alone)
        party[rider], alone[rider] = riding, _alone(riding, self.where)[:, :directions]
        return Ridden(party, self.where, alone)

    def some(self, which: Ints) -> "Ridden":
        """Some of the pieces."""
        return Ridden(self.party, self.where.chosen(which), [theirs[which] for theirs in self.alone])

    @cached_property
    def _slowest(self) -> tuple[Array, NDArray[np.intp]]:
        """What the slowest take, shape (places, directions, 3), and who they are; one direction where no wind blows."""
        theirs, who = self.alone[0], np.zeros(self.alone[0].shape[:2], dtype=np.intp)
        for r, other in enumerate(self.alone[1:], 1):
            slower = other[..., 0] > theirs[..., 0]
            theirs, who = np.where(slower[..., None], other, theirs), np.where(slower, r, who)
        return theirs, who

    @cached_property
    def hours(self) -> Array:
        """For each kilometre [h/km]."""
        return np.asarray(self._slowest[0][..., 0].mean(axis=1))

    @property
    def hours_each_way(self) -> Array:
        """The same for the wind ahead and behind, shape (places, directions) [h/km]."""
        return np.asarray(self._slowest[0][..., 0])

    @cached_property
    def walked(self) -> Array:
        """Part on foot [-]."""
        return np.asarray(self._slowest[0][..., 1].mean(axis=1))

    @cached_property
    def effort(self) -> Array:
        """Work of each rider, as hours at all-day power, shape (riders, places) [h/km]."""
        theirs, _ = self._slowest
        return np.array([_effort(rider, self.where, theirs[..., 0], theirs[..., 1]) for rider in self.party])

    @cached_property
    def per_kg(self) -> Array:
        """More time for one kilogram more on each rider's bike, shape (riders, places) [h/km/kg]."""
        theirs, who = self._slowest
        return np.array([np.where(who == r, theirs[..., 2], 0.0).mean(axis=1) for r in range(len(self.party))])


@dataclass(frozen=True, eq=False)
class Pace:
    """The road as a party rides it; what is summed is summed from the start to each node."""

    profile: Profile
    there: Ridden
    """Of every different piece of road."""
    piece: NDArray[np.int32]
    """Which of them each cell is."""
    cell_km: Array
    """Ridden length of each cell [km]."""
    detour: Ridden
    """Of the way off the road, where there is one."""
    detour_km: Array
    """That way between each node and the next."""

    def lighter(self, rider: int, less_kg: float) -> "Pace":
        """The same ride with one of the riders so much lighter."""
        return replace(self, there=self.there.lighter(rider, less_kg), detour=self.detour.lighter(rider, less_kg))

    def otherwise(self, rider: int, riding: RidingMass) -> "Pace":
        """The same road with one of the riders riding otherwise."""
        return replace(self, there=self.there.otherwise(rider, riding), detour=self.detour.otherwise(rider, riding))

    def saved_hours(self, rider: int, less_kg: float) -> float:
        """What the party saves with one of the riders so much lighter, about [h].

        Of every few pieces that are nearly alike the longest is ridden for all: an eighth of the time, true to a per cent. What
        one place or day takes, `lighter` tells.
        """
        groups = np.zeros((-(-self.piece_km.size // ALIKE), ALIKE))
        groups.flat[: self.piece_km.size] = self.piece_km
        some = self.there.some(np.arange(len(groups)) * ALIKE + groups.argmax(axis=1))
        saved = (some.hours - some.lighter(rider, less_kg).hours) @ groups.sum(axis=1)
        off = self.detour.hours - self.detour.lighter(rider, less_kg).hours
        return float(saved + off @ self.detour_km[self.detour_km > 0])

    @cached_property
    def piece_km(self) -> Array:
        """How much of the road is of each piece [km]."""
        return np.asarray(np.bincount(self.piece, self.cell_km, minlength=self.there.hours.size), dtype=float)

    def _summed(self, rate: Array, off: Array) -> Array:
        along = np.add.reduceat(self.cell_km * rate[self.piece], self.profile.node_cells[:-1])
        along[self.detour_km > 0] += self.detour_km[self.detour_km > 0] * off
        return np.concatenate([[0.0], np.cumsum(along)])

    @cached_property
    def hours(self) -> Array:
        """Riding hours, on foot and off the road included [h]."""
        return self._summed(self.there.hours, self.detour.hours)

    def hours_each_way(self) -> Array:
        """The same with the wind ahead all along the road, and behind, shape (2, nodes) [h]."""
        there, off = (r.hours_each_way for r in (self.there, self.detour))
        return np.array([self._summed(there[:, way], off[:, way]) for way in (0, -1)])

    @cached_property
    def walked_km(self) -> Array:
        """Kilometres on foot [km]."""
        return self._summed(self.there.walked, self.detour.walked)

    @cached_property
    def effort_hours(self) -> Array:
        """Work of each rider, as hours at all-day power, shape (riders, nodes) [h]."""
        return np.array([self._summed(r, off) for r, off in zip(self.there.effort, self.detour.effort, strict=True)])

    @cached_property
    def hours_per_kg(self) -> Array:
        """What a kilogram more on each rider's bike costs the party on the whole road, shape (riders,) [h/kg]."""
        return np.asarray(self.there.per_kg @ self.piece_km + self.detour.per_kg @ self.detour_km[self.detour_km > 0])


def conditions(
    profile: Profile, surfaces: Sequence[SurfaceStretch], transfers: Sequence[Transfer], wind_ms: Array,
    air_c: Array | None = None, detours: Sequence[tuple[float, float]] = (),
) -> Conditions:  # fmt: skip
    """What a road is like; later stretches of surface lie over earlier ones.

    Parameters
    ----------
    wind_ms, air_c : numpy.ndarray, shape (nodes,)
        Wind at 10 m [m/s], and air [°C], the standard atmosphere's where left out.
    detours : sequence of (float, float)
        Where the road is left for a stop, and how far it lies off [km, km].
    """

    def cells(stretch: SurfaceStretch | Transfer) -> slice:
        first, last = np.searchsorted(profile.km, [stretch.from_km, stretch.to_km])
        return slice(int(first), int(last))

    surface = np.zeros(profile.km.size - 1, dtype=np.intp)
    for stretch in surfaces:
        surface[cells(stretch)] = SURFACES.index(stretch.surface)
    ridden = np.ones(profile.km.size - 1, dtype=bool)
    nodes_km = profile.nodes.km
    spent, off = np.zeros(nodes_km.size), np.zeros(nodes_km.size)
    for transfer in transfers:
        ridden[cells(transfer)] = False
        spent += transfer.hours * np.clip((nodes_km - transfer.from_km) / (transfer.to_km - transfer.from_km), 0, 1)
    for at_km, one_way_km in detours:
        # The way there is ridden before the stop, the way back behind it: in the pieces of road before and after its own.
        own = int(np.searchsorted(nodes_km, at_km, side="right")) - 1
        off[max(min(own, nodes_km.size - 2), 1) :] += one_way_km
        off[min(own + 2, nodes_km.size - 1) :] += one_way_km
    if air_c is None:
        air_c = air.standard_temperature(profile.nodes.elevation_m) - 273.15
    return Conditions(surface, ridden, wind_ms, air_c, spent, off)


def pace_along(profile: Profile, party: Sequence[RidingMass], here: Conditions, stores_kg: Array) -> Pace:
    """How fast the road is ridden, piece by piece, at the pace of whoever is slowest there.

    Pace is solved once for each gradient (0.1 %), altitude (100 m), surface, wind (0.5 m/s), air (5 K) and mass (2 kg) that
    occur together. A wind of unknown direction blows half of the time against and half of the time along the road.

    Parameters
    ----------
    stores_kg : numpy.ndarray, shape (nodes,)
        Water and food of the party on board at each node [kg].
    """
    slopes, _, slope_class = profile.slope_classes
    blown = here.wind_ms * party[0].usual.wind_at_rider * MEAN_COMPONENT
    wind = np.minimum(np.rint(blown / CLASS_MS), WINDS - 1).astype(np.int64)
    stores = np.minimum(np.rint(stores_kg / CLASS_KG), STORES - 1).astype(np.int64)
    warm = np.clip(np.rint(here.air_c / CLASS_K) + FREEZING, 0, AIRS - 1).astype(np.int64)
    state = (wind * STORES + stores) * AIRS + warm
    states, of_node = np.unique(state[:-1], return_inverse=True)
    present = np.flatnonzero(np.bincount(here.surface, minlength=len(SURFACES)))
    surface = np.searchsorted(present, here.surface) if present.size > 1 else 0
    row = surface * states.size + np.repeat(of_node, np.diff(profile.node_cells))
    key = row * slopes.size + slope_class
    number = np.zeros(present.size * states.size * slopes.size, dtype=np.int32)
    number[key] = 1
    found = np.flatnonzero(number)
    number[found] = np.arange(found.size)
    kind, among = np.divmod(found // slopes.size, states.size)
    there = _ridden(profile, party, present[kind], states[among], found % slopes.size)
    off_km = np.diff(here.detour_km)
    nodes = np.flatnonzero(off_km > 0)
    level = np.zeros(nodes.size)
    off = _places(level, profile.nodes.elevation_m[nodes], level.astype(np.int64), state[nodes])
    detour = Ridden(party, off, [_alone(rider, off) for rider in party])
    return Pace(profile, there, number[key], profile.cell_km * here.ridden, detour, off_km)


def _ridden(profile: Profile, party: Sequence[RidingMass], surface: Ints, state: Ints, slope: Ints) -> Ridden:
    """What the pieces of a road take, each rider's part kept from the last time it was asked for."""
    slopes, heights, _ = profile.slope_classes
    where = _places(slopes[slope], heights[slope], surface, state)
    key = (state * len(SURFACES) + surface) * slopes.size + slope
    directions = 2 if where.wind_ms.any() else 1
    return Ridden(party, where, [_table(profile, rider).at(key, where)[:, :directions] for rider in party])


def _places(slope: Array, height_m: Array, surface: Ints, state: Ints) -> Places:
    moving, warm = np.divmod(state, AIRS)
    wind, stores = np.divmod(moving, STORES)
    return Places(slope, height_m, surface, wind * CLASS_MS, stores * CLASS_KG, (warm - FREEZING) * CLASS_K)


class _Table:
    """One rider on one road: every piece that was asked for, solved once."""

    def __init__(self, rider: RidingMass) -> None:
        self.rider = rider
        self.keys = np.zeros(0, dtype=np.int64)
        self.values = np.zeros((0, 2, 3))

    def at(self, keys: Ints, where: Places) -> Array:
        """As `_alone`, for pieces under keys of their own."""
        at = np.searchsorted(self.keys, keys)
        known = np.zeros(keys.size, dtype=bool)
        inside = at < self.keys.size
        known[inside] = self.keys[at[inside]] == keys[inside]
        result = np.empty((keys.size, 2, 3))
        result[known] = self.values[at[known]]
        if not known.all():
            result[~known] = _alone(self.rider, where.chosen(~known))
            every = np.concatenate([self.keys, keys[~known]])
            order = np.argsort(every, kind="stable")
            self.keys, self.values = every[order], np.concatenate([self.values, result[~known]])[order]
        return result


@lru_cache(maxsize=16)
def _table(profile: Profile, rider: RidingMass) -> _Table:
    """Kept for the tours last asked for: most changes leave the road and the masses on it as they were."""
    del profile
    return _Table(rider)


def _of_surface(rider: RidingMass, where: Places) -> tuple[Array, Array, NDArray[np.bool_]]:
    """Rolling resistance [-], fastest descent [m/s], and whether it is pushed, at each place."""
    usual = rider.usual
    times = np.array([1.0, usual.rough_asphalt_times, usual.gravel_times, usual.soft_times, 1.0])[where.surface]
    cap = np.array([1.0, usual.rough_asphalt_cap, usual.gravel_cap, usual.soft_cap, 1.0])[where.surface]
    times = times * np.array(rider.ground_times)[where.surface]
    return rider.rolling_resistance * times, usual.descent_cap_kmh / 3.6 * cap, where.surface == SURFACES.index("push")


def _alone(rider: RidingMass, where: Places) -> Array:
    """One rider at each place, shape (places, 2, 3): with the wind ahead and behind, time [h/km], part on foot [-], and
    time for one kilogram more [h/km/kg]."""
    headwinds = (where.wind_ms, -where.wind_ms) if where.wind_ms.any() else (where.wind_ms,)
    found = np.stack([_in_wind(rider, where, wind) for wind in headwinds], axis=1)
    return found if found.shape[1] == 2 else np.repeat(found, 2, axis=1)


def _in_wind(rider: RidingMass, where: Places, wind: Array) -> Array:
    usual = rider.usual
    rolling, cap, pushed = _of_surface(rider, where)
    mass = rider.dry_kg + rider.stores_part * where.stores_kg
    density = air.density(where.height_m, where.air_c)
    power = rider.power_w * body.aerobic_share(where.height_m)
    speed = riding.steady_speed(
        power, where.slope, mass, rider.drag_area_m2, rolling, density, usual.drivetrain_efficiency, wind
    )  # fmt: skip
    slope = np.arctan(where.slope)
    per_kg_n = air.GRAVITY * (rolling * np.cos(slope) + np.sin(slope))
    stiff = density * rider.drag_area_m2 * np.abs(speed + wind)
    steady = 1 / speed
    # Time for a kilogram more: both sides of v F(v) = efficiency x power, by mass.
    longer = per_kg_n / (usual.drivetrain_efficiency * power + speed**2 * stiff)
    capped = speed >= cap
    ride, ride_longer = np.where(capped, 1 / cap, steady), np.where(capped, 0.0, longer)
    foot = 3.6 / usual.walking_kmh
    walk, walk_longer = np.maximum(steady, foot), np.where(steady > foot, longer, 0.0)
    slowest = rider.slowest_kmh / 3.6
    force = riding.resistance(slowest, where.slope, mass, rider.drag_area_m2, rolling, density, wind)
    most = usual.ramp_times * usual.drivetrain_efficiency * power
    beyond = (force * slowest / most - 1) / WALK_BAND
    beyond_longer = np.where((beyond > 0) & (beyond < 1) & ~pushed, per_kg_n * slowest / most / WALK_BAND, 0.0)
    part = np.where(pushed, 1.0, np.clip(beyond, 0, 1))
    time = (1 - part) * ride + part * walk
    more = (1 - part) * ride_longer + part * walk_longer + beyond_longer * (walk - ride)
    return np.stack([time / 3.6, part, more / 3.6], axis=1)


def _effort(rider: RidingMass, where: Places, time: Array, walked: Array) -> Array:
    """Work of a rider at the party's pace [h/km at all-day power]: none where the bike runs by itself, all of it on foot."""
    rolling, _, _ = _of_surface(rider, where)
    mass = rider.dry_kg + rider.stores_part * where.stores_kg
    density = air.density(where.height_m, where.air_c)
    share = body.aerobic_share(where.height_m)
    made = []
    for direction in range(time.shape[1]):
        wind, hours, foot = where.wind_ms * (1 - 2 * direction), time[:, direction], walked[:, direction]
        speed = 1 / (3.6 * hours)
        force = riding.resistance(speed, where.slope, mass, rider.drag_area_m2, rolling, density, wind)
        part = riding.crank_power(speed, force, rider.usual.drivetrain_efficiency) / rider.power_w
        made.append(hours * np.where(foot > 0, share, np.clip(part, 0.0, share)))
    return np.asarray(sum(made) / len(made))


def hours_alone(rider: RidingMass, slope: Array, height_m: Array) -> Array:
    """Time of one rider in still, standard air on asphalt [h/km]."""
    return _in_still_air(rider, slope, height_m)[:, 0, 0]


def part_on_foot(rider: RidingMass, slope: Array, height_m: Array) -> Array:
    """How much of it one rider walks there [-]."""
    return _in_still_air(rider, slope, height_m)[:, 0, 1]


def _in_still_air(rider: RidingMass, slope: Array, height_m: Array) -> Array:
    nothing = np.zeros(slope.size)
    air_c = air.standard_temperature(height_m) - 273.15
    return _alone(rider, Places(slope, height_m, nothing.astype(np.int64), nothing, nothing, air_c))
