"""Camp order, the missing kilo, checks and travel; worked values are common practice or computed by hand beside them."""

from typing import get_args

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from omnifer.core.assess import assess, profile_of
from omnifer.core.diary.journal import Journal
from omnifer.core.load.camp import packing_minutes
from omnifer.core.model.kit import Nature, Whereabouts
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.practice import USUAL
from omnifer.core.model.road import Journey
from omnifer.core.model.roles import Bank, FireLighter, FuelVessel, Mat, Stove
from omnifer.core.model.serves import SERVICES
from omnifer.core.pack.checks import checks_of, serviced
from omnifer.core.pack.companion import WANTED, rider_pages, straps_of
from omnifer.core.pack.missing import Candidate, likeliest
from omnifer.core.pack.travel import flies, leave_by, travel_of
from omnifer.core.pack.weigh import taking_measured, weigh_in
from omnifer.core.rig.catalogue import carrier
from omnifer.core.sentence import say
from tests.conftest import pannier_bike, small_tour, thing
from tests.core.test_diary import told


def test_worked_minutes_of_packing():
    """60 things, 4 rolls, 3 strapped bags: 8 + 4 + 4.5 = 16.5 min, 25 with cold hands."""
    warm = packing_minutes(60, 4, 3, USUAL)
    assert warm == pytest.approx(16.5)
    assert warm * USUAL.cold_hands_times == pytest.approx(25, abs=0.3)


def camping(**changed):
    kit = (
        thing("tent", 1.8, 7, natures=("shelter",)), thing("mat", 0.5, 3, role=Mat(r_value=3)),
        thing("stove", 0.3, 1, role=Stove(burns="gas")), thing("cards", 0.1, 0.2, natures=("first_aid",)),
    )  # fmt: skip
    places = {"tent": "left", "mat": "right", "stove": "left", "cards": "box"} | changed
    load = Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in places.items()))
    return small_tour(*kit, load=load)


def test_the_tent_goes_up_first_and_comes_down_last():
    tour = camping()
    camp = assess(tour, None).camp
    assert [step.moment for step in camp.evening] == ["shelter", "bed", "kitchen"]
    assert [step.moment for step in camp.morning] == ["bed", "kitchen", "shelter"]
    assert camp.bags_opened == 2
    # The stove lies with the tent: in rain that bag lets water in on it.
    assert camp.evening[0].in_rain_opens == ["left"]
    apart = assess(camping(stove="right"), None).camp
    assert apart.evening[0].in_rain_opens == []
    assert camp.things == 4
    # 4 things of 8 s, and each bag closed as its kind closes.
    assert camp.minutes == pytest.approx(packing_minutes(4, 2, 0, USUAL), abs=0.05)


def test_a_saddle_pack_is_dense_by_the_post():
    bike = pannier_bike(carriers=[carrier("saddle_pack", "seat-pack", "saddle").model_dump()])
    kit = (thing("down", 0.6, 5, reach="night"), thing("tools", 0.9, 0.4, reach="breaks"), thing("jacket", 0.4, 2, reach="stop"))
    load = Load(placements=tuple(Placement(thing_id=t.id, carrier_id="seat-pack") for t in kit))
    layers = assess(small_tour(*kit, bikes=(bike,), load=load), None).cards[0].layers
    assert [(layer.thing_id, layer.place) for layer in layers] == [
        ("tools", "by the post"),
        ("down", ""),
        ("jacket", "at the mouth"),
    ]


def cause(kg, low=None, whole=True, deed="stow", **more):
    return Candidate(say("x"), 0.0 if low is None else low, kg, deed, "", whole, **more)


NOISE = np.array([0.05, 0.05])


def test_worked_missing_kilo():
    """1.3 kg of 47.6: a full bottle of 0.75, and guesses that may be off by 0.9 either way, are likelier than either alone: the
    guesses then make up 0.55 x 0.27 / (0.27 + 0.0025) of the rest, as a normal belief does."""
    bottle, guesses = cause(0.75, deed="fill"), cause(0.9, -0.9, whole=False, deed="weigh_thing")
    found, _ = likeliest(np.array([1.3]), np.array([0.05]), [bottle, guesses, cause(0.03)])
    assert [round(takes, 2) for _, takes in found] == [0.75, 0.54]


