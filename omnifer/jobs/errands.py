"""What takes long: a function for each kind of errand, which tells how far it is and returns the answer."""

import datetime as dt
import tempfile
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Any, NamedTuple

import numpy as np
from pydantic import BaseModel

from omnifer.core.choices import choices_of
from omnifer.core.load.settle import load_proposals
from omnifer.core.manner import manner_of
from omnifer.core.mapped.groups import corridor_km, long_gaps
from omnifer.core.mapped.proposals import proposals
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.assessment import Day
from omnifer.core.model.manner import Manner
from omnifer.core.model.road import TypedDay
from omnifer.core.model.season import Season
from omnifer.core.model.tour import Tour, TourSheet
from omnifer.core.ranking import rank
from omnifer.core.rehearsal.course import course_of
from omnifer.core.rehearsal.rehearsing import one_play, played, rehearsed
from omnifer.core.rehearsal.risk import risk_plan, spares_at_risk
from omnifer.core.rehearsal.two import two_plans
from omnifer.core.road.heights import bridged, lacking, thinned, with_heights
from omnifer.core.road.profile import Profile
from omnifer.core.road.symbols import FARTHEST_WAYPOINT_KM, stops_of
from omnifer.core.season import season_of, turned
from omnifer.core.sensitivity import effect_of
from omnifer.core.stages import Reading
from omnifer.core.worth import compare, compare_loads, price, tried, with_variant
from omnifer.formats import tracks
from omnifer.formats.found import FoundRoad
from omnifer.formats.osm import read_map
from omnifer.formats.problem import InputProblem
from omnifer.formats.relief import heights_from, read_tile
from omnifer.jobs.apart import within_memory
from omnifer.office import shapes
from omnifer.office.desk import Desk, checked, profile_known
from omnifer.office.problems import problem_of
from omnifer.outside.services import Services
from omnifer.store.database import NotThereError
from omnifer.store.maps import ToldMaps

Files = Sequence[bytes]
MOST_MEMORY_BYTES = 3 * 2**29
"""Beyond what the process has, for a map [bytes]."""
Tell = Callable[[BaseModel], None]
"""Tells something on the way; raises HungUp where nobody waits for the answer any more."""


class HungUp(Exception):
    """Nobody waits for the answer any more."""


class Ready(BaseModel):
    """Told before something is kept: who asked may have left meanwhile, and then nothing is."""


class News(NamedTuple):
    """Something told on the way; the last is `answer`, or `problem` with what would have been the refusal."""

    event: str
    body: str


@dataclass(frozen=True)
class Errand:
    """One errand: whose, of which tour, what is asked, with which files, and who is told."""

    desk: Desk
    tour_id: str
    asked: Any
    files: Files
    tell: Tell
    services: Services

    def now(self) -> tuple[TourSheet, Profile | None]:
        """The tour as it stands, and its road."""
        stored = self.desk.tours.read(self.tour_id)
        return stored.sheet, self.desk.profile(stored)


@dataclass(frozen=True)
class Kind:
    """A kind of errand: what it takes, who does it, and whether it is a search, of which only so many run at a time."""

    asked: type[BaseModel]
    work: Callable[[Errand], BaseModel]
    search: bool = False


def event_name(model: type[BaseModel]) -> str:
    """What an event that tells a model is called."""
    return model.__name__.lower()


def news_of(told: BaseModel) -> News:
    """Something told on the way, by the name of its model."""
    return News(event_name(type(told)), told.model_dump_json())


def last_news(kind: str, errand: Errand) -> News:
    """Do an errand: its answer, or the problem that stood in the way. Raises HungUp."""
    try:
        return News("answer", KINDS[kind].work(errand).model_dump_json())
    except HungUp:
        raise
    except Exception as error:
        return News("problem", problem_of(error).model_dump_json(exclude_none=True))


def propose(errand: Errand) -> BaseModel:
    """Search for a load and take it on."""
    seen = errand.desk.tours.read(errand.tour_id, errand.asked.revision)
    errand.desk.unchanged(seen, "load")
    for proposal in load_proposals(seen.sheet, errand.desk.profile(seen), errand.asked.rounds, errand.asked.effort):
        errand.tell(proposal)
    errand.tell(Ready())
    kept = errand.desk.keep(seen, "Propose a load", seen.sheet.model_copy(update={"load": proposal.load}))
    return shapes.ProposalAnswer(answer=kept, proposal=proposal)


