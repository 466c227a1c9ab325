"""What tests share: a throw-away database server for each worker, the sample tour, and builders of small tours."""

import datetime as dt
import logging
import os
import shutil
import signal
import subprocess
import sys
import threading
import uuid
from collections.abc import Iterator
from pathlib import Path

import hypothesis
import psycopg
import pytest
from flask import Flask
from werkzeug.serving import make_server

from omnifer.api.app import create_app
from omnifer.core import stages
from omnifer.core.assess import profile_of
from omnifer.core.model.kit import Thing
from omnifer.core.model.people import Rider
from omnifer.core.model.rig import Bike, Rig
from omnifer.core.model.road import Road, TypedDay
from omnifer.core.model.tour import Tour
from omnifer.core.rig.catalogue import BIKES, carrier, support
from omnifer.core.road.profile import Profile
from omnifer.core.road.reshape import trimmed_road
from omnifer.demo.sample import demo_tour
from omnifer.formats.tracks import trim
from omnifer.store.cluster import MASTER, ROLE, Cluster
from omnifer.store.database import LOCAL_RIDER, migrate, owner_named
from omnifer.store.tours import Tours

SHORT_KM, FAR_KM = 480.0, 900.0
FEW_THINGS = 24
# Random at the desk, where a new failure is welcome; the same every time where it would only stop others.
hypothesis.settings.register_profile("steady", deadline=None, derandomize=bool(os.environ.get("CI")))
hypothesis.settings.load_profile("steady")


@pytest.hookimpl(tryfirst=True)
def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Pages first and all by one worker, whose server then knows the sample it was asked for a minute ago; whole servers by one too."""
    for item in items:
        room = Path(item.path).parent.name
        if room in ("browser", "jobs") and item.get_closest_marker("xdist_group") is None:
            item.add_marker(pytest.mark.xdist_group(room))
    items.sort(key=lambda item: Path(item.path).parent.name != "browser")


def _undeclared(stage: str, part: str) -> None:
    raise AssertionError(f"the stage {stage} reads {part}, which it does not declare")


stages.on_undeclared = _undeclared


@pytest.fixture(scope="session")
def cluster() -> Iterator[Cluster]:
    folder = Path("/dev/shm" if Path("/dev/shm").is_dir() else "/tmp") / f"omnifer-test-{uuid.uuid4().hex[:8]}"
    server = Cluster(folder, fast_and_forgetful=True)
    migrate(server.start())
    yield server
    server.stop()
    shutil.rmtree(folder, ignore_errors=True)


@pytest.fixture
def database(cluster: Cluster) -> Iterator[str]:
    """A database of its own, cloned from the migrated one."""
    yield from cloned(cluster)


def cloned(cluster: Cluster) -> Iterator[str]:
    name = f"t{uuid.uuid4().hex[:12]}"
    with psycopg.connect(cluster.address("postgres", MASTER), autocommit=True) as connection:
        connection.execute(f"CREATE DATABASE {name} TEMPLATE omnifer OWNER {ROLE}")
        yield cluster.address(name)
        connection.execute(f"DROP DATABASE {name} WITH (FORCE)")


@pytest.fixture
def empty_database(cluster: Cluster) -> Iterator[str]:
    """A database without any table."""
    name = f"t{uuid.uuid4().hex[:12]}"
    with psycopg.connect(cluster.address("postgres", MASTER), autocommit=True) as connection:
        connection.execute(f"CREATE DATABASE {name} TEMPLATE template0 OWNER {ROLE}")
        with psycopg.connect(cluster.address(name, MASTER), autocommit=True) as inside:
            inside.execute(f"ALTER SCHEMA public OWNER TO {ROLE}")
        yield cluster.address(name)
        connection.execute(f"DROP DATABASE {name} WITH (FORCE)")


@pytest.fixture(scope="session")
def sample() -> Tour:
    return demo_tour()


@pytest.fixture(scope="session")
def sample_road(sample: Tour) -> Profile:
    road = profile_of(sample)
    assert road is not None
    return road


@pytest.fixture
def app(database: str):
    application = create_app(database, "test")
    application.config["WTF_CSRF_ENABLED"] = False
    yield application
    application.extensions["omnifer"].pool.close()


def tours_of(application) -> Tours:
    """The local rider's tours."""
    pool = application.extensions["omnifer"].pool
    return Tours(pool, owner_named(pool, LOCAL_RIDER))


@pytest.fixture(scope="session")
def served(cluster: Cluster) -> Iterator[tuple[str, Flask]]:
    """The application served as riders get it, CSRF guard and all, for a whole worker: what pages load is then cached."""
    name = f"t{uuid.uuid4().hex[:12]}"
    with psycopg.connect(cluster.address("postgres", MASTER), autocommit=True) as connection:
        connection.execute(f"CREATE DATABASE {name} TEMPLATE omnifer OWNER {ROLE}")
    application = create_app(cluster.address(name), "test", queued=True)
    worker = start_worker(cluster.address(name))
    logging.getLogger("werkzeug").setLevel(logging.ERROR)
    server = make_server("127.0.0.1", 0, application, threaded=True)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.port}", application
    server.shutdown()
    thread.join()
    end_worker(worker)
    application.extensions["errands"].close()
    application.extensions["omnifer"].pool.close()


