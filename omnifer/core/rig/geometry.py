"""Where every part of a rig is, in millimetres: x forward from the rear contact point, y up, z to the right."""

import math
from dataclasses import dataclass
from typing import assert_never

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.people import Rider
from omnifer.core.model.practice import USUAL, Practice
from omnifer.core.model.rig import Bike, Carrier, FrameTriangle, Posture, Support, TrailerFrame
from omnifer.core.model.trace import Box, FramePoints, Point
from omnifer.core.physics.seated import seated_centre
from omnifer.core.rig.parts import parts_of, whole_of

HEAD_TUBE_MM = 145.0
SEAT_TUBE_SHARE = 0.86
"""Length of the seat tube over the stack; practice for a level-ish top tube."""
STEM_FORWARD_MM, STEM_UP_MM = 75.0, 38.0
POSTURES: dict[Posture, tuple[float, tuple[float, float]]] = {
    "hoods": (46, (110, 40)), "tops": (56, (0, 10)), "flat": (63, (-20, 20)), "upright": (72, (-90, 90)),
}  # fmt: skip
"""How far the trunk is from level [°], and where the hands are from the bar [mm]; practice."""
LEAST_DRAWN_L = 0.2
"""A smaller bag is drawn as if it held so much [l]."""
NO_TRAILER_MM, NO_TRAILER_AHEAD_MM = 1100.0, 400.0
"""Hitch to axle, and the trailer's own mass ahead of its axle, of a trailer that has no measures yet [mm]; practice."""
TRAILER_DECK_MM = 214.0
TRAILER_HEAP_MM = 380.0
"""Height above a trailer's deck at which things are lashed [mm]; practice."""


@dataclass(frozen=True)
class Vector:
    """A point or direction in the bike's middle plane [mm]."""

    x: float
    y: float

    def plus(self, other: "Vector", times: float = 1.0) -> "Vector":
        """This point moved along another."""
        return Vector(self.x + other.x * times, self.y + other.y * times)

    def point(self) -> Point:
        """As the assessment shows it."""
        return Point(x=round(self.x, 1), y=round(self.y, 1))


