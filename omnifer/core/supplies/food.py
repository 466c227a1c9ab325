"""Food: the energy of riding and living, as mass of what is bought, and the shops that are open when the rider is there."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.people import Rider
from omnifer.core.model.practice import USUAL, Practice
from omnifer.core.model.stores import SoldAt
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics import body
from omnifer.core.road import arrivals
from omnifer.core.supplies.carried import Terms
from omnifer.core.supplies.menu import LONGEST_AGE, plate_of
from omnifer.core.supplies.ride import Ride
from omnifer.core.supplies.supply import Demand, Kind, Refills, Supply, nights_between, places_of, planned

Array = NDArray[np.float64]
KIND = Kind.carried("food")


def energy_along(
    nodes_km: Array, effort_hours: Array, day_km: Array, riders: tuple[Rider, ...], usual: Practice = USUAL
) -> Array:
    """Energy that the party eats from the start to each node of the road [kcal].

    Riding energy falls where work is done, downhill next to nothing; each day's energy of the other hours is spread evenly
    over its kilometres.

    Parameters
    ----------
    effort_hours : numpy.ndarray, shape (riders, nodes)
        Work of each rider from the start, as hours at all-day power [h].
    """
    kcal = np.zeros(nodes_km.size)
    for rider, effort in zip(riders, effort_hours, strict=True):
        kcal += body.riding_energy(rider.all_day_power_w, effort, usual.gross_efficiency)
        at_work = np.diff(np.interp(day_km, nodes_km, effort))
        off_bike = resting(rider, usual) * usual.off_bike_factor * np.clip(24 - at_work, 0, 24) / 24
        kcal += np.interp(nodes_km, day_km, np.concatenate([[0.0], np.cumsum(off_bike)]))
    return kcal * usual.food_times


def rest_day_energy(riders: tuple[Rider, ...], usual: Practice = USUAL) -> float:
    """Energy that the party eats on a day off the bicycle [kcal]."""
    return sum(resting(rider, usual) * usual.off_bike_factor for rider in riders) * usual.food_times


def resting(rider: Rider, usual: Practice = USUAL) -> float:
    """A rider's resting energy, defaults where height, age or sex are open [kcal/day]."""
    male = None if rider.sex is None else rider.sex == "male"
    height = rider.height_cm or usual.rider_height_cm
    return body.resting_energy(rider.body_mass_kg, height, rider.age_years or usual.rider_age_years, male)


def l_per_kg(tour: TourSheet) -> float:
    """Litres of a kilogram of bought food: of the menu, or of the usual mix; a value of the rider's own goes before both."""
    plate = plate_of(tour.stores, tour.practice)
    return tour.practice.food_l_per_kg if plate is None or "food_l_per_kg" in tour.own_values else plate.l_per_kg


def dines_out(ride: Ride) -> NDArray[np.bool_]:
    """Whether the evening of each night is eaten out."""
    if not ride.tour.stores.eat_out:
        return np.zeros(len(ride.night_stops), dtype=bool)
    return np.array([stop is not None and "meals" in stop.services for stop in ride.night_stops], dtype=bool)


def breakfasts_out(ride: Ride) -> NDArray[np.bool_]:
    """Whether breakfast after each night is eaten where it was spent: in a room whose house serves meals."""
    rooms = [stop is not None and stop.shelter == "room" for stop in ride.night_stops]
    return np.asarray(dines_out(ride) & np.array(rooms, dtype=bool))


def plan(ride: Ride) -> Supply:
    """Food at the shops that are open when the rider is there; a rest day eats from where it is spent."""
    days, usual, riders = ride.days, ride.tour.practice, ride.tour.riders
    shops = ride.open_shops(arrivals.FOOD_SHOPS)
    kcal = energy_along(ride.nodes.km, ride.pace.effort_hours, days.km, riders, usual)
    out, served, resting_kcal = dines_out(ride), breakfasts_out(ride), rest_day_energy(riders, usual) * days.rests
    if out.any():
        left = 1 - usual.evening_share * np.append(out, False) - usual.breakfast_share * np.append(False, served)
        kcal = np.concatenate([[0.0], np.cumsum(np.diff(kcal) * left[days.riding_day(ride.nodes.km[:-1])])])
        resting_kcal = resting_kcal * (1 - usual.evening_share * out - usual.breakfast_share * served)
    per_kcal = kg_per_kcal(ride, Refills.at(shops, ride.nodes.length_km))
    eaten = np.concatenate([[0.0], np.cumsum(np.diff(kcal) * per_kcal[:-1])])
    resting_kg: Array = np.asarray(resting_kcal * np.interp(ride.rests_km(), ride.nodes.km, per_kcal))
    daily = (float(eaten[-1]) + float(resting_kg.sum())) / days.count
    basic = usual.basic_shop_days * daily
    refills = places_of(ride, KIND.name, shops, lambda stop: np.inf if stop.shop == "full" else basic)
    rests = days.rests > 0
    demand = Demand(eaten, ride.rests_km()[rests], resting_kg[rests])
    nights = nights_between(refills, ride.rests_km(), np.ones(len(ride.night_stops), dtype=int))
    reserve = np.full(refills.km.size - 1, usual.food_reserve_days * daily)
    return planned(KIND, ride, refills, demand, nights, reserve, terms=Terms(least=usual.least_shop_days * daily))


def kg_per_kcal(ride: Ride, shops: Refills) -> Array:
    """Mass of what is eaten at each node for its energy: the menu, as far as it keeps since the last shop [kg/kcal]."""
    usual, nodes_km = ride.tour.practice, ride.nodes.km
    plate = plate_of(ride.tour.stores, usual)
    if plate is None or "food_kcal_per_g" in ride.tour.own_values:
        return np.full(nodes_km.size, 1 / usual.food_kcal_per_g / 1000)
    last = np.clip(np.searchsorted(shops.km, nodes_km, side="right") - 1, 0, shops.km.size - 2)
    day = ride.days.offset[ride.days.riding_day(nodes_km)]
    bought = ride.days.offset[ride.days.riding_day(shops.km)][last]
    age = np.clip(day - bought, 0, LONGEST_AGE)
    full = np.array([stop is None or stop.shop == "full" for stop in shops.stops])[last]
    hot = ride.climate.day_high_c > usual.food_hot_c
    kinds: tuple[SoldAt, SoldAt] = ("basic", "full")
    tables = np.array([[plate.weights[shop, warm] for warm in (False, True)] for shop in kinds])
    return np.asarray(tables[full.astype(int), hot.astype(int), age])
