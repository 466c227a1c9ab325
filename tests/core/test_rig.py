"""The rig: its measures on paper, its levers, its catalogue."""

import itertools
import math
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.model.carrier_kind import KINDS as ROWS
from omnifer.core.model.carrier_kind import Anchor, CarrierKind, OutlineName
from omnifer.core.model.rig import Bike
from omnifer.core.rig.catalogue import BIKES, CARRIERS, SIZES, SUPPORTS, carrier, sized, support
from omnifer.core.rig.fit import clashes, polygon_area
from omnifer.core.rig.geometry import Frame, contents_centre
from omnifer.core.rig.outlines import OUTLINES, shape_of
from omnifer.core.rig.statics import Levers
from tests.conftest import RIDER, pannier_bike

KINDS = sorted(BIKES)


def with_trailer(**trailer: object) -> Bike:
    hitched = support("trailer_one_wheel", "trailer")
    measured = hitched.trailer.model_copy(update=trailer)
    return pannier_bike(
        supports=[hitched.model_copy(update={"trailer": measured}).model_dump()],
        carriers=[carrier("trailer_bag", "bag", "trailer").model_dump()],
    )


@pytest.mark.parametrize("kind", KINDS)
def test_the_drawn_frame_has_the_stated_measures(kind):
    bike = BIKES[kind]
    frame = Frame.of(bike)
    assert math.dist((0, bike.radius_mm), (frame.bottom_bracket.x, frame.bottom_bracket.y)) == pytest.approx(bike.chainstay_mm)
    assert frame.head_top.x - frame.bottom_bracket.x == pytest.approx(bike.frame_reach_mm)
    assert frame.head_top.y - frame.bottom_bracket.y == pytest.approx(bike.stack_mm)
    assert math.dist((frame.saddle.x, frame.saddle.y), (frame.bottom_bracket.x, frame.bottom_bracket.y)) == pytest.approx(
        bike.saddle_height_mm
    )
    lean = math.degrees(math.atan2(frame.saddle.y - frame.bottom_bracket.y, frame.bottom_bracket.x - frame.saddle.x))
    assert lean == pytest.approx(bike.seat_angle_deg)
    assert frame.front_axle.x - frame.rear_axle.x == bike.wheelbase_mm


def test_litre_prices_keep_the_ratios_of_the_trade():
    """Panniers are cheapest, handlebar rolls cost twice as much a litre, frame bags three times, top-tube bags five times: common
    practice, no source."""
    pannier = ROWS["rear_pannier"].litre_price
    times = {"handlebar_roll": 2, "half_frame_bag": 3, "top_tube_bag": 5}
    assert {kind: ROWS[kind].litre_price / pannier for kind in times} == times


def test_every_kind_of_carrier_is_one_whole_row():
    assert set(ROWS) == set(get_args(CarrierKind)) == set(CARRIERS)
    assert {row.anchor for row in ROWS.values()} == set(get_args(Anchor))
    assert {row.outline for row in ROWS.values()} == set(OUTLINES) == set(get_args(OutlineName))


def test_a_bottle_leans_as_its_tube_does():
    """A seat tube of 73° leans the bottle by 73°, whatever else is on the bike."""
    bike = pannier_bike(seat_angle_deg=73, carriers=[carrier("bottle_cage", "b", "seat_tube_bolts").model_dump()])
    frame = Frame.of(bike)
    corners = shape_of(frame, bike.carriers[0], frame.carrier_box(bike.carriers[0])).corners
    (x0, y0), (x1, y1) = (((corners[i].x + corners[j].x) / 2, (corners[i].y + corners[j].y) / 2) for i, j in ((0, 1), (4, 5)))
    assert math.degrees(math.atan2(y1 - y0, x0 - x1)) == pytest.approx(73, abs=0.2)


