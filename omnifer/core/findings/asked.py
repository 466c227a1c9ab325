"""What this road asks for and nothing answers, what cannot be mended, and evenings too cold for what is worn."""

import math
from collections.abc import Iterator

from omnifer.core.findings.mending import a_new, into_reach, new_id, one_more, otherwise
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at
from omnifer.core.model.carrier_kind import KINDS as CARRIERS
from omnifer.core.model.finding import FindingKind, Mend, QuestionId
from omnifer.core.model.kit import Fit, Thing, Whereabouts
from omnifer.core.model.needs import Ask, Fault, Layers
from omnifer.core.model.rig import Bike
from omnifer.core.model.roles import UsedUp
from omnifer.core.model.serves import SERVICES
from omnifer.core.needs.body import HABITS
from omnifer.core.needs.fitting import fit_for
from omnifer.core.needs.repair import named
from omnifer.core.needs.worn import evening_clo
from omnifer.core.sentence import celsius, fine_kg, hours, joined, km, litres, number, say, share, tenths
from omnifer.core.supplies.used_up import users_of

KINDS: dict[QuestionId, FindingKind] = {
    "dressed": "thin_layers", "warm": "no_shelter", "seen": "not_seen", "safe": "not_safe", "complete": "incomplete",
}  # fmt: skip
"""What the lack of an answer is called, by its question."""
MEDICINE_SPARE_D = 3
"""Own medicine lasts for so many days more than the tour [d]; practice."""
EVENING_H, SHORT_EVENING_H = 1.0, 0.5
"""Pitching and cooking take so long out of doors; of less than the second nobody cooks [h]; practice."""
HOLDER_KG = 0.6
"""A holder on the frame bears things up to this [kg]; practice."""
SOAKED = "soaked"
"""What lacks against rain where being wet is more than unpleasant is one trouble, of legs, hands and riders alike."""
SELDOM = 0.03
"""What happens less often on such a stretch slows nobody down; practice."""
HARDLY = 0.01
"""A chance below this is told as under 1 % [-]."""
SHOWN_MENDS = 2
"""Of several that would answer, so many are offered."""


@Spec("thin_layers", "dressed", "hurts")
@Spec("no_shelter", "warm", "hurts")
@Spec("not_seen", "seen", "hurts", small=True)
@Spec("not_safe", "safe", "hurts", small=True)
@Spec("incomplete", "complete", "costs", small=True)
@looks_at("days", "needed", "kit", "rig", "riders")
def unanswered(s: Situation) -> Iterator[Draft]:
    """Everything asked for that nothing answers, or that no hand finds in time."""
    for ask in s.needed.asks:
        if ask.state in ("lacking", "too_deep"):
            yield _lacking(s, ask)
    yield from _medicine(s)


def _medicine(s: Situation) -> Iterator[Draft]:
    """Own medicine that does not last for the tour and some days more."""
    for thing in s.tour.kit if s.needed.asking is not None else ():
        role = thing.role
        if "medicine" not in thing.serves or not isinstance(role, UsedUp) or role.per != "person_day" or role.rate <= 0:
            continue
        a_day = role.rate * users_of(s.tour, thing)
        lasts, asked = role.holds * thing.count / a_day, len(s.days) + MEDICINE_SPARE_D
        if lasts < asked:
            more = math.ceil(asked * a_day / role.holds) - thing.count
            yield Draft(
                kind="not_safe", grade="stops_you",
                sentence=say("{thing} lasts {lasts:day|days} of {asked}.", thing=thing.name, lasts=number(math.floor(lasts)),
                             asked=number(asked)),
                reason=say("The tour, and {spare:day|days} for delays. Some of it is not to be had elsewhere: ask your doctor.",
                           spare=number(MEDICINE_SPARE_D)),
                place=say("in the kit"), size=asked - lasts, things=(thing.id,),
                mends=later(one_more, s, thing, say("{n} more", n=number(more)), say("for the whole tour"), more),
            )  # fmt: skip


