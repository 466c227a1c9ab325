"""What is said of a change as a whole, of shops, rest, wind, wear and snow, and who carries what; each worked by hand."""

import datetime as dt

import numpy as np
import pytest

from omnifer.core.assess import assess, profile_of, situation_of
from omnifer.core.findings import look_for, look_for_cases
from omnifer.core.load.settle import propose_load
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.kit import Whereabouts
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.people import Rider
from omnifer.core.model.practice import USUAL
from omnifer.core.model.rig import Rig
from omnifer.core.model.road import DayCut, MonthNormals, Night, Road, Station, Stop, SurfaceStretch, TypedDay, Weather
from omnifer.core.model.roles import Device, FuelVessel, Mat, SleepingBag, Stove, Treatment, UsedUp
from omnifer.core.model.stores import Stores
from omnifer.core.model.tour import SetAside
from omnifer.core.physics.boiling import cooks_longer
from omnifer.core.rig.catalogue import carrier
from omnifer.core.road import arrivals
from omnifer.core.supplies.fuel import simmered
from omnifer.core.supplies.stock import fills
from tests.conftest import RIDER, pannier_bike, small_tour, thing
from tests.core.test_slack import CHILD, found, place, riding

SATURDAY = dt.date(2027, 5, 1)


def helps(tour, kind: str) -> list[str]:
    (finding,) = [f for f in assess(tour, profile_of(tour)).findings if f.kind == kind]
    return [f"{m.name.metric()} | {m.consequence.metric()}" for m in mends_of(tour, profile_of(tour), finding.id)]


def seasons(*kit, june: float):
    """Three days of 60 km in May nights of -4 °C, or in June days of so many; at the end of May it is half of both."""
    cold, other = (MonthNormals(mean_max_c=high, mean_min_c=low, spread_min_c=1) for high, low in ((12, -4), (june, 14)))
    station = Station(id="s", name="S", at_km=0, elevation_m=300, months=tuple(cold if m < 5 else other for m in range(12)))
    days = (TypedDay(distance_km=60, highest_m=300, lowest_m=300),) * 3
    return small_tour(*kit, road=Road(typed_days=days, stations=(station,)))


def test_a_mend_says_what_it_brings_and_what_brings_worse_comes_last():
    """Four weeks later no night is cold: with mild days nothing comes by it, with hot ones a finding as bad as the one that
    ends, or worse where the cold is only worth knowing."""
    kit = (thing("bag", 1, 6, role=SleepingBag(comfort_c=-3)), thing("mat", 0.5, 2, role=Mat(r_value=5)))
    (mild,) = [words for words in helps(seasons(*kit, june=22), "cold_sleep") if "weeks" in words]
    assert "it brings" not in mild
    (hot,) = [words for words in helps(seasons(*kit, june=60), "cold_sleep") if "weeks" in words]
    assert "it brings: Day" in hot
    assert "in the shade" in hot
    assert "it brings: Day" in helps(seasons(june=60), "cold_night")[-1]


def test_cases_of_one_cause_are_ended_together_and_one_by_one():
    """Papers in an open pouch and a pump at the bottom of a roll, each deeper or more open than it may be."""
    roll = carrier("rack_top_bag", "roll", "rack", "middle")
    bags = [*(c.model_dump() for c in pannier_bike().carriers), roll.model_dump()]
    tour = small_tour(thing("pump", 0.2, 3), thing("tube", 0.2, 3), thing("jacket", 0.3, 3), bikes=(pannier_bike(carriers=bags),))
    kit = tuple(t.model_copy(update={"reach": "stop"}) for t in tour.kit)
    load = Load(placements=tuple(Placement(thing_id=t.id, carrier_id="roll") for t in kit))
    tour = tour.model_copy(update={"kit": kit, "load": load})
    (deep,) = [f for f in assess(tour, None).findings if f.kind == "too_deep"]
    assert set(deep.thing_ids) == {"pump", "tube", "jacket"}
    together, *singly = mends_of(tour, None, deep.id)
    assert together.name.metric() == "Move 3 things"
    assert len(singly) == 3
    assert look_for("too_deep", situation_of(mended(tour, together), None)) == {}
    assert len(look_for_cases("too_deep", situation_of(mended(tour, singly[0]), None))) == 2


