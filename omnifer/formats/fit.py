"""FIT: recorded activities and planned courses, in the binary form of devices."""

import datetime as dt
import io
import math

import fitdecode

from omnifer.formats.found import Tell, bounded, nobody
from omnifer.formats.points import Points
from omnifer.formats.problem import InputProblem

DEGREES_A_STEP = 180 / 2**31
"""Positions are counted in so many steps of half a circle [°]."""
RAISE, RAISE_CRC = fitdecode.ErrorHandling.RAISE, fitdecode.CrcCheck.RAISE
TOLD_EVERY, MOST_MESSAGES = 5000, 1_200_000
"""Messages between two words on how far it is, and of a file; a recorded point is one."""


def read_fit_file(content: bytes, tell: Tell = nobody) -> Points:
    """Read the records of an activity or course as points, and course points as places. Raises InputProblem.

    References
    ----------
    The published FIT protocol, read by the package fitdecode; positions are in semicircles.
    """
    bounded(content)
    points, source = Points(), io.BytesIO(content)
    points.begin()
    try:
        with fitdecode.FitReader(source, check_crc=RAISE_CRC, error_handling=RAISE) as reader:
            for number, frame in enumerate(reader):
                if number > MOST_MESSAGES:
                    raise InputProblem(f"The file has more than {MOST_MESSAGES:,} messages", "", "Split it.")
                if number % TOLD_EVERY == 0:
                    tell(source.tell() / len(content))
                if isinstance(frame, fitdecode.FitDataMessage):
                    _take(frame, points)
    except InputProblem:
        raise
    except Exception as error:  # the package raises what struct, its own checks and odd fields raise
        what = f"The file breaks off or is damaged after {len(points.lat)} points"
        raise InputProblem(what, "", "Copy it from the device again; nothing was taken.") from error
    return points


def _take(frame: "fitdecode.FitDataMessage", points: Points) -> None:
    lat, lon = (_degrees(frame.get_value(f"position_{axis}", fallback=None)) for axis in ("lat", "long"))
    if frame.name == "record":
        if lat is None and lon is None:
            return  # no fix yet, or indoors
        height = frame.get_value("enhanced_altitude", fallback=None)
        height = frame.get_value("altitude", fallback=None) if height is None else height
        points.add(lat, lon, float(height) if isinstance(height, int | float) else None, _second(frame))
    elif frame.name == "course_point":
        points.place(_text(frame, "name"), lat, lon, "", _text(frame, "type"))
    elif frame.name == "course":
        points.name = points.name or _text(frame, "name")


def _degrees(steps: object) -> float | None:
    return steps * DEGREES_A_STEP if isinstance(steps, int | float) else None


def _text(frame: "fitdecode.FitDataMessage", name: str) -> str:
    found = frame.get_value(name, fallback=None)
    return found.replace("\0", "").strip() if isinstance(found, str) else ""


def _second(frame: "fitdecode.FitDataMessage") -> float:
    found = frame.get_value("timestamp", fallback=None)
    return found.timestamp() if isinstance(found, dt.datetime) else math.nan
