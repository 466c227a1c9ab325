"""The best schedule of stores: against every plan there is on small tours, and never worse than any other that holds."""

from collections import Counter
from itertools import product

import numpy as np
import pytest
from hypothesis import event, given, settings
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.best_plan import best_plan
from omnifer.core.model.road import Road, Stop, TypedDay
from omnifer.core.model.roles import FuelVessel, Stove, UsedUp
from omnifer.core.model.stores import Stores, StoreStep
from omnifer.core.stores.buying import as_taken, solve, worth
from omnifer.core.stores.schedule import schedule, taking
from omnifer.core.stores.told import filled_everywhere
from omnifer.core.supplies.carried import Terms, carried
from omnifer.core.supplies.supply import Demand, Kind, Refills, Supply
from omnifer.core.voyage import play
from tests.conftest import small_tour, thing

KIND = Kind("x", "x", "kg", "mass", 1.0, limited=True)


def supply(used, offers, km, reserve=0.0, capacity=np.inf, terms=Terms(), handling=None, fixed=None, emptied=None) -> Supply:  # noqa: B008
    """A supply of nothing but figures."""
    used, count = np.array(used, dtype=float), len(used) + 1
    offers, nothing = np.array(offers, dtype=float), np.zeros(0)
    keep, holds = np.full(used.size, float(reserve)), np.full(used.size, float(capacity))
    free = np.full(count, np.nan) if fixed is None else np.array(fixed, dtype=float)
    gone = np.zeros(count, dtype=bool) if emptied is None else np.array(emptied)
    refills = Refills(np.array(km, dtype=float), [""] * count, offers, [None] * count, gone)
    amounts = carried(offers, used, keep, holds, terms, free, gone)
    minutes = np.zeros(count) if handling is None else np.array(handling, dtype=float)
    return Supply(KIND, refills, Demand(nothing, nothing, nothing), amounts, used, used, keep, np.zeros(used.size, dtype=int), holds,
                  terms, free, minutes)  # fmt: skip


def best_of_all(one: Supply, steps: list[float], per_minute: float) -> float:
    """Every way of taking one of these amounts at each place, lived through by hand; what does not hold is left aside."""
    best = np.inf
    count = one.used.size
    for take in product(steps, repeat=count):
        stock, cost, holds = 0.0, 0.0, True
        for i in range(count):
            bought = take[i]
            if i and one.refills.emptied[i]:
                stock = 0.0
            if bought > (np.inf if i == 0 else one.refills.offers[i]) or (one.terms.least and 0 < bought < one.terms.least):
                holds = False
            stock += bought
            if stock > one.capacity[i] + 1e-9 or (one.terms.levels and bought and stock not in one.terms.levels):
                holds = False
            cost += stock * (one.refills.km[i + 1] - one.refills.km[i]) + per_minute * bought * one.handling[i]
            stock -= one.used[i]
            if stock < one.reserve[i] - 1e-9:
                holds = False
            if not holds:
                break
        if holds:
            best = min(best, cost)
    return best


whole = st.integers(0, 4)


