"""Small rules that a changed sign or a dropped term would bend without a sign elsewhere; each worked by hand."""

import math

import pytest

from omnifer.core.assess import aims_paid, assess, profile_of
from omnifer.core.load.formulate import formulate
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import Stop
from omnifer.core.rig.catalogue import carrier
from omnifer.core.rig.statics import Levers
from omnifer.core.voyage import play
from tests.conftest import pannier_bike, small_tour, thing
from tests.core.test_explain import NONE


def placed(*things, bikes=None, **where):
    load = Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in where.items()))
    return small_tour(*things, bikes=bikes, load=load)


def test_half_a_day_of_food_is_left_on_reaching_the_end():
    """Two days without a shop: what is eaten and half a day more, so a quarter more than what is eaten."""
    tour = small_tour()
    food = play(tour, profile_of(tour)).supplies["food"]
    assert food.amounts.required[0] == pytest.approx(1.25 * food.used.sum())
    assert food.amounts.arriving[-1] == pytest.approx(0.25 * food.used.sum())


def test_what_must_stay_dry_inside_a_thing_keeps_the_thing_out_of_the_wet():
    bag = carrier("half_frame_bag", "frame", "frame_triangle", volume_l=9)
    bike = pannier_bike(carriers=[bag.model_dump(), *(c.model_dump() for c in pannier_bike().carriers)])
    for dry, may in (("must", False), ("any", True)):
        tour = small_tour(thing("pot", 0.4, 2), thing("matches", 0.1, 0.1, dry=dry, inside="pot"), bikes=(bike,))
        problem = formulate(tour, NONE)
        assert bool(problem.allowed[0, problem.carrier_ids.index("frame")]) == may


def test_how_slowly_a_bike_turns_in_counts_width_and_length():
    """Radius of gyration about the upright axis: root of the mean of mass times (distance along squared plus across squared)."""
    bike = pannier_bike()
    tour = placed(thing("a", 6, 4), thing("b", 6, 4), bikes=(bike,), a="left", b="right")
    levers = Levers(bike)
    parts = [(bike.mass_kg, bike.own_x_mm, 0.0)]
    parts += [
        (c.mass_kg + {"left": 6, "right": 6}.get(c.id, 0), *(levers.centres[c.id][i] for i in (0, 2))) for c in bike.carriers
    ]
    total = sum(kg for kg, _, _ in parts)
    middle = sum(kg * x for kg, x, _ in parts) / total
    expected = math.sqrt(sum(kg * ((x - middle) ** 2 + z**2) for kg, x, z in parts) / total)
    assert assess(tour, None).bikes[0].stance.spread_mm == pytest.approx(expected, abs=1)
    without_width = math.sqrt(sum(kg * (x - middle) ** 2 for kg, x, _ in parts) / total)
    assert expected - without_width > 5


@pytest.mark.parametrize(("water", "sure"), [("reliable", True), ("unsure", False), ("none", False), (None, False)])
def test_a_night_has_water_only_where_its_stop_has_sure_water(water, sure):
    tour = small_tour()
    stops = () if water is None else (Stop(id="s", name="Mill", at_km=60, water=water),)
    tour = tour.model_copy(update={"road": tour.road.model_copy(update={"stops": stops})})
    assert [day.night_water for day in assess(tour, profile_of(tour)).days] == [sure, True]


def test_a_bag_is_packed_last_needed_first_and_wet_things_on_top():
    tour = placed(
        thing("fly", 1, 2, wet=True), thing("tent", 1, 2), thing("quilt", 1, 2, reach="night"), thing("cape", 1, 2, reach="stop"),
        fly="left", tent="left", quilt="left", cape="left",
    )  # fmt: skip
    card = next(c for c in assess(tour, None).cards if c.carrier_id == "left")
    assert [layer.thing_id for layer in card.layers] == ["quilt", "tent", "fly", "cape"]


@pytest.mark.parametrize(("bag", "grade"), [("left", "worth_knowing"), ("pack", "slows_you")])
def test_one_moment_too_late_is_worth_knowing_two_slow_you(bag, grade):
    pack = carrier("saddle_pack", "pack", "saddle")
    bike = pannier_bike(carriers=[pack.model_dump(), *(c.model_dump() for c in pannier_bike().carriers)])
    found = assess(placed(thing("camera", 0.5, 1, reach="riding"), bikes=(bike,), camera=bag), None).findings
    assert [f.grade for f in found if f.kind == "too_deep"] == [grade]


def test_a_heavy_saddle_pack_pays_for_its_sway():
    """5 kg where 3 are pleasant: 2 kg at 12 points, once for the moment and twice more for the worst one."""
    pack = carrier("saddle_pack", "pack", "saddle", limit_kg=9)
    bike = pannier_bike(carriers=[pack.model_dump()], supports=[])
    paid = {p.aim: p.points for p in aims_paid(placed(thing("brick", 5, 2, reach="camp"), bikes=(bike,), brick="pack"), None)}
    assert paid["sway"] == pytest.approx(2 * 12 * 3)
