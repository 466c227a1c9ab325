"""Things that are not packed all the way: worn, fixed, posted, waiting; what they weigh where, and that limits hold with both."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from omnifer.core.assess import assess, profile_of
from omnifer.core.load.keep import shelf_of, still_standing
from omnifer.core.load.limits import Loaded
from omnifer.core.load.settle import propose_load, stock_of
from omnifer.core.model.kit import Thing, Whereabouts
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import DayCut, Hazard, Road, Stop, TypedDay
from omnifer.core.model.tour import Tour
from omnifer.core.rig.catalogue import carrier
from tests.conftest import pannier_bike, small_tour, thing

DAY = TypedDay(distance_km=60, ascent_m=0, highest_m=100, lowest_m=100)
ROAD = Road(
    typed_days=(DAY,) * 4, cut=DayCut(by="distance", distance_km=60, to_stops=False),
    stops=(Stop(id="post", name="Post", at_km=120, services=("post",)),),
)  # fmt: skip


def along(*things: Thing, placed: dict[str, str] | None = None, **changed: object) -> Tour:
    places = tuple(Placement(thing_id=t, carrier_id=c) for t, c in (placed or {}).items())
    return small_tour(*things, road=ROAD, load=Load(placements=places), **changed)


def bag(name: str, kg: float, *where: tuple[float, str]) -> Thing:
    return thing(name, kg, 4.0, where=[{"from_km": km, "how": how} for km, how in where])


WINTER, SUMMER = bag("winter", 2.0, (0, "packed"), (120, "posted")), bag("summer", 1.0, (0, "waiting"), (120, "packed"))


def gear(tour: Tour, km: float, leaving: bool = True) -> float:
    """What rides on the bike besides itself and its bags at a place."""
    found = assess(tour, profile_of(tour))
    bare = sum(b.mass_kg + sum(s.mass_kg for s in (*b.supports, *b.carriers)) for b in tour.rig.bikes)
    m = found.moments
    at = next(i for i in range(len(m.km)) if abs(m.km[i] - km) < 0.6 and m.leaving[i] == leaving)
    stores = sum(supply.mass_kg[at] for supply in m.supplies)
    return m.total_kg[at] - stores - bare


def test_a_swap_has_both_on_board_where_it_is_made_and_one_before_and_after():
    tour = along(WINTER, SUMMER, placed={"winter": "left", "summer": "right"})
    assert gear(tour, 0) == pytest.approx(2.0, abs=0.02)
    assert gear(tour, 60) == pytest.approx(2.0, abs=0.02)
    assert gear(tour, 120, leaving=False) == pytest.approx(3.0, abs=0.02)
    assert gear(tour, 120) == pytest.approx(3.0, abs=0.02)
    assert gear(tour, 180) == pytest.approx(1.0, abs=0.02)


def test_every_limit_holds_with_both_on_board():
    """8 kg a side and 5 kg in the handlebar bag: two things of 5 kg share no side's limit of 8 kg, though they ride together only
    where they are swapped."""
    first, then = (t.model_copy(update={"mass_kg": 5.0}) for t in (WINTER, SUMMER))
    tight = along(first, then, placed={"winter": "left", "summer": "left"}, bikes=(_bags_of(8.0),))
    loaded = Loaded.of(tight, stock_of(tight, profile_of(tight)))
    assert [limit.key for limit, _ in loaded.broken] == ["bag_mass:left"]
    found = next(f for f in assess(tight, profile_of(tight)).findings if f.kind == "over_mass")
    assert found.at_km == 120
    proposal = propose_load(tight, profile_of(tight), rounds=2, effort=0)
    assert proposal.holds
    assert {p.thing_id: p.carrier_id for p in proposal.load.placements}["winter"] != {
        p.thing_id: p.carrier_id for p in proposal.load.placements}["summer"]  # fmt: skip


def _bags_of(limit_kg: float):
    sides = [carrier("rear_pannier", side, "rack", side, limit_kg=limit_kg).model_dump() for side in ("left", "right")]
    return pannier_bike(carriers=sides)


def test_what_is_off_board_weighs_nothing_and_needs_no_place():
    home = bag("home", 3.0, (0, "home"))
    tour = along(home, thing("pot", 1.0), placed={"pot": "left"})
    assert gear(tour, 0) == pytest.approx(1.0, abs=0.02)
    assert shelf_of(tour) == {}
    hours = [assess(t, profile_of(t)).road.riding_hours for t in (tour, along(thing("pot", 1.0), placed={"pot": "left"}))]
    assert hours[0] == pytest.approx(hours[1], abs=0.001)
    stale = Load(placements=(Placement(thing_id="home", carrier_id="left"), Placement(thing_id="pot", carrier_id="left")))
    assert [p.thing_id for p in still_standing(stale, tour.kit, tour.rig).placements] == ["pot"]


def test_what_is_worn_weighs_on_the_rider_and_takes_no_litres():
    worn = thing("coat", 2.0, 5.0, where=[{"how": "worn"}])
    tour, without = along(worn, thing("pot"), placed={"pot": "left"}), along(thing("pot"), placed={"pot": "left"})
    one, two = (assess(t, profile_of(t)) for t in (tour, without))
    bike, bare = one.bikes[0], two.bikes[0]
    assert bike.total_kg == bare.total_kg
    assert [c.litres for c in bike.carriers] == [c.litres for c in bare.carriers]
    on_rider = bike.rider_front_kg + bike.rider_rear_kg - bare.rider_front_kg - bare.rider_rear_kg
    assert on_rider == pytest.approx(2.0, abs=0.01)
    system = [next(limit.worst for limit in b.limits if limit.kind == "system") for b in (bike, bare)]
    assert system[0] - system[1] == pytest.approx(2.0, abs=0.01)
    assert one.road.riding_hours == pytest.approx(two.road.riding_hours, rel=0.05)


@pytest.mark.parametrize(
    ("spot", "front"), [("bar_middle", True), ("fork_crown", True), ("saddle_rails", False), ("rack_tail", False)]
)
def test_what_is_fixed_presses_on_the_wheel_below_it(spot, front):
    """Levers: more than half of a mass ahead of the middle of the wheelbase is the front wheel's; mass is conserved."""
    lamp = thing("lamp", 1.0, where=[{"how": "fixed", "spot": spot}])
    with_lamp, bare = (assess(t, profile_of(t)).bikes[0] for t in (along(lamp), along()))
    on_front, on_rear = with_lamp.front_kg[0] - bare.front_kg[0], with_lamp.rear_kg[0] - bare.rear_kg[0]
    assert on_front + on_rear == pytest.approx(1.0, abs=0.02)
    assert (on_front > on_rear) == front
    assert with_lamp.fixtures[0].where.startswith({"bar_middle": "in the middle"}.get(spot, ""))
    if spot == "rack_tail":
        rack = [next(limit.worst for limit in b.limits if limit.kind == "support") for b in (with_lamp, bare)]
        assert rack[0] - rack[1] == pytest.approx(1.0, abs=0.01)


