"""What of a rig does not fit, stands badly, or holds by ties only."""

from collections.abc import Iterator
from typing import Any

from omnifer.core.findings.mending import otherwise
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at
from omnifer.core.model.finding import Grade, Mend
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike
from omnifer.core.model.stance import Clash
from omnifer.core.rig.fit import BESIDE_FOR_MUD_MM, TYRE_ROOM_MM, beside_tyre_mm
from omnifer.core.sentence import bar, joined, km, mm, number, say

SEVERE_FROM = 40.0
"""Millimetres of air missing from which something surely does not fit; practice."""
OF_ONE_CAUSE = frozenset({"hidden", "heel_room"})
"""Rules that several bags of a rig break for one cause: how they hang."""
SOFT_KM, SOFT_LONG_KM, ON_SOFT = 5.0, 50.0, 0.4
"""So much soft ground is worth letting air out for, so much of it decides the day; and what is left in the tyre [km, km, -];
practice."""
AT_THE_LIMIT = 0.95
"""A pressure that is so much of what tyre and rim bear has nothing to spare [-]; practice."""
WIDER_BY_MM = 50.0
"""Room wanted beyond the rig's own width [mm]; practice."""


@Spec(
    "no_fit",
    "packed",
    "strands",
    of_size=True,
    advice=("Another place, or another bag", "a smaller one of its kind does not fit either"),
)
@looks_at("loaded", "road")
def misfits(s: Situation) -> Iterator[Draft]:
    """Bags that touch tyres, knees, heels, bars or each other; bolts that are not there; chains with a weak link."""
    for load in s.bikes:
        for clash in load.clashes():
            rubs = clash.rule == "tyre_room" and clash.beyond_mm > TYRE_ROOM_MM
            severe = clash.beyond_mm >= SEVERE_FROM or clash.rule == "bolts" or rubs
            grade: Grade = "slows_you" if severe else "worth_knowing"
            reason = clash.reason
            tunnel = next((h for h in s.tour.road.hazards if h.kind == "tunnels"), None) if clash.rule == "hidden" else None
            if tunnel is not None:
                grade = "stops_you"
                words = say("Tunnels from {a} to {b}: one must be seen there.", a=km(tunnel.from_km), b=km(tunnel.to_km))
                reason = joined([words, reason], " ")
            yield Draft(
                kind="no_fit", grade=grade, sentence=clash.sentence, reason=reason,
                place=_on(load.bike), size=clash.beyond_mm + 1, bike_id=load.bike.id, carrier_id=clash.carrier_id,
                cause=clash.sentence.words if clash.rule in OF_ONE_CAUSE else "", mends=later(_shown, s, clash),
            )  # fmt: skip


def _shown(s: Situation, clash: Clash) -> Iterator[Mend]:
    """What a bag hides, fixed to the outside of that bag."""
    bag = next((c for c in s.tour.carriers if c.id == clash.carrier_id), None)
    for thing in s.tour.kit:
        if bag is not None and thing.id == clash.thing_id and thing.where:
            there = thing.where[-1].model_copy(update={"spot": "outside", "bag_id": bag.id, "height_mm": 0})
            yield Mend(
                name=say("{thing} onto {bag}", thing=thing.name, bag=bag.name),
                consequence=say("tied or clipped where it is seen; look at it every day"),
                things=[otherwise(thing, where=[*thing.where[:-1], there])],
            )


