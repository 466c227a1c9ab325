"""What fits on a bike and how it stands, on frames worked by hand."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.assess import assess, situation_of
from omnifer.core.findings import look_for_cases
from omnifer.core.load.aims import SCHOOLS
from omnifer.core.model.aims import Aims
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.rig import Bike
from omnifer.core.model.stance import Clash
from omnifer.core.physics import statics
from omnifer.core.rig import fit
from omnifer.core.rig.catalogue import carrier, sized, support
from omnifer.core.rig.geometry import Frame, Vector
from omnifer.core.rig.places import free_places
from omnifer.core.rig.statics import Levers
from tests.conftest import RIDER, pannier_bike, small_tour, thing


def found(bike: Bike) -> dict[str, Clash]:
    frame = Frame.of(bike)
    return {clash.rule: clash for clash in fit.clashes(bike, frame, {c.id: frame.carrier_box(c) for c in bike.carriers})}


def hung(*carriers, **changed) -> Bike:
    supports = changed.pop("supports", [support("rear_rack", "rack").model_dump()])
    return pannier_bike(carriers=[c.model_dump() for c in carriers], supports=supports, **changed)


def test_area_of_a_triangle_and_of_a_frame():
    assert fit.polygon_area((Vector(0, 0), Vector(3, 0), Vector(0, 4))) == 6
    # On paper, from the bottom bracket: seat cluster 0.86 x 603 mm up 72.5 degrees (-155.9, 494.6), head tube's ends (377, 603)
    # and 145 mm down 71.5 degrees (423.0, 465.5); cross products 0, -280 472, -79 575, 0, half of their sum 180 024 mm².
    frame = Frame.of(pannier_bike())
    corners = (frame.bottom_bracket, frame.seat_cluster, frame.head_top, frame.head_bottom)
    assert fit.polygon_area(corners) == pytest.approx(180_024, abs=60)


def test_a_full_frame_bag_larger_than_the_triangle_is_told():
    small, large = (carrier("full_frame_bag", "bag", "frame_triangle", volume_l=litres) for litres in (6, 12))
    assert "frame_bag_in_triangle" not in found(hung(small))
    clash = found(hung(large))["frame_bag_in_triangle"]
    assert clash.reason.figures["most"].value == pytest.approx(0.180024 * 0.85 * 75, abs=0.01)


def test_a_dropped_post_brings_the_pack_to_the_tyre():
    """Air above the tyre: bottom of the pack, 2 x 351 mm of wheel, and the travel that the post gives away."""
    bag = carrier("saddle_pack", "pack", "saddle")
    still = hung(bag, saddle_height_mm=720)
    box = Frame.of(still).carrier_box(bag)
    straight_above = box.y0 - 2 * still.radius_mm
    assert box.x0 < 0 < box.x1  # the axle lies under it, so the air is straight up
    assert "tyre_room" not in found(still)
    dropped = hung(bag, post="dropper", post_travel_mm=straight_above)
    assert found(dropped)["tyre_room"].beyond_mm == pytest.approx(fit.TYRE_ROOM_MM, abs=1)


def test_heels_and_short_chainstays():
    """Heel: bottom bracket at sqrt(chainstay² - drop²), less 170 mm of crank and 140 mm of shoe."""
    panniers = [carrier("rear_pannier", side, "rack", side) for side in ("left", "right")]
    assert "heel_room" not in found(hung(*panniers, chainstay_mm=465))
    short = hung(*panniers, chainstay_mm=420)
    front_of_bag = -47 + 350 / 2
    air = math.sqrt(420**2 - 75**2) - 170 - 140 - front_of_bag
    assert found(short)["heel_room"].beyond_mm == pytest.approx(fit.HEEL_ROOM_MM - air, abs=0.5)


@pytest.mark.parametrize(("inner", "fits"), [(400, True), (380, False)])
def test_a_roll_between_the_levers(inner, fits):
    """A 12 l roll is about 390 mm wide: drop bars of 40 cm are wanted (common practice, no source)."""
    assert ("bar_room" not in found(hung(carrier("handlebar_roll", "roll", "handlebar"), bar_inner_width_mm=inner))) == fits


def test_a_roll_strapped_close_to_the_bar_presses_the_cables():
    """On paper: the bar is 75 mm before the head tube's top, whose foot is 46 mm further on and 22 mm thick."""
    close = carrier("handlebar_roll", "roll", "handlebar", stand_off_mm=14)
    air = 75 + 14 - 145 * math.cos(math.radians(71.5)) - 22
    assert found(hung(close))["cable_room"].beyond_mm == pytest.approx(40 - air, abs=0.5)
    assert "cable_room" not in found(hung(close, cables="inside"))
    assert "cable_room" not in found(hung(carrier("handlebar_roll", "roll", "handlebar")))


