"""Things in things: they weigh, take no room, and ride with what they lie in."""

import pytest
from pydantic import ValidationError

from omnifer.core.assess import assess, propose_load, repaired_load, why_here
from omnifer.core.load.formulate import formulate
from omnifer.core.model.load import Load, Placement
from tests.conftest import small_tour, thing
from tests.core.test_explain import NONE


def nested_tour(**where: str):
    pot = thing("pot", 0.4, 3, dry="any")
    stove = thing("stove", 0.3, 1.5, inside="pot", natures=("fuel",), count=1)
    matches = thing("matches", 0.1, 0.2, inside="pot", dry="must", count=2, reach="stop")
    bread = thing("bread", 0.5, 2, not_with=("fuel",))
    load = Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in where.items()))
    return small_tour(pot, stove, matches, bread, load=load)


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


def test_apart_they_take_their_own_room():
    trace = {c.carrier_id: c for c in assess(nested_tour(pot="left", stove="right"), None).bikes[0].carriers}
    assert (trace["left"].litres[0], trace["right"].litres[0]) == (3, 1.5)


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
