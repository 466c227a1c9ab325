"""What a thing or another rig is worth on this tour: the same questions asked twice, and the answers compared."""

from functools import lru_cache

import numpy as np
from pydantic import Field

from omnifer.core.assess import assess
from omnifer.core.load.explain import Paid, bill_of
from omnifer.core.load.keep import still_standing
from omnifer.core.load.settle import propose_load, stock_unloaded
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.load import Load
from omnifer.core.model.quantities import Noun, Quantity, Text
from omnifer.core.model.rig import Rig
from omnifer.core.model.tour import TourSheet
from omnifer.core.model.variant import Variant
from omnifer.core.road.profile import Profile
from omnifer.core.voyage import play, ridden_with

WORSE, SOME = 1.02, 0.01
"""A finding is told as worse from so many times its size, and so much more [-]."""
ROUNDS = 2
"""Rounds of the search for the load of a rig that has none."""


class Price(Noun):
    """What a thing costs on this tour, and what leaving it would mend or break."""

    thing_id: str
    mass_kg: float
    volume_l: float
    minutes_a_day: float | None = Field(description="Of the party, on the same days; None while the tour has no road")
    kj_a_day: float | None = Field(description="Work of all riders for it [kJ a day]")
    days_fewer: int | None = Field(description="Days that the tour would be shorter by, its days cut anew without the thing")
    money: float | None
    mended: list[Text] = Field(description="Findings that would be gone without it")
    broken: list[Text] = Field(description="Findings that would come up without it")


class WheelLoads(Noun):
    """The most that a bike's wheels bear on the tour, rider apart [kg]."""

    bike: str
    front_kg: float
    rear_kg: float


class LoadFigures(Noun):
    """A load in figures, beside the one that rides."""

    id: str = Field(description="Of the kept load; empty for the one that rides")
    name: str
    points: float = Field(description="By the aims of the tour: fewer is better")
    by_aim: list[Paid] = Field(description="What is left out apart: see `out`")
    wheels: list[WheelLoads]
    out: dict[str, int]
    moves: int = Field(description="Things that ride elsewhere than now")
    gained: list[Text]
    lost: list[Text]
    load: Load = Field(description="What of it still stands")


class RigFigures(Noun):
    """A rig in figures, with the load it has or the best quickly found."""

    id: str = Field(description="Of the variant; empty for the rig that is ridden")
    name: str
    litres: float
    rig_kg: float = Field(description="Bikes, racks and bags, empty [kg]")
    carriers_kg: float = Field(description="Of that racks, trailers and bags [kg]")
    money: float | None = Field(description="Racks, trailers and bags; None where a price is missing")
    money_per_litre: float | None
    heaviest_kg: float = Field(description="All bikes at the fullest moment, riders apart [kg]")
    wheels: list[WheelLoads]
    width_mm: float
    riding_hours: float | None
    days: int
    out: dict[str, int] = Field(description="What finds no place")
    gained: list[Text] = Field(description="Findings that the rig that is ridden does not have")
    lost: list[Text] = Field(description="Findings of the rig that is ridden that this one does not have")
    load: Load


def price(tour: TourSheet, road: Profile | None, thing_id: str) -> Price:
    """What one kind of thing costs on a tour. Raises KeyError where there is none."""
    thing = next((t for t in tour.kit if t.id == thing_id), None)
    if thing is None:
        raise KeyError(thing_id)
    kit = tuple(t for t in tour.kit if t.id != thing_id)
    without = tour.model_copy(update={"kit": kit, "load": still_standing(tour.load, kit, tour.rig)})
    before, after = assess(tour, road), assess(without, road)
    saved = None if road is None or not tour.riders else _saved(tour, without, road)
    gone, come = changed(before, after)
    return Price(
        thing_id=thing_id,
        mass_kg=round(thing.mass_kg * thing.count, 3),
        volume_l=round(thing.volume_l * thing.count, 2),
        minutes_a_day=None if saved is None else round(saved[0], 2),
        kj_a_day=None if saved is None else round(saved[1], 1),
        days_fewer=None if saved is None else len(before.days) - len(after.days),
        money=None if thing.price is None else thing.price * thing.count,
        mended=gone,
        broken=come,
    )


