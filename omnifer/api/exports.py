"""A tour as files."""

import json
import re
from typing import Any

from flask import Blueprint, Response, current_app

from omnifer.api.desk import desk
from omnifer.api.openapi import operation
from omnifer.core.model.assessment import Day
from omnifer.core.model.road import Stop, Track
from omnifer.formats.bundle import bundle_schema, write_bundle
from omnifer.formats.diary_csv import write_diary_csv
from omnifer.formats.geojson import write_geojson
from omnifer.formats.gpx import write_gpx
from omnifer.formats.ics import write_ics
from omnifer.formats.kit_csv import kit_table, write_kit_csv
from omnifer.formats.problem import InputProblem
from omnifer.formats.stops_csv import write_stops_csv
from omnifer.formats.workbook import workbook_of
from omnifer.store.tours import StoredTour, UnreadableError

blueprint = Blueprint("exports", __name__)
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


def attachment(content: str | bytes, media: str, name: str) -> Response:
    """A file to be kept."""
    response = current_app.response_class(content, mimetype=media)
    response.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


@blueprint.get("/api/tours/<tour_id>/bundle.json")
@operation(problems=(404,))
def export_bundle(tour_id: str) -> Response:
    """The whole tour as a bundle; one that cannot be read as what is there."""
    try:
        stored = desk().tours.read(tour_id)
    except UnreadableError as error:
        there = {"format": "omnifer-tour", "version": error.version, "tour": error.document}
        return attachment(json.dumps(there), "application/json", file_name(str(error.document.get("name", "")), ".json"))
    return attachment(write_bundle(desk().whole(stored)), "application/json", file_name(stored.sheet.name, ".json"))


def _ridden(tour_id: str) -> tuple[StoredTour, Track, list[Day], list[tuple[Stop, float, float]]]:
    """A tour with its track, its days, and its stops with their coordinates. Raises InputProblem on a typed road."""
    stored = desk().tours.read(tour_id)
    profile, track = desk().profile(stored), desk().tours.read_track(stored.track_id)
    if profile is None or track is None:
        raise InputProblem("This road was typed and has no track", "", "Bring a GPX track first.")
    places = [(stop, *position) for stop in stored.sheet.road.stops if (position := profile.position_at(stop.at_km)) is not None]
    return stored, track, desk().assessment(stored).days, places


@blueprint.get("/api/tours/<tour_id>/road.gpx")
@operation(media="application/gpx+xml", problems=(404, 422))
def export_gpx(tour_id: str) -> Response:
    """The road with a track a day and a waypoint a stop."""
    stored, track, days, places = _ridden(tour_id)
    text = write_gpx(stored.sheet.name, track, days, places)
    return attachment(text, "application/gpx+xml", file_name(stored.sheet.name, ".gpx"))


@blueprint.get("/api/tours/<tour_id>/road.geojson")
@operation(media="application/geo+json", problems=(404, 422))
def export_geojson(tour_id: str) -> Response:
    """The road with a line a day and a point a stop."""
    stored, track, days, places = _ridden(tour_id)
    text = write_geojson(track, days, places)
    return attachment(text, "application/geo+json", file_name(stored.sheet.name, ".geojson"))


@blueprint.get("/api/tours/<tour_id>/days.ics")
@operation(media="text/calendar", problems=(404, 422))
def export_calendar(tour_id: str) -> Response:
    """A calendar with a day each: distance, stops, daylight, what is shut."""
    stored = desk().tours.read(tour_id)
    found = desk().assessment(stored)
    if not found.ready:
        raise InputProblem("The tour has no road yet", "", "Bring a track or type days first.")
    text = write_ics(
        stored.sheet.name, found.days, found.passings, stored.sheet.road.stops, found.stores.stops if found.stores else ()
    )
    return attachment(text, "text/calendar", file_name(stored.sheet.name, ".ics"))


@blueprint.get("/api/tours/<tour_id>/stops.csv")
@operation(media="text/csv", problems=(404,))
def export_stops(tour_id: str) -> Response:
    """The stops as a sheet."""
    stored = desk().tours.read(tour_id)
    return attachment(write_stops_csv(stored.sheet.road.stops), "text/csv", file_name(stored.sheet.name, "-stops.csv"))


@blueprint.get("/api/tours/<tour_id>/kit.csv")
@operation(media="text/csv", problems=(404,))
def export_kit(tour_id: str) -> Response:
    """The kit as a sheet."""
    stored = desk().tours.read(tour_id)
    names = {rider.id: rider.name for rider in stored.sheet.riders}
    return attachment(write_kit_csv(stored.sheet.kit, names), "text/csv", file_name(stored.sheet.name, "-kit.csv"))


@blueprint.get("/api/tours/<tour_id>/kit.xlsx")
@operation(media=XLSX, problems=(404,))
def export_kit_book(tour_id: str) -> Response:
    """The kit as a workbook."""
    stored = desk().tours.read(tour_id)
    names = {rider.id: rider.name for rider in stored.sheet.riders}
    content = workbook_of("Kit", kit_table(stored.sheet.kit, names))
    return attachment(content, XLSX, file_name(stored.sheet.name, "-kit.xlsx"))


@blueprint.get("/api/tours/<tour_id>/diary.csv")
@operation(media="text/csv", problems=(404,))
def export_diary(tour_id: str) -> Response:
    """The diary as a sheet."""
    stored = desk().tours.read(tour_id)
    text = write_diary_csv(desk().journal(tour_id), stored.sheet)
    return attachment(text, "text/csv", file_name(stored.sheet.name, "-diary.csv"))


@blueprint.get("/api/bundle.schema.json")
@operation()
def schema() -> dict[str, Any]:
    """JSON Schema of a bundle."""
    return bundle_schema()


def file_name(name: str, ending: str) -> str:
    """A tour's name as a file name."""
    return (re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "tour") + ending
