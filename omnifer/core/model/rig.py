"""The rig: bikes, the mounts they offer, what is bolted on and what hangs there."""

from typing import Annotated, Literal, get_args

from pydantic import AfterValidator, Field, model_validator

from omnifer.core.model.carrier_kind import KINDS, CarrierKind, Dryness, Opening
from omnifer.core.model.part import BikePart, Lube, PartKind
from omnifer.core.model.quantities import (
    ON_THE_WAY,
    Id,
    LengthMm,
    MassKg,
    Name,
    Note,
    Noun,
    OneLine,
    PositionMm,
    Reach,
    Share,
    Side,
    VolumeL,
)

Mount = Literal[
    "rear_eyelets",
    "fork_eyelets",
    "fork_bolts",
    "handlebar",
    "stem",
    "top_tube",
    "frame_triangle",
    "down_tube_bolts",
    "seat_tube_bolts",
    "under_down_tube_bolts",
    "saddle",
    "rear_axle",
    "riders_back",
]
MOUNTS: frozenset[str] = frozenset(get_args(Mount))
SupportKind = Literal["rear_rack", "front_rack", "fork_cage", "under_tube_cage", "trailer_one_wheel", "trailer_two_wheels"]
PARTS = frozenset(kind for kind, row in KINDS.items() if row.part is not None)
"""Carriers that may be part of another one and count towards its limit; all but those of either kind always are."""
STEADIED = 1.5
"""Times the mass that a bag bears without swaying once a strap or a stabiliser holds it [-]; practice."""
LIGHTEST_KG = 15.0
"""Nobody rides who weighs less [kg]."""
Post = Literal["fixed", "suspension", "dropper"]
Source = Literal["maker", "measured", "default"]
Price = Annotated[float, Field(ge=0, le=100_000, description="In the tour's money")]
TyreKind = Literal["light", "usual", "armoured"]
Tread = Literal["slick", "mixed", "knobbly"]
Valve = Literal["presta", "schrader", "woods"]
Brakes = Literal["rim", "disc", "hub"]
Posture = Literal["hoods", "tops", "flat", "upright"]


class TrailerFrame(Noun):
    """The measures of a trailer that its statics need."""

    hitch_to_axle_mm: Annotated[float, Field(ge=200, le=4000)]
    own_mass_ahead_of_axle_mm: PositionMm = Field(description="Empty trailer's centre of gravity ahead of its axle")
    wheel_radius_mm: LengthMm = 203
    bead_seat_mm: Annotated[float, Field(ge=200, le=700, description="Of its tyre, ETRTO [mm]")] = 305
    hitch_most_kg: MassKg = Field(20, description="Most the hitch may carry; below 0 it lifts and the trailer sways")
    drag_area_m2: Annotated[float, Field(ge=0, le=1)] = 0.08


class Support(Noun):
    """A rack, cage or trailer: bolted to a mount, with a limit for all that hangs on it, bags included."""

    id: Id
    kind: SupportKind
    name: Name
    mount: Mount
    side: Side = "middle"
    mass_kg: MassKg
    limit_kg: MassKg
    trailer: TrailerFrame | None = None
    bolts: Annotated[int, Field(ge=0, le=8, description="Bolts it needs at its mount")] = 2
    improvised: bool = Field(False, description="Held by ties or tape: allowed, to be looked at more often")
    price: Price | None = None
    source: Source = "default"


class OuterSize(Noun):
    """A carrier as it was measured, filled, from outside."""

    length_mm: Annotated[float, Field(ge=20, le=2000, description="Fore and aft")]
    height_mm: Annotated[float, Field(ge=20, le=2000)]
    width_mm: Annotated[float, Field(ge=20, le=2000)]


