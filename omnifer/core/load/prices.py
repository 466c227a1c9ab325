"""What each thing costs in time, by the bike that carries it."""

from omnifer.core.model.tour import TourSheet


def minutes_of_things(tour: TourSheet, by_rider: dict[str, float]) -> dict[str, float]:
    """Minutes a day that each thing costs the party where it rides; empty while there is no road.

    What lies on the shelf is priced with its owner, what nobody owns with the mean of the riders.

    Parameters
    ----------
    by_rider : dict
        What one kilogram more with each rider costs [min/day/kg].
    """
    if not by_rider:
        return {}
    rider_of = {carrier.id: bike.rider_id for bike in tour.rig.bikes for carrier in bike.carriers}
    mean = sum(by_rider.values()) / len(by_rider)
    left = {thing.id: thing.count for thing in tour.kit}
    kilograms = {thing.id: thing.mass_kg for thing in tour.kit}
    cost = dict.fromkeys(left, 0.0)
    for placement in tour.load.placements:
        left[placement.thing_id] -= placement.count
        rate = by_rider[rider_of[placement.carrier_id]]
        cost[placement.thing_id] += rate * kilograms[placement.thing_id] * placement.count
    for thing in tour.kit:
        cost[thing.id] += thing.mass_kg * left[thing.id] * by_rider.get(thing.rider_id or "", mean)
    return {thing_id: round(minutes, 3) for thing_id, minutes in cost.items()}
