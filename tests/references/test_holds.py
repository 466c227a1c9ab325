"""Loads that say they hold, held against every hard rule at every moment by a checker that shares no code with the search.

It reads the tour as it was told, the stores at every moment and where bags are drawn, and works out all else anew.
"""

import datetime as dt
import math
from collections import Counter, defaultdict

import numpy as np
import pytest

from omnifer.core.assess import assess, profile_of
from omnifer.core.load.settle import propose_load
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.people import Rider
from omnifer.core.model.rig import Bike, Rig
from omnifer.core.model.road import Road, Stop, TypedDay
from omnifer.core.model.tour import Tour
from omnifer.core.rig.catalogue import BIKES, carrier, support

REACHES = ("riding", "stop", "camp", "night", "breaks")
FOOD_NOT_WITH = {"fuel", "soap", "dirty"}
NO_FOOD = {"stem_bag", "saddle_pack", "bottle_cage", "under_tube_bag"}
GRAM = 0.0061
"""What counts as rounding [kg, l]."""


def hang(rider: str, kind: int) -> Bike:
    """One of five rigs: panniers, panniers with parts, bags alone, a trailer, four panniers."""
    p = f"{rider}-"
    rear = [("rear_pannier", f"{p}rear", "left"), ("rear_pannier", f"{p}rear", "right")]
    cages = [("bottle_cage", "down_tube_bolts", "middle"), ("bottle_cage", "seat_tube_bolts", "middle")]
    hung = [
        [*rear, ("handlebar_box", "handlebar", "middle"), *cages],
        [*rear, ("rack_top_bag", f"{p}rear", "middle"), *cages, ("outer_pocket", f"{p}0", "left"), ("compartment", f"{p}1", "right")],
        [("saddle_pack", "saddle", "middle"), ("handlebar_roll", "handlebar", "middle"), ("full_frame_bag", "frame_triangle", "middle"),
         ("top_tube_bag", "top_tube", "middle"), ("backpack", "riders_back", "middle")],
        [("trailer_bag", f"{p}trailer", "middle"), ("handlebar_box", "handlebar", "middle"), *cages],
        [*rear, ("front_pannier", f"{p}front", "left"), ("front_pannier", f"{p}front", "right"), *cages,
         ("net", f"{p}rear", "middle")],
    ][kind]  # fmt: skip
    supports = [support("rear_rack", f"{p}rear"), support("front_rack", f"{p}front")]
    if kind == 3:
        supports = [support("trailer_one_wheel", f"{p}trailer")]
    carriers = [carrier(k, f"{p}{n}", on, side) for n, (k, on, side) in enumerate(hung)]
    changed = {"id": f"bike-{rider}", "rider_id": rider, "supports": supports, "carriers": carriers}
    return Bike.model_validate(
        BIKES["touring"].model_dump() | {k: v if isinstance(v, str) else [c.model_dump() for c in v] for k, v in changed.items()}
    )


