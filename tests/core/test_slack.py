"""What leaves no slack: beds, days in hand, runs of rain, long ways without a shop, a child's load; each worked by hand."""

import datetime as dt
from itertools import product
from math import prod

import numpy as np
import pytest

from omnifer.core.assess import assess, profile_of, situation_of
from omnifer.core.findings import look_for
from omnifer.core.findings.on_the_road import EXTREME_C
from omnifer.core.findings.slack import childs_loads
from omnifer.core.load.stance import _pressure
from omnifer.core.mends import mended
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import DayCut, Journey, MonthNormals, Night, Road, Station, Stop, SurfaceStretch, Track
from omnifer.core.model.tour import TourSheet
from omnifer.core.physics.weather import chance_of_run, heat_index
from omnifer.core.road.days import wished_nights
from tests.conftest import RIDER, pannier_bike, small_tour, thing

KM_A_DEGREE = 111.195


def northwards(length_km: float, rise_m: float = 0.0) -> Track:
    """A straight track to the north with a hill of that height in its middle, 40 km up and 40 down, a point each kilometre."""
    n = round(length_km)
    heights = tuple(rise_m * max(1 - abs(k - n / 2) / 40, 0) for k in range(n + 1))
    return Track(lat_deg=tuple(40 + k / KM_A_DEGREE for k in range(n + 1)), lon_deg=(8.0,) * (n + 1), elevation_m=heights)


def place(km: float, shelter: str, shop: str = "none") -> Stop:
    return Stop(id=f"s{km:g}", name=f"S{km:g}", at_km=km, water="reliable", shelter=shelter, shop=shop)


def riding(
    *stops: Stop, length_km: float = 200, things=(), rise_m: float = 0.0, riders=(RIDER,), start=None, **road
) -> TourSheet:
    road = {"stops": stops, "cut": DayCut(by="distance", distance_km=60)} | road
    more = {} if start is None else {"start_date": start}
    return small_tour(*things, track=northwards(length_km, rise_m), road=Road(**road), riders=riders, **more)


def found(kind: str, tour: TourSheet) -> list:
    return list(look_for(kind, situation_of(tour, profile_of(tour))).values())


def nights_of(tour: TourSheet) -> list[str]:
    return [day.night_at for day in assess(tour, profile_of(tour)).days[:-1]]


ROOMS = [place(km, "room") for km in (35.0, 90.0, 150.0)] + [place(60.0, "site"), place(120.0, "none")]
CHILD = RIDER.model_copy(update={"age_years": 12, "body_mass_kg": 40})


def test_days_end_where_the_party_wants_to_sleep():
    """60 km days: sites and water stand at 60 and 120, rooms at 35 and 90, within half a day of where the day is full."""
    assert nights_of(riding(*ROOMS))[:2] == ["S60", "S120"]
    assert nights_of(riding(*ROOMS, rooms_only=True)) == ["S35", "S90", "S150"]
    assert nights_of(riding(*ROOMS, riders=(CHILD,))) == ["S60", "S90", "S150"]  # a site will do, water alone will not
    assert "S120" in nights_of(riding(*ROOMS, riders=(CHILD,), wild_camps=True))
    assert wished_nights(Road(wild_camps=False), (RIDER,)) == {"site", "hut", "room"}


def test_a_night_without_a_bed_is_told_with_the_rooms_on_either_side_and_ended_by_going_there():
    tour = riding(*ROOMS, rooms_only=True, nights=(Night(at_km=35), Night(at_km=120)))
    (bed,) = found("no_bed", tour)
    assert (bed.grade, bed.day, bed.reason.names["name_0"], bed.reason.names["name_1"]) == ("stops_you", 3, "S90", "S150")
    assert [bed.reason.figures[f"off_{k}"].value for k in (0, 1)] == pytest.approx([30, 30], abs=0.1)
    for mend in bed.offers():
        assert found("no_bed", mended(tour, mend)) == []
    wild = riding(*ROOMS, riders=(CHILD,), nights=(Night(at_km=120),))
    assert [draft.grade for draft in found("no_bed", wild)] == ["slows_you"]
    assert found("no_bed", riding(*ROOMS, nights=(Night(at_km=120),))) == []


