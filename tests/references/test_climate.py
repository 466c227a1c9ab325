"""The climate that ships, against normals that were not used in making it.

`normals_from_memory.csv`: mean daily maxima and minima of January, April, July and October at forty places, as weather services
publish them (1981-2010 or 1991-2020), written down from memory; they may be a degree off.
"""

import csv
import datetime as dt
from pathlib import Path

import numpy as np
import pvlib
import pytest

from omnifer.core.physics import climatology, weather
from omnifer.core.world import cells, climate

MONTHS = {"jan": 0, "apr": 3, "jul": 6, "oct": 9}
NINE_IN_TEN = 1.645
"""Standard deviations that hold 90 %; any table of the normal distribution."""


@pytest.fixture(scope="module")
def told():
    """Remembered maxima and minima, told ones, and told widths, shape (places * months,)."""
    rows = list(csv.DictReader((Path(__file__).parent / "normals_from_memory.csv").open()))
    where = (np.array([float(row[key]) for row in rows]) for key in ("lat_deg", "lon_deg", "elevation_m"))
    stations = climate.stations_at(*where, [row["place"] for row in rows])
    table = []
    for row, station in zip(rows, stations, strict=True):
        assert station is not None, row["place"]
        for name, month in MONTHS.items():
            found = station.months[month]
            table.append(
                (float(row[f"{name}_max"]), float(row[f"{name}_min"]), found.mean_max_c, found.mean_min_c, station.width_k)
            )
    assert len(table) == 160
    return np.array(table).T


def test_means_are_near_remembered_normals(told):
    high, low, told_high, told_low, _ = told
    assert (np.abs((told_high + told_low) / 2 - (high + low) / 2) <= 2).mean() >= 0.9


def test_minima_are_near_and_their_width_is_honest(told):
    _, low, _, told_low, width = told
    off = np.abs(told_low - low)
    assert (off <= 3).mean() >= 0.8
    assert (off <= NINE_IN_TEN * width).mean() >= 0.9
    assert width.mean() < 2  # and it does not hold by saying nothing


def test_a_valley_in_rough_land_is_less_sure_than_a_plain():
    """Almaty at the foot of its mountains, Winnipeg on its prairie: published as facts of the land."""
    foot, prairie = climate.stations_at([43.24, 49.92], [76.93, -97.23], [851, 239], ["foot", "prairie"])
    assert foot.width_k > prairie.width_k + 0.5


@pytest.mark.parametrize("lat", [0, 20, 48, 66])
def test_sunlight_outside_the_atmosphere_is_that_of_pvlib(lat):
    """pvlib: extraterrestrial irradiance by hour, times the cosine of the zenith, summed over the day."""
    for date in (dt.date(2001, 1, 15), dt.date(2001, 6, 15)):
        times = pvlib.tools.pd.date_range(str(date), periods=24 * 60, freq="1min", tz="UTC")
        up = np.cos(np.radians(pvlib.solarposition.get_solarposition(times, lat, 0)["zenith"])).clip(lower=0)
        summed = float((pvlib.irradiance.get_extra_radiation(times) * up).sum() * 60 / 1e6)
        assert climatology.daily_radiation(lat, date) == pytest.approx(summed, rel=0.015, abs=0.1)


def test_sunlight_of_the_worked_example():
    """FAO Irrigation and Drainage Paper 56, example 8: 20° S on 3 September has 32.2 MJ/m² a day; from memory."""
    assert climatology.daily_radiation(-20, dt.date(2001, 9, 3)) == pytest.approx(32.2, rel=0.01)


def test_records_of_days_vary_as_told():
    """Daily records that statistics packages carry (mosaicData, stevedata, vega datasets), worked out once with pandas:
    year's swing of the means, standard deviation of minima in January and July, days of 1 mm, rain of the month."""
    for swing, winter, summer in (
        (20.5, 5.8, 1.8),
        (27.3, 6.6, 2.7),
        (13.6, 3.4, 1.7),
        (7.7, 2.1, 1.2),
        (5.9, 1.8, 1.2),
        (8.6, 2.9, 2.0),
    ):
        year = np.array([[0.0]] * 6 + [[swing]] * 6)
        found = climatology.spreads(year)[1]
        assert found[0, 0] == pytest.approx(winter, abs=1)
        assert found[-1, 0] == pytest.approx(summer, abs=1)
    for rain, days in ((57, 6.8), (105, 11.0), (89, 9.2), (592, 26.1), (173, 13.8), (20, 1.5), (130, 12.1)):
        assert climatology.rain_days(rain) == pytest.approx(days, abs=2)


def test_a_shared_error_of_the_means_against_drawing_it():
    """Two hundred thousand tours drawn: a shift that all nights share, then each night by itself."""
    chance = np.random.default_rng(1)
    mean = np.linspace(4, 10, 40)
    nights = mean + 1.6 * chance.standard_normal((200_000, 1)) + 3 * chance.standard_normal((200_000, 40))
    coldest = nights.min(axis=1)
    assert weather.some_below(mean, 3, -3, 1.6) == pytest.approx((coldest < -3).mean(), abs=0.003)
    assert weather.coldest_of(mean, np.full(40, 3.0), 0.1, 1.6) == pytest.approx(np.quantile(coldest, 0.1), abs=0.03)
    assert weather.coldest_of(mean, np.full(40, 3.0), 0.1, 1.6) > weather.coldest_of(mean, np.full(40, np.hypot(3, 1.6)), 0.1)


def test_the_grid_wraps_falls_with_height_and_knows_no_sea():
    west, east, high = (
        cells.normals_at(-16.8, lon, height).mean_c[:, 0] for lon, height in ((179.99, 0), (-179.99, 0), (179.99, 1000))
    )
    assert np.abs(west - east).max() < 0.3  # Fiji lies across the date line
    assert west - high == pytest.approx(6.5)  # ISO 2533
    assert np.isnan(cells.normals_at(40.0, -30.0, 0).mean_c).all()
    assert climate.stations_at([40.0], [-30.0], [0], ["at sea"]) == [None]


def test_packed_rain_is_within_three_per_cent():
    rain = np.array([0, 0.5, 3, 20, 100, 400, 1200])
    assert cells.unpack_rain(cells.pack_rain(rain)) == pytest.approx(rain, rel=0.03, abs=0.05)
