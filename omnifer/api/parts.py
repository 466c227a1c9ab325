"""The larger parts of a tour: track, kit sheet, proposal."""

import re

from flask import Blueprint, Response

from omnifer.api import shapes
from omnifer.api.desk import answer, body, desk, uploaded, uploaded_revision
from omnifer.api.openapi import operation
from omnifer.core.assess import assess, places, propose_load
from omnifer.core.load.keep import still_standing
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.road import Stop, TypedDay
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile, from_track
from omnifer.formats.gpx import Waypoint, read_gpx
from omnifer.formats.kit_csv import KitPreview, read_kit_csv
from omnifer.formats.problem import InputProblem
from omnifer.store.tours import NotThereError

blueprint = Blueprint("parts", __name__)
FARTHEST_WAYPOINT_KM = 20.0
"""Waypoints farther from the track are no stops of this road [km]."""


@blueprint.post("/api/tours/<tour_id>/track")
@operation(gives=shapes.TourAnswer, upload=True, problems=(404, 409, 413, 422))
def bring_track(tour_id: str) -> Response:
    """Bring a track; its waypoints become stops."""
    revision = uploaded_revision()
    road = read_gpx(uploaded())
    try:
        profile = from_track(road.track)
    except ValueError as error:
        raise InputProblem(str(error)[:1].upper() + str(error)[1:], "", "Choose another file.") from None
    stored = desk().tours.read(tour_id)
    kept = tuple(stop for stop in stored.sheet.road.stops if stop.at_km <= profile.length_km)
    new, far = _stops(road.waypoints, profile, kept)
    changed = stored.sheet.road.model_copy(update={"stops": (*kept, *new), "typed_days": tuple[TypedDay, ...]()})
    sheet = TourSheet.model_validate(dict(stored.sheet.model_copy(update={"road": changed})))
    desk().tours.change(tour_id, revision, f"Bring the track {road.track.name or 'from a file'}"[:200], sheet, road.track)
    remarks = [f"{len(road.track.lat_deg)} points, {profile.length_km:.0f} km, {len(new)} places became stops.", *road.remarks]
    if far:
        remarks.append(f"{far} places lie more than {FARTHEST_WAYPOINT_KM:.0f} km from the track and were left out.")
    return answer(desk().answer(tour_id, remarks))


def _stops(waypoints: list[Waypoint], profile: Profile, kept: tuple[Stop, ...]) -> tuple[list[Stop], int]:
    """Waypoints near the track as stops, those already there left out; and how many lie too far away."""
    known = {(stop.name, round(stop.at_km)) for stop in kept}
    used = {stop.id for stop in kept}
    stops, far = [], 0
    for number, waypoint in enumerate(waypoints, 1):
        nearest = profile.nearest(waypoint.lat_deg, waypoint.lon_deg)
        if nearest is None or nearest[1] > FARTHEST_WAYPOINT_KM:
            far += 1
            continue
        if (waypoint.name, round(nearest[0])) in known:
            continue
        identifier = f"wpt-{number}"
        while identifier in used:
            identifier += "-"
        used.add(identifier)
        stops.append(Stop(id=identifier, name=waypoint.name, at_km=round(nearest[0], 3), note=waypoint.note))
    return stops, far


def _riders(sheet: TourSheet) -> dict[str, str]:
    return {rider.name.lower(): rider.id for rider in sheet.riders}


@blueprint.post("/api/tours/<tour_id>/kit/preview")
@operation(gives=KitPreview, takes=shapes.KitText, problems=(404, 422))
def preview_kit(tour_id: str) -> Response:
    """How a kit sheet is understood; nothing is taken."""
    wanted = shapes.KitText.model_validate_json(body())
    return answer(read_kit_csv(wanted.text, _riders(desk().tours.read(tour_id).sheet)))


@blueprint.post("/api/tours/<tour_id>/kit/import")
@operation(gives=shapes.TourAnswer, takes=shapes.KitImport, problems=(404, 409, 422))
def import_kit(tour_id: str) -> Response:
    """Take the readable rows of a kit sheet."""
    wanted = shapes.KitImport.model_validate_json(body())
    stored = desk().tours.read(tour_id)
    before = () if wanted.replace else stored.sheet.kit
    preview = read_kit_csv(wanted.text, _riders(stored.sheet), {thing.id for thing in before})
    kit = (*before, *preview.things)
    load = still_standing(stored.sheet.load, kit, stored.sheet.rig)
    sheet = TourSheet.model_validate(dict(stored.sheet.model_copy(update={"kit": kit, "load": load})))
    desk().tours.change(tour_id, wanted.revision, f"Bring {len(preview.things)} things from a sheet", sheet)
    return answer(desk().answer(tour_id))


@blueprint.get("/api/tours/<tour_id>/things/<thing_id>/places")
@operation(gives=shapes.Places, problems=(404,))
def thing_places(tour_id: str, thing_id: str) -> Response:
    """Where a thing could go, best places first."""
    stored = desk().tours.read(tour_id)
    try:
        return answer(shapes.Places(places=places(stored.sheet, desk().profile(stored), thing_id)))
    except KeyError:
        raise NotThereError(thing_id) from None


@blueprint.post("/api/tours/<tour_id>/trial")
@operation(gives=Assessment, takes=shapes.Trial, problems=(404, 422))
def try_load(tour_id: str) -> Response:
    """What another load would mean; nothing is kept."""
    wanted = shapes.Trial.model_validate_json(body())
    stored = desk().tours.read(tour_id)
    sheet = TourSheet.model_validate(dict(stored.sheet.model_copy(update={"load": wanted.load})))
    return answer(assess(sheet, desk().profile(stored)))


@blueprint.post("/api/tours/<tour_id>/proposal")
@operation(gives=shapes.ProposalAnswer, takes=shapes.ProposalRequest, problems=(404, 409, 422))
def propose(tour_id: str) -> Response:
    """Propose a load and take it on; undo brings the old one back."""
    wanted = shapes.ProposalRequest.model_validate_json(body())
    stored = desk().tours.read(tour_id)
    proposal = propose_load(stored.sheet, desk().profile(stored), effort=wanted.effort)
    sheet = TourSheet.model_validate(dict(stored.sheet.model_copy(update={"load": proposal.load})))
    desk().tours.change(tour_id, wanted.revision, "Propose a load", sheet)
    return answer(shapes.ProposalAnswer(answer=desk().answer(tour_id), proposal=proposal))


def file_name(name: str, ending: str) -> str:
    """A tour's name as a file name."""
    return (re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "tour") + ending