def test_what_is_set_aside_is_told_again_once_there_is_more_of_it():
    """A pump and a tube lie too deep and may: a jacket that does so later is told with them, until it is set aside as well."""
    roll = carrier("rack_top_bag", "roll", "rack", "middle")
    bags = [*(c.model_dump() for c in pannier_bike().carriers), roll.model_dump()]

    def tour(*names, aside=()):
        kit = tuple(thing(name, 0.2, 3, reach="stop") for name in names)
        load = Load(placements=tuple(Placement(thing_id=name, carrier_id="roll") for name in names))
        return small_tour(*kit, bikes=(pannier_bike(carriers=bags),), load=load, set_aside=aside)

    def deep(asked):
        return next(f for f in assess(asked, None).findings if f.kind == "too_deep")

    two = deep(tour("pump", "tube"))
    lived_with = (SetAside(finding_id=two.id, reason="they may", cases=tuple(two.cases)),)
    assert deep(tour("pump", "tube", aside=lived_with)).aside == deep(tour("pump", aside=lived_with)).aside == "they may"
    assert deep(tour("pump", "tube", "jacket", aside=lived_with)).aside is None


def test_rain_wear_is_reached_at_the_mouth_of_a_roll():
    roll = carrier("rack_top_bag", "roll", "rack", "middle")
    bags = [*(c.model_dump() for c in pannier_bike().carriers), roll.model_dump()]
    kit = (thing("j", 0.3, 1, reach="stop", serves=("rain_jacket",)), thing("p", 0.2, 3, reach="stop", serves=("pump",)))
    load = Load(placements=tuple(Placement(thing_id=t.id, carrier_id="roll") for t in kit))
    tour = small_tour(*kit, bikes=(pannier_bike(carriers=bags),), load=load)
    assert [d.things for d in look_for("too_deep", situation_of(tour, None)).values()] == [("p",)]


def test_a_hidden_lamp_comes_onto_the_bag_that_hides_it():
    bags = [*(c.model_dump() for c in pannier_bike().carriers), carrier("saddle_pack", "pack", "saddle", "middle").model_dump()]
    lamp = thing("tail", 0.1, 0.05, role=Device(wh_a_day=1, light=True), serves=("tail_light",),
                 where=(Whereabouts(how="fixed", spot="seat_post"),))  # fmt: skip
    tour = small_tour(lamp, bikes=(pannier_bike(carriers=bags),))
    (hidden,) = [f for f in assess(tour, None).findings if "hides" in f.sentence.words]
    onto = mends_of(tour, None, hidden.id)[0]
    assert (onto.things[0].where[0].spot, onto.things[0].where[0].bag_id) == ("outside", "pack")
    assert not [f for f in assess(mended(tour, onto), None).findings if "hides" in f.sentence.words]


def test_what_is_too_heavy_for_a_child_comes_to_another_bike():
    """16 kg of bags and stones for a child of 40 kg, of which a quarter is 10; the other bike has room for all of them."""
    other = Rider(id="bo", name="Bo", body_mass_kg=80, all_day_power_w=120)
    grown = pannier_bike(id="second", rider_id="bo")
    renamed = {"carriers": [c.model_copy(update={"id": f"bo-{c.id}"}) for c in grown.carriers]}
    stones = [thing(f"s{n}", 3.0, 1.0) for n in range(4)]
    load = Load(placements=tuple(Placement(thing_id=t.id, carrier_id=("left", "right")[n % 2]) for n, t in enumerate(stones)))
    tour = small_tour(*stones, riders=(CHILD, other), bikes=(pannier_bike(), grown.model_copy(update=renamed)), load=load)
    (heavy,) = [f for f in assess(tour, None).findings if f.kind == "childs_load"]
    given = mends_of(tour, None, heavy.id)[0]
    assert given.name.words.startswith("Give")
    assert {p.carrier_id[:3] for p in given.moves} == {"bo-"}
    assert not [f for f in assess(mended(tour, given), None).findings if f.kind == "childs_load"]


# Shops, rest and wind -------------------------------------------------------------------------------------------------


def test_when_a_shop_can_be_used():
    """Passing, with an hour to wait; sleeping there, in the evening and in the morning until an hour after setting out."""
    shop = Stop(id="s", name="S", at_km=0, shop="full", opens_h=10, closes_h=16, closed_weekdays=(6,))
    sunday = SATURDAY + dt.timedelta(days=1)

    def there(hour, until=None, stop=shop, date=SATURDAY):
        return arrivals.windows(arrivals.Visit(stop, 0, date, hour, until), 9.0)

    assert there(9.5) == [(SATURDAY, 10, 16)]
    assert there(8.5) == there(17) == []
    assert there(15.5, sunday) == [(SATURDAY, 15.5, 16)]  # on Sunday morning it is shut
    assert there(17, SATURDAY, date=SATURDAY - dt.timedelta(days=1)) == [(SATURDAY, 10, 16)]
    assert arrivals.shop_shut(arrivals.Visit(shop, 0, SATURDAY, 15.5, sunday), 9.0) is None


