"""One rider's tours and things, and the one place where a change is kept."""

import contextlib
import hashlib
import logging
import zlib
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import NamedTuple

from omnifer.core.assess import assess, profile_of
from omnifer.core.diary.history import NEAR_KM
from omnifer.core.diary.journal import Journal, on_road
from omnifer.core.diary.now import Replanned, replan
from omnifer.core.glance import glance_of
from omnifer.core.load.keep import standing
from omnifer.core.load.merging import Collision, changed_parts, merged
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.glance import Glance
from omnifer.core.model.kit import Thing
from omnifer.core.model.library import same_thing, told_by
from omnifer.core.model.rehearsal import Rehearsal
from omnifer.core.model.road import Track
from omnifer.core.model.tour import Tour, TourSheet
from omnifer.core.rehearsal.rehearsing import what_matters
from omnifer.core.road.profile import Profile
from omnifer.core.stages import Reading
from omnifer.formats.problem import InputProblem
from omnifer.office.lately import Lately
from omnifer.office.profiles import Profiles
from omnifer.office.rules import rules_digest
from omnifer.office.shapes import Otherwise, TourAnswer, TourOtherwise, TourView
from omnifer.office.since import otherwise
from omnifer.office.turns import Turns
from omnifer.store.assessed import Assessed
from omnifer.store.database import AWAY, NotThereError, Pool, StaleError, owner_named
from omnifer.store.diary import Diary
from omnifer.store.library import Library
from omnifer.store.tours import Step, StoredTour, Tours, UnreadableError

log = logging.getLogger(__name__)


class Packing(NamedTuple):
    """A way to pack an answer."""

    name: str
    pack: Callable[[bytes], bytes]


MOST_GLANCES = 200
MOST_REPLANNED = 8
QUICKLY = 1
"""Level at which what is worked out is packed: a fifth larger than usual, in a fifth of the time."""
MOST_MEANT = 8
"""Assessments whose parts are at hand, some 10 MB each; those of one tour share nearly all of them."""
MOST_ANSWER_BYTES = 48 * 2**20
"""Of answers that one process holds ready [bytes]."""
TRIES = 5
"""How often a change is put together with what other windows did meanwhile."""


