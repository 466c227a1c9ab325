"""Shops that are shut: where food is wanted, on whole days, and all but for an hour."""

import datetime as dt
from collections.abc import Iterator
from dataclasses import replace

from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at, stretch
from omnifer.core.model.assessment import Gap, Missed
from omnifer.core.model.finding import Mend
from omnifer.core.model.quantities import Figure
from omnifer.core.model.tour import TourSheet
from omnifer.core.road import arrivals
from omnifer.core.sentence import clock, km, number, say
from omnifer.core.voyage import Voyage

TIGHT_GAP_DAYS, TIGHT_H = 2, 1.0
"""Before so many days without a shop, so short a time in which one is open is told [d, h]; practice."""
LONG_FOOD_GAP_DAYS = 3
"""Food for more days than this takes planning [d]; practice."""


@Spec("shop_shut", "supplied", "delays")
@looks_at("voyage", "days", "gaps", "road", "own_values")
def shops(s: Situation) -> Iterator[Draft]:
    """Shops that are shut: where food is wanted, on whole days, and all but for an hour."""
    yield from shut_shops(s)
    yield from shut_days(s)
    yield from tight_shops(s)


def shut_shops(s: Situation) -> Iterator[Draft]:
    """A shop that is shut when the rider passes, and which start would find it open."""
    if s.voyage is None:
        return
    for gap in s.gaps:
        if gap.supply != "food":
            continue
        for missed in gap.missed:
            visit = s.voyage.visits[missed.stop_id]
            if visit.stop.shop not in arrivals.FOOD_SHOPS:
                continue
            yield Draft(
                kind="shop_shut",
                grade="slows_you" if gap.governs or gap.days > LONG_FOOD_GAP_DAYS else "worth_knowing",
                sentence=say("The shop at {place} is shut when you are there.", place=missed.name),
                reason=say(
                    f"On {visit.date:%A} {visit.date.day} {visit.date:%B} it is " + missed.why.words
                    + ". The food from {shop} must last {distance} and {nights:night|nights}.",
                    **missed.why.figures, **missed.why.names, distance=km(gap.to_km - gap.from_km), nights=number(gap.nights),
                    shop=gap.from_name,
                ),
                place=say("day {day}, {km}", day=number(s.voyage.day_of(missed.at_km, leaving=False)), km=km(missed.at_km)),
                size=gap.to_km - gap.from_km, about=missed.stop_id, at_km=missed.at_km, cause=f"shut on {visit.date:%A}",
                case=say("{place} too", place=missed.name),
                day=s.voyage.day_of(missed.at_km, leaving=False),
                mends=later(_around, s, s.voyage, gap, missed),
            )  # fmt: skip


def _around(s: Situation, voyage: Voyage, gap: Gap, missed: Missed) -> Iterator[Mend]:
    yield _bought_before(s, voyage.day_of(gap.from_km, leaving=False), gap, missed.name)
    yield from _other_starts(voyage, s.tour, missed.stop_id)


def shut_days(s: Situation) -> Iterator[Draft]:
    """Days on which every shop on the way is shut, and where to buy before."""
    if s.voyage is None:
        return
    shops = [visit for visit in s.voyage.visits.values() if visit.stop.shop in arrivals.FOOD_SHOPS]
    missed = {m.stop_id for gap in s.gaps if gap.supply == "food" for m in gap.missed}
    for day in s.days[1:]:
        there = [visit for visit in shops if visit.date <= day.date <= (visit.stays_until or visit.date)]
        before = [visit for visit in shops if visit.date < day.date and not arrivals.shut_on(visit.stop, visit.date)]
        missed = {m.stop_id for gap in s.gaps if gap.supply == "food" for m in gap.missed}
        if (
            not there
            or not before
            or missed & {visit.stop.id for visit in there}
            or not all(arrivals.shut_on(visit.stop, day.date) for visit in there)
        ):
            continue
        last = max(before, key=lambda visit: (visit.date, visit.stop.at_km))
        meals = any("meals" in visit.stop.services for visit in there)
        yield Draft(
            kind="shop_shut", grade="worth_knowing",
            sentence=say("On {date} every shop on the way is shut.", date=_date(day.date)),
            reason=say("Buy at {place} on {before}, by {closes}." + (" Meals are served on the way." if meals else ""),
                       place=last.stop.name, before=_date(last.date), closes=clock(last.stop.open_hours[-1][1])),
            place=stretch(day.number, day.from_km, day.to_km), size=1, at_km=day.from_km, to_km=day.to_km, day=day.number,
            cause=f"shut on {day.date:%A}", case=say("{date}", date=_date(day.date)), about=str(day.date),
        )  # fmt: skip


