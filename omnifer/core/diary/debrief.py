"""Unpacking: what each thing, bag and rule taught, insurance told apart from waste, and the list for next time."""

import math
from collections import defaultdict
from collections.abc import Iterator
from typing import Literal

from omnifer.core.diary.aches import aches_of
from omnifer.core.diary.bikes import bikes_of
from omnifer.core.diary.journal import Journal, Told, on_road
from omnifer.core.diary.now import Replanned
from omnifer.core.diary.rates import rates_of
from omnifer.core.model.assessment import Assessment, Day
from omnifer.core.model.debrief import Debrief, Lesson, Mark, NextTime, ThingStory
from omnifer.core.model.diary import Verb, Verdict
from omnifer.core.model.kit import Thing
from omnifer.core.model.needs import Grade
from omnifer.core.model.quantities import Text
from omnifer.core.model.roles import BedLayer, Mat, SleepingBag
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import celsius, fine_kg, kg, minutes, number, say, share

HARM_MIN: dict[Grade, float] = {"stops_you": 24 * 60, "slows_you": 180, "worth_knowing": 30}
"""What it would cost to be without a thing when it is wanted: a day, three hours, half an hour [min]; proposal."""
UNKNOWN_CHANCE = 0.1
"""That an emergency asks for it on a tour, where nothing tells more [-]; proposal."""
NATURAL_INSURANCE = frozenset({"first_aid", "papers"})
DAILY = 0.8
"""Used on so many of its days a thing counts as used daily [-]; proposal."""
SELDOM = 0.1
"""Used on fewer of its days, a thing of weight is posted rather than carried [-]; proposal."""
POST_KG = 0.4
"""Lighter things are not worth a parcel [kg]; practice."""
Warming = SleepingBag | BedLayer | Mat
"""What can be too cold by itself."""
COLDER_K, LESS_WARM, WARMEST_C = 3.0, 0.8, 30.0
"""A bag that was too cold is reckoned so much less warm, a layer or mat at so much of what it gave, and no bag beyond the last
[K, -, °C]; practice: down that has clumped loses that much."""
MARKS: dict[Verb, Literal["left", "broke", "lost"]] = {
    "broke": "broke", "lost": "lost", "sent_home": "left", "given_away": "left", "ran_out": "left",
}  # fmt: skip
OF_BAGS: dict[Verdict, str] = {
    "good": "{name} did well.",
    "wet": "{name} let water in: note where it leaks, and keep nothing dry in it without a liner.",
    "too_small": "{name} was too small: move a thing or take the larger one.",
    "sways": "{name} swayed: a lower limit, or its straps crossed.",
    "hard_to_reach": "{name} was hard to get at: what is wanted by day moves out of it.",
}
OF_RULES: dict[Verdict, str] = {
    "too_cold": "Too cold: a warmer layer or bag, or the shift of the nights below.",
    "too_wet": "Too wet: a liner, a longer cape, and the wet apart.",
    "ran_out": "Ran out: the learned rate at its upper end for long gaps.",
    "too_much_left": "Too much left: the learned rate at its mean for shopping.",
    "too_slow": "Too slow to pack: fewer things and fewer straps.",
}


def debrief(sheet: TourSheet, plan: Assessment, made: Replanned, journal: Journal, into: TourSheet | None = None) -> Debrief:
    """What the tour teaches.

    Parameters
    ----------
    into : TourSheet, optional
        The tour that rates are offered to.
    """
    days = max(made.ridden.here.day, 1)
    stories = [
        _story(sheet, plan, made, journal, thing, days)
        for thing in _by_card(made.ridden.sheet, plan)
        if thing.id not in _born(made)
    ]
    stories += [
        _story(sheet, plan, made, journal, thing, days) for thing in made.ridden.sheet.kit if thing.id.startswith("bought-")
    ]
    stories += list(_wished(journal))
    listed = list(_next_time(stories, days))
    return Debrief(
        days=days, km=round(made.ridden.here.km, 1), unpacked=sum(story.said for story in stories), stories=stories,
        lessons=list(_lessons(sheet, journal)), rates=rates_of(sheet, plan, made, journal, into),
        aches=aches_of(made, journal), bikes=bikes_of(sheet, made, journal), next_time=listed,
        kg=round(-sum(line.kg for line in listed), 2), litres=round(-sum(line.litres for line in listed), 1),
        minutes_a_day=round(-sum(line.minutes_a_day for line in listed), 1),
    )  # fmt: skip


