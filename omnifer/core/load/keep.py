"""What of a load still stands after kit, rig or riders changed."""

from omnifer.core.model.kit import Thing
from omnifer.core.model.load import FoodShare, Load, Placement
from omnifer.core.model.rig import Rig
from omnifer.core.model.tour import TourSheet


def still_standing(load: Load, kit: tuple[Thing, ...], rig: Rig) -> Load:
    """The placements whose thing and carrier are still there, and no more of a thing than the kit has."""
    left = {thing.id: thing.count for thing in kit}
    carriers = {carrier.id for bike in rig.bikes for carrier in bike.carriers}
    placements = []
    for placement in load.placements:
        count = min(placement.count, left.get(placement.thing_id, 0))
        if count and placement.carrier_id in carriers:
            left[placement.thing_id] -= count
            placements.append(Placement.model_validate(placement.model_dump() | {"count": count}))
    food: list[FoodShare] = [share for share in load.food if share.carrier_id in carriers]
    return Load(placements=tuple(placements), food=tuple(food))


def without(tour: TourSheet, out: dict[str, int]) -> TourSheet:
    """A tour without so many of some things, its load with what still stands."""
    kit = tuple(
        thing.model_copy(update={"count": thing.count - out.get(thing.id, 0)})
        for thing in tour.kit
        if thing.count > out.get(thing.id, 0)
    )
    return tour.model_copy(update={"kit": kit, "load": still_standing(tour.load, kit, tour.rig)})
