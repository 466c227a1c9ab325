"""The things that come along."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field, model_validator

from omnifer.core.model.quantities import DistanceKm, Id, LengthMm, MassKg, Name, Note, Noun, OneLine, Reach, VolumeL
from omnifer.core.model.rig import Carrier, Valve
from omnifer.core.model.roles import FuelVessel, Role, UsedUp
from omnifer.core.model.serves import Serves

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
    "cool",
]
"""What a thing is like, where that matters to its neighbours."""

Guessable = Literal["mass", "volume", "reach", "dry", "natures", "serves", "role"]
How = Literal["packed", "worn", "pocket", "fixed", "posted", "waiting", "home"]
"""Packed in a bag, worn, in a pocket, fixed to the bike, or off board: on its way by post, waiting at a stop, at home."""
ABOARD: frozenset[How] = frozenset({"packed", "worn", "pocket", "fixed"})
ON_BODY: frozenset[How] = frozenset({"worn", "pocket"})
ON_BIKE: frozenset[How] = ABOARD - ON_BODY
Spot = Literal[
    "bar_left", "bar_middle", "bar_right", "stem", "fork_crown", "seat_post", "saddle_rails", "rack_tail", "frame", "outside"
]
"""Where on a bike something is fixed; outside: to the outside of a bag."""


class Whereabouts(Noun):
    """Where a thing is from a place of the road on, until the next of its whereabouts."""

    from_km: DistanceKm = 0
    how: How = "packed"
    spot: Spot | None = Field(None, description="Of what is fixed")
    bag_id: Id | None = Field(None, description="The bag to whose outside it is fixed")
    stop_id: Id | None = Field(None, description="Where it waits, or where it is posted")
    width_mm: LengthMm = Field(0, description="Of the clamp of what is fixed; 0: the usual")
    height_mm: LengthMm = Field(0, description="How far it stands above its place; 0: the usual")

    @model_validator(mode="after")
    def _fixed_somewhere(self) -> "Whereabouts":
        if (self.how == "fixed") != (self.spot is not None):
            raise ValueError("what is fixed needs its place on the bike, and nothing else has one")
        if (self.spot == "outside") != (self.bag_id is not None):
            raise ValueError("what is fixed to the outside of a bag needs the bag, and nothing else has one")
        return self


Condition = Literal["new", "trusted", "worn", "near_its_end", "repaired"]
"""new: not tried yet."""
Held = Literal["owned", "borrowed", "wished"]
Word = Annotated[str, Field(min_length=1, max_length=30), OneLine]


class Fit(Noun):
    """What a thing fits, where not everything of its kind fits everywhere. What is left open fits all."""

    bead_seat_mm: Annotated[float, Field(ge=200, le=700, description="Of the wheel, ETRTO [mm]")] | None = None
    valve: Valve | None = None
    valve_mm: Annotated[float, Field(ge=20, le=120, description="Length of a tube's valve [mm]")] | None = None
    speeds: Annotated[int, Field(ge=1, le=14, description="Of the drivetrain")] | None = None
    keys: tuple[Word, ...] = Field((), max_length=30, description="Heads of bolts that it turns (hex 5, T25, ...)")
    lengths_mm: tuple[LengthMm, ...] = Field((), max_length=8, description="Of spokes [mm]")
    stroke_ml: Annotated[float, Field(ge=5, le=1000, description="Of a pump: what one stroke moves [ml]")] | None = None
    pattern: Annotated[
        str, Field(max_length=40, description="Shape of a pad, a hanger or a thread, as its rider calls it"), OneLine
    ] = ""


@dataclass(frozen=True)
class Unread:
    """Said beside a field: a ride does not read it, or no rule does; so changing it brings nothing of that anew."""

    by: Literal["a ride", "any rule"]


UNRIDDEN, NOTED = Unread("a ride"), Unread("any rule")


class Thing(Noun):
    """A thing, or several alike. Mass, volume and length are those of one."""

    id: Id
    name: Annotated[Name, UNRIDDEN]
    group: Annotated[
        str, Field(max_length=60, description="What it is packed with (cook, sleep, wash, ...)"), OneLine, UNRIDDEN
    ] = ""
    count: Annotated[int, Field(ge=1, le=200)] = 1
    mass_kg: MassKg
    volume_l: Annotated[VolumeL, UNRIDDEN] = Field(description="Packed volume")
    pressed_l: Annotated[VolumeL, UNRIDDEN] = Field(
        0, description="Least volume it can be pressed to (down, clothes); 0: no smaller than packed"
    )
    longest_mm: Annotated[LengthMm, UNRIDDEN] = Field(0, description="Longest rigid side; 0 where it folds into anything")
    thick_mm: Annotated[LengthMm, UNRIDDEN] = Field(
        0, description="Thickness of what keeps its shape, its middle side; 0: not said, or it gives way"
    )
    reach: Reach = "camp"
    dry: Annotated[Literal["any", "must", "own_bag"], UNRIDDEN] = Field(
        "any", description="must: needs a waterproof bag; own_bag: has its own"
    )
    wet: Annotated[bool, UNRIDDEN] = Field(False, description="Gets wet and must ride apart from what must stay dry")
    natures: Annotated[tuple[Nature, ...], UNRIDDEN] = ()
    not_with: Annotated[tuple[Nature, ...], UNRIDDEN] = Field((), description="Natures that may not ride in the same bag")
    rider_id: Id | None = Field(None, description="Who carries it; nobody: shared, rides where it fits best")
    holds_water_l: VolumeL = Field(0, description="Water it can carry; above 0 it is a vessel")
    soft_vessel: bool = Field(False, description="An empty soft vessel folds away; volume_l is then its empty volume")
    salts: bool = Field(False, description="A vessel for drinks with salts: drunk while riding, never cooked with")
    fuel: bool = Field(False, description="Shown and counted as fuel")
    food: bool = Field(False, description="A base of food that is always carried")
    guessed: Annotated[tuple[Guessable, ...], UNRIDDEN] = Field(
        (), description="What of it is a guess, by somebody or by its name"
    )
    may_stay: Annotated[bool, UNRIDDEN] = Field(False, description="Comes only where there is room: what must come goes in first")
    inside: Id | None = Field(None, description="Rides in this other thing (stove in the pot, shirts in the clothes bag)")
    bag: Annotated[bool, UNRIDDEN] = Field(
        False, description="A soft bag: what rides in it takes its room besides; else it fills a hollow"
    )
    price: Annotated[float, Field(ge=0, le=100_000, description="Of one, in the tour's money")] | None = None
    because: Annotated[Note, NOTED] = Field("", description="Why it comes")
    role: Role | None = Field(None, description="What it does for the supplies")
    where: tuple[Whereabouts, ...] = Field((), max_length=20, description="Where it is along the road; none: packed all the way")
    serves: tuple[Serves, ...] = Field((), max_length=12, description="What it is for, by the table of what things serve")
    fit: Annotated[Fit | None, UNRIDDEN] = Field(None, description="What it fits; None: not said")
    condition: Annotated[Condition, UNRIDDEN] = "trusted"
    held: Annotated[Held, UNRIDDEN] = Field("owned", description="wished: still to be got")
    spare: Annotated[bool, UNRIDDEN] = Field(False, description="A second one on purpose")
    must: Annotated[bool, UNRIDDEN] = Field(
        False, description="Comes whatever it costs: work, medicine. It is priced and never proposed to leave"
    )
    unused_tours: Annotated[int, Field(ge=0, le=50, description="So many of the last tours it was not used on"), UNRIDDEN] = 0
    year: Annotated[Annotated[int, Field(ge=1950, le=2200, description="Made or bought in")] | None, UNRIDDEN] = None
    last_time: Annotated[Note, NOTED] = Field("", description="What the last tour taught of it")
    instead_of: Annotated[Id | None, UNRIDDEN] = Field(None, description="Of a wished thing: the thing that it would replace")
    library_id: Annotated[Id | None, NOTED] = Field(None, description="The rider's own thing that it is a copy of")
    hung: Annotated[Carrier | None, UNRIDDEN] = Field(
        None, description="Of a bag that hangs on a bike: what its owner knows of it as one"
    )
    closed: Annotated[bool, UNRIDDEN] = Field(
        False, description="A bag that stays shut, as one of a season does: what is in it is not wanted meanwhile"
    )

    @model_validator(mode="after")
    def _one_content(self) -> "Thing":
        if self.holds_water_l > 0 and isinstance(self.role, FuelVessel | UsedUp):
            raise ValueError(f"{self.name!r} cannot hold water and something else")
        at = [place.from_km for place in self.where]
        if at != sorted(set(at)):
            raise ValueError(f"the whereabouts of {self.name!r} must follow each other along the road")
        if self.where and self.inside is not None:
            raise ValueError(f"{self.name!r} rides in another thing and is where that is")
        return self

    @property
    def least_l(self) -> float:
        """Litres that one takes at least, pressed as far as it goes."""
        return min(self.pressed_l or self.volume_l, self.volume_l)

    @property
    def is_fuel(self) -> bool:
        """Whether it is fuel, or holds it."""
        return self.fuel or isinstance(self.role, FuelVessel)

    @property
    def holds_kg(self) -> float:
        """What of a supply one can hold: water, fuel, or what is used up [kg]."""
        match self.role:
            case FuelVessel(holds_kg=held):
                return held
            case UsedUp(content_kg=held):
                return held
            case _:
                return self.holds_water_l

    def stretches(self) -> Iterator[tuple[float, float, Whereabouts]]:
        """From where to where it is how, in road order; the last without end [km, km]."""
        told = self.where if self.where and self.where[0].from_km == 0 else (Whereabouts(), *self.where)
        ends = [*(place.from_km for place in told[1:]), float("inf")]
        yield from ((place.from_km, end, place) for place, end in zip(told, ends, strict=True))

    def is_how(self, kinds: frozenset[How], km: NDArray[np.float64]) -> NDArray[np.bool_]:
        """Whether it is so at each kilometre; where it is handed over, what was and what comes are both on board."""
        found = np.zeros(km.shape, dtype=bool)
        for start, end, place in self.stretches():
            if place.how in kinds:
                found |= (km >= start) & (km <= end)
        return found

    @property
    def ever_packed(self) -> bool:
        """Whether it needs a place in a bag anywhere."""
        return not self.where or any(place.how == "packed" for _, _, place in self.stretches())

    @property
    def comes_and_goes(self) -> bool:
        """Whether it is not packed all the way."""
        return bool(self.where)

    @property
    def always_aboard(self) -> bool:
        """Whether it is on board from the start to the end, in whatever way."""
        return all(place.how in ABOARD for _, _, place in self.stretches())


PACKED: frozenset[How] = frozenset({"packed"})
