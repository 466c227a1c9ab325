"""The one door to the rules of the job: a tour in, what it means out."""

import math
from collections import deque
from collections.abc import Collection, Iterator
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.findings import CHECKS, find
from omnifer.core.findings.placing import shelf_of
from omnifer.core.findings.situation import Situation
from omnifer.core.itinerary import days_of, gaps_of, passings
from omnifer.core.load.explain import Paid, Why, bill_of, breaks_at, why
from omnifer.core.load.keep import without
from omnifer.core.load.packing import cards
from omnifer.core.load.places import PlaceFor, places_for
from omnifer.core.load.proposal import EFFORT, ROUNDS, Proposal, advice, proposing, with_out
from omnifer.core.load.repair import repair
from omnifer.core.load.stance import stance_of
from omnifer.core.load.trace import BikeLoad, Stores
from omnifer.core.model.assessment import Assessment, Assumption, ClimateLine, Day, Moments, RoadFacts
from omnifer.core.model.load import Load
from omnifer.core.model.tour import Tour, TourSheet
from omnifer.core.road import pace, profile
from omnifer.core.road.climate import ROUGH_SPREAD_K
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import celsius, km, litres, number, say
from omnifer.core.voyage import Voyage, play, vessels

SETTLED = 3
"""Searches at most, until a load holds on the tour that it makes."""
PROGRESS = (0.0, 0.8, 0.9, 1.0)
"""How much of all is behind when each of them begins [-]; most loads settle with the first."""


