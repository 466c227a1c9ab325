"""The compiled heart of the search: what one move or exchange changes, descent, and annealing by counted steps.

Everything is in whole numbers and agrees to the last digit with `problem.evaluate`. All bought food is one more thing
(ten tenths of it) at the end of the things; the shelf is one more carrier at the end of the carriers.

One file on purpose: what numba keeps compiled it renews only for the file that changed.
"""

from typing import NamedTuple

import numpy as np
from numba import njit

from omnifer.core.load.problem import LEVER, Ints

compiled = njit(cache=True, nogil=True, error_model="numpy")
inlined = njit(cache=True, nogil=True, error_model="numpy", forceinline=True)

SHARE_OF_KIN, SHARE_OF_MOVES, SHARE_OF_GROUPS, SHARE_OF_SWAPS = 0.40, 0.12, 0.03, 0.10
"""Of the steps tried: one thing to where another of its group rides, one thing anywhere, all of its group in one carrier,
parts of two groups exchanged; the rest are exchanges of two things. Chosen on the bench's tight tours."""
SHARE_OF_GATHERING = 0.5
"""Of the moves of all of a group: from wherever it rides, not from one carrier only."""
MOVED = 1024
"""Things that one step moves at most."""
DRAWS = 2
"""How often a step looks at most for a place or a partner that may be there at all; on two bikes most may not."""
LOW, HIGH, WEIGHT, WORST, MEASURE = range(5)
"""Columns of the rows."""
CLASH = 1000
"""Two things that cannot stand each other count like so many grams beyond a limit while wandering."""
NEVER = 2**60
"""The cost of a place where a thing may not go."""


class Tables(NamedTuple):
    """What stands fixed while searching: i things, j carriers, r rows, m measures.

    Measures are grams, pressed millilitres and, where anything can be pressed, loose ones, each at every moment.

    Few arrays on purpose: each one more makes every call and the compiling slower.
    """

    size: Ints  # (i, m)
    limit: Ints  # (j, m)
    cost: Ints  # (i, j)
    lever: Ints  # (j, r)
    rows: Ints  # (r, 5): bounds, weight of the sum and of the worst moment, first measure read
    hard_rows: int
    group: Ints  # (i, 2): number of its group and of all that is opened in camp, -1 for none
    group_cost: Ints  # (k,): of each bag that a group is spread over
    away_cost: Ints  # (k,): of each thing apart from most of its group
    seat: Ints  # (k, j): the place that a carrier is for a group: pairs are one for some
    repelled: Ints  # (i, i)
    repels: Ints  # (i,): whether it has any
    kin: Ints  # (i, 2): where in `by_group` the things of its group begin, and how many they are
    by_group: Ints  # (i,): things, those of a group side by side


class Standing(NamedTuple):
    """A placing under change, with the sums that a change of price needs."""

    x: Ints  # (i, j), pinned things not counted: they cannot move
    contents: Ints  # (j, m)
    values: Ints  # (r, s)
    price: Ints  # (r,)
    slack: Ints  # (r,): how far a row of grams may move before it has a price; -1 where it has one already
    in_group: Ints  # (k, j)
    fullest: Ints  # (k,): most of a group in one place, the shelf apart
    near: Ints  # (i, j): how many things in there a thing cannot stand
    extra: Ints  # (m,): what the step being priced brings, kept so that no step asks for memory


@inlined
def row_price(rows: Ints, values: Ints, r: int, lever: int, extra: Ints) -> int:
    """Price of a row when `lever` times `extra` is added to it; grams beyond for a hard row."""
    low, high, measure = rows[r, LOW], rows[r, HIGH], rows[r, MEASURE]
    total, worst = 0, 0
    for moment in range(values.shape[1]):
        value = values[r, moment] + lever * extra[measure + moment]
        beyond = max(value - high, low - value)
        if beyond > 0:
            over = (beyond + LEVER - 1) // LEVER
            total += over
            worst = max(worst, over)
    return int(rows[r, WEIGHT] * total + rows[r, WORST] * worst)


@inlined
def row_slack(rows: Ints, values: Ints, r: int) -> int:
    """How far a row of grams may move either way, at any moment, before it has a price; -1 for all others."""
    if rows[r, MEASURE] != 0:
        return -1
    slack = NEVER
    for moment in range(values.shape[1]):
        slack = min(slack, rows[r, HIGH] - values[r, moment], values[r, moment] - rows[r, LOW])
    return int(max(slack, -1))


@inlined
def _group_change(t: Tables, in_group: Ints, fullest: Ints, group: int, a: int, b: int) -> int:
    """What it costs a group when one of its things goes from a to b: bags opened, and things apart from most of it."""
    a, b = t.seat[group, a], t.seat[group, b]
    if a == b:
        return 0
    shelf = in_group.shape[1] - 1
    opened = b != shelf and in_group[group, b] == 0
    closed = a != shelf and in_group[group, a] == 1
    cost = t.group_cost[group] * (int(opened) - int(closed))
    if t.away_cost[group] > 0:
        before = fullest[group]
        after = before
        if a != shelf and in_group[group, a] == before:
            after = before - 1
            for seat in range(shelf):
                if seat != a and in_group[group, seat] == before:
                    after = before
        if b != shelf:
            after = max(after, in_group[group, b] + 1)
        inside = int(b != shelf) - int(a != shelf)
        cost += t.away_cost[group] * (inside - (after - before))
    return int(cost)


