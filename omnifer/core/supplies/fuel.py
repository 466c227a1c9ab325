"""Fuel: what is boiled and melted on the way, by height, cold and wind, and the places that sell what the stove burns."""

from itertools import accumulate

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.fuels import FUELS, FuelKind
from omnifer.core.model.kit import Thing
from omnifer.core.model.practice import Practice
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import FuelVessel, Stove
from omnifer.core.physics import boiling
from omnifer.core.road import arrivals
from omnifer.core.supplies import food, water
from omnifer.core.supplies.carried import Terms
from omnifer.core.supplies.ride import Ride
from omnifer.core.supplies.supply import Demand, Kind, Supply, nights_between, places_of, planned

Array = NDArray[np.float64]
KIND = Kind.carried("fuel")


def stove_of(ride: Ride) -> Stove | None:
    """The stove that is cooked on: the first of the kit."""
    things = ride.things(Stove)
    role = things[0].role if things else None
    return role if isinstance(role, Stove) else None


def vessels_for(ride: Ride, kind: FuelKind) -> list[tuple[Thing, int]]:
    """The vessels on board for a kind of fuel."""
    return [(t, n) for t, n in ride.vessels if isinstance(t.role, FuelVessel) and t.role.burns == kind]


def efficiency(stove: Stove, wind_ms: Array, usual: Practice) -> Array:
    """Heat in the pot over heat of the fuel, in wind at 10 m [-]."""
    usual_of: float = getattr(usual, FUELS[stove.burns].efficiency)
    still = stove.efficiency or min(usual_of * (usual.exchanger_gain if stove.exchanger else 1.0), 1.0)
    per_ms = usual.wind_shielded if stove.shielded else usual.wind_open
    return np.asarray(still / (1 + per_ms * usual.wind_at_rider * wind_ms))


def burnt_per_litre(stove: Stove, height_m: Array, water_c: Array, wind_ms: Array, usual: Practice) -> Array:
    """Fuel that brings a litre to the boil [kg]."""
    heat = boiling.heat_to_boil(1.0, water_c, height_m)
    return boiling.fuel_mass(heat, efficiency(stove, wind_ms, usual), FUELS[stove.burns].heating_value) * usual.fuel_times


def melted_per_litre(stove: Stove, wind_ms: Array, usual: Practice) -> Array:
    """Fuel that melts a litre of water out of snow and warms it a little [kg]."""
    heat = boiling.heat_to_melt(1.0, usual.snow_c, usual.coldest_water_c)
    return boiling.fuel_mass(heat, efficiency(stove, wind_ms, usual), FUELS[stove.burns].heating_value) * usual.fuel_times


def simmered(stove: Stove, height_m: Array, usual: Practice) -> Array:
    """Fuel for the longer simmering of an evening's pot on heights, beyond what it takes at the sea [kg]."""
    longer_s = usual.simmer_min * 60 * (boiling.cooks_longer(height_m) - 1)
    flame_kj = usual.simmer_kw * np.maximum(longer_s, 0)
    return boiling.fuel_mass(flame_kj, 1.0, FUELS[stove.burns].heating_value) * usual.fuel_times


def boiled_a_day(ride: Ride) -> float:
    """Water that the party boils on a day [l]."""
    usual = ride.tour.practice
    litres = {"cook": usual.boiled_cook_l, "boil": usual.boiled_only_l}.get(ride.tour.stores.cooking or "none", 0.0)
    return litres * len(ride.tour.riders)


def melted_l(ride: Ride, water_supply: Supply) -> float:
    """Water that is melted out of snow on the whole tour, in camps and for the bottles [l]; 0 without a stove."""
    if stove_of(ride) is None:
        return 0.0
    snow = np.array([stop is not None and stop.water == "snow" for stop in water_supply.refills.stops])
    return float((ride.in_snow * _camps_l(ride)).sum() + (water_supply.taken * snow).sum())


def _camps_l(ride: Ride) -> Array:
    """What a camp that melts snow takes; a day of rest drinks what was melted as well, shape (nights,) [l]."""
    usual, rests, riders = ride.tour.practice, ride.days.rests, len(ride.tour.riders)
    return np.asarray(water.dry_camp(riders, usual, ride.tour.stores) * (1 + rests) + rests * usual.dry_day_l * riders)