def test_a_flight_waits_for_nobody_unless_a_day_is_left():
    flight = (Journey(at_km=200, by="flight"),)
    cut = {"cut": DayCut(by="days", days=4)}
    (one,) = found("no_slack", riding(place(50, "site"), journeys=flight, **cut))
    assert (one.grade, one.day) == ("stops_you", 4)
    assert found("no_slack", riding(place(50, "site"), **cut)) == []
    # Rooms each 26 km: five days would be 36 km each, days of 26 are seven, days of 52 are four.
    rooms = (place(26.0 * k, "room") for k in range(1, 7))
    left = riding(
        *rooms, length_km=182, journeys=(Journey(at_km=181, by="flight"),), rooms_only=True, cut=DayCut(by="days", days=5)
    )
    assert nights_of(left) == ["S52", "S104", "S156"]
    assert found("no_slack", left) == []
    assert [draft.size for draft in found("days_left", left)] == [1]
    assert found("no_slack", riding(place(50, "site"), journeys=(Journey(at_km=200, by="train"),), **cut)) == []
    (train,) = found("no_slack", riding(place(50, "site"), journeys=(Journey(at_km=200, by="train", departs_h=9),), **cut))
    assert train.grade == "slows_you"


@pytest.mark.parametrize("chances", [(0.5,) * 6, (0.1, 0.9, 0.8, 0.7, 0.2, 0.6, 0.9), (0.0, 1.0, 1.0), (1.0,) * 3, (0.3, 0.4)])
def test_the_chance_of_a_run_is_that_of_every_weather_looked_at(chances):
    every = product((0, 1), repeat=len(chances))
    told = sum(
        prod(c if w else 1 - c for c, w in zip(chances, wet, strict=True)) for wet in every if "111" in "".join(map(str, wet))
    )
    assert chance_of_run(chances, 3) == pytest.approx(told, abs=1e-12)


def wet(rain_days: float) -> dict:
    month = MonthNormals(mean_max_c=15, mean_min_c=7, rain_days=rain_days)
    return {"stations": (Station(id="w", name="W", at_km=100, elevation_m=0, months=(month,) * 12),)}


def test_rain_day_after_day_is_told_with_the_first_roof():
    cut = DayCut(by="days", days=14)
    room = place(100, "room")
    (rain,) = found("wet_runs", riding(room, cut=cut, **wet(15.5)))
    # A day in two of 14: 7 wet ones, and 0.6465 for three running (counted over all 2^14 weathers).
    every = ["".join(w) for w in product("01", repeat=14)]
    assert rain.size == pytest.approx(sum("111" in w for w in every) / len(every), abs=0.03)
    assert (rain.sentence.figures["wet"].value, rain.grade) == (7, "slows_you")
    assert "night {first}" in rain.reason.words
    assert found("wet_runs", riding(room, cut=cut, **wet(6))) == []
    assert [draft.grade for draft in found("wet_runs", riding(room, cut=cut, rooms_only=True, **wet(15.5)))] == ["worth_knowing"]


def test_soft_ground_makes_a_long_way_longer_than_the_food_lasts():
    """420 km without a shop in seven days; half of the hours on soft ground a third longer are 1.2 days more, half a day is spare."""
    shops = (place(0, "none", "full"), place(420, "none", "full"))
    firm = riding(*shops, length_km=420)
    (way,) = found("long_way", firm)
    assert (way.grade, way.sentence.figures["days"].value) == ("worth_knowing", 7)
    soft = riding(*shops, length_km=420, surfaces=(SurfaceStretch(from_km=0, to_km=420, surface="soft"),))
    (late,) = found("long_way", soft)
    assert late.grade == "stops_you"
    assert late.size == pytest.approx(7 / 3, abs=0.01)  # all of it is soft: a third of seven days
    assert (late.sentence.figures["then"].value, late.sentence.figures["lasts"].value) == (9, 7.5)
    assert found("long_way", riding(place(0, "none", "full"), place(240, "none", "full"), length_km=240)) == []