def bring_track(errand: Errand) -> BaseModel:
    """Read and join track files, measure the road, make stops of its waypoints, and keep all of it."""
    road = tracks.read_tracks(
        errand.files, lambda share: errand.tell(shapes.Progress(what="Reading the track", share=round(0.8 * share, 3)))
    )
    seen = errand.desk.tours.read(errand.tour_id, errand.asked.revision)
    before = errand.desk.tours.read_track(seen.track_id) if errand.asked.after else None
    if before is not None:
        road = tracks.join([FoundRoad(before, []), road])
    errand.tell(shapes.Progress(what="Measuring the road", share=0.8))
    profile = profile_known(Tour.model_construct(**dict(seen.sheet), track=road.track))
    assert profile is not None
    kept = tuple(stop for stop in seen.sheet.road.stops if stop.at_km <= profile.length_km)
    new, far = stops_of(road.waypoints, profile, kept)
    changed = seen.sheet.road.model_copy(update={"stops": (*kept, *new), "typed_days": tuple[TypedDay, ...]()})
    remarks = [f"{len(road.track.lat_deg)} points, {profile.length_km:.0f} km, {len(new)} places became stops.", *road.remarks]
    if far:
        remarks.append(f"{far} places lie more than {FARTHEST_WAYPOINT_KM:.0f} km from the track and were left out.")
    errand.tell(shapes.Progress(what="Keeping it", share=0.9))
    errand.tell(Ready())
    sheet = seen.sheet.model_copy(update={"road": changed})
    return errand.desk.keep(seen, f"Bring the track {road.track.name or 'from a file'}", sheet, road.track, remarks)


def trial(errand: Errand) -> BaseModel:
    """What a change would mean; nothing is kept."""
    sheet, road = errand.now()
    parts = {name: value for name, value in dict(errand.asked).items() if value is not None and name != "mend"}
    changed = sheet.model_copy(update=parts)
    return tried(sheet, checked(changed if errand.asked.mend is None else mended(changed, errand.asked.mend)), road)


def as_ridden(errand: Errand) -> Reading:
    """The tour as it goes on; see `Desk.as_ridden`."""
    return errand.desk.as_ridden(errand.desk.tours.read(errand.tour_id))


def rehearsal(errand: Errand) -> BaseModel:
    """Play the tour many times; what is known already is told at once."""
    stored, plays = errand.desk.tours.read(errand.tour_id), errand.asked.plays
    kept = errand.desk.kept_rehearsal(stored, plays)
    if kept is not None:
        return kept
    for told in rehearsed(errand.desk.as_ridden(stored), plays):
        if told.plays < plays:
            errand.tell(told)
    errand.desk.keep_rehearsal(stored, told)
    return told


def risk(errand: Errand) -> BaseModel:
    """A plan at a chosen risk."""
    asked = errand.asked

    def tell(share: float) -> None:
        errand.tell(shapes.Progress(what="Playing plans", share=share))

    try:
        return risk_plan(as_ridden(errand), asked.supply, asked.risk, asked.plays, tell=tell)
    except KeyError:
        raise InputProblem(f"This tour carries no {asked.supply}", "field supply", "Choose what is carried.") from None


def spares(errand: Errand) -> BaseModel:
    """Parts at a chosen risk."""
    return spares_at_risk(played(course_of(as_ridden(errand)), 0, errand.asked.plays), errand.asked.risk)


def two(errand: Errand) -> BaseModel:
    """Two plans on the same fate."""
    at, asked = as_ridden(errand), errand.asked
    profile, other, from_km = at.profile, at.tour, at.from_km
    parts = {name: getattr(asked, name) for name in ("load", "kit", "stores", "road", "start_date", "own_values")}
    other = other.model_copy(update={name: value for name, value in parts.items() if value is not None})
    if asked.mend is not None:
        other = mended(other, asked.mend)
    if asked.variant_id is not None:
        variant = next((v for v in other.variants if v.id == asked.variant_id), None)
        if variant is None:
            raise NotThereError(asked.variant_id, "variant")
        other = with_variant(other, profile, variant)
    if asked.turned:
        assert profile is not None
        if from_km:
            raise InputProblem("The tour is under way", "field turned", "Turn it before it begins.")
        other, profile = turned(other, profile)
    return two_plans(at, Reading(checked(other), profile, from_km), asked.plays)


def season(tour: TourSheet, road: Profile | None) -> Season:
    """When to go; no starts where there is no road or nobody rides."""
    return season_of(tour, road) if road and tour.riders else Season(starts=[], leaves_out=[])


def manner(tour: TourSheet, road: Profile | None) -> Manner:
    """How to go; no ways where there is no road or nobody rides."""
    return manner_of(tour, road) if road and tour.riders else Manner(ridden=[], why_none="Say where you ride and who rides.")


