"""The weather stand-in and its client, over real HTTP; the generator against what is published of it."""

import datetime as dt
import socket

import numpy as np
import pytest
from flask import Flask

from omnifer.core.model.road import MonthNormals
from omnifer.core.road.normals import DAYS, table_of
from omnifer.devices import weather
from omnifer.devices.weather_service import create_service
from omnifer.outside.asking import Trouble
from omnifer.outside.weather import Asked, WeatherService
from tests.outside.conftest import Serve

MONTHS = tuple(
    MonthNormals(
        mean_max_c=18 + 10 * s, mean_min_c=7 + 8 * s, spread_max_c=4.5 - s, spread_min_c=3, rain_days=8 - 4 * s, wind_ms=4
    )
    for s in np.sin(2 * np.pi * (np.arange(12) - 3) / 12).tolist()
)
ASKED = Asked(45.0, 9.0, 400.0, dt.date(2027, 7, 3), MONTHS)


def test_matrices_are_the_published_ones() -> None:
    # Richardson (1981), Water Resources Research 17:182, as used in WGEN (Richardson and Wright 1984); from memory.
    a, b = weather.matrices()
    assert a == pytest.approx(np.array([[0.567, 0.086, -0.002], [0.253, 0.504, -0.050], [-0.006, -0.039, 0.244]]), abs=0.0025)
    assert b == pytest.approx(np.array([[0.781, 0, 0], [0.328, 0.637, 0], [0.238, -0.341, 0.873]]), abs=0.0015)


def test_generated_years_have_the_normals() -> None:
    """Monthly means, spreads, rain days and wind over 300 years, each within four standard errors of what was put in."""
    years = [weather.generate(MONTHS, 0, 365, seed) for seed in range(300)]
    month = np.repeat(np.arange(12), np.floor(DAYS).astype(int))
    high, low, wet, wind = (
        np.array([getattr(y, name) for y in years], dtype=float) for name in ("high_c", "low_c", "wet", "wind_ms")
    )
    mean_max, mean_min, spread_max, spread_min, rain_days, _, blown = table_of(MONTHS)
    for m in range(12):
        here = month == m
        # Days follow each other: at a lag-one correlation near 0.65 some four in five bring nothing new.
        error = 4 / np.sqrt(300 * here.sum() / 5)
        assert high[:, here].mean() == pytest.approx(mean_max[m], abs=error * spread_max[m])
        assert low[:, here].mean() == pytest.approx(mean_min[m], abs=error * spread_min[m])
        assert wet[:, here].mean() == pytest.approx(rain_days[m] / 30.4, abs=error / 2)
        assert wind[:, here].mean() == pytest.approx(blown[m], abs=error * 2.1)
        # The season moves within a month, which widens it; days are compared with their own day of other years.
        assert high[:, here].std(axis=0).mean() == pytest.approx(spread_max[m], rel=0.12)
        assert low[:, here].std(axis=0).mean() == pytest.approx(spread_min[m], rel=0.06)
    assert np.all(high >= low)
    before, after = wet[:, 180:210], wet[:, 181:211]  # in one month, so that the season tells nothing
    assert after[before == 1].mean() - after[before == 0].mean() == pytest.approx(weather.WET_AFTER_WET, abs=0.05)


def test_a_service_tells_one_weather_ever_less_surely() -> None:
    first = weather.outlook(MONTHS, 400, dt.date(2027, 7, 3), 5, seed=4)
    assert (
        weather.outlook(MONTHS, 400, dt.date(2027, 7, 3), 5, seed=4)
        == first
        != weather.outlook(MONTHS, 400, dt.date(2027, 7, 3), 5, seed=5)
    )
    morning = weather.outlook(MONTHS, 400, dt.date(2027, 7, 7), 5, seed=4)
    normal = float(weather.normals_on(MONTHS, np.array([187.0]))[0, 0])
    assert first.days[4].date == morning.days[0].date
    off_before, off_now = first.days[4].high_c - normal, morning.days[0].high_c - normal
    assert off_before == pytest.approx(off_now * weather.SKILL**4, abs=0.1)


def test_a_busy_service_is_asked_again_and_its_answer_is_checked(serve: Serve) -> None:
    assert len(WeatherService(serve(create_service(1, failing=2))).outlook(ASKED).days) == 5
    with pytest.raises(Trouble, match="503"):
        WeatherService(serve(create_service(1, failing=9))).outlook(ASKED)
    with pytest.raises(Trouble, match="422"):
        WeatherService(serve(create_service(1))).outlook(Asked(95.0, 9.0, 0, ASKED.date, MONTHS))
    liar = Flask("liar")
    liar.add_url_rule("/outlook", "tell", lambda: '{"elevation_m": 3, "days": [{"date": "soon"}]}', methods=["POST"])
    with pytest.raises(Trouble, match="understood"):
        WeatherService(serve(liar)).outlook(ASKED)


def test_a_silent_service_is_not_waited_for(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("omnifer.outside.weather.READ_S", 0.2)
    with socket.socket() as deaf:
        deaf.bind(("127.0.0.1", 0))
        with pytest.raises(Trouble, match="cannot be reached"):
            WeatherService(f"http://127.0.0.1:{deaf.getsockname()[1]}").outlook(ASKED)
        deaf.listen()
        with pytest.raises(Trouble, match="in time"):
            WeatherService(f"http://127.0.0.1:{deaf.getsockname()[1]}").outlook(ASKED)
