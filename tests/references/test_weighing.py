"""Weighing wheel by wheel against plain statics: a rigid bike turned by hand, and worked values."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.physics import weighing


def rear_load_tilted(mass, x, y, radius, base, raised):
    """Load under the rear wheel of a bike whose rear axle is lifted, by turning every point about the front axle.

    Forces are vertical and pass through the axles, which stay `base` apart; nothing is linearised.
    """
    angle = math.asin(raised / base)
    # From the front axle: the rear axle lies at (-base, 0), the centre at (x - base, y - radius); turned clockwise.
    across = (x - base) * math.cos(angle) + (y - radius) * math.sin(angle)
    rear = -base * math.cos(angle)
    return mass * across / rear


@pytest.mark.parametrize("raised", [0.0, 0.03, 0.06, 0.1, 0.15])
def test_a_raised_wheel_reads_too_little_as_statics_say(raised):
    mass, x, y, radius, base = 48.9, 0.369, 0.6, 0.35, 1.06
    level = rear_load_tilted(mass, x, y, radius, base, 0.0)
    lack = level - rear_load_tilted(mass, x, y, radius, base, raised)
    assert weighing.raised_wheel_lack(mass, y, radius, base, raised) == pytest.approx(lack, rel=0.012, abs=1e-9)


def test_worked_height_error():
    """48.9 kg, centre 600, radius 350, base 1060, 60 mm: 0.65 kg less; both wheels so in turn, 1.31 kg."""
    lack = weighing.raised_wheel_lack(48.9, 0.6, 0.35, 1.06, 0.06)
    assert lack == pytest.approx(0.65, abs=0.005)
    assert 2 * lack == pytest.approx(1.31, abs=0.005)


def test_worked_sums():
    """17.0 + 31.9 = 48.9, 34.8 % on the front; two readings of 50 g: 0.07; two of 100 g: 0.14 (GUM: squares add)."""
    front, rear = weighing.levelled((17.0, 17.02, 16.9)), weighing.levelled((31.9, 31.8, 31.9))
    assert front + rear == pytest.approx(48.9)
    assert front / (front + rear) == pytest.approx(0.348, abs=5e-4)
    assert weighing.unsure_of(0.05, 2) == pytest.approx(0.07, abs=0.001)
    assert weighing.unsure_of(0.1, 2) == pytest.approx(0.14, abs=0.002)


@given(st.floats(40, 120), st.floats(0.05, 0.95), st.floats(5, 40), st.floats(5, 40))
def test_the_riders_centre_is_where_the_rider_was_put(kg, share, front, rear):
    found, ahead = weighing.rider_centre(front + kg * share, rear + kg * (1 - share), front, rear, 1.06)
    assert (found, ahead / 1.06) == pytest.approx((kg, share), rel=1e-6)


def test_a_rider_who_weighs_nothing_has_no_centre():
    with pytest.raises(ValueError, match="no more"):
        weighing.rider_centre(10, 10, 10, 10, 1.06)


def test_still_is_as_long_as_it_stays_within_the_band():
    times = np.arange(10.0)
    values = np.array([0, 5, 9, 10, 10.05, 10.02, 9.98, 10.01, 10.0, 10.0])
    assert weighing.still_since(times, values, 0.2) == 6
    assert weighing.still_since(times, values, 2.0) == 7
    assert weighing.still_since(times[:0], values[:0], 1) == 0
