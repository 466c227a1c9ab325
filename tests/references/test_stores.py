"""Boiling, fuel, dynamo and sun against reference libraries and standards; the trade's own check sums beside them."""

import datetime as dt

import numpy as np
import pandas as pd
import pvlib
import pytest
from CoolProp.CoolProp import PropsSI
from iapws import IAPWS97
from iapws._iapws import _Ice

from omnifer.core.model.fuels import FUELS
from omnifer.core.physics import boiling, dynamo, sun
from omnifer.core.physics.air import standard_pressure
from omnifer.core.supplies.foods import FOODS

HEIGHTS = (0, 1000, 2000, 3000, 4000, 5000)


@pytest.mark.parametrize("height", HEIGHTS)
def test_water_boils_where_the_steam_tables_say(height):
    """IAPWS-IF97 by iapws 1.5.5 at the standard pressure of the height; the Antoine form errs by 0.08 K up to 5,000 m."""
    saturated = IAPWS97(P=float(standard_pressure(height)) / 1e6, x=0).T - 273.15
    assert float(boiling.boiling_point(height)) == pytest.approx(saturated, abs=0.1)


@pytest.mark.parametrize("from_c", [1, 5, 10, 15, 25])
def test_heating_water_takes_what_its_enthalpy_rises_by(from_c):
    """IAPWS-95 by CoolProp 8.0.0, enthalpy of a kilogram at sea level."""
    cold, hot = PropsSI("H", "T", from_c + 273.15, "P", 101325, "Water"), PropsSI("H", "Q", 0, "P", 101325, "Water")
    assert float(boiling.heat_to_boil(1, from_c, 0)) == pytest.approx((hot - cold) / 1000, abs=1.0)


def test_melting_snow_takes_what_ice_and_water_hold():
    """IAPWS-06 for ice and IF97 for water by iapws 1.5.5: a kilogram of snow at -10 °C made water of 5 °C."""
    ice, wet = _Ice(263.15, 0.101325)["h"], IAPWS97(T=278.15, P=0.101325).h
    assert float(boiling.heat_to_melt(1, -10, 5)) == pytest.approx(wet - ice, abs=1.5)


@pytest.mark.parametrize(("share", "grams"), [(0.4, 19.5), (0.5, 15.6), (0.6, 13.0), (0.7, 11.1)])
def test_a_litre_takes_so_many_grams_of_gas(share, grams):
    """15 to 100 °C is 355.8 kJ; at 45.7 MJ/kg (lower heating value of the mix as gas) 19.5, 15.6, 13.0 and 11.1 g."""
    burnt = boiling.fuel_mass(boiling.heat_to_boil(1, 15, 0), share, 45.7)
    assert 1000 * float(burnt) == pytest.approx(grams, rel=0.01)


def test_alcohol_takes_more_than_petrol_and_petrol_hardly_more_than_gas():
    """Lower heating values from formation enthalpies (chemicals 1.5.2): isobutane 45.23, propane 45.96, octane 44.42 MJ/kg, ethanol
    26.82 and with a twentieth of water 24.6."""
    assert 45.2 < FUELS["gas"].heating_value < 46.0
    assert FUELS["petrol"].heating_value == pytest.approx(44.42, abs=0.1)
    assert 24.0 < FUELS["alcohol"].heating_value < 26.82


def test_a_litre_of_snow_takes_twice_the_fuel_of_a_litre_of_water():
    """From snow of -10 °C to 90 °C 730.8 kJ, 32.0 g at half efficiency and 45.7 MJ/kg; from water of 5 °C 355.8 kJ."""
    snow = float(boiling.fuel_mass(boiling.heat_to_melt(1, -10, 90), 0.5, 45.7))
    assert 1000 * snow == pytest.approx(32.0, abs=0.1)
    assert snow / float(boiling.fuel_mass(4.186 * 85, 0.5, 45.7)) == pytest.approx(2.05, abs=0.01)


@pytest.mark.parametrize(("kmh", "least_v", "most_v"), [(5, 3.0, 7.5), (15, 5.7, 7.5), (30, 5.7, 7.5)])
def test_a_hub_dynamo_stays_within_what_lamps_are_made_for(kmh, least_v, most_v):
    """ISO 6742-4 and TA 23 on 12 ohms, from memory: 3 V at least at 5 km/h, 5.7 to 7.5 V at 15, 7.5 V at most at 30."""
    volts = np.sqrt(float(dynamo.lamp_power(kmh / 3.6)) * dynamo.LAMP_OHM)
    assert least_v <= volts <= most_v


@pytest.mark.parametrize(
    ("lat", "date"),
    [(50, dt.date(2025, 6, 21)), (50, dt.date(2025, 12, 21)), (35, dt.date(2025, 3, 20)), (0, dt.date(2025, 3, 20))],
)
def test_the_clear_sky_is_that_of_pvlib(lat, date):
    """pvlib 0.16.1: its Haurwitz model over its own solar positions, and Ineichen's with its turbidity within a quarter; a panel
    that lies flat gets what pvlib's transposition gives a tilt of nothing."""
    place = pvlib.location.Location(lat, 0, altitude=0)
    times = pd.date_range(f"{date} 00:00", periods=24 * 12, freq="5min", tz="UTC")
    position = place.get_solarposition(times)
    haurwitz = pvlib.clearsky.haurwitz(position["apparent_zenith"])["ghi"]
    flat = pvlib.irradiance.get_total_irradiance(
        0, 180, position["apparent_zenith"], position["azimuth"], haurwitz * 0, haurwitz, haurwitz
    )["poa_global"]
    hours = (np.arange(24 * 12) + 0.5) / 12
    own = float(sun.clear_sky(sun.height_sine(lat, sun.declination(date), hours)).sum()) / 12 / 1000
    assert own == pytest.approx(float(flat.sum()) / 12 / 1000, rel=0.02)
    ineichen = place.get_clearsky(times, model="ineichen", linke_turbidity=3)["ghi"]
    assert own == pytest.approx(float(ineichen.sum()) / 12 / 1000, rel=0.25)


@pytest.mark.parametrize(
    ("food", "low", "high"),
    [("oil", 880, 900), ("nuts", 580, 650), ("chocolate", 530, 550), ("hard-cheese", 380, 420), ("oats", 370, 390),
     ("pasta", 350, 360), ("rice", 350, 360), ("dried-fruit", 250, 320), ("bread", 240, 270)],
)  # fmt: skip
def test_foods_hold_the_energy_that_food_tables_give(food, low, high):
    """Ranges of national food-composition tables, kcal in 100 g, rounded, from memory."""
    assert low <= FOODS[food].kcal_per_100g <= high


def test_a_day_of_bars():
    """Kitchen scale, common practice, no source: 1,500 kcal are 8 bars of 45 g, 0.36 kg, 0.72 l."""
    bar = FOODS["bars"]
    bars = 1500 / (bar.kcal_per_100g * bar.pack_g / 100)
    assert round(bars) == 8
    assert round(bars) * bar.pack_g / 1000 == pytest.approx(0.36)
    assert round(bars) * bar.pack_g / 1000 * bar.l_per_kg == pytest.approx(0.72)
