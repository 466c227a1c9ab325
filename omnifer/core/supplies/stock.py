"""What is on board of every supply at each moment, and what of it the vessels hold."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import REACHES, CarriedSupply
from omnifer.core.model.tour import TourSheet
from omnifer.core.supplies import KINDS

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Stock:
    """Amounts of the supplies at each moment, in their units, by name; and the vessels that water rides in.

    `besides` are amounts on board when a load tried before broke a limit: such moments govern as well.
    """

    vessels: list[tuple[Thing, int]]
    amounts: dict[CarriedSupply, Array]
    besides: tuple[dict[CarriedSupply, float], ...] = ()

    @classmethod
    def none(cls, tour: TourSheet) -> "Stock":
        """Nothing on board, for a tour that has no road yet."""
        return cls(vessels(tour), {kind.name: np.zeros(1) for kind in KINDS})

    @property
    def moments(self) -> int:
        """How many moments there are."""
        return int(self.amounts["water"].size)

    @property
    def total_kg(self) -> Array:
        """Mass of all supplies at each moment [kg]."""
        return mass_of(self.amounts)

    def governing(self) -> "Stock":
        """The stock at the moments that govern: those of `governing_moments`, and those that proved to."""
        moments = governing_moments(self)
        amounts = {name: np.append(column[moments], [b[name] for b in self.besides]) for name, column in self.amounts.items()}
        return Stock(self.vessels, amounts)

    def watching(self, moments: Iterable[int]) -> "Stock":
        """The same stock, with some of its moments that govern as well."""
        states = [{name: float(column[k]) for name, column in self.amounts.items()} for k in moments]
        return replace(self, besides=(*self.besides, *states))

    def in_vessels(self) -> dict[str, Array]:
        """Water in one of each kind of vessel [l], by thing."""
        return {t.id: f for (t, _), f in zip(self.vessels, fills(self.vessels, self.amounts["water"]), strict=True)}


def mass_of(amounts: dict[CarriedSupply, Array]) -> Array:
    """Mass of amounts of supplies [kg]."""
    return np.asarray(sum(kind.kg_per_unit * amounts[kind.name] for kind in KINDS))


def governing_moments(stock: Stock) -> list[int]:
    """Moments to look at first: most on board, least, most of each supply; the middle one where these coincide."""
    total = stock.total_kg
    picked = [int(np.argmax(total)), int(np.argmin(total)), *(int(np.argmax(column)) for column in stock.amounts.values())]
    middle = int(np.argsort(total, kind="stable")[total.size // 2])
    return list(dict.fromkeys([*picked, middle]))[: 2 + len(stock.amounts)]


def vessels(tour: TourSheet) -> list[tuple[Thing, int]]:
    """The vessels on the bikes and how many of each, in the order in which they are filled.

    Before anything is placed all vessels of the kit count. Those in reach while riding come first, of these bottles before what
    folds away, and the smaller ones first; in which order the kit was told does not matter.
    """
    placed = {thing.id: 0 for thing in tour.kit}
    for placement in tour.load.placements:
        placed[placement.thing_id] += placement.count
    anything = any(placed.values())
    chosen = [(t, placed[t.id] if anything else t.count) for t in tour.kit if t.holds_water_l > 0]
    return sorted(((t, n) for t, n in chosen if n), key=lambda pair: _filled_when(pair[0]))


def _filled_when(vessel: Thing) -> tuple[int, bool, float, str]:
    return REACHES.index(vessel.reach), vessel.soft_vessel, vessel.holds_water_l, vessel.id


def fills(filled: list[tuple[Thing, int]], water_l: Array) -> list[Array]:
    """Water in one of each kind of vessel at each moment [l]; vessels alike are filled evenly."""
    result, before = [], 0.0
    for thing, count in filled:
        total = thing.holds_water_l * count
        result.append(np.clip(water_l - before, 0, total) / count)
        before += total
    return result
