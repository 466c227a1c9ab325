"""Maps as files: OpenStreetMap extracts in PBF or XML, of which only the corridor of a road is kept."""

import datetime as dt
import errno
import math
import os
import re
import shutil
import tempfile
from collections.abc import Callable, Iterator, Sequence
from functools import partial
from pathlib import Path
from typing import Any, BinaryIO, NamedTuple

import numpy as np
import osmium
from numpy.typing import NDArray
from osmium.filter import KeyFilter, TagFilter

from omnifer.core.mapped import tags
from omnifer.core.mapped.reading import Feature, Reading, Way
from omnifer.core.physics.geodesy import KM_PER_DEGREE
from omnifer.formats.found import Tell, nobody
from omnifer.formats.problem import InputProblem

SUFFIXES = (".pbf", ".osm")
"""What maps are called."""
PIECE_BYTES = 4 * 2**20
PIECE_BLOBS = 128
"""Of a file, given to osmium at a time: so much, and so many blobs of it, for a small one can hold much."""
SPARE_BYTES = 2**28
"""That must be free on the disk for what is kept meanwhile."""
LONGEST_HEAD, LONGEST_BLOB = 64 * 2**10, 32 * 2**20
"""Of a blob [bytes]; wiki.openstreetmap.org/wiki/PBF_Format, Design."""
MOST_FEATURES, MOST_WAYS = 200_000, 1_000_000
LONGEST_TAG = 255
"""Characters of a value; the database of OpenStreetMap takes no more."""
NEAR_KM = 0.3
"""A way with a point so near may lie under the road [km]."""
MOST_CELLS = 2**25
"""Of the grid that says which land is looked at; a long road has larger ones."""
FINEST_DEG = 0.003
SEEN_DEG = 0.01
"""Cells of which it is noted that the file has something there [°]."""
NODES_SHARE = 0.75
"""Of the work, done when all nodes are read [-]."""
STORED = np.dtype([("id", "<i8"), ("x", "<i4"), ("y", "<i4")])
"""A node in osmium's table of locations, in ten millionths of a degree."""
SCALE = 1e-7
ROADS = ("highway", "route")
NO_ROADS = frozenset({"motorway", "motorway_link", "proposed", "construction", "platform", "raceway"})
"""Values of highway=* that lie under no bicycle."""
TOO_MUCH = "Cut the extract to the region that you ride through."

Array = NDArray[np.float64]


class Corridor:
    """The land near a road, as cells of a grid.

    Parameters
    ----------
    lat_deg, lon_deg : array, shape (points,)
        The road [°].
    within_km : array, shape (points,)
        How far from each point [km].
    """

    def __init__(self, lat_deg: Array, lon_deg: Array, within_km: Array) -> None:
        edge = float(within_km.max()) / KM_PER_DEGREE
        narrow = np.cos(np.radians(np.minimum(np.abs(lat_deg) + edge, 89)))
        # East of where the road begins: a road over the date line is one piece.
        self._middle = float(np.median(np.unwrap(lon_deg, period=360.0)))
        lon = self._east(lon_deg)
        wide = edge / narrow
        self._south, self._west = float(lat_deg.min()) - edge, float((lon - wide).min())
        self._cell = FINEST_DEG
        while True:
            rows = int((float(lat_deg.max()) + edge - self._south) / self._cell) + 2
            columns = int((float((lon + wide).max()) - self._west) / self._cell) + 2
            if rows * columns <= MOST_CELLS:
                break
            self._cell *= 2
        self._inside = np.zeros((rows, columns), dtype=bool)
        near = within_km / KM_PER_DEGREE
        row, column = self._all_of(lat_deg, lon)
        up, aside = np.ceil(near / self._cell).astype(int), np.ceil(near / narrow / self._cell).astype(int)
        boxes = np.unique(np.column_stack([row, column, up, aside]), axis=0)
        for r, c, u, a in boxes.tolist():
            self._inside[max(r - u, 0) : r + u + 1, max(c - a, 0) : c + a + 1] = True
        self._rows, self._columns, self._cells = rows, columns, self._inside.tobytes()

    def _east(self, lon_deg: Array) -> Array:
        east = lon_deg - self._middle
        return np.asarray(east - 360 * np.rint(east / 360))

    def _of(self, lat_deg: float, east: float) -> tuple[int, int]:
        return math.floor((lat_deg - self._south) / self._cell), math.floor((east - self._west) / self._cell)

    def _all_of(self, lat_deg: Array, east: Array) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
        row, column = (lat_deg - self._south) * (1 / self._cell), (east - self._west) * (1 / self._cell)
        return np.floor(row).astype(np.intp), np.floor(column).astype(np.intp)

    def has(self, lat_deg: float, lon_deg: float) -> bool:
        """Whether one place lies in it."""
        row, column = self._of(lat_deg, (lon_deg - self._middle + 180) % 360 - 180)
        return 0 <= row < self._rows and 0 <= column < self._columns and self._cells[row * self._columns + column] != 0

    def holds(self, lat_deg: Array, lon_deg: Array) -> NDArray[np.bool_]:
        """Which places lie in it, or in a cell that it touches."""
        row, column = self._all_of(lat_deg, self._east(lon_deg))
        there = (row >= 0) & (row < self._rows) & (column >= 0) & (column < self._columns)
        return np.asarray(there & self._inside[np.where(there, row, 0), np.where(there, column, 0)])


