"""The command line, as a shell sees it: JSON on standard output, problems in words on standard error."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from omnifer.cli import BAD_INPUT, main
from omnifer.formats.bundle import write_bundle
from tests.conftest import small_tour, thing
from tests.core.test_rehearsal import small
from tests.formats.test_gpx import LINE, gpx

HERE = Path(__file__).parents[2]


@pytest.fixture
def bundle(tmp_path):
    path = tmp_path / "tour.json"
    path.write_text(
        write_bundle(small_tour(thing("tent", 2, 8), thing("pot", 0.5, 2), thing("bottle", 0.1, 0.9, holds_water_l=0.75)))
    )
    return str(path)


def test_road(tmp_path, capsys):
    path = tmp_path / "way.gpx"
    path.write_bytes(gpx(*LINE, extra='<wpt lat="45.01" lon="7.0"><name>Well</name></wpt>'))
    assert main(["road", str(path)]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["points"] == 3
    assert found["distance_km"] == pytest.approx(2.5, abs=0.2)
    assert found["waypoints"][0]["name"] == "Well"


def test_road_with_a_map(tmp_path, capsys):
    path, extract = tmp_path / "way.gpx", tmp_path / "region.osm"
    path.write_bytes(gpx(*LINE))
    extract.write_text('<osm version="0.6"><node id="5" lat="45.01" lon="7.0"><tag k="natural" v="spring"/></node></osm>')
    assert main(["road", str(path), "--map", str(extract)]) == 0
    (spring,) = json.loads(capsys.readouterr().out)["mapped"]["stops"]
    assert (spring["state"], spring["stop"]["water"], spring["stop"]["treat_water"]) == ("new", "unsure", True)
    extract.write_text("<html>")
    assert main(["road", str(path), "--map", str(extract)]) == 2
    assert "no map" in capsys.readouterr().err


def test_a_list_is_told_row_by_row(tmp_path, capsys):
    path = tmp_path / "list.txt"
    path.write_text("Sleeping bag, cold 1200 g\nWool socks (2)\nWater bottle 750 ml\nThingummy 300 g\n")
    assert main(["list", str(path)]) == 0
    bag, socks, bottle, thingummy = map(json.loads, capsys.readouterr().out.splitlines())
    assert set(bag) == {"name", "count", "mass_kg", "volume_l", "kind", "plays", "serves", "holds_l", "sure", "asked"}
    assert (bag["mass_kg"], bag["plays"], bag["asked"], socks["count"]) == (1.2, "sleeping_bag", ["comfort_c"], 2)
    assert (bottle["holds_l"], bottle["plays"], thingummy["kind"], thingummy["sure"]) == (0.75, "vessel", None, False)
    path.write_text("")
    assert main(["list", str(path)]) == 2
    assert "empty" in capsys.readouterr().err


def test_assess_and_propose_without_any_server(bundle, capsys):
    assert main(["assess", bundle]) == 0
    assert json.loads(capsys.readouterr().out)["findings"]
    assert main(["propose", bundle]) == 0
    proposed = capsys.readouterr().out
    assert json.loads(proposed)["complete"]
    elsewhere = [sys.executable, "-m", "omnifer.cli", "propose", bundle]
    assert subprocess.run(elsewhere, capture_output=True, check=True).stdout == proposed.encode(), "the same in another process"


@pytest.mark.parametrize(("command", "content"), [("road", b""), ("assess", b"{}"), ("propose", b"not json"), ("assess", None)])
def test_bad_input_is_said_in_words_and_exits_2(command, content, tmp_path, capsys):
    path = tmp_path / "input"
    if content is not None:
        path.write_bytes(content)
    assert main([command, str(path)]) == 2
    said = capsys.readouterr()
    assert said.out == ""
    assert said.err.startswith(f"omnifer {command}: ")
    assert "Traceback" not in said.err


@pytest.mark.parametrize(("version", "why"), [("0.3", "is no version"), ("99.0.0", "Not released: ")])
def test_a_release_that_cannot_be_is_refused_in_words(version, why):
    refused = subprocess.run([HERE / "bin" / "release", version], capture_output=True, text=True, check=False)
    assert refused.returncode == 1
    assert why in refused.stderr
    assert refused.stdout == ""


def test_a_rehearsal_is_printed_and_the_same_seed_is_the_same_fate(capsys, tmp_path):
    bundle = tmp_path / "small.json"
    bundle.write_text(write_bundle(small(0)))
    printed = []
    for seed in ("3", "3", "4"):
        assert main(["rehearse", str(bundle), "--plays", "60", "--seed", seed]) == 0
        printed.append(json.loads(capsys.readouterr().out))
    assert printed[0] == printed[1] != printed[2]
    assert printed[0]["plays"] == 60
    assert all({"count", "of", "low", "high"} <= outcome["counted"].keys() for outcome in printed[0]["outcomes"])
    assert {gap["supply"] for gap in printed[0]["gaps"]} == {"water", "food", "fuel"}
    assert main(["rehearse", str(bundle), "--plays", "1"]) == BAD_INPUT
    assert "50 to 2000" in capsys.readouterr().err
