"""The formulas against sources from outside; each test names its source."""

import datetime as dt
import math

import ephem
import numpy as np
import pint
import pvlib
import pyproj
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pythermalcomfort.models import phs

from omnifer.core.assess import assess
from omnifer.core.model.load import Load, Placement
from omnifer.core.physics import air, body, gearing, geodesy, riding, statics, sun, tyres
from omnifer.core.rig.geometry import Frame
from omnifer.core.rig.statics import Levers
from omnifer.formats import measures
from tests.conftest import pannier_bike, small_tour, thing


@pytest.mark.parametrize(
    ("altitude", "kelvin", "pascal", "density"),
    [
        (0, 288.150, 101325.0, 1.22500),
        (1000, 281.650, 89874.6, 1.11164),
        (2000, 275.150, 79495.2, 1.00649),
        (3000, 268.650, 70108.5, 0.90912),
        (5000, 255.650, 54019.9, 0.73612),
    ],
)
def test_standard_atmosphere(altitude, kelvin, pascal, density):
    """ISO 2533:1975, table values as computed by two independent libraries of that standard."""
    assert air.standard_temperature(altitude) == pytest.approx(kelvin, abs=1e-9)
    assert air.standard_pressure(altitude) == pytest.approx(pascal, abs=1)
    assert air.density(altitude) == pytest.approx(density, abs=1e-5)


def test_pressure_agrees_with_another_library():
    """pvlib.atmosphere.alt2pres (its own standard-atmosphere formula), within 0.1 %."""
    heights = np.linspace(0, 5000, 11)
    assert air.standard_pressure(heights) == pytest.approx(pvlib.atmosphere.alt2pres(heights), rel=1e-3)


def test_riding_power_of_the_published_example():
    """Martin et al. (1998), worked example: aerodynamic and rolling terms, total less bearings and acceleration.

    Inputs from memory of the paper; 158.69 W against air (its formula with the spoke term, here folded into the drag
    area), 23.62 W rolling, 22.14 W gravity.
    """
    speed, wind, angle = 8.36, 2.94, math.radians(30)
    along = speed + wind * math.cos(angle)
    drag = 0.5 * 1.2234 * (0.2565 + 0.0044)
    force = riding.resistance(speed, 0.003, 90, 0.2565 + 0.0044, 0.0032, 1.2234, wind * math.cos(angle))
    expected = drag * along**2 * speed + 23.62 + 22.14
    assert float(force) * speed == pytest.approx(expected, rel=1e-3)
    assert drag * along**2 * speed == pytest.approx(158.69, abs=0.1)


@pytest.mark.parametrize(
    ("gradient", "mass", "wind", "kmh"),
    [(0, 120, 0, 20.922), (0, 120, 5, 12.599), (0, 120, -5, 31.548), (0, 140, 0, 20.249), (0.03, 120, 0, 8.995),
     (0.06, 120, 0, 5.169), (0.06, 140, 0, 4.445), (0.10, 120, 0, 3.268), (-0.02, 120, 0, 32.725)],
)  # fmt: skip
def test_speeds_by_an_independent_root(gradient, mass, wind, kmh):
    """Roots of the cubic by numpy.roots; printed values confirmed with Brent's method."""
    v = float(riding.steady_speed(120, gradient, mass, 0.55, 0.007, 1.225, 0.95, wind))
    assert v * 3.6 == pytest.approx(kmh, abs=0.005)
    k, angle = 0.5 * 1.225 * 0.55, math.atan(gradient)
    f = mass * air.GRAVITY * (math.sin(angle) + 0.007 * math.cos(angle))
    roots = np.roots([k, 2 * k * wind, k * wind**2 + f, -120 * 0.95])
    if wind >= 0 or v > -wind:
        assert any(abs(r.imag) < 1e-9 and abs(r.real - v) < 1e-6 for r in roots)


def test_a_kilogram_on_a_climb():
    """Limit of a steep climb: g x 100 / (efficiency x power) = 8.60 s per kg and 100 m (arithmetic); on 5 % of 1,000 m the worked
    derivative says 4.764 s. What the product rides a kilogram heavier takes so much longer."""
    light, heavy = (1000 / float(riding.steady_speed(120, 0.05, mass, 0.55, 0.007, 1.225, 0.95)) for mass in (119.5, 120.5))
    assert heavy - light == pytest.approx(4.764199, abs=2e-3)


@given(st.floats(0, 0.2), st.floats(60, 180), st.floats(0.1, 60), st.floats(50, 250))
def test_a_heavier_bike_is_never_faster_uphill(gradient, mass, more, power):
    light, heavy = (float(riding.steady_speed(power, gradient, m, 0.55, 0.008, 1.2, 0.95)) for m in (mass, mass + more))
    assert heavy <= light + 1e-9


