"""Supplies, days and moments: what is on board where."""

import datetime as dt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from omnifer.core.assess import assess, profile_of
from omnifer.core.model import practice
from omnifer.core.model.chances import Chances
from omnifer.core.model.load import FoodShare, Load, Placement
from omnifer.core.model.part import BikePart
from omnifer.core.model.people import Rider
from omnifer.core.model.rig import Rig
from omnifer.core.model.road import (
    DayCut,
    MonthNormals,
    Night,
    Road,
    Station,
    Stop,
    SurfaceStretch,
    Track,
    TypedDay,
    Weather,
)
from omnifer.core.model.roles import Mat, SleepingBag, Stove
from omnifer.core.model.stores import Stores
from omnifer.core.rig.catalogue import carrier, support
from omnifer.core.road import profile as profiles
from omnifer.core.road.climate import along
from omnifer.core.sensitivity import effect_of
from omnifer.core.supplies.carried import carried
from tests.conftest import pannier_bike, small_tour, thing

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
    """All that rides on the wheels is bikes, bags, the things that are there and not worn, and what is left of water, food, fuel
    and small things: at every moment, to the gram."""
    found = assess(sample, sample_road)
    km = np.array(found.moments.km)
    where = {t.id: t.where for t in sample.kit}

    def there(thing):
        places = where[thing.inside or thing.id]
        if not places:
            return np.ones(km.size)
        ends = [place.from_km for place in places[1:]] + [9999.0]
        on_bike = [(place.from_km, end) for place, end in zip(places, ends, strict=True) if place.how in ("packed", "fixed")]
        return np.array([any(a <= x <= b for a, b in on_bike) for x in km], dtype=float)

    kit = sum(t.mass_kg * (t.count - found.shelf.get(t.id, 0)) * there(t) for t in sample.kit)
    roles = {t.id: t.role for t in sample.kit}
    for lane in found.stores.lanes:
        if lane.group in ("fuel", "small"):
            per_unit = 1.0 if lane.group == "fuel" else roles[lane.key].content_kg / roles[lane.key].holds
            kit = kit + per_unit * np.array((lane.stock * km.size)[: km.size])
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


def test_a_stop_off_the_road_costs_its_way_or_does_not_count():
    """Flat: 10 km there and back of 150 take a fifteenth more, and half of it is ridden before the stop."""
    cut = DayCut(by="distance", distance_km=200)

    def with_well(**of: object):
        tour = _straight(150, (_stop(50).model_copy(update={"detour_km": 5.0, **of}),), cut=cut)
        return assess(tour, profile_of(tour))

    far, ridden = with_well(), with_well(take_detour=True)
    assert [g.to_km > 148 for g in far.gaps if g.supply == "water"] == [True]
    assert far.passings == []
    assert next(g.to_km for g in ridden.gaps if g.supply == "water") == 50
    assert ridden.road.riding_hours / far.road.riding_hours == pytest.approx(160 / 150, rel=0.01)
    assert (ridden.days[0].detour_km, ridden.days[0].distance_km) == (10, pytest.approx(150, rel=0.01))
    before = next(g for g in ridden.gaps if g.supply == "water").hours
    assert before == pytest.approx(ridden.road.riding_hours * 55 / 160, rel=0.02)
    food = [next(g for g in a.gaps if g.supply == "food").need for a in (far, ridden)]
    assert food[1] > food[0] + 0.05
    assert with_well(take_detour=True, detour_km=0.8).road.riding_hours == with_well(detour_km=0.8).road.riding_hours
    assert with_well(take_detour=False, detour_km=0.8).passings == []


@pytest.mark.parametrize("off_km", [-0.4, -1e-9, 0.0, 1e-9, 0.3])
def test_a_night_at_a_shop_is_that_shop_and_rest_days_eat_there(off_km):
    """Whatever the rounding of the night's kilometre, two rest days at a full shop are neither carried in nor carried on."""

    cut = DayCut(by="distance", distance_km=50, to_stops=False)

    def gaps(rests: int):
        nights = (Night(at_km=50 + off_km, rest_days=rests),)
        tour = _straight(150, (_stop(50, shop="full"),), cut=cut, nights=nights)
        found = assess(tour, profile_of(tour))
        assert found.days[0].to_km == 50
        assert found.days[0].night_at == "Place 50"
        return [(g.to_km, g.nights, g.need) for g in found.gaps if g.supply == "food"]

    moving, resting = gaps(0), gaps(2)
    assert [g[:2] for g in moving] == [g[:2] for g in resting]
    # Half a day's reserve is of the mean day, and rest days eat less: nothing else differs.
    assert [r[2] - m[2] for m, r in zip(moving, resting, strict=True)] == [pytest.approx(-0.11, abs=0.08)] * 2


