"""TCX: recorded activities and planned courses, as training devices write them."""

from omnifer.formats.elements import stream
from omnifer.formats.found import Tell, nobody, second_of
from omnifer.formats.points import Points, number

POINT, PLACE, WHERE = "Trackpoint", "CoursePoint", "Position"
FIELDS = frozenset({"LatitudeDegrees", "LongitudeDegrees", "AltitudeMeters", "Time", "Name", "Notes", "PointType"})


def read_tcx(content: bytes, tell: Tell = nobody) -> Points:
    """Read the points of all activities and courses, and the places of courses. Raises InputProblem.

    References
    ----------
    TrainingCenterDatabase v2, the published schema; from memory.
    """
    points, fields = Points(), dict[str, str]()

    def starts(path: list[str]) -> None:
        if path[-1] == "Track":
            points.begin(points.name)
        elif path[-1] in (POINT, PLACE):
            fields.clear()

    def ends(path: list[str], text: str) -> None:
        tag = path[-1]
        if tag in FIELDS and (path[-2] in (POINT, PLACE) or path[-2] == WHERE):
            fields[tag] = text
        elif tag == "Name" and path[-2] == "Course":
            points.name = points.name or text
        elif tag in (POINT, PLACE):
            lat, lon = (number(fields.get(axis, "")) for axis in ("LatitudeDegrees", "LongitudeDegrees"))
            if tag == POINT:
                # A device that has no fix yet writes points without a position.
                points.add(lat, lon, number(fields.get("AltitudeMeters", "")), second_of(fields.get("Time", "")))
            else:
                points.place(fields.get("Name", ""), lat, lon, fields.get("Notes", ""), fields.get("PointType", ""))

    stream(content, ends, starts, tell)
    return points
