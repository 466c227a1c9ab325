"""What a road asks for and what answers it: worked roads, kits and bikes, and answers that are no things."""

import pytest
from pythermalcomfort.models import ireq

from omnifer.core.assess import assess, profile_of, situation_of
from omnifer.core.findings import look_for, look_for_cases
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.kit import Fit, Whereabouts
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import Hazard, MonthNormals, Road, Station, Stop, TypedDay
from omnifer.core.model.roles import UsedUp
from omnifer.core.model.tour import AnswerGiven, Tour
from omnifer.core.needs.wear import renewals
from omnifer.core.rig.catalogue import support
from omnifer.core.sensitivity import effect_of
from tests.conftest import RIDER, pannier_bike, small_tour, thing
from tests.core.offered import offers


def days(*kit, n: int = 10, high: float = 22, low: float = 12, rain: float = 1, bike=None, **road) -> Tour:
    """So many days of 50 km in the same weather: its mean extremes, and wet days in a month."""
    month = MonthNormals(mean_max_c=high, mean_min_c=low, spread_max_c=0, spread_min_c=0, rain_days=rain, humidity_pct=60)
    station = Station(id="s", name="S", at_km=0, elevation_m=200, months=(month,) * 12)
    typed = tuple(TypedDay(distance_km=50, ascent_m=100, highest_m=200, lowest_m=200) for _ in range(n))
    return small_tour(*kit, road=Road(typed_days=typed, stations=(station,), **road), **({"bikes": (bike,)} if bike else {}))


def asks(tour: Tour) -> dict[str, str]:
    return {a.id: a.state for a in assess(tour, profile_of(tour)).asks}


def kinds(tour: Tour, kind: str):
    return [f for f in assess(tour, profile_of(tour)).findings if f.kind == kind]


def serving(word: str, **more):
    return thing(more.pop("name", word.replace("_", "-")), 0.2, 0.5, serves=(word,), **more)


def test_five_in_a_hundred_wet_days_in_the_warmth_ask_for_no_suit():
    """Rain 5 % at 22 °C: the suit is surplus, and said to be; the jacket is a vest in the morning."""
    suit = (serving("rain_jacket"), serving("rain_trousers"))
    dry = days(*suit, rain=1.5)
    assert not any(key.startswith(("rain", "light_shell")) for key in asks(dry))
    assert {t for f in kinds(dry, "not_asked") for t in f.thing_ids} == {"rain-trousers"}
    assert asks(days(*suit, rain=6))["light_shell:ada"] == "answered"
    cold = asks(days(serving("rain_jacket"), rain=6, high=9, low=1))
    assert (cold["rain_jacket:ada"], cold["rain_trousers:ada"], cold["proof_gloves:ada"]) == ("answered", "lacking", "lacking")


@pytest.mark.parametrize(
    ("high", "asked"),
    [(30, set()), (24, {"arm_covers"}), (16, {"arm_covers", "wind_shell", "gloves"}),
     (8, {"arm_covers", "wind_shell", "gloves", "warm_gloves", "cap", "shoe_covers"})],
)  # fmt: skip
def test_layers_follow_what_is_felt(high, asked):
    """Nights 8 K colder than days and a start in the morning: felt above 20, 12 to 20, 5 to 12 and below 5 °C."""
    found = {key.split(":")[0] for key in asks(days(serving("pot"), high=high, low=high - 8, rain=0))}
    assert found & {"arm_covers", "wind_shell", "gloves", "warm_gloves", "cap", "shoe_covers"} == asked


