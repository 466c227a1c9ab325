"""From a tour and its voyage to the placing problem."""

from collections.abc import Callable, Iterable
from typing import Any

import numpy as np
from numpy.typing import NDArray

from omnifer.core.load import aims
from omnifer.core.load.limits import Limit, limits_of
from omnifer.core.load.nesting import as_one
from omnifer.core.load.problem import BROKEN, LEVER, Bools, Ints, Problem, Rows
from omnifer.core.load.rules import left_behind, spot_of, steps_too_deep, why_not
from omnifer.core.load.trace import volume_of
from omnifer.core.model.aims import AimName
from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import REACHES
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.tour import TourSheet
from omnifer.core.rig.parts import room_l
from omnifer.core.rig.statics import Levers
from omnifer.core.supplies.stock import Stock

WET, MUST_STAY_DRY = "wet", "must_stay_dry"
AIMED_PARTS = 1000
"""Levers of aims are thousandths: of a wish, 30 g more or less are none, and the solver finds in seconds what finer ones hide."""
FREE = 10**12
"""No bound [g times LEVER]."""


def formulate(tour: TourSheet, stock: Stock, free_pins: bool = False, every_moment: bool = False) -> Problem:
    """State the placing problem of a tour.

    Parameters
    ----------
    stock : Stock
        Water and food over all moments, with every vessel of the kit on board.
    free_pins : bool
        Leave the pins out, to see what they cost.
    every_moment : bool
        State it for all moments, not only for those that govern: to judge a load, not to search one.
    """
    tour = as_one(tour)
    stock = stock if every_moment else stock.governing()
    pairs = [(bike, carrier) for bike in tour.rig.bikes for carrier in bike.carriers]
    spots = [spot_of(bike, carrier) for bike, carrier in pairs]
    levers = {bike.id: Levers(bike, tour.practice) for bike in tour.rig.bikes}
    water = stock.in_vessels()
    nothing = np.zeros(stock.moments)
    in_things = [water.get(thing.id, nothing) for thing in tour.kit]
    mass_kg = np.array([t.mass_kg + w for t, w in zip(tour.kit, in_things, strict=True)]).reshape(-1, stock.moments)
    litres = np.array([volume_of(t, w) + nothing for t, w in zip(tour.kit, in_things, strict=True)]).reshape(mass_kg.shape)
    springs_back = np.array([t.volume_l - t.least_l for t in tour.kit]).reshape(-1, 1)
    place = _place_cost(tour, pairs, levers)
    soft = _soft(tour, pairs, levers)
    limits = limits_of(tour)
    bag_kg, bag_l = ([limit for limit in limits if limit.kind == kind] for kind in ("bag_mass", "bag_volume"))
    groups = sorted({thing.group for thing in tour.kit if _kept_together(thing)})
    tags = [*sorted({n for t in tour.kit for n in (*t.natures, *t.not_with)}), WET]
    food_tenth = stock.amounts["food"] / 10
    shopping = np.array([KINDS[c.kind].food and c.dryness != "open" for _, c in pairs], dtype=bool)
    return Problem(
        thing_ids=tuple(thing.id for thing in tour.kit),
        carrier_ids=tuple(carrier.id for _, carrier in pairs),
        count=_ints(thing.count for thing in tour.kit),
        mass_g=_rounded(mass_kg * 1000),
        volume_ml=_rounded(litres * 1000),
        pressed_ml=_rounded((litres - springs_back) * 1000),
        allowed=np.array([[why_not(t, spot) is None for spot in spots] for t in tour.kit], dtype=bool).reshape(
            len(tour.kit), len(pairs)
        ),
        cost_parts=_costs(tour, pairs, mass_kg.mean(axis=1), place),
        out_cost=_ints(1000 * aims.OUT_THING + round(1000 * aims.OUT_KG * t.mass_kg) for t in tour.kit),
        group=_ints(groups.index(thing.group) if _kept_together(thing) else -1 for thing in tour.kit),
        group_cost=round(1000 * aims.KIT_SPLIT * tour.aims.together),
        opened=np.array([thing.reach in ("camp", "night") for thing in tour.kit], dtype=bool),
        opened_cost=round(1000 * aims.BAG_OPENED * tour.aims.bags),
        limit_g=_ints(round(((limit.most or 0.0) - limit.own) * 1000) for limit in bag_kg),
        room_ml=_ints(round(room_l(bike, carrier) * 1000) for bike, carrier in pairs),
        brim_ml=_ints(round((limit.most or 0.0) * 1000) for limit in bag_l),
        ease_cost=round(aims.EASE * tour.aims.ease),
        hard=_hard(limits, len(pairs)),
        soft=soft.rows_as_ints(AIMED_PARTS),
        soft_aims=tuple(soft.served),
        worst_times=aims.WORST_TIMES,
        food_g=_rounded(food_tenth * 1000),
        food_ml=_rounded(food_tenth * tour.practice.food_l_per_kg * 1000),
        food_cost=_rounded(1000 * float(food_tenth.mean()) * sum(place.values(), np.zeros(len(pairs)))),
        food_out_cost=1000 * aims.OUT_THING,
        food_allowed=shopping,
        kept=shopping & np.array([c.reach in ("riding", "stop") for _, c in pairs], dtype=bool),
        kept_target_ml=round(1000 * aims.ROOM_L * len(tour.riders)),
        kept_cost=round(aims.ROOM * tour.aims.room),
        has=_tags(tour.kit, tags, lambda t: (*t.natures, *((WET,) if t.wet else ()))),
        repels=_tags(tour.kit, tags, lambda t: (*t.not_with, *((WET,) if t.dry == "must" else ()))),
        pinned=_pins(tour, pairs, free_pins),
    )


