"""When the rider passes each stop, and what is then to be had there."""

import datetime as dt
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.practice import USUAL, Practice
from omnifer.core.model.quantities import Text
from omnifer.core.model.road import Road, Stop
from omnifer.core.road.days import Days
from omnifer.core.road.zones import Clocks
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
        Of arrival; the hour by the wall clock, beyond 24 after midnight [h].
    stays_until : datetime.date or None
        Where the night is spent here, the date of leaving.
    """

    stop: Stop
    riding_day: int
    date: dt.date
    hour: float
    stays_until: dt.date | None


def reached(stop: Stop, usual: Practice) -> bool:
    """Whether a stop is used, with the way to it where it lies off the road: as its rider says, or where it is not far."""
    return stop.detour_km <= usual.detour_km if stop.take_detour is None else stop.take_detour


@dataclass(frozen=True)
class Watch:
    """The wall clock along the road: riding hours and those in transfers up to each node, and the days and zones."""

    nodes_km: Array
    hours: Array
    transfer_hours: Array
    days: Days
    road: Road
    start: dt.date
    clocks: Clocks
    handling: tuple[Array, Array] | None = None
    """Where hands are busy at stops beyond the usual pauses, in road order, and how long in all up to there [km, h]."""

    def at(self, km: Array, day: NDArray[np.intp]) -> Array:
        """Wall clock at places that are passed on riding days [h]."""
        begun = self.days.km[:-1][day]

        def since(along: Array) -> Array:
            return np.asarray(np.interp(km, self.nodes_km, along) - np.interp(begun, self.nodes_km, along))

        clock = self._starts[day] + self.road.pause_factor * since(self.hours) + since(self.transfer_hours)
        if self.handling is not None:
            places, hours = self.handling
            busy = np.searchsorted(places, km, side="left"), np.searchsorted(places, begun, side="left")
            clock = clock + hours[busy[0]] - hours[busy[1]]
        if len(self.clocks.names) > 1:
            ahead = self.clocks.offsets(km, day, self._dates) - self._set_out[day]
            # Over the date line clocks differ by a day less an hour: the sun goes on, the calendar leaps.
            clock += (ahead + 12) % 24 - 12
        return clock

    @cached_property
    def _starts(self) -> Array:
        """When each riding day sets out [h]."""
        return np.array([self.road.start_h(km) for km in self.days.km[:-1].tolist()])

    @cached_property
    def _dates(self) -> list[dt.date]:
        return [self.days.date(self.start, i) for i in range(self.days.km.size - 1)]

    @cached_property
    def _set_out(self) -> Array:
        """How far ahead of UTC the clock is where each day begins [h]."""
        return self.clocks.offsets(self.days.km[:-1], np.arange(self.days.km.size - 1), self._dates)

    def along(self) -> Array:
        """Wall clock at each node on the day on which it is reached [h]."""
        return self.at(self.nodes_km, self.days.riding_day(self.nodes_km, leaving=False))


def visits(reached_stops: tuple[Stop, ...], watch: Watch, usual: Practice = USUAL) -> dict[str, Visit]:
    """When each stop is visited, by the stop's identifier."""
    days, start = watch.days, watch.start
    stops = [stop for stop in reached_stops if stop.at_km <= days.km[-1]]
    at_km, nights = np.array([stop.at_km for stop in stops]), days.km[1:-1]
    passed = days.riding_day(at_km, leaving=False)
    if nights.size:
        near = np.argmin(np.abs(nights[:, None] - at_km), axis=0)
        slept = np.abs(nights[near] - at_km) <= usual.night_near_stop_km
        passed = np.where(slept, near, passed)
    else:
        slept = np.zeros(at_km.size, dtype=bool)
    hour = watch.at(np.clip(at_km, days.km[passed], days.km[passed + 1]), passed)
    result = {}
    for stop, day, stays, here in zip(stops, passed.tolist(), slept, hour.tolist(), strict=True):
        leaves = days.date(start, day + 1) if stays else None
        result[stop.id] = Visit(stop, day, days.date(start, day), here, leaves)
    return result


def shop_shut(visit: Visit, start_hour: float, usual: Practice = USUAL) -> Text | None:
    """Why a food shop cannot be used on this visit; None where it can.

    Who passes may wait an hour for it to open; who sleeps at the stop may shop in the evening, on any rest day, or in the
    morning.
    """
    stop, wait_h = visit.stop, usual.morning_wait_h
    if visit.stays_until is None:
        if not shut_on(stop, visit.date) and _open_at(stop, visit.hour, wait_h):
            return None
    else:
        if not shut_on(stop, visit.date) and stop.open_hours[-1][1] >= visit.hour:
            return None
        rest = visit.date + dt.timedelta(days=1)
        while rest < visit.stays_until:
            if not shut_on(stop, rest):
                return None
            rest += dt.timedelta(days=1)
        if not shut_on(stop, visit.stays_until) and _open_at(stop, start_hour, wait_h):
            return None
    if shut_on(stop, visit.date):
        day = "on that date" if visit.date in stop.closed_dates else f"on {visit.date:%A}s"
        return say("closed " + day)
    later = [opens for opens, _ in stop.open_hours if opens > visit.hour]
    if later and later[0] > stop.open_hours[0][0]:
        return say("opens again at {opens}, you pass at {hour}", opens=clock(later[0]), hour=clock(visit.hour))
    if later:
        return say("opens at {opens}, you pass at {hour}", opens=clock(later[0]), hour=clock(visit.hour))
    return say("closes at {closes}, you pass at {hour}", closes=clock(stop.open_hours[-1][1]), hour=clock(visit.hour))


def windows(visit: Visit, start_hour: float, usual: Practice = USUAL) -> list[tuple[dt.date, float, float]]:
    """When a food shop can be used on a visit: the date, from when, and until when it is open [h, h]; in order of time."""
    stop, wait_h = visit.stop, usual.morning_wait_h
    leaves = visit.stays_until or visit.date
    found = []
    for n in range((leaves - visit.date).days + 1):
        date = visit.date + dt.timedelta(days=n)
        since = visit.hour if n == 0 else 0.0
        until = 24.0 if date < leaves or visit.stays_until is None else start_hour + wait_h
        if visit.stays_until is None:
            until = visit.hour + wait_h
        for opens, closes in () if shut_on(stop, date) else stop.open_hours:
            if closes >= since and opens <= until:
                found.append((date, max(opens, since), closes))
    return found


def _open_at(stop: Stop, hour: float, wait_h: float) -> bool:
    """Whether a shop is open at an hour, or opens within a wait."""
    return any(opens - wait_h <= hour <= closes for opens, closes in stop.open_hours)


def shut_on(stop: Stop, date: dt.date) -> bool:
    """Whether a shop is shut on a date by its weekday or by name."""
    return date.weekday() in stop.closed_weekdays or date in stop.closed_dates


def water_fails(stop: Stop, date: dt.date, melts: bool = False) -> Text | None:
    """Why the water of a stop does not count on a date; None where it does, or where there never is any.

    Parameters
    ----------
    melts : bool
        Whether there is a stove to melt snow.
    """
    if stop.water == "snow":
        return None if melts else say("only snow, and no stove to melt it")
    if stop.water == "seasonal":
        if stop.dry_months and date.month not in stop.dry_months:
            return None
        return say("dry in {month}", month=f"{date:%B}") if stop.dry_months else say("may be dry")
    return say("not sure") if stop.water == "unsure" else None