def plan(ride: Ride, water_supply: Supply) -> Supply | None:
    """Fuel for evenings and mornings, water boiled to be safe and snow; None without a stove."""
    stove, usual = stove_of(ride), ride.tour.practice
    if stove is None:
        return None
    rests, where = ride.days.rests, ride.rests_km()
    height, wind = ride.at_nights(ride.nodes.elevation_m), ride.at_nights(ride.climate.wind_ms)
    tap_c = np.maximum(ride.at_nights(ride.climate.mean_c), usual.coldest_water_c)
    litres = boiled_a_day(ride) * (1 - usual.boiled_evening * food.dines_out(ride)) * (1 + rests)
    at_camp: Array = litres * burnt_per_litre(stove, height, tap_c, wind, usual)
    at_camp = at_camp + ride.in_snow * _camps_l(ride) * melted_per_litre(stove, wind, usual)
    if ride.tour.stores.cooking == "cook":
        at_camp = at_camp + simmered(stove, height, usual) * (1 - food.dines_out(ride)) * (1 + rests)
    at_source = _at_sources(ride, stove, water_supply)
    km, burnt = np.concatenate([where, water_supply.refills.km]), np.concatenate([at_camp, at_source])
    some = burnt > 0
    selling = [stop for stop in ride.stops() if sells(ride, stop, stove.burns)]
    flights = {t.from_km: "the flight" for t in ride.tour.road.transfers if t.by == "flight"}
    refills = places_of(ride, KIND.name, selling).emptied_at(flights)
    still = np.zeros(ride.nodes.km.size)
    daily = float(burnt.sum()) / ride.days.count
    vessels = vessels_for(ride, stove.burns)
    terms = _terms(stove.burns, vessels)
    reserve = np.full(refills.km.size - 1, usual.fuel_reserve_days * daily)
    nights = nights_between(refills, where, np.ones(where.size, dtype=int))
    return planned(
        KIND, ride, refills, Demand(still, km[some], burnt[some]), nights, reserve, ride.capacity(vessels, refills.km), terms
    )


def sells(ride: Ride, stop: Stop, kind: FuelKind) -> bool:
    """Whether a stop sells a kind of fuel when the rider is there."""
    if kind not in stop.fuels:
        return False
    if not FUELS[kind].shop_hours or stop.shop == "none":
        return True
    return arrivals.shop_shut(ride.visits[stop.id], ride.tour.road.start_h(stop.at_km), ride.tour.practice) is None


def _terms(kind: FuelKind, vessels: list[tuple[Thing, int]]) -> Terms:
    """Gas is bought by whole canisters, the smallest of the kit; bottles are filled to their lines, one after the other."""
    roles = [t.role for t, _ in vessels if isinstance(t.role, FuelVessel)]
    price = min((r.fill_price / r.holds_kg for r in roles if r.fill_price is not None), default=None)
    if kind == "gas":
        return Terms(pack=min((r.holds_kg for r in roles), default=0.0), price=price)
    lines = accumulate(t.holds_kg for t, n in vessels for _ in range(n))
    return Terms(levels=tuple(lines), price=price)


def _at_sources(ride: Ride, stove: Stove, supply: Supply) -> Array:
    """Fuel burnt where water is boiled to be safe or melted out of snow, shape (refills,) [kg]."""
    usual, km = ride.tour.practice, supply.refills.km
    boils = np.array([water.treatment_of(ride, at).boils for at in km.tolist()], dtype=bool)
    height, wind, air_c = (
        np.interp(km, ride.nodes.km, along) for along in (ride.nodes.elevation_m, ride.climate.wind_ms, ride.climate.mean_c)
    )
    to_boil = burnt_per_litre(stove, height, np.maximum(air_c, usual.coldest_water_c), wind, usual)
    to_melt = melted_per_litre(stove, wind, usual)
    snow = np.array([stop is not None and stop.water == "snow" for stop in supply.refills.stops])
    return np.asarray(supply.taken * snow * to_melt + water.treated(supply) * boils * to_boil)
