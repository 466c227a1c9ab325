"""Whatever comes in is understood or refused in words: never a 500, never half a change, never the insides of the program."""

import json
import re

import pytest

from tests.conftest import small_tour, thing, tours_of
from tests.hostile.inputs import inputs

INSIDES = re.compile(
    r"Traceback|array|Tuple|NoneType|object at 0x|KeyError|TypeError|ValueError|IndexError|pydantic|psycopg|numpy|expat|codec|NoneType"
    r"|argument|unpack|subscript|isoformat|__\w+__|float\(\)|\bint\(\)|utf-8",
)
ENOUGH = 250


def asked(client, tour: str, given):
    sent = {k: dict(v) if isinstance(v, dict) else v for k, v in given.sent.items()}
    return getattr(client, given.method)(given.path.replace("{tour}", tour).replace("{{tour}}", tour), **sent)


@pytest.mark.timeout(400)
def test_no_bad_input_gives_a_500_or_half_a_change(app):
    client = app.test_client()
    tours = tours_of(app)
    stumbled, insides, count = [], [], 0
    tour_id = tours.create(small_tour(thing("tent"))).id
    tour = f"/api/tours/{tour_id}"
    for given in inputs():
        count += 1
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
            tour_id = tours.create(small_tour(thing("tent"))).id
            tour = f"/api/tours/{tour_id}"
    assert count >= ENOUGH
    assert stumbled == []
    assert insides == []
