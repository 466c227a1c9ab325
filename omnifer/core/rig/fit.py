"""Whether what hangs on a bike leaves room for wheels, knees, heels and hands. Each rule is one small function.

Boxes are the catalogue's shapes at the carrier's own volume; a rule says what it found, so that a rider with the bike
at hand can overrule it.
"""

import math
from collections.abc import Callable, Iterator

from omnifer.core.model.carrier_kind import KINDS, Anchor
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.stance import Clash
from omnifer.core.model.trace import Box
from omnifer.core.rig.geometry import Frame, Vector
from omnifer.core.sentence import kg, litres, mm, number, say

THICKEST_FRAME_BAG_MM = 75.0
"""Thicker than this a frame bag rubs knees and cranks; practice."""
TYRE_ROOM_MM = 20.0
"""Least air between a bag and a tyre with all travel used; practice, 20 to 50."""
LEAST_BESIDE_TYRE_MM, BESIDE_FOR_MUD_MM = 4.0, 10.0
"""Air beside a tyre: less rubs when a wheel bends, and less than the second is filled by mud [mm]; practice."""
CABLE_ROOM_MM = {"before": 40.0, "inside": 10.0}
"""Least air between a bag at the bar and the head tube [mm]; practice: two fingers for bows of cables, half of one without."""
HEAD_TUBE_RADIUS_MM = 22.0
"""[mm]; practice, a tube for a bearing of an inch and an eighth."""
HEEL_BEHIND_PEDAL_MM = 140.0
"""Heel behind the pedal's spindle with the crank pointing back; practice, a large shoe."""
HEEL_ROOM_MM = 10.0
"""Least air between a heel and a pannier; practice."""
TRIANGLE_USED = 0.85
"""Part of the frame triangle that a bag can fill; practice."""
OVERLAP_SHRUNK = 0.8
"""Boxes are taken so much smaller when asking whether two carriers share room: bags give way."""
BAR_BEYOND_LEVERS_MM = 120.0
"""Width of the whole bar over its free width [mm]; practice."""
TUBE_STEPS = tuple(n / 20 for n in range(21))
"""Where along a tube its distance is looked at [-]."""


Rule = Callable[[Bike, Frame, dict[str, Box]], Iterator[Clash]]


