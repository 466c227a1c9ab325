"""The things that come along."""

from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import Id, LengthMm, MassKg, Name, Note, Noun, Reach, VolumeL

Nature = Literal[
    "food",
    "fuel",
    "soap",
    "down",
    "sharp",
    "air_mat",
    "electronics",
    "dirty",
    "clean",
    "papers",
    "valuables",
    "first_aid",
    "shelter",
]
"""What a thing is like, where that matters to its neighbours."""


class Thing(Noun):
    """A thing, or several alike. Mass, volume and length are those of one."""

    id: Id
    name: Name
    group: Annotated[str, Field(max_length=60, description="What it is packed with (cook, sleep, wash, ...)")] = ""
    count: Annotated[int, Field(ge=1, le=200)] = 1
    mass_kg: MassKg
    volume_l: VolumeL = Field(description="Packed volume")
    pressed_l: VolumeL = Field(0, description="Least volume it can be pressed to (down, clothes); 0: no smaller than packed")
    longest_mm: LengthMm = Field(0, description="Longest rigid side; 0 where it folds into anything")
    reach: Reach = "camp"
    dry: Literal["any", "must", "own_bag"] = Field("any", description="must: needs a waterproof bag; own_bag: has its own")
    wet: bool = Field(False, description="Gets wet and must ride apart from what must stay dry")
    natures: tuple[Nature, ...] = ()
    not_with: tuple[Nature, ...] = Field((), description="Natures that may not ride in the same bag")
    rider_id: Id | None = Field(None, description="Who carries it; nobody: shared, rides where it fits best")
    holds_water_l: VolumeL = Field(0, description="Water it can carry; above 0 it is a vessel")
    soft_vessel: bool = Field(False, description="An empty soft vessel folds away; volume_l is then its empty volume")
    fuel: bool = Field(False, description="Shown and counted as fuel")
    food: bool = Field(False, description="A base of food that is always carried")
    guess: bool = Field(False, description="Mass or volume is a guess, not weighed")
    may_stay: bool = Field(False, description="Comes only where there is room: what must come goes in first")
    inside: Id | None = Field(None, description="Rides in this other thing (stove in the pot, shirts in the clothes bag)")
    bag: bool = Field(False, description="A soft bag: what rides in it takes its room besides; else it fills a hollow")
    price: Annotated[float, Field(ge=0, le=100_000, description="Of one, in the tour's money")] | None = None
    because: Note = Field("", description="Why it comes")

    @property
    def least_l(self) -> float:
        """Litres that one takes at least, pressed as far as it goes."""
        return min(self.pressed_l or self.volume_l, self.volume_l)
