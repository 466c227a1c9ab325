"""Generated tours for the benchmarks: as many things and carriers as asked for, loosely or tightly packed."""

import datetime as dt

import numpy as np

from omnifer.core.load.formulate import formulate
from omnifer.core.load.problem import Problem
from omnifer.core.model.kit import Thing
from omnifer.core.model.people import Rider
from omnifer.core.model.practice import USUAL
from omnifer.core.model.rig import Bike, Rig
from omnifer.core.model.tour import TourSheet
from omnifer.core.rig.catalogue import BIKES, carrier, support
from omnifer.core.supplies.stock import Stock, vessels

FILLED = {"loose": 0.6, "tight": 0.84}
"""Part of all litres and of all kilograms that the things, full vessels and most food together need."""
WATER_L = np.array([6.0, 0.5, 8.0, 2.0])
FOOD_KG = np.array([5.0, 1.0, 1.0, 6.5])
"""Four moments that govern: most on board, least, most water, most food."""
SIZES = ((60, 8), (120, 14), (200, 16), (250, 24))
_GROUPS = ("", "", "sleep", "cook", "wash", "tools", "clothes", "papers")
_REACHES, _REACH_ODDS = ("riding", "stop", "camp", "night", "breaks"), (0.08, 0.22, 0.4, 0.15, 0.15)

_HUNG = (
    ("rear_pannier", "rack", "left"), ("rear_pannier", "rack", "right"), ("front_pannier", "low", "left"),
    ("front_pannier", "low", "right"), ("rack_top_bag", "rack", "middle"), ("handlebar_box", "handlebar", "middle"),
    ("bottle_cage", "down_tube_bolts", "middle"), ("bottle_cage", "seat_tube_bolts", "middle"),
    ("half_frame_bag", "frame_triangle", "middle"), ("top_tube_bag", "top_tube", "middle"), ("stem_bag", "stem", "left"),
    ("stem_bag", "stem", "right"), ("saddle_pack", "saddle", "middle"), ("under_tube_bag", "under_down_tube_bolts", "middle"),
    ("backpack", "riders_back", "middle"), ("trailer_bag", "trailer", "middle"),
)  # fmt: skip


def _bike(rider: str, carriers: int) -> Bike:
    hung = [carrier(kind, f"{rider}-{n}", place, side).model_dump() for n, (kind, place, side) in enumerate(_HUNG[:carriers])]
    bolted = [support("rear_rack", "rack"), support("front_rack", "low")]
    if carriers >= 16:
        bolted.append(support("trailer_one_wheel", "trailer"))
    changed = {"id": f"bike-{rider}", "rider_id": rider, "carriers": hung, "supports": [s.model_dump() for s in bolted]}
    return Bike.model_validate(BIKES["touring"].model_dump() | changed)


def _things(chance: np.random.Generator, count: int, litres: float, kilograms: float, riders: list[str]) -> list[Thing]:
    volume = np.minimum(chance.lognormal(0.0, 0.9, count), 8)
    mass = volume * chance.uniform(0.12, 1.1, count)
    volume *= litres / volume.sum()
    mass *= kilograms / mass.sum()
    things = []
    for i in range(count):
        nature = str(chance.choice(["", "", "", "", "", "food", "fuel", "soap"]))
        must = bool(chance.random() < 0.2)
        things.append(
            Thing.model_validate({
                "id": f"thing-{i}",
                "name": f"Thing {i}",
                "mass_kg": round(float(mass[i]), 3),
                "volume_l": round(float(volume[i]), 3),
                "longest_mm": float(chance.integers(300, 500)) if volume[i] > 1 and chance.random() < 0.08 else 0,
                "group": str(chance.choice(_GROUPS)),
                "reach": str(chance.choice(_REACHES, p=_REACH_ODDS)),
                "dry": "must" if must else "any",
                "wet": not must and chance.random() < 0.04,
                "natures": [nature] if nature else [],
                "not_with": {"food": ["soap", "fuel"], "fuel": ["food"]}.get(nature, []),
                "rider_id": str(chance.choice(riders)) if len(riders) > 1 and chance.random() < 0.6 else None,
            })
        )  # fmt: skip
    return things


def bench_tour(things: int, carriers: int, packed: str, seed: int) -> tuple[TourSheet, Stock]:
    """A tour of that size and its stores at four moments. The same seed gives the same tour.

    Beyond 16 carriers there are two bikes, the second with 8.
    """
    chance = np.random.default_rng(seed)
    names = ["ada", "ben"] if carriers > 16 else ["ada"]
    bikes = [_bike(names[0], min(carriers, 16)), *(_bike(name, carriers - 16) for name in names[1:])]
    vessel = [
        Thing(id=f"vessel-{n}", name=f"Vessel {n}", mass_kg=0.1, volume_l=v, reach="riding", holds_water_l=held, soft_vessel=soft)
        for n, (v, held, soft) in enumerate(
            [(0.9, 0.75, False), (0.9, 0.75, False), (0.2, 2, True), (0.2, 2, True), (0.2, 3, True)]
        )
    ]
    bags = [c for bike in bikes for c in bike.carriers if c.kind != "bottle_cage"]
    store_l, store_kg = 7 + float(FOOD_KG.max()) * USUAL.food_l_per_kg, float((WATER_L + FOOD_KG).max())
    by_rack = {s.id + b.id: s.limit_kg for b in bikes for s in b.supports}
    loose_kg = sum(c.limit_kg for c in bags if c.hangs_on not in ("rack", "low", "trailer"))
    litres = FILLED[packed] * sum(c.volume_l for c in bags) - store_l
    kilograms = 0.75 * FILLED[packed] * (sum(by_rack.values()) + loose_kg) - store_kg
    tour = TourSheet(
        name="Bench",
        start_date=dt.date(2027, 5, 1),
        riders=tuple(Rider(id=n, name=n, body_mass_kg=70, all_day_power_w=w) for n, w in zip(names, (110, 100), strict=False)),
        rig=Rig(bikes=tuple(bikes)),
        kit=(*_things(chance, things - len(vessel), litres, kilograms, names), *vessel),
    )
    return tour, Stock(vessels(tour), {"water": WATER_L, "food": FOOD_KG})


def bench_problem(things: int, carriers: int, packed: str, seed: int) -> Problem:
    """The placing problem of a generated tour."""
    return formulate(*bench_tour(things, carriers, packed, seed))
