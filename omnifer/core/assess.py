"""The one door to the rules of the job: a tour in, what it means out."""

from dataclasses import dataclass

from omnifer.core.assumptions import assumptions_of
from omnifer.core.findings import OF_PREPARING, SPECS, find
from omnifer.core.findings.questions import questions_of
from omnifer.core.findings.situation import Situation, days, loaded, needed, stances, stock
from omnifer.core.itinerary import passings
from omnifer.core.load.camp import camp_of
from omnifer.core.load.explain import Paid, Why, bill_of, why
from omnifer.core.load.keep import shelf_of
from omnifer.core.load.limits import InHand, traced
from omnifer.core.load.packing import cards
from omnifer.core.load.places import PlaceFor, places_for
from omnifer.core.load.prices import LIGHTER_KG, MassPrice, cost_of_things
from omnifer.core.load.settle import stock_unloaded
from omnifer.core.load.stance import pressures_of
from omnifer.core.model.assessment import Assessment, Assumption, ClimateLine, Day, Gap, Moments, PackCard, Passing, RoadFacts
from omnifer.core.model.camp import Camp
from omnifer.core.model.finding import Finding
from omnifer.core.model.lanes import AtStop, Lane, StoresTold
from omnifer.core.model.stance import WeekPressure
from omnifer.core.model.tour import Tour, TourSheet
from omnifer.core.model.trace import BikeTrace
from omnifer.core.needs.asking import Asking
from omnifer.core.needs.wear import part_on
from omnifer.core.road import profile
from omnifer.core.road.profile import Profile
from omnifer.core.stages import PROFILE, Kept, Reading, stage
from omnifer.core.stores.at_stops import stops_of
from omnifer.core.stores.lanes import lanes_of
from omnifer.core.stores.told import stores_told
from omnifer.core.summary import climate_of, facts_of, moments_of
from omnifer.core.voyage import Voyage, voyage_of


def profile_of(tour: Tour) -> Profile | None:
    """The profile of a tour's track or typed days; None while it has neither. Costly for long tracks: keep it.

    Raises ValueError where the road has no length, or more than a road can have.
    """
    if tour.track is not None:
        return profile.from_track(tour.track)
    if sum(day.distance_km for day in tour.road.typed_days) > 0:
        return profile.from_typed_days(tour.road.typed_days)
    return None


@stage(days, voyage_of, "road")
def facts(at: Reading) -> RoadFacts | None:
    """The road in figures."""
    voyage = at[voyage_of]
    return facts_of(at.tour, voyage, at[days]) if voyage else None


@stage(voyage_of, "own_values", "road", "stores")
def passed(at: Reading) -> list[Passing]:
    """When each stop is passed."""
    voyage = at[voyage_of]
    return passings(at.tour, voyage) if voyage else []


@stage(voyage_of, loaded, "kit", "load")
def moments(at: Reading) -> Moments | None:
    """What is on board at every moment."""
    voyage = at[voyage_of]
    return moments_of(at.tour, voyage, at[loaded].bikes) if voyage else None


@stage(voyage_of, "kit", "own_values", "riders", "road", "start_date", "stores")
def stores(at: Reading) -> StoresTold | None:
    """What is had where, and what every supply costs to carry."""
    voyage = at[voyage_of]
    return stores_told(at.tour, voyage) if voyage else None


@stage(voyage_of, "road")
def weather(at: Reading) -> ClimateLine | None:
    """The weather along the drawn line of the road."""
    voyage = at[voyage_of]
    return climate_of(at.tour.road, voyage) if voyage else None


@stage(voyage_of, "riders")
def minutes(at: Reading) -> dict[str, float]:
    """What one kilogram more with each rider costs the party [min/day/kg]."""
    return minutes_by_rider(at.tour, at[voyage_of])


@stage("kit", by_value=True)
def lighter(at: Reading) -> tuple[float, ...]:
    """With how much less the tour is ridden again [kg]."""
    heaviest = max((thing.mass_kg * thing.count for thing in at.tour.kit), default=0.0)
    return LIGHTER_KG[: 1 + sum(kg < heaviest for kg in LIGHTER_KG[:-1])]


@stage(voyage_of, minutes, lighter)
def prices(at: Reading) -> dict[str, MassPrice]:
    """What kilograms with each rider cost the party [min/day]."""
    voyage = at[voyage_of]
    if voyage is None:
        return {}
    ridden, days = voyage.ridden, voyage.days.km.size - 1

    return {
        rider_id: MassPrice(rate, tuple(ridden.saved_hours(rider, kg) * 60 / days for kg in at[lighter]))
        for rider, (rider_id, rate) in enumerate(at[minutes].items())
    }


