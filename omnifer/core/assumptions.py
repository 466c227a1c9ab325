"""Every default that stands in for something not known, with its range and source; what one moves is in `sensitivity`."""

from collections.abc import Iterator

from omnifer.core.model import practice
from omnifer.core.model.assessment import Assumption
from omnifer.core.model.quantities import Text
from omnifer.core.model.roles import UsedUp
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics.weather import NINE_IN_TEN
from omnifer.core.road.climate import ROUGH_SPREAD_K
from omnifer.core.road.days import rests_at_the_ends
from omnifer.core.road.profile import Profile
from omnifer.core.road.stations import stations_of
from omnifer.core.road.zones import clocks_of
from omnifer.core.sentence import celsius, number, say
from omnifer.core.world.cells import SOURCE


def assumptions_of(tour: TourSheet, profile: Profile | None) -> list[Assumption]:
    """What this tour leaves open first, then every default of the job."""
    return [*_left_open(tour, profile), *_defaults(tour)]


def _left_open(tour: TourSheet, profile: Profile | None) -> Iterator[Assumption]:
    if not tour.road.weather and not tour.road.stations:
        if profile is not None and (stations := stations_of(profile, tour.road)):
            value = say("published means of the place, brought to its height, give or take {width} degrees",
                        width=number(round(NINE_IN_TEN * max(s.width_k for s in stations))))  # fmt: skip
            source = f"{SOURCE}; the day's range reckoned"
        elif profile is not None and profile.lat_deg is not None:
            value = say("from latitude, height and date alone, give or take {spread} degrees", spread=number(ROUGH_SPREAD_K))
            source = "North, Cahalan and Coakley 1981, from memory; practice"
        else:
            usual = tour.practice
            words = "{high} days, {low} nights everywhere"
            value = say(words, high=celsius(usual.default_day_high_c), low=celsius(usual.default_night_low_c))
            source = "practice: a mild season"
        yield Assumption(name="Weather not known", value=value, source=source, said_at="weather")
    if profile is not None and not profile.has_heights:
        value = say("as high as the land on the whole, and flat: climbs are missing")
        yield Assumption(
            name="Heights not known", value=value, source="Recommendation ITU-R P.1511-2; the track has none", said_at="track"
        )
    if profile is not None and not tour.road.zones:
        names = clocks_of(tour.road, profile).names
        value = say("{zones}", zones=", ".join(dict.fromkeys(names))) if names else say("none: a typed road has no sun")
        yield Assumption(name="Time zones", value=value, source="map of time zones, by the track", said_at="zones")
    if profile is not None and (lost := rests_at_the_ends(tour.road, profile)):
        value = say("{days:day|days} of rest at the start or the end are not counted: ride later, or set the night on the road",
                    days=number(lost))  # fmt: skip
        yield Assumption(name="Rest where the road begins and ends", value=value, source="nothing is ridden from or to there",
                         said_at="track")  # fmt: skip
    for rider in tour.riders:
        missing = [n for n, v in (("height", rider.height_cm), ("age", rider.age_years), ("sex", rider.sex)) if v is None]
        if missing:
            value = say("{what} of the average rider", what=", ".join(missing))
            yield Assumption(
                name=f"Energy of {rider.name}", value=value, source="Mifflin and St Jeor 1990, mean of both", said_at="party"
            )
    for bike in tour.rig.bikes:
        if bike.ridden_front_kg is None:
            value = say("by posture and height; weigh both wheels with the rider on to know it")
            yield Assumption(
                name=f"Where the rider sits on {bike.name}",
                value=value,
                source="de Leva 1996, from memory; practice",
                said_at="rig",
            )
        drawn = sum(carrier.size is None for carrier in bike.carriers)
        if drawn:
            value = say("{count:bag|bags} of {bike} as large as usual at their litres", count=number(drawn), bike=bike.name)
            yield Assumption(name="Sizes of bags", value=value, source="practice", said_at="rig")
    static = [thing.name for thing in tour.kit if thing.fuel]
    if static:
        value = say("{things} as full all the way as at the start", things=", ".join(static))
        yield Assumption(
            name="Fuel", value=value, source="say what they hold, and which stove burns it, to see it burn", said_at="kit"
        )
    if tour.stores.cooking is None:
        value = say("a usual mix, and nothing boiled; say under Stores how you eat")
        yield Assumption(name="Way of eating", value=value, source="practice", said_at="stores")
    if any(isinstance(thing.role, UsedUp) for thing in tour.kit):
        value = say("not in the bags: used wipes and wrappings are told and not weighed there")
        yield Assumption(name="Waste", value=value, source="practice")


def _defaults(tour: TourSheet) -> Iterator[Assumption]:
    now = tour.practice
    for key, (field, told) in practice.fields().items():
        yield Assumption(
            name=field.description or key, value=Text(words=""), source=told["source"], key=key, set_to=getattr(now, key),
            usual=field.default, low=told["low"], high=told["high"], least=told["least"], most=told["most"],
            unit=told["unit"], own=key in tour.own_values,
        )  # fmt: skip
