"""The placing problem as whole numbers: grams, millilitres, thousandths of a point.

Every solver and the evaluator read the same arrays, so that they agree to the last digit. How the arrays come about is
in `formulate`; what they mean is here.
"""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.aims import AimName

Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

LEVER = 10_000
"""Levers are parts of LEVER: a row's value is grams times LEVER, and 60 kg are right to 3 g."""
BROKEN = 10_000_000
"""Price of a gram or millilitre beyond a hard limit where a load is put together: no thing left out is as dear [thousandths of a
point]."""


@dataclass(frozen=True)
class Rows:
    """Linear functions of the carriers' contents, each to be kept between two bounds.

    Attributes
    ----------
    lever : shape (r, j)
        Parts of LEVER of each carrier's contents.
    low, high : shape (r,)
        Bounds in grams times LEVER.
    weight : shape (r,)
        Price of a gram outside [thousandths of a point]; hard rows carry BROKEN.
    """

    names: tuple[str, ...]
    lever: Ints
    low: Ints
    high: Ints
    weight: Ints


@dataclass(frozen=True)
class Problem:
    """i things, j carriers, s states (the moments that govern), t tags that things have or cannot stand.

    Attributes
    ----------
    count : shape (i,)
    mass_g, volume_ml : shape (i, s)
        Of one thing; vessels are heavier where they are full.
    allowed : shape (i, j)
    cost_parts : arrays of shape (i, j)
        Of one thing in a carrier, by aim: height, distance from the middle, reach, change [thousandths of a point].
    out_cost : shape (i,)
        Of leaving one out.
    may : shape (i,)
        What may stay at home: nothing else is left for its sake.
    group : shape (i,)
        Number of the group, -1 for none: a kit, or several of a thing that has none.
    merged : shape (k,)
        Groups for which a pair of bags left and right is one place.
    away_cost : int
        Of each thing of a group that rides apart from most of it [thousandths of a point].
    twin : shape (j,)
        Carrier that stands for each one where pairs are one place.
    opened : shape (i,)
        Whether a thing is wanted in camp; each carrier that holds such things costs `opened_cost`.
    soft_aims : tuple of str, length r
        The aim that each soft row serves.
    pressed_ml : shape (i, s)
        Of one thing pressed as far as it goes.
    limit_g, room_ml, brim_ml : shape (j,)
        Limit, room that fills with ease, and what goes in at most, pressed.
    ease_cost : int
        Of a millilitre more than fits with ease, at the worst moment [thousandths of a point].
    food_g, food_ml : shape (s,)
        A tenth of all bought food.
    food_parts : arrays of shape (j,)
        Of a tenth in a carrier, by aim.
    food_allowed : shape (j,)
    food_repelled : shape (i,)
        What may not share a carrier with food.
    kept : shape (j,)
        Carriers whose free room counts as room for shopping.
    has, repels : shape (i, t)
    pinned : shape (i, j)
        Numbers that must stay.
    """

    thing_ids: tuple[str, ...]
    carrier_ids: tuple[str, ...]
    count: Ints
    mass_g: Ints
    volume_ml: Ints
    pressed_ml: Ints
    allowed: Bools
    cost_parts: dict[AimName, Ints]
    out_cost: Ints
    may: Bools
    group: Ints
    group_cost: int
    away_cost: int
    merged: Bools
    twin: Ints
    opened: Bools
    opened_cost: int
    limit_g: Ints
    room_ml: Ints
    brim_ml: Ints
    ease_cost: int
    hard: Rows
    soft: Rows
    soft_aims: tuple[AimName, ...]
    worst_times: int
    food_g: Ints
    food_ml: Ints
    food_parts: dict[AimName, Ints]
    food_out_cost: int
    food_allowed: Bools
    food_repelled: Bools
    kept: Bools
    kept_target_ml: int
    kept_cost: int
    has: Bools
    repels: Bools
    pinned: Ints

    @cached_property
    def cost(self) -> Ints:
        """Of one thing in a carrier, all aims together, shape (i, j) [thousandths of a point]."""
        return np.asarray(sum(self.cost_parts.values(), np.zeros_like(self.pinned)))

    @cached_property
    def food_cost(self) -> Ints:
        """Of a tenth of the food in a carrier, all aims together, shape (j,) [thousandths of a point]."""
        return np.asarray(sum(self.food_parts.values(), np.zeros(self.limit_g.size, dtype=np.int64)))

    @cached_property
    def seats(self) -> Ints:
        """The place that a carrier is for each group, shape (k, j): itself, or one of its pair."""
        return np.where(self.merged[:, None], self.twin, np.arange(self.twin.size))

    @cached_property
    def presses(self) -> bool:
        """Whether anything takes less room when pressed, or any carrier holds more than fits with ease."""
        return bool((self.pressed_ml != self.volume_ml).any() or (self.brim_ml != self.room_ml).any())

    @property
    def groups(self) -> int:
        """Number of groups."""
        return int(self.merged.size)

    @property
    def states(self) -> int:
        """Number of moments that govern."""
        return int(self.mass_g.shape[1])

    @property
    def repelled(self) -> Bools:
        """Whether two things may not share a carrier, shape (i, i)."""
        one_way = self.repels.astype(np.int64) @ self.has.T.astype(np.int64) > 0
        both: Bools = one_way | one_way.T
        np.fill_diagonal(both, False)
        return both


