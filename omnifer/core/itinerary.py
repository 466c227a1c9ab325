"""The voyage told day by day and gap by gap."""

import datetime as dt
import math
from collections.abc import Callable, Iterator
from itertools import pairwise
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.assessment import Day, Gap, GapSupply, Missed, Passing
from omnifer.core.model.quantities import CarriedSupply, Text
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import Stove
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics.weather import NINE_IN_TEN, coldest_of, wind_chill
from omnifer.core.road import arrivals, light
from omnifer.core.road.beside import spot
from omnifer.core.road.days import SAME_PLACE_KM
from omnifer.core.road.profile import STEP_M
from omnifer.core.sentence import say, share
from omnifer.core.supplies import water
from omnifer.core.supplies.supply import THE_END, THE_START, Supply
from omnifer.core.voyage import Voyage, last_name
from omnifer.core.world import expected

Array = NDArray[np.float64]
LEAST_SPREAD_K = 0.1
"""Nights that are known to the degree vary by this much, to tell which is the coldest [K]."""
A_MINUTE_H = 1 / 60
"""Closer than this to sunrise and sunset is no darkness [h]."""
MET_AT_STOPS: dict[GapSupply, Callable[[Stop], bool]] = {
    "fuel": lambda stop: bool(stop.fuels),
    "plugs": lambda stop: "plugs" in stop.services,
    "bike_shop": lambda stop: stop.bike_shop != "none",
    "laundry": lambda stop: "laundry" in stop.services,
}
"""What is met at stops but not carried from one to the next by the litre."""
FAILS: dict[CarriedSupply, Callable[[Passing], Text | None]] = {
    "water": lambda passing: passing.water_fails,
    "food": lambda passing: passing.shop_shut,
    "fuel": lambda passing: None,
}
"""Why a stop's supply does not count when it is passed."""


def days_of(tour: TourSheet, voyage: Voyage) -> list[Day]:
    """Every day of the tour, rest days included."""
    km, result = voyage.days.km, list[Day]()
    sums = [voyage.between(along, km).tolist() for along in _sums(voyage)]
    arrives = voyage.watch.at(km[1:], np.arange(km.size - 1)).tolist()
    for i, figures in enumerate(zip(*sums, arrives, strict=True)):
        day = _riding_day(tour, voyage, i, *figures)
        result.append(day)
        rests = int(voyage.days.rests[i]) if i < voyage.days.rests.size else 0
        result += [_rest_day(day, voyage, n) for n in range(1, rests + 1)]
    return result


def _sums(voyage: Voyage) -> tuple[Array, Array, Array, Array]:
    """Hours of riding and in transfers, and kilometres on foot and off the road, from the start."""
    return voyage.ridden.hours, voyage.conditions.transfer_hours, voyage.ridden.walked_km, voyage.conditions.detour_km


