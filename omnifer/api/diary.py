"""What was noted on the road: entries that come in whatever order and as often as they like, and what follows from them."""

from flask import Blueprint, Response, request

from omnifer.api.desk import answer, body, desk, uploaded
from omnifer.api.openapi import operation
from omnifer.core.diary.debrief import debrief, taught, taught_on, wish_of
from omnifer.core.diary.rates import taking
from omnifer.core.diary.track import laid_on
from omnifer.core.model.debrief import Debrief
from omnifer.core.model.library import as_owned, bag_taught
from omnifer.core.model.ridden import RiddenCourse
from omnifer.formats.picture import small_picture
from omnifer.formats.problem import InputProblem
from omnifer.formats.tracks import read_track
from omnifer.jobs.apart import PICTURE, apart
from omnifer.office import shapes
from omnifer.store.database import NotThereError

blueprint = Blueprint("diary", __name__)


@blueprint.get("/api/tours/<tour_id>/diary")
@operation(gives=shapes.DiaryAnswer, problems=(404,))
def read_diary(tour_id: str) -> Response:
    """The diary, where the party is by it, and the rest of the tour from there."""
    made = desk().replanned(desk().tours.read(tour_id))
    told = [told.received for told in desk().journal(tour_id).every]
    return answer(shapes.DiaryAnswer(entries=told, now=made.now))


@blueprint.get("/api/tours/<tour_id>/diary/course")
@operation(gives=RiddenCourse, problems=(404,))
def ridden_course(tour_id: str) -> Response:
    """The tour as it went, along the road."""
    made = desk().replanned(desk().tours.read(tour_id))
    return answer(RiddenCourse(days=made.rest.days, moments=made.rest.moments, at_km=made.now.at_km))


@blueprint.post("/api/tours/<tour_id>/diary")
@operation(gives=shapes.Acknowledged, takes=shapes.NewEntries, problems=(404, 422))
def add_entries(tour_id: str) -> Response:
    """Keep entries, each once, however often and in whichever order they come."""
    added = desk().diary.add(tour_id, shapes.NewEntries.model_validate_json(body()).entries)
    return answer(shapes.Acknowledged(taken=added.taken, otherwise=added.otherwise))


@blueprint.get("/api/tours/<tour_id>/diary/<entry_id>/picture")
@operation(media="image/jpeg", problems=(404,))
def entry_picture(tour_id: str, entry_id: str) -> Response:
    """The picture of an entry."""
    return Response(desk().diary.picture(tour_id, entry_id), mimetype="image/jpeg")


@blueprint.post("/api/tours/<tour_id>/diary/<entry_id>/picture")
@operation(upload=shapes.PlainUpload, status=204, problems=(404, 413, 422))
def keep_entry_picture(tour_id: str, entry_id: str) -> Response:
    """Keep a picture with an entry, made small and stripped of where it was taken."""
    desk().diary.keep_picture(tour_id, entry_id, apart(PICTURE, small_picture, uploaded()))
    return Response(status=204)


@blueprint.post("/api/tours/<tour_id>/diary/track")
@operation(gives=shapes.LaidTrack, upload=shapes.PlainUpload, problems=(404, 413, 422))
def lay_track(tour_id: str) -> Response:
    """Where a recorded track ends on the road as planned; nothing is kept."""
    stored = desk().tours.read(tour_id)
    road = desk().profile(stored)
    if road is None or road.lat_deg is None:
        raise InputProblem("This tour has no track to lay a ride on", "tour, road", "Say the kilometre by hand.")
    content = uploaded()
    laid = laid_on(road, apart(len(content), read_track, content).track)
    if laid is None:
        mend = "Choose the ride of this tour, or say the kilometre by hand."
        raise InputProblem("The ride does not end anywhere near the road", "field file", mend)
    return answer(shapes.LaidTrack(km=laid.km, off_km=laid.off_km, on_road=laid.on_road))


