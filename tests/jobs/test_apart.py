"""Files that nobody could read here: refused in words after bounded time and memory, while a good one is read as ever."""

import io
import os
import signal
import time
from multiprocessing import forkserver

import pytest
from PIL import Image

from omnifer.core.model.road import Track
from omnifer.formats.picture import small_picture
from omnifer.formats.problem import InputProblem
from omnifer.formats.tracks import read_track
from omnifer.jobs import apart as module
from omnifer.jobs.apart import PICTURE, SMALL_BYTES, apart
from tests.formats.test_gpx import LINE, gpx

LARGE = SMALL_BYTES + 1


def hungry() -> int:
    return len(bytearray(2**33))


def endless() -> None:
    until = time.monotonic() + 60
    while time.monotonic() < until:
        pass


def picky(text: str) -> str:
    raise InputProblem(f"not {text}", "line 3", "Try another.")


def test_a_reader_apart_reads_what_it_reads_here():
    content = gpx(*LINE)
    assert apart(LARGE, read_track, content) == read_track(content)
    with pytest.raises(InputProblem, match="not this") as said:
        apart(LARGE, picky, "this")
    assert (said.value.where, said.value.mend) == ("line 3", "Try another.")


def test_a_reader_whose_server_of_processes_was_killed_is_begun_again():
    content = gpx(*LINE)
    apart(LARGE, read_track, content)
    for _ in range(2):
        os.kill(forkserver._forkserver._forkserver_pid, signal.SIGKILL)
        assert apart(LARGE, read_track, content) == read_track(content)


@pytest.mark.parametrize("reader", [hungry, endless])
def test_what_takes_too_much_is_ended_and_told(reader, monkeypatch):
    monkeypatch.setattr(module, "MOST_S", 1)
    began = time.monotonic()
    with pytest.raises(InputProblem, match="takes more than"):
        apart(LARGE, reader)
    assert time.monotonic() - began < 20


def test_a_small_file_of_a_large_picture_is_refused_before_it_is_decoded():
    out = io.BytesIO()
    Image.new("1", (9000, 9000)).save(out, "PNG")
    assert len(out.getvalue()) < 100_000
    with pytest.raises(InputProblem, match="too many points"):
        apart(PICTURE, small_picture, out.getvalue())
    photo = io.BytesIO()
    Image.new("RGB", (8000, 6000), "green").save(photo, "JPEG")
    with Image.open(io.BytesIO(small_picture(photo.getvalue()))) as small:
        assert max(small.size) <= 480


def test_extensions_and_heights_have_bounds_in_the_model():
    """What no reader made, as a bundle may bring it."""
    north = {"lat_deg": (1, 2), "lon_deg": (1, 2)}
    assert Track(**north, elevation_m=(1e10, 300.0)).elevation_m == (None, 300.0)
    with pytest.raises(ValueError, match="more than 8 MB"):
        Track(**north, elevation_m=(None, None), extensions={0: "x" * (9 * 2**20)})
