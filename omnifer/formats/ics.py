"""The tour as a calendar: a day each, with distance, stops, daylight and what is shut (RFC 5545, through icalendar)."""

import datetime as dt
from collections.abc import Sequence

from icalendar import Calendar, Event

from omnifer.core.model.assessment import Day, Passing
from omnifer.core.model.lanes import AtStop
from omnifer.core.model.road import Stop
from omnifer.core.sentence import clock
from omnifer.formats.shopping_csv import lines_of


def write_ics(
    name: str, days: list[Day], passings: list[Passing], stops: tuple[Stop, ...], at_stops: Sequence[AtStop] = ()
) -> str:
    """An all-day event for each day of the tour, with what to fill, buy and charge on it."""
    by_id = {stop.id: stop for stop in stops}
    calendar = Calendar()
    calendar.add("prodid", "-//Omnifer//Tour//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for day in days:
        event = Event()
        event.add("uid", f"{day.date.isoformat()}-day-{day.number}@omnifer")
        event.add("dtstamp", dt.datetime.combine(day.date, dt.time(), dt.UTC))
        event.add("dtstart", day.date)
        event.add("dtend", day.date + dt.timedelta(days=1))
        event.add("transp", "TRANSPARENT")
        event.add("summary", _summary(day))
        lines = _lines(day, [p for p in passings if p.day == day.number], by_id)
        lines += [line for stop in at_stops if stop.day == day.number for line in lines_of(stop)]
        event.add("description", "\n".join(lines))
        if day.night_at:
            event.add("location", day.night_at)
        calendar.add_component(event)
    text: bytes = calendar.to_ical()
    return text.decode()


def _summary(day: Day) -> str:
    where = f" to {day.night_at}" if day.night_at else ""
    return f"Day {day.number}: rest{' at ' + day.night_at if day.night_at else ''}" if day.rest else (
        f"Day {day.number}: {day.distance_km:.0f} km{where}"
    )  # fmt: skip


def _lines(day: Day, passings: list[Passing], stops: dict[str, Stop]) -> list[str]:
    lines = []
    if not day.rest:
        lines.append(
            f"km {day.from_km:.0f} to {day.to_km:.0f}, {day.ascent_m:.0f} m of climbing, {day.riding_hours:.1f} h of riding"
        )
    lines.append(f"Cold night {day.night_low_c:.0f} °C, hot day {day.day_high_c:.0f} °C")
    if day.sunrise_h is not None and day.sunset_h is not None:
        lines.append(f"Sun {clock(day.sunrise_h)} to {clock(day.sunset_h)}")
    for passing in passings:
        stop = stops[passing.stop_id]
        what = [f"water {stop.water}"] if stop.water != "none" else []
        what += [f"shop {stop.shop}" + (", shut" if passing.shop_shut else "")] if stop.shop != "none" else []
        lines.append(f"{clock(passing.hour)} {stop.name}, km {stop.at_km:.0f}" + (f": {'; '.join(what)}" if what else ""))
    return lines
