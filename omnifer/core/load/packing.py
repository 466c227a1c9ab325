"""The order in which each bag is packed: bottom to top, last needed at the bottom."""

import numpy as np

from omnifer.core.load.trace import BikeLoad, CarrierContents
from omnifer.core.model.assessment import PackCard, PackLayer
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.practice import Practice
from omnifer.core.model.quantities import REACHES
from omnifer.core.model.reach import at_mouth
from omnifer.core.model.rig import Carrier
from omnifer.core.rig.covers import covers, minutes_off

Layer = tuple[Thing, Placement, float]
"""A thing in a bag, where it is placed, and its litres."""


def _bottom_first(layer: Layer, mouth: set[str]) -> tuple[bool, bool, int, bool, bool, str, float, str]:
    """First aid on top of all, under it what lies at the mouth; deeper reach lower, the shelter above other things of the camp,
    for it goes up first; wet things above dry ones, kits together, heavy below light."""
    thing, placement, _ = layer
    return (
        "first_aid" in thing.natures, thing.id in mouth, -REACHES.index(thing.reach), "shelter" in thing.natures, thing.wet,
        thing.group, -thing.mass_kg * placement.count, thing.id,
    )  # fmt: skip


DENSE_KG_PER_L = 0.5
"""Heavier for its litres, a thing goes deep into a saddle pack, next to the post [kg/l]; practice."""
FRAGILE = frozenset({"electronics", "valuables"})
SOFT = frozenset({"clean", "down"})


def _deepest_first(layer: Layer, mouth: set[str]) -> tuple[bool, bool, float, str]:
    """A saddle pack hangs from its far end: what is dense lies by the post, whatever the moment at which it is wanted."""
    thing, placement, volume = layer
    return "first_aid" in thing.natures, thing.id in mouth, -thing.mass_kg * placement.count / max(volume, 0.05), thing.id


def _place(kind: str, step: int, steps: int, thing: Thing, soft: bool, mouth: set[str]) -> str:
    """Where in the bag a layer goes, beyond its height."""
    if thing.id in mouth and kind != "handlebar_roll":
        return "at the mouth"
    if kind == "saddle_pack":
        return "by the post" if step == 0 else "at the far end" if step == steps - 1 and steps > 1 else ""
    if kind == "handlebar_roll" and steps > 1:
        # A roll opens at both ends: one kit from either, what is wanted last in the middle.
        return "in the middle" if step < steps // 3 else "left end" if step % 2 else "right end"
    return "between soft things" if soft and FRAGILE & set(thing.natures) else ""


def _card(bike: BikeLoad, contents: CarrierContents, leaving: int, over: list[Carrier], usual: Practice) -> PackCard:
    layers_of = [
        (thing, placement, volume)
        for (thing, placement), volume, there in zip(contents.inside, contents.thing_l, contents.there, strict=True)
        if np.atleast_1d(there)[min(leaving, np.size(there) - 1)]
    ]
    kind = contents.carrier.kind
    mouth = at_mouth(((thing, volume) for thing, _, volume in layers_of), contents.carrier)
    ordered = sorted(layers_of, key=lambda layer: (_deepest_first if kind == "saddle_pack" else _bottom_first)(layer, mouth))
    soft = any(SOFT & set(thing.natures) for thing, _, _ in ordered)
    layers = [
        PackLayer(
            place=_place(kind, step, len(ordered), thing, soft, mouth),
            thing_id=thing.id,
            count=placement.count,
            mass_kg=round(thing.mass_kg * placement.count, 3),
            volume_l=round(volume, 3),
        )
        for step, (thing, placement, volume) in enumerate(ordered)
    ]
    litres = float(contents.litres[leaving])
    return PackCard(
        bike_id=bike.bike.id,
        carrier_id=contents.carrier.id,
        layers=layers,
        food_kg=round(float(contents.food_kg[leaving]), 3),
        food_l=round(float(contents.food_l[leaving]), 3),
        water_l=round(float(contents.water_kg[leaving]), 3),
        mass_kg=round(float(contents.kg[leaving]), 3),
        volume_l=round(litres, 3),
        room_l=round(contents.room_l, 3),
        empty_l=round(max(contents.room_l - litres, 0.0), 3),
        kept_for_shopping=contents.carrier.keeps_room,
        under=[bag.id for bag in over],
        under_minutes=round(minutes_off(over, usual), 1),
    )


def cards(bikes: list[BikeLoad], usual: Practice, leaving: int = 0) -> list[PackCard]:
    """One card for each carrier, as packed at a moment (the start), in the order of the rig."""
    over = {bag_id: others for bike in bikes for bag_id, others in covers(bike.bike, bike.levers.boxes).items()}
    return [_card(bike, c, leaving, over.get(c.carrier.id, []), usual) for bike in bikes for c in bike.contents]
