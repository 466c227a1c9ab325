"""Things in things: they weigh, take no room, and ride with what they lie in."""

import numpy as np
import pytest
from pydantic import ValidationError

from omnifer.core.assess import assess, places, why_here
from omnifer.core.load.formulate import formulate
from omnifer.core.load.keep import still_standing
from omnifer.core.load.settle import propose_load, repaired_load
from omnifer.core.mends import mends_of
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.rig import Rig
from omnifer.core.model.tour import Tour
from omnifer.core.rig.catalogue import carrier, support
from omnifer.core.supplies.stock import Stock
from tests.conftest import RIDER, pannier_bike, small_tour, thing
from tests.core.test_explain import NONE


def nested_tour(**where: str):
    pot = thing("pot", 0.4, 3, dry="any")
    stove = thing("stove", 0.3, 1.5, inside="pot", natures=("fuel",), count=1)
    matches = thing("matches", 0.1, 0.2, inside="pot", dry="must", count=2, reach="stop")
    bread = thing("bread", 0.5, 2, not_with=("fuel",))
    kit = (pot, stove, matches, bread)
    placed = Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in where.items()))
    return small_tour(*kit, load=still_standing(placed, kit, Rig(bikes=(pannier_bike(),))))


def test_together_they_are_one_thing_with_all_needs():
    problem = formulate(nested_tour(), NONE)
    assert problem.thing_ids == ("pot", "bread")
    assert problem.mass_g[0].tolist() == [900]
    assert problem.volume_ml[0].tolist() == [3000]
    assert problem.repelled[0, 1]


def test_a_proposal_takes_them_along_and_their_litres_count_once():
    found = propose_load(nested_tour(), None, rounds=1, effort=0)
    at = {p.thing_id: (p.carrier_id, p.count) for p in found.load.placements}
    assert at["stove"] == (at["pot"][0], 1)
    assert at["matches"] == (at["pot"][0], 2)
    assert at["bread"][0] != at["pot"][0]
    assessed = assess(nested_tour().model_copy(update={"load": found.load}), None)
    trace = next(c for b in assessed.bikes for c in b.carriers if c.carrier_id == at["pot"][0])
    assert trace.litres[0] == pytest.approx(3)
    assert trace.kg[0] == pytest.approx(0.9)
    card = next(c for c in assessed.cards if c.carrier_id == at["pot"][0])
    assert sum(layer.volume_l for layer in card.layers) == pytest.approx(3)
    assert repaired_load(nested_tour().model_copy(update={"load": found.load}), None, []).load.placements == found.load.placements


def test_they_go_where_the_outer_one_goes():
    tour = nested_tour(pot="left", bread="right")
    assert {(p.thing_id, p.carrier_id, p.count) for p in tour.load.placements} >= {("stove", "left", 1), ("matches", "left", 2)}
    apart = [p.model_dump() | ({"carrier_id": "right"} if p.thing_id == "stove" else {}) for p in tour.load.placements]
    for placements in (apart, [p for p in apart if p["thing_id"] != "stove"]):
        with pytest.raises(ValidationError, match="'stove' rides in 'pot' and goes where that goes"):
            Tour.model_validate(tour.model_dump() | {"load": {"placements": placements}})


def test_a_mend_moves_them_together_and_weighs_a_vessel_full():
    """The pot with what lies in it weighs 0.9 kg; a bottle of 0.1 kg holds 2 l and does not fit where 1.5 kg are left."""
    pot, stove = thing("pot", 0.4, 3), thing("stove", 0.5, 1.5, inside="pot")
    brick, bottle = thing("brick", 8.5, 2), thing("bottle", 0.1, 2, holds_water_l=2)
    tin = thing("tin", 5.5, 2)
    bike = pannier_bike(
        carriers=[c.model_dump() | {"limit_kg": limit} for c, limit in zip(pannier_bike().carriers, (9, 7, 4), strict=True)]
    )
    kit = (pot, stove, brick, bottle, tin)
    where = {"pot": "left", "stove": "left", "brick": "left", "bottle": "left", "tin": "right"}
    load = Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in where.items()))
    tour = small_tour(*kit, bikes=(bike,), load=load)
    over = next(f for f in assess(tour, None).findings if f.kind == "over_mass")
    mends = mends_of(tour, None, over.id)
    moved = [{(m.thing_id, m.carrier_id) for m in mend.moves} for mend in mends]
    assert {("pot", "right"), ("stove", "right")} in moved
    assert all(("bottle", "right") not in move for move in moved)
    assert mends[0].name.metric().startswith("pot, stove to ")


def test_a_nested_thing_is_explained_by_what_it_lies_in():
    assert why_here(nested_tour(pot="left", stove="left"), None, "stove", "left").thing_id == "pot"


