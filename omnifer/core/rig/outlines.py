"""Outlines of carriers in the bike's middle plane, fitted into the box that each takes: for the drawing only."""

import math
from typing import NamedTuple

from omnifer.core.model.carrier_kind import KINDS, OutlineName
from omnifer.core.model.rig import Carrier
from omnifer.core.model.trace import Box, Point, Shape
from omnifer.core.rig.geometry import Frame, Vector

Corners = tuple[tuple[float, float], ...]


class Outline(NamedTuple):
    """Corners in parts of the box, from its rear lower corner; how the carrier closes and what holds it."""

    corners: Corners
    roll_top_mm: float | None = None
    lid: bool = False
    straps: tuple[float, ...] = ()
    open: bool = False


OUTLINES: dict[OutlineName, Outline] = {
    "pannier": Outline(((0, 0.94), (1, 0.94), (1, 0.5), (0.87, 0.03), (0.83, 0), (0.1, 0), (0.04, 0.03)), 18),
    "front_pannier": Outline(((0, 0.93), (1, 0.93), (0.98, 0.04), (0.93, 0), (0.07, 0), (0.02, 0.04)), 14),
    "roll": Outline(((0, 0.14), (0.07, 0), (0.94, 0), (1, 0.12), (1, 0.86), (0.94, 1), (0.07, 1), (0, 0.86)),
                    straps=(0.25, 0.75)),
    "box": Outline(((0, 0.04), (0.93, 0), (1, 0.07), (1, 0.93), (0.93, 1), (0, 1)), lid=True),
    "saddle_pack": Outline(((1, 0.02), (1, 0.9), (0.85, 1), (0.12, 0.86), (0, 0.62), (0.05, 0.3), (0.6, 0.02)), straps=(0.72,)),
    "wedge": Outline(((0, 0.1), (0.98, 0.34), (1, 0.9), (0.9, 1), (0.15, 0.72), (0, 0.3))),
    "cone": Outline(((0.1, 0), (0.9, 0), (1, 1), (0, 1)), open=True),
    "half_frame": Outline(((0, 0.62), (1, 1), (0.96, 0.62), (0.9, 0.36), (0.1, 0), (0, 0.1))),
    "full_frame": Outline(((0, 0.86), (0.94, 1), (1, 0.86), (0.42, 0.02), (0.34, 0.04))),
    "trailer": Outline(((0.03, 0), (0.97, 0), (1, 0.06), (1, 0.87), (0.94, 1), (0.08, 1), (0, 0.87), (0, 0.06)),
                       straps=(0.22, 0.5, 0.78)),
    "bottle": Outline(((0, -1), (0, 1), (0.84, 1), (0.92, 0.55), (1, 0.55), (1, -0.55), (0.92, -0.55), (0.84, -1))),
    "sleeve": Outline(((0.05, 0.04), (0.9, 0.04), (0.95, 0.96), (0.05, 0.96))),
    "net": Outline(((0.02, 0), (0.98, 0), (0.88, 0.7), (0.7, 1), (0.3, 1), (0.12, 0.7)), straps=(0.33, 0.66), open=True),
    "pouch": Outline(((0.08, 0), (0.92, 0), (1, 0.08), (1, 0.94), (0.9, 1), (0.1, 1), (0, 0.94), (0, 0.08))),
}  # fmt: skip
"""A bottle's corners run along its tube and across it, from its foot, in parts of its length and of half its width."""
BOTTLE_LONG, BOTTLE_WIDE = 0.98, 0.46
"""A bottle over its box [-]."""


def shape_of(frame: Frame, carrier: Carrier, box: Box) -> Shape:
    """The outline of a carrier in its box [mm]."""
    name = KINDS[carrier.kind].outline
    outline = OUTLINES[name]
    long, high = box.x1 - box.x0, box.y1 - box.y0
    if name == "bottle":
        corners = _along_tube(frame, carrier, box, outline.corners)
    else:
        corners = [(box.x0 + u * long, box.y0 + v * high) for u, v in outline.corners]
    return Shape(
        corners=[Point(x=round(x, 1), y=round(y, 1)) for x, y in corners],
        closure_mm=None if outline.roll_top_mm is None else round(box.y1 + outline.roll_top_mm, 1),
        lid=outline.lid,
        straps=list(outline.straps),
        open=outline.open,
    )


def _along_tube(frame: Frame, carrier: Carrier, box: Box, corners: Corners) -> list[tuple[float, float]]:
    """A bottle stands along the tube that its cage is bolted to."""
    ends = {
        "seat_tube_bolts": (frame.bottom_bracket, frame.seat_cluster),
        "fork_bolts": (frame.front_axle, frame.head_bottom),
    }
    foot, head = ends.get(carrier.hangs_on, (frame.bottom_bracket, frame.head_bottom))
    length = math.dist((foot.x, foot.y), (head.x, head.y))
    along = Vector((head.x - foot.x) / length, (head.y - foot.y) / length)
    across = Vector(-along.y, along.x)
    middle = Vector((box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2)
    tall, half = BOTTLE_LONG * (box.y1 - box.y0), BOTTLE_WIDE * (box.z1 - box.z0)
    points = [middle.plus(along, (i - 0.5) * tall).plus(across, j * half) for i, j in corners]
    return [(point.x, point.y) for point in points]
