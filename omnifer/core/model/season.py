"""The same tour begun on other dates and in both directions."""

import datetime as dt
from typing import Literal

from pydantic import Field

from omnifer.core.model.quantities import Noun, Text

Way = Literal["as_planned", "reversed"]


class SeasonStart(Noun):
    """One start of the year: what a rider decides a season by. Days are cut and ridden as on the date of the tour."""

    way: Way
    start_date: dt.date
    coldest_night_c: float = Field(description="Some night of the tour is colder with the odds of the tour [°C]")
    coldest_day: int = Field(description="Number of the day whose night that most likely is")
    hottest_c: float = Field(description="The hottest day that is planned for, in the shade [°C]")
    hottest_feels_c: float = Field(description="How it feels [°C]")
    wet_days: float = Field(description="Days with 1 mm or more that are to be expected")
    light_h: float = Field(description="Least light of a riding day [h]; 24 where no place is known")
    dark_days: int = Field(description="Days that end after sunset")
    wind_ms: float = Field(description="Mean wind over the road [m/s]")
    most_water_l: float = Field(description="Most that leaves a place [l]")
    most_food_kg: float
    short_l: float = Field(description="Of water, beyond what the vessels hold, on the worst stretch [l]")
    cold_nights: int | None = Field(
        description="Nights out of doors colder than the bag bears, with the odds of the tour; None: no bag"
    )
    shut: list[Text] = Field(description="What cannot be ridden then")


class Season(Noun):
    """Every start that was asked, in order of date, one direction after the other; and what was left out."""

    starts: list[SeasonStart]
    leaves_out: list[str]
