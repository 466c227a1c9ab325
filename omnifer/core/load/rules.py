"""Which carrier a thing may ride in, one small rule a function. Each answers with the reason, or None if it may."""

from collections.abc import Callable, Iterator, Sequence
from itertools import combinations
from typing import NamedTuple

from omnifer.core.load.nesting import holds_kg, owners_of
from omnifer.core.model.carrier_kind import KINDS, Opening
from omnifer.core.model.filled import WORTHWHILE
from omnifer.core.model.kit import Nature, Thing
from omnifer.core.model.quantities import REACHES, ROUNDING, Figure, Text
from omnifer.core.model.reach import found_at
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.rig.parts import brim_l


class Spot(NamedTuple):
    """A carrier as the rules see it; what goes into it at most takes a look at all its parts, and is asked for once."""

    carrier: Carrier
    bike: Bike
    brim_l: float


Rule = Callable[[Thing, Spot], Text | None]
RUINED_BY_WATER: frozenset[Nature] = frozenset({"down", "electronics"})
SMALL_AND_DEAR: frozenset[Nature] = frozenset({"papers", "valuables"})
SOFT: frozenset[Nature] = frozenset({"down", "air_mat", "shelter", "clean", "dirty"})
"""Natures of what gives way."""
OPEN: frozenset[Opening] = frozenset({"none", "drawstring"})
"""Openings that do not close."""


FOOD = Thing(
    id="food", name="bought food", mass_kg=0, volume_l=0, reach="stop", natures=("food",), not_with=("fuel", "soap", "dirty")
)
"""All bought food, as its neighbours see it."""


def spot_of(bike: Bike, carrier: Carrier) -> Spot:
    """A carrier of a bike, for the rules."""
    return Spot(carrier, bike, brim_l(bike, carrier))


def fits_in_length(thing: Thing, spot: Spot) -> Text | None:
    """A rigid thing needs the length inside the bag."""
    if thing.longest_mm <= spot.carrier.longest_mm:
        return None
    over = Figure(value=thing.longest_mm - spot.carrier.longest_mm, quantity="length")
    return Text(words="{over} too long", figures={"over": over})


def fits_in_girth(thing: Thing, spot: Spot) -> Text | None:
    """What keeps its shape must be no thicker than the bag is wide."""
    if thing.thick_mm <= spot.carrier.admits_mm:
        return None
    over = Figure(value=thing.thick_mm - spot.carrier.admits_mm, quantity="length")
    return Text(words="{over} too thick", figures={"over": over})


def fits_in_volume(thing: Thing, spot: Spot) -> Text | None:
    """A thing, pressed as far as it goes, must be smaller than the bag stuffed full."""
    over_l = thing.least_l - spot.brim_l
    if over_l <= ROUNDING:
        return None
    over = Figure(value=over_l, quantity="volume")
    return Text(words="{over} too big", figures={"over": over})


def within_limit(thing: Thing, spot: Spot) -> Text | None:
    """A thing must be lighter than the bag's limit, what it holds as well; of water a part worth carrying."""
    full = thing.mass_kg + holds_kg(thing) - (1 - WORTHWHILE) * thing.holds_water_l
    if full <= spot.carrier.limit_kg + ROUNDING:
        return None
    over = Figure(value=full - spot.carrier.limit_kg, quantity="mass")
    return Text(words="{over} over what it may hold", figures={"over": over})


def stays_dry(thing: Thing, spot: Spot) -> Text | None:
    """What must stay dry needs a waterproof bag, a liner, or its own; in one that leaks down and electronics need theirs too."""
    if spot.carrier.liner:
        return None
    if spot.carrier.leaks and thing.dry != "own_bag" and (thing.dry == "must" or RUINED_BY_WATER & set(thing.natures)):
        return Text(words="that bag leaks {where}", names={"where": spot.carrier.leaks})
    if thing.dry != "must" or spot.carrier.dryness == "waterproof":
        return None
    return Text(words="not dry in there")


def dry_walls(thing: Thing, carrier: Carrier) -> int:
    """How many walls keep water from a thing: a proof bag without leaks, a liner, a dry bag of its own."""
    proof = carrier.dryness == "waterproof" and not carrier.leaks
    return proof + carrier.liner + (thing.dry == "own_bag")


