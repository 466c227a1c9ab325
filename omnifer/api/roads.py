"""The road of a tour: its track, its stops as a sheet, its weather stations, and the pace of a recorded ride."""

from flask import Blueprint, Response, current_app, request

from omnifer.api.desk import answer, body, desk, form, uploaded
from omnifer.api.openapi import operation
from omnifer.api.streams import errand
from omnifer.core.model.manner import Manner
from omnifer.core.model.mapped import MappedRoad
from omnifer.core.model.offered import OfferedStops
from omnifer.core.model.quantities import LONGEST_NAME
from omnifer.core.model.season import Season
from omnifer.core.road import learn, reshape
from omnifer.core.road.beside import offered_by_name, offered_stops
from omnifer.core.road.climate import months_at
from omnifer.core.road.outlook import compare
from omnifer.core.voyage import play
from omnifer.formats import tracks
from omnifer.formats.problem import InputProblem
from omnifer.formats.stations import read_station
from omnifer.formats.stops_csv import StopsPreview, read_stops_csv
from omnifer.formats.tracks import read_recording
from omnifer.jobs.apart import apart
from omnifer.jobs.pieces import Pieces
from omnifer.office import shapes
from omnifer.outside.asking import Trouble
from omnifer.outside.weather import Asked

blueprint = Blueprint("roads", __name__)
MOST_FILES = 50


@blueprint.post("/api/tours/<tour_id>/track")
@operation(gives=shapes.TourAnswer, upload=shapes.TrackUpload, tells=(shapes.Progress,), problems=(404, 409, 413, 422))
def bring_track(tour_id: str) -> Response:
    """Bring a track of one or more files, in the order of their names; its waypoints become stops."""
    wanted = form(shapes.TrackUpload)
    files = sorted(request.files.getlist("file"), key=lambda f: f.filename or "")[:MOST_FILES]
    contents = [file.read() for file in files] or [uploaded()]

    return errand("track", tour_id, wanted, contents)


@blueprint.post("/api/tours/<tour_id>/track/shape")
@operation(gives=shapes.TourAnswer, takes=shapes.TrackShape, problems=(404, 409, 422))
def shape_track(tour_id: str) -> Response:
    """Turn the track round, or keep only a part of it; stops and marks move with it."""
    wanted = shapes.TrackShape.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    track, profile = desk().tours.read_track(seen.track_id), desk().profile(seen)
    if track is None or profile is None:
        raise InputProblem("This tour has no track", "", "Bring one first.")
    sheet, length_km = seen.sheet, profile.length_km
    if wanted.shape == "reverse":
        what, track, sheet = "Ride the road the other way", tracks.reverse(track), reshape.reversed_sheet(sheet, length_km)
        if wanted.start_date is not None:
            sheet = sheet.model_copy(update={"start_date": wanted.start_date})
    else:
        low, high = wanted.from_km, wanted.to_km if wanted.to_km is not None else length_km
        what = f"Keep km {low:.0f} to {high:.0f}"
        try:
            track, sheet = tracks.trim(track, low, high), reshape.trimmed_sheet(sheet, low, high)
        except ValueError as error:
            words = str(error)[:1].upper() + str(error)[1:]
            raise InputProblem(words, "fields from_km and to_km", "Keep a longer part.") from None
    return answer(desk().keep(seen, what, sheet, track))


@blueprint.post("/api/tours/<tour_id>/track/heights")
@operation(gives=shapes.TourAnswer, upload=shapes.HeightsUpload, tells=(shapes.Progress,), problems=(404, 409, 413, 422))
def bring_heights(tour_id: str) -> Response:
    """Give the track heights out of files: HGT tiles, GeoTIFF."""
    files = sorted(request.files.getlist("file"), key=lambda f: f.filename or "")[:MOST_FILES]
    uploads = [file.read() for file in files] or [uploaded()]
    asked = shapes.HeightsAsked(**dict(form(shapes.HeightsUpload)), names=tuple(file.filename or "The file" for file in files))
    return errand("heights", tour_id, asked, uploads)


