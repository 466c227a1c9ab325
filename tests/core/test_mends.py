"""What helps: a larger bag, another date, something left; and what a change that is tried would mean."""

import pytest

from omnifer.core.assess import assess, profile_of
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import MonthNormals, Road, Station, TypedDay
from omnifer.core.model.tour import Tour
from omnifer.core.worth import tried
from tests.conftest import small_tour, thing


def found(tour: Tour, kind: str):
    return [f for f in assess(tour, profile_of(tour)).findings if f.kind == kind]


def stowed(*kit, at: str = "left", **changed) -> Tour:
    placed = tuple(Placement(thing_id=t.id, carrier_id=at, count=t.count) for t in kit)
    return small_tour(*kit, load=Load(placements=placed), **changed)


def helps(tour: Tour, kind: str):
    finding = found(tour, kind)[0]
    return finding, mends_of(tour, profile_of(tour), finding.id)


def test_a_larger_bag_of_its_kind_ends_what_overflows():
    """Three pieces of 9 l in each rear pannier: one of 22 l is too small, one of 27 l holds them."""
    pieces = [thing(f"p{n}", 1, 9, rider_id="ada") for n in range(6)]
    placed = tuple(Placement(thing_id=t.id, carrier_id=("left", "right")[n % 2]) for n, t in enumerate(pieces))
    tour = small_tour(*pieces, load=Load(placements=placed))
    finding, offered = helps(tour, "over_volume")
    larger = next(m for m in offered if m.carriers)
    assert larger.carriers[0].volume_l == pytest.approx(27, abs=0.6)
    assert finding.id not in {f.id for f in assess(mended(tour, larger), profile_of(tour)).findings}


def test_what_may_stay_is_left_before_anything_else_and_what_must_come_never():
    heavy = [thing("anvil", 12, 3, may_stay=True), thing("books", 3, 3), thing("stove", 4, 3)]
    tour = stowed(*heavy)
    _, offered = helps(tour, "over_mass")
    gone = {thing_id for mend in offered for thing_id in mend.gone}
    assert gone == {"anvil"}
    leaving = next(m for m in offered if m.gone)
    assert not found(mended(tour, leaving), "over_mass")
    assert leaving.consequence.words


def test_another_date_is_warmer_and_said_to_be():
    """Mays of -4 °C, Junes of 12: four weeks later no night is cold."""
    cold, mild = (MonthNormals(mean_max_c=high, mean_min_c=low, spread_min_c=1) for high, low in ((12, -4), (25, 12)))
    station = Station(id="s", name="S", at_km=0, elevation_m=300, months=tuple(cold if m < 5 else mild for m in range(12)))
    road = Road(typed_days=(TypedDay(distance_km=60, highest_m=300, lowest_m=300),) * 3, stations=(station,))
    tour = small_tour(thing("pot"), road=road)
    _, offered = helps(tour, "cold_night")
    later = next(m for m in offered if m.start_date)
    assert (later.start_date - tour.start_date).days == 28
    assert not found(mended(tour, later), "cold_night")


def test_what_is_tried_is_held_against_what_stands():
    tour = stowed(thing("anvil", 12, 3), thing("pot", 0.5))
    lighter = tour.model_copy(update={"kit": (thing("anvil", 2, 3), thing("pot", 0.5))})
    told = tried(tour, lighter, profile_of(tour))
    figures = {f.name: (f.before, f.after) for f in told.figures}
    assert figures["at the heaviest"][0] - figures["at the heaviest"][1] == pytest.approx(10, abs=0.3)
    assert any("left" in t.names.values() or "Rear pannier" in t.names.values() for t in told.gone)
    back = tried(lighter, tour, profile_of(tour))
    assert {t.words for t in back.come} >= {t.words for t in told.gone}
    assert tried(tour, tour, profile_of(tour)).figures == []


def test_what_gets_worse_is_said():
    tour = stowed(thing("anvil", 12, 3), thing("pot", 0.5))
    worse = tour.model_copy(update={"kit": (thing("anvil", 14, 3), thing("pot", 0.5))})
    told = tried(tour, worse, profile_of(tour))
    assert told.worse
    assert tried(worse, tour, profile_of(tour)).worse == []
