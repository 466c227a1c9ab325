"""The road in full: days and dates, arrivals, opening hours, climate, surfaces, transfers, reshaping, the learned pace."""

import datetime as dt
import math

import numpy as np
import pytest
from hypothesis import event, given, settings
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.glance import at_day
from omnifer.core.model.practice import Practice
from omnifer.core.model.road import (
    DayCut,
    MonthNormals,
    Night,
    Road,
    Station,
    Stop,
    SurfaceStretch,
    Track,
    Transfer,
    Weather,
    ZoneStretch,
)
from omnifer.core.road import arrivals, climate, learn, pace, reshape
from omnifer.core.road import days as days_module
from omnifer.core.road.profile import from_track
from omnifer.core.road.symbols import RULES, supplies_of, words_of
from omnifer.core.voyage import play
from tests.conftest import small_tour, thing
from tests.core.offered import offers

MONDAY = dt.date(2027, 5, 3)


def straight(km: float, stops: tuple[Stop, ...] = (), slope: float = 0.0, start: dt.date = MONDAY, **road: object):
    """A tour due north from the equator on a meridian, flat or rising evenly."""
    points = 600
    along = np.linspace(0, km, points)
    heights = tuple((100 + slope * along * 1000).tolist())
    track = Track(lat_deg=tuple((along / 110.574).tolist()), lon_deg=(0.0,) * points, elevation_m=heights)
    return small_tour(track=track, road=Road(stops=stops, **road), start_date=start)


def stop(km: float, **supplies: object) -> Stop:
    return Stop.model_validate({"id": f"s{km:g}", "name": f"Place {km:g}", "at_km": km} | supplies)


def seen(tour):
    return assess(tour, profile_of(tour))


BY_KM = DayCut(by="distance", distance_km=50, to_stops=False)


def test_set_nights_hold_and_the_rest_is_cut_between_them():
    tour = straight(200, cut=BY_KM, nights=(Night(at_km=80),))
    assert [round(d.to_km) for d in seen(tour).days] == [50, 80, 130, 180, 200]
    assert [d.night_set_km for d in seen(tour).days] == [None, 80, None, None, None]


@settings(max_examples=12, deadline=None)
@given(st.integers(1, 36), st.floats(0.15, 2.4), st.integers(0, 2))
def test_a_night_set_by_hand_leaves_the_days_before_as_they_were(sample, sample_road, number, times, rests):
    """On the sample, whose nights lie at stops and away from them, wherever within the next days the night is put."""
    event(f"rests {rests}")
    before = play(sample, sample_road).days
    i = min(number, before.km.size - 2)
    begins, ends = float(before.km[i - 1]), float(before.km[i])
    at_km = min(begins + max(times * (ends - begins), 1), sample_road.length_km - 1)
    others = tuple(n for n in sample.road.nights if abs(n.at_km - ends) > 0.5)
    if any(begins - 1 < n.at_km < at_km + 1 for n in others):
        return  # another night that the rider has set ends a day in between
    night = Night(at_km=at_km, rest_days=rests, from_km=round(begins, 3))
    road = sample.road.model_copy(update={"nights": tuple(sorted((*others, night), key=lambda n: n.at_km))})
    after = play(sample.model_copy(update={"road": road}), sample_road).days
    assert after.km[:i] == pytest.approx(before.km[:i], abs=1e-9)
    assert after.km[i] == pytest.approx(at_km, abs=0.5)


def test_a_day_set_by_hand_is_cut_anew_where_days_are_made_shorter():
    """A day of 90 km from km 50 on; at 30 km a day it gets no longer than it was made, and the days before are short ones."""
    night = Night(at_km=140, from_km=50)
    assert [round(d.to_km) for d in seen(straight(200, cut=BY_KM, nights=(night,))).days] == [50, 140, 200]
    shorter = BY_KM.model_copy(update={"distance_km": 30})
    assert [round(d.to_km) for d in seen(straight(200, cut=shorter, nights=(night,))).days] == [30, 60, 140, 170, 200]


