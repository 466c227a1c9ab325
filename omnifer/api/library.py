"""A rider's own things, kept once across tours: found, changed, chosen for a tour; and the whole kit by its price."""

import uuid

from flask import Blueprint, Response, request

from omnifer.api.desk import answer, body, desk, uploaded
from omnifer.api.openapi import operation
from omnifer.api.streams import errand
from omnifer.core.model.kit import Thing
from omnifer.core.model.library import Owned, as_owned, bag_owned, chosen
from omnifer.core.model.rig import Bike, Carrier, Rig
from omnifer.core.ranking import Ranking, ladder, minutes_of
from omnifer.formats.picture import small_picture
from omnifer.formats.problem import InputProblem
from omnifer.jobs.apart import PICTURE, apart
from omnifer.office import shapes
from omnifer.store.library import OwnedRow

blueprint = Blueprint("library", __name__)
PAGE, LONGEST_FIND = 40, 100


@blueprint.get("/api/library")
@operation(gives=shapes.LibraryPage, asks=("find", "kit", "first", "tour"), problems=(404, 422))
def library() -> Response:
    """Things by name, by words of it, of their kit and of what they serve, so many at a time; those of a tour come last."""
    first = request.args.get("first", "0")
    if not (first.isascii() and first.isdigit() and len(first) < 7):
        raise InputProblem("A page begins at a number", "address, first", "Leave it out to begin with the first thing.")
    find, kit = request.args.get("find", "")[:LONGEST_FIND], request.args.get("kit", "")[:LONGEST_FIND]
    if "\0" in find + kit:
        raise InputProblem("Nothing is called so", "address, find", "Leave the control character out.")
    tour_id = request.args.get("tour")
    here = [t.library_id for t in desk().tours.read(tour_id).sheet.kit if t.library_id] if tour_id else []
    ready = desk().library.page_json(find, kit, int(first), PAGE, here)
    if ready is not None:
        return Response(f'{{"things":{ready[0]},"total":{ready[1]},"most":{PAGE}}}', mimetype="application/json")
    rows, total = desk().library.page(find, kit, int(first), PAGE, here)
    return answer(shapes.LibraryPage(things=_told(rows), total=total, most=PAGE))


@blueprint.get("/api/library/kits")
@operation(gives=shapes.LibraryKits)
def library_kits() -> Response:
    """What the things of the library are packed with."""
    return answer(shapes.LibraryKits(kits=desk().library.kits()))


def _told(rows: list[OwnedRow]) -> list[Owned]:
    by_thing: dict[str, list[str]] = {}
    for choice in desk().library.chosen_by([row.id for row in rows]) if rows else ():
        if not choice.over:
            by_thing.setdefault(choice.owned_id, []).append(choice.name)
    return [
        Owned(id=r.id, version=r.version, thing=r.thing, has_picture=r.has_picture, tours=sorted(by_thing.get(r.id, [])))
        for r in rows
    ]


@blueprint.post("/api/library")
@operation(gives=shapes.LibraryPage, takes=shapes.NewOwned, status=201, problems=(422,))
def add_owned() -> Response:
    """Keep things; those whose name is there already are not doubled."""
    wanted = shapes.NewOwned.model_validate_json(body())
    there = desk().library.named([thing.name for thing in wanted.things])
    new = [as_owned(thing) for thing in wanted.things if thing.name.lower() not in there]
    ids = desk().library.add(new)
    rows = [*(desk().library.read(owned_id) for owned_id in ids), *there.values()]
    return answer(shapes.LibraryPage(things=_told(rows), total=len(rows), most=PAGE), 201)


@blueprint.put("/api/library/<owned_id>")
@operation(gives=shapes.OwnedAnswer, takes=shapes.OwnThing, problems=(404, 409, 422))
def change_owned(owned_id: str) -> Response:
    """Change a thing; open tours that chose it say the same from then on, those that are over keep what they had."""
    wanted = shapes.OwnThing.model_validate_json(body())
    thing = as_owned(wanted.thing)
    desk().library.change(owned_id, thing, wanted.version)
    remarks = desk().spread({owned_id: thing})
    return answer(shapes.OwnedAnswer(owned=_told([desk().library.read(owned_id)])[0], remarks=remarks))


@blueprint.delete("/api/library/<owned_id>/<int:version>")
@operation(status=204, problems=(404, 409))
def remove_owned(owned_id: str, version: int) -> Response:
    """Put a thing away as this version showed it; tours keep their copies."""
    desk().library.remove(owned_id, version)
    return Response(status=204)


@blueprint.post("/api/library/<owned_id>/restore")
@operation(status=204, problems=(404,))
def restore_owned(owned_id: str) -> Response:
    """Fetch back a thing that was put away."""
    desk().library.restore(owned_id)
    return Response(status=204)


@blueprint.get("/api/library/<owned_id>/picture")
@operation(media="image/jpeg", problems=(404,))
def picture(owned_id: str) -> Response:
    """A thing's picture."""
    return Response(desk().library.picture(owned_id), mimetype="image/jpeg")


@blueprint.post("/api/library/<owned_id>/picture")
@operation(upload=shapes.PlainUpload, status=204, problems=(404, 413, 422))
def keep_picture(owned_id: str) -> Response:
    """Keep a picture of a thing, made small and stripped of where it was taken."""
    desk().library.keep_picture(owned_id, apart(PICTURE, small_picture, uploaded()))
    return Response(status=204)