def test_a_childs_luggage_is_held_against_the_childs_mass():
    """40 kg bear 10; the bike's bags and rack weigh what they weigh, and a thing of 12 kg is too much in any case."""
    stone = thing("stone", 12.0, 5.0)
    load = Load(placements=(Placement(thing_id="stone", carrier_id="left"),))
    loaded = small_tour(stone, riders=(CHILD,), load=load)
    (heavy,) = childs_loads(situation_of(loaded, profile_of(loaded)))
    own = sum(part.mass_kg for part in (*pannier_bike().carriers, *pannier_bike().supports))
    assert heavy.size == pytest.approx(12 + own - 10, abs=0.01)
    grown = loaded.model_copy(update={"riders": (CHILD.model_copy(update={"age_years": 16}),)})
    assert list(childs_loads(situation_of(grown, profile_of(grown)))) == []


def soaking(*things, rain_days: float = 18.0) -> TourSheet:
    """Over a pass of 2,000 m and down, in air that is 10 degrees on the mean below; things against rain are asked of those told."""
    month = MonthNormals(mean_max_c=14, mean_min_c=6, rain_days=rain_days)
    stations = (Station(id="w", name="W", at_km=100, elevation_m=0, months=(month,) * 12),)
    return riding(things=things, rise_m=2000, stations=stations, start=dt.date(2027, 6, 1))


def test_whoever_can_be_soaked_on_a_pass_is_told_first():
    """10 degrees less 13 for 2,000 m at 38 km/h and wet: far below 3; it rains on three days of five."""
    jacket = thing("jacket", 0.3, 0.5, serves=("rain_jacket",))
    (trouble,) = [f for f in found("thin_layers", soaking(jacket)) if f.grade == "stops_you"]
    assert trouble.sentence.names["what"] == "rain trousers"
    assert "gloves that keep water out" in str(trouble.reason)
    dry = soaking(jacket, rain_days=2)
    assert [f for f in found("thin_layers", dry) if f.grade == "stops_you"] == []


def test_no_tyre_is_told_more_than_its_rim_bears_and_soft_ground_wants_less():
    """60 kg on 32 mm by the chart's fit: 153.6 x 132.3 lb / 32^1.5785 - 7.17 = 78 psi, 5.4 bar; a rim without hooks bears 5."""
    hooked = pannier_bike(tyre_width_mm=32, tyre_most_bar=7, tyre_least_bar=2)
    hookless = hooked.model_copy(update={"hookless": True})
    assert _pressure(60, hooked).bar == pytest.approx(5.4, abs=0.02)
    bounded = _pressure(60, hookless)
    assert (bounded.bar, bounded.high_bar) == (5.0, 5.0)
    assert bounded.low_bar == pytest.approx(0.8 * 5.4, abs=0.02)
    soft = [(SurfaceStretch(from_km=10, to_km=10 + length, surface="soft"),) for length in (3, 30, 120)]
    told = [found("soft_ground", riding(surfaces=ground)) for ground in soft]
    assert [[f.grade for f in one] for one in told] == [[], ["worth_knowing"], ["slows_you"]]
    figures = told[2][0].sentence.figures
    assert figures["wanted"].value == pytest.approx(0.4 * figures["bar"].value, abs=0.1)


def climbing(*heights_m: float, rests=()) -> TourSheet:
    """A night every 50 km at these heights; the road climbs evenly between them."""
    ends = [50.0 * (k + 1) for k in range(len(heights_m))]
    n = int(ends[-1]) + 50
    track = northwards(n)
    line = np.interp(range(n + 1), [0, *ends, n], [heights_m[0], *heights_m, heights_m[-1]])
    nights = tuple(Night(at_km=km, rest_days=int(km in rests)) for km in ends)
    return riding().model_copy(
        update={
            "track": track.model_copy(update={"elevation_m": tuple(line.tolist())}),
            "road": Road(nights=nights, cut=DayCut(by="distance", distance_km=50, to_stops=False)),
        }
    )


