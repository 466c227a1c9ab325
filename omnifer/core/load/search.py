"""A good placing at once: best insertion, then descent by moves and swaps. No clock and no chance: it counts steps."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.load.problem import BROKEN, LEVER, Ints, Placing, Problem, Score, evaluate

Floats = NDArray[np.float64]

KICK_THINGS = 6
"""Things taken out together in one kick, so that they can go back better."""


class Search:
    """A placing under change, with everything kept that a change of cost needs.

    The shelf is one more carrier at the end: no limits, no levers, the price of leaving out.
    """

    def __init__(self, problem: Problem, start: Placing | None = None) -> None:
        p = self.problem = problem
        things, carriers = p.allowed.shape
        self.shelf = carriers
        self.mass, self.volume = p.mass_g.astype(float), p.volume_ml.astype(float)
        self.limit = np.append(p.limit_g.astype(float), np.inf)
        self.room = np.append(p.room_ml.astype(float), np.inf)
        self.cost = np.column_stack([p.cost, p.out_cost]).astype(float)
        self.allowed = np.column_stack([p.allowed, np.ones(things, dtype=bool)])
        self.kept = np.append(p.kept, False).astype(float)
        self.kept_room = float(p.room_ml[p.kept].sum()) - p.kept_target_ml
        self.repelled = p.repelled.astype(float)
        rows = [p.hard, p.soft]
        self.lever = np.column_stack([np.vstack([r.lever for r in rows]), np.zeros(sum(r.lever.shape[0] for r in rows))]).astype(
            float
        )
        self.low = np.concatenate([r.low for r in rows]).astype(float)[:, None]
        self.high = np.concatenate([r.high for r in rows]).astype(float)[:, None]
        self.weight = np.concatenate([r.weight for r in rows]).astype(float) / LEVER
        self.worst_weight = self.weight * p.worst_times
        self.worst_weight[: p.hard.lever.shape[0]] = 0
        self.tenth_g, self.tenth_ml = p.food_g.astype(float), p.food_ml.astype(float)
        self._load(start or _only_pins(p))

    def _load(self, placing: Placing) -> None:
        p = self.problem
        out = p.count - placing.x.sum(axis=1)
        self.x = np.column_stack([placing.x, out]).astype(float)
        self.food = np.append(placing.food, 10 - placing.food.sum()).astype(float)
        self.pinned = np.column_stack([p.pinned, np.zeros(out.size)]).astype(float)
        self.kg = self.x.T @ self.mass + self.food[:, None] * self.tenth_g
        self.ml = self.x.T @ self.volume + self.food[:, None] * self.tenth_ml
        self.kg[-1] = self.ml[-1] = 0
        kits = int(p.kit.max(initial=-1)) + 1
        self.in_kit = np.zeros((max(kits, 1), self.shelf + 1))
        for i in np.flatnonzero(p.kit >= 0):
            self.in_kit[p.kit[i]] += self.x[i]
        self.values = self.lever @ self.kg
        self.near = self.repelled @ (self.x > 0)

    def placing(self) -> Placing:
        """The placing as it stands."""
        return Placing(np.rint(self.x[:, :-1]).astype(np.int64), np.rint(self.food[:-1]).astype(np.int64))

    def _row_cost(self, values: Floats) -> Floats:
        """Price of rows, shape (..., r, s) -> (...)."""
        over = np.maximum(np.maximum(values - self.high, self.low - values), 0.0)
        return np.asarray(over.sum(axis=-1) @ self.weight + over.max(axis=-1) @ self.worst_weight)

    def _kept_cost(self, shift: Floats) -> Floats:
        """Price of room missing for shopping when the kept bags hold `shift` more, shape (..., s) -> (...)."""
        free = self.kept_room - (self.kept[:-1] @ self.ml[:-1] + shift)
        return np.asarray(self.problem.kept_cost * np.maximum(-free, 0).max(axis=-1))

    def _cell_change(self, carriers: Ints, more_g: Floats, more_ml: Floats) -> Floats:
        """Change in price of carriers' own limits when each holds that much more, shape (n, s) -> (n,)."""
        kg, ml = self.kg[carriers], self.ml[carriers]
        limit, room = self.limit[carriers][:, None], self.room[carriers][:, None]
        change = np.maximum(kg + more_g - limit, 0) - np.maximum(kg - limit, 0)
        change = change + np.maximum(ml + more_ml - room, 0) - np.maximum(ml - room, 0)
        return np.asarray(BROKEN * change.sum(axis=1))

    def move_changes(self, i: int, source: int) -> Floats:
        """Change in price of moving one of thing i from a carrier to each other; inf where it may not go."""
        g, ml = self.mass[i], self.volume[i]
        every = np.arange(self.shelf + 1)
        change = self.cost[i] - self.cost[i, source]
        change = change + self._cell_change(every, g[None, :], ml[None, :])
        change += self._cell_change(np.array([source]), -g[None, :], -ml[None, :])[0]
        levers = self.lever.T - self.lever[:, source]
        change += self._row_cost(self.values + levers[:, :, None] * g) - self._row_cost(self.values)
        shift = (self.kept - self.kept[source])[:, None] * ml
        change += self._kept_cost(shift) - self._kept_cost(np.zeros_like(ml))
        kit = self.problem.kit[i]
        if kit >= 0:
            opens = (self.in_kit[kit] == 0).astype(float)
            opens[-1] = 0
            closes = float(source != self.shelf and self.in_kit[kit, source] == 1)
            change += self.problem.kit_cost * (opens - closes)
        barred = ~self.allowed[i] | (self.near[i] > 0)
        barred[-1] = False
        change[barred] = np.inf
        change[source] = np.inf
        return change

    def swap_changes(self, i: int, source: int, others: Ints, places: Ints) -> Floats:
        """Change in price of exchanging one of thing i with one of each other thing at its place."""
        more_g, more_ml = self.mass[others] - self.mass[i], self.volume[others] - self.volume[i]
        change = self.cost[i, places] + self.cost[others, source] - self.cost[i, source] - self.cost[others, places]
        change = change + self._cell_change(np.full(others.size, source), more_g, more_ml)
        change += self._cell_change(places, -more_g, -more_ml)
        levers = self.lever[:, source] - self.lever.T[places]
        change += self._row_cost(self.values + levers[:, :, None] * more_g[:, None, :]) - self._row_cost(self.values)
        shift = (self.kept[source] - self.kept[places])[:, None] * more_ml
        change += self._kept_cost(shift) - self._kept_cost(np.zeros(more_g.shape[1]))
        kit, kits = self.problem.kit[i], self.problem.kit[others]
        both = np.where(kits == kit, 0.0, self._kit_change(np.array([kit]), source, places))
        both += np.where(kits == kit, 0.0, self._kit_change(kits, places, np.array([source])))
        change += self.problem.kit_cost * both
        between = self.repelled[i, others]
        clash = (self.near[i, places] - between > 0) & (places != self.shelf)
        clash |= (self.near[others, source] - between > 0) & (source != self.shelf)
        barred = clash | ~self.allowed[i, places] | ~self.allowed[others, source]
        change[barred] = np.inf
        return np.asarray(change)

    def _kit_change(self, kits: Ints, source: int | Ints, target: Ints) -> Floats:
        known = np.maximum(kits, 0)
        opens = (self.in_kit[known, target] == 0) & (target != self.shelf)
        closes = (self.in_kit[known, source] == 1) & (np.asarray(source) != self.shelf)
        return np.where(kits >= 0, opens.astype(float) - closes, 0.0)

    def move(self, i: int, source: int, target: int) -> None:
        """Move one of thing i."""
        self.x[i, source] -= 1
        self.x[i, target] += 1
        self._shift(source, -self.mass[i], -self.volume[i])
        self._shift(target, self.mass[i], self.volume[i])
        kit = self.problem.kit[i]
        if kit >= 0:
            self.in_kit[kit, source] -= 1
            self.in_kit[kit, target] += 1
        if self.x[i, source] == 0:
            self.near[:, source] -= self.repelled[i]
        if self.x[i, target] == 1:
            self.near[:, target] += self.repelled[i]

    def _shift(self, carrier: int, g: Floats, ml: Floats) -> None:
        if carrier == self.shelf:
            return
        self.kg[carrier] += g
        self.ml[carrier] += ml
        self.values += self.lever[:, carrier, None] * g

    def _best_move(self, i: int) -> float:
        """Make the best move of thing i, if it helps. Returns the gain."""
        best, step = -1e-6, None
        for source in np.flatnonzero(self.x[i] > self.pinned[i]):
            change = self.move_changes(i, int(source))
            target = int(np.argmin(change))
            if change[target] < best:
                best, step = float(change[target]), (int(source), target)
        if step is None:
            return 0.0
        self.move(i, *step)
        return best

    def _best_swap(self, i: int) -> float:
        """Make the best exchange of thing i with another, if it helps. Returns the gain."""
        free = self.x > self.pinned
        best, step = -1e-6, None
        for source in np.flatnonzero(free[i]):
            others, places = np.nonzero(free)
            apart = (others != i) & (places != source)
            others, places = others[apart], places[apart]
            if others.size == 0:
                continue
            change = self.swap_changes(i, int(source), others, places)
            k = int(np.argmin(change))
            if change[k] < best:
                best, step = float(change[k]), (int(source), int(others[k]), int(places[k]))
        if step is None:
            return 0.0
        source_, other, place = step
        self.move(i, source_, place)
        self.move(other, place, source_)
        return best

    def _best_food(self) -> float:
        """Move a tenth of the food to where it helps most, if it does."""
        p = self.problem
        allowed = np.append(p.food_allowed, True)
        cost = np.append(p.food_cost, p.food_out_cost).astype(float)
        every = np.arange(self.shelf + 1)
        best, step = -1e-6, None
        for source in np.flatnonzero(self.food > 0):
            g, ml = self.tenth_g, self.tenth_ml
            change = cost - cost[source]
            change = change + self._cell_change(every, g[None, :], ml[None, :])
            change += self._cell_change(np.array([source]), -g[None, :], -ml[None, :])[0]
            levers = self.lever.T - self.lever[:, source]
            change += self._row_cost(self.values + levers[:, :, None] * g) - self._row_cost(self.values)
            change += self._kept_cost((self.kept - self.kept[source])[:, None] * ml) - self._kept_cost(np.zeros_like(ml))
            change[~allowed] = np.inf
            change[source] = np.inf
            target = int(np.argmin(change))
            if change[target] < best:
                best, step = float(change[target]), (int(source), target)
        if step is None:
            return 0.0
        source_, target = step
        self.food[source_] -= 1
        self.food[target] += 1
        self._shift(source_, -self.tenth_g, -self.tenth_ml)
        self._shift(target, self.tenth_g, self.tenth_ml)
        return best

    def insert_all(self) -> None:
        """Put everything on the shelf where it costs least, what has fewest places and most mass first."""
        while self.food[-1] and self._best_food():
            pass
        order = np.lexsort((-self.mass.max(axis=1), self.allowed.sum(axis=1)))
        for i in order:
            while self.x[i, -1] > 0:
                change = self.move_changes(int(i), self.shelf)
                target = int(np.argmin(change))
                if not change[target] < 0:
                    break
                self.move(int(i), self.shelf, target)

    def descend(self, swaps: bool = True) -> None:
        """Moves, then exchanges, until nothing helps."""
        things = range(self.x.shape[0])
        gained = True
        while gained:
            gained = False
            while self._best_food():
                gained = True
            for i in things:
                while self._best_move(i):
                    gained = True
            if swaps and not gained:
                for i in things:
                    if self._best_swap(i):
                        gained = True

    def kick(self, seed: int) -> None:
        """Take a few neighbouring things out and put them back best first: the way out of a dead end."""
        chance = np.random.Generator(np.random.PCG64(seed))
        movable = np.flatnonzero((self.x[:, :-1] > self.pinned[:, :-1]).any(axis=1))
        for i in chance.permutation(movable)[:KICK_THINGS]:
            source = int(np.flatnonzero(self.x[i, :-1] > self.pinned[i, :-1])[0])
            self.move(int(i), source, self.shelf)
        self.insert_all()


def _only_pins(problem: Problem) -> Placing:
    return Placing(problem.pinned.copy(), np.zeros(problem.limit_g.size, dtype=np.int64))


def search(problem: Problem, kicks: int, start: Placing | None = None) -> tuple[Placing, Score]:
    """Best insertion, descent, and a number of kicks each followed by descent. The best placing seen."""
    state = Search(problem, start)
    state.insert_all()
    state.descend()
    best = state.placing()
    score = evaluate(problem, best)
    for seed in range(kicks):
        state._load(best)
        state.kick(seed)
        state.descend(swaps=seed % 4 == 3)
        placing = state.placing()
        found = evaluate(problem, placing)
        if found.order < score.order:
            best, score = placing, found
    return best, score