def profile_of(tour: Tour) -> Profile | None:
    """The profile of a tour's track or typed days; None while it has neither. Costly for long tracks: keep it.

    Raises ValueError where the track has no length.
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
    voyage, bikes = _ridden(tour, road)
    days = days_of(tour, voyage) if voyage else []
    gaps = gaps_of(tour, voyage) if voyage else []
    minutes = _minutes(tour, voyage)
    moments = _moments(tour, voyage, bikes) if voyage else None
    riders = {rider.id: rider for rider in tour.riders}
    steepest = float(np.max(road.gradient)) if road is not None and road.has_heights else None
    stances = {load.bike.id: stance_of(load, riders[load.bike.rider_id], steepest) for load in bikes}
    return Assessment(
        ready=voyage is not None,
        road=_facts(voyage, days) if voyage else None,
        profile=road.line if road is not None else None,
        days=days,
        gaps=gaps,
        passings=passings(tour, voyage) if voyage else [],
        climate=_climate(voyage) if voyage else None,
        moments=moments,
        bikes=[load.trace(minutes.get(load.bike.rider_id, 0.0), stances[load.bike.id]) for load in bikes],
        cards=cards(bikes),
        findings=find(Situation(tour, voyage, bikes, days, gaps, stances)),
        assumptions=_assumptions(tour, road),
        checked=[kind for kinds in CHECKS.values() for kind in kinds],
        shelf=shelf_of(tour),
        minutes_per_kg=round(max(minutes.values()), 3) if minutes else None,
    )


def _ridden(tour: TourSheet, road: Profile | None) -> tuple[Voyage | None, list[BikeLoad]]:
    """The voyage, where there is a road, and every bike as it is loaded along it."""
    voyage = play(tour, road) if road is not None and tour.riders else None
    water = voyage.water_l if voyage else np.zeros(1)
    food = voyage.food_kg if voyage else np.zeros(1)
    return voyage, [BikeLoad(tour, bike, Stores(vessels(tour), water, food)) for bike in tour.rig.bikes]


def places(tour: TourSheet, road: Profile | None, in_hand: dict[str, int]) -> list[PlaceFor]:
    """Where so many of each thing could go together, best places first. Raises KeyError where there is no such thing."""
    by_id = {thing.id: thing for thing in tour.kit}
    return places_for([(by_id[thing_id], count) for thing_id, count in in_hand.items()], _ridden(tour, road)[1])


def propose_load(
    tour: TourSheet, road: Profile | None, rounds: int = ROUNDS, effort: float = EFFORT, advise: bool = True
) -> Proposal:
    """The best load found for the whole tour: the last of `load_proposals`."""
    return deque(load_proposals(tour, road, rounds, effort, advise), maxlen=1)[0]


def load_proposals(
    tour: TourSheet, road: Profile | None, rounds: int = ROUNDS, effort: float = EFFORT, advise: bool = True
) -> Iterator[Proposal]:
    """Ever better loads; see `omnifer.core.load.proposal.proposing`.

    A load decides how fast the tour is ridden and which vessels bear its water, and so what is on board when. Where the
    one found breaks a limit on its own tour, it is searched again for what that tour has on board, without the vessels
    that find no place; what breaks one even then does not say that it holds.

    Parameters
    ----------
    advise : bool
        Where something stays out, say at the end which single change would mend most; it takes some searches more.
    """
    out: dict[str, int] = {}
    rest, stores, start = tour, stores_for_proposal(tour, road), None
    for turn in range(SETTLED):
        for found in proposing(rest, stores, rounds if turn == 0 else max(1, rounds // 4), effort, start):
            whole = with_out(found, tour, out) if out else found
            done = PROGRESS[turn] + found.done * (PROGRESS[turn + 1] - PROGRESS[turn])
            yield whole.model_copy(update={"done": round(done, 3)})
        dry = _vessels_out(rest, found)
        then = without(rest, dry)
        loaded = then.model_copy(update={"load": found.load})
        then_stores = _stores(loaded, road)
        weak = breaks_at(loaded, then_stores)
        settled = found.holds and not weak
        if settled or not found.holds or turn == SETTLED - 1:
            break
        out |= dry
        stores = replace(then_stores, besides=stores.besides).watching(weak)
        rest, start = then, found.load
    whole = whole.model_copy(update={"holds": settled, "done": 1.0})
    yield whole
    if advise and not (whole.complete and whole.holds):
        yield whole.model_copy(update={"change": advice(rest, stores, found, sum(out.values()))})


def _vessels_out(tour: TourSheet, found: Proposal) -> dict[str, int]:
    """Vessels that a proposal leaves out, with what lies in them."""
    water = {thing.id for thing in tour.kit if thing.holds_water_l > 0}
    theirs = water | {thing.id for thing in tour.kit if thing.inside in water}
    return {thing_id: n for thing_id, n in found.out.items() if thing_id in theirs}


def repaired_load(tour: TourSheet, road: Profile | None, held: Collection[str]) -> Proposal:
    """The standing load put right by few moves; see `omnifer.core.load.repair.repair`."""
    stores = stores_for_proposal(tour, road)
    found = repair(tour, stores, held)
    if found.holds and (weak := breaks_at(tour.model_copy(update={"load": found.load}), stores)):
        found = repair(tour, stores.watching(weak), held)
    return found


def why_here(tour: TourSheet, road: Profile | None, thing_id: str, carrier_id: str | None) -> Why:
    """Why a thing rides where it does; see `omnifer.core.load.explain.why`. Raises KeyError where it is not there."""
    return why(tour, stores_for_proposal(tour, road), thing_id, carrier_id)


def aims_paid(tour: TourSheet, road: Profile | None) -> Paid:
    """What the load costs, by aim [points]."""
    return bill_of(tour, stores_for_proposal(tour, road))


def stores_for_proposal(tour: TourSheet, road: Profile | None) -> Stores:
    """Water and food along the tour with every vessel of the kit on board."""
    return _stores(tour.model_copy(update={"load": Load()}), road)


def _stores(tour: TourSheet, road: Profile | None) -> Stores:
    """Water and food along the tour as it is loaded."""
    if road is None or not tour.riders:
        return Stores(vessels(tour), np.zeros(1), np.zeros(1))
    voyage = play(tour, road)
    return Stores(vessels(tour), voyage.water_l, voyage.food_kg)


def _minutes(tour: TourSheet, voyage: Voyage | None) -> dict[str, float]:
    """What one kilogram costs each rider [min/day/kg]."""
    if voyage is None:
        return {}
    days = voyage.days.km.size - 1
    return {
        rider.id: pace.minutes_per_kilogram(voyage.profile, mass, days)
        for rider, mass in zip(tour.riders, voyage.riding, strict=True)
    }


def _moments(tour: TourSheet, voyage: Voyage, bikes: list[BikeLoad]) -> Moments:
    moments = voyage.moments
    at_km, leaving = np.array([m.km for m in moments]), np.array([m.leaving for m in moments])
    stores = voyage.water_l + voyage.food_kg
    fuel = sum(t.mass_kg * t.count for t in tour.kit if t.fuel)
    gear = sum(t.mass_kg * t.count for t in tour.kit if not t.fuel)
    out = shelf_of(tour)
    on_shelf = sum(t.mass_kg * out[t.id] for t in tour.kit if t.id in out) if tour.load.placements else 0.0
    bare = sum(b.levers.bare().front + b.levers.bare().rear + b.levers.bare().trailer for b in bikes)
    constant = fuel + gear - on_shelf + bare
    return Moments(
        km=[round(m.km, 3) for m in moments],
        day=(voyage.days.offset[voyage.days.riding_day(at_km, leaving)] + 1).tolist(),
        leaving=[m.leaving for m in moments],
        place=[m.place for m in moments],
        water_l=[round(float(v), 2) for v in voyage.water_l],
        water_short_l=_water_missing(voyage, at_km, leaving),
        food_kg=[round(float(v), 2) for v in voyage.food_kg],
        fuel_kg=[round(fuel, 3)] * len(moments),
        gear_kg=[round(constant - fuel, 3)] * len(moments),
        total_kg=[round(float(v) + constant, 2) for v in stores],
        fullest=int(np.argmax(stores)),
        emptiest=int(np.argmin(stores)),
    )


def _climate(voyage: Voyage) -> ClimateLine:
    """The weather along the drawn line."""
    road, weather = voyage.profile, voyage.climate
    km = np.array(road.line.km)

    def thinned(values: NDArray[np.float64]) -> list[float]:
        drawn: list[float] = np.round(np.interp(km, road.km, values), 1).tolist()
        return drawn

    return ClimateLine(
        source=weather.source,
        day_high_c=thinned(weather.day_high_c),
        night_low_c=thinned(weather.night_low_c),
        mean_max_c=thinned(weather.mean_max_c),
        mean_min_c=thinned(weather.mean_min_c),
    )


def _water_missing(voyage: Voyage, at_km: NDArray[np.float64], leaving: NDArray[np.bool_]) -> list[float]:
    """Litres that the stretch being ridden at each moment asks for beyond what the vessels hold."""
    places = voyage.water
    missing = np.maximum(places.amounts.required - voyage.capacity_l, 0)
    after, before = (np.searchsorted(places.km, at_km, side=side) for side in ("right", "left"))
    short: list[float] = np.round(missing[np.maximum(np.where(leaving, after, before) - 1, 0)], 2).tolist()
    return short


def _facts(voyage: Voyage, days: list[Day]) -> RoadFacts:
    road = voyage.profile
    return RoadFacts(
        length_km=round(road.length_km, 2),
        ascent_m=sum(day.ascent_m for day in days),
        descent_m=sum(day.descent_m for day in days),
        highest_m=round(float(road.elevation_m.max())),
        points=int(road.km.size),
        has_heights=road.has_heights,
        riding_hours=round(math.fsum(day.riding_hours for day in days), 2),
    )


def _assumptions(tour: TourSheet, road: Profile | None) -> list[Assumption]:
    """Every default that stood in for something not known."""
    result = []
    if not tour.road.weather and not tour.road.stations:
        if road is not None and road.lat_deg is not None:
            value = say("from latitude, height and date alone, give or take {spread} degrees", spread=number(ROUGH_SPREAD_K))
            source = "North, Cahalan and Coakley 1981; practice"
        else:
            words = "{high} days, {low} nights everywhere"
            value = say(words, high=celsius(practice.DEFAULT_DAY_HIGH_C), low=celsius(practice.DEFAULT_NIGHT_LOW_C))
            source = "practice: a mild season"
        result.append(Assumption(name="Weather not known", value=value, source=source))
    if road is not None and not road.has_heights:
        result.append(Assumption(name="Heights not known", value=say("flat road"), source="the track has none"))
    for rider in tour.riders:
        missing = [n for n, v in (("height", rider.height_cm), ("age", rider.age_years), ("sex", rider.sex)) if v is None]
        if missing:
            value = say("{what} of the average rider", what=", ".join(missing))
            result.append(
                Assumption(name=f"Energy of {rider.name}", value=value, source="Mifflin and St Jeor 1990, mean of both")
            )
    result.append(
        Assumption(
            name="Dry camp",
            value=say("{water} a rider and night", water=litres(practice.DRY_CAMP_L)),
            source="practice: 3 to 4 l",
        )
    )
    result.append(
        Assumption(
            name="Food",
            value=say("{energy} kcal a gram, {reserve} days in reserve",
                      energy=number(practice.FOOD_KCAL_PER_G), reserve=number(practice.FOOD_RESERVE_DAYS)),
            source="food tables; practice",
        )
    )  # fmt: skip
    result.append(
        Assumption(
            name="Night at a stop",
            value=say("within {near} of it", near=km(practice.NIGHT_NEAR_STOP_KM)),
            source="practice",
        )
    )
    return result
