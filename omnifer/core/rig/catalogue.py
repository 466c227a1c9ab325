"""Generic bikes, supports and carriers. Every figure is common practice, no source, until the rider overwrites it
with the maker's."""

from typing import NamedTuple

from omnifer.core.model.quantities import Noun, Reach, Side
from omnifer.core.model.rig import Bike, Carrier, CarrierKind, Dryness, Mount, Opening, Support, SupportKind, TrailerFrame


class CarrierTemplate(Noun):
    """A carrier as the catalogue offers it, with its outer measures at that volume."""

    kind: CarrierKind
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
    good_for: str
    trouble: str
    price: float
    straps: int
    lifts_off: bool
    opening: Opening
    length_mm: float
    height_mm: float
    width_mm: float


class SupportTemplate(Noun):
    """A rack, cage or trailer as the catalogue offers it."""

    kind: SupportKind
    name: str
    mount: Mount
    sides: tuple[Side, ...]
    mass_kg: float
    limit_kg: float
    trailer: TrailerFrame | None = None
    bolts: int = 2
    price: float = 0


_PAIR: tuple[Side, ...] = ("left", "right")
_MIDDLE: tuple[Side, ...] = ("middle",)


class _Row(NamedTuple):
    kind: CarrierKind
    name: str
    hangs_on: tuple[str, ...]
    sides: tuple[Side, ...]
    figures: tuple[float, float, float, float]
    """Own mass kg, litres, limit kg, longest inside mm."""
    reach: Reach
    dryness: Dryness
    box_mm: tuple[float, float, float]
    good_for: str
    trouble: str


