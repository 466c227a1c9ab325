"""What goes wrong, where, when and why, and what would mend it: one kind of trouble, one function."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from omnifer.core.load.aims import SIDES_TOLERANCE_KG
from omnifer.core.load.rules import clash, steps_too_deep, why_not
from omnifer.core.load.trace import BikeLoad, CarrierContents
from omnifer.core.model.assessment import GRADES, Day, Finding, FindingKind, Gap, Grade, Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import Text
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import practice
from omnifer.core.sentence import celsius, hours, kg, km, litres, number, say, share
from omnifer.core.voyage import Voyage

SLACK = 0.005
"""Differences below this are rounding [kg, l]."""
LONG_DAY_HOURS = 8.5
"""Riding hours that few keep up day after day [h]; practice."""
SHOWN_PER_KIND = 4
"""Findings of one kind shown singly; the rest is summed up in the last."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Situation:
    """All that findings look at."""

    tour: TourSheet
    voyage: Voyage | None
    bikes: list[BikeLoad]
    days: list[Day]
    gaps: list[Gap]

    def when(self, moment: int) -> tuple[float | None, int | None, Text]:
        """Kilometre, day and words for a moment."""
        if self.voyage is None or not self.voyage.moments:
            return None, None, say("at the start")
        at = self.voyage.moments[moment]
        day = self.voyage.day_of(at.km, at.leaving)
        if at.place:
            return at.km, day, say("day {day}, leaving {place}", day=number(day), place=at.place)
        return at.km, day, say("day {day}, {km}", day=number(day), km=km(at.km))


@dataclass(frozen=True)
class Draft:
    """A finding before it is ranked."""

    kind: FindingKind
    grade: Grade
    sentence: Text
    reason: Text
    place: Text
    size: float
    at_km: float | None = None
    to_km: float | None = None
    day: int | None = None
    bike_id: str | None = None
    carrier_id: str | None = None
    need: float | None = None
    holds: float | None = None
    parts: dict[str, float] = field(default_factory=dict)
    mends: list[Mend] = field(default_factory=list)


Check = Callable[[Situation], Iterator[Draft]]


def water_gaps(s: Situation) -> Iterator[Draft]:
    """A stretch between sure water that takes more than the vessels hold."""
    for gap in s.gaps:
        if gap.supply != "water" or gap.short <= SLACK:
            continue
        nights = "{nights} dry camps" if gap.nights != 1 else "one dry camp"
        chance = ""
        if gap.chances:
            chance = " {chances} may be dry and does not count."
        reason = say(
            "{distance} and {hours} of riding to sure water at {to}, " + nights + "." + chance,
            distance=km(gap.to_km - gap.from_km),
            hours=hours(gap.hours),
            to=gap.to_name,
            nights=number(gap.nights),
            chances=", ".join(gap.chances),
        )
        mends = [
            Mend(
                name=say("Carry {more} more in soft bottles", more=litres(gap.short)),
                consequence=say("adds {mass} full, next to nothing empty", mass=kg(gap.short)),
            )
        ]
        if gap.nights:
            camp = practice.DRY_CAMP_L * len(s.tour.riders)
            mends.append(
                Mend(
                    name=say("Cook and wash before leaving {place}, and camp dry on less", place=gap.from_name),
                    consequence=say("a dry camp is counted with {camp}", camp=litres(camp)),
                )
            )
        yield Draft(
            kind="water_gap",
            grade="stops_you",
            sentence=say(
                "Leaving {place} you need {need} of water. The rig holds {holds}.",
                place=gap.from_name,
                need=litres(gap.need),
                holds=litres(gap.holds or 0),
            ),
            reason=reason,
            place=say("day {day}, {from_km} to {to_km}", day=number(gap.day), from_km=km(gap.from_km), to_km=km(gap.to_km)),
            size=gap.short,
            at_km=gap.from_km,
            to_km=gap.to_km,
            day=gap.day,
            need=gap.need,
            holds=gap.holds,
            parts={"riding": gap.riding, "camp": gap.camp, "reserve": gap.reserve},
            mends=mends,
        )


