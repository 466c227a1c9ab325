"""Every default that stood in for something not known, with its source."""

from omnifer.core import practice
from omnifer.core.model.assessment import Assumption
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.climate import ROUGH_SPREAD_K
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import celsius, km, litres, number, say


def assumptions_of(tour: TourSheet, profile: Profile | None) -> list[Assumption]:
    """Every default that stood in for something not known."""
    result = []
    if not tour.road.weather and not tour.road.stations:
        if profile is not None and profile.lat_deg is not None:
            value = say("from latitude, height and date alone, give or take {spread} degrees", spread=number(ROUGH_SPREAD_K))
            source = "North, Cahalan and Coakley 1981; practice"
        else:
            words = "{high} days, {low} nights everywhere"
            value = say(words, high=celsius(practice.DEFAULT_DAY_HIGH_C), low=celsius(practice.DEFAULT_NIGHT_LOW_C))
            source = "practice: a mild season"
        result.append(Assumption(name="Weather not known", value=value, source=source))
    if profile is not None and not profile.has_heights:
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