def tight_shops(s: Situation) -> Iterator[Draft]:
    """Shops before a longer way that are open for one short time only while the party is there."""
    if s.voyage is None:
        return
    by_km = {visit.stop.at_km: visit for visit in s.voyage.visits.values() if visit.stop.shop in arrivals.FOOD_SHOPS}
    for gap in s.gaps:
        visit = by_km.get(gap.from_km)
        if gap.supply != "food" or gap.days < TIGHT_GAP_DAYS or visit is None or visit.stop.closes_h is None:
            continue
        start_h = s.tour.road.start_h(gap.from_km)
        open_ = arrivals.windows(visit, start_h, s.tour.practice)
        if len(open_) != 1:
            continue
        date, since, until = open_[0]
        figures: dict[str, Figure | str] = {
            "place": visit.stop.name, "until": clock(until), "since": clock(since), "hour": clock(visit.hour),
            "days": number(gap.days), "start": clock(start_h), "date": _date(date),
        }  # fmt: skip
        if date == visit.stays_until and since > start_h:
            sentence = say("The shop at {place} opens at {since}, and you set out at {start}.", **figures)
            case = say("{place} opens at {since}", **figures)
        elif until - since <= TIGHT_H and date == visit.date:
            sentence = say("The shop at {place} shuts at {until}; you come at {hour}.", **figures)
            case = say("{place} shuts at {until}, you come at {hour}", **figures)
        else:
            continue
        yield Draft(
            kind="shop_shut", grade="slows_you" if gap.days > LONG_FOOD_GAP_DAYS else "worth_knowing", sentence=sentence,
            reason=say("On {date}; the next is {days:day|days} on. Set the days so that an hour is to spare.", **figures),
            place=say("day {day}, {km}", day=number(gap.day), km=km(gap.from_km)), size=gap.days, at_km=gap.from_km, day=gap.day,
            cause="tight", case=case, about=visit.stop.id,
        )  # fmt: skip


def _date(date: dt.date) -> str:
    return f"{date:%A} {date.day} {date:%B}"


def _bought_before(s: Situation, day: int, gap: Gap, shut: str) -> Mend:
    date = s.tour.start_date + dt.timedelta(days=day - 1)
    return Mend(
        name=say("Buy at {shop} on {day}", shop=gap.from_name, day=_date(date)),
        consequence=say("for {way}, and ask by telephone whether a meal is served at {place}", place=shut,
                        way=km(gap.to_km - gap.from_km)),
    )  # fmt: skip


def _other_starts(voyage: Voyage, tour: TourSheet, stop_id: str) -> Iterator[Mend]:
    """The nearest other start that finds the shop open, and what it does to the rest; the days stay as they are cut."""
    road, start, usual = tour.road, tour.start_date, tour.practice

    def shut_from(date: dt.date) -> set[str]:
        stops = tuple(visit.stop for visit in voyage.visits.values())
        visits = arrivals.visits(stops, replace(voyage.watch, start=date), usual)
        shops = (visit for visit in visits.values() if visit.stop.shop in arrivals.FOOD_SHOPS)
        return {visit.stop.id for visit in shops if arrivals.shop_shut(visit, road.start_h(visit.stop.at_km), usual) is not None}

    today = len(shut_from(start))
    for shift in (1, -1, 2, -2, 3, -3):
        shut = shut_from(start + dt.timedelta(days=shift))
        if stop_id not in shut:
            days = "a day" if abs(shift) == 1 else f"{abs(shift)} days"
            yield Mend(
                name=say(f"Leave {days} {'later' if shift > 0 else 'earlier'}, and the shop is open"),
                consequence=say("{then} shops are then shut on the way, {now} today", then=number(len(shut)), now=number(today)),
                start_date=start + dt.timedelta(days=shift),
            )
            return