def test_a_jacket_warms_the_evening_and_another_layer_longer():
    bare, jacket = (
        days(serving("cap"), serving("fleece"), serving("off_bike"), serving("rain_trousers"), *more, high=9, low=-2)
        for more in ((), (serving("warm_jacket"),))
    )
    hours = [assess(t, profile_of(t)).layers[0].days[0].bears_h for t in (bare, jacket)]
    assert hours[0] < 1 < hours[1]
    (cold,) = (f for f in assess(bare, profile_of(bare)).findings if f.kind == "cold_evening")
    worn, asked = (cold.reason.figures[name].value for name in ("clo", "asked"))
    theirs = ireq(cold.reason.figures["air"].value, cold.reason.figures["air"].value, 0.4, 60, 1.4, 1.0, 8, 0, limit_inputs=False)
    assert worn < asked == pytest.approx(float(theirs.icl_min), abs=0.15)  # ISO 11079 by pythermalcomfort, rounded to 0.1
    assert not kinds(jacket, "cold_evening")
    assert asks(bare)["warm_jacket:ada"] == "lacking"


def test_rooms_ask_for_no_tent_and_a_choice_frees_it():
    inns = tuple(Stop(id=f"i{k}", name=f"Inn {k}", at_km=50 * k, shelter="room") for k in range(1, 11))
    tent = serving("tent", name="tent")
    assert "tent" not in asks(days(tent, stops=inns))
    assert asks(days(tent))["tent"] == "answered"
    assert "tent" not in asks(days(tent, rooms_only=True))
    two_wild = tuple(s for s in inns if s.at_km not in (100, 150))
    few = kinds(
        days(
            tent,
            n=30,
            stops=(*two_wild, *(Stop(id=f"j{k}", name=f"Inn {k}", at_km=50 * k, shelter="room") for k in range(11, 30))),
        ),
        "idle_shelter",
    )
    assert few[0].sentence.figures["n"].value == 2
    inns_only = days(tent, stops=inns)
    assert offers(inns_only, kinds(inns_only, "idle_shelter")[0])[0].gone == ["tent"]


def test_what_stands_in_is_needed_only_where_the_better_is_not():
    """A tarp beside a tent is needed on no night; alone, or while the tent waits further on, it is."""
    tarp, tent = serving("tarp"), thing("tent", 2, 8, serves=("tent", "fly"))
    late = tent.model_copy(update={"where": (Whereabouts(how="home"), Whereabouts(from_km=240))})
    for kit, nights in (((tarp,), 9), ((tarp, tent), 0), ((tarp, late), 4)):
        tour = days(*kit)
        needed = situation_of(tour, profile_of(tour)).needed.days_of(tarp)
        assert int(needed.sum()) == nights


BEARS = (Hazard(from_km=120, to_km=210, kind="bears"),)


def test_bears_ask_for_spray_in_reach_until_their_stretch_ends():
    """Spray that a hand does not find while riding is a finding; behind the last kilometre it can go home."""
    post = Stop(id="p", name="Town", at_km=260, services=("post",), opens_h=8, closes_h=18)
    early = Stop(id="q", name="Hamlet", at_km=190, services=("post",), opens_h=8, closes_h=18)
    spray = thing("spray", 0.3, 0.5, serves=("bear_spray",), reach="riding")
    tour = days(spray, hazards=BEARS, stops=(early, post))
    deep = tour.model_copy(update={"load": Load(placements=(Placement(thing_id="spray", carrier_id="left"),))})
    assert asks(deep)["bear_spray"] == "too_deep"
    finding = next(f for f in kinds(deep, "not_safe") if "bear_spray" in f.id)
    assert finding.grade == "stops_you"
    near = tour.model_copy(update={"load": Load(placements=(Placement(thing_id="spray", carrier_id="box"),))})
    assert asks(near)["bear_spray"] == "answered"
    home = kinds(near, "may_go_home")[0]
    assert home.at_km == 210
    assert offers(near, home)[0].things[0].where[-1] == Whereabouts(from_km=260, how="posted", stop_id="p")
    helps = mends_of(deep, profile_of(deep), finding.id)
    assert helps[0].moves == [Placement(thing_id="spray", carrier_id="box")]
    assert asks(mended(deep, helps[0]))["bear_spray"] == "answered"