def _saved(tour: TourSheet, without: TourSheet, road: Profile) -> tuple[float, float]:
    """Minutes and kilojoules a riding day that the party saves on the same days by another load [min/d, kJ/d]."""
    voyage = play(tour, road)
    days = voyage.days.km.size - 1
    before, after = (ridden_with(voyage, t) for t in (tour, without))
    power = np.array([rider.all_day_power_w for rider in tour.riders])
    effort = before.effort_hours[:, -1] - after.effort_hours[:, -1]
    return float(before.hours[-1] - after.hours[-1]) * 60 / days, float(power @ effort) * 3.6 / days


def changed(before: Assessment, after: Assessment) -> tuple[list[Text], list[Text]]:
    """Findings that are gone, and findings that have come."""
    was, is_now = ({f.id: f.sentence for f in a.findings} for a in (before, after))
    return [s for k, s in was.items() if k not in is_now], [s for k, s in is_now.items() if k not in was]


class Figured(Noun):
    """One figure of a tour, before and after a change."""

    name: str
    quantity: Quantity
    before: float
    after: float


class Tried(Noun):
    """What a change that is not kept would mean, and what of it is better and worse."""

    sheet: TourSheet
    assessment: Assessment
    gone: list[Text] = Field(description="Findings that would be gone")
    come: list[Text] = Field(description="Findings that would come up")
    worse: list[Text] = Field(description="Findings that would stay and be worse, as they would be told")
    figures: list[Figured] = Field(description="Figures that would be others")


def tried(tour: TourSheet, changed_tour: TourSheet, road: Profile | None) -> Tried:
    """A tour as it would be, held against the tour as it is."""
    before, after = assess(tour, road), assess(changed_tour, road)
    was = {f.id: f for f in before.findings}
    gone, come = changed(before, after)
    worse = [f.sentence for f in after.findings if f.id in was and f.size > was[f.id].size * WORSE + SOME]
    both = zip(_told(tour, before), _told(changed_tour, after), strict=True)
    figures = [Figured(name=name, quantity=quantity, before=a, after=b) for (name, quantity, a), (_, _, b) in both if a != b]
    sheet = TourSheet.model_construct(**{name: getattr(changed_tour, name) for name in TourSheet.model_fields})
    return Tried(sheet=sheet, assessment=after, gone=gone, come=come, worse=worse, figures=figures)


def _told(tour: TourSheet, found: Assessment) -> list[tuple[str, Quantity, float]]:
    moments, bikes = found.moments, found.bikes
    heaviest = max(moments.total_kg) if moments else sum(max(b.total_kg) for b in bikes)
    return [
        ("things stay out", "count", sum(found.shelf.values())),
        ("tenths of the food stay out", "count", 10 - sum(f.tenths for f in tour.load.food)),
        ("at the heaviest", "mass", round(heaviest, 1)),
        ("days", "count", len(found.days)),
        ("of riding", "hours", round(found.road.riding_hours, 1) if found.road else 0.0),
        ("findings stop you", "count", sum(f.grade == "stops_you" and f.aside is None for f in found.findings)),
        ("findings slow you", "count", sum(f.grade == "slows_you" and f.aside is None for f in found.findings)),
    ]


def compare(tour: TourSheet, road: Profile | None) -> list[RigFigures]:
    """The rig that is ridden first, then each variant on the same tour and kit."""
    ridden = assess(tour, road)
    result = [_figures(tour, "", "As ridden", ridden, ridden)]
    for variant in tour.variants:
        other = with_variant(tour, road, variant)
        result.append(_figures(other, variant.id, variant.name, assess(other, road), ridden))
    return result


