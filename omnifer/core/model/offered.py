"""Stops that are proposed and not yet taken."""

from typing import Annotated

from pydantic import Field

from omnifer.core.model.quantities import Noun, Share
from omnifer.core.model.road import Stop


class Perhaps(Noun):
    """What a place may have, and how likely."""

    words: str
    chance: Share


class OfferedStop(Noun):
    """A place beside the road as the stop that it would be."""

    stop: Stop
    country: Annotated[str, Field(description="ISO 3166 code")]
    off_km: Annotated[float, Field(ge=0, description="How far from the road it lies, its houses counted [km]")]
    counted: tuple[str, ...] = Field(description="What it is counted on to have")
    perhaps: tuple[Perhaps, ...] = Field(description="What is not likely enough to be counted on")
    source: str


class NamedPlace(Noun):
    """A place found by its name."""

    name: str
    country: Annotated[str, Field(description="ISO 3166 code")]
    lat_deg: float
    lon_deg: float
    people: int
    elevation_m: Annotated[float, Field(description="Of the land there on the whole [m]")] | None


class NamedPlaces(Noun):
    """Places that are called so, the likeliest first."""

    places: list[NamedPlace]


class OfferedStops(Noun):
    """What lies along a road and is no stop of it yet, in road order."""

    stops: list[OfferedStop]
