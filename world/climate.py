"""Packs the climate that ships: monthly means of temperature and rain, heights and how rough the land is, cell by cell.

    python climate.py ERA5_CLIMATOLOGY.nc ITU_DATA_FOLDER OUT_FOLDER

Reads two published grids that packages of a registry carry (see README.md), holds one against the other, and writes `climate.npy`
(a row for each cell of land, north to south and then east) and `land.npy` (which cells are land, as bits).
"""

import sys
from pathlib import Path

import h5py
import numpy as np
from numpy.typing import NDArray

from omnifer.core.physics.weather import LAPSE_K_PER_M
from omnifer.core.world.cells import COLUMNS, LAND_ROWS, MONTH_STEP_K, PER_DEGREE, ROUGH_STEP_M, ROW, pack_rain

Array = NDArray[np.float64]
TOPO_PER_DEGREE = 12
TOPO_NORTH, TOPO_WEST = 90.125, -180.125
"""Where the grid of heights begins [°]."""
CHECK_DEGREES = 0.75
LAT, LON = 90 - np.arange(LAND_ROWS) / PER_DEGREE, np.arange(COLUMNS) / PER_DEGREE
ICE_M, ICE_NORTH, ICE_WEST, ICE_EAST = 1500.0, 60.0, 290.0, 340.0
"""The ice of Greenland above this height is left out: nobody cycles there."""


def read(path: Path) -> Array:
    """The one array of an archive."""
    with np.load(path) as archive:
        return np.asarray(archive[archive.files[0]])


def cells_of(topo: Array) -> tuple[Array, Array, NDArray[np.bool_]]:
    """Mean height of each cell, its standard deviation within the cell [m], and whether any of it is land (sea has height 0)."""
    # Four heights across a cell, the outer two on its edges.
    first_row = np.floor((TOPO_NORTH - LAT) * TOPO_PER_DEGREE).astype(int) - 1
    first_column = np.floor(((LON + 180) % 360 - 180 - TOPO_WEST) * TOPO_PER_DEGREE).astype(int) - 1
    weight = np.array([0.5, 1, 1, 0.5]) / 3
    height, square, land = (np.zeros((LAT.size, LON.size)) for _ in range(3))
    for a, down in enumerate(weight):
        for b, across in enumerate(weight):
            part = topo[np.ix_(first_row + a, first_column + b)]
            height += down * across * part
            square += down * across * part**2
            land += down * across * (part != 0)
    ice = (height > ICE_M) & (LAT[:, None] > ICE_NORTH) & (LON > ICE_WEST) & (LON < ICE_EAST)
    return height, np.sqrt(np.maximum(square - height**2, 0)), (land > 0) & ~ice


def second_opinion(folder: Path, topo: Array, height: Array) -> Array:
    """The other grid's monthly means, brought to the height of each cell [°C], shape (12, rows, columns)."""
    lat, lon = -90 + CHECK_DEGREES * np.arange(241), -180 + CHECK_DEGREES * np.arange(481)
    row = np.rint((TOPO_NORTH - lat) * TOPO_PER_DEGREE).astype(int)
    column = np.rint((lon - TOPO_WEST) * TOPO_PER_DEGREE).astype(int)
    own_height, reach = np.zeros((lat.size, lon.size)), range(-4, 5)
    for a in reach:
        for b in reach:
            rows, columns = np.clip(row + a, 0, topo.shape[0] - 1), np.clip(column + b, 0, topo.shape[1] - 1)
            own_height += topo[np.ix_(rows, columns)] / len(reach) ** 2
    y, x = (LAT + 90) / CHECK_DEGREES, ((LON + 180) % 360) / CHECK_DEGREES
    i, j = np.minimum(y.astype(int), 239), np.minimum(x.astype(int), 479)
    down, across = (y - i)[:, None], (x - j)[None, :]

    def between(grid: Array) -> Array:
        south = grid[np.ix_(i, j)] * (1 - across) + grid[np.ix_(i, j + 1)] * across
        north = grid[np.ix_(i + 1, j)] * (1 - across) + grid[np.ix_(i + 1, j + 1)] * across
        return np.asarray(south * (1 - down) + north * down)

    months = (read(folder / f"1510/v1_t_month{month:02d}.npz") - 273.15 for month in range(1, 13))
    return np.array([between(t + LAPSE_K_PER_M * own_height) - LAPSE_K_PER_M * height for t in months])


def main(era5: Path, itu: Path, out: Path) -> None:
    """Read both grids, say how far they are apart, and write the files."""
    topo = read(itu / "1511/v2_topo.npz")
    with h5py.File(era5) as file:
        # Its attributes say kelvin and metres a day; the values are °C and mm a month.
        mean_c, rain_mm = file["t2m"][:, :LAND_ROWS], file["tp"][:, :LAND_ROWS]
    height, rough, land = cells_of(topo)
    apart = (mean_c - second_opinion(itu, topo, height))[:, land]
    print(f"{land.sum():,} cells of land; the two grids differ by {apart.mean():+.2f} K, in the mean {abs(apart).mean():.2f} K, "
          f"95 % within {np.quantile(abs(apart), 0.95):.1f} K")  # fmt: skip
    rows = np.zeros(int(land.sum()), dtype=ROW)
    yearly = np.rint(mean_c.mean(axis=0)[land] * 10)
    rows["mean_dc"] = yearly
    rows["month"] = np.clip(np.rint((mean_c[:, land] - yearly / 10) / MONTH_STEP_K), -127, 127).T
    rows["rain"] = pack_rain(rain_mm[:, land]).T
    rows["height_m"] = np.rint(height[land])
    rows["rough"] = np.clip(np.rint(rough[land] / ROUGH_STEP_M), 0, 255)
    np.save(out / "climate.npy", rows)
    np.save(out / "land.npy", np.packbits(land))


if __name__ == "__main__":
    main(*(Path(argument) for argument in sys.argv[1:4]))
