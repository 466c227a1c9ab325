"""Two writers who saw the same tour: what each did stands, whichever was first; only the same part collides."""

import itertools

import pytest

from omnifer.core.load.keep import standing
from omnifer.core.load.merging import Collision, changed_parts, merged
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import Road, Stop, TypedDay
from omnifer.core.model.tour import TourSheet
from tests.conftest import small_tour, thing


def placed(**where: str) -> Load:
    return Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in where.items()))


SEEN = small_tour(thing("tent", 2, 8), thing("pot"), thing("axe"), load=placed(tent="left", pot="right"))
CHANGES = {
    "name": {"name": "Other"},
    "road": {"road": Road(typed_days=(TypedDay(distance_km=30),))},
    "kit": {"kit": tuple(t for t in SEEN.kit if t.id != "tent")},
    "rig": {"rig": SEEN.rig.model_copy(update={"bikes": (SEEN.rig.bikes[0].model_copy(update={"mass_kg": 20}),)})},
    "load": {"load": placed(tent="left", pot="left", axe="right")},
}


def after(*names: str) -> TourSheet:
    return standing(SEEN.model_copy(update={k: v for name in names for k, v in CHANGES[name].items()}))


@pytest.mark.parametrize(("one", "other"), itertools.permutations(CHANGES, 2))
def test_different_parts_are_both_kept_in_either_order(one, other):
    both = merged(SEEN, after(one), after(other))
    assert both == merged(SEEN, after(other), after(one)) == after(one, other)
    TourSheet.model_validate(both.model_dump(include=set(TourSheet.model_fields)))


@pytest.mark.parametrize("part", CHANGES)
def test_the_same_part_collides_unless_both_did_the_same(part):
    assert merged(SEEN, after(part), after(part)) == after(part)
    theirs = {
        "name": {"name": "Third"},
        "road": {"road": Road()},
        "kit": {"kit": (SEEN.kit[0].model_copy(update={"mass_kg": 3}), *SEEN.kit[1:])},
        "rig": {"rig": SEEN.rig.model_copy(update={"bikes": ()})},
        "load": {"load": Load()},
    }
    with pytest.raises(Collision) as said:
        merged(SEEN, after(part), SEEN.model_copy(update=theirs[part]))
    assert said.value.parts == [part]


def test_a_load_that_only_lets_go_is_no_change_of_the_load():
    assert changed_parts(SEEN, after("kit")) == {"kit"}
    assert changed_parts(SEEN, after("load")) == {"load"}


def test_things_stops_and_placements_are_put_together_one_by_one():
    """One removes the axe, moves the pot and adds a stop; the other makes the tent lighter, stows the axe elsewhere and moves a stop."""
    stops = (Stop(id="a", name="A", at_km=10), Stop(id="b", name="B", at_km=20))
    seen = SEEN.model_copy(update={"road": SEEN.road.model_copy(update={"stops": stops})})
    light = SEEN.kit[0].model_copy(update={"mass_kg": 1.5})
    mine = standing(seen.model_copy(update={
        "kit": SEEN.kit[:2], "load": placed(tent="left", pot="left"),
        "road": seen.road.model_copy(update={"stops": (*stops, Stop(id="c", name="C", at_km=30))}),
    }))  # fmt: skip
    theirs = seen.model_copy(update={
        "kit": (light, *SEEN.kit[1:]), "load": placed(tent="right", pot="right"),
        "road": seen.road.model_copy(update={"stops": (stops[0], stops[1].model_copy(update={"at_km": 25.0}))}),
    })  # fmt: skip
    both = merged(seen, mine, theirs)
    assert [(t.id, t.mass_kg) for t in both.kit] == [("tent", 1.5), ("pot", 1)]
    assert {(p.thing_id, p.carrier_id) for p in both.load.placements} == {("tent", "right"), ("pot", "left")}
    assert [(s.id, s.at_km) for s in both.road.stops] == [("a", 10), ("b", 25), ("c", 30)]
    with pytest.raises(Collision):
        merged(seen, mine, seen.model_copy(update={"kit": (*SEEN.kit[:2], SEEN.kit[2].model_copy(update={"count": 2}))}))