class Carrier(Noun):
    """A bag, box or cage that holds things, or a compartment, pocket or net of one."""

    id: Id
    kind: CarrierKind
    name: Name
    hangs_on: Annotated[str, Field(description="Identifier of a support or of a larger carrier on the same bike, or a mount")]
    side: Side = "middle"
    mass_kg: MassKg
    volume_l: VolumeL = Field(description="Usable volume: what goes in with ease")
    most_l: VolumeL = Field(0, description="Stuffed to the brim; 0: no more than the usable volume")
    limit_kg: MassKg
    longest_mm: LengthMm = Field(description="Longest thing that lies in it")
    thick_mm: LengthMm | None = Field(None, description="Thickest thing that goes in; None: the usual of its kind")
    size: OuterSize | None = Field(None, description="Measured from outside; None: the catalogue's shape at its volume")
    opening: Opening = "none"
    locks: bool = Field(False, description="Closes with a key or has an eye for a lock")
    reach: Reach = Field(description="The most urgent moment at which a hand can find a thing in here")
    dryness: Dryness
    leaks: Note = Field("", description="Where it lets water in, as its rider knows")
    liner: bool = Field(False, description="A second wall inside that keeps all of it dry: a liner, or a dry bag as large as it")
    steadied: bool = Field(False, description="A strap more or a stabiliser holds it still")
    improvised: bool = Field(False, description="Held by ties, tape or cords: allowed, to be looked at more often")
    stand_off_mm: Annotated[float, Field(ge=0, le=300)] | None = Field(
        None, description="How far its back is held before the bar it hangs at; None: the usual"
    )
    drag_area_m2: Annotated[float, Field(ge=0, le=0.5)] | None = Field(
        None, description="That it adds, full; None: the usual of its kind"
    )
    straps: Annotated[int, Field(ge=0, le=12, description="Straps that hold it, each to be checked")] = 0
    lifts_off: bool = Field(False, description="Comes off by hand and goes along into a shop")
    colour: Annotated[str, Field(max_length=40, description="Colour or label of the rider's own"), OneLine] = ""
    zone: Annotated[
        str, Field(max_length=40, description="Where its rider counts it when weighing; empty: by its place"), OneLine
    ] = ""
    price: Price | None = None
    source: Source = "default"
    library_id: Id | None = Field(None, description="The rider's own bag that it is")

    @property
    def brim_l(self) -> float:
        """Litres that go in at most."""
        return max(self.most_l, self.volume_l)

    @property
    def admits_mm(self) -> float:
        """Thickness that goes in at most [mm]."""
        return KINDS[self.kind].thick_mm if self.thick_mm is None else self.thick_mm

    @property
    def sways_from_kg(self) -> float | None:
        """More in it swings unpleasantly; None: it does not swing [kg]."""
        usual = KINDS[self.kind].sway_limit_kg
        return usual if usual is None or not self.steadied else usual * STEADIED

    @property
    def takes_food(self) -> bool:
        """Whether food may ride in it."""
        return KINDS[self.kind].food and self.dryness != "open"

    @property
    def keeps_room(self) -> bool:
        """Whether a load keeps room in it for what is bought on the way."""
        return self.takes_food and self.reach in ON_THE_WAY


def _in_order(sources: dict[str, Source]) -> dict[str, Source]:
    """The same by name, so that a tour is written alike wherever it was kept."""
    return dict(sorted(sources.items()))


class FrameTriangle(Noun):
    """The frame's four sides from corner to corner, centre to centre of the tubes: enough, with both angles, to draw it."""

    seat_tube_mm: Annotated[float, Field(ge=200, le=900)]
    top_tube_mm: Annotated[float, Field(ge=200, le=900)]
    head_tube_mm: Annotated[float, Field(ge=50, le=400)]
    down_tube_mm: Annotated[float, Field(ge=300, le=1000)]


