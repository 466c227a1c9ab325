"""Every kind of carrier as one row: where it sits, how it is shaped, what it takes and how it behaves. All figures are common
practice, no source, and wide; a rider overwrites those of the own bag.

A new kind is a new row here and a new word in `CarrierKind`; a place where none sat before is a new anchor in
`rig/geometry.py`, an outline that none has is a new one in `rig/outlines.py`.
"""

from typing import Literal, NamedTuple

from omnifer.core.model.quantities import Reach, Side

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
    "basket",
    "hip_bag",
    "jersey_pocket",
    "tool_bottle",
    "rack_side_cage",
    "lashed",
    "outer_pocket",
    "compartment",
    "net",
    "bladder_sleeve",
]
Opening = Literal["none", "roll", "lid", "zip", "drawstring"]
Dryness = Literal["waterproof", "splash", "open"]
Anchor = Literal[
    "rear_rack_side", "front_rack_side", "rack_top", "on_top", "bar", "top_tube", "stem", "triangle_top", "triangle", "saddle",
    "fork", "tube", "under_tube", "trailer", "rack_cage", "back", "hip", "shirt", "bag_layer", "bag_wall", "bag_top", "bag_side",
]  # fmt: skip
"""Where on the bike, the rider or a larger bag a carrier sits."""
ON_RIDER: frozenset[Anchor] = frozenset({"back", "hip", "shirt"})
OutlineName = Literal[
    "pannier", "front_pannier", "roll", "box", "saddle_pack", "wedge", "cone", "half_frame", "full_frame", "trailer", "bottle",
    "sleeve", "net", "pouch",
]  # fmt: skip
Takes = Literal["anything", "bottles", "soft_vessels"]
"""What a carrier can hold at all: a cage clamps bottles, a sleeve holds bladders."""

LARGEST = 1.6
"""Times the usual volume of its kind up to which bags are made; practice."""


class Kind(NamedTuple):
    """What is true of every carrier of a kind, and the figures of a usual one."""

    name: str
    hangs_on: tuple[str, ...]
    """Kinds of supports and larger carriers, and mounts, that it can hang on."""
    sides: tuple[Side, ...]
    mass_kg: float
    volume_l: float
    limit_kg: float
    longest_mm: float
    reach: Reach
    dryness: Dryness
    box_mm: tuple[float, float, float]
    """Outer length, height and width at that volume."""
    good_for: str
    trouble: str
    anchor: Anchor
    offset_mm: tuple[float, float, float]
    """From the anchor: forwards, up, and from the middle plane to the inner side."""
    outline: OutlineName
    litre_price: float
    """Money for a litre where nobody says what a bag cost, on a scale of our own: prices are the rider's."""
    drag_area_m2: float
    """What it adds to the drag area of bike and rider when full; practice, half to twice that. Behind the legs it is little,
    beside the fork and on the bar much."""
    opening: Opening = "none"
    straps: int = 0
    lifts_off: bool = False
    takes: Takes = "anything"
    food: bool = True
    """Whether bought food goes into it."""
    sway_limit_kg: float | None = None
    """Of what swings with every pedal stroke: more is unpleasant from here on."""
    pleasant_kg: float | None = None
    """At the bar more than this steers late."""
    part: Literal["inner", "outer", "either"] | None = None
    """A part of a larger bag, in its room or outside it; `either` may hang on the bike as well."""
    narrow_mm: float | None = None
    """The thickest thing that goes in, where that is less than the bag is wide."""
    mouth: Literal["", "one", "both"] = ""
    """Opened at one end or at both without unpacking: what lies there is reached at a stop."""

    @property
    def thick_mm(self) -> float:
        """The thickest thing that goes in [mm]."""
        return self.narrow_mm or min(self.box_mm[1:])


_PAIR: tuple[Side, ...] = ("left", "right")
_MIDDLE: tuple[Side, ...] = ("middle",)
_ANY: tuple[Side, ...] = ("left", "right", "middle")
_TUBES = ("down_tube_bolts", "seat_tube_bolts", "under_down_tube_bolts")
_TRAILERS = ("trailer_one_wheel", "trailer_two_wheels")