def bar_room(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """A roll must fit between the levers of a drop bar, or the grips of a flat one."""
    del frame
    for carrier in _at(bike, "bar"):
        wide = boxes[carrier.id].z1 - boxes[carrier.id].z0
        if KINDS[carrier.kind].outline == "roll" and wide > bike.bar_inner_width_mm:
            yield Clash(
                rule="bar_room", carrier_id=carrier.id, beyond_mm=wide - bike.bar_inner_width_mm,
                sentence=say("{bag} is wider than the bar is free.", bag=carrier.name),
                reason=say("It is {wide} wide, between the {ends} there are {free}: the hands lose the levers.",
                           wide=mm(wide), ends="levers" if bike.drop_bar else "grips", free=mm(bike.bar_inner_width_mm)),
            )  # fmt: skip


def frame_bag_thickness(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """A frame bag stays thinner than the room between the knees."""
    del frame
    for carrier in _at(bike, "triangle_top", "triangle"):
        thick = boxes[carrier.id].z1 - boxes[carrier.id].z0
        if thick > THICKEST_FRAME_BAG_MM:
            yield Clash(
                rule="frame_bag_thickness", carrier_id=carrier.id, beyond_mm=thick - THICKEST_FRAME_BAG_MM,
                sentence=say("{bag} is so thick that knees and cranks rub.", bag=carrier.name),
                reason=say("At this volume it is about {thick} thick; up to {most} goes.",
                           thick=mm(thick), most=mm(THICKEST_FRAME_BAG_MM)),
            )  # fmt: skip


def frame_bag_in_triangle(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """A frame bag holds no more than the triangle gives, at the thickness that the knees allow."""
    del boxes
    for carrier in _at(bike, "triangle_top", "triangle"):
        most_l = triangle_room_l(frame, KINDS[carrier.kind].anchor)
        if carrier.volume_l > most_l + 0.05:
            yield Clash(
                rule="frame_bag_in_triangle", carrier_id=carrier.id, beyond_mm=0,
                sentence=say("{bag} is larger than the frame's triangle.", bag=carrier.name),
                reason=say("The triangle has room for about {most}, the bag is said to hold {has}.",
                           most=litres(most_l), has=litres(carrier.volume_l)),
            )  # fmt: skip


def tyre_room(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """Bags in line with the wheels stay clear of the tyres with all travel used and the saddle dropped."""
    travels: dict[Anchor, float] = {"saddle": bike.post_travel_mm, "rack_top": 0.0, "bar": bike.fork_travel_mm}
    for carrier in _at(bike, *travels):
        anchor = KINDS[carrier.kind].anchor
        behind, travel = anchor != "bar", travels[anchor]
        axle = frame.rear_axle if behind else frame.front_axle
        air = _from_point(boxes[carrier.id], axle, travel) - bike.radius_mm
        if round(air) < TYRE_ROOM_MM:
            figures = {"travel": mm(travel), "air": mm(abs(air)), "least": mm(TYRE_ROOM_MM)}
            used = "With {travel} of travel or drop used " if travel else ""
            left = "it reaches {air} into the tyre" if round(air) < 0 else "{air} of air are left"
            words = f"{used}{left}; {{least}} are wanted."
            yield Clash(
                rule="tyre_room", carrier_id=carrier.id, beyond_mm=TYRE_ROOM_MM - air,
                sentence=say("{bag} rubs on the {which} tyre." if round(air) < 0 else "{bag} comes too near to the {which} tyre.",
                             bag=carrier.name, which="rear" if behind else "front"),
                reason=say(words[:1].upper() + words[1:], **figures),
            )  # fmt: skip


def cable_room(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """Bags at the bar leave the cables their bows, and do not rub at the head tube, which leans towards them further down."""
    least = CABLE_ROOM_MM[bike.cables]
    tube = (frame.head_top, frame.head_bottom)
    for carrier in _at(bike, "bar"):
        if carrier.hangs_on != "handlebar":
            continue
        air = min(_from_point(boxes[carrier.id], frame.between(*tube, share), 0.0) for share in TUBE_STEPS) - HEAD_TUBE_RADIUS_MM
        if air < least:
            yield Clash(
                rule="cable_room", carrier_id=carrier.id, beyond_mm=least - air,
                sentence=say("{bag} presses the cables." if bike.cables == "before" else "{bag} rubs at the head tube.",
                             bag=carrier.name),
                reason=say("Between it and the head tube {air} are left, {least} are wanted; hold it further out with a spacer, "
                           "or take a lower bag.", air=mm(max(air, 0.0)), least=mm(least)),
            )  # fmt: skip


def heel_room(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """Rear panniers stay behind the heels."""
    heel = frame.bottom_bracket.x - bike.crank_mm - HEEL_BEHIND_PEDAL_MM
    for carrier in _at(bike, "rear_rack_side"):
        air = heel - boxes[carrier.id].x1
        if air < HEEL_ROOM_MM:
            yield Clash(
                rule="heel_room", carrier_id=carrier.id, beyond_mm=HEEL_ROOM_MM - air,
                sentence=say("Heels strike {bag}.", bag=carrier.name),
                reason=say("With chainstays of {stay} a heel passes {air} from it; hang it further back, or take a longer rack.",
                           stay=mm(bike.chainstay_mm), air=mm(air)),
            )  # fmt: skip


def shared_room(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """Bottles and bags in the frame, and cages beside panniers, do not take the same room."""
    del frame
    inside = _at(bike, "tube", "triangle_top", "triangle", "rack_cage", "rear_rack_side")
    for n, one in enumerate(inside):
        for other in inside[n + 1 :]:
            anchors = {KINDS[one.kind].anchor, KINDS[other.kind].anchor}
            if anchors in ({"rear_rack_side"}, {"tube"}, {"triangle_top", "tube"}) or not _overlap(
                boxes[one.id], boxes[other.id]
            ):
                continue
            yield Clash(
                rule="shared_room", carrier_id=other.id, beyond_mm=0,
                sentence=say("{one} and {other} take the same room.", one=one.name, other=other.name),
                reason=say("Drawn to their size they overlap; take a smaller one, or another place."),
            )  # fmt: skip


def bottles_under_half_bag(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """A bag under the top tube leaves the bottles on the tubes below it their length and the hand its way."""
    top, tubes = (
        (frame.seat_cluster, frame.head_top),
        {"down_tube_bolts": frame.head_bottom, "seat_tube_bolts": frame.seat_cluster},
    )
    for bag in _at(bike, "triangle_top"):
        deep = boxes[bag.id].y1 - boxes[bag.id].y0
        for cage in _at(bike, "tube"):
            end = tubes.get(cage.hangs_on)
            if end is None:
                continue
            box = boxes[cage.id]
            along = math.dist((frame.bottom_bracket.x, frame.bottom_bracket.y), (end.x, end.y))
            towards = Vector((end.x - frame.bottom_bracket.x) / along, (end.y - frame.bottom_bracket.y) / along)
            middle = Vector((box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2)
            mouth = middle.plus(towards, (box.y1 - box.y0) / 2)
            air = _from_line(mouth, *top) - deep - (box.x1 - box.x0) / 2
            if air < 0:
                yield Clash(
                    rule="bottles_under_half_bag", carrier_id=cage.id, beyond_mm=-air,
                    sentence=say("{cage} has no room under {bag}.", cage=cage.name, bag=bag.name),
                    reason=say("The bottle's mouth would stand {over} inside the bag: take a shorter bottle or a flatter bag,"
                               " or hang the cage lower.", over=mm(-air)),
                )  # fmt: skip


def beside_tyre_mm(bike: Bike, tyre_mm: float | None = None) -> float | None:
    """Air on each side of a tyre, of the bike's own width or of another; None where nobody measured the room [mm]."""
    return None if bike.narrowest_mm is None else (bike.narrowest_mm - (tyre_mm or bike.tyre_width_mm)) / 2


def beside_tyre(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """A tyre leaves some air to stays, fork and mudguards."""
    del frame, boxes
    air = beside_tyre_mm(bike)
    if air is not None and air < LEAST_BESIDE_TYRE_MM:
        yield Clash(
            rule="beside_tyre", carrier_id=None, beyond_mm=LEAST_BESIDE_TYRE_MM - air,
            sentence=say("The tyres of {bike} have {air} beside them.", bike=bike.name, air=mm(max(air, 0.0))),
            reason=say("{room} are free for {tyre} of tyre: under {least} on each side it rubs when a wheel bends.",
                       room=mm(bike.narrowest_mm or 0.0), tyre=mm(bike.tyre_width_mm), least=mm(LEAST_BESIDE_TYRE_MM)),
        )  # fmt: skip


def bolts(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """A cage at the fork wants as many bolts as it has eyes, or is tied and said so."""
    del frame, boxes
    for support in bike.supports:
        if support.mount == "fork_bolts" and support.bolts > bike.fork_bolts and not support.improvised:
            yield Clash(
                rule="bolts", carrier_id=None, support_id=support.id, beyond_mm=0,
                sentence=say("{cage} needs {needs} bolts, the fork leg has {has}.", cage=support.name,
                             needs=number(support.bolts), has=number(bike.fork_bolts)),
                reason=say("Ties and tape can hold it: mark it as improvised, load it lightly and look at it every day."),
            )  # fmt: skip


def load_chains(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """Bags that may hold more than what carries them: the lowest limit of a chain counts."""
    del frame, boxes
    for support in bike.supports:
        hung = [c for c in bike.carriers if c.hangs_on == support.id]
        allowed = sum(c.limit_kg + c.mass_kg for c in hung)
        if hung and allowed > 1.5 * support.limit_kg:
            yield Clash(
                rule="load_chains", carrier_id=None, support_id=support.id, beyond_mm=0,
                sentence=say("The bags on {rack} may hold more than it bears.", rack=support.name),
                reason=say("Full to their own limits they weigh {bags}, it bears {rack}: pack by the lower figure.",
                           bags=kg(allowed), rack=kg(support.limit_kg)),
            )  # fmt: skip


def frame_closes(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> Iterator[Clash]:
    """Four measured sides of a frame that close, and agree with how high the bar stands."""
    del boxes
    drawn = frame.triangle()
    if bike.triangle is not None and abs(drawn.down_tube_mm - bike.triangle.down_tube_mm) > 1:
        yield Clash(
            rule="frame_closes", carrier_id=None, beyond_mm=0,
            sentence=say("The four sides measured on {bike} do not meet.", bike=bike.name),
            reason=say("With a seat angle of {seat}° and a head angle of {head}° no frame has these sides; measure again. "
                       "Until then it is drawn by stack and reach.",
                       seat=number(bike.seat_angle_deg), head=number(bike.head_angle_deg)),
        )  # fmt: skip


RULES: tuple[Rule, ...] = (
    frame_closes, bar_room, frame_bag_thickness, frame_bag_in_triangle, tyre_room, cable_room, heel_room, shared_room,
    bottles_under_half_bag, beside_tyre, bolts,
    load_chains,
)  # fmt: skip


def clashes(bike: Bike, frame: Frame, boxes: dict[str, Box]) -> list[Clash]:
    """All that does not fit on a bike."""
    return [clash for rule in RULES for clash in rule(bike, frame, boxes)]


def triangle_room_l(frame: Frame, anchor: Anchor) -> float:
    """Litres that a bag in all or the upper half of the triangle can have in a frame, at the thickness that the knees allow."""
    area = polygon_area((frame.bottom_bracket, frame.seat_cluster, frame.head_top, frame.head_bottom))
    part = TRIANGLE_USED * (1.0 if anchor == "triangle" else 0.5)
    return area * part * THICKEST_FRAME_BAG_MM / 1e6


def width_mm(bike: Bike, boxes: dict[str, Box]) -> float:
    """Overall width with all bags [mm]."""
    bar = bike.bar_inner_width_mm + (BAR_BEYOND_LEVERS_MM if not bike.drop_bar else 20.0)
    return max([bar, *(2 * max(abs(box.z0), abs(box.z1)) for box in boxes.values())])


def polygon_area(corners: tuple[Vector, ...]) -> float:
    """Area by the shoelace formula [mm²]."""
    pairs = zip(corners, (*corners[1:], corners[0]), strict=True)
    return abs(sum(a.x * b.y - b.x * a.y for a, b in pairs)) / 2


def _at(bike: Bike, *anchors: Anchor) -> list[Carrier]:
    return [carrier for carrier in bike.carriers if KINDS[carrier.kind].anchor in anchors]


def _from_point(box: Box, point: Vector, lowered: float) -> float:
    """Distance of a box, let down by so much, from a point in the middle plane [mm]."""
    across = max(box.x0 - point.x, point.x - box.x1, 0.0)
    up = max(box.y0 - lowered - point.y, point.y - (box.y1 - lowered), 0.0)
    return math.hypot(across, up)


def _from_line(point: Vector, start: Vector, end: Vector) -> float:
    """Distance of a point from the line through two others [mm]."""
    across = (end.x - start.x) * (point.y - start.y) - (end.y - start.y) * (point.x - start.x)
    return abs(across) / math.dist((start.x, start.y), (end.x, end.y))


def _overlap(a: Box, b: Box) -> bool:
    def shrunk(low: float, high: float) -> tuple[float, float]:
        off = (high - low) * (1 - OVERLAP_SHRUNK) / 2
        return low + off, high - off

    def apart(a_range: tuple[float, float], b_range: tuple[float, float]) -> bool:
        (a0, a1), (b0, b1) = shrunk(*a_range), shrunk(*b_range)
        return a1 <= b0 or b1 <= a0

    axes = (((a.x0, a.x1), (b.x0, b.x1)), ((a.y0, a.y1), (b.y0, b.y1)), ((a.z0, a.z1), (b.z0, b.z1)))
    return not any(apart(one, other) for one, other in axes)
