"""The clients of map and heights and their stand-ins, over real HTTP."""

import numpy as np
import pytest

from omnifer.core.road.profile import from_track
from omnifer.demo.country import demo_track
from omnifer.devices.map_service import create_height_service, create_map_service
from omnifer.outside.asking import Trouble
from omnifer.outside.heights import HeightService
from omnifer.outside.maps import MapService

ROAD = from_track(demo_track()).nodes


class Shelf(dict[str, bytes]):
    """What was told before."""

    def read(self, question: str) -> bytes | None:
        return self.get(question)

    def keep(self, question: str, answer: bytes) -> None:
        self[question] = answer


def look(address: str, shelf: Shelf, to_km: float = 200):
    part = ROAD.km <= to_km
    assert ROAD.lat_deg is not None
    assert ROAD.lon_deg is not None
    return MapService(address).reading(ROAD.km[part], ROAD.lat_deg[part], ROAD.lon_deg[part], np.full(part.sum(), 1.0), shelf)


@pytest.fixture(autouse=True)
def quick(monkeypatch):
    for service in ("maps", "heights"):
        monkeypatch.setattr(f"omnifer.outside.{service}.PAUSE_S", 0.01)


def test_a_busy_service_is_asked_again_and_never_twice_for_the_same(serve):
    shelf = Shelf()
    found = look(f"{serve(create_map_service(failing=[429, 504]))}/api/interpreter", shelf)
    names = {feature.tags.get("name") for feature in found.features}
    # Of the sample's stops: Tamsen Quay at km 0, Orrick at 96, and nothing of Quarve at 201.
    assert {"Tamsen Quay", "Orrick"} <= names
    assert "Wendrick" not in names
    assert found.ways[0].tags["surface"] == "asphalt"
    # One that is gone now: what it told is still known.
    again = look(next(iter(shelf)).partition(" ")[0], Shelf(shelf))
    assert again.features == found.features


def test_elsewhere_it_knows_nothing(serve):
    found = MapService(f"{serve(create_map_service())}/api/interpreter").reading(
        np.array([0.0, 50.0]), np.array([48.0, 48.2]), np.array([16.0, 16.6]), np.array([1.0, 1.0]), Shelf()
    )
    assert (found.features, found.ways) == ([], [])


@pytest.mark.parametrize(("failing", "words"), [([504] * 5, "504"), ([200], "broke off: runtime error"), ([400], "400")])
def test_trouble_is_said_in_words_and_nothing_is_kept(serve, failing, words):
    shelf = Shelf()
    with pytest.raises(Trouble, match=words):
        look(f"{serve(create_map_service(failing=failing))}/api/interpreter", shelf)
    assert not shelf


def test_one_that_broke_off_goes_on_where_it_was(serve):
    shelf = Shelf()
    with pytest.raises(Trouble):
        look(f"{serve(create_map_service(failing=[]))}/nowhere", shelf)
    address = f"{serve(create_map_service(failing=[]))}/api/interpreter"
    look(address, shelf, to_km=80)
    kept = len(shelf)
    look(address, shelf)
    assert 0 < kept < len(shelf)


def test_heights_are_those_of_the_land(serve):
    service = HeightService(f"{serve(create_height_service(failing=[429]))}/lookup")
    some = slice(None, None, 400)
    assert ROAD.lat_deg is not None
    assert ROAD.lon_deg is not None
    told = service.heights(ROAD.lat_deg[some], ROAD.lon_deg[some])
    # The height of the nearest point that it knows: 25 m apart, on slopes of 20 % at most.
    assert told == pytest.approx(ROAD.elevation_m[some], abs=5)
    assert np.isnan(service.heights(np.array([48.0]), np.array([16.0]))).all()
    with pytest.raises(Trouble, match="No service of heights"):
        HeightService(None).heights(np.array([48.0]), np.array([16.0]))