def a_tour(seed: int) -> Tour:
    """Things of every nature, some in others, owned, several or pinned; vessels in pots and bags; stretches without shops."""
    chance = np.random.default_rng(seed)
    names = ("ada", "ben")[: 1 + seed % 2]
    bikes = [hang(name, int((seed + 2 * n) % 5)) for n, name in enumerate(names)]
    things = []
    for n in range(int(chance.integers(14, 34))):
        nature = str(chance.choice(["", "", "", "food", "fuel", "soap", "dirty", "clean", "down", "sharp", "air_mat", "papers"]))
        apart = {
            "food": ["soap", "fuel"],
            "fuel": ["food", "down"],
            "down": ["fuel", "dirty"],
            "clean": ["dirty"],
            "sharp": ["air_mat"],
        }
        volume = round(float(min(chance.lognormal(-0.7, 0.9), 5)), 2)
        must = bool(chance.random() < 0.2)
        things.append(Thing(
            id=f"t{n}", name=f"Thing {n}", mass_kg=round(volume * float(chance.uniform(0.1, 0.9)), 4), volume_l=volume,
            pressed_l=round(volume * 0.6, 2) if chance.random() < 0.2 else 0, count=int(chance.choice([1, 1, 1, 2, 3, 7])),
            longest_mm=float(chance.integers(250, 460)) if chance.random() < 0.1 else 0, reach=str(chance.choice(REACHES)),
            group=str(chance.choice(["", "cook", "sleep", "tools", "wash"])), dry="must" if must else "any",
            wet=not must and chance.random() < 0.1, natures=[nature] if nature else [], not_with=apart.get(nature, []),
            rider_id=str(chance.choice(names)) if chance.random() < 0.3 else None,
        ))  # fmt: skip
    pot = Thing(id="pot", name="Pot", mass_kg=0.4, volume_l=2.5, bag=bool(seed % 3 == 0), group="cook")
    vessels = [
        Thing(id="bottle", name="Bottle", mass_kg=0.1, volume_l=0.9, holds_water_l=0.75, reach="riding", count=2),
        Thing(id="sack", name="Sack", mass_kg=0.11, volume_l=0.3, holds_water_l=4, soft_vessel=True, reach="stop"),
        Thing(id="inner-sack", name="Sack in the pot", mass_kg=0.09, volume_l=0.2, holds_water_l=2, soft_vessel=True, inside="pot"),
        Thing(id="inner-bread", name="Bread in the pot", mass_kg=0.3, volume_l=0.5, inside="pot", natures=("food",), not_with=("fuel",),
              rider_id=names[-1] if seed % 4 == 0 else None),
    ]  # fmt: skip
    bags = [c for bike in bikes for c in bike.carriers if c.kind not in ("bottle_cage", "net", "outer_pocket", "compartment")]
    pinned = next((t for t in things if not t.natures and not t.longest_mm and t.volume_l < 1 and t.mass_kg < 0.5 and not t.rider_id
                   and t.dry == "any" and not t.wet), None)  # fmt: skip
    pins = () if pinned is None else (Placement(thing_id=pinned.id, carrier_id=bags[0].id, pinned=True),)
    days = tuple(TypedDay(distance_km=60, ascent_m=float(chance.integers(0, 900)), highest_m=900, lowest_m=100) for _ in range(6))
    stops = (
        Stop(id="a", name="A", at_km=70, water="reliable", shop="basic"),
        Stop(id="b", name="B", at_km=160, water="reliable", shop="full"),
        Stop(id="d", name="D", at_km=230, water="reliable", shop="full"),
        Stop(id="c", name="C", at_km=300, water="seasonal", shop="full"),
    )
    return Tour(
        name="T", start_date=dt.date(2027, 5, 1), road=Road(typed_days=days, stops=stops), rig=Rig(bikes=tuple(bikes)),
        riders=tuple(Rider(id=n, name=n.title(), body_mass_kg=70, all_day_power_w=110) for n in names),
        kit=(*things, pot, *vessels), load=Load(placements=pins),
    )  # fmt: skip


