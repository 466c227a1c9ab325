"""Placing: rules, the problem, search and solver, and what must always hold of them."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from omnifer.core.assess import assess, places, profile_of
from omnifer.core.load import aims, annealing, rules
from omnifer.core.load.explain import breaks_at
from omnifer.core.load.formulate import formulate
from omnifer.core.load.keep import still_standing
from omnifer.core.load.problem import Placing, bill, evaluate
from omnifer.core.load.search import OUT_WHILE_SEARCHING, Search, search
from omnifer.core.load.settle import propose_load, stock_unloaded
from omnifer.core.load.solver import solve
from omnifer.core.model.aims import Aims
from omnifer.core.model.load import FoodShare, Load, Placement
from omnifer.core.model.rig import Rig
from omnifer.core.rig.catalogue import carrier
from omnifer.core.supplies.stock import Stock
from tests.conftest import RIDER, pannier_bike, small_tour, thing
from tests.references.test_holds import a_tour


def problem_of(tour):
    return formulate(tour, stock_unloaded(tour, profile_of(tour)))


def proposal_of(tour, **effort):
    return propose_load(tour, profile_of(tour), **effort)


def test_rules_say_why_not():
    bike = pannier_bike()
    bag = carrier("half_frame_bag", "bag", "frame_triangle")
    cage = carrier("bottle_cage", "cage", "down_tube_bolts")
    asked = {
        "{over} too long": (thing("poles", 0.4, 1, longest_mm=540), bag),
        "{over} too big": (thing("pillow", 0.1, 30), bag),
        "{over} over what it may hold": (thing("anvil", 12, 2), bag),
        "not dry in there": (thing("down", 0.5, 2, dry="must"), bag),
        "on the other rider's bike": (thing("his", 0.5, 2, rider_id="else"), bag),
        "the cage holds only a bottle": (thing("pump", 0.2, 0.3), cage),
    }
    for words, (what, where) in asked.items():
        assert rules.why_not(what, rules.spot_of(bike, where)).words == words
    assert rules.why_not(thing("bottle", 0.1, 0.9, holds_water_l=0.75), rules.spot_of(bike, cage)) is None


def test_clashes_are_mutual():
    fuel, bread = thing("fuel", natures=["fuel"], not_with=["food"]), thing("bread", natures=["food"])
    fly, down = thing("fly", wet=True), thing("down", dry="must")
    for a, b in ((fuel, bread), (fly, down)):
        assert rules.clash(a, b) is not None
        assert rules.clash(b, a) is not None
    assert rules.clash(bread, down) is None


def random_tour(seed: int, things: int):
    chance = np.random.default_rng(seed)
    natures = [[], ["food"], ["fuel"], ["soap"]]
    kit = []
    for i in range(things):
        nature = natures[int(chance.integers(4))]
        kit.append(
            thing(
                f"t{i}", round(float(chance.uniform(0.05, 2.0)), 3), round(float(chance.uniform(0.1, 4)), 2),
                count=int(chance.integers(1, 3)), natures=nature, not_with=["food"] if nature == ["fuel"] else [],
                group=str(chance.choice(["", "cook", "sleep"])), reach=str(chance.choice(["riding", "stop", "camp", "breaks"])),
                dry=str(chance.choice(["any", "must"])), wet=bool(chance.random() < 0.15) and nature == [],
            )
        )  # fmt: skip
    kit += [thing("bottle", 0.1, 0.9, holds_water_l=0.75, count=2), thing("sack", 0.05, 0.1, holds_water_l=2, soft_vessel=True)]
    kit = [t if not (t.wet and t.dry == "must") else t.model_copy(update={"dry": "any"}) for t in kit]
    if seed % 2:
        kit = [t.model_copy(update={"pressed_l": float(chance.choice([0, 0.6])) * t.volume_l}) for t in kit]
    bags = pannier_bike().carriers
    pocket = carrier("outer_pocket", "pocket", "left", "left", most_l=3)
    sides = [carrier("compartment", f"part-{n}", "right", "right", volume_l=4 + n) for n in range(seed % 3)]
    return small_tour(*kit, aims=Aims(bags=seed % 3), bikes=(pannier_bike(carriers=(*bags, pocket, *sides)),))


@settings(max_examples=15, deadline=None)
@given(st.integers(0, 10_000))
def test_the_search_agrees_with_the_evaluator(seed):
    """Every move and exchange is priced to the digit as the independent evaluator prices the load after it."""
    problem = problem_of(random_tour(seed, 12))
    # While searching, leaving out has a lower price: here it has the same in both.
    state = Search(problem)
    lower = problem.out_cost // OUT_WHILE_SEARCHING
    problem = replace(problem, out_cost=lower, food_out_cost=problem.food_out_cost // OUT_WHILE_SEARCHING)
    state.insert_all()
    chance = np.random.default_rng(seed)
    t, s = state.tables, state.standing
    places = problem.limit_g.size + 1
    for _ in range(60):
        i, k = chance.choice(problem.count.size + 1, 2, replace=False)
        a, b = (int(chance.choice(np.flatnonzero(s.x[thing] > 0))) for thing in (i, k))
        if chance.random() < 0.5:
            k, b = -1, int(chance.integers(places))
        if a == b or not annealing.may_go(t, s, i, b, k) or (k >= 0 and not annealing.may_go(t, s, k, a, i)):
            continue
        before = evaluate(problem, state.placing())
        objective, broken = annealing.change(t, s, i, a, b, k)
        annealing.move(t, s, i, a, b)
        if k >= 0:
            annealing.move(t, s, k, b, a)
        after = evaluate(problem, state.placing())
        assert (objective, broken) == (after.objective - before.objective, after.broken - before.broken)


def test_annealing_keeps_its_sums_and_what_is_pinned():
    pins = (Placement(thing_id="t0", carrier_id="right", pinned=True), Placement(thing_id="t1", carrier_id="left", pinned=True))
    tour = random_tour(5, 20).model_copy(update={"load": Load(placements=pins)})
    state = Search(problem_of(tour))
    state.insert_all()
    state.anneal(20_000, seed=1, hot=30_000)
    afresh = Search(state.problem, state.placing())
    for kept, counted in zip(state.standing, afresh.standing, strict=True):
        if kept is not state.standing.extra:
            assert (kept == counted).all()
    assert (state.placing().x >= state.problem.pinned).all()
    assert state.problem.pinned.sum() == 2


def test_the_solver_agrees_with_the_evaluator_and_bounds_the_search():
    """On a tour small enough to be proven, the proven value is the evaluator's, and nothing goes below it."""
    problem = problem_of(random_tour(3, 9))
    solved = solve(problem, effort=6)
    assert solved.placing is not None
    score = evaluate(problem, solved.placing)
    assert score.broken == 0
    assert solved.bound <= score.objective + 0.5
    assert solved.proven
    assert score.objective == pytest.approx(solved.bound, abs=0.5)
    _, searched = search(problem, rounds=2)
    assert searched.objective >= solved.bound - 0.5


