"""Trouble of single days: too long, in the dark, on foot; and too few of them."""

import math
from collections.abc import Iterator

import numpy as np

from omnifer.core.findings.situation import Draft, Situation, Spec, looks_at, stretch
from omnifer.core.model.assessment import Day
from omnifer.core.model.finding import Mend
from omnifer.core.model.quantities import Figure, Text
from omnifer.core.model.road import LATEST_START_H, DayCut, DayStart
from omnifer.core.physics.riding import steady_speed
from omnifer.core.road.days import CHILD_YEARS
from omnifer.core.road.pace import RidingMass
from omnifer.core.sentence import clock, hours, km, number, say

WALKED_KM = 0.5
"""Less walking than this in a day is not worth a word [km]; practice."""
JUST_WALKED = 0.05
"""A day of which less is walked only just needs it [-]; practice."""
LONG_DAY_HOURS = 8.5
"""Riding hours that few keep up day after day [h]; practice."""
SHORTER_H = 0.5
"""By so much days are planned shorter where one is too long [h]."""
MUCH_LONGER, DUSK_TO_SPARE_H, SEA_DENSITY = 1.3, 0.5, 1.2
"""A wind from ahead that makes a day so many times as long is told where it then ends so near to sunset; air at the sea [-, h,
kg/m3]; practice."""
MORE_THAN_PLANNED = 1.1
"""Riding hours a day that are more by such a part are worth a word [-]."""


@Spec("dark_day", "seen", "delays")
@Spec("long_day", "packed", "delays")
@Spec("walking", "packed", "delays", small=True, advice=("A lower gear", "turns walking into slow riding, not into speed"))
@looks_at("voyage", "days", "riders", "road", "own_values")
def days(s: Situation) -> Iterator[Draft]:
    """Days that end after dark, or longer than most riders last, or would with a usual wind from ahead."""
    yield from _headwinds(s)
    for day in s.days:
        on_road = day.riding_hours + day.pause_hours + day.transfer_hours
        place = stretch(day.number, day.from_km, day.to_km)
        if day.dark or day.starts_dark:
            yield _dark(day, place)
        elif day.riding_hours > LONG_DAY_HOURS:
            yield Draft(
                kind="long_day", grade="worth_knowing",
                sentence=say("Day {day} is {riding} of riding.", day=number(day.number), riding=hours(day.riding_hours)),
                reason=say("With the pauses counted here, {on_road} on the road.", on_road=hours(on_road)),
                mends=[_shorter(s, day)], place=place,
                size=day.riding_hours - LONG_DAY_HOURS, at_km=day.from_km, to_km=day.to_km, day=day.number,
                cause="long", case=say("day {day}, {riding}", day=number(day.number), riding=hours(day.riding_hours)),
            )  # fmt: skip
        if day.walking_km >= WALKED_KM:
            just = day.walking_km < JUST_WALKED * day.distance_km
            words = "On day {day} you just have to walk: {walked}." if just else "On day {day} you walk {walked}."
            yield Draft(
                kind="walking", grade="worth_knowing",
                sentence=say(words, day=number(day.number), walked=km(day.walking_km)),
                reason=say("Steeper or softer than the lowest gear can be turned with this mass; the steepest ramp is {steepest}."
                           " A lower gear or a lighter bike turns it into riding, not into more speed.",
                           steepest=Figure(value=day.steepest, quantity="grade")),
                place=place, size=day.walking_km, at_km=day.from_km, to_km=day.to_km, day=day.number,
                cause="walking", case=say("{walked} on day {day}", day=number(day.number), walked=km(day.walking_km)),
            )  # fmt: skip


def _shorter(s: Situation, day: Day) -> Mend:
    """The whole tour cut into shorter days; a night that the rider has set stays the rider's."""
    cut = s.tour.road.cut
    if day.night_set_km is not None or s.tour.road.typed_days:
        return Mend(name=say("Sleep earlier on that day"), consequence=say("you have set its end yourself"))
    most = min(LONG_DAY_HOURS, cut.hours if cut.by == "hours" else LONG_DAY_HOURS) - SHORTER_H
    return Mend(
        name=say("At most {hours} of riding a day", hours=hours(most)),
        consequence=say("all days are cut anew; the tour may take longer"),
        cut=DayCut.model_validate(cut.model_dump() | {"by": "hours", "hours": most}),
    )


