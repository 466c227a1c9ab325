"""A change is answered by what is otherwise than its sender has it, and comes to the same as the whole answer."""

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.api.desk import HOLDS
from omnifer.core.model.quantities import Noun
from omnifer.office.since import otherwise
from omnifer.store.database import owner_named
from omnifer.store.tours import Tours
from tests.conftest import pannier_bike, small_tour, thing

KIT = (thing("tent", 2, 8), thing("pot", 0.6, 2), thing("book", 0.4, 0.5))


def put(had, at, change):
    """What a reader does with a change; lists and documents as JSON has them."""
    if not at:
        if change["items"] is None:
            return change["to"]
        return [had[item] if isinstance(item, int) else item for item in change["items"]]
    step, *rest = at
    now = dict(had) if isinstance(had, dict) else list(had)
    if not rest and change["gone"]:
        del now[step]
    else:
        now[step] = put(now.get(step) if isinstance(now, dict) else now[step], rest, change)
    return now


def together(had, changes):
    for change in changes:
        had = put(had, change["at"], change)
    return had


class Leaf(Noun):
    figure: float = 0.0
    words: tuple[str, ...] = ()


class Branch(Noun):
    leaves: list[Leaf] = []
    by_name: dict[str, Leaf | int] = {}
    figures: list[float] = []
    one: Leaf | None = None


LEAVES = st.builds(Leaf, figure=st.sampled_from((0.0, 1.0, 2.5)), words=st.lists(st.sampled_from("abc"), max_size=2).map(tuple))
BRANCHES = st.builds(
    Branch, leaves=st.lists(LEAVES, max_size=4), figures=st.lists(st.sampled_from((0.0, 1.5)), max_size=3), one=st.none() | LEAVES,
    by_name=st.dictionaries(st.sampled_from("xyz"), LEAVES | st.integers(0, 2), max_size=3),
)  # fmt: skip


@given(BRANCHES, BRANCHES)
def test_what_is_otherwise_comes_to_the_whole(before, after):
    changes = [change.model_dump(mode="json") for change in otherwise(before, after)]
    assert together(before.model_dump(mode="json"), changes) == after.model_dump(mode="json")
    assert (changes == []) == (before == after)


def test_a_tour_that_its_reader_has_is_not_sent_again(client, path):
    read = client.get(path)
    assert read.headers["Cache-Control"] == "private, no-cache"
    again = client.get(path, headers={"If-None-Match": read.headers["ETag"]})
    assert (again.status_code, again.data) == (304, b"")
    client.patch(path, json={"revision": 1, "what": "x", "name": "Other"})
    fresh = client.get(path, headers={"If-None-Match": read.headers["ETag"]})
    assert (fresh.status_code, fresh.json["tour"]["sheet"]["name"]) == (200, "Other")
    assert fresh.headers["ETag"] != read.headers["ETag"]


@pytest.fixture
def path(tours) -> str:
    return f"/api/tours/{tours.create(small_tour(*KIT, bikes=(pannier_bike(),))).id}"


def change(client, path, held, **parts):
    answer = client.patch(path, json={"revision": held["tour"]["revision"], "what": "x", **parts}, headers={HOLDS: held["state"]})
    assert answer.status_code == 200, answer.json
    return answer.json


def test_changes_put_together_are_what_a_reload_shows(client, path):
    held, chance = client.get(path).json, random.Random(3)
    for turn in range(6):
        kit = [dict(t) for t in held["tour"]["sheet"]["kit"]]
        kit[turn % len(kit)] |= {"mass_kg": round(chance.uniform(0.1, 3), 2), "name": f"Thing {turn}"}
        kit = kit[1:] if turn == 4 else kit
        told = change(client, path, held, kit=kit)
        assert told["since"] == held["state"]
        held = together(held, told["changes"]) | {"state": told["state"]}
        assert held == client.get(path).json
    undone = client.post(
        f"{path}/step", json={"revision": held["tour"]["revision"], "step": "undo"}, headers={HOLDS: held["state"]}
    )
    assert together(held, undone.json["changes"])["tour"] == client.get(path).json["tour"]


def test_a_note_is_answered_in_a_few_words(client, path):
    held = client.get(path).json
    kit = [dict(t) for t in held["tour"]["sheet"]["kit"]]
    kit[0]["because"] = "For the pass"
    told = change(client, path, held, kit=kit)
    around = {"id", "revision", "changed_at", "what", "has_track", "can_undo", "can_redo"}
    assert {tuple(c["at"]) for c in told["changes"]} == {
        ("tour", "sheet", "kit", 0, "because"), *(("tour", name) for name in around),
    }  # fmt: skip


def test_a_state_that_is_not_known_here_is_answered_whole(client, path, app):
    """Another process's, a made-up one, and one of somebody else's tour, whose parts must not show."""
    held = client.get(path).json
    office = app.extensions["omnifer"]
    with office.pool.connection() as connection:
        connection.execute("INSERT INTO owner (name) VALUES ('stranger')")
    strangers = owner_named(office.pool, "stranger")
    strange = Tours(office.pool, strangers).create(small_tour(thing("secret", 1, 1)))
    theirs = office.desk_for(strangers).answer(strange.id).state
    for state in ("", "1-", "x", "1-000000", f"{2**40}-abc", "-1-a", theirs):
        answer = client.patch(
            path, json={"revision": client.get(path).json["tour"]["revision"], "what": "x", "name": f"N {state}"}, headers={HOLDS: state}
        )  # fmt: skip
        assert answer.status_code == 200
        assert "assessment" in answer.json
        assert "secret" not in answer.text
    office.meant = type(office.meant)(24)
    now = client.get(path).json
    again = change(client, path, now, name="After a start anew")
    assert again["since"] == now["state"] != held["state"]