def test_a_bigger_bag_never_makes_the_best_load_worse():
    """Solved to proof with the room aim left aside (it asks for a share of the bag itself)."""
    things = [thing(f"t{i}", 0.5 + 0.3 * i, 3 + i % 4, reach="camp") for i in range(7)]

    def best(litres: float) -> int:
        bags = [carrier("rear_pannier", s, "rack", s, volume_l=litres).model_dump() for s in ("left", "right")]
        solved = solve(problem_of(small_tour(*things, bikes=(pannier_bike(carriers=bags),))), effort=8)
        assert solved.proven
        return round(solved.bound)

    assert best(24) <= best(17) + 1500


def test_pins_stay_and_the_same_tour_gives_the_same_load():
    pinned = Placement(thing_id="pot", carrier_id="right", pinned=True)
    tour = small_tour(thing("pot", 1.2, 3), thing("tent", 2.5, 8), thing("lens", 0.5, 1), load=Load(placements=(pinned,)))
    first, second = proposal_of(tour, effort=0.3), proposal_of(tour, effort=0.3)
    assert first == second
    assert pinned in first.load.placements
    assert first.complete
    assert first.bound <= first.points + 1e-6


def test_sides_and_dryness_are_kept():
    heavy = [thing(f"h{i}", 2.0, 3) for i in range(4)]
    proposal = proposal_of(small_tour(*heavy), effort=0.5)
    side = {"left": 0.0, "right": 0.0, "box": 0.0}
    for p in proposal.load.placements:
        side[p.carrier_id] += 2.0 * p.count
    assert side["left"] == side["right"]


def test_mirrored_rig_mirrored_load():
    tour = small_tour(*[thing(f"t{i}", 0.3 + i * 0.21, 2) for i in range(6)])
    mirrored = pannier_bike(
        carriers=[
            carrier("rear_pannier", "left", "rack", "right").model_dump(),
            carrier("rear_pannier", "right", "rack", "left").model_dump(),
            carrier("handlebar_box", "box", "handlebar").model_dump(),
        ]
    )
    points = [proposal_of(t, rounds=2, effort=1).points for t in (tour, small_tour(*tour.kit, bikes=(mirrored,)))]
    assert points[0] == pytest.approx(points[1])