@blueprint.delete("/api/library/<owned_id>/picture/<int:version>")
@operation(status=204, problems=(404, 409))
def remove_picture(owned_id: str, version: int) -> Response:
    """Take the picture of a thing away, as this version showed it."""
    desk().library.remove_picture(owned_id, version)
    return Response(status=204)


@blueprint.post("/api/tours/<tour_id>/library")
@operation(gives=shapes.TourAnswer, takes=shapes.KeptInLibrary, problems=(404, 409, 422))
def put_in_library(tour_id: str) -> Response:
    """Keep things and bags of a tour in the library; one of the same name that is there already is taken for the same thing."""
    wanted = shapes.KeptInLibrary.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    things = [thing for thing in seen.sheet.kit if thing.id in wanted.ids and thing.library_id is None]
    there = desk().library.named([thing.name for thing in things])
    new = [thing for thing in things if thing.name.lower() not in there]
    ids = dict(zip((t.id for t in new), desk().library.add([as_owned(t) for t in new]), strict=True))
    ids |= {t.id: there[t.name.lower()].id for t in things if t.name.lower() in there}
    kit = tuple(_linked(t, ids[t.id]) if t.id in ids else t for t in seen.sheet.kit)
    doubled = [t.name for t in things if t.name.lower() in there]
    remarks = [f"Taken for what the library has: {', '.join(doubled)}."] if doubled else []
    own = desk().tours.owner_id == desk().rider_id
    bags = [c for c in seen.sheet.carriers if c.id in wanted.carriers and (own or c.library_id is None)]
    rig = _rig_with(seen.sheet.rig, {bag.id: _keep_bag(bag) for bag in bags})
    what = f"Keep {len(things) + len(bags)} things in the library"
    return answer(desk().keep(seen, what, seen.sheet.model_copy(update={"kit": kit, "rig": rig}), remarks=remarks, tell=False))


def _keep_bag(bag: Carrier) -> str:
    """Keep a bag of the rig as it is now, under its identifier or a new one."""
    library, own = desk().library, as_owned(bag_owned(bag))
    if bag.library_id is not None and bag.library_id in library.known([bag.library_id]):
        library.change(bag.library_id, own)
        return bag.library_id
    alike = library.named([bag.name]).get(bag.name.lower())
    if alike is not None and alike.thing.hung is not None:
        library.change(alike.id, own)
        return alike.id
    return library.add([own])[0]


def _rig_with(rig: Rig, owned: dict[str, str]) -> Rig:
    def linked(bike: Bike) -> Bike:
        carriers = (c.model_copy(update={"library_id": owned.get(c.id, c.library_id)}) for c in bike.carriers)
        return bike.model_copy(update={"carriers": tuple(carriers)})

    return rig.model_copy(update={"bikes": tuple(linked(bike) for bike in rig.bikes)})


def _linked(thing: Thing, owned_id: str) -> Thing:
    return Thing.model_validate(thing.model_dump() | {"library_id": owned_id})


@blueprint.post("/api/tours/<tour_id>/choose")
@operation(gives=shapes.TourAnswer, takes=shapes.Chosen, problems=(404, 409, 422))
def choose(tour_id: str) -> Response:
    """Take things of the library along."""
    wanted = shapes.Chosen.model_validate_json(body())
    seen = desk().tours.read(tour_id, wanted.revision)
    there = {thing.library_id for thing in seen.sheet.kit}
    rows = [desk().library.read(owned_id) for owned_id in wanted.ids if owned_id not in there]
    taken = {thing.id for thing in seen.sheet.kit}
    added = []
    for owned in (row for row in _told(rows) if row.thing.hung is None):
        identifier = owned.thing.id if owned.thing.id not in taken else f"own-{uuid.UUID(owned.id).hex[:24]}"
        taken.add(identifier)
        added.append(chosen(owned, identifier))
    names = ", ".join(thing.name for thing in added) or "nothing new"
    sheet = seen.sheet.model_copy(update={"kit": (*seen.sheet.kit, *added)})
    return answer(desk().keep(seen, f"Take along {names}", sheet))


@blueprint.get("/api/tours/<tour_id>/ranking")
@operation(gives=Ranking, problems=(404,))
def ranking(tour_id: str) -> Response:
    """The whole kit by its price on this tour, what to keep or leave, and the parcels that pay."""
    return errand("ranking", tour_id, shapes.About())


@blueprint.get("/api/tours/<tour_id>/ladder")
@operation(gives=shapes.Ladder, problems=(404,))
def upgrades(tour_id: str) -> Response:
    """What a lighter load costs: leaving, and things of the library instead of those that come."""
    stored = desk().tours.read(tour_id)
    by_library = {thing.library_id: thing.id for thing in stored.sheet.kit if thing.library_id}
    rows, _ = desk().library.page(most=2000)
    at_home = [row.thing for row in rows if row.id not in by_library]
    instead = [(by_library[thing.instead_of], thing) for thing in at_home if thing.instead_of in by_library]
    return answer(shapes.Ladder(steps=ladder(stored.sheet, minutes_of(stored.sheet, desk().profile(stored)), instead)))
