"""From a tour and its voyage to the placing problem."""

from collections.abc import Callable, Iterable, Set
from dataclasses import dataclass
from math import ceil
from typing import Any

import numpy as np
from numpy.typing import NDArray

from omnifer.core.load import aims
from omnifer.core.load.limits import Limit, limits_of
from omnifer.core.load.nesting import as_one, bears_water, held_in, holds_kg
from omnifer.core.load.problem import BROKEN, LEVER, Bools, Ints, Problem, Rows
from omnifer.core.load.rules import FOOD, clash, hard_in_roll, harmed_by_rain, left_behind, spot_of, steps_too_deep, why_not
from omnifer.core.model.aims import AimName
from omnifer.core.model.carrier_kind import KINDS, ON_RIDER
from omnifer.core.model.kit import Nature, Thing
from omnifer.core.model.quantities import ON_THE_WAY, REACHES, ROUNDING
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.tour import TourSheet
from omnifer.core.rig.covers import covers
from omnifer.core.rig.parts import room_l
from omnifer.core.rig.statics import Levers
from omnifer.core.supplies import food
from omnifer.core.supplies.stock import Stock

WET, MUST_STAY_DRY = "wet", "must_stay_dry"
AIMED_PARTS = 1000
"""Levers of aims are thousandths: of a wish, 30 g more or less are none, and the solver finds in seconds what finer ones hide."""
VITAL: frozenset[Nature] = frozenset({"shelter", "first_aid"})
ALONE = "~"
"""Before the name of a group that is several of one thing."""
KEPT_OF_ROUNDING = 0.5
"""Part of what counts as rounding that the whole numbers may take up; the other half is the levers' [-]."""
EXACT = 1e-6
"""Nearer to a whole number than this is that number [g, ml]."""
Sized = list[tuple[Ints | int, NDArray[np.float64]]]
FREE = 10**12
"""No bound [g times LEVER]."""