def look_at_map(errand: Errand) -> BaseModel:
    """What a map has along the road: of the file that came along, else of the service. Nothing is kept."""
    stored = errand.desk.tours.read(errand.tour_id)
    profile, road = errand.desk.profile(stored), stored.sheet.road
    if profile is None or profile.lat_deg is None or profile.lon_deg is None:
        raise InputProblem("This road lies nowhere", "", "Bring a track first: a map is looked at along one.")
    found = errand.desk.assessment(stored)
    gaps, days = long_gaps(found.gaps, road.stops), found.days
    nodes = profile.nodes
    assert nodes.lat_deg is not None
    assert nodes.lon_deg is not None
    within = corridor_km(nodes.km, gaps)
    today = dt.datetime.now(dt.UTC).date()

    def tell(what: str) -> Callable[[float], None]:
        return lambda share: errand.tell(shapes.Progress(what=what, share=round(0.9 * share, 3)))

    if errand.files:
        with tempfile.NamedTemporaryFile() as file, within_memory(MOST_MEMORY_BYTES):
            for piece in errand.files:
                file.write(piece)
            file.flush()
            told = read_map(Path(file.name), nodes.lat_deg, nodes.lon_deg, within, tell("Reading the map"))
    else:
        kept = ToldMaps(errand.desk.tours.pool, errand.desk.rider_id)
        asked = nodes.km, nodes.lat_deg, nodes.lon_deg, within
        told = errand.services.maps.reading(*asked, kept, tell("Asking the map service"))
    errand.tell(shapes.Progress(what="Putting it beside your stops", share=0.9))
    return proposals(told, profile, road, gaps, partial(date_at, days, stored.sheet.start_date), today)


def date_at(days: Sequence[Day], start: dt.date, km: float) -> dt.date:
    """The date on which a kilometre is ridden."""
    return next((day.date for day in days if not day.rest and day.from_km <= km <= day.to_km), start)


def bring_heights(errand: Errand) -> BaseModel:
    """Give the track the heights it lacks, or all anew: out of the files that came along, else from the service."""
    seen = errand.desk.tours.read(errand.tour_id, errand.asked.revision)
    track = errand.desk.tours.read_track(seen.track_id)
    if track is None:
        raise InputProblem("This tour has no track", "", "Bring one first.")
    points = np.arange(len(track.lat_deg)) if errand.asked.anew else lacking(track)
    if not points.size:
        raise InputProblem("Every point of the track has a height", "", "Ask for all heights anew to replace them.")

    def tell(share: float) -> None:
        errand.tell(shapes.Progress(what="Looking up heights", share=round(0.8 * share, 3)))

    if errand.files:
        tiles = [read_tile(name, content) for name, content in zip(errand.asked.names, errand.files, strict=True)]
        track, unknown = with_heights(track, points, partial(heights_from, tiles))
    else:
        if errand.asked.anew:
            track = track.model_copy(update={"elevation_m": (None,) * len(track.lat_deg)})
        points = thinned(track, points)
        track, unknown = with_heights(track, points, lambda lat, lon: errand.services.heights.heights(lat, lon, tell))
        track = bridged(track)
    if unknown == points.size:
        raise InputProblem("None of the track's points has a height there", "", "Bring files of the land that the track crosses.")
    errand.tell(shapes.Progress(what="Keeping it", share=0.9))
    errand.tell(Ready())
    remarks = [f"{points.size - unknown} of {points.size} points have a height now; others are bridged by straight lines."]
    return errand.desk.keep(seen, "Take heights for the track", seen.sheet, track, remarks)


def about(kind: str, question: Callable[[TourSheet, Profile | None, str], BaseModel]) -> Kind:
    """A question about something of a tour, by its key."""

    def work(errand: Errand) -> BaseModel:
        try:
            return question(*errand.now(), errand.asked.key)
        except KeyError:
            raise NotThereError(errand.asked.key, kind) from None

    return Kind(shapes.About, work)


KINDS = {
    "proposal": Kind(shapes.ProposalRequest, propose, search=True),
    "track": Kind(shapes.TrackUpload, bring_track, search=True),
    "mends": about("finding", lambda tour, road, key: shapes.Mends(mends=mends_of(tour, road, key))),
    "trial": Kind(shapes.Trial, trial),
    "price": about("thing", price),
    "assumption": about("default", effect_of),
    "ranking": about("tour", lambda tour, road, _: rank(tour, road)),
    "season": about("tour", lambda tour, road, _: season(tour, road)),
    "manner": about("tour", lambda tour, road, _: manner(tour, road)),
    "rehearsal": Kind(shapes.RehearsalAsked, rehearsal),
    "play": Kind(shapes.PlayAsked, lambda errand: one_play(as_ridden(errand), errand.asked.number)),
    "risk": Kind(shapes.RiskAsked, risk, search=True),
    "spares": Kind(shapes.SparesAsked, spares),
    "two_plans": Kind(shapes.TwoPlansAsked, two),
    "map": Kind(shapes.About, look_at_map, search=True),
    "heights": Kind(shapes.HeightsAsked, bring_heights, search=True),
    "rigs": about("tour", lambda tour, road, _: shapes.Rigs(rigs=compare(tour, road))),
    "choices": about("bike", lambda tour, road, key: shapes.Choices(choices=choices_of(tour, road, key))),
    "loads": about("tour", lambda tour, road, _: shapes.Loads(loads=compare_loads(tour, road))),
}
