"""The best schedule: where to take on how much of every supply, so that the least is carried; solved to proof.

Each supply is a program of its own, for they share no vessel.
"""

import time
from collections.abc import Collection, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from omnifer.core.model.lanes import PlanFigures
from omnifer.core.model.quantities import Noun
from omnifer.core.model.stores import StoreStep
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.stores.buying import LONGEST_S, RUN_OUT, SAME, TIE, Array, as_taken, by_rule, solve, worth
from omnifer.core.stores.program import Program
from omnifer.core.stores.told import figures, filled_everywhere, minutes_per_kg_km
from omnifer.core.supplies import power
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage, play

MOST_EXTRA_H = 24.0
"""Longest that a stay at a plug is drawn out [h]."""
HARDLY_LIGHTER, LEAST_LIGHTER = 1e-4, 0.5
"""A plan lighter by no more than this part, or by so few kilogram kilometres, is no better one [-, kg km]."""
A_MINUTE_H = 1 / 60
"""Stays are told in whole minutes [h]."""
MOST_ROUNDS = 8
"""A plan is tried so often before it is given up."""
FOLLOWS, OF_THE_PACE = 1e-3, 0.01
"""What differs by no more is the same amount; and the part by which a shortage that stands anyway may grow [its unit, -]."""


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
    longer: list[LongerStay] = Field(
        description="Stays at plugs to draw out so that no bank runs empty; the fewest minutes in all"
    )
    runs_down: int = Field(description="How often a device runs down as planned")
    runs_down_then: int = Field(description="How often it still does with those longer stays")
    cannot: list[str] = Field(description="Supplies that no plan can give enough of")


def schedule(tour: TourSheet, road: Profile, besides: Collection[str] = ()) -> Schedule:
    """The best schedule of a tour's supplies, besides those that shall stay as planned; what its rider has fixed stays."""
    begun = time.perf_counter()
    voyage = play(tour, road)
    per_minute = 1 / max(minutes_per_kg_km(voyage), 1e-9)
    money = max(tour.stores.minutes_per_money * per_minute, TIE)
    plans, cannot = dict[str, Array](), list[str]()
    value = bound = 0.0
    proven = True
    for name, supply in voyage.supplies.items():
        found = solve(supply, per_minute, money)
        value, bound, proven = value + found.value, bound + found.bound, proven and found.proven
        if found.lacking > SAME:
            cannot.append(tour.names.get(name, supply.kind.label))
        other = replace(supply, amounts=as_taken(supply, found.take))
        now, then_ = (worth(s, per_minute, money) for s in (supply, other))
        if name not in besides and then_ < now - max(HARDLY_LIGHTER * now, LEAST_LIGHTER):
            plans[name] = fixed_least(supply, found.take)
    steps, then = _that_hold(tour, road, voyage, plans)
    before, after = (sum(worth(s, per_minute, money) for s in v.supplies.values()) for v in (voyage, then))
    if after > before - max(HARDLY_LIGHTER * before, LEAST_LIGHTER):
        # What was left free again to make it hold has cost all that it saved.
        steps, then = [], voyage
    everywhere = {n: filled_everywhere(s) for n, s in voyage.supplies.items()}
    longer, still = longer_stays(voyage)
    return Schedule(
        stands=figures(tour, voyage, voyage.supplies), everywhere=figures(tour, voyage, everywhere),
        best=figures(tour, then, then.supplies),
        gap=0.0 if proven else round(max(value - bound, 0.0) / max(value, 1.0), 4), proven=proven,
        better=bool(steps), steps=steps, longer=longer,
        runs_down=len(voyage.power.deaths) if voyage.power else 0, runs_down_then=still, cannot=cannot,
        seconds=round(time.perf_counter() - begun, 2),
    )  # fmt: skip


def fixed_least(supply: Supply, take: Array) -> Array:
    """The fewest places to fix so that the plain rule takes just so much everywhere, shape (refills,); NaN where free.

    Where nothing is taken is fixed to nothing; what the rule then takes by itself stays free, and so follows a need that
    changes with the pace.
    """
    fixed = np.where(np.isfinite(supply.fixed), supply.fixed, np.where(take <= SAME, 0.0, np.nan))
    fixed[-1] = supply.fixed[-1]
    ruled = replace(supply, amounts=by_rule(supply, fixed)).taken
    return np.where(np.isnan(fixed) & (np.abs(ruled - take) > FOLLOWS), np.round(take, 4), fixed)


