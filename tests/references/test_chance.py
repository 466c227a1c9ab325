"""What chance does, against published figures, closed forms and another library."""

import itertools
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from omnifer.core.model.practice import USUAL
from omnifer.core.physics.chance import drawn_together, kept_from_day_to_day, rayleigh, wet_after, wilson
from omnifer.core.physics.spares import running_out
from omnifer.core.rehearsal.drawn import draw
from omnifer.core.rehearsal.fate import DAYS, Fate
from omnifer.core.rehearsal.sharing import asked_but, shared

RANDOM = np.random.default_rng(30)


@pytest.mark.parametrize(
    ("count", "of", "low", "high"), [(81, 263, 0.2553, 0.3662), (15, 148, 0.0624, 0.1605), (0, 20, 0, 0.1611), (1, 29, 0.0061, 0.1718)]
)  # fmt: skip
def test_wilsons_interval_of_published_examples(count, of, low, high):
    """Newcombe (1998), Statist. Med. 17:857-872, doi:10.1002/(SICI)1097-0258(19980430)17:8<857::AID-SIM777>3.0.CO;2-E, table I,
    method 3; from memory."""
    assert wilson(count, of) == pytest.approx((low, high), abs=6e-5)


@given(st.integers(1, 3000).flatmap(lambda of: st.tuples(st.integers(0, of), st.just(of))))
def test_wilsons_interval_against_scipy(counted):
    count, of = counted
    found = stats.binomtest(count, of).proportion_ci(method="wilson")
    assert wilson(count, of) == pytest.approx((found.low, found.high), abs=1e-6)


@pytest.mark.parametrize(("kept", "coldest"), [(0.0, -7.79), (0.7, -7.36), (0.9, -6.35)])
def test_the_coldest_of_thirty_nights(kept, coldest):
    """Nights of 3 ± 4 °C that keep so much from day to day: the temperature that the coldest of 30 falls below once in ten. The
    first is a closed form (see `coldest_of`), the others were drawn a million times elsewhere."""
    nights = 3 + 4 * kept_from_day_to_day(RANDOM.standard_normal((60_000, 30)), kept)
    assert np.quantile(nights.min(axis=1), 0.1) == pytest.approx(coldest, abs=0.08)


def test_wind_is_rayleighs():
    """Mean 1, and over twice the mean once in exp(pi) times: the distribution of IEC 61400-1, F = 1 - exp(-pi/4 (v/mean)²)."""
    drawn = rayleigh(RANDOM.random(400_000))
    assert drawn.mean() == pytest.approx(1, abs=0.005)
    assert (drawn > 2).mean() == pytest.approx(math.exp(-math.pi), abs=0.002)


def test_wet_days_keep_their_share_and_their_spells():
    """A two-state chain: the share is stationary, and a wet spell lasts 1 / (1 - p11) days in the mean."""
    share, kept, wet = 0.3, 0.4, np.zeros(4000)
    days = []
    for numbers in RANDOM.random((400, 4000)):
        wet = (numbers < wet_after(share, wet, kept)).astype(float)
        days.append(wet)
    chain = np.array(days)[50:]
    assert chain.mean() == pytest.approx(share, abs=0.005)
    ends = (chain[:-1] == 1) & (chain[1:] == 0)
    assert chain[:-1].sum() / ends.sum() == pytest.approx(1 / (1 - (share + kept * (1 - share))), rel=0.02)


@pytest.mark.parametrize("together", [0.0, 0.3, 0.8])
def test_sources_dry_up_together(together):
    """Two even chances under a Gaussian copula: both come with 1/4 + arcsin(rho) / (2 pi), Sheppard's formula; alone each is uniform."""
    common = RANDOM.standard_normal(400_000)
    one, other = (drawn_together(RANDOM.standard_normal(common.size), common, together) for _ in range(2))
    assert ((one < 0.5) & (other < 0.5)).mean() == pytest.approx(0.25 + math.asin(together) / (2 * math.pi), abs=0.003)
    assert stats.kstest(one, "uniform").statistic < 0.005


@pytest.mark.parametrize("clustered", [False, True])
def test_faults_come_as_often_as_spares_are_counted_for(clustered):
    """Poisson, or negative binomial where they cluster: the same chances of running out as the table of spares has them."""
    expected = 1.7
    draws = draw(Fate(7, 0, 8000), USUAL, 0.1, days=1)
    count = (draws.faults("spoke", expected, clustered) < expected).sum(axis=1)
    for spares in range(5):
        asked = running_out(spares, expected, 2.0 if clustered else 1.0)
        assert (count > spares).mean() == pytest.approx(asked, abs=0.018)


def test_a_play_has_its_own_fate_whatever_else_is_drawn():
    """Play 37 alone is play 37 among a hundred, and another name or another seed is another fate."""
    many, alone = Fate(1, 0, 100), Fate(1, 37, 1)
    for name, row in (("warmth", DAYS), ("source s12", 1), ("fault chain", 16)):
        assert np.array_equal(many.uniform(name, row)[37], alone.uniform(name, row)[0])
    assert abs(np.corrcoef(many.uniform("wind", DAYS).ravel(), many.uniform("rain", DAYS).ravel())[0, 1]) < 0.02
    assert not np.array_equal(many.uniform("wind"), Fate(2, 0, 100).uniform("wind"))


def test_illness_comes_as_often_and_lasts_as_long_as_it_is_said_to():
    """Bernoulli by the day; lengths geometric with the mean of the default."""
    ill = draw(Fate(3, 0, 2000), USUAL, 0.1).ill
    assert (ill > 0).mean() == pytest.approx(USUAL.ill_per_100_days / 100, abs=0.0006)
    assert ill[ill > 0].mean() == pytest.approx(USUAL.ill_days, abs=0.06)


@given(st.data())
def test_shared_risk_is_the_best_of_all_ways_to_share_it(data):
    """Enumerated, over small cases; and never dearer than equal parts."""
    things, plays, failing = data.draw(st.integers(1, 3)), data.draw(st.integers(2, 8)), data.draw(st.integers(0, 4))
    asked = [np.array(data.draw(st.lists(st.integers(0, 20), min_size=plays, max_size=plays))) for _ in range(things)]
    km = [data.draw(st.integers(1, 9)) for _ in range(things)]
    costs = [asked_but(one, failing) * length for one, length in zip(asked, km, strict=True)]
    fails = shared(costs, failing)

    def price(ways):
        return sum(cost[k] for cost, k in zip(costs, ways, strict=True))

    every = (ways for ways in itertools.product(range(failing + 1), repeat=things) if sum(ways) <= failing)
    assert sum(fails) <= failing
    assert price(fails) == min(price(ways) for ways in every)
    assert price(fails) <= price([failing // things] * things)
    for one, k in zip(asked, fails, strict=True):
        assert (one > asked_but(one, failing)[k]).sum() <= k
