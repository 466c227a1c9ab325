"""Places of the gazetteer beside a road: as stops that it proposes, and as names for where one is."""

from collections.abc import Iterable, Sequence
from functools import lru_cache

import numpy as np

from omnifer.core.model.offered import OfferedStop, Perhaps
from omnifer.core.model.road import Stop
from omnifer.core.road.profile import Profile
from omnifer.core.road.symbols import NEAREST_DETOUR_KM
from omnifer.core.world import expected, places
from omnifer.core.world.places import Place

BESIDE_KM = 2.0
"""So far from the road a place is proposed [km]; practice."""
OWN_STOP_KM = 1.5
"""A stop of the rider's so near along the road is this place [km]; practice."""
LARGE_PEOPLE = 5_000
"""Smaller places have no quarters; practice."""
DETOUR_KM = 60.0
"""Farther off the road nobody rides to a place that was looked for by its name [km]; practice."""
MOST_LOOKED_AT = 400
"""Of places with one name, wherever on Earth."""
MOST_PROPOSED = 2000
"""Beyond so many only the larger ones are proposed."""


@lru_cache(maxsize=4)
def places_beside(nodes: Profile) -> tuple[tuple[Place, float, float], ...]:
    """The places along a road in its order, quarters of larger ones left out: each with its kilometre and how far off it lies.

    Kept for the roads last asked for; none where the road was typed.
    """
    if nodes.lat_deg is None or nodes.lon_deg is None:
        return ()
    found = places.beside(nodes.lat_deg, nodes.lon_deg, BESIDE_KM)
    whole = [place for place, _, _ in found]
    large = sorted((p for p in whole if p.people >= LARGE_PEOPLE), key=lambda p: -p.people)
    kept = [(p, float(nodes.km[at]), off) for p, at, off in found if not places.part_of_larger(p, large)]
    if len(kept) > MOST_PROPOSED:
        kept = sorted(kept, key=lambda one: -one[0].people)[:MOST_PROPOSED]
    return tuple(sorted(kept, key=lambda one: one[1]))


def offered_stops(profile: Profile, stops: Sequence[Stop]) -> list[OfferedStop]:
    """What lies along the road and is no stop yet, as stops with what their size lets one expect."""
    return _offered(places_beside(profile.nodes), stops)


def offered_by_name(profile: Profile, stops: Sequence[Stop], called: str) -> list[OfferedStop]:
    """Places that are called so or begin so, within a day's detour of the road and no stop yet; the nearest to it first."""
    found = places.search(called, MOST_LOOKED_AT)
    lat, lon = (np.array([getattr(place, axis) for place in found]) for axis in ("lat_deg", "lon_deg"))
    nearest = profile.nearest_of_all(lat, lon) if found else None
    if nearest is None:
        return []
    near = [(place, at, off) for place, at, off in zip(found, *(of.tolist() for of in nearest), strict=True) if off <= DETOUR_KM]
    return _offered(sorted(near, key=lambda one: one[2]), stops)


def _offered(found: Iterable[tuple[Place, float, float]], stops: Sequence[Stop]) -> list[OfferedStop]:
    used = {stop.id for stop in stops}
    offered = []
    for place, at_km, off_km in found:
        # One is in a town as soon as its houses are reached.
        off = max(off_km - places.houses_km(place.people), 0)
        if any(abs(stop.at_km - at_km) <= OWN_STOP_KM and (off < OWN_STOP_KM or stop.name == place.name) for stop in stops):
            continue
        identifier = unused(f"place-{round(at_km)}", used)
        used.add(identifier)
        stop = Stop.model_validate({
            "id": identifier, "name": place.name, "at_km": round(at_km, 2),
            "detour_km": round(off, 1) if off >= NEAREST_DETOUR_KM else 0, **expected.parts_of(place.people),
        })  # fmt: skip
        perhaps = tuple(Perhaps(words=row.words, chance=round(chance, 2)) for row, chance in expected.perhaps(stop))
        offered.append(OfferedStop(
            stop=stop, country=place.country, off_km=round(off, 1), counted=tuple(expected.counted(stop)), perhaps=perhaps,
            source=places.SOURCE,
        ))  # fmt: skip
    return offered


def unused(stem: str, used: set[str]) -> str:
    """An identifier that none of these has."""
    return next(name for n in range(len(used) + 1) if (name := stem if n == 0 else f"{stem}-{n}") not in used)


def spot(profile: Profile, stops: Sequence[Stop], km: float) -> tuple[str, float] | None:
    """What a spot on the road is called by: the last place or stop that was passed, and how far behind it lies [km]; None where
    nothing with a name was passed."""
    named = [(at, place.name) for place, at, _ in places_beside(profile.nodes) if at <= km]
    named += [(stop.at_km, stop.name) for stop in stops if stop.at_km <= km]
    if not named:
        return None
    at, name = max(named)
    return name, km - at