@blueprint.post("/api/tours/<tour_id>/track/heights/asked")
@operation(gives=shapes.TourAnswer, takes=shapes.HeightsUpload, tells=(shapes.Progress,), problems=(404, 409, 422, 502))
def ask_heights(tour_id: str) -> Response:
    """Give the track heights that a service is asked for."""
    asked = shapes.HeightsUpload.model_validate_json(body())
    return errand("heights", tour_id, shapes.HeightsAsked(**dict(asked)))


@blueprint.post("/api/tours/<tour_id>/map")
@operation(gives=MappedRoad, upload=shapes.MapUpload, tells=(shapes.Progress,), problems=(404, 413, 422))
def look_at_map(tour_id: str) -> Response:
    """What a map that came along has along the road, beside what the tour has; nothing is taken."""
    file = request.files.get("file")
    if file is None:
        raise InputProblem("No file came along", "field file", "Choose a file first.")
    pieces = Pieces(file.stream)
    if not pieces:
        raise InputProblem("The file is empty", "field file", "Fetch the extract again.")
    return errand("map", tour_id, shapes.About(), pieces)


@blueprint.post("/api/tours/<tour_id>/map/asked")
@operation(gives=MappedRoad, tells=(shapes.Progress,), problems=(404, 422, 502))
def ask_map(tour_id: str) -> Response:
    """The same of the map service."""
    return errand("map", tour_id, shapes.About())


@blueprint.post("/api/tours/<tour_id>/stops/preview")
@operation(gives=StopsPreview, takes=shapes.SheetBody, problems=(404, 422))
def preview_stops(tour_id: str) -> Response:
    """Understand a sheet of stops; nothing is taken."""
    stored = desk().tours.read(tour_id)
    wanted = shapes.SheetBody.model_validate_json(body())
    profile = desk().profile(stored)
    used = {stop.id for stop in stored.sheet.road.stops}
    length_km = profile.length_km if profile else None
    return answer(apart(len(wanted.text), read_stops_csv, wanted.text, used, length_km))


@blueprint.post("/api/tours/<tour_id>/stops/import")
@operation(gives=shapes.TourAnswer, takes=shapes.SheetImport, problems=(404, 409, 422))
def import_stops(tour_id: str) -> Response:
    """Take the stops of a sheet that has been previewed."""
    wanted = shapes.SheetImport.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    road = seen.sheet.road
    kept = () if wanted.replace else road.stops
    profile = desk().profile(seen)
    used = {stop.id for stop in kept}
    found = apart(len(wanted.text), read_stops_csv, wanted.text, used, profile.length_km if profile else None)
    changed = road.model_copy(update={"stops": (*kept, *found.stops)})
    sheet = seen.sheet.model_copy(update={"road": changed})
    return answer(desk().keep(seen, f"Take {len(found.stops)} stops from a sheet", sheet))


@blueprint.get("/api/tours/<tour_id>/stops/offered")
@operation(gives=OfferedStops, asks=("called",), problems=(404,))
def offered(tour_id: str) -> Response:
    """Places along the road that are no stops of it yet, or those of a name near it, each with what its size lets one expect."""
    stored = desk().tours.read(tour_id)
    profile, stops = desk().profile(stored), stored.sheet.road.stops
    if profile is None:
        return answer(OfferedStops(stops=[]))
    called = request.args.get("called", "")[:LONGEST_NAME]
    return answer(OfferedStops(stops=offered_by_name(profile, stops, called) if called else offered_stops(profile, stops)))


@blueprint.get("/api/tours/<tour_id>/season")
@operation(gives=Season, problems=(404,))
def season(tour_id: str) -> Response:
    """The tour begun every second week of a year, as planned and the other way."""
    return errand("season", tour_id, shapes.About())