@pytest.mark.parametrize("short_km", [0.085, 0.4])
def test_a_stop_just_before_the_end_is_the_end(short_km):
    cut = DayCut(by="distance", distance_km=50)
    length = profile_of(_straight(100)).length_km
    tour = _straight(100, (Stop(id="end", name="The quay", at_km=length - short_km, water="reliable", shelter="room"),), cut=cut)
    found = assess(tour, profile_of(tour))
    assert found.days[-1].distance_km > 10
    assert found.days[-1].night_at == "The quay"


def test_what_is_left_over_is_told_apart_from_what_the_next_stretch_takes():
    """A basic shop in the middle of ten days: what it cannot sell is carried past it, and is no reserve."""
    day = TypedDay(distance_km=60, highest_m=100, lowest_m=100)
    tour = small_tour(road=Road(typed_days=(day,) * 10, stops=(Stop(id="s", name="Mill", at_km=300, shop="basic"),)))
    first, second = (g for g in assess(tour, profile_of(tour)).gaps if g.supply == "food")
    daily = (first.riding + second.riding) / 10
    assert (first.reserve, second.reserve) == (pytest.approx(daily / 2, rel=0.01),) * 2
    assert (first.onward, second.onward) == (pytest.approx(3 * daily, rel=0.02), 0)
    assert first.need == pytest.approx(first.riding + first.reserve + first.onward, abs=0.02)


def test_bags_beside_the_wheels_cost_headwind():
    """0.068 m² more of 0.55 in a wind of 6 m/s: slower by more than the kilos of empty bags alone would make it."""

    fronts = [carrier("front_pannier", s, "low", s[6:]).model_dump() for s in ("front-left", "front-right")]
    bike = pannier_bike()
    four = pannier_bike(
        supports=[*(s.model_dump() for s in bike.supports), support("front_rack", "low").model_dump()],
        carriers=[*(c.model_dump() for c in bike.carriers), *fronts],
    )
    smooth = [c | {"drag_area_m2": 0.0} for c in four.model_dump()["carriers"]]
    tour = _straight(80)
    hours = [
        assess(tour.model_copy(update={"rig": Rig(bikes=(b,))}), profile_of(tour)).road.riding_hours
        for b in (four.model_validate(four.model_dump() | {"carriers": smooth}), four)
    ]
    assert 1.02 < hours[1] / hours[0] < 1.06


def test_own_values_take_the_place_of_defaults_and_are_kept_within_reason():

    tour = small_tour(own_values={"dry_camp_l": 5.0, "gross_efficiency": 0.2})
    plain = small_tour()
    road = profile_of(tour)
    own, usual = (next(g for g in assess(t, road).gaps if g.supply == "water").camp for t in (tour, plain))
    assert (usual, own) == (3, 5)
    told = {a.key: a for a in assess(tour, road).assumptions if a.key}
    assert (told["dry_camp_l"].own, told["dry_camp_l"].set_to, told["dry_camp_l"].usual) == (True, 5, 3)
    assert all(a.low < a.usual < a.high and a.source and a.name for a in told.values())
    for wrong in ({"dry_camp_l": 500}, {"no_such": 1}, {"gross_efficiency": 0}):
        with pytest.raises(ValidationError):
            small_tour(own_values=wrong)
    moved = {m.name: m for m in effect_of(plain, road, "dry_camp_l").figures}["Most water on leaving a place"]
    assert (moved.now - moved.low, moved.high - moved.now) == (pytest.approx(1, abs=0.11),) * 2
    with pytest.raises(KeyError):
        effect_of(plain, road, "no_such")