def _riding_day(
    tour: TourSheet, voyage: Voyage, i: int, riding: float, moved: float, walked: float, off: float, arrive: float
) -> Day:
    road, plan, weather = voyage.profile, voyage.days, voyage.climate
    start, end = float(plan.km[i]), float(plan.km[i + 1])
    cells, part = road.between(start, end), voyage.nodes.between(start, end)
    up, down = _climb(tour, voyage, cells, start, end)
    night = voyage.night_stops[i] if i < len(voyage.night_stops) else None
    last = i == plan.km.size - 2
    date = plan.date(tour.start_date, i)
    sun = voyage.light[i]
    felt = float(voyage.noon_heat_index_c[part].max())
    at_end = np.searchsorted(voyage.nodes.km[part], end) + part.start
    way = (end - voyage.nodes.km[at_end - 1]) / (voyage.nodes.km[at_end] - voyage.nodes.km[at_end - 1])

    def there(values: Array) -> float:
        return float(values[at_end - 1] + way * (values[at_end] - values[at_end - 1]))

    past = ("", 0.0) if night or last else spot(road, tour.road.stops, end) or ("", 0.0)
    mean_min, spread, width = (there(of) for of in (weather.mean_min_c, weather.spread_min_k, weather.width_k))

    return Day(
        number=int(plan.offset[i]) + 1,
        date=date,
        rest=False,
        from_km=round(start, 3),
        to_km=round(end, 3),
        distance_km=round(end - start - _carried_km(tour, start, end), 2),
        ascent_m=round(up),
        descent_m=round(down),
        highest_m=round(float(road.elevation_m[cells].max())),
        lowest_m=round(float(road.elevation_m[cells].min())),
        riding_hours=round(riding, 3),
        pause_hours=round(riding * (tour.road.pause_factor - 1), 3),
        transfer_hours=round(moved, 3),
        detour_km=round(off, 2),
        walking_km=round(walked, 2),
        start_h=tour.road.start_h(start),
        arrive_h=round(arrive, 3),
        daylight_hours=sun.hours,
        sunrise_h=sun.sunrise_h,
        sunset_h=sun.sunset_h,
        dusk_h=sun.dusk_h,
        sun=sun.sun,
        day_high_c=round(float(weather.day_high_c[part].max()), 1),
        night_low_c=round(there(weather.night_low_c), 1),
        mean_max_c=round(float(weather.mean_max_c[part].mean()), 1),
        mean_min_c=round(mean_min, 1),
        spread_min_k=round(spread, 2),
        width_k=round(width, 2),
        night_around_k=round(NINE_IN_TEN * math.hypot(spread, width), 1),
        wind_chill_c=_felt(tour, voyage, cells, part),
        heat_index_c=round(felt, 1),
        hot=felt >= tour.practice.hot_index_c,
        dark=sun.sun == "stays_down" or (sun.sunset_h is not None and arrive > sun.sunset_h + A_MINUTE_H),
        starts_dark=sun.sunrise_h is not None and tour.road.start_h(start) < sun.sunrise_h - A_MINUTE_H,
        humidity_pct=round(float(weather.humidity_pct[part].mean())),
        rain_chance=round(float(weather.rain_chance[part].mean()), 2),
        wind_ms=round(float(weather.wind_ms[part].mean()), 1),
        night_at=night.name if night else last_name(list(voyage.supplies.values())) if last else "",
        night_past=past[0],
        night_past_km=round(past[1], 1),
        night_water=last or water.counts(night, voyage.visits, voyage.ride.melts(end)),
        night_set_km=None if last else next((n.at_km for n in tour.road.nights if abs(n.at_km - end) < SAME_PLACE_KM), None),
        steepest=round(float(road.gradient[cells].max()), 3),
    )


def _rest_day(before: Day, voyage: Voyage, n: int) -> Day:
    """A day at the place where the one before ended."""
    date = before.date + dt.timedelta(days=n)
    sun = light.at(voyage.profile, voyage.clocks, before.to_km, date)
    still = {
        "distance_km": 0.0, "ascent_m": 0, "descent_m": 0, "riding_hours": 0.0, "pause_hours": 0.0, "transfer_hours": 0.0,
        "detour_km": 0.0, "walking_km": 0.0, "steepest": 0.0, "wind_chill_c": None, "arrive_h": before.start_h,
        "from_km": before.to_km, "rest": True, "dark": False, "starts_dark": False, "night_set_km": None,
        "number": before.number + n, "date": date, "sunrise_h": sun.sunrise_h, "sunset_h": sun.sunset_h, "dusk_h": sun.dusk_h,
        "sun": sun.sun, "daylight_hours": sun.hours,
    }  # fmt: skip
    return before.model_copy(update=still)


def _carried_km(tour: TourSheet, start: float, end: float) -> float:
    """Kilometres of a part of the road that are not ridden."""
    parts = sorted((max(t.from_km, start), min(t.to_km, end)) for t in tour.road.transfers)
    carried, so_far = 0.0, start
    for first, last in parts:
        carried += max(last - max(first, so_far), 0.0)
        so_far = max(so_far, last)
    return carried


