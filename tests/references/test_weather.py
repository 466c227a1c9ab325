"""Weather formulas and normals against published values, numpy, scipy and a typical year that pvlib ships."""

import datetime as dt
import io
from pathlib import Path

import numpy as np
import pandas as pd
import pvlib
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from omnifer.core.physics import weather
from omnifer.core.road import normals
from omnifer.formats.stations import normals_of_days, read_station

SHIPPED = Path(pvlib.__file__).parent / "data"


@pytest.mark.parametrize(
    ("air", "wind", "felt"), [(0, 20, -5.242), (0, 40, -7.396), (-5, 30, -12.997), (-10, 40, -20.765), (-20, 40, -34.135)]
)
def test_wind_chill(air, wind, felt):
    """JAG/TI 2001; the values as pythermalcomfort 4.8.1 computes them."""
    assert weather.wind_chill(air, wind) == pytest.approx(felt, abs=1e-3)


@given(st.floats(-50, 45), st.floats(0, 120))
def test_wind_never_warms_and_calm_air_is_itself(air, wind):
    felt = float(weather.wind_chill(air, wind))
    assert felt <= air + 1e-9
    assert weather.wind_chill(air, 0) == air
    if air > 10:
        assert felt == air


@pytest.mark.parametrize(("air", "damp", "felt"), [(30, 70, 35.04), (32, 50, 34.36), (35, 40, 37.22), (35, 60, 45.05)])
def test_heat_index(air, damp, felt):
    """Rothfusz 1990 with the NWS adjustments; the values as pythermalcomfort 4.8.1 computes them."""
    assert weather.heat_index(air, damp) == pytest.approx(felt, abs=0.02)


def test_the_heat_index_of_mild_air_is_the_air():
    assert weather.heat_index(18, 40) == pytest.approx(18, abs=0.8)
    assert weather.heat_index(5, 90) == 5


@pytest.mark.parametrize("odds", [0.5, 0.2, 0.1, 0.05, 0.02])
def test_odds_are_those_of_the_normal_distribution(odds):
    """scipy.stats as the second library."""
    assert weather.exceeded(20, 4, odds) == pytest.approx(stats.norm(20, 4).isf(odds))
    assert weather.exceeded(3, -4, odds) == pytest.approx(stats.norm(3, 4).ppf(odds))


def test_the_coldest_of_many_nights():
    """z for one night in ten: -2.172, -2.433, -2.696 and -3.043 for 7, 14, 30 and 90 nights (scipy 1.17.1)."""
    for nights, z in ((7, -2.172), (14, -2.433), (30, -2.696), (90, -3.043)):
        assert weather.coldest_of([0] * nights, [1] * nights, 0.1) == pytest.approx(z, abs=6e-4)
    assert weather.coldest_of([3] * 30, [4] * 30, 0.1) == pytest.approx(-7.79, abs=6e-3)


def test_the_coldest_of_unlike_nights_is_the_root_of_their_product():
    """scipy: the chance that none of three unlike nights is colder is the product of their survival functions."""
    found = weather.coldest_of([-2, 1, 4], [3, 5, 0.5], 0.2)
    assert 1 - np.prod(stats.norm([-2, 1, 4], [3, 5, 0.5]).sf(found)) == pytest.approx(0.2, abs=1e-4)


def test_the_course_of_a_day():
    """Worked by hand from Parton and Logan's formula, sunrise 6, sunset 18, 10 to 20 °C: lowest at 5:50; at noon the sine of
    pi * 6.17 / 15.72, 0.9436; highest at 13:41; at sunset sin(pi * 12.17 / 15.72), 0.6511; at midnight that falls by
    exp(-2.2 * 6 / 12), 0.3329."""
    expected = [10, 19.436, 20, 16.511, 12.167]
    assert weather.daily_course([5.83, 12, 13.69, 18, 24], 10, 20, 6, 18) == pytest.approx(expected, abs=0.02)
    assert (np.diff(weather.daily_course(np.linspace(6, 13, 40), 10, 20, 6, 18)) > 0).all()


@given(st.lists(st.floats(-30, 40), min_size=12, max_size=12))
def test_interpolation_between_months_keeps_each_months_mean(monthly):
    """The line through the year has, over each month, exactly that month's mean (Rymes and Myers 2001)."""
    start = np.concatenate([[0.0], np.cumsum(normals.DAYS)])
    for month in range(12):
        day = start[month] + (np.arange(int(normals.DAYS[month] * 8)) + 0.5) / int(normals.DAYS[month] * 8) * normals.DAYS[month]
        mean = normals.smooth_year(day, np.array(monthly)).mean()
        assert mean == pytest.approx(monthly[month], abs=1e-6)