def test_post_that_is_shut_is_passed_by():
    """The fourth of May 2027 is a Tuesday; on it the tour comes by."""
    spray = serving("bear_spray", name="spray")
    shut, open_ = (
        Stop(id=name, name=name, at_km=km, services=("post",), closed_weekdays=days_)
        for name, km, days_ in (("shut", 190, (1, 2)), ("open", 260, ()))
    )
    ahead = (Hazard(from_km=60, to_km=170, kind="bears"),)
    tour = days(spray, hazards=ahead, stops=(shut, open_))
    assert offers(tour, kinds(tour, "may_go_home")[0])[0].things[0].where[-1].stop_id == "open"


def test_a_need_is_answered_without_a_thing_and_asked_again():
    tour = days(serving("pot"), hazards=BEARS)
    assert asks(tour)["food_rope"] == "lacking"
    chosen = tour.model_copy(update={"answers": (AnswerGiven(ask_id="food_rope", how="by_choice", reason="Huts only"),)})
    assert asks(chosen)["food_rope"] == "by_choice"
    assert not any("food_rope" in f.id for f in kinds(chosen, "not_safe"))
    # A thing that answers it is what counts.
    assert asks(chosen.model_copy(update={"kit": (*chosen.kit, serving("food_rope"))}))["food_rope"] == "answered"


def test_own_medicine_lasts_for_the_tour_and_three_days():
    """Ten days, one a day: a box of ten is three short, two boxes are not."""
    box = thing("pills", 0.05, 0.1, serves=("medicine",), role=UsedUp(unit="pieces", holds=10, content_kg=0.02, rate=1))
    tour = days(box)
    short = next(f for f in kinds(tour, "not_safe") if "pills" in f.thing_ids)
    assert [short.sentence.figures[k].value for k in ("lasts", "asked")] == [10, 13]
    assert not any("pills" in f.thing_ids for f in kinds(mended(tour, offers(tour, short)[0]), "not_safe"))


def test_dark_arrivals_ask_for_lamps_and_tunnels_do_too():
    lit = days(serving("head_light"), serving("tail_light"))
    assert not any("head_light" in key for key in asks(lit))
    assert {state for key, state in asks(lit).items() if "tail_light" in key} == {"answered"}  # lit by day as well
    tunnel = days(serving("head_light"), hazards=(Hazard(from_km=10, to_km=12, kind="tunnels"),))
    bike = tunnel.rig.bikes[0].id
    assert asks(tunnel)[f"head_light:{bike}"] == "answered"
    assert asks(tunnel)[f"tail_light:{bike}"] == "lacking"
    assert {f.grade for f in kinds(tunnel, "not_seen") if "tail_light" in f.id} == {"stops_you"}


def test_cash_lies_in_three_places():
    two = (serving("cash", name="purse"), serving("cash", name="belt"))
    assert asks(days(*two))["cash"] == "lacking"
    assert asks(days(*two, serving("cash", name="shoe")))["cash"] == "answered"


def test_every_answer_that_is_offered_answers():
    """Each lack of a cold, wet, wild tour is ended by what is brought against it."""
    tour = days(serving("tent"), serving("rain_trousers"), high=9, low=0, rain=12, hazards=BEARS)
    lacks = [
        f for f in assess(tour, profile_of(tour)).findings if f.kind in ("thin_layers", "not_safe", "no_shelter", "incomplete")
    ]
    assert len(lacks) >= 8
    for finding in lacks:
        mend = offers(tour, finding)[0]
        after = mended(tour, mend)
        Tour.model_validate(after.model_dump())
        assert finding.id not in {f.id for f in assess(after, profile_of(after)).findings}, finding.sentence


def test_an_empty_tour_has_no_answers_yet():
    empty = small_tour()
    questions = assess(empty, None).questions
    assert len(questions) == 10
    assert all(question.open for question in questions)


