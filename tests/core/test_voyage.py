"""Supplies, days and moments: what is on board where."""

import datetime as dt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.road import DayCut, Road, Stop, Track, TypedDay, Weather
from omnifer.core.road import profile as profiles
from omnifer.core.road.climate import along
from omnifer.core.supplies.supply import carried
from tests.conftest import small_tour, thing

amounts = st.lists(st.floats(0, 20), min_size=1, max_size=8)


@given(amounts, st.data())
def test_a_planned_supply_never_runs_out_and_leaves_its_reserve(used, data):
    count = len(used) + 1
    offers = np.array(data.draw(st.lists(st.sampled_from([0.0, 2.0, np.inf]), min_size=count, max_size=count)))
    reserve = np.array(data.draw(st.lists(st.floats(0, 3), min_size=count - 1, max_size=count - 1)))
    plan = carried(offers, np.array(used), reserve)
    assert np.all(plan.arriving[1:] >= reserve - 1e-6)
    assert np.all(plan.leaving[1:] - plan.arriving[1:] <= offers[1:] + 1e-6)


def test_a_basic_shop_shortens_what_the_full_one_must_hand_over():
    """Worked by hand: 5 kg, 5 kg and 4 kg of use; the middle shop sells 3 kg, so the start must carry 7 kg."""
    plan = carried(np.array([np.inf, 3.0, np.inf, 0.0]), np.array([5.0, 5.0, 4.0]), np.zeros(3))
    assert plan.required.tolist() == [7.0, 5.0, 4.0, 0.0]
    assert plan.arriving.tolist() == [0.0, 2.0, 0.0, 0.0]


def test_vessels_limit_what_is_on_board_but_not_what_is_needed():
    plan = carried(np.array([np.inf, 0.0]), np.array([12.0]), np.array([2.0]), capacity=10.0)
    assert plan.required[0] == 14
    assert plan.leaving[0] == 10
    assert plan.arriving[1] == 0


def test_typed_days_keep_their_figures():
    days = (TypedDay(distance_km=62.5, ascent_m=900, highest_m=700, lowest_m=150), TypedDay(distance_km=40, ascent_m=0))
    tour = small_tour(road=Road(typed_days=days))
    found = assess(tour, profile_of(tour)).days
    assert [(d.distance_km, d.ascent_m) for d in found] == [(62.5, 900), (40, 0)]
    assert found[0].highest_m == pytest.approx(700, abs=5)
    assert found[0].riding_hours / 62.5 > found[1].riding_hours / 40


def _straight(km: float, stops: tuple[Stop, ...] = (), **road: object):
    points = 400
    lat = tuple((np.arange(points) * km / points / 111.2).tolist())
    track = Track(lat_deg=lat, lon_deg=(0.0,) * points, elevation_m=(100.0,) * points)
    return small_tour(track=track, road=Road(stops=stops, **road))


def _stop(km: float, water: str = "reliable", shop: str = "none") -> Stop:
    return Stop.model_validate({"id": f"s{km:.0f}", "name": f"Place {km:.0f}", "at_km": km, "water": water, "shop": shop})


def test_days_end_at_water_where_it_is_near_and_exactly_where_it_is_not():
    cut = DayCut(by="distance", distance_km=50)
    tour = _straight(160, (_stop(55), _stop(130)), cut=cut)
    ends = [day.to_km for day in assess(tour, profile_of(tour)).days]
    assert ends[0] == pytest.approx(55, abs=0.1)
    assert ends[1] == pytest.approx(105, abs=0.1)
    assert ends[-1] == pytest.approx(160, rel=0.01)


def test_a_seasonal_source_counts_as_none_and_is_named_as_a_chance():
    cut = DayCut(by="distance", distance_km=200)
    dry = _straight(150, (_stop(50, "seasonal"),), cut=cut)
    sure = _straight(150, (_stop(50),), cut=cut)
    one = next(g for g in assess(dry, profile_of(dry)).gaps if g.supply == "water")
    two = next(g for g in assess(sure, profile_of(sure)).gaps if g.supply == "water")
    assert one.to_km > 148
    assert [(m.name, m.why.words) for m in one.missed] == [("Place 50", "may be dry")]
    assert two.to_km == 50
    assert one.need > 2 * two.need


