"""Limits to the gram: each link of the chain is found just beyond its limit, with its figures, and not just below it."""

from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.findings import CHECKS
from omnifer.core.model.finding import FindingKind
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.rig import Bike
from omnifer.core.rig.catalogue import carrier, support
from omnifer.core.rig.statics import Levers
from tests.conftest import RIDER, pannier_bike, small_tour, thing


def with_brick(bike: Bike, kilograms: float, place: str = "left", litres: float = 1.0):
    brick = thing("brick", round(kilograms, 3), litres)
    return small_tour(brick, bikes=(bike,), load=Load(placements=(Placement(thing_id="brick", carrier_id=place),)))


def found(tour, kind: str):
    return [f for f in assess(tour, profile_of(tour)).findings if f.kind == kind]


def bags_kg(bike: Bike, rack: str) -> float:
    return sum(c.mass_kg for c in bike.carriers if c.hangs_on == rack)


def strong(**changed: object) -> Bike:
    """A bike whose bags and rack bear anything, so that one other limit can be looked at alone."""
    bags = [c.model_copy(update={"limit_kg": 300}).model_dump() for c in pannier_bike().carriers]
    rack = support("rear_rack", "rack", limit_kg=400).model_dump()
    return pannier_bike(carriers=bags, supports=[rack], **changed)


def limits() -> dict[str, tuple[Bike, float]]:
    """For each limit a bike, and the kilograms in its left pannier at which it is just met; levers worked from its statics."""
    weak_bag = pannier_bike()
    weak_rack = strong()
    rack = support("rear_rack", "rack", limit_kg=12).model_dump()
    weak_rack = weak_rack.model_copy(
        update={"supports": Bike.model_validate(weak_rack.model_dump() | {"supports": [rack]}).supports}
    )
    wheel = strong(rear_wheel_limit_kg=90)
    levers = Levers(wheel)
    bag = next(c for c in wheel.carriers if c.id == "left")
    seated = RIDER.body_mass_kg * levers.shares(levers.frame.rider_centre(RIDER).x, on_trailer=False).rear
    system = strong(maximum_system_kg=110)
    return {
        "over_mass": (weak_bag, 9.0),
        "over_support": (weak_rack, 12 - bags_kg(weak_rack, "rack")),
        "over_wheel": (wheel, (90 - levers.bare().rear - seated) / levers.carrier_shares(bag).rear),
        "over_system": (system, 110 - RIDER.body_mass_kg - Levers(system).bare().mass),
    }


@pytest.mark.parametrize("kind", ["over_mass", "over_support", "over_wheel", "over_system"])
def test_a_limit_holds_to_the_gram(kind):
    bike, just = limits()[kind]
    assert found(with_brick(bike, just - 0.02), kind) == []
    over = found(with_brick(bike, just + 0.05), kind)
    assert len(over) == 1
    assert over[0].need - over[0].holds == pytest.approx(0.05, abs=0.04)
    assert over[0].bike_id == bike.id


@pytest.mark.parametrize(
    ("kilograms", "grade"), [(9.5, "slows_you"), (10.7, "slows_you"), (10.9, "stops_you"), (14, "stops_you")]
)
def test_a_fifth_over_a_bags_limit_stops_you(kilograms, grade):
    assert found(with_brick(pannier_bike(), kilograms), "over_mass")[0].grade == grade


@settings(max_examples=15, deadline=None)
@given(st.floats(0.1, 60), st.floats(0, 40))
def test_a_bag_is_over_exactly_where_it_is(kilograms, litres):
    tour = with_brick(pannier_bike(), kilograms, litres=round(litres, 3))
    assert bool(found(tour, "over_mass")) == (round(kilograms, 3) > 9.005)
    assert bool(found(tour, "over_volume")) == (round(litres, 3) > 20.005)


@pytest.mark.parametrize(("ahead_mm", "trouble"), [(400, False), (-700, True)])
def test_a_trailer_is_judged_at_its_hitch(ahead_mm, trouble):
    """Moments about the axle: the brick's lever follows the empty trailer's own centre in this drawing of it."""
    hitched = support("trailer_two_wheels", "trailer")
    measured = hitched.trailer.model_copy(update={"own_mass_ahead_of_axle_mm": ahead_mm, "hitch_most_kg": 40})
    bike = pannier_bike(
        supports=[hitched.model_copy(update={"trailer": measured}).model_dump()],
        carriers=[carrier("trailer_bag", "left", "trailer").model_dump()],
    )
    assert bool(found(with_brick(bike, 0.5), "hitch_load")) == trouble


def test_every_kind_of_trouble_is_looked_for_once_and_stands_under_a_question(sample, sample_road):
    assessed = assess(sample, sample_road)
    told = [spec.kind for check in CHECKS for spec in check.finds]
    assert sorted(told) == sorted(get_args(FindingKind)) == sorted(assessed.checked)
    assert sorted(told) == sorted(kind for question in assessed.questions for kind in question.kinds)
    assert all(question.kinds for question in assessed.questions)