@stage(prices, "kit", "load", "riders", "rig")
def minutes_a_day(at: Reading) -> dict[str, float]:
    """What each thing costs the party where it rides [min/day]."""
    by_rider = at[prices]
    return cost_of_things(at.tour, by_rider, 3)


@stage(loaded, stances, minutes)
def bikes(at: Reading) -> list[BikeTrace]:
    """Every bike as it is loaded, with its limits."""
    here, per_kg = at[loaded], at[minutes]
    found = []
    for load in here.bikes:
        told = [traced(limit, here.contents) for limit in here.limits if limit.bike_id == load.bike.id]
        of = per_kg.get(load.bike.rider_id, 0.0), at[stances][load.bike.id], told
        found.append(_TRACES.of((load,), of, lambda load=load, of=of: load.trace(*of)))  # type: ignore[misc]
    return found


_TRACES: Kept[BikeTrace] = Kept(24)
"""Of three tours with the most bikes that there can be."""


@stage(loaded, stock, needed, days, "own_values")
def pressures(at: Reading) -> list[WeekPressure]:
    """What every bike's tyres are ridden with, week by week."""
    along = at[needed].along
    if along is None:
        return []
    loose, every = part_on(along, "gravel") + part_on(along, "soft"), max(round(at.tour.practice.look_days), 1)
    return [week for load in at[loaded].bikes for week in pressures_of(load, at[stock].at_km, at[days], loose, every)]


@stage(loaded, "own_values")
def bags(at: Reading) -> list[PackCard]:
    """Every bag as it is packed at the start."""
    return cards(at[loaded].bikes, at.tour.practice)


@stage(loaded, days, "own_values")
def camp(at: Reading) -> Camp:
    """How a camp is made and struck."""
    return camp_of(at.tour, at[loaded].bikes, min((day.night_low_c for day in at[days]), default=None))


@stage(PROFILE, "kit", "own_values", "riders", "rig", "road", "stores")
def assumptions(at: Reading) -> list[Assumption]:
    """Every default that stands in for something."""
    return assumptions_of(at.tour, at.profile)


def assess(tour: TourSheet, road: Profile | None) -> Assessment:
    """Everything that follows from a tour.

    Parameters
    ----------
    tour : TourSheet
    road : Profile or None
        From `profile_of`; kept apart because the raw track rarely changes.
    """
    here = situation_of(tour, road)
    at, voyage, wanted = here.at, here.voyage, here.needed
    return Assessment(
        ready=voyage is not None,
        road=at[facts],
        profile=road.line if road is not None else None,
        days=here.days,
        gaps=here.gaps,
        passings=at[passed],
        zones=voyage.clocks.stretches() if voyage else [],
        questions=questions_of(here),
        sleepers=here.sleepers,
        wardrobes=here.wardrobes,
        asks=wanted.asks,
        faults=wanted.faults,
        layers=wanted.layers,
        parts=wanted.parts,
        care=wanted.care,
        pressures=at[pressures],
        climate=at[weather],
        moments=at[moments],
        stores=at[stores],
        bikes=at[bikes],
        cards=at[bags],
        camp=at[camp],
        findings=find(here),
        assumptions=at[assumptions],
        checked=list(SPECS),
        shelf=shelf_of(tour),
        minutes_a_day=at[minutes_a_day],
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
    pressures: list[WeekPressure]
    asking: Asking | None
    """As rules look at it; None without a road."""


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
    voyage = here.voyage
    return Course(
        road=here.at[facts],
        days=here.days,
        gaps=here.gaps,
        moments=here.at[moments],
        lanes=lanes_of(tour, voyage) if voyage else [],
        stops=stops_of(tour, voyage, from_km) if voyage else [],
        findings=find(here, but=OF_PREPARING),
        pressures=here.at[pressures],
        asking=here.needed.along,
    )


def situation_of(tour: TourSheet, road: Profile | None, from_km: float = 0.0) -> Situation:
    """The tour as it is ridden and loaded, as findings look at it from where the party is."""
    return Situation(Reading(tour, road, from_km))


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
    return places_for(situation_of(tour, road).loaded, list(whole.values()))


def why_here(tour: TourSheet, road: Profile | None, thing_id: str, carrier_id: str | None) -> Why:
    """Why a thing rides where it does; see `omnifer.core.load.explain.why`. Raises KeyError where it is not there."""
    return why(tour, stock_unloaded(tour, road), thing_id, carrier_id)


def aims_paid(tour: TourSheet, road: Profile | None) -> list[Paid]:
    """What the load costs, by aim [points]."""
    return bill_of(tour, stock_unloaded(tour, road))
