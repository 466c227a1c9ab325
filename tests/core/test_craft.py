"""The craft: how bags are packed and trusted, what a bike's own parts do over weeks, and what a body needs to go on."""

import datetime as dt

import numpy as np
import pytest
from scipy.optimize import brentq
from scipy.stats import weibull_min

from omnifer.core.assess import assess, profile_of, situation_of
from omnifer.core.choices import choices_of
from omnifer.core.diary.journal import Journal
from omnifer.core.findings import look_for
from omnifer.core.load.nesting import as_one
from omnifer.core.load.rules import spot_of, why_not
from omnifer.core.mends import mended
from omnifer.core.model.aims import Aims
from omnifer.core.model.kit import Thing, Whereabouts
from omnifer.core.model.library import bag_owned, bag_taught
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.needs import Ask
from omnifer.core.model.part import BikePart
from omnifer.core.model.rig import Bike, Carrier, OuterSize
from omnifer.core.model.road import Hazard, MonthNormals, Road, Station, Stop, SurfaceStretch, TypedDay
from omnifer.core.model.roles import Bank, Cable, Device, Stove
from omnifer.core.model.tour import Tour
from omnifer.core.needs import wear
from omnifer.core.pack.checks import checks_of
from omnifer.core.pack.first_aid import contents
from omnifer.core.physics import sun
from omnifer.core.ranking import rank
from omnifer.core.rig.catalogue import carrier
from tests.conftest import RIDER, pannier_bike, small_tour, thing
from tests.core.offered import offers

KM = 1000.0


def ridden(*parts: BikePart, surface: str | None = None, days: int = 10, shop_km: float | None = None, **bike: object) -> Tour:
    """Ten level days of 100 km on one kind of ground."""
    surfaces = () if surface is None else (SurfaceStretch(from_km=0, to_km=100 * days, surface=surface),)
    stops = () if shop_km is None else (Stop(id="bo", name="Bo", at_km=shop_km, bike_shop="full"),)
    road = Road(typed_days=(TypedDay(distance_km=100),) * days, surfaces=surfaces, stops=stops)
    return small_tour(thing("socks", serves=("off_bike",)), bikes=(pannier_bike(parts=parts, **bike),), road=road)


def worn(tour: Tour) -> dict[str, object]:
    return {part.kind: part for part in assess(tour, profile_of(tour)).parts}


def rain_of(tour: Tour) -> float:
    return assess(tour, profile_of(tour)).days[0].rain_chance


def test_a_chain_ends_where_its_life_is_ridden_up():
    """Behind it 3,000 of 4,000 km: 1,000 are left, which so wet a road uses up (1 + chance of rain) times as fast; by hand."""
    chain = BikePart(kind="chain", behind_km=3500, lasts_km=4000)
    tour = ridden(chain)
    part = worn(tour)["chain"]
    assert part.ends_km == pytest.approx(500 / (1 + rain_of(tour)), abs=0.02)
    assert part.ends_day == np.ceil(part.ends_km / 100)
    assert worn(ridden(chain.model_copy(update={"renewed_km": 300.0})))["chain"].state == "renewed"
    assert worn(ridden(chain.model_copy(update={"renewed_km": 900.0})))["chain"].state == "ends"
    assert worn(ridden(chain.model_copy(update={"behind_km": 0.0})))["chain"].state == "lasts"


def test_ground_wears_what_it_wears():
    """Of the table: gravel takes 1.3 times as much of a tyre, sand twice as much of a chain; cables mind no gravel.
    A slower road asks for more on board, which adds a little."""
    smooth, gravel, sand = (worn(ridden(surface=on)) for on in (None, "gravel", "soft"))
    assert gravel["rear_tyre"].takes_km == pytest.approx(1.3 * smooth["rear_tyre"].takes_km, rel=0.02)
    assert sand["chain"].takes_km == pytest.approx(2 * smooth["chain"].takes_km, rel=1e-6)
    assert gravel["cables"].takes_km == smooth["cables"].takes_km


def test_what_is_heavier_wears_its_tyres_sooner_and_its_chain_no_sooner():
    light, heavy = (worn(ridden(mass_kg=kg)) for kg in (15.0, 26.0))
    more = 11.0 / wear.USUAL_KG * KM
    assert heavy["rear_tyre"].takes_km - light["rear_tyre"].takes_km == pytest.approx(more, rel=0.01)
    assert heavy["chain"].takes_km == light["chain"].takes_km


