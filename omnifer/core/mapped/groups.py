"""Which places of a map lie near enough to a road to count, and which of them are one stop."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from omnifer.core.mapped import tags
from omnifer.core.mapped.reading import IN_GAPS_KM, WITHIN_KM, Feature, Reading
from omnifer.core.model.assessment import Gap
from omnifer.core.model.quantities import LONGEST_NAME, on_one_line
from omnifer.core.model.road import Stop
from omnifer.core.physics import geodesy
from omnifer.core.physics.geodesy import EARTH_KM
from omnifer.core.road.profile import Profile
from omnifer.core.world import places

LONG_KM = 30.0
"""A shorter gap is worth no detour [km]; practice."""
LONE_KM = 0.3
"""Places so near together are one stop [km]; practice."""
ENDS = {"water": ("water", ("reliable", "seasonal")), "food": ("shop", ("full", "basic"))}
"""What ends a gap, and may lie farther off the road for it."""
DIGITS = 9
"""Of a population; no more people live anywhere."""


@dataclass(frozen=True)
class Found:
    """A place of the map beside the road, and what is had there."""

    feature: Feature
    at_km: float
    off_km: float
    gives: dict[str, Any]

    @property
    def name(self) -> str:
        """What it is called; empty where it has no name."""
        return called(self.feature)


@dataclass(frozen=True)
class Settlement:
    """A place where people live."""

    name: str
    people: int | None
    reach_km: float
    at_km: float
    off_km: float


def long_gaps(gaps: Sequence[Gap], stops: Sequence[Stop]) -> list[Gap]:
    """Stretches without water or food that are worth a detour; none as long as nobody has said where anything is."""
    return [gap for gap in gaps if gap.supply in ENDS and gap.to_km - gap.from_km >= LONG_KM] if stops else []


def corridor_km(km: NDArray[np.float64], gaps: Sequence[Gap]) -> NDArray[np.float64]:
    """How far from each point of a road places are looked for [km]."""
    within = np.full(km.size, WITHIN_KM)
    for gap in gaps:
        within[(km >= gap.from_km) & (km <= gap.to_km)] = IN_GAPS_KM
    return within


def grouped(
    reading: Reading, profile: Profile, gaps: Sequence[Gap]
) -> tuple[list[tuple[Settlement, list[Found]]], list[list[Found]]]:
    """What is had in each settlement, and what lies alone or together outside of them."""
    features = reading.features
    if not features:
        return [], []
    lat, lon = (np.array([getattr(feature, axis) for feature in features]) for axis in ("lat_deg", "lon_deg"))
    nearest = profile.nearest_of_all(lat, lon)
    if nearest is None:
        return [], []
    at, off = (values.tolist() for values in nearest)
    towns = [
        (n, _settlement(feature, at[n], off[n])) for n, feature in enumerate(features) if _is_settlement(feature)
    ]  # fmt: skip
    found = [
        (n, Found(feature, at[n], off[n], gives))
        for n, feature in enumerate(features)
        if (gives := tags.supplies_of(feature.tags)) or tags.words_of(feature.tags)
        if _near_enough(at[n], off[n], gives, gaps)
    ]
    home = _homes([(lat[n], lon[n], town.reach_km) for n, town in towns], [(lat[n], lon[n]) for n, _ in found])
    within: dict[int, list[Found]] = {}
    outside: list[Found] = []
    for town, (_, one) in zip(home, found, strict=True):
        if town is None:
            outside.append(one)
        else:
            within.setdefault(town, []).append(one)
    return [(towns[n][1], group) for n, group in within.items()], _together(outside)


def called(feature: Feature) -> str:
    """The name of a place as a stop can have it; empty where it has none."""
    return str(on_one_line(feature.tags.get("name", "")))[:LONGEST_NAME].strip()


def _is_settlement(feature: Feature) -> bool:
    return feature.tags.get("place") in tags.SETTLEMENTS and bool(called(feature))


def _settlement(feature: Feature, at_km: float, off_km: float) -> Settlement:
    told = feature.tags.get("population", "").replace(" ", "")
    people = int(told) if told.isascii() and told.isdecimal() and len(told) <= DIGITS else None
    reach = max(tags.SETTLEMENTS[feature.tags["place"]], places.houses_km(people or 0))
    return Settlement(called(feature), people, reach, at_km, off_km)


def _near_enough(at_km: float, off_km: float, gives: dict[str, Any], gaps: Sequence[Gap]) -> bool:
    if off_km <= WITHIN_KM:
        return True
    return off_km <= IN_GAPS_KM and any(
        gap.from_km < at_km < gap.to_km and gives.get(ENDS[gap.supply][0]) in ENDS[gap.supply][1] for gap in gaps
    )


def _homes(towns: list[tuple[float, float, float]], spots: list[tuple[float, float]]) -> list[int | None]:
    """In which settlement each spot lies: the one into which it lies deepest; None outside of all."""
    if not towns or not spots:
        return [None] * len(spots)
    from scipy.spatial import cKDTree  # half a second that only maps cost

    table = np.array(towns)
    tree = cKDTree(geodesy.on_sphere(table[:, 0], table[:, 1]))
    where = geodesy.on_sphere(*np.array(spots).T)
    homes: list[int | None] = []
    for spot_, near in zip(where, tree.query_ball_point(where, table[:, 2].max() / EARTH_KM), strict=True):
        deep = [(float(np.linalg.norm(tree.data[n] - spot_)) * EARTH_KM / towns[n][2], n) for n in near]
        best = min(deep, default=(2.0, -1))
        homes.append(best[1] if best[0] <= 1 else None)
    return homes


def _together(outside: list[Found]) -> list[list[Found]]:
    """Places outside of settlements, those close together as one."""
    groups: list[list[Found]] = []
    for one in sorted(outside, key=lambda found: (found.at_km, found.off_km)):
        last = groups[-1][0] if groups else None
        if last is not None and one.at_km - last.at_km <= LONE_KM and abs(one.off_km - last.off_km) <= LONE_KM:
            groups[-1].append(one)
        else:
            groups.append([one])
    return groups
