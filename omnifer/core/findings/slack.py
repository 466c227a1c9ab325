"""What leaves no slack: nights of the wrong kind, no day in hand, days of rain, a long way between shops, a child's load."""

from collections.abc import Callable, Iterator
from dataclasses import replace
from itertools import pairwise

import numpy as np

from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at, stretch
from omnifer.core.model.assessment import Day, Gap
from omnifer.core.model.finding import Mend
from omnifer.core.model.quantities import Figure, Text
from omnifer.core.model.road import Night, Stop
from omnifer.core.model.roles import SleepingBag
from omnifer.core.needs import night_stops, out_of_doors
from omnifer.core.physics.weather import chance_of_run
from omnifer.core.road.days import ANY_NIGHT, CHILD_YEARS, wished_nights
from omnifer.core.sentence import clock, joined, kg, km, metres, number, say, share, tenths

HOME_KM = 3.0
"""A journey that begins so near the end of the road takes the party home [km]."""
RUN_D, RUN_CHANCE, OFTEN_WET = 3, 0.5, 0.35
"""Wet days running that soak what is slept in, and the chance of them and the part of wet days from which one plans for them [d,
-, -]; practice."""
NO_REST_D, LONG_WITHOUT_REST_D = 10, 20
"""So many days running without a rest are worth a word, so many wear down whoever rides them [d]; practice."""
LONG_WAY_D = 5
"""Days without a shop from which food alone is a matter of its own [d]; practice."""
SOFTER = 1 / 3
"""So much longer soft ground takes when it is softer than reckoned [-]; practice: a quarter slower."""
CHILDS_SHARE = 0.25
"""Most luggage on a child's bike, of the child's mass [-]; practice: a fifth rides well, beyond a quarter hills are pushed."""


@Spec("no_bed", "warm", "strands")
@looks_at("voyage", "days", "riders", "road", "own_values")
def nights(s: Situation) -> Iterator[Draft]:
    """Nights that are not of the kind that the party wants: no bed where only rooms are slept in, wild camps with a child."""
    road = s.tour.road
    wished = wished_nights(road, s.tour.riders)
    if s.voyage is None or wished == ANY_NIGHT or not any(stop.shelter in wished for stop in road.stops):
        return
    at_stops = night_stops(s.tour, s.days)
    for day, stops in list(zip(s.days, at_stops, strict=True))[:-1]:
        if day.rest or any(stop.shelter in wished for stop in stops):
            continue
        where = day.night_at or "the end of the day"
        before, after = _either_side(s, [stop for stop in road.stops if stop.shelter in wished], day)
        figures: dict[str, Figure | str] = {"day": number(day.number), "place": where}
        if road.rooms_only:
            sentence = say("Night {day} has no bed: there is no room at {place}.", **figures)
            reason = "You ride from room to room."
        else:
            sentence = say("Night {day} is a wild camp: no site, hut or room at {place}.", **figures)
            reason = "A child rides along." if road.wild_camps is None else "You want sites, huts and rooms."
        near = {f"name_{k}": stop.name for k, stop in enumerate((before, after)) if stop is not None}
        off = {f"off_{k}": km(abs(stop.at_km - day.to_km)) for k, stop in enumerate((before, after)) if stop is not None}
        lie = [f"{{off_{k}}} {way} lies {{name_{k}}}" for k, way in enumerate(("before", "after")) if f"off_{k}" in off]
        words = "; ".join(lie) + ". Ask there before you count on it." if lie else "None lies within a day of it."
        yield Draft(
            kind="no_bed", grade="stops_you" if road.rooms_only else "slows_you", sentence=sentence,
            reason=say(f"{reason} {words}", **near, **off),
            place=say("day {day}, {km}", day=number(day.number), km=km(day.to_km)), size=1, at_km=day.to_km, day=day.number,
            cause="night", case=say("night {day}", day=number(day.number)),
            mends=[_ending_at(s, day, stop) for stop in (before, after) if stop is not None and stop.at_km > day.from_km],
        )  # fmt: skip


def _either_side(s: Situation, places: list[Stop], day: Day) -> tuple[Stop | None, Stop | None]:
    """The nearest places before and behind a night, within its day and the next."""
    following = next((other.to_km for other in s.days if other.from_km >= day.to_km and not other.rest), day.to_km)
    before = [stop for stop in places if day.from_km <= stop.at_km < day.to_km]
    after = [stop for stop in places if day.to_km < stop.at_km <= following]
    return max(before, key=lambda t: t.at_km, default=None), min(after, key=lambda t: t.at_km, default=None)


