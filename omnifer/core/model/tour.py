"""The tour: one immutable document that holds everything the rider said."""

import datetime as dt
from collections import Counter
from functools import lru_cache
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from omnifer.core.model.aims import Aims
from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Load, NamedLoad
from omnifer.core.model.people import Rider
from omnifer.core.model.practice import Practice
from omnifer.core.model.quantities import Name, Note, Noun, OneLine
from omnifer.core.model.rig import MOUNTS, PARTS, Bike, Carrier, Rig
from omnifer.core.model.road import Road, Track
from omnifer.core.model.stores import Stores
from omnifer.core.model.variant import Variant

VERSION = 3
"""Of the tour as a document, in the store and in bundles. A change that old documents do not meet takes a step in
`formats/upgrade.py` and raises it."""


class SetAside(Noun):
    """A finding that the rider has looked at and lives with."""

    finding_id: Annotated[str, Field(min_length=1, max_length=400), OneLine]
    reason: Annotated[str, Field(min_length=1, max_length=200), OneLine]
    cases: tuple[Annotated[str, Field(max_length=400)], ...] = Field(
        (), max_length=200, description="What it was told of; once there is another case it is told again. None: all of its kind"
    )


class AnswerGiven(Noun):
    """A need that the rider answers without a thing: by what they do instead, or because it is not for them."""

    ask_id: Annotated[str, Field(min_length=1, max_length=200), OneLine]
    how: Literal["by_choice", "not_for_me"]
    reason: Annotated[str, Field(min_length=1, max_length=200), OneLine]


class TourSheet(Noun):
    """The tour without its raw track: what screens read and write."""

    name: Name
    start_date: Annotated[dt.date, Field(ge=dt.date(1900, 1, 1), le=dt.date(2200, 1, 1))]
    riders: tuple[Rider, ...] = Field((), max_length=8)
    road: Road = Road()
    rig: Rig = Rig()
    kit: tuple[Thing, ...] = Field((), max_length=2000)
    load: Load = Load()
    aims: Aims = Aims()
    stores: Stores = Stores()
    money: Annotated[str, Field(max_length=12, description="Name of the money that prices are in"), OneLine] = ""
    own_values: dict[str, float] = Field({}, description="Values of the rider's own for defaults, by their names in Practice")
    variants: tuple[Variant, ...] = Field((), max_length=6, description="Other rigs to compare with")
    kept_loads: tuple[NamedLoad, ...] = Field((), max_length=12, description="Loads kept under a name")
    to_self: Note = Field("", description="One sentence to oneself, for the next tour")
    over: bool = Field(False, description="Ridden and over: its things stay as they were")
    answers: tuple[AnswerGiven, ...] = Field((), max_length=200, description="Needs that are met otherwise than by a thing")
    set_aside: tuple[SetAside, ...] = Field((), max_length=200, description="Findings that the rider lives with")

    @field_validator("own_values")
    @classmethod
    def _in_order(cls, own: dict[str, float]) -> dict[str, float]:
        """Known names, values within what can be; by name, so that a tour is written alike wherever it was kept."""
        for name in own.keys() - Practice.model_fields.keys():
            raise ValueError(f"there is no default called {name!r}")
        Practice.model_validate(own)
        return dict(sorted(own.items()))

    @model_validator(mode="after")
    def _references_hold(self) -> "TourSheet":
        rider_ids = _unique("rider", [r.id for r in self.riders])
        _unique("bike", [b.id for b in self.rig.bikes])
        thing_ids = _unique("thing", [t.id for t in self.kit])
        _unique("stop", [s.id for s in self.road.stops])
        carrier_ids = _unique("carrier", [c.id for c in self.carriers])
        for bike in self.rig.bikes:
            _known("bike", bike.name, "rider", bike.rider_id, rider_ids)
            places = {s.id for s in bike.supports} | set(bike.mounts)
            _unique("support", [s.id for s in bike.supports])
            for name, identifier in ((part.name, part.id) for parts in (bike.supports, bike.carriers) for part in parts):
                if identifier in MOUNTS:
                    raise ValueError(f"{name!r} cannot have the identifier {identifier!r}, which is the name of a mount")
            for support in bike.supports:
                _known("support", support.name, "mount", support.mount, set(bike.mounts))
                if support.kind.startswith("trailer") and support.trailer is None:
                    raise ValueError(f"trailer {support.name!r} needs its measures (trailer)")
            for carrier in bike.carriers:
                _hangs_well(bike, carrier, places)
        for thing in self.kit:
            if thing.pressed_l > thing.volume_l:
                raise ValueError(f"{thing.name!r} cannot be pressed to more than it takes packed")
            if thing.rider_id is not None:
                _known("thing", thing.name, "rider", thing.rider_id, rider_ids)
        self._nesting_holds()
        placed: Counter[str] = Counter()
        for placement in self.load.placements:
            _known("load", "placement", "thing", placement.thing_id, thing_ids)
            _known("load", "placement", "carrier", placement.carrier_id, carrier_ids)
            placed[placement.thing_id] += placement.count
        for thing in self.kit:
            if placed[thing.id] > thing.count:
                raise ValueError(f"the load holds {placed[thing.id]} of {thing.name!r}, the kit only {thing.count}")
        self._nested_together()
        _unique("variant", [v.id for v in self.variants])
        _unique("kept load", [k.id for k in self.kept_loads])
        _unique("food place", [f.carrier_id for f in self.load.food])
        for food in self.load.food:
            _known("load", "food", "carrier", food.carrier_id, carrier_ids)
        if sum(f.tenths for f in self.load.food) > 10:
            raise ValueError("the shares of food exceed ten tenths")
        return self

    def _nesting_holds(self) -> None:
        by_id = {thing.id: thing for thing in self.kit}
        for thing in self.kit:
            if thing.inside is None:
                continue
            _known("thing", thing.name, "thing", thing.inside, set(by_id))
            outer = by_id[thing.inside]
            if outer is thing or outer.inside is not None:
                raise ValueError(f"{thing.name!r} rides in {outer.name!r}, which is not a thing that rides by itself")
            if outer.count != 1:
                raise ValueError(
                    f"{thing.name!r} rides in {outer.name!r}, of which there are {outer.count}: say which by splitting it"
                )

    def _nested_together(self) -> None:
        """What rides in another thing is placed where that is, all of it, or lies on the shelf with it."""
        inner = {thing.id: thing for thing in self.kit if thing.inside is not None}
        where: dict[str, Counter[str]] = {}
        for placement in self.load.placements if inner else ():
            where.setdefault(placement.thing_id, Counter())[placement.carrier_id] += placement.count
        for thing in inner.values():
            outer, own = where.get(thing.inside or "", Counter()), where.get(thing.id, Counter())
            if own != Counter(dict.fromkeys(outer, thing.count)):
                name = next(t.name for t in self.kit if t.id == thing.inside)
                raise ValueError(f"{thing.name!r} rides in {name!r} and goes where that goes; take it out of there first")

    @property
    def practice(self) -> Practice:
        """The defaults, with the rider's own values."""
        return _practice(tuple(self.own_values.items()))

    @property
    def located(self) -> tuple[Thing, ...]:
        """The kit with what rides in another thing being where that is."""
        away = {thing.id: thing.where for thing in self.kit if thing.where}
        if not away:
            return self.kit
        return tuple(t.model_copy(update={"where": away[t.inside]}) if t.inside in away else t for t in self.kit)

    @property
    def names(self) -> dict[str, str]:
        """What things are called, by identifier."""
        return {thing.id: thing.name for thing in self.kit}

    @property
    def carriers(self) -> tuple[Carrier, ...]:
        """All carriers of all bikes, in order."""
        return tuple(carrier for bike in self.rig.bikes for carrier in bike.carriers)

    def bike_of(self, carrier_id: str) -> Bike:
        """The bike that a carrier rides on. Raises KeyError where there is none."""
        for bike in self.rig.bikes:
            if any(carrier.id == carrier_id for carrier in bike.carriers):
                return bike
        raise KeyError(carrier_id)


