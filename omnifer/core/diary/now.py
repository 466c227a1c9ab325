"""Where the party is, what is left of the tour, and what to do next."""

import datetime as dt
from collections.abc import Iterator
from dataclasses import dataclass

from omnifer.core.assess import Course, course_of
from omnifer.core.diary.doubts import doubts_of
from omnifer.core.diary.history import NEAR_KM, history_of, spent, used
from omnifer.core.diary.journal import Journal, on_road
from omnifer.core.diary.ridden import Here, Ridden, hour_of, planned_at, ridden
from omnifer.core.diary.tended import due
from omnifer.core.model.assessment import Assessment, Day, Gap
from omnifer.core.model.finding import Finding
from omnifer.core.model.quantities import Text
from omnifer.core.model.ridden import AskedTonight, DayMade, DefaultAmount, Now, Planned
from omnifer.core.model.roles import UsedUp
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import km, litres, number, say

EVENING_H = 17.0
BOLTS = {"bolts-5": 5.0, "bolts-20": 20.0, "bolts-100": 100.0}
"""Kilometres at which bolts and straps are looked at again, by their checks [km]; practice."""


@dataclass(frozen=True)
class Replanned:
    """The tour as ridden, and how the rest of it goes: no more than one assessment."""

    ridden: Ridden
    rest: Course
    now: Now


def replan(
    sheet: TourSheet, plan: Assessment, road: Profile | None, journal: Journal, today: tuple[dt.date, float] | None = None
) -> Replanned:
    """The rest of the tour from where its entries say it is.

    Parameters
    ----------
    plan : Assessment
        Of the tour as it was planned.
    today : (date, hour), optional
        The wall clock where the party is, if it is later than the last entry; None: the last entry's.
    """
    length = road.length_km if road is not None else 0.0
    made = ridden(sheet, plan, journal, length)
    rest = course_of(made.sheet, road, made.here.km - NEAR_KM)
    return Replanned(made, rest, _now(sheet, plan, made, rest, journal, today))


def _now(
    sheet: TourSheet, plan: Assessment, made: Ridden, rest: Course, journal: Journal, today: tuple[dt.date, float] | None
) -> Now:
    here = made.here
    date, hour = (here.date, hour_of(here.wall) if here.wall else 0.0) if today is None else today
    begun = (bool(on_road(journal)) and bool(journal.of_verbs("set_out", "here", "slept"))) or here.km > 0
    shift = here.set_out - sheet.start_date
    planned_km = planned_at(plan.days, date - shift, hour) if begun else 0.0
    behind = planned_km - here.km if begun else 0.0
    end = rest.days[-1].date if rest.days else date
    planned_end = plan.days[-1].date + shift if plan.days else date
    left = max((end - date).days, 0)
    late = max((end - planned_end).days, 0)
    to_go = (rest.road.length_km if rest.road else 0.0) - here.km
    days_kept = max((planned_end - date).days, 1)
    more = max(to_go / days_kept - to_go / max(left, 1), 0.0) if late and left else 0.0
    findings = [] if here.arrived else _ahead(rest.findings, here.km, here.day)
    coming = [] if here.arrived else list(_coming(rest, here.km))
    return Now(
        begun=begun,
        over=here.arrived,
        at_km=round(here.km, 2),
        day=here.day,
        date=date,
        wall=here.wall,
        known_by="plan" if here.wall is None else "entry",
        planned_km=round(planned_km, 1),
        behind_km=round(behind, 1),
        behind_days=round(_days_behind(plan.days, here.km, date - shift, hour), 1) if begun else 0.0,
        more_km_a_day=round(more, 1),
        days_left=left,
        end_date=end,
        planned_end=planned_end,
        sentence=_sentence(behind, begun, here.arrived, findings, rest, here.km),
        second=_second(rest, here.km, more, late),
        planned=coming,
        findings=findings,
        days=_days(rest.days, here.day),
        history=history_of(sheet, plan, made, rest, journal),
        spent=list(spent(journal, here.day)),
        used=list(used(sheet, journal, here.set_out)),
        defaults=list(_defaults(sheet, plan)),
        tonight=list(_tonight(journal, here, hour, sheet.practice.look_days)),
        care=[] if here.arrived else due(rest.asking, journal, here.day, rest.pressures),
        doubts=doubts_of(sheet, made, journal),
        gone={thing: told.entry.verb for thing, told in made.gone.items()},
    )


