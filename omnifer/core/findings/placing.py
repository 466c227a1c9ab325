"""Things in the wrong place, an uneven bike, and what is not placed or weighed yet."""

from collections.abc import Iterator
from typing import Any

import numpy as np

from omnifer.core.findings.mending import into_reach, otherwise
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at
from omnifer.core.load.aims import SIDES_TOLERANCE_KG
from omnifer.core.load.keep import shelf_of
from omnifer.core.load.nesting import sheltered
from omnifer.core.load.rules import (
    FOOD,
    RUINED_BY_WATER,
    clashes,
    dry_walls,
    fits_in_length,
    left_behind,
    spot_of,
    stays_dry,
    stays_in,
    steps_too_deep,
)
from omnifer.core.load.trace import CarrierContents
from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import ON_THE_WAY, ROUNDING
from omnifer.core.model.reach import at_mouth
from omnifer.core.model.rig import Carrier
from omnifer.core.rig.covers import covers, minutes_off
from omnifer.core.sentence import fine_kg, kg, minutes, number, say, share

DRY_BAG_KG = 0.06
"""A dry bag for one thing [kg]; practice."""
LINER_KG, TWO = 0.08, 2
"""A liner for a whole bag [kg]; practice. And the walls that one wants who trusts none alone."""
GUESSES_NAMED = 3
FAR_APART_KG, FAR_OFF_SHARE = 1.5, 0.06
"""From where uneven sides, and a front wheel outside its range, slow a rider down [kg, -]; practice."""


@Spec("not_dry", "packed", "delays", loaded="things")
@Spec("falls_out", "packed", "delays", loaded="things", advice=("Tie it in", "no bag that closes has room for it"))
@Spec(
    "left_behind",
    "packed",
    "delays",
    loaded="things",
    advice=("Take it along into every shop", "no bag that comes along or locks has room for it"),
)
@Spec("too_deep", "packed", "delays", loaded="things", advice=("Change what it is wanted for", "no bag in reach has room for it"))
@Spec("too_long", "packed", "delays", loaded="things", advice=("Lash it outside", "no bag is long enough"))
@Spec("not_together", "packed", "delays", loaded="things", advice=("Part them by a tight bag", "no bag is free for either"))
@looks_at("voyage", "days", "loaded", "needed", "kit", "aims", "own_values")
def misplaced(s: Situation) -> Iterator[Draft]:
    """Things that get damp, fall out, stay behind, lie too deep, are too long, or ride with what they must not."""
    whole = {thing.id: thing for thing in s.tour.kit}
    told = {thing_id for ask in s.needed.asks if ask.state == "too_deep" for thing_id in ask.thing_ids}
    for bike in s.bikes:
        over = covers(bike.bike, bike.levers.boxes)
        for contents in bike.contents:
            carrier, things = contents.carrier, sheltered(contents.inside)
            spot = spot_of(bike.bike, carrier)
            at_hand = at_mouth(((t, t.volume_l * p.count) for t, p in contents.inside), carrier)
            common: dict[str, Any] = {
                "place": say("in {bag}", bag=carrier.name), "bike_id": bike.bike.id, "carrier_id": carrier.id,
            }  # fmt: skip
            for thing in things:
                names = {"thing": thing.name, "bag": carrier.name}
                of_it: dict[str, Any] = common | {
                    "things": (thing.id,), "about": thing.id, "case": say("{thing} in {bag}", **names),
                }  # fmt: skip
                if damp := stays_dry(thing, spot):
                    reason = say("It must stay dry and has no dry bag of its own; the bag keeps out splashes at most.")
                    if carrier.leaks:
                        reason = say("It has no dry bag of its own: {why}.", why=damp.metric())
                    yield Draft(
                        kind="not_dry", grade="slows_you", sentence=say("{thing} gets damp in {bag}.", **names), reason=reason,
                        size=3, mends=later(_second_wall, whole[thing.id], carrier), cause="damp", **of_it,
                    )  # fmt: skip
                elif s.tour.aims.two_walls and RUINED_BY_WATER & set(thing.natures) and dry_walls(thing, carrier) < TWO:
                    yield Draft(
                        kind="not_dry", grade="worth_knowing",
                        sentence=say("One wall keeps {thing} dry in {bag}.", **names),
                        reason=say("You want two: a proof bag, and a liner or a dry bag of its own. Seams and zips leak."),
                        size=1, mends=later(_second_wall, whole[thing.id], carrier), cause="one wall", **of_it,
                    )  # fmt: skip
                if stays_in(thing, spot):
                    yield Draft(
                        kind="falls_out", grade="slows_you", sentence=say("{thing} may fall out of {bag}.", **names),
                        reason=say("It does not close; papers and valuables want a zip, a lid or a rolled mouth."), size=3,
                        cause="open", **of_it,
                    )  # fmt: skip
                if left_behind(thing, carrier):
                    yield Draft(
                        kind="left_behind", grade="worth_knowing",
                        sentence=say("{thing} stays on the bike with {bag}.", **names),
                        reason=say("The bag neither lifts off nor locks: into a shop valuables come along."),
                        size=1, cause="stays", **of_it,
                    )  # fmt: skip
                if too_long := fits_in_length(thing, spot):
                    yield Draft(
                        kind="too_long", grade="slows_you", sentence=say("{thing} is too long for {bag}.", **names),
                        reason=too_long, size=3, **of_it,
                    )  # fmt: skip
                reached = thing.id in told or (thing.id in at_hand and thing.reach == "stop")
                if not reached and (deep := steps_too_deep(thing, carrier)):
                    yield Draft(
                        kind="too_deep", grade="worth_knowing" if deep == 1 else "slows_you",
                        sentence=say("{thing} is out of reach in {bag}.", **names),
                        reason=say("A thing deeper than its reach is not used, or costs a full unpack."), size=deep,
                        cause="deep", **of_it,
                    )  # fmt: skip
            yield from _covered(s, contents, over.get(carrier.id, []), common)
            for one, other, reason in clashes([*things, FOOD] if contents.food_kg.any() else things):
                yield Draft(
                    kind="not_together", grade="slows_you",
                    sentence=say("{a} and {b} share {bag}.", a=one.name, b=other.name, bag=carrier.name), reason=reason, size=2,
                    things=(one.id, other.id), about=f"{one.id}+{other.id}", **common,
                )  # fmt: skip


