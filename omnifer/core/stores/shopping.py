"""What of a menu is bought at each shop: for the days until the next one, what has to be eaten first before what keeps."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.lanes import ShopItem
from omnifer.core.model.stores import Food, SoldAt
from omnifer.core.supplies.menu import LONGEST_AGE, Plate, plate_of
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage

Array = NDArray[np.float64]
FRESH_DAYS = 4
"""What keeps no longer than this is eaten first [days]; practice."""
WHOLE = 1e-6
"""Nearer to a whole pack than this is one [-]."""
LEAST_KG = 0.01
"""Less of a food than this is not bought [kg]."""


@dataclass
class Larder:
    """What is bought, as shopping goes on along the road."""

    voyage: Voyage
    owed: Array | None = None
    """Of each food what whole packs have bought too little so far, or, below 0, too much [packs]."""

    def __post_init__(self) -> None:
        tour = self.voyage.ride.tour
        self.plate: Plate | None = plate_of(tour.stores, tour.practice)
        days = self.voyage.days
        every = np.ones(days.km.size, dtype=bool)
        supply = self.voyage.supplies["food"]
        self.eaten_by_day = supply.gone(days.km, every, self.voyage.nodes.km)
        middles = (days.km[:-1] + days.km[1:]) / 2
        highs = np.interp(middles, self.voyage.nodes.km, self.voyage.climate.day_high_c)
        self.hot = highs > tour.practice.food_hot_c

    def buys(self, supply: Supply, place: int) -> list[ShopItem]:
        """What is bought at one of the places of the food supply."""
        taken = float(supply.taken[place])
        if self.plate is None or taken < LEAST_KG:
            return []
        stop = supply.refills.stops[place]
        shop: SoldAt = "full" if stop is None or stop.shop == "full" else "basic"
        foods, kg = self.plate.foods, self._eaten_of(supply, place, taken, shop)
        kg *= taken / kg.sum() if kg.sum() > 0 else 1.0
        hot = bool(self.hot[self._day(float(supply.refills.km[place]))])
        items = []
        for food, packs in zip(foods, self._in_packs(foods, kg), strict=True):
            if packs > 0:
                keeps = food.keeps_hot_days if hot else food.keeps_days
                bought = packs * food.pack_g / 1000
                items.append(
                    ShopItem(
                        id=food.id, name=food.name, packs=packs, pack=food.pack_g, unit="g", kg=round(bought, 3),
                        litres=round(bought * food.l_per_kg, 2), sold_litres=round(bought * food.sold_l_per_kg, 2),
                        price=None if food.price_per_kg is None else round(bought * food.price_per_kg, 2),
                        eat_first=keeps <= FRESH_DAYS,
                    )
                )  # fmt: skip
        return sorted(items, key=lambda item: (not item.eat_first, -item.kg))

    def _in_packs(self, foods: tuple[Food, ...], kg: Array) -> list[int]:
        """Whole packs: of each food what is owed of it, rounded down, then of those of which most is owed until the energy is
        there. What they hold too much or too little is settled, food by food, at the next shops."""
        pack_kg = np.array([food.pack_g / 1000 for food in foods])
        kcal = pack_kg * np.array([food.kcal_per_100g * 10 for food in foods])
        wanted = kg / pack_kg if self.owed is None else kg / pack_kg + self.owed
        packs = np.floor(np.maximum(wanted, 0) + WHOLE)
        owed_kcal = float((wanted - packs) @ kcal)
        for k in np.argsort(packs - wanted, kind="stable").tolist():
            if wanted[k] - packs[k] > WHOLE and owed_kcal > kcal[k] / 2:
                packs[k] += 1
                owed_kcal -= float(kcal[k])
        self.owed = wanted - packs
        return [int(n) for n in packs]

    def _day(self, km: float) -> int:
        return int(self.voyage.days.riding_day(km))

    def _eaten_of(self, supply: Supply, place: int, taken: float, shop: SoldAt) -> Array:
        """Mass of each food in what is bought, eaten day by day after what was on board before, shape (foods,) [kg]."""
        assert self.plate is not None
        here = float(supply.gone(supply.refills.km[place : place + 1], np.ones(1, dtype=bool), self.voyage.nodes.km)[0])
        begins = here + float(supply.amounts.arriving[place])
        edges = np.clip(self.eaten_by_day, begins, begins + taken)
        today = int(self.voyage.days.offset[self._day(float(supply.refills.km[place]))])
        ages = np.clip(self.voyage.days.offset - today, 0, LONGEST_AGE)
        cool, hot = (self.plate.weights_by_food[shop, warm][ages] for warm in (False, True))
        by_day = np.where(self.hot[:, None], hot, cool)
        total: Array = np.diff(edges) @ (by_day / by_day.sum(axis=1, keepdims=True))
        return total if total.any() else cool[0]