class Tour(TourSheet):
    """The whole tour, raw track included: what the core assesses."""

    track: Track | None = None


class Bundle(Noun):
    """A tour as a file: the open format in which a tour leaves and enters."""

    format: Literal["omnifer-tour"] = "omnifer-tour"
    version: Literal[3] = 3
    tour: Tour


@lru_cache(maxsize=256)
def _practice(own: tuple[tuple[str, float], ...]) -> Practice:
    return Practice.model_validate(dict(own))


def _hangs_well(bike: Bike, carrier: Carrier, places: set[str]) -> None:
    """A carrier hangs on a mount or support, a part on a carrier that is no part itself, on the same side."""
    whole = next((c for c in bike.carriers if c.id == carrier.hangs_on), None)
    if whole is None:
        _known("carrier", carrier.name, "mount, support or larger carrier", carrier.hangs_on, places)
        if KINDS[carrier.kind].part in ("inner", "outer"):
            raise ValueError(f"{carrier.name!r} is part of a bag: say of which one")
    elif carrier.kind not in PARTS or any(c.id == whole.hangs_on for c in bike.carriers):
        raise ValueError(f"{carrier.name!r} cannot be part of {whole.name!r}")
    elif carrier.side != whole.side:
        raise ValueError(f"{carrier.name!r} rides on the {carrier.side}, {whole.name!r} that it is part of on the {whole.side}")


def _unique(kind: str, ids: list[str]) -> set[str]:
    twice = [i for i, n in Counter(ids).items() if n > 1]
    if twice:
        raise ValueError(f"two {kind}s have the identifier {twice[0]!r}")
    return set(ids)


def _known(kind: str, name: str, target: str, identifier: str, known: set[str]) -> None:
    if identifier not in known:
        raise ValueError(f"{kind} {name!r} names the {target} {identifier!r}, which is not there")
