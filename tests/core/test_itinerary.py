"""What must hold of any itinerary, whatever the stops, nights, ferries and shops; and what the sample must show."""

import datetime as dt
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.quantities import Figure, Text
from omnifer.core.model.road import DayCut, Night, Road, Stop, SurfaceStretch, Track, Transfer
from omnifer.core.model.tour import Tour
from omnifer.core.sentence import clock, hours, kg, km, say, share
from omnifer.core.voyage import play
from tests.conftest import small_tour, thing
from tests.core.test_road import straight

kilometres = st.floats(0, 240).map(lambda v: round(v, 1))
stops = st.builds(
    Stop,
    id=st.uuids().map(lambda u: f"s{u.hex[:12]}"),
    name=st.just("Place"),
    at_km=kilometres,
    water=st.sampled_from(["reliable", "seasonal", "unsure", "none"]),
    dry_months=st.sampled_from([(), (5,), (6,)]),
    shop=st.sampled_from(["full", "basic", "snacks", "none"]),
    closed_weekdays=st.sampled_from([(), (0,), (2,), (6, 0)]),
    opens_h=st.sampled_from([None, 9.0]),
    closes_h=st.sampled_from([None, 12.5, 18.0]),
    shelter=st.sampled_from(["none", "site", "room"]),
)
roads = st.builds(
    Road,
    cut=st.builds(
        DayCut,
        by=st.sampled_from(["hours", "distance"]),
        hours=st.floats(2, 9),
        distance_km=st.floats(20, 150),
        to_stops=st.booleans(),
    ),
    stops=st.lists(stops, max_size=10).map(tuple),
    nights=st.lists(st.builds(Night, at_km=kilometres, rest_days=st.integers(0, 2)), max_size=3).map(tuple),
    surfaces=st.sampled_from([(), (SurfaceStretch(from_km=10, to_km=60, surface="gravel"),)]),
    transfers=st.sampled_from([(), (Transfer(from_km=100, to_km=130, by="ferry", hours=3),)]),
)


def rolling(road: Road) -> Tour:
    """240 km over hills of 300 m, with the given road on it."""
    along = np.linspace(0, 240, 900)
    heights = 500 + 150 * np.sin(along / 7) + 40 * np.sin(along / 1.7)
    track = Track(
        lat_deg=tuple((40 + along / 111.0).tolist()),
        lon_deg=(15.0,) * along.size,
        elevation_m=tuple(np.round(heights, 1).tolist()),
    )
    bottles = thing("bottle", 0.1, 0.9, holds_water_l=0.75, count=4)
    return small_tour(bottles, thing("tent", 2.4, 8), track=track, road=road, start_date=dt.date(2027, 5, 3))


def assessed(road: Road) -> tuple[Tour, Assessment]:
    tour = rolling(road)
    return tour, assess(tour, profile_of(tour))


@settings(max_examples=12, deadline=None)
@given(roads)
def test_days_follow_each_other_without_gap_in_place_or_time(road):
    tour, found = assessed(road)
    days = found.days
    assert [d.number for d in days] == list(range(1, len(days) + 1))
    assert [d.date for d in days] == [tour.start_date + dt.timedelta(days=i) for i in range(len(days))]
    assert days[0].from_km == 0
    assert days[-1].to_km == pytest.approx(found.road.length_km, abs=0.01)
    for before, after in pairwise(days):
        assert after.from_km == before.to_km
    for day in days:
        assert day.rest == (day.to_km == day.from_km)
        assert day.distance_km <= day.to_km - day.from_km + 0.06
        assert day.arrive_h >= day.start_h
        assert day.night_low_c <= day.mean_min_c + 0.11
        assert day.sunrise_h < day.sunset_h < day.dusk_h
        assert day.lowest_m <= day.highest_m


@settings(max_examples=12, deadline=None)
@given(roads)
def test_gaps_tile_the_road_and_what_does_not_count_lies_inside(road):
    _, found = assessed(road)
    by_id = {stop.id: stop for stop in road.stops}
    for supply in ("water", "food"):
        gaps = [g for g in found.gaps if g.supply == supply]
        assert gaps[0].from_km == 0
        assert gaps[-1].to_km == pytest.approx(found.road.length_km, abs=0.01)
        for before, after in pairwise(gaps):
            assert after.from_km == before.to_km
        assert sum(g.governs for g in gaps) == 1
        for gap in gaps:
            assert gap.need >= gap.riding - 0.01
            for missed in gap.missed:
                assert gap.from_km < missed.at_km < gap.to_km
                stop = by_id[missed.stop_id]
                assert (stop.water if supply == "water" else stop.shop) != "none"


