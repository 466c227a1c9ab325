"""Distance, ascent and gradient along a track."""

import math

import numpy as np
from numpy.typing import ArrayLike, NDArray

SEMI_MAJOR_M = 6378137.0
FLATTENING = 1 / 298.257223563
"""WGS 84 ellipsoid."""


EARTH_KM = 6371.0
"""Mean radius, IUGG 1980 [km]."""
KM_PER_DEGREE = math.pi * EARTH_KM / 180
"""Of latitude, near enough for tens of kilometres [km]."""


def on_sphere(lat_deg: NDArray[np.float64], lon_deg: NDArray[np.float64]) -> NDArray[np.float64]:
    """Places as points of a sphere of radius 1, shape (places, 3) [-]."""
    lat, lon = np.radians(lat_deg), np.radians(lon_deg)
    return np.column_stack([np.cos(lat) * np.cos(lon), np.cos(lat) * np.sin(lon), np.sin(lat)])


def segment_lengths(lat_deg: ArrayLike, lon_deg: ArrayLike) -> NDArray[np.float64]:
    """Lengths of the segments of a track on the WGS 84 ellipsoid [m].

    Good to about 2e-6 for segments below 10 km away from the poles; longitude differences wrap at the dateline.

    Parameters
    ----------
    lat_deg, lon_deg : array_like, shape (n,)
        [°]

    Returns
    -------
    numpy.ndarray, shape (n - 1,)

    References
    ----------
    Radii of curvature at the mean latitude; Karney (2013), J. Geod. 87:43,
    doi:10.1007/s00190-012-0578-z, for the exact geodesic; from memory, checked against pyproj.
    """
    lat = np.radians(np.asarray(lat_deg, dtype=float))
    lon = np.asarray(lon_deg, dtype=float)
    step = np.radians((np.diff(lon) + 180.0) % 360.0 - 180.0)
    middle = 0.5 * (lat[1:] + lat[:-1])
    eccentricity2 = FLATTENING * (2 - FLATTENING)
    w2 = 1 - eccentricity2 * np.sin(middle) ** 2
    normal = SEMI_MAJOR_M / np.sqrt(w2)
    meridian = normal * (1 - eccentricity2) / w2
    return np.asarray(np.hypot(meridian * np.diff(lat), normal * np.cos(middle) * step))


def smooth(values: ArrayLike, points: int) -> NDArray[np.float64]:
    """Centred moving mean over an odd number of points; the window narrows at both ends."""
    v = np.asarray(values, dtype=float)
    half = min(points // 2, max((v.size - 1) // 2, 0))
    if half == 0:
        return v.copy()
    index = np.arange(v.size)
    reach = np.minimum(np.minimum(index, v.size - 1 - index), half)
    total = np.concatenate([[0.0], np.cumsum(v)])
    return np.asarray((total[index + reach + 1] - total[index - reach]) / (2 * reach + 1))


def ascent(elevation_m: ArrayLike, threshold_m: float) -> tuple[float, float]:
    """Total climb and descent by hysteresis, both positive [m].

    A reversal counts once it exceeds the threshold; legs run from extreme to extreme.

    Parameters
    ----------
    elevation_m : array_like, shape (n,)
        [m]
    threshold_m : float
        Smallest reversal that counts, 3 to 5 for smoothed tracks [m].

    References
    ----------
    Hysteresis (zig-zag) filter: equals the best zig-zag whose every leg is at least the threshold.
    """
    heights = np.asarray(elevation_m, dtype=float)
    if heights.size == 0:
        return 0.0, 0.0
    turning = _turning_points(heights)
    low = high = start = float(turning[0])
    direction = 0
    up = down = 0.0
    for height in turning.tolist():
        if direction == 0:
            low, high = min(low, height), max(high, height)
            if height - low >= threshold_m:
                direction, start, high = 1, low, height
            elif high - height >= threshold_m:
                direction, start, low = -1, high, height
        elif direction == 1:
            if height > high:
                high = height
            elif high - height >= threshold_m:
                up += high - start
                direction, start, low = -1, high, height
        elif height < low:
            low = height
        elif height - low >= threshold_m:
            down += start - low
            direction, start, high = 1, low, height
    if direction == 1:
        up += high - start
    elif direction == -1:
        down += start - low
    return up, down


def _turning_points(heights: NDArray[np.float64]) -> NDArray[np.float64]:
    """First, last and every point where the slope changes sign: all that the hysteresis can see."""
    if heights.size < 3:
        return heights
    moved: NDArray[np.float64] = heights[np.concatenate([[True], np.diff(heights) != 0])]
    if moved.size < 3:
        return moved
    slope = np.sign(np.diff(moved))
    return np.asarray(moved[np.concatenate([[True], slope[1:] != slope[:-1], [True]])])


def simplify(x: ArrayLike, y: ArrayLike, tolerance: float) -> NDArray[np.intp]:
    """Indices kept by the Douglas-Peucker rule on vertical distance, ends included.

    Parameters
    ----------
    x, y : array_like, shape (n,)
    tolerance : float
        Largest |y| that a dropped point may be off the line, in the unit of `y`.

    References
    ----------
    Douglas, Peucker (1973), Cartographica 10:112, doi:10.3138/FM57-6770-U75U-7727; from memory.
    """
    xs, ys = np.asarray(x, dtype=float), np.asarray(y, dtype=float)
    keep = np.zeros(xs.size, dtype=bool)
    keep[[0, -1]] = True
    pending = [(0, xs.size - 1)]
    while pending:
        first, last = pending.pop()
        if last - first < 2:
            continue
        inner = slice(first + 1, last)
        run = xs[last] - xs[first]
        share = (xs[inner] - xs[first]) / run if run else np.zeros(last - first - 1)
        off = np.abs(ys[inner] - (ys[first] + share * (ys[last] - ys[first])))
        worst = int(np.argmax(off))
        if off[worst] > tolerance:
            split = first + 1 + worst
            keep[split] = True
            pending += [(first, split), (split, last)]
    return np.flatnonzero(keep)


def highs_and_lows(values: ArrayLike, stretches: int) -> NDArray[np.intp]:
    """Indices of the highest and lowest value of each of so many even stretches, first and last value included.

    The envelope of a long line for drawing: no peak is lost, however many points it has.
    """
    values = np.asarray(values, dtype=float)
    per_stretch = -(-values.size // max(stretches, 1))
    if per_stretch < 3:
        return np.arange(values.size)
    even = np.pad(values, (0, -values.size % per_stretch), mode="edge").reshape(-1, per_stretch)
    start = np.arange(even.shape[0]) * per_stretch
    picked = np.concatenate([[0], start + even.argmin(axis=1), start + even.argmax(axis=1), [values.size - 1]])
    return np.unique(np.minimum(picked, values.size - 1))
