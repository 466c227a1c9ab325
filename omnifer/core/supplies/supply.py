"""A supply: where it is handed over, how it is used up, and how much must be on board on leaving each place."""

import math
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import ABOARD, Thing
from omnifer.core.model.quantities import ROUNDING, Quantity
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import UsedUp
from omnifer.core.model.tour import TourSheet
from omnifer.core.road import arrivals
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.climate import Climate
from omnifer.core.road.days import SAME_PLACE_KM, Days
from omnifer.core.road.light import Light
from omnifer.core.road.pace import Pace
from omnifer.core.road.profile import Profile

THE_START, THE_END = "the start", "the end"
LITTLE = 1e-9
"""Less than this is nothing."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Ride:
    """The tour as it is ridden, for what supplies ask; arrays are over the nodes of the road."""

    tour: TourSheet
    nodes: Profile
    climate: Climate
    riding_c: Array
    """Air on a hot day in the hour in which one rides there [°C]."""
    pace: Pace
    days: Days
    night_stops: list[Stop | None]
    """The stop of each night, None for a camp away from stops."""
    visits: dict[str, Visit]
    watch: arrivals.Watch
    suns: list[Light]
    """Of each riding day."""
    vessels: list[tuple[Thing, int]]
    """Things on board that hold a supply, and how many of each."""

    def stops(self) -> list[Stop]:
        """The stops that are visited, in the order of the road."""
        return self._stops

    @cached_property
    def _stops(self) -> list[Stop]:
        return sorted((visit.stop for visit in self.visits.values()), key=lambda stop: stop.at_km)

    def rests_km(self) -> Array:
        """Where each night is spent: at the kilometre of its stop, or of the camp."""
        nights = zip(self.days.km[1:-1].tolist(), self.night_stops, strict=True)
        return np.array([km if stop is None else stop.at_km for km, stop in nights])

    def at_nights(self, along: Array) -> Array:
        """What is so where each night is spent, of something along the road."""
        return np.interp(self.days.km[1:-1], self.nodes.km, along)

    def things(self, role: type) -> list[Thing]:
        """The things of the kit with a role, that are on board anywhere."""
        return [thing for thing in self._with_roles if isinstance(thing.role, role)]

    @cached_property
    def _with_roles(self) -> list[Thing]:
        found = [thing for thing in self.tour.located if thing.role is not None]
        return [t for t in found if not t.where or any(place.how in ABOARD for _, _, place in t.stretches())]

    def treated_by_pieces(self) -> Thing | None:
        """What is used up by the litre that it treats: tablets, drops."""
        return next((t for t in self.things(UsedUp) if isinstance(t.role, UsedUp) and t.role.per == "litre_treated"), None)

    def open_shops(self, kinds: tuple[str, ...]) -> list[Stop]:
        """Stops whose shop is of one of these kinds and open when the rider is there."""
        return [stop for stop in self._open if stop.shop in kinds]

    @cached_property
    def _open(self) -> list[Stop]:
        start, usual, shops = self.tour.road.start_hour, self.tour.practice, (s for s in self._stops if s.shop != "none")
        return [stop for stop in shops if arrivals.shop_shut(self.visits[stop.id], start, usual) is None]

    def capacity(self, chosen: Iterable[tuple[Thing, int]], km: Array) -> Array:
        """What some vessels hold on each stretch between places, those that are on board all along it [kg]."""
        held = np.zeros(km.size - 1)
        for thing, count in chosen:
            there = np.ones(held.size, dtype=bool)
            if thing.comes_and_goes:
                stretches = [(a, b) for a, b, place in thing.stretches() if place.how in ABOARD]
                there = np.array([any(a <= x and y <= b for a, b in stretches) for x, y in pairwise(km.tolist())])
            held += thing.holds_kg * count * there
        return held


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


@dataclass(frozen=True)
class Terms:
    """How a supply is bought.

    Attributes
    ----------
    pack : float
        Whole packs only; 0 for any amount.
    levels : tuple of float
        Bottles are filled to their lines: what is then on board, ascending; none for any amount.
    least : float
        Nobody stops for less.
    opened_beside : bool
        Whether an opened pack may ride beside as many full ones as there is room for.
    price : float or None
        Of a unit, in the tour's money.
    """

    pack: float = 0.0
    levels: tuple[float, ...] = ()
    least: float = 0.0
    opened_beside: bool = False
    price: float | None = None

    def bought(self, lacking: float, have: float, room: float) -> float:
        """What is taken on where so much is lacking, with so much on board and vessels that hold `room` in all."""
        if lacking <= LITTLE:
            return 0.0
        if self.pack:
            opened = _whole(have, self.pack) if self.opened_beside else _packs(have, self.pack)
            return min(_packs(lacking, self.pack), max(_whole(room, self.pack) - opened, 0.0))
        if self.levels:
            lines = [level for level in self.levels if level <= room + LITTLE]
            enough = next((level for level in lines if level >= have + lacking - LITTLE), lines[-1] if lines else have)
            return max(enough - have, 0.0)
        return max(min(max(lacking, self.least), room - have), 0.0)


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
        Where nothing of it may come along further: before a flight.
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
class Carried:
    """Amounts at the places of one supply, in road order (start first, end last)."""

    arriving: Array
    leaving: Array
    required: Array
    """What leaving would take if vessels were no limit."""


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
        return np.asarray(np.where(lacking > ROUNDING * min(1.0, 1 / self.kind.kg_per_unit), lacking, 0.0))

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


def planned(
    kind: Kind, ride: Ride, refills: Refills, demand: Demand, nights: NDArray[np.int_], reserve: Array,
    capacity: Array | None = None, terms: Terms = Terms(), handling: Array | None = None,
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


def carried(
    offers: Array, used: Array, reserve: Array, capacity: Array | float = np.inf, terms: Terms = Terms(),
    fixed: Array | None = None, emptied: NDArray[np.bool_] | None = None,
) -> Carried:  # fmt: skip
    """Plan a supply backwards from the end, then live through it forwards.

    Parameters
    ----------
    offers : numpy.ndarray, shape (n,)
        What each place can give, `inf` for as much as wanted; the first place is the start, which gives all.
    used : numpy.ndarray, shape (n - 1,)
        What is used up from each place to the next.
    reserve : numpy.ndarray, shape (n - 1,)
        What should be left of a stretch on reaching its end.
    capacity : numpy.ndarray or float
        What the vessels hold on each stretch.
    terms : Terms
        How it is bought.
    fixed : numpy.ndarray, shape (n,)
        What is taken at a place whatever is wanted, as far as it fits; NaN where that is free.
    emptied : numpy.ndarray, shape (n,)
        Places that nothing is brought beyond.

    The requirement is the least that works: leaving place i asks for use, reserve and whatever the next place cannot
    give. What is short is never made up from nowhere: the amount on board stops at 0.
    """
    count = used.size + 1
    holds = np.append(np.broadcast_to(np.asarray(capacity, dtype=float), used.shape), np.inf).tolist()
    free = [np.nan] * count if fixed is None else fixed.tolist()
    gone = [False] * count if emptied is None else emptied.tolist()
    most = [_whole(offer, terms.pack) if f != f else f for offer, f in zip(offers.tolist(), free, strict=True)]
    if free[0] != free[0]:
        most[0] = np.inf
    use, keep = used.tolist(), reserve.tolist()
    required, wanted = [0.0] * count, 0.0
    for i in range(count - 2, -1, -1):
        required[i] = use[i] + max(keep[i], wanted)
        wanted = 0.0 if gone[i] else max(required[i] - most[i], 0.0)
    arriving, leaving = [0.0] * count, [0.0] * count
    for i in range(count):
        if i:
            arriving[i] = max(leaving[i - 1] - use[i - 1], 0.0)
        have = 0.0 if gone[i] else arriving[i]
        if free[i] == free[i]:
            beside = terms.pack if terms.opened_beside else 0.0
            taken = min(free[i], max(holds[i] + beside - have, 0.0))
        else:
            taken = min(terms.bought(required[i] - have, have, holds[i]), most[i])
        leaving[i] = have + taken
    return Carried(np.array(arriving), np.array(leaving), np.array(required))


def _packs(amount: float, pack: float) -> float:
    """The least whole packs that are enough."""
    return max(math.ceil(amount / pack - 1e-9) * pack, 0.0) if pack else max(amount, 0.0)


def _whole(amount: float, pack: float) -> float:
    """The most whole packs that an amount makes up."""
    return math.floor(amount / pack + 1e-9) * pack if pack and math.isfinite(amount) else amount


def passed(marks_km: Array, at_km: Array, leaving: NDArray[np.bool_]) -> NDArray[np.intp]:
    """How many marks lie behind each kilometre, one at the very place only on leaving; both in road order.

    Marks are few and points many, so marks are sought among the points and counted up.
    """

    def counted(side: Literal["left", "right"]) -> NDArray[np.intp]:
        return np.cumsum(np.bincount(np.searchsorted(at_km, marks_km, side=side), minlength=at_km.size + 1)[:-1])

    if leaving.all():
        return counted("left")
    return np.where(leaving, counted("left"), counted("right"))