def with_variant(tour: TourSheet, road: Profile | None, variant: Variant) -> TourSheet:
    """The tour on a variant's rig, with the variant's load or, where it has none, one quickly proposed."""
    load = still_standing(variant.load, tour.kit, variant.rig)
    if not load.placements and tour.kit and any(bike.carriers for bike in variant.rig.bikes):
        asked = {"rig": variant.rig, "load": Load(), "variants": (), "kept_loads": (), "name": "-"}
        load = _quick_load(tour.model_copy(update=asked).model_dump_json(include=set(TourSheet.model_fields)), road)
    fields = {name: getattr(tour, name) for name in TourSheet.model_fields}
    return TourSheet.model_validate(fields | {"rig": variant.rig, "load": load})


@lru_cache(maxsize=16)
def _quick_load(tour_json: str, road: Profile | None) -> Load:
    """The load proposed for a tour that has none. Kept, for rigs are compared again after every change of the one ridden."""
    return propose_load(TourSheet.model_validate_json(tour_json), road, ROUNDS, effort=0, advise=False).load


def _figures(tour: TourSheet, identifier: str, name: str, found: Assessment, ridden: Assessment) -> RigFigures:
    bikes = tour.rig.bikes
    litres = sum(c.volume_l for c in tour.carriers if KINDS[c.kind].part != "inner")
    hung = sum(c.mass_kg for c in tour.carriers) + sum(s.mass_kg for b in bikes for s in b.supports)
    money = _money(tour.rig)
    lost, gained = changed(ridden, found)
    return RigFigures(
        id=identifier,
        name=name,
        litres=round(litres, 1),
        rig_kg=round(hung + sum(b.mass_kg for b in bikes), 2),
        carriers_kg=round(hung, 2),
        money=money,
        money_per_litre=None if money is None or not litres else round(money / litres, 2),
        heaviest_kg=round(max(found.moments.total_kg), 2)
        if found.moments
        else round(sum(max(b.total_kg) for b in found.bikes), 2),
        wheels=_wheels(tour, found),
        width_mm=max((b.stance.width_mm for b in found.bikes), default=0),
        riding_hours=found.road.riding_hours if found.road else None,
        days=len(found.days),
        out=found.shelf,
        gained=gained,
        lost=lost,
        load=tour.load,
    )


def compare_loads(tour: TourSheet, road: Profile | None) -> list[LoadFigures]:
    """The load that rides first, then each that is kept under a name; of these what still stands."""
    ridden = assess(tour, road)
    stock = stock_unloaded(tour, road)
    now = {(p.thing_id, p.carrier_id) for p in tour.load.placements}
    result = []
    for identifier, name, load in (("", "As it rides", tour.load), *((k.id, k.name, k.load) for k in tour.kept_loads)):
        other = tour.model_copy(update={"load": still_standing(load, tour.kit, tour.rig)})
        found = assess(other, road) if identifier else ridden
        paid = [p for p in bill_of(other, stock) if p.aim != "out"]
        lost, gained = changed(ridden, found)
        result.append(
            LoadFigures(
                id=identifier,
                name=name,
                points=round(sum(p.points for p in paid), 1),
                by_aim=paid,
                wheels=_wheels(other, found),
                out=found.shelf,
                moves=len({p.thing_id for p in other.load.placements if (p.thing_id, p.carrier_id) not in now}),
                gained=gained,
                lost=lost,
                load=other.load,
            )
        )
    return result


def _wheels(tour: TourSheet, found: Assessment) -> list[WheelLoads]:
    names = {bike.id: bike.name for bike in tour.rig.bikes}
    return [WheelLoads(bike=names[b.bike_id], front_kg=max(b.front_kg), rear_kg=max(b.rear_kg)) for b in found.bikes]


def _money(rig: Rig) -> float | None:
    """Price of all racks, trailers and bags."""
    prices = [part.price for bike in rig.bikes for part in bike.supports]
    prices += [part.price for bike in rig.bikes for part in bike.carriers]
    known = [p for p in prices if p is not None]
    return round(sum(known), 2) if len(known) == len(prices) else None
