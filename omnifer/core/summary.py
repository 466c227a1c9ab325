"""The voyage in columns and figures, as the ribbon and the heads of the screens read it."""

import math

import numpy as np
from numpy.typing import NDArray

from omnifer.core.itinerary import coldest_night
from omnifer.core.load.keep import shelf_of
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.assessment import ClimateLine, Day, Moments, RoadFacts, SupplyColumn
from omnifer.core.model.tour import TourSheet
from omnifer.core.supplies.stock import mass_of
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage

Array = NDArray[np.float64]


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
