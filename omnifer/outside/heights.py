"""The client of a service that tells how high the land is: locations=lat,lon|lat,lon in, results with an elevation each out."""

import json

import numpy as np
from numpy.typing import NDArray

from omnifer.formats.found import Tell, is_height, nobody
from omnifer.outside.asking import Trouble, ask, session

NAME = "The service of heights"
AT_A_TIME = 100
"""Places in one question; more than that many refuse."""
READ_S = 20.0
TRIES, PAUSE_S = 4, 0.5
MOST_BYTES = 2**20

Array = NDArray[np.float64]


class HeightService:
    """A service at an address; None: there is none."""

    def __init__(self, address: str | None) -> None:
        self.address = address
        self._session = session(TRIES, PAUSE_S)

    def heights(self, lat_deg: Array, lon_deg: Array, tell: Tell = nobody) -> Array:
        """How high places lie, not-a-number where the service does not know [m]. Raises Trouble."""
        if not self.address:
            raise Trouble("No service of heights is set up")
        found: list[float] = []
        for start in range(0, lat_deg.size, AT_A_TIME):
            some = slice(start, start + AT_A_TIME)
            asked = "|".join(f"{lat:.6f},{lon:.6f}" for lat, lon in zip(lat_deg[some], lon_deg[some], strict=True))
            answer = ask(self._session, NAME, self.address, READ_S, MOST_BYTES, method="GET", params={"locations": asked})
            found += _heights(answer, asked.count("|") + 1)
            tell(len(found) / lat_deg.size)
        return np.array(found)


def _heights(answer: bytes, asked: int) -> list[float]:
    try:
        results = json.loads(answer)["results"]
        told = [result["elevation"] for result in results]
    except (ValueError, KeyError, TypeError, RecursionError):
        raise Trouble(f"{NAME} tells what cannot be understood") from None
    if len(told) != asked:
        raise Trouble(f"{NAME} tells {len(told)} heights of {asked}")
    return [float(h) if isinstance(h, int | float) and is_height(h) else float("nan") for h in told]