@pytest.mark.parametrize("kind", sorted(CARRIERS))
def test_every_carrier_of_the_catalogue_hangs_clear_of_the_ground(kind):
    """At the catalogue's volume its box holds at least that volume, and its sides mirror each other."""
    template = CARRIERS[kind]
    place = next(iter(template.hangs_on))
    wholes = {side: carrier(place, f"whole-{side}", "rack", side) for side in template.sides} if place in CARRIERS else {}
    bike = pannier_bike(
        supports=[support("trailer_one_wheel", "trailer").model_dump()], carriers=[w.model_dump() for w in wholes.values()]
    )
    frame = Frame.of(bike)
    on = {side: wholes[side].id if wholes else place for side in template.sides}
    parts = [carrier(kind, f"part-{side}", on[side], side) for side in template.sides]
    if wholes:
        frame = Frame.of(bike.model_copy(update={"carriers": (*bike.carriers, *parts)}))
    boxes = {part.side: frame.carrier_box(part) for part in parts}
    for side, box in boxes.items():
        sides_dm = ((box.x1 - box.x0) / 100, (box.y1 - box.y0) / 100, (box.z1 - box.z0) / 100)
        assert math.prod(sides_dm) >= template.prototype.volume_l * 0.98
        assert box.y0 > 60
        if side == "middle":
            assert box.z0 == pytest.approx(-box.z1)
    if {"left", "right"} <= set(boxes):
        left, right = boxes["left"], boxes["right"]
        assert (left.z0, left.z1) == pytest.approx((-right.z1, -right.z0))
        assert left.x0 == right.x0


@given(st.floats(2, 60))
def test_a_bigger_bag_takes_more_room_and_its_centre_stays_within(litres):
    frame = Frame.of(pannier_bike())
    small, big = (frame.carrier_box(carrier("rear_pannier", "p", "rack", "right", volume_l=v)) for v in (litres, litres * 1.3))
    assert big.x1 - big.x0 > small.x1 - small.x0
    x, y, z = contents_centre(small, 0.45)
    assert small.x0 < x < small.x1
    assert small.z0 < z < small.z1
    assert y == pytest.approx(small.y0 + 0.45 * (small.y1 - small.y0))


@given(st.floats(-1500, 1500))
def test_no_mass_is_lost_between_the_wheels(x):
    levers = Levers(with_trailer())
    for on_trailer in (False, True):
        share = levers.shares(x, on_trailer)
        assert share.front + share.rear + share.trailer == pytest.approx(1)
    assert levers.shares(x, on_trailer=False).hitch == 0


def test_levers_of_a_loaded_trailer_worked_by_hand():
    """A mass 0.3 m ahead of the trailer's axle, 1.0 m behind the hitch at the rear axle: 30 % on the hitch, so on the rear
    wheel, 70 % on the trailer's, none on the front. Moments about the trailer's axle (rigid-body statics)."""
    levers = Levers(with_trailer(hitch_to_axle_mm=1000))
    share = levers.shares(-700, on_trailer=True)
    assert (share.front, share.rear, share.trailer, share.hitch) == pytest.approx((0, 0.3, 0.7, 0.3))
    behind = levers.shares(-1100, on_trailer=True)
    assert behind.hitch == pytest.approx(-0.1)
    assert behind.trailer == pytest.approx(1.1)


def test_bare_loads_are_the_sum_of_the_parts():
    """Frame 14 kg at 480 mm over a 1060 mm wheelbase, and each rack and bag by its own lever."""
    bike = pannier_bike()
    levers = Levers(bike)
    expected = bike.mass_kg * bike.own_x_mm
    for rack in bike.supports:
        expected += rack.mass_kg * levers.frame.support_centre(rack).x
    for bag in bike.carriers:
        box = levers.boxes[bag.id]
        expected += bag.mass_kg * (box.x0 + box.x1) / 2
    assert levers.bare().front == pytest.approx(expected / bike.wheelbase_mm)
    total = bike.mass_kg + sum(s.mass_kg for s in bike.supports) + sum(c.mass_kg for c in bike.carriers)
    assert levers.bare().mass == pytest.approx(total)


@pytest.mark.parametrize(("posture", "front"), [("hoods", 0.43), ("tops", 0.40), ("flat", 0.37), ("upright", 0.34)])
def test_a_rider_presses_on_the_front_wheel_by_posture(posture, front):
    """Shares of riders of 1.75 m on a touring frame, computed from segment masses (de Leva 1996, from memory) outside."""
    bike = pannier_bike(posture=posture)
    rider = RIDER.model_copy(update={"height_cm": 175})
    assert Frame.of(bike).rider_centre(rider).x / bike.wheelbase_mm == pytest.approx(front, abs=0.015)


@pytest.mark.parametrize("kind", KINDS)
def test_a_rider_sits_over_the_wheelbase_of_every_bike(kind):
    levers = Levers(BIKES[kind])
    assert 0.30 < levers.shares(levers.frame.rider_centre(RIDER).x, on_trailer=False).front < 0.47