def test_the_wheel_tells_which_of_two_alike_it_is():
    """Two things of a kilogram, one known to ride in front and one behind: half a kilogram of noise apart, and a rule by the sum
    alone could not tell them."""
    ahead, behind = cause(1.0, front=0.9), cause(1.0, front=0.1)
    for truth, other in ((ahead, behind), (behind, ahead)):
        seen = np.array([truth.front, 1 - truth.front]) + np.array([0.04, -0.03])
        found, others = likeliest(seen, NOISE, [ahead, behind])
        assert [c for c, _ in found] == [truth]
        assert others == [other]


@given(st.floats(-0.08, 0.08), st.floats(-0.08, 0.08), st.floats(0.4, 3))
def test_the_only_cause_of_a_size_is_the_one(front, rear, kg):
    """Against Bayes' rule with scipy's normal density: of things that differ by more than the scale's error the right one."""
    things = [cause(kg + step, front=0.5, apart=0.3) for step in (0.0, 0.3, 0.6)]
    seen = np.array([kg / 2 + front, kg / 2 + rear])
    found, _ = likeliest(seen, NOISE, things)

    def density(c):
        tilt = np.array([1, -1]) * c.apart * c.mean_kg
        return stats.multivariate_normal.logpdf(seen, c.mean_kg / 2 * np.ones(2), np.diag(NOISE**2) + np.outer(tilt, tilt))

    if len(found) == 1:
        assert found[0][0] is max(things, key=density)
    assert abs(sum(takes for _, takes in found) - kg) < 0.5


def test_parts_against_the_scale_wheel_by_wheel():
    """A kilogram more than planned on the rear wheel is a kilogram to explain; a board that is missing is reckoned."""
    tour = camping()
    found = assess(tour, None)
    trace = found.bikes[0]
    front, rear = trace.front_kg[0], trace.rear_kg[0]
    notes = [
        told("weighed", about="touring", word="front_wheel", amount=front),
        told("weighed", about="touring", word="rear_wheel", amount=rear + 1),
    ]
    weighed = weigh_in(tour, found, Journal.of(notes))
    lines = {line.weighed: line for line in weighed.lines}
    read = told("weighed", about="touring", word="rear_wheel", amount=99, readings_kg=(rear + 1, 0.0, rear + 9))
    middle = weigh_in(tour, found, Journal.of([notes[0], read])).lines
    assert next(line for line in middle if line.weighed == "rear_wheel").difference_kg == pytest.approx(1, abs=0.01)
    assert lines["front_wheel"].told == "same"
    assert lines["rear_wheel"].difference_kg == pytest.approx(1, abs=0.01)
    assert lines["whole"].scale_kg == pytest.approx(front + rear + 1, abs=0.01)
    assert weighed.missing[0].to_explain_kg == pytest.approx(1, abs=0.02)
    explained = sum(c.takes_kg for c in weighed.missing[0].causes)
    assert explained + weighed.missing[0].left_kg == pytest.approx(1, abs=0.02)
    zones = sum(zone.kg for zone in weighed.zones)
    assert [zone.name for zone in weighed.zones] == ["Front", "Rear"]
    named = tour.rig.bikes[0].model_copy(update={"carriers": tuple(c.model_copy(update={"zone": "Low"}) for c in tour.carriers)})
    low = weigh_in(
        tour.model_copy(update={"rig": tour.rig.model_copy(update={"bikes": (named,)})}), found, Journal.of(notes)
    ).zones
    assert [(zone.name, zone.kg) for zone in low] == [("Low", pytest.approx(zones, abs=0.02))]
    bare = tour.rig.bikes[0].mass_kg + sum(s.mass_kg for s in tour.rig.bikes[0].supports)
    assert zones == pytest.approx(front + rear - bare, abs=0.02)
    raised = weigh_in(tour, found, Journal.of([told("weighed", about="touring", word="rear_wheel", amount=rear, raised_mm=60)]))
    corrected = next(line for line in raised.lines if line.weighed == "rear_wheel").corrected_kg
    assert corrected == pytest.approx(weighed.board_matters_kg["touring"], abs=0.01)
    assert corrected > 0.1


