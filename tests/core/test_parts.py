"""Compartments, pockets and nets; bulk that is pressed; measured frames; pins that stand in the way."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from omnifer.core.assess import assess
from omnifer.core.load.aims import EASE
from omnifer.core.load.explain import placing_of
from omnifer.core.load.formulate import formulate
from omnifer.core.load.problem import bill, evaluate
from omnifer.core.load.search import Search, take_in
from omnifer.core.load.settle import propose_load
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.rig import FrameTriangle
from omnifer.core.rig.catalogue import carrier, support
from omnifer.core.rig.geometry import Frame
from omnifer.core.rig.statics import Levers
from tests.conftest import pannier_bike, small_tour, thing
from tests.core.test_explain import NONE


def bike_with(*parts, **changed):
    return pannier_bike(carriers=(*pannier_bike().carriers, *parts), **changed)


def loaded(*things, bike=None, **where):
    load = Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in where.items()))
    return small_tour(*things, bikes=(bike or pannier_bike(),), load=load)


def trace_of(tour, carrier_id):
    return next(c for b in assess(tour, None).bikes for c in b.carriers if c.carrier_id == carrier_id)


def kinds(tour):
    return {(f.kind, f.carrier_id) for f in assess(tour, None).findings}


def test_a_compartment_takes_room_from_its_bag_and_both_count_for_limit_and_rack():
    """20 l with 6 of them divided off leave 14; 4 kg in the bag, 5.5 in the part and its own 0.05 are over 9."""
    part = carrier("compartment", "part", "left", "left", volume_l=6, limit_kg=8)
    bike = bike_with(part, supports=[support("rear_rack", "rack", limit_kg=11)])
    tour = loaded(thing("a", 4, 15), thing("b", 5.5, 2), bike=bike, a="left", b="part")
    trace = trace_of(tour, "left")
    assert (trace.room_l, trace.fullest_kg, trace.states) == (14, 9.55, ["over", "too_full"])
    assert {("over_mass", "left"), ("over_volume", "left")} <= kinds(tour)
    rack = next(limit for limit in assess(tour, None).bikes[0].limits if limit.kind == "support")
    assert rack.worst == pytest.approx(4 + 5.5 + 0.05 + 2 * 0.95)
    assert rack.over
    assert "over_support" in {k for k, _ in kinds(tour)}
    found = propose_load(tour, None, rounds=1, effort=0.2)
    assert found.holds
    assert [s.limit for s in found.short] == ["Rear rack"]
    problem = formulate(tour, NONE)
    room = dict(zip(problem.carrier_ids, problem.room_ml.tolist(), strict=True))
    assert room == {"left": 14000, "right": 20000, "box": 7000, "part": 6000}


def test_an_outer_pocket_has_litres_of_its_own_and_lies_outside():
    pocket = carrier("outer_pocket", "pocket", "right", "right")
    bike = bike_with(pocket)
    boxes = Levers(bike).boxes
    assert boxes["pocket"].z0 == boxes["right"].z1
    problem = formulate(loaded(bike=bike), NONE)
    room = dict(zip(problem.carrier_ids, problem.room_ml.tolist(), strict=True))
    assert room == {"left": 20000, "right": 20000, "box": 7000, "pocket": 2000}
    shares = Levers(bike)
    assert shares.carrier_shares(pocket).front == pytest.approx(shares.carrier_shares(bike.carriers[1]).front)


def test_parts_of_what_is_not_there_or_elsewhere_are_refused():
    for part, words in (
        (carrier("compartment", "part", "handlebar"), "say of which one"),
        (carrier("outer_pocket", "part", "left", "right"), "that it is part of"),
        (carrier("rear_pannier", "part", "left", "left"), "cannot be part of"),
        (carrier("net", "part", "nowhere"), "not there"),
    ):
        with pytest.raises(ValidationError, match=words):
            loaded(bike=bike_with(part))


def test_bulk_is_pressed_before_anything_stays_out_and_the_litres_pressed_are_priced():
    """A bag of 8 l packed, 5 pressed, beside 15 l in one of 20: 3 l beyond what goes in with ease."""
    down, block = thing("down", 1, 8, pressed_l=5), thing("block", 1, 15)
    tour = loaded(down, block, down="left", block="left")
    trace = trace_of(tour, "left")
    assert trace.states == ["pressed"]
    assert kinds(tour) & {("pressed", "left"), ("over_volume", "left")} == {("pressed", "left")}
    problem = formulate(tour, NONE)
    assert bill(problem, placing_of(tour, problem))["ease"] == 3000 * EASE
    found = propose_load(tour, None, rounds=1, effort=0.5)
    assert found.complete
    assert len({p.carrier_id for p in found.load.placements}) == 2, "two bags, nothing pressed"
    full = small_tour(down, *(thing(f"b{n}", 1, 15) for n in range(2)), thing("box", 1, 7))
    squeezed = propose_load(full, None, rounds=1, effort=0.5)
    assert squeezed.complete
    assert squeezed.holds
    harder = full.model_copy(update={"kit": (down.model_copy(update={"pressed_l": 6}), *full.kit[1:])})
    assert not propose_load(harder, None, rounds=1, effort=0.5).complete


def test_a_bag_stuffed_to_its_brim_holds_more_than_its_usable_litres():
    tall = carrier("rear_pannier", "left", "rack", "left", most_l=24)
    bike = pannier_bike(carriers=(tall, *pannier_bike().carriers[1:]))
    assert trace_of(loaded(thing("a", 1, 23), bike=bike, a="left"), "left").states == ["pressed"]
    assert trace_of(loaded(thing("a", 1, 25), bike=bike, a="left"), "left").states == ["too_full"]


def test_nothing_is_pressed_to_more_than_it_takes_and_a_sleeve_takes_a_bladder_only():
    with pytest.raises(ValidationError, match="cannot be pressed"):
        small_tour(thing("a", 1, 2, pressed_l=3))
    sleeve = carrier("bladder_sleeve", "sleeve", "bag", volume_l=3)
    bike = pannier_bike(carriers=(carrier("backpack", "bag", "riders_back"), sleeve))
    problem = formulate(small_tour(thing("a"), thing("sack", 0.1, 0.1, holds_water_l=2, soft_vessel=True), bikes=(bike,)), NONE)
    assert problem.allowed[:, 1].tolist() == [False, True]


@given(st.floats(530, 680), st.floats(340, 430), st.floats(70, 75), st.floats(68, 74))
def test_four_sides_and_two_angles_give_back_the_frame(stack, reach, seat, head):
    """The sides of a frame drawn from stack and reach, measured on it, draw the same frame (law of cosines)."""
    bike = pannier_bike(stack_mm=stack, frame_reach_mm=reach, seat_angle_deg=seat, head_angle_deg=head)
    frame = Frame.of(bike)
    again = Frame.of(bike.model_copy(update={"triangle": frame.triangle(), "stack_mm": 500, "frame_reach_mm": 400}))
    for name in ("seat_cluster", "head_top", "head_bottom"):
        a, b = getattr(frame, name), getattr(again, name)
        assert math.dist((a.x, a.y), (b.x, b.y)) < 1


def test_a_worked_frame():
    """Upright seat and head tubes make it a trapezium: down 500, seat 480 and head 100 apart by 400 at the foot, 300 up."""
    triangle = FrameTriangle(seat_tube_mm=480, top_tube_mm=math.hypot(400, 80), head_tube_mm=100, down_tube_mm=500)
    upright = pannier_bike().model_copy(update={"seat_angle_deg": 90.0, "head_angle_deg": 90.0, "triangle": triangle})
    frame = Frame.of(upright)
    foot = frame.bottom_bracket
    assert (frame.head_bottom.x - foot.x, frame.head_bottom.y - foot.y) == pytest.approx((400, 300))
    assert frame.head_top.y - foot.y == pytest.approx(400)


def test_sides_that_do_not_meet_are_said():
    triangle = FrameTriangle(seat_tube_mm=520, top_tube_mm=250, head_tube_mm=145, down_tube_mm=900)
    tour = loaded(bike=pannier_bike(triangle=triangle))
    found = [f for f in assess(tour, None).findings if f.kind == "no_fit"]
    assert "do not meet" in found[0].sentence.metric()


def test_of_clashing_pins_the_one_to_free_is_named_with_its_reason():
    fuel = thing("fuel", 1, 2, natures=("fuel",))
    bread = thing("bread", 1, 2, not_with=("fuel",))
    pins = Load(placements=tuple(Placement(thing_id=t, carrier_id="left", pinned=True) for t in ("fuel", "bread")))
    found = propose_load(small_tour(fuel, bread, load=pins), None, rounds=1, effort=0.2)
    assert not found.holds
    assert len(found.change.frees) == 1
    assert found.change.still_out == 0
    assert "must not ride with" in found.change.words.metric()


def test_no_proposal_makes_a_front_wheel_that_lifts_when_pushed():
    """Bare bike 14 kg; 30 kg hung far behind would lift its front on 15 %, so that much stays out."""
    bike = pannier_bike(
        supports=[support("rear_rack", "rack", limit_kg=90)],
        carriers=(carrier("rack_top_bag", "top", "rack", volume_l=60, limit_kg=80),),
    )
    bricks = [thing(f"b{n}", 10, 5) for n in range(6)]
    tour = small_tour(*bricks, bikes=(bike,))
    found = propose_load(tour, None, rounds=1, effort=0.2)
    assert found.holds
    assert not found.complete
    assert any("pushed uphill" in s.limit for s in found.short)
    assessed = assess(tour.model_copy(update={"load": found.load}), None)
    assert next(limit for limit in assessed.bikes[0].limits if limit.kind == "pushed").worst >= -0.005


def test_states_name_the_worst_first_and_only_what_holds():
    leaky = carrier("rear_pannier", "left", "rack", "left", leaks="at the seam", improvised=True)
    bike = pannier_bike(carriers=(leaky, *pannier_bike().carriers[1:]))
    pinned = Load(placements=(Placement(thing_id="a", carrier_id="left", pinned=True),))
    tour = small_tour(thing("a", 10, 19.5), thing("b", 1, 1), bikes=(bike,), load=pinned)
    assert trace_of(tour, "left").states == ["over", "full", "leaks", "improvised", "pinned"]
    assert trace_of(tour, "right").states == []
    both = (*pinned.placements, Placement(thing_id="b", carrier_id="left"))
    assert "pinned" not in trace_of(tour.model_copy(update={"load": Load(placements=both)}), "left").states


@settings(max_examples=8, deadline=None)
@given(st.integers(0, 1000), st.floats(0.3, 0.9))
def test_what_presses_further_never_makes_the_best_load_worse(seed, pressed):
    chance = np.random.default_rng(seed)
    volumes = chance.uniform(2, 9, 8)
    kit = [thing(f"t{n}", 0.5, round(v, 1), reach="stop") for n, v in enumerate(volumes)]
    softer = [t.model_copy(update={"pressed_l": round(pressed * t.volume_l, 2)}) for t in kit]
    hard, soft = (propose_load(small_tour(*things), None, rounds=1, effort=3) for things in (kit, softer))
    assert hard.proven
    assert (sum(soft.out.values()), soft.points) <= (sum(hard.out.values()), hard.points + 1e-6)


def test_room_is_made_for_what_fits_one_carrier_only():
    """Soap of 400 mm fits the pannier alone, where bread lies that cannot stand it: the bread makes room and goes to the box."""
    soap, bread = thing("soap", 0.5, 2, longest_mm=400, natures=("soap",)), thing("bread", 0.5, 2, not_with=("soap",))
    bike = pannier_bike(carriers=(pannier_bike().carriers[0], pannier_bike().carriers[2]))
    tour = loaded(soap, bread, bike=bike, bread="left")
    problem = formulate(tour, NONE)
    before = placing_of(tour, problem)
    placing, score = take_in(Search(problem, before), problem, before, evaluate(problem, before))
    assert evaluate(problem, before).out > 0
    assert (score.out, score.broken) == (0, 0)
    assert placing.x.tolist() == [[1, 0], [0, 1]]


def test_a_trailer_that_lifts_the_wheel_by_itself_is_said_and_the_rest_is_loaded_well():
    """6.2 kg whose centre lies 1000 mm behind the axle lift the hitch by 5.4 kg, more than the bag can ever press."""
    hitched = support("trailer_one_wheel", "trailer")
    frame = hitched.trailer.model_copy(update={"own_mass_ahead_of_axle_mm": -1000})
    bag = carrier("trailer_bag", "bag", "trailer", limit_kg=2)
    bike = bike_with(bag, supports=[support("rear_rack", "rack"), hitched.model_copy(update={"trailer": frame})])
    found = propose_load(small_tour(thing("tent", 2, 8), thing("pot", 1, 2), bikes=(bike,)), None, rounds=1, effort=0.2)
    assert not found.holds
    assert found.complete
    lacking = next(s for s in found.short if s.limit.startswith("hitch"))
    assert 0 < lacking.mass_kg < 5.4
    assert lacking.too_light
    assert "more on the hitch" in found.change.words.metric()