def _born(made: Replanned) -> set[str]:
    """Things that the road made: what is broken, split off or bought."""
    return {t.id for t in made.ridden.sheet.kit if t.id.startswith(("broken-", "rest-", "bought-"))}


def _by_card(sheet: TourSheet, plan: Assessment) -> list[Thing]:
    """Things bag by bag, as the cards have them; then what is in none."""
    things = {thing.id: thing for thing in sheet.kit}
    order = [layer.thing_id for card in plan.cards for layer in reversed(card.layers) if layer.thing_id in things]
    return [things[t] for t in dict.fromkeys([*order, *things])]


def _story(sheet: TourSheet, plan: Assessment, made: Replanned, journal: Journal, thing: Thing, days: int) -> ThingStory:
    set_out = made.ridden.here.set_out
    told = [t for t in on_road(journal) if t.entry.about == thing.id]
    used = sorted({(t.date - set_out).days + 1 for t in told if t.entry.verb in ("used", "mended")})
    marks = [Mark(day=max((t.date - set_out).days + 1, 1), kind=MARKS[t.entry.verb]) for t in told if t.entry.verb in MARKS]
    bought = thing.id.startswith("bought-")
    first = _day_bought(journal, thing, made) if bought else 1
    marks = [Mark(day=first, kind="came"), *marks] if bought else marks
    last = next((m.day for m in marks if m.kind in ("left", "lost")), days)
    said = [t.entry for t in journal.of_verbs("verdict") if t.entry.about == thing.id]
    carried = max(last - first + 1, 1)
    proposed = _proposed(thing, used, carried, marks, bought)
    verdict: Verdict | None = said[-1].word if said else proposed  # type: ignore[assignment]
    a_day = plan.minutes_a_day.get(thing.id, 0.0) + sheet.practice.packing_thing_s * 2 / 60 * (thing.reach != "breaks")
    cost = a_day * carried
    harm, chance = _harm(plan, thing)
    # What was sent away and not missed insured nothing.
    kept = not any(mark.kind == "left" for mark in marks)
    insures = kept and harm is not None and verdict in ("never", "insurance") and chance * HARM_MIN[harm] >= cost
    if verdict == "never" and insures and not said:
        verdict = "insurance"
    deed, words = _deed(thing, verdict, used, carried, cost, chance, insures, marks)
    bags = {p.thing_id: p.carrier_id for p in sheet.load.placements}
    names = {c.id: c.name for c in sheet.carriers}
    return ThingStory(
        thing_id=thing.id, library_id=thing.library_id, name=thing.name, bag=names.get(bags.get(thing.id, ""), ""),
        carried_from=first, carried_to=last, used_days=used, used=_used_words(verdict, used, carried), marks=marks,
        kg=round(thing.mass_kg * thing.count, 3), litres=round(thing.volume_l * thing.count, 2), minutes=round(cost, 1),
        verdict=verdict, said=bool(said), words=words, deed=deed, insurance=verdict == "insurance",
        warms=isinstance(thing.role, Warming),
    )  # fmt: skip


def _day_bought(journal: Journal, thing: Thing, made: Replanned) -> int:
    for told in journal.of_verbs("bought"):
        if thing.id.endswith(told.entry.id.hex):
            return max((told.date - made.ridden.here.set_out).days + 1, 1)
    return 1


def _proposed(thing: Thing, used: list[int], carried: int, marks: list[Mark], bought: bool) -> Verdict | None:
    """A verdict by the diary alone; None where it tells nothing: of most things no use is ever noted."""
    kinds = {mark.kind for mark in marks}
    if "broke" in kinds:
        return "broke"
    if "lost" in kinds:
        return "lost"
    if bought:
        return "bought"
    if len(used) >= DAILY * carried:
        return "daily"
    return "some_days" if used else None