def _climb(tour: TourSheet, voyage: Voyage, cells: slice, start: float, end: float) -> tuple[float, float]:
    """Ascent and descent of a day; of typed days what was typed."""
    profile, threshold = voyage.profile, tour.road.ascent_threshold_m
    if profile.typed_ascent_m is not None:
        up = float(np.diff(np.interp([start, end], profile.km, profile.typed_ascent_m))[0])
        return up, up
    ridden = voyage.conditions.ridden[cells.start : cells.stop - 1]
    if ridden.all():
        return profile.climb(cells.start, cells.stop, threshold)
    edges = np.concatenate([[0], np.flatnonzero(np.diff(ridden.astype(int))) + 1, [ridden.size]])
    parts = [(cells.start + a, cells.start + b + 1) for a, b in pairwise(edges.tolist()) if ridden[a]]
    climbs = [profile.climb(*part, threshold) for part in parts]
    return sum(up for up, _ in climbs), sum(down for _, down in climbs)


def _felt(tour: TourSheet, voyage: Voyage, cells: slice, part: slice) -> float | None:
    """Wind chill on the coldest descent after a cold night, in the hour in which it is ridden; None where no descent is
    long enough to matter."""
    usual, km = tour.practice, voyage.profile.km[cells]
    steep = voyage.profile.gradient[cells] < -usual.descent_gradient
    if np.count_nonzero(steep) * STEP_M < usual.descent_km * 1000:
        return None
    return round(
        float(wind_chill(np.interp(km[steep], voyage.nodes.km[part], voyage.cold_c[part]), usual.descent_cap_kmh).min()), 1
    )


class ColdestNight(NamedTuple):
    """What some night of the tour falls below with the chosen odds, the day on which that is likeliest, of how many nights."""

    low_c: float
    day: int
    nights: int


def coldest_night(voyage: Voyage, tour: TourSheet) -> ColdestNight:
    """The coldest night of a tour, rest days' nights counted: each by itself is milder than the coldest of many."""
    weather, plan = voyage.climate, voyage.days
    # The night at the end is not slept on the road, but it is all a tour of one day has.
    slept, times = (plan.km[1:-1], 1 + plan.rests) if plan.rests.size else (plan.km[1:], np.ones(1, dtype=np.int64))
    known = (weather.mean_min_c, weather.spread_min_k, weather.width_k)
    mean, spread, width = (np.interp(slept, voyage.nodes.km, of) for of in known)
    low = coldest_of(np.repeat(mean, times), np.repeat(spread, times), tour.road.odds, np.repeat(width, times))
    likeliest = int(np.argmin((mean - low) / np.maximum(np.hypot(spread, width), LEAST_SPREAD_K)))
    return ColdestNight(low, int(plan.offset[likeliest]) + 1, int(times.sum()))


def gaps_of(tour: TourSheet, voyage: Voyage) -> list[Gap]:
    """Every stretch between supplies, kind by kind in road order; the longest of each kind governs."""
    passed = passings(tour, voyage)
    kinds = [list(_carried_gaps(voyage, name, voyage.supplies[name], passed)) for name in FAILS if name in voyage.supplies]
    kinds += [list(_other_gaps(voyage, name, has)) for name, has in MET_AT_STOPS.items() if name not in voyage.supplies]
    result = []
    for gaps in kinds:
        longest = max(gaps, key=lambda gap: (gap["need"], gap["to_km"] - gap["from_km"]), default=None)
        result += [Gap(**gap, governs=gap is longest) for gap in gaps]
    return result


Stretch = dict[str, Any]
"""The fields of a gap but for whether it governs."""


