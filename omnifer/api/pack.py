"""The last days at home: checks, travel, the companion's page, and the scale."""

import threading
from collections.abc import Iterator

from flask import Blueprint, Response, current_app, stream_with_context

from omnifer.api.desk import answer, body, desk
from omnifer.api.openapi import EVENT_STREAM, operation
from omnifer.api.streams import hung_up
from omnifer.core.model.pack import PackPage
from omnifer.core.model.weigh import WeighIn
from omnifer.core.pack import first_aid
from omnifer.core.pack.checks import HOW, checks_of
from omnifer.core.pack.companion import rider_pages, straps_of
from omnifer.core.pack.travel import RULES, travel_of
from omnifer.core.pack.weigh import taking_measured, weigh_in
from omnifer.devices.scale import invented
from omnifer.formats.problem import InputProblem
from omnifer.jobs.errands import event_name
from omnifer.office import shapes
from omnifer.office.problems import TooMany
from omnifer.outside.scale import ScaleService, ScaleTrouble
from omnifer.store.database import NotThereError

blueprint = Blueprint("pack", __name__)
MOST_LISTENING = 8
"""Pages that a web process tells what the scale says: each holds a thread."""
_listening = threading.BoundedSemaphore(MOST_LISTENING)


@blueprint.get("/api/tours/<tour_id>/pack")
@operation(gives=PackPage, problems=(404,))
def pack_page(tour_id: str) -> Response:
    """What is checked, tried and taken care of before leaving."""
    stored = desk().tours.read(tour_id)
    found, sheet = desk().assessment(stored), stored.sheet
    page = PackPage(
        checks=checks_of(sheet, found, desk().journal(tour_id)), riders=rider_pages(sheet, found), straps=straps_of(sheet),
        travel=travel_of(sheet, found), caution=RULES, trial=HOW, first_aid=first_aid.CAUTION,
    )  # fmt: skip
    return answer(page)


@blueprint.get("/api/tours/<tour_id>/weigh")
@operation(gives=WeighIn, problems=(404,))
def read_weighings(tour_id: str) -> Response:
    """The sum of parts against the scale, and what may explain the difference."""
    stored = desk().tours.read(tour_id)
    return answer(weigh_in(stored.sheet, desk().assessment(stored), desk().journal(tour_id)))


@blueprint.post("/api/tours/<tour_id>/weigh/take")
@operation(gives=shapes.TourAnswer, takes=shapes.TakeMeasured, problems=(404, 409, 422))
def take_measured(tour_id: str) -> Response:
    """Let what was weighed be the mass of its thing, bag or rider; the older figure stays in the history."""
    wanted = shapes.TakeMeasured.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    found = weigh_in(seen.sheet, desk().assessment(seen), desk().journal(tour_id))
    taken = taking_measured(seen.sheet, found, wanted.key)
    if taken is None:
        raise NotThereError(wanted.key, "weighing")
    what, sheet = taken
    return answer(desk().keep(seen, what, sheet))


@blueprint.get("/api/scale/readings")
@operation(media=EVENT_STREAM)
def scale_readings() -> Response:
    """What the scale says, as server-sent events, for as long as somebody listens."""
    scale: ScaleService = current_app.extensions["scale"]
    if not _listening.acquire(blocking=False):
        raise TooMany(MOST_LISTENING, "pages that listen to the scale")

    def events() -> Iterator[str]:
        for reading in scale.readings():
            if hung_up():
                return
            yield f"event: {event_name(type(reading))}\ndata: {reading.model_dump_json()}\n\n"

    response = current_app.response_class(stream_with_context(events()), mimetype=EVENT_STREAM)
    response.call_on_close(_listening.release)
    response.headers["X-Accel-Buffering"] = "no"
    return response


@blueprint.post("/api/tours/<tour_id>/scale")
@operation(takes=shapes.PutOn, status=204, problems=(404, 422))
def ask_scale(tour_id: str) -> Response:
    """Zero the scale; put something of the tour on the simulated one, let it drift, or lose its link."""
    wanted = shapes.PutOn.model_validate_json(body())
    scale: ScaleService = current_app.extensions["scale"]
    kg = wanted.kg if wanted.key is None else invented(_parts_kg(tour_id, wanted.key), wanted.key)
    lines = [
        line
        for line in (
            "Z" if wanted.zero else "",
            "" if kg is None else f"PUT {kg:.3f}",
            "" if wanted.drift_kg_per_min is None else f"DRIFT {wanted.drift_kg_per_min:.3f}",
            "" if wanted.drop_s is None else f"DROP {wanted.drop_s:.1f}",
        )
        if line
    ]
    try:
        for line in lines:
            scale.ask(line)
    except ScaleTrouble as trouble:
        raise InputProblem(str(trouble), "scale", "Type the weight instead, or start Omnifer with its scale.") from None
    return Response(status=204)


def _parts_kg(tour_id: str, key: str) -> float:
    """What the parts of something come to that is put on the scale [kg]. Raises NotThereError."""
    stored = desk().tours.read(tour_id)
    weighed, _, about = key.partition("/")
    thing = next((t for t in stored.sheet.kit if weighed == "thing" and t.id == about), None)
    if thing is not None:
        return thing.mass_kg
    found = weigh_in(stored.sheet, desk().assessment(stored), desk().journal(tour_id))
    line = next((line for line in found.lines if line.key == key), None)
    if line is None:
        raise NotThereError(key, "weighing")
    return line.parts_kg
