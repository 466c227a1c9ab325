"""The best schedule: where to take on how much of every supply, so that the least is carried; solved to proof.

Each supply is a program of its own, for they share no vessel.
"""

import time
from dataclasses import replace

from pydantic import Field

from omnifer.core.model.lanes import PlanFigures
from omnifer.core.model.quantities import Noun
from omnifer.core.model.stores import StoreStep
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.stores.buying import LONGEST_S, RUN_OUT, SAME, TIE, Array, as_taken, solve, worth
from omnifer.core.stores.program import Program
from omnifer.core.stores.told import figures, filled_everywhere, minutes_per_kg_km
from omnifer.core.supplies import power
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage, play

MOST_EXTRA_H = 24.0
"""Longest that a stay at a plug is drawn out [h]."""
HARDLY_LIGHTER, LEAST_LIGHTER = 1e-4, 0.5
"""A plan lighter by no more than this part, or by so few kilogram kilometres, is no better one [-, kg km]."""


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


def _steps(supply: Supply, take: Array) -> list[StoreStep]:
    stops = supply.refills.stops
    ids = [None if place == 0 else stop.id if stop is not None else "" for place, stop in enumerate(stops[:-1])]
    return [
        StoreStep(supply=supply.kind.name, stop_id=stop, amount=round(float(amount), 4))
        for stop, amount in zip(ids, take[:-1].tolist(), strict=True)
        if stop != ""
    ]


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
