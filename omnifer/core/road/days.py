"""The road cut into days: where each ends, which nights are followed by rest, and on which date each is ridden."""

import datetime as dt
from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from operator import attrgetter
from typing import NamedTuple, get_args

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.people import Rider
from omnifer.core.model.road import Night, Road, Shelter, Stop
from omnifer.core.road.profile import Profile

LONGEST_TOUR_DAYS = 400
NO_WAY = 1e-9
"""Of the whole road, what is no way between two nights [-]."""
SIZED = 0.002
"""A day that is sized for a number of days is that exact [-]."""
SHORTEST_LAST_DAY = 0.25
"""A rest of the road shorter than this part of a day is ridden on the day before."""
NEAR_SHARE = 0.3
"""A stop is near a day's end within this part of a day's length; practice."""
WISHED_SHARE = 0.5
"""Where it is a night of the kind that the party wants; practice."""
CHILD_YEARS = 16
"""Whoever rides with somebody younger sleeps where others do, unless it is said otherwise; practice."""
SHELTER_WORTH = {"none": 0.0, "wild": 0.02, "site": 0.08, "hut": 0.08, "room": 0.08}
WATER_WORTH = 0.08
"""How much nearer a good place to sleep counts [parts of a day]; practice."""
SAME_LENGTH = 0.05
"""A day set by hand may grow by this part of it before it is cut again."""
SHORTEST_DAY_KM = 1.0
"""A night is set no nearer than this to where its day begins or to the end of the road [km]."""
SAME_PLACE_KM = 0.5
"""What lies closer together than this is one place: nights, stops, the ends of the road [km]; practice."""
SNAP_TO_STOP_KM = 1.5
"""A night put this close to a stop by hand is set at the stop [km]; practice."""
SHORTEST_SHARE = 0.05
"""No day ends so close before a place where the next one must end [parts of a day]."""

ANY_NIGHT: frozenset[Shelter] = frozenset(get_args(Shelter))
Array = NDArray[np.float64]


def wished_nights(road: Road, riders: Sequence[Rider]) -> frozenset[Shelter]:
    """Kinds of shelter at which the party wants its nights; all of them where any night will do."""
    if road.rooms_only:
        return frozenset({"room"})
    child = any(rider.age_years is not None and rider.age_years < CHILD_YEARS for rider in riders)
    wild = not child if road.wild_camps is None else road.wild_camps
    return ANY_NIGHT if wild else frozenset({"site", "hut", "room"})


@dataclass(frozen=True)
class Days:
    """The days of a tour.

    Attributes
    ----------
    km : shape (n + 1,)
        Where the riding days begin, and the end of the road.
    rests : shape (n - 1,)
        Rest days after each night but the last.
    """

    km: Array
    rests: NDArray[np.int64]

    @cached_property
    def offset(self) -> NDArray[np.int64]:
        """Days since the start on which each riding day falls, shape (n,)."""
        return np.asarray(np.arange(self.km.size - 1) + np.concatenate([[0], np.cumsum(self.rests)]))

    @property
    def count(self) -> int:
        """Days in all, rest days included."""
        return int(self.km.size - 1 + self.rests.sum())

    def riding_day(self, km: Array | float, leaving: bool | NDArray[np.bool_] = True) -> NDArray[np.intp]:
        """Index of the riding day on which a kilometre is passed; at a night, the day before unless leaving."""
        if isinstance(leaving, bool):
            day = np.searchsorted(self.km, km, side="right" if leaving else "left") - 1
        else:
            after, before = (np.searchsorted(self.km, km, side=side) for side in ("right", "left"))
            day = np.where(leaving, after, before) - 1
        return np.asarray(np.minimum(np.maximum(day, 0), self.km.size - 2))

    def date(self, start: dt.date, riding_day: int) -> dt.date:
        """The date of a riding day."""
        return start + dt.timedelta(days=int(self.offset[riding_day]))


