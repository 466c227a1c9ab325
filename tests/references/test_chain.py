"""One small tour worked out anew from its track to its wheel loads, step by step, by code that shares nothing with the core.

Distance is pyproj's; all else is written here from the published formulas that the steps name.
"""

import datetime as dt
import itertools
import math

import numpy as np
import pytest
from pyproj import Geod

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.load import FoodShare, Load, Placement
from omnifer.core.model.people import Rider
from omnifer.core.model.rig import Rig
from omnifer.core.model.road import DayCut, Road, Stop, Track, Weather
from omnifer.core.rig.catalogue import carrier
from tests.conftest import pannier_bike, small_tour, thing

G, LENGTH_DEG, POINTS, FLAT_SHARE, SLOPE = 9.80665, 1.3, 2600, 0.5, 0.02
BODY, POWER, HIGH, LOW, DAMP = 72.0, 115.0, 33.0, 15.0, 45.0


def the_tour():
    lat = np.linspace(0.0, LENGTH_DEG, POINTS)
    metres = lat * 110_600
    heights = 300 + SLOPE * np.maximum(metres - FLAT_SHARE * metres[-1], 0)
    track = Track(lat_deg=tuple(lat), lon_deg=(0.0,) * POINTS, elevation_m=tuple(heights.tolist()))
    cage = carrier("bottle_cage", "cage", "down_tube_bolts").model_dump()
    bike = pannier_bike()
    bike = pannier_bike(carriers=[*(c.model_dump() for c in bike.carriers), cage])
    bags = (("tent", "left"), ("clothes", "right"), ("bottle", "cage"), ("sack", "left"))
    return small_tour(
        thing("tent", 2.4, 5), thing("clothes", 3.1, 7), thing("bottle", 0.1, 0.8, holds_water_l=0.75),
        thing("sack", 0.2, 0.1, holds_water_l=6, soft_vessel=True),
        riders=(Rider(id="ada", name="Ada", body_mass_kg=BODY, all_day_power_w=POWER, height_cm=170, age_years=30, sex="male"),),
        rig=Rig(bikes=(bike,)), track=track, start_date=dt.date(2027, 3, 20),
        load=Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in bags),
                  food=(FoodShare(carrier_id="right", tenths=10),)),
        road=Road(cut=DayCut(by="distance", distance_km=70, to_stops=False), start_hour=8, pause_factor=1.25,
                  stops=(Stop(id="well", name="Well", at_km=80, water="reliable"),),
                  weather=(Weather(from_km=0, day_high_c=HIGH, night_low_c=LOW, humidity_pct=DAMP, at_elevation_m=0),)),
    )  # fmt: skip


def speed(slope: float, mass: float, height: float, air_c: float, area: float, rolling: float) -> float:
    """Martin et al. 1998 by halving: the speed at which 95 % of the power meets all resistance [m/s]."""
    pressure = 101325 * (1 - 0.0065 * height / 288.15) ** 5.25588
    rho = pressure / (287.05287 * (air_c + 273.15))
    power = POWER * (1 - 0.019 * height / 1000 - 0.0112 * (height / 1000) ** 2)  # Bassett et al. 1999
    angle, low, high = math.atan(slope), 0.0, 30.0
    for _ in range(60):
        v = (low + high) / 2
        needed = v * (mass * G * (math.sin(angle) + rolling * math.cos(angle)) + 0.5 * rho * area * v * v)
        low, high = (v, high) if needed < 0.95 * power else (low, v)
    return low


def air(hour: float, height: float, rise: float, fall: float) -> float:
    """Parton and Logan 1981 by day, 6.5 K/km with height."""
    sine = math.sin(math.pi * max(hour - rise + 0.17, 0) / (fall - rise + 2 * 1.86))
    return LOW + (HIGH - LOW) * sine - 0.0065 * height


def sweat(air_c: float) -> float:
    """The fit to ISO 7933 in its words: litres an hour at a temperature and power, at the day's moisture."""

    def saturated(t: float) -> float:
        return 0.6105 * math.exp(17.27 * t / (t + 237.3))

    humid = min(DAMP * (saturated(HIGH) + saturated(LOW)) / 2 / saturated(air_c), 100)
    steam = humid / 100 * saturated(air_c)
    dry = max(0.0013 * POWER, -0.81 + 0.0050 * POWER + 0.031 * air_c)
    return min(1.40, dry * (1 + 0.05 * max(0.0, steam - 1.7) ** 2))


