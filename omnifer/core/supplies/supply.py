"""A supply: where it is handed over, how it is used up, and how much must be on board on leaving each place."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.quantities import CarriedSupply, Quantity
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.climate import Climate
from omnifer.core.road.days import SAME_PLACE_KM, Days
from omnifer.core.road.pace import Pace
from omnifer.core.road.profile import Profile

THE_START, THE_END = "the start", "the end"

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
    capacity_l: float
    """Of all vessels on board [l]."""

    def stops(self) -> list[Stop]:
        """The stops that are visited, in the order of the road."""
        return sorted((visit.stop for visit in self.visits.values()), key=lambda stop: stop.at_km)

    def rests_km(self) -> Array:
        """Where each night is spent: at the kilometre of its stop, or of the camp."""
        nights = zip(self.days.km[1:-1].tolist(), self.night_stops, strict=True)
        return np.array([km if stop is None else stop.at_km for km, stop in nights])


@dataclass(frozen=True)
class Kind:
    """What makes a supply: a row a supply."""

    name: CarriedSupply
    unit: Literal["l", "kg"]
    quantity: Quantity
    kg_per_unit: float
    limited: bool
    """Whether vessels limit what can be carried."""
    plan: "Callable[[Kind, Ride], Supply]"


@dataclass(frozen=True)
class Refills:
    """The places that hand a supply over, start and end included; `offers` is what each can give, `inf` for any amount."""

    km: Array
    names: list[str]
    offers: Array

    @classmethod
    def at(cls, chosen: list[Stop], length_km: float, offer: Callable[[Stop], float] = lambda stop: np.inf) -> "Refills":
        """At these stops and at both ends, which supply everything; a stop at an end gives it its name."""
        at_start = [stop for stop in chosen if stop.at_km <= SAME_PLACE_KM]
        at_end = [stop for stop in chosen if stop.at_km > SAME_PLACE_KM and stop.at_km >= length_km - SAME_PLACE_KM]
        inner = [stop for stop in chosen if stop not in at_start and stop not in at_end]
        first = at_start[0].name if at_start else THE_START
        last = at_end[-1].name if at_end else THE_END
        return cls(
            np.array([0.0, *(stop.at_km for stop in inner), length_km]),
            [first, *(stop.name for stop in inner), last],
            np.array([np.inf, *(offer(stop) for stop in inner), np.inf]),
        )


@dataclass(frozen=True)
class Demand:
    """How a supply is used up: evenly while riding, at once for nights and rest days.

    Attributes
    ----------
    along : shape (nodes,)
        Used from the start to each node of the road.
    cautious : shape (nodes,)
        What should be on board for it; the difference is the reserve of a stretch.
    at_km, at_once : shape (n,)
        Where how much goes at once, in road order.
    """

    along: Array
    cautious: Array
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
    """

    kind: Kind
    refills: Refills
    demand: Demand
    amounts: Carried
    used: Array
    riding: Array
    reserve: Array
    nights: NDArray[np.int_]
    capacity: float

    @property
    def short(self) -> Array:
        """What each stretch asks for beyond what fits, shape (refills - 1,)."""
        return np.asarray(np.maximum(self.amounts.required[:-1] - self.capacity, 0))

    def stretch(self, at_km: Array, leaving: NDArray[np.bool_]) -> NDArray[np.intp]:
        """Index of the stretch that is ridden at each kilometre; at a refill the one before it unless leaving."""
        return np.clip(passed(self.refills.km, at_km, leaving) - 1, 0, self.refills.km.size - 2)

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


def planned(
    kind: Kind, ride: Ride, refills: Refills, demand: Demand, nights: NDArray[np.int_], reserve: Array | None = None
) -> Supply:
    """A supply from its places and its use.

    Parameters
    ----------
    nights : numpy.ndarray, shape (refills - 1,)
        Nights of each stretch that take some of it.
    reserve : numpy.ndarray, shape (refills - 1,), optional
        What should be left of each stretch; where left out, what the cautious demand has over the expected one.
    """
    riding, cautious = (np.diff(np.interp(refills.km, ride.nodes.km, along)) for along in (demand.along, demand.cautious))
    order = np.argsort(demand.at_km, kind="stable")
    offers, demand = _used_there(refills, replace(demand, at_km=demand.at_km[order], at_once=demand.at_once[order]))
    at_once = np.zeros(riding.size)
    np.add.at(at_once, np.clip(np.searchsorted(refills.km, demand.at_km, side="left") - 1, 0, riding.size - 1), demand.at_once)
    used = riding + at_once
    reserve = np.maximum(cautious - riding, 0) if reserve is None else reserve
    capacity = ride.capacity_l if kind.limited else np.inf
    amounts = carried(offers, used, reserve, capacity)
    return Supply(kind, refills, demand, amounts, used, riding, reserve, nights, capacity)


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


def carried(offers: Array, used: Array, reserve: Array, capacity: float = np.inf) -> Carried:
    """Plan a supply backwards from the end, then live through it forwards.

    Parameters
    ----------
    offers : numpy.ndarray, shape (n,)
        What each place can give, `inf` for as much as wanted; the first place is the start.
    used : numpy.ndarray, shape (n - 1,)
        What is used up from each place to the next.
    reserve : numpy.ndarray, shape (n - 1,)
        What should be left of a stretch on reaching its end.
    capacity : float
        What the vessels hold.

    The requirement is the least that works: leaving place i asks for use, reserve and whatever the next place cannot
    give. What is short is never made up from nowhere: the amount on board stops at 0.
    """
    count = offers.size
    required = np.zeros(count)
    wanted = 0.0
    for i in range(count - 2, -1, -1):
        required[i] = used[i] + max(float(reserve[i]), wanted)
        wanted = max(required[i] - offers[i], 0.0)
    arriving, leaving = np.zeros(count), np.zeros(count)
    leaving[0] = min(required[0], capacity)
    for i in range(1, count):
        arriving[i] = max(leaving[i - 1] - used[i - 1], 0.0)
        target = min(required[i], arriving[i] + offers[i], capacity)
        leaving[i] = max(arriving[i], target)
    return Carried(arriving, leaving, required)


def passed(marks_km: Array, at_km: Array, leaving: NDArray[np.bool_]) -> NDArray[np.intp]:
    """How many marks lie behind each kilometre, one at the very place only on leaving; both in road order.

    Marks are few and points many, so marks are sought among the points and counted up.
    """

    def counted(side: Literal["left", "right"]) -> NDArray[np.intp]:
        return np.cumsum(np.bincount(np.searchsorted(at_km, marks_km, side=side), minlength=at_km.size + 1)[:-1])

    if leaving.all():
        return counted("left")
    return np.where(leaving, counted("left"), counted("right"))
