"""Limits exceeded, as `load.limits` states them: bags, racks, wheels, bikes, hitches."""

from collections.abc import Callable, Iterator
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from omnifer.core.findings.situation import Draft, Situation, Spec, looks_at
from omnifer.core.load.limits import Limit
from omnifer.core.model.finding import FindingKind
from omnifer.core.model.quantities import ROUNDING
from omnifer.core.model.trace import LimitKind
from omnifer.core.sentence import fine_kg, kg, km, litres, say, share

Array = NDArray[np.float64]
FAR_OVER = 0.2
"""A bag over its limit by more than this part of it stops the tour [-]; practice."""


class Saying(NamedTuple):
    """How a limit that is exceeded is told."""

    kind: FindingKind
    sentence: str
    reason: str


CARRIES = "{name} carries {have} of {limit}."
SAYINGS: dict[LimitKind, Saying] = {
    "bag_mass": Saying("over_mass", "{name} holds {have} of {limit}.",
                       "The maker's limit counts: an overloaded bag comes off or tears."),
    "bag_volume": Saying("over_volume", "{name} holds {have} of {limit}.",
                         "What does not go in hangs outside, gets wet and gets lost."),
    "support": Saying("over_support", CARRIES, "Bags and what is in them hang on it. Loose or broken racks can throw a rider."),
    "hitch": Saying("hitch_load", CARRIES, "The hitch and the bike's rear wheel bear it. Load the trailer nearer its wheel."),
    "front_wheel": Saying("over_wheel", CARRIES, "With the rider on. Rim, tyre and spokes bear it."),
    "rear_wheel": Saying("over_wheel", CARRIES, "With the rider on. Rim, tyre and spokes bear it."),
    "system": Saying("over_system", CARRIES,
                     "Bike, rider and all that rides on the bike; what the trailer's wheel bears is apart."),
    "pushed": Saying("front_lifts", "Pushed up a slope of {slope} the front of {bike} lifts.",
                     "Without its rider too little presses on the front wheel; put weight forward or lower."),
}  # fmt: skip
NAMES: dict[LimitKind, str] = {"hitch": "The hitch", "front_wheel": "The front wheel", "rear_wheel": "The rear wheel"}
"""What a limit is called where its bike is known; all others by their own name."""

SHAKES = frozenset({"gravel", "soft"})
SHAKEN: frozenset[LimitKind] = frozenset({"support", "front_wheel", "rear_wheel", "system"})
ROUGH_KM, TO_SPARE = 10.0, 0.02
"""On so much rough road, what has less than this part of its limit to spare is worth a word [km, -]; practice."""
HARDLY_PRESSED_L = 0.2
"""Less than this gives way by itself [l]; practice."""


@Spec(
    "over_volume",
    "packed",
    "delays",
    quantity="volume",
    loaded="bag",
    too_much=True,
    of_size=True,
    advice=("Leave something bulky", "nothing that may move ends it"),
)
@Spec(
    "over_mass",
    "packed",
    "strands",
    loaded="bag",
    too_much=True,
    advice=("Leave something dense", "nothing that may move ends it; no load may be held by hope"),
)
@Spec(
    "over_support",
    "packed",
    "hurts",
    loaded="bike",
    too_much=True,
    advice=("A stronger rack, or less", "nothing that may move ends it"),
)
@Spec("over_wheel", "packed", "hurts", loaded="bike", too_much=True, advice=("Less on the bike", "nothing that may move ends it"))
@Spec(
    "over_system",
    "packed",
    "hurts",
    loaded="bike",
    too_much=True,
    advice=("Less on the bike", "a trailer's wheel bears part of it elsewhere"),
)
@Spec(
    "hitch_load",
    "packed",
    "hurts",
    loaded="bike",
    advice=("Move the load along the trailer", "nearer its wheel it presses less, further forward it lifts less"),
)
@Spec(
    "front_lifts",
    "packed",
    "hurts",
    loaded="bike",
    advice=("Push with a hand on the bar", "and take a bag off where it is steep"),
)
@Spec("near_limit", "packed", "costs")
@looks_at("voyage", "loaded", "stances", "road")
def limits_exceeded(s: Situation) -> Iterator[Draft]:
    """Every limit that the load exceeds, at the moment at which it is furthest beyond."""
    for limit, beyond in s.loaded.broken:
        if limit.kind == "pushed":
            yield _lifts(s, limit, beyond)
        elif limit.kind == "hitch" and limit.least is not None and limit.values(s.loaded.contents).min() < limit.least:
            yield _tail_heavy(s, limit)
        else:
            yield _over(s, limit, beyond)
    yield from _at_the_limit(s)


