"""Warm enough at night: worked nights, what helps, and what is carried for nothing."""

import pytest
from scipy import stats

from omnifer.core.assess import assess, profile_of
from omnifer.core.mends import mended, mends_of
from omnifer.core.model.kit import Whereabouts
from omnifer.core.model.road import MonthNormals, Road, Station, Stop, TypedDay, Weather
from omnifer.core.model.roles import BedLayer, Mat, SleepingBag
from omnifer.core.model.tour import Tour
from tests.conftest import RIDER, small_tour, thing

LABEL = Mat(r_value=4.83)


def nights(low_c: float, *kit, days: int = 6, rider=RIDER, **road) -> Tour:
    """So many days of 50 km with the same cold night on each."""
    weather = (Weather(from_km=0, day_high_c=25, night_low_c=low_c, at_elevation_m=300),)
    typed = tuple(TypedDay(distance_km=50, ascent_m=100, highest_m=300, lowest_m=200) for _ in range(days))
    tour = small_tour(*kit, road=Road(typed_days=typed, weather=weather, **road))
    return tour.model_copy(update={"riders": (rider,)})


def slept(tour: Tour):
    return assess(tour, profile_of(tour)).sleepers[0].nights


def found(tour: Tour, kind: str):
    return [f for f in assess(tour, profile_of(tour)).findings if f.kind == kind]


def bag(comfort_c: float, **more):
    return thing("bag", 1, 6, role=SleepingBag(comfort_c=comfort_c), rider_id="ada", reach="night", **more)


MAT = thing("mat", 0.5, 2, role=LABEL, rider_id="ada", reach="night")
SILK = thing("silk", 0.1, 0.4, role=BedLayer(warms_k=2), rider_id="ada", reach="night")


@pytest.mark.parametrize(("comfort", "low"), [(2, 0), (-6, -8)])
def test_a_silk_liner_is_worth_two_degrees(comfort, low):
    """Comfort 2 and silk bear 0; planned -8, a bag of -6 and silk: nothing to spare and nothing short."""
    night = slept(nights(low, bag(comfort), MAT, SILK))[0]
    assert night.bears_c == pytest.approx(low, abs=0.05)
    assert night.short_k == pytest.approx(0, abs=0.05)
    assert slept(nights(low, bag(comfort), MAT))[0].short_k == pytest.approx(2, abs=0.1)


def test_a_jacket_in_bed_warms_while_it_is_there_and_dry():
    """+4 on nights with the jacket free; nothing on wet nights where it gets wet, and nothing once it is posted."""
    jacket = thing("jacket", 0.4, 2, role=BedLayer(warms_k=4), rider_id="ada")
    month = MonthNormals(mean_max_c=20, mean_min_c=5, spread_min_c=0, rain_days=15)
    station = Station(id="s", name="S", at_km=0, elevation_m=200, months=(month,) * 12)
    posted = jacket.model_copy(update={"where": (Whereabouts(), Whereabouts(from_km=120, how="posted"))})
    bare = [n.bears_c for n in slept(nights(5, bag(5), MAT, stations=(station,)))]
    for it, gains in ((jacket, [4] * 5), (jacket.model_copy(update={"wet": True}), [0] * 5), (posted, [4, 4, 0, 0, 0])):
        worn = [n.bears_c for n in slept(nights(5, bag(5), MAT, it, stations=(station,)))]
        assert [b - w for b, w in zip(bare, worn, strict=True)] == pytest.approx(gains)


def test_who_sleeps_cold_wants_more_than_the_label_and_who_sleeps_warm_less():
    by = {
        s: slept(nights(0, bag(0), MAT, rider=RIDER.model_copy(update={"sleeps": s})))[0].bears_c
        for s in ("cold", "usual", "warm")
    }
    assert by["cold"] - by["usual"] == by["usual"] - by["warm"] == pytest.approx(4)


def test_mats_add_and_a_thin_one_costs_what_the_bag_promises():
    foam = thing("foam", 0.4, 8, role=Mat(r_value=2), rider_id="ada")
    thin = thing("thin", 0.3, 1, role=Mat(r_value=2.83), rider_id="ada")
    assert slept(nights(0, bag(-5), thin, foam))[0].bears_c == pytest.approx(-5, abs=0.05)
    assert slept(nights(0, bag(-5), thin))[0].bears_c > 0