class Desk:
    """One rider's tours and things for the length of a request."""

    def __init__(self, tours: Tours, library: Library, diary: Diary, assessed: Assessed, office: "Office") -> None:
        self.tours = tours
        self.diary = diary
        self.library = library
        self.assessed = assessed
        self._office = office

    @property
    def rider_id(self) -> int:
        """Whose desk it is."""
        return self.library.owner_id

    def profile(self, stored: StoredTour) -> Profile | None:
        """The road of a tour; tracks never change, so theirs are kept."""
        if stored.track_digest is None:
            return profile_of(Tour.model_construct(**dict(stored.sheet)))
        return self._office.profiles.of(stored.track_digest or "", lambda: _measured(self.whole(stored)))

    def whole(self, stored: StoredTour) -> Tour:
        """The tour with its raw track."""
        return Tour.model_construct(**dict(stored.sheet), track=self.tours.read_track(stored.track_id))

    def assessment(self, stored: StoredTour) -> Assessment:
        """What a state of a tour means."""
        return Assessment.model_validate_json(self.assessment_json(stored))

    def assessment_json(self, stored: StoredTour) -> bytes:
        """The same as JSON: worked out once for all who ask, in whichever process, and kept by what the state holds."""
        digest = f"{stored.digest}-{rules_digest()}"
        return self._office.assessments.of((self.assessed.owner_id, digest), lambda: self._assess(stored, digest))

    def _assess(self, stored: StoredTour, digest: str) -> bytes:
        kept = self.assessed.read(digest)
        if kept is not None:
            return zlib.decompress(kept)
        found = assess(stored.sheet, self.profile(stored)).model_dump_json().encode()
        # A full disk keeps nobody from reading.
        with contextlib.suppress(*AWAY):
            self.assessed.keep(digest, zlib.compress(found, QUICKLY))
        return found

    def _remember(self, stored: StoredTour, found: Assessment) -> None:
        """Keep an assessment that was just worked out."""
        digest, told = f"{stored.digest}-{rules_digest()}", found.model_dump_json().encode()
        # The change is kept by now: that this could not be is no reason to say otherwise.
        with contextlib.suppress(*AWAY):
            self.assessed.keep(digest, zlib.compress(told, QUICKLY))
        self._office.assessments.keep((self.assessed.owner_id, digest), told)

    def answer(self, tour_id: str) -> TourAnswer:
        """The tour as it now stands, and what that means."""
        stored = self.tours.read(tour_id)
        return self._answered(stored, self.assessment(stored))

    def answer_json(self, tour_id: str, packing: Packing) -> bytes:
        """The same as JSON and packed as its reader wants it, made once for each state of the tour."""
        key = (self.mark(tour_id), packing.name)
        return self._office.answers.of(key, lambda: packing.pack(self._answer_json(tour_id)))

    def mark(self, tour_id: str) -> str:
        """What is told of a tour just now, in one word. Raises NotThereError."""
        revision, changed_at = self.tours.mark(tour_id)
        of = f"{self.assessed.owner_id} {tour_id} {revision} {changed_at} {rules_digest()}"
        return hashlib.blake2b(of.encode(), digest_size=9).hexdigest()

    def _answer_json(self, tour_id: str) -> bytes:
        stored = self.tours.read(tour_id)
        tour = view(stored).model_dump_json().encode()
        return b'{"tour":%b,"assessment":%b,"state":"%b","remarks":[]}' % (
            tour, self.assessment_json(stored), _state(stored).encode(),
        )  # fmt: skip

    def _answered(self, stored: StoredTour, found: Assessment, remarks: Sequence[str] = ()) -> TourAnswer:
        self._office.meant.keep((self.assessed.owner_id, _state(stored)), (stored.sheet, found))
        return TourAnswer(tour=view(stored), assessment=found, state=_state(stored), remarks=list(remarks))

    def since(self, had: str, answer: TourAnswer) -> TourOtherwise | None:
        """An answer as it differs from a state that its reader has; None where that is not known here any more."""
        known = self._office.meant.peek((self.assessed.owner_id, had)) or self._meant(had, answer.tour.id)
        if known is None:
            return None
        sheet, before = known
        # What is said around the sheet may have been otherwise when the reader was told.
        around = answer.tour.model_dump(mode="json", exclude={"sheet"})
        changes = [
            *(Otherwise(at=("tour", name), to=value) for name, value in around.items()),
            *otherwise(sheet, answer.tour.sheet, ("tour", "sheet")),
            *otherwise(before, answer.assessment, ("assessment",)),
        ]
        return TourOtherwise(since=had, state=answer.state, changes=changes, remarks=answer.remarks)

    def _meant(self, state: str, tour_id: str) -> tuple[TourSheet, Assessment] | None:
        """A state of a tour and what it means, read again; None where it is gone, or is none."""
        revision, _, _ = state.partition("-")
        if not revision.isdigit() or not 0 < int(revision) < 2**31:
            return None
        try:
            stored = self.tours.read(tour_id, int(revision))
        except (NotThereError, StaleError, UnreadableError):
            return None
        return (stored.sheet, self.assessment(stored)) if _state(stored) == state else None

    def glance(self, tour_id: str) -> Glance:
        """The tour as a page of tours draws it; made once for each of its states."""
        stored = self.tours.read(tour_id)
        return self._office.glances.of(stored.digest, lambda: glance_of(stored.sheet, self.assessment(stored)))

    def journal(self, tour_id: str) -> Journal:
        """The entries of a tour in order."""
        return Journal.of(self.diary.read(tour_id)[0])

    def replanned(self, stored: StoredTour) -> Replanned:
        """The tour as ridden by its diary and the rest of it; worked out once for each entry that came."""
        key = (stored.id, stored.digest, self.diary.last(stored.id))
        return self._office.replanned.of(
            key, lambda: replan(stored.sheet, self.assessment(stored), self.profile(stored), self.journal(stored.id))
        )

    def as_ridden(self, stored: StoredTour) -> Reading:
        """The tour as it goes on: as planned, or under way as its diary has it, from where the party is.

        Raises InputProblem where there is no road or nobody rides.
        """
        profile = self.profile(stored)
        if profile is None or not stored.sheet.riders:
            raise InputProblem("Without a road and riders nothing can be rehearsed", "", "Bring a track or type the days first.")
        if not on_road(self.journal(stored.id)):
            return Reading(stored.sheet, profile)
        made = self.replanned(stored).ridden
        return Reading(made.sheet, profile, max(made.here.km - NEAR_KM, 0.0))

    def kept_rehearsal(self, stored: StoredTour, plays: int) -> Rehearsal | None:
        """What was rehearsed of a tour as it stands, with so many plays; None where nothing was."""
        kept = self.assessed.read(self._rehearsal_digest(stored, plays))
        return None if kept is None else Rehearsal.model_validate_json(zlib.decompress(kept))

    def keep_rehearsal(self, stored: StoredTour, told: Rehearsal) -> None:
        """Keep what was rehearsed, by what it depends on."""
        with contextlib.suppress(*AWAY):
            packed = zlib.compress(told.model_dump_json().encode(), QUICKLY)
            self.assessed.keep(self._rehearsal_digest(stored, told.plays), packed)

    def _rehearsal_digest(self, stored: StoredTour, plays: int) -> str:
        of = f"{what_matters(self.as_ridden(stored))} {stored.track_digest} {plays}"
        return f"rehearsal-{hashlib.blake2b(of.encode(), digest_size=16).hexdigest()}-{rules_digest()}"

    def start(self, tour: Tour, what: str) -> TourAnswer:
        """Keep a new tour, once it is valid and what it means is known. Raises as `keep`.

        What another owner's library has, as a bundle may bring it, belongs to no thing of this one.
        """
        named = {thing.library_id for thing in tour.kit if thing.library_id}
        strange = named - self.library.known(sorted(named)) if named else set()
        if strange:
            kit = tuple(t.model_copy(update={"library_id": None}) if t.library_id in strange else t for t in tour.kit)
            tour = tour.model_copy(update={"kit": kit})
        sheet = checked(tour)
        profile = profile_known(tour)
        found = assess(sheet, profile)
        kept = self.tours.create(tour, what)
        self._remember(kept, found)
        if kept.track_digest is not None and profile is not None:
            self._office.profiles.keep(kept.track_digest, profile)
        return self._answered(kept, found)

    def keep(
        self, seen: StoredTour, what: str, sheet: TourSheet, track: Track | None = None, remarks: Sequence[str] = (),
        tell: bool = True,
    ) -> TourAnswer:  # fmt: skip
        """Keep a change of what its writer saw: the one way into the store.

        What other windows did meanwhile is kept as well where it touches other parts. Nothing is kept that is not valid or
        whose meaning cannot be worked out. Raises ValidationError, InputProblem, NotThereError, or StaleError where two
        windows changed the same part. What it says of things of the library, `tell` tells the library and other open tours.
        """
        with self._office.writers.of(seen.id):
            found, kept = self._change(seen, what, sheet, track)
        if tell:
            remarks = [*remarks, *self.tell_others(seen.id, seen.sheet.kit, kept.sheet)]
        return self._answered(kept, found, remarks)

    def _change(
        self, seen: StoredTour, what: str, sheet: TourSheet, track: Track | None
    ) -> tuple[Assessment, StoredTour]:  # fmt: skip
        """Work out what a change means together with what was kept meanwhile, and keep it."""
        now = seen
        for _ in range(TRIES):
            revision = self.tours.revision(seen.id)
            if revision != now.revision:
                now = self.tours.read(seen.id)
            whole = self._together(seen, sheet, track, now)
            profile = self.profile(now) if track is None else profile_known(_with_track(whole, track))
            if track is None and now.track_id is None:
                profile = profile_known(_with_track(whole, None))
            found = assess(whole, profile)
            try:
                kept = self.tours.change(seen.id, now.revision, what[:200], whole, track, known=now.sheet)
            except StaleError:
                continue
            self._remember(kept, found)
            if track is not None and profile is not None and kept.track_digest is not None:
                self._office.profiles.keep(kept.track_digest, profile)
            return found, kept
        raise StaleError(now.revision)

    def tell_others(self, tour_id: str, before: Sequence[Thing], after: TourSheet) -> list[str]:
        """Tell the library and the other open tours what a tour now says of its owner's things. Gives remarks.

        The change itself is kept by then: whatever stands in the way of telling is said, and takes nothing back.
        """
        try:
            return self._tell_others(tour_id, before, after)
        except Exception:
            log.exception("others could not be told of a change that is kept")
            return ["The library and other tours could not be told of it just now; say it there yourself."]

    def _tell_others(self, tour_id: str, before: Sequence[Thing], after: TourSheet) -> list[str]:
        if after.over:
            return []
        was = {thing.library_id: thing for thing in before if thing.library_id}
        news = {
            thing.library_id: thing
            for thing in after.kit
            if thing.library_id in was and not same_thing(was[thing.library_id], thing)
        }
        for owned_id, thing in news.items():
            try:
                self.library.change(owned_id or "", told_by(self.library.read(owned_id or "").thing, thing))
            except NotThereError:
                continue
        return self.spread({owned_id: thing for owned_id, thing in news.items() if owned_id}, besides=tour_id)

    def spread(self, news: dict[str, Thing], besides: str = "") -> list[str]:
        """Give things of the library to all open tours that chose them. Gives remarks, one for each tour."""
        by_tour: dict[str, list[str]] = {}
        for choice in self.library.chosen_by(list(news)) if news else ():
            if not choice.over and choice.tour_id != besides:
                by_tour.setdefault(choice.tour_id, []).append(choice.owned_id)
        remarks = []
        for other_id, owned_ids in by_tour.items():
            names = ", ".join(news[owned_id].name for owned_id in owned_ids)
            try:
                name = self._takes_over(other_id, {owned_id: news[owned_id] for owned_id in owned_ids}, names)
                remarks.append(f"{name} now says the same of {names}.")
            except (NotThereError, UnreadableError, StaleError, ValueError, *AWAY):
                log.warning("a tour could not be told of things of the library", exc_info=True)
                remarks.append(f"One tour could not be told of {names} just now.")
        return remarks

    def _takes_over(self, tour_id: str, news: dict[str, Thing], names: str) -> str:
        """Give a tour what the library says of some of its things; its name. What that means is worked out when it is opened."""
        with self._office.writers.of(tour_id):
            other = self.tours.read(tour_id)
            kit = tuple(told_by(t, news[t.library_id]) if t.library_id in news else t for t in other.sheet.kit)
            sheet = checked(other.sheet.model_copy(update={"kit": kit}))
            self.tours.change(other.id, other.revision, f"From the library: {names}"[:200], sheet)
        return other.sheet.name

    def unchanged(self, seen: StoredTour, part: str) -> None:
        """Refuse long work on a part that has changed since its writer looked. Raises StaleError."""
        now = self.tours.read(seen.id)
        if part in changed_parts(seen.sheet, now.sheet):
            raise StaleError(now.revision)

    def step(self, tour_id: str, revision: int, step: Step) -> TourAnswer:
        """Undo or redo one change. Raises as `Tours.step`."""
        try:
            before = self.tours.read(tour_id, revision).sheet.kit
        except UnreadableError:
            before = ()
        self.tours.step(tour_id, revision, step)
        found = self.answer(tour_id)
        return found.model_copy(update={"remarks": self.tell_others(tour_id, before, found.tour.sheet)})

    def _together(self, seen: StoredTour, sheet: TourSheet, track: Track | None, now: StoredTour) -> TourSheet:
        """The writer's sheet, with what changed since the writer looked.

        A load that was not changed itself lets go of what is there no longer; one that was is taken at its word.
        """
        if now.revision == seen.revision:
            return checked(sheet if sheet.load != seen.sheet.load else standing(sheet), seen.sheet)
        if track is not None or now.track_id != seen.track_id:
            raise StaleError(now.revision)
        try:
            return checked(merged(seen.sheet, sheet, now.sheet))
        except (Collision, ValueError):
            raise StaleError(now.revision) from None


