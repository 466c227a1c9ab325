"""The craft of long rides: air week by week, a good pump, parts that wait at a post office, what a tour teaches of bikes and beds."""

import pytest

from omnifer.core.assess import assess, profile_of
from omnifer.core.choices import choices_of
from omnifer.core.diary.debrief import debrief, taught
from omnifer.core.diary.journal import Journal
from omnifer.core.diary.now import replan
from omnifer.core.load.homes import homes_of
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.kit import Fit, Thing
from omnifer.core.model.needs import Ask
from omnifer.core.model.part import BikePart
from omnifer.core.model.people import Rider
from omnifer.core.model.road import MonthNormals, Road, Station, Stop, SurfaceStretch, TypedDay
from omnifer.core.model.roles import BedLayer, Charger, Device, Mat, SleepingBag, Stove
from omnifer.core.model.tour import Tour
from omnifer.core.physics.tyres import strokes
from omnifer.core.rig.catalogue import carrier
from tests.conftest import RIDER, pannier_bike, small_tour, thing
from tests.core.offered import offers
from tests.core.test_craft import ridden, stowed
from tests.core.test_diary import straight_tour, told

BEN = Rider.model_validate(RIDER.model_dump() | {"id": "ben", "name": "Ben"})


def weather(high_c: float, low_c: float, rain_days: float) -> tuple[Station, ...]:
    return (
        Station(id="w", name="W", at_km=0, months=(MonthNormals(mean_max_c=high_c, mean_min_c=low_c, rain_days=rain_days),) * 12),
    )


def asks(tour: Tour) -> dict[str, Ask]:
    return {ask.id: ask for ask in assess(tour, profile_of(tour)).asks}


def test_strokes_of_a_pump_by_boyle_and_pappus():
    """42-622: a ring of 21 mm around a circle of 332 mm holds 2.890 l; to 4 bar by the gauge goes 11.41 l of free air, of 40 ml
    strokes that fill three quarters 380. By hand; the bar of the air is the standard atmosphere's."""
    assert strokes(42, 622, 4.0, 40.0) == pytest.approx(380.3, abs=0.5)


def test_a_tiny_pump_is_told_in_minutes():
    """Between the 2 and 5 bar that its makers allow a tyre of 42-622 takes 3.5 bar: 333 strokes of 40 ml. A pump of 100 g
    moves 25 ml, as nobody said otherwise: 532."""

    def note(**pump: object) -> float | None:
        kit = (thing("pump", 0.1, 0.2, serves=("pump",), **pump), thing("tube", 0.15, 0.3, serves=("tube",)))
        found = assess(tour := small_tour(*kit), profile_of(tour)).faults
        return next(f.note.figures["n"].value if f.note else None for f in found if f.id.startswith("valve:"))

    assert note(fit=Fit(stroke_ml=40)) == 330
    assert note() == 530
    assert note(fit=Fit(stroke_ml=40, valve="schrader")) is None


def test_air_follows_the_load_and_the_ground_week_by_week():
    """Two weeks of asphalt are told as one; on gravel a tenth less, and never less than the maker allows."""
    road = {"typed_days": (TypedDay(distance_km=100),) * 21}
    gravel = (SurfaceStretch(from_km=1400, to_km=2100, surface="gravel"),)
    tour = small_tour(road=Road(**road, surfaces=gravel))
    found = assess(tour, profile_of(tour)).pressures
    assert [(w.from_day, w.to_day, w.loose) for w in found] == [(1, 14, 0.0), (15, 21, 1.0)]
    assert found[1].rear_bar == pytest.approx(0.9 * found[0].rear_bar, abs=0.06)
    hard = small_tour(road=Road(**road, surfaces=gravel), bikes=(pannier_bike(tyre_least_bar=4, tyre_most_bar=5),))
    assert {w.front_bar for w in assess(hard, profile_of(hard)).pressures} == {4.0}


def test_this_evenings_air_is_told_in_figures():
    tour = straight_tour()
    road = profile_of(tour)
    rows = [told("set_out", hour=6, km=0), told("pressure", day=1, hour=19, km=60), told("here", day=8, hour=18, km=480)]
    made = replan(tour, assess(tour, road), road, Journal.of(rows))
    task = next(t for t in made.now.care if t.kind == "pressure")
    coming = next(w for w in made.rest.pressures if w.from_day <= 9 <= w.to_day)
    assert [task.words.figures[k].value for k in ("front0", "rear0")] == [coming.front_bar, coming.rear_bar]