def _at_the_limit(s: Situation) -> Iterator[Draft]:
    """What bears all it may where the road shakes it."""
    rough = sum(g.to_km - g.from_km for g in s.tour.road.surfaces if g.surface in SHAKES)
    for limit in s.loaded.limits if rough >= ROUGH_KM else ():
        if limit.kind not in SHAKEN or not limit.most:
            continue
        values = limit.values(s.loaded.contents)
        worst = int(np.argmax(values))
        have = float(values[worst])
        if not (1 - TO_SPARE) * limit.most <= have <= limit.most + ROUNDING:
            continue
        at_km, day, place = s.when(worst)
        name = _bike_name(s, limit) if limit.kind == "system" else NAMES.get(limit.kind, limit.name)
        yield Draft(
            kind="near_limit", grade="worth_knowing",
            sentence=say("{name} carries {have} of {limit}: nothing to spare.", name=name, have=fine_kg(have),
                         limit=fine_kg(limit.most)),
            reason=say("{rough} of this road shake it, and a limit is for one that does not: look at bolts and welds every day"
                       " there, or carry a kilogram less on it.", rough=km(rough)),
            place=place, size=have / limit.most, at_km=at_km, day=day, bike_id=limit.bike_id, about=f"margin-{limit.key}",
            cause="margin", case=say("{name}", name=name),
        )  # fmt: skip


def _over(s: Situation, limit: Limit, beyond: Array) -> Draft:
    worst = int(np.argmax(beyond))
    have, most = float(limit.values(s.loaded.contents)[worst]), limit.most or 0.0
    unit: Callable[[float], object] = litres if limit.of_litres else kg
    saying = SAYINGS[limit.kind]
    name = _bike_name(s, limit) if limit.kind == "system" else NAMES.get(limit.kind, limit.name)
    at_km, day, place = s.when(worst)
    bag = next((c for b in s.bikes for c in b.contents if c.carrier.id == limit.owner_id), None)
    mild = limit.of_litres or (limit.kind == "bag_mass" and beyond[worst] <= FAR_OVER * most)
    return Draft(
        kind=saying.kind,
        grade="slows_you" if mild else "stops_you",
        sentence=say(saying.sentence, name=name, have=unit(have), limit=unit(most)),  # type: ignore[arg-type]
        reason=say(saying.reason),
        place=place,
        size=float(beyond[worst]),
        at_km=at_km,
        day=day,
        bike_id=limit.bike_id,
        carrier_id=None if bag is None else limit.owner_id,
        need=have,
        holds=most,
        parts={} if bag is None else {"gear": _at(bag.least_gear_l if limit.of_litres else bag.gear_kg, worst)},
        about=limit.key,
    )


def _at(column: Array, moment: int) -> float:
    return float(column[min(moment, column.size - 1)])


def _bike_name(s: Situation, limit: Limit) -> str:
    return next(bike.bike.name for bike in s.bikes if bike.bike.id == limit.bike_id)


def _lifts(s: Situation, limit: Limit, beyond: Array) -> Draft:
    """A front wheel that too little presses on when the bike is pushed uphill."""
    slope = s.stances[limit.bike_id].pushed_lift_gradient or 0.0
    name, saying = _bike_name(s, limit), SAYINGS["pushed"]
    return Draft(
        kind=saying.kind, grade="slows_you", sentence=say(saying.sentence, slope=share(slope), bike=name),
        reason=say(saying.reason), place=say("on {bike}", bike=name), size=float(beyond.max()), bike_id=limit.bike_id,
        about=limit.key,
    )  # fmt: skip


def _tail_heavy(s: Situation, limit: Limit) -> Draft:
    """A trailer that lifts its hitch."""
    values = limit.values(s.loaded.contents)
    worst = int(np.argmin(values))
    at_km, day, place = s.when(worst)
    return Draft(
        kind="hitch_load",
        grade="stops_you",
        sentence=say("The trailer lifts the hitch by {lift}.", lift=kg(-float(values[worst]))),
        reason=say("A tail-heavy trailer sways at speed and takes grip from the rear wheel. Load it further forward."),
        place=place,
        size=-float(values[worst]),
        at_km=at_km,
        day=day,
        bike_id=limit.bike_id,
        about=limit.key,
    )


@Spec("pressed", "packed", "costs", small=True, loaded="bag", advice=("Leave something bulky", "nothing that may move eases it"))
@looks_at("voyage", "loaded")
def pressed_carriers(s: Situation) -> Iterator[Draft]:
    """Bags that close only when what is in them is pressed, or that are stuffed to the brim."""
    too_full = {limit.owner_id for limit, _ in s.loaded.broken if limit.of_litres}
    for bike in s.bikes:
        for bag in bike.contents:
            over = bag.pressed_by
            if over < HARDLY_PRESSED_L or bag.carrier.id in too_full:
                continue
            at_km, day, place = s.when(int(np.argmax(bag.litres)))
            yield Draft(
                kind="pressed",
                grade="worth_knowing",
                sentence=say("{bag} closes only when pressed by {over}.", bag=bag.carrier.name, over=litres(over)),
                reason=say("It goes, but costs time every morning, wears seams and zips, and down wants to rest loose."),
                place=place,
                size=over,
                at_km=at_km,
                day=day,
                bike_id=bike.bike.id,
                carrier_id=bag.carrier.id,
            )
