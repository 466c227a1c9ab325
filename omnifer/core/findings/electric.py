"""Trouble with electricity: what dies, fits no socket, or hangs on one thing; and what is carried idly."""

from collections.abc import Iterator

import numpy as np

from omnifer.core.findings.mending import a_new, new_id, one_more, otherwise, with_role
from omnifer.core.findings.situation import Draft, Making, Situation, Spec, later, looks_at
from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import Bank, Cable, Cells, Charger, Device, Hub, Panel, PaperMap
from omnifer.core.sentence import hours, kg, km, number, say, wh
from omnifer.core.supplies.power import Death, Power

ENOUGH_OUTPUTS = 4
"""Four outputs at one plug beat four chargers; practice."""
MOST_STAY_H = 48.0
"""A stay at a plug that would have to be longer mends nothing [h]."""
MESSENGER = "messenger"
"""Of what calls for help where no phone does."""
IDLE_SHARE = 0.15
"""A panel that pays on a smaller part of the days is worth a word [-]; practice."""


@Spec("device_dies", "supplied", "strands")
@looks_at("voyage", "kit")
def dying_devices(s: Situation) -> Iterator[Draft]:
    """What runs down before it can be charged."""
    if s.voyage is None or s.voyage.power is None:
        return
    power, first, names = s.voyage.power, dict[str, Death](), s.tour.names
    for death in power.deaths:
        first.setdefault(death.thing.id, death)
    for death in first.values():
        role = death.thing.role
        assert isinstance(role, Device)
        times = sum(d.thing.id == death.thing.id for d in power.deaths)
        calls = MESSENGER in death.thing.serves
        again = " It happens {times} times." if times > 1 else ""
        words = {"cells": "Its sets of cells are used up.", "cable": "All devices use {daily} a day; the banks hold {banks}."}
        yield Draft(
            kind="device_dies",
            grade="stops_you" if calls else "slows_you" if role.navigates or role.light else "worth_knowing",
            cause="" if role.fed_by == "cells" else "electricity",
            case=say("{thing} from day {day}", thing=names[death.thing.id], day=number(death.day)),
            sentence=say("{thing} is dead from day {day}.", thing=names[death.thing.id], day=number(death.day)),
            reason=say(
                words.get(role.fed_by, "") + again, daily=wh(power.daily_wh), banks=wh(power.capacity_wh), times=number(times)
            ),
            place=say("day {day}, {km}", day=number(death.day), km=km(death.from_km)),
            size=death.to_day - death.day + 1,
            at_km=death.from_km,
            to_km=death.to_km,
            day=death.day,
            mends=later(_cells, s, role) if role.fed_by == "cells" else later(_charged, s, power, death),
        )


def _charged(s: Situation, power: Power, death: Death) -> Iterator[Mend]:
    yield from _less_or_more_stored(s)
    yield from _longer_stay(power, death)


def _cells(s: Situation, role: Device) -> Iterator[Mend]:
    if not role.battery_wh:
        return
    spare = next((t for t in s.tour.kit if isinstance(t.role, Cells)), None)
    new = Thing(
        id=new_id(s, "spare-cells"),
        name="Spare cells",
        mass_kg=0.05,
        volume_l=0.03,
        reach="breaks",
        guessed=("mass", "volume"),
        natures=("electronics",),
        role=Cells(set_wh=role.battery_wh),
    )
    name, then = say("Two sets of cells more"), say("{mass} more", mass=kg(0.1))
    yield one_more(s, spare, name, then, 2) if spare else a_new(s, otherwise(new, count=2), name, then)


def _less_or_more_stored(s: Situation) -> Iterator[Mend]:
    """What helps every device that is charged by cable."""
    spared = [
        (thing, (role.wh_a_day - role.saver_wh_a_day) * thing.count)
        for thing in s.tour.kit
        if isinstance(role := thing.role, Device) and role.saver_wh_a_day is not None and not role.saver
    ]
    if spared:
        yield Mend(
            name=say("{things} in saver mode", things=" and ".join(thing.name for thing, _ in spared)),
            consequence=say("{less} less a day", less=wh(sum(less for _, less in spared))),
            things=[with_role(thing, saver=True) for thing, _ in spared],
        )
    bank = next((t for t in s.tour.kit if isinstance(t.role, Bank)), None)
    if bank is not None and isinstance(bank.role, Bank):
        yield one_more(
            s, bank, say("A second bank"), say("{mass} for {energy} more", mass=kg(bank.mass_kg), energy=wh(bank.role.holds_wh))
        )
    charger = next((t for t in s.tour.kit if isinstance(t.role, Charger)), None)
    if charger is not None and isinstance(charger.role, Charger) and charger.role.outputs < ENOUGH_OUTPUTS:
        yield Mend(
            name=say("A charger with {n} outputs", n=number(ENOUGH_OUTPUTS)),
            consequence=say("more is charged in the same hours at one socket"),
            things=[with_role(charger, outputs=ENOUGH_OUTPUTS)],
        )


def _longer_stay(power: Power, death: Death) -> Iterator[Mend]:
    before = [c for c in power.charges if c.stop.at_km <= death.from_km and c.hours + 0.1 < c.wanted_h <= MOST_STAY_H]
    if before:
        last = before[-1]
        longer = Stop.model_validate(last.stop.model_dump() | {"plug_hours": round(float(np.ceil(last.wanted_h)), 1)})
        yield Mend(
            name=say("Stay longer at the plug of {place}", place=last.stop.name),
            consequence=say(
                "{wanted} fill everything, {hours} are planned", wanted=hours(last.wanted_h), hours=hours(last.hours)
            ),
            stops=[longer],
        )


