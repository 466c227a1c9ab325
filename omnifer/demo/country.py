"""The invented country of the demo: a seeded track over a coast, a basin, a pass and a valley."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import MonthNormals, Station, Track
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


Table = tuple[tuple[float, float], ...]


def demo_track() -> Track:
    """The track of the demo: the same points at every call."""
    return track_of("Tamsen Quay to Lantern Point", SEED, LENGTH_KM, (RELIEF, ROUGHNESS, HEADING), (START_LAT, START_LON))


def track_of(name: str, seed: int, length_km: float, tables: tuple[Table, Table, Table], start: tuple[float, float]) -> Track:
    """A seeded track over large forms, with hills between them, in the directions of the tables."""
    relief, roughness, heading = tables
    chance = np.random.Generator(np.random.PCG64(seed))
    km = np.arange(0.0, length_km + 1e-9, SPACING_M / 1000)
    heights = _along(relief, km) + _along(roughness, km) * _waves(chance, km, (11.0, 5.3, 2.1, 0.9))
    heights = np.maximum(heights, 2.0)
    wander = 32 * _waves(chance, km, (70.0, 21.0, 6.0, 1.7))
    bearing = np.radians(_along(heading, km) + wander)
    north_m, east_m = np.cos(bearing) * SPACING_M, np.sin(bearing) * SPACING_M
    lat = start[0] + np.concatenate([[0.0], np.cumsum(north_m[:-1])]) / 111_200
    lon = start[1] + np.concatenate([[0.0], np.cumsum(east_m[:-1] / (111_320 * np.cos(np.radians(lat[:-1]))))])
    stretch = length_km * 1000 / segment_lengths(lat, lon).sum()
    lat, lon = start[0] + (lat - start[0]) * stretch, start[1] + (lon - start[1]) * stretch
    return Track(
        name=name, lat_deg=tuple(np.round(lat, 6).tolist()), lon_deg=tuple(np.round(lon, 6).tolist()),
        elevation_m=tuple(np.round(heights, 1).tolist()),
    )  # fmt: skip


def station(
    name: str, at_km: float, elevation_m: float, year: tuple[float, float, float, float], damp: tuple[float, float]
) -> Station:
    """A station with an even year: (yearly mean, half the yearly swing, daily swing, spread) [°C, K, K, K], (rain days, %)."""
    mean, season, daily, spread = year
    months = []
    for month in range(12):
        warm = -np.cos(2 * np.pi * (month - 0.5) / 12)
        middle = mean + season * warm
        months.append(
            MonthNormals(
                mean_max_c=round(middle + daily / 2, 1), mean_min_c=round(middle - daily / 2, 1), spread_max_c=spread,
                spread_min_c=round(spread * 0.8, 1), rain_days=round(damp[0] * (1 - 0.4 * warm), 1),
                humidity_pct=damp[1], wind_ms=3.5,
            )
        )  # fmt: skip
    return Station(
        id=name.lower().replace(" ", "-"),
        name=name,
        at_km=at_km,
        elevation_m=elevation_m,
        months=tuple(months),
        source="invented",
    )


STATIONS = (
    station("Tamsen Quay", 0, 8, (14.5, 6, 8, 2.6), (9, 76)),
    station("Castrel", 424, 60, (16, 8, 11, 3.2), (6, 60)),
    station("Kestin Wells", 751, 1120, (20, 9, 17, 3.4), (1.5, 20)),
    station("Ombreck", 1179, 1340, (15.5, 9, 15, 3.6), (4, 38)),
    station("Marl Tarn", 1462, 3210, (0.5, 8, 9, 4.2), (11, 58)),
    station("Kelvray", 1749, 960, (17, 8, 12, 3.0), (7, 52)),
    station("Fallow", 2204, 260, (25, 7, 13, 3.0), (6, 66)),
    station("Lantern Point", 2600, 4, (21, 5.5, 8, 2.4), (5, 70)),
)
