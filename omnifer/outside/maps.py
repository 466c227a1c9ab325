"""The client of a map service that speaks the Overpass query language."""

from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from omnifer.core.mapped.reading import Reading
from omnifer.formats.found import Tell, nobody
from omnifer.formats.overpass import WAITS_S, NotToldError, joined, question, read_answer
from omnifer.outside.asking import Trouble, ask, session

NAME = "The map service"
PIECE_KM = 80.0
"""Of the road, asked about at a time [km]."""
BEND_KM = 1.0
"""From one point of the line that is asked about to the next [km]."""
TRIES, PAUSE_S = 4, 0.5
MOST_BYTES = 96 * 2**20

Array = NDArray[np.float64]


class Told(Protocol):
    """What was told before."""

    def read(self, question: str) -> bytes | None:
        """The answer to a question; None where there is none."""

    def keep(self, question: str, answer: bytes) -> None:
        """Keep an answer."""


class MapService:
    """A service at an address; None: there is none."""

    def __init__(self, address: str | None) -> None:
        self.address = address
        self._session = session(TRIES, PAUSE_S)

    def reading(self, km: Array, lat_deg: Array, lon_deg: Array, within_km: Array, told: Told, tell: Tell = nobody) -> Reading:
        """What the service has along a road, piece by piece; what it told lately is not asked again. Raises Trouble.

        Parameters
        ----------
        km, lat_deg, lon_deg, within_km : array, shape (points,)
            The road, and how far from it places are looked for [km, °, °, km].
        """
        if not self.address:
            raise Trouble("No map service is set up")
        readings = []
        begins = np.arange(0, float(km[-1]), PIECE_KM)
        for begin in begins.tolist():
            end = min(begin + PIECE_KM, float(km[-1]))
            points = np.linspace(begin, end, max(int(np.ceil((end - begin) / BEND_KM)), 1) + 1)
            lat, lon = np.interp(points, km, lat_deg), np.interp(points, km, np.unwrap(lon_deg, period=360.0))
            reach = float(within_km[(km >= begin) & (km <= end)].max(initial=float(within_km.min())))
            readings.append(self._one(question(lat, (lon + 180) % 360 - 180, reach), told))
            tell(end / float(km[-1]))
        return joined(readings)

    def _one(self, asked: str, told: Told) -> Reading:
        known = told.read(f"{self.address} {asked}")
        answer = known or ask(
            self._session, NAME, self.address or "", WAITS_S + 10.0, MOST_BYTES, method="POST", data={"data": asked}
        )
        try:
            found = read_answer(answer)
        except NotToldError as why:
            raise Trouble(f"{NAME} {why}") from None
        if known is None:
            told.keep(f"{self.address} {asked}", answer)
        return found
