"""The rehearsal: no widths is the plan, chance does what it should, and a second simulator sees the same."""

import datetime as dt
import math
from dataclasses import replace
from statistics import NormalDist

import numpy as np
import pytest

from omnifer.core.assess import profile_of
from omnifer.core.diary.rates import taking as taking_rate
from omnifer.core.model import practice
from omnifer.core.model.chances import Chances
from omnifer.core.model.debrief import LearnedRate
from omnifer.core.model.kit import Thing
from omnifer.core.model.rehearsal import FIRST_PLAYS
from omnifer.core.model.road import DayCut, MonthNormals, Night, Road, Station, SurfaceStretch, Transfer, TypedDay
from omnifer.core.model.roles import Device, FuelVessel, SleepingBag, Stove
from omnifer.core.model.stores import Stores
from omnifer.core.rehearsal.answers import gone_h, lack_that_matters, tell, wrongs_of
from omnifer.core.rehearsal.course import course_of, with_supply
from omnifer.core.rehearsal.drawn import DRAWN, draw
from omnifer.core.rehearsal.fate import Fate
from omnifer.core.rehearsal.play import rehearse
from omnifer.core.rehearsal.rehearsing import as_planned, one_play, played, rehearsed
from omnifer.core.rehearsal.risk import risk_plan, spares_at_risk
from omnifer.core.rehearsal.two import two_plans
from omnifer.core.sensitivity import effect_of
from omnifer.core.sentence import say
from omnifer.core.stages import Reading
from omnifer.core.stores.schedule import taking
from omnifer.core.voyage import voyage_of
from tests.conftest import small_tour, thing
from tests.core.played_by_hand import outcomes
from tests.core.test_road import stop, straight

MONTHS = (MonthNormals(mean_max_c=24, mean_min_c=8, spread_max_c=5, spread_min_c=4, rain_days=9, wind_ms=2.5),) * 12
COMPARED = 60
AGREE = NormalDist().inv_cdf(1 - 0.01 / 2 / COMPARED)
"""Standard deviations between two simulators that agree: in 99 of 100 runs all that is compared lies closer."""


def kit(litres: float, comfort_c: float) -> tuple[Thing, ...]:
    return (
        thing("bottles", 0.3, holds_water_l=litres), thing("bag", 1, role=SleepingBag(comfort_c=comfort_c)),
        thing("stove", 0.1, role=Stove(burns="gas")), thing("canister", 0.2, role=FuelVessel(burns="gas", holds_kg=0.23)),
        thing("tube", 0.1, serves=("tube",)), thing("levers", 0.05, serves=("levers",)), thing("pump", 0.1, serves=("pump",)),
    )  # fmt: skip


def small(n: int = 0):
    """A few days through a land with more or less of everything; no two alike."""
    dice = np.random.default_rng(n)
    length = float(dice.integers(180, 330))
    stops = tuple(
        stop(
            round(float(km)), water=str(dice.choice(["reliable", "seasonal", "unsure", "none"])),
            shop=str(dice.choice(["none", "none", "basic", "full"])), shelter=str(dice.choice(["none", "wild", "site", "room"])),
            closed_weekdays=(int(dice.integers(0, 7)),), opens_h=8.0, closes_h=18.0, fuels=("gas",) if dice.random() < 0.4 else (),
            dry_months=(9,) if dice.random() < 0.5 else (),
        )
        for km in np.sort(dice.uniform(10, length - 10, dice.integers(5, 10)))
    )  # fmt: skip
    made = straight(
        length, stops, cut=DayCut(hours=5), stations=(Station(id="here", name="Here", at_km=0, elevation_m=100, months=MONTHS),),
        nights=(Night(at_km=round(length / 2, 1), rest_days=int(dice.integers(0, 2))),), start=dt.date(2027, 5, 3 + n),
        surfaces=(SurfaceStretch(from_km=20, to_km=90, surface="gravel"),),
    )  # fmt: skip
    return made.model_copy(
        update={"kit": kit(float(dice.uniform(2, 6)), float(dice.uniform(2, 8))), "stores": Stores(cooking="cook")}
    )


def at(tour) -> Reading:
    return Reading(tour, profile_of(tour))


