"""Stations that appear by themselves along a road, where the rider has named none near."""

from functools import lru_cache

import numpy as np

from omnifer.core.model.road import Road, Station
from omnifer.core.road.profile import Profile
from omnifer.core.world.cells import heights_at
from omnifer.core.world.climate import stations_at
from omnifer.core.world.places import name_near

EVERY_KM, EVERY_M = 150.0, 600.0
"""One station stands for so much of the road to each side, and for so much height up and down [km, m]; practice."""
LOOKED_EVERY_KM = 5.0
"""Where the road is looked at for how high it lies [km]."""


def stations_of(profile: Profile, road: Road) -> tuple[Station, ...]:
    """The stations whose weather holds along a road: the rider's own, then those of the grid where no own one is near.

    None of the grid where the rider has typed the weather, or where the road was typed and lies nowhere.
    """
    if profile.lat_deg is None or (road.weather and not road.stations):
        return road.stations
    return road.stations + offered(profile.nodes, road.stations)


@lru_cache(maxsize=4)
def offered(nodes: Profile, own: tuple[Station, ...]) -> tuple[Station, ...]:
    """One for each stretch and height of a road that no own station is near to; kept for the roads last asked for."""
    assert nodes.lat_deg is not None
    assert nodes.lon_deg is not None
    looked = np.unique(np.searchsorted(nodes.km, np.arange(0, nodes.length_km + LOOKED_EVERY_KM, LOOKED_EVERY_KM)))
    looked = looked[looked < nodes.km.size]
    # Of the sea nothing is known: a place there would keep one on the coast away.
    near = np.isnan(heights_at(nodes.lat_deg[looked], nodes.lon_deg[looked]))
    for station in own:
        place = (station.lat_deg, station.lon_deg) if station.at_km is None else nodes.position_at(station.at_km)
        near |= nodes.distance_to(*place)[looked] < EVERY_KM  # type: ignore[misc]
    chosen: list[int] = []
    for at in looked[~near].tolist():
        along, up = np.abs(nodes.km[chosen] - nodes.km[at]), np.abs(nodes.elevation_m[chosen] - nodes.elevation_m[at])
        if np.all((along >= EVERY_KM) | (up >= EVERY_M)):
            chosen.append(at)
    names = [name_near(float(nodes.lat_deg[at]), float(nodes.lon_deg[at])) or f"km {nodes.km[at]:.0f}" for at in chosen]
    heights = nodes.elevation_m[chosen] if nodes.has_heights else None
    found = stations_at(nodes.lat_deg[chosen], nodes.lon_deg[chosen], heights, names)
    return tuple(station for station in found if station is not None)