@inlined
def may_go(t: Tables, s: Standing, i: int, b: int, k: int) -> bool:
    """Whether thing i may go into b, where thing k may be leaving it."""
    if t.cost[i, b] == NEVER:
        return False
    near = s.near[i, b] if k < 0 else s.near[i, b] - t.repelled[i, k]
    return bool(near == 0)


@inlined
def clashes_more(t: Tables, s: Standing, i: int, a: int, b: int, k: int) -> int:
    """Things that cannot stand each other and come together when i goes from a to b and k from b to a, less those that part."""
    more = s.near[i, b] - s.near[i, a]
    if k >= 0:
        more += s.near[k, a] - s.near[k, b] - 2 * t.repelled[i, k]
    return int(more)


@compiled
def change(t: Tables, s: Standing, i: int, a: int, b: int, k: int) -> tuple[int, int]:
    """What moving one thing i from a to b does, where one thing k goes from b to a (k < 0: none).

    Returns the change of the objective [thousandths of a point] and of what lies beyond hard limits [g, ml].
    """
    # Arrays are taken out of the tuples once: each look into a tuple would count references.
    size, cost, levers, rows, values, price = t.size, t.cost, t.lever, t.rows, s.values, s.price
    contents, limit, in_group, extra, slack = s.contents, t.limit, s.in_group, s.extra, s.slack
    objective = cost[i, b] - cost[i, a]
    if k >= 0:
        objective += cost[k, a] - cost[k, b]
    broken, most = 0, 0
    for m in range(size.shape[1]):
        extra[m] = size[i, m] if k < 0 else size[i, m] - size[k, m]
        if m < values.shape[1]:
            most = max(most, abs(extra[m]))
        over_a, over_b = contents[a, m] - limit[a, m], contents[b, m] - limit[b, m]
        broken += max(over_a - extra[m], 0) - max(over_a, 0) + max(over_b + extra[m], 0) - max(over_b, 0)
    for r in range(rows.shape[0]):
        lever = levers[b, r] - levers[a, r]
        if lever != 0 and abs(lever) * most > slack[r]:
            dearer = row_price(rows, values, r, lever, extra) - price[r]
            if r < t.hard_rows:
                broken += dearer
            else:
                objective += dearer
    for g in range(t.group.shape[1]):
        group = t.group[i, g]
        other = t.group[k, g] if k >= 0 else -1
        if group != other:
            if group >= 0:
                objective += _group_change(t, in_group, s.fullest, group, a, b)
            if other >= 0:
                objective += _group_change(t, in_group, s.fullest, other, b, a)
    return objective, broken


@compiled
def move(t: Tables, s: Standing, i: int, a: int, b: int) -> None:
    """Move one of thing i from a to b."""
    size, levers, rows, values, price, contents = t.size, t.lever, t.rows, s.values, s.price, s.contents
    shelf = contents.shape[0] - 1
    s.x[i, a] -= 1
    s.x[i, b] += 1
    for m in range(contents.shape[1]):
        contents[a, m] -= size[i, m]
        contents[b, m] += size[i, m]
    for r in range(rows.shape[0]):
        lever = levers[b, r] - levers[a, r]
        if lever != 0:
            for moment in range(values.shape[1]):
                values[r, moment] += lever * size[i, rows[r, MEASURE] + moment]
            price[r] = row_price(rows, values, r, 0, s.extra)
            s.slack[r] = row_slack(rows, values, r)
    for g in range(t.group.shape[1]):
        if t.group[i, g] >= 0:
            group = t.group[i, g]
            s.in_group[group, t.seat[group, a]] -= 1
            s.in_group[group, t.seat[group, b]] += 1
            s.fullest[group] = s.in_group[group, :shelf].max()
    if t.repels[i]:
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
    for k in range(t.group.shape[0]):
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
def settle(t: Tables, s: Standing, broken_price: int) -> None:
    """Moves of single things until none helps."""
    gained = True
    while gained:
        gained = False
        for i in range(t.group.shape[0]):
            for a in range(t.limit.shape[0]):
                while s.x[i, a] > 0:
                    place, price = best_place(t, s, i, a, broken_price, True)
                    if place < 0 or price >= 0:
                        break
                    move(t, s, i, a, place)
                    gained = True


@compiled
def descend(t: Tables, s: Standing, broken_price: int) -> None:
    """Moves, then exchanges, until nothing helps."""
    gained = True
    while gained:
        settle(t, s, broken_price)
        gained = False
        for i in range(t.group.shape[0]):
            for a in range(t.limit.shape[0]):
                if s.x[i, a] > 0 and _best_exchange(t, s, i, a, broken_price):
                    gained = True


