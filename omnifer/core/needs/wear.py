"""What wears with the road rather than breaks by chance: brake pads by mass and the height ridden down, chains by rain.

References
----------
Conditional Weibull for parts that wear; lives of loaded touring are common practice and wide (pads 1000 to 5000 km, in wet
mountains a third of it; chains 3000 to 6000 km, in wet grit half of it).
"""

from math import gamma

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.rig import Bike
from omnifer.core.needs.asking import Asking
from omnifer.core.physics.spares import wearing_out

USUAL_DESCENT_M, USUAL_KG, LEVEL_PART = 10.0, 110.0, 0.3
"""Of a usual kilometre: height ridden down, mass of rider and bike, and the part of the wear that comes on the level too [m, kg,
-]; practice."""
BEHIND = {"serviced": 0.0, "usual": 1 / 3, "worn": 2 / 3}
"""How much of its life a part has behind it at the start, by the state of the bike [-]; practice."""
CHAIN_KM = 4000.0
"""A chain lasts so far in dry grit, in rain half as far [km]; practice."""
SHAPE = 3.0
"""Of the Weibull distribution of what wears [-]."""
MEAN = gamma(1 + 1 / SHAPE)
"""A mean life over the characteristic one [-]."""


def pad_km(a: Asking, bike: Bike) -> NDArray[np.float64]:
    """What each day wears pads by, in usual kilometres [km]."""
    rider = next(k for k, r in enumerate(a.tour.riders) if r.id == bike.rider_id)
    riding = a.voyage.riding[rider]
    mass = riding.dry_kg + riding.stores_part * float(np.mean(a.voyage.stores_kg))
    down = np.array([LEVEL_PART * day.distance_km + (1 - LEVEL_PART) * day.descent_m / USUAL_DESCENT_M for day in a.days])
    return np.asarray(down * float(np.mean(mass)) / USUAL_KG * _rain(a))


def chain_km(a: Asking) -> NDArray[np.float64]:
    """What each day wears a chain by, in kilometres of dry grit [km]."""
    return np.asarray(np.array([day.distance_km for day in a.days]) * _rain(a))


def pads_life_km(per_1000_km: float) -> float:
    """A pair's mean life, in usual kilometres, of how many are worn down on a thousand [km]."""
    return 1000 / max(per_1000_km, 0.001)


def _rain(a: Asking) -> NDArray[np.float64]:
    return np.array([1 + day.rain_chance for day in a.days])


def renewals(used: float, ahead: float, life: float) -> float:
    """How often a part is expected to be renewed: its wearing out once, and each whole life after that [-].

    Parameters
    ----------
    used, ahead, life : float
        Behind it, before it, and its mean life, all in the same measure.
    """
    return wearing_out(used, min(ahead, life), life / MEAN, SHAPE) + max(ahead - life, 0.0) / life