@pytest.mark.parametrize(
    ("heights_m", "rests", "days", "grade"),
    [
        ((2000, 2900), (), [], None),
        ((2000, 3450), (), [2], "stops_you"),  # 950 above 2,500, 1,450 above the night before
        ((2800, 3250, 3700), (), [], None),
        ((2800, 3400), (), [2], "slows_you"),
        ((3000, 3450, 3900, 4350), (), [4], "slows_you"),  # 1,350 above 3,000 without a night more
        ((3000, 3450, 3900, 4350), (150.0,), [], None),
    ],
)
def test_nights_climb_no_faster_than_is_advised(heights_m, rests, days, grade):
    """Wilderness Medical Society: above 3,000 m at most 500 m more a night, a night more for each 1,000 m."""
    told = found("climbs_fast", climbing(*heights_m, rests=rests))
    assert [draft.grade for draft in told] == ([grade] if grade else [])
    assert [draft.day for draft in told] == days
    assert bool(found("sleeps_high", climbing(*heights_m, rests=rests))) is not bool(days)


@pytest.mark.parametrize(
    ("start", "top_m", "shut"),
    [((5, 1), 2700, True), ((9, 1), 2700, False), ((5, 1), 1900, False), ((5, 1), 1400, False), ((1, 10), 1900, True)],
)
def test_a_pass_under_snow_is_asked_about_before(start, top_m, shut):
    """Months of -4 °C at 2,700 m, of +6 from June on: before 1 May all sixty days are at -4, before 1 September at +6. Of sixty, 24 at +6
    outweigh 36 at -4: it opens about 24 June. At 1,900 m it is 5.2 K warmer; roads below 1,500 m are kept open."""
    cold, warm = (MonthNormals(mean_max_c=mean + 5, mean_min_c=mean - 5) for mean in (-4 - 6 * (start[0] == 1), 6))
    months = tuple(warm if 5 <= month <= 8 else cold for month in range(12))
    station = Station(id="s", name="S", at_km=50, elevation_m=2700, months=months)
    tour = climbing(700, top_m, 700)
    tour = tour.model_copy(update={"start_date": dt.date(2027, *start)})
    tour = tour.model_copy(update={"road": tour.road.model_copy(update={"stations": (station,)})})
    told = found("pass_shut", tour)
    assert len(told) == shut
    if shut and top_m == 2700:
        assert "is -4 °C on average" in told[0].reason.metric()
        day, month = told[0].reason.metric().split("about ")[1].split(".")[0].split()
        assert month == "June"
        assert 17 <= int(day) <= 30


@pytest.mark.parametrize(
    ("high_c", "damp_pct", "days", "grade"), [(40, 25, 2, "slows_you"), (40, 25, 8, "stops_you"), (38, 85, 2, "stops_you")]
)
def test_heat_is_judged_by_its_worst_and_by_its_days_and_its_figures_give_its_number(high_c, damp_pct, days, grade):
    """Dry 40 degrees are borne two days, not eight; damp ones are extreme danger at once. The index itself is checked in references."""
    month = MonthNormals(mean_max_c=high_c, mean_min_c=26, spread_max_c=0, humidity_pct=damp_pct)
    places = (100, 350)  # where none is near, the published climate holds
    stations = tuple(Station(id=f"w{km}", name="W", at_km=km, elevation_m=0, months=(month,) * 12) for km in places)
    (hot,) = found("hot_day", riding(length_km=60 * days - 20, stations=stations))
    figures = hot.reason.figures | hot.sentence.figures
    felt = float(heat_index(figures["high"].value, 100 * figures["damp"].value))
    assert (hot.grade, felt > EXTREME_C) == (grade, damp_pct > 80)
    assert figures["felt"].value == pytest.approx(felt, abs=0.15)