@pytest.mark.parametrize(("behind", "life"), [(0.0, 4000.0), (1500.0, 3000.0), (2600.0, 3000.0), (3000.0, 9000.0)])
def test_the_chance_that_a_part_wears_out_is_the_conditional_weibull_one(behind: float, life: float):
    """scipy's Weibull distribution of shape 3 with that mean, given that it has lasted so far."""
    part = worn(ridden(BikePart(kind="rear_tyre", behind_km=behind, lasts_km=life)))["rear_tyre"]
    spread = weibull_min(3.0, scale=life / weibull_min(3.0).mean())
    expected = 1 - spread.sf(behind + part.takes_km) / spread.sf(behind)
    assert part.chance == pytest.approx(expected, abs=2e-4)


def test_what_a_service_renews_and_what_not():
    """Chain, pads and cables; tyres and sprockets stay as they are."""
    serviced = worn(ridden(state="serviced"))
    assert [serviced[kind].behind_km for kind in ("chain", "pads", "cables")] == [0, 0, 0]
    assert serviced["rear_tyre"].behind_km == pytest.approx(5000 / 3, abs=0.1)
    assert not any(part.said for part in serviced.values())


def test_a_worn_part_is_told_with_where_it_ends_and_every_mend_ends_that():
    tyre = BikePart(kind="rear_tyre", behind_km=4500, lasts_km=5000)
    tour = ridden(tyre, shop_km=150.0)
    finding = next(f for f in assess(tour, profile_of(tour)).findings if f.kind == "part_ends")
    assert 0 < finding.at_km < 600
    assert finding.grade == "worth_knowing"
    told = offers(tour, finding)
    assert [m.name.words.split(" ", 1)[0] for m in told] == ["New", "New", "Bring"]
    for mend in told:
        after = mended(tour, mend)
        assert not [f for f in assess(after, profile_of(after)).findings if f.kind == "part_ends"], mend.name
    no_shop = ridden(tyre)
    assert next(f.grade for f in assess(no_shop, profile_of(no_shop)).findings if f.kind == "part_ends") == "slows_you"


def care(tour: Tour, kind: str) -> list[int]:
    return [task.day for task in assess(tour, profile_of(tour)).care if task.kind == kind]


def test_the_evenings_on_which_a_bike_asks_for_something():
    """Days of 100 km: bolts each week, spokes each 1,000 km, by hand; oil by what a wet day takes of it: for wet oil of 300 km
    as much again, for dry oil of 180 km three times more."""
    tour = ridden(days=15)
    wet, rain = 300.0, rain_of(tour)
    assert care(tour, "look") == [7, 14]
    assert care(tour, "spokes") == [10]
    assert care(tour, "oil")[0] == np.ceil(wet / (100 * (1 + rain)))
    assert care(ridden(days=15, lube="dry"), "oil")[0] == np.ceil(180 / (100 * (1 + 3 * rain)))
    assert care(tour, "clean") == []
    assert care(ridden(surface="soft", days=8), "clean") == [3, 6]
    renewed = ridden(BikePart(kind="chain", renewed_km=250.0))
    assert care(renewed, "renew") == [3]


def seconds_a_km(bike: Bike, rolling: float, mass_kg: float, power_w: float) -> float:
    """Level road, solved by another library from the power balance [s/km]."""
    density, drag = 1.225, bike.drag_area_m2 + 0.036

    def surplus(v: float) -> float:
        return (rolling * mass_kg * 9.80665 + 0.5 * density * drag * v * v) * v - 0.95 * power_w

    return 1000 / brentq(surplus, 0.1, 20)


