"""When a place is open, as a map writes it, for the week in which a rider passes."""

import datetime as dt
from collections import Counter
from typing import Any

from opening_hours import OpeningHours, State

WEEKS = 3
"""So many weeks around the day are looked at: what is shut on one of three like days is shut by a holiday."""
Span = tuple[float, float]


def hours_of(text: str, about: dt.date, lat_deg: float | None = None, lon_deg: float | None = None) -> dict[str, Any] | None:
    """Fields of a stop that say when its shop is open; None where the words are not understood.

    Parameters
    ----------
    text : str
        As in OpenStreetMap's key opening_hours.
    about : date
        On which the rider passes: summer hours count in summer.
    lat_deg, lon_deg : float, optional
        Where, for holidays and the sun [°].

    Returns
    -------
    dict
        closed_weekdays (all seven: shut for the season), opens_h, closes_h, opens_again_h, closes_again_h, closed_dates. A day
        with hours of its own is told by what most days have; more than two spans a day are told by the first and the last.

    References
    ----------
    wiki.openstreetmap.org/wiki/Key:opening_hours/specification, read by opening-hours-py.
    """
    place = None if lat_deg is None or lon_deg is None else (lat_deg, lon_deg)
    first = about - dt.timedelta(days=about.weekday() + 7 * (WEEKS // 2))
    days = [first + dt.timedelta(days=n) for n in range(7 * WEEKS)]
    try:
        rules = OpeningHours(text, coords=place, auto_country=place is not None)
        spans = {day: _spans(rules, day) for day in days}
    except Exception:  # its errors share no class that its types name
        return None
    closed = [weekday for weekday in range(7) if sum(not spans[day] for day in days if day.weekday() == weekday) > WEEKS // 2]
    usual = Counter(open_on for day, open_on in spans.items() if open_on and day.weekday() not in closed)
    found: dict[str, Any] = {
        "closed_weekdays": tuple(closed),
        "closed_dates": tuple(day for day, open_on in spans.items() if not open_on and day.weekday() not in closed),
    }
    if usual:
        # Of patterns equally common the shorter: who comes then finds it open.
        most = min(usual, key=lambda pattern: (-usual[pattern], sum(b - a for a, b in pattern)))
        if most != ((0.0, 24.0),):
            found |= {"opens_h": most[0][0], "closes_h": most[0][1]}
        if len(most) > 1:
            found |= {"opens_again_h": most[-1][0], "closes_again_h": most[-1][1]}
    return found


def _spans(rules: OpeningHours, day: dt.date) -> tuple[Span, ...]:
    """When it is open on a day, from midnight to midnight [h]; what is left of a night before does not count."""
    begin = dt.datetime.combine(day, dt.time())
    found = [
        (_hour(start, begin), _hour(end, begin))
        for start, end, state, _ in rules.intervals(begin, begin + dt.timedelta(days=1))
        if state == State.OPEN
    ]
    return tuple(span for span in found if span[0] > 0 or span[1] >= DAY_BEGINS_H)


DAY_BEGINS_H = 6.0
"""What is open from midnight and shut before is a bar and no shop [h]."""


def _hour(moment: dt.datetime, begin: dt.datetime) -> float:
    return round((moment.replace(tzinfo=None) - begin).total_seconds() / 3600, 2)