def test_nothing_is_asked_of_a_kit_that_says_nothing():
    tour = days(thing("pot"), hazards=BEARS)
    found = assess(tour, profile_of(tour))
    assert (found.asks, found.faults, found.layers) == ([], [], [])
    assert {q.id for q in found.questions if q.open} >= {"dressed", "mended", "seen", "safe", "complete"}


# Repairs --------------------------------------------------------------------------------------------------------------


def fault(tour: Tour, name: str):
    return next(f for f in assess(tour, profile_of(tour)).faults if f.id.split(":")[0] == name)


def gap(*kit, km: float = 900, bike=None, **more) -> Tour:
    return days(*kit, n=int(km / 50), bike=bike or pannier_bike(state="usual", tyre_kind="usual"), rain=0, **more)


TUBE = Fit(bead_seat_mm=622, valve="presta", valve_mm=60)


def test_one_puncture_in_900_km_asks_for_three_tubes():
    """Demand 1 on the gap: 3 at 5 % (it stops a rider), where patches do not stand in for tubes."""
    tubes = thing("tubes", 0.15, 0.3, serves=("tube",), fit=TUBE, count=2)
    found = fault(gap(tubes), "puncture")
    assert found.expected == pytest.approx(1.0, abs=0.01)
    assert (found.wanted, found.owned, found.part) == (3, 2, "makeshift")
    assert fault(gap(tubes.model_copy(update={"count": 3})), "puncture").part == "at_hand"
    assert fault(gap(tubes, serving("patches")), "puncture").part == "at_hand"
    # What stops a rider is asked for at least once, however short the gap and low the odds.
    chain, spoke = (fault(gap(tubes, km=100), name) for name in ("chain", "spoke"))
    assert (chain.stops_you, chain.wanted, chain.owned, chain.part) == (True, 0, 0, "missing")
    assert (spoke.stops_you, spoke.part) == (False, "not_asked")


def test_service_halves_and_wear_and_thorns_raise_what_is_expected():
    def expected(**bike) -> float:
        return fault(gap(serving("tube"), bike=pannier_bike(**bike)), "puncture").expected

    assert expected(state="serviced") == pytest.approx(0.5, abs=0.01)
    assert expected(state="worn") == pytest.approx(2, abs=0.01)
    assert expected(tyre_kind="armoured") == pytest.approx(0.4, abs=0.01)
    thorny = gap(serving("tube"), hazards=(Hazard(from_km=0, to_km=450, kind="thorns"),))
    assert fault(thorny, "puncture").expected == pytest.approx(2, abs=0.01)


def test_how_often_a_part_fails_is_the_riders_to_say():
    tour = gap(serving("tube"))
    often = tour.model_copy(update={"own_values": {"puncture_per_1000_km": 2.5}})
    assert fault(often, "puncture").expected == pytest.approx(2.5 * 0.9, abs=0.01)
    assert fault(often, "puncture").wanted > fault(tour, "puncture").wanted
    moved = {
        figure.name: (figure.low, figure.high) for figure in effect_of(tour, profile_of(tour), "puncture_per_1000_km").figures
    }
    low, high = moved["Parts to carry for repairs"]
    assert low < high


def test_pads_wear_by_what_is_ridden_down():
    """By hand, a mean life of 2000 km, shape 3, 0.893 of the characteristic one: with a third of it behind, 1 - exp((0.893 / 3)**3
    - (0.893 * 4 / 3)**3) = 0.810 on 2000 km. A level road wears three tenths of a usual one."""
    assert renewals(2000 / 3, 2000, 2000) == pytest.approx(0.810, abs=0.002)
    assert renewals(0, 5000, 2000) == pytest.approx(0.509 + 1.5, abs=0.003)
    flat = fault(gap(serving("pads"), km=2000), "pads")
    assert flat.expected < 0.3


