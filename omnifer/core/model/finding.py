"""What goes wrong on a tour or is worth knowing, and what would help."""

from typing import Literal

from pydantic import Field

from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import Noun, Text

Grade = Literal["stops_you", "slows_you", "worth_knowing"]
GRADES: tuple[Grade, ...] = ("stops_you", "slows_you", "worth_knowing")
FindingKind = Literal[
    "water_gap",
    "over_volume",
    "pressed",
    "over_mass",
    "over_support",
    "over_wheel",
    "over_system",
    "hitch_load",
    "not_dry",
    "too_deep",
    "left_behind",
    "falls_out",
    "too_long",
    "not_together",
    "sides",
    "front_share",
    "no_room_for_food",
    "on_shelf",
    "dark_day",
    "long_day",
    "cold_night",
    "hot_day",
    "shop_shut",
    "walking",
    "guesses",
    "no_fit",
    "improvised",
    "too_wide",
    "front_lifts",
    "tyre_pressure",
]


class Mend(Noun):
    """Something that would help, and what it does."""

    name: Text
    consequence: Text
    moves: list[Placement] = Field([], description="Placements to take instead of those of the same things")


class Finding(Noun):
    """One thing that goes wrong, or is worth knowing."""

    id: str
    kind: FindingKind
    grade: Grade
    rank: int
    sentence: Text
    place: Text
    reason: Text
    at_km: float | None
    to_km: float | None
    day: int | None
    bike_id: str | None
    carrier_id: str | None
    need: float | None
    holds: float | None
    parts: dict[str, float]
    quantity: Literal["mass", "volume"] | None
    mends: list[Mend]
