"""One supply's best plan: what to take at each place, solved to proof.

What is on board on leaving a place is what was left and what was taken; it fits the vessels, comes in whole packs or full
bottles, lasts to the next place and leaves the reserve. What cannot be had is paid so dearly that it comes about only where
nothing else is possible.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core.stores.program import Program
from omnifer.core.supplies.carried import Carried, Terms, carried
from omnifer.core.supplies.supply import Supply

Array = NDArray[np.float64]
RUN_OUT, INTO_RESERVE, NOT_AS_FIXED = 1e5, 1e3, 1e4
"""Prices of a unit that is used and not there, of one that the reserve lacks, and of one that the rider fixed and did not get
[kg km]; dearer than any carrying, in this order of need."""
SAME = 1e-6
LONGEST_S = 20.0
"""The solver gives up proving after this [s]."""
TIE = 1e-4
"""Money decides between plans that carry the same [kg km for a unit of money]."""


@dataclass(frozen=True)
class Solved:
    """One supply's best: what to take at each place, and what is proven of it."""

    take: Array
    value: float
    bound: float
    proven: bool
    lacking: float


def worth(supply: Supply, per_minute: float, money: float) -> float:
    """What the program holds against a plan: carrying, handling, money, and what is lacking [kg km]."""
    amounts = supply.amounts
    km = np.diff(supply.refills.km)
    lacking = np.maximum(supply.used - amounts.leaving[:-1], 0)
    reserve = np.maximum(supply.reserve - np.maximum(amounts.leaving[:-1] - supply.used, 0), 0)
    price = supply.terms.price or 0.0
    fixed = np.where(np.isfinite(supply.fixed), supply.fixed - supply.taken, 0.0)
    return float(
        (amounts.leaving[:-1] * km).sum() * supply.kind.kg_per_unit
        + (supply.taken * (per_minute * supply.handling + money * price)).sum()
        + RUN_OUT * lacking.sum() + INTO_RESERVE * reserve.sum() + NOT_AS_FIXED * np.maximum(fixed, 0).sum()
    )  # fmt: skip


def as_taken(supply: Supply, take: Array) -> Carried:
    """The supply lived through with so much taken at each place."""
    again = carried(
        supply.refills.offers, supply.used, supply.reserve, _room(supply), Terms(), take, supply.refills.emptied
    )  # fmt: skip
    return Carried(again.arriving, again.leaving, supply.amounts.required)


def by_rule(supply: Supply, fixed: Array) -> Carried:
    """The supply by the plain rule, with these amounts fixed; NaN where free."""
    return carried(
        supply.refills.offers, supply.used, supply.reserve, supply.capacity, supply.terms, fixed, supply.refills.emptied
    )


def _room(supply: Supply) -> Array:
    """What can be on board on leaving each place: an opened pack may ride beside the full ones."""
    return supply.capacity + (supply.terms.pack if supply.terms.opened_beside else 0.0)


