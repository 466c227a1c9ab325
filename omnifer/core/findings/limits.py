"""Limits exceeded: bags, racks, wheels, bikes, hitches."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from omnifer.core.findings.situation import Draft, Situation
from omnifer.core.load.rules import clash, spot_of, why_not
from omnifer.core.load.trace import SLACK, BikeLoad, CarrierContents
from omnifer.core.model.finding import FindingKind, Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import Text
from omnifer.core.sentence import kg, litres, say

Array = NDArray[np.float64]


def overfull_carriers(s: Situation) -> Iterator[Draft]:
    """A bag over its volume or over its limit at its fullest moment."""
    for bike in s.bikes:
        for held in bike.contents:
            carrier = held.carrier
            for kind, values, limit, unit in (
                ("over_mass", held.borne_kg, carrier.limit_kg, kg),
                ("over_volume", held.pressed_l, held.brim_l, litres),
            ):
                worst = int(np.argmax(values))
                over = float(values[worst]) - limit
                if over <= SLACK:
                    continue
                at_km, day, place = s.when(worst)
                is_mass = kind == "over_mass"
                yield Draft(
                    kind="over_mass" if is_mass else "over_volume",
                    grade="stops_you" if is_mass and over > 0.2 * limit else "slows_you",
                    sentence=say("{bag} holds {have} of {limit}.", bag=carrier.name, have=unit(values[worst]), limit=unit(limit)),
                    reason=say(
                        "The maker's limit counts: an overloaded bag comes off or tears."
                        if is_mass
                        else "What does not go in hangs outside, gets wet and gets lost."
                    ),
                    place=place,
                    size=over,
                    at_km=at_km,
                    day=day,
                    bike_id=bike.bike.id,
                    carrier_id=carrier.id,
                    need=float(values[worst]),
                    holds=limit,
                    parts={"gear": held.gear_kg if is_mass else held.least_gear_l},
                    mends=_move_out(s, bike, held, over, is_mass),
                )


def pressed_carriers(s: Situation) -> Iterator[Draft]:
    """Bags that close only when what is in them is pressed, or that are stuffed to the brim."""
    for bike in s.bikes:
        for held in bike.contents:
            if "pressed" not in held.states():
                continue
            worst = int(np.argmax(held.litres))
            at_km, day, place = s.when(worst)
            over = float(held.litres[worst]) - held.room_l
            yield Draft(
                kind="pressed",
                grade="worth_knowing",
                sentence=say("{bag} closes only when pressed by {over}.", bag=held.carrier.name, over=litres(over)),
                reason=say("It goes, but costs time every morning, wears seams and zips, and down wants to rest loose."),
                place=place,
                size=over,
                at_km=at_km,
                day=day,
                bike_id=bike.bike.id,
                carrier_id=held.carrier.id,
            )


def _move_out(s: Situation, bike: BikeLoad, held: CarrierContents, over: float, by_mass: bool) -> list[Mend]:
    """Single things whose move to another bag mends an overfull one and breaks no limit there."""
    mends = []
    free = [(t, p) for t, p in held.inside if not p.pinned]
    sized = sorted(free, key=lambda pair: pair[0].mass_kg if by_mass else pair[0].least_l)
    for thing, placement in sized:
        relief = (thing.mass_kg if by_mass else thing.least_l) * placement.count
        if relief + SLACK < over:
            continue
        for other in (h for b in s.bikes for h in b.contents):
            if other is held or why_not(thing, spot_of(s.tour.bike_of(other.carrier.id), other.carrier)) is not None:
                continue
            mass, volume = thing.mass_kg * placement.count, thing.least_l * placement.count
            fits = other.borne_kg.max() + mass <= other.carrier.limit_kg and other.pressed_l.max() + volume <= other.brim_l
            if not fits or any(clash(thing, neighbour) for neighbour, _ in other.inside):
                continue
            mends.append(
                Mend(
                    name=say("{thing} to {bag}", thing=thing.name, bag=other.carrier.name),
                    consequence=say(
                        "takes {mass} and {volume} with it; {bag} then holds {then}",
                        mass=kg(mass),
                        volume=litres(volume),
                        bag=other.carrier.name,
                        then=kg(float(other.kg.max()) + mass),
                    ),
                    moves=_moved(s, thing, held.carrier.id, other.carrier.id),
                )
            )
            break
        if len(mends) == 2:
            break
    return mends


def _moved(s: Situation, thing: Thing, source: str, target: str) -> list[Placement]:
    """The placements of a thing after all of it in one carrier went to another."""
    counts: dict[str, int] = {}
    pins: dict[str, bool] = {}
    for placement in s.tour.load.placements:
        if placement.thing_id == thing.id:
            at = target if placement.carrier_id == source else placement.carrier_id
            counts[at] = counts.get(at, 0) + placement.count
            pins[at] = pins.get(at, False) or placement.pinned
    return [Placement(thing_id=thing.id, carrier_id=c, count=n, pinned=pins[c]) for c, n in counts.items()]


def overloaded_supports(s: Situation) -> Iterator[Draft]:
    """A rack, cage or trailer over its limit, bags included."""
    for bike in s.bikes:
        for support, values in zip(bike.bike.supports, bike.support_kg().values(), strict=True):
            yield from _over(
                s, bike, "over_support", values, support.limit_kg, support.name,
                say("Bags and what is in them hang on it. Loose or broken racks can throw a rider."),
            )  # fmt: skip


def overloaded_wheels(s: Situation) -> Iterator[Draft]:
    """A wheel over its limit with the rider on."""
    for bike in s.bikes:
        for name, values, limit in (
            ("The front wheel", bike.front + bike.rider_front, bike.bike.front_wheel_limit_kg),
            ("The rear wheel", bike.rear + bike.rider_rear, bike.bike.rear_wheel_limit_kg),
        ):
            yield from _over(s, bike, "over_wheel", values, limit, name, say("With the rider on. Rim, tyre and spokes bear it."))


def overloaded_bikes(s: Situation) -> Iterator[Draft]:
    """A bike over its maker's limit for all it bears."""
    for bike in s.bikes:
        borne = bike.front + bike.rear + bike.rider_kg
        reason = say("Bike, rider and all that rides on the bike; what the trailer's wheel bears is apart.")
        yield from _over(s, bike, "over_system", borne, bike.bike.maximum_system_kg, bike.bike.name, reason)


