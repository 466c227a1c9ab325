"""The best schedule of the stores that can be taken without making anything worse: tried as a whole before it is told."""

from collections import Counter

from omnifer.core.assess import situation_of
from omnifer.core.findings import find
from omnifer.core.model.stores import StoreStep
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.stores.schedule import Schedule, schedule, taking

Told = Counter[tuple[str, str]]


def best_plan(tour: TourSheet, road: Profile) -> Schedule:
    """The best schedule; a supply whose plan would bring a finding, as by what it weighs on a wheel, stays as it is planned."""
    found = schedule(tour, road)
    if not found.better:
        return found
    before = _told(tour, road)

    def adds(steps: list[StoreStep]) -> bool:
        return bool(_told(taking(tour, steps), road) - before)

    if not adds(found.steps):
        return found
    supplies = {step.supply for step in found.steps}
    stay = {name for name in supplies if adds([step for step in found.steps if step.supply == name])}
    fewer = schedule(tour, road, stay or supplies)
    return fewer if not fewer.steps or not adds(fewer.steps) else schedule(tour, road, supplies)


def _told(tour: TourSheet, road: Profile) -> Told:
    """How many findings there are of each kind: in all, and of those that stop."""
    told: Told = Counter()
    for finding in find(situation_of(tour, road)):
        if finding.aside is None:
            told[finding.kind, "any"] += 1
            told[finding.kind, finding.grade] += finding.grade == "stops_you"
    return told
