"""In which order a camp is made and struck, which bags that opens, and how long it takes."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.camp import Camp, CampStep
from omnifer.core.model.kit import Thing
from omnifer.core.model.practice import Practice
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.roles import BedLayer, Mat, SleepingBag, Stove
from omnifer.core.model.tour import TourSheet

COLD_C = 5.0
"""Colder evenings and mornings than this make hands cold [°C]; practice."""
SHELTER = frozenset({"tent", "fly", "poles", "pegs", "groundsheet", "tarp"})
KITCHEN = frozenset({"pot", "pan", "mug", "spoon", "knife"})


@dataclass(frozen=True)
class _Stowed:
    thing: Thing
    count: int
    bike: Bike
    carrier: Carrier


def camp_of(tour: TourSheet, bikes: list[BikeLoad], coldest_c: float | None) -> Camp:
    """The evening and the morning of a night in the tent, and what packing the whole rig takes.

    Parameters
    ----------
    coldest_c : float, optional
        The coldest night to plan for [°C]; None: not known.
    """
    every = [
        _Stowed(thing, placement.count, load.bike, contents.carrier)
        for load in bikes
        for contents in load.contents
        for thing, placement in contents.inside
        if thing.inside is None
    ]
    usual = tour.practice
    evening = list(_steps(_by_moment(every), ("shelter", "bed", "kitchen")))
    morning = list(_steps(_by_moment(every), ("bed", "kitchen", "shelter")))
    closed = _closed({s.carrier.id: s.carrier for s in every}.values())
    minutes = packing_minutes(sum(s.count for s in every), *closed, usual)
    opened = len({bag for step in evening for bag in step.carrier_ids})
    return Camp(
        evening=evening,
        morning=morning,
        bags_opened=opened,
        evening_minutes=_of(every, evening, usual),
        minutes=round(minutes, 1),
        cold_minutes=round(minutes * usual.cold_hands_times, 1),
        cold=coldest_c is not None and coldest_c < COLD_C,
        things=sum(s.count for s in every),
        lighter_minutes=round(10 * usual.packing_thing_s * usual.packing_times / 60, 1),
    )


def packing_minutes(things: int, rolls: int, straps: int, usual: Practice) -> float:
    """Stowing so many things, closing so many rolled bags and strapping on so many others, with warm hands [min]."""
    seconds = things * usual.packing_thing_s + rolls * usual.packing_roll_s + straps * usual.packing_strap_s
    return seconds * usual.packing_times / 60


def _closed(carriers: Iterable[Carrier]) -> tuple[int, int]:
    """How many of them close with a roll, and how many are strapped on."""
    bags = list(carriers)
    return sum(c.opening == "roll" for c in bags), sum(c.straps > 0 and c.opening != "roll" for c in bags)


def _by_moment(every: list[_Stowed]) -> dict[str, list[_Stowed]]:
    found: dict[str, list[_Stowed]] = {"shelter": [], "bed": [], "kitchen": []}
    for one in every:
        thing = one.thing
        if "shelter" in thing.natures or SHELTER & set(thing.serves):
            found["shelter"].append(one)
        elif isinstance(thing.role, SleepingBag | BedLayer | Mat) or thing.reach == "night":
            found["bed"].append(one)
        elif isinstance(thing.role, Stove) or KITCHEN & set(thing.serves):
            found["kitchen"].append(one)
    return found


WHY = {
    ("shelter", 0): "the tent before all; in rain nothing else is opened until it stands",
    ("bed", 1): "mat and bag inside, dry",
    ("kitchen", 2): "then the stove",
    ("bed", 0): "packed inside, while the tent still stands",
    ("kitchen", 1): "breakfast, then washed and away",
    ("shelter", 2): "last, apart from the rest: it is wet outside",
}


def _steps(moments: dict[str, list[_Stowed]], order: tuple[str, ...]) -> Iterator[CampStep]:
    for n, moment in enumerate(order):
        if moments[moment]:
            yield CampStep(
                moment=moment,
                because=WHY[moment, n],
                carrier_ids=list(dict.fromkeys(one.carrier.id for one in moments[moment])),
                thing_ids=[one.thing.id for one in moments[moment]],
                in_rain_opens=sorted({one.carrier.id for one in moments[moment]} & _shared(moments, moment)),
            )


def _shared(moments: dict[str, list[_Stowed]], moment: str) -> set[str]:
    """Bags that hold what another moment needs: opened in rain, they wet it."""
    return {one.carrier.id for other, stowed in moments.items() if other != moment for one in stowed}


def _of(every: list[_Stowed], steps: list[CampStep], usual: Practice) -> float:
    """Minutes of making camp: what is fetched, and the bags that are opened and closed for it."""
    things = {thing for step in steps for thing in step.thing_ids}
    bags = {bag for step in steps for bag in step.carrier_ids}
    carriers = {s.carrier.id: s.carrier for s in every if s.carrier.id in bags}
    return round(packing_minutes(sum(s.count for s in every if s.thing.id in things), *_closed(carriers.values()), usual), 1)