def test_a_cage_wants_its_bolts_or_is_said_to_be_tied():
    def with_cage(**changed) -> Bike:
        cage = support("fork_cage", "cage", "left", **changed).model_dump()
        return hung(supports=[cage], fork_bolts=1, mounts=["fork_bolts"])

    assert found(with_cage())["bolts"].support_id == "cage"
    assert found(with_cage(bolts=1)) == {}
    tied = small_tour(bikes=(with_cage(improvised=True),))
    kinds = {f.kind for f in assess(tied, None).findings}
    assert "improvised" in kinds
    stance = assess(tied, None).bikes[0].stance
    assert (stance.bolts, stance.tied_on) == (0, 1)
    assert "no_fit" not in kinds


def test_a_frame_bag_hides_the_bottles_and_a_cage_strikes_the_pannier():
    bottle = carrier("bottle_cage", "bottle", "down_tube_bolts")
    assert found(hung(carrier("full_frame_bag", "bag", "frame_triangle"), bottle))["shared_room"].carrier_id == "bottle"
    assert "shared_room" not in found(hung(bottle, carrier("bottle_cage", "second", "seat_tube_bolts")))
    pannier, cage = carrier("rear_pannier", "pannier", "rack", "left"), carrier("rack_side_cage", "cage", "rack", "left")
    assert "shared_room" in found(hung(pannier, cage))


def stance_with(kg_left: float, where: str = "left"):
    tour = small_tour(thing("load", kg_left, 2))
    tour = tour.model_copy(update={"load": Load(placements=(Placement(thing_id="load", carrier_id=where),))})
    return tour, assess(tour, None).bikes[0]


def test_lift_and_pitch_follow_from_the_whole_mass():
    """Rider at his centre and bike with bags at theirs, by the lever rule, against the figures told."""
    tour, trace = stance_with(8)
    bike = tour.rig.bikes[0]
    seat = Frame.of(bike).rider_centre(RIDER)
    total = trace.total_kg[0] + RIDER.body_mass_kg
    x = (trace.total_kg[0] * trace.centre_x_mm[0] + RIDER.body_mass_kg * seat.x) / total / 1000
    y = (trace.total_kg[0] * trace.centre_y_mm[0] + RIDER.body_mass_kg * seat.y) / total / 1000
    assert trace.stance.lift_gradient == pytest.approx(x / y, abs=2e-3)
    assert trace.stance.pitch_over_ms2 == pytest.approx(statics.pitch_over_deceleration(x, y, 1.06), abs=0.02)
    # Who pushes at the bar pushes above the centre of gravity, which presses the front wheel down.
    assert trace.stance.pushed_lift_gradient is None


