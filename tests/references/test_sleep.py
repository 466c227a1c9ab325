"""Sleep warmth against the balance of heat worked out by hand and the published standards."""

import numpy as np
import pytest
from pythermalcomfort.models import ireq

from omnifer.core.physics.sleep import LABEL_MAT_R, R_SI, bears_c


def balance(top: float, mat_r: float) -> float:
    """The same balance written out: 46.5 W/m² of which a tenth leaves with the breath, a quarter of the body on the ground."""
    return 33 - 0.9 * 46.5 / (0.75 / top + 0.25 / (0.17611 * mat_r))


def test_the_unit_of_mats_is_that_of_the_foot_and_the_fahrenheit():
    """ASTM F3340 labels in ft²·°F·h/Btu: R 4 is 0.7044 m²K/W; EN ISO 23537-1 tests bags on 0.85 m²K/W."""
    foot_m, fahrenheit_k, hour_s, btu_j = 0.3048, 5 / 9, 3600, 1055.056
    assert pytest.approx(foot_m**2 * fahrenheit_k * hour_s / btu_j, rel=1e-4) == R_SI
    assert pytest.approx(0.7044, abs=1e-4) == 4 * R_SI
    assert pytest.approx(0.85, abs=1e-3) == LABEL_MAT_R * R_SI


@pytest.mark.parametrize("night_c", [10, 0, -10, -20])
def test_as_much_all_around_as_the_standard_asks_bears_the_night(night_c):
    """ISO 11079 by pythermalcomfort 4.8.1 at 0.8 met in still air, below the 1.0 met of the standard: a bag whose upper side and mat
    are what its minimal criterion asks (sleepers feel cool) bears hardly this night, with what its neutral one asks a colder one."""
    asked = ireq(night_c, night_c, 0.4, 50, 0.8, 1.0, 8, 0, limit_inputs=False, round_output=False)
    bears = [
        float(bears_c(balance(clo * 0.155, LABEL_MAT_R), clo * 0.155 / R_SI)) for clo in (asked.ireq_min, asked.ireq_neutral)
    ]
    assert bears[1] - 0.1 <= night_c <= bears[0] + 0.1
    assert bears[0] - bears[1] == pytest.approx(2.6, abs=0.1)  # 0.4 clo lie between the two


def test_a_thinner_mat_costs_what_the_ground_then_takes():
    """On bare ground counted as R 0.5, 0.25 of the body at 33 - 0 °C gives 94 W/m² away (area times difference over resistance): more
    than twice what a sleeper makes, so that no bag helps."""
    warmest = float(bears_c(-20, 0.0))
    assert 0.25 * (33 - warmest) / (0.5 * R_SI) == pytest.approx(0.9 * 46.5, rel=0.2)
    assert np.all(np.diff(bears_c(-5, np.array([1.0, 2.0, 3.0, 4.0, 4.83]))) < 0)
    assert float(bears_c(-5, LABEL_MAT_R)) == pytest.approx(-5)
