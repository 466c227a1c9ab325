"""Errands in the queue: told on the way, called off at once, taken up by another worker, never kept for nobody."""

import json
import os
import signal
import time
from pathlib import Path

import psycopg
import pytest
import requests

from omnifer.core.model.road import Road, Track
from omnifer.jobs import pieces
from omnifer.jobs.queue import MOST_AT_A_TIME
from omnifer.jobs.worker import LOOK_S
from omnifer.store.database import QUERIES, WORKING
from tests.conftest import end_worker, small_tour, start_worker, thing, tours_of
from tests.formats.test_gpx import gpx
from tests.patience import until

STREAM = {"Accept": "text/event-stream"}
HALF_A_SECOND = 0.5
THINGS = [thing(f"thing-{n}", 0.2 + n % 7 / 10, 0.5 + n % 5, group=f"kit {n % 6}") for n in range(24)]


def new_tour(application, address: str) -> str:
    return f"{address}/api/tours/{tours_of(application).create(small_tour(*THINGS)).id}"


@pytest.fixture
def tour(queued) -> str:
    return new_tour(*queued)


@pytest.fixture
def office_tour(office) -> str:
    return new_tour(office.application, office.address)


def events(response):
    """What is told of a question, by the name of each event."""
    name = ""
    for line in response.iter_lines(decode_unicode=True):
        if line.startswith("event: "):
            name = line.removeprefix("event: ")
        elif line.startswith("data: "):
            yield name, json.loads(line.removeprefix("data: "))


class Asked:
    """A question asked over a connection that stays open, and what is told in answer."""

    def __init__(self, tour: str, rounds: int = 60) -> None:
        body = {"revision": 1, "rounds": rounds, "effort": 20 if rounds > 9 else 0.2}
        self.response = requests.post(f"{tour}/proposal", json=body, headers=STREAM, stream=True)
        self.told = events(self.response)

    def until(self, name: str):
        return next(told for event, told in self.told if event == name)

    def close(self) -> None:
        self.response.close()


def status(process: Path) -> list[str]:
    """State and parent of a process, and more."""
    return (process / "stat").read_text().rpartition(")")[2].split()


def doers(worker) -> list[int]:
    """Processes that do errands of a worker just now: what uses the processor among the children of its server of processes."""
    found = []
    for process in Path("/proc").glob("[0-9]*"):
        try:
            state, parent = status(process)[:2]
            if state == "R" and int(status(Path("/proc") / parent)[1]) == worker.pid:
                found.append(int(process.name))
        except OSError:
            continue
    return found


def rows(database: str, table: str) -> int:
    with psycopg.connect(database) as connection:
        connection.execute("SELECT set_config('omnifer.owner_id', '1', true)")
        return connection.execute(f"SELECT count(*) FROM {table}").fetchone()[0]


def workers_there(database: str) -> int:
    with psycopg.connect(database) as connection:
        return QUERIES.workers_there(connection, lock=WORKING)


def revision(tour: str) -> int:
    return requests.get(tour).json()["tour"]["revision"]


def test_a_search_is_told_and_kept_and_leaves_nothing_behind(office, office_tour):
    told = list(Asked(office_tour, rounds=2).told)
    assert {name for name, _ in told} >= {"proposal", "answer"}
    (last, answer) = told[-1]
    assert last == "answer"
    assert answer["answer"]["tour"]["revision"] == revision(office_tour) == 2
    until(lambda: rows(office.database, "errand") == rows(office.database, "procrastinate_jobs") == 0, "an errand stayed behind")


def test_hanging_up_reaches_the_solver_within_half_a_second_and_nothing_is_kept(office, office_tour):
    response = Asked(office_tour)
    assert response.until("proposal")["holds"]
    response.close()
    began = time.monotonic()
    until(lambda: rows(office.database, "procrastinate_jobs") == 0 and not doers(office.worker), "the search runs on")
    assert time.monotonic() - began < 4 * HALF_A_SECOND  # with a slow machine's patience; bench.faults measures it
    assert revision(office_tour) == 1


def test_whoever_waits_is_told_the_place_and_short_answers_do_not_wait(office_tour):
    first = Asked(office_tour)
    first.until("proposal")
    second, third = Asked(office_tour), Asked(office_tour)
    assert second.until("progress")["what"] == "Next in the queue"
    assert third.until("progress")["what"] == "One search is before yours"
    began = time.monotonic()
    assert requests.get(f"{office_tour}/things/thing-3/price").json()["thing_id"] == "thing-3"
    assert time.monotonic() - began < 20
    for response in (first, second, third):
        response.close()