def test_a_trailer_pulls_the_front_wheel_up():
    """Forces and moments of bike, rider and trailer on a slope, solved as a linear system: at the slope told nothing presses
    on the front wheel. Unknown are the two wheels' loads, the drive at the rear one and the pull at the hitch."""
    trailer = support("trailer_one_wheel", "trailer")
    bike = hung(carrier("trailer_bag", "bag", "trailer"), supports=[trailer.model_dump()])
    tour = small_tour(thing("load", 20, 20), bikes=(bike,))
    tour = tour.model_copy(update={"load": Load(placements=(Placement(thing_id="load", carrier_id="bag"),))})
    trace = assess(tour, None).bikes[0]
    seat, wheelbase, hitch_y = Frame.of(bike).rider_centre(RIDER), bike.wheelbase_mm, bike.radius_mm
    towed = trace.trailer_kg[0] + trace.hitch_kg[0]
    alone = trace.total_kg[0] - towed
    angle = math.atan(trace.stance.lift_gradient)
    body = [(alone, trace.centre_x_mm[0], trace.centre_y_mm[0]), (RIDER.body_mass_kg, seat.x, seat.y)]
    weight = sum(kg for kg, _, _ in body)
    # Along the slope, across it, moments about the rear contact (clockwise up), and the trailer along the slope.
    left = np.array([[0, 0, 1, -1], [1, 1, 0, 0], [wheelbase, 0, 0, hitch_y], [0, 0, 0, 1]])
    right = [
        weight * math.sin(angle), weight * math.cos(angle) + trace.hitch_kg[0] * math.cos(angle),
        sum(kg * (x * math.cos(angle) - y * math.sin(angle)) for kg, x, y in body), towed * math.sin(angle),
    ]  # fmt: skip
    front = np.linalg.solve(left, right)[0]
    assert front == pytest.approx(0, abs=0.4)
    unhitched = body[0][0] * body[0][1] + body[1][0] * body[1][1], body[0][0] * body[0][2] + body[1][0] * body[1][2]
    assert trace.stance.lift_gradient < unhitched[0] / unhitched[1] - 0.01


def test_the_climb_ends_where_power_does_with_the_trailer_hung_on():
    """25 kg more in the trailer, of which part hangs on the hitch, count as 25 kg: at the slope told 1.5 times 110 W at 95 %
    carry the whole train at 40 turns of the lowest gear (balance of forces, worked here)."""
    trailer = support("trailer_one_wheel", "trailer")
    bike = hung(carrier("trailer_bag", "bag", "trailer"), supports=[trailer.model_dump()])
    tour = small_tour(thing("load", 25, 20), bikes=(bike,))
    tour = tour.model_copy(update={"load": Load(placements=(Placement(thing_id="load", carrier_id="bag"),))})
    trace = assess(tour, None).bikes[0]
    angle = math.atan(trace.stance.climb_gradient)
    speed = 2 * math.pi * bike.radius_mm / 1000 * bike.low_chainring / bike.low_cog * 40 / 60
    mass = trace.total_kg[0] + RIDER.body_mass_kg
    area = bike.drag_area_m2 + trailer.trailer.drag_area_m2
    force = mass * 9.80665 * (math.sin(angle) + bike.rolling_resistance * math.cos(angle)) + 0.5 * 1.225 * area * speed**2
    assert force * speed / 0.95 == pytest.approx(1.5 * RIDER.all_day_power_w, rel=5e-3)


@given(st.floats(0, 9))
def test_a_mirrored_load_mirrors_the_sides_and_nothing_else(kg):
    (_, left), (_, right) = stance_with(kg, "left"), stance_with(kg, "right")
    assert left.stance == right.stance
    assert (left.left_kg, left.right_kg) == (right.right_kg, right.left_kg)
    assert (left.front_kg, left.rear_kg) == (right.front_kg, right.rear_kg)


def test_a_narrow_gate_is_told():
    tour = small_tour()
    wide = assess(tour, None).bikes[0].stance.width_mm
    for narrow, grade in ((wide - 10, "stops_you"), (wide + 20, "slows_you"), (wide + 200, None)):
        road = tour.road.model_copy(update={"narrowest_mm": narrow})
        found_grades = [f.grade for f in assess(tour.model_copy(update={"road": road}), None).findings if f.kind == "too_wide"]
        assert found_grades == ([grade] if grade else [])


