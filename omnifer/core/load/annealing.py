"""The compiled heart of the search: what one move or exchange changes, descent, and annealing by counted steps.

Everything is in whole numbers and agrees to the last digit with `problem.evaluate`. All bought food is one more thing
(ten tenths of it) at the end of the things; the shelf is one more carrier at the end of the carriers.
"""

from typing import NamedTuple

import numpy as np
from numba import njit

from omnifer.core.load.problem import LEVER, Ints

compiled = njit(cache=True, error_model="numpy")
inlined = njit(cache=True, error_model="numpy", forceinline=True)

SHARE_OF_MOVES, SHARE_OF_KITS = 0.45, 0.03
"""Of the steps tried: moves of one thing, moves of a whole kit; the rest are exchanges."""
LOW, HIGH, WEIGHT, WORST, MEASURE = range(5)
"""Columns of the rows."""
NEVER = 2**60
"""The cost of a place where a thing may not go."""


class Tables(NamedTuple):
    """What stands fixed while searching: i things, j carriers, r rows, m measures (grams, then millilitres, at each moment).

    Few arrays on purpose: each one more makes every call and the compiling slower.
    """

    size: Ints  # (i, m)
    limit: Ints  # (j, m)
    cost: Ints  # (i, j)
    lever: Ints  # (j, r)
    rows: Ints  # (r, 5): bounds, weight of the sum and of the worst moment, first measure read
    hard_rows: int
    kit: Ints  # (i,)
    kit_cost: int
    repelled: Ints  # (i, i)


class Standing(NamedTuple):
    """A placing under change, with the sums that a change of price needs."""

    x: Ints  # (i, j), pinned things not counted: they cannot move
    contents: Ints  # (j, m)
    values: Ints  # (r, s)
    price: Ints  # (r,)
    in_kit: Ints  # (k, j)
    near: Ints  # (i, j): how many things in there a thing cannot stand


@inlined
def more(t: Tables, i: int, k: int, m: int) -> int:
    """How much one thing i takes in a measure, less one thing k (k < 0: none)."""
    return t.size[i, m] if k < 0 else t.size[i, m] - t.size[k, m]


@inlined
def row_price(t: Tables, s: Standing, r: int, lever: int, i: int, k: int) -> int:
    """Price of a row when `lever` times thing i, less thing k, is added; grams beyond for a hard row."""
    total, worst = 0, 0
    for moment in range(s.values.shape[1]):
        value = s.values[r, moment] + lever * more(t, i, k, t.rows[r, MEASURE] + moment)
        beyond = max(value - t.rows[r, HIGH], t.rows[r, LOW] - value)
        if beyond > 0:
            over = (beyond + LEVER - 1) // LEVER
            total += over
            worst = max(worst, over)
    return t.rows[r, WEIGHT] * total + t.rows[r, WORST] * worst


@compiled
def _beyond_own_limits(t: Tables, s: Standing, j: int, i: int, k: int, sign: int) -> int:
    """Change in grams and millilitres beyond a carrier's own limits."""
    change = 0
    for m in range(s.contents.shape[1]):
        over = s.contents[j, m] - t.limit[j, m]
        change += max(over + sign * more(t, i, k, m), 0) - max(over, 0)
    return change


@compiled
def _kit_change(t: Tables, s: Standing, kit: int, a: int, b: int) -> int:
    """Price of the bags more that a kit is spread over when one of its things goes from a to b."""
    shelf = t.limit.shape[0] - 1
    opened = b != shelf and s.in_kit[kit, b] == 0
    closed = a != shelf and s.in_kit[kit, a] == 1
    return t.kit_cost * (int(opened) - int(closed))


@compiled
def may_go(t: Tables, s: Standing, i: int, b: int, k: int) -> bool:
    """Whether thing i may go into b, where thing k may be leaving it."""
    if t.cost[i, b] == NEVER:
        return False
    near = s.near[i, b] if k < 0 else s.near[i, b] - t.repelled[i, k]
    return near == 0


@compiled
def change(t: Tables, s: Standing, i: int, a: int, b: int, k: int) -> tuple[int, int]:
    """What moving one thing i from a to b does, where one thing k goes from b to a (k < 0: none).

    Returns the change of the objective [thousandths of a point] and of what lies beyond hard limits [g, ml].
    """
    objective = t.cost[i, b] - t.cost[i, a]
    if k >= 0:
        objective += t.cost[k, a] - t.cost[k, b]
    broken = _beyond_own_limits(t, s, a, i, k, -1) + _beyond_own_limits(t, s, b, i, k, 1)
    for r in range(t.rows.shape[0]):
        lever = t.lever[b, r] - t.lever[a, r]
        if lever != 0:
            extra = row_price(t, s, r, lever, i, k) - s.price[r]
            if r < t.hard_rows:
                broken += extra
            else:
                objective += extra
    kit = t.kit[i]
    other = t.kit[k] if k >= 0 else -1
    if kit != other:
        if kit >= 0:
            objective += _kit_change(t, s, kit, a, b)
        if other >= 0:
            objective += _kit_change(t, s, other, b, a)
    return objective, broken


@compiled
def move(t: Tables, s: Standing, i: int, a: int, b: int) -> None:
    """Move one of thing i from a to b."""
    shelf = t.limit.shape[0] - 1
    s.x[i, a] -= 1
    s.x[i, b] += 1
    for m in range(s.contents.shape[1]):
        s.contents[a, m] -= t.size[i, m]
        s.contents[b, m] += t.size[i, m]
    for r in range(t.rows.shape[0]):
        lever = t.lever[b, r] - t.lever[a, r]
        if lever != 0:
            for moment in range(s.values.shape[1]):
                s.values[r, moment] += lever * t.size[i, t.rows[r, MEASURE] + moment]
            s.price[r] = row_price(t, s, r, 0, i, -1)
    if t.kit[i] >= 0:
        s.in_kit[t.kit[i], a] -= 1
        s.in_kit[t.kit[i], b] += 1
    for k in range(t.repelled.shape[0]):
        if t.repelled[i, k]:
            if a != shelf:
                s.near[k, a] -= 1
            if b != shelf:
                s.near[k, b] += 1


