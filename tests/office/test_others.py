"""A change that is kept stays kept and is answered so, whatever becomes of telling others; and writers wait for their turn."""

import threading
import time

import psycopg
import pytest

from omnifer.core.model.library import as_owned
from omnifer.office.desk import Desk, Office
from omnifer.office.problems import problem_of
from omnifer.office.turns import Turns
from omnifer.store.database import LOCAL_RIDER, NotThereError, open_pool
from tests.conftest import small_tour, thing


@pytest.fixture
def desk(database) -> Desk:
    office = Office(open_pool(database))
    yield office.desk_of(LOCAL_RIDER)
    office.pool.close()


def sharing(desk: Desk, tours: int):
    """So many tours that chose the same thing of the library."""
    tent = thing("tent", 2, 8)
    owned = desk.library.add([as_owned(tent)])[0]
    chosen = tent.model_copy(update={"library_id": owned})
    return [desk.tours.create(small_tour(chosen)) for _ in range(tours)]


def lighter(desk: Desk, stored):
    sheet = stored.sheet
    kit = tuple(t.model_copy(update={"mass_kg": 1.5}) for t in sheet.kit)
    return desk.keep(stored, "Weighed", sheet.model_copy(update={"kit": kit}))


def test_other_tours_take_it_over_and_are_worked_out_only_when_opened(desk, monkeypatch):
    mine, *others = sharing(desk, 6)
    worked_out = []
    monkeypatch.setattr(Desk, "_assess", lambda self, stored, digest: worked_out.append(stored.id) or b"")
    answer = lighter(desk, mine)
    assert worked_out == []
    assert [desk.tours.read(other.id).sheet.kit[0].mass_kg for other in others] == [1.5] * 5
    assert len(answer.remarks) == 5


@pytest.mark.parametrize("trouble", [NotThereError("gone"), psycopg.OperationalError("away"), RuntimeError("anything")])
def test_trouble_of_another_tour_is_not_that_of_the_one_that_was_changed(desk, monkeypatch, trouble):
    mine, other = sharing(desk, 2)
    monkeypatch.setattr(Desk, "_takes_over", lambda *_: (_ for _ in ()).throw(trouble))
    answer = lighter(desk, mine)
    assert (answer.tour.revision, answer.tour.sheet.kit[0].mass_kg) == (2, 1.5)
    assert desk.tours.read(mine.id).sheet.kit[0].mass_kg == 1.5
    assert desk.tours.read(other.id).revision == 1
    assert any("could not be told" in remark for remark in answer.remarks)


def test_of_eight_writers_of_a_tour_none_works_anything_out_twice(desk, monkeypatch):
    stored = desk.tours.create(small_tour(*(thing(f"t{n}") for n in range(8))))
    from omnifer.office import desk as module

    counted, assess = [], module.assess
    monkeypatch.setattr(module, "assess", lambda *given: (counted.append(1), time.sleep(0.02), assess(*given))[2])

    def change(n: int) -> None:
        kit = tuple(t.model_copy(update={"mass_kg": 3.0}) if t.id == f"t{n}" else t for t in stored.sheet.kit)
        desk.keep(stored, f"Change {n}", stored.sheet.model_copy(update={"kit": kit}))

    writers = [threading.Thread(target=change, args=(n,)) for n in range(8)]
    for writer in writers:
        writer.start()
    for writer in writers:
        writer.join()
    now = desk.tours.read(stored.id)
    assert ({t.mass_kg for t in now.sheet.kit}, now.revision, len(counted)) == ({3.0}, 9, 8)


def test_a_turn_is_there_while_it_is_wanted():
    turns = Turns()
    with turns.of("a"), turns.of("a"), turns.of("b"):
        assert set(turns._waiting) == {"a", "b"}
    assert turns._waiting == {}


@pytest.mark.parametrize(("error", "status"), [(psycopg.errors.DiskFull("no space left"), 507), (OSError(28, "No space left"), 507),
                                               (psycopg.OperationalError("gone"), 503), (BlockingIOError(11, "later"), 408)])  # fmt: skip
def test_a_full_disk_and_a_slow_sender_are_told_as_what_they_are(error, status):
    told = problem_of(error)
    assert told.status == status
    assert told.detail
    assert told.mend
    wrapped = RuntimeError("in a queue")
    wrapped.__cause__ = error
    assert problem_of(wrapped).status == (507 if status == 507 else 500)
