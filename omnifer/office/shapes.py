"""What requests and answers look like, where they are more than a noun of the core."""

import datetime as dt
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field, JsonValue

from omnifer.core.choices import OtherBike
from omnifer.core.kit.told import KitAnswer, KitQuestion
from omnifer.core.load.aims import Aim, School
from omnifer.core.load.explain import Paid
from omnifer.core.load.places import PlaceFor
from omnifer.core.load.proposal import Proposal
from omnifer.core.model.aims import Aims
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.diary import Entry, Received
from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Guessable, Thing
from omnifer.core.model.library import KitOfThings, Owned
from omnifer.core.model.load import Load, NamedLoad
from omnifer.core.model.outlook import ComparedDay
from omnifer.core.model.people import Rider
from omnifer.core.model.quantities import CarriedSupply, DistanceKm, ElevationM, Id, Name, Note, Noun, OneLine, Reach
from omnifer.core.model.rehearsal import FIRST_PLAYS, MORE_PLAYS, MOST_PLAYS, USUAL_PLAYS, Rehearsal
from omnifer.core.model.ridden import Now
from omnifer.core.model.rig import Bike, Rig
from omnifer.core.model.road import Road, TypedDay
from omnifer.core.model.roles import Role
from omnifer.core.model.serves import Service
from omnifer.core.model.stores import Food, Stores
from omnifer.core.model.tour import AnswerGiven, SetAside, TourSheet
from omnifer.core.model.variant import Variant
from omnifer.core.ranking import Step as LadderStep
from omnifer.core.rig.catalogue import CarrierTemplate, SupportTemplate
from omnifer.core.rig.schools import SchoolRig
from omnifer.core.worth import LoadFigures, RigFigures
from omnifer.formats.kit_columns import ColumnChoice
from omnifer.formats.templates import KitSchool
from omnifer.formats.workbook import SheetOfBook

TourDate = Annotated[dt.date, Field(ge=dt.date(1900, 1, 1), le=dt.date(2200, 1, 1))]
Revision = Annotated[int, Field(ge=1, le=2**31 - 1, description="The revision that the writer saw")]


class SizedBike(Noun):
    """A generic bike in a frame size."""

    size: str = Field(description="In words, with the riders it suits")
    bike: Bike


class Catalogue(Noun):
    """Generic bikes in all sizes, supports and carriers, and the foods that ship with Omnifer."""

    bikes: list[SizedBike]
    supports: list[SupportTemplate]
    carriers: list[CarrierTemplate]
    foods: list[Food]
    services: list[Service] = Field(description="What things can serve")
    kit_schools: list[KitSchool]


class KindEntry(Noun):
    """A kind of thing in the list of all."""

    id: str
    name: str
    domain: str
    reach: Reach
    called: str = Field(description="What it is called, in all languages that are read")


class KindList(Noun):
    """All kinds of things that are known by name."""

    kinds: list[KindEntry]
    roles: list[Role] = Field(description="Each thing that a thing can do, with the figures of a usual one")


class ThingAsked(Noun):
    """A thing of which something is asked."""

    thing: Thing
    kind: str | None = Field(None, description="What somebody says that it is; None: as its name says")
    about: tuple[Guessable, ...] = Field((), description="What nobody said of it: this is told")
    riders: tuple[Id, ...] = Field((), max_length=8, description="Who there is; a single one has what each has")


class ThingTold(Noun):
    """The thing with what its name or kind tells of it."""

    thing: Thing
    kind: str | None = Field(description="What it is; None: its name does not say")
    likeliest: list[str] = Field(description="What it may be then, the likeliest first")


class TourEntry(Noun):
    """A tour in the list."""

    id: str
    name: str
    start_date: dt.date
    revision: int
    changed_at: dt.datetime
    shared_by: str | None = Field(None, description="The owner's address, where the tour is another rider's")


class TourList(Noun):
    """All tours, the last changed first."""

    tours: list[TourEntry]
    removed: list[TourEntry] = Field(description="Removed lately: they can be fetched back")


class NewTour(Noun):
    """What a tour begins with."""

    name: Name
    start_date: TourDate
    riders: Annotated[tuple[Rider, ...], Field(min_length=1, max_length=8)]
    bikes: tuple[Bike, ...] = ()
    typed_days: tuple[TypedDay, ...] = ()
    from_tour: str | None = Field(None, description="An earlier tour: its riders, rig, kit and load come along, its road stays")
    kit_of: KitSchool | None = Field(None, description="Each rider's kit begins with what riders of this school mostly carry")