@settings(max_examples=60, deadline=None)
@given(
    st.lists(whole, min_size=2, max_size=4), st.sampled_from(["any", "packs", "bottles", "least"]), st.integers(0, 1),
    st.integers(5, 12), st.data(),
)  # fmt: skip
def test_no_plan_of_a_small_tour_is_better(used, kind, reserve, holds, data):
    """Amounts are whole, so that all that can be bought can be counted through: up to 13 amounts at 4 places."""
    terms = {"any": Terms(), "packs": Terms(pack=3), "bottles": Terms(levels=(4.0, 7.0)), "least": Terms(least=2)}[kind]
    offers = [np.inf, *data.draw(st.lists(st.sampled_from([0.0, 3.0, np.inf]), min_size=len(used), max_size=len(used)))]
    km = np.concatenate([[0], np.cumsum(data.draw(st.lists(st.integers(5, 60), min_size=len(used), max_size=len(used))))])
    handling = [0, *data.draw(st.lists(st.sampled_from([0.0, 30.0]), min_size=len(used), max_size=len(used)))]
    one = supply(used, offers, km, reserve, holds, terms, handling)
    steps = [float(n) for n in range(holds + 1) if kind != "packs" or n % 3 == 0]
    least = best_of_all(one, steps, 1.0)
    found = solve(one, per_minute=1.0, money=0.0)
    event(f"{kind}, {'holds' if np.isfinite(least) else 'cannot hold'}")
    assert found.proven
    if np.isfinite(least):
        assert found.value == pytest.approx(least, abs=1e-3)
    else:
        assert found.value > 900


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.just(0.0) | st.floats(0.01, 8), min_size=1, max_size=12), st.sampled_from([Terms(), Terms(pack=2.5), Terms(levels=(6.0, 11.0)), Terms(least=3)]),
    st.just(0.0) | st.floats(0.01, 2), st.floats(4, 30), st.data(),
)  # fmt: skip
def test_it_is_never_heavier_than_the_rule_or_filling_up_everywhere(used, terms, reserve, holds, data):
    some = [0.0, np.inf] if terms.levels else [0.0, 5.0, np.inf]  # a tap fills every bottle, a shop may run out
    offers = [np.inf, *data.draw(st.lists(st.sampled_from(some), min_size=len(used), max_size=len(used)))]
    one = supply(used, offers, np.arange(len(used) + 1) * 40.0, reserve, holds, terms)
    found = solve(one, 0.0, 0.0)
    for other in (one, filled_everywhere(one)):
        if ((other.taken > 0) & (other.taken < terms.least)).any():
            continue  # full vessels made the rule buy less than anybody goes shopping for
        assert found.value <= worth(other, 0.0, 0.0) + 1e-3 * max(1.0, abs(found.value))
    again = as_taken(one, found.take)
    assert (again.arriving >= -1e-6).all()
    assert (again.leaving[:-1] <= one.capacity + 1e-6).all()


def test_nothing_is_filled_before_it_is_used():
    """Three taps, and 2 kg used behind the last, or nothing at all: 6 kg carried for 40 km, or for none."""
    for used, take in (([0, 0, 2], [0, 0, 6, 0]), ([0, 0, 0], [0, 0, 0, 0])):
        taps = [np.inf, np.inf, np.inf, 0]
        found = solve(supply(used, taps, [0, 40, 80, 120], 0.0, 6.0, Terms(levels=(6.0, 11.0))), 0.0, 0.0)
        assert (found.take.tolist(), found.value) == (take, 240 * take[2] / 6)


def test_it_buys_where_it_is_cheap_once_money_counts():
    """3 kg a stretch of 100 km. Buying late carries 600 kg km; treated water at the second tap takes 10 minutes a litre."""
    late = solve(supply([3, 3], [np.inf, np.inf, 0], [0, 100, 200]), 0.0, 0.0)
    assert late.take.tolist() == [3, 3, 0]
    early = solve(supply([3, 3], [np.inf, np.inf, 0], [0, 100, 200], handling=[0, 110, 0]), 1.0, 0.0)
    assert early.take.tolist() == [6, 0, 0]
    still = solve(supply([3, 3], [np.inf, np.inf, 0], [0, 100, 200], handling=[0, 90, 0]), 1.0, 0.0)
    assert still.take.tolist() == [3, 3, 0]


def test_what_is_fixed_stays_fixed():
    found = solve(supply([3, 3], [np.inf, np.inf, 0], [0, 100, 200], fixed=[5, np.nan, np.nan]), 0.0, 0.0)
    assert found.take.tolist() == [5, 1, 0]


