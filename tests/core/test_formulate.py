"""The placing problem's numbers, held against the statics that the drawing shows and against costs worked by hand."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from bench.tours import bench_problem, bench_tour
from omnifer.core.load import aims
from omnifer.core.load.formulate import FREE, formulate
from omnifer.core.load.problem import LEVER, Placing, Problem, evaluate, overshoot
from omnifer.core.load.search import Search, forced_contents, search, tables
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.load import FoodShare, Load, Placement
from omnifer.core.rig.catalogue import carrier, support
from omnifer.core.rig.statics import Levers
from omnifer.core.supplies.stock import Stock
from tests.conftest import RIDER, pannier_bike, small_tour, thing

NO_STORES = Stock([], {"water": np.zeros(1), "food": np.zeros(1)})


def row_of(problem: Problem, thing_id: str) -> int:
    return problem.thing_ids.index(thing_id)


def problem_of(*things, bikes=None, **changed) -> Problem:
    return formulate(small_tour(*things, bikes=bikes, **changed), NO_STORES)


def random_placing(problem: Problem, seed: int) -> Placing:
    """Every thing somewhere it may be, or out; food in tenths."""
    chance = np.random.default_rng(seed)
    x = np.zeros(problem.allowed.shape, dtype=np.int64)
    for i in range(problem.count.size):
        for _ in range(int(problem.count[i])):
            places = np.append(np.flatnonzero(problem.allowed[i]), -1)
            j = int(chance.choice(places))
            if j >= 0:
                x[i, j] += 1
    food = np.zeros(problem.limit_g.size, dtype=np.int64)
    for j in chance.choice(np.flatnonzero(problem.food_allowed), 6):
        food[j] += 1
    return Placing(x, food)


def loaded(tour, problem: Problem, placing: Placing):
    """The tour with a placing as its load."""
    placements = tuple(
        Placement(thing_id=problem.thing_ids[i], carrier_id=problem.carrier_ids[j], count=int(placing.x[i, j]))
        for i, j in zip(*np.nonzero(placing.x), strict=True)
    )
    shares = tuple(
        FoodShare(carrier_id=problem.carrier_ids[j], tenths=int(placing.food[j])) for j in np.flatnonzero(placing.food)
    )
    return tour.model_copy(update={"load": Load(placements=placements, food=shares)})


@pytest.mark.parametrize("seed", range(6))
def test_rows_are_the_loads_that_the_drawing_shows(seed):
    """Wheels, racks, hitch and bike: a row's value and bound leave the room that the statics of the same load leave."""
    tour, stores = bench_tour(40, 16, "loose", seed)
    bike = tour.rig.bikes[0]
    problem = formulate(tour, stores)
    placing = random_placing(problem, seed)
    load = placing.x.T @ problem.mass_g + placing.food[:, None] * problem.food_g
    slack = (problem.hard.high[:, None] - problem.hard.lever @ load) / LEVER / 1000
    room = dict(zip(problem.hard.names, slack, strict=True))
    shown = BikeLoad(loaded(tour, problem, placing), bike, stores)
    front, rear = shown.front + shown.rider_front, shown.rear + shown.rider_rear
    assert room[f"front_wheel:{bike.id}"] == pytest.approx(bike.front_wheel_limit_kg - front, abs=0.1)
    assert room[f"rear_wheel:{bike.id}"] == pytest.approx(bike.rear_wheel_limit_kg - rear, abs=0.1)
    assert room[f"system:{bike.id}"] == pytest.approx(bike.maximum_system_kg - front - rear, abs=0.15)
    for rack in bike.supports:
        hung = sum(c.borne_kg + c.carrier.mass_kg for c in shown.contents if c.carrier.hangs_on == rack.id)
        assert room[f"support:{rack.id}"] == pytest.approx(rack.limit_kg - hung, abs=0.05)
    trailer = next(s.trailer for s in bike.supports if s.trailer)
    assert room["hitch:trailer"] == pytest.approx(trailer.hitch_most_kg - shown.hitch, abs=0.05)


