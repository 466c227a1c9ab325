"""When to go: each start as the whole tour would tell it, and the road from its other end."""

import itertools

import numpy as np
import pytest

from omnifer.core.assess import assess, profile_of
from omnifer.core.itinerary import days_of
from omnifer.core.model.road import DayCut, MonthNormals, Station, Weather
from omnifer.core.road.profile import from_track
from omnifer.core.season import APART_D, STARTS, season_of, turned
from omnifer.core.voyage import begun_on, play
from omnifer.formats.tracks import reverse
from tests.core.test_road import stop, straight

HOT = Weather(from_km=0, day_high_c=30, night_low_c=12)


def months(warmest=6):
    """A year whose means swing by twenty degrees, rainy in winter."""
    swing = [10 * np.cos(2 * np.pi * (m - warmest) / 12) for m in range(12)]
    return tuple(MonthNormals(mean_max_c=18 + s, mean_min_c=6 + s, rain_days=10 - s / 2) for s in swing)


def tour():
    """Ten days by distance, so that no date changes where they end."""
    made = straight(
        600,
        (stop(150, water="reliable", shop="full"), stop(400, water="seasonal", dry_months=(7, 8)), stop(450, water="reliable")),
    )
    stations = tuple(Station(id=f"s{km}", name="S", at_km=km, elevation_m=0, months=months()) for km in (100, 300, 500))
    cut = DayCut(by="distance", distance_km=60, to_stops=False)
    road = made.road.model_copy(update={"cut": cut, "stations": stations})
    return made.model_copy(update={"road": road})


def test_each_start_is_what_the_whole_tour_of_that_date_tells():
    here = tour()
    profile = profile_of(here)
    season = season_of(here, profile)
    planned = [start for start in season.starts if start.way == "as_planned"]
    assert [(b.start_date - a.start_date).days for a, b in itertools.pairwise(planned)] == [APART_D] * (STARTS - 1)
    for start in planned[::5]:
        whole = assess(here.model_copy(update={"start_date": start.start_date}), profile)
        assert len(whole.days) == 10
        assert start.coldest_night_c == whole.road.coldest_night_c
        assert start.hottest_c == max(day.day_high_c for day in whole.days)
        assert start.wet_days == pytest.approx(sum(day.rain_chance for day in whole.days), abs=0.06)
        assert start.dark_days == sum(day.dark for day in whole.days)
        water = max(gap.need for gap in whole.gaps if gap.supply == "water")
        assert start.most_water_l == pytest.approx(water, rel=0.03)  # the pace in other wind and air is left out, and said so


def test_summer_and_winter_are_where_they_are():
    starts = [start for start in season_of(tour(), profile_of(tour())).starts if start.way == "as_planned"]
    coldest, hottest = min(starts, key=lambda s: s.coldest_night_c), max(starts, key=lambda s: s.hottest_c)
    assert coldest.start_date.month in (12, 1)
    assert hottest.start_date.month in (6, 7)
    dry = [start.most_water_l for start in starts if start.start_date.month == 7]
    assert min(dry) > max(
        start.most_water_l for start in starts if start.start_date.month in (1, 2, 3)
    )  # the seasonal source is dry


def test_begun_on_its_own_date_a_voyage_stays_what_it_was():
    here = tour()
    voyage = play(here, profile_of(here))
    assert days_of(here, begun_on(voyage, here)) == days_of(here, voyage)


def test_the_other_way_is_the_road_from_its_other_end():
    here = tour()
    profile = profile_of(here)
    other, back = turned(here, profile)
    again = from_track(reverse(here.track))
    assert np.abs(back.elevation_m - again.elevation_m).max() < 1
    assert np.abs(back.km - again.km).max() < 0.01
    assert [s.at_km for s in other.road.stops] == pytest.approx(sorted(600 - s.at_km for s in here.road.stops), abs=0.5)


def test_typed_weather_is_said_to_be_the_same_all_year():
    here = tour()
    assert "weather" not in season_of(here, profile_of(here)).leaves_out[0]
    typed = here.model_copy(update={"road": here.road.model_copy(update={"stations": (), "weather": (HOT,)})})
    season = season_of(typed, profile_of(typed))
    assert "same on every date" in season.leaves_out[0]
    assert len({start.hottest_c for start in season.starts}) == 1


def test_nothing_is_told_without_a_road_or_riders():
    with pytest.raises(ValueError, match="nobody rides"):
        season_of(tour().model_copy(update={"riders": ()}), profile_of(tour()))
