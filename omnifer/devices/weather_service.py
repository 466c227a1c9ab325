"""A stand-in for a weather service, speaking HTTP on loopback.

It has no climate of its own, so whoever asks tells it the normals of the place. It can be told to fail, for practice.
"""

import datetime as dt
import os
from hashlib import blake2b
from typing import Annotated

from flask import Flask, Response, request
from pydantic import Field, ValidationError

from omnifer.core.model.quantities import ElevationM, Noun
from omnifer.core.model.road import Latitude, Longitude, MonthNormals
from omnifer.devices.weather import outlook

MOST_BYTES = 20_000


class Place(Noun):
    """What is asked of the service."""

    lat_deg: Latitude
    lon_deg: Longitude
    elevation_m: ElevationM
    date: dt.date
    days: Annotated[int, Field(ge=1, le=5)] = 5
    months: Annotated[tuple[MonthNormals, ...], Field(min_length=12, max_length=12)]


def create_service(seed: int | None = None, failing: int = 0) -> Flask:
    """The service.

    Parameters
    ----------
    seed : int, optional
        Of its weather; from OMNIFER_WEATHER_SEED, or 1.
    failing : int
        So many requests are answered with 503 before the first good answer.
    """
    app = Flask(__name__, static_folder=None)
    app.config["MAX_CONTENT_LENGTH"] = MOST_BYTES
    chosen = int(os.environ.get("OMNIFER_WEATHER_SEED", "1")) if seed is None else seed
    left = [failing]

    @app.post("/outlook")
    def tell() -> Response:
        if left[0] > 0:
            left[0] -= 1
            return app.response_class("busy", 503)
        try:
            place = Place.model_validate_json(request.get_data())
        except ValidationError as error:
            return app.response_class(error.json(include_url=False, include_input=False), 422, mimetype="application/json")
        told = outlook(place.months, place.elevation_m, place.date, place.days, chosen + _place_number(place))
        return app.response_class(told.model_dump_json(), mimetype="application/json")

    return app


def _place_number(place: Place) -> int:
    """A number for each half degree, so that neighbours share their weather."""
    where = f"{round(place.lat_deg * 2)},{round(place.lon_deg * 2)}"
    return int.from_bytes(blake2b(where.encode(), digest_size=4).digest(), "big")
