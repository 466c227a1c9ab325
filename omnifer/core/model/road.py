"""The road: track, days, stops and weather."""

import datetime as dt
from functools import cache
from typing import Annotated, Literal
from zoneinfo import available_timezones

from pydantic import AfterValidator, Field, field_validator, model_validator

from omnifer.core.model.fuels import FuelKind
from omnifer.core.model.quantities import DistanceKm, ElevationM, Id, Name, Note, Noun, OneLine, TemperatureC

ASCENT_THRESHOLD_M = 4.0
"""Smallest reversal that counts as climb after a 100 m moving mean [m]; practice, 3 to 5."""
Latitude = Annotated[float, Field(ge=-90, le=90)]
Longitude = Annotated[float, Field(ge=-180, le=180)]
Water = Literal["reliable", "seasonal", "unsure", "snow", "none"]
Shop = Literal["full", "basic", "snacks", "none"]
Shelter = Literal["none", "wild", "site", "hut", "room"]
BikeShop = Literal["none", "basic", "full"]
Service = Literal["meals", "laundry", "plugs", "post", "transport", "doctor"]
"""`transport`: a bus or a train that takes bikes; `doctor`: or a hospital."""
Surface = Literal["asphalt", "rough_asphalt", "gravel", "soft", "push"]
HazardKind = Literal[
    "bears", "insects", "ticks", "thorns", "dust", "tunnels", "traffic", "theft", "sun", "no_signal", "border"
]  # fmt: skip
StopPart = Literal["water", "shop", "services", "fuels", "bike_shop", "shelter"]
"""What a stop says of what is had there."""
STOP_FIELDS: dict[StopPart, tuple[str, ...]] = {
    "water": ("water", "treat_water", "dry_months"),
    "shop": ("shop", "closed_weekdays", "opens_h", "closes_h", "opens_again_h", "closes_again_h", "closed_dates"),
    "services": ("services",), "fuels": ("fuels",), "bike_shop": ("bike_shop",), "shelter": ("shelter",),
}  # fmt: skip
"""Which fields of a stop say each part of it."""
Carriage = Literal["ferry", "train", "bus", "flight"]
Weekday = Annotated[int, Field(ge=0, le=6, description="0 Monday to 6 Sunday")]
Month = Annotated[int, Field(ge=1, le=12)]
ClockHour = Annotated[float, Field(ge=0, le=24)]


class Part(Noun):
    """A part of a track that came as one: where it begins, what it was called, and what else its file said of it."""

    first: Annotated[int, Field(ge=0, description="Index of its first point")]
    name: Annotated[str, Field(max_length=200), OneLine] = ""
    extensions: Annotated[str, Field(max_length=20_000, description="XML of the file that is handed on unread")] = ""


LOWEST_M, HIGHEST_M = -500.0, 9000.0
"""Heights beyond these are taken as missing [m]."""
MOST_UNREAD = 8 * 2**20
"""Of what makers hang on points, handed on unread [characters]."""


class Track(Noun):
    """The raw points of a road, kept as they came. Heights may be missing; those that no road has are."""

    name: Annotated[str, Field(max_length=200), OneLine] = ""
    lat_deg: tuple[Latitude, ...]
    lon_deg: tuple[Longitude, ...]
    elevation_m: tuple[float | None, ...]
    parts: tuple[Part, ...] = Field((), max_length=2000, description="Tracks, segments and files it was joined from")
    extensions: dict[int, str] = Field({}, description="XML that the file hung on single points, handed on unread")

    @model_validator(mode="after")
    def _equally_long(self) -> "Track":
        if not len(self.lat_deg) == len(self.lon_deg) == len(self.elevation_m):
            raise ValueError("lat_deg, lon_deg and elevation_m must be equally long")
        if len(self.lat_deg) < 2:
            raise ValueError("a track needs at least two points")
        if any(part.first >= len(self.lat_deg) for part in self.parts):
            raise ValueError("a part of the track begins behind its last point")
        if sum(map(len, self.extensions.values())) > MOST_UNREAD:
            raise ValueError(f"extensions hold more than {MOST_UNREAD // 2**20} MB")
        return self

    @field_validator("elevation_m")
    @classmethod
    def _heights_of_roads(cls, heights: tuple[float | None, ...]) -> tuple[float | None, ...]:
        return tuple(h if h is None or LOWEST_M <= h <= HIGHEST_M else None for h in heights)


