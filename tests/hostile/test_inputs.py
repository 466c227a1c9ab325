"""Whatever comes in is understood or refused in words: never a 500, never half a change, never the insides of the program."""

import importlib
import json
import re

import pytest

from omnifer.core.model.road import Road, Track
from tests.conftest import small_tour, thing, tours_of
from tests.hostile.inputs import inputs

INSIDES = re.compile(
    r"Traceback|array|Tuple|NoneType|object at 0x|KeyError|TypeError|ValueError|IndexError|pydantic|psycopg|numpy|expat|codec|NoneType"
    r"|argument|unpack|subscript|isoformat|__\w+__|float\(\)|\bint\(\)|utf-8",
)
ENOUGH = 250
NORTH = tuple(46 + k / 100 for k in range(100))
TOUR = small_tour(thing("tent"), track=Track(lat_deg=NORTH, lon_deg=(8.0,) * 100, elevation_m=(None,) * 100), road=Road())


def asked(client, tour: str, given):
    sent = {k: dict(v) if isinstance(v, dict) else v for k, v in given.sent.items()}
    return getattr(client, given.method)(given.path.replace("{tour}", tour).replace("{{tour}}", tour), **sent)


READERS = {
    "track": ("omnifer.formats.tracks.read_tracks", "{tour}/track"), "laid": ("omnifer.api.diary.read_track", "/diary/track"),
    "station": ("omnifer.api.roads.read_station", "/stations"), "ride": ("omnifer.api.roads.read_recording", "/pace"),
    "bundle": ("omnifer.api.tours.read_bundle", "/api/tours/bundle"), "kit": ("omnifer.api.kit.read_kit_csv", "/kit/preview"),
    "map": ("omnifer.jobs.errands.read_map", "{tour}/map"), "relief": ("omnifer.jobs.errands.read_tile", "/track/heights"),
    "stops": ("omnifer.api.roads.read_stops_csv", "/stops/preview"),
}  # fmt: skip
"""Where each kind of file is read, and what it is sent to."""


@pytest.fixture
def reached(monkeypatch) -> dict[str, int]:
    """How many files came to each reader."""
    counted = dict.fromkeys(READERS, 0)

    def counting(kind: str, read):
        def reader(*args, **more):
            counted[kind] += 1
            return read(*args, **more)

        return reader

    for kind, (where, _) in READERS.items():
        module, _, name = where.rpartition(".")
        monkeypatch.setattr(where, counting(kind, getattr(importlib.import_module(module), name)))
    return counted


def test_no_bad_input_gives_a_500_or_half_a_change(app, reached):
    client = app.test_client()
    sent = dict.fromkeys(READERS, 0)
    tours = tours_of(app)
    stumbled, insides, count = [], [], 0
    tour_id = tours.create(TOUR).id
    tour = f"/api/tours/{tour_id}"
    for given in inputs():
        count += 1
        for kind, (_, path) in READERS.items():
            sent[kind] += (
                given.method == "post" and given.path.endswith(path) and not given.what.startswith(("revision", "kilometre"))
            )
        before = tours.read(tour_id)
        answer = asked(client, tour, given)
        if answer.status_code >= 500:
            stumbled.append(f"{given.what}: {answer.status_code}")
            continue
        after = tours.read(tour_id)
        if answer.status_code >= 400:
            told = answer.json
            assert answer.mimetype == "application/problem+json", given.what
            assert told["detail"], given.what
            assert after == before, f"{given.what} was refused and kept"
            if found := INSIDES.search(f"{told['detail']} {told.get('mend', '')}"):
                insides.append(f"{given.what}: {found[0]!r} in {told['detail'][:150]!r}")
        elif after.revision != before.revision:
            json.dumps(client.get(tour).json, allow_nan=False).encode()
            assert client.get(f"{tour}/bundle.json").status_code == 200
            tour_id = tours.create(TOUR).id
            tour = f"/api/tours/{tour_id}"
    assert count >= ENOUGH
    # A file that reaches no reader tests nothing: with the right fields beside it, every one does.
    assert {kind: reached[kind] >= sent[kind] > 5 for kind in READERS} == dict.fromkeys(READERS, True)
    assert stumbled == []
    assert insides == []