def _lacking(s: Situation, ask: Ask) -> Draft:
    whose = _whose(s, ask)
    day = s.days[(ask.lacks_day or ask.from_day) - 1]
    span = say("asked on {n:day|days}, {from_} to {to}.", n=number(ask.days), from_=number(ask.from_day), to=number(ask.to_day))
    if ask.days == len(s.days):
        span = say("asked every day.")
    elif ask.days == 1:
        span = say("asked on day {from_}.", from_=number(ask.from_day))
    reason = joined([ask.because, span])
    reason = reason.model_copy(update={"words": reason.words[:1].upper() + reason.words[1:]})
    if ask.state == "too_deep":
        sentence = say("{what} cannot be reached in time{whose}.", what=ask.words[:1].upper() + ask.words[1:], whose=whose)
    elif ask.thing_ids and ask.lacks == ask.days:
        sentence = say("Not enough: {what}{whose}.", what=named(ask.serves[0]), whose=whose)
    elif ask.thing_ids:
        sentence = say("{n:day|days} without {what}{whose}.", n=number(ask.lacks), what=ask.words, whose=whose)
    else:
        sentence = say("Nobody has {what}{whose}.", what=ask.words, whose=whose)
    return Draft(
        kind=KINDS[ask.question], grade=ask.grade, sentence=sentence, reason=reason,
        place=say("day {day}, {km}", day=number(day.number), km=km(day.from_km)), size=float(ask.lacks or ask.days),
        at_km=day.from_km, to_km=s.days[ask.to_day - 1].to_km, day=day.number, bike_id=ask.bike_id, things=tuple(ask.thing_ids),
        cause=_cause(ask),
        case=say("{what}{whose}", what=ask.words, whose=whose),
        mends=later(_answers, s, ask),
    )  # fmt: skip


def _cause(ask: Ask) -> str:
    """What is one trouble: all rain wear where being wet does harm, all that lacks against hazards of a grade, else a service."""
    if (ask.question, ask.grade) == ("dressed", "stops_you"):
        return SOAKED
    if ask.serves[0] in HABITS and ask.state == "lacking":
        return "habits"
    if ask.question == "safe" and ask.state == "lacking":
        return f"hazards-{ask.grade}"
    return f"{ask.serves[0]}-{ask.state}"


def _whose(s: Situation, ask: Ask) -> str:
    """For whom, as a sentence ends with it."""
    if ask.rider_id is not None:
        return " for " + next(r.name for r in s.tour.riders if r.id == ask.rider_id)
    if ask.bike_id is not None:
        return " on " + next(b.name for b in s.tour.rig.bikes if b.id == ask.bike_id)
    return ""


def _answers(s: Situation, ask: Ask) -> Iterator[Mend]:
    if ask.state == "too_deep":
        for thing in (t for t in s.tour.kit if t.id in ask.thing_ids):
            reach = SERVICES[ask.serves[0]].reach
            move = into_reach(s, thing, reach)
            if move is not None:
                yield move
            elif not thing.where and thing.inside is None and thing.mass_kg <= HOLDER_KG:
                held = Whereabouts(how="fixed", spot="frame")
                yield Mend(name=say("{thing} in a holder on the frame", thing=thing.name), consequence=say("always at hand"),
                           things=[otherwise(thing, where=[held.model_dump()])])  # fmt: skip
        return
    rider_id = ask.rider_id or next((b.rider_id for b in s.tour.rig.bikes if b.id == ask.bike_id), None)
    there = sum(thing.count for thing in s.tour.kit if thing.id in ask.thing_ids)
    for service in ask.serves[:SHOWN_MENDS]:
        yield bring(s, service, rider_id, max(ask.count - there, 1))


def bring(s: Situation, service: str, rider_id: str | None = None, count: int = 1, fit: Fit | None = None) -> Mend:
    """One that serves, as such things usually are, stowed where there is room."""
    row = SERVICES[service]
    thing = Thing(
        id=new_id(s, service.replace("_", "-")), name=named(service)[:1].upper() + named(service)[1:], count=count,
        mass_kg=row.kg, volume_l=row.l, reach=row.reach, rider_id=rider_id, serves=(service,), guessed=("mass", "volume"),
        fit=fit, held="wished",
        where=tuple(_mounted(s, service)),
    )  # fmt: skip
    mass, volume = fine_kg(row.kg * count), litres(row.l * count)
    return a_new(s, thing, say("Bring {what}", what=row.words), say("usually {mass}, {volume}", mass=mass, volume=volume))


def _mounted(s: Situation, service: str) -> Iterator[Whereabouts]:
    """Where that is fixed which is of no use in a bag."""
    trailing = next((c for c in s.tour.carriers if CARRIERS[c.kind].anchor == "trailer"), None)
    if service == "mirror":
        yield Whereabouts(how="fixed", spot="bar_left")
    elif service == "flag" and trailing is not None:
        yield Whereabouts(how="fixed", spot="outside", bag_id=trailing.id)


