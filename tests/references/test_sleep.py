"""Sleep warmth against the balance of heat worked out by hand and the published standards."""

import numpy as np
import pytest

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


@pytest.mark.parametrize(
    ("top", "by_mat"), [(0.8, {2: 7.6, 4: 0.6, 6: -2.6}), (1.0, {2: 4.3, 4: -4.9, 6: -9.4})]
)  # fmt: skip
def test_a_bag_on_other_mats(top, by_mat):
    """Worked values of the balance for a bag of 0.8 and of 1.0 m²K/W on mats of R 2, 4 and 6."""
    label = balance(top, 4.83)
    for mat, expected in by_mat.items():
        assert float(bears_c(label, mat)) == pytest.approx(expected, abs=0.06)


def test_what_thin_mats_cost_the_same_bag():
    """A bag of 0.9 m²K/W loses 18.5, 10.0, 5.1 and 1.9 K on R 1, 2, 3 and 4 beside the mat of the test."""
    label = balance(0.9, 4.8)
    lost = bears_c(label, np.array([1.0, 2.0, 3.0, 4.0])) - label
    assert lost == pytest.approx([18.5, 10.0, 5.1, 1.9], abs=0.2)
