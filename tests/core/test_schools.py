"""Whole rigs by school: they hang on any bike of the catalogue, and say what they go without."""

import itertools

import pytest

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.rig import Rig
from omnifer.core.rig.catalogue import BIKES, SIZES, sized
from omnifer.core.rig.fit import clashes, triangle_room_l
from omnifer.core.rig.schools import SCHOOLS, rigs_of_schools
from omnifer.core.rig.statics import Levers
from tests.conftest import RIDER, small_tour

EVERY_BIKE = [sized(kind, size).model_copy(update={"rider_id": RIDER.id}) for kind, size in itertools.product(BIKES, SIZES)]


@pytest.mark.parametrize("bike", EVERY_BIKE, ids=lambda bike: bike.id)
def test_every_school_hangs_on_every_bike(bike):
    """The tour takes it, frame bags fit the triangle, and what is missing is missing for want of a mount."""
    twin = bike.model_copy(update={"id": "twin"})
    for school, hung in zip(SCHOOLS, rigs_of_schools(Rig(bikes=(bike, twin))), strict=True):
        tour = small_tour(bikes=hung.rig.bikes)
        assert tour.carriers
        one = hung.rig.bikes[0]
        levers = Levers(one)
        for bag in one.carriers:
            if bag.hangs_on == "frame_triangle":
                assert bag.volume_l <= triangle_room_l(levers.frame, KINDS[bag.kind].anchor)
        assert not [c for c in clashes(one, levers.frame, levers.boxes) if c.rule in ("frame_bag_in_triangle", "shared_room")]
        asked = sum(len(sides) for _, _, sides in school.carriers) + len(school.supports)
        assert (len(one.carriers) + len(one.supports) == asked) == (not hung.wants)


def test_bags_without_racks_hold_about_half_of_four_panniers_and_cost_more_a_litre():
    """Common practice, no source: a bag-only rig holds about half, its litres are dearer."""
    mounts = tuple(dict.fromkeys(m for bike in BIKES.values() for m in bike.mounts))
    bike = BIKES["touring"].model_copy(update={"rider_id": RIDER.id, "mounts": mounts})
    by_id = {school.id: school.rig.bikes[0] for school in rigs_of_schools(Rig(bikes=(bike,)))}

    def litres(school: str) -> float:
        return sum(c.volume_l for c in by_id[school].carriers)

    def litre_price(school: str) -> float:
        hung = by_id[school]
        return sum(part.price or 0 for part in (*hung.carriers, *hung.supports)) / litres(school)

    assert 0.4 < litres("bags") / litres("four") < 0.6
    assert litre_price("bags") > 1.5 * litre_price("four")
    assert litres("trailer") > litres("rear")


def test_what_a_bike_has_no_mounts_for_is_named_once_with_its_bike():
    gravel = BIKES["gravel"].model_copy(update={"rider_id": RIDER.id, "name": "Gravel"})
    four = next(s for s in rigs_of_schools(Rig(bikes=(gravel,))) if s.id == "four")
    assert four.wants == ["Low front rack on Gravel", "Rear rack on Gravel"]
