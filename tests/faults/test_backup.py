"""Copies: made and brought back while everything runs, whole or not at all, and kept by the stated rule."""

import datetime as dt
import shutil
import uuid
from collections.abc import Iterator
from pathlib import Path

import psycopg
import pytest

from omnifer.api.app import create_app
from omnifer.backup import DAILY, WEEKLY, BackupProblem, back_up, forgotten, make, nightly, restore
from omnifer.store.cluster import MASTER, Cluster
from omnifer.store.database import migrate
from tests.conftest import small_tour, thing, tours_of


@pytest.fixture
def house() -> Iterator[Cluster]:
    """A server of its own: what is brought back takes the place of the whole database."""
    folder = Path("/dev/shm" if Path("/dev/shm").is_dir() else "/tmp") / f"omnifer-copy-{uuid.uuid4().hex[:8]}"
    server = Cluster(folder, fast_and_forgetful=True)
    migrate(server.start())
    yield server
    server.stop()
    shutil.rmtree(folder, ignore_errors=True)


def test_a_copy_brought_back_under_a_running_server_means_the_same(house, tmp_path, short_sample):
    app = create_app(house.address(), "test")
    app.config["WTF_CSRF_ENABLED"] = False
    client, tours = app.test_client(), tours_of(app)
    path = f"/api/tours/{tours.create(short_sample).id}"
    before = client.get(path).json
    copy = tmp_path / "copy.dump"
    back_up(house.folder, copy)
    assert client.patch(path, json={"revision": 1, "what": "Name", "name": "After"}).status_code == 200
    later = tours.create(small_tour(thing("tent"))).id
    was = restore(house.folder, copy)
    again = create_app(house.address(), "test").test_client()  # knows nothing of what was before
    for answering in (client, again):
        assert answering.get(path).json == before
        assert answering.get(f"/api/tours/{later}").status_code == 404
    assert client.patch(path, json={"revision": 1, "what": "Name", "name": "Goes on"}).status_code == 200
    with psycopg.connect(house.address("postgres", MASTER)) as connection:
        names = {row[0] for row in connection.execute("SELECT datname FROM pg_database")}
    assert was in names
    restore(house.folder, copy)
    with psycopg.connect(house.address("postgres", MASTER)) as connection:
        now = {row[0] for row in connection.execute("SELECT datname FROM pg_database")}
    assert was not in now
    assert len(now) == len(names)
    app.extensions["omnifer"].pool.close()


def test_what_is_no_copy_changes_nothing(house, tmp_path):
    with pytest.raises(BackupProblem, match="There is no file"):
        restore(house.folder, tmp_path / "none")
    (tmp_path / "cut").write_bytes(b"PGDMP cut")
    with psycopg.connect(house.address("postgres", MASTER)) as connection:
        before = set(connection.execute("SELECT datname FROM pg_database"))
    with pytest.raises(BackupProblem, match="pg_restore says"):
        restore(house.folder, tmp_path / "cut")
    with psycopg.connect(house.address("postgres", MASTER)) as connection:
        assert set(connection.execute("SELECT datname FROM pg_database")) == before
    with pytest.raises(BackupProblem) as refused:
        make(house.address().replace("/omnifer", "/none"), tmp_path / "never")
    assert house._secret() not in str(refused.value)
    assert list(tmp_path.iterdir()) == [tmp_path / "cut"]


def test_a_copy_is_made_each_day_and_old_ones_go_by_the_rule(house, tmp_path):
    assert "A copy was kept" in nightly(house, tmp_path)
    assert nightly(house, tmp_path) == ""
    days = [dt.date(2027, 5, 31) - dt.timedelta(days=n) for n in range(60)][::-1]
    copies = [Path(f"omnifer-{day:%Y-%m-%d}-0300.dump") for day in days]
    kept = [copy for copy in copies if copy not in forgotten(copies)]
    assert len(kept) == DAILY + WEEKLY
    assert kept[-DAILY:] == copies[-DAILY:]
    weeks = [dt.datetime.strptime(copy.name, "omnifer-%Y-%m-%d-0300.dump").isocalendar() for copy in kept[:WEEKLY]]
    assert [week.weekday for week in weeks[:-1]] == [7, 7, 7]  # the last of each week
    assert forgotten(copies[-DAILY:]) == []