@pytest.mark.parametrize("inner", [{"inside": "pan"}, {"inside": "itself", "id": "itself"}, {"inside": "nest"}])
def test_what_cannot_nest_is_refused_in_words(inner):
    pan, box = thing("pan", count=2), thing("box")
    with pytest.raises(ValidationError, match="rides in"):
        small_tour(
            pan,
            box,
            thing("nest", inside="box"),
            thing("cup", **inner) if "id" not in inner else thing("itself", inside="itself"),
        )


def test_a_kit_in_its_bag_takes_its_room_and_stays_dry_anywhere():
    """A dry bag of 0.1 l with 3 l and twice 1 l in it, of which 2 l press away: 5.1 l loose, 3.1 pressed, dry in an open basket."""
    bag = thing("bag", 0.06, 0.1, dry="own_bag", bag=True)
    down = thing("down", 0.4, 3, pressed_l=1, dry="must", inside="bag", longest_mm=50)
    shirts = thing("shirts", 0.2, 1, count=2, inside="bag")
    cape = thing("cape", 0.3, 1, wet=True)
    basket = carrier("basket", "basket", "handlebar")
    where = Load(
        placements=tuple(Placement(thing_id=t.id, carrier_id="basket", count=t.count) for t in (bag, down, shirts, cape))
    )
    tour = small_tour(bag, down, shirts, cape, bikes=(pannier_bike(carriers=(basket,), supports=()),), load=where)
    problem = formulate(tour, NONE)
    assert problem.thing_ids == ("bag", "cape")
    assert (problem.volume_ml[0, 0], problem.pressed_ml[0, 0], problem.mass_g[0, 0]) == (5100, 3100, 860)
    assert problem.allowed[0, 0]
    assert not problem.repelled.any()
    assessed = assess(tour, None)
    assert assessed.bikes[0].carriers[0].litres[0] == pytest.approx(6.1)
    assert not {"not_dry", "not_together"} & {f.kind for f in assessed.findings}
    loose = tour.model_copy(update={"kit": (bag.model_copy(update={"dry": "any"}), down, shirts, cape)})
    assert {"not_dry", "not_together"} <= {f.kind for f in assess(loose, None).findings}


def test_a_sack_in_the_pot_is_filled_and_weighed_there():
    """Six litres in a sack that lies in a pot of 0.4 kg: 6.5 kg and 6.3 l in the bag that holds it, and no bag that cannot."""
    pot, sack = thing("pot", 0.4, 2), thing("sack", 0.1, 0.3, holds_water_l=6, soft_vessel=True, inside="pot")
    tour = small_tour(pot, sack)
    problem = formulate(tour, Stock([(sack, 1)], {"water": np.array([6.0, 1.0]), "food": np.zeros(2)}))
    assert problem.mass_g.max() == 6500
    assert problem.volume_ml.max() == 2000 + 6000
    weak = pannier_bike(carriers=[carrier("rear_pannier", "left", "rack", "left", limit_kg=6).model_dump()])
    assert propose_load(small_tour(pot, sack, bikes=(weak,)), None, rounds=0, effort=0).out == {"pot": 1, "sack": 1}


def test_whose_and_how_pinned_a_thing_is_holds_for_what_it_rides_in():
    roll, hers = thing("roll", 0.2, 1, bag=True), thing("hers", 0.5, 1, inside="roll", rider_id="ada")
    ben = RIDER.model_copy(update={"id": "ben", "name": "Ben"})
    other = pannier_bike(
        id="second", rider_id="ben", supports=[support("rear_rack", "rack2").model_dump()],
        carriers=[carrier("rear_pannier", "far", "rack2", "left").model_dump()],
    )  # fmt: skip
    two = {"riders": (RIDER, ben), "bikes": (pannier_bike(), other)}
    fits = {p.carrier_id for p in places(small_tour(roll, hers, **two), None, [("roll", 1, None)]) if p.fits}
    assert "far" not in fits
    assert "left" in fits
    his = thing("his", 0.5, 1, inside="roll", rider_id="ben")
    both = propose_load(small_tour(roll, hers, his, **two), None, rounds=0, effort=0)
    assert set(both.out) == {"roll", "hers", "his"}
    assert "things of two riders" in both.reasons["roll"].metric()
    pins = Load(
        placements=(Placement(thing_id="roll", carrier_id="box"), Placement(thing_id="hers", carrier_id="box", pinned=True))
    )
    kept = propose_load(small_tour(roll, hers, load=pins), None, rounds=1, effort=0)
    assert {p.carrier_id for p in kept.load.placements} == {"box"}