@compiled
def _any_source(t: Tables, s: Standing, i: int) -> int:
    """A place that one of thing i can leave, searched from a random one; -1 where all are pinned."""
    x = s.x
    start = np.random.randint(x.shape[1])
    for a in range(start, x.shape[1]):
        if x[i, a] > 0:
            return a
    for a in range(start):
        if x[i, a] > 0:
            return a
    return -1


@compiled
def _carry(t: Tables, s: Standing, i: int, a: int, b: int, moved: Ints, n: int, broken_price: float) -> tuple[int, float]:
    """Move all of the group of i that may go from a to b, noting it from place n on; the next place, and what it cost."""
    total = 0.0
    for k in t.by_group[t.kin[i, 0] : t.kin[i, 0] + t.kin[i, 1]]:
        while s.x[k, a] > 0 and n < moved.size and t.cost[k, b] != NEVER:
            objective, broken = change(t, s, k, a, b, -1)
            total += objective + broken_price * (broken + CLASH * clashes_more(t, s, k, a, b, -1))
            move(t, s, k, a, b)
            moved[n] = k
            n += 1
    return n, total


@compiled
def _try_gathering(t: Tables, s: Standing, i: int, b: int, broken_price: float, most: float) -> None:
    """Move all of the group of i, wherever it rides, into b, where that costs no more than `most`."""
    moved = np.empty(MOVED, dtype=np.int64)
    ends = np.zeros(t.limit.shape[0] + 1, dtype=np.int64)
    n, cost = 0, 0.0
    for a in range(t.limit.shape[0] - 1):
        if a != b:
            n, more = _carry(t, s, i, a, b, moved, n, broken_price)
            cost += more
        ends[a + 1] = n
    if cost > most:
        for a in range(t.limit.shape[0] - 1):
            for k in moved[ends[a] : ends[a + 1]]:
                move(t, s, k, b, a)


@compiled
def _try_groups(t: Tables, s: Standing, i: int, a: int, k: int, b: int, broken_price: float, most: float) -> None:
    """Move the group of i from a to b, and that of k (k < 0: none) from b to a, where that costs no more than `most`."""
    moved = np.empty(MOVED, dtype=np.int64)
    there, cost = _carry(t, s, i, a, b, moved, 0, broken_price)
    back = there
    if k >= 0:
        back, more = _carry(t, s, k, b, a, moved, there, broken_price)
        cost += more
    if cost > most:
        for k in moved[there:back]:
            move(t, s, k, a, b)
        for i in moved[:there]:
            move(t, s, i, b, a)


@compiled
def anneal(t: Tables, s: Standing, steps: int, seed: int, hot: float, cold: float, soft_price: float, hard_price: float) -> None:
    """Wander by moves and exchanges of things and groups while it cools from `hot` to `cold` and limits grow dear.

    A step is taken where its price is no more than -temperature * log(u), u uniform in (0, 1) (Kirkpatrick, Gelatt,
    Vecchi 1983, Optimization by simulated annealing, Science 220:671-680, doi:10.1126/science.220.4598.671; from memory). The
    same seed takes the same steps.
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
        k = b = -1
        if kind < SHARE_OF_KIN + SHARE_OF_MOVES + SHARE_OF_GROUPS:
            for _ in range(DRAWS):
                b = np.random.randint(places)
                if kind < SHARE_OF_KIN and t.kin[i, 1] > 1:
                    b = _any_source(t, s, t.by_group[t.kin[i, 0] + np.random.randint(t.kin[i, 1])])
                if b >= 0 and b != a and t.cost[i, b] != NEVER:
                    break
        else:
            for _ in range(DRAWS):
                k = np.random.randint(things)
                b = _any_source(t, s, k)
                if b >= 0 and b != a and t.cost[i, b] != NEVER and t.cost[k, a] != NEVER:
                    break
        if b < 0 or b == a or k == i or t.cost[i, b] == NEVER or (k >= 0 and t.cost[k, a] == NEVER):
            continue
        whole_group = k < 0 and kind >= SHARE_OF_KIN + SHARE_OF_MOVES
        two_groups = k >= 0 and kind >= 1 - SHARE_OF_SWAPS and t.kin[k, 1] > 0 and t.group[k, 0] != t.group[i, 0]
        if (whole_group or two_groups) and t.kin[i, 1] > 0 and a < places - 1 and b < places - 1:
            if whole_group and np.random.random() < SHARE_OF_GATHERING:
                _try_gathering(t, s, i, b, broken_price, most)
            else:
                _try_groups(t, s, i, a, k, b, broken_price, most)
            continue
        objective, broken = change(t, s, i, a, b, k)
        if objective + broken_price * (broken + CLASH * clashes_more(t, s, i, a, b, k)) <= most:
            move(t, s, i, a, b)
            if k >= 0:
                move(t, s, k, b, a)
