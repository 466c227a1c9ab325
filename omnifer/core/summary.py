"""The voyage in columns and figures, as the ribbon and the heads of the screens read it."""

import math
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from omnifer.core.load.keep import shelf_of
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.assessment import ClimateLine, Day, Moments, RoadFacts, SupplyColumn
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics.weather import coldest_of
from omnifer.core.supplies.stock import mass_of
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage

Array = NDArray[np.float64]
LEAST_SPREAD_K = 0.1
"""Nights that are known to the degree vary by this much, to tell which is the coldest [K]."""


def moments_of(tour: TourSheet, voyage: Voyage, bikes: list[BikeLoad]) -> Moments:
    """What is on board at every moment."""
    stores = mass_of(voyage.stock)
    fuel = sum(t.mass_kg * t.count for t in tour.kit if t.fuel)
    gear = sum(t.mass_kg * t.count for t in tour.kit if not t.fuel)
    out = shelf_of(tour)
    on_shelf = sum(t.mass_kg * out[t.id] for t in tour.kit if t.id in out) if tour.load.placements else 0.0
    bare = sum(b.levers.bare().front + b.levers.bare().rear + b.levers.bare().trailer for b in bikes)
    constant = fuel + gear - on_shelf + bare
    return Moments(
        km=np.round(voyage.at_km, 3).tolist(),
        day=(voyage.days.offset[voyage.days.riding_day(voyage.at_km, voyage.leaving)] + 1).tolist(),
        leaving=voyage.leaving.tolist(),
        place=[m.place for m in voyage.moments],
        supplies=[_column(voyage, supply) for supply in voyage.supplies.values()],
        fuel_kg=[round(fuel, 3)] * stores.size,
        gear_kg=[round(constant - fuel, 3)] * stores.size,
        total_kg=np.round(stores + constant, 2).tolist(),
        fullest=int(np.argmax(stores)),
        emptiest=int(np.argmin(stores)),
    )


def _column(voyage: Voyage, supply: Supply) -> SupplyColumn:
    stock, stretch = voyage.stock[supply.kind.name], supply.stretch(voyage.at_km, voyage.leaving)
    return SupplyColumn(
        supply=supply.kind.name,
        quantity=supply.kind.quantity,
        stock=np.round(stock, 2).tolist(),
        mass_kg=np.round(stock * supply.kind.kg_per_unit, 2).tolist(),
        short=np.round(supply.short[stretch], 2).tolist(),
    )


def climate_of(voyage: Voyage) -> ClimateLine:
    """The weather along the drawn line."""
    line, nodes, weather = np.array(voyage.profile.line.km), voyage.nodes, voyage.climate

    def thinned(values: Array) -> list[float]:
        drawn: list[float] = np.round(np.interp(line, nodes.km, values), 1).tolist()
        return drawn

    return ClimateLine(
        source=weather.source,
        day_high_c=thinned(weather.day_high_c),
        night_low_c=thinned(weather.night_low_c),
        mean_max_c=thinned(weather.mean_max_c),
        mean_min_c=thinned(weather.mean_min_c),
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
    mean, spread = (np.interp(slept, voyage.nodes.km, of) for of in (weather.mean_min_c, weather.spread_min_k))
    low = coldest_of(np.repeat(mean, times), np.repeat(spread, times), tour.road.odds)
    likeliest = int(np.argmin((mean - low) / np.maximum(spread, LEAST_SPREAD_K)))
    return ColdestNight(low, int(plan.offset[likeliest]) + 1, int(times.sum()))


def facts_of(tour: TourSheet, voyage: Voyage, days: list[Day]) -> RoadFacts:
    """The road in figures."""
    profile = voyage.profile
    return RoadFacts(
        length_km=round(profile.length_km, 2),
        ascent_m=sum(day.ascent_m for day in days),
        descent_m=sum(day.descent_m for day in days),
        highest_m=round(float(profile.elevation_m.max())),
        points=int(profile.km.size),
        has_heights=profile.has_heights,
        coldest_night_c=round(coldest_night(voyage, tour).low_c, 1),
        riding_hours=round(math.fsum(day.riding_hours for day in days), 2),
    )