def test_ten_nights_in_rooms_ask_for_nothing():
    rooms = tuple(Stop(id=f"r{k}", name=f"Inn {k}", at_km=50 * k, shelter="room") for k in range(1, 11))
    other = thing("other", 1, 6, role=SleepingBag(comfort_c=20), rider_id="ada", where=(Whereabouts(how="home"),))
    indoors = nights(-10, other, days=11, stops=rooms)
    assert all(night.indoors for night in slept(indoors))
    assert found(indoors, "cold_sleep") == []
    wild = nights(-10, other, days=11)
    assert found(wild, "cold_sleep")[0].grade == "stops_you"


def test_a_cold_night_is_named_and_what_helps_helps():
    tour = nights(-3, bag(2), MAT, days=6)
    short = found(tour, "cold_sleep")[0]
    assert (short.sentence.metric(), short.grade) == ("Ada sleeps warm to 2 °C; night 1 asks for -3 °C.", "slows_you")
    mends = mends_of(tour, profile_of(tour), short.id)
    assert [m.name.metric() for m in mends] == ["A silk liner"]  # what lies under it is that of the test already
    thin = nights(-3, bag(2), thing("thin", 0.4, 2, role=Mat(r_value=3), rider_id="ada"), days=6)
    foam = mends_of(thin, profile_of(thin), found(thin, "cold_sleep")[0].id)[0]
    assert foam.name.metric() == "A foam mat under the other"
    assert found(mended(thin, foam), "cold_sleep")[0].size < found(thin, "cold_sleep")[0].size
    for mend in mends:
        better = Tour.model_validate(mended(tour, mend).model_dump())
        assert found(better, "cold_sleep")[0].size < short.size
    assert found(nights(-9, bag(2), MAT), "cold_sleep")[0].grade == "stops_you"


def test_a_bag_for_nights_that_do_not_come_is_named():
    """A mat of R 6.5 and a winter bag on nights of 15 degrees."""
    winter = nights(15, bag(-10), thing("thick", 0.9, 4, role=Mat(r_value=6.5), rider_id="ada"))
    assert "far warmer than any night asks" in found(winter, "warm_surplus")[0].sentence.metric()
    assert found(nights(-8, bag(-10), MAT), "warm_surplus") == []


def test_nothing_is_said_where_nobody_said_what_is_slept_in():
    plain = nights(-20, thing("blanket"))
    assert assess(plain, profile_of(plain)).sleepers == []
    assert found(plain, "cold_sleep") == []


def test_the_sample_has_one_who_freezes_and_nobody_who_carries_too_much(sample, sample_road):
    told = assess(sample, sample_road)
    cold, surplus = ([f for f in told.findings if f.kind == kind] for kind in ("cold_sleep", "warm_surplus"))
    assert [f.sentence.names["rider"] for f in cold] == ["Runa"]
    assert cold[0].day == 29
    assert surplus == []  # 2.4 K to spare on the coldest of all nights


def test_a_bag_is_for_the_tour_and_not_for_each_night():
    """39 nights of 8 ± 4 °C: each falls below 2.9 one time in ten, some night nearly always; the coldest of all falls below
    8 + 4 z(1 - 0.9^(1/39)) = -3.1 one time in ten (order statistics of independent normal figures, by scipy)."""
    months = (MonthNormals(mean_max_c=18, mean_min_c=8, spread_min_c=4),) * 12
    station = Station(id="s", name="S", at_km=0, elevation_m=300, months=months)
    typed = (TypedDay(distance_km=50, ascent_m=100, highest_m=300, lowest_m=300),) * 40

    def tour(comfort_c: float) -> Tour:
        return small_tour(bag(comfort_c), MAT, road=Road(typed_days=typed, stations=(station,)))

    coldest = 8 + 4 * stats.norm.ppf(1 - 0.9 ** (1 / 39))
    told = assess(tour(3), profile_of(tour(3)))
    sleeper = told.sleepers[0]
    assert len(sleeper.nights) == 39
    assert sleeper.some_colder == pytest.approx(1 - stats.norm.sf(3, 8, 4) ** 39, abs=0.002)
    assert sleeper.some_colder > 0.95
    assert sleeper.spare_k == pytest.approx(coldest - 3, abs=0.1)
    short = [f for f in told.findings if f.kind == "cold_sleep"]
    assert [(f.grade, round(f.size)) for f in short] == [("slows_you", 6)]
    much = tour(-16)
    surplus = found(much, "warm_surplus")[0]
    lighter = next(m for m in mends_of(much, profile_of(much), surplus.id) if m.things)
    assert lighter.things[0].role.comfort_c == pytest.approx(coldest - 3, abs=0.1)
    taken = Tour.model_validate(mended(much, lighter).model_dump())
    assert found(taken, "cold_sleep") == []