class Bike(Noun):
    """A bicycle with its measures, limits, supports and carriers."""

    id: Id
    name: Name
    rider_id: Id
    kind: Annotated[str, Field(max_length=40), OneLine] = "touring"
    mass_kg: Annotated[float, Field(ge=1, le=200, description="Bare bike [kg]")]
    mass_x_mm: PositionMm = Field(480, description="Centre of gravity of the bare bike ahead of the rear contact point")
    mass_y_mm: PositionMm = 500
    maximum_system_kg: MassKg = Field(description="Maker's limit for bike, rider and all that rides on the bike")
    front_wheel_limit_kg: MassKg
    rear_wheel_limit_kg: MassKg
    wheelbase_mm: Annotated[float, Field(ge=700, le=2500)] = 1060
    chainstay_mm: Annotated[float, Field(ge=300, le=700)] = 460
    bottom_bracket_drop_mm: Annotated[float, Field(ge=-50, le=150)] = 75
    bare_front_kg: MassKg | None = Field(None, description="Front wheel of the bare bike on a scale; None: from mass_x_mm")
    bead_seat_mm: Annotated[float, Field(ge=250, le=700, description="Second figure of the tyre's size, ETRTO")] = 622
    tyre_width_mm: Annotated[float, Field(ge=18, le=130, description="First figure of the tyre's size, ETRTO")] = 42
    wheel_radius_mm: Annotated[float, Field(ge=150, le=400)] | None = Field(
        None, description="Rolled out by its rider; None: from the tyre's size"
    )
    narrowest_mm: Annotated[float, Field(ge=20, le=200)] | None = Field(
        None, description="Least free width for a tyre between stays, fork and mudguards; None: not measured"
    )
    valve: Valve = "presta"
    brakes: Brakes = "disc"
    rim_depth_mm: Annotated[float, Field(ge=0, le=100, description="What a valve must come through [mm]")] = 20
    tubeless: bool = False
    tyre_kind: TyreKind = Field("usual", description="armoured: heavier to turn, seldom punctured; light: the other way round")
    tread: Tread = Field("mixed", description="slick rolls on asphalt and slips in mud, knobbly the other way round")
    pedals: Literal["flat", "clip_in"] = Field("flat", description="clip_in: a shoe that is clipped in, and another off the bike")
    mudguards: bool = False
    speeds: Annotated[int, Field(ge=1, le=14, description="Sprockets, or gears of a hub")] = 10
    spokes_mm: tuple[LengthMm, ...] = Field((), max_length=8, description="Lengths of its spokes; none given: not known")
    hanger: Annotated[str, Field(max_length=40, description="Shape of its derailleur hanger, as its rider calls it"), OneLine] = (
        ""
    )
    pads: Annotated[str, Field(max_length=40, description="Shape of its brake pads, as its rider calls it"), OneLine] = ""
    heads: tuple[Annotated[str, Field(min_length=1, max_length=30), OneLine], ...] = Field(
        (), max_length=30, description="Heads of its bolts (hex 5, T25, ...); none given: not known"
    )
    state: Literal["serviced", "usual", "worn"] = Field("usual", description="serviced: just before the tour")
    parts: tuple[BikePart, ...] = Field((), max_length=20, description="What its rider says of what wears, each kind once")
    lube: Lube = Field("wet", description="What its chain is oiled with")
    hoses: bool = Field(False, description="Brakes work by fluid in hoses")
    seat_angle_deg: Annotated[float, Field(ge=60, le=82)] = 72.5
    head_angle_deg: Annotated[float, Field(ge=60, le=80)] = 71.5
    fork_rake_mm: Annotated[float, Field(ge=0, le=120)] = 50
    stack_mm: Annotated[float, Field(ge=400, le=800)] = 603
    frame_reach_mm: Annotated[float, Field(ge=250, le=600)] = 377
    triangle: FrameTriangle | None = Field(None, description="Measured sides; they then count instead of stack and reach")
    saddle_height_mm: Annotated[float, Field(ge=400, le=1000, description="Bottom bracket to saddle top")] = 720
    drop_bar: bool = True
    posture: Posture | None = Field(None, description="Where the hands are most of the day; None: hoods, or flat bar")
    ridden_front_kg: MassKg | None = Field(None, description="Front wheel on a scale, rider on the bare bike; None: by posture")
    ridden_rear_kg: MassKg | None = Field(None, description="Rear wheel, weighed alike")
    cables: Literal["before", "inside"] = Field("before", description="Run in bows before the head tube, or inside bar and frame")
    bar_inner_width_mm: Annotated[float, Field(ge=200, le=900, description="Free width for a roll, between levers or grips")] = (
        420
    )
    crank_mm: Annotated[float, Field(ge=130, le=190)] = 170
    post: Post = "fixed"
    post_travel_mm: Annotated[float, Field(ge=0, le=250, description="How far the saddle can come down or sag")] = 0
    fork_travel_mm: Annotated[float, Field(ge=0, le=250, description="Travel of a suspension fork")] = 0
    fork_bolts: Annotated[int, Field(ge=0, le=4, description="Bolts at each fork leg")] = 3
    tyre_most_bar: Annotated[float, Field(gt=0, le=12, description="Lower of the maxima of tyre and rim")] = 5
    tyre_least_bar: Annotated[float, Field(gt=0, le=8, description="Least that the tyre's maker allows")] = 2
    hookless: bool = Field(False, description="Rims without hooks bear 5 bar at most")
    price: Price | None = None
    front_share_low: Share = Field(0.33, description="Steady range of the front wheel's share, without rider")
    front_share_high: Share = 0.47
    drag_area_m2: Annotated[float, Field(gt=0, le=2)] = 0.55
    rolling_resistance: Annotated[float, Field(gt=0, le=0.1)] = 0.009
    low_chainring: Annotated[int, Field(ge=10, le=70, description="Teeth of the lowest gear's chainring")] = 26
    low_cog: Annotated[int, Field(ge=9, le=60, description="Teeth of the lowest gear's sprocket")] = 34
    low_hub_ratio: Annotated[float, Field(gt=0, le=4, description="Lowest ratio of a gear hub; 1 without one")] = 1
    sources: Annotated[dict[Annotated[str, Field(max_length=40), OneLine], Source], AfterValidator(_in_order)] = Field(
        {}, max_length=60, description="Where a figure of the bike is from, by its name; default where nothing is said"
    )
    mounts: tuple[Mount, ...]
    supports: tuple[Support, ...] = Field((), max_length=20)
    carriers: tuple[Carrier, ...] = Field((), max_length=40)

    @model_validator(mode="after")
    def _weighings_agree(self) -> "Bike":
        if (self.ridden_front_kg is None) != (self.ridden_rear_kg is None):
            raise ValueError(f"the rider on {self.name!r} was weighed at one wheel only: weigh both, or neither")
        both = (self.ridden_front_kg or 0.0) + (self.ridden_rear_kg or 0.0)
        if self.ridden_front_kg is not None and both < self.mass_kg + LIGHTEST_KG:
            raise ValueError(f"with its rider on {self.name!r} weighs hardly more than alone: weigh both wheels again")
        kinds = [part.kind for part in self.parts]
        if len(set(kinds)) < len(kinds):
            raise ValueError(f"of {self.name!r} the same part is told twice")
        if self.tyre_least_bar > self.tyre_most_bar:
            raise ValueError(f"the tyres of {self.name!r} want more than they bear: least above most pressure")
        return self

    def part(self, kind: PartKind) -> BikePart:
        """What is said of a part; nothing said: a part of which nothing is known."""
        return next((part for part in self.parts if part.kind == kind), BikePart(kind=kind))

    def with_part(self, part: BikePart) -> "Bike":
        """The bike with a part as it is told now."""
        others = (one for one in self.parts if one.kind != part.kind)
        return self.model_copy(update={"parts": (*others, part)})

    @property
    def radius_mm(self) -> float:
        """Of the wheels with their tyres: half the bead seat's diameter and the tyre's width (ETRTO), or as rolled out."""
        return self.wheel_radius_mm or self.bead_seat_mm / 2 + self.tyre_width_mm

    @property
    def own_x_mm(self) -> float:
        """Centre of gravity of the bare bike ahead of the rear contact point."""
        return self.mass_x_mm if self.bare_front_kg is None else self.bare_front_kg / self.mass_kg * self.wheelbase_mm


class Rig(Noun):
    """All bikes of the tour."""

    bikes: tuple[Bike, ...] = Field((), max_length=8)
