"""Supplies: what is used up along the road and handed over at places on it. A new one is a row of `KINDS`, and its rules
in a file beside `water` and `food`."""

from omnifer.core.model.quantities import CarriedSupply
from omnifer.core.supplies import food, water
from omnifer.core.supplies.supply import Kind, Ride, Supply

KINDS: tuple[Kind, ...] = (water.KIND, food.KIND)
"""Those that are carried from place to place, in the order in which screens show them."""


def supplies_of(ride: Ride) -> dict[CarriedSupply, Supply]:
    """Every supply of a tour as it is ridden, by name."""
    return {kind.name: kind.plan(kind, ride) for kind in KINDS}
