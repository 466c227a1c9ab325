"""Sunrise, sunset and twilight of each day, by the wall clock of the place."""

import datetime as dt
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from omnifer.core.physics import sun
from omnifer.core.road.days import Days
from omnifer.core.road.profile import Profile
from omnifer.core.road.zones import Clocks

SIX, NOON = 6.0, 12.0
"""Sunrise where no place is known, and the middle of a day without one [h]."""
LEAST_LIGHT_H = 1.0
"""Day and night of the polar seasons are taken no shorter than this for the course of the air [h]; practice."""
Sun = Literal["crosses", "stays_up", "stays_down"]


@dataclass(frozen=True)
class Light:
    """One day's light at a place; hours by the wall clock, None where the sun does not cross or no place is known [h]."""

    sunrise_h: float | None
    sunset_h: float | None
    dusk_h: float | None
    sun: Sun | None
    """None where no place is known."""

    @property
    def hours(self) -> float | None:
        """From sunrise to sunset [h]; None where no place is known."""
        if self.sunrise_h is None or self.sunset_h is None:
            return None if self.sun is None else 24.0 if self.sun == "stays_up" else 0.0
        return round(self.sunset_h - self.sunrise_h, 2)

    def for_course(self) -> tuple[float, float]:
        """Sunrise and sunset for the course of the air; even where there is none."""
        if self.sunrise_h is not None and self.sunset_h is not None:
            return self.sunrise_h, self.sunset_h
        half = {None: NOON - SIX, "stays_up": NOON - LEAST_LIGHT_H / 2}.get(self.sun, LEAST_LIGHT_H / 2)
        return NOON - half, NOON + half


@lru_cache(maxsize=4096)
def light_of(date: dt.date, place: tuple[float, float] | None, ahead_h: float) -> Light:
    """The light of a date at a place (latitude, longitude), by a wall clock so many hours ahead of UTC."""
    if place is None:
        return Light(None, None, None, None)
    # East of the date line some clocks are those of the west: their noon is that of the sun's day before.
    days = round((ahead_h - place[1] / 15) / 24)
    date, ahead_h = date - dt.timedelta(days=days), ahead_h - 24 * days
    events = ((sun.SUNRISE_ZENITH_DEG, True), (sun.SUNRISE_ZENITH_DEG, False), (sun.CIVIL_ZENITH_DEG, False))
    hours = [sun.sun_event_hour(date, *place, zenith, rising) for zenith, rising in events]
    rise, fall, dusk = (None if hour is None else round(hour + ahead_h, 3) for hour in hours)
    crosses = rise is not None and fall is not None
    return Light(rise, fall, dusk, "crosses" if crosses else "stays_up" if sun.stays_up(date, place[0]) else "stays_down")


def at(road: Profile, clocks: Clocks, km: float, date: dt.date) -> Light:
    """The light of a date at a kilometre of a road."""
    return light_of(date, road.position_at(km), clocks.offset_at(km, date))


def along(road: Profile, plan: Days, start: dt.date, clocks: Clocks) -> list[Light]:
    """The light of each riding day, in the middle of its road."""
    middles = ((plan.km[:-1] + plan.km[1:]) / 2).tolist()
    return [at(road, clocks, km, plan.date(start, i)) for i, km in enumerate(middles)]
