"""Heights of the land from files: HGT tiles and GeoTIFF."""

import contextlib
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from PIL import Image, UnidentifiedImageError

from omnifer.core.model.road import HIGHEST_M, LOWEST_M
from omnifer.formats.problem import InputProblem

SUFFIXES = (".hgt", ".tif", ".tiff")
"""What files of heights are called."""
MOST_BYTES = 160 * 2**20
MOST_CELLS = 60_000_000
HGT_SIDES = (1201, 3601)
"""Rows and columns of a square degree, at 3 and at 1 second of arc; its edges belong to its neighbours as well."""
HGT_NAME = re.compile(r"([NS])(\d{2})([EW])(\d{3})", re.IGNORECASE)
VOID = -32768
PIXEL_SCALE, TIEPOINT, KEYS, NO_DATA = 33550, 33922, 34735, 42113
"""Tags of TIFF that GeoTIFF (OGC 19-008r4) uses; the last is common practice."""
MODEL_TYPE, RASTER_TYPE = 1024, 1025
GEOGRAPHIC, POINT = 2, 2
DEGREES = "Bring heights in degrees (WGS 84), as most are published, or an HGT tile."

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Tile:
    """Heights at the points of an even grid.

    Attributes
    ----------
    north_deg, west_deg : float
        Where the first of them lies [°].
    step_lat_deg, step_lon_deg : float
        From one to the next southwards and eastwards [°].
    heights_m : array, shape (rows, columns)
        Not-a-number where nothing is known [m].
    """

    north_deg: float
    west_deg: float
    step_lat_deg: float
    step_lon_deg: float
    heights_m: NDArray[np.float32]

    def at(self, lat_deg: Array, lon_deg: Array) -> Array:
        """Heights of places, between four points in proportion; not-a-number outside, and beside what is not known [m]."""
        row, column = (self.north_deg - lat_deg) / self.step_lat_deg, (lon_deg - self.west_deg) / self.step_lon_deg
        rows, columns = self.heights_m.shape
        # A place on the very edge may lie a rounding beyond it.
        inside = (row > -1e-6) & (row < rows - 1 + 1e-6) & (column > -1e-6) & (column < columns - 1 + 1e-6)
        r, c = (np.clip(np.where(inside, one, 0), 0, most - 1) for one, most in ((row, rows), (column, columns)))
        r0, c0 = np.minimum(r.astype(int), rows - 2), np.minimum(c.astype(int), columns - 2)
        down, right = r - r0, c - c0
        upper = (1 - right) * self.heights_m[r0, c0] + right * self.heights_m[r0, c0 + 1]
        lower = (1 - right) * self.heights_m[r0 + 1, c0] + right * self.heights_m[r0 + 1, c0 + 1]
        return np.where(inside, (1 - down) * upper + down * lower, np.nan)


def heights_from(tiles: Sequence[Tile], lat_deg: Array, lon_deg: Array) -> Array:
    """Heights of places out of several tiles: the first that knows one says it; not-a-number where none does [m]."""
    found = np.full(lat_deg.size, np.nan)
    for tile in tiles:
        found = np.where(np.isnan(found), tile.at(lat_deg, lon_deg), found)
    return found


def read_tile(name: str, content: bytes) -> Tile:
    """A file of heights, by what stands in it; an HGT tile says only by its name where it lies. Raises InputProblem."""
    if len(content) > MOST_BYTES:
        raise InputProblem(f"{name} has more than {MOST_BYTES // 2**20} MB", "field file", "Bring smaller tiles.")
    tile = _geotiff(name, content) if content[:4] in (b"II*\0", b"MM\0*") else _hgt(name, content)
    heights = np.where((tile.heights_m >= LOWEST_M) & (tile.heights_m <= HIGHEST_M), tile.heights_m, np.nan)
    return Tile(tile.north_deg, tile.west_deg, tile.step_lat_deg, tile.step_lon_deg, heights.astype(np.float32))


def _hgt(name: str, content: bytes) -> Tile:
    side = next((side for side in HGT_SIDES if len(content) == 2 * side * side), None)
    if side is None:
        raise InputProblem(
            f"{name} is no file of heights that can be read", "field file",
            "Bring HGT tiles (unzipped) or GeoTIFF files in degrees.",
        )  # fmt: skip
    called = HGT_NAME.search(name)
    if called is None:
        raise InputProblem(f"{name} does not say where it lies", "field file", "HGT tiles are called like N47E011.hgt.")
    south = int(called[2]) * (1 if called[1].upper() == "N" else -1)
    west = int(called[4]) * (1 if called[3].upper() == "E" else -1)
    heights = np.frombuffer(content, dtype=">i2").reshape(side, side).astype(np.float32)
    return Tile(south + 1.0, float(west), 1 / (side - 1), 1 / (side - 1), heights)


def _geotiff(name: str, content: bytes) -> Tile:
    try:
        with Image.open(io.BytesIO(content), formats=("TIFF",)) as image:
            if image.width * image.height > MOST_CELLS or min(image.size) < 2:
                raise InputProblem(f"{name} has {image.width} x {image.height} heights", "field file", "Bring smaller tiles.")
            tags = dict(image.tag_v2)  # type: ignore[attr-defined]
            heights = np.asarray(image, dtype=np.float32)
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, TypeError, KeyError, Image.DecompressionBombError):
        raise InputProblem(f"{name} cannot be read", "field file", "Fetch it again, or bring it unzipped.") from None
    keys = _keys(tags.get(KEYS, ()))
    scale, tie = tags.get(PIXEL_SCALE, ()), tags.get(TIEPOINT, ())
    if keys.get(MODEL_TYPE) != GEOGRAPHIC or len(scale) < 2 or len(tie) < 6 or min(scale[:2]) <= 0 or heights.ndim != 2:
        raise InputProblem(f"{name} does not say in degrees where it lies", "field file", DEGREES)
    # A cell is known by its corner, unless it says that it is a point.
    half = 0.0 if keys.get(RASTER_TYPE) == POINT else 0.5
    north, west = tie[4] + (tie[1] - half) * scale[1], tie[3] - (tie[0] - half) * scale[0]
    with contextlib.suppress(ValueError):
        heights = np.where(heights == np.float32(float(str(tags.get(NO_DATA, VOID)).strip("\0 "))), np.float32(np.nan), heights)
    return Tile(float(north), float(west), float(scale[1]), float(scale[0]), heights)


def _keys(told: Sequence[int]) -> dict[int, int]:
    """Keys of the directory that hold a number themselves."""
    rows = [told[n : n + 4] for n in range(4, len(told) - 3, 4)]
    return {row[0]: row[3] for row in rows if row[1] == 0}
