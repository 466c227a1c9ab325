"""The clocks along the road: which time zone holds where, and what it shows on a date."""

import datetime as dt
from dataclasses import dataclass
from functools import lru_cache
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray
from tzfpy import get_tz

from omnifer.core.model.road import Road, ZoneStretch
from omnifer.core.road.profile import Profile

LOOKED_EVERY_KM = 10.0
"""A zone is looked up so often along the road; a border between two looks is then sought more closely."""
BORDER_KM = 0.1
"""How closely a border is sought [km]."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Clocks:
    """The zones of a road: where each begins and its name; none for a road without coordinates."""

    from_km: Array
    names: tuple[str, ...]

    def stretches(self) -> list[ZoneStretch]:
        """As nouns, in road order."""
        return [ZoneStretch(from_km=km, zone=name) for km, name in zip(self.from_km.tolist(), self.names, strict=True)]

    def offsets(self, km: Array, day: NDArray[np.intp], dates: list[dt.date]) -> Array:
        """Hours by which the wall clock is ahead of UTC at places, each on one of the dates (at its noon) [h]."""
        if not self.names:
            return np.zeros(km.size)
        zone = np.maximum(np.searchsorted(self.from_km, km, side="right") - 1, 0)
        return np.array([[offset_h(name, date) for date in dates] for name in self.names])[zone, day]

    def offset_at(self, km: float, date: dt.date) -> float:
        """The same of one place."""
        return float(self.offsets(np.array([km]), np.zeros(1, dtype=np.intp), [date])[0])


def clocks_of(road: Road, profile: Profile) -> Clocks:
    """The zones that the rider has set, or those in which the road lies."""
    stretches = sorted(road.zones, key=lambda z: z.from_km) or offered(profile)
    return Clocks(np.array([z.from_km for z in stretches]), tuple(z.zone for z in stretches))


@lru_cache(maxsize=8)
def offered(profile: Profile) -> tuple[ZoneStretch, ...]:
    """The zones in which a road lies, by its coordinates; none for a typed road."""
    if profile.lat_deg is None:
        return ()
    looks = np.append(np.arange(0.0, profile.length_km, LOOKED_EVERY_KM), profile.length_km)
    found = [ZoneStretch(from_km=0, zone=_zone_at(profile, 0.0))]
    for before, after in zip(looks[:-1].tolist(), looks[1:].tolist(), strict=True):
        there = _zone_at(profile, after)
        if there == found[-1].zone:
            continue
        low, high = before, after
        while high - low > BORDER_KM:
            middle = (low + high) / 2
            low, high = (low, middle) if _zone_at(profile, middle) == there else (middle, high)
        found.append(ZoneStretch(from_km=round(high, 1), zone=there))
    return tuple(found)


def _zone_at(profile: Profile, km: float) -> str:
    """Name of the zone at a kilometre; the nominal one of its longitude where the map has none."""
    place = profile.position_at(km)
    assert place is not None
    lat_deg, lon_deg = place
    hours = round(lon_deg / 15)
    # The signs of these names are turned round: Etc/GMT+2 is two hours behind.
    return get_tz(lon_deg, lat_deg) or ("Etc/GMT" if hours == 0 else f"Etc/GMT{-hours:+d}")


@lru_cache(maxsize=4096)
def offset_h(zone: str, date: dt.date) -> float:
    """Hours by which a zone's wall clock is ahead of UTC at noon of a date [h]."""
    offset = dt.datetime(date.year, date.month, date.day, 12, tzinfo=ZoneInfo(zone)).utcoffset()
    assert offset is not None
    return offset.total_seconds() / 3600
