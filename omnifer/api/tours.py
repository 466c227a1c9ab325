"""Tours: list, start, copy, read, change, undo, remove and fetch back."""

import contextlib

from flask import Blueprint, Response, current_app, request

from omnifer.api.desk import answer, body, desk, uploaded
from omnifer.api.openapi import operation
from omnifer.api.packing import json_of, packing_for
from omnifer.core.load.keep import ridden_by
from omnifer.core.mends import mended
from omnifer.core.model.glance import Glance
from omnifer.core.model.kit import Thing
from omnifer.core.model.library import same_thing, told_by
from omnifer.core.model.quantities import LONGEST_NAME
from omnifer.core.model.rig import Rig
from omnifer.core.model.road import Road
from omnifer.core.model.serves import SERVICES
from omnifer.core.model.tour import Tour
from omnifer.core.rig.catalogue import BIKES, CARRIERS, SIZES, SUPPORTS, sized
from omnifer.core.supplies.foods import FOODS
from omnifer.demo.sample import demo_tour
from omnifer.formats.bundle import read_bundle
from omnifer.formats.templates import SCHOOLS, kit_of_school
from omnifer.jobs.apart import apart
from omnifer.office import shapes
from omnifer.store.database import NotThereError
from omnifer.store.members import Members

blueprint = Blueprint("tours", __name__)
COPY = ", a copy"


@blueprint.get("/api/catalogue")
@operation(gives=shapes.Catalogue)
def catalogue() -> Response:
    """Generic bikes, supports and carriers."""
    bikes = [shapes.SizedBike(size=words, bike=sized(kind, size)) for kind in BIKES for size, (words, *_) in SIZES.items()]
    found = shapes.Catalogue(
        bikes=bikes,
        supports=list(SUPPORTS.values()),
        carriers=list(CARRIERS.values()),
        foods=list(FOODS.values()),
        services=list(SERVICES.values()),
        kit_schools=list(SCHOOLS),
    )
    return answer(found)


@blueprint.get("/api/tours")
@operation(gives=shapes.TourList)
def list_tours() -> Response:
    """All tours, the last changed first, and those that were removed lately."""
    tours, removed = ([shapes.TourEntry.model_validate(vars(line)) for line in desk().tours.list(gone)] for gone in (False, True))
    if current_app.extensions["hosting"] is not None:
        shared = Members(desk().tours.pool, desk().rider_id).tours()
        tours += [shapes.TourEntry.model_validate(vars(line)) for line in shared]
        tours.sort(key=lambda entry: entry.changed_at, reverse=True)
    return answer(shapes.TourList(tours=tours, removed=removed))


@blueprint.get("/api/tours/<tour_id>/glance")
@operation(gives=Glance, problems=(404,))
def glance_at(tour_id: str) -> Response:
    """One tour as a page of tours draws it."""
    return answer(desk().glance(tour_id))


@blueprint.post("/api/tours")
@operation(gives=shapes.TourAnswer, takes=shapes.NewTour, status=201, problems=(404, 422))
def start_tour() -> Response:
    """Start a tour."""
    wanted = shapes.NewTour.model_validate_json(body())
    if wanted.from_tour is not None:
        return answer(_from_earlier(wanted, wanted.from_tour), 201)
    tour = Tour(
        name=wanted.name,
        start_date=wanted.start_date,
        riders=wanted.riders,
        rig=Rig(bikes=wanted.bikes),
        kit=kit_of_school(wanted.kit_of, wanted.riders) if wanted.kit_of else (),
        road=Road(typed_days=wanted.typed_days),
    )
    return answer(desk().start(tour, "Start the tour"), 201)


def _from_earlier(wanted: shapes.NewTour, earlier_id: str) -> shapes.TourAnswer:
    """A tour that begins with the riders, rig, kit and load of an earlier one, the things as the library has them now."""
    earlier = desk().tours.read(earlier_id).sheet
    kit, changed = [], []
    for thing in earlier.kit:
        now = thing
        if thing.library_id is not None:
            with contextlib.suppress(NotThereError):
                now = told_by(thing, desk().library.read(thing.library_id).thing)
        if not same_thing(now, thing):
            changed.append(now.name)
        kit.append(Thing.model_validate(now.model_dump() | {"where": (), "closed": False} if now.comes_and_goes else now))
    road = Road(typed_days=wanted.typed_days)
    kept = {f: getattr(earlier, f) for f in ("riders", "rig", "load", "aims", "stores", "money", "own_values", "variants")}
    kept["stores"] = earlier.stores.model_copy(update={"steps": ()})
    tour = Tour(name=wanted.name, start_date=wanted.start_date, road=road, kit=tuple(kit), **kept)
    found = desk().start(tour, f"Start like {earlier.name}"[:200])
    unused = [thing.name for thing in kit if thing.unused_tours]
    remarks = [f"Since then: {', '.join(changed)}, as the library has them now."] if changed else []
    remarks += [f"Not used last time: {', '.join(unused)}."] if unused else []
    return found.model_copy(update={"remarks": remarks})