class TourView(Noun):
    """A tour as it stands."""

    id: str
    revision: int
    changed_at: dt.datetime
    what: str = Field(description="The change that led here")
    has_track: bool
    can_undo: bool
    can_redo: bool
    sheet: TourSheet


class TourAnswer(Noun):
    """A tour after a change, and what it now means."""

    tour: TourView
    assessment: Assessment
    state: str = Field(description="Of all but the remarks: with it a reader says what it has")
    remarks: list[str] = []


Place = tuple[str | int, ...]


class Otherwise(Noun):
    """One place of an answer that is otherwise than its reader has it."""

    at: Place = Field(description="Names and positions that lead there")
    to: JsonValue = Field(None, description="What stands there now")
    items: list[int | dict[str, JsonValue]] | None = Field(
        None, description="A list made anew instead: entries by where they stood before, or as they are"
    )
    gone: bool = Field(False, description="Nothing stands there any more")


class TourOtherwise(Noun):
    """A tour after a change and what it now means, as far as it is otherwise than its reader has it."""

    since: str = Field(description="The state that the reader has")
    state: str = Field(description="The state that it comes to")
    changes: list[Otherwise]
    remarks: list[str] = []


class Change(Noun):
    """A change of one or more parts of a tour."""

    revision: Revision
    what: Annotated[str, Field(min_length=1, max_length=200, description="The change in words, for undo"), OneLine]
    name: Name | None = None
    start_date: dt.date | None = None
    riders: Annotated[tuple[Rider, ...], Field(min_length=1, max_length=8)] | None = None
    road: Road | None = None
    rig: Rig | None = None
    kit: tuple[Thing, ...] | None = None
    load: Load | None = None
    aims: Aims | None = None
    stores: Stores | None = None
    money: Annotated[str, Field(max_length=12), OneLine] | None = None
    own_values: dict[str, float] | None = None
    variants: tuple[Variant, ...] | None = None
    kept_loads: tuple[NamedLoad, ...] | None = None
    set_aside: tuple[SetAside, ...] | None = None
    to_self: Note | None = None
    answers: tuple[AnswerGiven, ...] | None = None
    over: bool | None = None
    mend: Mend | None = Field(None, description="Taken on after the other parts")


class Step(Noun):
    """Undo or redo."""

    revision: Revision
    step: Literal["undo", "redo"]


class PlainUpload(Noun):
    """A file and nothing with it."""


class Progress(Noun):
    """How far long work is."""

    what: str
    share: float | None = Field(None, description="Part that is done [-]; None: not known")


class About(Noun):
    """What a question about a tour is about: a finding, a thing, a default; or nothing but the tour."""

    key: str = ""


class TrackUpload(Noun):
    """What comes along with the files of a track."""

    revision: Revision
    after: bool = Field(False, description="Ride it after the track that is there")


class MapUpload(Noun):
    """What comes along with a map: nothing but its file."""


class HeightsUpload(Noun):
    """What comes along with files of heights, and what is asked of a service of them."""

    revision: Revision
    anew: bool = Field(False, description="Also for points that have one")


class HeightsAsked(HeightsUpload):
    """The same with the names of the files, in their order: some say only there where they lie."""

    names: tuple[str, ...] = ()


class StationUpload(Noun):
    """What comes along with a weather record."""

    revision: Revision
    name: Annotated[str, Field(max_length=120), OneLine] = ""
    at_km: DistanceKm | None = None
    elevation_m: ElevationM | None = Field(None, description="Left out: as the record says, else that of the road there")


class RideUpload(Noun):
    """What comes along with a recorded ride."""

    rider: Annotated[str, Field(max_length=40, description="Whose ride it is; left out: the first rider's")] = ""


class TrackShape(Noun):
    """Turn the track round, or keep a part of it."""

    revision: Revision
    shape: Literal["reverse", "trim"]
    from_km: Annotated[float, Field(ge=0, le=50000)] = 0
    to_km: Annotated[float, Field(gt=0, le=50000)] | None = None
    start_date: TourDate | None = Field(None, description="Of the road turned round")


class SheetBody(Noun):
    """A sheet as text."""

    text: Annotated[str, Field(max_length=2_500_000)]


