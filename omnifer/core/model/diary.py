"""What riders note while they pack, weigh, ride and unpack: entries that are added and never changed."""

import datetime as dt
from typing import Annotated, Literal, get_args
from uuid import UUID

from pydantic import AwareDatetime, Field, model_validator

from omnifer.core.model.quantities import DistanceKm, Noun, OneLine
from omnifer.core.model.quantities import Note as LongNote

OnTheRoad = Literal[
    "used", "sent_home", "broke", "ran_out", "ate", "drank", "filled", "bought", "left", "swapped", "lost", "given_away", "slept",
    "wet_through", "pressure", "oiled", "washed", "charged", "mended", "wore", "hurt", "hazard", "spent", "packed_in", "note",
]  # fmt: skip
"""`left`: so much is left of a supply. `wore`: so many millimetres of a pad are gone. `packed_in`: so many minutes of packing."""
Verb = Literal[OnTheRoad, "set_out", "here", "arrived", "weighed", "checked", "verdict", "undo"]
VERBS: tuple[Verb, ...] = get_args(Verb)
GONE: frozenset[Verb] = frozenset({"sent_home", "lost", "given_away"})
"""After these a thing is on board no more."""
ABOUT_A_THING: frozenset[Verb] = GONE | {"broke", "swapped", "mended", "verdict"}
Weighed = Literal[
    "thing", "bag", "front_wheel", "rear_wheel", "trailer_wheel", "hitch", "whole", "rider_with", "rider_without",
    "front_ridden", "rear_ridden",
]  # fmt: skip
WHEELS: tuple[Weighed, ...] = ("front_wheel", "rear_wheel", "trailer_wheel")
Verdict = Literal[
    "daily", "some_days", "never", "insurance", "wished_for", "wrong_one", "wore_out", "broke", "lost", "given_away", "bought",
    "good", "wet", "too_small", "sways", "hard_to_reach", "too_cold", "too_wet", "ran_out", "too_much_left", "too_slow",
]  # fmt: skip
"""Of a thing; then of a bag, from `good`; then of a rule, from `too_cold`, which is also one of a thing that warms."""
ACHES: tuple[str, ...] = ("hands", "seat", "feet", "knees", "neck", "back")
"""Where it hurts, as the entries of `hurt` are about it."""
CHANGED: tuple[str, ...] = ("saddle", "saddle height", "bar", "gloves", "shorts", "shoes", "pedals")
"""What was changed against it: the word of such an entry."""
ON_THE_BIKE: frozenset[str] = frozenset({"saddle", "saddle height", "bar", "pedals"})
"""Of these what belongs to the bike."""
NightFelt = Literal["cold", "right", "warm"]
Money = Literal["food", "eaten_out", "parts", "night", "travel", "other"]
Word = Annotated[str, Field(max_length=40), OneLine]
EARLIEST, LATEST = dt.datetime(1970, 1, 1, tzinfo=dt.UTC), dt.datetime(2200, 1, 1, tzinfo=dt.UTC)
"""Between these the clocks of devices stand, right or wrong."""
FARTHEST_MIN = 14 * 60
"""Of a wall clock from UTC [min]."""


class Entry(Noun):
    """One thing noted once. It is known by its identifier, wherever and however often it arrives."""

    id: UUID
    phone: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,40}$", description="The device on which it was noted")]
    number: Annotated[int, Field(ge=1, le=2**31 - 1, description="Of the entries of this device, in the order of noting")]
    author: Annotated[str, Field(max_length=120, description="Who noted it"), OneLine] = ""
    at: Annotated[AwareDatetime, Field(ge=EARLIEST, le=LATEST, description="By the clock of the device")]
    offset_min: Annotated[int, Field(ge=-FARTHEST_MIN, le=FARTHEST_MIN, description="Of its wall clock from UTC [min]")] = 0
    km: DistanceKm | None = Field(None, description="Where on the road; None: not said")
    verb: Verb
    about: Annotated[str, Field(max_length=80, description="A supply, thing, bag, bike, rider or check"), OneLine] = ""
    name: Annotated[str, Field(max_length=120, description="Of what the tour does not know yet"), OneLine] = ""
    amount: Annotated[float, Field(ge=-1000, le=100_000, description="In the unit of what it is about")] | None = None
    kg: Annotated[float, Field(ge=0, le=1000, description="One that was bought; one weighed, as thought before [kg]")] | None = (
        None
    )
    money: Annotated[float, Field(ge=0, le=1_000_000)] | None = None
    word: Word = Field("", description="Which wheel, which verdict, how the night felt, whether a check is done")
    readings_kg: Annotated[tuple[Annotated[float, Field(ge=-1000, le=100_000)], ...], Field(max_length=12)] = ()
    raised_mm: Annotated[float, Field(ge=-500, le=500)] = Field(0, description="Of a wheel on a scale, over the other wheel")
    undoes: UUID | None = None
    note: LongNote = ""

    @model_validator(mode="after")
    def _whole(self) -> "Entry":
        if (self.verb == "undo") != (self.undoes is not None):
            raise ValueError("an entry that undoes names another, and no other one does")
        if self.verb in ABOUT_A_THING and not self.about and not self.name:
            raise ValueError(f"say which thing: {self.verb.replace('_', ' ')}")
        if self.verb == "weighed":
            if self.word not in get_args(Weighed) or not self.about or self.amount is None:
                raise ValueError("a weighing says what was weighed and what it weighs")
            if self.amount < 0 or any(reading < 0 for reading in self.readings_kg):
                raise ValueError("nothing weighs less than nothing: zero the scale and weigh again")
        if self.verb == "verdict" and self.word not in get_args(Verdict):
            raise ValueError(f"{self.word!r} is no verdict")
        if self.verb in ("filled", "left", "drank", "ate") and self.amount is None:
            raise ValueError("say how much")
        if self.verb == "slept" and self.word not in ("", *get_args(NightFelt)):
            raise ValueError(f"a night is cold, right or warm, not {self.word!r}")
        return self

    @property
    def wall(self) -> dt.datetime:
        """The device's wall clock, without its zone."""
        return self.at.astimezone(dt.UTC).replace(tzinfo=None) + dt.timedelta(minutes=self.offset_min)


class Received(Noun):
    """An entry as it arrived here."""

    entry: Entry
    received_at: AwareDatetime
    has_picture: bool = False
    says_otherwise: UUID | None = Field(None, description="Arrived under the name of this other entry, and says something else")
