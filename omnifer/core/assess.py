"""The one door to the rules of the job: a tour in, what it means out."""

from dataclasses import dataclass, replace

import numpy as np

from omnifer.core.assumptions import assumptions_of
from omnifer.core.findings import CHECKS, OF_PREPARING, find
from omnifer.core.findings.questions import open_questions
from omnifer.core.findings.situation import Situation
from omnifer.core.itinerary import days_of, gaps_of, passings
from omnifer.core.lately import Lately, played_parts
from omnifer.core.load.camp import camp_of
from omnifer.core.load.explain import Paid, Why, bill_of, why
from omnifer.core.load.keep import shelf_of
from omnifer.core.load.limits import InHand, Loaded, traced
from omnifer.core.load.packing import cards
from omnifer.core.load.places import PlaceFor, places_for
from omnifer.core.load.prices import minutes_of_things
from omnifer.core.load.settle import stock_unloaded
from omnifer.core.load.stance import stance_of
from omnifer.core.model.assessment import Assessment, Day, Gap, Moments, RoadFacts
from omnifer.core.model.finding import Finding
from omnifer.core.model.lanes import AtStop, Lane, StoresTold
from omnifer.core.model.needs import Sleeper, Wardrobe
from omnifer.core.model.stance import Stance
from omnifer.core.model.tour import Tour, TourSheet
from omnifer.core.needs.clothes import wardrobes
from omnifer.core.needs.needed import needed
from omnifer.core.needs.sleep import sleepers
from omnifer.core.road import profile
from omnifer.core.road.profile import Profile
from omnifer.core.stores.at_stops import stops_of
from omnifer.core.stores.lanes import lanes_of
from omnifer.core.stores.told import stores_told
from omnifer.core.summary import climate_of, facts_of, moments_of
from omnifer.core.supplies.stock import Stock
from omnifer.core.voyage import Voyage, play


def profile_of(tour: Tour) -> Profile | None:
    """The profile of a tour's track or typed days; None while it has neither. Costly for long tracks: keep it.

    Raises ValueError where the road has no length, or more than a road can have.
    """
    if tour.track is not None:
        return profile.from_track(tour.track)
    if sum(day.distance_km for day in tour.road.typed_days) > 0:
        return profile.from_typed_days(tour.road.typed_days)
    return None


def assess(tour: TourSheet, road: Profile | None) -> Assessment:
    """Everything that follows from a tour.

    Parameters
    ----------
    tour : TourSheet
    road : Profile or None
        From `profile_of`; kept apart because the raw track rarely changes.
    """
    here = situation_of(tour, road)
    voyage, loaded, days, stances = here.voyage, here.loaded, here.days, here.stances
    minutes = minutes_by_rider(tour, voyage)
    limits = {b.id: [traced(limit, loaded.contents) for limit in loaded.limits if limit.bike_id == b.id] for b in tour.rig.bikes}
    return Assessment(
        ready=voyage is not None,
        road=facts_of(tour, voyage, days) if voyage else None,
        profile=road.line if road is not None else None,
        days=days,
        gaps=here.gaps,
        passings=passings(tour, voyage) if voyage else [],
        zones=voyage.clocks.stretches() if voyage else [],
        questions=open_questions(
            {
                "warm": bool(here.sleepers),
                "clean": bool(here.wardrobes),
                "dressed": bool(here.needed.layers),
                "mended": bool(here.needed.faults),
                **dict.fromkeys(("seen", "safe", "complete"), here.needed.asking is not None),
                "spared": bool(tour.kit),
                "supplied": voyage is not None,
                "packed": bool(tour.load.placements),
            }
        ),
        sleepers=here.sleepers,
        wardrobes=here.wardrobes,
        asks=here.needed.asks,
        faults=here.needed.faults,
        layers=here.needed.layers,
        climate=climate_of(voyage) if voyage else None,
        moments=moments_of(tour, voyage, loaded.bikes) if voyage else None,
        stores=_STORES.of(voyage, played_parts(tour), lambda: stores_told(tour, voyage)) if voyage else None,
        bikes=[
            load.trace(minutes.get(load.bike.rider_id, 0.0), stances[load.bike.id], limits[load.bike.id]) for load in loaded.bikes
        ],
        cards=cards(loaded.bikes),
        camp=camp_of(tour, loaded.bikes, min((day.night_low_c for day in days), default=None)),
        findings=find(here),
        assumptions=assumptions_of(tour, road),
        checked=[kind for kinds in CHECKS.values() for kind in kinds],
        shelf=shelf_of(tour),
        minutes_a_day=minutes_of_things(tour, minutes),
    )


@dataclass(frozen=True)
class Course:
    """How the rest of a tour goes: its days, what is on board along it, where to take on more, and what goes wrong ahead."""

    road: RoadFacts | None
    days: list[Day]
    gaps: list[Gap]
    moments: Moments | None
    lanes: list[Lane]
    stops: list[AtStop]
    """Those still to come."""
    findings: list[Finding]


