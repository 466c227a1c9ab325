"""The voyage told day by day and gap by gap."""

import datetime as dt
from collections.abc import Callable, Iterator
from itertools import pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.assessment import Day, Gap, Missed, Passing, Supply
from omnifer.core.model.quantities import Text
from omnifer.core.model.road import Road, Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics import geodesy, sun
from omnifer.core.physics.weather import heat_index, wind_chill
from omnifer.core.road import arrivals, pace
from omnifer.core.road.profile import Profile
from omnifer.core.stores import Places
from omnifer.core.voyage import Voyage

SAME_NIGHT_KM = 0.2
"""A night this close to one the rider has set is that one."""
WALKED_KMH = practice.WALKING_KMH * 1.01
"""Ridden slower than this counts as walked [km/h]."""

Array = NDArray[np.float64]
OTHER_SUPPLIES: dict[Supply, Callable[[Stop], bool]] = {
    "fuel": lambda stop: bool(stop.fuels),
    "plugs": lambda stop: "plugs" in stop.services,
    "bike_shop": lambda stop: stop.bike_shop != "none",
    "laundry": lambda stop: "laundry" in stop.services,
}
"""Supplies that are met at stops but not carried from one to the next by the litre."""


def days_of(tour: TourSheet, voyage: Voyage) -> list[Day]:
    """Every day of the tour, rest days included."""
    result: list[Day] = []
    for i in range(voyage.days.km.size - 1):
        riding = _riding_day(tour, voyage, i)
        result.append(riding)
        rests = int(voyage.days.rests[i]) if i < voyage.days.rests.size else 0
        result += [_rest_day(riding, voyage.profile, n) for n in range(1, rests + 1)]
    return result


def _riding_day(tour: TourSheet, voyage: Voyage, i: int) -> Day:
    road, plan, weather = voyage.profile, voyage.days, voyage.climate
    start, end = float(plan.km[i]), float(plan.km[i + 1])
    part = road.between(start, end)
    heights = road.elevation_m[part]
    up, down = _climb(tour.road, voyage, part, start, end)
    riding, moved = (
        float(np.diff(np.interp([start, end], road.km, along))[0]) for along in (voyage.hours, voyage.conditions.transfer_hours)
    )
    night = voyage.night_stops[i] if i < len(voyage.night_stops) else None
    last = i == plan.km.size - 2
    date = plan.date(tour.start_date, i)
    rise, fall, dusk = sun_hours(road, date, (start + end) / 2)
    riding_part = _ridden_cells(voyage, part)
    arrive = tour.road.start_hour + riding * tour.road.pause_factor + moved
    light = _light(road, date, (start + end) / 2, rise, fall)
    felt = float(heat_index(weather.day_high_c[part], voyage.noon_humidity_pct[part]).max())
    return Day(
        number=int(plan.offset[i]) + 1,
        date=date,
        rest=False,
        from_km=round(start, 3),
        to_km=round(end, 3),
        distance_km=round(float(np.sum(np.diff(road.km[part]) * riding_part)), 2)
        if not riding_part.all()
        else round(end - start, 2),
        ascent_m=round(up),
        descent_m=round(down),
        highest_m=round(float(heights.max())),
        lowest_m=round(float(heights.min())),
        riding_hours=round(riding, 3),
        pause_hours=round(riding * (tour.road.pause_factor - 1), 3),
        transfer_hours=round(moved, 3),
        walking_km=round(_walked(voyage, part), 2),
        start_h=tour.road.start_hour,
        arrive_h=round(arrive, 3),
        daylight_hours=light,
        sunrise_h=rise,
        sunset_h=fall,
        dusk_h=dusk,
        day_high_c=round(float(weather.day_high_c[part].max()), 1),
        night_low_c=round(float(np.interp(end, road.km, weather.night_low_c)), 1),
        mean_max_c=round(float(weather.mean_max_c[part].mean()), 1),
        mean_min_c=round(float(np.interp(end, road.km, weather.mean_min_c)), 1),
        wind_chill_c=_felt(voyage, part),
        heat_index_c=round(felt, 1),
        hot=felt >= practice.HOT_INDEX_C,
        dark=light == 0 or (fall is not None and arrive > fall),
        humidity_pct=round(float(weather.humidity_pct[part].mean())),
        rain_chance=round(float(weather.rain_chance[part].mean()), 2),
        wind_ms=round(float(weather.wind_ms[part].mean()), 1),
        night_at=night.name if night else (voyage.food.names[-1] if last else ""),
        night_water=last or (night is not None and _sure(voyage, night)),
        fixed=not last and any(abs(n.at_km - end) < SAME_NIGHT_KM for n in tour.road.nights),
        steepest=round(float(road.gradient[part].max()), 3),
    )