def _carried_gaps(voyage: Voyage, name: CarriedSupply, supply: Supply, passed: list[Passing]) -> Iterator[Stretch]:
    amounts = supply.amounts
    missed = [
        Missed(stop_id=passing.stop_id, name=stop.name, at_km=stop.at_km, why=why)
        for passing in passed
        if (why := FAILS[name](passing)) is not None and (stop := voyage.visits[passing.stop_id].stop)
    ]
    for i, gap in enumerate(_stretches(voyage, name, supply.refills.km, supply.refills.names)):
        needs = {
            "nights": int(supply.nights[i]),
            "riding": round(float(supply.riding[i]), 2),
            "camp": round(float(supply.used[i] - supply.riding[i]), 2),
            "reserve": round(float(supply.reserve[i]), 2),
            "onward": round(float(amounts.required[i] - supply.used[i] - supply.reserve[i]), 2) + 0.0,
            "need": round(float(amounts.required[i]), 2),
            "holds": round(float(supply.capacity[i]), 2) if supply.kind.limited else None,
            "missed": [m for m in missed if gap["from_km"] < m.at_km < gap["to_km"]],
        }
        yield gap | needs


def _other_gaps(voyage: Voyage, supply: GapSupply, has: Callable[[Stop], bool]) -> Iterator[Stretch]:
    """Stretches between places with something that is not carried; none where no stop is known to have it."""
    end = voyage.profile.length_km
    stops = sorted((visit.stop for visit in voyage.visits.values() if has(visit.stop)), key=lambda s: s.at_km)
    if stops:
        names = [THE_START, *(s.name for s in stops), THE_END]
        gaps = _stretches(voyage, supply, np.array([0.0, *(s.at_km for s in stops), end]), names)
        yield from (gap for gap in gaps if gap["to_km"] > gap["from_km"])


def _stretches(voyage: Voyage, supply: GapSupply, km: Array, names: list[str]) -> list[Stretch]:
    """The stretches between places in road order, with what is true of any supply there."""
    plan, start, end = voyage.days, km[:-1], km[1:]
    first, last = (plan.offset[plan.riding_day(at, leaving)] + 1 for at, leaving in ((start, True), (end, False)))
    nights = np.concatenate([[0], np.cumsum(1 + plan.rests)])
    before_end, by_start = np.searchsorted(plan.km[1:-1], end), np.searchsorted(plan.km[1:-1], start, side="right")
    between = np.maximum(nights[before_end] - nights[by_start], 0)
    figures = zip(
        start.tolist(), end.tolist(), pairwise(names), first.tolist(), np.maximum(last - first, 0).tolist(),
        voyage.between(voyage.hours, km).tolist(), between.tolist(), strict=True,
    )  # fmt: skip
    return [
        {
            "supply": supply, "from_km": a, "to_km": b, "from_name": name, "to_name": to_name, "day": day, "days": more + 1,
            "hours": round(hours, 2), "nights": inside, "riding": 0, "camp": 0, "reserve": 0, "onward": 0, "need": 0,
            "holds": None, "missed": [],
        }
        for a, b, (name, to_name), day, more, hours, inside in figures
    ]  # fmt: skip


def passings(tour: TourSheet, voyage: Voyage) -> list[Passing]:
    """When each stop is passed, in road order."""

    melts = bool(voyage.ride.things(Stove))

    def shut(visit: arrivals.Visit) -> Text | None:
        if visit.stop.shop != "none":
            return arrivals.shop_shut(visit, tour.road.start_h(visit.stop.at_km), tour.practice)
        likely = [chance for row, chance in expected.perhaps(visit.stop) if row.part == "shop"]
        words = "not sure: {chance} of places so large have one"
        return say(words, chance=share(likely[0])) if likely else None

    return [
        Passing(
            stop_id=visit.stop.id,
            day=int(voyage.days.offset[visit.riding_day]) + 1,
            date=visit.date,
            hour=round(visit.hour, 2),
            stays=visit.stays_until is not None,
            shop_shut=shut(visit),
            water_fails=arrivals.water_fails(visit.stop, visit.date, melts),
        )
        for visit in sorted(voyage.visits.values(), key=lambda v: v.stop.at_km)
    ]