def test_free_places_are_those_where_nothing_hangs_and_lie_on_the_bike():
    bike = pannier_bike()
    frame = Frame.of(bike)
    free = {(place.on, place.side): place for place in free_places(bike, frame)}
    assert ("rack", "left") not in free
    assert ("rack", "middle") in free
    assert ("handlebar", "middle") not in free
    assert ("rear_eyelets", "middle") not in free  # the rack is bolted there
    assert {side for on, side in free if on == "stem"} == {"left", "right"}
    for place in free.values():
        assert -700 < place.x < bike.wheelbase_mm + 400
        assert 0 < place.y < 1300
    packed = bike.model_copy(update={"carriers": (*bike.carriers, carrier("backpack", "b", "riders_back"))})
    assert ("riders_back", "middle") in {(p.on, p.side) for p in free_places(packed, frame)}


def test_without_its_trailer_a_bike_stands_on_its_own_loads():
    """What hangs on the hitch leaves with the trailer: the rear wheel is lighter by it, the front as it was."""
    trailer = support("trailer_one_wheel", "trailer")
    bags = [carrier("trailer_bag", "bag", "trailer"), carrier("handlebar_box", "box", "handlebar")]
    bike = hung(*bags, supports=[trailer.model_dump()])
    trace = assess(small_tour(bikes=(bike,)), None).bikes[0]
    front, rear, hitch = trace.front_kg[0], trace.rear_kg[0], trace.hitch_kg[0]
    assert hitch > 0
    assert trace.stance.unhitched_front_share == pytest.approx(front / (front + rear - hitch), abs=2e-3)
    alone = hung(bags[1], supports=[])
    assert assess(small_tour(bikes=(alone,)), None).bikes[0].stance.unhitched_front_share is None


def test_narrow_tyres_under_a_heavy_load_are_told():
    tour = small_tour(bikes=(pannier_bike(tyre_width_mm=23, tyre_most_bar=8, hookless=True),))
    told = next(f for f in assess(tour, None).findings if f.kind == "tyre_pressure")
    assert told.reason.figures["most"].value == 5  # rims without hooks, ETRTO
    wide = small_tour(bikes=(pannier_bike(tyre_width_mm=47, hookless=True),))
    assert "tyre_pressure" not in {f.kind for f in assess(wide, None).findings}


def test_a_tail_heavy_bike_lifts_its_front_when_pushed():
    bag = carrier("rack_top_bag", "bag", "rack", volume_l=60, limit_kg=60)
    tour = small_tour(thing("anvil", 40, 20), bikes=(hung(bag, mass_kg=9.0),))
    tour = tour.model_copy(update={"load": Load(placements=(Placement(thing_id="anvil", carrier_id="bag"),))})
    told = [f for f in assess(tour, None).findings if f.kind == "front_lifts"]
    assert len(told) == 1
    assert told[0].sentence.figures["slope"].value < 0.15


def test_a_kilogram_under_a_pushed_bar_presses_on_the_front_the_more_the_lower_it_lies():
    """Moments about the rear wheel's contact on a slope of 15 in 100, the push at the bar: (x cos + (bar - y) sin) / wheelbase."""
    bike = pannier_bike()
    levers = Levers(bike)
    slope = math.atan(0.15)
    bar = levers.frame.bar.y
    for x, y in ((300, 0), (300, bar), (0, 600)):
        by_hand = (x * math.cos(slope) + (bar - y) * math.sin(slope)) / bike.wheelbase_mm
        assert levers.front_when_pushed_at(x, y) == pytest.approx(by_hand, rel=1e-9)