def start_worker(database: str, cores: int = 1) -> subprocess.Popen:
    """A worker on a database, which does so many errands of each queue at a time."""
    environment = os.environ | {"OMNIFER_DATABASE": database, "OMNIFER_CORES": str(cores), "OMNIFER_NICE": "0"}
    return subprocess.Popen([sys.executable, "-m", "omnifer.jobs.worker"], env=environment)


def end_worker(worker: subprocess.Popen) -> None:
    worker.send_signal(signal.SIGTERM)
    worker.wait(timeout=30)


def first_km(sample: Tour, km: float) -> Tour:
    """The first kilometres of the sample: every noun of it, and a part of the road."""
    track = trim(sample.track, 0, km)
    return sample.model_copy(update={"track": track, "road": trimmed_road(sample.road, 0, km)})


@pytest.fixture(scope="session")
def short_sample(sample: Tour) -> Tour:
    """The sample's first week."""
    return first_km(sample, SHORT_KM)


@pytest.fixture(scope="session")
def far_sample(sample: Tour) -> tuple[Tour, Profile]:
    """The sample's first two weeks, with the first long ways between supplies."""
    tour = first_km(sample, FAR_KM)
    road = profile_of(tour)
    assert road is not None
    return tour, road


@pytest.fixture(scope="session")
def short_road(short_sample: Tour) -> Profile:
    road = profile_of(short_sample)
    assert road is not None
    return road


@pytest.fixture
def site(request: pytest.FixtureRequest, served: tuple[str, Flask], short_sample: Tour, short_road: Profile) -> Iterator[str]:
    """Where the application is served, with the first week of the sample tour and no other; marked far: the first two, whole: all."""
    if request.node.get_closest_marker("whole"):
        yield from _holding(served, request.getfixturevalue("sample"), request.getfixturevalue("sample_road"))
    elif request.node.get_closest_marker("far"):
        yield from _holding(served, *request.getfixturevalue("far_sample"))
    else:
        yield from _holding(served, short_sample, short_road)


@pytest.fixture
def light_site(served: tuple[str, Flask], short_sample: Tour, short_road: Profile) -> Iterator[str]:
    """The same with a few of the sample's things: for what searches loads and asks nothing of the kit."""
    outer = {thing.inside for thing in short_sample.kit}
    few = [t for t in short_sample.kit if t.inside is None and t.id not in outer and not t.where][:FEW_THINGS]
    kept = {thing.id for thing in few}
    load = short_sample.load.model_copy(
        update={"placements": tuple(p for p in short_sample.load.placements if p.thing_id in kept)}
    )
    yield from _holding(served, short_sample.model_copy(update={"kit": tuple(few), "load": load, "variants": ()}), short_road)


def _holding(served: tuple[str, Flask], tour: Tour, road: Profile) -> Iterator[str]:
    address, application = served
    tours = tours_of(application)
    kept = tours.create(tour)
    application.extensions["omnifer"].profiles.keep(kept.track_digest, road)
    yield address
    for line in (*tours.list(), *tours.list(removed=True)):
        tours.delete(line.id)


RIDER = Rider(id="ada", name="Ada", body_mass_kg=70, all_day_power_w=110, height_cm=172, age_years=40, sex="female")


def thing(name: str, mass_kg: float = 1.0, volume_l: float = 2.0, **more: object) -> Thing:
    return Thing.model_validate({"id": name, "name": name, "mass_kg": mass_kg, "volume_l": volume_l, **more})


def pannier_bike(**changed: object) -> Bike:
    """A touring bike with two rear panniers on a rack and a handlebar bag."""
    return Bike.model_validate(
        BIKES["touring"].model_dump()
        | {
            "rider_id": "ada",
            "supports": [support("rear_rack", "rack").model_dump()],
            "carriers": [
                carrier("rear_pannier", "left", "rack", "left").model_dump(),
                carrier("rear_pannier", "right", "rack", "right").model_dump(),
                carrier("handlebar_box", "box", "handlebar").model_dump(),
            ],
        }
        | changed
    )


def small_tour(*things: Thing, bikes: tuple[Bike, ...] | None = None, **changed: object) -> Tour:
    """Two typed days, one rider, and the given things."""
    return Tour.model_validate(
        {
            "name": "Small",
            "start_date": dt.date(2027, 5, 1),
            "riders": (RIDER,),
            "road": Road(typed_days=(TypedDay(distance_km=60, ascent_m=700, highest_m=500, lowest_m=100),) * 2),
            "rig": Rig(bikes=bikes or (pannier_bike(),)),
            "kit": things,
        }
        | changed
    )
