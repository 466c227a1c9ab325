"""Documents of earlier versions, frozen as they were written: they open unchanged in meaning."""

import json
from pathlib import Path

import pytest

from omnifer.core.assess import assess, profile_of
from omnifer.core.model.tour import VERSION
from omnifer.formats.bundle import read_bundle, write_bundle
from omnifer.formats.problem import InputProblem
from omnifer.formats.upgrade import STEPS, TooNew, upgrade

FIXTURES = Path(__file__).parents[1] / "fixtures"


def document(version: int) -> dict:
    return json.loads((FIXTURES / f"tour-{version}.json").read_text())["tour"]


def first_version() -> dict:
    return document(1)


def test_there_is_a_step_and_a_frozen_document_for_each_version():
    assert len(STEPS) == VERSION - 1
    assert sorted(path.name for path in FIXTURES.glob("tour-*.json")) == [f"tour-{n}.json" for n in range(1, VERSION + 1)]


@pytest.mark.parametrize("version", range(1, VERSION + 1))
def test_every_version_opens_and_can_be_assessed(version):
    tour = read_bundle((FIXTURES / f"tour-{version}.json").read_bytes())
    assert read_bundle(write_bundle(tour)) == tour
    assert len(assess(tour, profile_of(tour)).days) > 1


def test_the_first_version_means_what_it_meant():
    """Names of two fields are new, and the stove, which rode apart from the pot that it lies in, rides in it."""
    before = first_version()
    after = json.loads(write_bundle(read_bundle((FIXTURES / "tour-1.json").read_bytes())))["tour"]
    assert [t["kit"] for t in before["kit"]] == [t["group"] for t in after["kit"]]
    assert [b["reach_mm"] for b in before["rig"]["bikes"]] == [b["frame_reach_mm"] for b in after["rig"]["bikes"]]
    for thing_before, thing_after in zip(before["kit"], after["kit"], strict=True):
        same = {k: v for k, v in thing_after.items() if k in thing_before}
        assert {k: v for k, v in thing_before.items() if k not in ("kit", "guess")} == same
    for field, usual in (("sleeps", "usual"), ("mends", "roadside"), ("cold_hands", False), ("weak_eyes", False)):
        assert [rider.pop(field) for rider in after["riders"]] == [usual] * len(before["riders"])
    for field in ("name", "start_date", "riders", "money", "track"):
        assert after[field] == before[field]
    assert after["aims"] == before["aims"] | {"weather": 1, "carry": 1, "two_walls": False}
    same = {k: v for k, v in before["road"].items() if k != "nights"}
    # What came since is open: the zones of the track, and the usual way to stops off the road.
    assert after["road"]["cut"].pop("days") == 21
    for field, usual in (
        ("opens_again_h", None),
        ("closes_again_h", None),
        ("take_detour", None),
        ("plug_outlets", 1),
        ("plug_hours", None),
        ("plug_shape", ""),
        ("people", None),
        ("guessed", []),
        ("mapped", None),
    ):
        assert [stop.pop(field) for stop in after["road"]["stops"]] == [usual] * len(same["stops"])
    assert [surface.pop("mapped") for surface in after["road"]["surfaces"]] == [None] * len(same["surfaces"])
    assert [station.pop("width_k") for station in after["road"]["stations"]] == [0] * len(same["stations"])
    assert {k: v for k, v in after["road"].items() if k != "nights"} == same | {
        "zones": [], "hazards": [], "journeys": [], "rooms_only": False, "wild_camps": None, "starts": [],
    }  # fmt: skip
    assert [(n["at_km"], n["rest_days"]) for n in after["road"]["nights"]] == [(48.5, 1)]
    for loads in ((before["load"], after["load"]), (before["kept_loads"][0]["load"], after["kept_loads"][0]["load"])):
        was, now = ({(p["thing_id"], p["carrier_id"], p["count"]) for p in load["placements"]} for load in loads)
        moved = {p for p in was ^ now if p[0] != "stove"}
        assert moved == set()
        at = {p[0]: p[1] for p in now}
        assert at["stove"] == at["pot-2-l"]


def test_a_guess_of_the_second_version_is_one_of_both_figures():
    guessed = {thing.id: thing.guessed for thing in read_bundle((FIXTURES / "tour-2.json").read_bytes()).kit if thing.guessed}
    assert guessed == {"tarp": ("mass", "volume")}


def test_what_no_version_has_is_refused():
    with pytest.raises(TooNew):
        upgrade({}, VERSION + 1)
    for bundle in (
        {"version": 0, "tour": {}},
        {"version": "1", "tour": {}},
        {"version": 1, "tour": []},
        {"version": 1, "tour": {"kit": 3}},
    ):
        with pytest.raises(InputProblem):
            read_bundle(json.dumps({"format": "omnifer-tour"} | bundle))
