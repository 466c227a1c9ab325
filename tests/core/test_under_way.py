"""A diary of anything in any order, and what is told of a day under way."""

import datetime as dt

import pytest
from hypothesis import Phase, event, given, settings
from hypothesis import strategies as st

from omnifer.core.assess import assess, profile_of
from omnifer.core.diary.debrief import debrief
from omnifer.core.diary.journal import Journal, on_road
from omnifer.core.diary.now import replan
from omnifer.core.model.diary import GONE
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import Road, TypedDay, Weather
from omnifer.core.model.roles import Bank, Charger, Device, FuelVessel, Mat, SleepingBag, Stove
from omnifer.core.model.stores import Stores
from omnifer.core.pack.weigh import weigh_in
from tests.conftest import small_tour, thing
from tests.core.test_diary import KIT, STOWED, straight_tour, told

LENGTH_KM = 600.5
VERBS = ("here", "slept", "used", "ate", "drank", "filled", "left", "ran_out", "sent_home", "lost", "given_away", "broke", "bought",
         "spent", "charged", "note", "mended", "washed")  # fmt: skip
ABOUT = ("chair", "lens", "bottle", "wipes", "water", "food", "fuel", "nothing-such")


@pytest.fixture(scope="module")
def planned():
    tour = straight_tour(*KIT, load=STOWED)
    road = profile_of(tour)
    return tour, road, assess(tour, road)


def noted(row):
    verb, day, hour, about, km, amount, phone = row
    more = {"about": about} if verb not in ("bought", "slept") else {}
    if verb == "bought":
        more = {"about": "food"} if about in ("water", "food", "fuel") else {"name": f"New {about}", "kg": 0.2}
    return told(verb, day=day, hour=hour, phone=phone, km=km, amount=amount, **more)


ROWS = st.tuples(
    st.sampled_from(VERBS), st.integers(-3, 14), st.floats(0, 23.9), st.sampled_from(ABOUT), st.none() | st.floats(0, 900),
    st.floats(0, 50), st.sampled_from("ab"),
)  # fmt: skip


@settings(max_examples=40, phases=(Phase.explicit, Phase.generate))
@given(rows=st.lists(ROWS, max_size=14), out=st.integers(-2, 4))
def test_whatever_is_noted_the_tour_goes_on(planned, rows, out):
    """Nothing noted stops the planning; what is told keeps its own rules."""
    tour, road, plan = planned
    journal = Journal.of([told("set_out", day=out, hour=6, phone="a", km=0), *(noted(row) for row in rows)])
    made = replan(tour, plan, road, journal)
    now, here = made.now, made.ridden.here
    event(f"day {min(now.day, 9)}")
    nights = [km for _, km in made.ridden.nights]
    assert nights == sorted(nights)
    assert all(km <= here.km + 1e-3 for km in nights)
    assert 0 <= now.at_km <= LENGTH_KM + 0.1
    assert [d.number for d in made.rest.days] == list(range(1, len(made.rest.days) + 1))
    assert all(day.to_km >= day.from_km for day in made.rest.days)
    assert [day.ridden for day in now.days] == [day.number < now.day for day in now.days]
    assert all(amount >= 0 for _, amount in made.ridden.found.values())
    mass = sum(t.mass_kg * t.count for t in tour.kit)
    gone = -sum(step.kg for step in now.history.steps if step.kg < 0 and "bought" not in step.words.words)
    assert gone <= sum(t.mass_kg * t.count for t in tour.kit) * max(len(rows), 1) + 1e-9
    assert min(made.rest.moments.gear_kg) > 0
    assert max(made.rest.moments.gear_kg) <= max(plan.moments.gear_kg) + 0.2 * 50 * len(rows) + mass
    # What a thing's entry says stands among the doubts where it cannot be.
    strange = [t for t in on_road(journal) if t.entry.verb in GONE and t.entry.about == "nothing-such"]
    assert sum(d.kind == "unknown" for d in now.doubts) >= len(strange)
    found = debrief(tour, plan, made, journal)
    assert all(rate.low <= rate.mean <= rate.high for rate in found.rates)
    assert {s.thing_id for s in found.stories} >= {t.id for t in tour.kit}
    weigh_in(tour, plan, journal)


def test_a_typed_road_and_no_road_at_all_keep_a_diary_too():
    typed = small_tour(road=Road(typed_days=(TypedDay(distance_km=60), TypedDay(distance_km=60))))
    entries = Journal.of([told("set_out", hour=8, km=0), told("here", hour=15, km=40)])
    road = profile_of(typed)
    now = replan(typed, assess(typed, road), road, entries).now
    assert (now.at_km, now.day, now.days[0].to_km) == (40, 1, 60)
    bare = small_tour(road=Road())
    nowhere = replan(bare, assess(bare, None), None, entries).now
    assert (nowhere.at_km, nowhere.days, nowhere.planned) == (0, [], [])


