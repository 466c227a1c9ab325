"""What a rider would say: one trouble told once, the harm first, thirst by the body's mass, snow as water, layers not added up."""

import pytest

from omnifer.core.assess import assess, profile_of, situation_of
from omnifer.core.findings import SPECS, is_small
from omnifer.core.findings.gather import BUDGET, gathered
from omnifer.core.findings.on_the_road import SKIN_FREEZES, thirst
from omnifer.core.findings.situation import Draft
from omnifer.core.model.finding import Mend
from omnifer.core.model.road import Road, Stop, TypedDay, Weather
from omnifer.core.model.roles import Stove
from omnifer.core.needs.sleep import warmed_by
from omnifer.core.physics.weather import wind_chill
from omnifer.core.sentence import number, say
from tests.conftest import RIDER, small_tour, thing


def dead(name: str, day: int, grade="slows_you", cause="electricity") -> Draft:
    mends = [Mend(name=say("A second bank"), consequence=say("")), Mend(name=say("{x} off", x=name), consequence=say(""))]
    return Draft(
        kind="device_dies", grade=grade, sentence=say("{x} is dead from day {day}.", x=name, day=number(day)),
        reason=say("All use {n}.", n=number(day)), place=say("day {day}", day=number(day)), size=1.0, day=day, mends=mends,
        things=(name,), cause=cause, case=say("{x} from day {day}", x=name, day=number(day)),
    )  # fmt: skip


def told(text) -> str:
    words = text.words
    for key, figure in text.figures.items():
        words = words.replace(f"{{{key}}}", f"{figure.value:g}")
    for key, name in text.names.items():
        words = words.replace(f"{{{key}}}", name)
    return words


def test_one_cause_is_one_finding_with_its_cases_and_what_helps_against_any():
    one, other = list(gathered([dead("phone", 3), dead("messenger", 7, "stops_you"), dead("lamp", 5, cause="")]))[::-1]
    assert (other.things, other.cause) == (("lamp",), "")
    assert (one.grade, one.day, one.size, one.things) == ("stops_you", 7, 2.0, ("messenger", "phone"))
    assert told(one.sentence) == "messenger is dead from day 7."
    assert told(one.reason) == "All use 7. Also: phone from day 3."
    assert [told(mend.name) for mend in one.offers()] == ["A second bank", "messenger off", "phone off"]
    assert one.key == dead("lamp", 9).key  # it stays the same finding, whatever dies first


@pytest.mark.parametrize(
    ("lacks_l", "grade"), [(-0.5, "worth_knowing"), (1.0, "worth_knowing"), (2.0, "slows_you"), (3.5, "stops_you")]
)
def test_thirst_is_told_by_the_part_of_the_body_that_is_lacking(lacks_l, grade):
    """70 kg: 1 l is 1.4 %, 2 l 2.9 %, 3.5 l 5 %; work suffers from 2 % on (American College of Sports Medicine, from memory)."""
    assert RIDER.body_mass_kg == 70
    assert thirst(situation_of(small_tour(), None), lacks_l) == grade


def frozen(*kit, middle: str = "snow"):
    """Two days of 60 km, a camp between two stops; 8 km before and behind it there is `middle`."""
    stops = tuple(
        Stop(id=f"s{km:.0f}", name=f"S{km}", at_km=km, water=water)
        for km, water in ((0.0, "reliable"), (30.0, middle), (90.0, middle), (120.0, "reliable"))
    )
    road = Road(
        typed_days=(TypedDay(distance_km=60), TypedDay(distance_km=60)), stops=stops,
        weather=(Weather(from_km=0, day_high_c=-2, night_low_c=-15),),
    )  # fmt: skip
    return small_tour(*kit).model_copy(update={"road": road})


def test_a_night_on_snow_is_a_dry_camp_for_nobody_with_a_stove():
    """With a stove the camp's water is melted there, and costs fuel; without one it is carried; on bare ground it is carried too."""
    stove = thing("stove", 0.4, role=Stove(burns="petrol"))

    def camp_l(tour) -> float:
        return max((gap.camp for gap in assess(tour, profile_of(tour)).gaps if gap.supply == "water"), default=0.0)

    assert camp_l(frozen(stove)) == 0
    assert camp_l(frozen()) > 2
    assert camp_l(frozen(stove, middle="reliable")) > 2


def test_layers_in_bed_do_not_add_up():
    """5, 3 and 2 K: the warmest whole, the others by half, 7.5 K; in any order."""
    assert warmed_by([3.0, 5.0, 2.0]) == pytest.approx(7.5)
    assert warmed_by([]) == 0


def test_skin_freezes_as_the_weather_services_tell():
    """Environment Canada's chart, from memory: -20 °C with 30 km/h feels like -33, -35 with 40 like -54; frostbite in 10 to 30 and
    in 2 to 5 minutes."""
    for air, kmh, felt, words in ((-20, 30, -33, "10 to 30"), (-35, 40, -54, "2 to 5")):
        assert round(float(wind_chill(air, kmh))) == felt
        assert words in next(soon for limit, soon in SKIN_FREEZES if felt <= limit)


def test_what_harms_little_comes_last_and_what_hurts_first(sample, sample_road):
    findings = assess(sample, sample_road).findings
    assert any(f.small for f in findings)
    assert [f.small for f in findings] == sorted(f.small for f in findings)
    assert not is_small(dead("phone", 1))
    told = [f for f in findings if not f.small]
    assert len(told) == BUDGET
    assert not any(f.small and (f.grade == "stops_you" or f.rank <= BUDGET) for f in findings if not SPECS[f.kind].small)
