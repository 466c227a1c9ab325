"""A long invented track for the benchmarks."""

import numpy as np

from omnifer.core.model.road import Track


def long_track(points: int, length_km: float, seed: int = 1) -> Track:
    """A wandering track with hills, its points evenly spaced. The same seed gives the same track."""
    chance = np.random.default_rng(seed)
    step_deg = length_km / points / 111.2
    bearing = np.cumsum(chance.normal(0, 0.05, points)) * 0.3
    lat = -30 + np.cumsum(np.cos(bearing) * step_deg) * 0.5
    lon = -20 + np.cumsum(np.sin(bearing) * step_deg)
    km = np.linspace(0, length_km, points)
    heights = 900 + sum(a * np.sin(2 * np.pi * (km / w + chance.random())) for a, w in ((700, 400), (150, 40), (60, 9), (8, 1.3)))
    return Track(
        name="Bench",
        lat_deg=tuple(np.round(lat, 6).tolist()),
        lon_deg=tuple(np.round(lon, 6).tolist()),
        elevation_m=tuple(np.round(heights + chance.normal(0, 0.8, points), 1).tolist()),
    )
