"""Clean and dry: how many of a kind are enough between washes, in what air they dry, and what helps."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.findings.situation import wardrobes
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.road import Road, Stop, TypedDay, Weather
from omnifer.core.model.roles import Garment
from omnifer.core.model.stores import Stores
from omnifer.core.model.tour import Tour
from omnifer.core.needs.clothes import nights_to_dry
from omnifer.core.physics.drying import drying_hours
from omnifer.core.stages import Reading
from tests.conftest import small_tour, thing
from tests.core.offered import offers


def tour(spare: int, days: int = 14, every: int | None = None, laundry_at: tuple[int, ...] = (), dries_h: float = 8) -> Tour:
    """Shirts besides the one that is worn, mild dry days of 50 km, and laundries at the ends of some of them."""
    weather = (Weather(from_km=0, day_high_c=26, night_low_c=14, humidity_pct=50, at_elevation_m=300),)
    typed = tuple(TypedDay(distance_km=50, ascent_m=100, highest_m=300, lowest_m=200) for _ in range(days))
    stops = tuple(Stop(id=f"l{d}", name=f"Town {d}", at_km=50 * d, shelter="site", services=("laundry",)) for d in laundry_at)
    shirts = thing("shirts", 0.15, 0.5, count=max(spare, 1), rider_id="ada", role=Garment(piece="shirt", dries_h=dries_h))
    made = small_tour(shirts, road=Road(typed_days=typed, weather=weather, stops=stops))
    return made.model_copy(update={"stores": Stores(wash_every_days=every)})


def without(t: Tour) -> list[int]:
    return [day.day for day in Reading(t, profile_of(t))[wardrobes][0].days if day.clean == 0]


@pytest.mark.parametrize(
    ("how", "enough"),
    [({"every": 1}, 2), ({"every": 1, "dries_h": 30}, 3), ({"laundry_at": (4, 8, 12)}, 5), ({"laundry_at": (6, 12)}, 7)],
)
def test_how_many_are_enough(how, enough):
    """The greater of days between washes and one, and one and the nights to dry; the one that is worn counted."""
    assert without(tour(enough - 1, **how)) == []
    if enough > 2:
        assert without(tour(enough - 2, **how)) != []


def test_drying_follows_what_the_air_lacks_and_the_wind():
    """At 20 °C and 50 % as told; half the deficit, twice the time; Penman's wind function at 2 m/s: 1 + 0.54 * 2 = 2.08."""
    assert float(drying_hours(8, 20, 50, 0)) == pytest.approx(8)
    assert float(drying_hours(8, 20, 75, 0)) == pytest.approx(16)
    assert float(drying_hours(8, 20, 50, 2)) == pytest.approx(8 / 2.08)
    # es(10) / es(20) by the table of FAO 56: 1.228 / 2.338 kPa.
    assert float(drying_hours(8, 10, 50, 0)) == pytest.approx(8 * 2.338 / 1.228, rel=2e-3)
    assert np.isfinite(drying_hours(8, 5, 100, 0))


@given(st.integers(1, 6), st.integers(1, 6))
def test_more_pieces_never_leave_fewer_clean(spare, every):
    few, many = without(tour(spare, every=every)), without(tour(spare + 1, every=every))
    assert set(many) <= set(few)


def test_running_out_is_named_and_ended_by_washing_or_by_one_more():
    t = tour(1, every=4, days=9)
    found = next(f for f in assess(t, profile_of(t)).findings if f.kind == "no_clean")
    assert found.sentence.metric() == "Ada has no clean shirt on 5 days, from day 3 on."
    mends = {m.name.metric(): m for m in mends_of(t, profile_of(t), found.id)}
    assert "Wash by hand every evening" in mends
    better = Tour.model_validate(mended(t, mends["Wash by hand every evening"]).model_dump())
    assert without(better) == []
    assert any("One more shirt" in name for name in mends)


def test_the_sample_wears_its_shorts_too_long_and_has_shirts_enough(sample, sample_road):
    lacking = {(w.rider_id, w.piece): sum(d.clean == 0 for d in w.days) for w in assess(sample, sample_road).wardrobes}
    assert lacking["runa", "shirt"] == 0
    assert lacking["runa", "shorts"] > 0


def test_a_school_changes_sets_and_washing_together():
    """Two sets washed nightly, three of everything washed every other day: both end it, with as many pieces as they say."""
    lacking = tour(1, every=7)
    finding = next(f for f in assess(lacking, profile_of(lacking)).findings if f.kind == "no_clean")
    for sets, days, mend in zip((2, 3), (1, 2), offers(lacking, finding)[-2:], strict=True):
        then = mended(lacking, mend)
        assert then.stores.wash_every_days == days
        assert assess(then, profile_of(then)).wardrobes[0].owned == sets
        assert without(then) == []


def test_the_moving_rack_dries_too():
    """An hour on it counts double: 26 h at 20 °C and 50 % are a day and a night with two hours of riding, not without."""
    day = assess(tour(1), profile_of(tour(1))).days[0]
    air = day.model_copy(update={"mean_min_c": 20.0, "mean_max_c": 20.0, "humidity_pct": 50.0})
    assert nights_to_dry(26, air.model_copy(update={"riding_hours": 2.1})) == 1
    assert nights_to_dry(26, air.model_copy(update={"riding_hours": 1.9})) == 2
