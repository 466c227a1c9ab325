"""What was weighed against what the parts come to, and what may explain the rest."""

import datetime as dt
from typing import Literal

from pydantic import Field

from omnifer.core.model.diary import Weighed
from omnifer.core.model.quantities import Noun, Text


class Earlier(Noun):
    """What was thought or weighed before."""

    kg: float
    at: dt.datetime | None = Field(description="None: as the plan had it when it was weighed for the first time")


class WeighLine(Noun):
    """One thing, bag, wheel or whole: the sum of its parts, and the scale."""

    key: str = Field(description="What was weighed and its identifier")
    weighed: Weighed
    about: str
    name: str
    parts_kg: float = Field(description="As it leaves on day 1, or without water and food where it was weighed so")
    guess_kg: float = Field(description="So much the guesses among its parts may be off either way")
    scale_kg: float | None = Field(description="None: not weighed yet")
    corrected_kg: float = Field(description="Added to the reading because the wheel stood higher or lower than the other")
    readings_kg: list[float]
    dry: bool = Field(description="Weighed without water and food")
    at: dt.datetime | None
    earlier: list[Earlier] = Field([], description="The newest first")
    unsure_kg: float = Field(description="So much the scale may be off either way")
    difference_kg: float | None = Field(description="Scale less parts")
    told: Literal["not_weighed", "same", "within_guesses", "to_explain"]


class Cause(Noun):
    """Something that may explain a part of what the scale shows beyond the parts."""

    words: Text
    low_kg: float
    high_kg: float
    takes_kg: float = Field(description="What of the rest it explains here")
    deed: Literal["fill", "weigh_thing", "weigh_carrier", "stow", "dry", "leave"]
    about: str


class Missing(Noun):
    """What is to be explained of a bike, and the smallest set of causes that does."""

    bike_id: str
    parts_kg: float
    scale_kg: float
    to_explain_kg: float
    causes: list[Cause]
    left_kg: float
    unsure_kg: float
    others: list[Cause] = Field(description="What else it could be, the likeliest first")


class Zone(Noun):
    """A part of the bike with its bags and what is in them."""

    bike_id: str
    name: str
    kg: float
    dry_kg: float = Field(description="Without water and food")


class Seat(Noun):
    """What weighing with the rider on tells of the rider's centre."""

    bike_id: str
    rider_kg: float
    ahead_mm: float = Field(description="Ahead of the rear contact point")
    reckoned_mm: float
    bare_front_kg: float = Field(description="Wheels of the bare bike with its rider, as the rig keeps them")
    bare_rear_kg: float


class WeighIn(Noun):
    """Everything that was weighed of a tour."""

    lines: list[WeighLine]
    missing: list[Missing]
    zones: list[Zone]
    seats: list[Seat]
    board_matters_kg: dict[str, float] = Field(
        description="By bike: what its rear wheel would weigh too little on a scale of 60 mm without a board under the other"
    )
