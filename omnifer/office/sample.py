"""The sample in a rider's store: two tours that share the things of a library."""

from collections.abc import Sequence

from omnifer.core.model.kit import Thing
from omnifer.core.model.library import as_owned
from omnifer.demo.library import SHARED, WEEKEND, at_home, weekend
from omnifer.demo.sample import demo_tour
from omnifer.store.database import Pool
from omnifer.store.library import Library
from omnifer.store.tours import Tours


def keep_sample(pool: Pool, owner_id: int) -> None:
    """Keep the sample, in place of one that is there."""
    tours = Tours(pool, owner_id)
    names = {demo_tour(load=False).name, WEEKEND}
    for line in tours.list():
        if line.name in names:
            tours.delete(line.id)
    _load_sample(tours, Library(pool, owner_id))


def _load_sample(tours: Tours, library: Library) -> None:
    """The sample's things into the library, and the two tours that share them; the long one is the last changed."""
    sample = demo_tour()
    known = _kept(library, sample.kit)
    kit = tuple(Thing.model_validate(t.model_dump() | {"library_id": known[t.id]}) for t in sample.kit)
    home = [t.model_copy(update={"instead_of": known.get(t.instead_of or "")}) for t in at_home()]
    _kept(library, home)
    shared = tuple(Thing.model_validate(t.model_dump() | {"where": ()}) for t in kit if t.id in SHARED)
    tours.create(weekend(shared), "The sample of a short tour")
    tours.create(sample.model_copy(update={"kit": kit}), "The sample tour")


def _kept(library: Library, things: Sequence[Thing]) -> dict[str, str]:
    """Where in the library things are, by their own identifiers; those of a name that is there already are not doubled."""
    there = library.named([thing.name for thing in things])
    new = [thing for thing in things if thing.name.lower() not in there]
    ids = dict(zip((thing.id for thing in new), library.add([as_owned(thing) for thing in new]), strict=True))
    return ids | {thing.id: there[thing.name.lower()].id for thing in things if thing.name.lower() in there}
