"""A good placing at once, better ones soon after. It counts steps, never seconds: the same problem gives the same answer."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import count, product

import numpy as np

from omnifer.core.load import annealing
from omnifer.core.load.annealing import MEASURE, NEVER, Standing, Tables
from omnifer.core.load.problem import BROKEN, LEVER, Ints, Placing, Problem, Score, evaluate

STEPS_PER_PAIR = 70
"""Steps of the first annealing round for each thing and carrier; every second round takes twice as many."""
FEWEST_STEPS = 150_000
"""Of the first round, however small the problem."""
FIRST_SHARE = 0.6
"""Of the first round: an annealing before the first load is shown, where insertion and descent leave something out."""
LONGEST = 2
"""No round is longer than so many first ones."""
KEPT = 6
"""Best loads that are kept to be crossed."""
HOT, COLD = 30_000.0, 60.0
"""First and last temperature [thousandths of a point]: at first a group may be split for nothing, at last hardly a gram moved."""
REHEATED = 8_000.0
"""First temperature of the rounds that start from the best load so far."""
SOFT_PRICE, HARD_PRICE = 10.0, 20_000.0
"""A gram beyond a hard limit at first, so that a full bag can be passed through, and at last [thousandths of a point]."""
OUT_WHILE_SEARCHING = 30
"""Leaving out is so much cheaper while searching, so that some 20 g beyond a limit are dearer; loads are compared by the
whole price."""
SCARCE = 4.0
"""Times its price that leaving out a thing costs more while searching, over the number of carriers it fits."""
TAKEN_IN = 8
"""Things that are out for which room is made, at most."""
NOWHERE = 2**60
"""A limit that nothing reaches."""


def tables(problem: Problem) -> Tables:
    """The arrays of a problem as the compiled part reads them: food as one more thing, the shelf as one more carrier."""
    p = problem
    things, carriers, moments = p.count.size, p.limit_g.size, p.states
    cost = np.full((things + 1, carriers + 1), NEVER)
    cost[:-1, :-1] = np.where(p.allowed, p.cost, NEVER)
    cost[:-1, -1] = p.out_cost // OUT_WHILE_SEARCHING
    cost[-1] = np.append(np.where(p.food_allowed, p.food_cost, NEVER), p.food_out_cost // OUT_WHILE_SEARCHING)
    nowhere = np.full_like(p.room_ml, NOWHERE)
    # Loose volumes are a third measure, where anything can be pressed at all; they have prices and no limit.
    limits = np.column_stack([p.limit_g, p.brim_ml, *([nowhere] if p.presses else [])])
    sizes = np.column_stack([p.mass_g, p.pressed_ml, *([p.volume_ml] if p.presses else [])])
    loose = moments * (limits.shape[1] - 1)
    pressing = np.eye(carriers, dtype=np.int64) if p.presses else np.zeros((0, carriers), dtype=np.int64)
    group = np.append(p.group, -1)
    by_group = np.argsort(group, kind="stable")
    sizes_of = np.array([(group == k).sum() if k >= 0 else 0 for k in group])
    kin = np.column_stack([np.searchsorted(group[by_group], group), sizes_of])
    kin[-1] = int(np.flatnonzero(by_group == things)[0]), 1  # food moves as a whole too
    repelled = np.zeros((things + 1, things + 1), dtype=np.int64)
    repelled[:-1, :-1] = p.repelled
    repelled[-1, :-1] = repelled[:-1, -1] = p.food_repelled
    soft = p.soft.weight
    rows = np.vstack([
        np.column_stack([p.hard.low, p.hard.high, np.ones_like(p.hard.low), *np.zeros((2, p.hard.low.size), dtype=np.int64)]),
        np.column_stack([p.soft.low, p.soft.high, soft, soft * p.worst_times, np.zeros_like(soft)]),
        [[-NOWHERE, LEVER * (p.room_ml[p.kept].sum() - p.kept_target_ml), 0, p.kept_cost, loose]],
        *([-NOWHERE, LEVER * room, 0, p.ease_cost, loose] for room in p.room_ml[: len(pressing)]),
    ])  # fmt: skip
    lever = np.vstack([p.hard.lever, p.soft.lever, LEVER * p.kept, LEVER * pressing])
    return Tables(
        size=np.vstack([sizes, np.concatenate([p.food_g, *[p.food_ml] * (limits.shape[1] - 1)])]),
        limit=np.vstack([np.repeat(limits, moments, axis=1), np.full((1, limits.shape[1] * moments), NOWHERE)]),
        cost=cost,
        lever=np.ascontiguousarray(np.vstack([lever.T, np.zeros((1, lever.shape[0]), dtype=np.int64)])),
        rows=np.ascontiguousarray(rows),
        hard_rows=p.hard.low.size,
        group=np.column_stack([np.append(p.group, -1), np.append(np.where(p.opened, p.groups, -1), -1)]),
        group_cost=np.append(np.full(p.groups, p.group_cost), p.opened_cost),
        away_cost=np.append(np.full(p.groups, p.away_cost), 0),
        seat=_seats(p),
        repelled=repelled,
        kin=kin,
        by_group=by_group,
        repels=np.max(repelled, axis=1, initial=0, keepdims=True).ravel(),
    )


def _seats(problem: Problem) -> Ints:
    """The place that each carrier is for each group, and for what is opened in camp; the shelf is its own."""
    carriers = np.arange(problem.limit_g.size + 1)
    seats = np.vstack([problem.seats, carriers[None, :-1]])
    return np.ascontiguousarray(np.hstack([seats, np.full((seats.shape[0], 1), carriers[-1])]))


class Search:
    """A placing of a problem under change."""

    def __init__(self, problem: Problem, start: Placing | None = None) -> None:
        self.problem = problem
        self.tables = tables(problem)
        largest, places = self.tables.size[:, : problem.states].max(axis=1), (self.tables.cost < NEVER).sum(axis=1)
        self.order = np.lexsort((-largest, places, np.append(problem.may, False)))
        self.pinned = np.pad(problem.pinned, ((0, 1), (0, 1)))
        self.stand(start or Placing(problem.pinned, np.zeros(problem.limit_g.size, dtype=np.int64)))

    def stand(self, placing: Placing) -> None:
        """Start again from a placing."""
        p, t = self.problem, self.tables
        inside = np.vstack([placing.x, placing.food])
        x = np.column_stack([inside, np.append(p.count, 10) - inside.sum(axis=1)])
        contents = x.T @ t.size
        in_group = np.zeros((p.groups + 1, p.limit_g.size + 1), dtype=np.int64)
        for numbers in t.group.T:
            for i in np.flatnonzero(numbers >= 0):
                np.add.at(in_group[numbers[i]], t.seat[numbers[i]], x[i])
        near = t.repelled @ x
        near[:, -1] = 0
        by_measure = t.lever.T @ contents
        read = t.rows[:, MEASURE, None] + np.arange(p.states)
        values = np.take_along_axis(by_measure, read, axis=1)
        nothing = np.zeros(t.size.shape[1], dtype=np.int64)
        price = np.array([annealing.row_price(t.rows, values, r, 0, nothing) for r in range(t.rows.shape[0])])
        slack = np.array([annealing.row_slack(t.rows, values, r) for r in range(t.rows.shape[0])])
        fullest = in_group[:, :-1].max(axis=1, initial=0)
        self.standing = Standing(x - self.pinned, contents, values, price, slack, in_group, fullest, near, nothing)

    def placing(self) -> Placing:
        """The placing as it stands."""
        x = self.standing.x + self.pinned
        return Placing(x[:-1, :-1].copy(), x[-1, :-1].copy())

    def insert_all(self, forced: bool = False) -> None:
        """Put everything on the shelf where it costs least: what must come first, then what has fewest places."""
        annealing.insert_all(self.tables, self.standing, self.order, BROKEN, forced)

    def settle(self) -> None:
        """Moves of single things until none helps."""
        annealing.settle(self.tables, self.standing, BROKEN)

    def descend(self) -> None:
        """Moves, then exchanges, until nothing helps."""
        annealing.descend(self.tables, self.standing, BROKEN)

    def anneal(self, steps: int, seed: int, hot: float) -> None:
        """Wander while it cools; the load at the end, not the best on the way, less what cannot stand its neighbours."""
        annealing.anneal(self.tables, self.standing, steps, seed, hot, COLD, SOFT_PRICE, HARD_PRICE)
        if self.standing.near[self.standing.x > 0].any():
            self.stand(without_clashes(self.problem, self.placing()))
            self.insert_all()


def without_clashes(problem: Problem, placing: Placing) -> Placing:
    """A placing less what may not ride where it does, by itself or beside its neighbours; pinned things stay.

    Of two neighbours that cannot stand each other the pinned one stays, else the heavier.
    """
    x = np.where(problem.allowed | (problem.pinned > 0), placing.x, 0)
    repelled = problem.repelled
    heavy = problem.mass_g.max(axis=1)
    for j in range(x.shape[1]):
        order = sorted(np.flatnonzero(x[:, j]), key=lambda i: (problem.pinned[i, j] == 0, -heavy[i]))
        kept: list[int] = []
        for i in order:
            if problem.pinned[i, j] == 0 and repelled[i, kept].any():
                x[i, j] = 0
            else:
                kept.append(int(i))
    beside = (x[problem.food_repelled] > 0).any(axis=0)
    return Placing(x, np.where(problem.food_allowed & ~beside, placing.food, 0))


def take_in(state: Search, problem: Problem, placing: Placing, score: Score) -> tuple[Placing, Score]:
    """A load with what is out put into each of its carriers in turn, what cannot stand it there making room, for what must
    come also what may stay, and the rest set right by single moves; the load as it was where that brings nothing in."""
    out = np.flatnonzero(problem.count > placing.x.sum(axis=1))
    for i in out[np.argsort(problem.may[out], kind="stable")][:TAKEN_IN]:
        leaving = [problem.repelled[i]] if problem.may[i] else [problem.repelled[i], problem.repelled[i] | problem.may]
        for j, gives_way in product(np.flatnonzero(problem.allowed[i]), leaving):
            missing = problem.count[i] - placing.x[i].sum()
            if not missing:
                break
            x = placing.x.copy()
            x[gives_way, j] = problem.pinned[gives_way, j]
            x[i, j] += missing
            food = placing.food.copy()
            food[j] = 0 if problem.food_repelled[i] else food[j]
            state.stand(Placing(x, food))
            state.insert_all()
            state.settle()
            found = evaluate(problem, state.placing())
            if found.order < score.order:
                placing, score = state.placing(), found
    state.stand(placing)
    state.descend()
    found = evaluate(problem, state.placing())
    return (state.placing(), found) if found.order < score.order else (placing, score)


def better_and_better(problem: Problem, start: Placing | None = None) -> Iterator[tuple[Placing, Score]]:
    """The best load so far after each round, without end: insertion and descent first, then annealing.

    Of three rounds one starts hot from where the last one ended, one less hot from the best load, and one from what two of the
    best loads have in common, each kit as one of them has it; they grow longer.
    """
    places = np.maximum(problem.allowed.sum(axis=1), 1)
    # What fits few carriers only would be squeezed out by what could as well go elsewhere: while searching it is dearer.
    state = Search(replace(problem, out_cost=np.rint(problem.out_cost * (1 + SCARCE / places)).astype(np.int64)), start)
    state.insert_all()
    state.descend()
    best = state.placing()
    score = evaluate(problem, best)
    steps = max(STEPS_PER_PAIR * state.tables.cost.size, FEWEST_STEPS)
    if score.out or score.broken:
        state.anneal(int(FIRST_SHARE * steps), 0, REHEATED)
        state.insert_all()
        state.descend()
        if (mended := evaluate(problem, state.placing())).order < score.order:
            best, score = state.placing(), mended
        if score.out:
            best, score = take_in(state, problem, best, score)
    kept = [(score, best)]
    for turn in count():
        score, best = kept[0]
        yield best, score
        kind = turn % 3
        if kind == 1:
            state.stand(best)
        elif kind == 2:
            state.stand(_crossed(problem, kept, turn))
            state.insert_all()
        longer = min(2 ** ((turn + 1) // 2), LONGEST)
        state.anneal(steps * longer, turn, HOT if kind == 0 else REHEATED)
        state.descend()
        placing = state.placing()
        found = evaluate(problem, placing)
        if found.out:
            placing, found = take_in(state, problem, placing, found)
        if all(found != known for known, _ in kept):
            kept = sorted([*kept, (found, placing)], key=lambda load: load[0].order)[:KEPT]


def _crossed(problem: Problem, kept: list[tuple[Score, Placing]], seed: int) -> Placing:
    """The best load with about half of its kits, and of what has none, placed as another of the best loads has them."""
    best = kept[0][1]
    if len(kept) == 1:
        return best
    chance = np.random.default_rng(seed)
    other = kept[int(chance.integers(1, len(kept)))][1]
    kits, single = chance.random(problem.groups + 1) < 0.5, chance.random(problem.count.size) < 0.5
    theirs = np.where(problem.group >= 0, kits[problem.group], single)
    x = np.where(theirs[:, None], other.x, best.x)
    return without_clashes(problem, Placing(x, other.food if kits[-1] else best.food))


def search(problem: Problem, rounds: int, start: Placing | None = None) -> tuple[Placing, Score]:
    """The best load after a number of annealing rounds."""
    for done, (placing, score) in enumerate(better_and_better(problem, start)):
        if done == rounds:
            return placing, score
    raise AssertionError("the rounds have no end")


def forced_contents(problem: Problem, placing: Placing) -> tuple[Ints, Ints]:
    """Grams and pressed millilitres in each carrier at each moment with what stays out put back wherever it hurts least."""
    state = Search(problem, placing)
    state.insert_all(forced=True)
    contents = state.standing.contents[:-1]
    return contents[:, : problem.states], contents[:, problem.states : 2 * problem.states]
