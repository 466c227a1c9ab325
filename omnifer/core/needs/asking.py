"""What is asked for and what answers it: the rules say when something is wanted, and here the kit is held against it."""

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from omnifer.core.kit.told import told_of
from omnifer.core.model.assessment import Day
from omnifer.core.model.kit import ABOARD, ON_BODY, Thing
from omnifer.core.model.needs import Ask, AskState, Grade, QuestionId
from omnifer.core.model.quantities import REACHES, Reach, Text
from omnifer.core.model.reach import at_mouth, found_at
from omnifer.core.model.road import HazardKind, Stop
from omnifer.core.model.serves import SERVICES
from omnifer.core.model.tour import AnswerGiven, TourSheet
from omnifer.core.needs import is_mine, night_stops, out_of_doors
from omnifer.core.physics.weather import daily_course, wind_chill
from omnifer.core.voyage import Voyage

EVENING_H = 21.0
"""The hour in which one sits before the tent [h]; practice."""
USUAL_RISE_H, USUAL_FALL_H = 6.0, 18.0
"""Of the sun where no place is known [h]."""

GRAVITY: tuple[Grade, ...] = ("stops_you", "slows_you", "worth_knowing")
Days = NDArray[np.bool_]


LATELY: frozenset[str] = frozenset({"hand_clean", "tooth_care", "salts", "glasses", "cleat_bolts", "cool_pouch"})
"""Services that lists written before there were such could not say: of what says none the name tells."""
WET_K = 5.0
"""Wet clothes in the wind of riding feel so much colder than dry ones [K]; practice."""


@dataclass(frozen=True)
class Wanted:
    """A rule's word: one of several services wanted on some days, by a rider, for a bike or by the party."""

    question: QuestionId
    serves: tuple[str, ...]
    days: Days
    because: Text
    grade: Grade
    rider_id: str | None = None
    bike_id: str | None = None
    reach: Reach | None = None
    count: int = 1
    night: bool = False
    """Wanted where the day ends, in the evening or at night."""
    second: bool = False
    """One more of what is asked for once already."""

    @property
    def key(self) -> str:
        """What it is about, whatever the days."""
        return ":".join(filter(None, (self.serves[0], self.rider_id, self.bike_id, "second" if self.second else "")))


def services_of(thing: Thing) -> Collection[str]:
    """What a thing serves: what is said of it, else what its name tells of services that came late."""
    return thing.serves or _by_name(thing.name, thing.mass_kg)


@lru_cache(maxsize=4096)
def _by_name(name: str, mass_kg: float) -> frozenset[str]:
    return LATELY & set(told_of(name, mass_kg).fields.get("serves", ()))


