"""What processes keep so as not to make it again: made once, bounded, shared, and never half."""

import threading
import time

import numpy as np
import pytest

from omnifer.office.desk import Office
from omnifer.office.lately import Lately
from omnifer.office.profiles import Profiles
from omnifer.office.rules import rules_digest
from omnifer.store.assessed import MOST_KEPT, Assessed
from omnifer.store.database import LOCAL_RIDER, open_pool
from tests.conftest import small_tour, thing


def test_what_many_want_at_once_is_made_once_and_a_failure_is_everybodys():
    kept: Lately[str, int] = Lately(10)
    made, got = [], []

    def make() -> int:
        time.sleep(0.05)
        made.append(1)
        return 7

    threads = [threading.Thread(target=lambda: got.append(kept.of("a", make))) for _ in range(20)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert (len(made), got) == (1, [7] * 20)
    with pytest.raises(ZeroDivisionError):
        kept.of("b", lambda: 1 // 0)
    assert kept.of("b", lambda: 2) == 2


def test_what_is_kept_weighs_only_so_much():
    kept: Lately[str, bytes] = Lately(100, len)
    for name, size in (("a", 40), ("b", 40), ("a", 50), ("c", 30)):
        kept.keep(name, bytes(size))
    made = []
    for name in "abc":
        kept.of(name, lambda: made.append(1) or b"")
    assert len(made) == 1  # b had not been used for longest
    kept.keep("whale", bytes(101))
    assert kept.of("whale", lambda: b"anew") == b"anew"


def test_a_road_is_measured_by_one_process_and_read_by_the_next(tmp_path, short_road):
    first, second = Profiles(tmp_path), Profiles(tmp_path)
    first.of("digest", lambda: short_road)
    read = second.of("digest", lambda: pytest.fail("measured twice"))
    for name in ("km", "elevation_m", "gradient", "lat_deg", "lon_deg"):
        assert np.array_equal(getattr(read, name), getattr(short_road, name))
    assert read.has_heights == short_road.has_heights
    assert isinstance(read.km.base, np.memmap)
    assert read.line == short_road.line
    (file,) = tmp_path.glob("*.npy")
    assert rules_digest() in file.name
    file.write_bytes(file.read_bytes()[:1000])
    assert Profiles(tmp_path).of("digest", lambda: short_road).length_km == short_road.length_km
    assert list(tmp_path.glob("*.new")) == []


def test_a_folder_that_cannot_be_written_is_no_hindrance(tmp_path, short_road):
    roads = Profiles(tmp_path / "gone")
    (tmp_path / "gone").rmdir()
    assert roads.of("digest", lambda: short_road) is short_road


def test_an_assessment_is_worked_out_once_for_all_processes_and_for_copies(database, monkeypatch):
    one, other = (Office(open_pool(database)) for _ in range(2))
    desk = one.desk_of(LOCAL_RIDER)
    kept = desk.start(small_tour(thing("tent")), "Start")
    monkeypatch.setattr("omnifer.office.desk.assess", lambda *_: pytest.fail("worked out again"))
    there = other.desk_of(LOCAL_RIDER)
    stored = there.tours.read(kept.tour.id)
    assert there.assessment(stored) == kept.assessment
    assert there.answer(kept.tour.id) == kept
    monkeypatch.undo()
    changed = there.keep(stored, "Name", stored.sheet.model_copy(update={"name": "Other"}))
    monkeypatch.setattr("omnifer.office.desk.assess", lambda *_: pytest.fail("worked out again"))
    assert desk.step(kept.tour.id, changed.tour.revision, "undo").assessment == kept.assessment
    for office in (one, other):
        office.pool.close()


def test_only_so_many_assessments_of_an_owner_are_kept(database):
    pool = open_pool(database)
    kept = Assessed(pool, 1)
    for number in range(MOST_KEPT + 5):
        kept.keep(f"digest {number}", b"x")
    assert kept.read("digest 0") is None
    assert kept.read(f"digest {MOST_KEPT + 4}") == b"x"
    assert Assessed(pool, 2).read(f"digest {MOST_KEPT + 4}") is None  # another owner sees nothing
    pool.close()
