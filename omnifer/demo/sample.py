"""The sample tour: two riders, two rigs, one tent, six weeks through an invented country."""

import datetime as dt
from importlib import resources

from omnifer.core.assess import profile_of
from omnifer.core.load.settle import propose_load
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.part import BikePart
from omnifer.core.model.people import Rider
from omnifer.core.model.rig import Bike, OuterSize, Rig
from omnifer.core.model.road import DayCut, Hazard, HazardKind, Night, Road, Stop, SurfaceStretch, Transfer
from omnifer.core.model.stores import Stores
from omnifer.core.model.tour import Tour
from omnifer.core.model.variant import Variant
from omnifer.core.rig.catalogue import BIKES, carrier, support
from omnifer.core.supplies.foods import FOODS
from omnifer.demo.country import STATIONS, demo_track
from omnifer.formats.kit_csv import read_kit_csv
from omnifer.formats.stops_csv import read_stops_csv

RUNA = Rider(id="runa", name="Runa", body_mass_kg=63, all_day_power_w=105, height_cm=169, age_years=34, sex="female",
             sleeps="cold")  # fmt: skip
EDVIN = Rider(id="edvin", name="Edvin", body_mass_kg=81, all_day_power_w=125, height_cm=183, age_years=51, sex="male",
              sleeps="warm", mends="workshop")  # fmt: skip
ACROSS = OuterSize(length_mm=300, height_mm=230, width_mm=460)
"""Of a roll that lies across the panniers: it comes off before they open."""
STILL_ON_SHELF = ("folding-chair", "flask-half-litre", "second-lens", "travel-chess", "tarp", "second-fuel-bottle")
"""Things of the demo that nobody has stowed yet."""
LOAD = "load.json"
"""The load that ships; after aims, rules or the sample changed it is written anew: python -m omnifer.demo.sample"""


def _runas_bike() -> Bike:
    return Bike.model_validate(
        BIKES["touring"].model_dump()
        | {
            "id": "bike-runa",
            "rider_id": "runa",
            "name": "Runa's tourer",
            "tyre_kind": "armoured",
            "mudguards": True,
            "narrowest_mm": 54,
            "hanger": "tourer H1",
            "pads": "round",
            "spokes_mm": (290, 292),
            "heads": ("hex 4", "hex 5", "hex 6", "8 mm"),
            "state": "serviced",
            "parts": (
                BikePart(kind="rear_tyre", behind_km=3100, verdict="two plugs since the autumn").model_dump(),
                BikePart(kind="saddle", behind_km=9000).model_dump(),
            ),
            "mass_kg": 14.4,
            "sources": {
                "mass_kg": "measured",
                "rolling_resistance": "measured",
                "maximum_system_kg": "maker",
                "wheelbase_mm": "measured",
            },
            "supports": (
                support("rear_rack", "runa-rear-rack").model_dump(),
                support("front_rack", "runa-front-rack").model_dump(),
            ),
            "carriers": tuple(
                c.model_dump()
                for c in (
                    carrier("rear_pannier", "runa-rear-left", "runa-rear-rack", "left", name="Rear left"),
                    carrier("rear_pannier", "runa-rear-right", "runa-rear-rack", "right", name="Rear right"),
                    carrier("front_pannier", "runa-front-left", "runa-front-rack", "left", name="Front left"),
                    carrier("front_pannier", "runa-front-right", "runa-front-rack", "right", name="Front right"),
                    carrier("rack_top_bag", "runa-roll", "runa-rear-rack", name="Rack-top roll", size=ACROSS.model_dump()),
                    carrier("net", "runa-net", "runa-roll", name="Net on the roll"),
                    carrier("handlebar_box", "runa-bar-box", "handlebar", name="Handlebar bag"),
                    carrier("bottle_cage", "runa-down-tube", "down_tube_bolts", name="Down-tube bottle"),
                    carrier("bottle_cage", "runa-seat-tube", "seat_tube_bolts", name="Seat-tube bottle"),
                    carrier("bottle_cage", "runa-under-tube", "under_down_tube_bolts", name="Under-tube bottle"),
                )
            ),
        }
    )