def overfull_carriers(s: Situation) -> Iterator[Draft]:
    """A bag over its volume or over its limit at its fullest moment."""
    for bike in s.bikes:
        for held in bike.contents:
            carrier = held.carrier
            for kind, values, limit, unit in (
                ("over_mass", held.kg, carrier.limit_kg, kg),
                ("over_volume", held.litres, carrier.volume_l, litres),
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
                    parts={"gear": held.gear_kg if is_mass else held.gear_l},
                    mends=_move_out(s, bike, held, over, is_mass),
                )


def _move_out(s: Situation, bike: BikeLoad, held: CarrierContents, over: float, by_mass: bool) -> list[Mend]:
    """Single things whose move to another bag mends an overfull one and breaks no limit there."""
    mends = []
    pinned = [(t, p) for t, p in held.inside if not p.pinned]
    sized = sorted(pinned, key=lambda pair: pair[0].mass_kg if by_mass else pair[0].volume_l)
    for thing, placement in sized:
        relief = (thing.mass_kg if by_mass else thing.volume_l) * placement.count
        if relief + SLACK < over:
            continue
        for other in (h for b in s.bikes for h in b.contents):
            if other is held or why_not(thing, other.carrier, s.tour.bike_of(other.carrier.id)) is not None:
                continue
            mass, volume = thing.mass_kg * placement.count, thing.volume_l * placement.count
            fits = other.kg.max() + mass <= other.carrier.limit_kg and other.litres.max() + volume <= other.carrier.volume_l
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


def misplaced(s: Situation) -> Iterator[Draft]:
    """Things that get damp, lie too deep, are too long, or ride with what they must not."""
    for bike in s.bikes:
        for held in bike.contents:
            carrier = held.carrier
            for thing, _ in held.inside:
                deep = steps_too_deep(thing, carrier)
                at = {"bike_id": bike.bike.id, "carrier_id": carrier.id}
                where = say("in {bag}", bag=carrier.name)
                if thing.dry == "must" and carrier.dryness != "waterproof":
                    yield Draft(
                        kind="not_dry",
                        grade="slows_you",
                        sentence=say("{thing} gets damp in {bag}.", thing=thing.name, bag=carrier.name),
                        reason=say("It must stay dry and has no dry bag of its own; the bag keeps out splashes at most."),
                        place=where,
                        size=3,
                        mends=[Mend(name=say("Give it its own dry bag"), consequence=say("about {mass}", mass=kg(0.06)))],
                        **at,
                    )
                if thing.longest_mm > carrier.longest_mm:
                    reason = why_not(thing, carrier, bike.bike)
                    yield Draft(
                        kind="too_long",
                        grade="slows_you",
                        sentence=say("{thing} is too long for {bag}.", thing=thing.name, bag=carrier.name),
                        reason=reason or say("It does not close."),
                        place=where,
                        size=3,
                        **at,
                    )
                if deep:
                    yield Draft(
                        kind="too_deep",
                        grade="worth_knowing" if deep == 1 else "slows_you",
                        sentence=say("{thing} is out of reach in {bag}.", thing=thing.name, bag=carrier.name),
                        reason=say("A thing deeper than its reach is not used, or costs a full unpack."),
                        place=where,
                        size=deep,
                        **at,
                    )
            for a in range(len(held.inside)):
                for b in range(a):
                    reason = clash(held.inside[a][0], held.inside[b][0])
                    if reason is not None:
                        yield Draft(
                            kind="not_together",
                            grade="slows_you",
                            sentence=say(
                                "{a} and {b} share {bag}.",
                                a=held.inside[a][0].name,
                                b=held.inside[b][0].name,
                                bag=carrier.name,
                            ),
                            reason=reason,
                            place=say("in {bag}", bag=carrier.name),
                            size=2,
                            bike_id=bike.bike.id,
                            carrier_id=carrier.id,
                        )


def sides(s: Situation) -> Iterator[Draft]:
    """One side heavier than the other."""
    for bike in s.bikes:
        difference = bike.right - bike.left
        worst = int(np.argmax(np.abs(difference)))
        off = float(difference[worst])
        if abs(off) <= SIDES_TOLERANCE_KG + 0.25:
            continue
        at_km, day, place = s.when(worst)
        yield Draft(
            kind="sides",
            grade="slows_you" if abs(off) > 1.5 else "worth_knowing",
            sentence=say(
                "{bike}: {side} is {off} heavier.", bike=bike.bike.name, side="right" if off > 0 else "left", off=kg(abs(off))
            ),
            reason=say("Within {tolerance} a side the bike stays upright by itself; beyond, you steer against it all day.",
                       tolerance=kg(SIDES_TOLERANCE_KG)),
            place=place,
            size=abs(off),
            at_km=at_km,
            day=day,
            bike_id=bike.bike.id,
        )  # fmt: skip