def cut(profile: Profile, hours: Array, road: Road, wished: frozenset[Shelter] = ANY_NIGHT) -> Days:
    """Cut a road into days.

    Parameters
    ----------
    hours : numpy.ndarray
        Riding hours to each point of the profile [h].
    road : Road
        Typed days stand as they are. Elsewhere a day ends at every night the rider has set, and between these where it is
        full, or at a good place to sleep near there; or so that the whole tour takes the days that it is to take.
    wished : frozenset of str
        Where the party wants its nights; a place of that kind is gone to from farther away.
    """
    marks = _marks(road, profile)
    if road.typed_days:
        ends = np.cumsum([day.distance_km for day in road.typed_days])
        inner = np.unique(ends[(ends > 0) & (ends < ends[-1])])
    else:
        along = profile.km if road.cut.by == "distance" else hours
        cutting = _Cutting(road, profile, along, marks, wished)
        if road.cut.by == "days":
            size = cutting.size_for(road.cut.days - sum(night.rest_days for night in marks))
        else:
            size = road.cut.hours if road.cut.by == "hours" else road.cut.distance_km
        inner = np.interp(cutting.ends(max(size, cutting.least))[:-1], along, profile.km)
    km = np.concatenate([[0.0], _at_stops(inner, road.stops, profile.length_km), [profile.length_km]])
    rests = np.zeros(km.size - 2, dtype=np.int64)
    if road.typed_days:
        # A typed day without a kilometre is a day of rest where the one before ended.
        np.add.at(rests, np.searchsorted(inner, ends[:-1][(np.diff(ends) == 0) & np.isin(ends[:-1], inner)]), 1)
    for night in marks:
        if rests.size:
            rests[int(np.argmin(np.abs(km[1:-1] - night.at_km)))] += night.rest_days
    return Days(km, rests)


class _Cutting:
    """A road about to be cut into days, in hours or kilometres along it."""

    def __init__(self, road: Road, profile: Profile, along: Array, marks: list[Night], wished: frozenset[Shelter]) -> None:
        self.whole = float(along[-1])
        self.least = self.whole / LONGEST_TOUR_DAYS
        self.places = _good_places(road, profile, along, wished) if road.cut.to_stops else []
        self.fixed: list[float] = np.interp([0.0, *(n.at_km for n in marks), profile.length_km], profile.km, along).tolist()
        self.begun = [None if n.from_km is None else float(np.interp(n.from_km, profile.km, along)) for n in marks]

    def ends(self, size: float) -> list[float]:
        """Where days of such a size end."""
        found: list[float] = []
        for (start, end), day_from in zip(pairwise(self.fixed), [*self.begun, None], strict=True):
            if end - start <= NO_WAY * self.whole and found:
                # Nights on one ferry are one: nothing is ridden between them.
                continue
            if day_from is None:
                found += _between(start, end, size, self.places)
            else:
                found += _before(start, end, day_from, size, self.places)
            found.append(end)
        return found

    def size_for(self, days: int) -> float:
        """The least size at which the road takes no more than so many days; the whole road in one where nights set by hand
        ask for more."""
        low, high = self.least, self.whole
        while high - low > SIZED * self.whole / max(days, 1):
            middle = (low + high) / 2
            low, high = (low, middle) if len(self.ends(middle)) <= days else (middle, high)
        return max(high, self.whole / max(days, 1))


def _at_stops(nights_km: Array, every: tuple[Stop, ...], length_km: float) -> Array:
    """Nights at the very kilometre of the stop that is the same place, the nearest with water first; each stop takes one."""
    placed = nights_km.copy()
    stops = [stop for stop in every if SAME_PLACE_KM < stop.at_km < length_km - SAME_PLACE_KM]
    at_km = np.array([stop.at_km for stop in stops])
    for k, night in enumerate(nights_km.tolist()):
        off = np.abs(at_km - night)
        near = sorted(np.flatnonzero(off < SAME_PLACE_KM), key=lambda i: (stops[i].water != "reliable", off[i]))
        others = np.delete(placed, k)
        placed[k] = next((at_km[i] for i in near if np.abs(others - at_km[i]).min(initial=np.inf) > SAME_PLACE_KM), night)
    return placed