def _ending_at(s: Situation, day: Day, stop: Stop) -> Mend:
    others = tuple(night for night in s.tour.road.nights if not day.from_km < night.at_km <= max(day.to_km, stop.at_km))
    earlier = stop.at_km < day.to_km
    return Mend(
        name=say("End day {day} at {place}", day=number(day.number), place=stop.name),
        consequence=say("{off} less that day" if earlier else "{off} more that day", off=km(abs(stop.at_km - day.to_km))),
        nights=[*others, Night(at_km=stop.at_km, from_km=day.from_km)],
    )


@Spec("no_slack", "packed", "strands")
@Spec("days_left", "packed", "costs", small=True)
@looks_at("voyage", "days", "road")
def days_in_hand(s: Situation) -> Iterator[Draft]:
    """Days that the plan leaves of those asked for, days without a rest, and a journey home that waits for nobody."""
    yield from _without_rest(s)
    cut = s.tour.road.cut
    if s.voyage is None or not s.days:
        return
    left = cut.days - len(s.days) if cut.by == "days" and not s.tour.road.typed_days else 0
    if left > 0:
        yield Draft(
            kind="days_left", grade="worth_knowing",
            sentence=say("{left:day|days} of the {asked} {left::stays|stay} free.", left=number(left), asked=number(cut.days)),
            reason=say("For rain, a rest, or a way around. Days are cut so that they end at places to sleep."),
            place=say("the whole tour"), size=left, about="",
        )  # fmt: skip
    length, last = s.voyage.profile.length_km, s.days[-1]
    home = [j for j in s.tour.road.journeys if j.at_km >= length - HOME_KM and (j.by == "flight" or j.departs_h is not None)]
    if not home or left > 0:
        return
    rests = sum(day.rest for day in s.days)
    yield Draft(
        kind="no_slack", grade="stops_you" if home[0].by == "flight" else "slows_you",
        sentence=say("No day is in hand before the {way} at the end.", way=home[0].by),
        reason=say(
            "Day {day} ends there at {clock}, after {riding:day|days} of riding and {rests} of rest. An illness, a storm or a"
            " broken part takes a day, on about one tour of five by common practice; packing a bike takes hours.",
            day=number(last.number), clock=clock(last.arrive_h), riding=number(len(s.days) - rests),
            rests=number(rests) if rests else "none",
        ),
        place=stretch(last.number, last.from_km, last.to_km), size=1, at_km=last.to_km, day=last.number, about="",
        mends=[Mend(name=say("Travel home a day or two later"), consequence=say("a day in hand for each two weeks is usual"))],
    )  # fmt: skip


def _without_rest(s: Situation) -> Iterator[Draft]:
    """More days running than most ride without a rest, the hardest of them told."""
    runs, run = list[list[Day]](), list[Day]()
    for day in s.days:
        if day.rest:
            runs, run = [*runs, run], []
        else:
            run = [*run, day]
    longest = max([*runs, run], key=len)
    if len(longest) < NO_REST_D:
        return
    first, last = longest[0], longest[-1]
    hardest = max(pairwise(longest), key=lambda pair: pair[0].ascent_m + pair[1].ascent_m)
    yield Draft(
        kind="no_slack", grade="slows_you" if len(longest) >= LONG_WITHOUT_REST_D else "worth_knowing",
        sentence=say("{n} days running have no rest.", n=number(len(longest))),
        reason=say("Days {a} and {b} climb {climb} together. Most who ride for weeks rest a day in six or seven, and mend, wash"
                   " and sleep then.", a=number(hardest[0].number), b=number(hardest[1].number),
                   climb=metres(hardest[0].ascent_m + hardest[1].ascent_m)),
        place=say("days {a} to {b}", a=number(first.number), b=number(last.number)), size=len(longest), at_km=first.from_km,
        to_km=last.to_km, day=first.number, about="rest", mends=later(_resting, s, longest),
    )  # fmt: skip


