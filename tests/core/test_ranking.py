"""The whole kit by its price, what to keep or leave, what to post, and what a lighter one costs."""

from itertools import combinations, pairwise

import pytest
from hypothesis import event, given
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.people import Rider
from omnifer.core.model.road import Hazard, Road, Stop, TypedDay, Weather
from omnifer.core.model.roles import BedLayer, Mat, SleepingBag, UsedUp
from omnifer.core.model.stores import Stores
from omnifer.core.model.tour import Tour
from omnifer.core.needs.parcels import PostStop, Sendable, parcels
from omnifer.core.ranking import ladder, rank
from omnifer.core.worth import price
from tests.conftest import RIDER, small_tour, thing


def standings(tour: Tour):
    return {s.thing_id: s for s in rank(tour, profile_of(tour)).things}


def long_tour(*kit, days: int = 42, **changed) -> Tour:
    return small_tour(*kit, road=Road(typed_days=(TypedDay(distance_km=62, ascent_m=800),) * days), **changed)


def test_the_ranking_is_the_price_of_each_by_itself(short_sample, short_road):
    """One pass says of each thing what leaving it and playing the tour again says: the same days, the same weather."""
    ranked = {s.thing_id: s for s in rank(short_sample, short_road).things}
    for thing_id in ("tent-inner", "sleeping-bag-cold", "lock", "camera", "pot-2-l"):
        alone, here = price(short_sample, short_road, thing_id), ranked[thing_id]
        assert here.mass_kg == alone.mass_kg
        assert here.minutes_a_day == pytest.approx(alone.minutes_a_day, rel=0.06, abs=0.02)
        assert here.kj_a_day == pytest.approx(alone.kj_a_day, rel=0.06, abs=0.3)


@pytest.mark.parametrize(("thing_id", "kg"), [("tent-inner", 1), ("tent-inner", 8), ("lock", 1), ("lock", 4)])
def test_what_a_thing_of_any_mass_costs_a_day_is_what_leaving_it_saves(short_sample, short_road, thing_id, kg):
    """With each rider of the sample: where the other is the slower one soon, the slope at the first gram is a third too much."""
    kit = tuple(t.model_copy(update={"mass_kg": kg}) if t.id == thing_id else t for t in short_sample.kit)
    tour = short_sample.model_copy(update={"kit": kit})
    told = assess(tour, short_road).minutes_a_day[thing_id]
    assert told == pytest.approx(price(tour, short_road, thing_id).minutes_a_day, rel=0.1, abs=0.03)


def test_a_price_doubles_with_the_mass_and_does_not_jump():
    one, two = (standings(long_tour(thing("chair", kg), thing("pot")))["chair"].minutes_a_day for kg in (0.88, 1.76))
    assert two == pytest.approx(2 * one, rel=0.02, abs=0.01)
    along = [standings(long_tour(thing("chair", 1 + n / 50), days=8))["chair"].minutes_a_day for n in range(12)]
    assert max(b - a for a, b in pairwise(along)) < 0.08


def test_a_chair_is_comfort_priced_by_the_evening_and_never_where_it_must_come():
    """What a kilogram costs a day, by its mass and by 42 days over 41 evenings."""
    chair = thing("chair", 0.88, 1.8, serves=("chair",))
    tour = long_tour(chair)
    found, rate = standings(tour)["chair"], rank(tour, profile_of(tour)).minutes_a_kg
    assert found.verdict == "comfort"
    assert found.minutes_a_day == pytest.approx(0.88 * rate, rel=0.02)
    assert found.minutes_a_use == pytest.approx(found.minutes_a_day * 42 / 41, rel=0.03)
    assert standings(long_tour(chair.model_copy(update={"must": True})))["chair"].verdict == "must_come"


@pytest.mark.parametrize(
    ("it", "verdict"),
    [
        (thing("spokes", 0.03, 0.02, serves=("spoke",), unused_tours=5), "insurance"),
        (thing("kit", 0.5, 1, serves=("first_aid",), unused_tours=9), "insurance"),
        (thing("lens", 0.42, 0.8, serves=("lens",), unused_tours=2), "probably_not"),
        (thing("lens", 0.42, 0.8, serves=("lens",), unused_tours=1), "comfort"),
        (thing("spray", 0.3, 0.5, serves=("bear_spray",)), "insurance"),
        (thing("net", 0.03, 0.05, serves=("head_net",)), "probably_not"),
        (thing("box", 0.2, 0.5), "not_said"),
        (thing("box", 0.2, 0.5, because="Grandfather's"), "comes"),
        (thing("helmet", 0.3, 0, serves=("helmet",)), "comes"),
    ],
)
def test_verdicts_with_their_grounds(it, verdict):
    found = standings(long_tour(it))[it.id]
    assert found.verdict == verdict
    assert found.ground.words


