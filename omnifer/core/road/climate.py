"""The weather to plan for, along the road and on the days on which it is ridden."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.practice import USUAL, Practice
from omnifer.core.model.road import MonthNormals, Road, Station, Weather
from omnifer.core.physics.air import vapour_pressure
from omnifer.core.physics.weather import LAPSE_K_PER_M, exceeded
from omnifer.core.road import normals
from omnifer.core.road.profile import Profile
from omnifer.core.road.stations import stations_of

STATIONS_WEIGHED = 3
"""Nearest stations that count at a place, each by one over its distance squared; practice."""
NEAREST_KM = 5.0
"""Distances below this weigh alike [km]; practice."""
NORTH_MEAN_C, NORTH_TILT_K = 14.97, 28.0
"""Annual mean at sea level: mean - tilt * P2(sin latitude) [°C, K]; North, Cahalan and Coakley (1981), Rev. Geophys. 19:91,
two-mode climate, doi:10.1029/RG019i001p00091, from memory."""
SEASON_K_PER_DEGREE = 0.28
"""Half of the yearly swing for each degree of latitude [K]; practice, inland."""
DAILY_SWING_K = 11.0
"""Mean maximum less mean minimum [K]; practice."""
ROUGH_SPREAD_K = 6.0
"""Standard deviation around the rough default, for not knowing the place [K]; practice."""
COLDEST_DAY = 20.0
"""Day of the year with the lowest northern mean [d]; practice: a month behind the sun."""

Array = NDArray[np.float64]
Source = Literal["stations", "typed", "grid", "latitude", "default"]
"""The first three are good enough to be judged by; the first two are the rider's."""


@dataclass(frozen=True)
class Climate:
    """The weather at every point of a profile, on the day on which it is passed.

    `day_high_c` and `night_low_c` are the hot day and the cold night to plan for; the means stand beside them, and how much
    nights vary (0 where nothing is known but the night to plan for), and how far all these means may be off.
    """

    day_high_c: Array
    night_low_c: Array
    mean_max_c: Array
    mean_min_c: Array
    spread_min_k: Array
    width_k: Array
    humidity_pct: Array
    rain_chance: Array
    wind_ms: Array
    source: Source

    @property
    def known(self) -> bool:
        """Whether it is good enough to be judged by: from the rider, or from the published means of the place."""
        return self.source in ("stations", "typed", "grid")

    @property
    def told(self) -> bool:
        """Whether it comes from the rider."""
        return self.source in ("stations", "typed")

    @property
    def follows_date(self) -> bool:
        """Whether another date brings other weather; typed weather and the mild default are the same all year."""
        return self.source not in ("typed", "default")

    @property
    def mean_c(self) -> Array:
        """Mean of the usual day and night [°C]."""
        return (self.mean_max_c + self.mean_min_c) / 2

    def humidity_at(self, temperature_c: Array) -> Array:
        """Relative humidity at an hour of the day when it is so warm [%]; the air's moisture is that of the whole day.

        References
        ----------
        FAO Irrigation and Drainage Paper 56 (1998), eq. 19: actual vapour pressure from the daily mean humidity;
        from memory.
        """
        saturated = (vapour_pressure(self.mean_max_c, 100.0) + vapour_pressure(self.mean_min_c, 100.0)) / 2
        return np.minimum(self.humidity_pct * saturated / vapour_pressure(temperature_c, 100.0), 100.0)


def along(profile: Profile, road: Road, start: dt.date, day: Array, usual: Practice = USUAL) -> Climate:
    """The weather of each point of the profile.

    Parameters
    ----------
    day : numpy.ndarray
        Whole days since the start on which each point is passed [d].

    Stations go before typed weather, typed weather before the shipped grid, and that before the rough default from latitude and
    season (at sea); where not even the latitude is known, a mild season is assumed everywhere.
    """
    day_of_year = start.timetuple().tm_yday - 1 + day
    if stations := stations_of(profile, road):
        return _from_stations(profile, stations, day_of_year, road.odds, "stations" if road.stations else "grid")
    if road.weather:
        return _typed(profile, road.weather, "typed")
    if profile.lat_deg is not None:
        return _from_latitude(profile, profile.lat_deg, day_of_year, road.odds, usual)
    mild = Weather(
        from_km=0, day_high_c=usual.default_day_high_c, night_low_c=usual.default_night_low_c,
        humidity_pct=usual.default_humidity_pct,
    )  # fmt: skip
    return _typed(profile, (mild,), "default")


def months_at(profile: Profile, road: Road, km: float) -> tuple[MonthNormals, ...]:
    """The normals of a place on the road, at the height of the road there; spreads not known are the usual ones."""
    here = profile.at(km)
    middle = np.cumsum(normals.DAYS) - normals.DAYS / 2
    if stations := stations_of(profile, road):
        weights = _weights(here, stations)
        table = np.sum([w[0] * normals.table_of(s.months) for s, w in zip(stations, weights, strict=True)], axis=0)
        base_m = float(_heights(profile, stations) @ weights[:, 0])
        table[:2] -= LAPSE_K_PER_M * (float(here.elevation_m[0]) - base_m) if here.has_heights else 0.0
        return tuple(MonthNormals(**dict(zip(normals.FIGURES, column, strict=True))) for column in table.T.tolist())
    months = []
    for day in middle:
        weather = along(here, road, dt.date(2001, 1, 1), np.array([day]))
        high, low = float(weather.mean_max_c[0]), float(weather.mean_min_c[0])
        months.append(MonthNormals(mean_max_c=high, mean_min_c=low, humidity_pct=float(weather.humidity_pct[0])))
    return tuple(months)