def _that_hold(tour: TourSheet, road: Profile, voyage: Voyage, plans: dict[str, Array]) -> tuple[list[StoreStep], Voyage]:
    """Steps that leave nothing shorter than it is once they are taken, and the voyage with them.

    Carrying less changes the pace, and with it every need a little: what turns out too little is left free again, and where
    that does not help either the supply stays as it was planned.
    """
    for _ in range(MOST_ROUNDS):
        steps = [step for name, fixed in plans.items() for step in steps_of(voyage.supplies[name], fixed)]
        if not steps:
            break
        then = play(taking(tour, steps), road)
        shorter = {name: places for name, places in _shorter(voyage, then).items() if places.size}
        if not shorter:
            return steps, then
        if not shorter.keys() & plans.keys():
            break
        for name in shorter.keys() & plans.keys():
            freed = _freed(voyage.supplies[name], plans.pop(name), shorter[name])
            plans |= {} if freed is None else {name: freed}
    return [], voyage


def taking(tour: TourSheet, steps: Sequence[StoreStep]) -> TourSheet:
    """The tour with a plan's steps in place of those of the same supplies."""
    planned = {step.supply for step in steps}
    others = (step for step in tour.stores.steps if step.supply not in planned)
    return tour.model_copy(update={"stores": tour.stores.model_copy(update={"steps": (*others, *steps)})})


def _shorter(before: Voyage, after: Voyage) -> dict[str, NDArray[np.intp]]:
    """Places on leaving which more is lacking than before, by supply; all of them where they are not the same places."""
    found = {}
    for name, supply in before.supplies.items():
        there = after.supplies[name].short
        same = there.size == supply.short.size
        worse = there > supply.short * (1 + OF_THE_PACE) + FOLLOWS if same else np.ones(supply.short.size, dtype=bool)
        found[name] = np.flatnonzero(worse)
    return found


def _freed(supply: Supply, fixed: Array, places: NDArray[np.intp]) -> Array | None:
    """The same with those places free, and all fixed ones after them up to the next free one; None where none was fixed."""
    free = fixed.copy()
    for place in places.tolist():
        for k in range(place, fixed.size - 1):
            if k > place and np.isnan(fixed[k]):
                break
            free[k] = supply.fixed[k]
    return None if np.array_equal(free, fixed, equal_nan=True) else free


def steps_of(supply: Supply, fixed: Array) -> list[StoreStep]:
    """The steps that fix so much at each place; NaN where it is free."""
    stops = supply.refills.stops
    ids = [None if place == 0 else stop.id if stop is not None else "" for place, stop in enumerate(stops[:-1])]
    return [
        StoreStep(supply=supply.kind.name, stop_id=stop, amount=round(amount, 4))
        for stop, amount in zip(ids, fixed[:-1].tolist(), strict=True)
        if stop != "" and amount == amount
    ]


def longer_stays(voyage: Voyage) -> tuple[list[LongerStay], int]:
    """The fewest minutes more at plugs with which the banks never run empty, and how often a device then still runs down: for
    want of cells, or because it takes no longer stay in. None where that spares nothing."""
    needs = power.needs(voyage.ride)
    deaths = len(voyage.power.deaths) if voyage.power else 0
    if needs is None or not deaths:
        return [], deaths
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
        return [], deaths
    longer = [
        LongerStay(stop_id=stop.id, name=stop.name, minutes=round(60 * found.values[more]))
        for stop, more in zip(needs.stops, extra, strict=True)
        if stop is not None and found.values[more] * 60 >= 1
    ]
    extra_h = {stay.stop_id: stay.minutes / 60 + A_MINUTE_H for stay in longer}
    stayed = power.staying_longer(voyage.ride, extra_h) if longer else None
    still = deaths if stayed is None else len(stayed.deaths)
    return (longer, still) if still < deaths else ([], deaths)
