"""The store: every change a new state, nothing lost, no two writers at once."""

import datetime as dt
import json
import threading

import numpy as np
import psycopg
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from omnifer.core.model.outlook import Outlook, OutlookDay
from omnifer.core.model.road import Track
from omnifer.formats.bundle import read_bundle
from omnifer.store.database import LOCAL_RIDER, NotThereError, StaleError, migrate, open_pool, owner_named
from omnifer.store.tidying import tidy
from omnifer.store.tours import Tours, UnreadableError, pack_track, unpack_track
from tests.conftest import small_tour, thing
from tests.formats.test_upgrade import first_version

WAY = Track(name="Way", lat_deg=(1.0, 1.1), lon_deg=(2.0, 2.1), elevation_m=(5.0, None))
OUTLOOK = OutlookDay(date=dt.date(2027, 5, 1), high_c=20, low_c=9, rain_chance=0.3, rain_mm=2, wind_ms=3)


@pytest.fixture
def tours(database):
    pool = open_pool(database)
    yield Tours(pool, owner_named(pool, LOCAL_RIDER))
    pool.close()


def renamed(sheet, name):
    return sheet.model_copy(update={"name": name})


def steps_back(tours: Tours, tour_id: str, step: str) -> list[str]:
    """The names met on the way while a step is possible."""
    names = []
    while True:
        stored = tours.read(tour_id)
        names.append(stored.sheet.name)
        if not (stored.can_undo if step == "undo" else stored.can_redo):
            return names
        tours.step(tour_id, stored.revision, step)


def test_undo_and_redo_without_end(tours):
    tour_id = tours.create(small_tour(thing("tent"))).id
    for n in range(12):
        stored = tours.read(tour_id)
        tours.change(tour_id, stored.revision, f"Name {n}", renamed(stored.sheet, f"Name {n}"))
    back = steps_back(tours, tour_id, "undo")
    assert back == [f"Name {n}" for n in reversed(range(12))] + ["Small"]
    assert steps_back(tours, tour_id, "redo") == back[::-1]


def test_a_change_after_undo_starts_a_new_branch(tours):
    tour_id = tours.create(small_tour()).id
    first = tours.read(tour_id)
    tours.change(tour_id, first.revision, "A", renamed(first.sheet, "A"))
    tours.step(tour_id, tours.read(tour_id).revision, "undo")
    tours.change(tour_id, tours.read(tour_id).revision, "B", renamed(first.sheet, "B"))
    stored = tours.read(tour_id)
    assert (stored.sheet.name, stored.what, stored.can_redo) == ("B", "B", False)
    tours.step(tour_id, stored.revision, "undo")
    tours.step(tour_id, tours.read(tour_id).revision, "redo")
    assert tours.read(tour_id).sheet.name == "B"


def test_a_step_where_there_is_none_changes_nothing(tours):
    tour_id = tours.create(small_tour()).id
    before = tours.read(tour_id)
    tours.step(tour_id, before.revision, "undo")
    tours.step(tour_id, tours.read(tour_id).revision, "redo")
    assert tours.read(tour_id).sheet == before.sheet


def test_of_writers_at_the_same_moment_one_wins(tours):
    tour_id = tours.create(small_tour()).id
    stored = tours.read(tour_id)
    outcomes: list[str] = []

    def write(n: int) -> None:
        try:
            tours.change(tour_id, stored.revision, f"Writer {n}", renamed(stored.sheet, f"Writer {n}"))
            outcomes.append(f"Writer {n}")
        except StaleError:
            outcomes.append("stale")

    writers = [threading.Thread(target=write, args=(n,)) for n in range(6)]
    for writer in writers:
        writer.start()
    for writer in writers:
        writer.join()
    assert outcomes.count("stale") == 5
    assert tours.read(tour_id).sheet.name in outcomes
    assert tours.read(tour_id).revision == stored.revision + 1


def test_the_track_is_kept_once_over_many_changes(tours):
    track = WAY
    tour_id = tours.create(small_tour().model_copy(update={"track": track})).id
    stored = tours.read(tour_id)
    tours.change(tour_id, stored.revision, "Rename", renamed(stored.sheet, "Renamed"))
    after = tours.read(tour_id)
    assert after.track_id == stored.track_id
    assert tours.read_track(after.track_id) == track
    other = track.model_copy(update={"name": "Other"})
    tours.change(tour_id, after.revision, "Another track", after.sheet, other)
    assert tours.read_track(tours.read(tour_id).track_id) == other
    tours.step(tour_id, tours.read(tour_id).revision, "undo")
    assert tours.read_track(tours.read(tour_id).track_id) == track
    assert tours.read_track(None) is None


def test_what_is_not_there_is_said(tours):
    for wanted in ("00000000-0000-0000-0000-000000000000", "no identifier"):
        acts = (tours.read, tours.delete, lambda i: tours.change(i, 1, "x", small_tour()), lambda i: tours.step(i, 1, "undo"))
        for act in acts:
            with pytest.raises(NotThereError):
                act(wanted)