@pytest.mark.parametrize(("free", "air"), [(50.0, True), (48.0, False), (None, True)])
def test_a_tyre_leaves_room_beside_it(free: float | None, air: bool):
    """42 mm of tyre in 50 leave 4 on each side, the least; in 48 they leave 3. A wider one is offered only where it fits."""
    tour = small_tour(bikes=(pannier_bike(narrowest_mm=free),), road=Road(typed_days=(TypedDay(distance_km=60),)))
    found = [f for f in assess(tour, profile_of(tour)).findings if f.kind == "no_fit"]
    assert bool(found) is not air
    offered = {c.id for c in choices_of(tour, profile_of(tour), tour.rig.bikes[0].id)}
    assert ("wider" in offered) is (free is None)


def test_a_part_waits_at_a_post_office_and_takes_the_old_ones_place():
    """The tyre ends about km 425, behind the first post office and before the second. Nobody carries the new one there, and from there on
    it weighs what the old one did."""
    tour = ridden(BikePart(kind="rear_tyre", behind_km=4500, lasts_km=5000))
    stops = (Stop(id="po", name="Po", at_km=300, services=("post",)), Stop(id="far", name="Far", at_km=900, services=("post",)))
    tour = tour.model_copy(update={"road": tour.road.model_copy(update={"stops": stops})})
    finding = next(f for f in assess(tour, profile_of(tour)).findings if f.kind == "part_ends")
    mend = next(m for m in offers(tour, finding) if m.name.words.startswith("Post"))
    assert mend.name.names["stop"] == "Po"
    after = mended(tour, mend)
    then = assess(after, profile_of(after))
    assert then.moments.gear_kg == assess(tour, profile_of(tour)).moments.gear_kg
    assert {"on_shelf", "part_ends"} & {f.kind for f in then.findings} == set()


def test_one_socket_for_an_hour_feeds_what_takes_the_most():
    """The camera's 5 Wh are full in half an hour, the phone takes all of it."""
    devices = (("camera", 5), ("phone", 40))
    kit = [thing(n, 0.2, 0.1, role=Device(wh_a_day=wh, battery_wh=wh)) for n, wh in devices]
    kit.append(thing("charger", 0.1, 0.1, role=Charger(outputs=1, output_w=10)))
    plug = Stop(id="p", name="P", at_km=50, services=("plugs",), plug_hours=1)
    tour = small_tour(*kit, road=Road(typed_days=(TypedDay(distance_km=60),) * 2, stops=(plug,)))
    deeds = [d for s in assess(tour, profile_of(tour)).stores.stops for d in s.deeds if d.verb == "charge"]
    assert deeds[0].note.names["first"] == "phone"


def test_a_lock_is_asked_where_nobody_watches():
    """Two can take turns at shops; one alone cannot; on a campsite all sleep; where there is neither, nothing is asked."""
    socks = thing("socks", serves=("off_bike",))
    days = (TypedDay(distance_km=60),) * 3
    shop = Stop(id="s", name="S", at_km=30, shop="full")
    site = Stop(id="c", name="C", at_km=60, shelter="site")
    bikes = (pannier_bike(), pannier_bike(id="b", rider_id="ben", supports=[], carriers=[]))

    def grade(*stops: Stop, two: bool = False) -> str | None:
        more = {"riders": (RIDER, BEN), "bikes": bikes} if two else {}
        lock = asks(small_tour(socks, road=Road(typed_days=days, stops=stops), **more)).get("lock")
        return lock.grade if lock else None

    assert grade() is None
    assert (grade(shop), grade(shop, two=True)) == ("slows_you", "worth_knowing")
    assert grade(site, two=True) == "slows_you"


def clo(*kit: Thing, rain_days: float) -> float:
    road = Road(typed_days=(TypedDay(distance_km=60),) * 3, stations=weather(12, 4, rain_days))
    tour = small_tour(*kit, road=road)
    return assess(tour, profile_of(tour)).layers[0].days[0].worn_clo


def test_wind_goes_through_wool_and_damp_down_keeps_less():
    """Of the table: 0.4 on the bike, 0.3 for a fleece and half of it in the wind, 0.15 for a shell; 0.6 for a jacket, and of damp
    down six tenths."""
    fleece, shell = thing("fleece", serves=("fleece",)), thing("shell", serves=("wind_shell",))
    assert clo(fleece, rain_days=0) == pytest.approx(0.55)
    assert clo(fleece, shell, rain_days=0) == pytest.approx(0.85)
    assert clo(fleece, thing("coat", serves=("warm_jacket",)), rain_days=0) == pytest.approx(1.3)
    down = thing("down", serves=("warm_jacket",), natures=("down",))
    padded = thing("padded", serves=("warm_jacket",))
    assert [clo(j, rain_days=d) for j in (down, padded) for d in (0, 20)] == pytest.approx([1.0, 0.76, 1.0, 1.0])