KINDS: dict[CarrierKind, Kind] = {
    "rear_pannier": Kind(
        "Rear pannier", ("rear_rack",), _PAIR, 0.95, 20, 9, 420, "stop", "waterproof", (350, 420, 168), "bulk, camp, clothes",
        "rear-heavy; can jump off on rough roads", "rear_rack_side", (-47, -52, 84), "pannier", 5, 0.012, "roll", lifts_off=True),
    "front_pannier": Kind(
        "Front pannier", ("front_rack",), _PAIR, 0.75, 12.5, 6.5, 330, "stop", "waterproof", (246, 330, 155), "dense things low",
        "slow steering when heavy", "front_rack_side", (5, 209, 80), "front_pannier", 5.5, 0.022, "roll", lifts_off=True),
    "rack_top_bag": Kind(
        "Rack-top roll", ("rear_rack",), _MIDDLE, 0.6, 24, 8, 560, "camp", "waterproof", (460, 230, 270),
        "tent, rain wear on top", "high; chafes through", "rack_top", (-160, 8, 0), "roll", 4.5, 0.004, "roll", straps=2,
        lifts_off=True, mouth="one"),
    "handlebar_box": Kind(
        "Handlebar bag", ("handlebar",), _MIDDLE, 0.75, 7, 4, 240, "riding", "waterproof", (172, 188, 260),
        "valuables, camera, papers; lifts off", "high and far forward", "bar", (57, 15, 0), "box", 14, 0.012, "lid",
        lifts_off=True, pleasant_kg=2.5),
    "handlebar_roll": Kind(
        "Handlebar roll", ("handlebar",), _MIDDLE, 0.45, 12, 4, 400, "camp", "waterproof", (200, 200, 390),
        "sleep kit, not needed by day", "cables, bar width, tyre clearance", "bar", (55, 15, 0), "roll", 10, 0.016, "roll",
        straps=2, pleasant_kg=3.0, mouth="both"),
    "top_tube_bag": Kind(
        "Top-tube bag", ("top_tube",), _MIDDLE, 0.15, 1, 1, 180, "riding", "splash", (190, 95, 64), "food, phone, power",
        "knees; dearest litre", "top_tube", (0, -2, 0), "wedge", 25, 0.0, "zip", straps=2),
    "stem_bag": Kind(
        "Stem pouch", ("stem",), _PAIR, 0.1, 1, 1, 180, "riding", "open", (94, 140, 80), "bottle, snacks",
        "stays open: rain gets in, and what stands high hops out", "stem", (-32, -12, 16), "cone", 20, 0.002, "drawstring",
        straps=2, food=False),
    "half_frame_bag": Kind(
        "Half frame bag", ("frame_triangle",), _MIDDLE, 0.35, 4.5, 4, 420, "stop", "splash", (460, 150, 66),
        "heavy small things, tools, food", "thicker than 7.5 cm rubs knees", "triangle_top", (0, -20, 0), "half_frame", 15, 0.0,
        "zip", straps=4),
    "full_frame_bag": Kind(
        "Full frame bag", ("frame_triangle",), _MIDDLE, 0.5, 11, 6, 440, "stop", "splash", (520, 440, 70),
        "heavy things in the middle", "hides the bottle cages", "triangle", (0, 0, 0), "full_frame", 14, 0.0, "zip", straps=6),
    "saddle_pack": Kind(
        "Saddle pack", ("saddle",), _MIDDLE, 0.5, 13, 4, 300, "camp", "waterproof", (450, 190, 170), "light bulk",
        "sways; tyre rub on small frames", "saddle", (-40, -10, 0), "saddle_pack", 11, 0.0, "roll", straps=3, food=False,
        sway_limit_kg=3.0, narrow_mm=110, mouth="one"),
    "fork_bag": Kind(
        "Fork bag", ("fork_cage", "fork_bolts"), _PAIR, 0.2, 4, 2.5, 300, "stop", "waterproof", (140, 300, 120),
        "tent, cook set, tools", "works loose and shakes where nothing stiffens it", "fork", (0, 0, 58), "pouch", 12, 0.012,
        "roll", straps=2, sway_limit_kg=2.0),
    "bottle_cage": Kind(
        "Bottle cage", (*_TUBES, "fork_bolts"), ("middle", "left", "right"), 0.05, 1.1, 1.3, 300, "riding", "open", (80, 270, 80),
        "a bottle", "dirt, if under the tube", "tube", (0, 0, 52), "bottle", 7, 0.0, takes="bottles", food=False),
    "under_tube_bag": Kind(
        "Under-tube bag", ("under_tube_cage", "under_down_tube_bolts"), _MIDDLE, 0.15, 2, 2.5, 240, "stop", "splash",
        (110, 230, 110), "fuel, spares, tools", "dirt, low reach", "under_tube", (60, -62, 0), "pouch", 13, 0.002, "roll",
        straps=2, food=False),
    "trailer_bag": Kind(
        "Trailer bag", _TRAILERS, _MIDDLE, 1.4, 80, 28, 680, "stop", "waterproof", (560, 360, 400), "everything; unhitch in town",
        "second tyre size, width, hitch load", "trailer", (60, 0, 0), "trailer", 2.5, 0.0, "roll"),
    "backpack": Kind(
        "Backpack", ("riders_back",), _MIDDLE, 0.6, 12, 4, 420, "stop", "splash", (180, 440, 280), "papers, water bladder",
        "sweat, saddle pressure", "back", (-20, 330, 0), "pouch", 7, 0.006, "zip", lifts_off=True),
    "basket": Kind(
        "Basket", ("handlebar", "front_rack"), _MIDDLE, 0.8, 15, 4, 340, "riding", "open", (260, 190, 340),
        "light things often used", "no cover for rain", "bar", (40, 30, 0), "pouch", 4, 0.02, pleasant_kg=3.0),
    "hip_bag": Kind(
        "Hip bag", ("riders_back",), _MIDDLE, 0.25, 3, 2, 220, "riding", "splash", (90, 150, 280), "papers, money, camera",
        "warm and heavy on long days", "hip", (-70, 130, 0), "pouch", 13, 0.002, "zip", lifts_off=True),
    "jersey_pocket": Kind(
        "Jersey pockets", ("riders_back",), _MIDDLE, 0.0, 1.5, 0.8, 180, "riding", "open", (60, 160, 260), "snacks, a phone",
        "sweat", "shirt", (-60, 250, 0), "pouch", 0, 0.0, "zip", lifts_off=True),
    "tool_bottle": Kind(
        "Tool bottle", _TUBES, _MIDDLE, 0.12, 0.8, 1.3, 200, "stop", "waterproof", (80, 230, 80), "tools, tubes, spares",
        "takes a bottle's place", "tube", (0, 0, 52), "bottle", 16, 0.0, "lid"),
    "rack_side_cage": Kind(
        "Rack-side cage", ("rear_rack",), _PAIR, 0.2, 1.6, 2.5, 320, "stop", "open", (110, 320, 110), "a big bottle",
        "hits the panniers", "rack_cage", (40, -40, 60), "pouch", 16, 0.003, straps=1),
    "lashed": Kind(
        "Lashed on top", ("rear_rack", *_TRAILERS), _MIDDLE, 0.15, 10, 5, 700, "stop", "open", (480, 130, 200),
        "what is wet, long or bulky", "must bear rain; cords slip", "on_top", (-160, 8, 0), "pouch", 1, 0.004, straps=2,
        sway_limit_kg=3.0),
    "outer_pocket": Kind(
        "Outer pocket", ("rear_pannier", "front_pannier", "rack_top_bag", "handlebar_box", "trailer_bag", "backpack"), _ANY, 0.12,
        2, 1, 220, "stop", "splash", (200, 180, 70), "what is wanted at every stop, or is wet", "pushes the bag's weight outward",
        "bag_side", (0, 20, 0), "pouch", 11, 0.004, "zip", part="outer"),
    "compartment": Kind(
        "Compartment", ("rear_pannier", "half_frame_bag", "full_frame_bag", "trailer_bag", "backpack"), _ANY, 0.05, 3, 3, 300,
        "stop", "splash", (300, 120, 70), "kits apart in one bag", "takes its litres from the bag, full or empty", "bag_layer",
        (0, 0, 0), "sleeve", 4.5, 0.0, "zip", part="inner"),
    "net": Kind(
        "Net or cords", ("rear_rack", "rack_top_bag", "rear_pannier", "saddle_pack", "handlebar_roll", "backpack", "basket",
                         "trailer_bag"), _ANY, 0.08, 6, 2, 450, "riding", "open", (400, 90, 180),
        "the layer taken off, wet things, bread", "must bear rain; slips when filled badly", "bag_top", (-160, 8, 0), "net", 2,
        0.003, straps=2, part="either"),
    "bladder_sleeve": Kind(
        "Bladder sleeve", ("backpack", "half_frame_bag", "full_frame_bag"), _MIDDLE, 0.05, 3, 3.2, 400, "riding", "open",
        (80, 380, 200), "a soft vessel with its hose", "a leak wets what lies beside it", "bag_wall", (0, 0, 0), "sleeve", 7, 0.0,
        takes="soft_vessels", part="inner"),
}  # fmt: skip
