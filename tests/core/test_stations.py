"""Stations that stand in along a road: few, where no own one is near, and none where nothing is known."""

import datetime as dt

import numpy as np
import pytest

from omnifer.core.model.road import MonthNormals, Road, Station, Track, Weather
from omnifer.core.road import climate
from omnifer.core.road.profile import from_track
from omnifer.core.road.stations import EVERY_KM, EVERY_M, stations_of
from omnifer.core.world.cells import heights_at

MAY = dt.date(2027, 5, 1)


def road_over(heights, lon=(16.4, 11.0), lat=48.2, points=1500):
    """A road due west over land, climbing and falling evenly between the heights."""
    along = np.linspace(0, 1, points)
    up = [None] * points if heights is None else np.interp(along, np.linspace(0, 1, len(heights)), heights).tolist()
    lons = np.interp(along, [0, 1], lon).tolist()
    return from_track(Track(lat_deg=(lat,) * points, lon_deg=tuple(lons), elevation_m=tuple(up)))


def own(lat, lon):
    months = (MonthNormals(mean_max_c=11, mean_min_c=1),) * 12
    return Station(id="mine", name="Mine", lat_deg=lat, lon_deg=lon, elevation_m=200, months=months)


def test_they_are_as_few_as_the_road_allows_and_near_every_part_of_it():
    profile = road_over([200, 2000, 200, 2000, 200])
    found = stations_of(profile, Road())
    at = np.array([profile.nearest(s.lat_deg, s.lon_deg)[0] for s in found])
    high = np.array([s.elevation_m for s in found])
    apart = np.maximum(np.abs(at[:, None] - at) / EVERY_KM, np.abs(high[:, None] - high) / EVERY_M)
    assert apart[~np.eye(len(found), dtype=bool)].min() >= 0.99  # rounded heights
    near = (np.abs(profile.km[:, None] - at) < EVERY_KM + 6) & (np.abs(profile.elevation_m[:, None] - high) < EVERY_M + 60)
    assert near.any(axis=1).all()
    assert all(s.name and s.source and s.width_k > 0 for s in found)


def test_own_ones_replace_those_near_and_typed_weather_all():
    profile = road_over([200, 200])
    mine = own(48.2, 16.4)
    found = stations_of(profile, Road(stations=(mine,)))
    assert found[0] == mine
    assert len(found) > 1
    assert min(profile.nearest(s.lat_deg, s.lon_deg)[0] for s in found[1:]) > 100
    assert stations_of(profile, Road(weather=(Weather(from_km=0, day_high_c=20, night_low_c=5),))) == ()
    weather = climate.along(profile, Road(stations=(mine,)), MAY, np.zeros(profile.km.size))
    assert weather.source == "stations"
    assert weather.width_k[0] < 0.1 < weather.width_k[-1]


def test_their_width_goes_into_the_night_to_plan_for():
    profile = road_over([200, 200])
    weather = climate.along(profile, Road(), MAY, np.zeros(profile.km.size))
    assert (weather.source, weather.known, weather.told) == ("grid", True, False)
    z = 1.2816  # of one in ten; any table of the normal distribution
    planned = weather.mean_min_c - z * np.sqrt(weather.spread_min_k**2 + weather.width_k**2)
    assert weather.night_low_c == pytest.approx(planned, abs=0.01)


def test_where_heights_are_missing_they_lie_as_high_as_the_land():
    """The road to Lhasa, 3,650 m: at sea level it would be 24 K warmer."""
    road = road_over(None, lon=(91.2, 91.0), lat=29.65)
    assert not road.has_heights
    assert road.elevation_m.min() > 3500
    assert (road.climb(0, road.km.size, 4.0), np.ptp(road.gradient)) == ((0.0, 0.0), 0)
    found = stations_of(road, Road())
    assert found[0].elevation_m > 3500
    assert found[0].months[0].mean_min_c < -8


def test_a_ferry_at_the_start_keeps_no_station_off_the_coast():
    """From the open North Sea to the land behind Jever: where the track begins nothing is known, where it lands there is."""
    lats, lons = (tuple(np.linspace(*ends, 400).tolist()) for ends in ((54.3, 53.45), (6.9, 8.0)))
    road = from_track(Track(lat_deg=lats, lon_deg=lons, elevation_m=(0.0,) * 400))
    assert np.isnan(heights_at(road.lat_deg[:1], road.lon_deg[:1])).all()
    (station,) = stations_of(road, Road())
    assert road.nearest(station.lat_deg, station.lon_deg)[0] > 5


def test_at_sea_nothing_is_known_but_the_latitude():
    profile = road_over([0, 0], lon=(-41, -40), lat=40)
    assert stations_of(profile, Road()) == ()
    assert climate.along(profile, Road(), MAY, np.zeros(profile.km.size)).source == "latitude"
