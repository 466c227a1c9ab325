"""A tour at a glance: what a page of tours draws of it."""

import numpy as np

from omnifer.core.model.assessment import Assessment, Day
from omnifer.core.model.glance import Glance, Skyline, Spot, Step, Weights
from omnifer.core.model.tour import TourSheet

POINTS_A_DAY = 8


def glance_of(tour: TourSheet, found: Assessment) -> Glance:
    """A tour and what it means, as its own small land."""
    grades = [finding.grade for finding in found.findings if finding.aside is None]
    moments, days = found.moments, found.days
    total = moments.total_kg if moments is not None else [0.0]
    fullest = moments.fullest if moments is not None else 0
    heaviest = None
    if moments is not None:
        heaviest = Spot(name=moments.place[fullest], at=at_day(days, moments.km[fullest], moments.day[fullest]))
    return Glance(
        riders=[rider.name for rider in tour.riders], over=tour.over, to_self=tour.to_self, start_date=tour.start_date,
        days=len(days),
        length_km=found.road.length_km if found.road else 0.0, ascent_m=found.road.ascent_m if found.road else 0.0,
        skyline=_skyline(found), weights=_weights(found), places=_places(tour, found),
        leaving_kg=total[0], heaviest_kg=total[fullest], heaviest=heaviest, lacks=list(_lacking(tour, found)),
        stops_you=grades.count("stops_you"), slows_you=grades.count("slows_you"),
        worst=next((f.sentence for f in found.findings if f.grade == "stops_you" and f.aside is None), None),
        things=sum(thing.count for thing in tour.kit), on_shelf=sum(found.shelf.values()),
    )  # fmt: skip


def at_day(days: list[Day], km: float, number: int) -> float:
    """Where a kilometre that is passed on a day stands on the axis of days."""
    day = days[number - 1]
    part = (km - day.from_km) / (day.to_km - day.from_km) if day.to_km > day.from_km else 0.0
    return round(number - 1 + min(max(part, 0.0), 1.0), 3)


def _skyline(found: Assessment) -> Skyline | None:
    if found.profile is None or not found.days:
        return None
    part = np.linspace(0, 1, POINTS_A_DAY, endpoint=False)
    km = np.concatenate([day.from_km + part * (day.to_km - day.from_km) for day in found.days] + [[found.days[-1].to_km]])
    at = np.concatenate([day.number - 1 + part for day in found.days] + [[len(found.days)]])
    heights = np.interp(km, found.profile.km, found.profile.elevation_m)
    return Skyline(at=np.round(at, 3).tolist(), elevation_m=np.round(heights).tolist())


def _weights(found: Assessment) -> Weights | None:
    moments = found.moments
    if moments is None:
        return None
    by_name = {column.supply: column.mass_kg for column in moments.supplies}
    return Weights(
        at=[at_day(found.days, km, day) for km, day in zip(moments.km, moments.day, strict=True)],
        gear_kg=moments.gear_kg, fuel_kg=moments.fuel_kg, food_kg=by_name["food"], water_kg=by_name["water"],
    )  # fmt: skip


def _places(tour: TourSheet, found: Assessment) -> list[Spot]:
    """Stops at which a day ends or with a full shop, by where they lie among the days."""
    riding = [day for day in found.days if not day.rest]
    spots = []
    for stop in sorted(tour.road.stops, key=lambda s: s.at_km):
        day = next((d for d in riding if d.from_km <= stop.at_km <= d.to_km), None)
        at_end = day is not None and (stop.at_km <= riding[0].from_km or stop.at_km >= riding[-1].to_km)
        if day is not None and (stop.shop == "full" or at_end):
            spots.append(Spot(name=stop.name, at=at_day(found.days, stop.at_km, day.number)))
    return spots


def _lacking(tour: TourSheet, found: Assessment) -> list[Step]:
    steps: list[tuple[Step, bool]] = [
        ("road", found.ready),
        ("rig", any(bike.carriers for bike in tour.rig.bikes)),
        ("kit", bool(tour.kit)),
        ("load", bool(tour.load.placements)),
    ]
    return [step for step, there in steps if not there]