def formulate(tour: TourSheet, stock: Stock, free_pins: bool = False, every_moment: bool = False) -> Problem:
    """State the placing problem of a tour.

    Parameters
    ----------
    stock : Stock
        All supplies over all moments, with every vessel of the kit on board.
    free_pins : bool
        Leave the pins out, to see what they cost.
    every_moment : bool
        State it for all moments, not only for those that govern: to judge a load, not to search one.
    """
    tour = in_its_own_order(as_one(tour))
    stock = stock if every_moment else stock.governing()
    pairs = [(bike, carrier) for bike in tour.rig.bikes for carrier in bike.carriers]
    spots = [spot_of(bike, carrier) for bike, carrier in pairs]
    levers = {bike.id: Levers(bike, tour.practice) for bike in tour.rig.bikes}
    covered = {bag_id for bike in tour.rig.bikes for bag_id in covers(bike, levers[bike.id].boxes)}
    water, nothing = stock.in_vessels(), np.zeros(stock.moments)
    shape = (len(tour.kit), stock.moments)
    there = np.array([nothing + stock.packed(t) for t in tour.kit]).reshape(shape)
    mass_kg = there * np.array([nothing + t.mass_kg + held_in(t, water) for t in tour.kit]).reshape(shape)
    litres = there * np.array([nothing + t.volume_l + held_in(t, water, soft_only=True) for t in tour.kit]).reshape(shape)
    springs_back = there * np.array([t.volume_l - t.least_l for t in tour.kit]).reshape(-1, 1)
    place = _place_cost(tour, pairs, levers)
    soft = _soft(tour, pairs, levers)
    limits = limits_of(tour)
    bag_kg, bag_l = ([limit for limit in limits if limit.kind == kind] for kind in ("bag_mass", "bag_volume"))
    names = [_group_of(thing) for thing in tour.kit]
    groups = sorted({name for name in names if name})
    tags = [*sorted({n for t in tour.kit for n in (*t.natures, *t.not_with)}), WET]
    food_tenth = stock.amounts["food"] / 10
    shopping = np.array([c.takes_food for _, c in pairs], dtype=bool)
    count = _ints(thing.count for thing in tour.kit)
    spare = Spare.none() if every_moment else Spare.of(
        [(count, 1000 * mass_kg), (10, 1000 * food_tenth)],
        [(count, 1000 * (litres - springs_back)), (10, 1000 * food.l_per_kg(tour) * food_tenth)],
    )  # fmt: skip
    return Problem(
        thing_ids=tuple(thing.id for thing in tour.kit),
        carrier_ids=tuple(carrier.id for _, carrier in pairs),
        count=count,
        mass_g=_rounded(mass_kg * 1000),
        volume_ml=_rounded(litres * 1000),
        pressed_ml=_rounded((litres - springs_back) * 1000),
        allowed=np.array([[why_not(t, spot) is None for spot in spots] for t in tour.kit], dtype=bool).reshape(
            len(tour.kit), len(pairs)
        ),
        cost_parts=_costs(tour, pairs, (mass_kg.mean(axis=1) + mass_kg.max(axis=1)) / 2, place, covered),
        out_cost=_ints(round(1000 * left_out(t)) for t in tour.kit),
        may=np.array([thing.may_stay for thing in tour.kit], dtype=bool),
        group=_ints(groups.index(name) if name else -1 for name in names),
        group_cost=round(1000 * aims.KIT_SPLIT * tour.aims.together),
        away_cost=round(1000 * aims.AWAY * tour.aims.together),
        merged=np.array([name.startswith(ALONE) for name in groups], dtype=bool),
        twin=_twins(pairs),
        opened=np.array([thing.reach in ("camp", "night") for thing in tour.kit], dtype=bool),
        opened_cost=round(1000 * aims.BAG_OPENED * tour.aims.bags),
        limit_g=_ints(max(round(((limit.most or 0.0) - limit.own) * 1000) - spare.g, 0) for limit in bag_kg),
        room_ml=_ints(round(room_l(bike, carrier) * 1000) for bike, carrier in pairs),
        brim_ml=_ints(max(round((limit.most or 0.0) * 1000) - spare.ml, 0) for limit in bag_l),
        ease_cost=round(aims.EASE * tour.aims.ease),
        hard=_hard(limits, len(pairs), spare.g / 1000),
        soft=soft.rows_as_ints(AIMED_PARTS),
        soft_aims=tuple(soft.served),
        worst_times=aims.WORST_TIMES,
        food_g=_rounded(food_tenth * 1000),
        food_ml=_rounded(food_tenth * food.l_per_kg(tour) * 1000),
        food_parts=_food_costs(tour, pairs, float(food_tenth.mean()), place),
        food_out_cost=round(1000 * left_out(_tenth_of_food(tour, float(food_tenth.max())))),
        food_allowed=shopping,
        food_repelled=np.array([clash(t, FOOD) is not None for t in tour.kit], dtype=bool),
        kept=np.array([c.keeps_room for _, c in pairs], dtype=bool),
        kept_target_ml=round(1000 * aims.ROOM_L * len(tour.riders)),
        kept_cost=round(aims.ROOM * tour.aims.room),
        has=_tags(tour.kit, tags, lambda t: (*t.natures, *((WET,) if t.wet else ()))),
        repels=_tags(tour.kit, tags, lambda t: (*t.not_with, *((WET,) if t.dry == "must" else ()))),
        pinned=_pins(tour, pairs, free_pins),
    )


@dataclass(frozen=True)
class Spare:
    """Kept free of every limit because the problem counts whole grams and millilitres: a load that holds in these holds."""

    g: int
    ml: int

    @classmethod
    def none(cls) -> "Spare":
        """Nothing, where a load is judged and not sought."""
        return cls(0, 0)

    @classmethod
    def of(cls, masses: Sized, volumes: Sized) -> "Spare":
        """What rounding can hide at most, from numbers of pieces and their sizes at each moment, beyond what counts as none."""
        hidden = [sum(_hidden(count, size) for count, size in sizes) for sizes in (masses, volumes)]
        g, ml = (max(ceil(amount - 1000 * ROUNDING * KEPT_OF_ROUNDING), 0) for amount in hidden)
        return cls(g, ml)


def _hidden(count: Ints | int, size: NDArray[np.float64]) -> float:
    off = np.abs(size - np.rint(size)).max(axis=-1)
    return float(np.sum(count * np.where(off > EXACT, off, 0.0)))