def test_rest_days_take_dates_food_and_dry_camp_water():
    plain = straight(150, cut=BY_KM)
    rested = straight(150, cut=BY_KM, nights=(Night(at_km=50, rest_days=2),))
    one, two = seen(plain), seen(rested)
    assert [d.rest for d in two.days] == [False, True, True, False, False]
    assert [d.date.day for d in two.days] == [3, 4, 5, 6, 7]
    assert [d.number for d in two.days] == [1, 2, 3, 4, 5]
    assert two.days[1].distance_km == 0
    water = [next(g for g in a.gaps if g.supply == "water") for a in (one, two)]
    assert water[1].nights - water[0].nights == 2
    assert water[1].need - water[0].need == pytest.approx(2 * (3 + 3), abs=0.3)
    food = [next(g for g in a.gaps if g.supply == "food").need for a in (one, two)]
    assert 0.9 < food[1] - food[0] < 1.2


@settings(max_examples=25, deadline=None)
@given(st.lists(st.tuples(st.floats(1, 299), st.integers(0, 3)), max_size=5), st.floats(20, 120), st.booleans())
def test_days_cover_the_road_once_and_in_order(nights, size, to_stops):
    road = Road(
        cut=DayCut(by="distance", distance_km=size, to_stops=to_stops),
        nights=tuple(Night(at_km=k, rest_days=r) for k, r in nights),
        stops=(stop(40, water="reliable"), stop(130, shelter="hut"), stop(222, water="reliable", shelter="site")),
    )
    profile = from_track(straight(300).track)
    plan = days_module.cut(profile, profile.km / 15, road)
    assert plan.km[0] == 0
    assert plan.km[-1] == pytest.approx(profile.length_km)
    assert (np.diff(plan.km) > 0).all()
    assert (np.diff(plan.offset) >= 1).all()
    assert plan.count == plan.km.size - 1 + plan.rests.sum()
    for night in road.nights:
        if night.at_km < profile.length_km - 1:
            assert np.abs(plan.km - night.at_km).min() < 0.51


def test_a_day_ends_at_the_better_of_two_places_near_its_end():
    near, better = stop(49, shelter="wild"), stop(55, water="reliable", shelter="hut")
    tour = straight(200, (near, better), cut=DayCut(by="distance", distance_km=50))
    assert seen(tour).days[0].night_at == "Place 55"


VISITS = [
    ({}, 11.0, None, None),
    ({"closed_weekdays": (0,)}, 11.0, None, "closed on Mondays"),
    ({"closed_weekdays": (1,)}, 11.0, None, None),
    ({"closed_dates": (MONDAY,)}, 11.0, None, "closed on that date"),
    ({"opens_h": 9, "closes_h": 18}, 11.0, None, None),
    ({"opens_h": 9, "closes_h": 18}, 8.5, None, None),
    ({"opens_h": 9, "closes_h": 18}, 7.5, None, "opens at {opens}, you pass at {hour}"),
    ({"opens_h": 9, "closes_h": 18}, 19.0, None, "closes at {closes}, you pass at {hour}"),
    ({"opens_h": 9, "closes_h": 18}, 19.0, 1, None),
    ({"opens_h": 10, "closes_h": 18}, 19.0, 1, "closes at {closes}, you pass at {hour}"),
    ({"opens_h": 9, "closes_h": 12, "opens_again_h": 16, "closes_again_h": 19}, 17.0, None, None),
    (
        {"opens_h": 9, "closes_h": 12, "opens_again_h": 16, "closes_again_h": 19},
        13.0,
        None,
        "opens again at {opens}, you pass at {hour}",
    ),
    ({"opens_h": 9, "closes_h": 12, "opens_again_h": 16, "closes_again_h": 19}, 15.5, None, None),
    (
        {"opens_h": 9, "closes_h": 12, "opens_again_h": 16, "closes_again_h": 19},
        19.5,
        None,
        "closes at {closes}, you pass at {hour}",
    ),
    ({"closed_weekdays": (0,)}, 19.0, 1, None),
    ({"closed_weekdays": (0, 1)}, 19.0, 1, "closed on Mondays"),
    ({"closed_weekdays": (0, 2)}, 19.0, 2, None),
    ({"closed_weekdays": (0, 1, 2)}, 19.0, 2, "closed on Mondays"),
]


