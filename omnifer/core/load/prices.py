"""What each thing costs in time, by the bike that carries it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from omnifer.core.model.tour import TourSheet

LIGHTER_KG = (2.0, 4.0, 8.0, 16.0)
"""With so much less the tour is ridden again, as far as the heaviest thing reaches, to know what things cost [kg]."""


@dataclass(frozen=True)
class MassPrice:
    """What so many kilograms with a rider cost the party [min/day].

    A first gram costs what the slope of the ride's hours says, the kilograms of `LIGHTER_KG` what riding without them says. Up
    to the first of these the curve through both, never above the whole: it is flat where another rider is the slowest then.
    """

    a_kg: float
    """[min/day/kg]."""
    whole: tuple[float, ...]
    """Of each of `LIGHTER_KG`, as far as was ridden."""

    def __call__(self, kg: float) -> float:
        """Of so many kilograms."""
        first, last = LIGHTER_KG[0], LIGHTER_KG[len(self.whole) - 1]
        if kg > first:
            return float(np.interp(kg, LIGHTER_KG[: len(self.whole)], self.whole)) * max(kg / last, 1.0)
        curve = self.a_kg * kg + (self.whole[0] - self.a_kg * first) * (kg / first) ** 2
        return min(curve, max(self.whole[0], 0.0))


def kilograms_by_rider(tour: TourSheet) -> dict[str, dict[str | None, float]]:
    """What of each thing each rider carries [kg]: where it rides, or its owner's where it lies on the shelf.

    What nobody owns and nobody carries yet stands under None.
    """
    rider_of = {carrier.id: bike.rider_id for bike in tour.rig.bikes for carrier in bike.carriers}
    left = {thing.id: thing.count for thing in tour.kit}
    kilograms = {thing.id: thing.mass_kg for thing in tour.kit}
    found: dict[str, dict[str | None, float]] = {thing_id: {} for thing_id in left}
    for placement in tour.load.placements:
        thing_id, rider = placement.thing_id, rider_of[placement.carrier_id]
        left[thing_id] -= placement.count
        found[thing_id][rider] = found[thing_id].get(rider, 0.0) + kilograms[thing_id] * placement.count
    riders = {rider.id for rider in tour.riders}
    for thing in tour.kit:
        if left[thing.id]:
            owner = thing.rider_id if thing.rider_id in riders else None
            found[thing.id][owner] = found[thing.id].get(owner, 0.0) + thing.mass_kg * left[thing.id]
    return found


def cost_of_things(tour: TourSheet, by_rider: Mapping[str, Callable[[float], float]], digits: int) -> dict[str, float]:
    """What each thing costs, by what so many kilograms cost with each rider; empty where nothing is said of them."""
    if not by_rider:
        return {}

    def cost(rider: str | None, kg: float) -> float:
        if rider is not None:
            return by_rider[rider](kg)
        return sum(each(kg) for each in by_rider.values()) / len(by_rider)

    return {
        thing_id: round(sum(cost(rider, kg) for rider, kg in parts.items()), digits)
        for thing_id, parts in kilograms_by_rider(tour).items()
    }
