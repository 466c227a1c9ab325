"""What is seen in the kit itself: twice the same, one alone, what fits nothing, what is untried, worn or too old."""

from collections import defaultdict
from collections.abc import Iterator
from typing import NamedTuple

from omnifer.core.model.kit import Thing
from omnifer.core.model.roles import Charger, Device, Mat, SleepingBag, Stove, Treatment
from omnifer.core.model.serves import SERVICES, Service
from omnifer.core.model.tour import TourSheet

BIG_SHARE_L, BIG_SHARE_KG = 0.10, 0.08
"""One thing that is more of the load's litres, or of its kilograms, is named [-]; practice."""
A_WHOLE_KIT = 20
"""With fewer kinds of things one of them is always much of the load; practice."""
GLUE_YEARS, SEALANT_YEARS = 2, 1
"""Older than so many years they do not hold [a]; practice."""
LONG_TOUR_KM = 1500.0
"""On a longer tour what is near its end is replaced or mended [km]; practice."""
LEANED_ON: frozenset[str] = frozenset({"tent", "bivy", "rain_jacket", "warm_jacket", "head_light", "messenger", "bear_spray"})
"""Services that safety or sleep rest on."""
PAIRS: tuple[tuple[str, str], ...] = (("lens", "camera"), ("memory_card", "camera"))
"""What must have the same pattern where both say one."""
HALF = 0.5


class Twice(NamedTuple):
    """Things that do the same, and how many of that are enough."""

    service: Service
    things: list[Thing]
    number: int
    enough: int


def services_of(thing: Thing) -> frozenset[str]:
    """What a thing serves, by its words and by its role."""
    return frozenset(thing.serves) | ({"charger"} if isinstance(thing.role, Charger) else set())


def twice(tour: TourSheet) -> Iterator[Twice]:
    """Services of which there are more than enough: no spares, nothing near its end, and each rider may have an own one."""
    by_service: dict[str, list[Thing]] = {}
    for thing in tour.kit:
        for service_id in () if thing.spare or thing.condition == "near_its_end" else services_of(thing):
            by_service.setdefault(service_id, []).append(thing)
    for service_id, things in by_service.items():
        service = SERVICES[service_id]
        owners = {t.rider_id for t in things if t.rider_id is not None}
        shares = {"rider": len(tour.riders), "bike": len(tour.rig.bikes), "party": max(len(owners), 1)}[service.per]
        n, enough = sum(t.count for t in things), service.enough * max(shares, 1)
        if n > enough and not _comes_with_a_season(things):
            yield Twice(service, things, n, enough)


def _comes_with_a_season(things: list[Thing]) -> bool:
    """Whether one is there for a part of the road only, by itself or in a bag of a season: that is no double."""
    return any(t.comes_and_goes or t.inside is not None for t in things)


def alone(tour: TourSheet) -> Iterator[tuple[Service, Thing]]:
    """Services on which much hangs, and of which there is only one."""
    for service in SERVICES.values():
        things = [t for t in tour.kit if service.single and service.id in t.serves]
        if len(things) == 1 and things[0].count == 1:
            yield service, things[0]


def largest_vessel(tour: TourSheet) -> tuple[Thing, float] | None:
    """A vessel that holds more than half of all water, and its part of it; None where there is none, or only one."""
    vessels = [t for t in tour.kit if t.holds_water_l > 0]
    whole = sum(t.holds_water_l * t.count for t in vessels)
    largest = max(vessels, key=lambda t: t.holds_water_l, default=None)
    if largest is None or largest.holds_water_l <= HALF * whole:
        return None
    return largest, largest.holds_water_l / whole


def untried(tour: TourSheet) -> list[Thing]:
    """New things that sleep or safety rest on."""
    return [
        t
        for t in tour.kit
        if t.condition == "new" and (LEANED_ON & set(t.serves) or isinstance(t.role, SleepingBag | Mat | Stove | Treatment))
    ]


def near_its_end(tour: TourSheet) -> list[Thing]:
    """Things that will hardly last a long tour."""
    return [t for t in tour.kit if t.condition == "near_its_end" and not t.spare]


def aged(tour: TourSheet) -> list[tuple[Thing, int]]:
    """Glue and sealant too old to hold, and their age [a]."""
    limits = {"patches": GLUE_YEARS, "sealant": SEALANT_YEARS}
    found = []
    for thing in tour.kit:
        years = [limits[s] for s in thing.serves if s in limits]
        age = tour.start_date.year - (thing.year or tour.start_date.year)
        if years and age > min(years):
            found.append((thing, age))
    return found


def big(tour: TourSheet) -> list[tuple[Thing, float, float]]:
    """Single things that are much of the load, and their parts of its litres and kilograms [-]."""
    if len(tour.kit) < A_WHOLE_KIT:
        return []
    kilograms, whole_l = sum(t.mass_kg * t.count for t in tour.kit), sum(t.volume_l * t.count for t in tour.kit)
    if kilograms <= 0 or whole_l <= 0:
        return []
    parts = ((t, t.volume_l / whole_l, t.mass_kg / kilograms) for t in tour.kit)
    return [row for row in parts if row[1] > BIG_SHARE_L or row[2] > BIG_SHARE_KG]


def mismatched(tour: TourSheet) -> Iterator[tuple[Thing, str]]:
    """Things that fit nothing that comes along, and what they do not fit."""
    sizes = {b.bead_seat_mm for b in tour.rig.bikes}
    sizes |= {s.trailer.bead_seat_mm for b in tour.rig.bikes for s in b.supports if s.trailer is not None}
    patterns_of = defaultdict[str, set[str]](set)
    for thing in tour.kit:
        if thing.fit is not None and thing.fit.pattern:
            for service in thing.serves:
                patterns_of[service].add(thing.fit.pattern.lower())
    for thing in tour.kit:
        if thing.fit is None:
            continue
        if thing.fit.bead_seat_mm is not None and sizes and thing.fit.bead_seat_mm not in sizes:
            yield thing, "a wheel"
        for one, other in PAIRS:
            patterns = patterns_of[other]
            if one in thing.serves and thing.fit.pattern and patterns and thing.fit.pattern.lower() not in patterns:
                yield thing, SERVICES[other].words


def lights(tour: TourSheet) -> list[Thing]:
    """Everything that gives light."""
    return [t for t in tour.kit if {"torch", "head_light"} & set(t.serves) or (isinstance(t.role, Device) and t.role.light)]