@pytest.mark.parametrize(("hours", "at", "stays", "words"), VISITS)
def test_a_shop_is_judged_by_when_the_rider_is_there(hours, at, stays, words):
    """Worked by hand: Monday, starting at 8, an hour's wait in the morning; a night there brings the next morning too."""
    until = None if stays is None else MONDAY + dt.timedelta(days=stays)
    visit = arrivals.Visit(stop(10, shop="full", **hours), 0, MONDAY, at, until)
    why = arrivals.shop_shut(visit, start_hour=8)
    assert (why.words if why else None) == words


@pytest.mark.parametrize(
    ("water", "dry", "month", "words"),
    [
        ("reliable", (), 5, None), ("none", (), 5, None), ("unsure", (), 5, "not sure"), ("seasonal", (), 5, "may be dry"),
        ("seasonal", (6, 7), 5, None), ("seasonal", (5,), 5, "dry in {month}"),
    ],
)  # fmt: skip
def test_water_is_judged_by_its_month(water, dry, month, words):
    why = arrivals.water_fails(stop(10, water=water, dry_months=dry), dt.date(2027, month, 2))
    assert (why.words if why else None) == words


def test_a_shop_met_on_its_closing_day_lengthens_the_gap_and_a_later_start_mends_it():
    shops = (stop(30, shop="full"), stop(80, shop="full", closed_weekdays=(1,)), stop(130, shop="full"))
    tour = straight(160, shops, cut=BY_KM)
    shut, finding = seen(tour), next(f for f in seen(tour).findings if f.kind == "shop_shut")
    gap = next(g for g in shut.gaps if g.supply == "food" and g.missed)
    assert (gap.from_km, gap.to_km) == (30, 130)
    assert "Tuesday" in finding.reason.metric()
    assert [mend.name.metric() for mend in offers(tour, finding)] == [
        "Buy at Place 30 on Monday 3 May", "Leave a day later, and the shop is open",
    ]  # fmt: skip
    later = seen(straight(160, shops, cut=BY_KM, start=MONDAY + dt.timedelta(days=1)))
    assert not any(f.kind == "shop_shut" for f in later.findings)
    assert any(g.supply == "food" and (g.from_km, g.to_km) == (30, 80) for g in later.gaps)


def test_snacks_are_no_shop_and_the_longest_of_each_kind_governs():
    stops = (stop(20, shop="snacks"), stop(40, fuels=("gas",)), stop(100, fuels=("petrol",), services=("plugs",)))
    gaps = seen(straight(160, stops, cut=BY_KM)).gaps
    assert [g.to_km for g in gaps if g.supply == "food"] == [pytest.approx(160, abs=0.6)]
    fuel = [g for g in gaps if g.supply == "fuel"]
    assert [(round(g.from_km), round(g.to_km), g.governs) for g in fuel] == [
        (0, 40, False),
        (40, 100, False),
        (100, 160, True),
    ] or [g.governs for g in fuel].count(True) == 1
    assert {g.supply for g in gaps} == {"water", "food", "fuel", "plugs"}


def test_clock_and_dark():
    tour = straight(160, cut=DayCut(by="distance", distance_km=80, to_stops=False), start_hour=8, pause_factor=1.5)
    day = seen(tour).days[0]
    assert day.arrive_h == pytest.approx(8 + 1.5 * day.riding_hours, abs=0.01)
    assert day.sunrise_h == pytest.approx(5.9, abs=0.2)
    assert day.dusk_h > day.sunset_h > 17.8
    late = straight(160, cut=DayCut(by="distance", distance_km=80, to_stops=False), start_hour=14)
    assert any(f.kind == "dark_day" for f in seen(late).findings)
    assert not any(f.kind == "dark_day" for f in seen(tour).findings if day.arrive_h < day.sunset_h)


def test_surfaces_slow_and_pushing_is_walking():
    smooth, rough, pushed = (
        seen(straight(60, surfaces=() if s is None else (SurfaceStretch(from_km=0, to_km=60, surface=s),))).road.riding_hours
        for s in (None, "gravel", "push")
    )
    assert smooth < rough < pushed
    assert pushed == pytest.approx(60 / 4, rel=0.02)