def cooking_tour():
    kit = (
        *KIT, thing("stove", 0.3, 1, role=Stove(burns="gas")), thing("can", 0.1, 0.4, role=FuelVessel(burns="gas", holds_kg=0.23)),
        thing("phone", 0.2, 0.1, role=Device(wh_a_day=12, battery_wh=15)), thing("bank", 0.3, 0.2, role=Bank(holds_wh=37)),
        thing("charger", 0.1, 0.1, role=Charger()), thing("levers", 0.05, 0.1, serves=("levers",)),
    )  # fmt: skip
    more = tuple(Placement(thing_id=t.id, carrier_id="right") for t in kit[len(KIT) :])
    load = Load(placements=(*STOWED.placements, *more))
    tour = straight_tour(*kit, load=load, stores=Stores(cooking="cook"))
    stops = tuple(s.model_copy(update={"fuels": ("gas",), "services": ("plugs",)}) for s in tour.road.stops)
    return tour.model_copy(update={"road": tour.road.model_copy(update={"stops": stops})})


def test_what_comes_next_and_what_a_button_offers():
    """In the middle of the third day: the next place with water is at km 180, the next shop at 240."""
    tour = cooking_tour()
    road = profile_of(tour)
    plan = assess(tour, road)
    nights = [told("set_out", hour=8, km=0), told("slept", hour=20, km=60), told("slept", day=2, hour=20, km=120)]
    now = replan(tour, plan, road, Journal.of([*nights, told("here", day=3, hour=12, km=150)])).now
    coming = {p.verb: p for p in now.planned}
    assert (coming["fill"].at_km, coming["fill"].ahead_km) == (180, 30)
    assert (coming["buy"].at_km, coming["buy"].ahead_km) == (240, 90)
    lanes = {lane.key: lane.a_day for lane in plan.stores.lanes}
    offers = {d.about: d for d in now.defaults}
    assert offers["fuel"].amount == pytest.approx(lanes["fuel"], abs=0.006)
    assert offers["water"].amount == pytest.approx(lanes["water"], abs=0.26)
    assert (offers["wipes"].amount, offers["wipes"].unit) == (2, "pieces")


def test_ahead_of_the_plan_and_where_it_is():
    tour, road = straight_tour(), None
    road = profile_of(tour)
    plan = assess(tour, road)
    day = plan.days[0]
    half = (day.start_h + day.arrive_h) / 2
    out = told("set_out", hour=day.start_h - 0.5, km=0)
    at_noon = replan(tour, plan, road, Journal.of([out, told("here", hour=half, km=30)])).now
    assert at_noon.behind_km == pytest.approx(0, abs=1)
    ahead = replan(tour, plan, road, Journal.of([out, told("here", hour=half, km=55)])).now
    assert ahead.behind_km == pytest.approx(-25, abs=1)
    assert "25 km ahead of the plan" in ahead.sentence.metric()
    assert ahead.behind_days < 0
    arrived = replan(tour, plan, road, Journal.of([out, told("arrived", day=10, hour=17)])).now
    assert (arrived.over, arrived.at_km, arrived.sentence.metric()) == (
        True,
        pytest.approx(LENGTH_KM, abs=0.1),
        "You have arrived.",
    )
    assert arrived.findings == []


@pytest.mark.parametrize(
    ("entries", "due"),
    [
        ([("here", 1, 12, 3)], []),
        ([("here", 1, 12, 7)], [("bolts", "bolts-5")]),
        ([("checked", 1, 11, 0), ("here", 1, 12, 7)], []),
        ([("checked", 1, 11, 0), ("here", 1, 12, 25)], [("bolts", "bolts-20")]),
        ([("here", 2, 19, 70)], [("bolts", "bolts-20"), ("slept", ""), ("water_left", ""), ("food_left", "")]),
    ],
)
def test_questions_are_asked_when_they_are_due(entries, due):
    tour = straight_tour()
    road = profile_of(tour)
    rows = [told("set_out", hour=6, km=0)]
    for verb, day, hour, km in entries:
        more = {"about": "bolts-5", "word": "done"} if verb == "checked" else {"km": km}
        rows.append(told(verb, day=day, hour=hour, **more))
    now = replan(tour, assess(tour, road), road, Journal.of(rows)).now
    assert [(q.key, q.about) for q in now.tonight] == due