@pytest.mark.parametrize(
    ("fit", "why"),
    [(Fit(bead_seat_mm=584), "for another wheel"), (Fit(valve="schrader"), "Schrader, the rims take Presta"),
     (Fit(valve="presta", valve_mm=36), "valves of 36 mm, the rim asks for 40")],
)  # fmt: skip
def test_tubes_that_do_not_fit_are_told_apart(fit, why):
    found = fault(gap(thing("t", 0.15, 0.3, serves=("tube",), fit=fit)), "puncture")
    assert found.fits == "missing"
    assert any(why in words for words in found.lacks)


def test_every_bolt_has_its_key():
    """Heads 4, 5, 6 and T25, and no T25: a finding, and the key that is offered ends it."""
    bike = pannier_bike(heads=("hex 4", "hex 5", "hex 6", "T25"))
    tool = thing("tool", 0.2, 0.1, serves=("keys",), fit=Fit(keys=("Hex 4", "hex5", "hex 6")))
    tour = gap(tool, serving("bolts"), bike=bike)
    assert fault(tour, "bolt").lacks == ["no key for T25"]
    drafts = look_for("cannot_mend", situation_of(tour, profile_of(tour)))
    offered = [m for draft in drafts.values() for m in draft.offers() if m.things]
    after = mended(tour, next(m for m in offered if "keys" in m.things[0].serves))
    assert fault(after, "bolt").lacks == []


def test_spokes_chain_and_pads_fit_by_length_speed_and_shape():
    bike = pannier_bike(spokes_mm=(290, 292), speeds=11, pads="round")
    kit = (
        thing("spokes", 0.05, 0.1, serves=("spoke",), fit=Fit(lengths_mm=(290,)), count=9),
        thing("link", 0.01, 0.01, serves=("chain_link",), fit=Fit(speeds=10)),
        thing("pads", 0.03, 0.03, serves=("pads",), fit=Fit(pattern="square"), count=9),
    )
    tour = gap(*kit, bike=bike)
    assert any("none of 292 mm" in words for words in fault(tour, "spoke").lacks)
    assert any("10 sprockets, there are 11" in words for words in fault(tour, "chain").lacks)
    assert any("square, the bike takes round" in words for words in fault(tour, "pads").lacks)


def test_who_cannot_do_it_cannot_mend_it_and_the_gap_is_the_longest():
    shop = Stop(id="b", name="Shop", at_km=600, bike_shop="full")
    tour = gap(serving("spoke"), serving("spoke_key"), stops=(shop,))
    assert fault(tour, "spoke").skill == "missing"
    handy = tour.model_copy(update={"riders": (RIDER.model_copy(update={"mends": "workshop"}),)})
    assert fault(handy, "spoke").skill == "at_hand"
    assert fault(tour, "spoke").gap_km == 600


def test_a_reason_keeps_its_own_figures_beside_the_days():
    """Cash belongs into three places, on however many days it is asked for."""
    tour = days(serving("cash"))
    drafts = look_for_cases("not_safe", situation_of(tour, profile_of(tour)))
    reason = next(draft.reason.metric() for key, draft in drafts.items() if "cash" in key)
    assert reason == "In 3 places, one of them on the body; asked every day."


def test_a_trailers_tube_wants_a_pump_for_its_own_valve():
    towing = pannier_bike(supports=[*pannier_bike().supports, support("trailer_one_wheel", "trailer")])
    bead_seat = next(s.trailer.bead_seat_mm for s in towing.supports if s.trailer)
    tube = thing("t", 0.15, 0.3, serves=("tube",), count=4, fit=Fit(bead_seat_mm=bead_seat, valve="schrader"))
    levers, presta = serving("levers"), thing("pump", 0.1, serves=("pump",), fit=Fit(valve="presta"))
    flat = fault(gap(tube, levers, presta, bike=towing), "trailer_tube")
    assert (flat.fits, flat.lacks) == ("missing", ["its tube takes Schrader, the pump Presta"])
    assert flat.serves == ["pump"]
    both = fault(gap(tube, levers, presta, thing("other", 0.1, serves=("pump",)), bike=towing), "trailer_tube")
    assert (both.fits, both.lacks) == ("at_hand", [])
