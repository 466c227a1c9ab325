"""What a thing and another rig are worth on a tour."""

import pytest

from omnifer.core.assess import assess, profile_of
from omnifer.core.load.settle import propose_load
from omnifer.core.model.load import Load, NamedLoad, Placement
from omnifer.core.model.rig import Rig
from omnifer.core.model.variant import Variant
from omnifer.core.rig.catalogue import carrier, support
from omnifer.core.worth import compare, compare_loads, price, with_variant
from tests.conftest import pannier_bike, small_tour, thing


def test_a_price_is_mass_by_minutes_and_work_by_power():
    tour = small_tour(thing("chair", 1.2, 3, count=2, price=40), thing("pot", 0.5))
    road = profile_of(tour)
    found = price(tour, road, "chair")
    assert (found.mass_kg, found.volume_l, found.money) == (2.4, 6, 80)
    light, heavy = (
        assess(small_tour(*kit), road).road
        for kit in ((thing("pot", 0.5),), (thing("pot", 0.5), thing("chair", 1.2, 3, count=2)))
    )
    days = len(assess(tour, road).days)
    assert found.minutes_a_day == pytest.approx((heavy.riding_hours - light.riding_hours) * 60 / days, rel=0.1, abs=0.02)
    assert found.days_fewer == 0
    with pytest.raises(KeyError):
        price(tour, road, "piano")


def test_leaving_a_thing_mends_what_it_broke():
    tour = small_tour(thing("anvil", 12, 2), thing("pot", 0.5))
    placed = tuple(Placement(thing_id=t, carrier_id=c) for t, c in (("anvil", "left"), ("pot", "right")))
    tour = tour.model_copy(update={"load": Load(placements=placed)})
    found = price(tour, profile_of(tour), "anvil")
    assert any("left" in s.names.values() or "Rear pannier" in s.names.values() for s in found.mended)
    assert price(tour, profile_of(tour), "pot").mended == []


def light_rig() -> Rig:
    bags = [carrier("saddle_pack", "pack", "saddle"), carrier("handlebar_roll", "roll", "handlebar")]
    return Rig(bikes=(pannier_bike(supports=[], carriers=[b.model_dump() for b in bags]),))


def test_rigs_are_compared_on_one_tour():
    tour = small_tour(thing("tent", 2, 6), thing("bag", 1, 7), thing("tarp", 1, 4), thing("cask", 3, 22))
    tour = tour.model_copy(update={"variants": (Variant(id="light", name="Bags only", rig=light_rig()),)})
    road = profile_of(tour)
    ridden, light = compare(tour, road)
    assert (ridden.id, light.id) == ("", "light")
    rack = support("rear_rack", "x")
    assert ridden.money == sum(carrier(k, "x", "x").price for k in ("rear_pannier", "rear_pannier", "handlebar_box")) + rack.price
    assert light.litres == pytest.approx(13 + 12)
    assert light.carriers_kg == pytest.approx(0.5 + 0.45)
    assert light.money_per_litre == pytest.approx(light.money / 25, abs=0.01)
    assert light.out == {"cask": 1}
    assert "on_shelf" not in {s.words for s in light.lost}
    assert light.riding_hours < ridden.riding_hours
    assert light.width_mm < ridden.width_mm
    assert with_variant(tour, road, tour.variants[0]).rig == light_rig()


def test_the_same_rig_gains_and_loses_nothing(sample, sample_road):
    twin = sample.model_copy(update={"variants": (Variant(id="twin", name="Twin", rig=sample.rig, load=sample.load),)})
    ridden, other = compare(twin, sample_road)
    assert (other.gained, other.lost) == ([], [])
    assert other.model_dump(exclude={"id", "name"}) == ridden.model_dump(exclude={"id", "name"})


def test_a_kept_load_is_compared_and_stands_as_far_as_it_can():
    tour = small_tour(thing("axe", 3), thing("pot", 1))
    kept = Load(placements=tuple(Placement(thing_id=t, carrier_id="left") for t in ("axe", "pot", "gone")))
    now = Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in (("axe", "left"), ("pot", "right"))))
    tour = tour.model_copy(update={"load": now, "kept_loads": (NamedLoad(id="k", name="All left", load=kept),)})
    rides, other = compare_loads(tour, profile_of(tour))
    assert (rides.moves, other.moves) == (0, 1)
    assert {p.thing_id for p in other.load.placements} == {"axe", "pot"}
    sides = [next(p.points for p in load.by_aim if p.aim == "sides") for load in (rides, other)]
    assert sides[1] > sides[0]
    assert other.points == pytest.approx(sum(p.points for p in other.by_aim), abs=0.1)


def test_where_vessels_find_no_place_the_others_bear_their_water_within_limits(sample, sample_road):
    """A canister too long for every bag stays at home; what it would have held rides elsewhere, and no limit breaks by it."""
    light = with_variant(sample, sample_road, sample.variants[0])
    canister = thing("canister", 0.6, 11, holds_water_l=10, longest_mm=900)
    light = light.model_copy(update={"kit": (*light.kit, canister), "load": Load()})
    found = propose_load(light, sample_road, rounds=1, effort=0, advise=False)
    assert "canister" in found.out
    assert found.holds
    again = assess(light.model_copy(update={"load": found.load}), sample_road)
    assert not {"over_mass", "over_volume", "over_support", "over_wheel", "over_system"} & {f.kind for f in again.findings}
    assert set(again.shelf) == set(found.out)