def test_the_sample_plan_is_proven_taken_and_stays(sample, sample_road):
    """Taken as fixed steps the best plan is what the tour then does, and hardly anything better is found for its new pace."""
    found = schedule(sample, sample_road)
    assert found.proven
    assert found.better
    assert found.best.kg_km < found.stands.kg_km < found.everywhere.kg_km
    taken = sample.model_copy(update={"stores": sample.stores.model_copy(update={"steps": tuple(found.steps)})})
    told = assess(taken, sample_road)
    assert told.stores.plan.kg_km == pytest.approx(found.best.kg_km, rel=0.01)
    assert all(isinstance(step, StoreStep) for step in found.steps)
    again = schedule(taken, sample_road)
    assert again.best.kg_km > 0.995 * again.stands.kg_km
    assert {stay.name for stay in found.longer} <= {stop.name for stop in sample.road.stops}
    longer = {stay.stop_id: stay.minutes / 60 for stay in found.longer}
    assert longer
    stops = tuple(
        s.model_copy(update={"plug_hours": sample.practice.plug_stop_h + longer[s.id] + 0.05}) if s.id in longer else s
        for s in sample.road.stops
    )  # fmt: skip
    rested = sample.model_copy(update={"road": sample.road.model_copy(update={"stops": stops})})
    dead, alive = (
        sum(
            g.to_day - g.from_day + 1
            for lane in assess(t, profile_of(sample)).stores.lanes
            if lane.key == "power"
            for g in lane.gone
        )
        for t in (sample, rested)
    )
    assert alive < dead
    played, then = (play(t, sample_road).power.deaths for t in (sample, rested))
    assert (len(played), len(then)) == (found.runs_down, found.runs_down_then)


def test_what_no_vessel_holds_is_asked_of_nobody_before():
    """1 l to a tap, then 10 l, in vessels of 5 l: filled at the tap as fixed, nothing brought there would fit any more."""
    plan = carried(np.array([np.inf] * 3), np.array([1.0, 10.0]), np.zeros(2), 5, fixed=np.array([np.nan, 5.0, np.nan]))
    assert plan.leaving.tolist()[:2] == [1, 5]
    assert plan.required.tolist()[:2] == [1, 10]
    less = carried(np.array([np.inf] * 3), np.array([1.0, 10.0]), np.zeros(2), 5, fixed=np.array([np.nan, 4.0, np.nan]))
    assert less.leaving.tolist()[:2] == [2, 5]


def told_short(tour, road) -> dict[str, float]:
    return {name: float(supply.short.sum()) for name, supply in play(tour, road).supplies.items()}


@settings(max_examples=12, deadline=None)
@given(st.data())
def test_taking_the_best_plan_makes_nothing_worse(data):
    """Random roads, taps and vessels, too small ones among them: no finding more, and no supply told shorter."""
    days = data.draw(st.integers(3, 7))
    typed = tuple(
        TypedDay(distance_km=data.draw(st.integers(30, 110)), ascent_m=300, highest_m=400, lowest_m=100) for _ in range(days)
    )
    length = sum(day.distance_km for day in typed)
    stops = tuple(
        Stop(id=f"s{k}", name=f"S{k}", at_km=km, water=data.draw(st.sampled_from(["reliable", "seasonal", "none"])),
             shop=data.draw(st.sampled_from(["none", "basic", "full"])), fuels=data.draw(st.sampled_from([(), ("petrol",)])))
        for k, km in enumerate(sorted(data.draw(st.sets(st.integers(5, int(length) - 5), min_size=2, max_size=12))))
    )  # fmt: skip
    kit = (
        thing("bottle", 0.1, 1, holds_water_l=data.draw(st.sampled_from([1.0, 2.5, 6.0])), reach="riding"),
        thing("stove", 0.3, 1, role=Stove(burns="petrol")),
        thing("fuel", 0.1, 1, role=FuelVessel(burns="petrol", holds_kg=data.draw(st.sampled_from([0.1, 0.3, 0.6])))),
        thing("wipes", 0.05, 1, role=UsedUp(rate=4, per="person_day", unit="pieces", holds=20, sold_at="basic", content_kg=0.1)),
    )
    stores = Stores(cooking=data.draw(st.sampled_from(["cook", "boil"])))
    tour = small_tour(*kit, road=Road(typed_days=typed, stops=stops), stores=stores)
    road = profile_of(tour)
    before, found = assess(tour, road), best_plan(tour, road)
    event("better" if found.better else "as good as it gets")
    after_tour = taking(tour, found.steps)
    after = assess(after_tour, road)
    assert Counter(f.kind for f in after.findings) - Counter(f.kind for f in before.findings) == Counter()
    was = told_short(tour, road)
    assert all(short <= was[name] * 1.01 + 0.05 for name, short in told_short(after_tour, road).items())
