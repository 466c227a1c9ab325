"""What was noted, summed up: the mass on the bikes day by day with what made each step, money, and what was used."""

import datetime as dt
from collections.abc import Iterator

from omnifer.core.assess import Course
from omnifer.core.diary.journal import Journal, Told, on_road
from omnifer.core.diary.ridden import Ridden
from omnifer.core.glance import at_day
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.diary import GONE, WHEELS
from omnifer.core.model.ridden import LoadHistory, LoadStep, Spent, Used, Weighing
from omnifer.core.model.roles import UsedUp
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import fine_kg, say

NEAR_KM = 0.5
"""What lies closer is the same place [km]; practice."""


def history_of(sheet: TourSheet, plan: Assessment, made: Ridden, rest: Course, journal: Journal) -> LoadHistory:
    """Planned line and ridden line of the mass on the bikes, weighings, and each step with its cause."""
    steps = list(_steps(sheet, made, journal))
    weighed = list(_weighings(made, journal))
    planned, ridden_ = _line(plan), _line(rest)
    so_far = [(day, mass) for day, mass, at in ridden_ if at <= made.here.km + NEAR_KM]
    start = ridden_[0][1] if ridden_ else 0.0
    return LoadHistory(
        day=[day for day, _, _ in planned], planned_kg=[mass for _, mass, _ in planned],
        ridden_day=[day for day, _ in so_far], ridden_kg=[mass for _, mass in so_far], steps=steps, weighings=weighed,
        start_kg=start, now_kg=so_far[-1][1] if so_far else start,
    )  # fmt: skip


def _line(found: Assessment | Course) -> list[tuple[float, float, float]]:
    moments = found.moments
    if moments is None:
        return []
    return [
        (at_day(found.days, at, day), mass, at) for at, day, mass in zip(moments.km, moments.day, moments.total_kg, strict=True)
    ]


def _steps(sheet: TourSheet, made: Ridden, journal: Journal) -> Iterator[LoadStep]:
    things = {thing.id: thing for thing in made.sheet.kit} | {thing.id: thing for thing in sheet.kit}
    for told in on_road(journal):
        entry = told.entry
        where = entry.km or 0.0
        if entry.verb in GONE and entry.about in things:
            thing = things[entry.about]
            count = min(max(int(entry.amount or thing.count), 1), thing.count)
            mass = -thing.mass_kg * count - sum(t.mass_kg * t.count for t in sheet.kit if t.inside == thing.id)
            how = {"sent_home": "sent home", "lost": "lost", "given_away": "given away"}[entry.verb]
            words = say("{name} {how}: {kg}", name=thing.name, how=how, kg=fine_kg(-mass))
        elif entry.verb == "bought" and entry.name and entry.about not in things:
            mass = (entry.kg or 0.0) * max(int(entry.amount or 1), 1)
            words = say("{name} bought: {kg}", name=entry.name, kg=fine_kg(mass))
        else:
            continue
        yield LoadStep(entry_id=str(entry.id), km=round(where, 1), day=_day_of(told, made), kg=round(mass, 3), words=words)


def _day_of(told: Told, made: Ridden) -> int:
    return max((told.date - made.here.set_out).days + 1, 1)


def _weighings(made: Ridden, journal: Journal) -> Iterator[Weighing]:
    """The whole of a bike on a scale, and wheels of one day summed up."""
    wheels: dict[tuple[str, dt.date], dict[str, float]] = {}
    of_bike = {b.id: 2 + any(s.trailer is not None for s in b.supports) for b in made.sheet.rig.bikes}
    for told in journal.of_verbs("weighed"):
        entry = told.entry
        if entry.word == "whole":
            yield Weighing(km=round(entry.km or 0.0, 1), day=_day_of(told, made), kg=told.weighs_kg, bike_id=entry.about)
        elif entry.word in WHEELS:
            by_wheel = wheels.setdefault((entry.about, told.date), {})
            by_wheel[entry.word] = told.weighs_kg
            if len(by_wheel) == of_bike.get(entry.about):
                yield Weighing(
                    km=round(entry.km or 0.0, 1),
                    day=_day_of(told, made),
                    kg=round(sum(by_wheel.values()), 2),
                    bike_id=entry.about,
                )


def spent(journal: Journal, days: int) -> Iterator[Spent]:
    """Money by what it was for."""
    totals: dict[str, float] = {}
    for told in on_road(journal):
        if told.entry.money:
            what = told.entry.word if told.entry.verb == "spent" and told.entry.word else "other"
            what = {"bought": "parts" if told.entry.name else "food"}.get(told.entry.verb, what)
            totals[what] = totals.get(what, 0.0) + told.entry.money
    yield from (Spent(what=what, money=round(sum_, 2), a_day=round(sum_ / days, 2)) for what, sum_ in sorted(totals.items()))


def used(sheet: TourSheet, journal: Journal, set_out: dt.date) -> Iterator[Used]:
    """What supplies and things had to do, the most often used first."""
    units: dict[str, str] = {name: spec.unit for name, spec in CARRIED.items()}
    units |= {t.id: t.role.unit for t in sheet.kit if isinstance(t.role, UsedUp)}
    names = {name: name.capitalize() for name in units} | {t.id: t.name for t in sheet.kit}
    found: dict[str, tuple[float, set[int]]] = {}
    for told in on_road(journal):
        entry = told.entry
        if entry.verb in ("used", "ate", "drank") and entry.about in names:
            amount, on = found.setdefault(entry.about, (0.0, set()))
            on.add((told.date - set_out).days + 1)
            found[entry.about] = amount + (entry.amount if entry.amount is not None else 1), on
    for about, (amount, on) in sorted(found.items(), key=lambda one: -len(one[1][1])):
        yield Used(about=about, name=names[about], amount=round(amount, 3), unit=units.get(about, "times"), days=sorted(on))