@Spec("too_wide", "packed", "strands")
@Spec("tyre_pressure", "packed", "hurts", loaded="bike", advice=("Wider tyres", "the same load then wants less pressure"))
@looks_at("loaded", "stances", "road")
def stances(s: Situation) -> Iterator[Draft]:
    """Too wide for the road, tyres asked for too much."""
    for load in s.bikes:
        bike, stance = load.bike, s.stances[load.bike.id]
        common: dict[str, Any] = {"place": _on(bike), "bike_id": bike.id}
        narrow = s.tour.road.narrowest_mm
        if narrow is not None and stance.width_mm + WIDER_BY_MM > narrow:
            yield Draft(
                kind="too_wide", grade="stops_you" if stance.width_mm > narrow else "slows_you",
                sentence=say("{bike} is {wide} wide, the narrowest passage {narrow}.", bike=bike.name, wide=mm(stance.width_mm),
                             narrow=mm(narrow)),
                reason=say("Bags must come off there, or be carried through one by one."),
                size=stance.width_mm - narrow, about="",
                mends=[
                    Mend(
                        name=say("Take the bags off and carry them through"),
                        consequence=say("{bags} lift off by hand", bags=number(sum(c.lifts_off for c in bike.carriers))),
                    )
                ],
                **common,
            )  # fmt: skip
        most = max(stance.front_tyre.bar, stance.rear_tyre.bar)
        if max(stance.front_tyre.low_bar, stance.rear_tyre.low_bar) > stance.most_bar:
            yield Draft(
                kind="tyre_pressure", grade="slows_you",
                sentence=say("The tyres of {bike} would want more pressure than they bear.", bike=bike.name),
                reason=say("For its load about {wanted}, tyre and rim bear {most}: take wider tyres or less on that wheel.",
                           wanted=bar(most), most=bar(stance.most_bar)),
                size=most - stance.most_bar, about="", **common,
            )  # fmt: skip
        elif most >= AT_THE_LIMIT * stance.most_bar:
            yield Draft(
                kind="tyre_pressure", grade="worth_knowing",
                sentence=say("The tyres of {bike} want {wanted} of the {most} they bear.", bike=bike.name, wanted=bar(most),
                             most=bar(stance.most_bar)),
                reason=say("Nothing is to spare: never pump more, whatever a range says, trust your own gauge, and look at the"
                           " pressure before long descents, which heat rims." + (" Rims without hooks let go of a tyre beyond it."
                                                                                if bike.hookless else "")),
                size=most / stance.most_bar, about="limit", **common,
            )  # fmt: skip


@Spec("soft_ground", "packed", "delays")
@looks_at("loaded", "stances", "road")
def soft_ground(s: Situation) -> Iterator[Draft]:
    """Stretches of sand, mud or snow, on which tyres are ridden far softer than on the road."""
    soft = [ground for ground in s.tour.road.surfaces if ground.surface == "soft"]
    length = sum(ground.to_km - ground.from_km for ground in soft)
    if length < SOFT_KM:
        return
    first = min(soft, key=lambda ground: ground.from_km)
    for load in s.bikes:
        bike, tyre = load.bike, s.stances[load.bike.id].rear_tyre
        wanted, least = tyre.bar * ON_SOFT, bike.tyre_least_bar
        too_soft = " Its maker allows {least} at least: ask how soft it may be, or push." if wanted < least else ""
        air = beside_tyre_mm(bike)
        narrow = air is not None and air < BESIDE_FOR_MUD_MM
        clogs = " {air} beside the tyre fill with mud: a stick to scrape with." if narrow else ""
        yield Draft(
            kind="soft_ground", grade="slows_you" if length >= SOFT_LONG_KM else "worth_knowing",
            sentence=say("On {length} of soft ground the rear tyre of {bike} wants some {wanted}, not {bar}.", length=km(length),
                         bike=bike.name, wanted=bar(wanted), bar=bar(tyre.bar)),
            reason=say("Sand, mud and snow bear a tyre by its width: a third to a half of the road's pressure is common practice."
                       " Keep a gauge and a pump at hand to fill it again." + too_soft + clogs, least=bar(least),
                       air=mm(air or 0.0)),
            place=say("from {at} on", at=km(first.from_km)), size=length, at_km=first.from_km, to_km=first.to_km, bike_id=bike.id,
            cause="soft ground", case=say("{bike} {wanted}", bike=bike.name, wanted=bar(wanted)),
            mends=[Mend(name=say("Let air out where it begins"),
                        consequence=say("and fill it where it ends; wider tyres change more than less pressure"))],
        )  # fmt: skip


@Spec("improvised", "packed", "costs", small=True)
@looks_at("loaded")
def improvised(s: Situation) -> Iterator[Draft]:
    """Ties, tape and cords: allowed, and to be looked at."""
    for load in s.bikes:
        held = [support.name for support in load.bike.supports if support.improvised]
        held += [carrier.name for carrier in load.bike.carriers if carrier.improvised]
        if held:
            yield Draft(
                kind="improvised", grade="worth_knowing",
                sentence=say("{parts} hold by ties or tape.", parts=", ".join(held)),
                reason=say("They work loose: load them lightly, look at them every day, and carry spare ties."),
                place=_on(load.bike), size=len(held), bike_id=load.bike.id, about="",
                mends=[Mend(name=say("Bolt it on"), consequence=say("a cage or rack made for the mount ends the daily look"))],
            )  # fmt: skip


def _on(bike: Bike) -> Text:
    return say("on {bike}", bike=bike.name)