def test_clamps_crowd_and_bags_hide_lamps():
    def lamp(name: str, spot: str, **more: object) -> Thing:
        light = {"does": "device", "wh_a_day": 1, "light": True}
        return thing(name, 0.1, role=light, where=[{"how": "fixed", "spot": spot} | more])

    crowded = along(lamp("a", "stem"), thing("b", 0.1, where=[{"how": "fixed", "spot": "stem", "width_mm": 40}]))
    rules = {(c.rule, c.carrier_id) for c in assess(crowded, profile_of(crowded)).bikes[0].clashes}
    assert ("crowded", None) in rules
    apart = along(lamp("a", "stem"), thing("b", 0.1, where=[{"how": "fixed", "spot": "bar_left"}]))
    assert "crowded" not in {c.rule for c in assess(apart, profile_of(apart)).bikes[0].clashes}
    tall = pannier_bike(carriers=[carrier("handlebar_box", "box", "handlebar", volume_l=14).model_dump()])
    behind = along(lamp("head", "bar_middle"), bikes=(tall,))
    assert ("hidden", "box") in {(c.rule, c.carrier_id) for c in assess(behind, profile_of(behind)).bikes[0].clashes}
    above = along(lamp("head", "bar_middle", height_mm=300), bikes=(tall,))
    assert "hidden" not in {c.rule for c in assess(above, profile_of(above)).bikes[0].clashes}
    packed = pannier_bike(supports=[], carriers=[carrier("saddle_pack", "pack", "saddle").model_dump()])
    tail = along(lamp("tail", "seat_post"), bikes=(packed,))
    assert ("hidden", "pack") in {(c.rule, c.carrier_id) for c in assess(tail, profile_of(tail)).bikes[0].clashes}
    tunnels = tail.road.model_copy(update={"hazards": (Hazard(from_km=3, to_km=9, kind="tunnels"),)})
    unseen = tail.model_copy(update={"road": tunnels})
    grades = [{f.grade for f in assess(t, None).findings if "hides" in f.sentence.words} for t in (tail, unseen)]
    assert (grades[1], "stops_you" in grades[0]) == ({"stops_you"}, False)