_ROWS = (
    _Row("rear_pannier", "Rear pannier", ("rear_rack",), _PAIR, (0.95, 20, 9, 420), "stop", "waterproof",
         (350, 420, 168), "bulk, camp, clothes", "rear-heavy; can jump off on rough roads"),
    _Row("front_pannier", "Front pannier", ("front_rack",), _PAIR, (0.75, 12.5, 6.5, 330), "stop", "waterproof",
         (246, 330, 155), "dense things low", "slow steering when heavy"),
    _Row("rack_top_bag", "Rack-top roll", ("rear_rack",), _MIDDLE, (0.6, 24, 8, 560), "camp", "waterproof",
         (460, 230, 270), "tent, rain wear on top", "high; chafes through"),
    _Row("handlebar_box", "Bar box", ("handlebar",), _MIDDLE, (0.75, 7, 4, 240), "riding", "waterproof",
         (172, 188, 260), "valuables, camera, papers; lifts off", "high and far forward"),
    _Row("handlebar_roll", "Bar roll", ("handlebar",), _MIDDLE, (0.45, 12, 4, 400), "camp", "waterproof",
         (200, 200, 390), "sleep kit, not needed by day", "cables, bar width, tyre clearance"),
    _Row("top_tube_bag", "Top-tube bag", ("top_tube",), _MIDDLE, (0.15, 1, 1, 180), "riding", "splash",
         (190, 95, 64), "food, phone, power", "knees; dearest litre"),
    _Row("stem_bag", "Stem pouch", ("stem",), _PAIR, (0.1, 1, 1, 180), "riding", "open",
         (94, 140, 80), "bottle, snacks", "no lid: wet, things fall out"),
    _Row("half_frame_bag", "Half frame bag", ("frame_triangle",), _MIDDLE, (0.35, 4.5, 4, 420), "stop", "splash",
         (460, 150, 66), "heavy small things, tools, food", "thicker than 7.5 cm rubs knees"),
    _Row("full_frame_bag", "Full frame bag", ("frame_triangle",), _MIDDLE, (0.5, 11, 6, 440), "stop", "splash",
         (520, 440, 70), "heavy things in the middle", "hides the bottle cages"),
    _Row("saddle_pack", "Saddle pack", ("saddle",), _MIDDLE, (0.5, 13, 4, 300), "camp", "waterproof",
         (450, 190, 170), "light bulk", "sways; tyre rub on small frames"),
    _Row("fork_bag", "Fork bag", ("fork_cage", "fork_bolts"), _PAIR, (0.2, 4, 2.5, 300), "stop", "waterproof",
         (140, 300, 120), "tent, cook set, tools", "wobbles without structure"),
    _Row("bottle_cage", "Bottle cage", ("down_tube_bolts", "seat_tube_bolts", "under_down_tube_bolts", "fork_bolts"),
         ("middle", "left", "right"), (0.05, 1.1, 1.3, 300), "riding", "open",
         (80, 270, 80), "a bottle", "dirt, if under the tube"),
    _Row("under_tube_bag", "Under-tube bag", ("under_tube_cage", "under_down_tube_bolts"), _MIDDLE,
         (0.15, 2, 2.5, 240), "stop", "splash", (110, 230, 110), "fuel, spares, tools", "dirt, low reach"),
    _Row("trailer_bag", "Trailer bag", ("trailer_one_wheel", "trailer_two_wheels"), _MIDDLE, (1.4, 80, 28, 680),
         "stop", "waterproof", (560, 360, 400), "everything; unhitch in town", "second tyre size, width, hitch load"),
    _Row("backpack", "Backpack", ("riders_back",), _MIDDLE, (0.6, 12, 4, 420), "stop", "splash",
         (180, 440, 280), "papers, water bladder", "sweat, saddle pressure"),
    _Row("hip_bag", "Hip bag", ("riders_back",), _MIDDLE, (0.25, 3, 2, 220), "riding", "splash",
         (90, 150, 280), "papers, money, camera", "warm and heavy on long days"),
    _Row("jersey_pocket", "Jersey pockets", ("riders_back",), _MIDDLE, (0.0, 1.5, 0.8, 180), "riding", "open",
         (60, 160, 260), "snacks, a phone", "sweat"),
    _Row("basket", "Basket", ("handlebar", "front_rack"), _MIDDLE, (0.8, 15, 4, 340), "riding", "open",
         (260, 190, 340), "light things often used", "no cover for rain"),
    _Row("tool_bottle", "Tool bottle", ("down_tube_bolts", "seat_tube_bolts", "under_down_tube_bolts"), _MIDDLE,
         (0.12, 0.8, 1.3, 200), "stop", "waterproof", (80, 230, 80), "tools, tubes, spares", "takes a bottle's place"),
    _Row("rack_side_cage", "Rack-side cage", ("rear_rack",), _PAIR, (0.2, 1.6, 2.5, 320), "stop", "open",
         (110, 320, 110), "a big bottle", "hits the panniers"),
    _Row("lashed", "Lashed on top", ("rear_rack", "trailer_one_wheel", "trailer_two_wheels"), _MIDDLE, (0.15, 10, 5, 700),
         "stop", "open", (480, 130, 200), "what is wet, long or bulky", "must bear rain; cords slip"),
    _Row("outer_pocket", "Outer pocket", ("rear_pannier", "front_pannier", "rack_top_bag", "handlebar_box", "trailer_bag",
         "backpack"), ("left", "right", "middle"), (0.12, 2, 1, 220), "stop", "splash", (200, 180, 70),
         "what is wanted at every stop, or is wet", "pushes the bag's weight outward"),
    _Row("compartment", "Compartment", ("rear_pannier", "half_frame_bag", "full_frame_bag", "trailer_bag", "backpack"),
         ("left", "right", "middle"), (0.05, 3, 3, 300), "stop", "splash", (300, 120, 70),
         "kits apart in one bag", "takes its litres from the bag, full or empty"),
    _Row("net", "Net or cords", ("rear_rack", "rack_top_bag", "rear_pannier", "saddle_pack", "handlebar_roll", "backpack",
         "basket", "trailer_bag"), ("left", "right", "middle"), (0.08, 6, 2, 450), "riding", "open", (400, 90, 180),
         "the layer taken off, wet things, bread", "must bear rain; slips when filled badly"),
    _Row("bladder_sleeve", "Bladder sleeve", ("backpack", "half_frame_bag", "full_frame_bag"), _MIDDLE, (0.05, 3, 3.2, 400),
         "riding", "open", (80, 380, 200), "a soft vessel with its hose", "a leak wets what lies beside it"),
)  # fmt: skip

