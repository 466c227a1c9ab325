"""What was read of a map, wherever it came from: places with their tags, and the ways near a road."""

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.road import MAP_CREDIT

Tags = Mapping[str, str]
WITHIN_KM = 1.0
"""What lies so near to the road is looked at [km]; practice."""
IN_GAPS_KM = 5.0
"""So far off is what ends a gap [km]; practice."""

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Feature:
    """A place of the map.

    Attributes
    ----------
    id : str
        n, w or r for node, way or relation, and its number.
    lat_deg, lon_deg : float
        Of the node, or of some point of the outline [°].
    """

    id: str
    lat_deg: float
    lon_deg: float
    tags: Tags


@dataclass(frozen=True)
class Way:
    """A line of the map that may lie under the road: a street, a path, a ferry's course."""

    id: str
    lat_deg: Array
    lon_deg: Array
    tags: Tags


@dataclass(frozen=True)
class Reading:
    """What a map says about a corridor.

    Attributes
    ----------
    on : date, optional
        How new the map is; None: nobody says.
    credit : str
        Whose map it is.
    seen : tuple of arrays, optional
        Latitudes and longitudes of points that show which land the map covers [°]; None: all that was asked.
    """

    features: list[Feature] = field(default_factory=list)
    ways: list[Way] = field(default_factory=list)
    on: dt.date | None = None
    credit: str = MAP_CREDIT
    seen: tuple[Array, Array] | None = None