def test_a_small_tour_from_track_to_wheels():
    tour = the_tour()
    told = assess(tour, profile_of(tour))
    bike = tour.rig.bikes[0]
    _, _, length = Geod(ellps="WGS84").inv(0, 0, 0, LENGTH_DEG)
    assert told.road.length_km == pytest.approx(length / 1000, rel=1e-4)

    # Equinox on the equator: the sun rises about 6:07 by the clock of longitude 0 and is up for 12 h 7 min (NOAA).
    day = told.days[0]
    assert (day.sunrise_h, day.sunset_h) == (pytest.approx(6.07, abs=0.05), pytest.approx(18.18, abs=0.05))

    kit = sum(t.mass_kg for t in tour.kit)
    hung = sum(s.mass_kg for s in bike.supports) + sum(c.mass_kg for c in bike.carriers)
    bare = BODY + bike.mass_kg + hung + kit
    # What bags add to the drag of bike and rider: two rear panniers and a handlebar bag (common practice, no source).
    area = 0.55 + 2 * 0.012 + 0.012

    def ride(stores_at_km) -> dict[str, np.ndarray]:
        """Kilometre by kilometre: hours, water and food up to each, with stores on board."""
        edges = np.append(np.arange(0, length / 1000, 0.5), length / 1000)
        hours, drunk, carried, eaten, clock, today = [0.0], [0.0], [0.0], [0.0], 8.0, 70.0
        for at, to in itertools.pairwise(edges):
            if at >= today:
                clock, today = 8.0, today + 70.0
            middle = (at + to) / 2
            over = max(middle * 1000 - FLAT_SHARE * length, 0)
            height = 300 + SLOPE * over
            warm = air(clock, height, 6.07, 18.18)
            v = speed(SLOPE if over else 0.0, bare + stores_at_km(middle), height, warm, area, bike.rolling_resistance)
            took = (to - at) / v / 3.6
            hours.append(hours[-1] + took)
            clock += 1.25 * took
            drunk.append(drunk[-1] + took * max(0.25, sweat(warm)))
            carried.append(carried[-1] + took * max(0.35, 1.5 * sweat(warm)))
            high = 1 - 0.019 * height / 1000 - 0.0112 * (height / 1000) ** 2
            eaten.append(eaten[-1] + POWER * high * took * 3.6 / 0.22 / 4.184)
        return {"km": edges, "h": np.array(hours), "l": np.array(drunk), "bottled": np.array(carried), "kcal": np.array(eaten)}

    done = ride(lambda km: 4.0)
    for _ in range(3):

        def at(name: str, km: float, done=done) -> float:
            return float(np.interp(km, done["km"], done[name]))

        # One dry camp at km 70 before the well at km 80: three litres; vessels hold 6.75 l.
        need = at("bottled", 80) + 3.0
        leaving = min(need, 6.75)
        second = min(at("bottled", length / 1000) - at("bottled", 80), 6.75)
        resting = 10 * BODY + 6.25 * 170 - 5 * 30 + 5  # Mifflin and St Jeor 1990, a man
        days = [
            (0.0, 70.0),
            (70.0, length / 1000),
        ]
        spread = []
        for begins, ends in days:
            worked = (at("kcal", ends) - at("kcal", begins)) / (POWER * 3.6 / 0.22 / 4.184)
            spread.append(resting * 1.4 * (24 - worked) / 24)
        food = (done["kcal"][-1] + sum(spread)) / 3800
        reserve = 0.5 * food / 2

        def stores(km: float, leaving=leaving, second=second, at=at, food=food, reserve=reserve, spread=spread) -> float:
            camp = 3.0 if km > 70 else 0.0
            left = max(leaving - at("l", km) - camp, 0) if km < 80 else second - (at("l", km) - at("l", 80))
            rested = spread[0] * min(km / 70, 1) + spread[1] * max(km - 70, 0) / (length / 1000 - 70)
            return max(left, 0) + food + reserve - (at("kcal", km) + rested) / 3800

        done = ride(stores)

    water, bread = (next(gap for gap in told.gaps if gap.supply == supply) for supply in ("water", "food"))
    assert told.road.riding_hours == pytest.approx(done["h"][-1], rel=0.006)
    assert (water.need, water.nights, water.holds) == (pytest.approx(need, rel=0.015), 1, 6.75)
    assert (bread.need, bread.reserve) == (pytest.approx(food + reserve, rel=0.01), pytest.approx(reserve, abs=0.02))

    # At the start: 0.75 l in the bottle, the rest in the sack on the left, all food on the right; each by its own lever.
    trace = told.bikes[0]
    held = {"left": 2.4 + 0.2 + leaving - 0.75, "right": 3.1 + food + reserve, "cage": 0.1 + 0.75, "box": 0.0}
    front = bike.mass_kg * 480 / 1060
    for bag in bike.carriers:
        box = trace.boxes[bag.id]
        front += (bag.mass_kg + held[bag.id]) * (box.x0 + box.x1) / 2 / 1060
    front += bike.supports[0].mass_kg * -40 / 1060
    total = bare - BODY + leaving + food + reserve
    assert trace.front_kg[0] == pytest.approx(front, abs=0.05)
    assert trace.total_kg[0] == pytest.approx(total, abs=0.08)
    assert trace.right_over_left_kg.rear[0] == pytest.approx(held["right"] - held["left"], abs=0.08)
