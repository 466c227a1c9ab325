"""Water: what riding and dry camps take, and which sources are sure when the rider is there."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.people import Rider
from omnifer.core.model.road import Stop
from omnifer.core.physics import body
from omnifer.core.road import arrivals
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.climate import Climate
from omnifer.core.supplies.supply import Demand, Kind, Refills, Ride, Supply, planned

Array = NDArray[np.float64]


def counts(stop: Stop | None, visits: dict[str, Visit]) -> bool:
    """Whether a stop's water is sure when the rider is there."""
    if stop is None or stop.water == "none" or stop.id not in visits:
        return False
    return arrivals.water_fails(stop, visits[stop.id].date) is None


def along(hours: Array, climate: Climate, riders: tuple[Rider, ...]) -> tuple[Array, Array]:
    """Water that the whole party needs from the start to each node of the road [l, l].

    First what is expected to be drunk, then what should be carried for it, cautiously. The second is a size for vessels,
    never a drinking target: drinking more than is lost is dangerous too.
    """
    drunk, bottled = np.zeros(hours.size), np.zeros(hours.size)
    warm = climate.riding_c
    damp = climate.humidity_at(warm)
    for rider in riders:
        loss = body.sweat_loss(warm, damp, rider.all_day_power_w)
        drunk += np.maximum(practice.DRUNK_FLOOR_L_PER_H, loss)
        bottled += np.maximum(practice.BOTTLE_FLOOR_L_PER_H, practice.CARRY_FACTOR * loss)
    spent = np.diff(hours)
    drunk, bottled = (np.concatenate([[0.0], np.cumsum(rate[:-1] * spent)]) for rate in (drunk, bottled))
    return drunk, bottled


def dry_camp(riders: int) -> float:
    """Water for one night away from a source [l]."""
    return practice.DRY_CAMP_L * riders


def _plan(kind: Kind, ride: Ride) -> Supply:
    """Water at the sources that count when the rider is there; a dry camp takes its own at once."""
    sources = [stop for stop in ride.stops() if counts(stop, ride.visits)]
    refills = Refills.at(sources, ride.nodes.length_km)
    nights_km = ride.days.km[1:-1]
    dry = np.array([not counts(stop, ride.visits) for stop in ride.night_stops], dtype=bool)
    camps = (1 + ride.days.rests) * dry
    drunk, bottled = along(ride.hours, ride.climate, ride.tour.riders)
    at_once: Array = np.asarray(camps[dry] * dry_camp(len(ride.tour.riders)))
    nights = np.zeros(refills.km.size - 1, dtype=int)
    np.add.at(nights, np.clip(np.searchsorted(refills.km, nights_km, side="left") - 1, 0, nights.size - 1), camps)
    return planned(kind, ride, refills, Demand(drunk, bottled, nights_km[dry], at_once), nights)


KIND = Kind("water", "l", "volume", 1.0, limited=True, plan=_plan)