def test_a_day_on_which_every_shop_is_shut_is_told_with_the_last_one_before():
    """Saturday to Tuesday, a shop every 60 km, all shut on Sundays."""
    shops = [place(km, "site", "full").model_copy(update={"closed_weekdays": (6,), "opens_h": 8, "closes_h": 18})
             for km in (0.0, 60.0, 120.0, 180.0)]  # fmt: skip
    (shut,) = found("shop_shut", riding(*shops, start=SATURDAY))
    assert shut.sentence.metric() == "On Sunday 2 May every shop on the way is shut."
    assert "Buy at S60 on Saturday 1 May, by 18:00" in shut.reason.metric()
    assert found("shop_shut", riding(*shops, start=SATURDAY + dt.timedelta(days=2))) == []


def test_twelve_days_without_a_rest_are_told_and_a_rest_ends_it():
    beds = [place(60.0 * k, "site") for k in range(1, 12)]
    tour = riding(*beds, length_km=720)
    (tired,) = [d for d in found("no_slack", tour) if d.about == "rest"]
    assert (tired.grade, tired.size) == ("worth_knowing", 12)
    assert [d for d in found("no_slack", mended(tour, tired.offers()[0])) if d.about == "rest"] == []
    assert found("no_slack", riding(*beds[:9], length_km=540)) == []


def test_a_headwind_that_takes_a_slow_rider_into_the_dark_is_told():
    """6 m/s for somebody with 60 W: half the pace and more. Without wind, or for 250 W, nothing is said."""
    slow, strong = (Rider(id="ada", name="Ada", body_mass_kg=60, all_day_power_w=w) for w in (60, 250))

    def told(rider, wind_ms):
        month = MonthNormals(mean_max_c=20, mean_min_c=10, wind_ms=wind_ms)
        stations = (Station(id="w", name="W", at_km=0, months=(month,) * 12),)
        cut = DayCut(by="distance", distance_km=100)
        tour = riding(length_km=200, riders=(rider,), stations=stations, cut=cut, start=dt.date(2027, 9, 20), start_hour=8)
        return [d for d in found("dark_day", tour) if "headwind" in d.sentence.words]

    assert len(told(slow, 6)) == 1
    assert told(slow, 0.1) == told(strong, 6) == []


def test_a_day_that_ends_in_the_dark_sets_out_earlier_by_itself_and_not_before_the_sun():
    """Days of 60, 120 and 60 km from one on: the long one sets out earlier, the others stay. Where the sun is up for less
    than the day takes, no start is offered in the dark."""
    nights = (Night(at_km=60),)

    def autumn(date, hour=13, pauses=1.3):
        stops = [place(60.0 * k, "site") for k in range(5)]
        return riding(
            *stops,
            length_km=240,
            nights=nights,
            start=date,
            start_hour=hour,
            pause_factor=pauses,
            cut=DayCut(by="distance", distance_km=120),
        )

    tour = autumn(dt.date(2027, 9, 20))
    (late,) = [d for d in found("dark_day", tour) if d.about == "2"]
    begun = mended(tour, late.offers()[0])
    before, after = (assess(t, profile_of(t)).days for t in (tour, begun))
    assert [d.start_h for d in before] == [13, 13, 13]
    assert [d.start_h for d in after] == [13, late.offers()[0].starts[0].hour, 13]
    assert after[1].arrive_h < after[1].sunset_h
    assert found("dark_day", begun) == []
    winter = autumn(dt.date(2027, 12, 20), 9, 1.9)
    (short,) = found("dark_day", winter)
    assert short.offers()[0].starts[0].hour == 8  # the sun rises at 07:50


# Snow, food and bottles -----------------------------------------------------------------------------------------------


