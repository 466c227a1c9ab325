"""Supplies: what is used up along the road and handed over at places on it. Water, food and fuel each have their rules in a file
of their own; small things share one; electricity is charged, not carried, and has its own."""

from omnifer.core.model.roles import UsedUp
from omnifer.core.supplies import food, fuel, used_up, water
from omnifer.core.supplies.ride import Ride
from omnifer.core.supplies.supply import Supply


def supplies_of(ride: Ride) -> dict[str, Supply]:
    """Every supply that weighs, of a tour as it is ridden, by name; what others ask for comes before them."""
    supplies = {"water": water.plan(ride), "food": food.plan(ride)}
    burnt = fuel.plan(ride, supplies["water"])
    if burnt is not None:
        supplies["fuel"] = burnt
    for thing in ride.things(UsedUp):
        supplies[thing.id] = used_up.plan(ride, thing, supplies["water"])
    return supplies
