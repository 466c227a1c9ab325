"""The best schedule: where to take on how much of every supply, so that the least is carried; solved to proof.

Each supply is a program of its own, for they share no vessel: what is on board on leaving a place is what was left and what was
taken; it fits the vessels, comes in whole packs or full bottles, lasts to the next place and leaves the reserve. What cannot be
had is paid so dearly that it comes about only where nothing else is possible. HiGHS finds it and proves it.
"""

import time
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from omnifer.core.model.lanes import PlanFigures
from omnifer.core.model.quantities import Noun
from omnifer.core.model.stores import StoreStep
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.stores.program import Program
from omnifer.core.stores.told import figures, filled_everywhere, minutes_per_kg_km
from omnifer.core.supplies import power
from omnifer.core.supplies.supply import Carried, Supply, Terms, carried
from omnifer.core.voyage import Voyage, play

Array = NDArray[np.float64]
RUN_OUT, INTO_RESERVE, NOT_AS_FIXED = 1e5, 1e3, 1e4
"""Prices of a unit that is used and not there, of one that the reserve lacks, and of one that the rider fixed and did not get
[kg km]; dearer than any carrying, in this order of need."""
MOST_EXTRA_H = 24.0
"""Longest that a stay at a plug is drawn out [h]."""
SAME = 1e-6
HARDLY_LIGHTER, LEAST_LIGHTER = 1e-4, 0.5
"""A plan lighter by no more than this part, or by so few kilogram kilometres, is no better one [-, kg km]."""
LONGEST_S = 20.0
"""The solver gives up proving after this [s]."""
TIE = 1e-4
"""Money decides between plans that carry the same [kg km for a unit of money]."""


class LongerStay(Noun):
    """A stay at a plug to be drawn out."""

    stop_id: str
    name: str
    minutes: float


class Schedule(Noun):
    """The best plan beside the one that stands, and how sure it is."""

    stands: PlanFigures
    everywhere: PlanFigures
    best: PlanFigures
    gap: float = Field(description="How much of the best any other plan could still be below it [-]; 0: proven")
    proven: bool
    seconds: float
    better: bool = Field(description="Whether it is lighter than the plan that stands by more than rounding")
    steps: list[StoreStep] = Field(description="What to take where, to fix it; other supplies stay as planned")
    longer: list[LongerStay] = Field(description="Stays at plugs to draw out so that nothing dies; the fewest minutes in all")
    cannot: list[str] = Field(description="Supplies that no plan can give enough of")


@dataclass(frozen=True)
class Solved:
    """One supply's best: what to take at each place, and what is proven of it."""

    take: Array
    value: float
    bound: float
    proven: bool
    lacking: float


def schedule(tour: TourSheet, road: Profile) -> Schedule:
    """The best schedule of all supplies of a tour; what its rider has fixed stays."""
    begun = time.perf_counter()
    voyage = play(tour, road)
    per_minute = 1 / max(minutes_per_kg_km(voyage), 1e-9)
    money = max(tour.stores.minutes_per_money * per_minute, TIE)
    best, steps, cannot = dict(voyage.supplies), list[StoreStep](), list[str]()
    value = bound = 0.0
    proven = True
    for name, supply in voyage.supplies.items():
        found = solve(supply, per_minute, money)
        value, bound, proven = value + found.value, bound + found.bound, proven and found.proven
        if found.lacking > SAME:
            cannot.append(supply.kind.label)
        amounts = as_taken(supply, found.take)
        other = replace(supply, amounts=amounts)
        now, then_ = (worth(s, per_minute, money) for s in (supply, other))
        if then_ < now - max(HARDLY_LIGHTER * now, LEAST_LIGHTER):
            best[name] = other
            steps += _steps(supply, found.take)
    stands, everywhere = figures(tour, voyage, voyage.supplies), {n: filled_everywhere(s) for n, s in voyage.supplies.items()}
    then = figures(tour, voyage, best)
    return Schedule(
        stands=stands, everywhere=figures(tour, voyage, everywhere), best=then,
        gap=0.0 if proven else round(max(value - bound, 0.0) / max(value, 1.0), 4), proven=proven,
        better=bool(steps), steps=steps, longer=longer_stays(voyage), cannot=cannot,
        seconds=round(time.perf_counter() - begun, 2),
    )  # fmt: skip


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


