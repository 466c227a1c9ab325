"""The bike's own parts, their care, and what could be otherwise on it."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq
from scipy.stats import weibull_min

from omnifer.core.assess import assess, profile_of
from omnifer.core.choices import choices_of
from omnifer.core.mends import mended
from omnifer.core.model.part import BikePart
from omnifer.core.model.rig import Bike
from omnifer.core.model.road import Road, Stop, SurfaceStretch, TypedDay
from omnifer.core.model.tour import Tour
from omnifer.core.needs import wear
from tests.conftest import pannier_bike, small_tour, thing
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


@given(behind=st.floats(0, 8000), life=st.floats(500, 9000))
def test_the_chance_that_a_part_wears_out_is_the_conditional_weibull_one(behind: float, life: float):
    """scipy's Weibull distribution of shape 3 with that mean, given that it has lasted so far."""
    part = next(p for p in TYRED if p.kind == "rear_tyre")
    ahead = min(part.takes_km, life)
    spread = weibull_min(3.0, scale=life / weibull_min(3.0).mean())
    expected = 1 - spread.sf(behind + ahead) / spread.sf(behind) if spread.sf(behind) > 0 else 1.0
    assert wear.wearing_out(behind, ahead, life / wear.MEAN, wear.SHAPE) == pytest.approx(expected, abs=1e-6)


TYRED = list(worn(ridden()).values())


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
