"""The placing problem for HiGHS: the peer of our own search and solver, on the same arrays."""

import time

import highspy
import numpy as np

from omnifer.core.load.problem import LEVER, Placing, Problem, Rows
from omnifer.core.stores.program import Program

INF = highspy.kHighsInf


class Encoding(Program):
    """Columns and rows gathered one by one; slacks are continuous, which gives HiGHS its best bound."""

    def __init__(self, problem: Problem) -> None:
        super().__init__()
        self.problem = problem
        p = problem
        self.x = {
            (i, int(j)): self.column(int(p.cost[i, j]), int(p.pinned[i, j]), int(p.count[i]), whole=True)
            for i in range(p.count.size)
            for j in np.flatnonzero(p.allowed[i] | (p.pinned[i] > 0))
        }
        self.food = [self.column(int(p.food_cost[j]), 0, 10 * int(p.food_allowed[j]), whole=True) for j in range(p.limit_g.size)]
        self._placed()
        self.kg = self._contents(p.mass_g, p.food_g, p.limit_g)
        pressed = self._contents(p.pressed_ml, p.food_ml, p.brim_ml)
        self.ml = self._contents(p.volume_ml, p.food_ml, np.full(p.room_ml.size, INF)) if p.presses else pressed
        self._limits(p.hard, priced=False)
        self._limits(p.soft, priced=True)
        self._groups()
        self._neighbours()
        self._beside_food()
        self._room()
        self._ease()

    def _placed(self) -> None:
        p = self.problem
        for i in range(p.count.size):
            out = self.column(int(p.out_cost[i]), 0, int(p.count[i]))
            self.rows.append(([*((v, 1.0) for (k, _), v in self.x.items() if k == i), (out, 1.0)], p.count[i], p.count[i]))
        out = self.column(p.food_out_cost, 0, 10)
        self.rows.append(([*((v, 1.0) for v in self.food), (out, 1.0)], 10, 10))

    def _contents(self, size: np.ndarray, food: np.ndarray, most: np.ndarray) -> list[list[int]]:
        result = []
        for j in range(most.size):
            inside = [(i, v) for (i, k), v in self.x.items() if k == j]
            gear = self.column(0, 0, INF)
            least = size.min(axis=1)
            self.rows.append(([*((v, float(least[i])) for i, v in inside), (gear, -1.0)], 0, 0))
            by_state = []
            for s in range(self.problem.states):
                total = self.column(0, 0, float(most[j]))
                more = [(v, float(size[i, s] - least[i])) for i, v in inside if size[i, s] > least[i]]
                self.rows.append(([(gear, 1.0), *more, (self.food[j], float(food[s])), (total, -1.0)], 0, 0))
                by_state.append(total)
            result.append(by_state)
        return result

    def _limits(self, rows: Rows, priced: bool) -> None:
        p = self.problem
        for r in range(rows.lever.shape[0]):
            worst = self.column(int(rows.weight[r]) * p.worst_times, 0, INF) if priced else -1
            for s in range(p.states):
                value = [(self.kg[j][s], a / LEVER) for j, a in enumerate(rows.lever[r]) if a]
                if priced:
                    over = self.column(int(rows.weight[r]), 0, INF)
                    self.rows.append(([*value, (over, -1.0)], -INF, rows.high[r] / LEVER))
                    self.rows.append(([*value, (over, 1.0)], rows.low[r] / LEVER, INF))
                    self.rows.append(([(worst, 1.0), (over, -1.0)], 0, INF))
                else:
                    self.rows.append((value, rows.low[r] / LEVER, rows.high[r] / LEVER))

    def _groups(self) -> None:
        opened: dict[tuple[int, int], int] = {}
        most: dict[tuple[int, int], int] = {}
        p = self.problem
        for (i, j), v in self.x.items():
            own = int(p.group[i])
            for group, cost in ((own, p.group_cost), (p.groups if p.opened[i] else -1, p.opened_cost)):
                if group < 0 or cost == 0:
                    continue
                at = (group, int(p.seats[group, j]) if group < p.groups else j)
                if at not in opened:
                    opened[at] = self.column(cost, 0, 1, whole=True)
                self.rows.append(([(v, 1.0), (opened[at], -float(p.count[i]))], -INF, 0))
            if own >= 0 and p.away_cost:
                at = (own, int(p.seats[own, j]))
                if at not in most:
                    most[at] = self.column(0, 0, 1, whole=True)
                with_most = self.column(-p.away_cost, 0, float(p.count[i]))
                self.cost[v] += p.away_cost
                self.rows.append(([(with_most, 1.0), (v, -1.0)], -INF, 0))
                self.rows.append(([(with_most, 1.0), (most[at], -float(p.count[i]))], -INF, 0))
        for group in range(p.groups):
            self.rows.append(([(v, 1.0) for (of, _), v in most.items() if of == group], -INF, 1))

    def _neighbours(self) -> None:
        p = self.problem
        for tag in range(p.has.shape[1]):
            if not (p.has[:, tag].any() and p.repels[:, tag].any()):
                continue
            for j in range(p.limit_g.size):
                has = self.column(0, 0, 1, whole=True)
                for (i, k), v in self.x.items():
                    if k == j and p.has[i, tag] != p.repels[i, tag]:
                        most = float(p.count[i])
                        row = ([(v, 1.0), (has, -most)], -INF, 0) if p.has[i, tag] else ([(v, 1.0), (has, most)], -INF, most)
                        self.rows.append(row)

    def _beside_food(self) -> None:
        p = self.problem
        for j in np.flatnonzero(p.food_allowed):
            food = self.column(0, 0, 1, whole=True)
            self.rows.append(([(self.food[j], 1.0), (food, -10.0)], -INF, 0))
            for (i, k), v in self.x.items():
                if k == j and p.food_repelled[i]:
                    self.rows.append(([(v, 1.0), (food, float(p.count[i]))], -INF, float(p.count[i])))

    def _room(self) -> None:
        p = self.problem
        kept = np.flatnonzero(p.kept)
        missing = self.column(p.kept_cost, 0, INF)
        for s in range(p.states):
            free = float(p.kept_target_ml - p.room_ml[kept].sum())
            self.rows.append(([(missing, 1.0), *((self.ml[j][s], -1.0) for j in kept)], free, INF))

    def _ease(self) -> None:
        p = self.problem
        for j, totals in enumerate(self.ml if p.presses else []):
            over = self.column(p.ease_cost, 0, INF)
            for total in totals:
                self.rows.append(([(over, 1.0), (total, -1.0)], -float(p.room_ml[j]), INF))

    def read(self, values: np.ndarray) -> Placing:
        """The placing of a solution."""
        x = np.zeros(self.problem.allowed.shape, dtype=np.int64)
        for (i, j), v in self.x.items():
            x[i, j] = round(values[v])
        return Placing(x, np.array([round(values[v]) for v in self.food], dtype=np.int64))


def run_highs(problem: Problem, seconds: float) -> tuple[list[tuple[float, Placing]], float]:
    """Incumbents with the seconds at which they came, building included, and the bound at the end."""
    started = time.perf_counter()
    encoding = Encoding(problem)
    h = encoding.solver()
    h.setOptionValue("time_limit", seconds - (time.perf_counter() - started))
    found: list[tuple[float, Placing]] = []

    def note(event: highspy.HighsCallbackEvent) -> None:
        found.append((time.perf_counter() - started, encoding.read(np.array(event.data_out.mip_solution))))

    h.cbMipImprovingSolution.subscribe(note)
    h.solve()
    return found, h.getInfo().mip_dual_bound
