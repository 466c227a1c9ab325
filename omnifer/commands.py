"""What is done with a file and no browser: a road, an assessment, a proposal, a list understood, each as it is printed."""

import datetime as dt
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter, ValidationError

from omnifer.core.assess import assess, profile_of
from omnifer.core.load.settle import propose_load
from omnifer.core.mapped.groups import corridor_km
from omnifer.core.mapped.proposals import proposals
from omnifer.core.model.quantities import ElevationM
from omnifer.core.model.rehearsal import FIRST_PLAYS, MOST_PLAYS, USUAL_PLAYS
from omnifer.core.model.road import ASCENT_THRESHOLD_M, Latitude, Longitude, Road
from omnifer.core.physics.geodesy import ascent
from omnifer.core.rehearsal.rehearsing import SEED, rehearsed
from omnifer.core.road.beside import offered_stops
from omnifer.core.road.profile import from_track
from omnifer.core.road.stations import stations_of
from omnifer.core.season import season_of
from omnifer.core.stages import Reading
from omnifer.core.world.climate import stations_at
from omnifer.core.world.places import name_near
from omnifer.formats.bundle import MOST_BYTES, read_bundle
from omnifer.formats.kit_csv import read_kit_csv
from omnifer.formats.osm import read_map
from omnifer.formats.problem import InputProblem
from omnifer.formats.tracks import read_track
from omnifer.formats.workbook import sheets_of


def road(path: str, extract: str | None = None) -> dict[str, Any]:
    """Distance, climb, points, waypoints, climate and places along a track file of any kind; of a map what it has there."""
    found = read_track(_read(path))
    try:
        profile = from_track(found.track)
    except ValueError as error:
        raise InputProblem(str(error)) from None
    up, down = ascent(profile.elevation_m, ASCENT_THRESHOLD_M) if profile.has_heights else (0.0, 0.0)
    places = []
    for waypoint in found.waypoints:
        at = profile.nearest(waypoint.lat_deg, waypoint.lon_deg)
        places.append(
            {"name": waypoint.name, "at_km": round(at[0], 3) if at else None, "off_km": round(at[1], 3) if at else None}
        )
    mapped = None
    if extract is not None:
        nodes = profile.nodes
        assert nodes.lat_deg is not None
        assert nodes.lon_deg is not None
        if not Path(extract).is_file():
            raise InputProblem(f"{extract} cannot be read: there is no such file")
        told = read_map(Path(extract), nodes.lat_deg, nodes.lon_deg, corridor_km(nodes.km, ()))
        today = dt.datetime.now(dt.UTC).date()
        mapped = proposals(told, profile, Road(), (), lambda _: today, today).model_dump(mode="json")
    return {
        "mapped": mapped,
        "name": found.track.name,
        "points": len(found.track.lat_deg),
        "distance_km": round(profile.length_km, 3),
        "has_heights": profile.has_heights,
        "ascent_m": round(up, 1),
        "descent_m": round(down, 1),
        "ascent_method": f"25 m cells, 100 m moving mean, hysteresis {ASCENT_THRESHOLD_M:g} m",
        "highest_m": round(float(profile.elevation_m.max()), 1),
        "lowest_m": round(float(profile.elevation_m.min()), 1),
        "waypoints": places,
        "offered_stops": [stop.model_dump(mode="json") for stop in offered_stops(profile, ())],
        "stations": [station.model_dump(mode="json") for station in stations_of(profile, Road())],
        "remarks": found.remarks,
    }


def climate(lat_deg: str, lon_deg: str, elevation_m: str) -> dict[str, Any]:
    """The climate of a place month by month, from the shipped grid."""
    try:
        place = TypeAdapter(tuple[Latitude, Longitude, ElevationM]).validate_python((lat_deg, lon_deg, elevation_m))
    except ValidationError as error:
        wrong = error.errors(include_url=False)[0]
        what = f"{wrong['input']!r} is no place: {wrong['msg']}"
        raise InputProblem(what, "", "Say latitude, longitude and height, as in 48.2 16.4 170.") from None
    lat, lon, height = place
    found = stations_at([lat], [lon], [height], [name_near(lat, lon) or f"{lat:g}, {lon:g}"])[0]
    if found is None:
        raise InputProblem(f"No land lies near {lat:g}, {lon:g}", "", "The grid knows the climate of land only.")
    return found.model_dump(mode="json")


def assess_bundle(path: str) -> dict[str, Any]:
    """The assessment of a bundle."""
    tour = read_bundle(_read(path))
    return assess(tour, profile_of(tour)).model_dump(mode="json")


def season(path: str) -> dict[str, Any]:
    """A bundle's tour begun every second week of a year, as planned and the other way."""
    tour = read_bundle(_read(path))
    profile = profile_of(tour)
    if profile is None:
        raise InputProblem("The tour has no road", "", "Bring a track or type the days first.")
    return season_of(tour, profile).model_dump(mode="json")


def rehearse(path: str, plays: int = USUAL_PLAYS, seed: int = SEED) -> dict[str, Any]:
    """A bundle's tour played many times: outcomes with counts and intervals, and by stretch."""
    if not FIRST_PLAYS <= plays <= MOST_PLAYS:
        raise InputProblem(f"{plays} plays are too few or too many", "", f"Ask for {FIRST_PLAYS} to {MOST_PLAYS}.")
    tour = read_bundle(_read(path))
    profile = profile_of(tour)
    if profile is None or not tour.riders:
        raise InputProblem("The tour has no road or no riders", "", "Bring a track or type the days first.")
    *_, told = rehearsed(Reading(tour, profile), plays, seed)
    return told.model_dump(mode="json")


def propose_bundle(path: str) -> dict[str, Any]:
    """A proposed load for a bundle: the same bundle gives the same bytes."""
    tour = read_bundle(_read(path))
    return propose_load(tour, profile_of(tour)).model_dump(mode="json")


def list_things(path: str) -> Iterator[dict[str, Any]]:
    """What is understood of a list of things, a sheet or a workbook, row by row; of a workbook its first sheet that holds any."""
    found = read_kit_csv(sheets_of(_read(path))[0].text, {})
    asked: dict[str, list[str]] = {}
    for question in found.questions:
        asked.setdefault(question.thing_id, []).append(question.asks)
    for thing in found.things:
        plays = None if thing.role is None else thing.role.does
        yield {
            "name": thing.name, "count": thing.count, "mass_kg": thing.mass_kg, "volume_l": thing.volume_l,
            "kind": found.kinds.get(thing.id), "plays": "vessel" if thing.holds_water_l else plays, "serves": list(thing.serves),
            "holds_l": thing.holds_water_l, "sure": thing.id in found.kinds, "asked": asked.get(thing.id, []),
        }  # fmt: skip
    for problem in found.problems:
        print(f"line {problem.row}: {problem.what}", file=sys.stderr)


def _read(path: str) -> bytes:
    try:
        file = Path(path)
        if file.stat().st_size > MOST_BYTES:
            raise InputProblem(f"{path} is larger than {MOST_BYTES // 2**20} MB")
        return file.read_bytes()
    except OSError as error:
        raise InputProblem(f"{path} cannot be read: {error.strerror}") from None