class TypedDay(Noun):
    """A day known only by its figures."""

    distance_km: Annotated[float, Field(ge=0, le=500)]
    ascent_m: Annotated[float, Field(ge=0, le=10000)] = 0
    highest_m: ElevationM | None = None
    lowest_m: ElevationM | None = None


MapId = Annotated[str, Field(pattern=r"^[nwr]\d{1,20}$", description="Node, way or relation of a map, and its number")]


MAP_CREDIT = "© OpenStreetMap contributors, ODbL"
"""What must stand beside whatever comes of its data; openstreetmap.org/copyright."""


class Mapped(Noun):
    """What of a stop rests on a map: which places of it, how new it was, and which parts it says."""

    ids: tuple[Annotated[str, Field(pattern=r"^[nwr]\d{1,20}$")], ...] = Field(
        (), max_length=200, description="Node, way or relation"
    )
    on: dt.date
    credit: Annotated[str, Field(max_length=120, description="Whose map it was"), OneLine] = MAP_CREDIT
    parts: tuple[StopPart, ...] = Field((), description="What the rider has not said otherwise since")


class Stop(Noun):
    """A place on the road and what it supplies. Sources that may be dry count as none, and are shown as a chance."""

    id: Id
    name: Name
    at_km: DistanceKm
    detour_km: Annotated[float, Field(ge=0, le=100, description="Off the road, one way [km]")] = 0
    take_detour: bool | None = Field(None, description="Whether it is worth its detour; None: where it is not far")
    water: Water = "none"
    dry_months: tuple[Month, ...] = Field((), description="Months in which seasonal water fails; none given: never trusted")
    treat_water: bool = Field(False, description="Filter, boil or treat before drinking")
    confirmed: dt.date | None = Field(None, description="When the water was last confirmed")
    shop: Shop = "none"
    closed_weekdays: tuple[Weekday, ...] = ()
    opens_h: ClockHour | None = Field(None, description="Shop opens, wall clock [h]; None: not known")
    closes_h: ClockHour | None = None
    opens_again_h: ClockHour | None = Field(None, description="After a break at noon [h]; None: it has none")
    closes_again_h: ClockHour | None = None
    closed_dates: tuple[dt.date, ...] = Field((), max_length=60, description="Holidays and other closed days")
    services: tuple[Service, ...] = ()
    fuels: tuple[FuelKind, ...] = ()
    plug_outlets: Annotated[int, Field(ge=1, le=50, description="Wall sockets that can be used at once")] = 1
    plug_hours: Annotated[float, Field(ge=0, le=240)] | None = Field(
        None, description="At the plug; None: as long as one is there [h]"
    )
    plug_shape: Annotated[str, Field(max_length=20, description="Shape of the socket; empty: one that fits"), OneLine] = ""
    bike_shop: BikeShop = "none"
    shelter: Shelter = "none"
    people: Annotated[int, Field(ge=0, le=50_000_000)] | None = Field(None, description="Who live there, by the gazetteer")
    guessed: tuple[StopPart, ...] = Field((), description="What nobody has said: it is what a place so large mostly has")
    mapped: Mapped | None = Field(None, description="None: no map was asked")
    note: Note = ""

    @property
    def open_hours(self) -> tuple[tuple[float, float], ...]:
        """When the shop is open on a day on which it is, wall clock [h, h]; what is not known is open."""
        opens, closes = self.opens_h or 0.0, 24.0 if self.closes_h is None else self.closes_h
        if self.opens_again_h is None:
            return ((opens, closes),)
        return (opens, closes), (self.opens_again_h, 24.0 if self.closes_again_h is None else self.closes_again_h)


class Waypoint(Noun):
    """A named place of a file, with the symbol and type that its maker gave it."""

    name: str
    lat_deg: float
    lon_deg: float
    note: str = ""
    symbol: str = ""


