"""What is on board of every supply at each moment, and what of it the vessels hold."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.filled import filled_where_it_may_be
from omnifer.core.model.kit import ABOARD, PACKED, Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import REACHES
from omnifer.core.model.rig import Carrier
from omnifer.core.model.roles import FuelVessel, Stove, UsedUp
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet

Array = NDArray[np.float64]
TINY_KG = 1e-9


def supply_in(thing: Thing) -> str | None:
    """The supply that a thing holds, by name; None where it holds none."""
    match thing.role:
        case FuelVessel():
            return "fuel"
        case UsedUp():
            return thing.id
        case _:
            return "water" if thing.holds_water_l > 0 else None


@dataclass(frozen=True)
class Stock:
    """Kilograms of the supplies at each moment, by name; and the vessels that they ride in.

    Attributes
    ----------
    km : shape (moments,)
        Where each moment is; None before there is a road: everything is then where it is at the start.
    passing : tuple of Thing
        What is not packed all the way.
    besides
        The states in which a load tried before broke a limit: they govern as well.
    """

    vessels: list[tuple[Thing, int]]
    amounts: dict[str, Array]
    km: Array | None = None
    passing: tuple[Thing, ...] = ()
    besides: tuple[dict[str, float], ...] = field(default=())

    @classmethod
    def none(cls, tour: TourSheet, held: list[tuple[Thing, int]] | None = None) -> "Stock":
        """A tour that has no road yet: no water and no food, but fuel and small things as full as they can be."""
        held = vessels(tour) if held is None else held
        amounts = {"water": np.zeros(1), "food": np.zeros(1)}
        for thing, count in held:
            name = supply_in(thing)
            if name != "water" and name is not None:
                amounts[name] = amounts.get(name, np.zeros(1)) + thing.holds_kg * count
        return cls(held, amounts, passing=_passing(tour))

    @classmethod
    def of(
        cls, tour: TourSheet, amounts: dict[str, Array], km: Array, held: list[tuple[Thing, int]] | None = None
    ) -> "Stock":  # fmt: skip
        """A tour with its stores as they are along the road; its vessels are looked for where they are not given."""
        return cls(vessels(tour) if held is None else held, amounts, km, _passing(tour))

    @property
    def moments(self) -> int:
        """How many moments there are."""
        return int(self.amounts["water"].size)

    @cached_property
    def at_km(self) -> Array:
        """Where each moment is [km]."""
        return np.zeros(self.moments) if self.km is None else self.km

    def packed(self, thing: Thing) -> NDArray[np.bool_] | float:
        """Whether a thing is in its bag at each moment; 1 where it always is."""
        return thing.is_how(PACKED, self.at_km) if thing.comes_and_goes else 1.0

    @property
    def total_kg(self) -> Array:
        """Mass of all supplies and of what comes and goes, at each moment [kg]."""
        return mass_of(self.amounts) + np.asarray(
            sum((t.mass_kg * t.count * t.is_how(ABOARD, self.at_km) for t in self.passing), np.zeros(self.moments))
        )

    def governing(self) -> "Stock":
        """The stock at the moments that govern: those of `governing_moments`, and those that proved to."""
        moments = governing_moments(self)
        amounts = {
            name: np.append(column[moments], [b.get(name, 0.0) for b in self.besides]) for name, column in self.amounts.items()
        }
        km = None if self.km is None else np.append(self.km[moments], [b["km"] for b in self.besides])
        return Stock(self.vessels, amounts, km, self.passing)

    def watching(self, moments: Iterable[int]) -> "Stock":
        """The same stock, with some of its moments that govern as well."""
        states = [
            {name: float(column[k]) for name, column in self.amounts.items()} | {"km": float(self.at_km[k])} for k in moments
        ]
        return replace(self, besides=(*self.besides, *states))

    def in_vessels(self) -> dict[str, Array]:
        """What is in one of each kind of vessel [kg], by thing."""
        return dict(zip((t.id for t, _ in self.vessels), fills(self.vessels, self.amounts, self.at_km), strict=True))


def mass_of(amounts: dict[str, Array]) -> Array:
    """Mass of all supplies [kg]."""
    return np.asarray(sum(amounts.values()))


def governing_moments(stock: Stock) -> list[int]:
    """Moments to look at first: most on board, least, most of each supply; the middle one where these coincide; and the fullest
    of each way in which what comes and goes is there."""
    total = stock.total_kg
    most_of = [int(np.argmax(stock.amounts[name])) for name in CARRIED if name in stock.amounts]
    picked = [int(np.argmax(total)), int(np.argmin(total)), *most_of]
    middle = int(np.argsort(total, kind="stable")[total.size // 2])
    chosen = list(dict.fromkeys([*picked, middle]))[: 2 + len(most_of)]
    if stock.passing:
        ways = np.array([t.is_how(PACKED, stock.at_km) for t in stock.passing]).T
        for way in np.unique(ways, axis=0):
            there = np.flatnonzero((ways == way).all(axis=1))
            chosen.append(int(there[np.argmax(total[there])]))
    return list(dict.fromkeys(chosen))


def vessels(tour: TourSheet) -> list[tuple[Thing, int]]:
    """The vessels on the bikes and how many of each, in the order in which they are filled.

    Before anything is placed all vessels of the kit count; what is worn or fixed somewhere always does. Those in reach while
    riding come first, of these bottles before what folds away, and the smaller ones first; in which order the kit was told
    does not matter. Water goes in as far as the bags bear it.
    """
    placed = {thing.id: 0 for thing in tour.located}
    carriers = {carrier.id: carrier for carrier in tour.carriers}
    places = dict[str, list[tuple[Placement, Carrier]]]()
    for placement in tour.load.placements:
        placed[placement.thing_id] += placement.count
        places.setdefault(placement.thing_id, []).append((placement, carriers[placement.carrier_id]))
    anything = any(placed.values())
    burns = next((t.role.burns for t in tour.located if isinstance(t.role, Stove)), None)
    fit = [t for t in tour.located if supply_in(t) and not (isinstance(t.role, FuelVessel) and burns and t.role.burns != burns)]
    chosen = [(t, placed[t.id] if anything and t.ever_packed else t.count) for t in fit]
    held = [(_as_filled(t, places.get(t.id, []), tour.carriers), n) for t, n in chosen if n]
    return sorted(held, key=lambda pair: _filled_when(pair[0]))


def _as_filled(vessel: Thing, placed: Sequence[tuple[Placement, Carrier]], everywhere: Sequence[Carrier]) -> Thing:
    litres = filled_where_it_may_be(vessel, placed, everywhere)
    return vessel if litres == vessel.holds_water_l else vessel.model_copy(update={"holds_water_l": litres})


def _passing(tour: TourSheet) -> tuple[Thing, ...]:
    return tuple(thing for thing in tour.located if thing.comes_and_goes)


def _filled_when(vessel: Thing) -> tuple[int, bool, float, str]:
    return REACHES.index(vessel.reach), vessel.soft_vessel, vessel.holds_kg, vessel.id


def fills(filled: list[tuple[Thing, int]], amounts: dict[str, Array], at_km: Array) -> list[Array]:
    """What is in one of each kind of vessel at each moment [kg]; vessels alike, and bottles at hand, are filled evenly: each
    rider's own."""
    holds = [t.holds_kg * n * (t.is_how(ABOARD, at_km) if t.comes_and_goes else np.ones(at_km.size)) for t, n in filled]
    result, behind = [np.zeros(0)] * len(filled), dict[str, Array]()
    groups = dict[tuple[str, int], list[int]]()
    for k, (thing, _) in enumerate(filled):
        groups.setdefault(_filled_with(thing, k), []).append(k)
    for (name, _), together in groups.items():
        total = np.sum([holds[k] for k in together], axis=0)
        before = behind.get(name, np.zeros(at_km.size))
        into = amounts.get(name, np.zeros(at_km.size)) - before
        for k in together:
            thing, count = filled[k]
            # What is used up may ride in an opened pack beside the full ones.
            most = np.inf if isinstance(thing.role, UsedUp) else total
            part = holds[k] / np.maximum(total, TINY_KG) if len(together) > 1 else 1.0
            result[k] = np.clip(into, 0, most) * part / count
        behind[name] = before + total
    return result


def _filled_with(vessel: Thing, k: int) -> tuple[str, int]:
    """What is filled at the same time is called alike: bottles at hand; all else by itself."""
    name = supply_in(vessel) or ""
    return (name, -1) if name == "water" and vessel.reach == "riding" and not vessel.soft_vessel else (name, k)
