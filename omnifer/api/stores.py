"""The stores of a tour: the best schedule of them, and the shopping list as a sheet."""

from flask import Blueprint, Response

from omnifer.api.desk import answer, desk
from omnifer.api.exports import attachment, file_name
from omnifer.api.openapi import operation
from omnifer.core.best_plan import best_plan
from omnifer.core.model.lanes import StoresTold
from omnifer.core.stores.schedule import Schedule
from omnifer.formats.problem import InputProblem
from omnifer.formats.shopping_csv import write_shopping_csv

blueprint = Blueprint("stores", __name__)


@blueprint.get("/api/tours/<tour_id>/stores/schedule")
@operation(gives=Schedule, problems=(404, 422))
def best_schedule(tour_id: str) -> Response:
    """Where to take on how much, so that the least is carried; nothing is kept."""
    stored = desk().tours.read(tour_id)
    profile = desk().profile(stored)
    if profile is None or not stored.sheet.riders:
        raise InputProblem("Without a road and riders there is nothing to plan", "", "Bring a track or type the days first.")
    return answer(best_plan(stored.sheet, profile))


@blueprint.get("/api/tours/<tour_id>/shopping.csv")
@operation(media="text/csv", problems=(404, 422))
def export_shopping(tour_id: str) -> Response:
    """What to fill, buy, refuel and charge at each stop, a row each."""
    stored = desk().tours.read(tour_id)
    told: StoresTold | None = desk().assessment(stored).stores
    if told is None:
        raise InputProblem("Without a road and riders there is nothing to buy", "", "Bring a track or type the days first.")
    return attachment(write_shopping_csv(told.stops), "text/csv", file_name(stored.sheet.name, "-shopping.csv"))