class _Nodes(NamedTuple):
    """Nodes of the corridor, by their numbers."""

    id: NDArray[np.int64]
    lat: Array
    lon: Array

    def find(self, refs: Sequence[int]) -> NDArray[np.intp]:
        """Where nodes stand; -1 for those outside of the corridor."""
        wanted = np.asarray(refs, dtype=np.int64)
        at = np.minimum(np.searchsorted(self.id, wanted), max(self.id.size - 1, 0))
        return np.where(self.id[at] == wanted, at, -1) if self.id.size else np.full(wanted.size, -1)


def read_map(path: Path, lat_deg: Array, lon_deg: Array, within_km: Array, tell: Tell = nobody) -> Reading:
    """What an extract has along a road. Memory grows with the road, not with the file.

    Parameters
    ----------
    path : Path
        Of a file in PBF or XML.
    lat_deg, lon_deg, within_km : array, shape (points,)
        The road, and how far from it places are looked for [°, km].
    tell : callable, optional
        Is told the part that has been read.

    Raises InputProblem.
    """
    corridor = Corridor(lat_deg, lon_deg, within_km)
    with path.open("rb") as file:
        try:
            pieces, head = _pieces(file, path)
            return _Reader(corridor, Corridor(lat_deg, lon_deg, np.full(lat_deg.size, NEAR_KM)), tell).read(pieces, head)
        except (RuntimeError, ValueError, KeyError, osmium.InvalidLocationError) as trouble:
            if isinstance(trouble, InputProblem):
                raise
            if "allocate memory" in str(trouble):
                raise MemoryError from trouble
            raise InputProblem(
                f"The map cannot be read: {str(trouble)[:120]}", "field file", "Fetch the extract again; it may be cut off."
            ) from None


class _Piece(NamedTuple):
    """A part of the file that osmium can read by itself."""

    open: Callable[[], Any]
    share: float
    """How much of the file lies before its end [-]."""


def _pieces(file: BinaryIO, path: Path) -> tuple[list[_Piece], Any]:
    """The pieces of a file, and osmium's header of it."""
    begin = file.read(LONGEST_TAG)
    if begin[4:6] == b"\x0a\x09" and begin[6:15] == b"OSMHeader":
        blobs, size = list(_blobs(file)), path.stat().st_size
        head = _bytes(file, *blobs[0])
        found: list[_Piece] = []
        start = 1
        for n in range(1, len(blobs)):
            first, last = blobs[start][0], sum(blobs[n])
            if last - first >= PIECE_BYTES or n - start >= PIECE_BLOBS or n == len(blobs) - 1:
                found.append(_Piece(partial(_buffer, file, head, first, last - first), last / size))
                start = n + 1
        return found, osmium.io.Reader(_buffer(file, head, 0, 0)).header()
    if re.match(rb"\s*(<\?xml[^>]*>)?\s*(<!--.*?-->\s*)*<osm[\s>]", begin.lstrip(b"\xef\xbb\xbf"), re.DOTALL):
        source = osmium.io.File(str(path), "osm")
        return [_Piece(lambda: source, 1.0)], osmium.io.Reader(source).header()
    raise InputProblem(
        "This is no map that can be read", "field file",
        "Bring an OpenStreetMap extract of the region, a file ending in .osm.pbf or .osm."
    )  # fmt: skip