class Office:
    """What a process holds for all its riders.

    Parameters
    ----------
    roads : Path, optional
        Folder of measured roads, shared with other processes of this machine.
    """

    def __init__(self, pool: Pool, roads: Path | None = None) -> None:
        self.pool = pool
        self.profiles = Profiles(roads)
        self.glances: Lately[str, Glance] = Lately(MOST_GLANCES)
        self.assessments: Lately[tuple[int, str], bytes] = Lately(MOST_ANSWER_BYTES, len)
        self.meant: Lately[tuple[int, str], tuple[TourSheet, Assessment]] = Lately(MOST_MEANT)
        self.answers: Lately[tuple[object, ...], bytes] = Lately(MOST_ANSWER_BYTES, len)
        self.replanned: Lately[tuple[object, ...], Replanned] = Lately(MOST_REPLANNED)
        self.writers = Turns()
        self._owners: dict[str, int] = {}

    def desk_of(self, rider: str) -> Desk:
        """The desk of a signed-in rider."""
        if rider not in self._owners:
            self._owners[rider] = owner_named(self.pool, rider)
        return self.desk_for(self._owners[rider])

    def desk_for(self, rider_id: int, owner_id: int | None = None) -> Desk:
        """The desk of a rider by number, for the tours of another owner where one is named; things stay the rider's own."""
        pool, owner_id = self.pool, owner_id or rider_id
        tours, diary = Tours(pool, owner_id, rider_id), Diary(pool, owner_id, rider_id)
        return Desk(tours, Library(pool, rider_id), diary, Assessed(pool, rider_id), self)