def test_a_deleted_tour_is_gone_and_the_others_stay(tours):
    gone, stays = (tours.create(renamed(small_tour(), name)).id for name in ("Goes", "Stays"))
    stored = tours.read(gone)
    tours.change(gone, stored.revision, "Rename", renamed(stored.sheet, "Gone"))
    tours.delete(gone)
    with pytest.raises(NotThereError):
        tours.delete(gone)
    assert [line.id for line in tours.list()] == [stays]
    assert tours.count() == 1


TABLES = ("tour", "tour_state", "tour_part", "state_part", "tour_step", "track", "outlook")


def rows(tours: Tours) -> dict[str, int]:
    with tours._connection() as connection:
        return {name: connection.execute(f"SELECT count(*) AS n FROM {name}").fetchone()["n"] for name in TABLES}


def test_a_removed_tour_is_fetched_back_as_it_was_until_it_is_forgotten(tours, database):
    gone = tours.create(renamed(small_tour(), "Goes")).id
    stored = tours.read(gone)
    tours.remove(gone, tours.revision(gone))
    for act in (tours.read, lambda i: tours.remove(i, 1), lambda i: tours.change(i, 1, "x", small_tour())):
        with pytest.raises(NotThereError):
            act(gone)
    assert (tours.list(), [line.name for line in tours.list(removed=True)], tours.count()) == ([], ["Goes"], 0)
    tours.restore(gone)
    assert tours.read(gone) == stored
    tours.remove(gone, tours.revision(gone))
    with tours._connection() as connection:
        connection.execute("UPDATE tour SET removed_at = now() - interval '31 days'")
        connection.execute(
            "INSERT INTO owned (owner_id, name, kit, sought, body, document, removed_at) SELECT %s, name, '', '', "
            "'{}', 1, now() - age FROM (VALUES ('long', interval '31 days'), ('lately', interval '29 days')) AS gone (name, age)",
            [tours.owner_id],
        )
    kept = tours.create(small_tour()).id
    tidy(database)
    with pytest.raises(NotThereError):
        tours.restore(gone)
    with tours._connection() as connection:
        assert [row["name"] for row in connection.execute("SELECT name FROM owned")] == ["lately"]
    assert [line.id for line in tours.list()] == [kept]


def test_deleting_a_tour_leaves_no_row_behind(tours):
    tour_id = tours.create(small_tour(thing("tent")).model_copy(update={"track": WAY})).id
    stored = tours.read(tour_id)
    tours.change(tour_id, stored.revision, "Another track", renamed(stored.sheet, "B"), WAY.model_copy(update={"name": "Other"}))
    tours.step(tour_id, tours.read(tour_id).revision, "undo")
    tours.keep_outlook(tour_id, dt.date(2027, 5, 1), Outlook(elevation_m=10, days=(OUTLOOK,)))
    assert all(rows(tours).values())
    tours.delete(tour_id)
    assert not any(rows(tours).values())


def test_a_change_writes_only_the_part_it_touches_and_what_was_undone_goes(tours):
    tour_id = tours.create(small_tour(thing("tent"))).id
    first = rows(tours)
    stored = tours.read(tour_id)
    tours.change(tour_id, 1, "Rename", renamed(stored.sheet, "B"))
    assert rows(tours)["tour_part"] == first["tour_part"] + 1
    tours.change(tour_id, 2, "Another track", renamed(stored.sheet, "C"), WAY)
    tours.step(tour_id, 3, "undo")
    tours.step(tour_id, 4, "undo")
    tours.change(tour_id, 5, "Other", renamed(stored.sheet, "D"))
    left = rows(tours)
    assert (left["tour_state"], left["tour_part"], left["track"]) == (2, first["tour_part"] + 1, 0)
    assert tours.read(tour_id).sheet.name == "D"
    assert tours.read(tour_id, 1).sheet.name == "Small"
    with pytest.raises(StaleError):
        tours.read(tour_id, 3)


def test_a_part_that_is_the_very_same_is_shared_unless_an_older_version_wrote_it(tours):
    kept = tours.create(small_tour(thing("tent")))
    second = tours.change(kept.id, 1, "x", renamed(kept.sheet, "Other"), known=kept.sheet)
    with tours._connection() as connection:
        shared = connection.execute("SELECT count(*) FROM state_part GROUP BY part_id ORDER BY 1").fetchall()
        assert [row["count"] for row in shared] == [1, 1, 2, 2, 2, 2, 2]
        connection.execute("UPDATE tour_state SET version = version - 1")
        # Told apart from what is written anew.
        connection.execute("UPDATE tour_part SET digest = 'old' WHERE name = 'kit'")
    tours.change(kept.id, second.revision, "y", renamed(second.sheet, "Third"), known=second.sheet)
    with tours._connection() as connection:
        written = connection.execute("SELECT digest, body FROM tour_part WHERE name = 'kit' ORDER BY id").fetchall()
    assert [(row["digest"] == "old", row["body"]["kit"][0]["id"]) for row in written] == [(True, "tent"), (False, "tent")]