def test_what_is_wanted_late_and_sold_on_the_way_is_bought_there():
    spray = thing("spray", 0.05, 0.2, serves=("insect_spray",), role=UsedUp(holds=100, content_kg=0.1, rate=5))
    late = Road(typed_days=(TypedDay(distance_km=62),) * 20, hazards=(Hazard(from_km=800, to_km=900, kind="insects"),))
    assert standings(small_tour(spray, road=late))["spray"].verdict == "buy_there"


def test_the_ladder_begins_with_leaving_then_the_cheapest_kilogram():
    """Tent 3.0 to 1.4 kg for 400: 250 a kilogram; a jumper 200 g lighter for 60: 300; leaving costs nothing, nor what is owned."""
    kit = (thing("tent", 3.0, 9), thing("jumper", 0.4, 2), thing("chess", 0.2, 0.4, may_stay=True), thing("knife", 0.2, 0.2))
    wished = [
        ("tent", thing("light-tent", 1.4, 6, price=400, held="wished")),
        ("jumper", thing("light-jumper", 0.2, 1.5, price=60, held="wished")),
        ("knife", thing("old-knife", 0.1, 0.2, price=90)),
        ("tent", thing("heavy", 4, 12, price=9, held="wished")),
    ]
    steps = ladder(small_tour(*kit), {"tent": 3.0}, wished)
    assert [(s.name, s.money_a_kg) for s in steps] == [("", 0), ("old-knife", 0), ("light-tent", 250), ("light-jumper", 300)]
    assert steps[2].money_a_litre == pytest.approx(400 / 3, abs=0.01)
    assert steps[2].money_a_minute == pytest.approx(400 / 1.6, abs=0.01)


# By post ------------------------------------------------------------------------------------------------------------------


