"""Every kind of trouble is found where it is, and not where it is not."""

import pytest

from omnifer.core.assess import assess, profile_of, situation_of
from omnifer.core.findings import all_drafts
from omnifer.core.load.settle import propose_load
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.finding import GRADES
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.people import Rider
from omnifer.core.model.tour import Tour
from omnifer.core.rig.catalogue import BIKES, carrier, support
from tests.conftest import pannier_bike, small_tour, thing


def found(tour: Tour) -> dict[str, list]:
    kinds: dict[str, list] = {}
    for finding in assess(tour, profile_of(tour)).findings:
        kinds.setdefault(finding.kind, []).append(finding)
    return kinds


def placed(*pairs: tuple[str, str], **more: object) -> dict:
    return {"load": Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in pairs)), **more}


CASES = {
    "over_mass": (thing("bricks", 11, 5), "left"),
    "over_volume": (thing("pillow", 0.5, 30), "left"),
    "not_dry": (thing("down", 0.5, 0.2, dry="must"), "tube"),
    "too_deep": (thing("camera", 0.6, 1, reach="riding"), "left"),
    "too_long": (thing("poles", 0.4, 1, longest_mm=700), "left"),
    "sides": (thing("lock", 3, 1), "left"),
    "guesses": (thing("chair", 0.9, 2, guessed=("mass",)), "left"),
}


@pytest.mark.parametrize("kind", CASES)
def test_each_trouble_is_found_once_and_only_there(kind):
    what, where = CASES[kind]
    tube = carrier("top_tube_bag", "tube", "top_tube").model_dump()
    bike = pannier_bike(carriers=[*(c.model_dump() for c in pannier_bike().carriers), tube])
    kinds = found(small_tour(what, bikes=(bike,), **placed((what.id, where))))
    assert len(kinds[kind]) == 1
    if kind not in ("sides", "guesses"):
        assert kinds[kind][0].carrier_id == where
    fine = thing("cup", 0.1, 0.2)
    assert kind not in found(small_tour(fine, bikes=(bike,), **placed((fine.id, where))))


def test_a_gap_longer_than_the_vessels_hold_is_said_with_its_figures():
    tour = small_tour(thing("bottle", 0.1, 0.9, holds_water_l=0.75))
    gap = found(tour)["water_gap"][0]
    assert gap.grade == "stops_you"
    assert gap.holds == 0.75
    assert gap.need == pytest.approx(sum(gap.parts.values()), abs=0.05)
    assert gap.need > 4
    assert gap.sentence.metric().startswith("Leaving the start you need ")
    assert "water_gap" not in found(small_tour(thing("tank", 0.5, 0.5, holds_water_l=20, soft_vessel=True)))


def test_the_whole_chain_of_limits_counts():
    heavy = [thing(f"b{i}", 8, 5) for i in range(4)]
    strong = [carrier("rear_pannier", s, "rack", s, limit_kg=50).model_dump() for s in ("left", "right")]
    weak = pannier_bike(carriers=strong, rear_wheel_limit_kg=80, maximum_system_kg=110)
    kinds = found(small_tour(*heavy, bikes=(weak,), **placed(*((f"b{i}", "left" if i % 2 else "right") for i in range(4)))))
    assert {"over_support", "over_wheel", "over_system"} <= set(kinds)
    assert "over_mass" not in kinds
    rack = kinds["over_support"][0]
    assert rack.need == pytest.approx(32 + 2 * 0.95, abs=0.1)


def test_a_tail_heavy_trailer_is_an_error_not_a_nuance():
    frame = support("trailer_two_wheels", "trailer").model_dump()
    frame["trailer"]["own_mass_ahead_of_axle_mm"] = -200
    bike = pannier_bike(supports=[frame], carriers=[carrier("trailer_bag", "bag", "trailer").model_dump()])
    kinds = found(small_tour(thing("load", 20, 30), bikes=(bike,), **placed(("load", "bag"))))
    assert any(f.grade == "stops_you" for f in kinds["hitch_load"])


def test_neighbours_that_must_not_share_a_bag():
    fuel, bread = thing("fuel", natures=["fuel"], not_with=["food"]), thing("bread", natures=["food"])
    assert "not_together" in found(small_tour(fuel, bread, **placed(("fuel", "left"), ("bread", "left"))))
    assert "not_together" not in found(small_tour(fuel, bread, **placed(("fuel", "left"), ("bread", "right"))))


def test_a_mend_that_is_tried_mends():
    bricks = thing("bricks", 5, 2), thing("anvil", 5, 2)
    tour = small_tour(*bricks, **placed(("bricks", "left"), ("anvil", "left")))
    finding = found(tour)["over_mass"][0]
    mend = mends_of(tour, profile_of(tour), finding.id)[0]
    assert len(mend.moves) == 1
    assert "over_mass" not in found(mended(tour, mend))


