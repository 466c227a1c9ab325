"""The invented country of the demo: a seeded track over a coast, a basin, a pass and a valley."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import Track, Weather
from omnifer.core.physics.geodesy import segment_lengths

SEED = 20270412
LENGTH_KM = 2600.0
SPACING_M = 60.0
START_LAT, START_LON = 37.2, -36.0
"""Open ocean: no real place is meant."""

RELIEF = (
    (0, 6), (60, 22), (120, 160), (180, 35), (260, 240), (330, 15), (424, 60), (520, 380), (583, 610), (676, 940),
    (760, 1120), (860, 1040), (921, 1180), (1004, 1290), (1088, 1010), (1179, 1340), (1309, 1620), (1384, 2450),
    (1462, 3210), (1493, 3640), (1527, 2980), (1611, 1750), (1749, 960), (1888, 560), (2024, 410), (2204, 260),
    (2343, 140), (2478, 45), (2600, 4),
)  # fmt: skip
"""Kilometre and height of the large forms [km, m]."""
ROUGHNESS = ((0, 60), (424, 90), (676, 35), (1004, 70), (1309, 110), (1611, 60), (1888, 30), (2478, 12), (2600, 5))
"""Height of the hills between the large forms [km, m]."""
HEADING = ((0, 95), (424, 70), (676, 40), (1004, 60), (1309, 20), (1611, 75), (2024, 110), (2600, 130))
"""Direction of travel [km, degrees from north]."""

Array = NDArray[np.float64]


def _along(table: tuple[tuple[float, float], ...], km: Array) -> Array:
    return np.asarray(np.interp(km, [row[0] for row in table], [row[1] for row in table]))


def _waves(chance: np.random.Generator, km: Array, lengths_km: tuple[float, ...]) -> Array:
    """A sum of sines with shorter waves lower, about 1 high."""
    total = np.zeros(km.size)
    for length in lengths_km:
        total += (length / lengths_km[0]) ** 0.7 * np.sin(2 * np.pi * (km / length + chance.random()))
    return np.asarray(total / len(lengths_km) ** 0.5)


def demo_track() -> Track:
    """The track of the demo: the same points at every call."""
    chance = np.random.Generator(np.random.PCG64(SEED))
    km = np.arange(0.0, LENGTH_KM + 1e-9, SPACING_M / 1000)
    heights = _along(RELIEF, km) + _along(ROUGHNESS, km) * _waves(chance, km, (11.0, 5.3, 2.1, 0.9))
    heights = np.maximum(heights, 2.0)
    wander = 32 * _waves(chance, km, (70.0, 21.0, 6.0, 1.7))
    bearing = np.radians(_along(HEADING, km) + wander)
    north_m, east_m = np.cos(bearing) * SPACING_M, np.sin(bearing) * SPACING_M
    lat = START_LAT + np.concatenate([[0.0], np.cumsum(north_m[:-1])]) / 111_200
    lon = START_LON + np.concatenate([[0.0], np.cumsum(east_m[:-1] / (111_320 * np.cos(np.radians(lat[:-1]))))])
    stretch = LENGTH_KM * 1000 / segment_lengths(lat, lon).sum()
    lat, lon = START_LAT + (lat - START_LAT) * stretch, START_LON + (lon - START_LON) * stretch
    return Track(
        name="Tamsen Quay to Lantern Point",
        lat_deg=tuple(np.round(lat, 6).tolist()),
        lon_deg=tuple(np.round(lon, 6).tolist()),
        elevation_m=tuple(np.round(heights, 1).tolist()),
    )


WEATHER = (
    Weather(from_km=0, day_high_c=19, night_low_c=8, humidity_pct=75, at_elevation_m=20),
    Weather(from_km=424, day_high_c=25, night_low_c=9, humidity_pct=55, at_elevation_m=300),
    Weather(from_km=676, day_high_c=33, night_low_c=12, humidity_pct=18, at_elevation_m=1050),
    Weather(from_km=1004, day_high_c=29, night_low_c=10, humidity_pct=35, at_elevation_m=1200),
    Weather(from_km=1309, day_high_c=22, night_low_c=6, humidity_pct=45, at_elevation_m=1620),
    Weather(from_km=1611, day_high_c=26, night_low_c=11, humidity_pct=50, at_elevation_m=1700),
    Weather(from_km=1888, day_high_c=31, night_low_c=17, humidity_pct=55, at_elevation_m=500),
)
