"""When the rider passes each stop, and what is then to be had there."""

import datetime as dt
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.quantities import Text
from omnifer.core.model.road import Road, Stop
from omnifer.core.road.days import Days
from omnifer.core.sentence import clock, say

FOOD_SHOPS = ("basic", "full")
"""Shops that a party can live on; snacks are none."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Visit:
    """A stop when the rider is there.

    Attributes
    ----------
    date, hour
        Of arrival; the hour by the local clock, beyond 24 after midnight [h].
    stays_until : datetime.date or None
        Where the night is spent here, the date of leaving.
    """

    stop: Stop
    riding_day: int
    date: dt.date
    hour: float
    stays_until: dt.date | None


def clock_along(hours: Array, transfer_hours: Array, profile_km: Array, days: Days, road: Road) -> Array:
    """Local clock at each point of the profile on the day on which it is passed [h]."""
    day = days.riding_day(profile_km, leaving=False)
    at_start = days.km[:-1][day]
    ridden = hours - np.interp(at_start, profile_km, hours)
    moved = transfer_hours - np.interp(at_start, profile_km, transfer_hours)
    return np.asarray(road.start_hour + road.pause_factor * ridden + moved)


def visits(road: Road, start: dt.date, profile_km: Array, clock_h: Array, days: Days) -> dict[str, Visit]:
    """When each stop of the road is visited, by the stop's identifier."""
    stops = [stop for stop in road.stops if stop.at_km <= profile_km[-1]]
    at_km, nights = np.array([stop.at_km for stop in stops]), days.km[1:-1]
    passed = days.riding_day(at_km, leaving=False)
    if nights.size:
        near = np.argmin(np.abs(nights[:, None] - at_km), axis=0)
        slept = np.abs(nights[near] - at_km) <= practice.NIGHT_NEAR_STOP_KM
        passed = np.where(slept, near, passed)
    else:
        slept = np.zeros(at_km.size, dtype=bool)
    hour = np.where(at_km > 0, np.interp(np.minimum(at_km, days.km[passed + 1]), profile_km, clock_h), road.start_hour)
    result = {}
    for stop, day, stays, here in zip(stops, passed.tolist(), slept, hour.tolist(), strict=True):
        leaves = days.date(start, day + 1) if stays else None
        result[stop.id] = Visit(stop, day, days.date(start, day), here, leaves)
    return result


def shop_shut(visit: Visit, start_hour: float) -> Text | None:
    """Why a food shop cannot be used on this visit; None where it can.

    A rider who sleeps at the stop may shop in the evening, on any rest day, or in the morning within an hour's wait.
    """
    stop = visit.stop
    opens, closes = stop.opens_h or 0.0, stop.closes_h if stop.closes_h is not None else 24.0
    if not _shut_on(stop, visit.date) and opens <= visit.hour <= closes:
        return None
    if visit.stays_until is not None:
        rest = visit.date + dt.timedelta(days=1)
        while rest < visit.stays_until:
            if not _shut_on(stop, rest):
                return None
            rest += dt.timedelta(days=1)
        if not _shut_on(stop, visit.stays_until) and opens <= start_hour + practice.MORNING_WAIT_H and start_hour <= closes:
            return None
    elif visit.hour < opens <= visit.hour + practice.MORNING_WAIT_H and not _shut_on(stop, visit.date):
        return None
    if _shut_on(stop, visit.date):
        day = "on that date" if visit.date in stop.closed_dates else f"on {visit.date:%A}s"
        return say("closed " + day)
    if visit.hour < opens:
        return say("opens at {opens}, you pass at {hour}", opens=clock(opens), hour=clock(visit.hour))
    return say("closes at {closes}, you pass at {hour}", closes=clock(closes), hour=clock(visit.hour))


def _shut_on(stop: Stop, date: dt.date) -> bool:
    return date.weekday() in stop.closed_weekdays or date in stop.closed_dates


def water_fails(stop: Stop, date: dt.date) -> Text | None:
    """Why the water of a stop does not count on a date; None where it does, or where there never is any."""
    if stop.water == "seasonal":
        if stop.dry_months and date.month not in stop.dry_months:
            return None
        return say("dry in {month}", month=f"{date:%B}") if stop.dry_months else say("may be dry")
    return say("not sure") if stop.water == "unsure" else None
