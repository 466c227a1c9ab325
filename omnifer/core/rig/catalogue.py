"""Generic bikes, supports and carriers. Every figure is common practice, no source, until the rider overwrites it
with the maker's."""

from pydantic import Field

from omnifer.core.model.carrier_kind import KINDS, CarrierKind
from omnifer.core.model.quantities import Noun, Side
from omnifer.core.model.rig import Bike, Carrier, Mount, Support, SupportKind, TrailerFrame


class CarrierTemplate(Noun):
    """A kind of carrier as the catalogue offers it: a usual one, to be hung and overwritten."""

    kind: CarrierKind
    hangs_on: tuple[str, ...] = Field(description="Kinds of supports and larger carriers, and mounts, that it can hang on")
    sides: tuple[Side, ...]
    good_for: str
    trouble: str
    prototype: Carrier


class SupportTemplate(Noun):
    """A rack, cage or trailer as the catalogue offers it."""

    kind: SupportKind
    sides: tuple[Side, ...]
    prototype: Support


_PAIR: tuple[Side, ...] = ("left", "right")
_MIDDLE: tuple[Side, ...] = ("middle",)


PROTOTYPE = "new"
"""Identifier and place of what hangs nowhere yet."""

CARRIERS: dict[CarrierKind, CarrierTemplate] = {
    kind: CarrierTemplate(
        kind=kind,
        hangs_on=row.hangs_on,
        sides=row.sides,
        good_for=row.good_for,
        trouble=row.trouble,
        prototype=Carrier(
            id=PROTOTYPE, kind=kind, name=row.name, hangs_on=PROTOTYPE, side=row.sides[0], mass_kg=row.mass_kg,
            volume_l=row.volume_l, limit_kg=row.limit_kg, longest_mm=row.longest_mm, opening=row.opening, reach=row.reach,
            dryness=row.dryness, straps=row.straps, lifts_off=row.lifts_off, price=round(row.litre_price * row.volume_l),
        ),
    )
    for kind, row in KINDS.items()
}  # fmt: skip


def _support(kind: SupportKind, name: str, mount: Mount, sides: tuple[Side, ...], mass_kg: float, limit_kg: float, bolts: int,
             price: float, trailer: TrailerFrame | None = None) -> SupportTemplate:  # fmt: skip
    made = Support(id=PROTOTYPE, kind=kind, name=name, mount=mount, side=sides[0], mass_kg=mass_kg, limit_kg=limit_kg,
                   bolts=bolts, price=price, trailer=trailer)  # fmt: skip
    return SupportTemplate(kind=kind, sides=sides, prototype=made)


_ONE_WHEEL = TrailerFrame(hitch_to_axle_mm=1150, own_mass_ahead_of_axle_mm=380, hitch_most_kg=20, drag_area_m2=0.05)
_TWO_WHEELS = TrailerFrame(hitch_to_axle_mm=950, own_mass_ahead_of_axle_mm=60, hitch_most_kg=8, drag_area_m2=0.1)
SUPPORTS: dict[SupportKind, SupportTemplate] = {
    template.kind: template
    for template in (
        _support("rear_rack", "Rear rack", "rear_eyelets", _MIDDLE, 0.8, 25, 4, 70),
        _support("front_rack", "Low front rack", "fork_eyelets", _MIDDLE, 0.65, 15, 4, 90),
        _support("fork_cage", "Fork cage", "fork_bolts", _PAIR, 0.12, 3, 3, 35),
        _support("under_tube_cage", "Under-tube cage", "under_down_tube_bolts", _MIDDLE, 0.1, 3, 2, 25),
        _support("trailer_one_wheel", "One-wheel trailer", "rear_axle", _MIDDLE, 6.2, 28, 0, 350, _ONE_WHEEL),
        _support("trailer_two_wheels", "Two-wheel trailer", "rear_axle", _MIDDLE, 9.5, 40, 0, 320, _TWO_WHEELS),
    )
}


def support(kind: SupportKind, identifier: str, side: Side = "middle", **overwritten: object) -> Support:
    """A support with the catalogue's figures, any of them overwritten."""
    return Support.model_validate(SUPPORTS[kind].prototype.model_dump() | {"id": identifier, "side": side} | overwritten)


def carrier(kind: CarrierKind, identifier: str, hangs_on: str, side: Side = "middle", **overwritten: object) -> Carrier:
    """A carrier with the catalogue's figures, any of them overwritten."""
    hung = {"id": identifier, "hangs_on": hangs_on, "side": side}
    return Carrier.model_validate(CARRIERS[kind].prototype.model_dump() | hung | overwritten)


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