@pytest.mark.parametrize("seed", range(4))
def test_the_front_share_row_is_nothing_exactly_at_its_bound(seed):
    """The row counts kilograms on the front wheel away from the steady share of what both wheels bear."""
    tour, stores = bench_tour(40, 14, "loose", seed)
    bike = tour.rig.bikes[0]
    problem = formulate(tour, stores)
    placing = random_placing(problem, seed)
    load = placing.x.T @ problem.mass_g + placing.food[:, None] * problem.food_g
    values = problem.soft.lever @ load
    shown = BikeLoad(loaded(tour, problem, placing), bike, stores)
    low = problem.soft.names.index(f"front low {bike.id}")
    short = (problem.soft.low[low] - values[low]) / LEVER / 1000
    assert short == pytest.approx(bike.front_share_low * (shown.front + shown.rear) - shown.front, abs=0.06)


def test_a_place_costs_by_its_height_and_its_distance_from_the_middle():
    problem = problem_of(thing("brick", 2.0, 1, reach="stop"))
    levers = Levers(pannier_bike())
    for j, identifier in enumerate(problem.carrier_ids):
        x, y, _ = levers.centres[identifier]
        points = 2.0 * (aims.HIGH * y + aims.FAR * abs(x - 530)) / 1000
        assert problem.cost[0, j] == pytest.approx(1000 * points, abs=1)


@pytest.mark.parametrize(("reach", "more"), [("riding", 14), ("stop", 0), ("camp", 0)])
def test_a_thing_too_deep_costs_its_steps(reach, more):
    """A pannier is reached at a stop; a thing wanted while riding is one moment too late there."""
    problem = problem_of(thing("a", 1, 1, reach=reach), thing("b", 1, 1, reach="stop"))
    left = problem.carrier_ids.index("left")
    assert problem.cost[row_of(problem, "a"), left] - problem.cost[row_of(problem, "b"), left] == 1000 * more


def test_what_is_rarely_wanted_pays_for_the_handy_bag():
    problem = problem_of(thing("spare", 1, 2, reach="breaks"), thing("soon", 1, 2, reach="stop"))
    box, left = (problem.carrier_ids.index(c) for c in ("box", "left"))
    dear = (problem.cost[row_of(problem, "spare")] - problem.cost[row_of(problem, "soon")])[[box, left]]
    assert dear.tolist() == [1000 * aims.RARE_ON_TOP, 1000 * aims.RARE_ON_TOP]


def test_what_cannot_be_is_struck_out_before_any_search():
    kit = (
        thing("pole", 0.4, 1, longest_mm=400),
        thing("down", 0.5, 2, dry="must"),
        thing("sack", 0.1, 25),
        thing("his", 1, 1, rider_id="ada"),
    )
    cage = carrier("bottle_cage", "cage", "down_tube_bolts").model_dump()
    bike = pannier_bike(carriers=[*(c.model_dump() for c in pannier_bike().carriers), cage])
    problem = problem_of(*kit, bikes=(bike,))
    allowed = {
        t: {c for c, ok in zip(problem.carrier_ids, row, strict=True) if ok}
        for t, row in zip(problem.thing_ids, problem.allowed, strict=True)
    }
    assert allowed == {
        "pole": {"left", "right"},
        "down": {"left", "right", "box"},
        "sack": set(),
        "his": {"left", "right", "box"},
    }
    assert not any(
        problem.food_allowed[problem.carrier_ids.index(c.id)]
        for c in bike.carriers
        if c.kind in ("bottle_cage", "stem_bag", "under_tube_bag", "saddle_pack")
    )


def test_pins_kits_and_neighbours_reach_the_problem():
    kit = (
        thing("pot", group="cook", count=2),
        thing("stove", group="cook", natures=["fuel"]),
        thing("bread", not_with=["fuel"]),
        thing("bottle", group="cook", holds_water_l=1),
    )
    pinned = Load(
        placements=(
            Placement(thing_id="pot", carrier_id="right", count=1, pinned=True),
            Placement(thing_id="stove", carrier_id="left"),
        )
    )
    tour = small_tour(*kit, load=pinned)
    problem = formulate(tour, NO_STORES)
    assert problem.pinned.sum() == 1
    assert problem.pinned[row_of(problem, "pot"), problem.carrier_ids.index("right")] == 1
    assert formulate(tour, NO_STORES, free_pins=True).pinned.sum() == 0
    assert {t: problem.group[row_of(problem, t)] for t in problem.thing_ids} == {"pot": 0, "stove": 0, "bread": -1, "bottle": -1}
    assert problem.repelled[row_of(problem, "stove"), row_of(problem, "bread")]
    assert problem.repelled.sum() == 2