class _Buying(Program):
    """One supply as a program: what to take at each place, and what is then on board on leaving it."""

    def __init__(self, supply: Supply, per_minute: float, money: float) -> None:
        super().__init__()
        self.supply, self.terms, self.count = supply, supply.terms, supply.used.size
        lot = max(self.terms.pack, self.terms.least, *self.terms.levels, 0.0)
        self.enough = float(supply.used.sum() + 2 * supply.reserve.max(initial=0) + lot + 1)
        self.room = np.minimum(_room(supply), self.enough).tolist()
        self.offers = np.minimum(supply.refills.offers[:-1], self.enough).tolist()
        km, price = np.diff(supply.refills.km), self.terms.price or 0.0
        by_hand = per_minute * supply.handling[:-1] + money * price
        self.take = [self.column(cost, 0, offer) for cost, offer in zip(by_hand.tolist(), self.offers, strict=True)]
        carrying = (km * supply.kind.kg_per_unit).tolist()
        self.leave = [self.column(cost, 0, room) for cost, room in zip(carrying, self.room, strict=True)]
        self.lack = [self.column(RUN_OUT) for _ in range(self.count)]
        for i in range(self.count):
            self._place(i)
        enough = bool((supply.amounts.required[:-1] <= supply.amounts.leaving[:-1] + SAME).all())
        free = enough and not np.isfinite(supply.fixed).any() and not supply.refills.emptied.any()
        if self.terms.pack and free:
            self._whole_packs_so_far()

    def _place(self, i: int) -> None:
        """A place and the stretch behind it."""
        supply = self.supply
        if i == 0 or supply.refills.emptied[i]:
            self.row([(self.leave[i], 1), (self.take[i], -1)], 0, 0)
        else:
            used = float(supply.used[i - 1])
            self.row([(self.leave[i], 1), (self.leave[i - 1], -1), (self.lack[i - 1], -1), (self.take[i], -1)], -used, -used)
        arriving, used = [(self.leave[i], 1.0), (self.lack[i], 1.0)], float(supply.used[i])
        self.row(arriving, used)
        if supply.reserve[i] > 0:
            self.row([*arriving, (self.column(INTO_RESERVE), 1.0)], used + float(supply.reserve[i]))
        if np.isfinite(supply.fixed[i]):
            wanted = float(supply.fixed[i])
            self.row([(self.take[i], 1), (self.column(NOT_AS_FIXED), 1)], wanted, wanted)
            self.high[self.take[i]] = wanted
        elif self.terms.pack:
            packs = self.column(0, 0, float(np.floor(self.offers[i] / self.terms.pack + SAME)), whole=True)
            self.row([(self.take[i], 1), (packs, -self.terms.pack)], 0, 0)
        elif self.terms.levels:
            self._to_a_line(i)
        elif self.terms.least:
            goes, least = self.column(0, 0, 1, whole=True), min(self.terms.least, self.offers[i])
            self.row([(self.take[i], 1), (goes, -self.offers[i])], high=0)
            self.row([(self.take[i], 1), (goes, -least)], low=0)

    def _to_a_line(self, i: int) -> None:
        """Bottles are filled to a line, or nothing is taken."""
        room = self.room[i]
        lines = [line for line in self.terms.levels if line <= room + SAME]
        filled = [self.column(0, 0, 1, whole=True) for _ in lines]
        self.row([(column, 1) for column in filled], high=1)
        most = [(column, -min(line, self.offers[i])) for line, column in zip(lines, filled, strict=True)]
        self.row([(self.take[i], 1), *most], high=0)
        self.row([(self.leave[i], 1), *((column, -line) for line, column in zip(lines, filled, strict=True))], low=0)
        for line, column in zip(lines, filled, strict=True):
            self.row([(self.leave[i], 1), (column, room - line)], high=room)

    def _whole_packs_so_far(self) -> None:
        """Where nothing need be lacking, packs bought so far come to whole ones: it follows from the rest, and helps to prove."""
        wanted = np.cumsum(self.supply.used) + self.supply.reserve
        for i in range(self.count):
            so_far = [(column, 1.0) for column in self.take[: i + 1]]
            self.row(so_far, low=float(np.ceil(wanted[i] / self.terms.pack - SAME)) * self.terms.pack)


