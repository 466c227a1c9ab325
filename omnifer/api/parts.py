"""The larger parts of a tour: kit sheet, places for a thing, proposal."""

import re

from flask import Blueprint, Response

from omnifer.api import shapes
from omnifer.api.desk import answer, body, desk
from omnifer.api.openapi import operation
from omnifer.core.assess import assess, places, propose_load
from omnifer.core.load.keep import still_standing
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.tour import TourSheet
from omnifer.formats.kit_csv import KitPreview, read_kit_csv
from omnifer.store.tours import NotThereError

blueprint = Blueprint("parts", __name__)


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
