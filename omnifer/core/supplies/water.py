"""Water: what riding and dry camps take, and which sources are sure when the rider is there."""

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.people import Rider
from omnifer.core.model.practice import USUAL, Practice
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


def along(
    hours: Array, climate: Climate, riding_c: Array, riders: tuple[Rider, ...], usual: Practice = USUAL
) -> tuple[Array, Array]:
    """Water that the whole party needs from the start to each node of the road [l, l].

    First what is expected to be drunk, then what should be carried for it, cautiously. The second is a size for vessels,
    never a drinking target: drinking more than is lost is dangerous too.

    Parameters
    ----------
    hours, riding_c : numpy.ndarray, shape (nodes,)
        Riding hours from the start [h], and air in the hour in which each node is passed [°C].
    """
    drunk, bottled = np.zeros(hours.size), np.zeros(hours.size)
    damp = climate.humidity_at(riding_c)
    for rider in riders:
        loss = body.sweat_loss(riding_c, damp, rider.all_day_power_w)
        drunk += np.maximum(usual.drunk_floor_l_per_h, loss)
        bottled += np.maximum(usual.bottle_floor_l_per_h, usual.carry_factor * loss)
    spent = np.diff(hours)
    drunk, bottled = (np.concatenate([[0.0], np.cumsum(rate[:-1] * spent)]) for rate in (drunk, bottled))
    return drunk, bottled


def dry_camp(riders: int, usual: Practice) -> float:
    """Water for one night away from a source [l]."""
    return usual.dry_camp_l * riders


def _plan(kind: Kind, ride: Ride) -> Supply:
    """Water at the sources that count when the rider is there; a dry camp takes its own at once, a dry rest day its own too."""
    sources = [stop for stop in ride.stops() if counts(stop, ride.visits)]
    refills = Refills.at(sources, ride.nodes.length_km)
    nights_km, rests, riders = ride.rests_km(), ride.days.rests, len(ride.tour.riders)
    dry = np.array([not counts(stop, ride.visits) for stop in ride.night_stops], dtype=bool)
    camps = (1 + rests) * dry
    drunk, bottled = along(ride.pace.hours, ride.climate, ride.riding_c, ride.tour.riders, ride.tour.practice)
    taken: Array = camps * dry_camp(riders, ride.tour.practice) + rests * dry * ride.tour.practice.dry_day_l * riders
    nights = np.zeros(refills.km.size - 1, dtype=int)
    np.add.at(nights, np.clip(np.searchsorted(refills.km, nights_km, side="left") - 1, 0, nights.size - 1), camps)
    return planned(kind, ride, refills, Demand(drunk, bottled, nights_km[dry], taken[dry]), nights)


KIND = Kind("water", "l", "volume", 1.0, limited=True, plan=_plan)
