"""The lanes: every supply at every moment, what is gone where, and what is to be known of it."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.lanes import Gone, Lane, LaneNote
from omnifer.core.model.quantities import Text
from omnifer.core.model.roles import FuelVessel
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import kg, litres, number, say
from omnifer.core.supplies import used_up
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage

Array = NDArray[np.float64]
LONG_WITHOUT_DAYS = 6
"""A stretch so long without a place that sells fuel is worth a word [days]; practice."""
NONE_LEFT = 1e-6


def lanes_of(tour: TourSheet, voyage: Voyage) -> list[Lane]:
    """Every lane, in the order in which screens show them."""
    found = [_of_supply(tour, voyage, name, supply) for name, supply in voyage.supplies.items()]
    if voyage.power is not None:
        found.insert(min(3, len([lane for lane in found if lane.group != "small"])), _of_power(tour, voyage))
    return [*found, _of_waste(voyage)]


def _of_supply(tour: TourSheet, voyage: Voyage, name: str, supply: Supply) -> Lane:
    kind, at_km, leaving = supply.kind, voyage.at_km, voyage.leaving
    stretch = supply.stretch(at_km, leaving)
    stock = voyage.stock[name] / kind.kg_per_unit if kind.kg_per_unit else supply.on_board(at_km, leaving, voyage.nodes.km)
    small = name not in CARRIED
    label = tour.names.get(name, kind.label)
    capacity = None if not np.isfinite(supply.capacity).all() else _column(supply.capacity[stretch])
    return Lane(
        key=name, group="small" if small else name,
        name=label if small else label.capitalize(), unit=kind.unit if small else kind.quantity,
        stock=_column(stock, 3), capacity=capacity, reserve=_column(supply.reserve[stretch]),
        short=_column(supply.short[stretch]), days_left=_column(_days_left(voyage, supply, stock), 1),
        a_day=round(float(supply.used.sum()) / voyage.days.count, 3),
        gone=list(_gone(voyage, supply, stock)), notes=list(_notes(tour, voyage, supply)),
    )  # fmt: skip


def _days_left(voyage: Voyage, supply: Supply, stock: Array) -> Array:
    """How long what is on board lasts [days]."""
    gone = supply.gone(voyage.at_km, voyage.leaving, voyage.nodes.km)
    days = _days_along(voyage)
    lasts = np.searchsorted(gone, gone + stock - NONE_LEFT, side="left")
    return np.asarray(np.maximum(np.append(days, days[-1])[lasts] - days, 0))


def _days_along(voyage: Voyage) -> Array:
    """Days since the start at each moment, with their parts."""
    days, km = voyage.days, voyage.at_km
    day = days.riding_day(km, voyage.leaving)
    start, end = days.km[day], days.km[day + 1]
    return np.asarray(days.offset[day] + np.clip((km - start) / (end - start), 0, 1))


def _gone(voyage: Voyage, supply: Supply, stock: Array) -> Iterator[Gone]:
    """Where something is wanted and none is left."""
    marks, still = voyage.at_km, voyage.leaving
    wanted = np.append(np.diff(supply.gone(marks, still, voyage.nodes.km)) > NONE_LEFT, False)
    same_place = np.append(np.diff(marks) < NONE_LEFT, False)
    empty = (stock <= NONE_LEFT) & (wanted | same_place)
    edges = np.flatnonzero(np.diff(np.concatenate([[0], empty.astype(int), [0]])))
    for a, b in zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True):
        end = min(b, marks.size - 1)
        if marks[end] - marks[a] < 1.0:
            continue
        first, last = voyage.day_of(float(marks[a]), True), voyage.day_of(float(marks[end]), False)
        yield Gone(
            from_km=round(float(marks[a]), 2), to_km=round(float(marks[end]), 2), from_day=first, to_day=last,
            words=say("gone day {day}", day=number(first)),
        )  # fmt: skip


def _notes(tour: TourSheet, voyage: Voyage, supply: Supply) -> Iterator[LaneNote]:
    refills = supply.refills
    if supply.kind.name == "fuel":
        for a, b in zip(refills.km[:-1].tolist(), refills.km[1:].tolist(), strict=True):
            days = voyage.day_of(b, False) - voyage.day_of(a)
            if days >= LONG_WITHOUT_DAYS:
                yield _note(voyage, a, say("none sold for {days:day|days}", days=number(days)))
        flights = refills.km[refills.emptied & np.isnan(supply.fixed)]
        yield from (_note(voyage, float(km), say("nothing aboard an aircraft")) for km in flights)
    if supply.kind.name in ("water", "fuel"):
        yield from _stays_empty(tour, voyage, supply)
    if supply.kind.name == "water":
        brimful = {thing.id: thing.holds_water_l for thing in tour.kit}
        for vessel, _ in voyage.ride.vessels:
            if vessel.holds_water_l < brimful[vessel.id]:
                words = "{vessel} is filled with {some} of {all}: its bag bears no more"
                told = say(words, vessel=tour.names[vessel.id], some=litres(vessel.holds_water_l), all=litres(brimful[vessel.id]))
                yield _note(voyage, float(supply.refills.km[int(np.argmax(supply.amounts.leaving))]), told)


def _stays_empty(tour: TourSheet, voyage: Voyage, supply: Supply) -> Iterator[LaneNote]:
    """The place from which the last vessel is needed, where that is not the start."""
    held = voyage.ride.vessels
    mine = [(t, n) for t, n in held if (t.holds_water_l > 0 if supply.kind.name == "water" else isinstance(t.role, FuelVessel))]
    before = sum(t.holds_kg * n for t, n in mine[:-1])
    needed = np.flatnonzero(supply.amounts.leaving > before + NONE_LEFT)
    if len(mine) > 1 and needed.size and needed[0] > 0:
        km = float(supply.refills.km[needed[0]])
        yield _note(voyage, km, say("{vessel} stays empty to here", vessel=tour.names[mine[-1][0].id]))


def _of_power(tour: TourSheet, voyage: Voyage) -> Lane:
    power = voyage.power
    assert power is not None
    names, stock = tour.names, power.at(voyage.at_km, voyage.leaving)
    daily = np.full(1, power.daily_wh * tour.practice.power_reserve_days)
    lasts = stock / power.daily_wh if power.daily_wh else np.zeros(stock.size)
    notes = []
    if power.hub_wh:
        notes.append(
            _note(voyage, 0.0, say("the hub gives {wh} Wh a day", wh=number(round(power.hub_wh / voyage.days.count, 1))))
        )
    if power.panel_wh:
        words = say("the panel pays on {days} of {all:day|days}", days=number(power.panel_days), all=number(voyage.days.count))
        notes.append(_note(voyage, float(voyage.at_km[voyage.at_km.size // 2]), words))
    return Lane(
        key="power", group="power", name="Power", unit="energy", stock=_column(stock, 1),
        capacity=_column(np.full(1, power.capacity_wh)), reserve=_column(daily, 1), short=[0.0], days_left=_column(lasts, 1),
        a_day=round(power.daily_wh, 1), notes=notes,
        gone=[
            Gone(from_km=round(d.from_km, 2), to_km=round(d.to_km, 2), from_day=d.day, to_day=d.to_day,
                 words=say("{thing} dead", thing=names[d.thing.id]))
            for d in power.deaths
        ],
    )  # fmt: skip


def _of_waste(voyage: Voyage) -> Lane:
    """What is carried on to the next bin."""
    stock = used_up.waste(voyage.ride, voyage.supplies, voyage.at_km, voyage.leaving)
    most = int(np.argmax(stock))
    km = float(voyage.at_km[most])
    made = float(np.maximum(np.diff(stock), 0).sum()) / voyage.days.count
    return Lane(
        key="waste", group="waste", name="Waste", unit="mass", stock=_column(stock, 3), capacity=None, reserve=[0.0], short=[0.0],
        days_left=[0.0], a_day=round(made, 3), gone=[],
        notes=[_note(voyage, km, say("{mass} to the bin", mass=kg(float(stock[most]))))] if stock[most] > 0.05 else [],
    )  # fmt: skip


def _note(voyage: Voyage, km: float, words: Text) -> LaneNote:
    return LaneNote(km=round(km, 2), day=voyage.day_of(km), words=words)


def _column(values: Array, decimals: int = 2) -> list[float]:
    """Rounded values; one value where they never change."""
    rounded: list[float] = np.round(values, decimals).tolist()
    return rounded[:1] if len(set(rounded)) == 1 else rounded
