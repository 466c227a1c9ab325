"""What is known of the world: places by name, and the climate of a place."""

from flask import Blueprint, Response, request
from pydantic import Field

from omnifer.api.desk import answer
from omnifer.api.openapi import operation
from omnifer.core.model.offered import NamedPlace, NamedPlaces
from omnifer.core.model.quantities import ElevationM, Name, Noun
from omnifer.core.model.road import Latitude, Longitude, Station
from omnifer.core.world import cells, places
from omnifer.core.world.climate import stations_at
from omnifer.formats.problem import InputProblem

blueprint = Blueprint("world", __name__)
LONGEST_NAME = 80


@blueprint.get("/api/places")
@operation(gives=NamedPlaces, asks=("called",))
def named_places() -> Response:
    """Places that are called so or begin so, the whole name first, larger ones before smaller ones; no network is asked."""
    found = places.search(request.args.get("called", "")[:LONGEST_NAME])
    heights = cells.normals_at([p.lat_deg for p in found], [p.lon_deg for p in found], None).height_m.tolist() if found else []
    return answer(NamedPlaces(places=[
        NamedPlace(name=p.name, country=p.country, lat_deg=p.lat_deg, lon_deg=p.lon_deg, people=p.people,
                   elevation_m=round(height) if height == height else None)
        for p, height in zip(found, heights, strict=True)
    ]))  # fmt: skip


class AskedClimate(Noun):
    """Of which place the climate is asked."""

    lat: Latitude
    lon: Longitude
    elevation: ElevationM | None = Field(None, description="None: as high as the land is there on the whole")
    name: Name


@blueprint.get("/api/climate")
@operation(gives=Station, asks=("lat", "lon", "elevation", "name"), problems=(422,))
def climate() -> Response:
    """The climate of a place month by month, as a station; no network is asked."""
    asked = AskedClimate.model_validate({name: text for name, text in request.args.items() if text})
    heights = None if asked.elevation is None else [asked.elevation]
    found = stations_at([asked.lat], [asked.lon], heights, [asked.name])[0]
    if found is None:
        raise InputProblem(
            f"No land lies near {asked.lat:g}, {asked.lon:g}", "address", "The grid knows the climate of land only."
        )
    return answer(found)
