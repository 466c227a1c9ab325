"""What the kit shows by itself: doubles, single points, what is untried, worn, too old or fits nothing; and what may go home."""

from collections.abc import Iterator

from omnifer.core.findings.asked import bring
from omnifer.core.findings.mending import one_more, otherwise
from omnifer.core.findings.situation import Draft, Making, Situation, Spec, later, looks_at
from omnifer.core.model.finding import Mend, PartTold
from omnifer.core.model.kit import Thing, Whereabouts
from omnifer.core.needs import kit
from omnifer.core.needs.parcels import post_stops
from omnifer.core.needs.safe import HAZARDS
from omnifer.core.sentence import fine_kg, km, litres, number, say, share

IN_THE_KIT = say("in the kit")
FEW_NIGHTS = 0.1
"""A shelter that is needed on a smaller part of the nights is worth a word [-]; practice."""
NAMED = 6
KEPT: frozenset[str] = frozenset({"strong_lock", "messenger"})
"""Kept although no stretch asks for them any more: there are thieves and accidents elsewhere too."""
WARM: frozenset[str] = frozenset({"warm_jacket", "fleece", "warm_gloves", "gloves", "proof_gloves", "cap", "neck_tube"})
"""Of what warms, nobody has too much where it freezes."""
NEVER_IDLE: frozenset[str] = WARM | {
    "blanket", "first_aid", "medicine", "whistle", "emergency_card", "messenger", "closed_glasses", "wind_shell", "light_shell",
    "patches", "plugs", "sealant", "boot", "tube", "tyre", "pump", "levers", "hanger", "chain_link", "torch", "head_light",
    "tail_light",
}  # fmt: skip
"""What stays along whatever a guess at weather and faults says: without it a small trouble is a great one; practice."""
DAYS_LEFT, WORTH_SENDING_KG = 3, 0.2
"""Nobody goes to the post for less [d, kg]; practice."""


@Spec("twice", "spared", "costs", small=True, preparing=True, needless=True)
@looks_at("days", "kit", "load", "rig", "riders")
def doubles(s: Situation) -> Iterator[Draft]:
    """The same function twice."""
    freezes = any(day.night_low_c < 0 for day in s.days)
    for found in kit.twice(s.tour):
        if freezes and found.service.id in WARM:
            continue
        names = " and ".join(dict.fromkeys(t.name for t in found.things))
        least = max(found.things, key=lambda t: (t.unused_tours, t.mass_kg))
        yield Draft(
            kind="twice", grade="worth_knowing",
            sentence=say("{names}: {n} of what {enough} would do.", names=names, n=number(found.number),
                         enough=number(found.enough)),
            reason=say("All of them are {what}. A second one on purpose is marked as a spare.", what=found.service.words),
            place=IN_THE_KIT, size=sum(t.mass_kg * t.count for t in found.things), things=tuple(t.id for t in found.things),
            about=found.service.id,
            mends=[
                _fewer(s, least, found.number - found.enough),
                Mend(name=say("It is a spare"), consequence=say("a second one on purpose"),
                     things=[otherwise(least, spare=True)]),
            ],
        )  # fmt: skip


def _fewer(s: Situation, thing: Thing, too_many: int) -> Mend:
    """So many fewer of a thing, or none."""
    saved = say("{mass} less", mass=fine_kg(thing.mass_kg * min(too_many, thing.count)))
    if too_many >= thing.count:
        return leave(s, thing)
    left = thing.count - too_many
    moves, to_place = [], left
    for p in (p for p in s.tour.load.placements if p.thing_id == thing.id):
        n = min(p.count, to_place)
        to_place -= n
        if n:
            moves.append(p.model_copy(update={"count": n}))
    return Mend(name=say("{n} of {thing}", n=number(left), thing=thing.name), consequence=saved, moves=moves,
                things=[otherwise(thing, count=left)])  # fmt: skip


def leave(s: Situation, thing: Thing) -> Mend:
    """A thing that stays at home, with what rides in it."""
    inside = [t for t in s.tour.kit if t.inside == thing.id]
    mass = sum(t.mass_kg * t.count for t in (thing, *inside))
    return Mend(
        name=say("Leave {thing}", thing=thing.name), consequence=say("{mass} less", mass=fine_kg(mass)),
        gone=[thing.id, *(t.id for t in inside)],
    )  # fmt: skip


