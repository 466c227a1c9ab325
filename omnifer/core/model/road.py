"""The road: track, days, stops and weather."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from omnifer.core.model.quantities import DistanceKm, ElevationM, Id, Name, Note, Noun, TemperatureC

Latitude = Annotated[float, Field(ge=-90, le=90)]
Longitude = Annotated[float, Field(ge=-180, le=180)]
Water = Literal["reliable", "seasonal", "none"]
Shop = Literal["full", "basic", "none"]


class Track(Noun):
    """The raw points of a road, kept as they came. Heights may be missing."""

    name: str = ""
    lat_deg: tuple[Latitude, ...]
    lon_deg: tuple[Longitude, ...]
    elevation_m: tuple[float | None, ...]

    @model_validator(mode="after")
    def _equally_long(self) -> "Track":
        if not len(self.lat_deg) == len(self.lon_deg) == len(self.elevation_m):
            raise ValueError("lat_deg, lon_deg and elevation_m must be equally long")
        if len(self.lat_deg) < 2:
            raise ValueError("a track needs at least two points")
        return self


class TypedDay(Noun):
    """A day known only by its figures."""

    distance_km: Annotated[float, Field(ge=0, le=500)]
    ascent_m: Annotated[float, Field(ge=0, le=10000)] = 0
    highest_m: ElevationM | None = None
    lowest_m: ElevationM | None = None


class Stop(Noun):
    """A place on the road and what it supplies. Sources that may be dry count as none, and are shown as a chance."""

    id: Id
    name: Name
    at_km: DistanceKm
    water: Water = "none"
    shop: Shop = "none"
    note: Note = ""


class Weather(Noun):
    """Design weather from a kilometre on: a hot day and a cold night of the season, not the mean ones."""

    from_km: DistanceKm
    day_high_c: TemperatureC
    night_low_c: TemperatureC
    humidity_pct: Annotated[float, Field(ge=0, le=100)] = 50
    at_elevation_m: ElevationM = Field(0, description="Height the figures hold for; elsewhere 6.5 K/km colder or warmer")


class DayCut(Noun):
    """How the road is cut into days."""

    by: Literal["hours", "distance"] = "hours"
    hours: Annotated[float, Field(gt=0, le=20, description="Riding hours a day, pauses apart [h]")] = 6
    distance_km: Annotated[float, Field(ge=1, le=500, description="Kilometres a day [km]")] = 70
    to_stops: bool = Field(True, description="End a day at a stop with sure water where one lies near its end")


class Road(Noun):
    """All of the road but the raw track."""

    cut: DayCut = DayCut()
    typed_days: tuple[TypedDay, ...] = Field((), max_length=400)
    stops: tuple[Stop, ...] = Field((), max_length=3000)
    weather: tuple[Weather, ...] = Field((), max_length=400)
