"""The client of a weather service."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from pydantic import ValidationError

from omnifer.core.model.outlook import Outlook
from omnifer.core.model.road import MonthNormals
from omnifer.outside.asking import Trouble, ask, session

NAME = "The weather service"
READ_S = 3.0
"""Longest wait for an answer: the rider waits [s]."""
TRIES, PAUSE_S = 2, 0.2
MOST_BYTES = 2**20
DAYS = 5


@dataclass(frozen=True)
class Asked:
    """A place and a morning."""

    lat_deg: float
    lon_deg: float
    elevation_m: float
    date: date
    months: Sequence[MonthNormals]


class WeatherService:
    """An outside service at an address; None: there is none."""

    def __init__(self, address: str | None) -> None:
        self.address = address
        self._session = session(TRIES, PAUSE_S)

    def outlook(self, asked: Asked) -> Outlook:
        """The next five days at a place. Raises Trouble."""
        if not self.address:
            raise Trouble("No weather service is set up")
        question: dict[str, Any] = {
            "lat_deg": asked.lat_deg, "lon_deg": asked.lon_deg, "elevation_m": asked.elevation_m, "days": DAYS,
            "date": asked.date.isoformat(), "months": [month.model_dump() for month in asked.months],
        }  # fmt: skip
        answer = ask(self._session, NAME, f"{self.address}/outlook", READ_S, MOST_BYTES, method="POST", json=question)
        try:
            return Outlook.model_validate_json(answer)
        except ValidationError:
            raise Trouble(f"{NAME} tells what cannot be understood") from None