def checked(sheet: TourSheet, known: TourSheet | None = None) -> TourSheet:
    """A sheet validated from its figures up: parts that were copied with changes were not. Raises ValidationError.

    Parameters
    ----------
    known : TourSheet, optional
        A valid sheet: parts that are its very own are valid by themselves, and only held against the others.
    """
    own = {name for name in TourSheet.model_fields if known is not None and getattr(sheet, name) is getattr(known, name)}
    parts = sheet.model_dump(include=set(TourSheet.model_fields) - own)
    return TourSheet.model_validate(parts | {name: getattr(sheet, name) for name in own})


def profile_known(tour: Tour) -> Profile | None:
    """The profile of a tour that is not kept yet. Raises InputProblem where its road cannot be measured."""
    try:
        return profile_of(tour)
    except ValueError as error:
        raise InputProblem(str(error)[:1].upper() + str(error)[1:], "", "Choose another file; nothing was kept.") from None


def _measured(tour: Tour) -> Profile:
    profile = profile_of(tour)
    assert profile is not None
    return profile


def _with_track(sheet: TourSheet, track: Track | None) -> Tour:
    return Tour.model_construct(**dict(sheet), track=track)


def _state(stored: StoredTour) -> str:
    """What a state of a tour is called, and what it means by the rules of this version."""
    of = f"{stored.id} {stored.digest} {rules_digest()}"
    return f"{stored.revision}-{hashlib.blake2b(of.encode(), digest_size=9).hexdigest()}"


def view(stored: StoredTour) -> TourView:
    """A stored tour as screens see it."""
    return TourView(
        id=stored.id,
        revision=stored.revision,
        changed_at=stored.changed_at,
        what=stored.what,
        has_track=stored.track_id is not None,
        can_undo=stored.can_undo,
        can_redo=stored.can_redo,
        sheet=stored.sheet,
    )
