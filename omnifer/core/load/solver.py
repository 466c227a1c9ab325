"""The placing problem for CP-SAT: a better load, and a bound that says how much better any load can be."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from ortools.sat.python import cp_model

from omnifer.core.load.problem import LEVER, Ints, Placing, Problem, Rows

SEED = 7
WORKERS = 4
MOST_ML = 10_000_000
"""More than any carrier holds."""


@dataclass(frozen=True)
class Solved:
    """What the solver found within its effort; `placing` is None where it found nothing that holds."""

    placing: Placing | None
    bound: float
    proven: bool
    infeasible: bool

    @property
    def floor(self) -> float | None:
        """Points that no load can go below; None where every load breaks a limit [thousandths of a point]."""
        return None if self.infeasible else max(self.bound, 0.0)


class Model:
    """Variables and constraints of one problem."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self.model = cp_model.CpModel()
        things, carriers = problem.allowed.shape
        self.x: dict[tuple[int, int], cp_model.IntVar] = {}
        for i in range(things):
            for j in np.flatnonzero(problem.allowed[i] | (problem.pinned[i] > 0)):
                low, high = int(problem.pinned[i, j]), int(problem.count[i])
                self.x[i, int(j)] = self.model.new_int_var(low, high, f"x{i}_{j}")
        self.food = [self.model.new_int_var(0, 10 if problem.food_allowed[j] else 0, f"food{j}") for j in range(carriers)]
        self.cost: list[cp_model.LinearExprT] = []
        self._place_things()
        self._contents()
        self._rows(problem.hard, soft=False)
        self._rows(problem.soft, soft=True)
        self._groups()
        self._neighbours()
        self._beside_food()
        self._room()
        self.model.minimize(sum(self.cost))

    def _place_things(self) -> None:
        p = self.problem
        for i in range(p.count.size):
            placed = [var for (k, _), var in self.x.items() if k == i]
            out = self.model.new_int_var(0, int(p.count[i]), f"out{i}")
            self.model.add(sum(placed) + out == int(p.count[i]))
            self.cost.append(int(p.out_cost[i]) * out)
        self.cost += [int(p.cost[i, j]) * var for (i, j), var in self.x.items()]
        self.model.add(sum(self.food) <= 10)
        self.cost += [(int(p.food_cost[j]) - p.food_out_cost) * var for j, var in enumerate(self.food)]
        self.cost.append(10 * p.food_out_cost)

    def _contents(self) -> None:
        """One variable for the mass of each carrier in each state: limits and balances read it, which keeps them sparse."""
        p = self.problem
        self.kg: list[list[cp_model.IntVar]] = []
        self.ml: list[list[cp_model.IntVar]] = []
        for j in range(p.limit_g.size):
            inside = [(i, var) for (i, k), var in self.x.items() if k == j]
            self.kg.append(self._sums(f"kg{j}", inside, p.mass_g, p.food_g, j, int(p.limit_g[j])))
            pressed = self._sums(f"ml{j}", inside, p.pressed_ml, p.food_ml, j, int(p.brim_ml[j]))
            loose = self._sums(f"loose{j}", inside, p.volume_ml, p.food_ml, j, MOST_ML) if p.presses else pressed
            self.ml.append(loose)
            if p.presses:
                over = self.model.new_int_var(0, MOST_ML, f"over{j}")
                for total in loose:
                    self.model.add(over >= total - int(p.room_ml[j]))
                self.cost.append(p.ease_cost * over)

    def _sums(
        self, name: str, inside: list[tuple[int, cp_model.IntVar]], size: Ints, food: Ints, j: int, most: int
    ) -> list[cp_model.IntVar]:
        least = size.min(axis=1)
        gear = self.model.new_int_var(0, most, f"{name}_gear")
        self.model.add(gear == sum(int(least[i]) * var for i, var in inside))
        result = []
        for s in range(self.problem.states):
            total = self.model.new_int_var(0, most, f"{name}_{s}")
            more = sum(int(size[i, s] - least[i]) * var for i, var in inside if size[i, s] > least[i])
            self.model.add(total == gear + more + int(food[s]) * self.food[j])
            result.append(total)
        return result

    def _rows(self, rows: Rows, soft: bool) -> None:
        p = self.problem
        for r in range(rows.lever.shape[0]):
            beyond = []
            for s in range(p.states):
                value = sum(int(a) * self.kg[j][s] for j, a in enumerate(rows.lever[r]) if a)
                if soft:
                    over = self.model.new_int_var(0, 1_000_000, f"{rows.names[r]}_{s}")
                    self.model.add(value - LEVER * over <= int(rows.high[r]))
                    self.model.add(value + LEVER * over >= int(rows.low[r]))
                    beyond.append(over)
                else:
                    self.model.add_linear_constraint(value, int(rows.low[r]), int(rows.high[r]))
            if soft:
                worst = self.model.new_int_var(0, 1_000_000, f"{rows.names[r]}_worst")
                for over in beyond:
                    self.model.add(worst >= over)
                weight = int(rows.weight[r])
                self.cost += [weight * over for over in beyond] + [weight * p.worst_times * worst]

    def _groups(self) -> None:
        """A group, or what is wanted in camp, opens a carrier for each thing apart: the summed link gives a weaker bound.

        What rides in the one place that is most of a group costs nothing more, all else of it does.
        """
        p = self.problem
        opened: dict[tuple[int, int], cp_model.IntVar] = {}
        most: dict[tuple[int, int], cp_model.IntVar] = {}
        for (i, j), var in self.x.items():
            own = int(p.group[i])
            for group, cost in ((own, p.group_cost), (p.groups if p.opened[i] else -1, p.opened_cost)):
                if group < 0 or cost == 0:
                    continue
                at = (group, int(p.seats[group, j]) if group < p.groups else j)
                if at not in opened:
                    opened[at] = self.model.new_bool_var(f"group{at[0]}_{at[1]}")
                    self.cost.append(cost * opened[at])
                self.model.add(var <= int(p.count[i]) * opened[at])
            if own >= 0 and p.away_cost:
                at = (own, int(p.seats[own, j]))
                if at not in most:
                    most[at] = self.model.new_bool_var(f"most{own}_{at[1]}")
                with_most = self.model.new_int_var(0, int(p.count[i]), f"with_most{i}_{j}")
                self.model.add(with_most <= var)
                self.model.add(with_most <= int(p.count[i]) * most[at])
                self.cost.append(p.away_cost * (var - with_most))
        for group in range(p.groups):
            self.model.add_at_most_one(var for (of, _), var in most.items() if of == group)

    def _neighbours(self) -> None:
        """A carrier that has a thing with a tag takes nothing that cannot stand the tag."""
        p = self.problem
        for tag in range(p.has.shape[1]):
            if not (p.has[:, tag].any() and p.repels[:, tag].any()):
                continue
            for j in range(p.limit_g.size):
                has = self.model.new_bool_var(f"tag{tag}_{j}")
                for (i, k), var in self.x.items():
                    if k != j or (p.has[i, tag] and p.repels[i, tag]):
                        continue
                    if p.has[i, tag]:
                        self.model.add(var <= int(p.count[i]) * has)
                    elif p.repels[i, tag]:
                        self.model.add(var <= int(p.count[i]) * (1 - has))

    def _beside_food(self) -> None:
        """Food and what it cannot stand ride in different carriers."""
        p = self.problem
        for j in np.flatnonzero(p.food_allowed):
            beside = [(i, var) for (i, k), var in self.x.items() if k == j and p.food_repelled[i]]
            if beside:
                food = self.model.new_bool_var(f"food_in{j}")
                self.model.add(self.food[j] <= 10 * food)
                for i, var in beside:
                    self.model.add(var <= int(p.count[i]) * (1 - food))

    def _room(self) -> None:
        p = self.problem
        kept = np.flatnonzero(p.kept)
        missing = self.model.new_int_var(0, MOST_ML, "room_missing")
        capacity = int(p.room_ml[kept].sum())
        for s in range(p.states):
            self.model.add(missing >= int(p.kept_target_ml) - capacity + sum(self.ml[j][s] for j in kept))
        self.cost.append(p.kept_cost * missing)

    def read(self, value: Callable[[cp_model.IntVar], int]) -> Placing:
        """The placing of a solution, from what tells a variable's value."""
        x = np.zeros(self.problem.allowed.shape, dtype=np.int64)
        for (i, j), var in self.x.items():
            x[i, j] = value(var)
        return Placing(x, np.array([value(var) for var in self.food], dtype=np.int64))


def parameters(effort: float, seed: int = SEED) -> cp_model.CpSolver:
    """A solver whose result depends on the effort only, never on the clock.

    Parameters
    ----------
    effort : float
        Deterministic time, about seconds of one core.
    """
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = WORKERS
    solver.parameters.interleave_search = True
    solver.parameters.interleave_batch_size = WORKERS
    solver.parameters.subsolvers.extend(["max_lp"])
    solver.parameters.linearization_level = 2
    solver.parameters.random_seed = seed
    solver.parameters.max_deterministic_time = effort
    return solver


def solve(problem: Problem, effort: float) -> Solved:
    """Search for the best placing with a stated effort."""
    built = Model(problem)
    solver = parameters(effort)
    status = solver.solve(built.model)
    found = status in (cp_model.OPTIMAL, cp_model.FEASIBLE)
    return Solved(
        placing=built.read(solver.value) if found else None,
        bound=solver.best_objective_bound if status != cp_model.UNKNOWN else 0.0,
        proven=status == cp_model.OPTIMAL,
        infeasible=status == cp_model.INFEASIBLE,
    )