@settings(max_examples=10, deadline=None)
@given(roads)
def test_stores_are_never_below_nothing_nor_water_beyond_the_vessels(road):
    tour = rolling(road)
    voyage = play(tour, profile_of(tour))
    for name, stock in voyage.stock.items():
        assert (stock >= 0).all()
        assert stock.max() <= voyage.supplies[name].capacity.max() + 1e-9
    assert (np.diff(voyage.hours) >= 0).all()
    moments = [(m.km, m.leaving) for m in voyage.moments]
    assert moments == sorted(moments, key=lambda m: m[0])


@settings(max_examples=6, deadline=None)
@given(roads, st.integers(1, 6))
def test_a_later_start_changes_dates_and_not_the_road(road, shift):
    tour = rolling(road)
    later = tour.model_copy(update={"start_date": tour.start_date + dt.timedelta(days=shift)})
    one, two = (assess(t, profile_of(t)) for t in (tour, later))
    assert two.road.length_km == one.road.length_km
    assert two.days[0].date - one.days[0].date == dt.timedelta(days=shift)


@settings(max_examples=6, deadline=None)
@given(roads)
def test_more_supplies_never_ask_for_more(road):
    """The same road with sure water and an open shop at every stop asks for no more of either."""
    _, poor = assessed(road)
    rich_stops = tuple(
        s.model_copy(update={"water": "reliable", "shop": "full", "closed_weekdays": (), "opens_h": None, "closes_h": None})
        for s in road.stops
    )
    fixed = tuple(Night(at_km=d.to_km) for d in poor.days[:-1] if not d.rest and 0.1 < d.to_km < 239)
    held = road.model_copy(update={"nights": fixed, "cut": DayCut(by="distance", distance_km=500, to_stops=False)})
    _, poor = assessed(held)
    _, rich = assessed(held.model_copy(update={"stops": rich_stops}))
    for supply in ("water", "food"):
        need = [max(g.need for g in a.gaps if g.supply == supply) for a in (poor, rich)]
        assert need[1] <= need[0] + 0.05


def test_an_empty_road_or_a_night_at_its_very_end_changes_nothing():
    plain = assess(straight(100), profile_of(straight(100)))
    marked = straight(100, nights=(Night(at_km=0), Night(at_km=100), Night(at_km=400, rest_days=3)))
    assert assess(marked, profile_of(marked)).days == plain.days


def test_the_sample_shows_what_it_must(sample, sample_road):
    """A closing day, a seasonal spring, a day that ends in the dark, frost at the pass, heat, gravel, a ferry, a rest."""
    found = assess(sample, sample_road)
    kinds = {f.kind for f in found.findings}
    assert {"water_gap", "shop_shut", "dark_day", "cold_sleep", "hot_day", "not_dry", "on_shelf"} <= kinds
    assert min(d.night_low_c for d in found.days) < -5
    assert max(d.highest_m for d in found.days) > 3500
    assert any(d.rest for d in found.days)
    assert any(d.transfer_hours > 1 for d in found.days)
    missed = {m.why.words for g in found.gaps for m in g.missed}
    assert {"dry in {month}", "not sure", "closed on Wednesdays"} <= missed
    assert found.climate.source == "stations"
    assert 38 <= len(found.days) <= 45
    assert 2590 < found.road.length_km < 2610


@pytest.mark.parametrize(("hour", "text"), [(0, "00:00"), (8.5, "08:30"), (18.766, "18:46"), (23.999, "00:00"), (25.25, "01:15")])
def test_hours_read_as_a_clock(hour, text):
    assert clock(hour) == text


def test_sentences_read_in_metric_units():
    text = say(
        "{who} carries {mass} for {far}, {part} of it {long}, on {grade}",
        who="Ada", mass=kg(4.06), far=km(120.4), part=share(0.333), long=hours(2.25), grade=Figure(value=0.075, quantity="grade"),
    )  # fmt: skip
    assert text.metric() == "Ada carries 4.1 kg for 120 km, 33 % of it 2.2 h, on 8 %"
    assert Text(words="plain").metric() == "plain"
