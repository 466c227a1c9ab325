"""The weather of a place month by month where nobody has said it: from the shipped grid, each figure with its width."""

import numpy as np
from numpy.typing import ArrayLike

from omnifer.core.model.road import MonthNormals, Station
from omnifer.core.physics import climatology
from omnifer.core.world import cells

COLDEST_C, WARMEST_C = -60.0, 60.0
"""What a temperature of a month can be (`TemperatureC`) [°C]."""


def stations_at(lat_deg: ArrayLike, lon_deg: ArrayLike, elevation_m: ArrayLike | None, names: list[str]) -> list[Station | None]:
    """A station for each place; None where the grid knows of no land.

    Parameters
    ----------
    lat_deg, lon_deg : array_like, shape (places,)
        Where they lie [°, °].
    elevation_m : array_like, shape (places,), or None
        How high they lie [m]; None: as high as the land is there on the whole.
    names : list of str
        Of each place.

    Returns
    -------
    list of Station or None
        Wind is not told by the grid: it stays the usual one of a month's normals.
    """
    lat, lon = (np.atleast_1d(np.asarray(v, dtype=float)) for v in (lat_deg, lon_deg))
    found = cells.normals_at(lat, lon, elevation_m)
    sun = np.array([climatology.daily_radiation(lat, middle) for middle in climatology.MIDDLES])
    ranges = climatology.daily_range(found.rain_mm, sun, found.sea)
    of_max, of_min = climatology.spreads(found.mean_c)
    figures = {
        "mean_max_c": np.clip(found.mean_c + ranges / 2, COLDEST_C, WARMEST_C).round(1),
        "mean_min_c": np.clip(found.mean_c - ranges / 2, COLDEST_C, WARMEST_C).round(1),
        "spread_max_c": of_max.round(1),
        "spread_min_c": of_min.round(1),
        "rain_days": climatology.rain_days(found.rain_mm).round(1),
        "humidity_pct": climatology.humidity(found.mean_c, ranges, found.rain_mm, sun).round(),
    }
    widths = climatology.width(found.rough_m).round(1)
    return [
        None if np.isnan(found.mean_c[0, i]) else Station(
            id=f"grid-{i + 1}", name=name, lat_deg=round(float(lat[i]), 5), lon_deg=round(float(lon[i]), 5),
            elevation_m=round(float(found.elevation_m[i])), source=cells.SOURCE, width_k=float(widths[i]),
            months=tuple(MonthNormals(**{key: float(table[month, i]) for key, table in figures.items()}) for month in range(12)),
        )
        for i, name in enumerate(names)
    ]  # fmt: skip