def _resting(s: Situation, run: list[Day]) -> Iterator[Mend]:
    """A day of rest at the place to sleep nearest to the middle, and the days before as they are."""
    beds = [(day, stop) for day, stops in zip(s.days, night_stops(s.tour, s.days), strict=True) for stop in stops
            if stop.shelter != "none" and day in run[:-1]]  # fmt: skip
    if not beds or s.tour.road.typed_days:
        return
    middle = run[len(run) // 2].number
    day, stop = min(beds, key=lambda pair: (abs(pair[0].number - middle), pair[1].at_km))
    others = tuple(night for night in s.tour.road.nights if night.at_km != stop.at_km)
    yield Mend(
        name=say("Rest a day at {place}", place=stop.name), consequence=say("after day {day}; the tour is a day longer",
                                                                           day=number(day.number)),
        nights=[*others, Night(at_km=stop.at_km, from_km=day.from_km, rest_days=1)],
    )  # fmt: skip


DAMP_DOWN = " Down that gets damp warms hardly at all, synthetic fill and wool about half: one warm layer that may get wet."
"""Practice."""


@Spec("wet_runs", "clean", "delays")
@looks_at("voyage", "days", "kit", "riders", "road", "own_values")
def wet_runs(s: Situation) -> Iterator[Draft]:
    """Rain on so many days that several running are to be planned for."""
    if s.voyage is None or not s.voyage.climate.known or len(s.days) < RUN_D:
        return
    chances = [day.rain_chance for day in s.days]
    run, wet = chance_of_run(chances, RUN_D), sum(chances)
    if run < RUN_CHANCE or wet < OFTEN_WET * len(chances):
        return
    outdoors = out_of_doors(s.tour, s.days)
    out = int(outdoors.sum())
    first = next((day.number for day, outside in zip(s.days[:-1], outdoors, strict=False) if not outside), None)
    roof = ""
    if out:
        roof = " The first night under a roof is night {first}." if first else " No night is under a roof."
    yield Draft(
        kind="wet_runs", grade="slows_you" if out else "worth_knowing",
        sentence=say("{wet} of {days} days may be wet; {run} running come with a chance of {chance}.", wet=number(round(wet)),
                     days=number(len(s.days)), chance=share(run), run=number(RUN_D)),
        reason=say("Each day taken by itself; real weather comes in spells, so runs are likelier." + roof
                   + " Nothing dries meanwhile: keep sleeping bags in dry bags, and look for a roof after two wet days."
                   + (DAMP_DOWN if any("down" in thing.natures for thing in s.tour.kit) else ""),
                   first=number(first or 0)),
        place=say("the whole tour"), size=run, about="", hurts=bool(out) and _chills(s),
    )  # fmt: skip


def _chills(s: Situation) -> bool:
    """Whether who is wet day after day is harmed: a child along, or down to sleep in."""
    down = any(isinstance(t.role, SleepingBag) and "down" in t.natures for t in s.tour.kit)
    return down or any(rider.age_years is not None and rider.age_years < CHILD_YEARS for rider in s.tour.riders)


@Spec("long_way", "supplied", "strands")
@looks_at("voyage", "days", "gaps", "road", "own_values")
def long_ways(s: Situation) -> Iterator[Draft]:
    """The longest way without a shop, and what it becomes on softer ground than reckoned."""
    gap = next((g for g in s.gaps if g.supply == "food" and g.governs and g.days >= LONG_WAY_D), None)
    if gap is None or s.voyage is None:
        return
    a_day = gap.need / gap.days
    late, reserve = _later(s, gap), s.tour.practice.food_reserve_days
    here = Draft("long_way", "worth_knowing", say(""), say(""), stretch(gap.day, gap.from_km, gap.to_km), gap.days,
                 at_km=gap.from_km, to_km=gap.to_km, day=gap.day, about="")  # fmt: skip
    figures: dict[str, Figure | str] = {
        "days": number(gap.days), "from_": gap.from_name, "to": gap.to_name, "mass": kg(gap.need),
        "way": km(gap.to_km - gap.from_km),
    }  # fmt: skip
    if late > reserve:
        more = max(round(late), 1)
        yield replace(
            here, grade="stops_you", size=late,
            sentence=say("On softer ground the {days} days to {to} become {then}; the food lasts {lasts}.", **figures,
                         then=number(gap.days + more), lasts=tenths(gap.days + reserve)),
            reason=joined([say(
                "{way} and {mass} of food from {from_} on. Soft ground that takes a third longer than reckoned is common: ask who"
                " came through lately, and set a place and a day from which you turn back.", **figures), _roofs(s, gap)], " "),
            mends=[Mend(name=say("Food for {more:day|days} more", more=number(more)),
                        consequence=say("{mass} more", mass=kg(a_day * more)))],
        )  # fmt: skip
        return
    yield replace(
        here,
        sentence=say("No shop for {days} days: {mass} of food leave {from_} with you.", **figures),
        reason=joined([say("{way} to {to}, with food for {reserve} days to spare. Who comes later than planned eats less.",
                           **figures, reserve=tenths(reserve)), _roofs(s, gap)], " "),
    )  # fmt: skip


def _roofs(s: Situation, gap: Gap) -> Text:
    """What shelters on a long way, and on how many of its days it rains or snows."""
    roofs = [stop.name for stop in s.tour.road.stops if stop.shelter in ("hut", "room") and gap.from_km < stop.at_km < gap.to_km]
    wet = sum(day.rain_chance for day in s.days if gap.from_km <= day.from_km < gap.to_km)
    words = {0: "There is no roof on it", 1: "{roof} is the only roof on it"}.get(len(roofs), "{n} roofs stand on it")
    told = say(words + "; {wet:day|days} of rain or snow are to be expected.", roof=roofs[0] if roofs else "",
               n=number(len(roofs)), wet=number(round(wet)))  # fmt: skip
    return joined([told, *_ways_out(s, gap.from_km, gap.to_km)], " ")


WAYS_OUT: dict[str, Callable[[Stop], bool]] = {
    "bus or train": lambda stop: "transport" in stop.services,
    "doctor": lambda stop: "doctor" in stop.services,
    "bike workshop": lambda stop: stop.bike_shop != "none",
}
"""What takes a broken bike or a sick rider off a road, by its words."""


def _ways_out(s: Situation, from_km: float, to_km: float) -> Iterator[Text]:
    """Where the tour knows of a way off a stretch: the last before its end, and the first behind it."""
    for what, is_there in WAYS_OUT.items():
        places = [stop for stop in s.tour.road.stops if is_there(stop)]
        behind = max((stop for stop in places if stop.at_km < to_km), key=lambda stop: stop.at_km, default=None)
        ahead = min((stop for stop in places if stop.at_km >= to_km), key=lambda stop: stop.at_km, default=None)
        told = [f"{{{key}}} at {{{key}_km}}" for key, stop in (("behind", behind), ("ahead", ahead)) if stop is not None]
        if told:
            yield say(
                f"The nearest {what}: {' and '.join(told)}.",
                **{key: stop.name for key, stop in (("behind", behind), ("ahead", ahead)) if stop is not None},
                **{f"{key}_km": km(stop.at_km) for key, stop in (("behind", behind), ("ahead", ahead)) if stop is not None},
            )


def _later(s: Situation, gap: Gap) -> float:
    """Days that a stretch takes longer where its soft ground is softer than reckoned [d]."""
    assert s.voyage is not None
    at, hours = s.voyage.ride.nodes.km, s.voyage.ridden.hours
    soft = 0.0
    for ground in s.tour.road.surfaces:
        ends = np.clip([ground.from_km, ground.to_km], gap.from_km, gap.to_km)
        if ground.surface == "soft":
            soft += float(np.diff(np.interp(ends, at, hours))[0])
    ridden = [day for day in s.days if not day.rest and gap.from_km <= day.from_km < gap.to_km]
    each = sum(day.riding_hours for day in ridden) / max(len(ridden), 1)
    return soft * SOFTER / each if each > 0 else 0.0


@Spec(
    "childs_load",
    "packed",
    "hurts",
    loaded="bike",
    advice=("Give some of it to others", "none of their bags has room for enough of it as they are packed"),
)
@looks_at("voyage", "loaded", "riders")
def childs_loads(s: Situation) -> Iterator[Draft]:
    """More on a child's bike than rides well."""
    riders = {rider.id: rider for rider in s.tour.riders}
    for load in s.bikes:
        rider = riders[load.bike.rider_id]
        if rider.age_years is None or rider.age_years >= CHILD_YEARS:
            continue
        luggage = load.total - load.bike.mass_kg
        heaviest = int(np.argmax(luggage))
        part = float(luggage[heaviest]) / rider.body_mass_kg
        if part <= CHILDS_SHARE:
            continue
        at_km, day, place = s.when(heaviest)
        too_much = (part - CHILDS_SHARE) * rider.body_mass_kg
        yield Draft(
            kind="childs_load", grade="slows_you",
            sentence=say("{name} carries {mass} of luggage, {part} of {body}.", name=rider.name,
                         mass=kg(float(luggage[heaviest])), part=share(part), body=kg(rider.body_mass_kg)),
            reason=say("Bags and racks counted. A fifth of a child's mass rides well; beyond a quarter hills are walked, and the"
                       " tour goes at that pace: give {more} to others.", more=kg(too_much)),
            place=place, size=too_much, at_km=at_km, day=day, bike_id=load.bike.id, about="",
        )  # fmt: skip