@pytest.mark.parametrize("kind", [kind for kind in CASES if kind != "guesses"])
def test_every_trouble_of_the_load_has_something_that_ends_it(kind):
    """There is a waterproof bag that a hand finds while riding, a long one and a roomy one; each trouble fits one of them."""
    what, where = CASES[kind]
    tube = carrier("top_tube_bag", "tube", "top_tube")
    long = carrier("trailer_bag", "long", "trailer", limit_kg=60, longest_mm=900)
    bike = pannier_bike(
        carriers=[*pannier_bike().carriers, tube, long],
        supports=[*pannier_bike().supports, support("trailer_one_wheel", "trailer")],
    )
    brick = thing("brick", 0.5, 0.5)
    tour = small_tour(what, brick, bikes=(bike,), **placed((what.id, where), ("brick", where)))
    before = found(tour)[kind][0]
    ends = [m for m in mends_of(tour, None, before.id) if m.changes and "left" not in m.consequence.figures]
    assert ends
    for mend in ends:
        after = assess(Tour.model_validate(mended(tour, mend).model_dump()), None).findings
        assert before.id not in {f.id for f in after}
        assert kind in ("sides", "over_volume") or kind not in {f.kind for f in after}


def test_only_what_may_stay_is_offered_to_be_left():
    anvil, cushion = thing("anvil", 8.9, 2), thing("cushion", 0.5, 2, may_stay=True)
    bike = pannier_bike(carriers=pannier_bike().carriers[:1], supports=pannier_bike().supports[:1])
    tour = small_tour(anvil, cushion, bikes=(bike,), **placed(("anvil", "left"), ("cushion", "left")))
    finding = found(tour)["over_mass"][0]
    assert [mend.gone for mend in mends_of(tour, None, finding.id) if mend.gone] == [["cushion"]]


def test_a_finding_is_the_same_while_it_is_about_the_same_and_can_be_set_aside():
    def heavier(kg: float, **more: object) -> list:
        tour = small_tour(thing("lock", kg, 1), thing("cape", 0.3, 1), **placed(("lock", "left"), ("cape", "left")), **more)
        return assess(tour, profile_of(tour)).findings

    first = heavier(3)
    lock = next(f for f in first if f.kind == "sides")
    assert lock.id in {f.id for f in heavier(4)}
    assert next(f for f in heavier(4) if f.id == lock.id).size > lock.size
    told = heavier(3, set_aside=({"finding_id": lock.id, "reason": "only the first day"},))
    assert (told[-1].id, told[-1].aside) == (lock.id, "only the first day")
    assert {f.id for f in told} == {f.id for f in first}
    assert all(f.aside is None for f in told[:-1])


def test_shelf_and_food_without_a_place():
    tent, pot = thing("tent"), thing("pot")
    kinds = found(small_tour(tent, pot, **placed(("tent", "left"))))
    assert "pot" in kinds["on_shelf"][0].reason.metric()
    assert kinds["no_room_for_food"][0].sentence.figures["mass"].value > 0.5
    proposal = propose_load(small_tour(tent, pot), profile_of(small_tour(tent)), effort=0)
    settled = found(small_tour(tent, pot, load=proposal.load))
    assert "on_shelf" not in settled
    assert "no_room_for_food" not in settled


def test_a_front_too_light_is_named():
    rear_only = small_tour(
        *[thing(f"b{i}", 4, 3) for i in range(4)], **placed(*((f"b{i}", "left" if i % 2 else "right") for i in range(4)))
    )
    finding = found(rear_only)["front_share"][0]
    assert "only" in finding.sentence.words
    assert finding.sentence.figures["part"].value < 0.33


def test_ranks_run_from_what_stops_you_and_the_sample_is_not_perfect(sample, sample_road):
    ranked = assess(sample, sample_road).findings
    grades = [GRADES.index(f.grade) for f in ranked]
    assert grades == sorted(grades)
    assert [f.rank for f in ranked] == list(range(1, len(ranked) + 1))
    assert {"water_gap", "not_dry", "on_shelf", "cold_sleep"} <= {f.kind for f in ranked}
    for f in ranked:
        for text in (f.sentence, f.reason, f.place):
            assert "{" not in text.metric()
    for mend in (mend for draft in all_drafts(situation_of(sample, sample_road)).values() for mend in draft.offers()):
        assert "{" not in mend.name.metric() + mend.consequence.metric()


def test_long_dark_days():
    slow = Rider(id="ada", name="Ada", body_mass_kg=70, all_day_power_w=60)
    from omnifer.core.model.road import DayCut, Road, Track

    lat = tuple(60 + i * 0.01 for i in range(200))
    track = Track(lat_deg=lat, lon_deg=(5.0,) * 200, elevation_m=(10.0,) * 200)
    road = Road(cut=DayCut(by="distance", distance_km=120))
    winter = small_tour(riders=(slow,), road=road, track=track, start_date="2027-12-15")
    assert "dark_day" in found(winter)
    summer = winter.model_copy(update={"start_date": winter.start_date.replace(month=6)})
    assert "dark_day" not in found(summer)


def test_the_catalogue_hangs_together():
    """Every bag of the catalogue can hang somewhere and every preset bike is a whole bike."""
    for bike in BIKES.values():
        assert assess(small_tour(bikes=(bike.model_copy(update={"rider_id": "ada"}),)), None).bikes