@Spec("hangs_on_one", "complete", "costs", small=True, no_lack=True)
@looks_at("needed", "kit")
def single(s: Situation) -> Iterator[Draft]:
    """What hangs on one thing alone, each with the cheapest second."""
    for service, thing in kit.alone(s.tour):
        yield _single(thing, service.single, later(bring, s, service.id))
    lights = kit.lights(s.tour)
    dark = s.needed.asking is not None and bool((s.needed.asking.dark | s.needed.asking.outdoors).any())
    if len(lights) == 1 and lights[0].count == 1 and dark:
        yield _single(lights[0], "gives light", later(bring, s, "torch"))
    vessel = kit.largest_vessel(s.tour)
    if vessel is not None:
        thing, part = vessel
        yield Draft(
            kind="hangs_on_one", grade="worth_knowing",
            sentence=say("{thing} holds {part} of all water.", thing=thing.name, part=share(part)),
            reason=say("If it leaks the rest is too little: several smaller vessels carry the same."), place=IN_THE_KIT,
            size=part, things=(thing.id,), about=f"{thing.id}-water",
            mends=later(one_more, s, thing, say("A second one"), say("{mass} more", mass=fine_kg(thing.mass_kg))),
        )  # fmt: skip


def _single(thing: Thing, what: str, mends: Making) -> Draft:
    return Draft(
        kind="hangs_on_one", grade="worth_knowing", sentence=say("Only {thing} {what}.", thing=thing.name, what=what),
        reason=say("If it breaks or is lost, nothing stands in for it."), place=IN_THE_KIT, size=1.0, things=(thing.id,),
        cause="single",
        mends=mends,
    )  # fmt: skip


@Spec("untried", "complete", "delays", preparing=True)
@Spec("worn_out", "complete", "delays", no_lack=True)
@Spec("mismatch", "mended", "delays", no_lack=True, needless=True)
@Spec("to_get", "complete", "costs", small=True, preparing=True)
@looks_at("voyage", "kit", "rig", "start_date", "own_values", "from_km")
def not_ready(s: Situation) -> Iterator[Draft]:
    """Things that want a trial, a repair or another one before the start, or wear out on the way."""
    yield from _saddles(s)
    for thing in kit.untried(s.tour):
        tried = Mend(
            name=say("{thing} has been tried", thing=thing.name), consequence=say("one night, one wet ride, or one filling"),
            things=[otherwise(thing, condition="trusted")],
        )  # fmt: skip
        yield Draft(
            kind="untried", grade="slows_you", sentence=say("{thing} is new and untried.", thing=thing.name),
            reason=say("Sleep or safety rest on it: try it before the start, where home is near."), place=IN_THE_KIT,
            size=1.0, things=(thing.id,), mends=[tried], cause="untried", case=say("{thing}", thing=thing.name),
        )  # fmt: skip
    for thing in kit.near_its_end(s.tour) if s.ahead_km > kit.LONG_TOUR_KM else ():
        yield Draft(
            kind="worn_out", grade="slows_you",
            sentence=say("{thing}: near its end, and {far} lie ahead.", thing=thing.name, far=km(s.ahead_km)),
            reason=say("Replace it before the start, or carry what mends it."), place=IN_THE_KIT, size=thing.mass_kg,
            things=(thing.id,), cause="worn", case=say("{thing} near its end", thing=thing.name),
            mends=[Mend(name=say("Replace {thing}", thing=thing.name), consequence=say("a trusted one of the same kind"),
                        things=[otherwise(thing, condition="new", held="wished")])],
        )  # fmt: skip
    for thing, age in kit.aged(s.tour):
        yield Draft(
            kind="worn_out", grade="worth_knowing",
            sentence=say("{thing} is {age:year|years} old.", thing=thing.name, age=number(age)),
            reason=say("Glue holds about two years, sealant one."), place=IN_THE_KIT, size=float(age), things=(thing.id,),
            cause="worn", case=say("{thing}, {age:year|years} old", thing=thing.name, age=number(age)),
            mends=[Mend(name=say("Fresh {thing}", thing=thing.name), consequence=say("a few grams"),
                        things=[otherwise(thing, year=s.tour.start_date.year)])],
        )  # fmt: skip
    for thing, what in kit.mismatched(s.tour):
        yield Draft(
            kind="mismatch", grade="slows_you", sentence=say("{thing} fits no {what} of yours.", thing=thing.name,
                                                             what=what.removeprefix("a ")),
            reason=say("It would be carried all the way for nothing."), place=IN_THE_KIT, size=thing.mass_kg * thing.count,
            things=(thing.id,), mends=[leave(s, thing)],
        )  # fmt: skip
    wished = [t for t in s.tour.kit if t.held == "wished"]
    if wished:
        names = ", ".join(t.name for t in wished[:NAMED]) + (" and more" if len(wished) > NAMED else "")
        yield Draft(
            kind="to_get", grade="worth_knowing", sentence=say("Still to be got: {names}.", names=names),
            reason=say("They count as if they were there."), place=IN_THE_KIT, size=float(len(wished)),
            things=tuple(t.id for t in wished), about="wished",
            mends=[Mend(name=say("They are there"), consequence=say("owned, and new"),
                        things=[otherwise(t, held="owned", condition="new") for t in wished])],
        )  # fmt: skip