@given(st.lists(st.floats(-30, 40), min_size=12, max_size=12), st.floats(0, 365))
def test_the_year_is_a_ring_without_a_step(monthly, day):
    table = np.array(monthly)
    here, there = (float(normals.smooth_year(np.array([d]), table)[0]) for d in (day, day + normals.YEAR))
    assert here == pytest.approx(there, abs=1e-6)
    near = float(normals.smooth_year(np.array([day + 0.01]), table)[0])
    assert abs(near - here) < 0.3


def test_a_shipped_typical_year_against_pandas():
    """The typical-year file that pvlib ships: monthly means of daily extremes by pandas on the same hours."""
    source = SHIPPED / "723170TYA.CSV"
    station, _ = read_station(source.read_bytes(), "tmy", "", None)
    table = pd.read_csv(source, skiprows=1)
    frame = pd.DataFrame({"month": table["Date (MM/DD/YYYY)"].str[:2].astype(int), "t": table["Dry-bulb (C)"]})
    frame["day"] = np.arange(8760) // 24
    daily = frame.groupby("day").agg(month=("month", "first"), high=("t", "max"), low=("t", "min"))
    by_month = daily.groupby("month").agg(["mean", "std"])
    for month, found in enumerate(station.months, 1):
        row = by_month.loc[month]
        assert found.mean_max_c == pytest.approx(row[("high", "mean")], abs=0.006)
        assert found.mean_min_c == pytest.approx(row[("low", "mean")], abs=0.006)
        assert found.spread_max_c == pytest.approx(row[("high", "std")], abs=0.006)
        assert found.spread_min_c == pytest.approx(row[("low", "std")], abs=0.006)
    assert (station.lat_deg, station.lon_deg, station.elevation_m) == (36.1, -79.95, 273)
    assert station.source == "typical year"


def daily_record(years: int, tenths: bool) -> tuple[bytes, pd.DataFrame]:
    chance = np.random.default_rng(4)
    days = pd.date_range("2001-01-01", periods=365 * years, freq="D")
    season = -np.cos(2 * np.pi * (days.dayofyear - 15) / 365.25)
    high = np.round(15 + 10 * season + chance.normal(0, 3, days.size), 1)
    low = np.round(high - 9 + chance.normal(0, 2, days.size), 1)
    rain = np.where(chance.random(days.size) < 0.25, np.round(chance.exponential(6, days.size), 1), 0.0)
    frame = pd.DataFrame({"DATE": days.strftime("%Y-%m-%d"), "TMAX": high, "TMIN": low, "PRCP": rain})
    out = frame.copy()
    if tenths:
        out[["TMAX", "TMIN", "PRCP"]] = (out[["TMAX", "TMIN", "PRCP"]] * 10).round().astype(int)
    out.insert(0, "STATION", "XX00001")
    out.insert(2, "LATITUDE", 41.5)
    out.insert(3, "LONGITUDE", -30.25)
    out.insert(4, "ELEVATION", 210.0)
    out.loc[5, "TMAX"] = -9999
    text = io.StringIO()
    out.to_csv(text, index=False)
    return text.getvalue().encode(), frame


@pytest.mark.parametrize("tenths", [True, False])
def test_normals_of_a_daily_record_against_pandas(tenths):
    """A record in the columns of GHCN-Daily, in tenths as its files are or in degrees; a missing day stays missing."""
    content, frame = daily_record(10, tenths)
    station, _ = read_station(content, "s", "Old Mill", None)
    frame.loc[5, "TMAX"] = np.nan
    month = pd.to_datetime(frame["DATE"]).dt.month
    means = frame.groupby(month)[["TMAX", "TMIN"]].mean()
    wet = (frame["PRCP"] >= 1).groupby(month).mean() * 30.4
    for number, found in enumerate(station.months, 1):
        assert found.mean_max_c == pytest.approx(means.loc[number, "TMAX"], abs=0.01)
        assert found.mean_min_c == pytest.approx(means.loc[number, "TMIN"], abs=0.01)
        assert found.rain_days == pytest.approx(wet.loc[number], abs=0.01)
    assert (station.lat_deg, station.lon_deg, station.elevation_m) == (41.5, -30.25, 210)


def test_spreads_are_those_of_numpy():
    chance = np.random.default_rng(2)
    month = np.repeat(np.arange(1, 13), 30)
    high, low = chance.normal(20, 4, 360), chance.normal(8, 3, 360)
    rows = normals_of_days(month, high, low, np.zeros(360))
    for number, row in enumerate(rows, 1):
        assert row["spread_max_c"] == pytest.approx(np.std(high[month == number], ddof=1))
        assert row["spread_min_c"] == pytest.approx(np.std(low[month == number], ddof=1))
        assert row["rain_days"] == 0


def test_a_date_is_a_place_in_the_year():
    """The first of July lies half a year after the first of January, and near the middle of a warm north."""
    monthly = np.array([0, 1, 5, 9, 14, 18, 20, 19, 15, 10, 5, 1.0])
    july = dt.date(2027, 7, 16).timetuple().tm_yday - 1
    assert normals.smooth_year(np.array([float(july)]), monthly)[0] > 19.5