def left_out(thing: Thing) -> float:
    """What leaving one of a thing out costs [points]."""
    size = aims.OUT_KG * (thing.mass_kg + holds_kg(thing)) + aims.OUT_L * thing.volume_l
    vital = thing.reach == "night" or bool(VITAL & set(thing.natures)) or bears_water(thing)
    times = aims.VITAL_TIMES if vital else aims.SPARE_TIMES if thing.reach == "breaks" else 1.0
    return (1 if thing.may_stay else aims.MUST_TIMES) * times * (aims.OUT_THING + size)


def _tenth_of_food(tour: TourSheet, kg: float) -> Thing:
    """A tenth of what is bought at the fullest moment, as one thing."""
    return FOOD.model_copy(update={"mass_kg": kg, "volume_l": kg * food.l_per_kg(tour)})


def in_its_own_order(tour: TourSheet) -> TourSheet:
    """The tour with things, carriers and bikes in an order that does not depend on how it was told, so that the search finds
    the same load."""

    def of_bike(bike: Bike) -> Bike:
        # Parts of a bag keep theirs: compartments lie in it one above the other.
        return bike.model_copy(update={"carriers": tuple(sorted(bike.carriers, key=_carrier_key))})

    bikes = tuple(
        sorted((of_bike(bike) for bike in tour.rig.bikes), key=lambda bike: (bike.mass_kg, len(bike.carriers), bike.id))
    )
    kit = tuple(sorted(tour.kit, key=lambda t: (-t.mass_kg, -t.volume_l, -t.holds_water_l, t.reach, t.group, t.id)))
    return tour.model_copy(update={"rig": tour.rig.model_copy(update={"bikes": bikes}), "kit": kit})


def _carrier_key(carrier: Carrier) -> tuple[bool, str, str, float, str, str]:
    if KINDS[carrier.kind].anchor == "bag_layer":
        return True, "", "", 0.0, "", ""
    return False, carrier.kind, carrier.side, carrier.volume_l, carrier.hangs_on, carrier.id


def _group_of(thing: Thing) -> str:
    """The kit of a thing; several of a thing that has none are a kit of their own."""
    if _kept_together(thing):
        return thing.group
    alone = thing.count > 1 and not thing.group and not bears_water(thing) and thing.reach != "riding"
    return ALONE + thing.id if alone else ""


def _twins(pairs: list[tuple[Bike, Carrier]]) -> Ints:
    """For each carrier the first one of its pair: the same on the other side of the bike."""
    found: dict[tuple[str, ...], int] = {}
    for j, (bike, carrier) in enumerate(pairs):
        alone = () if carrier.side != "middle" else (carrier.id,)
        found.setdefault((bike.id, carrier.kind, *alone), j)
    return _ints(found[(bike.id, carrier.kind, *(() if carrier.side != "middle" else (carrier.id,)))] for bike, carrier in pairs)


def _kept_together(thing: Thing) -> bool:
    """Whether a thing belongs with its group: vessels and what the hand needs while riding go where the hand is."""
    return bool(thing.group) and not bears_water(thing) and thing.reach != "riding"


def _ints(values: Iterable[int]) -> Ints:
    return np.array(list(values), dtype=np.int64)


def _rounded(values: NDArray[np.floating[Any]]) -> Ints:
    whole: Ints = np.rint(values).astype(np.int64)
    return whole


def _place_cost(
    tour: TourSheet, pairs: list[tuple[Bike, Carrier]], levers: dict[str, Levers]
) -> dict[AimName, NDArray[np.float64]]:
    """Points for a kilogram in each carrier: its height, its distance from the middle of the wheelbase, and on the rider."""
    low, middle, carry = [], [], []
    for bike, carrier in pairs:
        x, y, _ = levers[bike.id].centres[carrier.id]
        far = abs(x - bike.wheelbase_mm / 2) if not levers[bike.id].on_trailer(carrier) else 0.0
        low.append(aims.HIGH * tour.aims.low * y / 1000)
        middle.append(aims.FAR * tour.aims.middle * far / 1000)
        carry.append(aims.ON_BODY * tour.aims.carry * (KINDS[carrier.kind].anchor in ON_RIDER))
    return {"low": np.array(low), "middle": np.array(middle), "carry": np.array(carry, dtype=float)}