class SurfaceStretch(Noun):
    """A stretch with a surface of its own; elsewhere the bike's own rolling resistance holds."""

    from_km: DistanceKm
    to_km: DistanceKm
    surface: Surface
    mapped: dt.date | None = Field(None, description="How new the map was that said so; None: the rider said it")


class Transfer(Noun):
    """A stretch that is not ridden."""

    from_km: DistanceKm
    to_km: DistanceKm
    by: Carriage
    hours: Annotated[float, Field(ge=0, le=240, description="From end to end, waiting included [h]")] = 2


Goes = Literal["ridden_on", "rolled", "wheel_out", "boxed", "carried"]


class Journey(Noun):
    """How the bikes come along on what is not ridden: on a transfer, before the start, after the end, or up some stairs."""

    at_km: DistanceKm = Field(description="Where one gets in; a transfer that begins there is what it is about")
    by: Literal[Carriage, "lift"] = Field(description="lift: stairs or a lift, by hand")
    goes: Goes | None = Field(None, description="How the bike goes; None: as is usual there")
    departs_h: ClockHour | None = Field(None, description="Wall clock [h]; None: not fixed")
    bike_most_kg: Annotated[float, Field(gt=0, le=500, description="Allowed of a bike, its box counted [kg]")] | None = None
    piece_most_kg: Annotated[float, Field(gt=0, le=500, description="Allowed of a bag [kg]")] | None = None
    pieces: Annotated[int, Field(ge=0, le=20, description="Bags allowed of a rider")] | None = None
    longest_mm: Annotated[float, Field(gt=0, le=10_000, description="Longest side allowed [mm]")] | None = None
    note: Annotated[str, Field(max_length=200), OneLine] = ""


class Hazard(Noun):
    """A stretch on which something is to be reckoned with: it asks for things, and ends."""

    from_km: DistanceKm
    to_km: DistanceKm
    kind: HazardKind
    note: Annotated[str, Field(max_length=200), OneLine] = ""


class Night(Noun):
    """A night that the rider has set: the day ends here, and rest days may follow."""

    at_km: DistanceKm
    rest_days: Annotated[int, Field(ge=0, le=30)] = 0
    from_km: DistanceKm | None = Field(None, description="Where its day began when it was set: the days before stay as they were")


class MonthNormals(Noun):
    """A month as the records know it: mean extremes of a day, how much they vary, and the rest."""

    mean_max_c: TemperatureC
    mean_min_c: TemperatureC
    spread_max_c: Annotated[float, Field(ge=0, le=20, description="Standard deviation of daily maxima [K]")] = 4
    spread_min_c: Annotated[float, Field(ge=0, le=20, description="Standard deviation of daily minima [K]")] = 3
    rain_days: Annotated[float, Field(ge=0, le=31, description="Days with 1 mm or more")] = 8
    humidity_pct: Annotated[float, Field(ge=0, le=100)] = 60
    wind_ms: Annotated[float, Field(ge=0, le=60, description="Mean wind at 10 m [m/s]")] = 3


class Station(Noun):
    """A place whose weather is known month by month."""

    id: Id
    name: Name
    at_km: DistanceKm | None = Field(None, description="Where along the road; None: by its coordinates")
    lat_deg: Latitude | None = None
    lon_deg: Longitude | None = None
    elevation_m: ElevationM | None = Field(None, description="None: that of the road there")
    months: tuple[MonthNormals, ...] = Field(min_length=12, max_length=12)
    source: Annotated[str, Field(max_length=200), OneLine] = ""
    width_k: Annotated[float, Field(ge=0, le=20, description="How far its means may be off: a standard deviation [K]")] = 0

    @model_validator(mode="after")
    def _somewhere(self) -> "Station":
        if self.at_km is None and (self.lat_deg is None or self.lon_deg is None):
            raise ValueError(f"station {self.name!r} needs a kilometre or coordinates")
        return self


class Weather(Noun):
    """Design weather from a kilometre on: a hot day and a cold night of the season, not the mean ones."""

    from_km: DistanceKm
    day_high_c: TemperatureC
    night_low_c: TemperatureC
    humidity_pct: Annotated[float, Field(ge=0, le=100)] = 50
    at_elevation_m: ElevationM = Field(0, description="Height the figures hold for; elsewhere 6.5 K/km colder or warmer")