def stays_in(thing: Thing, spot: Spot) -> Text | None:
    """Papers and valuables want a bag that closes."""
    if not SMALL_AND_DEAR & set(thing.natures) or spot.carrier.opening not in OPEN:
        return None
    return Text(words="it would fall out there")


def carried_by_owner(thing: Thing, spot: Spot) -> Text | None:
    """A rider's own thing rides with that rider."""
    owners = owners_of(thing)
    if len(owners) > 1:
        return Text(words="things of two riders ride in it; take one out")
    if not owners or owners[0] == spot.bike.rider_id:
        return None
    return Text(words="on the other rider's bike")


def cage_is_for_bottles(thing: Thing, spot: Spot) -> Text | None:
    """A bottle cage clamps a bottle and nothing else."""
    if KINDS[spot.carrier.kind].takes != "bottles" or (thing.holds_water_l > 0 and not thing.soft_vessel):
        return None
    return Text(words="the cage holds only a bottle")


def sleeve_is_for_bladders(thing: Thing, spot: Spot) -> Text | None:
    """A sleeve takes a soft vessel and nothing else."""
    if KINDS[spot.carrier.kind].takes != "soft_vessels" or thing.soft_vessel:
        return None
    return Text(words="the sleeve holds only a bladder")


RULES: tuple[Rule, ...] = (
    cage_is_for_bottles,
    sleeve_is_for_bladders,
    carried_by_owner,
    stays_in,
    stays_dry,
    within_limit,
    fits_in_volume,
    fits_in_girth,
    fits_in_length,
)
"""Those that no wish can mend first: what is against a place last came nearest to fitting."""


def why_not(thing: Thing, spot: Spot) -> Text | None:
    """The first reason against a thing in a carrier taken by itself; None where it may ride there."""
    found = first_against(thing, spot)
    return None if found is None else found[1]


def first_against(thing: Thing, spot: Spot) -> tuple[int, Text] | None:
    """Which rule is the first against a thing in a carrier, counted from those on what a carrier is for, and why."""
    return next(((n, reason) for n, rule in enumerate(RULES) if (reason := rule(thing, spot)) is not None), None)


def steps_too_deep(thing: Thing, carrier: Carrier) -> int:
    """How many moments later than wanted a hand finds the thing: 0 where the reach is good enough."""
    return max(0, found_at(thing, carrier) - REACHES.index(thing.reach))


def harmed_by_rain(thing: Thing) -> bool:
    """Whether rain on it would hurt, its own dry bag or not."""
    return not thing.wet and (thing.dry != "any" or bool((RUINED_BY_WATER | {"papers"}) & set(thing.natures)))


def hard_in_roll(thing: Thing, carrier: Carrier) -> bool:
    """Whether a hard thing lies in a roll at the bar, which is for what gives way: bedding, shelter, clothes; practice."""
    kind = KINDS[carrier.kind]
    soft = thing.pressed_l > 0 or thing.soft_vessel or SOFT & set(thing.natures)
    return kind.anchor == "bar" and kind.outline == "roll" and not soft


def left_behind(thing: Thing, carrier: Carrier) -> bool:
    """Whether a valuable stays on the bike when its rider goes into a shop, in a bag that neither comes along nor locks."""
    return "valuables" in thing.natures and not (carrier.lifts_off or carrier.locks)


def clash(a: Thing, b: Thing) -> Text | None:
    """Why two things may not share a bag; None where they may."""
    for one, other in ((a, b), (b, a)):
        for nature in one.not_with:
            if nature in other.natures:
                return Text(words="{one} must not ride with {other}", names={"one": one.name, "other": other.name})
        if one.wet and other.dry == "must":
            return Text(words="{one} is wet and {other} must stay dry", names={"one": one.name, "other": other.name})
    return None


def clashes(things: Sequence[Thing]) -> Iterator[tuple[Thing, Thing, Text]]:
    """The pairs of a bag's things that may not share it, and why."""
    touchy = [bool(thing.not_with) or thing.wet for thing in things]
    for a, b in combinations(range(len(things)), 2):
        if (touchy[a] or touchy[b]) and (reason := clash(things[a], things[b])) is not None:
            yield things[a], things[b], reason
