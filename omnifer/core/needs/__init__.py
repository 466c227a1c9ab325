"""What the road asks of the kit beyond supplies and limits: one need, one file."""

from omnifer.core.model.assessment import Day
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet

AT_STOP_KM = 0.1
"""So near a stop the night is at it [km]."""


def stops_of_night(tour: TourSheet, day: Day) -> list[Stop]:
    """The stops at which a day's night is spent."""
    return [s for s in tour.road.stops if s.name == day.night_at and abs(s.at_km - day.to_km) <= AT_STOP_KM]
