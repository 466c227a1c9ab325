"""What the road asks of the kit beyond supplies and limits: one need, one file."""

from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.assessment import Day
from omnifer.core.model.kit import Thing
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet


def night_stops(tour: TourSheet, days: Iterable[Day]) -> list[list[Stop]]:
    """The stops at which each day's night is spent: of that name, and as near as a night is to count as spent at a stop."""
    named: dict[str, list[Stop]] = {}
    for stop in tour.road.stops:
        named.setdefault(stop.name, []).append(stop)
    near_km = tour.practice.night_near_stop_km
    return [[s for s in named.get(day.night_at, ()) if abs(s.at_km - day.to_km) <= near_km] for day in days]


def sleeps_indoors(tour: TourSheet, stops: Iterable[Stop]) -> bool:
    """Whether a night at such stops is spent in a room, where nothing to sleep in is asked for."""
    return tour.road.rooms_only or any(stop.shelter == "room" for stop in stops)


def out_of_doors(tour: TourSheet, days: Sequence[Day]) -> NDArray[np.bool_]:
    """Whether each night is slept out of doors, shape (days,).

    The one at the end is not slept on the road, but it is all that a tour of one day has.
    """
    stops = night_stops(tour, days)
    out = np.array([not sleeps_indoors(tour, near) and not any(stop.shelter == "hut" for stop in near) for near in stops])
    if len(days) > 1:
        out[-1] = False
    return out


def is_mine(tour: TourSheet, thing: Thing, rider_id: str) -> bool:
    """The rider's own, or one of so many shared ones that there is one for this rider."""
    if thing.rider_id is not None:
        return thing.rider_id == rider_id
    return next(k for k, rider in enumerate(tour.riders) if rider.id == rider_id) < thing.count