def test_a_transfer_takes_hours_and_no_riding_or_climb():
    ridden = seen(straight(100, slope=0.01, cut=BY_KM))
    carried = seen(straight(100, slope=0.01, cut=BY_KM, transfers=(Transfer(from_km=50, to_km=100, by="train", hours=3),)))
    assert carried.road.riding_hours < 0.6 * ridden.road.riding_hours
    assert sum(d.transfer_hours for d in carried.days) == pytest.approx(3, abs=0.05)
    assert sum(d.ascent_m for d in carried.days) == pytest.approx(500, abs=15)
    assert sum(d.distance_km for d in carried.days) == pytest.approx(50, abs=0.3)
    # On the axis of days a train lies within its day, as its kilometres do: what comes after it is no later day.
    on_train = max(carried.days, key=lambda d: d.transfer_hours)
    at = on_train.from_km + 0.9 * (on_train.to_km - on_train.from_km)
    assert at_day(carried.days, at, on_train.number) == pytest.approx(on_train.number - 0.1, abs=0.002)


def test_wind_of_unknown_direction_costs_time():
    tour = straight(60)
    profile = profile_of(tour)
    rider = pace.RidingMass(110, 100, 0, 0.55, 0.008)
    still = np.zeros(profile.nodes.km.size)
    hours = [
        pace.pace_along(profile, [rider], pace.conditions(profile, (), (), still + wind), still).hours[-1] for wind in (0.0, 6.0)
    ]
    assert hours[1] > hours[0] * 1.02


@settings(max_examples=15, deadline=None)
@given(st.floats(0, 0.12), st.floats(80, 140), st.floats(1, 40), st.floats(0, 9))
def test_more_on_board_is_never_faster_uphill(slope, dry, more, slowest):
    profile = profile_of(straight(20, slope=slope))
    rider = pace.RidingMass(110, dry, 1.0, 0.55, 0.008, slowest)
    still = np.zeros(profile.nodes.km.size)
    here = pace.conditions(profile, (), (), still)
    light, heavy = (pace.pace_along(profile, [rider], here, still + kg).hours[-1] for kg in (0.0, more))
    assert heavy >= light - 1e-9


def climbing(slope: float, kg: float, slowest_kmh: float = 0.0, **usual: float) -> pace.Pace:
    """Twenty kilometres up, 110 W, in still and standard air."""
    profile = profile_of(straight(20, slope=slope))
    rider = pace.RidingMass(110, kg, 0, 0.55, 0.009, slowest_kmh, Practice(**usual))
    still = np.zeros(profile.nodes.km.size)
    return pace.pace_along(profile, [rider], pace.conditions(profile, (), (), still), still)


def test_ramps_are_pushed_harder_and_only_then_walked():
    """At 6 % and 100 kg a rider of 110 W holds some 5.4 km/h by himself: 8 km/h takes half as much again, and 10 km/h more
    than a rider has. The time is that of the all-day power either way, until walking at 4 km/h is slower."""
    easy, ramp, walked = (climbing(0.06, 100, slowest) for slowest in (4, 7.5, 11))
    assert (easy.walked_km[-1], ramp.walked_km[-1]) == (0, 0)
    assert ramp.hours[-1] == pytest.approx(easy.hours[-1])
    assert walked.walked_km[-1] == pytest.approx(20, abs=0.1)
    assert walked.hours[-1] == pytest.approx(20 / 4, rel=0.01)


def test_walking_is_bounded_by_power_on_the_slope():
    """110 W at 95 % lift 140 kg at 20 % no faster than 110 * 0.95 / (140 * 9.80665 * (sin + 0.009 cos)) = 0.371 m/s; the air
    on the way up thins, and with it the power, by some 7 %."""
    found = climbing(0.20, 140, 8)
    angle = math.atan(0.20)
    level = 110 * 0.95 / (140 * 9.80665 * (math.sin(angle) + 0.009 * math.cos(angle))) * 3.6
    assert 0.75 * level < 20 / found.hours[-1] < level
    assert found.walked_km[-1] == pytest.approx(20, abs=0.1)