@dataclass(frozen=True)
class Frame:
    """The corner points of a bicycle's frame and its contact points."""

    bike: Bike
    rear_axle: Vector
    front_axle: Vector
    bottom_bracket: Vector
    seat_cluster: Vector
    saddle: Vector
    head_top: Vector
    head_bottom: Vector
    bar: Vector

    @classmethod
    def of(cls, bike: Bike) -> "Frame":
        """The frame that a bike's measures describe."""
        radius = bike.radius_mm
        behind = math.sqrt(max(bike.chainstay_mm**2 - bike.bottom_bracket_drop_mm**2, 1.0))
        bottom = Vector(behind, radius - bike.bottom_bracket_drop_mm)
        seat = math.radians(bike.seat_angle_deg)
        up_seat = Vector(-math.cos(seat), math.sin(seat))
        head = math.radians(bike.head_angle_deg)
        down_head = Vector(math.cos(head), -math.sin(head))
        sides = closed_frame(bike, bottom, up_seat, down_head) if bike.triangle else None
        if sides is None:
            seat_cluster = bottom.plus(up_seat, SEAT_TUBE_SHARE * bike.stack_mm)
            head_top = bottom.plus(Vector(bike.frame_reach_mm, bike.stack_mm))
            head_bottom = head_top.plus(down_head, HEAD_TUBE_MM)
        else:
            seat_cluster, head_top, head_bottom = sides
        return cls(
            bike=bike,
            rear_axle=Vector(0, radius),
            front_axle=Vector(bike.wheelbase_mm, radius),
            bottom_bracket=bottom,
            seat_cluster=seat_cluster,
            saddle=bottom.plus(up_seat, bike.saddle_height_mm),
            head_top=head_top,
            head_bottom=head_bottom,
            bar=head_top.plus(Vector(STEM_FORWARD_MM, STEM_UP_MM)),
        )

    def points(self) -> FramePoints:
        """The points as the drawing takes them."""
        names = list(FramePoints.model_fields)
        return FramePoints(**{name: getattr(self, name).point() for name in names})

    def triangle(self) -> FrameTriangle:
        """The frame's four sides as they are drawn."""
        corners = (self.bottom_bracket, self.seat_cluster, self.head_top, self.head_bottom)
        ends = zip(corners, (*corners[1:], corners[0]), strict=True)
        seat, top, head, down = (round(math.dist((a.x, a.y), (b.x, b.y)), 1) for a, b in ends)
        return FrameTriangle.model_construct(seat_tube_mm=seat, top_tube_mm=top, head_tube_mm=head, down_tube_mm=down)

    def rider_centre(self, rider: Rider, usual: Practice = USUAL) -> Vector:
        """Centre of gravity of the seated rider, by height and posture; forwards as weighed, where both wheels were."""
        bike = self.bike
        lean, hands = POSTURES[bike.posture or ("hoods" if bike.drop_bar else "flat")]
        x, y = seated_centre(
            10 * (rider.height_cm or usual.rider_height_cm), lean, (self.bar.x + hands[0], self.bar.y + hands[1]),
            (self.bottom_bracket.x, self.bottom_bracket.y), (self.saddle.x, self.saddle.y), bike.crank_mm,
        )  # fmt: skip
        if bike.ridden_front_kg is not None and bike.ridden_rear_kg is not None:
            body_kg = bike.ridden_front_kg + bike.ridden_rear_kg - bike.mass_kg
            x = (bike.ridden_front_kg * bike.wheelbase_mm - bike.mass_kg * bike.own_x_mm) / body_kg
        return Vector(x, y)

    def between(self, a: Vector, b: Vector, share: float) -> Vector:
        """A point on the line from a to b."""
        return Vector(a.x + share * (b.x - a.x), a.y + share * (b.y - a.y))

    def carrier_box(self, carrier: Carrier) -> Box:
        """The space a carrier takes: as measured, or the catalogue's shape at the carrier's own volume."""
        whole = whole_of(self.bike, carrier)
        row = KINDS[carrier.kind]
        size = carrier.size
        sides = row.box_mm if size is None else (size.length_mm, size.height_mm, size.width_mm)
        scale = 1.0 if size else (max(carrier.volume_l, LEAST_DRAWN_L) / row.volume_l) ** (1 / 3)
        long, high, wide = (side * scale for side in sides)
        if whole is not carrier:
            return self._part_box(carrier, whole, (long, high, wide))
        centre, inner = self._carrier_place(carrier, long, high)
        if carrier.side == "middle":
            z0, z1 = -wide / 2, wide / 2
        elif carrier.side == "right":
            z0, z1 = inner, inner + wide
        else:
            z0, z1 = -inner - wide, -inner
        return Box(
            x0=round(centre.x - long / 2, 1),
            x1=round(centre.x + long / 2, 1),
            y0=round(centre.y - high / 2, 1),
            y1=round(centre.y + high / 2, 1),
            z0=round(z0, 1),
            z1=round(z1, 1),
        )

    def _part_box(self, carrier: Carrier, whole: Carrier, size: tuple[float, float, float]) -> Box:
        """The space of a compartment, pocket or net, from that of the bag it is part of."""
        box = self.carrier_box(whole)
        long, high, wide = size
        across, lift, _ = KINDS[carrier.kind].offset_mm
        middle = (box.x0 + box.x1) / 2 + across
        match KINDS[carrier.kind].anchor:
            case "bag_layer":
                # Compartments lie one above the other, each with its share of the bag's height.
                inner = [part for part in parts_of(self.bike, whole) if KINDS[part.kind].anchor == "bag_layer"]
                below = sum(part.volume_l for part in inner[: inner.index(carrier)])
                tall = (box.y1 - box.y0) / max(whole.volume_l, below + carrier.volume_l)
                return box.model_copy(
                    update={"y0": box.y0 + tall * below, "y1": box.y0 + tall * (below + carrier.volume_l)},
                )
            case "bag_wall":
                share = min(carrier.volume_l / max(whole.volume_l, carrier.volume_l), 1.0)
                return box.model_copy(update={"x0": box.x1 - share * (box.x1 - box.x0)})
            case "bag_top":
                return box.model_copy(update={"y0": box.y1, "y1": box.y1 + high})
            case "bag_side" if carrier.side == "middle":
                return box.model_copy(update={"x0": box.x0 - wide, "x1": box.x0, "y1": min(box.y0 + high, box.y1)})
            case "bag_side":
                outer = (box.z0 - wide, box.z0) if carrier.side == "left" else (box.z1, box.z1 + wide)
                y0 = box.y0 + lift
                return Box(x0=middle - long / 2, x1=middle + long / 2, y0=y0, y1=y0 + high, z0=outer[0], z1=outer[1])
            case anchor:
                raise ValueError(f"a carrier anchored at {anchor} is no part of another")

    def _carrier_place(self, carrier: Carrier, long: float, high: float) -> tuple[Vector, float]:
        """Centre of a carrier in the middle plane, and the distance of its inner side from that plane [mm]."""
        row = KINDS[carrier.kind]
        x, y, inner = row.offset_mm
        radius, bike = self.bike.radius_mm, self.bike
        rack_top = 2 * radius + 50
        low_down_tube = self.between(self.bottom_bracket, self.head_bottom, 0.28)
        match row.anchor:
            case "rear_rack_side" | "rack_cage":
                return Vector(x, rack_top + y - high / 2), inner
            case "front_rack_side":
                return Vector(bike.wheelbase_mm + x, radius + y - high / 2), inner
            case "rack_top":
                return Vector(x, rack_top + y + high / 2), inner
            case "on_top" | "bag_top":
                trailer = self.trailer()
                if trailer is not None and carrier.hangs_on == trailer.id:
                    return Vector(self._trailer_axle_x() + 200, TRAILER_DECK_MM + TRAILER_HEAP_MM + high / 2), inner
                return Vector(x, rack_top + y + self._top_bag_height() + high / 2), inner
            case "bar":
                off = x if carrier.stand_off_mm is None else carrier.stand_off_mm
                return Vector(self.bar.x + off + long / 2, self.bar.y + y - high / 2), inner
            case "top_tube":
                at = self.between(self.head_top, self.seat_cluster, 0.06)
                return Vector(at.x + x - long / 2, at.y + y + high / 2), inner
            case "stem":
                return Vector(self.bar.x + x, self.bar.y + y + high / 2), inner
            case "triangle_top":
                middle = self.between(self.seat_cluster, self.head_top, 0.5)
                return Vector(middle.x + x, middle.y + y - high / 2), inner
            case "triangle":
                middle = self.between(self.seat_cluster, self.head_bottom, 0.5)
                return Vector(middle.x + x, self.between(self.bottom_bracket, middle, 0.62).y + y), inner
            case "saddle":
                return Vector(self.saddle.x + x - long / 2, self.saddle.y + y - high / 2), inner
            case "fork":
                leg = self.between(self.head_bottom, self.front_axle, 0.62)
                return Vector(leg.x + x, leg.y + y), inner
            case "tube":
                at = self._on_tube(carrier)
                return Vector(at.x + x, at.y + y), inner if carrier.side != "middle" else 0.0
            case "under_tube":
                return Vector(low_down_tube.x + x, low_down_tube.y + y), inner
            case "trailer":
                frame = self.trailer_frame()
                ahead = frame.own_mass_ahead_of_axle_mm if frame else NO_TRAILER_AHEAD_MM
                return Vector(self._trailer_axle_x() + max(ahead + x, 0), TRAILER_DECK_MM + y + high / 2), inner
            case "back" | "hip" | "shirt":
                return Vector(self.saddle.x + x, self.saddle.y + y), inner
            case "bag_layer" | "bag_wall" | "bag_side":
                raise ValueError(f"{carrier.name!r} is part of a bag that is not there")
            case _:
                assert_never(row.anchor)

    def _on_tube(self, carrier: Carrier) -> Vector:
        """Middle of a bottle in its cage, by the bolts that hold it."""
        if carrier.hangs_on == "seat_tube_bolts":
            return self.between(self.bottom_bracket, self.seat_cluster, 0.44).plus(Vector(55, 0))
        if carrier.hangs_on == "under_down_tube_bolts":
            return self.between(self.bottom_bracket, self.head_bottom, 0.28).plus(Vector(45, -50))
        if carrier.side != "middle":
            return self.between(self.head_bottom, self.front_axle, 0.62)
        return self.between(self.bottom_bracket, self.head_bottom, 0.5).plus(Vector(-44, 40))

    def _trailer_axle_x(self) -> float:
        frame = self.trailer_frame()
        return -(frame.hitch_to_axle_mm if frame else NO_TRAILER_MM)

    def _top_bag_height(self) -> float:
        """Height of the roll on the rear rack, on which things are lashed [mm]."""
        boxes = (self.carrier_box(c) for c in self.bike.carriers if KINDS[c.kind].anchor == "rack_top")
        return max((box.y1 - box.y0 for box in boxes), default=0.0)

    def trailer_frame(self) -> TrailerFrame | None:
        """Measures of the trailer hitched to the bike, None where there is none."""
        trailer = self.trailer()
        return trailer.trailer if trailer else None

    def trailer(self) -> Support | None:
        """The trailer hitched to the bike, if any."""
        return next((s for s in self.bike.supports if s.trailer is not None), None)

    def support_centre(self, support: Support) -> Vector:
        """Centre of gravity of a bare rack, cage or trailer."""
        radius = self.bike.radius_mm
        if support.trailer is not None:
            axle_x = -support.trailer.hitch_to_axle_mm
            return Vector(axle_x + support.trailer.own_mass_ahead_of_axle_mm, support.trailer.wheel_radius_mm + 40)
        match support.kind:
            case "rear_rack":
                return Vector(-40, 1.6 * radius)
            case "front_rack":
                return Vector(self.bike.wheelbase_mm, 1.35 * radius)
            case "fork_cage":
                return self.between(self.head_bottom, self.front_axle, 0.62)
            case "under_tube_cage":
                return self.between(self.bottom_bracket, self.head_bottom, 0.3)
            case "trailer_one_wheel" | "trailer_two_wheels":
                raise ValueError(f"trailer {support.name!r} has no measures")
            case _:
                assert_never(support.kind)