PARTS = [
    (14, 0.48, 0.50), (75, 0.34, 1.10), (16, -0.06, 0.55), (4, -0.05, 0.85), (8, 1.04, 0.45), (3, 0.98, 1.00), (2, 0.55, 0.45),
]  # fmt: skip


def front_by_a_free_body(mass, x, y, base, gradient=0.0):
    """Statics by hand: a linear solve of the balance of forces and of moments about the rear wheel's contact point."""
    angle = math.atan(gradient)
    normal, along = math.cos(angle), math.sin(angle)
    right = np.array([mass.sum() * normal, float(np.sum(mass * (x * normal - y * along)))])
    return float(np.linalg.solve(np.array([[1.0, 1.0], [0.0, base]]), right)[1])


def test_slopes_that_lift_a_wheel_by_a_free_body():
    """At the slope that is told the front wheel bears nothing; braking as hard as is told, the rear wheel does."""
    mass, x, y = (np.array(column) for column in zip(*PARTS, strict=True))
    centre, base = (float(mass @ axis / mass.sum()) for axis in (x, y)), 1.06
    along, up = centre
    lift = float(statics.front_lift_gradient(along, up))
    assert lift == pytest.approx(0.398, abs=5e-4)
    assert front_by_a_free_body(mass, x, y, base, lift) == pytest.approx(0, abs=1e-9)
    for gradient, expected in ((0.0, 7.714), (-0.10, 6.700)):
        assert statics.pitch_over_deceleration(along, up, base, gradient) == pytest.approx(expected, abs=5e-3)


def test_hitch_load_of_worked_trailers():
    """Moments about the trailer's axle: 35 kg, 8 cm ahead, 95 cm to the hitch, rolling left out; tail-heavy is negative."""
    assert statics.hitch_load(35, 0.08, 0.95) == pytest.approx(2.947, abs=5e-3)
    assert statics.hitch_load(35, -0.10, 0.95) < 0


def test_wheels_of_a_rig_bear_what_a_free_body_says():
    """What the product tells of a loaded bike's wheels, against the balance of forces and moments of its parts."""
    bike = pannier_bike()
    kit, load = (thing("tent", 3, 8), thing("pot", 1, 2)), Load(placements=(Placement(thing_id="tent", carrier_id="left"),
                                                                              Placement(thing_id="pot", carrier_id="box")))  # fmt: skip
    levers = Levers(bike)
    bare = levers.bare()
    assert bare.front == pytest.approx(
        front_by_a_free_body(np.array([bare.mass]), np.array([bare.moment_x / bare.mass]), np.array([500.0]), bike.wheelbase_mm)
    )
    assert bare.front + bare.rear == pytest.approx(bare.mass)
    trace = assess(small_tour(*kit, bikes=(bike,), load=load), None).bikes[0]
    parts = [(bare.mass, bare.moment_x / bare.mass), (3.0, levers.centres["left"][0]), (1.0, levers.centres["box"][0])]
    mass, x = (np.array(column) for column in zip(*parts, strict=True))
    told = front_by_a_free_body(mass, x, np.zeros(3), bike.wheelbase_mm)
    assert trace.front_kg[0] == pytest.approx(told, abs=0.05)
    assert Frame.of(bike).bottom_bracket.y == bike.radius_mm - bike.bottom_bracket_drop_mm


@pytest.mark.parametrize(
    ("mass", "height", "age", "male", "kcal"),
    [(75, 180, 35, True, 1705.0), (60, 165, 30, False, 1320.25), (90, 185, 55, True, 1786.25)],
)
def test_resting_energy(mass, height, age, male, kcal):
    """Mifflin, St Jeor et al. (1990), equations for men and women worked by hand; within a tenth of Schofield's of 1985, made from other
    people (FAO/WHO/UNU: MJ a day from the mass at 30 to 60 years, from memory)."""
    assert body.resting_energy(mass, height, age, male) == pytest.approx(kcal)
    schofield = (0.048 * mass + 3.653 if male else 0.034 * mass + 3.538) * 1000 / 4.184
    assert kcal == pytest.approx(schofield, rel=0.1)


def test_riding_energy():
    """120 W for 6 h at 22 % gross efficiency: 2815.9 kcal (definition of efficiency, thermochemical calorie). ACSM's equation for leg
    cycling, 10.8 W/kg + 7 ml of oxygen a minute and kilogram at 5 kcal a litre (from memory), says a sixth more: it has people who
    do not ride every day."""
    found = body.riding_energy(120, 6, 0.22)
    assert found == pytest.approx(2815.9, abs=0.1)
    assert found == pytest.approx((10.8 * 120 / 75 + 7) * 75 / 1000 * 5 * 60 * 6, rel=0.17)


