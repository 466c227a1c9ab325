"""Trouble of the road: gaps, hot days, cold nights, food without a place."""

import math
from collections.abc import Iterator

import numpy as np

from omnifer.core.findings import sleep
from omnifer.core.findings.mending import a_new, eating, new_id
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at, stretch
from omnifer.core.itinerary import coldest_night
from omnifer.core.model.assessment import Gap
from omnifer.core.model.finding import Grade, Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import ROUNDING
from omnifer.core.sentence import celsius, clock, fine_kg, hours, kg, km, litres, number, say, share
from omnifer.core.supplies import food, water

SACK_L = 6.0
"""Largest soft vessel that one lifts with ease [l]; practice."""
MOST_SACKS = 12
"""More of them nobody hangs on a bike; practice."""
THIRST_SLOWS, THIRST_STOPS = 0.02, 0.04
"""Water lacking, as a part of the body's mass, from which work suffers, and from which nobody should ride on [-]. The first by
the American College of Sports Medicine, Exercise and fluid replacement (2007), doi:10.1249/mss.0b013e31802ca597, from memory; the
second practice."""
EXTREME_C, MANY_HOT = 51.7, 7
"""A heat index of extreme danger (125 °F, US National Weather Service, from memory); so many hot days wear down who rides through
them [d]; practice."""
COOL_START_H, NOON_H = 5.0, 12.0
"""Where days are hot one sets out so early, and rests from noon on [h]; practice."""
FOR_WHAT_IT_WEIGHS = 1.1
"""Vessels for more water than is short: it weighs, and heavier one is longer on the way [-]."""


@Spec("water_gap", "supplied", "strands", quantity="volume")
@looks_at("voyage", "gaps", "riders", "road")
def water_gaps(s: Situation) -> Iterator[Draft]:
    """A stretch between sure water that takes more than the vessels hold."""
    for gap in s.gaps:
        if gap.supply != "water" or gap.short <= ROUNDING:
            continue
        grade = thirst(s, gap.need - gap.reserve - (gap.holds or 0.0))
        if grade == "worth_knowing" and _in_snow(s, gap):
            continue
        nights = ", {nights:dry camp|dry camps}" if gap.nights else ""
        chance = ""
        if gap.missed:
            chance = (
                " {chances} may be dry and does not count." if len(gap.missed) == 1 else " {chances} may be dry and do not count."
            )
        reason = say(
            "{distance} and {hours} of riding to sure water at {to}" + nights + "." + chance,
            distance=km(gap.to_km - gap.from_km),
            hours=hours(gap.hours),
            to=gap.to_name,
            nights=number(gap.nights),
            chances=", ".join(m.name for m in gap.missed),
        )
        yield Draft(
            kind="water_gap",
            grade=grade,
            cause="" if grade == "stops_you" else grade,
            case=say("{lacks} leaving {place}", lacks=litres(gap.short), place=gap.from_name),
            sentence=say(
                "Leaving {place} you need {need} of water. The rig holds {holds}.",
                place=gap.from_name,
                need=litres(gap.need),
                holds=litres(gap.holds or 0),
            ),
            reason=reason,
            place=stretch(gap.day, gap.from_km, gap.to_km),
            size=gap.short,
            at_km=gap.from_km,
            to_km=gap.to_km,
            day=gap.day,
            need=gap.need,
            holds=gap.holds,
            parts={"riding": gap.riding, "camp": gap.camp, "reserve": gap.reserve},
            mends=later(_against_thirst, s, gap),
        )


def _against_thirst(s: Situation, gap: Gap) -> Iterator[Mend]:
    """More vessels; on a dry camp also less washing and cooking."""
    yield from _more_water(s, gap.short)
    stores, riders = s.tour.stores, len(s.tour.riders)
    if gap.nights and stores.washes:
        camp = s.tour.practice.camp_washing_l * riders * gap.nights
        yield Mend(
            name=say("Camp dry without washing"), consequence=say("spares {camp} on this stretch", camp=litres(camp)),
            stores=eating(stores, washes=False),
        )  # fmt: skip
    if gap.nights and stores.cooking in ("cook", "boil"):
        cold = eating(stores, cooking="none")
        a_night = (water.dry_camp(riders, s.tour.practice, how) for how in (stores, cold))
        camp = (next(a_night) - next(a_night)) * gap.nights
        yield Mend(
            name=say("Eat cold all the way"), stores=cold,
            consequence=say("spares {camp} on this stretch, and stove and fuel", camp=litres(camp)),
        )  # fmt: skip


