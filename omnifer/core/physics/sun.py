"""Sunrise, sunset and civil twilight, and what the sun gives under a clear sky."""

import datetime as dt
import math

import numpy as np
from numpy.typing import ArrayLike, NDArray

SUNRISE_ZENITH_DEG = 90.833
"""Refraction 34' and the sun's half diameter 16'."""
CIVIL_ZENITH_DEG = 96.0


def sun_event_hour(date: dt.date, lat_deg: float, lon_deg: float, zenith_deg: float, rising: bool) -> float | None:
    """Hour of the local solar day at which the sun stands at a zenith angle, as UTC hours of `date` [h].

    May be below 0 or above 24 far from Greenwich. None where the sun does not reach the angle (polar day or night).
    Good to about 15 s at a free horizon; hills and haze move it by minutes.

    Parameters
    ----------
    date : datetime.date
    lat_deg, lon_deg : float
        North and east positive [°].
    zenith_deg : float
        90.833 for sunrise and sunset, 96 for civil twilight [°].
    rising : bool

    References
    ----------
    NOAA solar calculation equations; Meeus, Astronomical Algorithms (low-precision sun); from memory, checked against pvlib.
    """
    midnight = date.toordinal() + 1721424.5
    lat = math.radians(lat_deg)
    hour = 12 - lon_deg / 15
    for _ in range(5):
        equation_min, declination = _sun((midnight + hour / 24 - 2451545) / 36525)
        cosine = math.cos(math.radians(zenith_deg)) / (math.cos(lat) * math.cos(declination)) - math.tan(lat) * math.tan(
            declination
        )
        if abs(cosine) > 1:
            return None
        angle = math.degrees(math.acos(cosine)) / 15
        hour = 12 - lon_deg / 15 - equation_min / 60 + (-angle if rising else angle)
    return hour


def stays_up(date: dt.date, lat_deg: float) -> bool:
    """Whether a sun that does not cross the horizon on a date stays above it all day; else it stays below."""
    _, declination = _sun((date.toordinal() + 1721424.5 + 0.5 - 2451545) / 36525)
    return declination * lat_deg > 0


def declination(date: dt.date) -> float:
    """Of the sun at noon of a date, north positive [rad]; as `sun_event_hour` has it."""
    return _sun((date.toordinal() + 1721424.5 + 0.5 - 2451545) / 36525)[1]


def height_sine(lat_deg: ArrayLike, declination_rad: ArrayLike, solar_hour: ArrayLike) -> NDArray[np.float64]:
    """Sine of the sun's height over the horizon [-].

    Parameters
    ----------
    lat_deg, declination_rad : array_like
        Latitude [°] and declination [rad], north positive.
    solar_hour : array_like
        12 where the sun stands highest [h].

    References
    ----------
    Spherical astronomy.
    """
    lat, angle = np.radians(lat_deg), np.radians(15 * (np.asarray(solar_hour, dtype=float) - 12))
    return np.asarray(np.sin(lat) * np.sin(declination_rad) + np.cos(lat) * np.cos(declination_rad) * np.cos(angle))


def clear_sky(sine: ArrayLike) -> NDArray[np.float64]:
    """Sun and sky on level ground under a clear sky [W/m²].

    Parameters
    ----------
    sine : array_like
        Of the sun's height [-]; nothing below the horizon.

    References
    ----------
    Haurwitz (1945), Insolation in relation to cloudiness and cloud density, J. Meteorology 2:154-166,
    doi:10.1175/1520-0469(1945)002<0154:IIRTCA>2.0.CO;2; from memory, checked against pvlib. Within 15 % of Ineichen's model.
    """
    up = np.maximum(np.asarray(sine, dtype=float), 1e-6)
    return np.asarray(np.where(np.asarray(sine) > 0, 1098 * up * np.exp(-0.059 / up), 0.0))


def uv_index(sine: ArrayLike, ozone_du: ArrayLike, height_m: ArrayLike, more_a_km: float) -> NDArray[np.float64]:
    """UV index under a clear sky [-].

    Parameters
    ----------
    sine : array_like
        Of the sun's height [-]; nothing below the horizon.
    ozone_du : array_like
        Ozone overhead [Dobson units].
    height_m : array_like
        Over the sea [m].
    more_a_km : float
        Part more for each kilometre of height [1/km].

    References
    ----------
    Madronich (2007), Analytic formula for the clear-sky UV index, Photochem. Photobiol. 83:1537-1538,
    doi:10.1111/j.1751-1097.2007.00200.x: 12.5 at the zenith under 300 Dobson units; from memory.
    """
    up = np.maximum(np.asarray(sine, dtype=float), 0.0)
    thin = (np.asarray(ozone_du, dtype=float) / 300.0) ** -1.23
    return np.asarray(12.5 * up**2.42 * thin * (1 + more_a_km * np.maximum(np.asarray(height_m, dtype=float), 0.0) / 1000))


def _sun(century: float) -> tuple[float, float]:
    """Equation of time [min] and declination [rad] at a Julian century from J2000."""
    t = century
    longitude = (280.46646 + t * (36000.76983 + t * 0.0003032)) % 360
    anomaly = math.radians(357.52911 + t * (35999.05029 - 0.0001537 * t))
    eccentricity = 0.016708634 - t * (0.000042037 + 0.0000001267 * t)
    centre = (
        math.sin(anomaly) * (1.914602 - t * (0.004817 + 0.000014 * t))
        + math.sin(2 * anomaly) * (0.019993 - 0.000101 * t)
        + math.sin(3 * anomaly) * 0.000289
    )
    node = math.radians(125.04 - 1934.136 * t)
    apparent = math.radians(longitude + centre - 0.00569 - 0.00478 * math.sin(node))
    tilt_deg = 23 + (26 + (21.448 - t * (46.815 + t * (0.00059 - t * 0.001813))) / 60) / 60
    tilt = math.radians(tilt_deg + 0.00256 * math.cos(node))
    y = math.tan(tilt / 2) ** 2
    mean = math.radians(longitude)
    equation = (
        y * math.sin(2 * mean)
        - 2 * eccentricity * math.sin(anomaly)
        + 4 * eccentricity * y * math.sin(anomaly) * math.cos(2 * mean)
        - 0.5 * y * y * math.sin(4 * mean)
        - 1.25 * eccentricity**2 * math.sin(2 * anomaly)
    )
    return 4 * math.degrees(equation), math.asin(math.sin(tilt) * math.sin(apparent))