def _costs(
    tour: TourSheet,
    pairs: list[tuple[Bike, Carrier]],
    mass_kg: NDArray[np.float64],
    place: dict[AimName, NDArray[np.float64]],
    covered: Set[str],
) -> dict[AimName, Ints]:
    """Cost of one thing in each carrier, by aim [thousandths of a point]; in a covered bag it is found a moment later."""
    reach, weather = np.zeros((2, len(tour.kit), len(pairs)))
    for i, thing in enumerate(tour.kit):
        for j, (_, carrier) in enumerate(pairs):
            deep = steps_too_deep(thing, carrier)
            if deep:
                reach[i, j] = aims.DEEP_STEP[deep]
            elif REACHES.index(thing.reach) - REACHES.index(carrier.reach) >= 2:
                reach[i, j] = aims.RARE_ON_TOP
            if carrier.id in covered and thing.reach in ON_THE_WAY:
                reach[i, j] += aims.DEEP_STEP[1]
            reach[i, j] += aims.HARD_IN_ROLL * hard_in_roll(thing, carrier)
            reach[i, j] += aims.LEFT_BEHIND * left_behind(thing, carrier)
            outside = carrier.dryness == "open"
            weather[i, j] = aims.EXPOSED * (outside and harmed_by_rain(thing)) + (
                aims.WET_INSIDE + aims.WET_L * thing.volume_l
            ) * (not outside and thing.wet)
    parts: dict[AimName, Ints] = {name: _rounded(1000 * mass_kg[:, None] * per_kg) for name, per_kg in place.items()}
    parts["reach"] = _rounded(1000 * tour.aims.reach * reach)
    parts["weather"] = _rounded(1000 * tour.aims.weather * weather)
    parts["changes"] = _rounded(1000 * aims.CHANGED * tour.aims.changes * _away(tour, pairs))
    return parts


def _food_costs(
    tour: TourSheet, pairs: list[tuple[Bike, Carrier]], tenth_kg: float, place: dict[AimName, NDArray[np.float64]]
) -> dict[AimName, Ints]:
    """Cost of a tenth of the food in each carrier, by aim [thousandths of a point]."""
    parts: dict[AimName, Ints] = {name: _rounded(1000 * tenth_kg * per_kg) for name, per_kg in place.items()}
    deep = np.array([steps_too_deep(FOOD, carrier) for _, carrier in pairs], dtype=float)
    parts["reach"] = _rounded(1000 * tour.aims.reach * aims.FOOD_DEEP * deep)
    return parts


def _away(tour: TourSheet, pairs: list[tuple[Bike, Carrier]]) -> Bools:
    """Where a thing does not ride today, for those that ride anywhere, shape (i, j)."""
    at = {(p.thing_id, p.carrier_id) for p in tour.load.placements}
    somewhere = {thing for thing, _ in at}
    rows = [[t.id in somewhere and (t.id, c.id) not in at for _, c in pairs] for t in tour.kit]
    return np.array(rows, dtype=bool).reshape(len(tour.kit), len(pairs))


def _tags(kit: tuple[Thing, ...], tags: list[str], of: Callable[[Thing], tuple[str, ...]]) -> Bools:
    return np.array([[tag in of(thing) for tag in tags] for thing in kit], dtype=bool).reshape(len(kit), len(tags))


def _pins(tour: TourSheet, pairs: list[tuple[Bike, Carrier]], free: bool) -> Ints:
    thing_at = {thing.id: i for i, thing in enumerate(tour.kit)}
    carrier_at = {carrier.id: j for j, (_, carrier) in enumerate(pairs)}
    pins = np.zeros((len(tour.kit), len(pairs)), dtype=np.int64)
    for placement in tour.load.placements:
        if placement.pinned and not free:
            pins[thing_at[placement.thing_id], carrier_at[placement.carrier_id]] += placement.count
    return pins