def _marks(road: Road, profile: Profile) -> list[Night]:
    """The nights that the rider has set, in road order, each place once."""
    kept: list[Night] = []
    for night in sorted(road.nights, key=lambda n: n.at_km):
        inside = SAME_PLACE_KM < night.at_km < profile.length_km - SAME_PLACE_KM
        if inside and (not kept or night.at_km - kept[-1].at_km > SAME_PLACE_KM):
            kept.append(night)
    return kept


def rests_at_the_ends(road: Road, profile: Profile) -> int:
    """Days of rest that were set so near the start or the end that no night lies there."""
    inside = {night.at_km for night in _marks(road, profile)}
    rested = [day.distance_km == 0 for day in road.typed_days]
    typed = 0
    if not all(rested):
        typed = rested.index(False) + rested[::-1].index(False) if rested else 0
    near = (n for n in road.nights if not SAME_PLACE_KM < n.at_km < profile.length_km - SAME_PLACE_KM)
    return typed + sum(night.rest_days for night in near if night.at_km not in inside)


def _good_places(road: Road, profile: Profile, along: Array, wished: frozenset[Shelter]) -> list["_Place"]:
    """Places to sleep and what each is worth, in the measure of the cut."""
    found = []
    for stop in road.stops:
        worth = SHELTER_WORTH[stop.shelter] + (WATER_WORTH if stop.water == "reliable" else 0)
        of_the_kind = wished != ANY_NIGHT and stop.shelter in wished
        if (worth > 0 or of_the_kind) and SAME_PLACE_KM < stop.at_km < profile.length_km - SAME_PLACE_KM:
            found.append(_Place(float(np.interp(stop.at_km, profile.km, along)), worth, of_the_kind))
    return sorted(found)


class _Place(NamedTuple):
    """Where a day may end: how far along, how much nearer it counts than it is, and whether it is the night that is wanted."""

    at: float
    worth: float
    wished: bool


def _between(start: float, end: float, size: float, places: list["_Place"]) -> list[float]:
    """Ends of the days between two fixed ones."""
    ends = []
    here = start
    while end - here > size * (1 + SHORTEST_LAST_DAY):
        here = _next_end(here, size, places, end)
        ends.append(here)
    return ends


def _next_end(here: float, size: float, places: list["_Place"], end: float) -> float:
    """Where a day that begins here ends: where it is full, or at a good place to sleep near there; places are in order."""
    target = here + size
    first = bisect_left(places, target - WISHED_SHARE * size, key=attrgetter("at"))
    last = bisect_right(places, target + WISHED_SHARE * size, key=attrgetter("at"))
    near = [
        (not place.wished, off - place.worth, place.at)
        for place in places[first:last]
        if here < place.at < end - SHORTEST_SHARE * size
        and (off := abs(place.at - target) / size) <= (WISHED_SHARE if place.wished else NEAR_SHARE)
    ]
    return min(near)[2] if near else target


def _before(start: float, end: float, day_from: float, size: float, places: list["_Place"]) -> list[float]:
    """Ends of the days before a night that was set by hand: cut as if it had not been, up to where its own day began.

    Where days were cut anew since, its own day gets no longer than it was made.
    """
    longest = max(size * (1 + SHORTEST_LAST_DAY), (end - day_from) * (1 + SAME_LENGTH))
    ends: list[float] = []
    here = start
    while here < end:
        following = _next_end(here, size, places, np.inf)
        kept = following <= day_from + NEAR_SHARE * size or end - here > longest
        if following >= end or not kept:
            break
        ends.append(following)
        here = following
    return ends


def night_stops(stops: tuple[Stop, ...], nights_km: Array, near_km: float) -> list[Stop | None]:
    """The stop at which each night is spent, the nearest with sure water first; None for a camp away from stops."""
    if not stops:
        return [None] * nights_km.size
    off = np.abs(np.array([stop.at_km for stop in stops]) - nights_km[:, None])
    doubtful = np.array([stop.water != "reliable" for stop in stops])
    rank = np.where(off <= near_km, off + near_km * 2 * doubtful, np.inf)
    best = np.argmin(rank, axis=1)
    return [stops[k] if rank[night, k] < np.inf else None for night, k in enumerate(best)]
