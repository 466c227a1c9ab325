"""What is eaten: foods, the menu of each way of cooking, and what of it is left to eat some days after the last shop."""

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.practice import Practice
from omnifer.core.model.stores import MEALS, Cooking, Food, Meal, Serving, SoldAt, Stores
from omnifer.core.supplies.foods import FOODS

Array = NDArray[np.float64]
LONGEST_AGE = 40
"""Food older than this is eaten as if it were so old [days]."""
SELLS: dict[SoldAt, tuple[SoldAt, ...]] = {
    "full": ("snacks", "basic", "full"), "basic": ("snacks", "basic"), "snacks": ("snacks",),
}  # fmt: skip
"""What each kind of shop sells."""
_Menu = dict[Meal, dict[str, float]]
_RIDING = {"bars": 0.25, "nuts": 0.15, "chocolate": 0.15, "dried-fruit": 0.15, "bread": 0.15, "hard-cheese": 0.15}
USUAL_MENUS: dict[Cooking, _Menu] = {
    "cook": {
        "breakfast": {"oats": 0.6, "dried-fruit": 0.2, "nut-butter": 0.2},
        "riding": _RIDING,
        "evening": {"pasta": 0.4, "rice": 0.2, "oil": 0.1, "sausage": 0.15, "tinned-fish": 0.1, "fruit": 0.05},
    },
    "boil": {
        "breakfast": {"cereal-mix": 0.8, "dried-fruit": 0.2},
        "riding": _RIDING,
        "evening": {"instant-noodles": 0.5, "freeze-dried": 0.3, "sausage": 0.15, "fruit": 0.05},
    },
    "none": {
        "breakfast": {"cereal-mix": 0.6, "fruit": 0.1, "nuts": 0.3},
        "riding": _RIDING,
        "evening": {"bread": 0.25, "flat-bread": 0.2, "hard-cheese": 0.2, "tinned-fish": 0.15, "nut-butter": 0.2},
    },
}
"""Parts of each meal's energy; practice."""


@dataclass(frozen=True)
class Plate:
    """The menu of a tour as arrays over its foods.

    Attributes
    ----------
    shares : shape (meals, foods)
        Parts of a day's energy.
    """

    foods: tuple[Food, ...]
    shares: Array

    def eaten(self, age: int, shop: SoldAt, hot: bool, meals: tuple[Meal, ...] = MEALS) -> Array:
        """Energy of each food in a day so many days after the shop, as parts of a day's, shape (foods,).

        What has gone off by then, or is not sold there, leaves its part to the rest of its meal; a meal of which nothing is
        left is eaten as it stands.
        """
        keeps = np.array([(food.keeps_hot_days if hot else food.keeps_days) > age for food in self.foods])
        sold = np.array([food.sold_at in SELLS[shop] for food in self.foods])
        result = np.zeros(len(self.foods))
        for meal in meals:
            share = self.shares[MEALS.index(meal)]
            left = share * (keeps & sold)
            left = left if left.any() else share
            if left.any():
                result += share.sum() * left / left.sum()
        return result

    @cached_property
    def kg_per_kcal(self) -> Array:
        """Mass of each food for a kilocalorie, shape (foods,) [kg/kcal]."""
        return np.array([1 / (food.kcal_per_100g * 10) for food in self.foods])

    @cached_property
    def weights(self) -> dict[tuple[SoldAt, bool], Array]:
        """Mass of a kilocalorie of the whole menu by days since the shop, for each kind of shop, cool and hot [kg/kcal]."""
        return {kind: by_food.sum(axis=1) for kind, by_food in self.weights_by_food.items()}

    @cached_property
    def weights_by_food(self) -> dict[tuple[SoldAt, bool], Array]:
        """What each food has of `weights`, shape (days since the shop, foods) [kg/kcal]."""
        return {
            (shop, hot): np.array([self.eaten(age, shop, hot) * self.kg_per_kcal for age in range(LONGEST_AGE + 1)])
            for shop in ("basic", "full")
            for hot in (False, True)
        }

    @cached_property
    def l_per_kg(self) -> float:
        """Litres of a kilogram of the menu, decanted, on the second day after a full shop [l/kg]."""
        kg = self.eaten(1, "full", False) * self.kg_per_kcal
        return float(kg @ np.array([food.l_per_kg for food in self.foods]) / kg.sum())


def plate_of(stores: Stores, usual: Practice) -> Plate | None:
    """The menu of a tour; None where its rider has not said how it cooks. Foods that nobody knows are left aside."""
    if stores.cooking is None:
        return None
    return _plate(stores.cooking, stores.menu, stores.own_foods, usual.breakfast_share, usual.evening_share)


@lru_cache(maxsize=64)
def _plate(cooking: Cooking, menu: tuple[Serving, ...], own: tuple[Food, ...], breakfast: float, evening: float) -> Plate:
    known = FOODS | {food.id: food for food in own}
    of_day: dict[Meal, float] = {"breakfast": breakfast, "riding": 1 - breakfast - evening, "evening": evening}
    chosen: _Menu = {meal: {} for meal in MEALS}
    for serving in menu:
        if serving.food_id in known:
            chosen[serving.meal][serving.food_id] = serving.share
    served = {meal: foods or USUAL_MENUS[cooking][meal] for meal, foods in chosen.items()}
    ids = list(dict.fromkeys(food for foods in served.values() for food in foods))
    shares = np.zeros((len(MEALS), len(ids)))
    for row, (meal, foods) in zip(shares, served.items(), strict=True):
        for food, share in foods.items():
            row[ids.index(food)] = of_day[meal] * share / sum(foods.values())
    return Plate(tuple(known[food] for food in ids), shares)