def _runas_light_bike() -> Bike:
    """The same bike with bags that need no rack: narrow, and half the room."""
    bags = (
        carrier("saddle_pack", "runa-saddle", "saddle", name="Saddle pack"),
        carrier("handlebar_roll", "runa-bar-roll", "handlebar", name="Handlebar roll"),
        carrier("half_frame_bag", "runa-frame-bag", "frame_triangle", name="Half frame bag"),
        carrier("top_tube_bag", "runa-top-tube", "top_tube", name="Top-tube bag"),
        carrier("bottle_cage", "runa-bottle-down", "down_tube_bolts", name="Down-tube bottle"),
        carrier("bottle_cage", "runa-bottle-seat", "seat_tube_bolts", name="Seat-tube bottle"),
        carrier("backpack", "runa-backpack", "riders_back", name="Backpack"),
    )
    return _runas_bike().model_copy(update={"supports": (), "carriers": bags})


def _edvins_bike() -> Bike:
    return Bike.model_validate(
        BIKES["gravel"].model_dump()
        | {
            "id": "bike-edvin",
            "rider_id": "edvin",
            "name": "Edvin's bike and trailer",
            "rim_depth_mm": 28,
            "narrowest_mm": 58,
            "hanger": "gravel G3",
            "pads": "square",
            "spokes_mm": (294, 296),
            "heads": ("hex 4", "hex 5", "hex 6", "T25"),
            "lube": "dry",
            "parts": (BikePart(kind="chain", behind_km=1100, renewed_km=1180.0).model_dump(),),
            "front_share_low": 0.28,
            "supports": (
                support("trailer_one_wheel", "edvin-trailer").model_dump(),
                support("fork_cage", "edvin-cage-left", "left", name="Fork cage left").model_dump(),
                support("fork_cage", "edvin-cage-right", "right", name="Fork cage right").model_dump(),
            ),
            "carriers": tuple(
                c.model_dump()
                for c in (
                    carrier("trailer_bag", "edvin-trailer-bag", "edvin-trailer", name="Trailer bag", volume_l=64, liner=True),
                    carrier("half_frame_bag", "edvin-frame-bag", "frame_triangle", name="Frame bag"),
                    carrier(
                        "outer_pocket", "edvin-trailer-pocket", "edvin-trailer-bag", name="Trailer pocket", volume_l=3, limit_kg=2
                    ),
                    carrier("handlebar_roll", "edvin-bar-roll", "handlebar", name="Handlebar roll"),
                    carrier("top_tube_bag", "edvin-top-tube", "top_tube", name="Top-tube bag"),
                    carrier("fork_bag", "edvin-fork-left", "edvin-cage-left", "left", name="Fork bag left"),
                    carrier("fork_bag", "edvin-fork-right", "edvin-cage-right", "right", name="Fork bag right"),
                    carrier("stem_bag", "edvin-stem", "stem", "right", name="Stem pouch"),
                    carrier("bottle_cage", "edvin-down-tube", "down_tube_bolts", name="Down-tube bottle"),
                    carrier("bottle_cage", "edvin-under-tube", "under_down_tube_bolts", name="Under-tube bottle"),
                )
            ),
        }
    )


def _text(name: str) -> str:
    return resources.files("omnifer.demo").joinpath(name).read_text(encoding="utf-8")


def demo_stops() -> tuple[Stop, ...]:
    """The stops of the demo road."""
    found = read_stops_csv(_text("stops.csv"), set())
    if found.problems:
        raise ValueError(f"the demo stops do not read: {found.problems[0]}")
    return tuple(found.stops)