@Spec("cannot_mend", "mended", "strands", small=True)
@looks_at("needed", "rig")
def unmendable(s: Situation) -> Iterator[Draft]:
    """Faults for which a tool, a part that fits, or a hand is missing."""
    for fault in s.needed.faults:
        if fault.lacks:
            yield _unmendable(s, fault)


def _unmendable(s: Situation, fault: Fault) -> Draft:
    bike = next((b for b in s.tour.rig.bikes if b.id == fault.bike_id), None)
    makeshift = fault.part == "makeshift" and fault.tool != "missing" and fault.fits != "missing"
    lacks, p = "; ".join(fault.lacks), 1 - math.exp(-fault.expected)
    chance = "with a chance of {p}" if p >= HARDLY else "less than once in a hundred times"
    slows = fault.stops_you and not makeshift and p >= SELDOM
    return Draft(
        kind="cannot_mend",
        grade="slows_you" if slows else "worth_knowing",
        cause="seldom" if not slows else "useless" if fault.fits == "missing" else f"{fault.words}:{lacks}",
        case=say(("{fault}{bike}, {p}" if p >= HARDLY else "{fault}{bike}, under 1 %") + (": {lacks}" if slows else ""),
                 fault=fault.words, p=share(p), lacks=lacks, bike=f" on {bike.name}" if bike else ""),
        sentence=say("{fault}{bike}: {lacks}.", fault=fault.words, bike=f" on {bike.name}" if bike else "", lacks=lacks),
        reason=say(
            "Happens " + chance + " on {gap} without a bike shop; a service before leaving halves that, worn parts double it.",
            p=share(p), gap=km(fault.gap_km),
        ),
        place=say("in the kit"), size=fault.expected + 1, bike_id=fault.bike_id, about=fault.id, things=tuple(fault.thing_ids),
        mends=later(_what_mends, s, fault, bike),
    )  # fmt: skip


def _what_mends(s: Situation, fault: Fault, bike: Bike | None) -> Iterator[Mend]:
    for service in dict.fromkeys(fault.serves):
        fit = fit_for(service, bike, fault.id.startswith("trailer")) if bike else None
        yield bring(s, service, None, 1 if service == "keys" else max(fault.wanted - fault.owned, 1), fit)


def _warmth(s: Situation, rider_id: str) -> Iterator[Mend]:
    for service in ("fleece", "warm_jacket"):
        yield bring(s, service, rider_id)


@Spec("cold_evening", "dressed", "hurts")
@looks_at("days", "needed", "riders")
def cold_evenings(s: Situation) -> Iterator[Draft]:
    """Evenings on which a rider cools too far while pitching and cooking, in all that can be worn."""
    if s.needed.asking is None:
        return
    for layers in s.needed.layers:
        outdoors = [d for d, out in zip(layers.days, s.needed.asking.outdoors.tolist(), strict=True) if out]
        short = [d for d in outdoors if d.bears_h < EVENING_H]
        if short:
            worst = min(short, key=lambda d: d.bears_h)
            yield _cold_evening(s, layers, worst.day, len(short))


def _cold_evening(s: Situation, layers: Layers, day: int, n: int) -> Draft:
    rider = next(r for r in s.tour.riders if r.id == layers.rider_id)
    worst = next(d for d in layers.days if d.day == day)
    at = s.days[day - 1]
    return Draft(
        kind="cold_evening", grade="slows_you" if worst.bears_h < SHORT_EVENING_H else "worth_knowing",
        sentence=say("{rider} cools down within {hours} out of doors in the evening of day {day}.", rider=rider.name,
                     hours=hours(worst.bears_h), day=number(day)),
        reason=say("{air} at nine on {n} such evenings, in {clo} clo with all layers on, cooking in the lee; {asked} clo would"
                   " keep a body warm there (ISO 11079). In the bag sooner, a hut, or one layer more.",
                   air=celsius(worst.evening_c), n=number(n), clo=tenths(worst.worn_clo),
                   asked=tenths(evening_clo(worst.evening_c, at.humidity_pct))),
        place=say("day {day}, {km}", day=number(day), km=km(at.to_km)), size=EVENING_H / max(worst.bears_h, 0.05), at_km=at.to_km,
        day=day, about=rider.id, mends=later(_warmth, s, rider.id),
    )  # fmt: skip
