"""The parts of a bike that wear with the road, as their rider knows them."""

from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import DistanceKm, Note, Noun

PartKind = Literal[
    "rear_tyre", "front_tyre", "chain", "sprockets", "pads", "cables", "bearings", "bar_tape", "saddle"
]  # fmt: skip
Lube = Literal["wet", "dry", "wax"]
"""What a chain is oiled with: wet oil lasts in rain and takes up dust, dry oil is washed off, wax asks for a clean chain."""


class BikePart(Noun):
    """What a rider says of a part; of what is not said the state of the bike tells."""

    kind: PartKind
    behind_km: Annotated[float, Field(ge=0, le=100_000)] | None = Field(None, description="Ridden at the start; None: not said")
    lasts_km: Annotated[float, Field(ge=100, le=200_000)] | None = Field(
        None, description="Of usual road, as it lasts with this rider; None: the usual of its kind"
    )
    renewed_km: DistanceKm | None = Field(None, description="Where on the road a new one goes on; None: nowhere")
    verdict: Note = Field("", description="What its rider thinks of it")