def demo_road() -> Road:
    """The road besides its track: late starts, a rest before the pass, gravel up to it, a ferry over the river."""
    return Road(
        cut=DayCut(by="hours", hours=5),
        stops=demo_stops(),
        stations=STATIONS,
        nights=(Night(at_km=1309, rest_days=1),),
        start_hour=11,
        surfaces=(
            SurfaceStretch(from_km=712, to_km=884, surface="rough_asphalt"),
            SurfaceStretch(from_km=1384, to_km=1527, surface="gravel"),
        ),
        transfers=(Transfer(from_km=1841, to_km=1844, by="ferry", hours=1.5),),
        hazards=tuple(Hazard(from_km=a, to_km=b, kind=kind, note=note) for a, b, kind, note in HAZARDS),
    )


HAZARDS: tuple[tuple[float, float, HazardKind, str], ...] = (
    (379, 424, "traffic", "Into the last big town"),
    (420, 428, "theft", "Last big town"),
    (628, 712, "thorns", ""),
    (712, 884, "sun", "No shade in the basin"),
    (712, 884, "dust", ""),
    (798, 884, "no_signal", "Two days without a house"),
    (1088, 1221, "ticks", "Long grass"),
    (1384, 1611, "bears", "Both sides of the pass"),
    (1470, 1530, "no_signal", ""),
    (1489, 1497, "tunnels", "Three of them, unlit"),
    (1527, 1530, "border", "Behind the pass"),
    (2024, 2204, "insects", "Warm valley"),
)
PRICES = {
    "oats": 2.5, "dried-fruit": 9, "nut-butter": 10, "bars": 22, "nuts": 14, "chocolate": 13, "bread": 5, "hard-cheese": 15,
    "pasta": 3, "rice": 3, "oil": 7, "sausage": 18, "tinned-fish": 12, "fruit": 3,
}  # fmt: skip
"""Of a kilogram in the demo's country."""


def demo_stores() -> Stores:
    """Two who cook, in a country where eating out is dear."""
    priced = tuple(FOODS[food].model_copy(update={"price_per_kg": price}) for food, price in PRICES.items())
    return Stores(cooking="cook", meal_price=17, own_foods=priced, wash_every_days=2)


def demo_tour(load: bool = True) -> Tour:
    """The sample tour; without `load` everything still lies on the shelf.

    Its load ships with it, as `searched_load` finds it; a few things are as a tired rider left them, for the findings to find.
    """
    preview = read_kit_csv(_text("things.csv"), {"runa": "runa", "edvin": "edvin"})
    if preview.problems:
        raise ValueError(f"the demo kit does not read: {preview.problems[0]}")
    tour = Tour(
        name="Tamsen Quay to Lantern Point",
        start_date=dt.date(2027, 4, 12),
        riders=(RUNA, EDVIN),
        road=demo_road(),
        rig=Rig(bikes=(_runas_bike(), _edvins_bike())),
        kit=tuple(preview.things),
        track=demo_track(),
        money="crowns",
        stores=demo_stores(),
        variants=(Variant(id="light", name="Runa without racks", rig=Rig(bikes=(_runas_light_bike(), _edvins_bike()))),),
    )
    if not load:
        return tour
    return Tour.model_validate(tour.model_dump() | {"load": _as_left(Load.model_validate_json(_text(LOAD))).model_dump()})


def searched_load() -> Load:
    """The load that the search alone finds for the sample, before anybody touched it."""
    tour = demo_tour(load=False)
    return propose_load(tour, profile_of(tour), rounds=4, effort=0, advise=False).load


def _as_left(load: Load) -> Load:
    """The proposal with a few things not yet stowed and a few thrown into the wrong bag."""
    hasty = {"e-reader": "edvin-frame-bag", "lock": "runa-rear-left", "rain-cape": "edvin-fork-left"}
    kept = [p for p in load.placements if p.thing_id not in STILL_ON_SHELF and p.thing_id not in hasty]
    moved = [Placement(thing_id=thing, carrier_id=carrier_id) for thing, carrier_id in hasty.items()]
    return Load(placements=(*kept, *moved), food=load.food)


if __name__ == "__main__":
    with resources.as_file(resources.files("omnifer.demo").joinpath(LOAD)) as path:
        path.write_text(searched_load().model_dump_json(exclude_defaults=True) + "\n")
