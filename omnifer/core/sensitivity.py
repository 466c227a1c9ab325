"""What a default moves on a tour: the tour assessed at both ends of its usual range."""

from pydantic import Field

from omnifer.core.assess import assess
from omnifer.core.model import practice
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.chances import Chances
from omnifer.core.model.quantities import Noun, Quantity
from omnifer.core.model.rehearsal import USUAL_PLAYS
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.rehearsal.rehearsing import rehearsed
from omnifer.core.road.profile import Profile
from omnifer.core.stages import Reading

Figures = dict[str, tuple[Quantity, float]]


class Moved(Noun):
    """A figure of the tour with the default at the low end, as it is, and at the high end of its range."""

    name: str
    quantity: Quantity
    low: float
    now: float
    high: float


class Effect(Noun):
    """What a default moves."""

    key: str
    low: float = Field(description="Low end of the usual range")
    high: float
    figures: list[Moved] = Field(description="Only those that move")


def effect_of(tour: TourSheet, road: Profile | None, key: str) -> Effect:
    """What one default moves on a tour. Raises KeyError where there is none of that name."""
    _, told = practice.fields()[key]
    figures_of = _of_plays if key in Chances.model_fields else _of_tour
    ends = []
    for value in (told["low"], told["high"]):
        own = tour.own_values | {key: value}
        other = TourSheet.model_validate({name: getattr(tour, name) for name in TourSheet.model_fields} | {"own_values": own})
        ends.append(figures_of(other, road))
    now = figures_of(tour, road)
    moved = [
        Moved(name=name, quantity=quantity, low=ends[0][name][1], now=figure, high=ends[1][name][1])
        for name, (quantity, figure) in now.items()
        if ends[0][name][1] != figure or ends[1][name][1] != figure
    ]
    return Effect(key=key, low=told["low"], high=told["high"], figures=moved)


def _of_tour(tour: TourSheet, road: Profile | None) -> Figures:
    return _figures(assess(tour, road))


def _of_plays(tour: TourSheet, road: Profile | None) -> Figures:
    """What chance moves: how many plays go wrong, and in what."""
    if road is None or not tour.riders:
        return {}
    *_, told = rehearsed(Reading(tour, road), USUAL_PLAYS)
    figures: Figures = {f"{one.name}, of {told.plays} plays": ("count", one.counted.count) for one in told.outcomes}
    return figures | {f"{row.name}, one play in ten above": (row.quantity, row.high) for row in told.year}


def _figures(found: Assessment) -> Figures:
    """The figures of a tour that riders decide by."""
    figures: Figures = {}
    if found.road is not None:
        figures["Riding hours in all"] = "hours", round(found.road.riding_hours, 1)
        figures["Days"] = "count", len(found.days)
        figures["On foot"] = "distance", round(sum(day.walking_km for day in found.days), 1)
    for supply, spec in CARRIED.items():
        needs = [gap.need for gap in found.gaps if gap.supply == supply]
        if needs:
            figures[f"Most {supply} on leaving a place"] = spec.quantity, round(max(needs), 1)
    if found.stores is not None:
        figures["Minutes by hand at water"] = "minutes", round(sum(d.minutes for s in found.stores.stops for d in s.deeds))
        figures["Days with something dead"] = (
            "count",
            sum(gone.to_day - gone.from_day + 1 for lane in found.stores.lanes if lane.key == "power" for gone in lane.gone),
        )
    if found.moments is not None:
        figures["Heaviest moment"] = "mass", round(max(found.moments.total_kg), 1)
    if found.sleepers:
        figures["Nights too cold for what is slept in"] = (
            "count",
            sum(night.short_k > 0 for sleeper in found.sleepers for night in sleeper.nights),
        )
    figures["Parts to carry for repairs"] = "count", sum(fault.wanted for fault in found.faults)
    figures["Things that do not fit or hold"] = "count", sum(finding.grade == "stops_you" for finding in found.findings)
    return figures