def test_another_tyre_costs_what_its_rolling_costs():
    """Slick tyres on asphalt roll 0.95 as hard, knobbly ones 1.3: minutes a day by an own power balance, in still air."""
    tour = ridden()
    bike, found = tour.rig.bikes[0], {c.id: c for c in choices_of(tour, profile_of(tour), "touring")}
    mass = 70 + bike.mass_kg + sum(x.mass_kg for x in (*bike.supports, *bike.carriers)) + 1
    mass += sum(float(np.mean(supply.mass_kg)) for supply in assess(tour, profile_of(tour)).moments.supplies)
    assert found["slick"].minutes_a_day < 0 < found["knobbly"].minutes_a_day
    for choice, times in (("slick", 0.95), ("knobbly", 1.3)):
        kg = found[choice].kg
        both = [seconds_a_km(bike, 0.009 * t, mass + more, 110) for t, more in ((times, kg), (1.0, 0.0))]
        assert found[choice].minutes_a_day == pytest.approx((both[0] - both[1]) * 100 / 60, rel=0.04)
    taken = found["knobbly"].bike
    assert taken.tread == "knobbly"
    assert "knobbly" not in {c.id for c in choices_of(small_tour(bikes=(taken,)), None, "touring")}
    with pytest.raises(KeyError):
        choices_of(tour, None, "nobody's")


def stowed(*kit: Thing, bags: list[Carrier], aims: Aims | None = None, where: dict[str, str] | None = None) -> Tour:
    """Things in the first bag, or in those named."""
    places = tuple(Placement(thing_id=t.id, carrier_id=(where or {}).get(t.id, bags[0].id), count=t.count) for t in kit)
    bike = pannier_bike(carriers=[bag.model_dump() for bag in bags])
    return small_tour(*kit, bikes=(bike,), load=Load(placements=places), aims=aims or Aims())


def kinds(tour: Tour) -> list[tuple[str, tuple[str, ...]]]:
    return [(f.kind, tuple(f.thing_ids)) for f in assess(tour, profile_of(tour)).findings]


def test_a_thick_thing_does_not_enter_a_narrow_bag():
    """A half frame bag is 66 mm wide as the table has it; a pannier 168, and as wide as its rider measured it."""
    pot = thing("pot", 0.4, 1.2, thick_mm=100)
    bags = {
        kind: carrier(kind, kind, "frame_triangle" if "frame" in kind else "rack") for kind in ("half_frame_bag", "rear_pannier")
    }
    bike = pannier_bike()
    assert why_not(pot, spot_of(bike, bags["half_frame_bag"])).figures["over"].value == pytest.approx(34)
    assert why_not(pot, spot_of(bike, bags["rear_pannier"])) is None
    assert why_not(pot, spot_of(bike, bags["half_frame_bag"].model_copy(update={"thick_mm": 110.0}))) is None
    in_a_bag = small_tour(thing("cooking", 0.1, 0.1, bag=True), pot.model_copy(update={"inside": "cooking"}))
    assert as_one(in_a_bag).kit[0].thick_mm == 100


def test_what_lies_at_the_mouth_of_a_roll_is_reached_at_a_stop():
    """Two litres find room at one mouth, four at both; the smallest first, rain wear whatever its size."""
    small = [thing(f"small-{n}", 0.1, 0.9, reach="stop", count=1) for n in range(5)]
    jacket = thing("jacket", 0.3, 3, reach="stop", serves=("rain_jacket",))
    for kind, mount, there in (("saddle_pack", "saddle", 2), ("handlebar_roll", "handlebar", 4)):
        bag = carrier(kind, "roll", mount, limit_kg=9)
        deep = [ids for what, ids in kinds(stowed(*small, bags=[bag])) if what == "too_deep"]
        assert len(deep[0]) == 5 - there
        assert "jacket" not in str(kinds(stowed(jacket, bags=[bag])))
    card = next(
        c for c in assess(stowed(small[0], thing("tent", 1, 6), bags=[carrier("saddle_pack", "p", "saddle")]), None).cards
    )
    assert [layer.place for layer in card.layers][-1] == "at the mouth"


def test_two_walls_where_one_is_not_trusted():
    """Down in a proof bag has one wall; a liner, or a dry bag of its own, is the second. Each mend ends it."""
    down, bag = thing("quilt", 0.7, 6, natures=("down",), dry="must"), carrier("rear_pannier", "left", "rack", "left")
    assert "not_dry" not in dict(kinds(stowed(down, bags=[bag])))
    doubting = stowed(down, bags=[bag], aims=Aims(two_walls=True))
    found = next(f for f in assess(doubting, profile_of(doubting)).findings if f.kind == "not_dry")
    told = offers(doubting, found)
    assert len(told) == 2
    for mend in told:
        assert "not_dry" not in dict(kinds(mended(doubting, mend))), mend.name
    splashed = stowed(down, bags=[carrier("half_frame_bag", "frame", "frame_triangle", longest_mm=900, volume_l=20)])
    assert "not_dry" in dict(kinds(splashed))
    lined = stowed(down, bags=[carrier("half_frame_bag", "frame", "frame_triangle", longest_mm=900, volume_l=20, liner=True)])
    assert "not_dry" not in dict(kinds(lined))


