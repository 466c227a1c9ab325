"""A night in the tent as it is made and struck."""

from typing import Literal

from pydantic import Field

from omnifer.core.model.quantities import Noun


class CampStep(Noun):
    """One of the three deeds of an evening or a morning."""

    moment: Literal["shelter", "bed", "kitchen"]
    because: str
    carrier_ids: list[str] = Field(description="Bags that are opened for it")
    thing_ids: list[str]
    in_rain_opens: list[str] = Field(description="Of these bags those that also hold what another step must keep dry")


class Camp(Noun):
    """Evening, morning, and what packing takes."""

    evening: list[CampStep]
    morning: list[CampStep]
    bags_opened: int = Field(description="In the evening")
    evening_minutes: float
    minutes: float = Field(description="Packing everything, with warm hands")
    cold_minutes: float = Field(description="The same with cold hands")
    cold: bool = Field(description="There are nights that make hands cold")
    things: int = Field(description="That are packed, each counted")
    lighter_minutes: float = Field(description="What ten things fewer save")