def test_what_does_not_fit_stays_out_and_the_shortfall_is_named():
    tour = small_tour(*[thing(f"brick{i}", 3.0, 2) for i in range(9)], thing("anvil", 80, 5))
    proposal = proposal_of(tour, effort=0.3)
    assert proposal.holds
    assert not proposal.complete
    assert proposal.out["anvil"] == 1
    assert sum(s.mass_kg for s in proposal.short) > 0


def test_hardly_any_or_no_rig_at_all():
    nowhere = proposal_of(small_tour(thing("tent"), bikes=(pannier_bike(carriers=[]),)))
    assert nowhere.out == {"tent": 1}
    assert proposal_of(small_tour()).complete


def test_moments_that_govern_are_those_of_most_and_least_and_those_that_prove_to():
    """A bottle fills first: food and a full bottle in one bag weigh most at a moment that is no extreme of either."""
    kit = (thing("bottle", 0.1, 0.1, holds_water_l=2, reach="riding"), thing("sack", 0.1, 0.1, holds_water_l=8))
    bag = carrier("rear_pannier", "bag", "rack", "left", volume_l=40, limit_kg=6.5)
    other = carrier("rear_pannier", "other", "rack", "right", volume_l=40, limit_kg=20)
    tour = small_tour(*kit, bikes=(pannier_bike(carriers=[bag.model_dump(), other.model_dump()]),))
    water, food = np.array([10.0, 0, 0, 2, 8, 8, 9]), np.array([1.0, 6, 0.1, 5, 0.5, 1, 0.1])
    stores = Stock([(kit[0], 1), (kit[1], 1)], {"water": water, "food": food})
    assert stores.governing().amounts["water"].tolist() == water[[0, 2, 1, 4]].tolist()
    assert stores.watching([3]).governing().amounts["food"].tolist() == food[[0, 2, 1, 4, 3]].tolist()
    load = Load(
        placements=(Placement(thing_id="bottle", carrier_id="bag"), Placement(thing_id="sack", carrier_id="other")),
        food=(FoodShare(carrier_id="bag", tenths=10),),
    )
    assert breaks_at(tour.model_copy(update={"load": load}), stores) == [3]


def test_what_is_gone_goes_back_to_the_shelf():
    kit = (thing("pot", count=2), thing("tent"))
    load = Load(
        placements=(
            Placement(thing_id="pot", carrier_id="left", count=3),
            Placement(thing_id="tent", carrier_id="gone"),
            Placement(thing_id="lost", carrier_id="left"),
        )
    )
    kept = still_standing(load, kit, Rig(bikes=(pannier_bike(),))).placements
    assert [(p.thing_id, p.count) for p in kept] == [("pot", 2)]


def test_places_put_what_fits_first():
    tour = small_tour(
        thing("lens", 0.5, 1, reach="riding"), thing("sack", 8.8, 3),
        load=Load(placements=(Placement(thing_id="sack", carrier_id="left"),)), riders=(RIDER,),
    )  # fmt: skip
    found = places(tour, profile_of(tour), [("lens", 1, None)])
    assert [p.carrier_id for p in found] == ["box", "right", "left"]
    assert [p.fits for p in found] == [True, True, False]
    assert "limit" in found[-1].reason.words
    with pytest.raises(KeyError):
        places(tour, None, [("nothing", 1, None)])


def test_what_is_in_hand_must_fit_together():
    """Two things of 11 l fit a bag of 20 each by itself, not both; fuel and bread no bag together."""
    wide = [thing("a", 1, 11), thing("b", 1, 11)]
    tour = small_tour(*wide, thing("fuel", 1, 1, natures=("fuel",)), thing("bread", 1, 1, not_with=("fuel",)))
    road = profile_of(tour)
    assert [p.carrier_id for p in places(tour, road, [("a", 1, None)]) if p.fits] == ["left", "right"]
    both = places(tour, road, [("a", 1, None), ("b", 1, None)])
    assert not any(p.fits for p in both)
    assert both[0].reason.metric() == "2.0 l too big for the room left"
    assert not any(p.fits for p in places(tour, road, [("fuel", 1, None), ("bread", 1, None)]))