@pytest.fixture(scope="module")
def here() -> Reading:
    return at(small())


def test_without_widths_every_play_is_the_plan(far_sample, here):
    """The sample with all it has, ten small tours, typed days, one day alone, three kilometres, and a ferry of thirty hours."""
    ferry = straight(300, (stop(100, water="reliable"),), transfers=(Transfer(from_km=100, to_km=160, by="ferry", hours=30),))
    others = (small_tour(), small_tour(road=Road(typed_days=(TypedDay(distance_km=40),))), straight(3), ferry)
    for reading in (Reading(*far_sample), here, *(at(small(n)) for n in range(1, 10)), *map(at, others)):
        course = course_of(reading)
        plan = as_planned(course)
        assert np.abs(plan.when[0] - course.planned)[1:].max() < 1e-9
        assert plan.days_late == 0
        for name, store in course.stores.items():
            assert np.abs(plan.kept[name].level[0] - store.planned).max() < 1e-5, name
        assert not plan.ill.any()
        assert not any(many.any() for many in (*plan.mended.values(), *plan.unmended.values()))


@pytest.mark.parametrize("n", range(10))
def test_a_second_simulator_that_shares_no_code_sees_the_same(n):
    """Every outcome's share, and the mean arrival, within Monte Carlo error."""
    course = replace(course_of(at(small(n))), risks=[])
    many, few = 2000, 250
    plays = played(course, 0, many)
    mine = {wrong.id: int((wrong.bad > 0).sum()) for wrong in wrongs_of(plays, as_planned(course))}
    found, late = outcomes(course, few, 100 + n, lack_that_matters(course, "water"))
    for key, count in found.items():
        share = (mine[key] + count) / (many + few)
        error = math.sqrt(max(share * (1 - share), 1 / many) * (1 / many + 1 / few))
        assert abs(mine[key] / many - count / few) < AGREE * error, (key, mine[key] / many, count / few)
    spread = float(plays.when[:, -1].std()) * math.sqrt(1 / many + 1 / few)
    assert abs(plays.when[:, -1].mean() - late) < AGREE * spread


def test_a_stop_that_supplies_nothing_changes_no_play(here):
    """Draws go by name: a place more has its own fate, and leaves every other its own."""
    tour = here.tour
    other = at(
        tour.model_copy(update={"road": tour.road.model_copy(update={"stops": (*tour.road.stops, stop(77, services=("post",)))})})
    )
    one, two = (played(course_of(reading), 0, 60) for reading in (here, other))
    assert np.array_equal(one.coldest_c, two.coldest_c)
    assert np.abs(one.when[:, -1] - two.when[:, -1]).max() < 1e-6
    assert np.array_equal(one.ill, two.ill)


def test_on_the_same_fate_more_water_is_never_drier_and_a_wet_spring_never_hurts(here):
    """Without rationing, which drinks less in order to have more."""
    course = course_of(here)
    course = replace(course, usual=course.usual.model_copy(update={"ration": 1.0}))
    voyage = here[voyage_of]
    assert voyage is not None
    store = course.stores["water"]
    more = replace(store, leaving=store.leaving + 1, capacity=store.capacity + 1)
    wet = [replace(source, chance=np.ones_like(source.chance)) for source in course.sources]
    dry, fuller, sure = (
        played(c, 0, 300).kept["water"]
        for c in (course, replace(course, stores={**course.stores, "water": more}), replace(course, sources=wet))
    )
    assert dry.without_h.sum() > 0
    assert (fuller.without_h.sum(axis=1) <= dry.without_h.sum(axis=1) + 1e-6).all()
    assert fuller.without_h.sum() < dry.without_h.sum()
    assert (sure.without_h.sum(axis=1) <= dry.without_h.sum(axis=1) + 1e-6).all()


def test_wider_draws_make_a_wider_fan(here):
    course = course_of(here)
    widths = [
        np.subtract(*np.quantile(rehearse(course, draw(Fate(1, 0, 400), course.usual, 0.1, on)).when, [0.9, 0.1], axis=0))
        for on in (0.5, 1.0, 2.0)
    ]
    assert widths[0].mean() < widths[1].mean() < widths[2].mean()