def front_shares(s: Situation) -> Iterator[Draft]:
    """A front wheel too light to steer or too heavy to turn."""
    for bike in s.bikes:
        part = bike.front_share
        low, high = bike.bike.front_share_low, bike.bike.front_share_high
        for worst, off, words in (
            (int(np.argmin(part)), low - float(part.min()), "{bike}: the front wheel carries only {part}."),
            (int(np.argmax(part)), float(part.max()) - high, "{bike}: the front wheel carries {part}."),
        ):
            if off <= 0.005:
                continue
            at_km, day, place = s.when(worst)
            yield Draft(
                kind="front_share",
                grade="slows_you" if off > 0.06 else "worth_knowing",
                sentence=say(words, bike=bike.bike.name, part=share(float(part[worst]))),
                reason=say(
                    "Without the rider, {low} to {high} is set as steady. A light front lifts on climbs, a heavy one steers slowly.",
                    low=share(low),
                    high=share(high),
                ),
                place=place,
                size=off * 10,
                at_km=at_km,
                day=day,
                bike_id=bike.bike.id,
            )


def food_room(s: Situation) -> Iterator[Draft]:
    """Food of a gap that has no place on the bikes."""
    if s.voyage is None or not s.tour.load.placements:
        return
    tenths = sum(f.tenths for f in s.tour.load.food)
    if tenths == 10:
        return
    fullest = int(np.argmax(s.voyage.food_kg))
    missing = float(s.voyage.food_kg[fullest]) * (10 - tenths) / 10
    at_km, day, place = s.when(fullest)
    gap = next((g for g in s.gaps if g.supply == "food" and g.from_km == at_km), None)
    yield Draft(
        kind="no_room_for_food",
        grade="slows_you",
        sentence=say(
            "{mass} of food, {volume}, has no place.", mass=kg(missing), volume=litres(missing * practice.FOOD_L_PER_KG)
        ),
        reason=say(
            "The longest stretch between shops is {distance}. Keep room for it before the bags are full.",
            distance=km(gap.to_km - gap.from_km if gap else s.voyage.profile.length_km),
        ),
        place=place,
        size=missing,
        at_km=at_km,
        day=day,
    )


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
        sentence=say("{count} things are still on the shelf.", count=number(sum(out.values())))
        if sum(out.values()) != 1
        else say("{names} is still on the shelf.", names=names),
        reason=say("{names}: {mass} in all. They ride nowhere yet.", names=names, mass=kg(mass)),
        place=say("on the shelf"),
        size=mass,
    )


def shelf_of(tour: TourSheet) -> dict[str, int]:
    """How many of each thing are placed nowhere, zeros left out."""
    out = {thing.id: thing.count for thing in tour.kit}
    for placement in tour.load.placements:
        out[placement.thing_id] -= placement.count
    return {thing_id: count for thing_id, count in out.items() if count > 0}


def days(s: Situation) -> Iterator[Draft]:
    """Days longer than the light, or than most riders last."""
    for day in s.days:
        on_road = day.riding_hours + day.pause_hours
        place = say("day {day}, {from_km} to {to_km}", day=number(day.number), from_km=km(day.from_km), to_km=km(day.to_km))
        if day.daylight_hours is not None and on_road > day.daylight_hours:
            yield Draft(
                kind="dark_day",
                grade="slows_you",
                sentence=say("Day {day} is {on_road} on the road; light lasts {light}.", day=number(day.number),
                             on_road=hours(on_road), light=hours(day.daylight_hours)),
                reason=say("Pauses included. Hills and haze shorten the light further."),
                place=place, size=on_road - day.daylight_hours, at_km=day.from_km, to_km=day.to_km, day=day.number,
            )  # fmt: skip
        elif day.riding_hours > LONG_DAY_HOURS:
            yield Draft(
                kind="long_day",
                grade="worth_knowing",
                sentence=say("Day {day} is {riding} of riding.", day=number(day.number), riding=hours(day.riding_hours)),
                reason=say("With the pauses counted here, {on_road} on the road.", on_road=hours(on_road)),
                place=place, size=day.riding_hours - LONG_DAY_HOURS, at_km=day.from_km, to_km=day.to_km, day=day.number,
            )  # fmt: skip


