"""Water and food as the places along the road hand them over, and what is left of them anywhere between."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import food, water
from omnifer.core.needs.supply import Carried, carried
from omnifer.core.road import arrivals, climate, days
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.profile import Profile

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Places:
    """The places of one supply along the road, start and end included."""

    km: Array
    names: list[str]
    stops: list[Stop | None]
    amounts: Carried
    used: Array
    reserve: Array
    riding: Array
    nights: NDArray[np.int_]


@dataclass(frozen=True)
class Spent:
    """What one supply loses along the road: evenly while riding, at once for nights and rest days."""

    along: Array
    at_km: Array
    at_once: Array


def water_counts(stop: Stop | None, visit: Visit | None) -> bool:
    """Whether a stop's water is sure when the rider is there."""
    if stop is None or visit is None or stop.water in ("none", "unsure"):
        return False
    return arrivals.water_fails(stop, visit.date) is None


def water_of(
    tour: TourSheet,
    profile: Profile,
    weather: climate.Climate,
    hours: Array,
    plan: days.Days,
    night_stops: list[Stop | None],
    visits: dict[str, Visit],
    capacity_l: float,
) -> tuple[Places, Spent]:
    """Water at the sources that count when the rider is there, and how it is drunk; a dry camp takes its own at once.

    Parameters
    ----------
    hours : numpy.ndarray
        Riding hours to each point of the profile [h].
    night_stops : list
        The stop of each night, None for a camp away from stops.
    capacity_l : float
        What the vessels hold [l].
    """
    sources = [stop for stop in _ordered(tour, profile) if water_counts(stop, visits.get(stop.id))]
    km, names, stops = _with_ends(sources, profile)
    drunk_along, bottled_along = water.along(hours, weather, tour.riders)
    drunk, bottled = (np.diff(np.interp(km, profile.km, along)) for along in (drunk_along, bottled_along))
    dry = np.array([not water_counts(stop, visits.get(stop.id) if stop else None) for stop in night_stops], dtype=bool)
    camp_nights = (1 + plan.rests) * dry
    nights = np.zeros(km.size - 1, dtype=int)
    index = np.clip(np.searchsorted(km, plan.km[1:-1], side="left") - 1, 0, nights.size - 1)
    np.add.at(nights, index, camp_nights)
    camp = water.dry_camp(len(tour.riders))
    taken_l: Array = np.asarray(camp_nights[dry] * camp)
    used = drunk + nights * camp
    reserve = np.maximum(bottled - drunk, 0)
    amounts = carried(np.full(km.size, np.inf), used, reserve, capacity_l)
    places = Places(km, names, stops, amounts, used, reserve, drunk, nights)
    return places, Spent(drunk_along, plan.km[1:-1][dry], taken_l)


def food_of(tour: TourSheet, profile: Profile, hours: Array, plan: days.Days, visits: dict[str, Visit]) -> tuple[Places, Spent]:
    """Food at the shops that are open when the rider is there, and how it is eaten; arguments as of `water_of`."""
    shops = [
        stop
        for stop in _ordered(tour, profile)
        if stop.shop in ("basic", "full") and arrivals.shop_shut(visits[stop.id], tour.road.start_hour) is None
    ]
    km, names, stops = _with_ends(shops, profile)
    eaten = food.eaten_along(profile.km, hours, plan.km, tour.riders)
    resting: Array = np.asarray(food.rest_day(tour.riders) * plan.rests)
    daily = (float(eaten[-1]) + float(resting.sum())) / plan.count
    offers = np.array([np.inf if stop is None or stop.shop == "full" else practice.BASIC_SHOP_DAYS * daily for stop in stops])
    nights = np.diff(np.searchsorted(plan.km[1:-1], km, side="right"))
    rested = np.zeros(km.size - 1)
    np.add.at(rested, np.clip(np.searchsorted(km, plan.km[1:-1], side="left") - 1, 0, km.size - 2), resting)
    used = np.diff(np.interp(km, profile.km, eaten)) + rested
    reserve = np.full(used.size, practice.FOOD_RESERVE_DAYS * daily)
    places = Places(km, names, stops, carried(offers, used, reserve), used, reserve, used, nights)
    return places, Spent(eaten, plan.km[1:-1][plan.rests > 0], resting[plan.rests > 0])


def _ordered(tour: TourSheet, profile: Profile) -> list[Stop]:
    on_road = [stop for stop in tour.road.stops if stop.at_km <= profile.length_km]
    return sorted(on_road, key=lambda stop: stop.at_km)


def _with_ends(chosen: list[Stop], profile: Profile) -> tuple[Array, list[str], list[Stop | None]]:
    """Places with the start and the end added; both supply everything, and a stop there gives them its name."""
    at_start = [stop for stop in chosen if stop.at_km <= 0.5]
    at_end = [stop for stop in chosen if stop.at_km > 0.5 and stop.at_km >= profile.length_km - 0.5]
    inner: list[Stop | None] = [stop for stop in chosen if stop not in at_start and stop not in at_end]
    stops: list[Stop | None] = [None, *inner, None]
    km = np.array([0.0, *(stop.at_km for stop in inner if stop), profile.length_km])
    first = at_start[0].name if at_start else "the start"
    last = at_end[-1].name if at_end else "the end"
    return km, [first, *(stop.name for stop in inner if stop), last], stops


def on_board(at_km: Array, leaving: NDArray[np.bool_], profile_km: Array, places: Places, spent: Spent) -> Array:
    """What is left of a supply at each kilometre: what was taken along at the last place, less what was used since."""
    since = np.clip(_passed(places.km, at_km, leaving) - 1, 0, places.km.size - 2)
    used = np.interp(at_km, profile_km, spent.along) - np.interp(places.km, profile_km, spent.along)[since]
    at_once = np.concatenate([[0.0], np.cumsum(spent.at_once)])
    gone = at_once[_passed(spent.at_km, at_km, leaving)]
    # A night at the very place where the last refill was is paid before leaving it.
    gone_at_place = at_once[np.searchsorted(spent.at_km, places.km, side="right")][since]
    return np.asarray(np.maximum(places.amounts.leaving[since] - used - np.maximum(gone - gone_at_place, 0), 0.0))


def _passed(marks_km: Array, at_km: Array, leaving: NDArray[np.bool_]) -> NDArray[np.intp]:
    """How many marks lie behind each kilometre, one at the very place only on leaving; both in road order.

    Marks are few and points many, so marks are sought among the points and counted up.
    """

    def counted(side: Literal["left", "right"]) -> NDArray[np.intp]:
        return np.cumsum(np.bincount(np.searchsorted(at_km, marks_km, side=side), minlength=at_km.size + 1)[:-1])

    if leaving.all():
        return counted("left")
    return np.where(leaving, counted("left"), counted("right"))