def test_gloves_that_do_not_dry_overnight_want_a_second_pair():
    days = (TypedDay(distance_km=60),) * 5
    gloves = thing("mitts", serves=("warm_gloves",))

    def asked(high_c: float, rain_days: float) -> bool:
        tour = small_tour(gloves, road=Road(typed_days=days, stations=weather(high_c, high_c - 6, rain_days)))
        return "warm_gloves:ada:second" in asks(tour)

    assert asked(6, 20)
    assert not asked(6, 3)
    assert not asked(20, 20)
    names = small_tour(thing("socks", serves=("proof_socks",)), road=Road(typed_days=days, stations=weather(6, 0, 20)))
    assert asks(names)["shoe_covers:ada"].state == "answered"


def test_a_stove_goes_into_its_pot_where_room_lacks():
    """A pot of 2 l has 1.6 inside; the stove of 1.2 fits, a second one does not. The bag is then no longer too full."""
    pot, stove = thing("pot", 0.3, 2, serves=("pot",)), thing("stove", 0.4, 1.2, role=Stove(burns="petrol"))
    other = thing("other", 0.4, 1.1, role=Stove(burns="gas"))
    bag = carrier("rear_pannier", "left", "rack", "left", volume_l=8, most_l=8)
    tour = stowed(pot, stove, other, thing("tent", 2, 4.5), bags=[bag])
    assert [(a.id, b.id) for a, b in homes_of(tour)] == [("stove", "pot")]
    finding = next(f for f in assess(tour, profile_of(tour)).findings if f.kind == "over_volume")
    mend = next(m for m in mends_of(tour, profile_of(tour), finding.id) if "into" in m.name.words)
    after = mended(tour, mend)
    assert next(t for t in after.kit if t.id == "stove").inside == "pot"
    assert "over_volume" not in {f.kind for f in assess(after, profile_of(after)).findings}


def test_a_thin_mat_is_rolled_in_the_tent():
    """Of 8 l of tent three tenths are 2.4: a mat of 2 l goes in, one of 5 does not."""
    tent = thing("tent", 2, 8, serves=("tent",))
    mats = thing("mat", 0.4, 2, role=Mat(r_value=3)), thing("thick", 0.7, 5, role=Mat(r_value=5))
    assert [(a.id, b.id) for a, b in homes_of(small_tour(tent, *mats))] == [("mat", "tent")]


def test_what_was_too_cold_is_reckoned_less_warm():
    """A bag by three kelvins, a layer and a mat by a fifth; nothing else of it changes, and it says where."""
    bag, layer, mat = SleepingBag(comfort_c=2), BedLayer(warms_k=5), Mat(r_value=4)
    tour = straight_tour(*(thing(n, 1, 3, role=r) for n, r in (("bag", bag), ("layer", layer), ("mat", mat))))
    road = profile_of(tour)
    plan = assess(tour, road)
    rows = [told("set_out", hour=6, km=0), told("here", day=3, hour=18, km=150)]
    rows += [told("verdict", day=11, about=n, word="too_cold") for n in ("bag", "layer", "mat")]
    journal = Journal.of(rows)
    stories = {s.thing_id: s for s in debrief(tour, plan, replan(tour, plan, road, journal), journal).stories}
    then = {t.id: taught(t, stories[t.id], "On Tour.").role for t in tour.kit if t.id in ("bag", "layer", "mat")}
    assert (then["bag"].comfort_c, then["layer"].warms_k, then["mat"].r_value) == pytest.approx((5, 4, 3.2))


def test_a_bikes_tour_and_how_long_its_tyre_lasted():
    """Renewed at km 300 of 600.5; two usual lives of 5,000 km and this one: a third of the sum is offered."""
    tour = straight_tour()
    bike = tour.rig.bikes[0]
    road = profile_of(tour)
    plan = assess(tour, road)
    rows = [
        told("set_out", hour=6, km=0),
        told("mended", day=5, hour=19, about=f"rear_tyre:{bike.id}", km=300),
        told("hurt", day=6, hour=19, about="seat", word="saddle"),
        told("arrived", day=10, hour=18),
    ]
    journal = Journal.of(rows)
    found = debrief(tour, plan, replan(tour, plan, road, journal), journal)
    assert [(m.day, m.km, m.words.metric()) for m in found.bikes[0].marks] == [
        (5, 300.0, "new rear tyre"),
        (6, 300.0, "saddle changed, for the seat"),
    ]
    part = next(p for p in plan.parts if p.kind == "rear_tyre")
    lived = part.behind_km + part.takes_km * 300 / plan.road.length_km
    rate = next(r for r in found.rates if r.key == "rear_tyre_km")
    assert rate.takes_value == pytest.approx(max((2 * 5000 + lived) / 3, 3000), rel=1e-3)
    assert rate.sure == "a_hint"