def test_a_dry_camp_needs_its_water_and_a_camp_at_a_source_does_not():
    cut = DayCut(by="distance", distance_km=60, to_stops=False)
    dry, at_source = _straight(110, cut=cut), _straight(110, (_stop(61),), cut=cut)
    with_camp = assess(dry, profile_of(dry)).gaps[0]
    without = assess(at_source, profile_of(at_source)).gaps[0]
    assert (with_camp.nights, with_camp.camp) == (1, 3)
    assert (without.nights, without.camp) == (0, 0)


def test_heat_asks_for_water_and_height_cools():
    cut = DayCut(by="distance", distance_km=200)

    def need(high: float, low: float) -> float:
        tour = _straight(100, cut=cut, weather=(Weather(from_km=0, day_high_c=high, night_low_c=low),))
        return assess(tour, profile_of(tour)).gaps[0].need

    assert need(38, 20) > 1.8 * need(20, 8)
    road = profiles.from_typed_days((TypedDay(distance_km=10, ascent_m=1000, highest_m=1100, lowest_m=100),))
    typed = Road(weather=(Weather(from_km=0, day_high_c=30, night_low_c=10, at_elevation_m=100),))
    climate = along(road, typed, dt.date(2027, 5, 1), np.zeros(road.km.size))
    assert climate.day_high_c[np.argmax(road.elevation_m)] == pytest.approx(30 - 6.5, abs=0.1)


def test_a_heavier_kit_makes_every_day_longer():
    light, heavy = small_tour(thing("one", 1)), small_tour(thing("anvil", 30))
    hours = [assess(t, profile_of(t)).road.riding_hours for t in (light, heavy)]
    assert hours[1] > hours[0]


def test_mass_is_conserved_over_bags_and_days(sample, sample_road):
    """All that rides on the wheels is bikes, bags, things, water and food: at every moment, to the gram."""
    found = assess(sample, sample_road)
    shelf = sum(t.mass_kg * found.shelf.get(t.id, 0) for t in sample.kit)
    kit = sum(t.mass_kg * t.count for t in sample.kit) - shelf
    bare = sum(b.mass_kg + sum(s.mass_kg for s in (*b.supports, *b.carriers)) for b in sample.rig.bikes)
    m = found.moments
    size = len(m.km)
    on_wheels = sum(np.array((b.total_kg * size)[:size]) for b in found.bikes)
    expected = kit + bare + sum(np.array(supply.mass_kg) for supply in m.supplies)
    assert on_wheels == pytest.approx(expected, abs=0.05)
    assert np.array(m.total_kg) == pytest.approx(expected, abs=0.05)


def test_the_moments_walk_the_whole_road_in_order(sample, sample_road):
    m = assess(sample, sample_road).moments
    assert (np.diff(m.km) >= 0).all()
    assert m.km[0] == 0
    assert m.km[-1] == pytest.approx(sample_road.length_km, abs=0.01)
    assert m.total_kg[m.fullest] >= m.total_kg[m.emptiest]


def test_empty_tours_are_assessed_without_complaint():
    tour = small_tour(riders=(), road=Road(), rig={"bikes": ()})
    found = assess(tour, None)
    assert not found.ready
    assert found.findings == []
    nothing = small_tour(road=Road(typed_days=(TypedDay(distance_km=0),)))
    assert profile_of(nothing) is None


def test_a_track_without_length_or_heights():
    here = Track(lat_deg=(1.0, 1.0), lon_deg=(2.0, 2.0), elevation_m=(None, None))
    with pytest.raises(ValueError, match="no length"):
        profiles.from_track(here)
    flat = profiles.from_track(Track(lat_deg=(1.0, 1.1), lon_deg=(2.0, 2.0), elevation_m=(None, None)))
    assert not flat.has_heights
    dateline = profiles.from_track(Track(lat_deg=(0.0, 0.0), lon_deg=(179.99, -179.99), elevation_m=(1.0, 1.0)))
    assert dateline.length_km == pytest.approx(2.226, abs=0.001)
    assert abs(dateline.lon_deg).max() <= 180