def _over(
    s: Situation, bike: BikeLoad, kind: FindingKind, values: Array, limit: float, name: str, reason: Text
) -> Iterator[Draft]:
    worst = int(np.argmax(values))
    over = float(values[worst]) - limit
    if over > SLACK:
        at_km, day, place = s.when(worst)
        yield Draft(
            kind=kind,
            grade="stops_you",
            sentence=say("{name} carries {have} of {limit}.", name=name, have=kg(values[worst]), limit=kg(limit)),
            reason=reason,
            place=place,
            size=over,
            at_km=at_km,
            day=day,
            bike_id=bike.bike.id,
            need=float(values[worst]),
            holds=limit,
        )


def hitch_loads(s: Situation) -> Iterator[Draft]:
    """A hitch that lifts the rear wheel, or presses too hard."""
    for bike in s.bikes:
        trailer = bike.levers.frame.trailer_frame()
        if trailer is None:
            continue
        worst = int(np.argmin(bike.hitch))
        if bike.hitch[worst] < -SLACK:
            at_km, day, place = s.when(worst)
            yield Draft(
                kind="hitch_load",
                grade="stops_you",
                sentence=say("The trailer lifts the hitch by {lift}.", lift=kg(-float(bike.hitch[worst]))),
                reason=say("A tail-heavy trailer sways at speed and takes grip from the rear wheel. Load it further forward."),
                place=place,
                size=-float(bike.hitch[worst]),
                at_km=at_km,
                day=day,
                bike_id=bike.bike.id,
            )
        reason = say("The hitch and the bike's rear wheel bear it. Load the trailer nearer its wheel.")
        yield from _over(s, bike, "hitch_load", bike.hitch, trailer.hitch_most_kg, "The hitch", reason)
