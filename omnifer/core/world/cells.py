"""The climate of a place as published: monthly means on a grid of a quarter degree, brought to the place and its height."""

from dataclasses import dataclass
from functools import cache
from pathlib import Path

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.weather import LAPSE_K_PER_M

SOURCE = "ERA5 grid 2000 to 2025"
"""Monthly means of the reanalysis ERA5 at 0.25°, Hersbach et al. (2020), Q. J. R. Meteorol. Soc. 146:1999,
doi:10.1002/qj.3803; contains modified Copernicus Climate Change Service information. Heights: Recommendation ITU-R P.1511-2."""
PER_DEGREE = 4
"""Cells a degree."""
LAND_ROWS = 150 * PER_DEGREE + 1
"""Rows of cells from the north pole to 60° S."""
COLUMNS = 360 * PER_DEGREE
MONTH_STEP_K, ROUGH_STEP_M = 0.25, 5.0
"""Steps of the packed figures: a month's mean against the year's [K], the height within a cell [m]."""
RAIN_STEPS, MOST_RAIN_MM = 255, 2000.0
"""Rain is packed in steps that grow with it: 3 % from 100 mm on."""
ROW = np.dtype([("mean_dc", "<i2"), ("month", "i1", 12), ("rain", "u1", 12), ("height_m", "<i2"), ("rough", "u1")])
SEA_WINDOW = 2
"""Cells to each side in which the share of sea is counted: some 50 km."""
DATA = Path(__file__).parent / "data"

Array = NDArray[np.float64]


def pack_rain(rain_mm: ArrayLike) -> NDArray[np.uint8]:
    """Rain of a month as a step [-]."""
    share = np.log1p(np.clip(rain_mm, 0, MOST_RAIN_MM)) / np.log1p(MOST_RAIN_MM)
    return np.asarray(np.rint(share * RAIN_STEPS), dtype=np.uint8)


def unpack_rain(steps: NDArray[np.uint8]) -> Array:
    """Rain of a month [mm]; the reverse of `pack_rain`."""
    return np.asarray(np.expm1(steps / RAIN_STEPS * np.log1p(MOST_RAIN_MM)))


@dataclass(frozen=True)
class Normals:
    """What the grid says of places; nothing is known (nan) where no cell near is land.

    Attributes
    ----------
    mean_c, rain_mm : array, shape (12, places)
        Mean temperature at the height asked for [°C], rain of a month [mm].
    elevation_m, height_m, rough_m : array, shape (places,)
        The height that the figures hold for, the mean height of the cells, and how much the land rises and falls within them
        (standard deviation) [m].
    sea : array, shape (places,)
        Share of sea within some 50 km [-].
    """

    mean_c: Array
    rain_mm: Array
    elevation_m: Array
    height_m: Array
    rough_m: Array
    sea: Array


@cache
def _land() -> tuple[NDArray[np.bool_], NDArray[np.int32]]:
    """Which cells are land, and the row of the table in which each stands, shape (LAND_ROWS, COLUMNS)."""
    bits = np.unpackbits(np.load(DATA / "land.npy"), count=LAND_ROWS * COLUMNS).astype(bool)
    return bits.reshape(LAND_ROWS, COLUMNS), (np.cumsum(bits, dtype=np.int32) - 1).reshape(LAND_ROWS, COLUMNS)


@cache
def _table() -> NDArray[np.void]:
    return np.asarray(np.load(DATA / "climate.npy", mmap_mode="r"))


def normals_at(lat_deg: ArrayLike, lon_deg: ArrayLike, elevation_m: ArrayLike | None) -> Normals:
    """The published means at places, brought to their height by the usual fall of temperature with height.

    Parameters
    ----------
    lat_deg, lon_deg : array_like, shape (places,)
        Where they lie [°, °].
    elevation_m : array_like, shape (places,), or None
        How high they lie [m]; None: as high as the cells.

    References
    ----------
    See SOURCE; between the four cells around a place straight lines, cells of sea left out; ISO 2533 for the fall with height.
    """
    lat, lon = (np.atleast_1d(np.asarray(v, dtype=float)) for v in (lat_deg, lon_deg))
    numbers, weights = _corners(lat, lon)
    cells = _table()[numbers]

    def here(values: Array) -> Array:
        return np.asarray(np.einsum("cp...,cp->p...", values, weights))

    base = cells["height_m"].astype(float)
    cells_m = here(base)
    height = cells_m if elevation_m is None else np.broadcast_to(np.asarray(elevation_m, dtype=float), cells_m.shape)
    months = cells["mean_dc"][..., None] / 10 + cells["month"] * MONTH_STEP_K - LAPSE_K_PER_M * (height - base)[..., None]
    return Normals(
        mean_c=here(months).T, rain_mm=here(unpack_rain(cells["rain"])).T, elevation_m=height, height_m=cells_m,
        rough_m=here(cells["rough"] * ROUGH_STEP_M), sea=1 - _share_of_land(lat, lon),
    )  # fmt: skip


def heights_at(lat_deg: Array, lon_deg: Array) -> Array:
    """Mean height of the land about places, shape (places,) [m]; not-a-number at sea. See `normals_at`."""
    numbers, weights = _corners(lat_deg, lon_deg)
    return np.asarray(np.einsum("cp,cp->p", _table()["height_m"][numbers].astype(float), weights))


def _corners(lat: Array, lon: Array) -> tuple[NDArray[np.intp], Array]:
    """The four cells around each place as rows of the table, and how much each counts, shape (4, places).

    Cells of sea do not count; where all four are sea the weights are not-a-number.
    """
    land, number = _land()
    y, x = (90 - lat) * PER_DEGREE, (lon % 360) * PER_DEGREE
    north, west = np.clip(np.floor(y).astype(int), 0, LAND_ROWS - 2), np.floor(x).astype(int) % COLUMNS
    down, across = np.clip(y - north, 0, 1), x - np.floor(x)
    rows = np.stack([north, north, north + 1, north + 1])
    columns = np.stack([west, (west + 1) % COLUMNS, west, (west + 1) % COLUMNS])
    weights = np.stack([(1 - down) * (1 - across), (1 - down) * across, down * (1 - across), down * across])
    # A place on the very line between two cells of sea still hears of the land beyond.
    weights = (weights + 1e-6) * land[rows, columns]
    whole = weights.sum(axis=0)
    weights = np.divide(weights, whole, out=np.full_like(weights, np.nan), where=whole > 0)
    return np.where(land[rows, columns], number[rows, columns], 0).astype(np.intp), weights


def _share_of_land(lat: Array, lon: Array) -> Array:
    """Of the cells about each place [-]."""
    land, reach = _land()[0], np.arange(-SEA_WINDOW, SEA_WINDOW + 1)
    rows = np.clip(np.rint((90 - lat) * PER_DEGREE).astype(int)[:, None] + reach, 0, LAND_ROWS - 1)
    columns = (np.rint((lon % 360) * PER_DEGREE).astype(int)[:, None] + reach) % COLUMNS
    return np.asarray(land[rows[:, :, None], columns[:, None, :]].mean(axis=(1, 2)))