def test_a_trailer_may_neither_push_up_nor_press_too_hard():
    hitched = support("trailer_two_wheels", "trailer")
    bike = pannier_bike(supports=[hitched.model_dump()], carriers=[carrier("trailer_bag", "bag", "trailer").model_dump()])
    problem = problem_of(thing("brick", 5, 2), bikes=(bike,))
    row = problem.hard.names.index("hitch:trailer")
    bare = Levers(bike).bare()
    assert problem.hard.low[row] == pytest.approx(-bare.hitch * 1000 * LEVER, abs=LEVER)
    assert problem.hard.high[row] == pytest.approx((hitched.trailer.hitch_most_kg - bare.hitch) * 1000 * LEVER, abs=LEVER)
    assert problem.hard.low[problem.hard.names.index("support:trailer")] == -FREE


def test_overshoot_rounds_up_and_counts_both_sides():
    problem = problem_of(thing("brick"))
    rows = problem.soft
    values = np.stack([rows.high + 1, rows.high, rows.low - LEVER - 1], axis=1)
    beyond = overshoot(values, rows)
    bounded_above, bounded_below = rows.high < FREE, rows.low > -FREE
    assert (beyond[bounded_above, 0] == 1).all()
    assert (beyond[bounded_above, 1] == 0).all()
    assert (beyond[bounded_below, 2] == 2).all()


@settings(max_examples=12)
@given(st.integers(0, 500))
def test_the_tables_of_the_search_say_what_the_problem_says(seed):
    """Contents, rows and what is broken, read off the compiled part's own sums, are the evaluator's."""
    problem = bench_problem(24, 8, "tight", seed % 7)
    placing = random_placing(problem, seed)
    state = Search(problem, placing)
    t, s = tables(problem), state.standing
    moments = problem.states
    load = placing.x.T @ problem.mass_g + placing.food[:, None] * problem.food_g
    assert (s.contents[:-1, :moments] == load).all()
    beyond = np.maximum(s.contents - t.limit, 0)[:-1].sum() + s.price[: t.hard_rows].sum()
    together = placing.x > 0
    neighbours = ((problem.repelled.astype(np.int64) @ together) * together).sum() // 2
    neighbours += together[problem.food_repelled][:, placing.food > 0].sum()
    assert beyond + 1000 * neighbours == evaluate(problem, placing).broken
    assert (state.placing().x == placing.x).all()


def test_what_stays_out_is_forced_in_only_to_see_what_falls_short():
    problem = problem_of(*[thing(f"brick{i}", 4, 3) for i in range(9)])
    placing, score = search(problem, rounds=1)
    assert score.out > 0
    assert score.broken == 0
    grams, millilitres = forced_contents(problem, placing)
    assert grams.sum() == 9 * 4000
    assert millilitres.sum() == 9 * 3000
    assert (grams.max(axis=1) > problem.limit_g).any()


def test_riders_carry_by_their_power():
    strong = RIDER.model_copy(update={"id": "ben", "name": "Ben", "all_day_power_w": 220})
    other = pannier_bike(
        id="second", rider_id="ben", name="Second", carriers=[carrier("rear_pannier", "far", "rack", "left").model_dump()]
    )
    problem = problem_of(thing("brick", 3, 1), bikes=(pannier_bike(), other), riders=(RIDER, strong))
    row = problem.soft.names.index("riders touring")
    far = problem.carrier_ids.index("far")
    mine = np.delete(problem.soft.lever[row], far)
    theirs = problem.soft.lever[row][far]
    assert mine / LEVER == pytest.approx(2 / 3, abs=0.001)
    assert theirs / LEVER == pytest.approx(-1 / 3, abs=0.001)
