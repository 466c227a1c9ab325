"""The simulated scale and its client, over real TCP: drift, noise, overload, a lost link, and lines that nobody understands."""

import math
import socket
import statistics
import threading
from collections.abc import Iterator

import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.devices.scale import MOST_KG, NOISE_KG, STEP_KG, STILL_S, Scale, invented
from omnifer.devices.scale_service import ScaleServer
from omnifer.outside.scale import Reading, ScaleService, ScaleTrouble, understood


def test_it_settles_trembles_and_rounds():
    """What is put on swings out: after a time it shows it, give or take its trembling; each line in its steps."""
    scale = Scale(seed=3)
    scale.put(31.9, 100.0)
    swing = max(abs(scale.weight(100 + t / 10) - 31.9) for t in range(5))
    settled = [scale.weight(110 + t / 10) for t in range(300)]
    assert swing > 5
    assert statistics.mean(settled) == pytest.approx(31.9, abs=0.005)
    assert statistics.stdev(settled) == pytest.approx(NOISE_KG, rel=0.2)
    told = [scale.line(100 + t, t).split() for t in range(8)]
    assert [words[4] for words in told] == ["moving" if t <= STILL_S else "stable" for t in range(8)]
    for words in told:
        steps = float(words[2]) / STEP_KG
        assert steps == pytest.approx(round(steps), abs=1e-6)


def test_it_drifts_until_it_is_zeroed_and_takes_no_more_than_it_bears():
    scale = Scale(drift_kg_per_min=0.3, noise_kg=0.0)
    scale.put(10, -100.0)
    assert scale.weight(120.0) == pytest.approx(10 + 0.6)
    scale.zero(120.0)
    assert scale.weight(120.0) == pytest.approx(0)
    assert scale.weight(180.0) == pytest.approx(0.3)
    scale.put(MOST_KG + 0.1, 200.0)
    assert scale.line(300.0, 7) == "O 7"


def test_what_is_invented_is_the_same_each_time_and_not_far_off():
    kilos = [invented(30, f"rear_wheel/{n}") - 30 for n in range(200)]
    assert invented(30, "rear_wheel/1") == invented(30, "rear_wheel/1")
    assert max(kilos) < 2.5
    assert min(kilos) > -1.5
    assert 0.2 < statistics.mean(kilos) < 0.6


@pytest.mark.parametrize(
    ("line", "kg"),
    [("W 4 17.02 kg stable", 17.02), ("W 4 500 g moving", 0.5), ("W 4 10 lb stable", 4.5359), ("W 4 -0.02 kg stable", -0.02)],
)
def test_units_are_understood(line, kg):
    assert understood(line).kg == pytest.approx(kg)


@given(st.text(max_size=60))
def test_no_line_breaks_the_client(line):
    found = understood(line)
    assert found is None or not isinstance(found, Reading) or found.kg is None or math.isfinite(found.kg)


@pytest.mark.parametrize(
    "line", ["W 1 nan kg stable", "W 1 1e400 kg stable", "W x 1 kg stable", "W 1 1 stone stable", "HELLO a b c kg", ""]
)
def test_lines_that_tell_nothing_are_passed_over(line):
    assert understood(line) is None


@pytest.fixture
def server() -> Iterator[ScaleServer]:
    served = ScaleServer(0, Scale(noise_kg=0.0))
    threading.Thread(target=served.serve_forever, daemon=True).start()
    yield served
    served.shutdown()
    served.server_close()


def test_the_client_survives_a_lost_link_and_a_scale_that_went(server):
    service = ScaleService(server.server_address[1])
    readings = service.readings()
    assert next(readings).simulated
    service.ask("PUT 12.5")
    weights = [next(readings) for _ in range(30)]
    assert weights[-1] == Reading(state="stable", kg=12.5, number=weights[-1].number, still=True)
    # Five lines a second: about ten after the last that moved, two seconds have gone.
    moving = max(k for k, reading in enumerate(weights) if reading.state == "moving")
    assert [reading.still for reading in weights].index(True) - moving in range(9, 14)
    numbers = [reading.number for reading in weights]
    assert numbers == sorted(set(numbers))
    service.ask("DROP 0.6")
    states = [getattr(next(readings), "state", "hello") for _ in range(12)]
    assert "lost" in states
    assert states[-1] == "stable"
    with pytest.raises(ScaleTrouble, match="does not understand"):
        service.ask("DANCE")
    service.ask("PUT 100")
    assert any(getattr(next(readings), "state", "") == "too_much" for _ in range(40))
    server.shared.silent_until = math.inf
    server.shutdown()
    server.server_close()
    assert any(getattr(next(readings), "state", "") == "lost" for _ in range(40))
    with pytest.raises(ScaleTrouble, match="does not answer"):
        service.ask("Z")


def test_without_a_scale_it_says_so():
    assert list(ScaleService(None).readings()) == [Reading(state="none")]
    with pytest.raises(ScaleTrouble, match="no scale"):
        ScaleService(None).ask("Z")
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        nobody = ScaleService(probe.getsockname()[1])
    assert next(nobody.readings()).state == "lost"