def _days_behind(days: list[Day], at_km: float, date: dt.date, hour: float) -> float:
    """How many days ago the plan was here; ahead of it where negative."""
    riding = [day for day in days if not day.rest]
    if not riding:
        return 0.0
    then = next((d for d in riding if d.to_km > at_km + NEAR_KM), riding[-1])
    share = 0.0 if then.distance_km <= 0 else min(max((at_km - then.from_km) / max(then.to_km - then.from_km, 1e-9), 0.0), 1.0)
    was = (then.date - days[0].date).days + (then.start_h + share * (then.arrive_h - then.start_h)) / 24
    return (date - days[0].date).days + hour / 24 - was


def _ahead(findings: list[Finding], at_km: float, day: int) -> list[Finding]:
    """What still bites: findings of places ahead, of days to come, and of nothing in particular; what began behind and lasts
    is said until it ends."""

    def bites(f: Finding) -> bool:
        if f.to_km is not None and f.to_km > at_km + NEAR_KM:
            return True
        return (f.at_km is None or (f.to_km or f.at_km) >= at_km - NEAR_KM) and (f.day is None or f.day >= day)

    return [f for f in findings if f.aside is None and bites(f)]


def _sentence(behind: float, begun: bool, arrived: bool, findings: list[Finding], rest: Course, at_km: float) -> Text:
    if arrived:
        return say("You have arrived.")
    if not begun:
        return say("You have not set out yet.")
    worst = next((f for f in findings if f.grade == "stops_you"), None)
    if abs(behind) <= NEAR_KM:
        where = say("Where the plan has you")
    elif behind > 0:
        where = say("{km} behind the plan", km=km(behind))
    else:
        where = say("{km} ahead of the plan", km=km(-behind))
    ends = _ends(rest, at_km)
    if ends is not None:
        return Text(words=f"{where.words}; {ends.words}", figures=where.figures | ends.figures, names=where.names | ends.names)
    if worst is None:
        return Text(words=f"{where.words}, all limits hold.", figures=where.figures, names=where.names)
    joined = worst.sentence
    clash = set(where.figures) & set(joined.figures)
    return (
        joined
        if clash
        else Text(words=f"{where.words}. {joined.words}", figures=where.figures | joined.figures, names=joined.names)
    )


def _ends(rest: Course, at_km: float) -> Text | None:
    """The first supply that gives out ahead, and where it could be had before."""
    gone = [(g.from_km, lane) for lane in rest.lanes for g in lane.gone if g.to_km > at_km and lane.key in CARRIED]
    if not gone:
        return None
    where, lane = min(gone, key=lambda found: found[0])
    place = max(where, at_km)
    verb = CARRIED[lane.key].verb
    what = lane.name.lower()
    selling = [s for s in rest.stops if s.at_km >= at_km and any(d.verb == verb and d.amount > 0 for d in s.deeds)]
    if place - at_km < NEAR_KM:
        if not selling:
            return say("no {what} aboard, and no place ahead gives any.", what=what)
        far = km(selling[0].at_km - at_km)
        return say("no {what} aboard, {verb} at {name} in {far}.", what=what, verb=verb, name=selling[0].name, far=far)
    before = [s for s in selling if s.at_km < place]
    if not before:
        return say("{what} ends at {end}, and nothing on the way there gives any.", what=what, end=km(place))
    return say("{what} ends at {end}, {verb} at {name}, {stop}.", what=what, end=km(place), verb=verb, name=before[-1].name,
               stop=km(before[-1].at_km))  # fmt: skip