def closed_frame(bike: Bike, bottom: Vector, up_seat: Vector, down_head: Vector) -> tuple[Vector, Vector, Vector] | None:
    """Seat cluster, head tube's top and bottom from four measured sides and both angles; None where they do not close.

    The head tube's lower end lies on a circle about the bottom bracket, and on one about the seat cluster moved down by
    the head tube.
    """
    if bike.triangle is None:
        return None
    sides = bike.triangle
    seat_cluster = bottom.plus(up_seat, sides.seat_tube_mm)
    moved = seat_cluster.plus(down_head, sides.head_tube_mm)
    apart = math.dist((bottom.x, bottom.y), (moved.x, moved.y))
    along = (sides.down_tube_mm**2 - sides.top_tube_mm**2 + apart**2) / (2 * apart)
    if along**2 > sides.down_tube_mm**2:
        return None
    towards = Vector((moved.x - bottom.x) / apart, (moved.y - bottom.y) / apart)
    ahead = Vector(towards.y, -towards.x)
    head_bottom = bottom.plus(towards, along).plus(ahead, math.sqrt(sides.down_tube_mm**2 - along**2))
    return seat_cluster, head_bottom.plus(down_head, -sides.head_tube_mm), head_bottom


def contents_centre(box: Box, fill_height: float) -> tuple[float, float, float]:
    """Centre of gravity of what lies in a carrier, so far up in its height [mm]."""
    return (box.x0 + box.x1) / 2, box.y0 + fill_height * (box.y1 - box.y0), (box.z0 + box.z1) / 2