def test_a_placing_is_judged_from_itself_alone():
    problem = problem_of(small_tour(thing("tent", 2, 8), thing("bar", 0.1, 0.1)))
    empty = Placing(np.zeros_like(problem.allowed, dtype=np.int64), np.zeros(3, dtype=np.int64))
    score = evaluate(problem, empty)
    assert score.broken == 0
    assert score.out == 12
    crammed = Placing(np.array([[0, 0, 2], [0, 0, 2]]), np.zeros(3, dtype=np.int64))
    assert evaluate(problem, crammed).broken > 0


def test_four_hundred_things_are_answered_at_once_and_whatever_limits_clash():
    """Far more than the bags hold, with pins that cannot stand each other: the least bad load, in words, never a hang."""
    things = [
        thing(f"t{n}", 0.2, 0.4, natures=["fuel"] if n == 0 else [], not_with=["fuel"] if n == 1 else []) for n in range(400)
    ]
    pins = Load(placements=tuple(Placement(thing_id=f"t{n}", carrier_id="left", pinned=True) for n in range(2)))
    found = proposal_of(small_tour(*things, load=pins), rounds=0, effort=0)
    assert not found.holds  # the two pinned things may not share a bag
    assert sum(found.out.values()) > 250
    assert {p.thing_id for p in found.load.placements if p.pinned} == {"t0", "t1"}
    assert {short.limit for short in found.short} & {"Rear pannier", "Handlebar bag"}
    freed = proposal_of(small_tour(*things), rounds=0, effort=0)
    assert freed.holds


@settings(max_examples=6, deadline=None)
@given(st.integers(0, 40), st.randoms(use_true_random=False))
def test_the_same_tour_told_in_another_order_gets_the_same_load(seed, chance):
    """Things, bikes and bags shuffled: not a gram elsewhere."""
    tour = a_tour(seed)

    def shuffled(items):
        every = list(items)
        return tuple(chance.sample(every, len(every)))

    # Compartments lie in a bag in the order in which they are told, so that order is part of the rig.
    bikes = shuffled(b.model_copy(update={"carriers": shuffled(b.carriers)}) for b in tour.rig.bikes)
    other = tour.model_copy(update={"kit": shuffled(tour.kit), "rig": tour.rig.model_copy(update={"bikes": bikes})})
    one, two = (propose_load(t, profile_of(t), rounds=1, effort=0, advise=False) for t in (tour, other))
    assert (one.points, one.out, one.food_out_tenths) == (two.points, two.out, two.food_out_tenths)
    assert {(p.thing_id, p.carrier_id, p.count) for p in one.load.placements} == {
        (p.thing_id, p.carrier_id, p.count) for p in two.load.placements
    }


def test_nothing_that_fits_stays_out_for_looks():
    """One pannier on the left only: a full sack of 4 l leans the bike by more than four hundred points, and comes all the same."""
    bike = pannier_bike(carriers=[carrier("rear_pannier", "left", "rack", "left").model_dump()])
    sack = thing("sack", 0.1, 0.3, holds_water_l=4, soft_vessel=True, reach="stop")
    found = propose_load(small_tour(sack, bikes=(bike,)), profile_of(small_tour(sack, bikes=(bike,))), rounds=1, effort=0.5)
    assert (found.out, found.food_out_tenths, found.holds, found.complete) == ({}, 0, True, True)


def test_what_must_come_goes_before_what_may_stay_and_the_tent_before_the_ukulele():
    """Room for 10 l: tent and sleeping bag, or the ukulele and things as large; what may stay stays first."""
    bike = pannier_bike(carriers=[carrier("rear_pannier", "left", "rack", "left", volume_l=10, limit_kg=9).model_dump()])
    tent, down = thing("tent", 1.5, 5, natures=("shelter",)), thing("down", 0.9, 5, reach="night")
    lute, chess = thing("ukulele", 0.6, 6), thing("chess", 0.2, 3, may_stay=True)
    found = propose_load(small_tour(tent, down, lute, chess, bikes=(bike,)), None, rounds=1, effort=0.5)
    assert set(found.out) == {"ukulele", "chess"}
    either = propose_load(
        small_tour(thing("a", 1, 6), thing("b", 1, 6, may_stay=True), bikes=(bike,)), None, rounds=1, effort=0.5
    )
    assert set(either.out) == {"b"}
    trunk, pillow = thing("trunk", 8, 9, may_stay=True), thing("pillow", 0.1, 3, reach="breaks")
    large = propose_load(small_tour(trunk, pillow, bikes=(bike,)), None, rounds=1, effort=0.5)
    assert set(large.out) == {"trunk"}, "however much more of it could be taken along"
    assert (large.things, sum(large.out.values())) == (2, 1)


