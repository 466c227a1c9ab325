"""What a weather service tells of the next days, and what that means for the plan."""

import datetime as dt
from typing import Annotated

from pydantic import Field

from omnifer.core.model.quantities import ElevationM, Noun, TemperatureC

Chance = Annotated[float, Field(ge=0, le=1)]


class OutlookDay(Noun):
    """A day as a service tells it."""

    date: dt.date
    high_c: TemperatureC
    low_c: TemperatureC
    rain_chance: Chance
    rain_mm: Annotated[float, Field(ge=0, le=2000, description="Rain of the day if it rains [mm]")]
    wind_ms: Annotated[float, Field(ge=0, le=100, description="Mean wind at 10 m [m/s]")]


class Outlook(Noun):
    """The next days at one place."""

    told_by: Annotated[str, Field(max_length=120, description="Who tells it, for the screen")] = ""
    elevation_m: ElevationM = Field(description="Height that the figures hold for")
    days: Annotated[tuple[OutlookDay, ...], Field(min_length=1, max_length=16)]


class ComparedDay(Noun):
    """A day of the tour as told, at the height of its road, beside what was planned for."""

    number: int
    date: dt.date
    high_c: TemperatureC
    low_c: TemperatureC
    planned_high_c: TemperatureC
    planned_low_c: TemperatureC
    rain_chance: Chance
    rain_mm: float
    wind_ms: float
    colder: bool = Field(description="The night is told colder than planned for")
    hotter: bool = Field(description="The day is told hotter than planned for")