def _in_snow(s: Situation, gap: Gap) -> bool:
    """Whether more can be melted on the way: between two places where snow is the water, with a stove that burns."""
    stops = {stop.at_km: stop for stop in s.tour.road.stops}
    ends = [stops.get(at) for at in (gap.from_km, gap.to_km)]
    snow = ends[1] is not None and ends[1].water == "snow" and (ends[0] is None or ends[0].water != "none")
    return snow and s.voyage is not None and s.voyage.ride.melts(gap.from_km)


def thirst(s: Situation, lacks_l: float) -> Grade:
    """How bad it is to lack so much water, by its part of the riders' mass; the reserve is not thirst, only no reserve."""
    part = lacks_l / max(sum(rider.body_mass_kg for rider in s.tour.riders), 1.0)
    return "stops_you" if part > THIRST_STOPS else "slows_you" if part > THIRST_SLOWS else "worth_knowing"


def _more_water(s: Situation, short: float) -> list[Mend]:
    """Soft vessels of the size that is short, in round figures; none where nobody could carry so many."""
    in_all = short * FOR_WHAT_IT_WEIGHS
    count = math.ceil(in_all / SACK_L)
    if count > MOST_SACKS:
        return []
    holds = round(in_all / count, 1) + 0.1
    sack = Thing(
        id=new_id(s, "more-water"), name=f"Water sack, {holds:g} l", mass_kg=round(0.02 * holds, 3), volume_l=0.04 * holds,
        reach="stop", holds_water_l=holds, soft_vessel=True, guessed=("mass", "volume"), count=count,
        because="A stretch without sure water",
    )  # fmt: skip
    words = "Carry {more} more in a soft vessel" if count == 1 else "Carry {more} more in {count} soft vessels"
    more = a_new(
        s, sack, say(words, more=litres(holds * count), count=number(count)),
        say("adds {mass} full, next to nothing empty", mass=kg(short)),
    )  # fmt: skip
    return [more]


@Spec("hot_day", "safe", "hurts", seasonal=True)
@looks_at("voyage", "days", "road", "own_values")
def hot_days(s: Situation) -> Iterator[Draft]:
    """The hottest day, where it is more than unpleasant, and how many there are."""
    hot = [day for day in s.days if day.hot]
    if s.voyage is None or not s.voyage.climate.known or not hot:
        return
    hottest = max(hot, key=lambda day: day.heat_index_c)
    weather, km_ = s.voyage.climate, s.voyage.ride.nodes.km
    there = np.flatnonzero((km_ >= hottest.from_km) & (km_ <= hottest.to_km))
    at = there[np.argmax(s.voyage.noon_heat_index_c[there])] if there.size else int(np.searchsorted(km_, hottest.from_km))
    high = float(weather.day_high_c[at])
    figures = {
        "day": number(hottest.number), "felt": celsius(hottest.heat_index_c), "high": celsius(high),
        "damp": share(float(weather.humidity_at(weather.day_high_c)[at]) / 100), "n": number(len(hot) - 1),
        "limit": celsius(s.tour.practice.hot_index_c), "hours": hours(min(hottest.riding_hours, NOON_H - COOL_START_H)),
    }  # fmt: skip
    others = " {n:day more feels|days more feel} like {limit} or worse." if len(hot) > 1 else ""
    shade = any(h.kind == "sun" and h.from_km < hottest.to_km and h.to_km > hottest.from_km for h in s.tour.road.hazards)
    sun = " There is no shade: full sun adds up to 8 degrees." if shade else " Full sun adds up to 8 degrees."
    yield Draft(
        kind="hot_day", grade="stops_you" if hottest.heat_index_c >= EXTREME_C or len(hot) >= MANY_HOT else "slows_you",
        sentence=say("Day {day} may feel like {felt} in the shade.", **figures),
        reason=say("{high} with {damp} of humidity at noon." + others + sun + " Treat confusion or collapse as an emergency.",
                   **figures),
        place=stretch(hottest.number, hottest.from_km, hottest.to_km), size=hottest.heat_index_c - s.tour.practice.hot_index_c,
        about="", at_km=hottest.from_km, to_km=hottest.to_km, day=hottest.number,
        mends=[Mend(name=say("Start at {at}, rest in the shade from {noon} to {four}", at=clock(COOL_START_H),
                             noon=clock(NOON_H), four=clock(NOON_H + 4)),
                    consequence=say("{hours} of that day's riding are done before noon", **figures))],
    )  # fmt: skip


MASK_AND_MITTS_KG, STAY_IN_C = 0.25, -35.0
"""What a face mask and spare overmitts weigh, and the wind chill in which few set out at all [kg, °C]; practice."""
STANDING = " Sitting in all that is worn is borne for {sits}: a longer repair begins with the tent."
SKIN_FREEZES: tuple[tuple[float, str], ...] = (
    (-55.0, "in less than 2 minutes"), (-48.0, "in 2 to 5 minutes"), (-40.0, "in 5 to 10 minutes"),
    (-28.0, "in 10 to 30 minutes"),
)  # fmt: skip
"""Wind chill from which bare skin freezes, and how soon [°C]: Environment Canada, wind chill hazards, from memory."""