@blueprint.get("/api/tours/<tour_id>/manner")
@operation(gives=Manner, problems=(404,))
def manner(tour_id: str) -> Response:
    """The tour in shorter or longer days, with more or fewer days of rest."""
    return errand("manner", tour_id, shapes.About())


@blueprint.post("/api/tours/<tour_id>/stations")
@operation(gives=shapes.TourAnswer, upload=shapes.StationUpload, problems=(404, 409, 413, 422))
def bring_station(tour_id: str) -> Response:
    """Bring a weather record: twelve months, a daily station record, or a typical-year file."""
    wanted = form(shapes.StationUpload)
    seen = desk().tours.read(tour_id, wanted.revision)
    road = seen.sheet.road
    used = {station.id for station in road.stations}
    identifier = next(f"station-{n}" for n in range(1, len(used) + 2) if f"station-{n}" not in used)
    try:
        record = uploaded()
        station, remarks = apart(len(record), read_station, record, identifier, wanted.name, wanted.at_km, wanted.elevation_m)
    except ValueError as error:
        raise InputProblem(f"The record does not make a station: {error}", "", "Say at which kilometre it lies.") from None
    changed = road.model_copy(update={"stations": (*road.stations, station)})
    sheet = seen.sheet.model_copy(update={"road": changed})
    remark = f"{station.name}: {station.source or 'twelve months'}."
    return answer(desk().keep(seen, f"Bring the weather of {station.name}", sheet, remarks=[remark, *remarks]))


@blueprint.get("/api/tours/<tour_id>/outlook/<int:number>")
@operation(gives=shapes.OutlookAnswer, problems=(404, 422))
def outlook(tour_id: str, number: int) -> Response:
    """The five days from a day of the tour on, as the weather service tells them; what it told before where it is silent."""
    stored = desk().tours.read(tour_id)
    profile = desk().profile(stored)
    days = desk().assessment(stored).days
    if profile is None or not 1 <= number <= len(days):
        raise InputProblem(f"This tour has no day {number}", "address", f"It has {len(days)} days.")
    day, trouble = days[number - 1], ""
    position = profile.position_at(day.to_km)
    if position is None:
        raise InputProblem("This road was typed and lies nowhere", "", "Bring a track: an outlook is told for a place.")
    months = months_at(profile, stored.sheet.road, day.to_km)
    try:
        told = current_app.extensions["weather"].outlook(Asked(*position, profile.elevation_at(day.to_km), day.date, months))
        desk().tours.keep_outlook(tour_id, day.date, told)
    except Trouble as error:
        trouble = str(error)
    kept = desk().tours.read_outlook(tour_id, day.date)
    if kept is None:
        return answer(shapes.OutlookAnswer(days=[], told_by="", told_at=None, stale=False, trouble=trouble))
    told, told_at = kept
    compared = compare(told, days, profile)
    return answer(
        shapes.OutlookAnswer(days=compared, told_by=told.told_by, told_at=told_at, stale=trouble != "", trouble=trouble)
    )


@blueprint.post("/api/tours/<tour_id>/pace")
@operation(gives=learn.LearnedPace, upload=shapes.RideUpload, problems=(404, 413, 422))
def learn_pace(tour_id: str) -> Response:
    """The power and pauses of a recorded ride; nothing is taken."""
    stored = desk().tours.read(tour_id)
    content = uploaded()
    track, seconds = apart(len(content), read_recording, content)
    profile = desk().profile(stored)
    rider_id = form(shapes.RideUpload).rider
    index = next((i for i, rider in enumerate(stored.sheet.riders) if rider.id == rider_id), 0)
    if profile is None:
        raise InputProblem("The tour has no road yet", "", "Bring a track or type days first: the load follows from it.")
    try:
        return answer(learn.learn(track, seconds, play(stored.sheet, profile).riding[index]))
    except ValueError as error:
        raise InputProblem(str(error)[:1].upper() + str(error)[1:], "", "Bring the recording of a longer ride.") from None
