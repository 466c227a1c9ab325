"""A service's outlook laid over the days of the tour."""

from collections.abc import Sequence

from omnifer.core.model.assessment import Day
from omnifer.core.model.outlook import ComparedDay, Outlook
from omnifer.core.physics.weather import LAPSE_K_PER_M
from omnifer.core.road.profile import Profile


def compare(outlook: Outlook, days: Sequence[Day], road: Profile) -> list[ComparedDay]:
    """The told days that are days of the tour: heat at the lowest point of a day's road, cold at the height of its night."""
    by_date = {day.date: day for day in days}
    result = []
    for told in outlook.days:
        day = by_date.get(told.date)
        if day is None:
            continue
        night_m = road.elevation_at(day.to_km)
        warmer, colder = (
            LAPSE_K_PER_M * (outlook.elevation_m - height) if road.has_heights else 0.0 for height in (day.lowest_m, night_m)
        )
        high, low = round(told.high_c + warmer, 1), round(told.low_c + colder, 1)
        result.append(
            ComparedDay(
                number=day.number,
                date=told.date,
                high_c=high,
                low_c=low,
                planned_high_c=day.day_high_c,
                planned_low_c=day.night_low_c,
                rain_chance=told.rain_chance,
                rain_mm=told.rain_mm,
                wind_ms=told.wind_ms,
                colder=low < day.night_low_c,
                hotter=high > day.day_high_c,
            )
        )
    return result