@Spec("frostbite", "dressed", "hurts", seasonal=True)
@looks_at("days", "needed")
def frozen_skin(s: Situation) -> Iterator[Draft]:
    """Days on which the wind of riding down freezes bare skin."""
    felt = ((day.wind_chill_c, day) for day in s.days if not day.rest)
    cold = [(worst, day) for worst, day in felt if worst is not None and worst <= SKIN_FREEZES[-1][0]]
    if not cold:
        return
    worst, at = min(cold, key=lambda pair: pair[0])
    shortest = min((d.bears_h for layers in s.needed.layers for d in layers.days), default=None)
    standing = STANDING if shortest is not None else ""
    soon = next(words for limit, words in SKIN_FREEZES if worst <= limit)
    yield Draft(
        kind="frostbite", grade="stops_you",
        sentence=say("Riding down feels like {felt} on day {day}: bare skin freezes {soon}.", felt=celsius(worst),
                     day=number(at.number), soon=soon),
        reason=say("It feels like {from_} or colder on {n:day|days}: {which}." + standing + " Cover the face, keep spare dry"
                   " mitts at hand, look at each other's cheeks and fingers every half hour; white and numb skin is warmed, never"
                   " rubbed.",
                   n=number(len(cold)), from_=celsius(SKIN_FREEZES[-1][0]),
                   which=", ".join(str(day.number) for _, day in cold[:12]), sits=hours(shortest or 0.0)),
        place=stretch(at.number, at.from_km, at.to_km), size=-worst, at_km=at.from_km, to_km=at.to_km, day=at.number, about="",
        mends=[Mend(name=say("A face mask each, and spare mitts on a string"),
                    consequence=say("some {mass} a rider; below {limit} felt stay in", mass=fine_kg(MASK_AND_MITTS_KG),
                                    limit=celsius(STAY_IN_C)))],
    )  # fmt: skip


@Spec("cold_night", "warm", "strands", seasonal=True)
@looks_at("voyage", "days", "sleepers", "riders", "road", "own_values", "from_km")
def cold_nights(s: Situation) -> Iterator[Draft]:
    """The coldest night, named so that the sleep kit can be held against it."""
    if s.voyage is None or not s.voyage.climate.known or not s.days or any(sleep.cold(s)):
        return  # whoever lies awake in it is told of
    coldest = min(s.days, key=lambda day: day.night_low_c)
    facts = coldest_night(s.voyage, s.tour)
    if min(coldest.night_low_c, facts.low_c) < 0:
        yield Draft(
            kind="cold_night",
            grade="worth_knowing",
            sentence=say("Plan for a night of {low}, most likely day {day}.", low=celsius(facts.low_c), day=number(facts.day)),
            reason=say(
                "In {odds} of such tours one of {nights} nights is colder. Each by itself: the coldest is {single}, day {day}."
                " Hollows on clear nights may be 5 to 10 degrees colder.",
                nights=number(facts.nights),
                odds=share(s.tour.road.odds),
                single=celsius(coldest.night_low_c),
                day=number(coldest.number),
            ),
            place=say("day {day}, {km}", day=number(coldest.number), km=km(coldest.to_km)),
            size=-coldest.night_low_c / 10,
            about="",
            at_km=coldest.to_km,
            day=coldest.number,
        )


@Spec("no_room_for_food", "supplied", "strands", loaded="out", advice=("Free a bag for it", "none has room for all of it"))
@looks_at("voyage", "gaps", "load", "stores", "own_values")
def food_room(s: Situation) -> Iterator[Draft]:
    """Food of a gap that has no place on the bikes."""
    if s.voyage is None or not s.tour.load.placements:
        return
    tenths = sum(f.tenths for f in s.tour.load.food)
    if tenths == 10:
        return
    food_kg = s.voyage.stock["food"]
    fullest = int(np.argmax(food_kg))
    missing = float(food_kg[fullest]) * (10 - tenths) / 10
    at_km, day, place = s.when(fullest)
    gap = next((g for g in s.gaps if g.supply == "food" and g.from_km == at_km), None)
    yield Draft(
        kind="no_room_for_food",
        grade="slows_you",
        sentence=say("{mass} of food, {volume}, has no place.", mass=kg(missing), volume=litres(missing * food.l_per_kg(s.tour))),
        reason=say(
            "The longest stretch between shops is {distance}. Keep room for it before the bags are full.",
            distance=km(gap.to_km - gap.from_km if gap else s.voyage.profile.length_km),
        ),
        place=place,
        size=missing,
        about="",
        at_km=at_km,
        day=day,
    )