def test_a_season_module_goes_as_a_whole_and_stays_shut():
    """A closed bag from here to there: what lies in it comes and goes with it, and asks for no hand meanwhile."""
    module = thing("module", 0.1, 0.2, bag=True, closed=True, reach="breaks",
                   where=[{"how": "waiting"}, {"from_km": 60, "how": "packed"}, {"from_km": 180, "how": "posted"}])  # fmt: skip
    gloves = thing("gloves", 0.4, 1.0, inside="module", reach="riding")
    placed = {"module": "left", "gloves": "left"}
    tour = along(module, gloves, placed=placed)
    assert [round(gear(tour, km), 1) for km in (0, 60, 120, 180, 240 - 0.1) if km < 239] == [0.0, 0.5, 0.5, 0.5]
    assert "too_deep" not in {f.kind for f in assess(tour, profile_of(tour)).findings}
    card = next(card for card in assess(tour, profile_of(tour)).cards if card.carrier_id == "left")
    assert card.layers == []
    with pytest.raises(ValidationError, match="is where that is"):
        Thing.model_validate(gloves.model_dump() | {"where": [{"how": "worn"}]})


@pytest.mark.parametrize(
    "where",
    [[{"how": "fixed"}], [{"how": "worn", "spot": "stem"}], [{"how": "fixed", "spot": "outside"}],
     [{"from_km": 50, "how": "home"}, {"from_km": 20, "how": "packed"}]],
)  # fmt: skip
def test_whereabouts_that_cannot_be_are_refused(where):
    with pytest.raises(ValidationError):
        thing("odd", where=where)


@settings(max_examples=25, deadline=None)
@given(
    st.lists(
        st.tuples(st.integers(0, 24), st.sampled_from(["packed", "posted", "home", "worn"])), max_size=4, unique_by=lambda p: p[0]
    )
)
def test_a_thing_is_somewhere_at_every_place(told):
    """Its stretches cover the road without a hole, and it is aboard or off, never neither."""
    one = thing("a", where=[Whereabouts(from_km=10.0 * n, how=how).model_dump() for n, how in sorted(told)])
    km = np.linspace(0, 250, 501)
    stretches = list(one.stretches())
    assert stretches[0][0] == 0
    assert stretches[-1][1] == float("inf")
    assert all(a[1] == b[0] for a, b in pairwise(stretches))
    aboard, off = (
        one.is_how(frozenset(kinds), km) for kinds in (("packed", "worn", "pocket", "fixed"), ("posted", "waiting", "home"))
    )
    assert (aboard | off).all()


def test_a_vessel_that_is_posted_holds_nothing_behind():
    sack = thing(
        "sack", 0.1, 0.2, holds_water_l=6, soft_vessel=True, where=[{"how": "packed"}, {"from_km": 120, "how": "posted"}]
    )
    bottle = thing("bottle", 0.1, 1.0, holds_water_l=1, reach="riding")
    tour = along(sack, bottle, placed={"sack": "left", "bottle": "right"})
    lane = next(lane for lane in assess(tour, profile_of(tour)).stores.lanes if lane.key == "water")
    assert max(lane.capacity) <= 7
    bike = assess(tour, profile_of(tour))
    last = len(bike.moments.km) - 2
    held = next(c for c in bike.bikes[0].carriers if c.carrier_id == "left").kg
    assert held[last] == pytest.approx(0, abs=0.01)
