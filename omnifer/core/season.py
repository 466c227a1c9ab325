"""When to go: the same tour begun every second week of a year, in both directions."""

import datetime as dt
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from omnifer.core.itinerary import coldest_night, days_of
from omnifer.core.model.quantities import Text
from omnifer.core.model.season import Season, SeasonStart, Way
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs.sleep import sleepers
from omnifer.core.road.profile import Profile
from omnifer.core.road.reshape import reversed_sheet
from omnifer.core.road.snow import FREEZES_C, air_before, passes_of
from omnifer.core.sentence import metres, number, say
from omnifer.core.voyage import Voyage, begun_on, play

STARTS, APART_D = 26, 14
"""Starts of a year, and from one to the next [d]."""
LEAVES_OUT = (
    "days are cut and ridden as on the date of the tour: wind, heat and more or less water do not change the pace",
    "power, parcels and what is packed are those of the tour",
)
SAME_WEATHER = "the weather is the one that was typed, the same on every date: take the climate of a place to see the year"
Array = NDArray[np.float64]


def season_of(tour: TourSheet, road: Profile) -> Season:
    """What every start of a year means for a tour, ridden as planned and the other way. Raises ValueError where nobody rides."""
    starts = list[SeasonStart]()
    ways: tuple[tuple[Way, TourSheet, Profile], ...] = (("as_planned", tour, road), ("reversed", *turned(tour, road)))
    for way, sheet, profile in ways:
        voyage = play(sheet, profile)
        for n in range(STARTS):
            begun = sheet.model_copy(update={"start_date": sheet.start_date + dt.timedelta(days=APART_D * n)})
            starts.append(_start(way, begun, voyage if n == 0 else begun_on(voyage, begun)))
    same = [] if voyage.climate.follows_date else [SAME_WEATHER]
    return Season(starts=starts, leaves_out=[*same, *LEAVES_OUT])


def turned(tour: TourSheet, road: Profile) -> tuple[TourSheet, Profile]:
    """The tour and its road from the other end."""

    def back(values: Array | None) -> Array | None:
        return None if values is None else values[::-1].copy()

    typed = road.typed_ascent_m
    turned = replace(
        road, km=road.km[-1] - road.km[::-1], elevation_m=road.elevation_m[::-1].copy(), gradient=-road.gradient[::-1],
        lat_deg=back(road.lat_deg), lon_deg=back(road.lon_deg), typed_ascent_m=None if typed is None else typed[-1] - typed[::-1],
    )  # fmt: skip
    return reversed_sheet(tour, road.length_km), turned


def _start(way: Way, tour: TourSheet, voyage: Voyage) -> SeasonStart:
    days, night = days_of(tour, voyage), coldest_night(voyage, tour)
    riding = [day for day in days if not day.rest]
    water, food = voyage.supplies["water"], voyage.supplies["food"]
    slept = sleepers(tour, days)
    cold = {n.day for sleeper in slept for n in sleeper.nights if n.short_k > 0}
    return SeasonStart(
        way=way,
        start_date=tour.start_date,
        coldest_night_c=round(night.low_c, 1),
        coldest_day=night.day,
        hottest_c=max(day.day_high_c for day in days),
        hottest_feels_c=max(day.heat_index_c for day in days),
        wet_days=round(sum(day.rain_chance for day in days), 1),
        light_h=round(min(24.0 if day.daylight_hours is None else day.daylight_hours for day in riding), 2),
        dark_days=sum(day.dark for day in days),
        wind_ms=round(float(voyage.climate.wind_ms.mean()), 1),
        most_water_l=round(float(water.amounts.required.max()), 1),
        most_food_kg=round(float(food.amounts.required.max()), 1),
        short_l=round(float(water.short.max()), 1),
        cold_nights=len(cold) if slept else None,
        shut=_shut(tour, voyage),
    )


def _shut(tour: TourSheet, voyage: Voyage) -> list[Text]:
    """Passes that lie under snow on the day on which they are ridden."""
    if not voyage.climate.follows_date:
        return []
    found = []
    for at_km, high in passes_of(voyage.profile):
        day = voyage.day_of(at_km)
        date = tour.start_date + dt.timedelta(days=day - 1)
        if air_before(voyage.profile, tour.road, at_km)[(date.timetuple().tm_yday - 1) % 365] < FREEZES_C:
            found.append(say("the road over {at} on day {day}: snow", at=metres(high), day=number(day)))
    return found