def test_the_fan_holds_what_it_says():
    """Tours ridden by another fate: eight of ten lie within the told band, place by place, over four tours of 300 rides."""
    inside = []
    for n in range(4):
        course = course_of(at(small(n)))
        low, high = np.quantile(played(course, 0, 1000).when, [0.1, 0.9], axis=0)
        ridden = played(course, 0, 300, seed=99).when
        inside.append(((ridden >= low) & (ridden <= high))[:, 1:].mean())
    assert np.mean(inside) == pytest.approx(0.8, abs=0.05)


def scarce() -> Reading:
    """Two shops in ten days, for riders who eat more or less and never save: what they carry decides."""
    shops = tuple(stop(km, water="reliable", shop="full", shelter="site") for km in (190, 370))
    made = straight(560, shops, cut=DayCut(by="distance", distance_km=60, to_stops=False))
    own = {"ration": 1.0, "food_width": 0.2, "food_day_width": 0.2, "shop_shut": 0.0, "ill_per_100_days": 0.17}
    return at(made.model_copy(update={"own_values": own, "kit": kit(30, 0)}))


def test_once_in_twenty_comes_out_as_once_in_twenty():
    """A plan at a chosen risk, ridden by another fate: between once in 14 and once in 28."""
    reading = scarce()
    found = risk_plan(reading, "food", 0.05, 1000)
    then = course_of(Reading(taking(reading.tour, found.steps), reading.profile))
    share = (gone_h(played(then, 0, 4000, seed=99), "food") > 0).any(axis=1).mean()
    assert 1 / 28 <= share <= 1 / 14, (share, found.reached)
    assert found.now.count > 2 * found.reached.count


def test_a_plan_at_a_lower_risk_carries_more_and_runs_out_less(here):
    found = risk_plan(here, "water", 0.05, 200)
    assert [p.kg_km for p in found.curve] == sorted((p.kg_km for p in found.curve), reverse=True)
    assert found.plans[0].name == "as it is planned"
    assert found.reached.count <= found.reached.of * 0.05 + 5
    assert {p.name for p in found.plans} >= {"no reserve", "full at every place", "always a litre more"}
    carried = {p.name: p.kg_km for p in found.plans}
    assert carried["no reserve"] <= carried["as it is planned"] <= carried["full at every place"]


def test_what_is_told_comes_from_the_plays(here):
    first, *_, last = rehearsed(here, 120)
    assert first.plays == FIRST_PLAYS
    assert last.plays == 120
    assert [o.id for o in last.outcomes][:2] == ["dry", "cold"]
    for outcome in last.outcomes:
        assert outcome.counted.low <= outcome.counted.count / 120 <= outcome.counted.high
        assert all(place.counted.count <= outcome.counted.count for place in outcome.where)
    assert last.fine.count <= min(120 - o.counted.count for o in last.outcomes)
    for outcome in last.outcomes:
        if outcome.more is not None and outcome.more.amount:
            # On the same fate a little more never runs out more often; rations may end it a little later.
            assert outcome.more.counted.count <= outcome.where[0].counted.count
    assert any(outcome.more for outcome in last.outcomes)
    worst = one_play(here, last.told[-1].number)
    assert worst.told.wrong == last.told[-1].wrong
    assert len(worst.km) == len(worst.when) == len(worst.water_l)
    *_, day = rehearsed(at(small_tour(road=Road(typed_days=(TypedDay(distance_km=40),)))), FIRST_PLAYS)
    assert "Coldest night" not in [row.name for row in day.year]


def test_the_same_plan_on_the_same_fate_differs_in_nothing(here):
    same = two_plans(here, here, 80)
    assert all(one.better == one.worse == 0 and one.now == one.then for one in same.outcomes)
    colder = at(here.tour.model_copy(update={"kit": kit(3, -15)}))
    other = {one.id: one for one in two_plans(here, colder, 80).outcomes}
    assert other["cold"].then.count <= other["cold"].now.count
    assert other["cold"].worse == 0