def _known_zone(name: str) -> str:
    if name not in _zones():
        raise ValueError(f"{name!r} is no time zone; they are written like Europe/Zurich or Etc/GMT+2")
    return name


@cache
def _zones() -> frozenset[str]:
    return frozenset(available_timezones())


class ZoneStretch(Noun):
    """From a kilometre on, the time zone whose wall clock holds."""

    from_km: DistanceKm
    zone: Annotated[str, AfterValidator(_known_zone), Field(max_length=60, description="IANA name")]


SAME_START_KM = 1.0
"""A day that begins so near to where one with its own hour began is the same day [km]."""
LATEST_START_H = 20.0
"""A day's ride begins no later [h]."""


class DayCut(Noun):
    """How the road is cut into days."""

    by: Literal["hours", "distance", "days"] = "hours"
    hours: Annotated[float, Field(gt=0, le=20, description="Riding hours a day, pauses apart [h]")] = 6
    distance_km: Annotated[float, Field(ge=1, le=500, description="Kilometres a day [km]")] = 70
    days: Annotated[int, Field(ge=1, le=1000, description="For the whole tour, days of rest with them")] = 21
    to_stops: bool = Field(True, description="End a day at a good place to sleep where one lies near its end")


class DayStart(Noun):
    """A day that sets out at an hour of its own: the one that begins here."""

    at_km: DistanceKm
    hour: Annotated[float, Field(ge=0, le=LATEST_START_H, description="Wall clock [h]")]


class Road(Noun):
    """All of the road but the raw track."""

    cut: DayCut = DayCut()
    typed_days: tuple[TypedDay, ...] = Field((), max_length=400)
    stops: tuple[Stop, ...] = Field((), max_length=3000)
    nights: tuple[Night, ...] = Field((), max_length=400)
    surfaces: tuple[SurfaceStretch, ...] = Field((), max_length=1000)
    transfers: tuple[Transfer, ...] = Field((), max_length=100)
    hazards: tuple[Hazard, ...] = Field((), max_length=300)
    journeys: tuple[Journey, ...] = Field((), max_length=60)
    rooms_only: bool = Field(False, description="Every night is spent in a room, wherever that is found")
    wild_camps: bool | None = Field(
        None, description="Whether nights away from sites, huts and rooms are wanted; None: not where a child rides along"
    )
    zones: tuple[ZoneStretch, ...] = Field((), max_length=60, description="Time zones; none given: those the track lies in")
    weather: tuple[Weather, ...] = Field((), max_length=400, description="Typed design weather; stations go before it")
    stations: tuple[Station, ...] = Field((), max_length=200)
    odds: Annotated[float, Field(ge=0.01, le=0.5, description="Chance a night is colder, or a day hotter, than planned")] = 0.1
    start_hour: Annotated[float, Field(ge=0, le=LATEST_START_H, description="When a day's ride begins, wall clock [h]")] = 8
    starts: tuple[DayStart, ...] = Field((), max_length=400, description="Days that set out at another hour")
    pause_factor: Annotated[float, Field(ge=1, le=4, description="Hours on the road over hours riding")] = 1.3
    narrowest_mm: Annotated[float, Field(ge=300, le=3000, description="Narrowest gate, bridge or path")] | None = None
    ascent_threshold_m: Annotated[float, Field(ge=0, le=100, description="Smallest reversal that counts as climb [m]")] = (
        ASCENT_THRESHOLD_M
    )

    def start_h(self, km: float) -> float:
        """When the day that begins at a kilometre sets out, wall clock [h]."""
        own = next((start.hour for start in self.starts if abs(start.at_km - km) <= SAME_START_KM), None)
        return self.start_hour if own is None else own

    @model_validator(mode="after")
    def _forwards(self) -> "Road":
        named = (("surface", self.surfaces), ("transfer", self.transfers), ("hazard", self.hazards))
        for name, stretches in named:
            for stretch in stretches:
                if stretch.to_km <= stretch.from_km:
                    raise ValueError(f"{name} from km {stretch.from_km:g} ends at km {stretch.to_km:g}, before it begins")
        return self