class _Filling(Program):
    """One supply of bottles that are filled to lines, as a way from filling to filling: what is on board in between follows.

    Ways are so few and so tight that the solver needs hardly a branch.
    """

    def __init__(self, supply: Supply, per_minute: float, money: float) -> None:
        super().__init__()
        self.supply, self.count = supply, supply.used.size
        self.by_hand = (per_minute * supply.handling + money * (supply.terms.price or 0.0)).tolist()
        self.room, self.used, self.reserve = _room(supply).tolist(), supply.used.tolist(), supply.reserve.tolist()
        self.carrying = (np.diff(supply.refills.km) * supply.kind.kg_per_unit).tolist()
        self.arcs: list[tuple[int, int, float, float]] = []
        """Column, the place where it ends, what is taken there, and what is lacking on the way."""
        self.arriving: dict[tuple[int, float], list[int]] = {}
        self.leaving: dict[tuple[int, float], list[int]] = {}
        starts = {(0, line): self.column(line * self.by_hand[0], 0, 1, whole=True) for line in (0.0, *self._lines(0))}
        self.arcs += [(column, 0, line, 0.0) for (_, line), column in starts.items()]
        self.row([(column, 1.0) for column in starts.values()], 1, 1)
        self.arriving |= {node: [column] for node, column in starts.items()}
        while ahead := sorted(node for node in self.arriving if node not in self.leaving):
            self.leaving[ahead[0]] = self._ways_from(*ahead[0])
        for node, columns in self.arriving.items():
            self.row([*((c, 1.0) for c in columns), *((c, -1.0) for c in self.leaving[node])], 0, 0)

    def _lines(self, place: int) -> list[float]:
        return [line for line in self.supply.terms.levels if line <= self.room[place] + SAME]

    def _ways_from(self, place: int, stock: float) -> list[int]:
        """A column for each place and line at which the next filling can be, after leaving one with so much on board."""
        cost, lacks, columns = 0.0, 0.0, list[int]()
        for k in range(place, self.count):
            cost += stock * self.carrying[k]
            lacks += max(self.used[k] - stock, 0.0)
            lack, stock = max(self.used[k] - stock, 0.0), max(stock - self.used[k], 0.0)
            cost += RUN_OUT * lack + INTO_RESERVE * max(self.reserve[k] - stock, 0.0)
            for line, taken in self._next(k + 1, stock):
                column = self.column(cost + taken * self.by_hand[k + 1], 0, 1, whole=True)
                columns.append(column)
                self.arcs.append((column, k + 1, taken, lacks))
                if k + 1 < self.count:
                    self.arriving.setdefault((k + 1, line), []).append(column)
            wanted = k + 1 < self.count and (self.used[k + 1] > 0 or self.reserve[k + 1] > 0)
            if self.supply.refills.emptied[k + 1] or (stock <= 0 and wanted and self._next(k + 1, stock)):
                break
        return columns

    def _next(self, place: int, stock: float) -> list[tuple[float, float]]:
        """To which lines bottles can be filled at a place that is reached with so much, and what that takes."""
        if place == self.count or self.supply.refills.emptied[place]:
            return [(0.0, 0.0)]
        offer = float(self.supply.refills.offers[place])
        return [(line, line - stock) for line in self._lines(place) if SAME < line - stock <= offer + SAME]


def solve(supply: Supply, per_minute: float = 0.0, money: float = TIE) -> Solved:
    """The best plan of one supply.

    Parameters
    ----------
    per_minute : float
        What a minute of handling is worth [kg km/min].
    money : float
        What a unit of money is worth [kg km].
    """
    if supply.terms.levels and not np.isfinite(supply.fixed).any():
        ways = _Filling(supply, per_minute, money)
        found = ways.solved(LONGEST_S)
        if found is None:
            return Solved(supply.taken, worth(supply, per_minute, money), 0.0, proven=False, lacking=0.0)
        take = np.zeros(supply.used.size + 1)
        gone = [arc for arc in ways.arcs if found.values[arc[0]] > 0.5]
        for _, place, taken, _ in gone:
            take[place] += taken
        return Solved(take, found.cost, found.bound, found.proven, sum(lack for *_, lack in gone))
    program = _Buying(supply, per_minute, money)
    found = program.solved(LONGEST_S)
    if found is None:
        return Solved(supply.taken, worth(supply, per_minute, money), 0.0, proven=False, lacking=0.0)
    take = np.append(np.maximum(found.values[program.take], 0.0), 0.0)
    return Solved(take, found.cost, found.bound, found.proven, float(found.values[program.lack].sum()))
