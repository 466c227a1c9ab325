"""The store: every change a new state, nothing lost, no two writers at once."""

import threading

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from omnifer.core.model.road import Track
from omnifer.store.tours import NotThereError, StaleError, Tours, migrate, open_pool, pack_track, unpack_track
from tests.conftest import small_tour, thing


@pytest.fixture
def tours(database):
    pool = open_pool(database)
    yield Tours.of_local_rider(pool)
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
    tour_id = tours.create(small_tour(thing("tent")))
    for n in range(12):
        stored = tours.read(tour_id)
        tours.change(tour_id, stored.revision, f"Name {n}", renamed(stored.sheet, f"Name {n}"))
    back = steps_back(tours, tour_id, "undo")
    assert back == [f"Name {n}" for n in reversed(range(12))] + ["Small"]
    assert steps_back(tours, tour_id, "redo") == back[::-1]


def test_a_change_after_undo_starts_a_new_branch(tours):
    tour_id = tours.create(small_tour())
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
    tour_id = tours.create(small_tour())
    before = tours.read(tour_id)
    tours.step(tour_id, before.revision, "undo")
    tours.step(tour_id, tours.read(tour_id).revision, "redo")
    assert tours.read(tour_id).sheet == before.sheet


def test_of_writers_at_the_same_moment_one_wins(tours):
    tour_id = tours.create(small_tour())
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
    track = Track(name="Way", lat_deg=(1.0, 1.1), lon_deg=(2.0, 2.1), elevation_m=(5.0, None))
    tour_id = tours.create(small_tour().model_copy(update={"track": track}))
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
        for act in (tours.read, lambda i: tours.change(i, 1, "x", small_tour()), lambda i: tours.step(i, 1, "undo")):
            with pytest.raises(NotThereError):
                act(wanted)


def test_a_deleted_tour_is_gone_and_the_others_stay(tours):
    gone, stays = tours.create(small_tour()), tours.create(renamed(small_tour(), "Stays"))
    stored = tours.read(gone)
    tours.change(gone, stored.revision, "Rename", renamed(stored.sheet, "Gone"))
    tours.delete(gone)
    tours.delete(gone)
    assert [line.id for line in tours.list()] == [stays]
    assert tours.count() == 1


def test_another_owner_sees_nothing(tours):
    tour_id = tours.create(small_tour())
    stranger = Tours(tours.pool, tours.owner_id + 1)
    assert stranger.list() == []
    with pytest.raises(NotThereError):
        stranger.read(tour_id)
    stranger.delete(tour_id)
    assert tours.count() == 1


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