def _harm(plan: Assessment, thing: Thing) -> tuple[Grade | None, float]:
    """How grave it would be to be without it when it is wanted, and the chance that it is [-]."""
    found: list[tuple[Grade, float]] = []
    for fault in plan.faults:
        if thing.id in fault.thing_ids:
            found.append(("stops_you" if fault.stops_you else "slows_you", 1 - math.exp(-fault.expected)))
    for ask in plan.asks:
        if thing.id in ask.thing_ids:
            found.append((ask.grade, UNKNOWN_CHANCE))
    if NATURAL_INSURANCE & set(thing.natures):
        found.append(("stops_you", UNKNOWN_CHANCE))
    if not found:
        return None, 0.0
    return max(found, key=lambda one: HARM_MIN[one[0]] * one[1])


def _used_words(verdict: Verdict | None, used: list[int], carried: int) -> str:
    if verdict == "daily":
        return "daily"
    if verdict is None:
        return ""
    return f"{len(used)} of {carried}"


def _deed(
    thing: Thing,
    verdict: Verdict | None,
    used: list[int],
    carried: int,
    cost: float,
    chance: float,
    insures: bool,
    marks: list[Mark],
) -> tuple[str, Text]:
    mass = thing.mass_kg * thing.count
    match verdict:
        case None if gone := next((mark.day for mark in marks if mark.kind == "left"), None):
            return "stays", say("sent off on day {day}; was it used before?", day=number(gone))
        case None:
            return "stays", say("not said yet: was it used?")
        case "never" | "insurance" if insures:
            return "stays", say("never used; its lack would have cost more: {chance} on a tour. It stays.", chance=share(chance))
        case "insurance":
            return "stays", say("never used, and kept for the day it is wanted: {time} over the tour.", time=minutes(cost))
        case "never" if thing.must:
            return "stays", say("never used, and must come.")
        case "never" if thing.unused_tours >= 1:
            return "leave", say(
                "not used for {tours} tours, {mass}: leave it.", tours=number(thing.unused_tours + 1), mass=fine_kg(mass)
            )
        case "never":
            return "leave", say("never used, {mass}, {time} in all: leave it.", mass=fine_kg(mass), time=minutes(cost))
        case "some_days" if used and len(used) <= SELDOM * carried and mass >= POST_KG:
            return "post", say(
                "{uses} of {days:day|days}, {mass}: {time} a use. Post it to where it is wanted.",
                uses=number(len(used)),
                days=number(carried),
                mass=fine_kg(mass),
                time=minutes(cost / len(used)),
            )
        case "some_days":
            per_use = cost / max(len(used), 1)
            return "stays", say(
                "{uses} of {days:day|days}, {time} a use.", uses=number(len(used)), days=number(carried), time=minutes(per_use)
            )
        case "wrong_one":
            return "replace", say("the wrong one: another kind next time.")
        case "too_cold":
            return "stays", say("too cold: reckoned as less warm from now on.")
        case "wore_out":
            return "replace", say("wore out after {days:day|days}: a new one.", days=number(carried))
        case "broke":
            broke = next((m.day for m in marks if m.kind == "broke"), carried)
            return "replace", say("broke on day {day}: replace it.", day=number(broke))
        case "lost":
            return "replace", say("lost: replace it, or see that it went unmissed.")
        case "given_away":
            return "leave", say("given away, {mass}: it was not missed.", mass=fine_kg(mass))
        case "bought":
            return "take", say("bought on the road, {mass}: it comes along from the start.", mass=kg(mass))
        case "wished_for":
            return "take", say("wished for: it goes on the list.")
        case _:
            return "stays", say("used daily.")


def _wished(journal: Journal) -> Iterator[ThingStory]:
    """What was wished for and is no thing of the tour."""
    for told in journal.of_verbs("verdict"):
        entry = told.entry
        if entry.word == "wished_for" and entry.name and not entry.about:
            yield ThingStory(
                thing_id=f"wish-{entry.id.hex}",
                library_id=None,
                name=entry.name,
                bag="",
                carried_from=0,
                carried_to=0,
                used_days=[],
                used="wished for",
                marks=[],
                kg=entry.kg or 0.0,
                litres=0.0,
                minutes=0.0,
                verdict="wished_for",
                said=True,
                words=say("wished for: it goes on the list."),
                deed="take",
                insurance=False,
                warms=False,
            )