def test_parts_at_a_risk_hold_for_the_whole_tour(here):
    """Carrying what is wanted, no more plays lack a part than were accepted: counted anew from the plays."""
    plays = played(course_of(here), 0, 1000)
    found = spares_at_risk(plays, 0.05)
    lacking = np.zeros(1000, dtype=bool)
    wanted = {part.words: part.wanted for part in found.parts}
    for risk in plays.course.risks:
        if risk.kind.part and risk.able:
            lacking |= plays.most_wanted[risk.kind.id] > wanted.get(risk.kind.words, 0)
    assert lacking.sum() <= 50
    assert any(part.words == "Puncture" for part in found.parts)


def test_under_way_only_the_rest_is_played():
    tour = small(3)
    reading = Reading(tour, profile_of(tour), 120.0)
    course = course_of(reading)
    plays = played(course, 0, 60)
    assert course.km[course.begin] >= 120
    assert np.ptp(plays.when[:, : course.begin], axis=0).max() == 0
    first, *_ = rehearsed(reading, 60)
    assert all(gap.place.to_km > 120 for gap in first.gaps)
    plan = as_planned(course)
    assert np.abs(plan.when[0] - course.day - course.clock_h / 24)[course.begin :].max() < 1e-9


def test_another_plan_of_a_supply_is_ridden_on_the_same_course(here):
    course, voyage = course_of(here), here[voyage_of]
    assert voyage is not None
    same = with_supply(course, here, voyage.supplies["water"])
    assert np.array_equal(same.stores["water"].leaving, course.stores["water"].leaving, equal_nan=True)


def test_every_width_and_chance_moves_something_somewhere():
    """None without an effect: each, at an end of its range, changes what is told of some tour."""
    hot = Station(id="hot", name="Hot", at_km=0, elevation_m=100, months=(MONTHS[0].model_copy(update={"mean_max_c": 37}),) * 12)
    tours = [small(0), small(2), small(4)]
    tours.append(
        tours[0].model_copy(update={"road": tours[0].road.model_copy(update={"stations": (hot,), "cut": DayCut(hours=7)})})
    )
    gale = Station(id="gale", name="Gale", at_km=0, elevation_m=100, months=(MONTHS[0].model_copy(update={"wind_ms": 6}),) * 12)
    tours.append(straight(600, cut=DayCut(hours=5), stations=(gale,)))
    lamp = thing("lamp", 0.1, role=Device(wh_a_day=3, battery_wh=8, light=True))
    tours[1] = tours[1].model_copy(update={"kit": (*tours[1].kit, lamp)})

    def told(tour):
        course = course_of(at(tour))
        return tell(played(course, 0, 100), as_planned(course), 1)

    now = [told(tour) for tour in tours]

    def moves(key):
        end = practice.fields()[key][1]["high"]
        return any(told(t.model_copy(update={"own_values": {key: end}})) != was for t, was in zip(tours, now, strict=True))

    assert [key for key in Chances.model_fields if not moves(key)] == []
    # The table of what is drawn names them all, but for what a rider does.
    named = {key for row in DRAWN for key in row.widths}
    assert Chances.model_fields.keys() - named == {"into_dark_h", "settles_h"}
    assert named <= Chances.model_fields.keys()


def test_what_a_width_moves_is_told_in_plays():
    moved = effect_of(small(0), profile_of(small(0)), "ill_per_100_days").figures
    late = next(figure for figure in moved if figure.name.startswith("Late"))
    assert late.low < late.high


def test_what_was_learned_leaves_less_to_chance():
    """A rate of 1.0 between 0.8 and 1.1 nine times in ten: ln(1.1 / 0.8) over twice 1.645, by hand 0.097."""
    rate = LearnedRate(
        key="water", name="Water", unit="volume", per="hour", assumed=0.5, mean=0.5, low=0.8, high=1.1, sure="sure",
        noted=say("x"), takes="own_value", takes_key="water_times", takes_value=1.0,
    )  # fmt: skip
    tour = small(0)
    learned = taking_rate(tour, rate)
    assert learned.own_values == {"water_times": 1.0, "water_width": 0.097}
    assert taking_rate(tour, rate.model_copy(update={"low": 0.2, "high": 3})).own_values == {"water_times": 1.0}
    spread = [np.ptp(draw(Fate(1, 0, 50), t.practice, 0.1).water.mean(axis=1)) for t in (learned, tour)]
    assert spread[0] < spread[1]
