"""Clothing against the cold and spares for a gap, against libraries of others and published tables."""

import numpy as np
import pytest
from pythermalcomfort.models import ireq
from scipy import stats

from omnifer.core.physics.cold import LONGEST_H, bearable_hours, required_clo
from omnifer.core.physics.spares import running_out, spares_wanted, wearing_out

AIR = np.arange(-20.0, 11.0, 2.5)


@pytest.mark.parametrize(("met", "air_ms"), [(1.2, 0.4), (1.4, 0.4), (1.6, 8.0), (2.5, 5.0)])
def test_required_clothing_is_that_of_the_standard(met, air_ms):
    """ISO 11079 as pythermalcomfort 4.8.1 has it, minimal criterion, windproof clothing, nobody walking."""
    theirs = ireq(AIR, AIR, air_ms, 60, met, 1.0, 8, 0, limit_inputs=False, round_output=False)
    assert required_clo(AIR, met, air_ms) == pytest.approx(theirs.icl_min.astype(float), abs=0.01)


@pytest.mark.parametrize("clo", [0.6, 1.2, 2.4])
def test_bearable_hours_are_those_of_the_standard(clo):
    theirs = ireq(AIR, AIR, 0.4, 70, 1.4, clo, 8, 0, limit_inputs=False, round_output=False).dle_min
    ours = bearable_hours(AIR, clo, 1.4, 0.4, 70)
    for mine, other in zip(ours.tolist(), theirs.tolist(), strict=True):
        assert mine == (
            LONGEST_H if other == "more than 8" else pytest.approx(float(other), rel=0.02)
        )  # theirs stops a little early


RISKS = (0.1, 0.05, 0.02, 0.01)
TABLE = {
    0.1: ((0, 1, 1, 1), (0, 1, 2, 2)), 0.3: ((1, 1, 2, 2), (1, 2, 3, 4)), 0.5: ((1, 2, 2, 3), (2, 2, 4, 5)),
    1: ((2, 3, 3, 4), (3, 4, 5, 6)), 1.5: ((3, 4, 4, 5), (4, 5, 6, 7)), 2: ((4, 5, 5, 6), (5, 6, 7, 9)),
    3: ((5, 6, 7, 8), (6, 8, 9, 11)), 5: ((8, 9, 10, 11), (9, 11, 13, 14)),
}  # fmt: skip
"""Spares by demand, at risks of 10, 5, 2 and 1 %, Poisson and clustered (variance twice the mean)."""


@pytest.mark.parametrize("expected", TABLE)
def test_spares_are_those_of_the_table_and_of_scipy(expected):
    poisson, clustered = TABLE[expected]
    assert tuple(spares_wanted(expected, risk) for risk in RISKS) == poisson
    assert tuple(spares_wanted(expected, risk, 2.0) for risk in RISKS) == clustered
    for risk in RISKS:
        assert spares_wanted(expected, risk) == stats.poisson.ppf(1 - risk, expected)
        assert spares_wanted(expected, risk, 2.0) == stats.nbinom.ppf(1 - risk, expected, 0.5)
    for n in range(5):
        assert running_out(n, expected) == pytest.approx(stats.poisson.sf(n, expected), abs=1e-9)
        assert running_out(n, expected, 2.0) == pytest.approx(stats.nbinom.sf(n, expected, 0.5), abs=1e-9)


def test_chances_of_running_out_as_published():
    assert running_out(3, 1) == pytest.approx(0.018988, abs=1e-6)
    assert running_out(6, 3, 2.0) == pytest.approx(0.089844, abs=1e-6)
    assert spares_wanted(0, 0.05) == 0


def test_worn_parts_give_out_sooner():
    """Life 4,000 km, shape 3: new 1,500 km 5.14 %, after 2,500 km 53.04 %; shape 1 has no memory."""
    assert wearing_out(0, 1500, 4000) == pytest.approx(0.0514, abs=1e-4)
    assert wearing_out(2500, 1500, 4000) == pytest.approx(0.5304, abs=1e-4)
    assert wearing_out(2500, 1500, 4000, 1) == pytest.approx(stats.expon.cdf(1500, scale=4000), abs=1e-9)