def _kept_together(thing: Thing) -> bool:
    """Whether a thing belongs with its group: vessels and what the hand needs while riding go where the hand is."""
    return bool(thing.group) and thing.holds_water_l == 0 and thing.reach != "riding"


def _ints(values: Iterable[int]) -> Ints:
    return np.array(list(values), dtype=np.int64)


def _rounded(values: NDArray[np.floating[Any]]) -> Ints:
    whole: Ints = np.rint(values).astype(np.int64)
    return whole


def _place_cost(
    tour: TourSheet, pairs: list[tuple[Bike, Carrier]], levers: dict[str, Levers]
) -> dict[AimName, NDArray[np.float64]]:
    """Points for a kilogram in each carrier: its height and its distance from the middle of the wheelbase."""
    low, middle = [], []
    for bike, carrier in pairs:
        x, y, _ = levers[bike.id].centres[carrier.id]
        far = abs(x - bike.wheelbase_mm / 2) if not levers[bike.id].on_trailer(carrier) else 0.0
        low.append(aims.HIGH * tour.aims.low * y / 1000)
        middle.append(aims.FAR * tour.aims.middle * far / 1000)
    return {"low": np.array(low), "middle": np.array(middle)}


def _costs(
    tour: TourSheet,
    pairs: list[tuple[Bike, Carrier]],
    mass_kg: NDArray[np.float64],
    place: dict[AimName, NDArray[np.float64]],
) -> dict[AimName, Ints]:
    """Cost of one thing in each carrier, by aim [thousandths of a point]."""
    reach = np.zeros((len(tour.kit), len(pairs)))
    for i, thing in enumerate(tour.kit):
        for j, (_, carrier) in enumerate(pairs):
            deep = steps_too_deep(thing, carrier)
            if deep:
                reach[i, j] = aims.DEEP_STEP[deep]
            elif REACHES.index(thing.reach) - REACHES.index(carrier.reach) >= 2:
                reach[i, j] = aims.RARE_ON_TOP * thing.volume_l
            reach[i, j] += aims.LEFT_BEHIND * left_behind(thing, carrier)
    parts: dict[AimName, Ints] = {name: _rounded(1000 * mass_kg[:, None] * per_kg) for name, per_kg in place.items()}
    parts["reach"] = _rounded(1000 * tour.aims.reach * reach)
    parts["changes"] = _rounded(1000 * aims.CHANGED * tour.aims.changes * _away(tour, pairs))
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


def _hard(limits: list[Limit], carriers: int) -> Rows:
    """The limits that more than one carrier bears on; those of single bags stand in their own arrays."""
    rows = _RowList(carriers)
    for limit in limits:
        if limit.kind == "bag_volume" or (limit.kind == "bag_mass" and np.count_nonzero(limit.lever) == 1):
            continue
        least, most = (None if bound is None else bound - limit.own for bound in (limit.least, limit.most))
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
            most = KINDS[carrier.kind].sway_limit_kg
            if most is not None and b.id == bike.id:
                rows.aim("sway", f"sway {carrier.id}", np.eye(len(pairs))[j], None, most, aims.SWAY * tour.aims.sway)
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
