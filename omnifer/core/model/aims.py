"""What the rider wants of a load, over what riders usually want."""

from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import Noun, Share

AimName = Literal[
    "low",
    "middle",
    "reach",
    "together",
    "weather",
    "carry",
    "bags",
    "sides",
    "front",
    "sway",
    "riders",
    "room",
    "ease",
    "changes",
]
Times = Annotated[float, Field(ge=0, le=5, description="Times the usual weight; 0 leaves the aim out")]


class Aims(Noun):
    """How much each aim counts, in times of its usual weight, and where the front wheel's share should lie."""

    low: Times = 1
    middle: Times = 1
    reach: Times = 1
    together: Times = 1
    weather: Times = 1
    carry: Times = 1
    bags: Times = 0
    sides: Times = 1
    front: Times = 1
    sway: Times = 1
    riders: Times = 1
    room: Times = 1
    ease: Times = 1
    changes: Times = 0
    two_walls: bool = Field(False, description="What water ruins is kept dry twice; else a proof bag is trusted")
    front_share_low: Share | None = Field(None, description="Steady range of the front wheel's share; None: the bike's own")
    front_share_high: Share | None = None