def cold_nights(s: Situation) -> Iterator[Draft]:
    """The coldest night, named so that the sleep kit can be held against it."""
    if s.voyage is None or not s.voyage.climate.known or not s.days:
        return
    coldest = min(s.days, key=lambda day: day.night_low_c)
    if coldest.night_low_c < 0:
        yield Draft(
            kind="cold_night",
            grade="worth_knowing",
            sentence=say("The coldest night is {low}, day {day}.", low=celsius(coldest.night_low_c), day=number(coldest.number)),
            reason=say("A cold night of the season at that height; hollows on clear nights may be 5 to 10 degrees colder."),
            place=say("day {day}, {km}", day=number(coldest.number), km=km(coldest.to_km)),
            size=-coldest.night_low_c / 10,
            at_km=coldest.to_km,
            day=coldest.number,
        )


def guesses(s: Situation) -> Iterator[Draft]:
    """Masses that were guessed and weigh enough to matter."""
    guessed = [thing for thing in s.tour.kit if thing.guess]
    if guessed:
        mass = sum(thing.mass_kg * thing.count for thing in guessed)
        yield Draft(
            kind="guesses",
            grade="worth_knowing",
            sentence=say("{count} weights are guesses.", count=number(len(guessed))),
            reason=say("Together {mass}. Put them on a kitchen scale.", mass=kg(mass)),
            place=say("in the kit"),
            size=mass / 10,
        )


CHECKS: dict[Check, tuple[FindingKind, ...]] = {
    water_gaps: ("water_gap",),
    overfull_carriers: ("over_volume", "over_mass"),
    overloaded_supports: ("over_support",),
    overloaded_wheels: ("over_wheel",),
    overloaded_bikes: ("over_system",),
    hitch_loads: ("hitch_load",),
    misplaced: ("not_dry", "too_deep", "too_long", "not_together"),
    sides: ("sides",),
    front_shares: ("front_share",),
    food_room: ("no_room_for_food",),
    shelf: ("on_shelf",),
    days: ("dark_day", "long_day"),
    cold_nights: ("cold_night",),
    guesses: ("guesses",),
}
"""Every check and the kinds of trouble it looks for."""


def find(situation: Situation) -> list[Finding]:
    """All findings, ranked: by grade, then the day on which they bite, then size."""
    drafts = [draft for check in CHECKS for draft in _bounded(check(situation))]
    drafts.sort(key=lambda d: (GRADES.index(d.grade), d.day or 0, -d.size, d.kind))
    return [_ranked(rank, draft) for rank, draft in enumerate(drafts, 1)]


def _bounded(drafts: Iterator[Draft]) -> Iterator[Draft]:
    """Of each kind the worst few; the last shown says how many more there are."""
    by_kind: dict[str, list[Draft]] = {}
    for draft in drafts:
        by_kind.setdefault(draft.kind, []).append(draft)
    for found in by_kind.values():
        found.sort(key=lambda d: (GRADES.index(d.grade), -d.size))
        shown, rest = found[:SHOWN_PER_KIND], len(found) - SHOWN_PER_KIND
        if rest > 0:
            last = shown[-1]
            words = last.reason.words + " {more} more of this kind."
            figures = last.reason.figures | {"more": number(rest)}
            shown[-1] = replace(last, reason=Text(words=words, figures=figures, names=last.reason.names))
        yield from shown


def _ranked(rank: int, draft: Draft) -> Finding:
    volumes = draft.kind in ("water_gap", "over_volume")
    return Finding(
        id=f"{draft.kind}-{draft.bike_id or ''}-{draft.carrier_id or ''}-{draft.day or ''}-{rank}",
        kind=draft.kind,
        grade=draft.grade,
        rank=rank,
        sentence=draft.sentence,
        reason=draft.reason,
        place=draft.place,
        at_km=draft.at_km,
        to_km=draft.to_km,
        day=draft.day,
        bike_id=draft.bike_id,
        carrier_id=draft.carrier_id,
        need=draft.need,
        holds=draft.holds,
        parts=draft.parts,
        quantity=None if draft.need is None else "volume" if volumes else "mass",
        mends=draft.mends,
    )