@dataclass(frozen=True, eq=False)
class Asking:
    """A tour's days as rules look at them; figures are arrays by day."""

    tour: TourSheet
    voyage: Voyage
    days: list[Day]
    reached: Mapping[str, int]
    """The most urgent moment at which a hand finds each thing that is stowed."""
    _by_service: dict[str, list[Thing]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        for thing in self.tour.located:
            for service in services_of(thing):
                self._by_service.setdefault(service, []).append(thing)

    def serving(self, *services: str) -> list[Thing]:
        """Things that serve one of these."""
        found = {thing.id: thing for service in services for thing in self._by_service.get(service, ())}
        return list(found.values())

    @cached_property
    def every_day(self) -> Days:
        """All days; to be read only."""
        days = np.ones(len(self.days), dtype=bool)
        days.flags.writeable = False
        return days

    @cached_property
    def riding(self) -> Days:
        """Days that are ridden."""
        return np.array([not day.rest for day in self.days])

    @cached_property
    def middle_km(self) -> NDArray[np.float64]:
        """Half way through each day [km]."""
        return np.array([(day.from_km + day.to_km) / 2 for day in self.days])

    @cached_property
    def start_km(self) -> NDArray[np.float64]:
        """Where each day begins [km]."""
        return np.array([day.from_km for day in self.days])

    @cached_property
    def end_km(self) -> NDArray[np.float64]:
        """Where each day ends [km]."""
        return np.array([day.to_km for day in self.days])

    @cached_property
    def soaked_c(self) -> NDArray[np.float64]:
        """Felt wet through on a long descent from each day's top, in air between its usual low and high; inf: none [°C]."""
        km, weather = self.voyage.ride.nodes.km, self.voyage.climate
        felt = wind_chill((weather.mean_min_c + weather.mean_max_c) / 2, self.tour.practice.descent_cap_kmh) - WET_K
        ends = zip(*(np.searchsorted(km, at) for at in (self.start_km, self.end_km)), self.days, strict=True)
        return np.array(
            [np.inf if d.wind_chill_c is None else felt[first : max(last, first + 1)].min() for first, last, d in ends]
        )

    @cached_property
    def night_stops(self) -> list[list[Stop]]:
        """The stops at which each night is spent."""
        return night_stops(self.tour, self.days)

    @cached_property
    def shops_passed(self) -> NDArray[np.int64]:
        """Visits to shops on each day."""
        at = [visit.stop.at_km for visit in self.voyage.visits.values() if visit.stop.shop != "none"]
        return np.bincount(np.searchsorted(self.end_km, at).clip(max=len(self.days) - 1), minlength=len(self.days))

    @cached_property
    def outdoors(self) -> Days:
        """Nights out of doors."""
        return out_of_doors(self.tour, self.days)

    @cached_property
    def morning_c(self) -> NDArray[np.float64]:
        """Air in the coldest hour of riding after a cold night [°C]."""
        km, cold = self.voyage.nodes.km, self.voyage.cold_c
        return np.array([
            cold[slice(*np.searchsorted(km, (day.from_km, day.to_km)))].min(initial=float(np.interp(day.from_km, km, cold)))
            for day in self.days
        ])  # fmt: skip

    @cached_property
    def felt_c(self) -> NDArray[np.float64]:
        """In the coldest hour of riding, or on a long descent if that is felt colder [°C]."""
        descents = np.array([np.inf if day.wind_chill_c is None else day.wind_chill_c for day in self.days])
        return np.asarray(np.minimum(self.morning_c, descents))

    @cached_property
    def evening_c(self) -> NDArray[np.float64]:
        """Air in the evening before a cold night [°C]."""
        low, high = (np.array(x) for x in zip(*((d.night_low_c, d.mean_max_c) for d in self.days), strict=True))
        rise = np.array([USUAL_RISE_H if d.sunrise_h is None else d.sunrise_h for d in self.days])
        fall = np.array([USUAL_FALL_H if d.sunset_h is None else d.sunset_h for d in self.days])
        return np.asarray(daily_course(EVENING_H, low, high, rise, fall))

    @cached_property
    def rain(self) -> NDArray[np.float64]:
        """Chance of a wet day [-]."""
        return np.array([day.rain_chance for day in self.days])

    @cached_property
    def usual_c(self) -> NDArray[np.float64]:
        """Mean of an usual day's riding hours, nearer its high than its low [°C]."""
        return np.array([0.3 * day.mean_min_c + 0.7 * day.mean_max_c for day in self.days])

    @cached_property
    def dark(self) -> Days:
        """Days that begin or end in the dark."""
        return np.array([day.dark or day.starts_dark for day in self.days])

    def hazard(self, *kinds: HazardKind) -> Days:
        """Days that touch a stretch of such a kind."""
        touched = np.zeros(len(self.days), dtype=bool)
        for hazard in self.tour.road.hazards:
            if hazard.kind in kinds:
                touched |= (hazard.from_km <= self.end_km) & (hazard.to_km >= self.start_km)
        return touched

    def there(self, thing: Thing, night: bool = False) -> Days:
        """Days on which a thing is on board, or nights."""
        if not thing.where:
            return self.every_day
        found: Days = thing.is_how(ABOARD, self.end_km if night else self.middle_km)
        return found

    def in_reach(self, thing: Thing, reach: Reach) -> bool:
        """Whether a hand finds it then; what is not stowed yet may come to lie anywhere."""
        if any(place.how in ON_BODY | {"fixed"} for _, _, place in thing.stretches()):
            return True
        return self.reached.get(thing.id, 0) <= REACHES.index(reach)


def reached_when(tour: TourSheet) -> dict[str, int]:
    """The most urgent moment at which a hand finds each thing that is stowed."""
    carriers, things = {c.id: c for c in tour.carriers}, {t.id: t for t in tour.kit}
    found: dict[str, int] = {}
    inside: dict[str, list[tuple[Thing, float]]] = {}
    for placement in tour.load.placements:
        thing = things[placement.thing_id]
        inside.setdefault(placement.carrier_id, []).append((thing, thing.volume_l * placement.count))
    at_hand = {carrier_id: at_mouth(stowed, carriers[carrier_id]) for carrier_id, stowed in inside.items()}
    for placement in tour.load.placements:
        deep = found_at(things[placement.thing_id], carriers[placement.carrier_id])
        if placement.thing_id in at_hand[placement.carrier_id]:
            deep = min(deep, REACHES.index("stop"))
        found[placement.thing_id] = min(found.get(placement.thing_id, deep), deep)
    return found


@dataclass(frozen=True)
class Answered:
    """An ask, and the days on which it is asked, or the nights."""

    ask: Ask
    days: Days
    night: bool


def answered(asking: Asking, wanted: Iterable[Wanted]) -> list[Answered]:
    """Each thing asked for, and what answers it. What no day asks for is not asked; of two rules that ask for the same, the
    graver says why."""
    own = {one.ask_id: one for one in asking.tour.answers}
    asked: dict[str, Wanted] = {}
    for one in wanted:
        before = asked.get(one.key)
        if before is not None:
            graver = min(before, one, key=lambda w: (not w.days.any(), GRAVITY.index(w.grade)))
            one = replace(graver, days=before.days | one.days, count=max(before.count, one.count))
        asked[one.key] = one
    return [Answered(_answer(asking, one, own), one.days, one.night) for one in asked.values() if one.days.any()]


def _answer(asking: Asking, wanted: Wanted, own: dict[str, AnswerGiven]) -> Ask:
    able = [thing for thing in asking.serving(*wanted.serves) if _for(asking, wanted, thing)]
    there = {thing.id: asking.there(thing, wanted.night) & wanted.days for thing in able}
    counted = sum((there[t.id] * t.count for t in able), np.zeros(len(asking.days), dtype=int))
    lacks = wanted.days & (counted < wanted.count)
    helping = [thing for thing in able if there[thing.id].any()]
    state: AskState = "lacking" if lacks.any() else "answered"
    if state == "answered" and wanted.reach is not None and not any(asking.in_reach(t, wanted.reach) for t in helping):
        state = "too_deep"
    given = own.get(wanted.key)
    reason = ""
    if given is not None and state != "answered":
        state, reason = given.how, given.reason
    on = np.flatnonzero(wanted.days)
    without = np.flatnonzero(lacks)
    return Ask(
        id=wanted.key, question=wanted.question, words=SERVICES[wanted.serves[0]].words, serves=list(wanted.serves),
        rider_id=wanted.rider_id, bike_id=wanted.bike_id, because=wanted.because, grade=wanted.grade, state=state, reason=reason,
        thing_ids=[thing.id for thing in helping], count=wanted.count,
        from_day=asking.days[on[0]].number, to_day=asking.days[on[-1]].number,
        days=int(on.size), lacks=int(without.size), lacks_day=asking.days[without[0]].number if without.size else None,
    )  # fmt: skip


def _for(asking: Asking, wanted: Wanted, thing: Thing) -> bool:
    """Whether a thing is there for whom it is asked."""
    rider_id = wanted.rider_id
    if wanted.bike_id is not None:
        rider_id = next(bike.rider_id for bike in asking.tour.rig.bikes if bike.id == wanted.bike_id)
    if rider_id is None:
        return True
    return is_mine(asking.tour, thing, rider_id)
