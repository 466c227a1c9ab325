"""What a map proposes for a road; nothing of it is taken until the rider says so."""

import datetime as dt
from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import Id, Noun, Share
from omnifer.core.model.road import Hazard, Stop, StopPart, SurfaceStretch, Transfer


class MappedStop(Noun):
    """A stop as a map has it, beside how it stands in the tour."""

    state: Literal["new", "changed", "gone"]
    name: str
    at_km: float
    off_km: Annotated[float, Field(ge=0, description="How far from the road it lies [km]")]
    was: Id | None = Field(description="The stop it is; None: it is new")
    stop: Stop | None = Field(description="As it would be; None: nothing is left of it")
    words: tuple[str, ...] = Field(description="What the map has there")
    parts: tuple[StopPart, ...] = Field(description="What of the stop would be otherwise")


class MappedRoad(Noun):
    """What a map has along a road."""

    stops: list[MappedStop] = Field(description="In road order")
    surfaces: tuple[SurfaceStretch, ...] | None = Field(description="The whole ground as it would be; None: as it is")
    ground_known: Share = Field(description="Part of the road under which the map has a way that says what it is like")
    tunnels: tuple[Hazard, ...] = Field(description="That the tour does not have")
    ferries: tuple[Transfer, ...] = Field(description="That the tour does not have")
    looked_at: int = Field(description="Places of the map near the road")
    on: dt.date
    credit: str
    remarks: list[str]