def _rest_day(before: Day, road: Profile, n: int) -> Day:
    """A day at the place where the one before ended."""
    date = before.date + dt.timedelta(days=n)
    rise, fall, dusk = sun_hours(road, date, before.to_km)
    still = {
        "distance_km": 0.0, "ascent_m": 0, "descent_m": 0, "riding_hours": 0.0, "pause_hours": 0.0, "transfer_hours": 0.0,
        "walking_km": 0.0, "steepest": 0.0, "wind_chill_c": None, "arrive_h": before.start_h,
        "from_km": before.to_km, "rest": True, "dark": False, "fixed": False, "number": before.number + n, "date": date,
        "sunrise_h": rise, "sunset_h": fall, "dusk_h": dusk,
    }  # fmt: skip
    return before.model_copy(update=still)


def _sure(voyage: Voyage, stop: Stop) -> bool:
    visit = voyage.visits.get(stop.id)
    return stop.water in ("reliable", "seasonal") and visit is not None and arrivals.water_fails(stop, visit.date) is None


def _climb(road: Road, voyage: Voyage, part: slice, start: float, end: float) -> tuple[float, float]:
    """Ascent and descent of a day; of typed days what was typed."""
    profile = voyage.profile
    if profile.typed_ascent_m is not None:
        up = float(np.diff(np.interp([start, end], profile.km, profile.typed_ascent_m))[0])
        return up, up
    heights = profile.elevation_m[part]
    ridden = voyage.conditions.ridden[part]
    if ridden.all():
        return geodesy.ascent(heights, road.ascent_threshold_m)
    pieces = np.split(heights, np.flatnonzero(np.diff(ridden.astype(int))) + 1)
    flags = np.split(ridden, np.flatnonzero(np.diff(ridden.astype(int))) + 1)
    climbs = [geodesy.ascent(p, road.ascent_threshold_m) for p, f in zip(pieces, flags, strict=True) if f[0]]
    return sum(up for up, _ in climbs), sum(down for _, down in climbs)


def _ridden_cells(voyage: Voyage, part: slice) -> NDArray[np.bool_]:
    return voyage.conditions.ridden[part][:-1]


def _walked(voyage: Voyage, part: slice) -> float:
    """Kilometres of the part that are ridden no faster than walking."""
    length = np.diff(voyage.profile.km[part])
    hours = np.diff(voyage.hours[part])
    slow = (hours > 0) & (length <= WALKED_KMH * hours)
    pushed = voyage.conditions.surface[part][:-1] == pace.SURFACES.index("push")
    return float(length[(slow | pushed) & _ridden_cells(voyage, part)].sum())


def _felt(voyage: Voyage, part: slice) -> float | None:
    """Wind chill on the descents of a cold morning, at the speed that is let run [°C]."""
    steep = voyage.profile.gradient[part] < -practice.DESCENT_GRADIENT
    if steep.sum() < practice.DESCENT_CELLS:
        return None
    weather = voyage.climate
    morning = weather.night_low_c[part] + practice.MORNING_SHARE * (weather.mean_max_c[part] - weather.night_low_c[part])
    return round(float(wind_chill(morning[steep], practice.DESCENT_CAP_KMH).min()), 1)


def sun_hours(road: Profile, date: dt.date, at_km: float) -> tuple[float | None, float | None, float | None]:
    """Sunrise, sunset and end of civil twilight by the clock of the nominal zone; None where the sun does not cross."""
    place = road.position_at(at_km)
    if place is None:
        return None, None, None
    zone = round(place[1] / 15)
    events = ((sun.SUNRISE_ZENITH_DEG, True), (sun.SUNRISE_ZENITH_DEG, False), (sun.CIVIL_ZENITH_DEG, False))
    hours = [sun.sun_event_hour(date, *place, zenith, rising) for zenith, rising in events]
    rise, fall, dusk = (None if hour is None else round(hour + zone, 3) for hour in hours)
    return rise, fall, dusk


