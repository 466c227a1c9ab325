"""Heights of files: a plane is a plane wherever it is looked at; where nothing is known, nothing is told."""

import io

import numpy as np
import pytest
from PIL import Image, TiffImagePlugin

from omnifer.formats.problem import InputProblem
from omnifer.formats.relief import KEYS, NO_DATA, PIXEL_SCALE, TIEPOINT, heights_from, read_tile

LAT, LON = np.array([46.25, 46.9999, 46.0]), np.array([11.5, 11.0001, 12.0])


def plane(lat, lon):
    """1 m a second of arc southwards, 2 m eastwards."""
    return (47 - lat) * 3600 * 0.1 + (lon - 11) * 3600 * 0.2


def hgt(side, void=False):
    """A tile as the shuttle's radar mission published it: rows from north to south, its edges those of the degree."""
    row, column = np.mgrid[0:side, 0:side] / (side - 1)
    heights = np.rint(plane(47 - row, 11 + column)).astype(">i2")
    if void:
        heights[: side // 2] = -32768
    return heights.tobytes()


def geotiff(raster_type, model=2, tags=None):
    """Cells of 0.01 degrees whose north-west corner (area) or first point lies at 47 N 11 E; OGC 19-008r4, Annex C."""
    half = 0.005 if raster_type == 1 else 0.0
    row, column = np.mgrid[0:101, 0:101] * 0.01
    image = Image.fromarray(plane(47 - row - half, 11 + column + half).astype(np.float32))
    told = TiffImagePlugin.ImageFileDirectory_v2()
    for tag, kind, values in (
        (PIXEL_SCALE, 12, (0.01, 0.01, 0.0)), (TIEPOINT, 12, (0.0, 0.0, 0.0, 11.0, 47.0, 0.0)),
        (KEYS, 3, (1, 1, 0, 2, 1024, 0, 1, model, 1025, 0, 1, raster_type)), (NO_DATA, 2, "-9999"),
    ):  # fmt: skip
        told.tagtype[tag] = kind
        told[tag] = values
    out = io.BytesIO()
    image.save(out, "TIFF", tiffinfo=told, compression="tiff_deflate")
    return out.getvalue()


@pytest.mark.parametrize("side", [1201, 3601])
def test_a_tile_tells_heights_between_its_points(side):
    tile = read_tile("some/N46E011.hgt", hgt(side))
    assert tile.at(LAT, LON) == pytest.approx(plane(LAT, LON), abs=1)
    assert np.isnan(tile.at(np.array([45.9]), np.array([11.5]))).all()


@pytest.mark.parametrize("raster_type", [1, 2])
def test_a_cell_is_known_by_its_corner_and_a_point_by_itself(raster_type):
    tile = read_tile("dem.tif", geotiff(raster_type))
    inside = np.array([46.5, 46.123]), np.array([11.25, 11.777])
    assert tile.at(*inside) == pytest.approx(plane(*inside), abs=0.01)


def test_the_first_tile_that_knows_says_it():
    tiles = [read_tile("N46E011.hgt", hgt(1201, void=True)), read_tile("dem.tif", geotiff(2))]
    assert heights_from(tiles, np.array([46.75, 46.2]), np.array([11.5, 11.5])) == pytest.approx(
        plane(np.array([46.75, 46.2]), 11.5), abs=1
    )
    assert np.isnan(heights_from(tiles[:1], np.array([46.75]), np.array([11.5]))).all()


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("N46E011.hgt", b"123", "no file of heights"),
        ("tile.hgt", hgt(1201), "does not say where"),
        ("dem.tif", geotiff(1, model=1), "in degrees"),
        ("dem.tif", geotiff(1)[:500], "cannot be read"),
        ("dem.tif", b"II*\0" + b"\xff" * 400, "cannot be read"),
    ],
)
def test_what_is_no_relief_is_said_in_words(name, content, words):
    with pytest.raises(InputProblem, match=words):
        read_tile(name, content)