def broken_rules(tour: Tour, load: Load) -> list[str]:
    """Every hard rule that a load breaks at any moment, in words."""
    told = assess(tour.model_copy(update={"load": load}), profile_of(tour))
    stock = {s.supply: np.array(s.stock) for s in told.moments.supplies}
    things, found = {t.id: t for t in tour.kit}, []
    at: dict[str, Counter[str]] = defaultdict(Counter)
    for p in load.placements:
        at[p.carrier_id][p.thing_id] += p.count
    placed = sum(at.values(), Counter())
    found += [f"{t}: {n} of {things[t].count}" for t, n in placed.items() if n > things[t].count]
    for p in tour.load.placements:
        if p.pinned and at[p.carrier_id][p.thing_id] < p.count:
            found.append(f"{p.thing_id} was pinned in {p.carrier_id}")
    for thing in tour.kit:
        if thing.inside:
            where = {c for c, inside in at.items() if inside[thing.inside]}
            if {c for c, inside in at.items() if inside[thing.id]} != where or (where and placed[thing.id] != thing.count):
                found.append(f"{thing.id} does not ride with {thing.inside}")
    # Water: the vessels on board, those at hand first, alike ones evenly.
    left, water = stock["water"].copy(), {}
    filled = {p.thing_id: p.filled_l for p in load.placements if p.filled_l is not None}
    on_board = [
        t.model_copy(update={"holds_water_l": filled.get(t.id, t.holds_water_l)})
        for t in tour.kit
        if t.holds_water_l and placed[t.id]
    ]
    for thing in sorted(on_board, key=lambda t: (REACHES.index(t.reach), t.soft_vessel, t.holds_water_l, t.id)):
        poured = np.minimum(left, thing.holds_water_l * placed[thing.id])
        water[thing.id], left = poured / placed[thing.id], left - poured
    tenths = {f.carrier_id: f.tenths for f in load.food}
    mass, pressed = {}, {}
    for bike in tour.rig.bikes:
        for bag in bike.carriers:
            food = stock["food"] * tenths.get(bag.id, 0) / 10
            kg, litres = food.copy(), food * 1.9
            for thing_id, n in at[bag.id].items():
                thing = things[thing_id]
                inside = water.get(thing_id, np.zeros(left.size))
                kg = kg + n * (thing.mass_kg + inside)
                hollow = thing.inside is not None and not things[thing.inside].bag
                room = 0.0 if hollow else n * min(thing.pressed_l or thing.volume_l, thing.volume_l)
                litres = litres + room + (n * inside if thing.soft_vessel else 0.0)
            mass[bag.id], pressed[bag.id] = kg, litres
            found += _neighbours(bag, [things[t] for t in at[bag.id] if at[bag.id][t]], bool(tenths.get(bag.id)), bike, things)
    for bike, trace in zip(tour.rig.bikes, told.bikes, strict=True):
        found += _weights(bike, trace, mass, pressed, next(r for r in tour.riders if r.id == bike.rider_id))
    return found


def _neighbours(bag, inside, food, bike, things) -> list[str]:
    """What may not ride in a carrier by itself, and what not together."""
    found = []
    sealed = {t.id for t in inside if t.dry == "own_bag"}
    for t in inside:
        dry = t.dry if t.inside not in sealed else "own_bag"
        if t.longest_mm > bag.longest_mm and (t.inside is None or things[t.inside].bag):
            found.append(f"{t.id} is too long for {bag.id}")
        if dry == "must" and bag.dryness != "waterproof":
            found.append(f"{t.id} gets wet in {bag.id}")
        if t.rider_id not in (None, bike.rider_id):
            found.append(f"{t.id} rides with another rider")
        if bag.kind == "bottle_cage" and (not t.holds_water_l or t.soft_vessel):
            found.append(f"{t.id} is no bottle")
        if {"papers", "valuables"} & set(t.natures) and bag.opening in ("none", "drawstring"):
            found.append(f"{t.id} falls out of {bag.id}")
        if food and (set(t.natures) & FOOD_NOT_WITH or "food" in t.not_with):
            found.append(f"food beside {t.id} in {bag.id}")
        for other in inside:
            together = (
                other.id != t.id and {t.inside, other.inside} & {t.id, other.id} == set() and (t.inside or other.inside) is None
            )
            if together and set(t.not_with) & set(other.natures):
                found.append(f"{t.id} beside {other.id} in {bag.id}")
            if together and t.wet and (other.dry == "must") and other.inside not in sealed:
                found.append(f"wet {t.id} beside {other.id}")
    if food and (bag.dryness == "open" or bag.kind in NO_FOOD):
        found.append(f"food in {bag.id}")
    return found


