"""Profiles, drawn lines and the mends of findings: what must hold of them."""

import numpy as np
import pytest
from hypothesis import event, given, settings
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import Track
from omnifer.core.physics import geodesy
from omnifer.core.road.profile import LINE_POINTS, STEP_M, from_track
from tests.conftest import pannier_bike, small_tour, thing

heights = st.lists(st.floats(-100, 4000), min_size=2, max_size=200)


@given(heights, st.integers(1, 60))
def test_an_envelope_loses_no_peak(values, stretches):
    picked = geodesy.highs_and_lows(values, stretches)
    kept = np.array(values)[picked]
    assert kept.max() == max(values)
    assert kept.min() == min(values)
    assert picked[0] == 0
    assert picked[-1] == len(values) - 1
    assert (np.diff(picked) > 0).all()
    assert picked.size <= max(2 * stretches + 2, len(values) if len(values) // max(stretches, 1) < 3 else 0)


@given(heights, st.floats(0.5, 200))
def test_a_thinned_line_stays_within_its_tolerance(values, tolerance):
    x = np.arange(len(values), dtype=float)
    kept = geodesy.simplify(x, np.array(values), tolerance)
    assert kept[0] == 0
    assert kept[-1] == len(values) - 1
    assert np.abs(np.interp(x, x[kept], np.array(values)[kept]) - values).max() <= tolerance + 1e-6


@settings(max_examples=30, deadline=None)
@given(
    st.lists(st.tuples(st.floats(-0.02, 0.02), st.floats(-0.02, 0.02), st.none() | st.floats(0, 3000)), min_size=2, max_size=60)
)
def test_a_profile_is_even_ordered_and_within_the_heights(steps):
    lat = 45 + np.cumsum([s[0] for s in steps])
    lon = 7 + np.cumsum([s[1] for s in steps])
    track = Track(lat_deg=tuple(lat.tolist()), lon_deg=tuple(lon.tolist()), elevation_m=tuple(s[2] for s in steps))
    try:
        profile = from_track(track)
    except ValueError:
        assert geodesy.segment_lengths(lat, lon).sum() < 2
        return
    spacing = np.diff(profile.km) * 1000
    assert (spacing > 0).all()
    assert spacing.max() <= 2 * STEP_M
    assert profile.length_km * 1000 == pytest.approx(geodesy.segment_lengths(lat, lon).sum(), rel=1e-6, abs=1)
    known = [s[2] for s in steps if s[2] is not None]
    if known:
        assert min(known) - 1e-6 <= profile.elevation_m.min()
        assert profile.elevation_m.max() <= max(known) + 1e-6
    assert np.abs(profile.gradient).max() <= 0.3 + 1e-9
    assert len(profile.line.km) <= LINE_POINTS


def test_the_nearest_kilometre_of_a_place():
    track = Track(lat_deg=(45.0, 45.5), lon_deg=(7.0, 7.0), elevation_m=(0.0, 0.0))
    profile = from_track(track)
    at, off = profile.nearest(45.25, 7.02)
    assert at == pytest.approx(profile.length_km / 2, abs=0.05)
    assert off == pytest.approx(0.02 * 111.3 * np.cos(np.radians(45.25)), rel=0.01)


def overfull(mass: float, volume: float):
    kit = [thing(f"t{i}", mass, volume) for i in range(5)]
    load = Load(placements=tuple(Placement(thing_id=t.id, carrier_id="left") for t in kit))
    return small_tour(*kit, load=load)


@settings(max_examples=25, deadline=None)
@given(st.floats(1.9, 2.6), st.floats(0.5, 6))
def test_a_mend_that_is_offered_takes_the_trouble_away_and_brings_none(mass, volume):
    """Moving what a mend names leaves neither bag over its limit, and every thing is still somewhere."""
    tour = overfull(mass, volume)
    before = assess(tour, profile_of(tour)).findings
    trouble = [f for f in before if f.kind in ("over_mass", "over_volume")]
    for finding in trouble:
        offered = [mend for mend in mends_of(tour, profile_of(tour), finding.id) if mend.moves]
        ending = [mend for mend in offered if "left" not in mend.consequence.figures]
        event(f"{len(ending)} of {len(offered)} end it")
        assert ending
        for mend in ending:
            better = mended(tour, mend)
            after = assess(better, profile_of(better)).findings
            assert finding.kind not in {f.kind for f in after if f.carrier_id == finding.carrier_id}
            assert {f.carrier_id for f in after if f.kind == "over_mass"} <= {f.carrier_id for f in trouble}
            assert sum(p.count for p in better.load.placements) == sum(p.count for p in tour.load.placements)


def test_cards_list_every_thing_once_with_its_mass():
    kit = [thing("tent", 2.4, 8), thing("pot", 0.5, 2, count=2), thing("jacket", 0.4, 1, reach="stop")]
    load = Load(placements=(
        Placement(thing_id="tent", carrier_id="left"), Placement(thing_id="pot", carrier_id="left", count=1),
        Placement(thing_id="pot", carrier_id="right", count=1), Placement(thing_id="jacket", carrier_id="left"),
    ))  # fmt: skip
    tour = small_tour(*kit, load=load, bikes=(pannier_bike(),))
    cards = {c.carrier_id: c for c in assess(tour, profile_of(tour)).cards}
    assert [layer.thing_id for layer in cards["left"].layers] == ["tent", "pot", "jacket"]
    assert cards["left"].mass_kg == pytest.approx(3.3)
    assert cards["right"].mass_kg == pytest.approx(0.5)
    assert cards["left"].empty_l == pytest.approx(20 - 11, abs=0.01)
    assert sum(layer.count for card in cards.values() for layer in card.layers) == 4