def course_of(tour: TourSheet, road: Profile | None, from_km: float) -> Course:
    """What of an assessment a rider asks for who is under way.

    Parameters
    ----------
    tour, road
        As of `assess`.
    from_km : float
        Where the rider is [km]; what is to be done at places before is not asked any more.
    """
    here = situation_of(tour, road, from_km)
    voyage, days = here.voyage, here.days
    return Course(
        road=facts_of(tour, voyage, days) if voyage else None,
        days=days,
        gaps=here.gaps,
        moments=moments_of(tour, voyage, here.loaded.bikes) if voyage else None,
        lanes=lanes_of(tour, voyage) if voyage else [],
        stops=stops_of(tour, voyage, from_km) if voyage else [],
        findings=find(here, but=OF_PREPARING),
    )


def situation_of(tour: TourSheet, road: Profile | None, from_km: float = 0.0) -> Situation:
    """The tour as it is ridden and loaded, as findings look at it from where the party is."""
    voyage, loaded = _ridden(tour, road)
    told = _told(tour, voyage)
    return Situation(
        tour, voyage, loaded, told.days, told.gaps, _stances(tour, loaded, road), told.sleepers, told.wardrobes,
        needed(tour, voyage, told.days), from_km,
    )  # fmt: skip


@dataclass(frozen=True)
class _Told:
    """What is told of a tour whatever bag a thing rides in."""

    days: list[Day]
    gaps: list[Gap]
    sleepers: list[Sleeper]
    wardrobes: list[Wardrobe]

    @classmethod
    def of(cls, tour: TourSheet, voyage: Voyage | None) -> "_Told":
        days = days_of(tour, voyage) if voyage else []
        return cls(days, gaps_of(tour, voyage) if voyage else [], sleepers(tour, days), wardrobes(tour, days))


_TOLD: Lately[_Told] = Lately(3)
_STORES: Lately[StoresTold] = Lately(3)


def _told(tour: TourSheet, voyage: Voyage | None) -> _Told:
    return _TOLD.of(voyage, played_parts(tour), lambda: _Told.of(tour, voyage))


def otherwise_loaded(here: Situation, tour: TourSheet, road: Profile | None) -> Situation:
    """The same tour loaded otherwise, at the pace and with the supplies that it has now: near enough to try a change."""
    loaded = Loaded.of(tour, here.loaded.stock)
    return replace(here, tour=tour, loaded=loaded, stances=_stances(tour, loaded, road))


def _stances(tour: TourSheet, loaded: Loaded, road: Profile | None) -> dict[str, Stance]:
    riders = {rider.id: rider for rider in tour.riders}
    steepest = float(np.max(road.gradient)) if road is not None and road.has_heights else None
    return {load.bike.id: stance_of(load, riders[load.bike.rider_id], steepest, tour.practice) for load in loaded.bikes}


def _ridden(tour: TourSheet, road: Profile | None) -> tuple[Voyage | None, Loaded]:
    """The voyage, where there is a road, and every bike as it is loaded along it."""
    voyage = play(tour, road) if road is not None and tour.riders else None
    stock = Stock.of(tour, voyage.stock, voyage.at_km) if voyage else Stock.none(tour)
    return voyage, Loaded.of(tour, stock)


def minutes_by_rider(tour: TourSheet, voyage: Voyage | None) -> dict[str, float]:
    """What one kilogram more with each rider costs the party [min/day/kg]."""
    if voyage is None:
        return {}
    rates = voyage.ridden.hours_per_kg * 60 / (voyage.days.km.size - 1)
    return {rider.id: rate for rider, rate in zip(tour.riders, rates.tolist(), strict=True)}


def places(tour: TourSheet, road: Profile | None, asked: list[tuple[str, int, str | None]]) -> list[PlaceFor]:
    """Where things could go together, best places first; each asked for with how many and the carrier that they leave.

    Raises KeyError where there is no such thing or carrier.
    """
    by_id = {thing.id: thing for thing in tour.kit}
    outer = {thing.id: thing.inside or thing.id for thing in tour.kit}
    carriers = {carrier.id for carrier in tour.carriers} | {None}
    for thing_id, _, leaves in asked:
        if thing_id not in by_id or leaves not in carriers:
            raise KeyError(thing_id if thing_id not in by_id else leaves)
    whole = {outer[thing_id]: InHand(by_id[outer[thing_id]], n if outer[thing_id] == thing_id else 1, leaves)
             for thing_id, n, leaves in asked}  # fmt: skip
    return places_for(_ridden(tour, road)[1], list(whole.values()))


def why_here(tour: TourSheet, road: Profile | None, thing_id: str, carrier_id: str | None) -> Why:
    """Why a thing rides where it does; see `omnifer.core.load.explain.why`. Raises KeyError where it is not there."""
    return why(tour, stock_unloaded(tour, road), thing_id, carrier_id)


def aims_paid(tour: TourSheet, road: Profile | None) -> list[Paid]:
    """What the load costs, by aim [points]."""
    return bill_of(tour, stock_unloaded(tour, road))
