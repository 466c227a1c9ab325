"""Things of an owner: kept once, found by words, changed by version, seen by nobody else."""

import pytest

from omnifer.store.database import LOCAL_RIDER, NotThereError, StaleError, open_pool, owner_named
from omnifer.store.library import Library
from omnifer.store.tours import Tours
from tests.conftest import small_tour, thing


@pytest.fixture
def library(database):
    pool = open_pool(database)
    yield Library(pool, owner_named(pool, LOCAL_RIDER))
    pool.close()


def named(name, **more):
    return thing("x", **more).model_copy(update={"name": name})


def test_things_are_found_by_name_kit_and_what_they_serve(library):
    library.add([thing("Tarp", group="shelter", serves=("tarp",)), thing("Axe", group="wood"), named("50%_wool")])
    assert [r.thing.name for r in library.page()[0]] == ["50%_wool", "Axe", "Tarp"]
    for words, names in (
        ("tar", ["Tarp"]),
        ("WOOD", ["Axe"]),
        ("a tarp", ["Tarp"]),
        ("%", ["50%_wool"]),
        ("_", ["50%_wool"]),
        ("x y", []),
    ):
        rows, total = library.page(words)
        assert ([r.thing.name for r in rows], total) == (names, len(names))
    assert [(k.name, k.things) for k in library.kits()] == [("shelter", 1), ("wood", 1)]
    rows, total = library.page(first=1, most=1)
    assert ([r.thing.name for r in rows], total) == (["Axe"], 3)
    axe = library.named(["AXE"])["axe"].id
    assert library.page(last=[axe])[0][-1].id == axe


def test_a_thing_changes_by_the_version_that_was_seen(library):
    one = library.add([thing("Pot", 0.5)])[0]
    assert library.change(one, thing("Pot", 0.4), 1) == 2
    with pytest.raises(StaleError):
        library.change(one, thing("Pot", 0.3), 1)
    assert library.read(one).thing.mass_kg == 0.4
    with pytest.raises(StaleError):
        library.remove(one, 1)
    library.remove(one, 2)
    for act in (lambda: library.read(one), lambda: library.change(one, thing("Pot")), lambda: library.remove(one, 2)):
        with pytest.raises(NotThereError):
            act()
    assert library.page()[1] == 0
    library.restore(one)
    assert library.read(one).thing.mass_kg == 0.4


def test_tours_that_chose_a_thing_are_known(library):
    one = library.add([thing("Pot")])[0]
    tours = Tours(library.pool, library.owner_id)
    chose = tours.create(small_tour(thing("pot", library_id=one)))
    tours.create(small_tour(thing("pot")))
    over = tours.create(small_tour(thing("pot", library_id=one), over=True))
    found = {(c.tour_id, c.over) for c in library.chosen_by([one])}
    assert found == {(chose.id, False), (over.id, True)}
    tours.change(chose.id, 1, "leave it", small_tour())
    assert {c.tour_id for c in library.chosen_by([one])} == {over.id}


def test_nobody_else_sees_things_or_pictures(library):
    one = library.add([thing("Pot")])[0]
    library.keep_picture(one, b"jpeg")
    with library.pool.connection() as connection:
        connection.execute("INSERT INTO owner (name) VALUES ('stranger')")
    stranger = Library(library.pool, owner_named(library.pool, "stranger"))
    assert stranger.page() == ([], 0)
    for act in (stranger.read, stranger.picture, stranger.restore, lambda i: stranger.change(i, thing("Mine"))):
        with pytest.raises(NotThereError):
            act(one)
    with library.pool.connection() as connection:
        assert connection.execute("SELECT count(*) AS n FROM owned").fetchone()["n"] == 0
    assert library.picture(one) == b"jpeg"
    library.remove_picture(one, 1)
    assert not library.read(one).has_picture
