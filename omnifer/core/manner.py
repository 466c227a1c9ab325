"""How to go: the same tour in shorter or longer days, with more or fewer days of rest."""

from collections.abc import Sequence

import numpy as np

from omnifer.core.itinerary import days_of
from omnifer.core.model.assessment import Day
from omnifer.core.model.manner import Manner, Ridden
from omnifer.core.model.road import DayCut, Night, Shelter, Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.days import SAME_PLACE_KM
from omnifer.core.road.profile import Profile
from omnifer.core.voyage import Voyage, play

HOURS = (4.0, 5.0, 6.0, 7.0, 8.0)
"""Riding a day [h]."""
RESTS = (None, 7, 5)
"""Days of riding from one day of rest to the next; None: only those that are set."""
AROUND = 2
"""A rest may come so many days sooner or later, where there is a better place; practice."""
COMFORT: dict[Shelter, int] = {"room": 3, "site": 2, "hut": 1}
"""Where one rests rather; practice."""


def manner_of(tour: TourSheet, road: Profile) -> Manner:
    """What hours a day and days of rest mean for a tour. Raises ValueError where nobody rides."""
    if tour.road.typed_days:
        return Manner(ridden=[], why_none="The days were typed: they are as long as you said.")
    cut = tour.road.cut
    found: list[Ridden] = []
    for hours in sorted({*HOURS, *([cut.hours] if cut.by == "hours" else [])}):
        longer = DayCut(by="hours", hours=hours, to_stops=cut.to_stops)
        sheet = _with(tour, longer, tour.road.nights)
        voyage = play(sheet, road)
        days = days_of(sheet, voyage)
        for every in RESTS:
            if every is None:
                found.append(_ridden(hours, every, sheet, voyage, days, as_now=longer == cut))
                continue
            rested = _with(tour, longer, (*tour.road.nights, *_rests(tour, days, every)))
            played = play(rested, road)
            found.append(_ridden(hours, every, rested, played, days_of(rested, played), as_now=False))
    return Manner(ridden=found)


def _with(tour: TourSheet, cut: DayCut, nights: tuple[Night, ...]) -> TourSheet:
    road = tour.road.model_copy(update={"cut": cut, "nights": tuple(sorted(nights, key=lambda night: night.at_km))})
    return tour.model_copy(update={"road": road})


def _rests(tour: TourSheet, days: Sequence[Day], every: int) -> list[Night]:
    """Where one rests a day: after about so many days of riding, at the best place near then, and only where there is water."""
    rests: list[Night] = []
    ridden: list[Day] = []
    for day, then in zip(days, [*days[1:], None], strict=True):
        if day.rest:
            ridden = []
            continue
        ridden.append(day)
        # Nobody rests on the last evening, nor before a rest that is set already.
        late = then is None or then.rest
        if len(ridden) < every + AROUND and not late:
            continue
        fit = [(_worth(tour.road.stops, one.to_km), -abs(n - every), n) for n, one in enumerate(ridden, 1) if n >= every - AROUND]
        worth, _, n = max(fit[: -1 if late else None], default=(0, 0, 0))
        if worth:
            rests.append(Night(at_km=ridden[n - 1].to_km, rest_days=1))
            ridden = ridden[n:]
    return rests


def _worth(stops: Sequence[Stop], km: float) -> int:
    """How good it is to rest there; 0 where there is no water."""
    there = [stop for stop in stops if abs(stop.at_km - km) <= SAME_PLACE_KM and stop.water == "reliable"]
    return max((1 + COMFORT.get(stop.shelter, 0) + 2 * (stop.shop in ("full", "basic")) for stop in there), default=0)


def _ridden(hours: float, every: int | None, tour: TourSheet, voyage: Voyage, days: list[Day], as_now: bool) -> Ridden:
    water, food = voyage.supplies["water"], voyage.supplies["food"]
    riding = [day for day in days if not day.rest]
    return Ridden(
        hours=hours,
        rest_every=every,
        as_now=as_now,
        days=len(days),
        rest_days=len(days) - len(riding),
        ends_on=days[-1].date,
        dark_days=sum(day.dark for day in days),
        latest_h=round(max(day.arrive_h for day in riding), 2),
        most_water_l=round(float(water.amounts.required.max()), 1),
        most_food_kg=round(float(food.amounts.required.max()), 1),
        short_l=round(float(np.max(water.short)), 1),
        wild_nights=sum(not day.night_at for day in days),
        cut=tour.road.cut,
        nights=list(tour.road.nights),
    )
