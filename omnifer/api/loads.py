"""The load of a tour: where things could go and why they ride where they do, trials, proposals and repairs."""

import re

from flask import Blueprint, Response, request

from omnifer.api.desk import answer, body, desk
from omnifer.api.openapi import operation
from omnifer.api.streams import errand
from omnifer.core.assess import aims_paid, places, why_here
from omnifer.core.load.aims import AIMS, SCHOOLS
from omnifer.core.load.explain import Why
from omnifer.core.load.proposal import Proposal
from omnifer.core.load.settle import repaired_load
from omnifer.core.model.load import Load
from omnifer.core.model.tour import TourSheet
from omnifer.core.model.variant import Variant
from omnifer.core.rig.schools import rigs_of_schools
from omnifer.core.sensitivity import Effect
from omnifer.core.worth import Price, Tried, with_variant
from omnifer.formats.problem import InputProblem
from omnifer.office import shapes
from omnifer.office.desk import checked
from omnifer.store.database import NotThereError

blueprint = Blueprint("loads", __name__)
MOVES_NAMED = 6
"""Things told by name that a repair moved."""


@blueprint.get("/api/tours/<tour_id>/places")
@operation(gives=shapes.Places, asks=("things",), problems=(404, 422))
def places_in_hand(tour_id: str) -> Response:
    """Where the things in hand (tent:1,mug:2@left-pannier) could go together, best places first."""
    stored = desk().tours.read(tour_id)
    in_hand = _in_hand(request.args.get("things", ""))
    try:
        return answer(shapes.Places(places=places(stored.sheet, desk().profile(stored), in_hand)))
    except KeyError as unknown:
        raise NotThereError(str(unknown), "thing") from None


def _in_hand(asked: str) -> list[tuple[str, int, str | None]]:
    """Things, numbers and the carriers they leave, from their words. Raises InputProblem where they are none."""
    found = [re.fullmatch(r"([\w-]+):([1-9]\d{0,2})(?:@([\w-]+))?", part, re.ASCII) for part in asked.split(",") if part]
    if not all(found):
        raise InputProblem("These are no things and numbers", "address, things", "Write them like tent:1,mug:2@left-pannier.")
    return [(match[1], int(match[2]), match[3]) for match in found if match]


@blueprint.get("/api/tours/<tour_id>/things/<thing_id>/why")
@operation(gives=Why, asks=("carrier",), problems=(404,))
def thing_why(tour_id: str, thing_id: str) -> Response:
    """Why a thing rides in a carrier, or lies on the shelf where none is named: what every other place would cost."""
    stored = desk().tours.read(tour_id)
    try:
        return answer(why_here(stored.sheet, desk().profile(stored), thing_id, request.args.get("carrier") or None))
    except KeyError:
        raise NotThereError(thing_id, "thing") from None


@blueprint.get("/api/tours/<tour_id>/things/<thing_id>/price")
@operation(gives=Price, problems=(404,))
def thing_price(tour_id: str, thing_id: str) -> Response:
    """What a thing costs on this tour, and what leaving it would change."""
    return errand("price", tour_id, shapes.About(key=thing_id))


@blueprint.get("/api/tours/<tour_id>/assumptions/<key>")
@operation(gives=Effect, problems=(404,))
def assumption_effect(tour_id: str, key: str) -> Response:
    """What a default moves on this tour, at both ends of its usual range."""
    return errand("assumption", tour_id, shapes.About(key=key))


@blueprint.get("/api/tours/<tour_id>/rigs")
@operation(gives=shapes.Rigs, problems=(404,))
def compare_rigs(tour_id: str) -> Response:
    """The rig that is ridden beside its variants, on the same tour and kit."""
    return errand("rigs", tour_id, shapes.About())


@blueprint.get("/api/tours/<tour_id>/bikes/<bike_id>/choices")
@operation(gives=shapes.Choices, problems=(404,))
def bike_choices(tour_id: str, bike_id: str) -> Response:
    """What could be otherwise on a bike, and what each costs or saves on this road."""
    return errand("choices", tour_id, shapes.About(key=bike_id))


@blueprint.get("/api/tours/<tour_id>/rigs/schools")
@operation(gives=shapes.SchoolRigs, problems=(404,))
def rig_schools(tour_id: str) -> Response:
    """The bikes of the tour hung as other schools do, to keep as variants and compare."""
    return answer(shapes.SchoolRigs(schools=rigs_of_schools(desk().tours.read(tour_id).sheet.rig)))