@settings(max_examples=40, deadline=None)
@given(st.floats(0.0, 0.14), st.floats(70, 160), st.floats(0, 9))
def test_a_kilogram_costs_what_a_kilogram_more_takes_and_never_jumps(slope, kg, slowest):
    """The price told is the slope of the hours by mass (central difference), walking and ramps included."""
    lighter, here, heavier = (climbing(slope, kg + more, slowest) for more in (-0.01, 0.0, 0.01))
    price = float(here.hours_per_kg[0])
    event("walks" if here.walked_km[-1] > 0 else "rides")
    assert price == pytest.approx((heavier.hours[-1] - lighter.hours[-1]) / 0.02, rel=0.05, abs=2e-4)
    assert heavier.hours[-1] - lighter.hours[-1] < 0.01


def months(mean: float, swing: float = 0.0, **more: float) -> tuple[MonthNormals, ...]:
    warm = [-np.cos(2 * np.pi * (m - 0.5) / 12) for m in range(12)]
    return tuple(
        MonthNormals.model_validate({"mean_max_c": mean + 5 + swing * w, "mean_min_c": mean - 5 + swing * w} | more) for w in warm
    )


def test_stations_weigh_by_distance_height_and_date():
    low = Station(id="a", name="A", at_km=0, elevation_m=100, months=months(20))
    high = Station(id="b", name="B", at_km=300, elevation_m=100, months=months(10))
    tour = straight(300, stations=(low, high))
    profile = profile_of(tour)
    found = climate.along(profile, tour.road, MONDAY, np.zeros(profile.km.size))
    assert found.source == "stations"
    assert found.mean_max_c[0] == pytest.approx(25, abs=0.05)
    assert found.mean_max_c[-1] == pytest.approx(15, abs=0.05)
    assert 19 < found.mean_max_c[profile.km.size // 2] < 21
    assert (found.night_low_c < found.mean_min_c).all()
    assert (found.day_high_c > found.mean_max_c).all()
    uphill = straight(50, slope=0.02, stations=(low,))
    road = profile_of(uphill)
    cooled = climate.along(road, uphill.road, MONDAY, np.zeros(road.km.size))
    assert cooled.mean_min_c[0] - cooled.mean_min_c[-1] == pytest.approx(6.5, abs=0.05)


def test_the_start_date_moves_the_weather():
    station = Station(id="a", name="A", at_km=0, months=months(15, swing=10))
    spring, summer = (seen(straight(100, stations=(station,), start=dt.date(2027, m, 15))).days[0] for m in (1, 7))
    assert summer.mean_max_c - spring.mean_max_c > 15


def test_rarer_odds_mean_colder_nights():
    station = Station(id="a", name="A", at_km=0, elevation_m=0, months=months(15, spread_min_c=4))
    lows = [seen(straight(60, stations=(station,), odds=odds)).days[0].night_low_c for odds in (0.3, 0.1, 0.02)]
    assert lows[0] > lows[1] > lows[2]
    assert lows[1] == pytest.approx(15 - 5 - 1.2816 * 4 - 0.65, abs=0.1)
    as_high = station.model_copy(update={"elevation_m": None})
    assert seen(straight(60, stations=(as_high,), odds=0.1)).days[0].night_low_c == pytest.approx(15 - 5 - 1.2816 * 4, abs=0.1)


def test_without_weather_latitude_and_season_speak_and_say_so():
    found = seen(straight(100))
    assert found.climate.source == "latitude"
    assert any("latitude" in a.value.words for a in found.assumptions)
    typed = seen(straight(100, weather=(Weather(from_km=0, day_high_c=31, night_low_c=12),)))
    assert typed.climate.source == "typed"
    assert typed.days[0].day_high_c == pytest.approx(31, abs=0.7)
    north = Track(lat_deg=(60.0, 60.5), lon_deg=(10.0, 10.0), elevation_m=(100.0, 100.0))
    cold, warm = (seen(small_tour(track=north, road=Road(), start_date=dt.date(2027, m, 20))).days[0] for m in (1, 7))
    assert warm.mean_max_c - cold.mean_max_c > 25


def test_hot_days_and_walking_are_said():
    hot = seen(straight(100, weather=(Weather(from_km=0, day_high_c=40, night_low_c=26, humidity_pct=50),)))
    assert any(f.kind == "hot_day" for f in hot.findings)
    steep = seen(straight(12, slope=0.2))
    assert any(f.kind == "walking" for f in steep.findings)


def test_a_tour_takes_the_days_that_it_is_to_take():
    """600 even kilometres in 12 days are 50 each; with two days of rest there are ten to ride."""
    even = seen(straight(600, cut=DayCut(by="days", days=12, to_stops=False)))
    assert [day.distance_km for day in even.days] == pytest.approx([50] * 12, abs=1.5)
    rested = straight(600, cut=DayCut(by="days", days=12, to_stops=False), nights=(Night(at_km=200, rest_days=2),))
    assert (len(seen(rested).days), sum(not day.rest for day in seen(rested).days)) == (12, 10)
    assert not any(f.kind == "too_few_days" for f in even.findings)


def test_days_that_are_too_few_are_said_with_how_many_are_enough():
    hurried = straight(600, cut=DayCut(by="days", days=3, hours=6, to_stops=False))
    finding = next(f for f in seen(hurried).findings if f.kind == "too_few_days")
    assert finding.grade == "stops_you"
    cut = offers(hurried, finding)[0].cut
    calmer = hurried.model_copy(update={"road": hurried.road.model_copy(update={"cut": cut})})
    assert len(seen(calmer).days) == cut.days
    assert not any(f.kind == "too_few_days" for f in seen(calmer).findings)
    assert max(day.riding_hours for day in seen(calmer).days) < 6.7


@given(st.integers(1, 60), st.lists(st.floats(5, 595), max_size=6), st.booleans())
def test_days_in_all_are_never_more_than_asked_for_but_where_nights_ask_for_more(days, nights, to_stops):
    road = straight(
        600, tuple(stop(at, shelter="site") for at in (70.0, 140.0, 333.0, 480.0)),
        cut=DayCut(by="days", days=days, to_stops=to_stops), nights=tuple(Night(at_km=at) for at in nights),
    ).road  # fmt: skip
    profile = profile_of(straight(600))
    found = days_module.cut(profile, profile.km / 15, road)
    event("nights ask for more" if len(nights) + 1 > days else "as asked")
    assert found.count <= max(days, len(nights) + 1)
    assert (np.diff(found.km) > 0).all()


def test_reversed_twice_is_as_before_and_trimmed_keeps_what_is_inside():
    road = Road(
        stops=(stop(10), stop(90)), nights=(Night(at_km=40, rest_days=1),),
        surfaces=(SurfaceStretch(from_km=20, to_km=30, surface="gravel"),),
        transfers=(Transfer(from_km=60, to_km=70, by="ferry"),),
        zones=(ZoneStretch(from_km=0, zone="Europe/Madrid"), ZoneStretch(from_km=55, zone="Europe/Lisbon")),
        stations=(Station(id="a", name="A", at_km=20, months=(MonthNormals(mean_max_c=20, mean_min_c=8),) * 12),),
    )  # fmt: skip
    turned = reshape.reversed_road(road, 100)
    assert [s.at_km for s in turned.stops] == [10, 90]
    assert [s.name for s in turned.stops] == ["Place 90", "Place 10"]
    assert (turned.surfaces[0].from_km, turned.surfaces[0].to_km) == (70, 80)
    assert [(z.from_km, z.zone) for z in turned.zones] == [(0, "Europe/Lisbon"), (45, "Europe/Madrid")]
    assert turned.stations[0].at_km == 80
    assert reshape.reversed_road(turned, 100) == road
    assert reshape.trimmed_road(road, 60, 90).stations[0].at_km == 0
    assert [z.from_km for z in reshape.trimmed_road(road, 60, 90).zones] == [0]
    cut = reshape.trimmed_road(road, 25, 65)
    assert (cut.stops, cut.nights[0].at_km) == ((), 15)
    assert (cut.surfaces[0].from_km, cut.surfaces[0].to_km) == (0, 5)
    assert cut.transfers[0].from_km == 35


def test_where_things_are_turns_with_the_road():
    """A warm bag posted on at km 30 and met again at 80 is met at 20 from the other end and sent on at 70."""
    bag = thing("bag", 1.0, where=[{"from_km": 30, "how": "posted"}, {"from_km": 80, "how": "packed"}])
    tour = small_tour(bag, thing("pot", 0.3))
    turned = reshape.reversed_sheet(tour, 100)
    assert [(w.from_km, w.how) for w in turned.kit[0].where] == [(0, "packed"), (20, "posted"), (70, "packed")]
    assert list(reshape.reversed_sheet(turned, 100).kit[0].stretches()) == list(bag.stretches())
    assert turned.kit[1] == tour.kit[1]
    cut = reshape.trimmed_sheet(tour, 50, 90)
    assert [(w.from_km, w.how) for w in cut.kit[0].where] == [(0, "posted"), (30, "packed")]


def ridden(power: float, slopes: tuple[float, ...], pauses: int) -> tuple[Track, np.ndarray, pace.RidingMass]:
    """A ride stepped second by second by Newton's second law, which shares no formula with the pace: each piece 4 km, 105 kg,
    half a square metre of drag, 0.008 rolling, 95 % of the power at the wheel; pauses of 5 min between."""
    piece_m, mass, efficiency = 4000.0, 105.0, 0.95
    at, speed, clock, marks = 0.0, 3.0, 0.0, [(0.0, 0.0)]
    while at < piece_m * len(slopes):
        slope = math.atan(slopes[int(at // piece_m)])
        height = 200 + sum(s * min(max(at - k * piece_m, 0), piece_m) for k, s in enumerate(slopes))
        rho = 1.225 * (1 - 2.25577e-5 * height) ** 4.25588  # ISO 2533
        force = efficiency * power / max(speed, 0.5) - mass * 9.80665 * (math.sin(slope) + 0.008 * math.cos(slope))
        speed = min(speed + (force - 0.25 * rho * speed**2) / mass, 38 / 3.6)
        at, clock = at + speed, clock + 1
        marks.append((at, clock))
    km = np.arange(0, 4 * len(slopes), 0.05)
    seconds = np.interp(km * 1000, *np.array(marks).T)
    heights = 200 + np.concatenate([[0], np.cumsum(np.repeat(slopes, km.size // len(slopes))[:-1] * 50)])
    for pause in range(pauses):
        seconds[(pause + 1) * km.size // (pauses + 1) :] += 300
    track = Track(lat_deg=tuple(km / 110.574), lon_deg=(0.0,) * km.size, elevation_m=tuple(heights))
    return track, seconds, pace.RidingMass(0, mass, 0, 0.5, 0.008)


@pytest.mark.parametrize("power", [70.0, 110.0, 160.0])
def test_the_pace_of_a_ride_of_known_power_is_learned(power):
    track, seconds, rider = ridden(power, (0.0, 0.03, -0.02, 0.01, 0.04, 0.0), pauses=3)
    found = learn.learn(track, seconds, rider)
    assert found.power_w == pytest.approx(power, rel=0.05)
    assert found.power_error_w < 0.1 * power
    assert found.pause_factor == pytest.approx((seconds[-1] + 0.0) / (seconds[-1] - 900), rel=0.04)


def test_a_ride_on_ramps_that_nobody_rides_teaches_no_power():
    """On slopes of a fifth a bike is pushed: at any power the hours are the same, and none is told as if it were sure."""
    km = np.arange(0, 14, 0.05)
    track = Track(lat_deg=tuple(km / 110.574), lon_deg=(0.0,) * km.size, elevation_m=tuple(200 + 210 * km))
    with pytest.raises(ValueError, match="too steep"):
        learn.learn(track, km / 3.6 * 3600, pace.RidingMass(0, 105, 0, 0.5, 0.008, slowest_kmh=4.5))
    with pytest.raises(ValueError, match="no power between"):
        learn.learn(*ridden(900, (0.03, 0.02, 0.03), pauses=0))


def test_a_ride_too_short_or_without_times_teaches_nothing():
    track, seconds, rider = ridden(100, (0.0,), pauses=0)
    with pytest.raises(ValueError, match="usable kilometres"):
        learn.learn(track, seconds, rider)
    with pytest.raises(ValueError, match="no times"):
        learn.learn(track, np.full(seconds.size, np.nan), rider)


@pytest.mark.parametrize(
    ("words", "field", "value"),
    [
        ("Drinking Water", "water", "reliable"), ("spring under the oak", "water", "unsure"), ("Shopping Center", "shop", "full"),
        ("Campground", "shelter", "site"), ("Hut", "shelter", "hut"), ("Lodging", "shelter", "room"), ("Gas Station", "fuels", ("petrol",)),
        ("Restaurant", "services", ("meals",)), ("Bike shop", "bike_shop", "basic"), ("City", "water", "reliable"), ("Rifugio", "water", "unsure"),
        ("Ostello", "shelter", "room"), ("Ostello", "water", "reliable"), ("Outdoor shop", "fuels", ("gas",)), ("Wild camp", "shelter", "wild"),
    ],
)  # fmt: skip
def test_symbols_speak_of_supplies(words, field, value):
    assert supplies_of(words)[field] == value
    assert supplies_of("Flag, Blue") == {}
    assert "shop" not in supplies_of("Outdoor store")
    assert "water" not in supplies_of("Wild camping")


@pytest.mark.parametrize(
    ("symbol", "name", "water"),
    [
        ("", "Barren Pass", None), ("", "Etappe 3", None), ("", "Barrier", None), ("", "Wellington", None), ("", "Winnipeg", None),
        ("", "Trinkwasser am Tor", "unsure"), ("", "Fuente Vieja", "unsure"), ("", "Tap behind the church", "unsure"),
        ("Drinking Water", "Barren Pass", "reliable"), ("Summit", "Bar", "unsure"), ("Brunnen", "", "reliable"),
    ],
)  # fmt: skip
def test_a_bare_name_is_no_sure_water(symbol, name, water):
    assert supplies_of(symbol, name).get("water") == water


def test_a_learned_or_changed_day_is_felt_in_the_kit_price():
    light, heavy = small_tour(thing("one", 1)), small_tour(thing("anvil", 30))
    assert seen(heavy).road.riding_hours > seen(light).road.riding_hours


@given(st.sets(st.sampled_from(range(len(RULES)))), st.sampled_from(["none", "unsure", "seasonal", "reliable"]))
def test_symbols_written_say_no_more_than_the_stop_has(chosen, water):
    given_supplies = supplies_of(" ".join(RULES[n][0][0] for n in chosen)) | {"water": water}
    place = Stop(id="s", name="Place", at_km=1, **given_supplies)
    for field, value in supplies_of(", ".join(words_of(place))).items():
        own = getattr(place, field)
        assert set(value) <= set(own) if isinstance(own, tuple) else own == value, field


@given(st.lists(st.tuples(st.floats(45, 47), st.floats(6.9, 7.2)), min_size=1, max_size=12), st.booleans())
def test_the_nearest_points_of_many_places_are_those_of_each(places, there_and_back):
    """Held against the search over all points; on a road out and back the first of equally near points counts."""
    lat = np.linspace(45.2, 46.8, 60)
    lat = np.concatenate([lat, lat[::-1]]) if there_and_back else lat
    road = from_track(Track(lat_deg=tuple(lat), lon_deg=(7.0,) * lat.size, elevation_m=(1.0,) * lat.size))
    at, off = road.nearest_of_all(*(np.array(axis) for axis in zip(*places, strict=True)))
    for n, (place_lat, place_lon) in enumerate(places):
        km, away = road.nearest(place_lat, place_lon)
        assert off[n] == pytest.approx(away, abs=0.02)  # the sphere and the plane agree within metres
        assert at[n] == pytest.approx(km, abs=0.2) or road.distance_to(place_lat, place_lon).min() == pytest.approx(
            off[n], abs=0.02
        )