TRIED_ON = {
    "seasons": "",
    "base": (
        "basic_shop_days default_humidity_pct detour_km dry_day_l gravel_cap gravel_times least_shop_days "
        "morning_wait_h night_near_stop_km rough_asphalt_cap rough_asphalt_times soft_cap soft_times "
    ),
    "windy": "wind_at_rider",
    "bikeless": "drag_area_m2 rolling_resistance",
    "typed": (
        "default_day_high_c default_night_low_c mat_per_1000_km pole_per_1000_km stove_per_1000_km trailer_pin_per_1000_km "
        "trailer_tube_per_1000_km tubeless_per_1000_km"
    ),
    "press": (
        "bank_usable boiled_cook_l boiled_evening breakfast_share charging cloudy_per_rain "
        "coldest_water_c evening_share exchanger_gain food_hot_c fuel_reserve_days fuel_times gas_efficiency "
        "hub_converter hub_slowest_kmh panel_cloudy panel_resting panel_riding plug_stop_h power_reserve_days "
        "power_times press_min_per_l seasonal_reserve snow_c melt_min_per_l simmer_min simmer_kw wind_shielded "
    ),
    "pump": "bottle_frost_c cold_battery petrol_efficiency pump_min_per_l wind_open",
    "gravity": "alcohol_efficiency gravity_min_per_l gravity_wait_min",
    "boiling": "boiled_only_l boiling_min_per_l camp_cooking_l camp_washing_l gas_frost_c",
    "tablets": "tablet_min_per_l tablet_wait_min",
    "cool": "filter_frost_c",
    "craft": (
        "ozone_du uv_per_km uv_protects cold_hands_k seat_hours sweat_l saddle_break_in_km oil_dry_km oil_wax_km oil_wet_km "
        "spokes_look_km look_days hose_per_1000_km cleat_per_1000_km valve_core_per_1000_km"
    ),
}
"""On which of the tours below each default is seen to move something; all others on the first."""
UPWARDS = {"uv_protects", "cold_battery", "filter_frost_c", "food_hot_c", "descent_km", "descent_gradient"}
"""Defaults that are moved to the upper end of their range."""


def _with_stores(base):
    """The same road with every way of cooking, treating and charging, through frost, heat and wind."""
    winter = Station(id="w", name="W", at_km=0, months=(MonthNormals(mean_max_c=9, mean_min_c=-7, wind_ms=6, rain_days=9),) * 12)
    summer = Station(id="s", name="S", at_km=0, months=(MonthNormals(mean_max_c=27, mean_min_c=14, wind_ms=4),) * 12)
    cool = Station(id="c", name="C", at_km=0, months=(MonthNormals(mean_max_c=12, mean_min_c=4.5, wind_ms=4),) * 12)
    electric = (
        thing("phone", role={"does": "device", "wh_a_day": 25, "battery_wh": 6, "navigates": True}),
        thing("bank", role={"does": "bank", "holds_wh": 20, "takes_w": 30}),
        thing("charger", role={"does": "charger", "outputs": 2, "output_w": 10}),
        thing("hub", role={"does": "hub"}), thing("panel", role={"does": "panel", "peak_w": 12}),
        thing("sack", holds_water_l=12), thing("flask", holds_water_l=1),
    )  # fmt: skip
    spring = Stop(id="spring", name="Spring", at_km=45, water="seasonal", dry_months=(1,), treat_water=True)
    plug = Stop(id="plug", name="Plug", at_km=41, services=("plugs",), shop="full", fuels=("gas", "petrol", "alcohol"))
    ways = (
        ("press", "gas", "cook", True, summer), ("pump", "petrol", "boil", False, winter), ("gravity", "alcohol", "none", True, winter),
        ("boiling", "gas", "boil", True, winter), ("tablets", "alcohol", "cook", True, winter), ("pump", "gas", "cook", True, cool),
    )  # fmt: skip
    for by, burns, cooking, shielded, place in ways:
        stove = {"does": "stove", "burns": burns, "shielded": shielded, "exchanger": shielded}
        treats = {"does": "treatment", "by": by, "freezes": True}
        if by == "tablets":
            treats = {"does": "used_up", "unit": "pieces", "holds": 9, "content_kg": 0.01, "rate": 1.3, "per": "litre_treated"}
        vessel = thing("can", role={"does": "fuel_vessel", "burns": burns, "holds_kg": 0.1})
        kit = (*base.kit, *electric, thing("stove", role=stove), thing("treats", role=treats), vessel)
        snow = Stop(id="snow", name="Snow", at_km=139, water="snow")
        inns = [s.model_copy(update={"services": ("meals",)}) for s in base.road.stops]
        road = base.road.model_copy(update={"stations": (place,), "stops": (spring, plug, snow, *inns)})
        stores = Stores(cooking=cooking, washes=False, eat_out=by == "press")
        yield base.model_copy(update={"kit": kit, "road": road, "stores": stores})


def _craft():
    """A long hot road that begins cool and high, on three bikes of three oils."""
    points = 300
    km = np.arange(points) * 1500 / points
    heights = np.interp(km, [0, 300, 1500], [2200, 300, 200])
    track = Track(lat_deg=tuple((45 + km / 111.2).tolist()), lon_deg=(0.0,) * points, elevation_m=tuple(heights.tolist()))
    weather = (
        Weather(from_km=0, day_high_c=24, night_low_c=14.5, at_elevation_m=2000),
        Weather(from_km=400, day_high_c=41, night_low_c=26),
    )
    riders = tuple(Rider(id=r, name=r, body_mass_kg=70, all_day_power_w=110, cold_hands=True) for r in ("ada", "ben", "cid"))
    bikes = tuple(
        pannier_bike(
            id=f"b-{r.id}", rider_id=r.id, lube=lube, hoses=True, pedals="clip_in", tubeless=True, supports=[], carriers=[],
            parts=(BikePart(kind="saddle", behind_km=250),),
        )
        for r, lube in zip(riders, ("wet", "dry", "wax"), strict=True)
    )  # fmt: skip
    kit = thing("levers", 0.1, serves=("levers",)), thing("keys", 0.1, serves=("keys",))
    road = Road(weather=weather, cut=DayCut(by="distance", distance_km=100))
    return small_tour(*kit, riders=riders, bikes=bikes, road=road, track=track)


