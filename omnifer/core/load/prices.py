"""What each thing costs in time, by the bike that carries it."""

from collections.abc import Callable

from omnifer.core.model.tour import TourSheet


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


def minutes_of_things(tour: TourSheet, by_rider: dict[str, float]) -> dict[str, float]:
    """Minutes a day that each thing costs the party where it rides; empty while there is no road.

    What nobody owns and nobody carries is priced with the mean of the riders.

    Parameters
    ----------
    by_rider : dict
        What one kilogram more with each rider costs [min/day/kg].
    """
    return cost_of_things(tour, {rider: rate.__mul__ for rider, rate in by_rider.items()}, 3)


def cost_of_things(tour: TourSheet, by_rider: dict[str, Callable[[float], float]], digits: int) -> dict[str, float]:
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