def test_tyres_keep_their_own_least_and_say_where_the_rule_ends():
    """30 kg on 45 mm would be 1.2 bar by the fit (computed here); the maker's 2.5 count. 60 mm is beyond what it was drawn for."""
    soft = assess(small_tour(bikes=(pannier_bike(tyre_width_mm=45, tyre_least_bar=2.5),)), None).bikes[0].stance.front_tyre
    assert (soft.bar, soft.low_bar) == (2.5, 2.5)
    assert "the tyre's own least" in soft.note.words
    fat = assess(small_tour(bikes=(pannier_bike(tyre_width_mm=60),)), None).bikes[0].stance.rear_tyre
    assert "guess" in fat.note.words
    usual = assess(small_tour(bikes=(pannier_bike(tyre_width_mm=37),)), None).bikes[0].stance.rear_tyre
    assert (usual.note, usual.low_bar) == (None, pytest.approx(0.8 * usual.bar, abs=0.01))


def test_sides_are_told_axle_by_axle_though_their_sum_cancels():
    """2 kg more on the left behind and on the right in front: nothing in all, and both are told with the very figure."""
    low = support("front_rack", "low")
    bags = [
        carrier("rear_pannier", "rl", "rack", "left"), carrier("rear_pannier", "rr", "rack", "right"),
        carrier("front_pannier", "fl", "low", "left"), carrier("front_pannier", "fr", "low", "right"),
    ]  # fmt: skip
    bike = hung(*bags, supports=[*(s.model_dump() for s in pannier_bike().supports), low.model_dump()])
    tour = small_tour(thing("a", 2, 2), thing("b", 2, 2), bikes=(bike,))
    load = Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in (("a", "rl"), ("b", "fr"))))
    told = assess(tour.model_copy(update={"load": load}), None)
    trace = told.bikes[0]
    assert trace.left_kg == trace.right_kg
    assert (trace.right_over_left_kg.front, trace.right_over_left_kg.rear) == ([2], [-2])
    there = situation_of(tour.model_copy(update={"load": load}), None)
    drafts = look_for_cases("sides", there).values()
    found = {d.sentence.names["axle"]: (d.sentence.names["side"], d.sentence.figures["off"].value) for d in drafts}
    assert sum(f.kind == "sides" for f in told.findings) == 1  # one uneven bike, told with both
    assert found == {"front": ("right", 2), "rear": ("left", 2)}


@pytest.mark.parametrize("school", SCHOOLS)
def test_no_school_is_called_faulty_by_itself(school):
    """A load whose front share lies in the middle of a school's own range is no trouble to it."""
    tour, trace = stance_with(0.0)
    share = trace.front_share[0]
    low, high = school.aims.front_share_low, school.aims.front_share_high
    half = 0.07 if low is None else (high - low) / 2
    bike = pannier_bike(front_share_low=0.9, front_share_high=0.95)
    aims = school.aims.model_copy(update={"front_share_low": max(share - half, 0), "front_share_high": share + half})
    there = tour.model_copy(update={"aims": aims, "rig": tour.rig.model_copy(update={"bikes": (bike,)})})
    told = assess(there, None)
    assert (told.bikes[0].steady_low, told.bikes[0].steady_high) == (pytest.approx(share - half), pytest.approx(share + half))
    assert "front_share" not in {f.kind for f in told.findings}
    own = there.model_copy(update={"aims": Aims()})
    assert "front_share" in {f.kind for f in assess(own, None).findings}


def test_a_bag_under_the_top_tube_leaves_the_bottles_their_length():
    """On a small frame half the triangle and two bottles do not go; on the largest they do (common practice, no source)."""
    bags = [carrier("half_frame_bag", "half", "frame_triangle"), carrier("bottle_cage", "down", "down_tube_bolts"),
            carrier("bottle_cage", "seat", "seat_tube_bolts")]  # fmt: skip
    small, large = (
        sized("touring", size).model_copy(update={"supports": (), "carriers": tuple(bags)}) for size in ("small", "largest")
    )
    assert "bottles_under_half_bag" in found(small)
    assert "bottles_under_half_bag" not in found(large)
