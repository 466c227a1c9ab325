"""A supply: where it is handed over, how it is used up, and how much must be on board on leaving each place."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.quantities import ROUNDING, CarriedSupply, Quantity
from omnifer.core.model.road import Stop
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.days import SAME_PLACE_KM
from omnifer.core.supplies.carried import ANY_AMOUNT, Array, Carried, Terms, carried
from omnifer.core.supplies.ride import Ride

THE_START, THE_END = "the start", "the end"
FOUND = "what was there"
"""Name of a place where it was counted what is on board."""


@dataclass(frozen=True)
class Kind:
    """What makes a supply: a row a supply."""

    name: str
    """water, food, fuel, or the identifier of the thing that is used up."""
    label: str
    """What it is called in sentences."""
    unit: Literal["l", "kg", "g", "ml", "pieces"]
    quantity: Quantity
    kg_per_unit: float
    limited: bool
    """Whether vessels limit what can be carried."""

    @classmethod
    def carried(cls, name: CarriedSupply) -> "Kind":
        """One of the supplies that every tour has."""
        spec = CARRIED[name]
        return cls(name, name, spec.unit, spec.quantity, 1.0, spec.limited)


@dataclass(frozen=True)
class Refills:
    """The places that hand a supply over, start and end included, in road order.

    Attributes
    ----------
    offers : shape (n,)
        What each can give, `inf` for any amount.
    stops : list
        Each one's stop; None for the start or the end of the road, and for where all must be handed in.
    emptied : shape (n,)
        Where nothing of what was planned comes along further: before a flight, or where it was counted what is there.
    """

    km: Array
    names: list[str]
    offers: Array
    stops: list[Stop | None]
    emptied: NDArray[np.bool_]

    @classmethod
    def at(cls, chosen: list[Stop], length_km: float, offer: Callable[[Stop], float] = lambda stop: np.inf) -> "Refills":
        """At these stops and at both ends, which supply everything; a stop at an end gives it its name."""
        at_start = [stop for stop in chosen if stop.at_km <= SAME_PLACE_KM]
        at_end = [stop for stop in chosen if stop.at_km > SAME_PLACE_KM and stop.at_km >= length_km - SAME_PLACE_KM]
        inner = [stop for stop in chosen if stop not in at_start and stop not in at_end]
        first, last = (stops[0] if stops else None for stops in (at_start, at_end))
        return cls(
            np.array([0.0, *(stop.at_km for stop in inner), length_km]),
            [first.name if first else THE_START, *(stop.name for stop in inner), last.name if last else THE_END],
            np.array([np.inf, *(offer(stop) for stop in inner), np.inf]),
            [first, *inner, last],
            np.zeros(len(inner) + 2, dtype=bool),
        )

    def emptied_at(self, places: Mapping[float, str]) -> "Refills":
        """The same with places where nothing may come along further; they give nothing."""
        if not places:
            return self
        inside = {km: name for km, name in places.items() if self.km[0] < km < self.km[-1]}
        order = np.argsort(np.concatenate([self.km, list(inside)]), kind="stable")

        def merged(own: list, more: list) -> list:  # type: ignore[type-arg]
            both = [*own, *more]
            return [both[k] for k in order]

        return Refills(
            np.array(merged(self.km.tolist(), list(inside))), merged(self.names, list(inside.values())),
            np.array(merged(self.offers.tolist(), [0.0] * len(inside))), merged(self.stops, [None] * len(inside)),
            np.array(merged(self.emptied.tolist(), [True] * len(inside)), dtype=bool),
        )  # fmt: skip


@dataclass(frozen=True)
class Demand:
    """How a supply is used up: evenly while riding, at once for nights and rest days.

    Attributes
    ----------
    along : shape (nodes,)
        Used from the start to each node of the road.
    at_km, at_once : shape (n,)
        Where how much goes at once, in road order.
    """

    along: Array
    at_km: Array
    at_once: Array


@dataclass(frozen=True)
class Supply:
    """One supply of a tour: its places, its use along the road, and what is on board where.

    Attributes
    ----------
    used, riding, reserve : shape (refills - 1,)
        Of each stretch between refills: in all, while riding, and what should be left of it.
    nights : shape (refills - 1,)
        Nights of each stretch that take some of it.
    capacity : shape (refills - 1,)
        What the vessels hold on each stretch, `inf` where they are no limit.
    fixed : shape (refills,)
        What its rider has fixed to take at each place; NaN where nothing is fixed.
    """

    kind: Kind
    refills: Refills
    demand: Demand
    amounts: Carried
    used: Array
    riding: Array
    reserve: Array
    nights: NDArray[np.int_]
    capacity: Array
    terms: Terms
    fixed: Array
    handling: Array
    """Minutes that a unit takes at each place [min]."""

    @cached_property
    def short(self) -> Array:
        """What each stretch asks for beyond what is taken along, shape (refills - 1,)."""
        lacking = self.amounts.required[:-1] - self.amounts.leaving[:-1]
        return np.asarray(np.where(lacking > self._hardly, lacking, 0.0))

    @property
    def _hardly(self) -> float:
        """What is lost in rounding, in the supply's unit; of what weighs nothing as of what weighs a kilogram."""
        return ROUNDING * min(1.0, 1 / self.kind.kg_per_unit) if self.kind.kg_per_unit else ROUNDING

    @property
    def taken(self) -> Array:
        """What is taken on at each place, shape (refills,)."""
        arriving = np.where(self.refills.emptied, 0.0, self.amounts.arriving)
        return np.asarray(np.maximum(self.amounts.leaving - arriving, 0.0))

    def stretch(self, at_km: Array, leaving: NDArray[np.bool_]) -> NDArray[np.intp]:
        """Index of the stretch that is ridden at each kilometre; at a refill the one before it unless leaving."""
        return np.clip(passed(self.refills.km, at_km, leaving) - 1, 0, self.refills.km.size - 2)

    def gone(self, at_km: Array, leaving: NDArray[np.bool_], nodes_km: Array) -> Array:
        """What is used up from the start to each kilometre, were there enough of it."""
        demand = self.demand
        at_once = np.concatenate([[0.0], np.cumsum(demand.at_once)])
        return np.asarray(np.interp(at_km, nodes_km, demand.along) + at_once[passed(demand.at_km, at_km, leaving)])

    def on_board(self, at_km: Array, leaving: NDArray[np.bool_], nodes_km: Array) -> Array:
        """What is left at each kilometre: what was taken along at the last place, less what was used since."""
        refills, demand = self.refills, self.demand
        since = self.stretch(at_km, leaving)
        used = np.interp(at_km, nodes_km, demand.along) - np.interp(refills.km, nodes_km, demand.along)[since]
        at_once = np.concatenate([[0.0], np.cumsum(demand.at_once)])
        gone = at_once[passed(demand.at_km, at_km, leaving)]
        # A night at the very place where the last refill was is paid before leaving it.
        gone_at_place = at_once[np.searchsorted(demand.at_km, refills.km, side="right")][since]
        return np.asarray(np.maximum(self.amounts.leaving[since] - used - np.maximum(gone - gone_at_place, 0), 0.0))

    def kg_on_board(self, at_km: Array, leaving: NDArray[np.bool_], nodes_km: Array) -> Array:
        """The same in kilograms [kg]."""
        return self.on_board(at_km, leaving, nodes_km) * self.kind.kg_per_unit