@pytest.mark.parametrize(("off_kg", "state"), [(0.004, "same"), (0.03, "to_explain")])
def test_a_kitchen_scale_tells_thirty_grams_and_not_four(off_kg, state):
    tour = camping()
    note = told("weighed", about="tent", word="thing", amount=1.8 + off_kg)
    weighed = weigh_in(tour, assess(tour, None), Journal.of([note]))
    assert next(line.told for line in weighed.lines if line.weighed == "thing") == state


def test_what_was_weighed_becomes_the_mass():
    tour = camping()
    tour = tour.model_copy(update={"kit": (tour.kit[0].model_copy(update={"guessed": ("mass", "volume")}), *tour.kit[1:])})
    found = assess(tour, None)
    full = next(card for card in found.cards if card.carrier_id == "left").mass_kg
    bag = next(c for c in tour.carriers if c.id == "left")
    notes = [
        told("weighed", about="tent", word="thing", amount=1.92, kg=1.8),
        told("weighed", about="left", word="bag", amount=full + bag.mass_kg + 0.2),
    ]
    weighed = weigh_in(tour, found, Journal.of(notes))
    _, changed = taking_measured(tour, weighed, "thing/tent")
    assert (changed.kit[0].mass_kg, changed.kit[0].guessed) == (1.92, ("volume",))
    again = weigh_in(tour, found, Journal.of([notes[0], told("weighed", day=2, about="tent", word="thing", amount=1.95)]))
    assert [(e.kg, e.at is None) for e in again.lines[0].earlier] == [(1.92, False), (1.8, True)]
    _, changed = taking_measured(tour, weighed, "bag/left")
    heavier = next(c for c in changed.carriers if c.id == "left")
    assert (heavier.mass_kg, heavier.source) == (pytest.approx(bag.mass_kg + 0.2), "measured")
    assert taking_measured(tour, weighed, "bag/right") is None


def test_the_rider_on_the_scale_tells_where_the_rider_sits():
    tour = camping()
    found = assess(tour, None)
    trace = found.bikes[0]
    front, rear = trace.front_kg[0], trace.rear_kg[0]
    notes = [
        told("weighed", about="touring", word=word, amount=kg)
        for word, kg in (("front_wheel", front), ("rear_wheel", rear), ("front_ridden", front + 25), ("rear_ridden", rear + 45))
    ]
    weighed = weigh_in(tour, found, Journal.of(notes))
    assert (weighed.seats[0].rider_kg, weighed.seats[0].ahead_mm) == (pytest.approx(70), pytest.approx(25 / 70 * 1060, abs=1))
    _, changed = taking_measured(tour, weighed, "seat/touring")
    moved = assess(changed, None).bikes[0]
    assert moved.rider_front_kg == pytest.approx(25, abs=0.1)


def test_a_check_costs_what_its_rule_says_until_it_is_done():
    tour = camping()
    tour = tour.model_copy(update={"kit": (*tour.kit, thing("levers", serves=("levers",)), thing("tube", serves=("tube",)))})
    found = assess(tour, profile_of(tour))
    before = {check.key: check for check in checks_of(tour, found, Journal.of([]))}
    assert before["sealant:touring"].state == "open"
    assert before["sealant:touring"].costs is not None
    assert "after a service" in before["sealant:touring"].costs.metric()
    done = [told("checked", about=key, word="done", author="Ada") for key, check in before.items() if check.of == "service"]
    after = checks_of(tour, found, Journal.of(done))
    assert serviced(after, "touring")
    assert not serviced(list(before.values()), "touring")
    assert {(c.state, c.by, c.costs) for c in after if c.of == "service"} == {("done", "Ada", None)}
    trouble = checks_of(tour, found, Journal.of([told("checked", about="heel:touring", word="trouble")]))
    heel = next(c for c in trouble if c.key == "heel:touring")
    assert heel.state == "trouble"
    assert "pannier further back" in heel.costs.metric()