@compiled
def best_place(t: Tables, s: Standing, i: int, a: int, broken_price: int, shelf_too: bool) -> tuple[int, int]:
    """Where thing i from a would cost least, and what that changes; -1 where it can go nowhere."""
    best, place = 0, -1
    for b in range(t.limit.shape[0] - (0 if shelf_too else 1)):
        if b != a and may_go(t, s, i, b, -1):
            objective, broken = change(t, s, i, a, b, -1)
            price = objective + broken_price * broken
            if place < 0 or price < best:
                best, place = price, b
    return place, best


@compiled
def insert_all(t: Tables, s: Standing, order: Ints, broken_price: int, forced: bool) -> None:
    """Put what is on the shelf where it costs least, in the order given; forced: even where a limit breaks."""
    shelf = t.limit.shape[0] - 1
    for i in order:
        while s.x[i, shelf] > 0:
            place, price = best_place(t, s, i, shelf, broken_price, False)
            if place < 0 or (price >= 0 and not forced):
                break
            move(t, s, i, shelf, place)


@compiled
def _best_exchange(t: Tables, s: Standing, i: int, a: int, broken_price: int) -> bool:
    best, other, place = 0, -1, -1
    for k in range(t.kit.size):
        if k == i:
            continue
        for b in range(t.limit.shape[0]):
            if b == a or s.x[k, b] == 0 or not (may_go(t, s, i, b, k) and may_go(t, s, k, a, i)):
                continue
            objective, broken = change(t, s, i, a, b, k)
            price = objective + broken_price * broken
            if price < best:
                best, other, place = price, k, b
    if other < 0:
        return False
    move(t, s, i, a, place)
    move(t, s, other, place, a)
    return True


@compiled
def descend(t: Tables, s: Standing, broken_price: int) -> None:
    """Moves, then exchanges, until nothing helps."""
    gained = True
    while gained:
        gained = False
        for i in range(t.kit.size):
            for a in range(t.limit.shape[0]):
                while s.x[i, a] > 0:
                    place, price = best_place(t, s, i, a, broken_price, True)
                    if place < 0 or price >= 0:
                        break
                    move(t, s, i, a, place)
                    gained = True
        if not gained:
            for i in range(t.kit.size):
                for a in range(t.limit.shape[0]):
                    if s.x[i, a] > 0 and _best_exchange(t, s, i, a, broken_price):
                        gained = True


@compiled
def _any_source(t: Tables, s: Standing, i: int) -> int:
    """A place that one of thing i can leave, searched from a random one; -1 where all are pinned."""
    places = t.limit.shape[0]
    start = np.random.randint(places)
    for n in range(places):
        a = (start + n) % places
        if s.x[i, a] > 0:
            return a
    return -1


@compiled
def _try_kit(t: Tables, s: Standing, i: int, a: int, b: int, broken_price: float, most: float) -> None:
    """Move all of the kit of thing i from a to b, where that costs no more than `most`."""
    moved = np.empty(t.kit.size, dtype=np.int64)
    n, total = 0, 0.0
    for k in range(t.kit.size):
        if t.kit[k] == t.kit[i] and s.x[k, a] > 0 and may_go(t, s, k, b, -1):
            objective, broken = change(t, s, k, a, b, -1)
            total += objective + broken_price * broken
            move(t, s, k, a, b)
            moved[n] = k
            n += 1
    if total > most:
        for k in moved[:n]:
            move(t, s, k, b, a)


@compiled
def anneal(t: Tables, s: Standing, steps: int, seed: int, hot: float, cold: float, soft_price: float, hard_price: float) -> None:
    """Wander by moves, exchanges and kit moves while it cools from `hot` to `cold` and limits grow dear.

    A step is taken where its price is no more than -temperature * log(u), u uniform in (0, 1) (Kirkpatrick, Gelatt,
    Vecchi 1983, Optimization by simulated annealing, Science 220:671-680). The same seed takes the same steps.
    """
    np.random.seed(seed)
    things, places = t.cost.shape
    temperature, broken_price = hot, soft_price
    cooling = (cold / hot) ** (1000.0 / steps)
    dearer = (hard_price / soft_price) ** (1000.0 / steps)
    for step in range(steps):
        if step % 1000 == 999:
            temperature *= cooling
            broken_price *= dearer
        i = np.random.randint(things)
        a = _any_source(t, s, i)
        if a < 0:
            continue
        most = -temperature * np.log(1.0 - np.random.random())
        kind = np.random.random()
        if kind < SHARE_OF_MOVES + SHARE_OF_KITS:
            b = np.random.randint(places)
            if b == a or not may_go(t, s, i, b, -1):
                continue
            if kind < SHARE_OF_KITS and t.kit[i] >= 0 and b < places - 1 and a < places - 1:
                _try_kit(t, s, i, a, b, broken_price, most)
                continue
            k = -1
        else:
            k = np.random.randint(things)
            b = _any_source(t, s, k)
            if k == i or b < 0 or b == a or not (may_go(t, s, i, b, k) and may_go(t, s, k, a, i)):
                continue
        objective, broken = change(t, s, i, a, b, k)
        if objective + broken_price * broken <= most:
            move(t, s, i, a, b)
            if k >= 0:
                move(t, s, k, b, a)
