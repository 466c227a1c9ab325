"""The kit of a tour as a sheet."""

from flask import Blueprint, Response

from omnifer.api import shapes
from omnifer.api.desk import answer, body, desk
from omnifer.api.openapi import operation
from omnifer.core.model.tour import TourSheet
from omnifer.formats.kit_csv import KitPreview, read_kit_csv

blueprint = Blueprint("kit", __name__)


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
    seen = desk().tours.read(tour_id, wanted.revision)
    before = () if wanted.replace else seen.sheet.kit
    preview = read_kit_csv(wanted.text, _riders(seen.sheet), {thing.id for thing in before})
    sheet = seen.sheet.model_copy(update={"kit": (*before, *preview.things)})
    return answer(desk().keep(seen, f"Bring {len(preview.things)} things from a sheet", sheet))