def _saddles(s: Situation) -> Iterator[Draft]:
    """Saddles that are not broken in, of which somebody said so."""
    usual = s.tour.practice.saddle_break_in_km
    for bike in s.tour.rig.bikes:
        part = bike.part("saddle")
        if part.behind_km is None or part.behind_km >= usual or s.from_km > usual:
            continue
        yield Draft(
            kind="untried", grade="slows_you",
            sentence=say("The saddle of {bike} has {far} behind it.", bike=bike.name, far=km(part.behind_km)),
            reason=say("It fits after some {usual}, or never: nothing under a rider is changed shortly before the start.",
                       usual=km(usual)),
            place=say("on {bike}", bike=bike.name), size=1.0, bike_id=bike.id, about="saddle", cause="untried",
            case=say("the saddle of {bike}", bike=bike.name),
            mends=[Mend(name=say("Ride it {more} before the start", more=km(usual - part.behind_km)),
                        consequence=say("or put the old one back"),
                        parts=[PartTold(bike_id=bike.id, part=part.model_copy(update={"behind_km": usual}))])],
        )  # fmt: skip


TOGETHER_LOST: tuple[tuple[str, frozenset[str]], ...] = (
    ("cards for money", frozenset({"bank_card"})), ("money", frozenset({"cash"})), ("papers and their copies", frozenset(
        {"passport", "copies"})), ("pictures and their copies", frozenset({"memory_card", "data_copy"})),
    ("the lock's keys", frozenset({"lock", "strong_lock", "lock_key"})),
)  # fmt: skip
"""What is no use twice in one bag: both are lost at once; practice."""


@Spec("one_bag", "safe", "strands", small=True)
@looks_at("kit", "load", "rig")
def lost_together(s: Situation) -> Iterator[Draft]:
    """Both copies, both cards or all money in one bag."""
    at = {p.thing_id: {q.carrier_id for q in s.tour.load.placements if q.thing_id == p.thing_id} for p in s.tour.load.placements}
    names = {c.id: c.name for c in s.tour.carriers}
    for what, serves in TOGETHER_LOST:
        alike = [t for t in s.tour.kit if serves & set(t.serves)]
        kinds = {service for t in alike for service in serves & set(t.serves)}
        bags = {bag for t in alike for bag in (at.get(t.inside or t.id, {""}) if t.ever_packed else {""})}
        if len(alike) < 2 or len(kinds) < min(len(serves), 2) or len(bags) != 1 or bags == {""}:
            continue
        bag = bags.pop()
        yield Draft(
            kind="one_bag", grade="worth_knowing", sentence=say("{what} all lie in {bag}.", what=what[:1].upper() + what[1:],
                                                                bag=names[bag]),
            reason=say("Whoever loses that bag loses all of it: one of them elsewhere, or on the body."),
            place=say("in {bag}", bag=names[bag]), size=float(len(alike)), things=tuple(t.id for t in alike), about=what,
            cause="one bag", case=say("{what} in {bag}", what=what, bag=names[bag]),
            mends=later(_apart, s, min(alike, key=lambda t: (t.inside is not None, t.volume_l))),
        )  # fmt: skip


def _apart(s: Situation, thing: Thing) -> Iterator[Mend]:
    """On the body: small and dear things go there anyway."""
    if not thing.where and thing.inside is None:
        yield Mend(
            name=say("{thing} on the body", thing=thing.name), consequence=say("in a pocket that closes"),
            things=[otherwise(thing, where=[Whereabouts(how="pocket").model_dump()])],
        )  # fmt: skip


@Spec("big_thing", "spared", "costs", small=True, preparing=True)
@looks_at("kit")
def large(s: Situation) -> Iterator[Draft]:
    """One thing that is much of the load: named, never blamed."""
    for thing, of_litres, of_kg in kit.big(s.tour):
        yield Draft(
            kind="big_thing", grade="worth_knowing",
            sentence=say("{thing}: {litres} of the litres, {kg} of the kilograms.", thing=thing.name, litres=share(of_litres),
                         kg=share(of_kg)),
            reason=say("{mass}, {volume}. A lighter or smaller one of its kind changes most; its price on this tour stands in"
                       " the kit.", mass=fine_kg(thing.mass_kg), volume=litres(thing.volume_l)),
            place=IN_THE_KIT, size=max(of_litres, of_kg), things=(thing.id,),
        )  # fmt: skip