LITRE_PRICE: dict[CarrierKind, float] = {
    "rear_pannier": 4, "front_pannier": 4.5, "rack_top_bag": 3.5, "handlebar_box": 12, "handlebar_roll": 7,
    "top_tube_bag": 23, "stem_bag": 18, "half_frame_bag": 13, "full_frame_bag": 11, "saddle_pack": 8, "fork_bag": 9,
    "bottle_cage": 6, "under_tube_bag": 12, "trailer_bag": 2, "backpack": 6, "hip_bag": 12, "jersey_pocket": 0, "basket": 3,
    "tool_bottle": 14, "rack_side_cage": 15, "lashed": 1, "outer_pocket": 10, "compartment": 4, "net": 2, "bladder_sleeve": 6,
}  # fmt: skip
"""Money for a litre, in one currency; practice, wide."""
OPENINGS: dict[CarrierKind, Opening] = {
    "rear_pannier": "roll", "front_pannier": "roll", "rack_top_bag": "roll", "handlebar_roll": "roll", "saddle_pack": "roll",
    "fork_bag": "roll", "trailer_bag": "roll", "handlebar_box": "lid", "tool_bottle": "lid", "top_tube_bag": "zip",
    "half_frame_bag": "zip", "full_frame_bag": "zip", "backpack": "zip", "hip_bag": "zip", "outer_pocket": "zip",
    "compartment": "zip", "under_tube_bag": "roll", "stem_bag": "drawstring",
}  # fmt: skip
"""How carriers close, where they do; practice."""
LIFTS_OFF: frozenset[CarrierKind] = frozenset(
    {"rear_pannier", "front_pannier", "handlebar_box", "backpack", "hip_bag", "jersey_pocket", "rack_top_bag"}
)
STRAPS: dict[CarrierKind, int] = {
    "rack_top_bag": 2, "handlebar_roll": 2, "top_tube_bag": 2, "stem_bag": 2, "half_frame_bag": 4, "full_frame_bag": 6,
    "saddle_pack": 3, "fork_bag": 2, "under_tube_bag": 2, "lashed": 2, "rack_side_cage": 1,
    "net": 2,
}  # fmt: skip
"""Straps that hold a carrier; practice."""

CARRIERS: dict[CarrierKind, CarrierTemplate] = {
    row.kind: CarrierTemplate(
        kind=row.kind, name=row.name, hangs_on=row.hangs_on, sides=row.sides,
        mass_kg=row.figures[0], volume_l=row.figures[1], limit_kg=row.figures[2], longest_mm=row.figures[3],
        reach=row.reach, dryness=row.dryness, good_for=row.good_for, trouble=row.trouble,
        price=round(LITRE_PRICE[row.kind] * row.figures[1], 0), straps=STRAPS.get(row.kind, 0), lifts_off=row.kind in LIFTS_OFF,
        opening=OPENINGS.get(row.kind, "none"),
        length_mm=row.box_mm[0], height_mm=row.box_mm[1], width_mm=row.box_mm[2],
    )
    for row in _ROWS
}  # fmt: skip

SUPPORTS: dict[SupportKind, SupportTemplate] = {
    template.kind: template
    for template in (
        SupportTemplate(kind="rear_rack", name="Rear rack", mount="rear_eyelets", sides=_MIDDLE, mass_kg=0.8, limit_kg=25,
                        bolts=4, price=70),
        SupportTemplate(kind="front_rack", name="Low front rack", mount="fork_eyelets", sides=_MIDDLE, mass_kg=0.65, limit_kg=15,
                        bolts=4, price=90),
        SupportTemplate(kind="fork_cage", name="Fork cage", mount="fork_bolts", sides=_PAIR, mass_kg=0.12, limit_kg=3,
                        bolts=3, price=35),
        SupportTemplate(kind="under_tube_cage", name="Under-tube cage", mount="under_down_tube_bolts", sides=_MIDDLE,
                        mass_kg=0.1, limit_kg=3, bolts=2, price=25),
        SupportTemplate(kind="trailer_one_wheel", name="One-wheel trailer", mount="rear_axle", sides=_MIDDLE, mass_kg=6.2,
                        limit_kg=32, bolts=0, price=350,
                        trailer=TrailerFrame(hitch_to_axle_mm=1150, own_mass_ahead_of_axle_mm=380, hitch_most_kg=20,
                                             drag_area_m2=0.05)),
        SupportTemplate(kind="trailer_two_wheels", name="Two-wheel trailer", mount="rear_axle", sides=_MIDDLE, mass_kg=9.5,
                        limit_kg=45, bolts=0, price=320,
                        trailer=TrailerFrame(hitch_to_axle_mm=950, own_mass_ahead_of_axle_mm=60, hitch_most_kg=8,
                                             drag_area_m2=0.1)),
    )
}  # fmt: skip