def test_a_bag_that_stands_over_another_comes_off_first():
    """A roll of 270 mm covers a third of a pannier's mouth, one of 560 mm all of it: strapped, 2 x 90 s."""
    pannier, roll = carrier("rear_pannier", "left", "rack", "left"), carrier("rack_top_bag", "roll", "rack")
    size = OuterSize(length_mm=460, height_mm=230, width_mm=560)
    wide = roll.model_copy(update={"size": size})
    snack = thing("lunch", 0.5, 1, reach="stop")
    free, under = (stowed(snack, bags=[pannier, over]) for over in (roll, wide))
    assert [c.under for c in assess(free, None).cards] == [[], []]
    card = assess(under, None).cards[0]
    assert (card.under, card.under_minutes) == (["roll"], 3.0)
    told = [f for f in assess(under, profile_of(under)).findings if f.kind == "too_deep"]
    assert told[0].thing_ids == ["lunch"]
    assert told[0].reason.figures["time"].value == 3


def test_what_is_held_sways_later_and_is_looked_at_first():
    """Three kilograms usual in a saddle pack, half as much again with a strap more; what hops and chafes is on the list."""
    pack = carrier("saddle_pack", "p", "saddle")
    assert (pack.sways_from_kg, pack.model_copy(update={"steadied": True}).sways_from_kg) == (3.0, 4.5)
    rough = (SurfaceStretch(from_km=0, to_km=60, surface="gravel"),)
    little = (SurfaceStretch(from_km=10, to_km=11, surface="gravel"),)
    keys = {}
    for name, surfaces in (("smooth", ()), ("little", little), ("rough", rough)):
        tour = stowed(
            thing("x"),
            bags=[pack, carrier("rear_pannier", "left", "rack", "left"), carrier("bottle_cage", "b", "down_tube_bolts")],
        )
        tour = tour.model_copy(update={"road": tour.road.model_copy(update={"surfaces": surfaces})})
        keys[name] = {
            c.key.split(":")[0] for c in checks_of(tour, assess(tour, profile_of(tour)), Journal.of([])) if c.of == "again"
        }
    assert keys["rough"] - keys["smooth"] == {"hooks", "bottles"}
    assert keys["little"] == keys["smooth"]
    assert "sinks" in keys["smooth"]


@pytest.mark.parametrize(
    ("lat_deg", "month", "ozone_du", "told", "off"), [(52.5, 6, 350, 7, 1.0), (39.5, 7, 310, 9, 2.0), (52.5, 1, 330, 1, 0.6)]
)
def test_the_uv_index_is_what_is_told_of_such_places(lat_deg: float, month: int, ozone_du: float, told: float, off: float):
    """WHO 2002, Global solar UV index: a practical guide, monthly means of the highest of a day: Berlin and Palma; from memory."""
    sine = sun.height_sine(lat_deg, sun.declination(dt.date(2027, month, 21)), 12.0)
    assert float(sun.uv_index(sine, ozone_du, 0, 0.1)) == pytest.approx(told, abs=off)


def test_the_uv_index_at_the_zenith_and_on_a_height():
    """12.5 under 300 Dobson units by Madronich (2007); a tenth more for each kilometre."""
    assert sun.uv_index(1.0, 300, 0, 0.1) == pytest.approx(12.5)
    assert sun.uv_index(1.0, 300, 2000, 0.1) == pytest.approx(15.0)
    assert sun.uv_index([-0.2, 0.0], 300, 0, 0.1).tolist() == [0, 0]


def asks(tour: Tour) -> dict[str, Ask]:
    return {ask.id: ask for ask in assess(tour, profile_of(tour)).asks}