def _weights(bike, trace, mass, pressed, rider) -> list[str]:
    """Bags with their parts, racks, wheels, the whole and the hitch, from where things are drawn."""
    found = []

    def over(name: str, value, most: float) -> None:
        if float(np.max(value)) > most + GRAM:
            found.append(f"{name}: {float(np.max(value)):.3f} of {most}")

    parts = {bag.id: [p for p in bike.carriers if p.hangs_on == bag.id] for bag in bike.carriers}
    inner = {"compartment", "bladder_sleeve"}
    for bag in bike.carriers:
        over(f"kg {bag.id}", mass[bag.id] + sum(mass[p.id] + p.mass_kg for p in parts[bag.id]), bag.limit_kg)
        taken = sum(p.volume_l for p in parts[bag.id] if p.kind in inner)
        over(f"l {bag.id}", pressed[bag.id], max(bag.most_l, bag.volume_l) - taken)
    whole = {bag.id: next((b for b in bike.carriers if b.id == bag.hangs_on), bag) for bag in bike.carriers}
    trailer = next((s for s in bike.supports if s.trailer), None)
    for rack in bike.supports:
        hung = [bag for bag in bike.carriers if whole[bag.id].hangs_on == rack.id]
        over(f"rack {rack.id}", sum((mass[b.id] + b.mass_kg for b in hung), np.zeros(1)), rack.limit_kg)
    wheelbase = bike.wheelbase_mm
    front = trace.own_front_kg + trace.rider_front_kg
    total, hitch, towed = bike.mass_kg + rider.body_mass_kg, 0.0, 0.0
    loads = [(s.mass_kg, None, s) for s in bike.supports] + [(mass[b.id] + b.mass_kg, b, None) for b in bike.carriers]
    for kg, bag, rack in loads:
        on_trailer = trailer is not None and (rack is trailer or (bag is not None and whole[bag.id].hangs_on == trailer.id))
        if bag is not None:
            box = trace.boxes[bag.id]
            x = (box.x0 + box.x1) / 2
        elif on_trailer:
            x = trailer.trailer.own_mass_ahead_of_axle_mm - trailer.trailer.hitch_to_axle_mm
        else:
            x = -40.0 if rack.kind == "rear_rack" else wheelbase
        if on_trailer:
            length = trailer.trailer.hitch_to_axle_mm
            hitch, towed = hitch + kg * (x + length) / length, towed + kg
        else:
            front, total = front + kg * x / wheelbase, total + kg
    over("front wheel", front, bike.front_wheel_limit_kg)
    over("rear wheel", total + hitch - front, bike.rear_wheel_limit_kg)
    over("system", total + hitch, bike.maximum_system_kg)
    if trailer is not None:
        over("hitch", hitch, trailer.trailer.hitch_most_kg)
        over("hitch lifted", -np.asarray(hitch), 0.0)
    return found


@pytest.mark.parametrize("seed", range(25))
def test_what_says_it_holds_breaks_no_rule(seed):
    tour = a_tour(seed)
    found = propose_load(tour, profile_of(tour), rounds=1, effort=0, advise=False)
    if found.holds:
        assert broken_rules(tour, found.load) == []
    else:
        assert broken_rules(tour, found.load) != []
    assert math.isfinite(found.points)


def test_the_generated_tours_are_neither_all_easy_nor_all_hopeless():
    """Of those that hold some take everything along, and some must leave things out."""
    found = [propose_load(t, profile_of(t), rounds=0, effort=0, advise=False) for t in map(a_tour, range(12))]
    assert sum(f.holds for f in found) >= 9
    assert 3 <= sum(f.complete for f in found) <= 11


def test_the_checker_sees_what_is_broken():
    """A load thrown together: all in one bag, fuel on the food, the sack full on top."""
    tour = a_tour(1)
    bag = tour.rig.bikes[0].carriers[0].id
    everything = tuple(Placement(thing_id=t.id, carrier_id=bag, count=t.count) for t in tour.kit)
    assert len(broken_rules(tour, Load(placements=everything))) > 5
