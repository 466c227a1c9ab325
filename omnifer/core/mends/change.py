"""A tour as a change would have it, and what a change consists of."""

from collections.abc import Iterable, Iterator, Sequence
from typing import TypeVar

from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.road import SAME_START_KM, DayStart, Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import share

One = TypeVar("One", Thing, Carrier, Stop)


def mended(tour: TourSheet, mend: Mend) -> TourSheet:
    """The tour as a mend would have it; not yet validated."""
    kit = tuple(_replaced(tour.kit, mend.things, add=True))
    kit = tuple(thing for thing in kit if thing.id not in mend.gone)
    moved = {placement.thing_id for placement in mend.moves} | set(mend.gone)
    placements = (*(p for p in tour.load.placements if p.thing_id not in moved), *mend.moves)
    food = tour.load.food if mend.food is None else tuple(mend.food)
    road = tour.road.model_copy(
        update={
            "stops": tuple(_replaced(tour.road.stops, mend.stops, add=True)),
            "cut": mend.cut or tour.road.cut,
            "nights": tour.road.nights if mend.nights is None else tuple(mend.nights),
            "starts": _starting(tour.road.starts, mend.starts),
        }
    )
    bikes = tuple(_bike(bike, mend) for bike in tour.rig.bikes)
    return tour.model_copy(
        update={
            "kit": kit, "road": road, "rig": tour.rig.model_copy(update={"bikes": bikes}),
            "load": Load(placements=placements, food=food), "stores": mend.stores or tour.stores,
            "start_date": mend.start_date or tour.start_date,
        }
    )  # fmt: skip


def _bike(bike: Bike, mend: Mend) -> Bike:
    """A bike with other carriers, and with what is said of its parts."""
    bike = bike.model_copy(update={"carriers": tuple(_replaced(bike.carriers, mend.carriers, add=False))})
    for told in mend.parts:
        bike = bike.with_part(told.part) if told.bike_id == bike.id else bike
    return bike


def _starting(old: Iterable[DayStart], other: Sequence[DayStart]) -> tuple[DayStart, ...]:
    """Days with hours of their own, those that begin at the same places replaced."""
    kept = (one for one in old if all(abs(one.at_km - new.at_km) > SAME_START_KM for new in other))
    return tuple(sorted((*kept, *other), key=lambda one: one.at_km))


def _replaced(old: Iterable[One], other: Iterable[One], add: bool) -> Iterator[One]:
    new = {one.id: one for one in other}
    yield from (new.pop(one.id, one) for one in old)
    if add:
        yield from new.values()


def otherwise_placed(was: Load, then: Load) -> list[Placement]:
    """Placements of the things that ride elsewhere than they did."""

    def by_thing(load: Load) -> dict[str, dict[str, int]]:
        found: dict[str, dict[str, int]] = {}
        for p in load.placements:
            there = found.setdefault(p.thing_id, {})
            there[p.carrier_id] = there.get(p.carrier_id, 0) + p.count
        return found

    before, after = by_thing(was), by_thing(then)
    return [p for p in then.placements if before.get(p.thing_id) != after[p.thing_id]]


def checked(mend: Mend, name: Text, consequence: Text, left: float) -> Mend:
    """A mend with its words, and with how much it leaves."""
    if left > 0:
        consequence = Text(
            words=consequence.words + "; {left} of it is left", figures=consequence.figures | {"left": share(left)},
            names=consequence.names,
        )  # fmt: skip
    return Mend.model_validate(mend.model_dump() | {"name": name, "consequence": consequence})