def _lessons(sheet: TourSheet, journal: Journal) -> Iterator[Lesson]:
    names = {c.id: c.name for c in sheet.carriers}
    newest: dict[str, Told] = {}
    for told in journal.of_verbs("verdict"):
        if told.entry.word in OF_BAGS or told.entry.word in OF_RULES:
            newest[told.entry.about] = told
    for about, told in newest.items():
        verdict: Verdict = told.entry.word  # type: ignore[assignment]
        words = OF_BAGS.get(verdict) or OF_RULES[verdict]
        name = names.get(about, about)
        yield Lesson(about=about, name=name, verdict=verdict, words=say(words, **({"name": name} if "{name}" in words else {})))


def _next_time(stories: list[ThingStory], days: int) -> Iterator[NextTime]:
    """The list for next time: what stays at home, what is posted, what is replaced and what comes besides."""
    by_deed: dict[str, list[ThingStory]] = defaultdict(list)
    for story in stories:
        by_deed[story.deed].append(story)
    for deed, sign in (("leave", -1), ("post", -1), ("replace", 0), ("take", 1)):
        mine = by_deed[deed]
        if mine:
            yield NextTime(
                deed=deed, thing_ids=[s.thing_id for s in mine], names=[s.name for s in mine],
                kg=round(sign * sum(s.kg for s in mine), 3), litres=round(sign * sum(s.litres for s in mine), 2),
                minutes_a_day=round(sign * sum(s.minutes for s in mine) / days, 2),
            )  # fmt: skip


def taught(thing: Thing, story: ThingStory, where: str = "") -> Thing:
    """A thing with what this tour taught of it, and where, as the library keeps it; what nobody said teaches nothing."""
    if story.verdict is None:
        return thing
    words = story.words.metric()
    news: dict[str, object] = {"last_time": f"{words[:1].upper()}{words[1:]} {where}".strip()}
    news["unused_tours"] = min(thing.unused_tours + 1, 50) if story.verdict in ("never", "insurance") else 0
    if story.verdict == "too_cold":
        news["role"] = _less_warm(thing)
    if story.verdict in ("wore_out", "broke"):
        news["condition"] = "near_its_end"
    elif thing.condition == "new" and story.verdict in ("daily", "some_days"):
        news["condition"] = "trusted"
    return Thing.model_validate(thing.model_dump() | news)


def _less_warm(thing: Thing) -> object:
    """What a thing does, as it is reckoned after a tour on which it was too cold."""
    match thing.role:
        case SleepingBag(comfort_c=comfort):
            return thing.role.model_copy(update={"comfort_c": min(comfort + COLDER_K, WARMEST_C)})
        case BedLayer(warms_k=warms):
            return thing.role.model_copy(update={"warms_k": warms * LESS_WARM})
        case Mat(r_value=r):
            return thing.role.model_copy(update={"r_value": r * LESS_WARM})
        case _:
            return thing.role


def taught_on(sheet: TourSheet, days: list[Day]) -> str:
    """Which tour taught it, and under what conditions, in metric words; empty where nothing was ridden."""
    if not days:
        return ""
    low, high = min(day.mean_min_c for day in days), max(day.mean_max_c for day in days)
    rain = sum(day.rain_chance for day in days) / len(days)
    words = say("On {tour}, {n:day|days}, {low} to {high}, rain on {rain} of them.", tour=sheet.name, n=number(len(days)),
                low=celsius(low), high=celsius(high), rain=share(rain))  # fmt: skip
    return words.metric()


def wish_of(story: ThingStory, kit: tuple[Thing, ...]) -> Thing:
    """What was wished for or bought on the road, as a thing for the library."""
    known = next((t for t in kit if t.id == story.thing_id), None)
    if known is not None:
        return known
    return Thing(
        id=story.thing_id, name=story.name, mass_kg=story.kg, volume_l=story.litres, guessed=("mass", "volume"),
        held="wished" if story.verdict == "wished_for" else "owned", last_time=story.words.metric(),
    )  # fmt: skip
