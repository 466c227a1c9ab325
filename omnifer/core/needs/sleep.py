"""Warm enough at night: bag, mat, what is worn in bed and the sleeper, against each cold night."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.assessment import Day
from omnifer.core.model.kit import ABOARD, Thing
from omnifer.core.model.needs import Sleeper, SleptNight
from omnifer.core.model.people import Rider
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import BedLayer, Mat, SleepingBag
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import is_mine, night_stops, sleeps_indoors
from omnifer.core.physics.sleep import bears_c
from omnifer.core.physics.weather import coldest_of, some_below

IN_BED = SleepingBag | BedLayer | Mat
LINER_FROM_C = 20.0
"""In warmer nights a liner alone is enough [°C]; practice."""
WET = 0.3
"""On a day with more chance of rain than this, what gets wet warms nobody at night [-]; practice."""
SQUEEZED = 0.5
"""Of what it warms by itself a further layer adds, squeezed under the others [-]; practice."""
FAR_TOO_WARM_K = 8.0
"""What is so much warmer than the night asks is carried for nothing that night [K]; practice."""


def sleepers(tour: TourSheet, days: list[Day]) -> list[Sleeper]:
    """Every rider's nights; empty where nobody said what they sleep in.

    The night at the end is not slept on the road, but it is all a tour of one day has.
    """
    if not any(isinstance(thing.role, SleepingBag) for thing in tour.kit):
        return []
    nights = days[:-1] if len(days) > 1 else days
    return [_sleeper(tour, rider, nights) for rider in tour.riders]


def _sleeper(tour: TourSheet, rider: Rider, days: list[Day]) -> Sleeper:
    km = np.array([day.to_km for day in days])
    mine = [thing for thing in tour.located if isinstance(thing.role, IN_BED) and is_mine(tour, thing, rider.id)]
    there = {thing.id: thing.is_how(ABOARD, km) for thing in mine}
    stops = night_stops(tour, days)
    slept = [_night(tour, rider, day, stops[n], [t for t in mine if there[t.id][n]]) for n, day in enumerate(days)]
    told = max(range(len(days)), key=lambda n: (slept[n].short_k, -slept[n].low_c), default=None)
    kit = [] if told is None else [t.id for t in mine if there[t.id][told]]
    spare, colder = _of_all(tour, days, slept)
    return Sleeper(rider_id=rider.id, nights=slept, thing_ids=kit, spare_k=spare, some_colder=colder)


def _of_all(tour: TourSheet, days: list[Day], slept: list[SleptNight]) -> tuple[float | None, float]:
    """What is to spare on the coldest of all nights out of doors, and the chance that one is colder than is borne.

    A bag is for the tour: of forty nights that are each borne nine times in ten, one is nearly always colder.
    """
    out = [
        (d.mean_min_c, d.spread_min_k, d.width_k, n.bears_c)
        for d, n in zip(days, slept, strict=True)
        if not n.indoors and n.bears_c is not None
    ]
    if not out:
        return None, 0.0
    mean, spread, width, bears = (np.array(column) for column in zip(*out, strict=True))
    # Measured from what each night's bed bears, so that beds may differ along the tour.
    spare = coldest_of(mean - bears, spread, tour.road.odds, width)
    return round(spare, 1), round(some_below(mean, spread, bears, width), 3)


def _night(tour: TourSheet, rider: Rider, day: Day, stops: list[Stop], kit: list[Thing]) -> SleptNight:
    indoors = sleeps_indoors(tour, stops)
    low, bears = round(day.night_low_c, 1), _bears(tour, rider, kit, day.rain_chance > WET)
    spare = 0.0 if indoors or bears is None else low - bears
    return SleptNight(
        day=day.number, low_c=low, indoors=indoors, bears_c=bears, short_k=max(-spare, 0.0), far_too_warm=spare > FAR_TOO_WARM_K
    )  # fmt: skip


def _bears(tour: TourSheet, rider: Rider, kit: list[Thing], rains: bool) -> float | None:
    """Down to where a rider sleeps warm with what is there [°C]; the warmest bag, all mats, all that is worn in bed and dry."""
    bags = [thing.role.comfort_c for thing in kit if isinstance(thing.role, SleepingBag)]
    dry = [thing for thing in kit if not (thing.wet and rains)]
    layers = warmed_by([thing.role.warms_k for thing in dry if isinstance(thing.role, BedLayer)])
    mat = sum(thing.role.r_value for thing in kit if isinstance(thing.role, Mat))
    shift = {"cold": tour.practice.sleeper_shift_k, "usual": 0.0, "warm": -tour.practice.sleeper_shift_k}[rider.sleeps]
    shift += tour.practice.sleeps_colder_k
    if not bags:
        return round(LINER_FROM_C + shift, 1) if layers else None
    # A mat thicker than that of the test warms the back, and not the rest of the bag.
    return round(max(float(bears_c(min(bags), mat)), min(bags)) - layers + shift, 1)


def warmed_by(layers_k: list[float]) -> float:
    """How much colder a night may be with some layers in bed [K]: the warmest counts whole, each other by half."""
    return sum(k * (1.0 if n == 0 else SQUEEZED) for n, k in enumerate(sorted(layers_k, reverse=True)))


def nights_needing(tour: TourSheet, days: list[Day], thing: Thing) -> NDArray[np.bool_] | None:
    """Nights that would be too cold without a thing, or too hard, for its owner or for anybody; None where it is not slept in."""
    if not isinstance(thing.role, IN_BED):
        return None
    without = tour.model_copy(update={"kit": tuple(t for t in tour.kit if t.id != thing.id and t.inside != thing.id)})
    riders = [r for r in tour.riders if is_mine(tour, thing, r.id)]
    there = thing.is_how(ABOARD, np.array([day.to_km for day in days]))
    found = np.zeros(len(days), dtype=bool)
    for rider in riders:
        hard = isinstance(thing.role, Mat) and not any(
            isinstance(t.role, Mat) and is_mine(tour, t, rider.id) for t in without.kit
        )
        for n, night in enumerate(_sleeper(without, rider, days).nights):
            found[n] |= there[n] and not night.indoors and (hard or night.bears_c is None or night.short_k > 0)
    return found