def _room(supply: Supply) -> Array:
    """What can be on board on leaving each place: an opened pack may ride beside the full ones."""
    return supply.capacity + (supply.terms.pack if supply.terms.opened_beside else 0.0)


def _steps(supply: Supply, take: Array) -> list[StoreStep]:
    stops = supply.refills.stops
    ids = [None if place == 0 else stop.id if stop is not None else "" for place, stop in enumerate(stops[:-1])]
    return [
        StoreStep(supply=supply.kind.name, stop_id=stop, amount=round(float(amount), 4))
        for stop, amount in zip(ids, take[:-1].tolist(), strict=True)
        if stop != ""
    ]


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
        free = not supply.short.any() and not np.isfinite(supply.fixed).any() and not supply.refills.emptied.any()
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
        lines = [line for line in self.terms.levels if line <= self.room[i] + SAME]
        filled = [self.column(0, 0, 1, whole=True) for _ in lines]
        self.row([(column, 1) for column in filled], high=1)
        self.row([(self.take[i], 1), *((column, -self.offers[i]) for column in filled)], high=0)
        for line, column in zip(lines, filled, strict=True):
            self.row([(self.leave[i], 1), (column, -line)], low=0)
            self.row([(self.leave[i], 1), (column, self.room[i])], high=line + self.room[i])

    def _whole_packs_so_far(self) -> None:
        """Where nothing need be lacking, packs bought so far come to whole ones: it follows from the rest, and helps to prove."""
        wanted = np.cumsum(self.supply.used) + self.supply.reserve
        for i in range(self.count):
            so_far = [(column, 1.0) for column in self.take[: i + 1]]
            self.row(so_far, low=float(np.ceil(wanted[i] / self.terms.pack - SAME)) * self.terms.pack)


def solve(supply: Supply, per_minute: float = 0.0, money: float = TIE) -> Solved:
    """The best plan of one supply.

    Parameters
    ----------
    per_minute : float
        What a minute of handling is worth [kg km/min].
    money : float
        What a unit of money is worth [kg km].
    """
    program = _Buying(supply, per_minute, money)
    found = program.solved(LONGEST_S)
    if found is None:
        return Solved(supply.taken, float("inf"), 0.0, proven=False, lacking=0.0)
    take = np.append(np.maximum(found.values[program.take], 0.0), 0.0)
    return Solved(take, found.cost, found.bound, found.proven, float(found.values[program.lack].sum()))


def longer_stays(voyage: Voyage) -> list[LongerStay]:
    """The fewest minutes more at plugs with which the banks never run down; none where they never do."""
    needs = power.needs(voyage.ride)
    if needs is None or voyage.power is None or not voyage.power.deaths:
        return []
    program, extra = Program(), list[int]()
    before: list[tuple[int, float]] = []
    for drawn, hours, watts in zip(needs.drawn_wh, needs.hours, needs.watts, strict=True):
        begun = 0.0 if before else needs.capacity_wh
        arrives = program.column(0, 0, needs.capacity_wh)
        program.row([*before, (arrives, -1), (program.column(RUN_OUT), 1)], drawn - begun, drawn - begun)
        more, free = program.column(1, 0, MOST_EXTRA_H * (watts > 0)), program.column(0, 0, hours * watts)
        leaves = program.column(0, 0, needs.capacity_wh)
        program.row([(arrives, 1), (free, 1), (more, watts), (leaves, -1)], 0, 0)
        before = [(leaves, 1.0)]
        extra.append(more)
    found = program.solved(LONGEST_S)
    if found is None:
        return []
    return [
        LongerStay(stop_id=stop.id, name=stop.name, minutes=round(60 * found.values[more]))
        for stop, more in zip(needs.stops, extra, strict=True)
        if stop is not None and found.values[more] * 60 >= 1
    ]
