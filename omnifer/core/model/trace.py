"""A bike as it is loaded along the tour: where its parts are, and what every bag and wheel bears at each moment."""

from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import CarriedSupply, Noun
from omnifer.core.model.rig import FrameTriangle
from omnifer.core.model.stance import Clash, HangingPlace, Stance


class Point(Noun):
    """A place in the middle plane of a bike [mm]."""

    x: float
    y: float


class Box(Noun):
    """The space a carrier takes on its bike [mm]."""

    x0: float
    x1: float
    y0: float
    y1: float
    z0: float
    z1: float


class Shape(Noun):
    """The outline of a carrier in the bike's middle plane [mm], how it closes and what holds it."""

    corners: list[Point]
    closure_mm: float | None = Field(description="Height to which a rolled closure stands; None: it has none")
    lid: bool
    straps: list[float] = Field(description="In parts of its length")
    open: bool


class FramePoints(Noun):
    """Corner points of a frame, for its drawing [mm]."""

    rear_axle: Point
    front_axle: Point
    bottom_bracket: Point
    seat_cluster: Point
    saddle: Point
    head_top: Point
    head_bottom: Point
    bar: Point


Column = Annotated[list[float], Field(description="A value for each moment; a single one where it never changes")]


CarrierState = Literal["over", "too_full", "pressed", "full", "leaks", "improvised", "pinned"]


class CarrierTrace(Noun):
    """What one carrier holds at each moment: in all [kg, l], and by material [l]."""

    carrier_id: str
    room_l: float = Field(description="What goes in with ease, inner compartments left out [l]")
    admits_mm: float = Field(description="Thickness that goes in at most [mm]")
    states: list[CarrierState] = Field(description="At its fullest moment, the worst first")
    kg: Column
    litres: Column
    gear_l: Column = Field(description="Volume of the things, fuel included")
    fuel_l: Column
    rigid_water: bool = Field(description="Its water stands in its vessels and takes no room besides")
    on_rider: bool = Field(description="Worn by the rider, above the bike")
    supply_l: dict[CarriedSupply, Column] = Field(description="Of each supply in it that takes room of its own [l]")
    fullest_kg: float = Field(description="Compartments, pockets and nets included")
    fullest_l: float


LimitKind = Literal["bag_mass", "bag_volume", "support", "hitch", "pushed", "front_wheel", "rear_wheel", "system"]


class LimitTrace(Noun):
    """A limit at the moment that is hardest on it: the heaviest, or for a least the lightest."""

    key: str
    kind: LimitKind
    owner_id: str = Field(description="Carrier, support or bike whose limit it is")
    name: str
    worst: float = Field(description="[kg], of litres [l]; bags, bike and rider included where they count")
    least: float | None
    most: float | None
    over: bool = Field(description="Beyond its bounds by more than rounding")


class AtAxles(Noun):
    """A column for each axle."""

    front: Column
    rear: Column


class FixtureTrace(Noun):
    """A thing on a bike that is not in a bag, for a part of the road."""

    thing_id: str
    name: str
    where: str = Field(description="In words")
    at: Point
    on_body: bool
    kg: float = Field(description="All of them, empty where they hold something")
    from_km: float
    to_km: float | None = Field(description="None: to the end")


class BikeTrace(Noun):
    """Weights under one bike at each moment, without its rider, and the rider's constant part."""

    bike_id: str
    total_kg: Column
    front_kg: Column
    rear_kg: Column
    trailer_kg: Column
    hitch_kg: Column
    left_kg: Column = Field(description="In carriers on the left side, bags included")
    right_kg: Column
    right_over_left_kg: AtAxles = Field(description="What the right is heavier by at each axle, bags included")
    centre_x_mm: Column
    centre_y_mm: Column
    front_share: Column
    steady_low: float = Field(description="Steady range of the front wheel's share, by the aims or the bike")
    steady_high: float
    rider_front_kg: float = Field(description="Of the rider with what is worn and in pockets, at most")
    rider_rear_kg: float
    minutes_per_kg: float = Field(description="What one kilogram more on this bike costs the party [min/day]")
    frame: FramePoints
    radius_mm: float = Field(description="Of the wheels with their tyres")
    own_front_kg: float = Field(description="Front wheel of the bare bike, without racks and bags")
    triangle: FrameTriangle = Field(description="The frame's sides as drawn")
    boxes: dict[str, Box]
    shapes: dict[str, Shape]
    carriers: list[CarrierTrace]
    limits: list[LimitTrace]
    stance: Stance
    clashes: list[Clash]
    places: list[HangingPlace]
    fixtures: list[FixtureTrace]