def test_two_weighings_with_the_rider_on_overrule_the_posture():
    """Bike 14 kg, 6.3 of it in front; with the rider of 70 kg 36.3 in front and 47.7 behind: 30 of 70 rest on the front."""
    bike = pannier_bike(mass_kg=14, bare_front_kg=6.3, ridden_front_kg=36.3, ridden_rear_kg=47.7)
    assert Frame.of(bike).rider_centre(RIDER).x / bike.wheelbase_mm == pytest.approx(30 / 70)
    for wrong in ({"ridden_front_kg": 36.3}, {"ridden_front_kg": 6, "ridden_rear_kg": 9}):
        with pytest.raises(ValueError, match="weigh"):
            pannier_bike(mass_kg=14, **wrong)


def test_every_template_can_be_hung_somewhere():
    mounts = {mount for bike in BIKES.values() for mount in bike.mounts}
    for template in SUPPORTS.values():
        assert template.prototype.mount in mounts
        assert template.prototype.limit_kg > template.prototype.mass_kg
    for template in CARRIERS.values():
        assert template.hangs_on
        assert all(place in mounts or place in SUPPORTS or place in CARRIERS for place in template.hangs_on)
        assert template.prototype.limit_kg > 0 < template.prototype.volume_l


def test_overwritten_figures_win_and_nonsense_is_refused():
    bag = carrier("rear_pannier", "bag", "rack", "left", volume_l=23, limit_kg=7)
    assert (bag.volume_l, bag.limit_kg, bag.longest_mm) == (23, 7, CARRIERS["rear_pannier"].prototype.longest_mm)
    for wrong in ({"volume_l": -1}, {"limit_kg": float("nan")}, {"mass_kg": 1e9}, {"reach": "never"}, {"side": "up"}):
        with pytest.raises(ValueError, match=next(iter(wrong))):
            carrier("rear_pannier", "bag", "rack", **({"side": "left"} | wrong))


@pytest.mark.parametrize("kind", KINDS)
def test_larger_frames_are_larger_in_every_way(kind):
    bikes = [sized(kind, size) for size in SIZES]
    assert sized(kind, "middle").model_copy(update={"id": kind}) == BIKES[kind]
    for small, large in itertools.pairwise(bikes):
        frames = [Frame.of(small), Frame.of(large)]
        corners = [(f.bottom_bracket, f.seat_cluster, f.head_top, f.head_bottom) for f in frames]
        assert polygon_area(corners[0]) < polygon_area(corners[1])
        assert frames[0].saddle.y < frames[1].saddle.y
        assert small.wheelbase_mm < large.wheelbase_mm


def test_wheels_follow_from_the_tyre_size_unless_rolled_out():
    """ETRTO 37-622: 622 mm over the bead seat and twice 37; rolled out it turns about 2.19 m, as tables for bicycle computers say (from memory)."""
    bike = pannier_bike(tyre_width_mm=37, bead_seat_mm=622)
    assert 2 * math.pi * bike.radius_mm == pytest.approx(2187, abs=1)
    assert bike.model_copy(update={"wheel_radius_mm": 343}).radius_mm == 343


def test_a_bare_bike_stands_as_the_scale_says():
    """14 kg of which the front wheel bears 6.3: the centre lies at 0.45 of the wheelbase."""
    bike = pannier_bike(mass_kg=14, bare_front_kg=6.3, supports=(), carriers=())
    bare = Levers(bike).bare()
    assert (bare.front, bare.rear) == pytest.approx((6.3, 7.7))
    assert bare.moment_x / bare.mass == pytest.approx(0.45 * bike.wheelbase_mm)


def test_a_measured_bag_counts_as_it_was_measured():
    size = {"length_mm": 500, "height_mm": 140, "width_mm": 90}
    bag = carrier("half_frame_bag", "bag", "frame_triangle", size=size)
    bike = pannier_bike(carriers=(bag,), supports=())
    box = Levers(bike).boxes["bag"]
    assert (box.x1 - box.x0, box.y1 - box.y0, box.z1 - box.z0) == pytest.approx((500, 140, 90))
    found = {c.rule: c.beyond_mm for c in clashes(bike, Frame.of(bike), {"bag": box})}
    assert found["frame_bag_thickness"] == pytest.approx(15)
