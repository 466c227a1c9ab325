"""Aims, explanations and repairs of a load."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from omnifer.core.assess import aims_paid, why_here
from omnifer.core.load.aims import AIMS, SCHOOLS
from omnifer.core.load.explain import placing_of
from omnifer.core.load.formulate import formulate
from omnifer.core.load.problem import evaluate
from omnifer.core.load.rules import spot_of, why_not
from omnifer.core.load.settle import propose_load, repaired_load
from omnifer.core.model.aims import Aims
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.tour import TourSheet
from omnifer.core.supplies.stock import Stock
from tests.conftest import small_tour, thing

NONE = Stock([], {"water": np.zeros(1), "food": np.zeros(1)})


def loaded(tour: TourSheet, **where: str) -> TourSheet:
    placements = tuple(Placement(thing_id=name, carrier_id=carrier) for name, carrier in where.items())
    return tour.model_copy(update={"load": Load(placements=placements)})


def objective(tour: TourSheet) -> float:
    problem = formulate(tour, NONE)
    return evaluate(problem, placing_of(tour, problem)).objective / 1000


def test_every_aim_is_explained_and_every_school_is_one_of_them():
    assert {aim.name for aim in AIMS} == set(Aims.model_fields) - {"front_share_low", "front_share_high", "two_walls"}
    assert SCHOOLS[0].aims == Aims()


def points(paid) -> dict[str, float]:
    return {p.aim: p.points for p in paid}


def test_what_another_place_costs_is_what_moving_there_would():
    """The points told are the difference of two whole loads, each scored by itself."""
    tour = loaded(
        small_tour(thing("stove", 2, group="cook"), thing("pot", 1, group="cook"), thing("axe", 3)),
        stove="left",
        pot="left",
        axe="left",
    )
    why = why_here(tour, None, "pot", "left")
    for place in why.places:
        moved = {"stove": "left", "axe": "left"} | ({} if place.carrier_id is None else {"pot": place.carrier_id})
        assert place.points == pytest.approx(objective(loaded(tour, **moved)) - objective(tour), abs=2e-3)
        assert sum(p.points for p in place.by_aim) == pytest.approx(place.points, abs=1e-6)
    right = next(place for place in why.places if place.carrier_id == "right")
    told = points(right.by_aim)
    assert told["together"] == pytest.approx(18)
    assert told["sides"] < 0
    assert all(p.words for p in right.by_aim)
    with pytest.raises(KeyError):
        why_here(tour, None, "pot", "right")


def test_a_place_that_cannot_be_says_why():
    tour = loaded(
        small_tour(thing("pole", 1, longest_mm=600), thing("fuel", 1, natures=("fuel",)), thing("down", 1, not_with=("fuel",))),
        fuel="left",
        down="right",
    )
    reasons = {place.carrier_id: place.against for place in why_here(tour, None, "down", "right").places}
    assert reasons["left"].words == "{one} must not ride with {other}"
    assert reasons[None] is None
    assert {p.against.words for p in why_here(tour, None, "pole", None).places} == {"{over} too long"}


def test_a_weight_of_nothing_silences_an_aim():
    tour = loaded(small_tour(thing("axe", 3)), axe="left")
    paid = points(aims_paid(tour, None))
    assert paid["sides"] > 0
    assert paid["low"] > 0
    silent = points(aims_paid(tour.model_copy(update={"aims": Aims(sides=0, low=2)}), None))
    assert silent["sides"] == 0
    assert silent["low"] == pytest.approx(2 * paid["low"], abs=2e-3)


def test_few_bags_are_opened_in_camp_where_that_is_aimed_at():
    """Sixteen small things of no kit, half of them for the camp: without the aim they fill two bags, with it one."""
    things = [thing(f"t{n}", 0.5, 1, reach="camp" if n % 2 else "stop") for n in range(16)]
    bags = {}
    for weight in (0, 5):
        tour = small_tour(*things, aims=Aims(bags=weight, sides=0.2))
        found = propose_load(tour, None, rounds=3, effort=0.5)
        bags[weight] = {p.carrier_id for p in found.load.placements if int(p.thing_id[1:]) % 2}
        problem = formulate(tour, NONE)
        placed = tour.model_copy(update={"load": found.load})
        assert found.points == pytest.approx(evaluate(problem, placing_of(placed, problem)).objective / 1000)
        assert points(aims_paid(placed, None))["bags"] == 9 * weight * len(bags[weight])
    assert (len(bags[0]), len(bags[5])) == (2, 1)


def test_a_school_moves_the_load_forward(sample, sample_road):
    def forward(school: str) -> float:
        aims = next(s.aims for s in SCHOOLS if s.id == school)
        load = propose_load(sample.model_copy(update={"aims": aims}), sample_road, rounds=2, effort=0).load
        front = {c.id for c in sample.carriers if c.kind in ("front_pannier", "fork_bag", "handlebar_box", "handlebar_roll")}
        masses = {t.id: t.mass_kg for t in sample.kit}
        return sum(masses[p.thing_id] * p.count for p in load.placements if p.carrier_id in front)

    assert forward("low_front") > forward("light_front") + 2


@settings(max_examples=25)
@given(st.lists(st.tuples(st.floats(0.1, 4), st.floats(0.5, 9)), min_size=3, max_size=9), st.data())
def test_a_repair_holds_what_is_held_and_breaks_nothing(sizes, data):
    things = [thing(f"t{n}", round(mass, 2), round(litres, 1)) for n, (mass, litres) in enumerate(sizes)]
    where = {t.id: data.draw(st.sampled_from(["left", "right"])) for t in things}
    held = data.draw(st.sampled_from(things)).id
    tour = loaded(small_tour(*things), **where)
    found = repaired_load(tour, None, [held])
    assert (held, where[held]) in {(p.thing_id, p.carrier_id) for p in found.load.placements}
    assert not any(p.pinned for p in found.load.placements)
    assert found.holds
    problem = formulate(tour.model_copy(update={"load": found.load}), NONE)
    assert evaluate(problem, placing_of(tour.model_copy(update={"load": found.load}), problem)).broken == 0


def test_a_repair_moves_little(sample, sample_road):
    """A load proposed for the tour stays as it is; with one thing moved by hand few others follow."""
    proposed = propose_load(sample, sample_road, rounds=3, effort=0)
    tour = sample.model_copy(update={"load": proposed.load})

    def moved(load: Load) -> set[str]:
        return {p.thing_id for p in set(load.placements) - set(proposed.load.placements)}

    assert len(moved(repaired_load(tour, sample_road, []).load)) <= 2
    thing_moved = max((t for t in sample.kit if t.count == 1 and not t.holds_water_l), key=lambda t: t.mass_kg)
    heaviest = thing_moved.id
    at = next(p for p in proposed.load.placements if p.thing_id == heaviest)
    may_go = {c.id for c in sample.carriers if why_not(thing_moved, spot_of(sample.bike_of(c.id), c)) is None}
    other = next(p.carrier_id for p in why_here(tour, sample_road, heaviest, at.carrier_id).places if p.carrier_id in may_go)
    rest = tuple(p for p in proposed.load.placements if p != at)
    by_hand = Load(placements=(*rest, at.model_copy(update={"carrier_id": other})), food=proposed.load.food)
    found = repaired_load(tour.model_copy(update={"load": by_hand}), sample_road, [heaviest])
    assert found.holds
    assert found.complete
    assert len(moved(found.load)) <= len(sample.kit) / 8


def test_when_not_all_goes_in_the_change_that_lets_most_in_is_named():
    """Three blocks of 14 l for two bags of 20 l: 8 l more in one bag let the third in. A pinned one in the way is freed."""
    blocks = [thing(f"b{n}", 1, 14) for n in range(3)]
    found = propose_load(small_tour(*blocks), None, rounds=1, effort=0.1)
    assert (found.holds, sum(found.out.values())) == (True, 1)
    assert found.change.still_out == 0
    assert found.change.words.figures["litres"].value == pytest.approx(8, abs=0.01)
    pole = thing("pole", 1, 8, longest_mm=420)
    small = thing("small", 1, 7)
    pins = Load(
        placements=tuple(Placement(thing_id=f"s{n}", carrier_id=side, pinned=True) for n, side in enumerate(("left", "right")))
    )
    tour = small_tour(pole, *(small.model_copy(update={"id": f"s{n}", "volume_l": 15.0}) for n in range(2)), load=pins)
    stuck = propose_load(tour, None, rounds=1, effort=0.1)
    assert stuck.out == {"pole": 1}
    assert stuck.change.still_out == 0


def test_a_thing_too_big_for_all_is_left_out_and_no_change_is_promised():
    found = propose_load(small_tour(thing("piano", 90, 400), thing("pot", 1)), None, rounds=1, effort=0.1)
    assert found.out == {"piano": 1}
    assert found.holds
    assert found.change is None