def _dark(day: Day, place: Text) -> Draft:
    """A day that begins before the sun rises, ends after it has set, or has none."""
    number_of, dusk = number(day.number), clock(day.dusk_h) if day.dusk_h is not None else "no clear hour"
    reason = say("Starting at {start}, pauses included. Civil twilight ends at {dusk}; hills and haze shorten the light.",
                 start=clock(day.start_h), dusk=dusk)  # fmt: skip
    hour: float | None = None
    if day.sun == "stays_down":
        sentence, late = say("On day {day} the sun does not rise.", day=number_of), day.riding_hours
        reason = say("Polar night: at noon there is twilight at best. Plan lamps, batteries and warm stops for all of it.")
        otherwise = say("Ride it in another season")
    elif day.dark:
        late = day.arrive_h - (day.sunset_h or 0.0)
        sentence = say("Day {day} ends at {arrive}; the sun sets at {sunset}.", day=number_of, arrive=clock(day.arrive_h),
                       sunset=clock(day.sunset_h or 0))  # fmt: skip
        # Nobody ends a day in the light by beginning it in the dark.
        hour = max(_quarter_after(day.sunrise_h or 0.0), day.start_h - _quarters(late).value / 60)
        otherwise = say("Make day {day} shorter", day=number_of)
    else:
        late = (day.sunrise_h or 0.0) - day.start_h
        sentence = say("Day {day} begins at {start}; the sun rises at {sunrise}.", day=number_of, start=clock(day.start_h),
                       sunrise=clock(day.sunrise_h or 0))  # fmt: skip
        hour = day.start_h + _quarters(late).value / 60
        otherwise = say("Ride it in another season")
    if hour is not None and hour != day.start_h and hour <= LATEST_START_H and (hour < day.start_h) == day.dark:
        lights = say("the other days stay as they are; lights and reflectors are needed otherwise")
        mend = Mend(name=say("Set out at {hour} on day {day}", hour=clock(hour), day=number_of), consequence=lights,
                    starts=[DayStart(at_km=day.from_km, hour=hour)])  # fmt: skip
    else:
        mend = Mend(name=otherwise, consequence=say("there is no more light to set out in"))
    return Draft(
        kind="dark_day", grade="slows_you", sentence=sentence, reason=reason, place=place, size=late, at_km=day.from_km,
        to_km=day.to_km, day=day.number, cause="dark", about=str(day.number),
        case=say("day {day}, by {late}", day=number_of, late=hours(late)),
        mends=[mend],
    )  # fmt: skip


def _quarter_after(hour: float) -> float:
    """The quarter of an hour at or after an hour [h]."""
    return math.ceil(hour * 4) / 4


def _quarters(late_h: float) -> Figure:
    """So many minutes, in quarters of an hour that are enough."""
    return Figure(value=15 * math.ceil(late_h * 4), quantity="minutes")


def _headwinds(s: Situation) -> Iterator[Draft]:
    """Days that a usual wind from ahead makes too long for whoever rides slowest."""
    if s.voyage is None or not s.voyage.climate.known:
        return
    usual, found = s.tour.practice, list[tuple[float, Day, float]]()
    for day in (day for day in s.days if not day.rest and day.wind_ms > 0 and not day.dark):
        longer = max(_in_headwind(riding, day.wind_ms * usual.wind_at_rider) for riding in s.voyage.riding)
        arrives = day.start_h + (day.riding_hours * longer + day.pause_hours * longer + day.transfer_hours)
        if longer >= MUCH_LONGER and arrives > (day.sunset_h or 24.0) - DUSK_TO_SPARE_H:
            found.append((arrives, day, longer))
    if len(found) < 1:
        return
    arrives, day, longer = max(found, key=lambda one: one[0] - (one[1].sunset_h or 0))
    yield Draft(
        kind="dark_day", grade="slows_you" if _children(s) else "worth_knowing",
        sentence=say("A headwind of {wind} makes day {day} {then} of riding instead of {now}.", day=number(day.number),
                     wind=Figure(value=3.6 * day.wind_ms, quantity="speed"), then=hours(day.riding_hours * longer),
                     now=hours(day.riding_hours)),
        reason=say("That is the usual wind there, blowing from ahead all day: you come at {at}, and the sun sets at {sunset}; so"
                   " on {n:day|days}. Set out earlier when it blows, or stop half way.", at=clock(arrives),
                   sunset=clock(day.sunset_h or 0.0), n=number(len(found))),
        place=stretch(day.number, day.from_km, day.to_km), size=longer, at_km=day.from_km, to_km=day.to_km, day=day.number,
        about="headwind",
    )  # fmt: skip


def _in_headwind(riding: RidingMass, wind_ms: float) -> float:
    """How many times as long a level kilometre takes [-]."""
    still, windy = steady_speed(
        riding.power_w, 0.0, float(np.mean(riding.dry_kg)), riding.drag_area_m2, riding.rolling_resistance, SEA_DENSITY,
        riding.usual.drivetrain_efficiency, np.array([0.0, wind_ms]),
    )  # fmt: skip
    return float(still / windy)


def _children(s: Situation) -> bool:
    return any(rider.age_years is not None and rider.age_years < CHILD_YEARS for rider in s.tour.riders)


@Spec("too_few_days", "packed", "strands")
@looks_at("days", "road")
def too_few(s: Situation) -> Iterator[Draft]:
    """A number of days for the whole tour that asks more riding a day than the rider plans otherwise."""
    cut = s.tour.road.cut
    riding = [day for day in s.days if not day.rest]
    if cut.by != "days" or s.tour.road.typed_days or not riding:
        return
    in_all = sum(day.riding_hours for day in riding)
    a_day = in_all / len(riding)
    if a_day <= cut.hours * MORE_THAN_PLANNED:
        return
    enough = math.ceil(in_all / cut.hours) + len(s.days) - len(riding)
    yield Draft(
        kind="too_few_days", grade="slows_you" if a_day <= LONG_DAY_HOURS else "stops_you",
        sentence=say("{days:day asks|days ask} for {riding} of riding on each.", days=number(len(s.days)), riding=hours(a_day)),
        reason=say("{hours} in all, pauses apart. At {planned} a day, as you plan otherwise, it takes {enough:day|days}.",
                   hours=hours(in_all), planned=hours(cut.hours), enough=number(enough)),
        place=say("the whole tour"), size=a_day - cut.hours, about="",
        mends=[
            Mend(
                name=say("Take {enough:day|days}", enough=number(enough)),
                consequence=say("{planned} of riding a day", planned=hours(cut.hours)),
                cut=cut.model_copy(update={"days": enough}),
            )
        ],
    )  # fmt: skip
