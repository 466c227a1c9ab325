"""The kit of a tour as a sheet."""

import logging

from flask import Blueprint, Response

from omnifer.api.desk import answer, body, desk, uploaded
from omnifer.api.openapi import operation
from omnifer.core.kit.kinds import kinds, names_of_kinds, usual_roles
from omnifer.core.kit.told import KitAnswer, questions_of, unknown_in
from omnifer.core.kit.understand import understood
from omnifer.core.kit.whatis import as_told, kind_of_thing
from omnifer.core.model.kit import Thing
from omnifer.core.model.library import as_owned, corrected_by
from omnifer.core.model.tour import TourSheet
from omnifer.formats.kit_csv import KitPreview, as_owned_before, known_kit, read_kit_csv
from omnifer.formats.problem import InputProblem
from omnifer.formats.workbook import ZIP, sheets_of
from omnifer.jobs.apart import BOOK, apart
from omnifer.office import shapes

blueprint = Blueprint("kit", __name__)
log = logging.getLogger(__name__)


def _riders(sheet: TourSheet) -> dict[str, str]:
    return {rider.name.lower(): rider.id for rider in sheet.riders}


@blueprint.post("/api/tours/<tour_id>/kit/preview")
@operation(gives=KitPreview, takes=shapes.KitText, problems=(404, 422))
def preview_kit(tour_id: str) -> Response:
    """How a kit sheet is understood; nothing is taken."""
    wanted = shapes.KitText.model_validate_json(body())
    sheet = desk().tours.read(tour_id).sheet
    return answer(_read(wanted, sheet, sheet.kit))


def _read(wanted: shapes.KitText, sheet: TourSheet, kit: tuple[Thing, ...]) -> KitPreview:
    """A list as it is understood, what the rider's own library knows as it is there."""
    found = apart(len(wanted.text), read_kit_csv, wanted.text, _riders(sheet), kit, wanted.columns, wanted.answers)
    owned = desk().library.named([thing.name for thing in found.things])
    return as_owned_before(found, {name: row.thing for name, row in owned.items()}, wanted.answers)


def _remember(things: list[Thing], answers: tuple[KitAnswer, ...]) -> None:
    """What was answered of things themselves is kept in the rider's own library, and known in the next list.

    The list is taken by then: trouble here is told to nobody but the log.
    """
    said = {answer.thing_id for answer in answers if answer.asks != "rider"}
    kinds = {answer.thing_id for answer in answers if answer.asks == "kind"}
    corrected = {thing.name.lower(): thing for thing in things if thing.id in said}
    try:
        there = desk().library.named(list(corrected))
        for name, row in there.items():
            thing = corrected[name]
            desk().library.change(row.id, corrected_by(row.thing, thing, thing.id in kinds))
        desk().library.add([as_owned(thing) for name, thing in corrected.items() if name not in there])
    except Exception:
        log.exception("what was answered of a list could not be kept in the library")


@blueprint.post("/api/tours/<tour_id>/kit/import")
@operation(gives=shapes.TourAnswer, takes=shapes.KitImport, problems=(404, 409, 422))
def import_kit(tour_id: str) -> Response:
    """Take the readable rows of a kit sheet; what the kit has already only where that is wanted."""
    wanted = shapes.KitImport.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    before = () if wanted.replace else seen.sheet.kit
    preview = _read(wanted, seen.sheet, before)
    new = [thing for thing in preview.things if wanted.again or thing.id not in preview.here]
    sheet = seen.sheet.model_copy(update={"kit": (*before, *new)})
    kept = desk().keep(seen, f"Bring {len(new)} things from a sheet", sheet)
    _remember(new, wanted.answers)
    return answer(kept)


@blueprint.get("/api/tours/<tour_id>/kit/unknown")
@operation(gives=shapes.KitUnknown, problems=(404,))
def unknown_things(tour_id: str) -> Response:
    """Things that say nothing of what they are though their names do."""
    sheet = desk().tours.read(tour_id).sheet
    found = unknown_in(sheet.kit)
    return answer(shapes.KitUnknown(things=[thing.id for thing, _ in found], questions=questions_of(found, _riders(sheet))))


@blueprint.post("/api/tours/<tour_id>/kit/known")
@operation(gives=shapes.TourAnswer, takes=shapes.KitKnown, problems=(404, 409, 422))
def make_known(tour_id: str) -> Response:
    """Take what the names of such things tell, and what is answered."""
    wanted = shapes.KitKnown.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    kit = known_kit(seen.sheet.kit, tuple(_riders(seen.sheet).values()), wanted.answers)
    many = len(unknown_in(seen.sheet.kit))
    what = "Say what 1 thing is" if many == 1 else f"Say what {many} things are"
    kept = desk().keep(seen, what, seen.sheet.model_copy(update={"kit": kit}))
    _remember(list(kit), wanted.answers)
    return answer(kept)


@blueprint.get("/api/kinds")
@operation(gives=shapes.KindList)
def list_kinds() -> Response:
    """All kinds of things that are known by name."""
    called = {kind.kind: ", ".join(kind.all_phrases) for kind in names_of_kinds()}
    found = [
        shapes.KindEntry(id=k.id, name=k.name, domain=k.domain, reach=k.reach, called=called[k.id]) for k in kinds().values()
    ]
    return answer(shapes.KindList(kinds=found, roles=usual_roles()))


@blueprint.post("/api/things/told")
@operation(gives=shapes.ThingTold, takes=shapes.ThingAsked, problems=(422,))
def thing_told() -> Response:
    """What a thing is, and what its name or that tells of what nobody said; nothing is kept."""
    asked = shapes.ThingAsked.model_validate_json(body())
    if asked.kind is not None and asked.kind not in kinds():
        raise InputProblem("There is no such kind of thing.", "kind", "Choose one of the list.")
    thing = as_told(asked.thing, asked.kind, asked.about, asked.riders)
    likeliest = understood(thing.name, thing.mass_kg or None, thing.group).likeliest
    return answer(shapes.ThingTold(thing=thing, kind=asked.kind or kind_of_thing(thing), likeliest=list(likeliest)))


@blueprint.post("/api/sheets/text")
@operation(gives=shapes.SheetText, upload=shapes.PlainUpload, problems=(413, 422))
def sheet_text() -> Response:
    """The text of a sheet's file, whatever it is encoded in, or the sheets of a workbook."""
    content = uploaded()
    packed = content.startswith(ZIP)
    sheets = apart(BOOK if packed else len(content), sheets_of, content)
    return answer(shapes.SheetText(text=sheets[0].text, sheets=sheets if len(sheets) > 1 else []))