def _from_stations(profile: Profile, stations: tuple[Station, ...], day_of_year: Array, odds: float, source: Source) -> Climate:
    """Nearest stations weighed by distance, each corrected to the height of the road."""
    weights = _weights(profile, stations)
    passed = np.flatnonzero(np.diff(day_of_year, prepend=np.nan))
    days = day_of_year[passed]
    tables = np.array([normals.table_of(station.months) for station in stations])
    by_day = np.array([[normals.smooth_year(days, row) for row in table] for table in tables])
    figures = np.concatenate([by_day[:, :, i].T @ part for i, part in enumerate(np.split(weights, passed[1:], axis=1))], axis=1)
    base_m = _heights(profile, stations) @ weights
    mean_max, mean_min, spread_max, spread_min, rain_days, humidity, wind = figures
    cooling = LAPSE_K_PER_M * (profile.elevation_m - base_m) if profile.has_heights else 0.0
    width = np.array([station.width_k for station in stations]) @ weights
    return Climate(
        day_high_c=exceeded(mean_max, np.hypot(spread_max, width), odds) - cooling,
        night_low_c=exceeded(mean_min, -np.hypot(spread_min, width), odds) - cooling,
        mean_max_c=mean_max - cooling,
        mean_min_c=mean_min - cooling,
        spread_min_k=spread_min,
        width_k=width,
        humidity_pct=np.clip(humidity, 0, 100),
        rain_chance=np.clip(rain_days / (normals.YEAR / 12), 0, 1),
        wind_ms=np.maximum(wind, 0),
        source=source,
    )


@lru_cache(maxsize=4)
def _weights(profile: Profile, stations: tuple[Station, ...]) -> Array:
    """How much each station counts at each point, shape (stations, points), summing to 1.

    Kept for the roads last asked for: every change of a tour asks again, and few touch its stations.
    """
    distance = np.array([_distance_km(profile, station) for station in stations])
    if len(stations) > STATIONS_WEIGHED:
        furthest = np.partition(distance, STATIONS_WEIGHED - 1, axis=0)[STATIONS_WEIGHED - 1]
        distance = np.where(distance <= furthest, distance, np.inf)
    weight = 1 / np.maximum(distance, NEAREST_KM) ** 2
    return np.asarray(weight / weight.sum(axis=0))


@lru_cache(maxsize=4)
def _heights(profile: Profile, stations: tuple[Station, ...]) -> Array:
    """How high each station lies, where nobody said it as high as the road nearest to it, shape (stations,) [m]."""
    road_m = profile.elevation_m if profile.has_heights else np.zeros(profile.km.size)
    nearest = (road_m[int(np.argmin(_distance_km(profile, station)))] for station in stations)
    return np.array([near if s.elevation_m is None else s.elevation_m for s, near in zip(stations, nearest, strict=True)])


def _distance_km(profile: Profile, station: Station) -> Array:
    if station.at_km is not None or profile.lat_deg is None or profile.lon_deg is None:
        return np.abs(profile.km - (station.at_km or 0.0))
    assert station.lat_deg is not None
    assert station.lon_deg is not None
    return profile.distance_to(station.lat_deg, station.lon_deg)


def _typed(profile: Profile, weather: Sequence[Weather], source: Source) -> Climate:
    stretches = sorted(weather, key=lambda w: w.from_km)
    index = np.clip(np.searchsorted([w.from_km for w in stretches], profile.km, side="right") - 1, 0, None)

    def figures(name: str) -> Array:
        return np.array([float(getattr(w, name)) for w in stretches])[index]

    cooling = LAPSE_K_PER_M * (profile.elevation_m - figures("at_elevation_m")) if profile.has_heights else 0.0
    high, low = figures("day_high_c") - cooling, figures("night_low_c") - cooling
    unknown = np.zeros(profile.km.size)
    return Climate(high, low, high, low, unknown, unknown, figures("humidity_pct"), unknown, unknown, source)


def _from_latitude(profile: Profile, lat_deg: Array, day_of_year: Array, odds: float, usual: Practice) -> Climate:
    """A rough default with a wide range: annual mean by latitude, season by date, height by the lapse rate."""
    sine = np.sin(np.radians(lat_deg))
    yearly = NORTH_MEAN_C - NORTH_TILT_K * (3 * sine**2 - 1) / 2
    season = -SEASON_K_PER_DEGREE * lat_deg * np.cos(2 * np.pi * (day_of_year - COLDEST_DAY) / normals.YEAR)
    mean = yearly + season - (LAPSE_K_PER_M * profile.elevation_m if profile.has_heights else 0.0)
    high, low = mean + DAILY_SWING_K / 2, mean - DAILY_SWING_K / 2
    nothing = np.zeros(profile.km.size)
    return Climate(
        day_high_c=exceeded(high, ROUGH_SPREAD_K, odds),
        night_low_c=exceeded(low, -ROUGH_SPREAD_K, odds),
        mean_max_c=high,
        mean_min_c=low,
        spread_min_k=np.full(profile.km.size, ROUGH_SPREAD_K),
        width_k=nothing,
        humidity_pct=np.full(profile.km.size, usual.default_humidity_pct),
        rain_chance=nothing,
        wind_ms=nothing,
        source="latitude",
    )