def test_a_body_asks_by_what_the_road_does_to_it():
    """Long days for the seat, teeth where there are evenings, hands before food; what lacks of all that is one finding."""
    socks = thing("socks", serves=("off_bike",))
    short = small_tour(socks)
    long = small_tour(socks, road=Road(typed_days=(TypedDay(distance_km=110),) * 5))
    assert not {"saddle_cream", "tooth_care"} & set(asks(short))
    assert {"saddle_cream", "tooth_care", "hand_clean"} <= set(asks(long))
    told = look_for("not_safe", situation_of(long, profile_of(long)))
    assert sum(key.endswith("habits") for key in told) == 1
    named = small_tour(socks, thing("brush", 0.02, 0.05).model_copy(update={"name": "Toothbrush"}), road=long.road)
    assert asks(named)["tooth_care"].state == "answered"
    assert {s.uses for s in rank(named, profile_of(named)).things if s.thing_id == "brush"} == {5}
    washed = small_tour(socks, thing("bag", serves=("soap",)), road=long.road)
    assert {asks(washed)[one].state for one in ("tooth_care", "hand_clean")} == {"answered"}


def test_who_says_it_once_is_heard_by_every_rule():
    """Cold hands are dressed as if it were four kelvins colder, weak eyes want second glasses, medicine its pouch in the heat."""
    mild = Station(id="m", name="M", at_km=0, months=(MonthNormals(mean_max_c=21, mean_min_c=14),) * 12)
    road = Road(typed_days=(TypedDay(distance_km=60),) * 3, stations=(mild,))
    pills = thing("pills", 0.05, 0.1, serves=("medicine",), natures=("cool",))
    usual, cold = (
        small_tour(pills, road=road, riders=(RIDER.model_copy(update={"cold_hands": hands}),)) for hands in (False, True)
    )
    assert "gloves:ada" not in asks(usual)
    assert "gloves:ada" in asks(cold)
    weak = small_tour(pills, road=road, riders=(RIDER.model_copy(update={"weak_eyes": True}),))
    assert asks(weak)["lenses:ada"].grade == "slows_you"
    assert "cool_pouch" not in asks(usual)
    hot = Station(id="h", name="H", at_km=0, months=(MonthNormals(mean_max_c=33, mean_min_c=18),) * 12)
    assert asks(small_tour(pills, road=road.model_copy(update={"stations": (hot,)})))["cool_pouch"].state == "lacking"


def test_a_first_aid_kit_by_hours_to_help_riders_and_hazards():
    """By hand: for two riders and five days 4 x 2 + 1 plasters; far away a bandage that presses; a stove, and ticks."""
    two = (RIDER, RIDER.model_copy(update={"id": "ben", "name": "Ben"}))
    near = small_tour(
        thing("x"), riders=two, bikes=(pannier_bike(), pannier_bike(id="b", rider_id="ben", supports=[], carriers=[]))
    )
    near = near.model_copy(update={"road": Road(typed_days=(TypedDay(distance_km=50),) * 5)})
    items = {item.key: item for item in contents(near, assess(near, profile_of(near)))}
    assert items["plasters"].words.figures["n"].value == 9
    assert "pressure" in items
    assert not {"burns", "ticks"} & set(items)
    shops = tuple(Stop(id=f"s{n}", name=f"S{n}", at_km=n, shop="full") for n in range(5, 250, 5))
    tended = near.road.model_copy(update={"stops": shops, "hazards": (Hazard(kind="ticks", from_km=0, to_km=9),)})
    tended_tour = near.model_copy(update={"road": tended, "kit": (thing("stove", role=Stove(burns="gas")),)})
    items = {item.key for item in contents(tended_tour, assess(tended_tour, profile_of(tended_tour)))}
    assert {"burns", "ticks", "stings"} <= items
    assert "pressure" not in items


def test_what_is_lost_together_goes_apart():
    cards = thing("card", 0.01, 0.01, serves=("bank_card",)), thing("second-card", 0.01, 0.01, serves=("bank_card",))
    box, side = carrier("handlebar_box", "box", "handlebar"), carrier("rear_pannier", "left", "rack", "left")
    tour = stowed(*cards, bags=[box, side])
    finding = next(f for f in assess(tour, profile_of(tour)).findings if f.kind == "one_bag")
    after = mended(tour, offers(tour, finding)[0])
    assert "one_bag" not in dict(kinds(after))
    assert "one_bag" not in dict(kinds(stowed(*cards, bags=[box, side], where={"second-card": "left"})))
    assert "one_bag" not in dict(kinds(stowed(cards[0], bags=[box])))