def test_one_stove_makes_all_the_water_of_snow_camps():
    """Four nights in snow; a second stove along, or none of them in snow, and nothing is said. Melting takes 7 minutes a litre."""
    stove, petrol = (
        thing("stove", 0.4, role=Stove(burns="petrol")),
        thing("can", 0.2, role=FuelVessel(burns="petrol", holds_kg=2)),
    )
    days = (TypedDay(distance_km=30),) * 5

    def tour(water, *more):
        stops = tuple(Stop(id=f"s{k}", name=f"S{k}", at_km=30.0 * k, water=water if 0 < k < 5 else "reliable") for k in range(6))
        road = Road(typed_days=days, stops=stops, weather=(Weather(from_km=0, day_high_c=-2, night_low_c=-12),))
        return small_tour(stove, petrol, *more).model_copy(update={"road": road})

    (alone,) = [d for d in found("one_fire", tour("snow")) if d.about == "melting"]
    litres, hours = alone.reason.figures["litres"].value, alone.reason.figures["minutes"].value
    assert (alone.size, hours) == (4, pytest.approx(litres * 7 / 60))
    assert litres > 2
    second = thing("second", 0.3, role=Stove(burns="petrol"))
    assert [d for t in (tour("snow", second), tour("reliable")) for d in found("one_fire", t) if d.about == "melting"] == []


def test_an_evenings_pot_simmers_longer_on_heights():
    """At 4,800 m water boils 16 K cooler (Antoine, within 0.1 K of IAPWS-95): 2 ** 1.6 = 3.0 times as long. A flame of 0.5 kW for
    8 minutes more than twice over is 487 kJ, 10.7 g of gas of 45.4 MJ/kg."""
    stove = Stove(burns="gas")
    assert float(cooks_longer(4800.0)) == pytest.approx(3.04, abs=0.03)
    assert float(simmered(stove, np.array([4800.0]), USUAL)[0]) == pytest.approx(0.0107, abs=0.0003)
    assert float(simmered(stove, np.array([0.0]), USUAL)[0]) == 0


def test_ways_out_of_a_long_way_are_named():
    doctor = place(60, "none").model_copy(update={"services": ("doctor",)})
    train = place(480, "none", "full").model_copy(update={"services": ("transport",)})
    (way,) = found("long_way", riding(place(0, "none", "full"), doctor, train, length_km=480))
    assert "The nearest bus or train: S480 at 480 km." in way.reason.metric()
    assert "The nearest doctor: S60 at 60 km." in way.reason.metric()
    assert "workshop" not in way.reason.metric()


def test_deep_frost_asks_for_a_second_pair_and_open_roads_for_something_bright():
    def asks(low, *kit):
        weather = (Weather(from_km=0, day_high_c=low + 5, night_low_c=low),)
        tour = small_tour(*kit, road=Road(typed_days=(TypedDay(distance_km=40),) * 3, weather=weather))
        return {a.serves[0]: (a.state, a.count) for a in assess(tour, profile_of(tour)).asks}

    mitts = thing("mitts", 0.2, serves=("warm_gloves",))
    assert asks(-25, mitts)["warm_gloves"] == ("lacking", 2)
    assert asks(-25, mitts.model_copy(update={"count": 2}))["warm_gloves"] == ("answered", 2)
    assert asks(0, mitts)["warm_gloves"] == ("answered", 1)
    assert asks(15, mitts)["reflective"][0] == "lacking"


def test_bottles_at_hand_are_filled_for_each_rider():
    """0.9 l in bottles of 0.75, 0.75 and 1.5 l: 30 % in each; a sack is filled after them."""
    bottles = [(thing(f"b{k}", 0.1, 0.8, holds_water_l=litres, reach="riding"), 1) for k, litres in enumerate((0.75, 0.75, 1.5))]
    sack = (thing("sack", 0.1, 0.3, holds_water_l=4, soft_vessel=True, reach="riding"), 1)
    inside = fills([*bottles, sack], {"water": np.array([0.9, 4.0, 9.0])}, np.zeros(3))
    assert [list(np.round(one, 3)) for one in inside] == [
        [0.225, 0.75, 0.75], [0.225, 0.75, 0.75], [0.45, 1.5, 1.5], [0, 1, 4],
    ]  # fmt: skip