@pytest.mark.parametrize("power", [80, 110, 150])
@pytest.mark.parametrize(("temperature", "humidity"), [(20, 50), (25, 80), (30, 20), (30, 50), (35, 50), (40, 20)])
def test_sweat(temperature, humidity, power):
    """ISO 7933:2004 by pythermalcomfort 4.8.1: 75 kg, 1.80 m (1.94 m²), efficiency 22 %, 0.5 clo, 1.5 m/s, sun as 30 K above the air,
    three hours."""
    watts_m2 = np.array([power / 0.22, power]) / 1.94
    met, work = watts_m2 / 58.15
    strain = phs(
        temperature, temperature + 30, 1.5, humidity, met, 0.5, posture="sitting", wme=work, model="7933-2004", acclimatized=100,
        weight=75, height=1.8, duration=180, limit_inputs=False, round_output=False,
    )  # fmt: skip
    assert float(body.sweat_loss(temperature, humidity, power)) == pytest.approx(float(strain.sweat_loss_g) / 3000, abs=0.12)


GEOD = pyproj.Geod(ellps="WGS84")


@given(st.floats(-75, 75), st.floats(-180, 180), st.floats(0, 360), st.floats(10, 10_000))
def test_distance_on_the_ellipsoid(lat, lon, bearing, metres):
    """pyproj (geodesics of Karney 2013), segments of 10 m to 10 km, across the dateline too."""
    other_lon, other_lat, _ = GEOD.fwd(lon, lat, bearing, metres)
    found = geodesy.segment_lengths([lat, other_lat], [lon, other_lon])[0]
    assert found == pytest.approx(metres, rel=3e-6, abs=1e-4)


@pytest.mark.parametrize(
    ("heights", "threshold", "up", "down"),
    [([0, 10, 5, 15, 0], 4, 20, 20), ([0, 10, 8, 15, 0], 4, 15, 15), ([5, 3, 9, 2, 12], 5, 16, 7),
     ([100, 90, 95, 80], 6, 0, 20), ([0, 3, 1, 4, 2, 5, 3, 6], 2, 12, 6), ([0, 3, 1, 4, 2, 5, 3, 6], 3, 6, 0), ([7, 7, 7], 3, 0, 0)],
)  # fmt: skip
def test_ascent_of_profiles_with_a_known_answer(heights, threshold, up, down):
    """Worked by hand as the best zig-zag whose every leg is at least the threshold."""
    assert geodesy.ascent(heights, threshold) == (up, down)


@given(st.lists(st.floats(0, 100), min_size=2, max_size=60), st.floats(1, 20))
def test_ascent_is_the_same_backwards(heights, threshold):
    up, down = geodesy.ascent(heights, threshold)
    assert geodesy.ascent(heights[::-1], threshold) == pytest.approx((down, up))
    assert abs((up - down) - (heights[-1] - heights[0])) <= 2 * threshold + 1e-6


@pytest.mark.parametrize(("lat", "lon"), [(0, -78.5), (30, 31), (48.85, 2.35), (60.17, 24.94), (-51.62, -69.22)])
@pytest.mark.parametrize("day", [dt.date(2025, 3, 20), dt.date(2025, 6, 21), dt.date(2025, 12, 21)])
def test_sun_times(lat, lon, day):
    """PyEphem 4.2.1 (horizon -0:50, no refraction model), within 15 s."""
    place = ephem.Observer()
    place.lat, place.lon, place.pressure, place.horizon = str(lat), str(lon), 0, "-0:50"
    noon = dt.datetime(day.year, day.month, day.day) + dt.timedelta(hours=12 - lon / 15)
    place.date = noon
    rise = place.previous_rising(ephem.Sun(), use_center=True).datetime()
    fall = place.next_setting(ephem.Sun(), use_center=True).datetime()
    midnight = dt.datetime(day.year, day.month, day.day)
    for rising, expected in ((True, rise), (False, fall)):
        hour = sun.sun_event_hour(day, lat, lon, sun.SUNRISE_ZENITH_DEG, rising)
        assert hour is not None
        assert abs((midnight + dt.timedelta(hours=hour) - expected).total_seconds()) < 15