def _blobs(file: BinaryIO) -> Iterator[tuple[int, int]]:
    """Where the blobs of a PBF lie, their heads with them: offset and length. Raises InputProblem."""
    file.seek(0, 2)
    end, at = file.tell(), 0
    while at < end:
        file.seek(at)
        long = int.from_bytes(file.read(4), "big")
        head = file.read(long) if long <= LONGEST_HEAD else b""
        size = _blob_size(head) if len(head) == long and long else None
        if size is None or at + 4 + long + size > end:
            raise InputProblem(
                f"The map breaks off or is damaged at byte {at:,}", "field file", "Fetch the extract again; it may be cut off."
            )
        yield at, 4 + long + size
        at += 4 + long + size


def _blob_size(head: bytes) -> int | None:
    """Field 3 of a blob's head: how long what follows it is; None where it does not say, or says too much."""
    at, size = 0, None
    while at < len(head):
        field, at = _varint(head, at)
        if field & 7 == 2:
            skipped, at = _varint(head, at)
            at += skipped
        elif field & 7 == 0:
            value, at = _varint(head, at)
            size = value if field >> 3 == 3 else size
        else:
            return None
    return size if size is not None and 0 < size <= LONGEST_BLOB and at == len(head) else None


def _varint(data: bytes, at: int) -> tuple[int, int]:
    """A number as protocol buffers write it, and where the next field begins; beyond the end where it breaks off."""
    value = 0
    for n in range(10):
        if at + n >= len(data):
            break
        value |= (data[at + n] & 127) << 7 * n
        if data[at + n] < 128:
            return value, at + n + 1
    return value, len(data) + 1


def _buffer(file: BinaryIO, head: bytes, start: int, size: int) -> Any:
    return osmium.io.FileBuffer(head + _bytes(file, start, size), "pbf")


def _bytes(file: BinaryIO, start: int, size: int) -> bytes:
    file.seek(start)
    return file.read(size)