def test_every_default_moves_something_somewhere():
    """No default without an effect: each, moved to an end of its range, changes what some tour is told."""

    surfaces = [
        SurfaceStretch(from_km=k, to_km=k + 8, surface=s) for k, s in ((10, "rough_asphalt"), (20, "gravel"), (30, "soft"))
    ]
    points = 400
    km = np.arange(points) * 150 / points
    heights = 500 + 300 * np.sin(km / 3)
    track = Track(lat_deg=tuple((km / 111.2).tolist()), lon_deg=(0.0,) * points, elevation_m=tuple(heights.tolist()))
    stops = (
        _stop(60).model_copy(update={"detour_km": 0.8}), _stop(100, shop="basic"),
        Stop(id="late", name="Late", at_km=0.6, shop="full", opens_h=9.05, closes_h=18),
    )  # fmt: skip

    base = small_tour(
        thing("a", 6), thing("bag", 0.1, role=SleepingBag(comfort_c=0)), thing("levers", 0.1, serves=("levers",)), track=track,
        riders=(Rider(id="ada", name="Ada", body_mass_kg=70, all_day_power_w=110, sleeps="cold"),),
        road=Road(stops=stops, surfaces=tuple(surfaces), cut=DayCut(by="hours", hours=3, to_stops=False),
                  nights=(Night(at_km=98, rest_days=1), Night(at_km=30, rest_days=1))),
    )  # fmt: skip
    windy_place = Station(id="a", name="A", at_km=0, months=(MonthNormals(mean_max_c=20, mean_min_c=8, wind_ms=6),) * 12)
    windy = base.model_copy(update={"road": base.road.model_copy(update={"stations": (windy_place,)})})
    bikeless = base.model_copy(update={"rig": Rig(), "load": base.load})
    hill = np.interp(km, [0, 5, 7, 20, 21, 150], [600, 600, 480, 480, 545, 545])
    strapped = carrier("top_tube_bag", "strapped", "top_tube")
    seasons = base.model_copy(
        update={
            "track": track.model_copy(update={"elevation_m": tuple(hill.tolist())}),
            "road": Road(weather=(Weather(from_km=0, day_high_c=41, night_low_c=-8),)),
            "rig": Rig(bikes=(pannier_bike(low_chainring=42, low_cog=28, carriers=(*pannier_bike().carriers, strapped)),)),
            "load": Load(
                food=(FoodShare(carrier_id="left", tenths=10),),
                placements=(Placement(thing_id="a", carrier_id="left"), Placement(thing_id="levers", carrier_id="strapped")),
            ),
        }
    )
    towing = pannier_bike(
        tubeless=True, supports=[*pannier_bike().supports, support("trailer_one_wheel", "trailer")], pedals="flat"
    )
    typed = small_tour(
        thing("mat", 0.4, role=Mat(r_value=3)), thing("tent", 2, serves=("tent", "poles")), thing("levers", serves=("levers",)),
        thing("stove", 0.1, role=Stove(burns="gas")), bikes=(towing,),
    )  # fmt: skip
    tours = dict(zip(TRIED_ON, (seasons, base, windy, bikeless, typed, *_with_stores(base), _craft()), strict=True))
    roads = {name: profile_of(tour) for name, tour in tours.items()}
    now = {name: assess(tour, roads[name]).model_dump(exclude={"assumptions"}) for name, tour in tours.items()}

    def moves(tour: str, default: str) -> bool:
        ends = practice.fields()[default][1]
        end = ends["high" if default in UPWARDS else "low"]
        other = assess(tours[tour].model_copy(update={"own_values": {default: end}}), roads[tour])
        return other.model_dump(exclude={"assumptions"}) != now[tour]

    seen_on = {default: tour for tour, defaults in TRIED_ON.items() for default in defaults.split()}
    # What chance does, `test_rehearsal` looks at.
    wanted = [d for d in practice.Practice.model_fields if d not in Chances.model_fields]
    assert [d for d in wanted if not moves(seen_on.get(d, "seasons"), d)] == []