def test_polar_day_and_a_second_library():
    """No sunrise at 69.65 N in June; pvlib's SPA (Reda and Andreas 2004) agrees at 45 N within 20 s."""
    assert sun.sun_event_hour(dt.date(2025, 6, 21), 69.65, 18.96, sun.SUNRISE_ZENITH_DEG, True) is None
    import pandas as pd

    day = pd.DatetimeIndex([pd.Timestamp("2027-05-01", tz="UTC")])
    spa = pvlib.solarposition.sun_rise_set_transit_spa(day, 45.0, 10.0)
    rise = sun.sun_event_hour(dt.date(2027, 5, 1), 45.0, 10.0, sun.SUNRISE_ZENITH_DEG, True)
    expected = spa.sunrise.iloc[0].hour + spa.sunrise.iloc[0].minute / 60 + spa.sunrise.iloc[0].second / 3600
    assert abs(rise - expected) * 3600 < 20


UNITS = pint.UnitRegistry()


@pytest.mark.parametrize(
    ("table", "ours", "theirs", "base"),
    [(measures.GRAMS_PER, "lb", "pound", "gram"), (measures.GRAMS_PER, "oz", "ounce", "gram"),
     (measures.LITRES_PER, "fl oz", "fluid_ounce", "liter"), (measures.LITRES_PER, "gal", "gallon", "liter"),
     (measures.LITRES_PER, "qt", "quart", "liter"), (measures.LITRES_PER, "in3", "inch ** 3", "liter"),
     (measures.MILLIMETRES_PER, "in", "inch", "millimeter"), (measures.MILLIMETRES_PER, "ft", "foot", "millimeter")],
)  # fmt: skip
def test_units(table, ours, theirs, base):
    """pint 0.25.3: international pound and yard, US liquid measures."""
    assert table[ours] == pytest.approx(UNITS(theirs).to(base).magnitude, rel=1e-9)


def test_gears():
    """37-622 tyres: development, inches and speeds by their definitions; steepest gradients worked by hand elsewhere."""
    low, high, small = gearing.development(0.348, np.array([24, 50, 22]), np.array([34, 11, 36]))
    assert (low, high, small) == pytest.approx((1.5434, 9.9389, 1.3362), abs=1e-4)
    assert low / (np.pi * 0.0254) == pytest.approx(19.34, abs=0.01)  # gear inches
    assert gearing.speed_kmh(low, np.array([50, 70, 90])) == pytest.approx([4.63, 6.48, 8.33], abs=0.005)
    steepest = gearing.steepest_gradient(np.array([120, 150, 200]), 120, low, 50, 0.55, 0.008, 1.1, 0.95)
    assert steepest == pytest.approx([0.0671, 0.0861, 0.1180], abs=1e-4)
    assert gearing.steepest_gradient(150, 120, small, 50, 0.55, 0.008, 1.1, 0.95) == pytest.approx(0.1010, abs=1e-4)
    # On that gradient the steady speed is the one of the gear.
    speed = riding.steady_speed(150, 0.1010, 120, 0.55, 0.008, 1.1, 0.95)
    assert 3.6 * speed == pytest.approx(gearing.speed_kmh(small, 50), rel=2e-3)


def test_tyre_pressure():
    """The remembered fit of Berto's chart at 15 % drop, worked by hand elsewhere: arithmetic only, the chart is not at hand."""
    wanted = tyres.pressure(np.array([50, 50, 75]), np.array([37, 28, 47]))
    assert wanted == pytest.approx([3.41, 5.57, 3.52], abs=0.01)
    reaches_five_bar = tyres.pressure(np.array([45, 56, 70, 86, 103]), np.array([28, 32, 37, 42, 47]))
    assert reaches_five_bar == pytest.approx([5.0] * 5, abs=0.06)


def test_power_falls_with_height():
    """Bassett and others 1999, acclimatised, from memory: 99.9 - 1.90 h - 1.12 h² per cent of the power at sea level, h in km:
    at Mexico City (2.34 km) 89.3 %, on a pass of 3.65 km 78.1 %. Between what others found, from memory: Wehrlin and Hallén 2006,
    6.3 % a kilometre, not acclimatised; Péronnet and others 1991, 1 - 4.01e-6 m - 11.7e-9 m²."""
    assert body.aerobic_share([0, 2340, 3650]) == pytest.approx([1, 0.893, 0.781], abs=2e-3)
    metres = np.array([1500.0, 2340.0, 3000.0])
    found = body.aerobic_share(metres)
    assert np.all(found > 1 - 0.063 * metres / 1000)
    assert np.all(found < 1 - 4.01e-6 * metres - 11.7e-9 * metres**2 + 0.01)
    assert body.aerobic_share(9000) == body.aerobic_share(5000)