class _Reader:
    """Reads a file piece by piece: all nodes first, then the ways between those that lie in the corridor."""

    def __init__(self, corridor: Corridor, beside: Corridor, tell: Tell) -> None:
        self._corridor, self._beside, self._tell = corridor, beside, tell
        self._keys = tags.keys()
        self._threads = osmium.io.ThreadPool()
        # Its types know no table for locations, and that one kind of object comes only.
        self._objects: Any = osmium.FileProcessor
        self._newest = dt.datetime.min.replace(tzinfo=dt.UTC)
        self._features: list[Feature] = []
        self._ways: list[Way] = []

    def read(self, pieces: list[_Piece], head: Any) -> Reading:
        """All of the corridor."""
        nodes, done = self._nodes(pieces, in_order=head.get("sorting") == "Type_then_ID")
        inside, near = osmium.IdTracker(), self._beside.holds(nodes.lat, nodes.lon)
        for identifier in nodes.id.tolist():
            inside.add_node(identifier)
        for piece in pieces[done:]:
            self._ways_of(piece, nodes, inside, near)
            self._tell(NODES_SHARE + (1 - NODES_SHARE) * piece.share)
        return Reading(features=self._features, ways=self._ways, on=_age(head, self._newest), seen=_seen(nodes))

    def _nodes(self, pieces: list[_Piece], in_order: bool) -> tuple[_Nodes, int]:
        """The nodes of the corridor, and the first piece that may have ways."""
        # By key first: that is quicker than by values, and leaves out most.
        pairs = ((key, value) for key, values in self._keys.items() for value in values)
        any_of, looked_for = KeyFilter(*self._keys), TagFilter(*pairs)
        which = osmium.osm.NODE | osmium.osm.WAY if in_order else osmium.osm.NODE
        kept: list[NDArray[Any]] = []
        with tempfile.TemporaryDirectory() as folder:
            for number, piece in enumerate(pieces):
                table, ways = Path(folder) / str(number), False
                if shutil.disk_usage(folder).free < SPARE_BYTES:
                    # A table that is mapped and finds no room would end the process without a word.
                    raise OSError(errno.ENOSPC, os.strerror(errno.ENOSPC), folder)
                locations = osmium.index.create_map(f"sparse_file_array,{table}")
                located = self._objects(piece.open(), which, thread_pool=self._threads).with_locations(locations)
                for one in located.with_filter(any_of).with_filter(looked_for):
                    if not one.is_node():
                        ways = True
                        break
                    where = one.location
                    if where.valid() and self._corridor.has(where.lat, where.lon):
                        self._newest = max(self._newest, one.timestamp)
                        self._add(Feature(f"n{one.id}", where.lat, where.lon, _tags(one)))
                records = np.fromfile(table, STORED, locations.used_memory() // STORED.itemsize)
                kept.append(records[self._corridor.holds(records["y"] * SCALE, records["x"] * SCALE)])
                del locations
                table.unlink()
                self._tell(NODES_SHARE * piece.share)
                if ways:
                    # What follows in a file in order has no nodes.
                    return _ordered(kept), number
        return _ordered(kept), 0

    def _ways_of(self, piece: _Piece, nodes: _Nodes, inside: Any, near: NDArray[np.bool_]) -> None:
        """Places and roads among the ways of a piece."""
        refs: list[int] = []
        begun: list[tuple[str, dict[str, str], int, int]] = []
        lines = self._objects(piece.open(), osmium.osm.WAY, thread_pool=self._threads).with_filter(KeyFilter(*self._keys, *ROADS))
        for one in lines.with_filter(inside.contains_filter()):
            begun.append((f"w{one.id}", _tags(one), len(refs), len(one.nodes)))
            refs.extend(node.ref for node in one.nodes)
        # Looked up together: way by way the calls would cost more than the search.
        every = nodes.find(refs)
        for identifier, described, start, count in begun:
            at = every[start : start + count]
            there = at[at >= 0]
            if any(described.get(key) in values for key, values in self._keys.items()):
                self._add(Feature(identifier, float(nodes.lat[there[0]]), float(nodes.lon[there[0]]), described))
            if _is_road(described) and near[there].any():
                self._ways += _lines(identifier, at, nodes, described)
        if len(self._ways) > MOST_WAYS:
            raise InputProblem(f"More than {MOST_WAYS:,} ways lie near the road", "field file", TOO_MUCH)

    def _add(self, feature: Feature) -> None:
        if len(self._features) >= MOST_FEATURES:
            raise InputProblem(f"More than {MOST_FEATURES:,} places lie near the road", "field file", TOO_MUCH)
        self._features.append(feature)


def _seen(nodes: _Nodes) -> tuple[Array, Array]:
    """Cells that have anything, by their middles."""
    wide = round(360 / SEEN_DEG)
    row, column = np.divmod(np.unique(np.floor(nodes.lat / SEEN_DEG) * wide + np.floor(nodes.lon / SEEN_DEG) + wide / 2), wide)
    return (row + 0.5) * SEEN_DEG, (column - wide / 2 + 0.5) * SEEN_DEG


def _ordered(kept: list[NDArray[Any]]) -> _Nodes:
    records = np.concatenate(kept) if kept else np.zeros(0, STORED)
    identifier = records["id"].astype(np.int64)
    if np.any(np.diff(identifier) < 0):
        order = np.argsort(identifier, kind="stable")
        records, identifier = records[order], identifier[order]
    return _Nodes(identifier, records["y"] * SCALE, records["x"] * SCALE)


def _tags(one: Any) -> dict[str, str]:
    return {tag.k[:LONGEST_TAG]: tag.v[:LONGEST_TAG] for tag in one.tags}


def _is_road(described: dict[str, str]) -> bool:
    street = described.get("highway")
    return street not in NO_ROADS and (street is not None or described.get("route") == "ferry")


def _lines(identifier: str, at: NDArray[np.intp], nodes: _Nodes, described: dict[str, str]) -> Iterator[Way]:
    """What of a way lies in the corridor, as lines without gaps."""
    for run in np.split(at, np.flatnonzero(at < 0)) if at.min() < 0 else [at]:
        run = run[run >= 0]
        if run.size > 1:
            yield Way(identifier, nodes.lat[run], nodes.lon[run], described)


def _age(head: Any, newest: dt.datetime) -> dt.date | None:
    """The day up to which a file tells: as it says itself, else that of the newest place read."""
    told = str(head.get("osmosis_replication_timestamp") or head.get("timestamp") or "")
    try:
        return dt.datetime.fromisoformat(told.replace("Z", "+00:00")).date()
    except ValueError:
        return newest.date() if newest.year > 2003 else None