def _covered(s: Situation, contents: CarrierContents, over: list[Carrier], common: dict[str, Any]) -> Iterator[Draft]:
    """What is wanted on the way, in a bag that another stands over."""
    wanted = [thing for thing in sheltered(contents.inside) if thing.reach in ON_THE_WAY]
    if not over or not wanted:
        return
    names, lead = " and ".join(bag.name for bag in over), wanted[0]
    yield Draft(
        kind="too_deep", grade="worth_knowing",
        sentence=say("To reach {thing} in {bag}, {over} comes off.", thing=lead.name, bag=contents.carrier.name, over=names),
        reason=say("That takes {time} each time, and is not done in the rain.", time=minutes(minutes_off(over, s.tour.practice))),
        size=len(wanted), things=tuple(thing.id for thing in wanted), about="covered", cause="covered",
        case=say("{thing} in {bag}", thing=lead.name, bag=contents.carrier.name),
        mends=later(_uncovered, s, wanted), **common,
    )  # fmt: skip


def _uncovered(s: Situation, wanted: list[Thing]) -> Iterator[Mend]:
    moves = (into_reach(s, thing, thing.reach) for thing in wanted)
    yield from (move for move in moves if move is not None)


def _second_wall(thing: Thing, carrier: Carrier) -> Iterator[Mend]:
    """A dry bag for the thing, or a liner for all that rides with it."""
    if thing.dry != "own_bag":
        yield _own_dry_bag(thing)
    if not carrier.liner:
        lined = carrier.model_copy(update={"liner": True, "mass_kg": carrier.mass_kg + LINER_KG})
        yield Mend(
            name=say("A liner in {bag}", bag=carrier.name),
            consequence=say("about {mass}, for all that is in it", mass=fine_kg(LINER_KG)), carriers=[lined],
        )  # fmt: skip


def _own_dry_bag(thing: Thing) -> Mend:
    heavier = otherwise(thing, dry="own_bag", mass_kg=thing.mass_kg + DRY_BAG_KG)
    return Mend(name=say("Give it its own dry bag"), consequence=say("about {mass}", mass=fine_kg(DRY_BAG_KG)), things=[heavier])


@Spec("gets_wet", "packed", "delays", small=True)
@looks_at("days", "kit")
def exposed(s: Situation) -> Iterator[Draft]:
    """What must stay dry, fixed to the outside of bike or bag, where it rains."""
    wet = sum(day.rain_chance for day in s.days)
    for thing in s.tour.kit if wet >= 1 else ():
        if thing.dry == "must" and any(place.how == "fixed" for _, _, place in thing.stretches()):
            yield Draft(
                kind="gets_wet", grade="worth_knowing", sentence=say("{thing} is fixed outside, in the rain.", thing=thing.name),
                reason=say("Some {n} wet days are to be planned for: a cover, or into a bag before it rains.",
                           n=number(round(wet))),
                place=say("on the bike"), size=wet, things=(thing.id,), cause="outside", case=say("{thing}", thing=thing.name),
                mends=[_own_dry_bag(thing)],
            )  # fmt: skip


