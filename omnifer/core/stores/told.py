"""Everything that the supplies of a tour come to, as screens read it."""

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.lanes import PlanFigures, StoresTold
from omnifer.core.model.roles import Panel
from omnifer.core.model.tour import TourSheet
from omnifer.core.stores.at_stops import stops_of
from omnifer.core.stores.lanes import lanes_of
from omnifer.core.supplies import fuel, water
from omnifer.core.supplies.carried import Carried
from omnifer.core.supplies.menu import plate_of
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage

Array = NDArray[np.float64]


def stores_told(tour: TourSheet, voyage: Voyage) -> StoresTold:
    """Lanes, stops, what the plan costs, and what filling up everywhere would."""
    stops = stops_of(tour, voyage)
    everywhere = {name: filled_everywhere(supply) for name, supply in voyage.supplies.items()}
    return StoresTold(
        lanes=lanes_of(tour, voyage), stops=stops, plan=figures(tour, voyage, voyage.supplies),
        everywhere=figures(tour, voyage, everywhere), cooking_saves=_cooking_saves(tour, voyage),
        panel_days=voyage.power.panel_days if voyage.power and voyage.ride.things(Panel) else None,
    )  # fmt: skip


def figures(tour: TourSheet, voyage: Voyage, supplies: dict[str, Supply]) -> PlanFigures:
    """What carrying and getting supplies comes to."""
    carried = sum(kg_km(voyage, supply) for supply in supplies.values())
    by_hand = float(water.minutes_by_hand(voyage.ride, supplies["water"]).sum())
    by_hand += fuel.melted_l(voyage.ride, supplies["water"]) * tour.practice.melt_min_per_l
    return PlanFigures(
        kg_km=round(carried, 1), minutes=round(carried * minutes_per_kg_km(voyage) + by_hand, 1), money=_money(tour, supplies)
    )


def kg_km(voyage: Voyage, supply: Supply) -> float:
    """Kilograms of a supply times the kilometres over which they are carried [kg km]."""
    km = voyage.at_km
    on_board = supply.kg_on_board(km, voyage.leaving, voyage.nodes.km)
    return float((np.diff(km) * (on_board[:-1] + on_board[1:]) / 2).sum())


def minutes_per_kg_km(voyage: Voyage) -> float:
    """Minutes that a kilogram costs the party on a kilometre of this road, even parts with every rider [min/(kg km)]."""
    return float(voyage.ridden.hours_per_kg.mean()) * 60 / voyage.profile.length_km


def filled_everywhere(supply: Supply) -> Supply:
    """The same supply by a rider who fills up wherever anything can be had: vessels to the brim, food to the most that the plan
    ever carries."""
    size = supply.used.size + 1
    most = float(supply.amounts.leaving.max())
    brim = np.where(np.isfinite(supply.capacity), supply.capacity, most)
    arriving, leaving = np.zeros(size), np.zeros(size)
    for i in range(size):
        arriving[i] = max(leaving[i - 1] - supply.used[i - 1], 0.0) if i else 0.0
        have = 0.0 if supply.refills.emptied[i] else arriving[i]
        room = supply.terms.bought(float(brim[i]) - have, have, float(brim[i])) if i < size - 1 else 0.0
        leaving[i] = have + max(min(room, float(supply.refills.offers[i])), 0.0)
    return replace(supply, amounts=Carried(arriving, leaving, supply.amounts.required))


def _money(tour: TourSheet, supplies: dict[str, Supply]) -> float | None:
    """What everything bought costs, fuel and small things by their own prices and food by that of the menu."""
    total, known = 0.0, False
    for name, supply in supplies.items():
        price = _food_price(tour) if name == "food" else supply.terms.price
        if price is not None:
            total, known = total + price * float(supply.taken.sum()), True
    return round(total, 2) if known else None


def _food_price(tour: TourSheet) -> float | None:
    """Of a kilogram of the menu; None where a food has no price."""
    plate = plate_of(tour.stores, tour.practice)
    if plate is None or any(f.price_per_kg is None for f in plate.foods):
        return None
    kg = plate.eaten(1, "full", False) * plate.kg_per_kcal
    return float(kg @ np.array([f.price_per_kg for f in plate.foods], dtype=float) / kg.sum())


def _cooking_saves(tour: TourSheet, voyage: Voyage) -> float | None:
    """Money that the party keeps by cooking its evenings instead of eating out; None where prices are missing."""
    price = _food_price(tour)
    if price is None or tour.stores.meal_price is None or tour.stores.cooking in (None, "none"):
        return None
    evenings = (voyage.days.count - 1) * len(tour.riders)
    cooked = price * float(voyage.supplies["food"].used.sum()) * tour.practice.evening_share
    fuel = voyage.supplies.get("fuel")
    burnt = float(fuel.used.sum()) * (fuel.terms.price or 0.0) if fuel is not None else 0.0
    return round(evenings * tour.stores.meal_price - cooked - burnt, 2)