def support(kind: SupportKind, identifier: str, side: Side = "middle", **overwritten: object) -> Support:
    """A support with the catalogue's figures, any of them overwritten."""
    template = SUPPORTS[kind]
    figures = template.model_dump(exclude={"sides"}) | {"id": identifier, "side": side} | overwritten
    return Support.model_validate(figures)


def carrier(kind: CarrierKind, identifier: str, hangs_on: str, side: Side = "middle", **overwritten: object) -> Carrier:
    """A carrier with the catalogue's figures, any of them overwritten."""
    dropped = {"hangs_on", "sides", "good_for", "trouble", "length_mm", "height_mm", "width_mm"}
    figures = CARRIERS[kind].model_dump(exclude=dropped)
    return Carrier.model_validate(figures | {"id": identifier, "hangs_on": hangs_on, "side": side} | overwritten)


_EVERYWHERE: tuple[Mount, ...] = (
    "handlebar", "stem", "top_tube", "frame_triangle", "down_tube_bolts", "seat_tube_bolts", "saddle", "riders_back",
)  # fmt: skip

BIKES: dict[str, Bike] = {
    "touring": Bike(
        id="touring", rider_id="rider", name="Touring bike", kind="touring", mass_kg=14, maximum_system_kg=170,
        front_wheel_limit_kg=75, rear_wheel_limit_kg=110,
        mounts=(*_EVERYWHERE, "rear_eyelets", "fork_eyelets", "under_down_tube_bolts", "rear_axle"),
    ),
    "gravel": Bike(
        id="gravel", rider_id="rider", name="Gravel bike", kind="gravel", mass_kg=10.5, maximum_system_kg=140,
        front_wheel_limit_kg=65, rear_wheel_limit_kg=90, wheelbase_mm=1030, chainstay_mm=430, tyre_width_mm=45,
        fork_rake_mm=50, head_angle_deg=71, stack_mm=590, frame_reach_mm=385, rolling_resistance=0.010, drag_area_m2=0.5,
        bar_inner_width_mm=400,
        low_chainring=30, low_cog=40,
        mounts=(*_EVERYWHERE, "fork_bolts", "under_down_tube_bolts", "rear_axle"),
    ),
    "mountain": Bike(
        id="mountain", rider_id="rider", name="Rigid mountain bike", kind="mountain", mass_kg=12.5,
        maximum_system_kg=150, front_wheel_limit_kg=70, rear_wheel_limit_kg=100, wheelbase_mm=1130, chainstay_mm=440,
        tyre_width_mm=57, head_angle_deg=68, stack_mm=625, frame_reach_mm=430, drop_bar=False,
        rolling_resistance=0.014, drag_area_m2=0.6, bar_inner_width_mm=560, low_chainring=30, low_cog=46,
        mounts=(*_EVERYWHERE, "rear_eyelets", "fork_bolts", "under_down_tube_bolts", "rear_axle"),
    ),
}  # fmt: skip

SIZES: dict[str, tuple[str, float, float, float, float]] = {
    "small": ("small, riders to 1.68 m", -40, -15, -25, -65),
    "middle": ("middle, 1.68 to 1.80 m", 0, 0, 0, 0),
    "large": ("large, 1.80 to 1.90 m", 35, 14, 20, 55),
    "largest": ("largest, above 1.90 m", 65, 25, 35, 95),
}
"""Frame sizes in words, and what they add to stack, reach, wheelbase and saddle height of the middle one [mm]; practice."""


def sized(kind: str, size: str) -> Bike:
    """A bike of the catalogue in a frame size."""
    bike, (_, stack, reach, wheelbase, saddle) = BIKES[kind], SIZES[size]
    return bike.model_copy(
        update={
            "id": f"{kind}-{size}",
            "stack_mm": bike.stack_mm + stack,
            "frame_reach_mm": bike.frame_reach_mm + reach,
            "wheelbase_mm": bike.wheelbase_mm + wheelbase,
            "saddle_height_mm": bike.saddle_height_mm + saddle,
        }
    )