@Spec("single_point", "supplied", "costs", small=True)
@Spec("no_plug", "supplied", "delays")
@looks_at("kit", "road")
def single_points(s: Situation) -> Iterator[Draft]:
    """What everything hangs on: one navigation, one cable, one charger; and sockets that no charger fits."""
    kit = s.tour.kit

    def several(role: type) -> list[Thing]:
        return [t for t in kit if isinstance(t.role, role)]

    ways = [t for t in several(Device) if isinstance(t.role, Device) and t.role.navigates]
    fed = [t for t in several(Device) if isinstance(t.role, Device) and t.role.fed_by == "cable"]
    if sum(t.count for t in ways) == 1 and not several(PaperMap):
        new = Thing(
            id=new_id(s, "maps"),
            name="Maps on paper",
            mass_kg=0.15,
            volume_l=0.3,
            reach="riding",
            dry="own_bag",
            guessed=("mass", "volume"),
            natures=("papers",),
            role=PaperMap(),
        )
        more = later(a_new, s, new, say("Maps on paper"), say("{mass} more", mass=kg(0.15)))
        yield _single(ways[0].name, "finds the way", more)
    ends = [t.role.ends for t in several(Cable) if isinstance(t.role, Cable)]
    for thing in fed:
        assert isinstance(thing.role, Device)
        socket = thing.role.socket
        if socket and ends and all(those and socket.lower() not in {e.lower() for e in those} for those in ends):
            new = Thing(id=new_id(s, "cable"), name=f"Cable, {socket}", mass_kg=0.03, volume_l=0.05, reach="stop",
                        guessed=("mass", "volume"), role=Cable(ends=(socket,)), held="wished")  # fmt: skip
            yield Draft(
                kind="no_plug", grade="slows_you", sentence=say("No cable fits {thing}.", thing=thing.name),
                reason=say("It wants {socket}: nothing charges it.", socket=socket), place=say("in the kit"), size=1.0,
                things=(thing.id,), about=thing.id,
                mends=later(a_new, s, new, say("A cable for it"), say("{mass} more", mass=kg(0.03))),
            )  # fmt: skip
    for role, what in ((Cable, "charges everything"), (Charger, "takes electricity from the wall")):
        found = several(role)
        if fed and len(found) == 1 and found[0].count == 1 and (role is Cable or not several(Hub)):
            mass = say("{mass} more", mass=kg(found[0].mass_kg))
            more = later(one_more, s, found[0], say("A second one, in another bag"), mass)
            yield _single(found[0].name, what, more)
    chargers = [t for t in several(Charger) if isinstance(t.role, Charger)]
    shapes = {plug for t in chargers if isinstance(t.role, Charger) for plug in t.role.plugs}
    fits_all = any(isinstance(t.role, Charger) and not t.role.plugs for t in chargers)
    strange = [stop for stop in s.tour.road.stops if stop.plug_shape and stop.plug_shape not in shapes]
    if chargers and strange and not fits_all:
        first = min(strange, key=lambda stop: stop.at_km)
        role_ = chargers[0].role
        assert isinstance(role_, Charger)
        mend = Mend(
            name=say("An adapter for sockets of shape {shape}", shape=first.plug_shape),
            consequence=say("some grams"),
            things=[with_role(chargers[0], plugs=(*role_.plugs, *sorted({stop.plug_shape for stop in strange})))],
        )
        yield Draft(
            kind="no_plug",
            grade="slows_you",
            sentence=say("From {place} on no charger fits the sockets.", place=first.name),
            reason=say("They are of shape {shape} at {n:stop|stops}.", shape=first.plug_shape, n=number(len(strange))),
            place=say("{km}", km=km(first.at_km)),
            size=len(strange),
            at_km=first.at_km,
            mends=[mend],
        )


def _single(thing: str, what: str, mends: Making) -> Draft:
    return Draft(
        kind="single_point",
        grade="worth_knowing",
        sentence=say("Only {thing} {what}.", thing=thing, what=what),
        reason=say("Once it is lost, wet or broken nothing on board takes its place."),
        place=say("in the kit"),
        size=1,
        mends=mends,
    )


@Spec("panel_idle", "supplied", "costs", small=True)
@looks_at("voyage", "kit")
def idle_panel(s: Situation) -> Iterator[Draft]:
    """A panel that hardly pays."""
    if s.voyage is None or s.voyage.power is None:
        return
    panels, power, days = [t for t in s.tour.kit if isinstance(t.role, Panel)], s.voyage.power, s.voyage.days.count
    if not panels or power.panel_days > IDLE_SHARE * days:
        return
    mass = sum(t.mass_kg * t.count for t in panels)
    yield Draft(
        kind="panel_idle",
        grade="worth_knowing",
        sentence=say("{panel} pays on {n} of {days} days.", panel=panels[0].name, n=number(power.panel_days), days=number(days)),
        reason=say(
            "It gives {energy} a day; without it something would be dead on {n:day|days} more. It weighs {mass}.",
            energy=wh(power.panel_wh / days),
            n=number(power.panel_days),
            mass=kg(mass),
        ),
        place=say("in the kit"),
        size=mass,
        mends=[Mend(name=say("Leave it at home"), consequence=say("{mass} less", mass=kg(mass)), gone=[t.id for t in panels])],
    )
