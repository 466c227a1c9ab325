"""Water and food worked by hand, and how they answer to heat, riders and rest."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.people import Rider
from omnifer.core.model.road import Road, Stop, TypedDay
from omnifer.core.physics import body
from omnifer.core.road.climate import Climate
from omnifer.core.supplies import food, water
from tests.conftest import RIDER, small_tour

HOURS = np.linspace(0, 6, 25)


def climate(high: float, low: float, humidity: float = 40) -> Climate:
    even = np.ones(HOURS.size)
    return Climate(
        high * even, low * even, high * even, low * even, 0 * even, 0 * even, humidity * even, 0 * even, 0 * even, "typed"
    )


def drunk_and_carried(high: float, low: float, riders=(RIDER,)):
    """Six hours at three quarters of the way from the low to the high."""
    even = climate(high, low)
    warm = even.night_low_c + 0.75 * (even.day_high_c - even.night_low_c)
    return [amount[-1] for amount in water.along(HOURS, even, warm, riders)]


def test_a_rest_day_eats_what_the_body_burns_at_rest():
    """Mifflin and St Jeor 1990 for 70 kg, 172 cm, 40 years, woman: 700 + 1075 - 200 - 161 = 1414 kcal, times 1.4."""
    assert food.resting(RIDER) == pytest.approx(1414)
    assert food.rest_day_energy((RIDER,)) == pytest.approx(1414 * 1.4)
    assert food.rest_day_energy((RIDER, RIDER)) == pytest.approx(2 * food.rest_day_energy((RIDER,)))


def test_a_riding_day_adds_power_over_efficiency():
    """110 W for 6 h at 0.22 is 10800 kJ or 2581 kcal; 18 of 24 hours off the bicycle."""
    km = np.linspace(0, 90, HOURS.size)
    eaten = food.energy_along(km, HOURS[None, :], np.array([0.0, 90.0]), (RIDER,))
    assert eaten[-1] == pytest.approx(2581.25 + 1414 * 1.4 * 18 / 24, rel=1e-5)
    coasting = food.energy_along(km, HOURS[None, :] / 2, np.array([0.0, 90.0]), (RIDER,))
    assert coasting[-1] == pytest.approx(2581.25 / 2 + 1414 * 1.4 * 21 / 24, rel=1e-5)
    assert (np.diff(eaten) > 0).all()


def test_water_never_falls_below_its_floor_and_is_carried_with_a_margin():
    drunk, carried = drunk_and_carried(12, 2)
    assert (drunk, carried) == (pytest.approx(6 * 0.25), pytest.approx(6 * 0.35))
    hot, warm = climate(38, 24), 34.5
    # The day's moisture holds at its warm hours too: saturation at 38, 24 and 34.5 °C is 6.63, 2.98 and 5.47 kPa (FAO 56, table 2.3).
    assert hot.humidity_at(np.array([warm]))[0] == pytest.approx(40 * (6.63 + 2.98) / 2 / 5.47, abs=0.15)
    loss = float(body.sweat_loss(warm, hot.humidity_at(np.array([warm]))[0], 110))
    assert drunk_and_carried(38, 24) == [pytest.approx(6 * loss), pytest.approx(6 * 1.5 * loss)]


@given(st.floats(5, 38), st.floats(0.5, 6), st.floats(60, 180))
def test_hotter_or_harder_never_drinks_less(high, warmer, power):
    rider = Rider(id="r", name="R", body_mass_kg=70, all_day_power_w=power)
    harder = rider.model_copy(update={"all_day_power_w": power + 10})
    base = drunk_and_carried(high, high - 8, (rider,))[0]
    assert drunk_and_carried(high + warmer, high + warmer - 8, (rider,))[0] >= base - 1e-9
    assert drunk_and_carried(high, high - 8, (harder,))[0] >= base - 1e-9
    assert drunk_and_carried(high, high - 8, (rider, rider))[0] == pytest.approx(2 * base)


def test_a_basic_shop_sells_two_days_and_the_rest_comes_along():
    """Ten even days and a shop after the fifth: 5 days and half a day's reserve from a full shop, 2 days fewer from a basic one
    and none of them from a shut one."""

    def leaving_start(shop: str) -> float:
        day = TypedDay(distance_km=60, ascent_m=0, highest_m=100, lowest_m=100)
        road = Road(typed_days=(day,) * 10, stops=(Stop(id="s", name="Mill", at_km=300, shop=shop),))
        tour = small_tour(road=road)
        gap = next(gap for gap in assess(tour, profile_of(tour)).gaps if gap.supply == "food")
        return gap.need

    full, basic, none = (leaving_start(shop) for shop in ("full", "basic", "none"))
    daily = (none - full) / 5
    assert full == pytest.approx(5.5 * daily, rel=0.02)
    assert basic == pytest.approx(8.5 * daily, rel=0.02)
