"""Trouble of the road: gaps, long and dark days, cold nights, food without a place."""

from collections.abc import Iterator

import numpy as np

from omnifer.core import practice
from omnifer.core.findings.situation import SLACK, Draft, Situation
from omnifer.core.model.assessment import Mend
from omnifer.core.sentence import celsius, hours, kg, km, litres, number, say

LONG_DAY_HOURS = 8.5
"""Riding hours that few keep up day after day [h]; practice."""


def water_gaps(s: Situation) -> Iterator[Draft]:
    """A stretch between sure water that takes more than the vessels hold."""
    for gap in s.gaps:
        if gap.supply != "water" or gap.short <= SLACK:
            continue
        nights = "{nights} dry camps" if gap.nights != 1 else "one dry camp"
        chance = ""
        if gap.chances:
            chance = " {chances} may be dry and does not count."
        reason = say(
            "{distance} and {hours} of riding to sure water at {to}, " + nights + "." + chance,
            distance=km(gap.to_km - gap.from_km),
            hours=hours(gap.hours),
            to=gap.to_name,
            nights=number(gap.nights),
            chances=", ".join(gap.chances),
        )
        mends = [
            Mend(
                name=say("Carry {more} more in soft bottles", more=litres(gap.short)),
                consequence=say("adds {mass} full, next to nothing empty", mass=kg(gap.short)),
            )
        ]
        if gap.nights:
            camp = practice.DRY_CAMP_L * len(s.tour.riders)
            mends.append(
                Mend(
                    name=say("Cook and wash before leaving {place}, and camp dry on less", place=gap.from_name),
                    consequence=say("a dry camp is counted with {camp}", camp=litres(camp)),
                )
            )
        yield Draft(
            kind="water_gap",
            grade="stops_you",
            sentence=say(
                "Leaving {place} you need {need} of water. The rig holds {holds}.",
                place=gap.from_name,
                need=litres(gap.need),
                holds=litres(gap.holds or 0),
            ),
            reason=reason,
            place=say("day {day}, {from_km} to {to_km}", day=number(gap.day), from_km=km(gap.from_km), to_km=km(gap.to_km)),
            size=gap.short,
            at_km=gap.from_km,
            to_km=gap.to_km,
            day=gap.day,
            need=gap.need,
            holds=gap.holds,
            parts={"riding": gap.riding, "camp": gap.camp, "reserve": gap.reserve},
            mends=mends,
        )


def days(s: Situation) -> Iterator[Draft]:
    """Days longer than the light, or than most riders last."""
    for day in s.days:
        on_road = day.riding_hours + day.pause_hours
        place = say("day {day}, {from_km} to {to_km}", day=number(day.number), from_km=km(day.from_km), to_km=km(day.to_km))
        if day.daylight_hours is not None and on_road > day.daylight_hours:
            yield Draft(
                kind="dark_day",
                grade="slows_you",
                sentence=say("Day {day} is {on_road} on the road; light lasts {light}.", day=number(day.number),
                             on_road=hours(on_road), light=hours(day.daylight_hours)),
                reason=say("Pauses included. Hills and haze shorten the light further."),
                place=place, size=on_road - day.daylight_hours, at_km=day.from_km, to_km=day.to_km, day=day.number,
            )  # fmt: skip
        elif day.riding_hours > LONG_DAY_HOURS:
            yield Draft(
                kind="long_day",
                grade="worth_knowing",
                sentence=say("Day {day} is {riding} of riding.", day=number(day.number), riding=hours(day.riding_hours)),
                reason=say("With the pauses counted here, {on_road} on the road.", on_road=hours(on_road)),
                place=place, size=day.riding_hours - LONG_DAY_HOURS, at_km=day.from_km, to_km=day.to_km, day=day.number,
            )  # fmt: skip


def cold_nights(s: Situation) -> Iterator[Draft]:
    """The coldest night, named so that the sleep kit can be held against it."""
    if s.voyage is None or not s.voyage.climate.known or not s.days:
        return
    coldest = min(s.days, key=lambda day: day.night_low_c)
    if coldest.night_low_c < 0:
        yield Draft(
            kind="cold_night",
            grade="worth_knowing",
            sentence=say("The coldest night is {low}, day {day}.", low=celsius(coldest.night_low_c), day=number(coldest.number)),
            reason=say("A cold night of the season at that height; hollows on clear nights may be 5 to 10 degrees colder."),
            place=say("day {day}, {km}", day=number(coldest.number), km=km(coldest.to_km)),
            size=-coldest.night_low_c / 10,
            at_km=coldest.to_km,
            day=coldest.number,
        )


def food_room(s: Situation) -> Iterator[Draft]:
    """Food of a gap that has no place on the bikes."""
    if s.voyage is None or not s.tour.load.placements:
        return
    tenths = sum(f.tenths for f in s.tour.load.food)
    if tenths == 10:
        return
    fullest = int(np.argmax(s.voyage.food_kg))
    missing = float(s.voyage.food_kg[fullest]) * (10 - tenths) / 10
    at_km, day, place = s.when(fullest)
    gap = next((g for g in s.gaps if g.supply == "food" and g.from_km == at_km), None)
    yield Draft(
        kind="no_room_for_food",
        grade="slows_you",
        sentence=say(
            "{mass} of food, {volume}, has no place.", mass=kg(missing), volume=litres(missing * practice.FOOD_L_PER_KG)
        ),
        reason=say(
            "The longest stretch between shops is {distance}. Keep room for it before the bags are full.",
            distance=km(gap.to_km - gap.from_km if gap else s.voyage.profile.length_km),
        ),
        place=place,
        size=missing,
        at_km=at_km,
        day=day,
    )
