"""What a kit shows by itself: doubles, single points, what is untried, worn, aged or fits nothing."""

import pytest

from omnifer.core.assess import assess, profile_of
from omnifer.core.mends import mended
from omnifer.core.model.kit import Fit
from omnifer.core.model.people import Rider
from omnifer.core.model.road import Road, TypedDay
from omnifer.core.model.roles import Charger, Device, SleepingBag
from omnifer.core.model.tour import Tour
from tests.conftest import RIDER, small_tour, thing
from tests.core.offered import offers

BEN = Rider(id="ben", name="Ben", body_mass_kg=80, all_day_power_w=120)


def found(tour: Tour, *kinds: str):
    return [f for f in assess(tour, profile_of(tour)).findings if f.kind in kinds]


ONE = thing("charger", 0.1, 0.2, role=Charger(outputs=1), serves=("charger",))
FOUR = thing("four-port", 0.2, 0.3, role=Charger(outputs=4))


def test_two_chargers_are_one_too_many_unless_one_is_a_spare_worn_or_anothers():
    assert [set(f.thing_ids) for f in found(small_tour(ONE, FOUR), "twice")] == [{"charger", "four-port"}]
    for other in ({"spare": True}, {"condition": "near_its_end"}):
        assert not found(small_tour(ONE, FOUR.model_copy(update=other)), "twice")
    two = small_tour(ONE.model_copy(update={"rider_id": "ada"}), FOUR.model_copy(update={"rider_id": "ben"}), riders=(RIDER, BEN))
    assert not found(two, "twice")


def test_what_ends_a_double_ends_it():
    levers = thing("levers", 0.02, 0.02, serves=("levers",), count=4)
    for tour in (small_tour(ONE, FOUR), small_tour(levers)):
        finding = found(tour, "twice")[0]
        for mend in offers(tour, finding):
            assert not found(mended(tour, mend), "twice"), mend.name
    assert next(t.count for t in mended(tour, offers(tour, found(tour, "twice")[0])[0]).kit) == 3


def test_one_light_is_one_too_few_where_it_gets_dark():
    """A second light ends it, and so do days that all end in rooms before dusk."""
    lamp = thing("lamp", 0.1, 0.1, serves=("torch",), role=Device(light=True))
    tour = small_tour(lamp)
    assert [f.thing_ids for f in found(tour, "hangs_on_one")] == [["lamp"]]
    assert not found(small_tour(lamp.model_copy(update={"count": 2})), "hangs_on_one")
    assert not found(small_tour(lamp, road=tour.road.model_copy(update={"rooms_only": True})), "hangs_on_one")
    after = mended(tour, offers(tour, found(tour, "hangs_on_one")[0])[0])
    assert not found(after, "hangs_on_one")


def test_one_vessel_holds_most_of_the_water():
    sack, bottle = thing("sack", 0.1, 0.3, holds_water_l=6), thing("bottle", 0.1, 1, holds_water_l=0.75, count=2)
    assert [f.thing_ids for f in found(small_tour(sack, bottle), "hangs_on_one")] == [["sack"]]
    assert not found(small_tour(sack.model_copy(update={"count": 2})), "hangs_on_one")


@pytest.mark.parametrize(
    ("it", "kind"),
    [
        (thing("bag", 1, 6, role=SleepingBag(comfort_c=2), condition="new"), "untried"),
        (thing("glue", 0.05, 0.05, serves=("patches",), year=2024), "worn_out"),
        (thing("tube", 0.1, 0.2, serves=("tube",), fit=Fit(bead_seat_mm=406)), "mismatch"),
        (thing("wish", 0.1, 0.2, held="wished"), "to_get"),
    ],
)
def test_what_wants_doing_before_the_start_is_said_and_done(it, kind):
    tour = small_tour(it)
    finding = found(tour, kind)[0]
    assert finding.thing_ids == [it.id]
    assert not found(mended(tour, offers(tour, finding)[0]), kind)


def test_fresh_glue_and_spares_that_fit_somewhere_are_fine():
    assert not found(small_tour(thing("glue", 0.05, 0.05, serves=("patches",), year=2025)), "worn_out")
    camera = thing("camera", 0.5, 1, serves=("camera",), fit=Fit(pattern="B"))
    lens = thing("lens", 0.4, 0.8, serves=("lens",), fit=Fit(pattern="C"))
    assert [f.thing_ids for f in found(small_tour(camera, lens), "mismatch")] == [["lens"]]
    assert not found(small_tour(camera, lens.model_copy(update={"fit": Fit(pattern="b")})), "mismatch")


def test_near_its_end_matters_on_a_long_tour_only():
    shoes = thing("shoes", 0.6, 4, condition="near_its_end")
    assert not found(small_tour(shoes), "worn_out")
    far = Road(typed_days=(TypedDay(distance_km=100),) * 16)
    assert found(small_tour(shoes, road=far), "worn_out")


def test_one_thing_that_is_a_tenth_of_the_litres_is_named_in_a_whole_kit():
    kit = [thing(f"t{n}", 0.5, 1) for n in range(20)]
    assert [f.thing_ids for f in found(small_tour(*kit, thing("chair", 0.9, 2.5)), "big_thing")] == [["chair"]]
    assert not found(small_tour(*kit, thing("chair", 0.5, 2.0)), "big_thing")
    assert not found(small_tour(*kit[:5], thing("chair", 9, 25)), "big_thing")