def _light(road: Profile, date: dt.date, at_km: float, rise: float | None, fall: float | None) -> float | None:
    """Hours from sunrise to sunset; None where the road has no coordinates."""
    place = road.position_at(at_km)
    if place is None:
        return None
    if rise is not None and fall is not None:
        return round(fall - rise, 2)
    summer = (date.timetuple().tm_yday - 80) % 365 < 186
    return 24.0 if summer == (place[0] > 0) else 0.0


def gaps_of(tour: TourSheet, voyage: Voyage) -> list[Gap]:
    """Every stretch between supplies, kind by kind in road order; the longest of each kind governs."""
    kinds = [list(_carried_gaps(tour, voyage, "water")), list(_carried_gaps(tour, voyage, "food"))]
    kinds += [list(_other_gaps(tour, voyage, supply, has)) for supply, has in OTHER_SUPPLIES.items()]
    result = []
    for gaps in kinds:
        longest = max(gaps, key=lambda gap: (gap.need, gap.to_km - gap.from_km), default=None)
        result += [gap.model_copy(update={"governs": gap is longest}) for gap in gaps]
    return result


def _carried_gaps(tour: TourSheet, voyage: Voyage, supply: Literal["water", "food"]) -> Iterator[Gap]:
    places: Places = voyage.water if supply == "water" else voyage.food
    missed = _missed(tour, voyage, supply)
    for i in range(places.km.size - 1):
        riding = float(places.riding[i])
        yield _gap(
            voyage, supply, float(places.km[i]), float(places.km[i + 1]), places.names[i], places.names[i + 1], missed
        ).model_copy(
            update={
                "nights": int(places.nights[i]),
                "riding": round(riding, 2),
                "camp": round(float(places.used[i]) - riding, 2),
                "reserve": round(float(places.amounts.required[i] - places.used[i]), 2),
                "need": round(float(places.amounts.required[i]), 2),
                "holds": round(voyage.capacity_l, 2) if supply == "water" else None,
            }
        )


def _other_gaps(tour: TourSheet, voyage: Voyage, supply: Supply, has: Callable[[Stop], bool]) -> Iterator[Gap]:
    """Stretches between places with something that is not carried; none where no stop is known to have it."""
    end = voyage.profile.length_km
    stops = sorted((s for s in tour.road.stops if has(s) and s.at_km <= end), key=lambda s: s.at_km)
    if not stops:
        return
    ends = [(0.0, "the start"), *((s.at_km, s.name) for s in stops), (end, "the end")]
    for (start, name), (stop, to_name) in pairwise(ends):
        if stop > start:
            yield _gap(voyage, supply, start, stop, name, to_name, [])


def _gap(voyage: Voyage, supply: Supply, start: float, end: float, name: str, to_name: str, missed: list[Missed]) -> Gap:
    plan = voyage.days
    hours = float(np.diff(np.interp([start, end], voyage.profile.km, voyage.hours))[0])
    first, last = voyage.day_of(start), voyage.day_of(end, leaving=False)
    between = (plan.km[1:-1] > start) & (plan.km[1:-1] < end)
    return Gap(
        supply=supply, from_km=start, to_km=end, from_name=name, to_name=to_name, day=first, days=max(last - first, 0) + 1,
        hours=round(hours, 2), nights=int(between.sum() + plan.rests[between].sum()), riding=0, camp=0, reserve=0, need=0,
        holds=None, missed=[m for m in missed if start < m.at_km < end], governs=False,
    )  # fmt: skip


def _missed(tour: TourSheet, voyage: Voyage, supply: Literal["water", "food"]) -> list[Missed]:
    found = []
    for passing in passings(tour, voyage):
        why = passing.water_fails if supply == "water" else passing.shop_shut
        if why is not None:
            stop = voyage.visits[passing.stop_id].stop
            found.append(Missed(stop_id=stop.id, name=stop.name, at_km=stop.at_km, why=why))
    return found


def passings(tour: TourSheet, voyage: Voyage) -> list[Passing]:
    """When each stop is passed, in road order."""

    def shut(visit: arrivals.Visit) -> Text | None:
        return arrivals.shop_shut(visit, tour.road.start_hour) if visit.stop.shop != "none" else None

    return [
        Passing(
            stop_id=visit.stop.id,
            day=int(voyage.days.offset[visit.riding_day]) + 1,
            date=visit.date,
            hour=round(visit.hour, 2),
            stays=visit.stays_until is not None,
            shop_shut=shut(visit),
            water_fails=arrivals.water_fails(visit.stop, visit.date),
        )
        for visit in sorted(voyage.visits.values(), key=lambda v: v.stop.at_km)
    ]