def test_the_companion_finds_first_aid_and_straps_are_counted():
    tour = camping()
    lines = rider_pages(tour, assess(tour, None))[0].lines
    assert [(line.words, line.bag, line.step) for line in lines if line.words == "First aid"] == [
        ("First aid", "Handlebar bag", "on top")
    ]
    messenger = thing("caller", 0.1, serves=("messenger",), where=(Whereabouts(how="pocket"),))
    with_it = tour.model_copy(update={"kit": (*tour.kit, messenger)})
    called = [line for line in rider_pages(with_it, assess(with_it, None))[0].lines if line.words == "Emergency call"]
    assert [(line.thing, line.bag) for line in called] == [("caller", "in a pocket")]
    for _, natures, serves in WANTED:
        assert set(natures) <= set(get_args(Nature))
        assert set(serves) <= set(SERVICES)
    straps = straps_of(tour)[0]
    assert (straps.needed, straps.spare) == (sum(c.straps for c in tour.carriers), 2)


def test_worked_departure():
    """24 km at 16 km/h before 09:30, half an hour early: leave by 07:30."""
    assert leave_by(9.5, 24, 16) == pytest.approx(7.5)


@pytest.mark.parametrize(("mah", "wh", "answer"), [(26_800, 99.2, "cabin"), (30_000, 111, "ask"), (45_000, 166.5, "not_allowed")])
def test_batteries_on_a_flight(mah, wh, answer):
    """Amp hours at 3.7 V; up to 100 Wh in the cabin, to 160 with approval (IATA guidance for passengers, 2025, from memory)."""
    assert mah * 3.7 / 1000 == pytest.approx(wh, abs=0.1)
    assert flies(mah * 3.7 / 1000) == answer


def test_a_flight_with_fuel_a_bank_and_a_heavy_bike():
    kit = (
        thing("can", 0.1, role=FuelVessel(burns="gas", holds_kg=0.23)), thing("stove", 0.3, role=Stove(burns="gas")),
        thing("bank", 0.5, role=Bank(holds_wh=111), count=3), thing("knife", 0.1, natures=("sharp",)),
        thing("animal-spray", 0.3, serves=("bear_spray",)), thing("insect-spray", 0.1), thing("matches", 0.1, role=FireLighter()),
    )  # fmt: skip
    tour = small_tour(*kit)
    bare = tour.rig.bikes[0].mass_kg + sum(s.mass_kg for s in tour.rig.bikes[0].supports)
    journey = Journey(at_km=0, by="flight", bike_most_kg=bare + 5 + 1, departs_h=9.5, longest_mm=1400)
    tour = tour.model_copy(update={"road": tour.road.model_copy(update={"journeys": (journey,)})})
    lines = travel_of(tour, assess(tour, profile_of(tour)))[0].lines
    said = {(line.answer, line.words.metric()) for line in lines}
    assert any(answer == "fits" and "1.0 kg left" in words for answer, words in said)
    assert any(answer == "over" and "1400 mm" in words for answer, words in said)
    assert any(answer == "not_allowed" and words.startswith("can:") for answer, words in said)
    assert any(answer == "ask" and words.startswith("bank, 111 Wh") for answer, words in said)
    assert any(answer == "to_do" and words.startswith("knife") for answer, words in said)
    assert any(answer == "not_allowed" and words.startswith("animal-spray") for answer, words in said)
    assert {answer for answer, words in said if words.startswith(("insect-spray", "matches"))} == {"ask"}
    assert any(answer == "not_allowed" and words.startswith("3 banks of more than 100 Wh") for answer, words in said)
