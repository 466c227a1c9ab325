"""The wall clock: zones along the road, summer time, and the light of each day."""

import datetime as dt
from zoneinfo import ZoneInfo

import ephem
import numpy as np
import pytest
from pydantic import ValidationError

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.road import DayCut, Road, Stop, Track, ZoneStretch
from omnifer.core.model.tour import Tour
from omnifer.core.road import light, zones
from tests.conftest import small_tour
from tests.core.offered import offers


def going(lat: tuple[float, float], lon: tuple[float, float], start: dt.date, **road: object) -> Tour:
    points = 300
    track = Track(
        lat_deg=tuple(np.linspace(*lat, points).tolist()), lon_deg=tuple(((np.linspace(*lon, points) + 180) % 360 - 180).tolist()),
        elevation_m=(100.0,) * points,
    )  # fmt: skip
    return small_tour(track=track, start_date=start, road=Road(**({"cut": DayCut(by="distance", distance_km=70)} | road)))


def along(*where_and_when: object, **road: object) -> Assessment:
    tour = going(*where_and_when, **road)
    return assess(tour, profile_of(tour))


def test_summer_evenings_are_those_of_the_wall_clock():
    """42.9 N, 8.5 W on 21 June: sunrise 6:58, sunset 22:17 of Central European Summer Time (NOAA calculator, from memory, to
    five minutes); fifteen degrees an hour would say 20:17."""
    day = along((42.9, 43.4), (-8.5, -8.5), dt.date(2027, 6, 21)).days[0]
    assert (day.sunrise_h, day.sunset_h) == (pytest.approx(6.97, abs=0.1), pytest.approx(22.28, abs=0.1))


def test_a_border_of_zones_moves_the_clock_and_not_the_ride():
    """Due west over the Portuguese border, where clocks stand an hour earlier: the day arrives an hour earlier by them."""
    free = along((41.8, 41.8), (-6.0, -6.8), dt.date(2027, 5, 3))
    assert [z.zone for z in free.zones] == ["Europe/Madrid", "Europe/Lisbon"]
    assert 20 < free.zones[1].from_km < 60
    one = along((41.8, 41.8), (-6.0, -6.8), dt.date(2027, 5, 3), zones=(ZoneStretch(from_km=0, zone="Europe/Madrid"),))
    assert one.days[0].arrive_h - free.days[0].arrive_h == pytest.approx(1, abs=0.01)
    assert one.days[0].riding_hours == pytest.approx(free.days[0].riding_hours, abs=0.05)


def test_opening_hours_are_asked_by_the_clock_of_the_shop():
    shop = Stop(id="s", name="Mill", at_km=60, shop="full", opens_h=8, closes_h=11.5)
    shut, still_open = (
        along((41.8, 41.8), (-6.0, -6.8), dt.date(2027, 5, 3), stops=(shop,), zones=(ZoneStretch(from_km=0, zone="Europe/Madrid"), *more))
        for more in ((), (ZoneStretch(from_km=50, zone="Etc/GMT+2"),))
    )  # fmt: skip
    assert shut.passings[0].hour > 11.5 > still_open.passings[0].hour
    assert shut.passings[0].shop_shut is not None
    assert still_open.passings[0].shop_shut is None


def test_zones_follow_the_season():
    assert [zones.offset_h("Europe/Zurich", dt.date(2027, m, 1)) for m in (1, 7)] == [1, 2]
    assert zones.offset_h("Asia/Kolkata", dt.date(2027, 7, 1)) == 5.5
    with pytest.raises(ValidationError, match="no time zone"):
        ZoneStretch(from_km=0, zone="Middle/Earth")


@pytest.mark.parametrize(
    ("month", "sun", "hours", "words"), [(6, "stays_up", 24, None), (12, "stays_down", 0, "On day {day} the sun does not rise.")]
)
def test_polar_day_and_night_are_said_in_words(month, sun, hours, words):
    """70 N at the solstices."""
    found = along((70.0, 70.4), (25.0, 25.0), dt.date(2027, month, 21))
    assert (found.days[0].sun, found.days[0].daylight_hours) == (sun, hours)
    assert [f.sentence.words for f in found.findings if f.kind == "dark_day"] == ([words] if words else [])


def test_who_sets_out_before_sunrise_is_told():
    early = (50.0, 50.5), (10.0, 10.0), dt.date(2027, 12, 1)
    found = along(*early, start_hour=6)
    told = next(f for f in found.findings if f.kind == "dark_day")
    assert (found.days[0].starts_dark, found.days[0].dark) == (True, False)
    assert told.sentence.words.startswith("Day {day} begins")
    hour = offers(going(*early, start_hour=6), told)[0].starts[0].hour
    assert (hour * 4) % 1 == 0
    assert 0 <= hour - found.days[0].sunrise_h < 0.25


def test_no_place_no_sun():
    typed = small_tour()
    found = assess(typed, profile_of(typed))
    assert found.zones == []
    assert {day.sun for day in found.days} == {None}
    assert light.light_of(dt.date(2027, 5, 1), None, 0).for_course() == (6, 18)


@pytest.mark.parametrize(("lat", "lon", "zone"), [(-44.0, -176.5, "Pacific/Chatham"), (-21.1, -175.2, "Pacific/Tongatapu"), (47.0, 8.0, "Europe/Zurich")])  # fmt: skip
def test_the_sun_of_a_date_is_that_of_its_clock(lat, lon, zone):
    """Sunrise and sunset on the calendar day of the place's own clock, by PyEphem, also east of the date line with western clocks."""
    day = dt.date(2027, 1, 15)
    begins = dt.datetime.combine(day, dt.time(), ZoneInfo(zone)).astimezone(dt.UTC)
    place = ephem.Observer()
    place.lat, place.lon, place.pressure, place.horizon = str(lat), str(lon), 0, "-0:50"
    place.date = begins.replace(tzinfo=None)
    rise, fall = place.next_rising(ephem.Sun(), use_center=True), place.next_setting(ephem.Sun(), use_center=True)
    found = light.light_of(day, (lat, lon), zones.offset_h(zone, day))
    for told, event in ((found.sunrise_h, rise), (found.sunset_h, fall)):
        hours = (event.datetime().replace(tzinfo=dt.UTC) - begins).total_seconds() / 3600
        assert 0 < told < 24
        assert told == pytest.approx(hours, abs=0.01)


def test_water_and_arrival_do_not_leap_at_the_date_line():
    """The same road on both sides of the line, both by the clock of 180 degrees: the same sun, the same water; and across it nobody
    arrives before setting out."""
    clock = (ZoneStretch(from_km=0, zone="Etc/GMT-12"),)
    west, east = (along((-21.0, -21.5), (lon, lon), dt.date(2027, 1, 15), zones=clock) for lon in (179.8, 180.2))
    litres = [sum(g.riding for g in found.gaps if g.supply == "water") for found in (west, east)]
    assert litres[1] == pytest.approx(litres[0], rel=0.01)
    zones = (ZoneStretch(from_km=0, zone="Pacific/Tongatapu"), ZoneStretch(from_km=20, zone="Pacific/Pago_Pago"))
    across = along((-16.8, -16.8), (179.8, 180.2), dt.date(2027, 1, 15), zones=zones)
    assert all(day.arrive_h > day.start_h for day in across.days)