def _second(rest: Course, at_km: float, more: float, late: int) -> Text:
    """The next place, and what is aboard against what is asked up to there."""
    if more > 0:
        words = "{late:day|days} later than planned; {more} more a day would make up for it."
        return say(words, late=number(late), more=km(more))
    gap = next((g for g in rest.gaps if g.supply == "water" and g.from_km <= at_km + NEAR_KM < g.to_km), None)
    if gap is None or rest.moments is None:
        return say("")
    column = next(c for c in rest.moments.supplies if c.supply == "water")
    passed = [k for k, at in enumerate(rest.moments.km) if at <= at_km + NEAR_KM]
    aboard = column.stock[passed[-1]] if passed else 0.0
    return say("{km} to {name}; {aboard} aboard, {asked} asked.", km=km(max(gap.to_km - at_km, 0.0)), name=gap.to_name,
               aboard=litres(aboard), asked=litres(_asked(gap, at_km)))  # fmt: skip


def _asked(gap: Gap, at_km: float) -> float:
    """What the rest of a stretch asks for: its riding part by the kilometres left, its nights and reserve whole."""
    left = min(max((gap.to_km - at_km) / max(gap.to_km - gap.from_km, 1e-9), 0.0), 1.0)
    return gap.riding * left + gap.camp + gap.reserve


def _coming(rest: Course, at_km: float) -> Iterator[Planned]:
    """The next fill, the next purchase and the next charge."""
    for verb in ("fill", "buy", "refuel", "charge", "restock"):
        for stop in rest.stops:
            deed = next((d for d in stop.deeds if d.verb == verb and d.amount > 0), None)
            if deed is not None:
                yield Planned(
                    verb=deed.verb,
                    supply=deed.lane,
                    amount=deed.amount,
                    words=deed.words,
                    where=say(
                        "{name}, in {km}, day {day}", name=stop.name, km=km(max(stop.at_km - at_km, 0.0)), day=number(stop.day)
                    ),
                    at_km=stop.at_km,
                    ahead_km=round(max(stop.at_km - at_km, 0.0), 1),
                )
                break


def _days(days: list[Day], today: int) -> list[DayMade]:
    return [DayMade(number=d.number, date=d.date, from_km=d.from_km, to_km=d.to_km, ridden=d.number < today) for d in days]


def _defaults(sheet: TourSheet, plan: Assessment) -> Iterator[DefaultAmount]:
    """What the plan has for a day of each supply: what a button offers."""
    lanes = {lane.key: lane for lane in (plan.stores.lanes if plan.stores else ())}
    small = {t.id: t for t in sheet.kit if isinstance(t.role, UsedUp)}
    for key, spec in CARRIED.items():
        if key in lanes:
            rounded = max(round(lanes[key].a_day / spec.step) * spec.step, spec.step)
            yield DefaultAmount(about=key, name=lanes[key].name, amount=round(rounded, 3), unit=spec.unit, step=spec.step)
    for key, thing in small.items():
        if key in lanes and isinstance(thing.role, UsedUp):
            yield DefaultAmount(
                about=key, name=thing.name, amount=float(max(round(lanes[key].a_day), 1)), unit=thing.role.unit, step=1
            )  # fmt: skip


def _tonight(journal: Journal, here: Here, hour: float, look_days: float) -> Iterator[AskedTonight]:
    """Questions of the evening, only those that are due; bolts whenever they are."""
    if not on_road(journal) or journal.of_verbs("arrived"):
        return
    looked = {t.entry.about: t.date for t in journal.of_verbs("checked") if t.entry.about in BOLTS and t.entry.word == "done"}
    again = [key for key, km_ in BOLTS.items() if here.km >= km_ and key not in looked]
    if again:
        yield AskedTonight(key="bolts", about=again[-1], words="Were bolts and straps looked at again?")
    elif looked and (here.date - max(looked.values())).days >= look_days:
        yield AskedTonight(key="bolts", about="bolts-100", words="Were bolts and straps looked at this week?")
    if hour < EVENING_H:
        return
    today = [t.entry for t in on_road(journal) if t.date == here.date]
    if here.date > here.set_out and not any(e.verb == "slept" for e in today):
        yield AskedTonight(key="slept", words="How warm was last night?")
    if not any(e.verb in ("left", "filled", "drank") and e.about == "water" for e in today):
        yield AskedTonight(key="water_left", words="How much water is left?")
    if not any(e.verb in ("left", "bought", "ate") and e.about == "food" for e in today):
        yield AskedTonight(key="food_left", words="How much food is left?")