def test_a_saddle_that_is_not_broken_in_is_said():
    for behind, told in ((60.0, True), (400.0, False), (None, False)):
        tour = ridden(*([BikePart(kind="saddle", behind_km=behind)] if behind is not None else []))
        assert ("untried" in dict(kinds(tour))) is told
    tour = ridden(BikePart(kind="saddle", behind_km=60.0))
    finding = next(f for f in assess(tour, profile_of(tour)).findings if f.kind == "untried")
    assert "untried" not in dict(kinds(mended(tour, offers(tour, finding)[0])))


def test_a_cable_for_every_socket():
    phone = thing("phone", 0.2, 0.1, role=Device(wh_a_day=8, battery_wh=15, socket="C"))
    cables = {ends: thing("cable", 0.03, 0.05, role=Cable(ends=ends), count=2) for ends in ((), ("c",), ("micro",))}
    for ends, told in (((), False), (("c",), False), (("micro",), True)):
        found = [f for f in assess(small_tour(phone, cables[ends]), None).findings if f.kind == "no_plug"]
        assert bool(found) is told, ends


def test_a_bag_that_is_owned_acts_on_the_next_rig():
    """What swayed at 4 kg bears 3.2 from then on, what let water in is not proof, what was hard to reach lies deeper."""
    pack = bag_owned(carrier("saddle_pack", "p", "saddle", library_id="lib"))
    assert pack.hung.library_id is None
    assert bag_taught(pack, "sways", "It swayed.", 4.0).hung.limit_kg == pytest.approx(3.2)
    wet = bag_taught(pack, "wet", "It let water in.", 2.0)
    assert wet.hung.leaks
    assert (wet.condition, wet.last_time) == ("worn", "It let water in.")
    assert bag_taught(bag_owned(carrier("handlebar_box", "b", "handlebar")), "hard_to_reach", "", 1.0).hung.reach == "stop"
    assert bag_taught(pack, "good", "Good.", 1.0).hung == pack.hung


def test_what_is_fixed_outside_wants_a_cover_where_it_rains():
    wet = Station(id="w", name="W", at_km=0, months=(MonthNormals(mean_max_c=15, mean_min_c=8, rain_days=20),) * 12)
    dry = wet.model_copy(update={"months": (MonthNormals(mean_max_c=15, mean_min_c=8, rain_days=0),) * 12})
    computer = thing("computer", 0.1, 0.1, dry="must", where=(Whereabouts(how="fixed", spot="bar_left"),))
    for station, told in ((wet, True), (dry, False)):
        tour = small_tour(computer, road=Road(typed_days=(TypedDay(distance_km=60),) * 4, stations=(station,)))
        assert ("gets_wet" in dict(kinds(tour))) is told
    tour = small_tour(computer, road=Road(typed_days=(TypedDay(distance_km=60),) * 4, stations=(wet,)))
    finding = next(f for f in assess(tour, profile_of(tour)).findings if f.kind == "gets_wet")
    assert "gets_wet" not in dict(kinds(mended(tour, offers(tour, finding)[0])))


def test_what_was_not_charged_dies_sooner():
    """15 Wh at 6 a day last two days and a half, a half of it a day and a quarter; by hand."""

    def dies(charged: float) -> int:
        phone = thing("phone", 0.2, 0.1, role=Device(wh_a_day=6, battery_wh=15, charged=charged))
        tour = small_tour(phone, road=Road(typed_days=(TypedDay(distance_km=60),) * 6))
        finding = next(f for f in assess(tour, profile_of(tour)).findings if f.kind == "device_dies")
        return int(finding.day)

    assert (dies(1.0), dies(0.5)) == (3, 2)
    bank = thing("bank", 0.3, 0.3, role=Bank(holds_wh=20, charged=0.0))
    phone = thing("phone", 0.2, 0.1, role=Device(wh_a_day=6, battery_wh=15))
    tour = small_tour(phone, bank, road=Road(typed_days=(TypedDay(distance_km=60),) * 6))
    assert next(f for f in assess(tour, profile_of(tour)).findings if f.kind == "device_dies").day == 3