class SheetText(SheetBody):
    """The text of a file, and the sheets of a workbook."""

    sheets: list[SheetOfBook] = Field(
        [], description="All that hold anything, where there are several; the text is the first one's"
    )


class KitText(SheetBody):
    """A pasted or uploaded kit sheet, and what the rider says of its columns."""

    columns: tuple[ColumnChoice, ...] = Field((), max_length=200)
    answers: tuple[KitAnswer, ...] = Field((), max_length=2000)


class KitUnknown(Noun):
    """Things of the kit that say nothing of what they are though their names do, and what is asked of them."""

    things: list[Id]
    questions: list[KitQuestion]


class KitKnown(Noun):
    """That names may say what things are, and what the rider says of them."""

    revision: Revision
    answers: tuple[KitAnswer, ...] = Field((), max_length=2000)


class SheetImport(SheetBody):
    """A sheet that the rider has seen previewed and accepted."""

    revision: Revision
    replace: bool = Field(False, description="Replace what is there instead of adding to it")


class KitImport(SheetImport, KitText):
    """A kit sheet that the rider has seen previewed and accepted."""

    again: bool = Field(False, description="Also take the things whose name the kit has already")


class Places(Noun):
    """Where the things in hand could go, best places first."""

    places: list[PlaceFor]


class OutlookAnswer(Noun):
    """What a weather service tells of the next days of a tour, beside what was planned for."""

    days: list[ComparedDay]
    told_by: str
    told_at: dt.datetime | None = Field(description="When the service told it")
    stale: bool = Field(description="The service was silent now: this is what it told before")
    trouble: str = Field(description="Why nothing new came")


class Trial(Noun):
    """Parts of a tour to be looked at and not kept; what is left out stays as it is."""

    load: Load | None = None
    kit: tuple[Thing, ...] | None = None
    stores: Stores | None = None
    road: Road | None = None
    start_date: TourDate | None = None
    mend: Mend | None = Field(None, description="Tried on top of them")


class RehearsalAsked(Noun):
    """How often a tour is to be played."""

    plays: Annotated[int, Field(ge=FIRST_PLAYS, le=MOST_PLAYS)] = USUAL_PLAYS


class KeptRehearsal(Noun):
    """What was rehearsed of a tour as it stands."""

    rehearsal: Rehearsal | None = Field(description="The one with the most plays; None: nothing yet, or of another plan")
    usual: int = Field(USUAL_PLAYS, description="Plays where nothing else is asked")
    more: int = Field(MORE_PLAYS, description="For who wants to be surer")


class PlayAsked(Noun):
    """Which play is to be told."""

    number: Annotated[int, Field(ge=0, lt=MOST_PLAYS)]


class RiskAsked(Noun):
    """What is to be carried, and how seldom it may run out."""

    supply: CarriedSupply
    risk: Annotated[float, Field(ge=0.002, le=0.5, description="Share of tours like this on which it may run out [-]")] = 0.05
    plays: Annotated[int, Field(ge=FIRST_PLAYS, le=MOST_PLAYS)] = USUAL_PLAYS


class SparesAsked(Noun):
    """How seldom a part may be lacking."""

    risk: Annotated[float, Field(ge=0.002, le=0.5)] = 0.05
    plays: Annotated[int, Field(ge=FIRST_PLAYS, le=MOST_PLAYS)] = USUAL_PLAYS


class TwoPlansAsked(Trial):
    """Another plan to be held against the one that stands."""

    own_values: dict[str, float] | None = None
    variant_id: Id | None = Field(None, description="With the rig of a variant")
    turned: bool = Field(False, description="Ridden the other way")
    plays: Annotated[int, Field(ge=FIRST_PLAYS, le=MOST_PLAYS)] = USUAL_PLAYS


class Mends(Noun):
    """What helps against a finding, what ends it first."""

    mends: list[Mend]


class Ticked(Noun):
    """A thing in a carrier, as whoever packs ticks it."""

    carrier_id: Id
    thing_id: Id


class Tick(Ticked):
    """That it is in, or is not."""

    packed: bool


class Packed(Noun):
    """All that is packed already; it belongs to the tour, not to one screen."""

    ticked: list[Ticked]


class ProposalRequest(Noun):
    """Ask for a load."""

    revision: Revision
    rounds: Annotated[int, Field(ge=0, le=60, description="Rounds of the search; they grow longer")] = 8
    effort: Annotated[float, Field(ge=0, le=20, description="Effort of the solver, about seconds of one core")] = 1.0