def test_a_sack_too_heavy_when_brimful_is_filled_less():
    """A sack of 10 l and 0.3 kg: an empty bag for 8 kg takes 7.5 l of it, one in which food rides as well three quarters or less;
    one for 5 kg takes less than half and is refused."""
    sack = thing("sack", 0.3, 0.3, holds_water_l=10, soft_vessel=True)

    def proposed(*limits_kg):
        bags = [carrier("rear_pannier", f"bag{n}", "rack", "left", volume_l=40, limit_kg=kg) for n, kg in enumerate(limits_kg)]
        tour = riding(place(0, "site", "full"), place(200, "site", "full"), things=(sack,))
        tour = tour.model_copy(update={"rig": Rig(bikes=(pannier_bike(carriers=[bag.model_dump() for bag in bags]),))})
        return tour, propose_load(tour, profile_of(tour), rounds=2, effort=0)

    def filled(tour, proposal):
        packed = tour.model_copy(update={"load": proposal.load})
        (water,) = (lane for lane in assess(packed, profile_of(packed)).stores.lanes if lane.key == "water")
        assert (proposal.out, proposal.holds, proposal.food_out_tenths) == ({}, True, 0)
        return water.capacity, [note.words.metric() for note in water.notes]

    alone, beside_food = proposed(8, 6), proposed(8)
    assert filled(*alone) == ([7.5], ["sack is filled with 7.5 l of 10.0 l: its bag bears no more"])
    (capacity,), _ = filled(*beside_food)
    tour = beside_food[0].model_copy(update={"load": beside_food[1].load})
    food = max(situation_of(tour, profile_of(tour)).voyage.stock["food"])
    assert capacity + 0.3 + food <= 8 < capacity + 2.5 + 0.3 + food
    assert "sack fits nowhere: 0.3 kg over" in proposed(5)[1].reasons["sack"].metric()


def used_up(name: str, per="person_day", **more):
    return thing(name, 0.02, 0.1, role=UsedUp(unit="pieces", holds=20, content_kg=0.02, rate=1, per=per, sold_at="basic"), **more)


def supply(tour, name: str):
    return situation_of(tour, profile_of(tour)).voyage.supplies[name]


def test_medicine_is_its_riders_and_tablets_kept_for_need_come_along_full():
    riders = (RIDER, Rider(id="bo", name="Bo", body_mass_kg=80, all_day_power_w=120))
    shops = [place(60.0 * k, "site", "full") for k in range(4)]
    own, shared = used_up("pills", rider_id="ada", serves=("medicine",)), used_up("wipes")
    tour = riding(*shops, riders=riders, things=(own, shared))
    days = len(assess(tour, profile_of(tour)).days)
    assert (supply(tour, "pills").used.sum(), supply(tour, "wipes").used.sum()) == pytest.approx((days, 2 * days))
    assert not any(stop is not None for stop in supply(tour, "pills").refills.stops[1:-1])  # no shop sells it
    kept = (used_up("tablets", per="litre_treated"), thing("filter", 0.1, role=Treatment(by="press")))
    stock = supply(riding(*shops, things=kept), "tablets").amounts.leaving
    assert (stock[0], stock[-2]) == (20, 20)


def test_who_sleeps_in_a_house_that_serves_meals_has_breakfast_there():
    """Nights in rooms with meals: of a day's energy 35 % are eaten in the evening and 25 % in the morning, all but the first."""
    beds = [place(60.0 * k, "room", "full").model_copy(update={"services": ("meals",)}) for k in range(4)]
    huts = [bed.model_copy(update={"shelter": "site"}) for bed in beds]
    cooked, dined, served = (
        supply(riding(*stops).model_copy(update={"stores": Stores(cooking="cook", eat_out=out)}), "food").used.sum()
        for stops, out in ((beds, False), (huts, True), (beds, True))
    )
    nights = 3 / 4  # of four days three end at such a house
    assert 1 - dined / cooked == pytest.approx(0.35 * nights, abs=0.05)
    assert (dined - served) / cooked == pytest.approx(0.25 * nights, abs=0.05)


def test_a_rack_with_nothing_to_spare_is_told_where_the_road_shakes_it():
    """A rack of 25 kg that bears 24.9: said on 40 km of gravel, on none of asphalt, and not with 2 kg less."""
    own = sum(part.mass_kg for part in pannier_bike().carriers if part.hangs_on == "rack")

    def told(mass_kg, surface):
        block = thing("block", mass_kg, 2)
        load = Load(placements=(Placement(thing_id="block", carrier_id="left"),))
        limit = own + 8
        supports = [s.model_copy(update={"limit_kg": limit}).model_dump() for s in pannier_bike().supports]
        tour = riding(
            place(60, "site"), length_km=120, things=(block,), surfaces=(SurfaceStretch(from_km=0, to_km=40, surface=surface),)
        )
        tour = tour.model_copy(
            update={"load": load, "rig": tour.rig.model_copy(update={"bikes": (pannier_bike(supports=supports),)})}
        )
        here = situation_of(tour, profile_of(tour))
        return [(d.kind, d.grade) for kind in ("near_limit", "over_support") for d in look_for(kind, here).values()]

    assert told(7.95, "gravel") == [("near_limit", "worth_knowing")]
    assert told(7.95, "asphalt") == told(6, "gravel") == []
    assert told(8.5, "gravel") == [("over_support", "stops_you")]
