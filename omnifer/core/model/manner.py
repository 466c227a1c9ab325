"""The same tour ridden in shorter or longer days, with more or fewer days of rest."""

import datetime as dt

from pydantic import Field

from omnifer.core.model.quantities import Noun
from omnifer.core.model.road import DayCut, Night


class Ridden(Noun):
    """One way to ride the tour, by what decides it."""

    hours: float = Field(description="Riding a day, pauses apart [h]")
    rest_every: int | None = Field(description="A day of rest after so many days of riding; None: those that are set")
    as_now: bool = Field(description="So the tour stands")
    days: int
    rest_days: int
    ends_on: dt.date
    dark_days: int = Field(description="Days that end after sunset")
    latest_h: float = Field(description="Latest arrival of a day, wall clock [h]")
    most_water_l: float = Field(description="Most that leaves a place [l]")
    most_food_kg: float
    short_l: float = Field(description="Of water, beyond what the vessels hold, on the worst stretch [l]")
    wild_nights: int = Field(description="Nights at no site, hut or room")
    cut: DayCut = Field(description="How its days are cut")
    nights: list[Night] = Field(description="Nights that it sets")


class Manner(Noun):
    """Every way that was tried: row by row the hours a day, in each the days of rest."""

    ridden: list[Ridden]
    why_none: str = Field("", description="Why nothing was tried")