@dataclass(frozen=True)
class Placing:
    """An answer: how many of each thing in each carrier, and tenths of the food."""

    x: Ints
    food: Ints


@dataclass(frozen=True)
class Score:
    """What a placing is worth, from the placing alone.

    `objective` counts what is aimed at, things left out included; `missing` is the part of it for what is left out, `lacking`
    the part of that for what must come; `broken` is grams, millilitres and forbidden neighbours beyond the hard limits, 0 for a
    load that holds; `things_out` and `food_out` are pieces and tenths of the food.
    """

    objective: int
    broken: int
    missing: int
    lacking: int
    things_out: int
    food_out: int

    @property
    def out(self) -> int:
        """Pieces and tenths of the food that are left out, for whether there is anything."""
        return self.things_out + self.food_out

    @property
    def order(self) -> tuple[bool, int, int, int, int]:
        """Loads that hold come first, then those that take what must come, the most of all, and then the better ones."""
        return self.broken > 0, self.broken, self.lacking, self.missing, self.objective


def overshoot(values: Ints, rows: Rows) -> Ints:
    """Grams beyond the bounds of each row in each state, rounded up, shape (r, s)."""
    beyond = np.maximum(values - rows.high[:, None], rows.low[:, None] - values)
    return np.asarray(-(-np.maximum(beyond, 0) // LEVER))


def beyond_limits(problem: Problem, placing: Placing) -> Ints:
    """Grams and millilitres beyond each limit in each state, shape (2 j + r, s): of bags, of their room, of hard rows."""
    x, food = placing.x, placing.food
    load = x.T @ problem.mass_g + food[:, None] * problem.food_g
    pressed = x.T @ problem.pressed_ml + food[:, None] * problem.food_ml
    over = np.maximum(load - problem.limit_g[:, None], 0)
    too_full = np.maximum(pressed - problem.brim_ml[:, None], 0)
    return np.concatenate([over, too_full, overshoot(problem.hard.lever @ load, problem.hard)])


def evaluate(problem: Problem, placing: Placing) -> Score:
    """Score a placing. Independent of every solver: it knows the arrays and the placing only."""
    x, food = placing.x, placing.food
    broken = int(beyond_limits(problem, placing).sum())
    broken += 1000 * int(food[~problem.food_allowed].sum())
    broken += 1000 * int(x[~problem.allowed].sum() + np.maximum(problem.pinned - x, 0).sum())
    together = x > 0
    broken += 1000 * int(((problem.repelled.astype(np.int64) @ together) * together).sum() // 2)
    broken += 1000 * int(together[problem.food_repelled][:, food > 0].sum())
    broken += 1000 * int(np.maximum(x.sum(axis=1) - problem.count, 0).sum() + max(food.sum() - 10, 0))
    paid = bill(problem, placing)
    left = problem.count - x.sum(axis=1)
    without_food = int(10 - food.sum())
    lacking = int((problem.out_cost * left)[~problem.may].sum()) + problem.food_out_cost * without_food
    return Score(sum(paid.values()), broken, paid["out"], lacking, int(left.sum()), without_food)


def bill(problem: Problem, placing: Placing) -> dict[AimName | Literal["out"], int]:
    """What a placing costs, by aim, and for what is left out [thousandths of a point]."""
    x, food = placing.x, placing.food
    costs: dict[AimName | Literal["out"], int] = {name: int((part * x).sum()) for name, part in problem.cost_parts.items()}
    for name, part in problem.food_parts.items():
        costs[name] = costs.get(name, 0) + int(part @ food)
    costs["out"] = int(problem.out_cost @ (problem.count - x.sum(axis=1)) + problem.food_out_cost * (10 - food.sum()))
    together = x > 0
    costs["together"] = 0
    for group, seats in enumerate(problem.seats):
        held = np.bincount(seats, x[problem.group == group].sum(axis=0), minlength=seats.size).astype(np.int64)
        away = int(held.sum() - held.max(initial=0))
        costs["together"] += problem.group_cost * int((held > 0).sum()) + problem.away_cost * away
    costs["bags"] = problem.opened_cost * int(together[problem.opened].any(axis=0).sum())
    load = x.T @ problem.mass_g + food[:, None] * problem.food_g
    over = overshoot(problem.soft.lever @ load, problem.soft)
    prices = problem.soft.weight * (over.sum(axis=1) + problem.worst_times * over.max(axis=1, initial=0))
    for name, price in zip(problem.soft_aims, prices.tolist(), strict=True):
        costs[name] = costs.get(name, 0) + price
    volume = x.T @ problem.volume_ml + food[:, None] * problem.food_ml
    beyond = np.maximum(volume - problem.room_ml[:, None], 0).max(axis=1, initial=0)
    costs["ease"] = problem.ease_cost * int(beyond.sum()) * problem.presses
    free = (problem.room_ml[:, None] - volume)[problem.kept].sum(axis=0)
    costs["room"] = problem.kept_cost * int(np.maximum(problem.kept_target_ml - free, 0).max(initial=0))
    return costs