def places_of(
    ride: Ride, name: str, chosen: list[Stop], offer: Callable[[Stop], float] = lambda stop: np.inf
) -> Refills:  # fmt: skip
    """The places of a supply: stops, both ends, and where its rider has found how much of it there is."""
    found = {one.at_km: FOUND for one in ride.tour.stores.found if one.supply == name}
    return Refills.at(chosen, ride.nodes.length_km, offer).emptied_at(found)


def planned(
    kind: Kind, ride: Ride, refills: Refills, demand: Demand, nights: NDArray[np.int_], reserve: Array,
    capacity: Array | None = None, terms: Terms = ANY_AMOUNT, handling: Array | None = None,
) -> Supply:  # fmt: skip
    """A supply from its places and its use.

    Parameters
    ----------
    nights : numpy.ndarray, shape (refills - 1,)
        Nights of each stretch that take some of it.
    reserve : numpy.ndarray, shape (refills - 1,)
        What should be left of each stretch.
    """
    riding = np.diff(np.interp(refills.km, ride.nodes.km, demand.along))
    order = np.argsort(demand.at_km, kind="stable")
    demand = replace(demand, at_km=demand.at_km[order], at_once=demand.at_once[order])
    # Whole packs are not opened at the counter: what is used there comes along.
    offers, demand = (refills.offers, demand) if terms.pack or terms.levels else _used_there(refills, demand)
    at_once = np.zeros(riding.size)
    np.add.at(at_once, np.clip(np.searchsorted(refills.km, demand.at_km, side="left") - 1, 0, riding.size - 1), demand.at_once)
    used = riding + at_once
    capacity = np.full(used.size, np.inf) if capacity is None else capacity
    fixed = _fixed(ride.tour, kind.name, refills)
    reserve = np.where(refills.emptied[1:], 0.0, reserve)
    amounts = carried(offers, used, reserve, capacity, terms, fixed, refills.emptied)
    minutes = np.zeros(refills.km.size) if handling is None else handling
    return Supply(
        kind, replace(refills, offers=offers), demand, amounts, used, riding, reserve, nights, capacity, terms, fixed, minutes
    )