class Repair(Noun):
    """A load changed by hand, to be put right around what is held."""

    revision: Revision
    what: Annotated[str, Field(min_length=1, max_length=200), OneLine]
    load: Load
    held: tuple[Id, ...] = Field((), max_length=200, description="Things that stay where the hand put them")


class Seen(Noun):
    """A change that needs nothing but the revision it was asked on."""

    revision: Revision


class Choices(Noun):
    """What could be otherwise on a bike."""

    choices: list[OtherBike]


class Rigs(Noun):
    """The rig that is ridden, then its variants."""

    rigs: list[RigFigures]


class SchoolRigs(Noun):
    """The bikes of a tour, hung anew by every school."""

    schools: list[SchoolRig]


class Loads(Noun):
    """The load that rides, then those kept under a name."""

    loads: list[LoadFigures]


class AimsAnswer(Noun):
    """What a load aims at, what the load as it stands pays for each aim, and ways of loading to choose from."""

    aims: list[Aim]
    schools: list[School]
    paid: list[Paid]


class ProposalAnswer(Noun):
    """The tour with the proposed load, and how good that is."""

    answer: TourAnswer
    proposal: Proposal


class LibraryPage(Noun):
    """Some of a rider's own things."""

    things: list[Owned]
    total: int = Field(description="All that were found, on this page or not")
    most: int = Field(description="So many a page")


class LibraryKits(Noun):
    """What a rider's things are packed with."""

    kits: list[KitOfThings]


class OwnThing(Noun):
    """A thing of the library as its owner now has it."""

    version: Revision
    thing: Thing


class OwnedAnswer(Noun):
    """A thing of the library after a change, and what else it changed."""

    owned: Owned
    remarks: list[str]


class NewOwned(Noun):
    """Things for the library."""

    things: Annotated[tuple[Thing, ...], Field(min_length=1, max_length=2000)]


class Chosen(Noun):
    """Things of a tour, or of the library, by their identifiers."""

    revision: Revision
    ids: Annotated[tuple[str, ...], Field(min_length=1, max_length=2000)]


class KeptInLibrary(Noun):
    """Things and bags of a tour, by their identifiers."""

    revision: Revision
    ids: Annotated[tuple[str, ...], Field(max_length=2000)] = ()
    carriers: Annotated[tuple[str, ...], Field(max_length=320, description="Bags of the rig")] = ()


class NewEntries(Noun):
    """Entries that a device noted, as often as it takes until they are acknowledged."""

    entries: Annotated[tuple[Entry, ...], Field(min_length=1, max_length=500)]


class Acknowledged(Noun):
    """Which entries are kept now; the device may forget them."""

    taken: list[UUID]
    otherwise: list[UUID] = Field(description="Of these, what arrived under the name of another entry; it is kept beside that")


class DiaryAnswer(Noun):
    """The diary of a tour, and what follows from it."""

    entries: list[Received] = Field(description="In the order in which they were noted")
    now: Now


class LaidTrack(Noun):
    """Where a recorded track ends on the road as planned."""

    km: float
    off_km: float = Field(description="How far the track's last point lies off the road")
    on_road: float = Field(description="Part of the track's points that lie on the road [-]")


class PutOn(Noun):
    """What is put on the simulated scale, or what is to befall it."""

    key: Annotated[str, Field(max_length=120, description="Something of the tour, with what was forgotten"), OneLine] | None = (
        None
    )
    kg: Annotated[float, Field(ge=0, le=1000)] | None = None
    drift_kg_per_min: Annotated[float, Field(ge=-10, le=10)] | None = None
    drop_s: Annotated[float, Field(ge=0, le=60, description="For so long its link is lost [s]")] | None = None
    zero: bool = False


class TakeMeasured(Noun):
    """A weighing that becomes the mass of its thing, bag or rider."""

    revision: Revision
    key: Annotated[str, Field(max_length=120), OneLine]


class TakeRate(Noun):
    """A learned rate for a tour."""

    revision: Revision = Field(description="Of the tour that takes it")
    into: Annotated[str, Field(max_length=60), OneLine]
    key: Annotated[str, Field(max_length=80), OneLine]


class HandedOn(Noun):
    """What a debrief told the library and the tours to come."""

    remarks: list[str]


class Ladder(Noun):
    """What each way to a lighter load costs, the cheapest first."""

    steps: list[LadderStep]
