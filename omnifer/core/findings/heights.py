"""Sleeping high: how fast the nights climb, by the published guidance, and how high they get; and passes under snow."""

import datetime as dt
from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from omnifer.core.findings.situation import Draft, Situation, Spec, looks_at
from omnifer.core.model.assessment import Day
from omnifer.core.model.finding import Mend
from omnifer.core.model.quantities import Text
from omnifer.core.physics.boiling import boiling_point, cooks_longer
from omnifer.core.road.snow import FREEZES_C, SNOW_DAYS, air_before, passes_of
from omnifer.core.sentence import celsius, joined, km, metres, number, say, tenths

Array = NDArray[np.float64]
HIGH_M, STEP_M, REST_M = 3000.0, 500.0, 1000.0
"""Above this height nobody should sleep more than so much higher than the night before, and should stay a night more for each so
many metres [m]. Wilderness Medical Society, practice guidelines for acute altitude illness (2019 update),
doi:10.1016/j.wem.2019.04.006, from memory."""
FELT_M = 2500.0
"""Nights from this height on can make ill [m]; the same."""
LEAP_M = 1000.0
"""So much higher than the night before is more than a matter of headaches [m]; practice."""


@Spec("pass_shut", "safe", "strands")
@looks_at("voyage", "days", "road")
def passes(s: Situation) -> Iterator[Draft]:
    """Passes over which the road goes while snow lies there, by the season's usual air; typed weather says nothing of the weeks
    before."""
    if s.voyage is None or not s.voyage.climate.follows_date:
        return
    profile = s.voyage.profile
    for at_km, high in passes_of(profile):
        day = s.days[s.voyage.day_of(at_km) - 1]
        year = np.roll(air_before(profile, s.tour.road, at_km), 1 - day.date.timetuple().tm_yday)
        air = float(year[0])
        if air >= FREEZES_C:
            continue
        later = int(np.argmax(year >= FREEZES_C))
        opens = f"Usually it opens about {_date(day.date + dt.timedelta(later))}." if later else "It hardly ever melts there."
        yield Draft(
            kind="pass_shut", grade="slows_you",
            sentence=say("The road over {at} may be shut by snow on day {day}, {date}.", at=metres(high), day=number(day.number),
                         date=_date(day.date)),
            reason=joined([
                say("Up there the air of the {n} days before is {air} on average: snow lies (practice).", n=number(SNOW_DAYS),
                    air=celsius(air)),
                say(opens), say("Ask whoever keeps the road, and know the way around."),
            ], " "),
            place=say("day {day}, {km}", day=number(day.number), km=km(at_km)), size=-air, at_km=at_km, day=day.number,
            cause="snow", case=say("{at} on day {day}", at=metres(high), day=number(day.number)), about=f"{round(at_km)}",
        )  # fmt: skip


def _date(date: dt.date) -> str:
    return f"{date.day} {date:%B}"


@Spec("climbs_fast", "safe", "hurts")
@Spec("sleeps_high", "safe", "costs", small=True)
@looks_at("voyage", "days")
def nights(s: Situation) -> Iterator[Draft]:
    """Nights that lie too much higher than those before, and the highest where they climb no faster than is advised."""
    if s.voyage is None or not s.voyage.profile.has_heights or len(s.days) < 2:
        return
    profile = s.voyage.profile
    slept = [(day, float(np.interp(day.to_km, profile.km, profile.elevation_m))) for day in s.days[:-1]]
    fast = list(_fast(slept, float(profile.elevation_m[0])))
    for day, at, gain in fast:
        yield Draft(
            kind="climbs_fast", grade="stops_you" if gain > LEAP_M else "slows_you",
            sentence=say("Night {day} lies at {at}, {gain} above the night before.", day=number(day.number), at=metres(at),
                         gain=metres(gain)),
            reason=say("Above {high} at most {step} more a night are advised, and a night more for each {rest}"
                       " (Wilderness Medical Society). Headache with sickness or a stagger: sleep no higher; if it gets worse, go"
                       " down at once. Ask a doctor before.", high=metres(HIGH_M), step=metres(STEP_M), rest=metres(REST_M)),
            place=_place(day), size=gain, at_km=day.to_km, day=day.number, cause="climb",
            case=say("night {day} by {gain}", day=number(day.number), gain=metres(gain)),
            mends=[Mend(name=say("Sleep lower on the way, or rest a day before"), consequence=say("takes a day"))],
        )  # fmt: skip
    high = [(day, at) for day, at in slept if at >= FELT_M]
    if high and not fast:
        day, at = max(high, key=lambda night: night[1])
        yield Draft(
            kind="sleeps_high", grade="worth_knowing",
            sentence=say("{n:night lies|nights lie} above {felt}, the highest at {at}.", n=number(len(high)),
                         felt=metres(FELT_M), at=metres(at)),
            reason=say("They climb no faster than is advised. Whoever has a headache there sleeps no higher the next night; keep"
                       " a way down. Water boils at {boils} there, and food cooks {times} times as long.",
                       boils=celsius(float(boiling_point(at))), times=tenths(float(cooks_longer(at)))),
            place=_place(day), size=len(high), at_km=day.to_km, day=day.number, about="",
        )  # fmt: skip


def _fast(slept: list[tuple[Day, float]], start_m: float) -> Iterator[tuple[Day, float, float]]:
    """Nights that climb faster than is advised, each with its height, and by how much it lies above the one before [m]."""
    before = rested = start_m
    for day, at in slept:
        rested = at if day.rest or at <= HIGH_M else rested
        if at > HIGH_M and (at - max(before, FELT_M) > STEP_M or at - max(rested, HIGH_M) > REST_M):
            yield day, at, at - before
        before = at


def _place(day: Day) -> Text:
    return say("day {day}, {km}", day=number(day.number), km=km(day.to_km))
