"""The road as evenly spaced cells: height, gradient and place every 25 m."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.assessment import ProfileLine
from omnifer.core.model.quantities import LONGEST_ROAD_KM
from omnifer.core.model.road import Track, TypedDay
from omnifer.core.physics import geodesy
from omnifer.core.physics.geodesy import KM_PER_DEGREE
from omnifer.core.world.cells import heights_at

if TYPE_CHECKING:
    from scipy.spatial import cKDTree

STEP_M = 25.0
"""Spacing of the cells [m]; ascent and gradient want 25 m or less."""
HEIGHT_WINDOW = 5
"""Points in the moving mean of heights: 100 m."""
GRADIENT_WINDOW = 9
"""Points in the least-squares slope: 200 m (noise 1 % for 2 m height noise)."""
LINE_POINTS, LINE_TOLERANCE_M = 2000, 6.0
"""Points of the drawn line at most, and how far a dropped point may be off it [m]."""
NODES = 20_000
"""Nodes at least of a long road, one in 16 points of 8,000 km: what is on board, weather, clock and days are worked out there."""
STEEPEST = 0.30
"""Gradients beyond this are noise."""
LAND_EVERY = 40
"""Points from one look at the height of the land to the next: a kilometre."""
ROLLING_M = 200.0
"""Height of a hill in a typed day whose highest and lowest points are not given [m]; practice."""

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Profile:
    """Arrays over the points of the road, `STEP_M` or so apart, the first at km 0 and the last at its end."""

    km: Array
    elevation_m: Array
    gradient: Array
    lat_deg: Array | None
    lon_deg: Array | None
    has_heights: bool
    typed_ascent_m: Array | None = None
    """Cumulative climb of typed days, which is stated and not measured."""

    @cached_property
    def slope_classes(self) -> tuple[Array, Array, NDArray[np.intp]]:
        """Gradients (0.1 %) and altitudes (100 m) that the road has, and which of them each cell is."""
        gradient = np.rint(self.gradient[:-1] * 1000).astype(int)
        altitude = np.rint(self.elevation_m[:-1] / 100).astype(int)
        pairs, cell = np.unique((gradient + 1000) * 1000 + altitude + 100, return_inverse=True)
        return (pairs // 1000 - 1000) / 1000, (pairs % 1000 - 100) * 100.0, cell

    def climb(self, first: int, last: int, threshold_m: float) -> tuple[float, float]:
        """Ascent and descent between two points, the last not among them [m]; kept, for most days stay where they are.

        Nothing where the heights are those of the land on the whole: it says nothing of the climbs of a road.
        """
        if not self.has_heights:
            return 0.0, 0.0
        asked = (first, last, threshold_m)
        if asked not in self._climbs:
            self._climbs[asked] = geodesy.ascent(self.elevation_m[first:last], threshold_m)
        return self._climbs[asked]

    @cached_property
    def _climbs(self) -> dict[tuple[int, int, float], tuple[float, float]]:
        return {}

    @cached_property
    def cell_km(self) -> Array:
        """Length of each cell [km]."""
        return np.diff(self.km)

    @cached_property
    def node_cells(self) -> NDArray[np.intp]:
        """The points that are nodes: evenly chosen, the first and the last among them."""
        step = max(self.km.size // NODES, 1)
        return np.append(np.arange(0, self.km.size - 1, step), self.km.size - 1)

    @cached_property
    def nodes(self) -> "Profile":
        """The road at its nodes only, with the gradients it has there: for what changes slowly along it."""
        kept = self.node_cells
        if kept.size == self.km.size:
            return self

        def of(values: Array | None) -> Array | None:
            return None if values is None else values[kept]

        return replace(
            self, km=self.km[kept], elevation_m=self.elevation_m[kept], gradient=self.gradient[kept],
            lat_deg=of(self.lat_deg), lon_deg=of(self.lon_deg), typed_ascent_m=of(self.typed_ascent_m),
        )  # fmt: skip

    @cached_property
    def line(self) -> ProfileLine:
        """The thinned line for drawing: few points where the road is even, more where it turns."""
        extremes = geodesy.highs_and_lows(self.elevation_m, 2 * LINE_POINTS)
        km, heights = self.km[extremes], self.elevation_m[extremes]
        tolerance = LINE_TOLERANCE_M
        kept = geodesy.simplify(km, heights, tolerance)
        while kept.size > LINE_POINTS:
            tolerance *= 1.6
            kept = kept[geodesy.simplify(km[kept], heights[kept], tolerance)]
        along = km[kept]
        lat, lon = (None if v is None else np.interp(along, self.km, v) for v in (self.lat_deg, self.lon_deg))
        return ProfileLine(
            km=np.round(along, 3).tolist(),
            elevation_m=np.round(heights[kept], 1).tolist(),
            lat_deg=None if lat is None else np.round(lat, 5).tolist(),
            lon_deg=None if lon is None else np.round(lon, 5).tolist(),
        )

    def position_at(self, km: float) -> tuple[float, float] | None:
        """Latitude and longitude at a kilometre; None where the road was typed [°]."""
        if self.lat_deg is None or self.lon_deg is None:
            return None
        return float(np.interp(km, self.km, self.lat_deg)), float(np.interp(km, self.km, self.lon_deg))

    def at(self, km: float) -> "Profile":
        """The one point of the road at a kilometre."""
        here = np.array([km])
        position = self.position_at(km)
        lat, lon = (None, None) if position is None else (np.array([position[0]]), np.array([position[1]]))
        return Profile(here, np.array([self.elevation_at(km)]), np.zeros(1), lat, lon, self.has_heights)

    def distance_to(self, lat_deg: float, lon_deg: float) -> Array:
        """Distance of every point from a place, good for tens of kilometres [km]. Raises ValueError on a typed road."""
        if self.lat_deg is None or self.lon_deg is None:
            raise ValueError("a typed road has no coordinates")
        east = (self.lon_deg - lon_deg + 180) % 360 - 180
        middle = np.radians((self.lat_deg + lat_deg) / 2)
        return np.asarray(np.hypot(self.lat_deg - lat_deg, east * np.cos(middle)) * KM_PER_DEGREE)

    @cached_property
    def _tree(self) -> "cKDTree":
        """The points of the road as they lie on a sphere of radius 1."""
        from scipy.spatial import cKDTree  # half a second that only tracks with places cost

        assert self.lat_deg is not None
        assert self.lon_deg is not None
        return cKDTree(geodesy.on_sphere(self.lat_deg, self.lon_deg))

    def nearest_of_all(self, lat_deg: Array, lon_deg: Array) -> tuple[Array, Array] | None:
        """For many places what `nearest` says of one; of points equally near the first counts.

        Parameters
        ----------
        lat_deg, lon_deg : array, shape (places,)
            Where they lie [°].

        Returns
        -------
        at_km, off_km : array, shape (places,)
            Kilometre of the nearest point, and how far away the place lies [km]; None where the road was typed.
        """
        if self.lat_deg is None or self.lon_deg is None:
            return None
        places = geodesy.on_sphere(lat_deg, lon_deg)
        nearest, _ = self._tree.query(places)
        about = self._tree.query_ball_point(places, nearest * (1 + 1e-9) + 1e-12)
        at = np.array([min(found) for found in about], dtype=int)
        east = (self.lon_deg[at] - lon_deg + 180) % 360 - 180
        middle = np.radians((self.lat_deg[at] + lat_deg) / 2)
        return self.km[at], np.hypot(self.lat_deg[at] - lat_deg, east * np.cos(middle)) * KM_PER_DEGREE

    def nearest(self, lat_deg: float, lon_deg: float) -> tuple[float, float] | None:
        """Kilometre nearest to a place, and how far away the place lies [km, km]; None where the road was typed."""
        if self.lat_deg is None:
            return None
        distance = self.distance_to(lat_deg, lon_deg)
        at = int(np.argmin(distance))
        return float(self.km[at]), float(distance[at])

    @property
    def length_km(self) -> float:
        """Length of the road [km]."""
        return float(self.km[-1])

    def between(self, from_km: float, to_km: float) -> slice:
        """The points from one kilometre to another, at least two."""
        first = int(np.searchsorted(self.km, from_km, side="right")) - 1
        last = int(np.searchsorted(self.km, to_km, side="left"))
        return slice(max(first, 0), max(last, first + 1) + 1)

    def elevation_at(self, km: float) -> float:
        """Height at a kilometre [m]."""
        return float(np.interp(km, self.km, self.elevation_m))


def from_track(track: Track) -> Profile:
    """The profile of a raw track.

    Distance is taken on the ellipsoid; repeated points are dropped; missing heights are bridged by straight lines.
    A track without any is as high as the land on the whole, and flat.
    Raises ValueError where the track has no length, or one that no road has.
    """
    lat, lon = np.array(track.lat_deg), np.array(track.lon_deg)
    heights = np.array([np.nan if h is None else h for h in track.elevation_m], dtype=float)
    lengths = geodesy.segment_lengths(lat, lon)
    known = np.isfinite(heights)
    everywhere = np.concatenate([[0.0], np.cumsum(lengths)])
    keep = np.concatenate([[True], lengths > 0.01])
    lat, lon, along = lat[keep], lon[keep], everywhere[keep]
    if along.size < 2 or along[-1] < 1.0:
        raise ValueError("the track has no length: all its points lie at one place")
    _bounded(along[-1] / 1000)
    grid = np.linspace(0.0, along[-1], max(round(along[-1] / STEP_M), 1) + 1)
    has_heights = bool(known.any())
    unwrapped = np.unwrap(lon, period=360.0)
    lats, lons = np.interp(grid, along, lat), (np.interp(grid, along, unwrapped) + 180) % 360 - 180
    if has_heights:
        smoothed = geodesy.smooth(np.interp(grid, everywhere[known], heights[known]), HEIGHT_WINDOW)
    else:
        smoothed = _of_the_land(lats, lons)
    return Profile(
        km=grid / 1000,
        elevation_m=smoothed,
        gradient=_slopes(smoothed, float(grid[1])) if has_heights else np.zeros(grid.size),
        lat_deg=lats,
        lon_deg=lons,
        has_heights=has_heights,
    )


def _of_the_land(lat: Array, lon: Array) -> Array:
    """As high as the land is along a road on the whole, for tracks without heights; at sea 0 [m]."""
    looked = np.unique(np.append(np.arange(0, lat.size, LAND_EVERY), lat.size - 1))
    return np.asarray(np.interp(np.arange(lat.size), looked, np.nan_to_num(heights_at(lat[looked], lon[looked]))))


def _bounded(length_km: float) -> None:
    """Refuse before anything is laid out: every cell costs memory and time."""
    if length_km > LONGEST_ROAD_KM:
        raise ValueError(f"the road is {length_km:,.0f} km long, at most {LONGEST_ROAD_KM:,.0f} km can be; do its points jump?")


def _slopes(heights: Array, step_m: float) -> Array:
    """Least-squares gradient in a window around each point, clamped [-]."""
    half = min(GRADIENT_WINDOW // 2, (heights.size - 1) // 2)
    if half == 0:
        return np.full(heights.size, np.clip((heights[-1] - heights[0]) / step_m, -STEEPEST, STEEPEST))
    offsets = np.arange(-half, half + 1)
    weights = offsets / (step_m * np.sum(offsets**2))
    padded = np.pad(heights, half, mode="reflect", reflect_type="odd")
    return np.clip(np.convolve(padded, weights[::-1], mode="valid"), -STEEPEST, STEEPEST)


def from_typed_days(days: Sequence[TypedDay]) -> Profile:
    """A road that climbs, reaches and descends as typed: even hills between each day's lowest and highest point.

    Raises ValueError where it is longer than a road can be.
    """
    _bounded(sum(day.distance_km for day in days))
    pieces: list[tuple[Array, Array, Array, Array]] = []
    start_km = climbed = 0.0
    for day in days:
        count = max(round(day.distance_km * 1000 / STEP_M), 1)
        share = np.arange(count) / count
        high, low = day.highest_m, day.lowest_m
        if high is None:
            high = (low or 0.0) + ROLLING_M
        if low is None or low > high:
            low = high - ROLLING_M
        hills = day.ascent_m / max(high - low, 1.0)
        phase = 2 * hills * share
        wave = np.abs((phase % 2) - 1)
        rising = (phase % 2) >= 1
        slope = 2 * day.ascent_m / (day.distance_km * 1000) if day.distance_km else 0.0
        pieces.append(
            (
                start_km + share * day.distance_km,
                low + (high - low) * wave,
                np.clip(np.where(rising, slope, -slope), -STEEPEST, STEEPEST),
                climbed + day.ascent_m * share,
            )
        )
        start_km += day.distance_km
        climbed += day.ascent_m
    km, heights, gradient, ascent = (np.concatenate(part) for part in zip(*pieces, strict=True))
    return Profile(
        km=np.append(km, start_km),
        elevation_m=np.append(heights, heights[-1]),
        gradient=np.append(gradient, 0.0),
        lat_deg=None,
        lon_deg=None,
        has_heights=any(day.ascent_m or day.highest_m is not None for day in days),
        typed_ascent_m=np.append(ascent, climbed),
    )