def _fixed(tour: TourSheet, name: str, refills: Refills) -> Array:
    """What the rider has fixed to take at each place; NaN where nothing is fixed."""
    steps = {step.stop_id: step.amount for step in tour.stores.steps if step.supply == name}
    fixed = np.full(refills.km.size, np.nan)
    if steps:
        if None in steps:
            fixed[0] = steps[None]
        for k, stop in enumerate(refills.stops):
            if stop is not None and stop.id in steps:
                fixed[k] = steps[stop.id]
    for found in tour.stores.found:
        if found.supply == name:
            fixed[np.flatnonzero((refills.km == found.at_km) & refills.emptied)] = found.amount
    return fixed


def nights_between(refills: Refills, nights_km: Array, times: NDArray[np.int_]) -> NDArray[np.int_]:
    """How many nights fall on each stretch; one at a refill counts before it."""
    found = np.zeros(refills.km.size - 1, dtype=int)
    np.add.at(found, np.clip(np.searchsorted(refills.km, nights_km, side="left") - 1, 0, found.size - 1), times)
    return found


def _used_there(refills: Refills, demand: Demand) -> tuple[Array, Demand]:
    """What the places can still give once who rests there has had their own, and the demand without that.

    What a place cannot give is brought along: the stretch that ends there pays.
    """
    offers, left = refills.offers.copy(), demand.at_once.copy()
    for k, (km, amount) in enumerate(zip(demand.at_km.tolist(), demand.at_once.tolist(), strict=True)):
        for place in np.flatnonzero(refills.km == km):
            had = min(amount, float(offers[place]))
            offers[place] -= had if np.isfinite(offers[place]) else 0.0
            left[k] -= had
            break
    return offers, replace(demand, at_once=left)


def passed(marks_km: Array, at_km: Array, leaving: NDArray[np.bool_]) -> NDArray[np.intp]:
    """How many marks lie behind each kilometre, one at the very place only on leaving; both in road order.

    Marks are few and points many, so marks are sought among the points and counted up.
    """

    def counted(side: Literal["left", "right"]) -> NDArray[np.intp]:
        return np.cumsum(np.bincount(np.searchsorted(at_km, marks_km, side=side), minlength=at_km.size + 1)[:-1])

    if leaving.all():
        return counted("left")
    return np.where(leaving, counted("left"), counted("right"))