def test_rates_of_supplies_follow_what_was_noted():
    """Twice the water, 1.5 times the fuel, 60 Wh a day where 12 are reckoned: each factor is what its belief says."""
    tour = cooking_tour()
    road = profile_of(tour)
    plan = assess(tour, road)
    lanes = {lane.key: lane.a_day for lane in plan.stores.lanes}
    litres_h = sum(g.riding for g in plan.gaps if g.supply == "water") / sum(d.riding_hours for d in plan.days)
    walls = sum(deed.amount for stop in plan.stores.stops for deed in stop.deeds if deed.verb == "charge")
    entries = [told("set_out", hour=6, km=0)]
    for day in range(1, 10):
        hours = plan.days[day - 1].riding_hours
        entries += [
            told("drank", day=day, hour=18, about="water", amount=2 * litres_h * hours, km=60.0 * day),
            told("used", day=day, hour=19, about="fuel", amount=1.5 * lanes["fuel"], km=60.0 * day),
            told("charged", day=day, hour=20, about="power", amount=60, km=60.0 * day),
        ]
    entries += [told("mended", day=d, hour=9, about="puncture", km=60.0 * d) for d in (2, 5)]
    entries += [told("packed_in", day=d, hour=7, amount=2 * plan.camp.minutes, km=60.0 * (d - 1)) for d in range(2, 7)]
    entries.append(told("arrived", day=10, hour=18))
    journal = Journal.of(entries)
    rates = {r.key: r for r in debrief(tour, plan, replan(tour, plan, road, journal), journal).rates}
    # Ten days of assumption against nine of notes; ten days ridden with nine notes of fuel, of which people differ by half: the
    # assumption is worth four portions of 15 g. What no plug was planned to give was used beyond the plan.
    worth = 4 * 0.015 / lanes["fuel"]
    assert rates["water"].takes_value == pytest.approx((10 + 9 * 2) / 19, abs=0.03)
    assert rates["fuel"].takes_value == pytest.approx((worth + 9 * 1.5) / (worth + 10), abs=0.01)
    assert rates["power"].mean == pytest.approx((20 * lanes["power"] + 9 * 60 - walls) / 20, rel=0.01)
    assert rates["packing"].takes_value == pytest.approx((10 + 5 * 2) / 15, abs=0.01)
    assumed = rates["punctures"].assumed
    assert rates["punctures"].mean == pytest.approx((0.6 * assumed + 2) / (0.6 + 0.6), rel=0.01)
    assert rates["punctures"].sure == "a_hint"
    assert rates["water"].noted.metric().startswith("9 days of water")
    assert {r.key for r in rates.values() if r.takes == "nothing"} == {"climb_a_day"}


@pytest.mark.parametrize(("low_c", "felt", "least", "most"), [(2.0, ("cold", "right"), -1, 1), (9.0, ("right", "right"), -1, 1), (2.0, ("cold", "cold"), 2, 5), (8.0, ("cold", "cold"), 6, 10)])  # fmt: skip
def test_a_night_teaches_by_how_warm_it_was(low_c, felt, least, most):
    """A bag for 2 °C on its mat. Cold on every other night of 2 °C: as the label says. Cold on nights of 8: a cold sleeper, and the
    colder the warmer the nights were. Nine nights each; people differ by 3 K, nights by 3 and by 2 in how they are felt."""
    mat, bag = Mat(r_value=4.83), SleepingBag(comfort_c=2)
    weather = (Weather(from_km=0, day_high_c=20, night_low_c=low_c, at_elevation_m=400),)
    tour = straight_tour(thing("bag", 1, 6, role=bag, rider_id="ada"), thing("mat", 0.5, 2, role=mat, rider_id="ada"))
    tour = tour.model_copy(update={"road": tour.road.model_copy(update={"weather": weather})})
    road = profile_of(tour)
    plan = assess(tour, road)
    rows = [told("set_out", hour=7, km=0), *(told("slept", day=d, hour=8, km=60.0 * (d - 1), word=felt[d % 2]) for d in range(2, 11)),
            told("arrived", day=10, hour=18)]  # fmt: skip
    journal = Journal.of(rows)
    rate = {r.key: r for r in debrief(tour, plan, replan(tour, plan, road, journal), journal).rates}["sleep"]
    assert least < rate.mean < most
    assert rate.low < (least + most) / 2 < rate.high


def test_the_end_moves_with_the_days_that_are_lost():
    """A day of rest that was not planned ends the tour a day later, and so does the date of every day to come."""
    tour = straight_tour()
    road = profile_of(tour)
    plan = assess(tour, road)
    entries = [
        told("set_out", hour=6, km=0),
        told("slept", hour=20, km=60),
        told("slept", day=2, hour=20, km=60),
        told("here", day=3, hour=7, km=60),
    ]
    made = replan(tour, plan, road, Journal.of(entries))
    assert made.now.end_date - made.now.planned_end == dt.timedelta(days=1)
    assert made.rest.days[3].date == tour.start_date + dt.timedelta(days=3)
    assert made.now.behind_days == pytest.approx(1, abs=0.2)