@blueprint.post("/api/tours/bundle")
@operation(gives=shapes.TourAnswer, upload=shapes.PlainUpload, status=201, problems=(413, 422))
def bring_bundle() -> Response:
    """Bring a whole tour as a bundle."""
    content = uploaded()
    return answer(desk().start(apart(len(content), read_bundle, content), "Bring the tour from a bundle"), 201)


@blueprint.post("/api/tours/sample")
@operation(gives=shapes.TourAnswer, status=201)
def start_sample() -> Response:
    """Start with the sample tour, once more if it is there."""
    return answer(desk().start(demo_tour(), "Open the sample"), 201)


@blueprint.post("/api/tours/<tour_id>/copy")
@operation(gives=shapes.TourAnswer, status=201, problems=(404,))
def copy_tour(tour_id: str) -> Response:
    """Another tour that begins as this one stands."""
    seen = desk().whole(desk().tours.read(tour_id))
    name = f"{seen.name[: LONGEST_NAME - len(COPY)]}{COPY}"
    return answer(desk().start(seen.model_copy(update={"name": name}), f"Copy {seen.name}"[:200]), 201)


@blueprint.post("/api/tours/<tour_id>/restore")
@operation(status=204, problems=(404,))
def restore_tour(tour_id: str) -> Response:
    """Fetch back a tour that was removed lately."""
    desk().tours.restore(tour_id)
    return Response(status=204)


@blueprint.get("/api/tours/<tour_id>")
@operation(gives=shapes.TourAnswer, problems=(404,))
def read_tour(tour_id: str) -> Response:
    """One tour and what it means; to whom has this state of it already, no more than that (304)."""
    tag, packing = desk().mark(tour_id), packing_for(request)
    same = request.if_none_match.contains_weak(tag)
    response = Response(status=304) if same else json_of(desk().answer_json(tour_id, packing), packing)
    response.set_etag(tag, weak=True)
    response.headers["Cache-Control"] = "private, no-cache"
    return response


@blueprint.patch("/api/tours/<tour_id>")
@operation(gives=shapes.TourAnswer, takes=shapes.Change, problems=(404, 409, 422))
def change_tour(tour_id: str) -> Response:
    """Change parts of a tour; placements whose thing or carrier is gone go back to the shelf."""
    change = shapes.Change.model_validate_json(body())
    seen = desk().tours.read(tour_id, change.revision)
    parts = {
        name: value for name, value in dict(change).items() if value is not None and name not in ("revision", "what", "mend")
    }
    sheet = seen.sheet.model_copy(update=parts)
    if change.riders is not None:
        sheet = ridden_by(sheet, change.riders)
    if change.mend is not None:
        sheet = mended(sheet, change.mend)
    return answer(desk().keep(seen, change.what, sheet))


@blueprint.post("/api/tours/<tour_id>/step")
@operation(gives=shapes.TourAnswer, takes=shapes.Step, problems=(404, 409, 422))
def step_tour(tour_id: str) -> Response:
    """Undo or redo one change."""
    step = shapes.Step.model_validate_json(body())
    return answer(desk().step(tour_id, step.revision, step.step))


@blueprint.get("/api/tours/<tour_id>/packed")
@operation(gives=shapes.Packed, problems=(404,))
def packed(tour_id: str) -> Response:
    """What is packed already."""
    return answer(_packed(tour_id))


@blueprint.put("/api/tours/<tour_id>/packed")
@operation(gives=shapes.Packed, takes=shapes.Tick, problems=(404, 422))
def tick(tour_id: str) -> Response:
    """Tick one thing, or take its tick away; whoever packs at the same time ticks besides."""
    told = shapes.Tick.model_validate_json(body())
    desk().tours.tick(tour_id, told.carrier_id, told.thing_id, told.packed)
    return answer(_packed(tour_id))


@blueprint.delete("/api/tours/<tour_id>/packed")
@operation(gives=shapes.Packed, problems=(404,))
def pack_anew(tour_id: str) -> Response:
    """Take all ticks away."""
    desk().tours.pack_anew(tour_id)
    return answer(_packed(tour_id))


def _packed(tour_id: str) -> shapes.Packed:
    ticked = [shapes.Ticked(carrier_id=carrier, thing_id=thing) for carrier, thing in desk().tours.packed(tour_id)]
    return shapes.Packed(ticked=ticked)


@blueprint.delete("/api/tours/<tour_id>/<int:revision>")
@operation(status=204, problems=(404, 409))
def delete_tour(tour_id: str, revision: int) -> Response:
    """Remove a tour as this revision showed it; for some weeks it can be fetched back."""
    desk().tours.remove(tour_id, revision)
    return Response(status=204)