@blueprint.get("/api/tours/<tour_id>/debrief")
@operation(gives=Debrief, asks=("into",), problems=(404,))
def read_debrief(tour_id: str) -> Response:
    """What the tour teaches; `into` names the tour that its rates are offered to."""
    return answer(_debrief(tour_id, request.args.get("into")))


def _debrief(tour_id: str, into: str | None) -> Debrief:
    stored = desk().tours.read(tour_id)
    other = desk().tours.read(into).sheet if into else None
    return debrief(stored.sheet, desk().assessment(stored), desk().replanned(stored), desk().journal(tour_id), other)


@blueprint.post("/api/tours/<tour_id>/debrief/take")
@operation(gives=shapes.HandedOn, takes=shapes.TakeRate, problems=(404, 409, 422))
def take_rate(tour_id: str) -> Response:
    """Take a learned rate over into a tour; undo takes it back."""
    wanted = shapes.TakeRate.model_validate_json(body())
    rate = next((rate for rate in _debrief(tour_id, None).rates if rate.key == wanted.key), None)
    if rate is None:
        raise NotThereError(wanted.key, "rate")
    seen = desk().tours.read(wanted.into, wanted.revision)
    sheet = taking(seen.sheet, rate)
    if sheet is None:
        raise InputProblem(
            f"{seen.sheet.name} has nothing that is called {rate.name}",
            "field key",
            "Take the thing along first, under this name.",
        )
    kept = desk().keep(seen, f"Take over from the last tour: {rate.name}", sheet)
    return answer(shapes.HandedOn(remarks=[f"{kept.tour.sheet.name} now reckons with it.", *kept.remarks]))


@blueprint.post("/api/tours/<tour_id>/debrief/hand")
@operation(gives=shapes.HandedOn, problems=(404, 409))
def hand_on(tour_id: str) -> Response:
    """Tell the library what the tour taught of its things, and with it every tour to come that chose them."""
    found = _debrief(tour_id, None)
    library, news, wished = desk().library, {}, []
    stored = desk().tours.read(tour_id)
    where = taught_on(stored.sheet, desk().assessment(stored).days)
    for story in found.stories:
        if story.verdict is None:
            continue
        if story.library_id is not None:
            try:
                owned = library.read(story.library_id).thing
            except NotThereError:
                continue
            news[story.library_id] = as_owned(taught(owned, story, where))
        elif story.deed == "take":
            wished.append(story)
    bags = {c.id: c for c in stored.sheet.carriers if c.library_id is not None}
    fullest = {c.carrier_id: c.fullest_kg for bike in desk().assessment(stored).bikes for c in bike.carriers}
    for lesson in found.lessons:
        owned_id = bags[lesson.about].library_id if lesson.about in bags else None
        if owned_id is not None and owned_id in library.known([owned_id]):
            own = library.read(owned_id).thing
            words = f"{lesson.words.metric()} {where}".strip()
            news[owned_id] = bag_taught(own, lesson.verdict, words, fullest.get(lesson.about, 0.0))
    if not news and not wished:
        words = "Nothing was said of any thing yet, so there is nothing to hand on"
        raise InputProblem(words, "", "Say of a thing how it did, then hand it on; the tour is not over before.")
    for owned_id, thing in news.items():
        library.change(owned_id, thing)
    there = library.named([story.name for story in wished])
    new = [story for story in wished if story.name.lower() not in there]
    sheet = desk().tours.read(tour_id).sheet
    library.add([as_owned(wish_of(story, sheet.kit)) for story in new])
    remarks = [f"{len(news)} things of the library know now what this tour taught."] if news else []
    remarks += [f"Put on the list: {', '.join(story.name for story in new)}."] if new else []
    seen = desk().tours.read(tour_id)
    if not seen.sheet.over:
        desk().keep(seen, "The tour is over", seen.sheet.model_copy(update={"over": True}), tell=False)
    return answer(shapes.HandedOn(remarks=[*remarks, *desk().spread(news, besides=tour_id)]))
