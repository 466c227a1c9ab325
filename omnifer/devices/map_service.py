"""Stand-ins for a map service and a service of heights, speaking HTTP on loopback.

They know the invented country of the sample and answer emptily elsewhere. They can be told to fail, for practice.
"""

import re
from collections.abc import Sequence
from functools import cache
from typing import Any

import numpy as np
from flask import Flask, Response, request
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from omnifer.core.physics.geodesy import EARTH_KM, on_sphere
from omnifer.core.road.profile import from_track
from omnifer.demo.country import demo_track
from omnifer.demo.mapped import SURVEYED, demo_map

MOST_BYTES = 200_000
BUSY = 503
STATEMENT = re.compile(r'(nwr|node|way)\(around:(\d+),([-\d.,]+)\)\["(\w+)"(?:~"\^\(([\w|]+)\)\$")?\];')
"""Of the query language, what Omnifer asks."""
KNOWN_KM = 5.0
"""So near to its one road heights are known [km]."""
MOST_PLACES = 512
"""In one question about heights."""

Array = NDArray[np.float64]


def create_map_service(failing: Sequence[int] = ()) -> Flask:
    """A service that answers POST /api/interpreter in the form of [out:json].

    Parameters
    ----------
    failing : sequence of int
        Statuses with which the first questions are answered, as 429 and 504; 200 breaks off with a remark as real ones do.
    """
    app, left = _app(), list(failing)

    @app.post("/api/interpreter")
    def tell() -> Response | dict[str, Any]:
        asked = request.form.get("data", "")
        if left:
            status = left.pop(0)
            if status != 200:
                return app.response_class("busy", status)
            return _told([], remark='runtime error: Query timed out in "query" at line 1 after 91 seconds.')
        statements = STATEMENT.findall(asked)
        if not statements:
            return app.response_class("Error: this stand-in knows statements like nwr(around:m,lat,lon)[key]; only", 400)
        found: dict[tuple[str, int], dict[str, Any]] = {}
        for kind, metres, line, key, values in statements:
            wanted = values.split("|") if values else None
            for element in _near(kind == "way", float(metres), line):
                if key in element["tags"] and (wanted is None or element["tags"][key] in wanted):
                    found[element["type"], element["id"]] = element
        return _told(list(found.values()))

    return app


def create_height_service(failing: Sequence[int] = ()) -> Flask:
    """A service that answers GET /lookup?locations=lat,lon|lat,lon with an elevation for each; null where it knows none."""
    app, left = _app(), list(failing)

    @app.get("/lookup")
    def tell() -> Response | dict[str, Any]:
        if left:
            return app.response_class("busy", left.pop(0))
        try:
            places = np.array([[float(axis) for axis in place.split(",")] for place in request.args["locations"].split("|")])
            lat, lon = places.T
        except (KeyError, ValueError):
            return app.response_class("locations=lat,lon|lat,lon is wanted", 400)
        if lat.size > MOST_PLACES:
            return app.response_class(f"at most {MOST_PLACES} places", 400)
        tree, heights = _country()
        away, at = tree.query(on_sphere(lat, lon))
        told = [float(heights[n]) if d * EARTH_KM <= KNOWN_KM else None for d, n in zip(away, at, strict=True)]
        return {"results": [
            {"elevation": height, "location": {"lat": a, "lng": b}}
            for height, a, b in zip(told, lat.tolist(), lon.tolist(), strict=True)
        ], "status": "OK"}  # fmt: skip

    return app


def _app() -> Flask:
    app = Flask(__name__, static_folder=None)
    app.config.update(MAX_CONTENT_LENGTH=MOST_BYTES, MAX_FORM_MEMORY_SIZE=MOST_BYTES)
    return app


def _told(elements: list[dict[str, Any]], **more: str) -> dict[str, Any]:
    about = {"timestamp_osm_base": SURVEYED, "copyright": "Invented: the country of the sample."}
    return {"version": 0.6, "generator": "a stand-in", "osm3s": about, "elements": elements, **more}


def _near(ways: bool, metres: float, line: str) -> list[dict[str, Any]]:
    """The elements within so many metres of a line; of a way any point."""
    points = np.array([float(axis) for axis in line.split(",")]).reshape(-1, 2)
    # The line itself is meant, not its corners only.
    count = max(int(np.ceil(100 / max(len(points), 1))), 20)
    along = np.linspace(0, len(points) - 1, (len(points) - 1) * count + 1)
    lat, lon = (np.interp(along, np.arange(len(points)), points[:, axis]) for axis in (0, 1))
    tree = cKDTree(on_sphere(lat, lon))
    where, of, elements = _elements(ways)
    away, _ = tree.query(where, distance_upper_bound=metres / 1000 / EARTH_KM)
    return [elements[n] for n in np.unique(of[np.isfinite(away)]).tolist()]


@cache
def _elements(ways: bool) -> tuple[Array, NDArray[np.intp], list[dict[str, Any]]]:
    """Points of all places, or of all ways; of which each is; and what is told of it."""
    elements = demo_map()[1 if ways else 0]
    lines = [element.get("geometry", [element]) for element in elements]
    where = np.array([[point["lat"], point["lon"]] for line in lines for point in line])
    return on_sphere(where[:, 0], where[:, 1]), np.repeat(np.arange(len(lines)), [len(line) for line in lines]), elements


@cache
def _country() -> tuple[cKDTree, Array]:
    profile = from_track(demo_track())
    assert profile.lat_deg is not None
    assert profile.lon_deg is not None
    return cKDTree(on_sphere(profile.lat_deg, profile.lon_deg)), profile.elevation_m
