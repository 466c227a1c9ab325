"""The kit of a tour as a sheet."""

from flask import Blueprint, Response

from omnifer.api.desk import answer, body, desk, uploaded
from omnifer.api.openapi import operation
from omnifer.core.model.tour import TourSheet
from omnifer.formats.kit_csv import KitPreview, read_kit_csv
from omnifer.formats.sheet import decoded
from omnifer.jobs.apart import apart
from omnifer.office import shapes

blueprint = Blueprint("kit", __name__)


def _riders(sheet: TourSheet) -> dict[str, str]:
    return {rider.name.lower(): rider.id for rider in sheet.riders}


@blueprint.post("/api/tours/<tour_id>/kit/preview")
@operation(gives=KitPreview, takes=shapes.KitText, problems=(404, 422))
def preview_kit(tour_id: str) -> Response:
    """How a kit sheet is understood; nothing is taken."""
    wanted = shapes.KitText.model_validate_json(body())
    sheet = desk().tours.read(tour_id).sheet
    return answer(apart(len(wanted.text), read_kit_csv, wanted.text, _riders(sheet), sheet.kit, wanted.columns))


@blueprint.post("/api/tours/<tour_id>/kit/import")
@operation(gives=shapes.TourAnswer, takes=shapes.KitImport, problems=(404, 409, 422))
def import_kit(tour_id: str) -> Response:
    """Take the readable rows of a kit sheet; what the kit has already only where that is wanted."""
    wanted = shapes.KitImport.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    before = () if wanted.replace else seen.sheet.kit
    preview = apart(len(wanted.text), read_kit_csv, wanted.text, _riders(seen.sheet), before, wanted.columns)
    new = [thing for thing in preview.things if wanted.again or thing.id not in preview.here]
    sheet = seen.sheet.model_copy(update={"kit": (*before, *new)})
    return answer(desk().keep(seen, f"Bring {len(new)} things from a sheet", sheet))


@blueprint.post("/api/sheets/text")
@operation(gives=shapes.SheetText, upload=shapes.PlainUpload, problems=(413, 422))
def sheet_text() -> Response:
    """The text of a sheet's file, whatever it is encoded in."""
    return answer(shapes.SheetText(text=decoded(uploaded())))
