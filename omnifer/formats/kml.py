"""KML and KMZ: lines, recorded tracks and places, as drawing programs of the globe write them."""

import io
import zipfile
import zlib

from omnifer.formats.elements import stream
from omnifer.formats.found import MOST_BYTES, Tell, nobody, second_of
from omnifer.formats.points import Points, number
from omnifer.formats.problem import InputProblem

LINES = frozenset({"LineString", "Track"})
MOST_ENTRIES = 2000
"""Of an archive."""


def read_kmz(content: bytes, tell: Tell = nobody) -> Points:
    """Read the document of an archive; no more than can be read of a file is unpacked. Raises InputProblem."""
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            entries = archive.infolist()
            documents = [entry for entry in entries if entry.filename.lower().endswith(".kml")]
            if not documents or len(entries) > MOST_ENTRIES:
                raise InputProblem("The archive holds no KML document", "", "Choose a .kmz or .kml file of the road.")
            with archive.open(documents[0]) as file:
                document = file.read(MOST_BYTES + 1)
    except (zipfile.BadZipFile, zlib.error, EOFError, OSError, RuntimeError, NotImplementedError, ValueError) as error:
        if isinstance(error, InputProblem):
            raise
        raise InputProblem("The archive is damaged or locked", "", "Copy or export it again.") from None
    return read_kml(document, tell)


def read_kml(content: bytes, tell: Tell = nobody) -> Points:
    """Read all lines and recorded tracks as parts of one road, and points as places. Raises InputProblem.

    References
    ----------
    OGC 12-007r2, KML 2.3: coordinates are longitude, latitude and height in metres.
    """
    points, when, name, note = Points(), list[str](), "", ""

    def starts(path: list[str]) -> None:
        nonlocal name, note
        if path[-1] == "Placemark":
            name = note = ""
        elif path[-1] in LINES:
            points.begin(name)
            when.clear()

    def ends(path: list[str], text: str) -> None:
        nonlocal name, note
        tag, parent = path[-1], path[-2] if len(path) > 1 else ""
        if tag == "name" and parent in ("Placemark", "Document", "Folder"):
            points.name = points.name or text
            name = text if parent == "Placemark" else name
        elif tag == "description" and parent == "Placemark":
            note = text
        elif tag == "when" and parent == "Track":
            when.append(text)
        elif tag == "coord" and parent == "Track":
            points.add(*_position(text.split()), second_of(when.pop(0)) if when else float("nan"))
        elif tag == "coordinates" and parent == "LineString":
            positions = [_position(one.split(",")) for one in text.split()]
            # Lines that were drawn on the ground carry height 0 at every point.
            flat = not any(height for _, _, height in positions)
            for lat, lon, height in positions:
                points.add(lat, lon, None if flat else height)
        elif tag == "coordinates" and parent == "Point":
            lat, lon, _ = _position(text.split(","))
            points.place(name, lat, lon, note)

    stream(content, ends, starts, tell)
    return points


def _position(parts: list[str]) -> tuple[float | None, float | None, float | None]:
    """Latitude, longitude and height."""
    lon, lat, height = ([number(part) for part in parts[:3]] + [None] * 3)[:3]
    return lat, lon, height