@Spec(
    "sides",
    "packed",
    "costs",
    small=True,
    loaded="bike",
    advice=("Carry something across", "half of the difference, in either pair of bags; no single thing that may move does it"),
)
@looks_at("voyage", "loaded")
def sides(s: Situation) -> Iterator[Draft]:
    """One side heavier than the other at an axle."""
    for bike in s.bikes:
        for axle, difference in bike.right_over_left.items():
            worst = int(np.argmax(np.abs(difference)))
            off = float(difference[worst])
            if abs(off) <= SIDES_TOLERANCE_KG + ROUNDING:
                continue
            at_km, day, place = s.when(worst)
            yield Draft(
                kind="sides",
                grade="slows_you" if abs(off) > FAR_APART_KG else "worth_knowing",
                sentence=say(
                    "{bike}: at the {axle} the {side} is {off} heavier.", bike=bike.bike.name, axle=axle,
                    side="right" if off > 0 else "left", off=kg(abs(off)),
                ),
                reason=say("Within {tolerance} at an axle the bike stays upright; beyond, most steer against it (practice).",
                           tolerance=kg(SIDES_TOLERANCE_KG)),
                place=place,
                size=abs(off),
                at_km=at_km,
                day=day,
                bike_id=bike.bike.id,
                about=axle,
                cause="uneven",
                case=say("{bike} at the {axle}, {off}", bike=bike.bike.name, axle=axle, off=kg(abs(off))),
            )  # fmt: skip


@Spec(
    "front_share",
    "packed",
    "costs",
    small=True,
    loaded="bike",
    advice=("Shift something dense", "no single thing that may move does it: hang a bag elsewhere or free a pin"),
)
@looks_at("voyage", "loaded")
def front_shares(s: Situation) -> Iterator[Draft]:
    """A front wheel too light to steer or too heavy to turn."""
    for bike in s.bikes:
        part, (low, high) = bike.front_share, bike.steady
        for about, worst, off, words in (
            ("light", int(np.argmin(part)), low - float(part.min()), "{bike}: the front wheel carries only {part}."),
            ("heavy", int(np.argmax(part)), float(part.max()) - high, "{bike}: the front wheel carries {part}."),
        ):
            if off <= ROUNDING:
                continue
            at_km, day, place = s.when(worst)
            yield Draft(
                kind="front_share",
                grade="slows_you" if off > FAR_OFF_SHARE else "worth_knowing",
                sentence=say(words, bike=bike.bike.name, part=share(float(part[worst]))),
                reason=say(
                    "You aim at {low} to {high} without the rider. A light front lifts on climbs, a heavy one turns slowly.",
                    low=share(low),
                    high=share(high),
                ),
                place=place,
                size=off * 10,
                at_km=at_km,
                day=day,
                bike_id=bike.bike.id,
                about=about,
            )


@Spec(
    "on_shelf",
    "packed",
    "delays",
    preparing=True,
    loaded="out",
    too_much=True,
    advice=("Leave some of it, or hang one bag more", "not all of it goes in"),
)
@looks_at("kit", "load")
def shelf(s: Situation) -> Iterator[Draft]:
    """Things chosen for the tour that ride nowhere."""
    if not s.tour.load.placements:
        return
    out = shelf_of(s.tour)
    if not out:
        return
    things = [thing for thing in s.tour.kit if thing.id in out]
    names = ", ".join(thing.name for thing in things[:3]) + (" ..." if len(things) > 3 else "")
    mass = sum(thing.mass_kg * out[thing.id] for thing in things)
    yield Draft(
        kind="on_shelf",
        grade="slows_you",
        sentence=say("{count:thing is|things are} still on the shelf.", count=number(sum(out.values())))
        if sum(out.values()) != 1
        else say("{names} is still on the shelf.", names=names),
        reason=say("{names}: {mass} in all. They ride nowhere yet.", names=names, mass=kg(mass)),
        place=say("on the shelf"),
        size=mass,
        things=tuple(out),
        about="",
    )


@Spec("guesses", "packed", "costs", small=True, preparing=True)
@looks_at("kit")
def guesses(s: Situation) -> Iterator[Draft]:
    """Masses that were guessed and weigh enough to matter."""
    guessed = [thing for thing in s.tour.kit if "mass" in thing.guessed]
    if guessed:
        mass = sum(thing.mass_kg * thing.count for thing in guessed)
        heaviest = sorted(guessed, key=lambda t: -t.mass_kg * t.count)[:GUESSES_NAMED]
        part = sum(t.mass_kg * t.count for t in heaviest) / mass if mass else 0
        yield Draft(
            kind="guesses",
            grade="worth_knowing",
            sentence=say("{count:weight is|weights are} guesses.", count=number(len(guessed))),
            reason=say("Together {mass}. Put them on a kitchen scale.", mass=kg(mass)),
            place=say("in the kit"),
            size=mass / 10,
            mends=[
                Mend(
                    name=say("Weigh {names} first", names=", ".join(t.name for t in heaviest)),
                    consequence=say("{part} of all that is guessed", part=share(part)),
                )
            ],
        )