class _RowList:
    """Rows being gathered: levers in parts of one, bounds in kilograms."""

    def __init__(self, carriers: int) -> None:
        self.carriers = carriers
        self.rows: list[tuple[str, NDArray[np.float64], float | None, float | None, int]] = []
        self.served: list[AimName] = []

    def add(self, name: str, lever: NDArray[np.float64], low: float | None, high: float | None, weight: float) -> None:
        self.rows.append((name, lever, low, high, round(weight)))

    def aim(
        self, aim: AimName, name: str, lever: NDArray[np.float64], low: float | None, high: float | None, weight: float
    ) -> None:
        """A row that serves an aim."""
        self.served.append(aim)
        self.add(name, lever, low, high, weight)

    def rows_as_ints(self, parts: int = LEVER) -> Rows:
        """The rows in whole numbers, levers rounded to so many parts of one; common factors make them easier to solve."""
        step = LEVER // parts

        def bound(kg: float | None, free: int) -> int:
            return free if kg is None else step * round(kg * 1000 * parts)

        return Rows(
            names=tuple(row[0] for row in self.rows),
            lever=step * _rounded(parts * np.array([row[1] for row in self.rows]).reshape(len(self.rows), self.carriers)),
            low=_ints(bound(row[2], -FREE) for row in self.rows),
            high=_ints(bound(row[3], FREE) for row in self.rows),
            weight=_ints(row[4] for row in self.rows),
        )


def _hard(limits: list[Limit], carriers: int, spare_kg: float) -> Rows:
    """The limits that more than one carrier bears on; those of single bags stand in their own arrays."""
    rows = _RowList(carriers)
    for limit in limits:
        if limit.kind == "bag_volume" or (limit.kind == "bag_mass" and np.count_nonzero(limit.lever) == 1):
            continue
        least = None if limit.least is None else limit.least - limit.own + spare_kg
        most = None if limit.most is None else limit.most - limit.own - spare_kg
        rows.add(limit.key, limit.lever, least, most, BROKEN)
    return rows.rows_as_ints()


def _soft(tour: TourSheet, pairs: list[tuple[Bike, Carrier]], levers: dict[str, Levers]) -> _RowList:
    """Sides at each axle, front share, sway and riders' parts."""
    rows = _RowList(len(pairs))
    power = sum(r.all_day_power_w for r in tour.riders)
    sign = {"left": -1.0, "middle": 0.0, "right": 1.0}
    for bike in tour.rig.bikes:
        lever = levers[bike.id]
        bare = lever.bare()
        mine = [b.id == bike.id for b, _ in pairs]
        for axle in ("front", "rear"):
            at_it = [m and lever.axle(c) == axle for m, (_, c) in zip(mine, pairs, strict=True)]
            side = np.array([sign[c.side] if here else 0.0 for here, (_, c) in zip(at_it, pairs, strict=True)])
            own = float(sum(s * c.mass_kg for s, (_, c) in zip(side, pairs, strict=True)))
            if side.any():
                tolerance = aims.SIDES_TOLERANCE_KG
                rows.aim(
                    "sides", f"sides {axle} {bike.id}", side, -tolerance - own, tolerance - own, aims.SIDES * tour.aims.sides
                )
        shares = [lever.carrier_shares(c) if m else None for m, (_, c) in zip(mine, pairs, strict=True)]
        front = np.array([s.front if s else 0.0 for s in shares])
        borne = np.array([s.front + s.rear if s else 0.0 for s in shares])
        low, high = aims.front_range(tour, bike)
        weight = aims.FRONT * tour.aims.front
        total = bare.front + bare.rear
        rows.aim("front", f"front low {bike.id}", front - low * borne, low * total - bare.front, None, weight)
        rows.aim("front", f"front high {bike.id}", front - high * borne, None, high * total - bare.front, weight)
        for j, (b, carrier) in enumerate(pairs):
            row, alone = KINDS[carrier.kind], np.eye(len(pairs))[j]
            if carrier.sways_from_kg is not None and b.id == bike.id:
                rows.aim("sway", f"sway {carrier.id}", alone, None, carrier.sways_from_kg, aims.SWAY * tour.aims.sway)
            if row.pleasant_kg is not None and b.id == bike.id:
                rows.aim("carry", f"bar {carrier.id}", alone, None, row.pleasant_kg, aims.BAR * tour.aims.carry)
        if len(tour.rig.bikes) > 1 and power:
            rider = next(r for r in tour.riders if r.id == bike.rider_id)
            part = rider.all_day_power_w / power
            tolerance = aims.RIDERS_TOLERANCE_KG
            rows.aim(
                "riders",
                f"riders {bike.id}",
                np.array(mine, dtype=float) - part,
                -tolerance,
                tolerance,
                aims.RIDERS * tour.aims.riders,
            )
    return rows