def test_another_owner_sees_nothing_and_can_hang_nothing_on_it(tours):
    tour_id = tours.create(small_tour()).id
    with tours.pool.connection() as connection:
        connection.execute("INSERT INTO owner (name) VALUES ('stranger')")
    stranger = Tours(tours.pool, owner_named(tours.pool, "stranger"))
    assert stranger.list() == []
    for act in (stranger.read, stranger.delete, stranger.revision):
        with pytest.raises(NotThereError):
            act(tour_id)
    assert tours.count() == 1
    with tours.pool.connection() as connection:  # without an owner nothing is seen, whatever a query asks for
        assert connection.execute("SELECT count(*) AS n FROM tour").fetchone()["n"] == 0
    insert = "INSERT INTO track (owner_id, tour_id, points) VALUES (%s, %s, '')"
    for acting, owner in ((stranger, tours.owner_id), (stranger, stranger.owner_id)):
        with pytest.raises(psycopg.Error), acting._connection() as connection:
            connection.execute(insert, (owner, tour_id))


def test_a_state_that_cannot_be_read_is_kept_and_said(tours):
    tour_id = tours.create(small_tour(thing("tent"))).id
    tours.change(tour_id, 1, "Rename", renamed(tours.read(tour_id).sheet, "B"))
    for damage in ("UPDATE tour_state SET version = 99", "UPDATE tour_part SET body = '{\"kit\": 3}' WHERE name = 'kit'"):
        with tours._connection() as connection:
            connection.execute(damage)
        with pytest.raises(UnreadableError) as said:
            tours.read(tour_id)
        assert said.value.document["name"] == "B"
    assert [line.name for line in tours.list()] == ["B"]
    tours.delete(tour_id)
    assert tours.list() == []


def test_states_of_the_first_version_are_moved_and_read(empty_database):
    """The tables as the first version left them, one tour with its track in them and a track of a tour long gone."""
    document = first_version()
    track = document.pop("track")
    migrate(empty_database, until="0002")
    with psycopg.connect(empty_database) as connection:
        points = pack_track(Track.model_validate(track))
        kept, _ = (
            connection.execute("INSERT INTO track (owner_id, points) VALUES (1, %s) RETURNING id", (points,)).fetchone()[0]
            for _ in "ab"
        )
        tour_id = connection.execute("INSERT INTO tour (owner_id) VALUES (1) RETURNING id").fetchone()[0]
        parent = None
        for name in ("Before", "After"):
            sheet = json.dumps(document | {"name": name})
            parent = connection.execute(
                "INSERT INTO tour_state (owner_id, tour_id, parent_id, track_id, what, sheet) VALUES (1, %s, %s, %s, %s, %s) RETURNING id",
                (tour_id, parent, kept, name, sheet),
            ).fetchone()[0]
        connection.execute("UPDATE tour SET state_id = %s, revision = 2", (parent,))
    migrate(empty_database)
    pool = open_pool(empty_database)
    tours = Tours(pool, owner_named(pool, LOCAL_RIDER))
    stored = tours.read(str(tour_id))
    assert (stored.sheet.name, stored.revision, stored.can_undo) == ("After", 2, True)
    bundle = {"format": "omnifer-tour", "version": 1, "tour": document | {"name": "After"}}
    assert stored.sheet.model_dump() == read_bundle(json.dumps(bundle)).model_dump(exclude={"track"})
    assert tours.read_track(stored.track_id).model_dump(mode="json") == track
    assert rows(tours)["track"] == 1
    assert rows(tours)["tour_part"] == 7
    tours.step(str(tour_id), 2, "undo")
    assert tours.read(str(tour_id)).sheet.name == "Before"
    tours.delete(str(tour_id))
    assert not any(rows(tours).values())
    pool.close()


def test_migrating_twice_is_once(database, tours):
    tours.create(small_tour())
    migrate(database)
    assert tours.count() == 1


@settings(max_examples=20, deadline=None)
@given(st.lists(st.tuples(st.floats(-90, 90), st.floats(-180, 180), st.none() | st.floats(-400, 8800)), min_size=2, max_size=30))
def test_a_packed_track_is_the_same_to_the_last_bit(points):
    lat, lon, height = zip(*points, strict=True)
    track = Track(name="Ünïcode 道", lat_deg=lat, lon_deg=lon, elevation_m=height)
    again = unpack_track(pack_track(track))
    assert again.name == track.name
    assert np.array_equal(again.lat_deg, track.lat_deg)
    assert np.array_equal(again.lon_deg, track.lon_deg)
    assert [h is None for h in again.elevation_m] == [h is None for h in track.elevation_m]
    assert [h for h in again.elevation_m if h is not None] == [h for h in track.elevation_m if h is not None]