def test_food_keeps_from_fuel_soap_and_dirt_and_where_it_can_be_reached():
    things = [thing(n, 0.6, 1, natures=(n,)) for n in ("fuel", "soap", "dirty")]
    bags = (*pannier_bike().carriers, carrier("rack_top_bag", "top", "rack"))
    tour = small_tour(*things, bikes=(pannier_bike(carriers=[b.model_dump() for b in bags]),))
    found = propose_load(tour, profile_of(tour), rounds=1, effort=0.5)
    at = {p.carrier_id for p in found.load.placements}
    fed = {f.carrier_id for f in found.load.food}
    assert found.complete
    assert not at & fed
    assert "top" not in fed  # reached in camp only
    beside = tour.model_copy(update={"load": found.load.model_copy(update={"food": (FoodShare(carrier_id=min(at), tenths=10),)})})
    told = [f for f in assess(beside, profile_of(tour)).findings if f.kind == "not_together"]
    assert told
    assert "bought food" in told[0].sentence.metric()


def test_several_of_one_thing_ride_together_or_as_a_pair_left_and_right():
    """Two shoes: one in each pannier is one place, one in the box and one in a pannier are two, and one away (worked here)."""
    problem = problem_of(small_tour(thing("shoe", 0.5, 2, count=2)))
    at = {name: problem.carrier_ids.index(name) for name in ("left", "right", "box")}

    def together(*places: str) -> int:
        x = np.zeros((1, 3), dtype=np.int64)
        for place in places:
            x[0, at[place]] += 1
        return bill(problem, Placing(x, np.zeros(3, dtype=np.int64)))["together"]

    assert together("left", "right") == together("left", "left") == 1000 * aims.KIT_SPLIT
    assert together("left", "box") == 1000 * (2 * aims.KIT_SPLIT + aims.AWAY)


def test_a_kit_pays_for_what_lies_away_from_most_of_it():
    kit = [thing(n, 0.3, 1, group="cook") for n in ("pot", "stove", "spoon", "mug")]
    problem = problem_of(small_tour(*kit))
    x = np.zeros((4, 3), dtype=np.int64)
    x[:, 1], x[0] = 1, (1, 0, 0)
    nothing = np.zeros(3, dtype=np.int64)
    assert bill(problem, Placing(x, nothing))["together"] == 1000 * (2 * aims.KIT_SPLIT + aims.AWAY)
    x[1] = (1, 0, 0)
    assert bill(problem, Placing(x, nothing))["together"] == 1000 * (2 * aims.KIT_SPLIT + 2 * aims.AWAY)


def test_what_fits_nowhere_says_why():
    pole = thing("pole", 0.4, 1, longest_mm=422)
    found = propose_load(small_tour(pole), None, rounds=0, effort=0)
    assert found.reasons["pole"].metric() == "pole fits nowhere: 2 mm too long in Rear pannier, the likeliest place"


def test_wet_things_ride_outside_and_papers_where_they_stay():
    bags = (*pannier_bike().carriers, carrier("net", "net", "rack", "middle"))
    fly, down = thing("fly", 0.8, 3.4, wet=True), thing("down", 0.4, 2, dry="own_bag", natures=("down",))
    purse = thing("purse", 0.2, 0.3, natures=("valuables",), reach="stop")
    tour = small_tour(fly, down, purse, bikes=(pannier_bike(carriers=[b.model_dump() for b in bags]),))
    found = propose_load(tour, None, rounds=1, effort=0.5)
    at = {p.thing_id: p.carrier_id for p in found.load.placements}
    assert at["fly"] == "net"
    assert at["down"] != "net"
    assert next(c for c in bags if c.id == at["purse"]).lifts_off
    assert not any(p.fits for p in places(tour, None, [("purse", 1, None)]) if p.carrier_id == "net")
    leaky = carrier("rear_pannier", "left", "rack", "left", leaks="at the seam")
    wet = small_tour(thing("e", 0.2, 0.3, natures=("electronics",)), bikes=(pannier_bike(carriers=[leaky.model_dump()]),))
    assert propose_load(wet, None, rounds=0, effort=0).out == {"e": 1}


def test_a_bike_without_a_bag_takes_nothing_and_says_so():
    """Nothing rides on a bare bike: what is packed stays out, and that is no complete load."""
    found = propose_load(small_tour(thing("tent"), thing("pot"), bikes=(pannier_bike(carriers=[], supports=[]),)), None)
    assert (found.complete, found.out, found.load.placements) == (False, {"tent": 1, "pot": 1}, ())
