"""Measured roads, shared by all processes of a machine: each is a file that they map into their memory."""

import contextlib
import os
import uuid
from collections.abc import Callable
from pathlib import Path

import numpy as np

from omnifer.core.road.profile import Profile
from omnifer.office.lately import Lately
from omnifer.office.rules import rules_digest

MOST_HELD_BYTES = 64 * 2**20
"""Of mapped roads that one process holds at a time [bytes]."""
MOST_FILE_BYTES = 512 * 2**20
"""Of files in the folder [bytes]; those not written lately are removed."""
COLUMNS = ("km", "elevation_m", "gradient", "lat_deg", "lon_deg")
WITH_HEIGHTS = {True: "heights", False: "flat"}


class Profiles:
    """The roads of tracks, by the digest of their points.

    Parameters
    ----------
    folder : Path, optional
        Where the files lie; without one each process measures for itself.
    """

    def __init__(self, folder: Path | None) -> None:
        self._folder = folder
        self._held: Lately[str, Profile] = Lately(MOST_HELD_BYTES, lambda road: 8 * len(COLUMNS) * road.km.size)
        if folder is not None:
            folder.mkdir(parents=True, exist_ok=True)

    def of(self, digest: str, measure: Callable[[], Profile]) -> Profile:
        """The road of a track, measured where nobody has yet."""
        return self._held.of(digest, lambda: self._read(digest) or self._write(digest, measure()))

    def keep(self, digest: str, road: Profile) -> None:
        """Keep a road that was just measured."""
        self._held.keep(digest, self._write(digest, road))

    def _file(self, digest: str, heights: bool) -> Path:
        assert self._folder is not None
        return self._folder / f"{digest}-{rules_digest()}-{WITH_HEIGHTS[heights]}.npy"

    def _read(self, digest: str) -> Profile | None:
        if self._folder is None:
            return None
        for heights in WITH_HEIGHTS:
            with contextlib.suppress(OSError, ValueError):
                km, elevation, gradient, lat, lon = np.load(self._file(digest, heights), mmap_mode="r")
                return Profile(km, elevation, gradient, lat, lon, heights)
        return None

    def _write(self, digest: str, road: Profile) -> Profile:
        """Write beside and rename, so that nobody reads half a road; a full disk is no hindrance."""
        if self._folder is None:
            return road
        beside = self._folder / f"{uuid.uuid4().hex}.new"
        try:
            with beside.open("wb") as out:
                np.save(out, np.stack([np.asarray(getattr(road, name), dtype=np.float64) for name in COLUMNS]))
            beside.rename(self._file(digest, road.has_heights))
            self._forget_old()
        except OSError:
            beside.unlink(missing_ok=True)
            return road
        return self._read(digest) or road

    def _forget_old(self) -> None:
        assert self._folder is not None
        files = []
        for entry in os.scandir(self._folder):
            with contextlib.suppress(OSError):
                files.append((entry.stat().st_mtime, entry.stat().st_size, entry.path))
        total = 0
        for _, size, path in sorted(files, reverse=True):
            total += size
            if total > MOST_FILE_BYTES:
                with contextlib.suppress(OSError):
                    os.unlink(path)