@Spec("not_asked", "spared", "costs", small=True, preparing=True, needless=True)
@Spec("idle_shelter", "warm", "costs", small=True, preparing=True)
@looks_at("days", "needed", "kit")
def not_asked(s: Situation) -> Iterator[Draft]:
    """What serves only what no day of this tour asks for, and shelter that few nights ask for."""
    asking = s.needed.asking
    if asking is None:
        return
    idle = [
        t
        for t in s.tour.kit
        if t.serves and t.role is None and set(t.serves) <= s.needed.idle and not t.must and not NEVER_IDLE & set(t.serves)
    ]
    if idle:
        names = ", ".join(t.name for t in idle[:NAMED]) + (" and more" if len(idle) > NAMED else "")
        mass, volume = (sum(xs) for xs in zip(*((t.mass_kg * t.count, t.volume_l * t.count) for t in idle), strict=True))
        yield Draft(
            kind="not_asked", grade="worth_knowing", sentence=say("Nothing on this road asks for {names}.", names=names),
            reason=say("{mass}, {volume} in all. Comfort needs no reason; a guess at the weather may be wrong.",
                       mass=fine_kg(mass), volume=litres(volume)),
            place=IN_THE_KIT, size=mass, things=tuple(t.id for t in idle), about="idle",
            mends=[leave(s, t) for t in sorted(idle, key=lambda t: -t.mass_kg * t.count)[:NAMED]],
        )  # fmt: skip
    shelter = asking.serving("tent", "fly", "poles", "pegs", "groundsheet")
    nights, slept = int(asking.outdoors.sum()), max(len(s.days) - 1, 1)
    if shelter and nights < FEW_NIGHTS * slept:
        mass, volume = (sum(x * t.count for t, x in zip(shelter, xs, strict=True)) for xs in zip(
            *((t.mass_kg, t.volume_l) for t in shelter), strict=True))  # fmt: skip
        yield Draft(
            kind="idle_shelter", grade="worth_knowing",
            sentence=say("{n} of {slept:night|nights} {n::asks|ask} for a tent.", n=number(nights), slept=number(slept)),
            reason=say("It is {mass} and {volume}; rooms on those nights would free both.", mass=fine_kg(mass),
                       volume=litres(volume)),
            place=IN_THE_KIT, size=mass, things=tuple(t.id for t in shelter), about="shelter",
            mends=[Mend(name=say("Leave the tent"), consequence=say("{mass} less", mass=fine_kg(mass)),
                        gone=[t.id for t in shelter])] if nights == 0 else [],
        )  # fmt: skip


@Spec("may_go_home", "safe", "costs", small=True, no_lack=True)
@looks_at("days", "needed", "kit", "road")
def going_home(s: Situation) -> Iterator[Draft]:
    """Things that a hazard asked for, once its last stretch is behind."""
    asking = s.needed.asking
    if asking is None:
        return
    last = len(s.days)
    for one in s.needed.answers:
        ask = one.ask
        kinds = {kind for kind, serves, *_ in HAZARDS if serves[0] == ask.serves[0]}
        ends = max((h.to_km for h in s.tour.road.hazards if h.kind in kinds), default=None)
        if ends is None or ask.serves[0] in KEPT or not ask.thing_ids or last - ask.to_day < DAYS_LEFT:
            continue
        for thing in (t for t in s.tour.kit if t.id in ask.thing_ids and not t.comes_and_goes and t.inside is None):
            needed = s.needed.days_of(thing)
            mass = thing.mass_kg * thing.count
            if needed is None or not needed[ask.to_day - 1] or needed[ask.to_day :].any() or mass < WORTH_SENDING_KG:
                continue
            yield Draft(
                kind="may_go_home", grade="worth_knowing",
                sentence=say("{thing} can go home after {km}.", thing=thing.name, km=km(ends)),
                reason=say("What asks for it ends there, on day {day} of {last}.", day=number(ask.to_day), last=number(last)),
                place=say("day {day}, {km}", day=number(ask.to_day), km=km(ends)), size=mass, at_km=ends,
                day=ask.to_day, things=(thing.id,), mends=later(posted, s, thing, ask.to_day, ends),
            )  # fmt: skip


def posted(s: Situation, thing: Thing, day: int, after_km: float) -> Iterator[Mend]:
    """A thing posted home from the first stop with post that is open when one is there."""
    stop = next((stop for stop in post_stops(s.tour, s.voyage) if stop.at_km >= after_km), None)
    if stop is not None:
        where = (*thing.where, Whereabouts(from_km=stop.at_km, how="posted", stop_id=stop.id))
        yield Mend(name=say("Post it home from {place}", place=stop.name), things=[otherwise(thing, where=where)],
                   consequence=say("at {km}, {mass} less from there", km=km(stop.at_km),
                                   mass=fine_kg(thing.mass_kg * thing.count)))  # fmt: skip