def stops_at(*kms: float, cost: float = 30.0) -> list[PostStop]:
    return [PostStop(Stop(id=f"s{km:g}", name=f"S{km:g}", at_km=km), int(km // 100) + 1, cost, cost) for km in kms]


def best_by_counting(things: list[Sendable], stops: list[PostStop], days: int, home: bool) -> float:
    """Every choice of stops tried out."""
    best = 0.0
    for n in range(1, len(stops) + 1):
        for chosen in combinations(stops, n):
            saved = -sum(s.home_min if home else s.ahead_min for s in chosen)
            for t in things:
                after = [s for s in chosen if (s.stop.at_km >= t.to_km if home else s.stop.at_km <= t.from_km)]
                if home and t.to_km < float("inf"):
                    saved += t.minutes_a_day * max((days - s.day for s in after), default=0)
                if not home and t.from_km > 0:
                    saved += t.minutes_a_day * max((s.day - 1 for s in after), default=0)
            best = max(best, saved)
    return best


sendable = st.builds(
    Sendable, thing_id=st.uuids().map(str), from_km=st.sampled_from([0.0, 150.0, 450.0, 900.0]),
    to_km=st.sampled_from([120.0, 500.0, 1400.0, float("inf")]), minutes_a_day=st.floats(0, 6),
)  # fmt: skip


@given(
    st.lists(sendable, max_size=6),
    st.lists(st.integers(1, 19).map(lambda n: n * 100.0), unique=True, max_size=6).map(sorted),
    st.floats(0, 60),
)
def test_no_other_choice_of_parcels_saves_more(things, kms, cost):
    stops = stops_at(*kms, cost=cost)
    sent = parcels(things, stops, 20)
    for home in (True, False):
        mine = [s for s in sent if (s.way == "home") == home]
        paid = sum(s.saves_min - (s.at.home_min if home else s.at.ahead_min) for s in mine)
        best = best_by_counting(things, stops, 20, home)
        event(f"{len(mine)} parcels")
        assert paid == pytest.approx(best, abs=1e-6)
    assert len({i for s in sent if s.way == "home" for i in s.thing_ids}) == sum(
        len(s.thing_ids) for s in sent if s.way == "home"
    )


def cold_then_warm(*kit, **changed) -> Tour:
    """42 days; nights of -2 °C until day 29, of 12 °C after it."""
    typed = (TypedDay(distance_km=50, ascent_m=900, highest_m=200, lowest_m=200),) * 42
    weather = tuple(
        Weather(from_km=km, day_high_c=20, night_low_c=low, at_elevation_m=200) for km, low in ((0, -2), (29 * 50 + 5, 12))
    )
    posts = tuple(
        Stop(id=f"p{km}", name=f"Post {km}", at_km=km, services=("post",), closed_weekdays=shut, opens_h=8, closes_h=18)
        for km, shut in ((1400, ()), (1530, changed.pop("shut", ())), (1580, ()))
    )
    return small_tour(*kit, road=Road(typed_days=typed, weather=weather, stops=posts), **changed)


WARM = (
    thing("bag", 1.0, 6, role=SleepingBag(comfort_c=8), rider_id="ada", serves=()),
    thing("mat", 0.5, 2, role=Mat(r_value=4.83), rider_id="ada"),
    thing("down-suit", 6.0, 9, role=BedLayer(warms_k=12), rider_id="ada", serves=("pillow",)),
)


def test_what_warmed_until_day_29_goes_home_from_the_next_open_post():
    """Day 31 at km 1530 is a Monday; where that post is shut on Mondays and Tuesdays the next one takes it."""
    for shut, where in (((), "p1530"), ((0, 1), "p1580")):
        tour = cold_then_warm(*WARM, shut=shut)
        home = [p for p in rank(tour, profile_of(tour)).parcels if p.way == "home"]
        assert [(p.stop_id, p.thing_ids) for p in home] == [(where, ["down-suit"])]
        rate = standings(tour)["down-suit"].minutes_a_day
        assert home[0].saves_min == pytest.approx(rate * (42 - home[0].day), abs=0.3)
        assert standings(tour)["down-suit"].verdict == "post_home"
        nights = assess(tour.model_copy(update={"kit": (*WARM[:2], home[0].mend.things[0])}), profile_of(tour)).sleepers[0].nights
        assert all(n.short_k <= 0.1 for n in nights)


def test_a_parcel_that_costs_more_than_it_saves_is_not_sent():
    light = WARM[2].model_copy(update={"mass_kg": 0.3})
    tour = cold_then_warm(*WARM[:2], light)
    assert rank(tour, profile_of(tour)).parcels == []
    dear = cold_then_warm(*WARM, stores=Stores(parcel_price=20, minutes_per_money=10))
    assert rank(dear, profile_of(dear)).parcels == []


def test_work_is_paid_by_whoever_carries():
    """A party rides at the pace of its slowest; the stronger rider's load costs work, and little time."""
    ben = Rider(id="ben", name="Ben", body_mass_kg=80, all_day_power_w=200)
    kit = (thing("a", 2, rider_id="ada"), thing("b", 2, rider_id="ben"))
    found = standings(long_tour(*kit, riders=(RIDER, ben)))
    assert found["b"].minutes_a_day < 0.1 * found["a"].minutes_a_day
    assert found["b"].kj_a_day > 0.4 * found["a"].kj_a_day


def test_two_that_stand_in_for_each_other_do_not_both_stay_at_home():
    """A bag for 4 degrees on nights of 1: with either of two liners of 4 K every night is warm enough, with none it is not. Nets for
    the head, which nothing asks for, stay all together."""
    cold = Road(typed_days=(TypedDay(distance_km=60),) * 6, weather=(Weather(from_km=0, day_high_c=12, night_low_c=1),))
    mat, bag = (
        thing("mat", 0.4, 2, role=Mat(r_value=5), rider_id="ada"),
        thing("bag", 1, 8, role=SleepingBag(comfort_c=4), rider_id="ada"),
    )
    liners = [thing(name, kg, 0.5, role=BedLayer(warms_k=4), rider_id="ada") for name, kg in (("silk", 0.2), ("cotton", 0.3))]
    found = standings(small_tour(mat, bag, *liners, thing("cap", 0.05, 0.1, serves=("cap",)), road=cold))
    assert (found["cotton"].verdict, found["silk"].verdict) == ("probably_not", "comes")
    assert found["silk"].ground.words.startswith("left with what else may stay: ")
    assert "sleeps warm to" in found["silk"].ground.words
    nets = [thing(f"net-{k}", 0.03, 0.05, serves=("head_net",)) for k in range(4)]
    assert {s.verdict for s in standings(small_tour(*nets, road=cold)).values()} == {"probably_not"}
