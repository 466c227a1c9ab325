"""The rehearsal of a tour: playing it many times, one of the plays, and plans at a chosen risk or on the same fate."""

from flask import Blueprint, Response

from omnifer.api.desk import answer, body, desk
from omnifer.api.openapi import operation
from omnifer.api.streams import errand
from omnifer.core.model.rehearsal import MORE_PLAYS, USUAL_PLAYS, PlayTold, Rehearsal, RiskPlan, SparesAtRisk, TwoPlans
from omnifer.office import shapes

blueprint = Blueprint("rehearsal", __name__)


@blueprint.get("/api/tours/<tour_id>/rehearsal")
@operation(gives=shapes.KeptRehearsal, problems=(404,))
def kept_rehearsal(tour_id: str) -> Response:
    """What was rehearsed of the tour as it stands."""
    stored = desk().tours.read(tour_id)
    rides = desk().profile(stored) is not None and bool(stored.sheet.riders)
    found = (desk().kept_rehearsal(stored, MORE_PLAYS) or desk().kept_rehearsal(stored, USUAL_PLAYS)) if rides else None
    return answer(shapes.KeptRehearsal(rehearsal=found))


@blueprint.post("/api/tours/<tour_id>/rehearsal")
@operation(gives=Rehearsal, takes=shapes.RehearsalAsked, tells=(Rehearsal,), problems=(404, 422))
def rehearse(tour_id: str) -> Response:
    """Play the tour many times."""
    return errand("rehearsal", tour_id, shapes.RehearsalAsked.model_validate_json(body()))


@blueprint.post("/api/tours/<tour_id>/rehearsal/play")
@operation(gives=PlayTold, takes=shapes.PlayAsked, problems=(404, 422))
def one_play(tour_id: str) -> Response:
    """One of the plays, along the road."""
    return errand("play", tour_id, shapes.PlayAsked.model_validate_json(body()))


@blueprint.post("/api/tours/<tour_id>/rehearsal/risk")
@operation(gives=RiskPlan, takes=shapes.RiskAsked, tells=(shapes.Progress,), problems=(404, 422))
def plan_at_risk(tour_id: str) -> Response:
    """The least of a supply to carry at a chosen risk; nothing is kept."""
    return errand("risk", tour_id, shapes.RiskAsked.model_validate_json(body()))


@blueprint.post("/api/tours/<tour_id>/rehearsal/spares")
@operation(gives=SparesAtRisk, takes=shapes.SparesAsked, problems=(404, 422))
def spares_at_risk(tour_id: str) -> Response:
    """Parts to carry at a chosen risk for the whole tour."""
    return errand("spares", tour_id, shapes.SparesAsked.model_validate_json(body()))


@blueprint.post("/api/tours/<tour_id>/rehearsal/compare")
@operation(gives=TwoPlans, takes=shapes.TwoPlansAsked, problems=(404, 422))
def two_plans(tour_id: str) -> Response:
    """Another plan on the same fate; nothing is kept."""
    return errand("two_plans", tour_id, shapes.TwoPlansAsked.model_validate_json(body()))
