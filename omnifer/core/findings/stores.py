"""Trouble of the stores: what runs out before it can be had again, and what lies too deep."""

from collections.abc import Iterator

import numpy as np

from omnifer.core.findings.mending import eating, from_shelf, one_more, with_role
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at
from omnifer.core.load.keep import shelf_of
from omnifer.core.model.assessment import Gap
from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import FoodShare
from omnifer.core.model.quantities import ROUNDING, Text
from omnifer.core.model.roles import (
    FuelVessel,
    UsedUp,
)
from omnifer.core.sentence import fine_kg, kg, km, litres, number, say, share
from omnifer.core.supplies import food
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage

RESERVE_GONE = 0.5
"""Of a reserve, what may be missing before somebody has to save; practice."""


@Spec("fuel_gap", "supplied", "strands", small=True)
@looks_at("voyage", "gaps")
def fuel_gaps(s: Situation) -> Iterator[Draft]:
    """A stretch between places that sell the fuel that takes more than the vessels hold."""
    if s.voyage is None or "fuel" not in s.voyage.supplies:
        return
    supply = s.voyage.supplies["fuel"]
    short = supply.short
    for gap in s.gaps:
        lacking = (
            float(short[int(np.searchsorted(supply.refills.km, gap.from_km, side="right")) - 1]) if gap.supply == "fuel" else 0
        )
        if lacking <= ROUNDING:
            continue
        into_reserve = gap.need - gap.reserve <= (gap.holds or 0)
        part = lacking / gap.reserve if gap.reserve > 0 else 1.0
        words = "Leaving {place} you need {need} of fuel. The vessels hold {holds}."
        if into_reserve:
            words = "From {place} on {part} of the fuel's reserve is missing: {lacks} of {need}."
        yield Draft(
            kind="fuel_gap",
            grade="stops_you" if not into_reserve else "slows_you" if part > RESERVE_GONE else "worth_knowing",
            sentence=say(
                words,
                place=gap.from_name,
                need=fine_kg(gap.need),
                holds=fine_kg(gap.holds or 0),
                lacks=fine_kg(lacking),
                part=share(part),
            ),
            reason=say(
                "{days:day|days} and {distance} to the next place that sells it, {to}; {reserve} of it is the reserve.",
                days=number(gap.days),
                distance=km(gap.to_km - gap.from_km),
                to=gap.to_name,
                reserve=fine_kg(gap.reserve),
            ),
            place=_stretch(gap),
            size=lacking,
            at_km=gap.from_km,
            to_km=gap.to_km,
            day=gap.day,
            need=gap.need,
            holds=gap.holds,
            parts={"used": gap.riding + gap.camp, "reserve": gap.reserve},
            mends=later(_fuel_mends, s, lacking),
        )


def _fuel_mends(s: Situation, lacking: float) -> Iterator[Mend]:
    out = shelf_of(s.tour) if s.tour.load.placements else {}
    vessels = [t for t in s.tour.kit if isinstance(t.role, FuelVessel)]
    for thing in vessels:
        role = thing.role
        if thing.id in out and isinstance(role, FuelVessel):
            mend = from_shelf(
                s,
                thing,
                say("Take {thing} along", thing=thing.name),
                say("it still lies on the shelf and holds {mass}", mass=kg(role.holds_kg)),
            )
            if mend is not None:
                yield mend
    if vessels and not out.keys() & {t.id for t in vessels}:
        thing = max(vessels, key=lambda t: t.holds_kg)
        more = int(np.ceil(lacking / thing.holds_kg))
        yield one_more(
            s,
            thing,
            say("{n} more of {thing}", n=number(more), thing=thing.name),
            say("{mass} more of fuel, filled where it is needed and empty before", mass=kg(more * thing.holds_kg)),
            more,
        )
    if s.tour.stores.cooking == "cook":
        usual, people = s.tour.practice, len(s.tour.riders)
        saved = (usual.boiled_cook_l - usual.boiled_only_l) * people
        yield Mend(
            name=say("Boil only, and cook nothing longer"),
            consequence=say("{water} less to boil a day", water=litres(saved)),
            stores=eating(s.tour.stores, cooking="boil"),
        )
    if not s.tour.stores.eat_out and s.tour.stores.cooking in ("cook", "boil"):
        yield Mend(
            name=say("Eat out in the evening where meals are served"),
            consequence=say("less to cook, dearer evenings"),
            stores=eating(s.tour.stores, eat_out=True),
        )


