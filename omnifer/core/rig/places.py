"""Where something can still be hung on a bike."""

from typing import assert_never

from omnifer.core.model.quantities import Side
from omnifer.core.model.rig import Bike, Mount, Support
from omnifer.core.model.stance import HangingPlace
from omnifer.core.rig.geometry import NO_TRAILER_MM, Frame, Vector

PAIRED: frozenset[Mount] = frozenset({"fork_bolts", "stem"})
"""Mounts with a left and a right one."""
UNCOUNTED: frozenset[str] = frozenset({"riders_back"})
"""Places that take more than one."""
RACKS = ("rear_rack", "front_rack")


def free_places(bike: Bike, frame: Frame) -> list[HangingPlace]:
    """Free places of racks and cages first, then of the bike itself."""
    taken = {(c.hangs_on, c.side) for c in bike.carriers} | {(s.mount, s.side) for s in bike.supports}
    places = []
    for support in bike.supports:
        sides: tuple[Side, ...] = ("left", "right", "middle") if support.kind in RACKS else (support.side,)
        for side in sides:
            if (support.id, side) not in taken:
                places.append(_place(support.id, support.kind, side, _on_support(frame, support, side)))
    for mount in bike.mounts:
        for side in ("left", "right") if mount in PAIRED else ("middle",):
            if (mount, side) not in taken or mount in UNCOUNTED:
                places.append(_place(mount, mount, side, _on_bike(frame, mount)))
    return places


def _place(on: str, takes: str, side: Side, at: Vector) -> HangingPlace:
    return HangingPlace(on=on, takes=takes, side=side, x=round(at.x, 1), y=round(at.y, 1))


def _on_support(frame: Frame, support: Support, side: Side) -> Vector:
    radius, wheelbase = frame.bike.radius_mm, frame.bike.wheelbase_mm
    match support.kind:
        case "rear_rack":
            return Vector(-160, 2 * radius + 90) if side == "middle" else Vector(-60, 2 * radius - 190)
        case "front_rack":
            return Vector(wheelbase, radius + 270) if side == "middle" else Vector(wheelbase + 5, radius + 40)
        case "fork_cage":
            return _on_bike(frame, "fork_bolts")
        case "under_tube_cage":
            return _on_bike(frame, "under_down_tube_bolts")
        case "trailer_one_wheel" | "trailer_two_wheels":
            behind = support.trailer.hitch_to_axle_mm if support.trailer else NO_TRAILER_MM
            return Vector(-behind + 250, 380)
        case _:
            assert_never(support.kind)


def _on_bike(frame: Frame, mount: Mount) -> Vector:
    radius = frame.bike.radius_mm
    places: dict[Mount, Vector] = {
        "rear_eyelets": Vector(-30, 2 * radius + 30),
        "fork_eyelets": frame.front_axle.plus(Vector(30, 60)),
        "fork_bolts": frame.between(frame.head_bottom, frame.front_axle, 0.62),
        "handlebar": frame.bar.plus(Vector(110, -20)),
        "stem": frame.bar.plus(Vector(-30, 60)),
        "top_tube": frame.between(frame.head_top, frame.seat_cluster, 0.25).plus(Vector(0, 35)),
        "frame_triangle": frame.between(frame.between(frame.seat_cluster, frame.head_bottom, 0.5), frame.bottom_bracket, 0.3),
        "down_tube_bolts": frame.between(frame.bottom_bracket, frame.head_bottom, 0.62),
        "seat_tube_bolts": frame.between(frame.bottom_bracket, frame.seat_cluster, 0.44),
        "under_down_tube_bolts": frame.between(frame.bottom_bracket, frame.head_bottom, 0.28).plus(Vector(60, -70)),
        "saddle": frame.saddle.plus(Vector(-180, -40)),
        "rear_axle": frame.rear_axle.plus(Vector(-120, 0)),
        "riders_back": frame.saddle.plus(Vector(-60, 190)),
    }
    return places[mount]