def test_a_map_goes_through_the_queue_in_pieces(office, monkeypatch):
    monkeypatch.setattr(pieces, "PIECE_BYTES", 1000)
    line = Track(lat_deg=tuple(45 + n / 1000 for n in range(200)), lon_deg=(7.0,) * 200, elevation_m=(300.0,) * 200)
    tour = f"{office.address}/api/tours/{tours_of(office.application).create(small_tour(track=line, road=Road())).id}"
    nodes = "".join(
        f'<node id="{n}" lat="{45 + n / 100}" lon="7.0"><tag k="amenity" v="drinking_water"/></node>' for n in range(1, 19)
    )
    files = {"file": ("region.osm", f'<osm version="0.6">{nodes}</osm>')}
    told = list(events(requests.post(f"{tour}/map", files=files, headers=STREAM, stream=True)))
    assert {"progress", "answer"} == {name for name, _ in told}
    assert [stop["stop"]["mapped"]["ids"] for stop in told[-1][1]["stops"]] == [[f"n{n}"] for n in range(1, 19)]
    until(lambda: rows(office.database, "errand_file") == 0, "the map stayed behind")


def test_one_rider_has_only_so_many_at_a_time(tour):
    asked = [Asked(tour) for _ in range(MOST_AT_A_TIME[True][0])]
    for response in asked:
        response.until("progress")
    refused = requests.post(f"{tour}/proposal", json={"revision": 1})
    assert (refused.status_code, refused.json()["title"]) == (429, "Enough at a time")
    for response in asked:
        response.close()


def test_a_killed_workers_search_is_taken_up_by_another(tour, worker, database, caplog):
    other = start_worker(database)
    until(lambda: workers_there(database) == 2 * 2, "the other does not come")  # each has two queues
    response = Asked(tour, rounds=2)
    response.until("proposal")
    until(lambda: doers(worker) or doers(other), "nobody does it")
    busy, idle = (worker, other) if doers(worker) else (other, worker)
    killed = time.monotonic()
    busy.kill()
    busy.wait()
    assert list(response.told)[-1][0] == "answer"
    assert "another takes it up" in caplog.text
    assert time.monotonic() - killed < LOOK_S / 2, "the other was not told, but found it when it looked by itself"
    assert revision(tour) == 2
    end_worker(idle)


def test_a_stopped_worker_gives_its_search_back(tour, worker, database):
    response = Asked(tour, rounds=2)
    response.until("proposal")
    began = time.monotonic()
    end_worker(worker)
    assert time.monotonic() - began < 3
    other = start_worker(database)
    assert list(response.told)[-1][0] == "answer"
    end_worker(other)


def test_a_killed_process_is_begun_once_more(office, office_tour):
    response = Asked(office_tour, rounds=2)
    response.until("proposal")
    for number in doers(office.worker):
        os.kill(number, signal.SIGKILL)
    assert list(response.told)[-1][0] == "answer"
    assert revision(office_tour) == 2


def test_nothing_is_kept_for_an_asker_that_was_killed(office, office_tour):
    """The connection that says that the errand is waited for is cut, as when a web server is killed."""
    response = Asked(office_tour)
    response.until("proposal")
    office.application.extensions["errands"]._ear.close()
    until(lambda: rows(office.database, "errand") == 0, "the search runs on for nobody")
    assert revision(office_tour) == 1
    response.close()


def test_a_track_and_refusals_come_through_the_queue(office_tour):
    tour = office_tour
    content = gpx(*((45 + n / 10_000, 7.0, 200.0) for n in range(4000)))
    answer = requests.post(f"{tour}/track", data={"revision": "1"}, files={"file": ("a.gpx", content)}).json()
    assert answer["assessment"]["road"]["length_km"] == pytest.approx(44.5, abs=0.5)
    refused = requests.post(f"{tour}/track", data={"revision": "2"}, files={"file": ("a.gpx", content[:-40])})
    assert (refused.status_code, refused.headers["Content-Type"]) == (422, "application/problem+json")
    assert "damaged" in refused.json()["detail"]
    gone = requests.get(f"{tour}/mends", params={"finding": "none"})
    assert (gone.status_code, gone.json()["detail"]) == (404, "There is no such finding.")
    stale = requests.post(f"{tour}/proposal", json={"revision": 99})
    assert stale.status_code == 409