@Spec("runs_out", "supplied", "strands", quantity="count")
@looks_at("voyage", "kit")
def running_out(s: Situation) -> Iterator[Draft]:
    """Small things that end before the next shop that sells them."""
    if s.voyage is None:
        return
    for thing in s.tour.kit:
        supply = s.voyage.supplies.get(thing.id)
        role = thing.role
        if supply is None or not isinstance(role, UsedUp) or not supply.short.any():
            continue
        worst = int(np.argmax(supply.short))
        a, b = float(supply.refills.km[worst]), float(supply.refills.km[worst + 1])
        gone = _empty_at(s.voyage, supply, worst)
        need, leaves = float(supply.amounts.required[worst]), float(supply.amounts.leaving[worst])
        more = int(np.ceil((need - leaves) / role.holds))
        day = s.voyage.day_of(gone)
        yield Draft(
            kind="runs_out",
            grade="worth_knowing",
            sentence=say("{thing} ends on day {day}.", thing=thing.name, day=number(day)),
            reason=say(
                "The next shop that sells it is at {place}, day {next}; what is left at {before} lasts to {gone}.",
                place=supply.refills.names[worst + 1],
                next=number(s.voyage.day_of(b, leaving=False)),
                before=supply.refills.names[worst],
                gone=km(gone),
            ),
            place=say("day {day}, {km}", day=number(day), km=km(gone)),
            size=(need - leaves) / role.holds,
            at_km=gone,
            to_km=b,
            day=day,
            need=need,
            holds=leaves,
            mends=later(_more_or_less, s, thing, role, more, supply.refills.names[worst], a),
        )


def _more_or_less(s: Situation, thing: Thing, role: UsedUp, more: int, place: str, from_km: float) -> Iterator[Mend]:
    yield one_more(
        s, thing, say("{n} more along from {place}", n=number(more), place=place),
        say("{mass} more, from {km} on", mass=kg(more * (role.content_kg + thing.mass_kg)), km=km(from_km)), more,
    )  # fmt: skip
    yield Mend(
        name=say("Use a third less"), consequence=say("it is then counted so all the way"),
        things=[with_role(thing, rate=round(role.rate * 2 / 3, 3))],
    )  # fmt: skip


def _empty_at(voyage: Voyage, supply: Supply, stretch: int) -> float:
    """Where what is left at the beginning of a stretch is used up [km]."""
    km_ = voyage.at_km
    gone = supply.gone(km_, voyage.leaving, voyage.nodes.km)
    here = np.ones(1, dtype=bool)
    begun = float(supply.gone(supply.refills.km[stretch : stretch + 1], here, voyage.nodes.km)[0])
    at = int(np.searchsorted(gone, begun + float(supply.amounts.leaving[stretch])))
    return float(km_[min(at, km_.size - 1)])


