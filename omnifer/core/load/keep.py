"""What of a load still stands after kit, rig or riders changed."""

from omnifer.core.load.nesting import taken_along
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import FoodShare, Load, Placement
from omnifer.core.model.people import Rider
from omnifer.core.model.rig import Rig
from omnifer.core.model.tour import TourSheet


def still_standing(load: Load, kit: tuple[Thing, ...], rig: Rig) -> Load:
    """The placements whose thing and carrier are still there, and no more of a thing than the kit has; things in things
    ride where the outer one does, and what is never packed nowhere."""
    remaining = {thing.id: thing.count for thing in kit if thing.inside is None and thing.ever_packed}
    carriers = {carrier.id for bike in rig.bikes for carrier in bike.carriers}
    placements = []
    for placement in load.placements:
        count = min(placement.count, remaining.get(placement.thing_id, 0))
        if count and placement.carrier_id in carriers:
            remaining[placement.thing_id] -= count
            placements.append(Placement.model_validate(placement.model_dump() | {"count": count}))
    food: list[FoodShare] = [share for share in load.food if share.carrier_id in carriers]
    return Load(placements=taken_along(placements, kit), food=tuple(food))


def standing(sheet: TourSheet) -> TourSheet:
    """A sheet whose load lets go of what is there no longer."""
    return sheet.model_copy(update={"load": still_standing(sheet.load, sheet.kit, sheet.rig)})


def lacking(tour: TourSheet, out: dict[str, int]) -> TourSheet:
    """A tour without so many of some things, its load with what still stands."""
    kit = tuple(
        thing.model_copy(update={"count": thing.count - out.get(thing.id, 0)})
        for thing in tour.located
        if thing.count > out.get(thing.id, 0)
    )
    return tour.model_copy(update={"kit": kit, "load": still_standing(tour.load, kit, tour.rig)})


def ridden_by(sheet: TourSheet, riders: tuple[Rider, ...]) -> TourSheet:
    """A tour with other riders: the bikes of those who left go with them, their things become everybody's."""
    there = {rider.id for rider in riders}

    def of(rig: Rig) -> Rig:
        return Rig(bikes=tuple(bike for bike in rig.bikes if bike.rider_id in there))

    kit = tuple(t if t.rider_id in there or t.rider_id is None else t.model_copy(update={"rider_id": None}) for t in sheet.kit)
    variants = tuple(variant.model_copy(update={"rig": of(variant.rig)}) for variant in sheet.variants)
    return sheet.model_copy(update={"riders": riders, "rig": of(sheet.rig), "kit": kit, "variants": variants})


def shelf_of(tour: TourSheet) -> dict[str, int]:
    """How many of each thing that is packed anywhere are placed nowhere, zeros left out."""
    out = {thing.id: thing.count for thing in tour.located if thing.ever_packed}
    for placement in tour.load.placements:
        if placement.thing_id in out:
            out[placement.thing_id] -= placement.count
    return {thing_id: count for thing_id, count in out.items() if count > 0}
