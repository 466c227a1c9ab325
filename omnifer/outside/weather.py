"""The client of a weather service."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

import requests
from pydantic import ValidationError
from requests.adapters import HTTPAdapter
from urllib3.util.retry import Retry

from omnifer.core.model.outlook import Outlook
from omnifer.core.model.road import MonthNormals

CONNECT_S, READ_S = 1.0, 3.0
"""Longest wait for a connection and for an answer [s]."""
RETRIES = Retry(
    total=2, read=False, backoff_factor=0.2, status_forcelist=(429, 502, 503, 504), allowed_methods=None, raise_on_status=False
)
"""Refused or busy: twice more. Silence is not asked again: the rider waits."""
DAYS = 5


class OutlookTrouble(Exception):
    """No outlook came; the message says why."""


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
        self.session = requests.Session()
        self.session.trust_env = False
        self.session.mount("http://", HTTPAdapter(max_retries=RETRIES))

    def outlook(self, asked: Asked) -> Outlook:
        """The next five days at a place. Raises OutlookTrouble."""
        if not self.address:
            raise OutlookTrouble("No weather service is set up")
        question: dict[str, Any] = {
            "lat_deg": asked.lat_deg, "lon_deg": asked.lon_deg, "elevation_m": asked.elevation_m, "days": DAYS,
            "date": asked.date.isoformat(), "months": [month.model_dump() for month in asked.months],
        }  # fmt: skip
        try:
            answer = self.session.post(f"{self.address}/outlook", json=question, timeout=(CONNECT_S, READ_S))
        except requests.Timeout:
            raise OutlookTrouble("The weather service does not answer in time") from None
        except requests.RequestException:
            raise OutlookTrouble("The weather service cannot be reached") from None
        if not answer.ok:
            raise OutlookTrouble(f"The weather service answers with {answer.status_code}")
        try:
            return Outlook.model_validate_json(answer.content)
        except ValidationError:
            raise OutlookTrouble("The weather service tells what cannot be understood") from None
