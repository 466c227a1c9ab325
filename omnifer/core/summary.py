"""The voyage in columns and figures, as the ribbon and the heads of the screens read it."""

import math

import numpy as np
from numpy.typing import NDArray

from omnifer.core.itinerary import coldest_night
from omnifer.core.load.keep import shelf_of
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.assessment import ClimateLine, Day, Moments, RoadFacts, SupplyColumn
from omnifer.core.model.kit import ON_BIKE
from omnifer.core.model.quantities import CarriedSupply
from omnifer.core.model.road import Road
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.stations import stations_of
from omnifer.core.voyage import Voyage

Array = NDArray[np.float64]
BESIDE_FUEL: tuple[CarriedSupply, ...] = ("water", "food")
"""Fuel is counted with the things that are shown as fuel."""


def moments_of(tour: TourSheet, voyage: Voyage, bikes: list[BikeLoad]) -> Moments:
    """What is on board at every moment."""
    at_km, nothing = voyage.at_km, np.zeros(voyage.at_km.size)
    out = shelf_of(tour) if tour.load.placements else {}
    fuel = voyage.stock.get("fuel", nothing) + sum(t.mass_kg * t.count for t in tour.located if t.fuel)
    small = sum((amount for name, amount in voyage.stock.items() if name not in CARRIED), nothing)
    bare = sum(b.levers.bare().front + b.levers.bare().rear + b.levers.bare().trailer for b in bikes)
    things = [(t, t.mass_kg * (t.count - out.get(t.id, 0))) for t in tour.located if not t.fuel]
    steady = sum(mass for t, mass in things if not t.where)
    coming = (mass * t.is_how(ON_BIKE, at_km) for t, mass in things if t.where)
    gear = sum(coming, nothing) + steady + small + bare
    total = gear + fuel + voyage.stock["water"] + voyage.stock["food"]
    return Moments(
        km=np.round(voyage.at_km, 3).tolist(),
        day=(voyage.days.offset[voyage.days.riding_day(voyage.at_km, voyage.leaving)] + 1).tolist(),
        leaving=voyage.leaving.tolist(),
        place=[m.place for m in voyage.moments],
        supplies=[_column(voyage, name) for name in BESIDE_FUEL],
        fuel_kg=np.round(fuel, 3).tolist(),
        gear_kg=np.round(gear, 3).tolist(),
        total_kg=np.round(total, 2).tolist(),
        fullest=int(np.argmax(total)),
        emptiest=int(np.argmin(total)),
    )


def _column(voyage: Voyage, name: CarriedSupply) -> SupplyColumn:
    supply, stock = voyage.supplies[name], voyage.stock[name]
    stretch = supply.stretch(voyage.at_km, voyage.leaving)
    return SupplyColumn(
        supply=name,
        quantity=supply.kind.quantity,
        stock=np.round(stock / supply.kind.kg_per_unit, 2).tolist(),
        mass_kg=np.round(stock, 2).tolist(),
        short=np.round(supply.short[stretch], 2).tolist(),
    )


def climate_of(road: Road, voyage: Voyage) -> ClimateLine:
    """The weather along the drawn line."""
    line, nodes, weather = np.array(voyage.profile.line.km), voyage.nodes, voyage.climate

    def thinned(values: Array) -> list[float]:
        drawn: list[float] = np.round(np.interp(line, nodes.km, values), 1).tolist()
        return drawn

    return ClimateLine(
        source=weather.source,
        known=weather.told,
        offered=[s for s in stations_of(voyage.profile, road) if s not in road.stations],
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
