"""A tour at a glance, among others."""

import datetime as dt
from typing import Literal

from pydantic import Field

from omnifer.core.model.quantities import Noun, Text

Step = Literal["road", "rig", "kit", "load"]


class Spot(Noun):
    """A place on the axis of days."""

    name: str
    at: float = Field(description="Days since the start; every day is as wide, rest days too")


class Skyline(Noun):
    """The road's height over the days."""

    at: list[float] = Field(description="Days since the start")
    elevation_m: list[float]


class Weights(Noun):
    """What is on board over the days, both sides of every refill."""

    at: list[float] = Field(description="Days since the start")
    gear_kg: list[float]
    fuel_kg: list[float]
    food_kg: list[float]
    water_kg: list[float]


class Glance(Noun):
    """A tour as its own small land, with its weight, its days and what is to be done first."""

    riders: list[str]
    over: bool = Field(description="Ridden and over: its things stay as they were")
    to_self: str = Field(description="What its riders wrote to themselves for the next tour; empty: nothing")
    start_date: dt.date
    days: int
    length_km: float
    ascent_m: float
    skyline: Skyline | None = Field(description="None: no road yet")
    weights: Weights | None
    places: list[Spot] = Field(description="Where the road starts and ends, and the larger shops between")
    leaving_kg: float = Field(description="All bikes on the first day, as they stand")
    heaviest_kg: float
    heaviest: Spot | None
    lacks: list[Step] = Field(description="What is not said yet, in the order of the work")
    stops_you: int
    slows_you: int
    worst: Text | None = Field(description="What stops you first")
    things: int
    on_shelf: int