@blueprint.get("/api/tours/<tour_id>/loads")
@operation(gives=shapes.Loads, problems=(404,))
def loads(tour_id: str) -> Response:
    """The load that rides beside those kept under a name."""
    return errand("loads", tour_id, shapes.About())


@blueprint.post("/api/tours/<tour_id>/rigs/<variant_id>/ride")
@operation(gives=shapes.TourAnswer, takes=shapes.Seen, problems=(404, 409, 422))
def ride_variant(tour_id: str, variant_id: str) -> Response:
    """Ride a variant; the rig that was ridden takes its place among the variants."""
    wanted = shapes.Seen.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    sheet = seen.sheet
    variant = next((v for v in sheet.variants if v.id == variant_id), None)
    if variant is None:
        raise NotThereError(variant_id, "variant")
    before = Variant(id=variant.id, name="As ridden before", rig=sheet.rig, load=sheet.load)
    changed = with_variant(sheet, desk().profile(seen), variant)
    variants = tuple(before if v.id == variant_id else v for v in sheet.variants)
    return answer(desk().keep(seen, f"Ride {variant.name}", changed.model_copy(update={"variants": variants})))


@blueprint.get("/api/tours/<tour_id>/aims")
@operation(gives=shapes.AimsAnswer, problems=(404,))
def aims(tour_id: str) -> Response:
    """What a load aims at, what this one pays for each aim, and schools to choose from."""
    stored = desk().tours.read(tour_id)
    paid = aims_paid(stored.sheet, desk().profile(stored))
    return answer(shapes.AimsAnswer(aims=list(AIMS), schools=list(SCHOOLS), paid=paid))


@blueprint.post("/api/tours/<tour_id>/trial")
@operation(gives=Tried, takes=shapes.Trial, problems=(404, 422))
def try_change(tour_id: str) -> Response:
    """What another load, kit, road or way of eating, or a mend, would mean; nothing is kept."""
    return errand("trial", tour_id, shapes.Trial.model_validate_json(body()))


@blueprint.get("/api/tours/<tour_id>/mends")
@operation(gives=shapes.Mends, asks=("finding",), problems=(404,))
def mends(tour_id: str) -> Response:
    """All that helps against one finding of a tour, each mend tried before it is told."""
    return errand("mends", tour_id, shapes.About(key=request.args.get("finding", "")))


@blueprint.post("/api/tours/<tour_id>/proposal")
@operation(gives=shapes.ProposalAnswer, takes=shapes.ProposalRequest, tells=(Proposal, shapes.Progress), problems=(404, 409, 422))
def propose(tour_id: str) -> Response:
    """Propose a load and take it on; undo brings the old one back. A stream tells each better load on the way."""
    return errand("proposal", tour_id, shapes.ProposalRequest.model_validate_json(body()))


@blueprint.post("/api/tours/<tour_id>/repair")
@operation(gives=shapes.TourAnswer, takes=shapes.Repair, problems=(404, 409, 422))
def repair(tour_id: str) -> Response:
    """Take on a load changed by hand, with as few other things moved as put it right."""
    wanted = shapes.Repair.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    sheet = _with(seen.sheet, load=wanted.load)
    found = repaired_load(sheet, desk().profile(seen), wanted.held)
    repaired = seen.sheet.model_copy(update={"load": found.load})
    return answer(desk().keep(seen, wanted.what, repaired, remarks=_moves(sheet, found.load)))


def _with(sheet: TourSheet, **parts: object) -> TourSheet:
    return checked(sheet.model_copy(update=parts))


def _moves(before: TourSheet, after: Load) -> list[str]:
    """What a repair moved, in words."""
    names = {thing.id: thing.name for thing in before.kit} | {carrier.id: carrier.name for carrier in before.carriers}
    was = {(p.thing_id, p.carrier_id) for p in before.load.placements}
    new = dict.fromkeys((p.thing_id, p.carrier_id) for p in after.placements if (p.thing_id, p.carrier_id) not in was)
    if not new:
        return []
    told_of = [f"{names[thing]} to {names[carrier]}" for thing, carrier in new]
    more = f" and {len(told_of) - MOVES_NAMED} more" if len(told_of) > MOVES_NAMED else ""
    return [f"To make room moved as well: {', '.join(told_of[:MOVES_NAMED])}{more}."]
