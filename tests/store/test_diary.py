"""The diary in PostgreSQL: each entry once, never changed, seen by its owner only."""

import random
import threading

import psycopg
import pytest

from omnifer.core.diary.journal import Journal
from omnifer.store.database import LOCAL_RIDER, NotThereError, acting, open_pool, owner_named
from omnifer.store.diary import Diary
from omnifer.store.tours import Tours
from tests.conftest import small_tour
from tests.core.test_diary import told
from tests.patience import PATIENCE_S


@pytest.fixture
def pool(database):
    pool = open_pool(database)
    pool.wait(PATIENCE_S)
    yield pool
    pool.close()


@pytest.fixture
def kept(pool):
    owner = owner_named(pool, LOCAL_RIDER)
    return Diary(pool, owner), Tours(pool, owner).create(small_tour()).id


def test_entries_of_two_phones_are_kept_once_however_they_come(pool, kept):
    """Sixty entries, each sent three times over by two threads at once in batches of any size."""
    diary, tour_id = kept
    entries = [told("here", phone=phone, day=d, km=float(d)).entry for phone in ("a", "b") for d in range(1, 31)]

    def send(seed):
        chance = random.Random(seed)
        mine = [*entries, *entries]
        chance.shuffle(mine)
        while mine:
            size = chance.randint(1, 9)
            batch, mine = mine[:size], mine[size:]
            assert diary.add(tour_id, batch).otherwise == []

    senders = [threading.Thread(target=send, args=(seed,)) for seed in (1, 2)]
    for sender in senders:
        sender.start()
    for sender in senders:
        sender.join()
    received, last = diary.read(tour_id)
    assert {one.entry.id for one in received} == {entry.id for entry in entries}
    assert len(received) == 60
    assert diary.last(tour_id) == last
    assert diary.read(tour_id, last) == ([], last)
    later, _ = diary.read(tour_id, last - 1)
    assert [one.entry.id for one in later] == [received[-1].entry.id]


def test_the_same_name_with_other_words_keeps_both(kept):
    diary, tour_id = kept
    first = told("used", about="chair", amount=1).entry
    other = first.model_copy(update={"amount": 2.0})
    assert diary.add(tour_id, [first]).otherwise == []
    for _ in range(2):
        assert diary.add(tour_id, [other]).otherwise == [first.id]
    received, _ = diary.read(tour_id)
    assert [one.entry.amount for one in received] == [1, 2]
    assert received[1].says_otherwise == first.id
    assert len({one.entry.id for one in received}) == 2
    # A counter-entry names the one of the two that it means.
    undo = told("undo", hour=20, undoes=received[1].entry.id).entry
    diary.add(tour_id, [undo])
    assert [t.entry.amount for t in Journal.of(diary.read(tour_id)[0]).standing] == [1]


def test_nothing_changes_or_takes_away_an_entry_but_its_tour(pool, kept):
    diary, tour_id = kept
    diary.add(tour_id, [told("note", note="Stays").entry])
    for statement in ("UPDATE diary_entry SET author = 'x'", "DELETE FROM diary_entry"):
        with pytest.raises(psycopg.errors.RaiseException, match="neither changed"), acting(pool, diary.owner_id) as connection:
            connection.execute(statement)
    assert len(diary.read(tour_id)[0]) == 1
    diary.keep_picture(tour_id, str(diary.read(tour_id)[0][0].entry.id), b"picture")
    Tours(pool, diary.owner_id).delete(tour_id)
    assert diary.read(tour_id)[0] == []


def test_a_batch_is_kept_whole_or_not_at_all_and_by_its_owner_only(pool, kept):
    diary, tour_id = kept
    with pool.connection() as connection:
        stranger = connection.execute("INSERT INTO owner (name) VALUES ('stranger') RETURNING id").fetchone()["id"]
    theirs = Diary(pool, stranger)
    with pytest.raises(NotThereError):
        theirs.add(tour_id, [told("note").entry])
    diary.add(tour_id, [told("note").entry])
    assert theirs.read(tour_id)[0] == []
    assert theirs.last(tour_id) == 0
    with pytest.raises(NotThereError):
        diary.keep_picture(tour_id, str(told("note").entry.id), b"")
    # A tour that was put away takes what its riders noted meanwhile.
    tours = Tours(pool, diary.owner_id)
    tours.remove(tour_id, tours.revision(tour_id))
    diary.add(tour_id, [told("note", note="From the road").entry])
    assert len(diary.read(tour_id)[0]) == 2
