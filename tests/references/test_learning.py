"""What own days teach, against Bayes' rule worked out on a grid with scipy's likelihoods, and against worked values."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from omnifer.core.physics import learning


def on_a_grid(prior, likelihood, values):
    """Mean, spread and nine in ten of a belief, by Bayes' rule and nothing else."""
    weight = prior * likelihood
    weight = weight / weight.sum()
    mean = float((values * weight).sum())
    edges = np.interp([0.05, 0.95], np.cumsum(weight), values)
    return mean, float(np.sqrt(((values - mean) ** 2 * weight).sum())), float(edges[0]), float(edges[1])


@pytest.mark.parametrize(("prior", "used", "units"), [(2.0, 36, 10.0), (2.0, 140, 40.0), (0.5, 0, 30.0), (3.5, 45, 10.0)])
def test_a_rate_is_what_bayes_rule_makes_of_counts(prior, used, units):
    """The assumption is worth ten units: a Gamma belief; the diary is a Poisson count (scipy.stats.gamma, scipy.stats.poisson)."""
    rates = np.linspace(1e-4, 12, 120_001)
    mean, sd, low, high = on_a_grid(
        stats.gamma.pdf(rates, 10 * prior, scale=1 / 10), stats.poisson.pmf(used, rates * units), rates
    )
    found = learning.rate(prior, 10, used, units)
    assert (found.mean, found.sd, found.low, found.high) == pytest.approx((mean, sd, low, high), rel=2e-3)


def test_a_mean_is_what_bayes_rule_makes_of_days():
    """Normal belief worth ten days, days that differ by 20 km (scipy.stats.norm)."""
    days, values = (48.0, 71.0, 66.0, 52.0, 80.0), np.linspace(0, 150, 150_001)
    likelihood = np.prod([stats.norm.pdf(day, values, 20) for day in days], axis=0)
    mean, sd, low, high = on_a_grid(stats.norm.pdf(values, 60, 20 / np.sqrt(10)), likelihood, values)
    found = learning.mean(60, 10, days, 20)
    assert (found.mean, found.sd, found.low, found.high) == pytest.approx((mean, sd, low, high), rel=1e-3)


@pytest.mark.parametrize(
    ("prior", "used", "units", "mean", "sd", "low", "high"),
    [(2, 36, 10, 2.80, 0.37, 2.2, 3.4), (2, 140, 40, 3.20, 0.25, 2.8, 3.6), (0.5, 0, 30, 0.125, 0.056, 0.05, 0.23)],
)
def test_worked_rates(prior, used, units, mean, sd, low, high):
    """Worked by hand: (20 + 36) / 20, (20 + 140) / 50, (5 + 0) / 40; roots of the counts over the units."""
    found = learning.rate(prior, 10, used, units)
    assert (found.mean, found.sd) == pytest.approx((mean, sd), abs=0.006)
    assert (found.low, found.high) == pytest.approx((low, high), abs=0.05)


@given(st.lists(st.tuples(st.integers(0, 40), st.floats(0.1, 20)), max_size=8), st.floats(0.1, 20))
def test_learning_bit_by_bit_is_learning_at_once(notes, prior):
    """After some notes the belief is worth more and is the assumption of the next; none leave what was assumed."""
    believed, worth = prior, 10.0
    for used, units in notes:
        believed, worth = learning.rate(believed, worth, used, units).mean, worth + units
    at_once = learning.rate(prior, 10, sum(used for used, _ in notes), sum(units for _, units in notes))
    assert at_once.mean == pytest.approx(believed, rel=1e-9)
    if not notes:
        assert at_once.mean == pytest.approx(prior)
    # Ten units of own use move a rate half-way at most to what they say.
    ten = learning.rate(prior, 10, 10 * 2 * prior, 10)
    assert ten.mean == pytest.approx(1.5 * prior)


def test_what_cannot_be_is_refused():
    for bad in ((1, 0, 1, 1), (1, 10, -1, 1), (1, 10, 1, -1), (-1, 10, 1, 1)):
        with pytest.raises(ValueError, match="assumption"):
            learning.rate(*bad)
    with pytest.raises(ValueError, match="differ"):
        learning.mean(1, 10, (1.0,), 0)


def test_canisters_noted_as_they_empty_are_counted_to_an_interval():
    """Bayes' rule on a grid with scipy.stats.poisson: 4 canisters of 8 portions are empty after 40 days, the fifth is in use."""
    rates = np.linspace(1e-4, 4, 40_001)
    likelihood = stats.poisson.cdf(39, rates * 40) - stats.poisson.cdf(31, rates * 40)
    mean, sd, low, high = on_a_grid(stats.gamma.pdf(rates, 4, scale=1 / 4), likelihood, rates)
    found = learning.rate(1.0, 4, 32, 40, lump=8)
    assert (found.mean, found.sd, found.low, found.high) == pytest.approx((mean, sd, low, high), rel=5e-3)
    assert found.mean > learning.rate(1.0, 4, 32, 40).mean


@pytest.mark.parametrize(("shift_k", "told"), [(0.0, 0.0), (4.0, 4.0), (-3.0, -3.0)])
def test_a_sleeper_is_learned_from_nights_near_what_is_borne(shift_k, told):
    """Simulated sleepers on 400 nights, margins 0 ± 5 K, noise 3 K: what was put in comes out, within the interval told."""
    chance = np.random.default_rng(5)
    margin = chance.normal(0, 5, 400)
    left = margin - shift_k + chance.normal(0, 3, 400)
    felt = np.where(left < 0, -1, np.where(left > 6, 1, 0))
    found = learning.shift(3.0, margin, felt, 3.0, 6.0)
    assert found.low < told < found.high
    assert found.mean == pytest.approx(told, abs=0.5)


def test_nights_far_warmer_than_is_borne_teach_next_to_nothing_when_right():
    """Nobody who sleeps well at 12 °C in a bag for 2 is shown to be a warm or a cold sleeper by it."""
    far = learning.shift(3.0, np.full(8, 3.0), np.zeros(8, dtype=int), 3.5, 6.0)
    assert abs(far.mean) < 0.1
    assert far.sd > 0.9