@Spec("snacks_deep", "supplied", "costs", small=True)
@looks_at("voyage", "loaded", "kit", "load", "rig", "stores", "own_values")
def snacks(s: Situation) -> Iterator[Draft]:
    """What is eaten riding, and no bag in reach that holds a day of it."""
    if s.voyage is None or not s.tour.load.food or s.tour.stores.cooking is None:
        return
    usual, tour = s.tour.practice, s.tour
    daily = float(s.voyage.supplies["food"].used.sum()) / s.voyage.days.count
    wanted = daily * (1 - usual.breakfast_share - usual.evening_share) * food.l_per_kg(tour)
    near = [c for c in tour.carriers if c.reach == "riding"]
    fullest = float(s.voyage.stock["food"].max()) * food.l_per_kg(tour)
    shares = {part.carrier_id: part.tenths for part in tour.load.food}
    held = sum(shares.get(c.id, 0) for c in near) / 10 * fullest
    # Bars go where a hand finds room, whatever is said of the rest.
    held += sum(
        max(inside.room_l - float(inside.litres.max(initial=0)), 0.0)
        for bike in s.bikes for inside in bike.contents if inside.carrier.reach == "riding" and inside.carrier in near
        and KINDS[inside.carrier.kind].takes == "anything"
    )  # fmt: skip
    bars = sum(t.volume_l * t.count for t in tour.kit if t.food and t.reach == "riding")
    if held + bars + ROUNDING >= wanted:
        return
    deep = max((i for i in shares if i not in {c.id for c in near}), key=lambda i: shares[i], default=None)
    roomy = max(near, key=lambda c: c.volume_l, default=None)
    mends = []
    if deep is not None and roomy is not None:
        tenths = min(int(np.ceil(10 * (wanted - held - bars) / max(fullest, ROUNDING))), shares[deep])
        parts = {**shares, deep: shares[deep] - tenths, roomy.id: shares.get(roomy.id, 0) + tenths}
        mends.append(
            Mend(
                name=say("{part} of the food into {bag}", part=share(tenths / 10), bag=roomy.name),
                consequence=say("a hand finds it while riding"),
                food=[FoodShare(carrier_id=i, tenths=n) for i, n in parts.items() if n > 0],
            )
        )
    yield Draft(
        kind="snacks_deep",
        grade="worth_knowing",
        sentence=say(
            "A day's riding food takes {wanted}; {held} of it ride in reach.", wanted=litres(wanted), held=litres(held + bars)
        ),
        reason=say("Who has to stop and open a bag for every bite eats too little too late."),
        place=say("in the load"),
        size=wanted - held - bars,
        mends=mends,
    )


@Spec("step_lost", "supplied", "delays")
@looks_at("voyage", "kit", "road", "stores")
def lost_steps(s: Situation) -> Iterator[Draft]:
    """What the rider fixed to take where it cannot be had."""
    if s.voyage is None:
        return
    stops = {stop.id: stop for stop in s.tour.road.stops}
    for step in s.tour.stores.steps:
        supply = s.voyage.supplies.get(step.supply)
        there = step.stop_id is None or (
            supply is not None and any(stop is not None and stop.id == step.stop_id for stop in supply.refills.stops)
        )
        if there and supply is not None:
            continue
        stop = stops.get(step.stop_id or "")
        name = stop.name if stop is not None else "a stop that is gone"
        rest = tuple(other for other in s.tour.stores.steps if other is not step)
        yield Draft(
            kind="step_lost",
            grade="worth_knowing",
            sentence=say(
                "What you fixed for {supply} at {place} cannot be had there.", supply=_label(s, step.supply), place=name
            ),
            reason=say("It is closed, dry, or sells none of it when you pass; the rest is planned without it."),
            place=say("{km}", km=km(stop.at_km)) if stop is not None else say("in the stores"),
            size=step.amount,
            at_km=None if stop is None else stop.at_km,
            day=None if stop is None else s.voyage.day_of(stop.at_km),
            mends=[
                Mend(name=say("Let it go"), consequence=say("planned like the rest"), stores=eating(s.tour.stores, steps=rest))
            ],
        )


def _label(s: Situation, supply: str) -> str:
    return next((thing.name for thing in s.tour.kit if thing.id == supply), supply)


def _stretch(gap: Gap) -> Text:
    return say("day {day}, {from_km} to {to_km}", day=number(gap.day), from_km=km(gap.from_km), to_km=km(gap.to_km))
