"""The rig: bikes, the mounts they offer, what is bolted on and what hangs there."""

from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import Id, LengthMm, MassKg, Name, Noun, PositionMm, Reach, Share, Side, VolumeL

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
SupportKind = Literal["rear_rack", "front_rack", "fork_cage", "under_tube_cage", "trailer_one_wheel", "trailer_two_wheels"]
CarrierKind = Literal[
    "rear_pannier",
    "front_pannier",
    "rack_top_bag",
    "handlebar_box",
    "handlebar_roll",
    "top_tube_bag",
    "stem_bag",
    "half_frame_bag",
    "full_frame_bag",
    "saddle_pack",
    "fork_bag",
    "bottle_cage",
    "under_tube_bag",
    "trailer_bag",
    "backpack",
]
Dryness = Literal["waterproof", "splash", "open"]


class TrailerFrame(Noun):
    """The measures of a trailer that its statics need."""

    hitch_to_axle_mm: Annotated[float, Field(ge=200, le=4000)]
    own_mass_ahead_of_axle_mm: PositionMm = Field(description="Empty trailer's centre of gravity ahead of its axle")
    wheel_radius_mm: LengthMm = 203
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


class Carrier(Noun):
    """A bag, box or cage that holds things."""

    id: Id
    kind: CarrierKind
    name: Name
    hangs_on: Annotated[str, Field(description="Identifier of a support on the same bike, or a mount")]
    side: Side = "middle"
    mass_kg: MassKg
    volume_l: VolumeL
    limit_kg: MassKg
    longest_mm: LengthMm
    reach: Reach = Field(description="The most urgent moment at which a hand can find a thing in here")
    dryness: Dryness


class Bike(Noun):
    """A bicycle with its measures, limits, supports and carriers."""

    id: Id
    name: Name
    rider_id: Id
    kind: Annotated[str, Field(max_length=40)] = "touring"
    mass_kg: Annotated[float, Field(ge=1, le=200, description="Bare bike [kg]")]
    mass_x_mm: PositionMm = Field(480, description="Centre of gravity of the bare bike ahead of the rear contact point")
    mass_y_mm: PositionMm = 500
    maximum_system_kg: MassKg = Field(description="Maker's limit for bike, rider and all that rides on the bike")
    front_wheel_limit_kg: MassKg
    rear_wheel_limit_kg: MassKg
    wheelbase_mm: Annotated[float, Field(ge=700, le=2500)] = 1060
    chainstay_mm: Annotated[float, Field(ge=300, le=700)] = 460
    bottom_bracket_drop_mm: Annotated[float, Field(ge=-50, le=150)] = 75
    wheel_radius_mm: Annotated[float, Field(ge=150, le=400)] = 351
    tyre_width_mm: Annotated[float, Field(ge=18, le=130)] = 42
    seat_angle_deg: Annotated[float, Field(ge=60, le=82)] = 72.5
    head_angle_deg: Annotated[float, Field(ge=60, le=80)] = 71.5
    fork_rake_mm: Annotated[float, Field(ge=0, le=120)] = 50
    stack_mm: Annotated[float, Field(ge=400, le=800)] = 603
    reach_mm: Annotated[float, Field(ge=250, le=600)] = 377
    saddle_height_mm: Annotated[float, Field(ge=400, le=1000, description="Bottom bracket to saddle top")] = 720
    drop_bar: bool = True
    front_share_low: Share = Field(0.33, description="Steady range of the front wheel's share, without rider")
    front_share_high: Share = 0.47
    drag_area_m2: Annotated[float, Field(gt=0, le=2)] = 0.55
    rolling_resistance: Annotated[float, Field(gt=0, le=0.1)] = 0.009
    low_chainring: Annotated[int, Field(ge=10, le=70, description="Teeth of the lowest gear's chainring")] = 26
    low_cog: Annotated[int, Field(ge=9, le=60, description="Teeth of the lowest gear's sprocket")] = 34
    low_hub_ratio: Annotated[float, Field(gt=0, le=4, description="Lowest ratio of a gear hub; 1 without one")] = 1
    mounts: tuple[Mount, ...]
    supports: tuple[Support, ...] = Field((), max_length=20)
    carriers: tuple[Carrier, ...] = Field((), max_length=40)


class Rig(Noun):
    """All bikes of the tour."""

    bikes: tuple[Bike, ...] = Field((), max_length=8)
