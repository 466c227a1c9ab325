"""The sample in a rider's store: three tours that share the things of a library, one of them ridden."""

from collections.abc import Sequence

from omnifer.core.model.kit import Thing
from omnifer.core.model.library import as_owned
from omnifer.demo.library import SHARED, WEEKEND, at_home, weekend
from omnifer.demo.ridden import NAME, ridden_diary, ridden_tour
from omnifer.demo.sample import demo_tour
from omnifer.store.database import Pool
from omnifer.store.diary import Diary
from omnifer.store.library import Library
from omnifer.store.tours import Tours


def keep_sample(pool: Pool, owner_id: int) -> None:
    """Keep the sample, in place of one that is there."""
    tours = Tours(pool, owner_id)
    names = {demo_tour(load=False).name, WEEKEND, NAME}
    for line in tours.list():
        if line.name in names:
            tours.delete(line.id)
    _load_sample(tours, Library(pool, owner_id), Diary(pool, owner_id))


def _load_sample(tours: Tours, library: Library, diary: Diary) -> None:
    """The sample's things into the library, and the tours that share them; the long one is the last changed."""
    sample = demo_tour()
    known = _kept(library, sample.kit)
    kit = tuple(Thing.model_validate(t.model_dump() | {"library_id": known[t.id]}) for t in sample.kit)
    home = [t.model_copy(update={"instead_of": known.get(t.instead_of or "")}) for t in at_home()]
    _kept(library, home)
    shared = tuple(Thing.model_validate(t.model_dump() | {"where": ()}) for t in kit if t.id in SHARED)
    ridden = ridden_tour()
    ridden_kit = tuple(Thing.model_validate(t.model_dump() | {"library_id": known.get(t.id)}) for t in ridden.kit)
    kept = tours.create(ridden.model_copy(update={"kit": ridden_kit}), "The sample of a tour that was ridden")
    diary.add(kept.id, ridden_diary(ridden))
    tours.create(weekend(shared), "The sample of a short tour")
    tours.create(sample.model_copy(update={"kit": kit}), "The sample tour")


def _kept(library: Library, things: Sequence[Thing]) -> dict[str, str]:
    """Where in the library things are, by their own identifiers; those of a name that is there already are not doubled."""
    there = library.named([thing.name for thing in things])
    new = [thing for thing in things if thing.name.lower() not in there]
    ids = dict(zip((thing.id for thing in new), library.add([as_owned(thing) for thing in new]), strict=True))
    return ids | {thing.id: there[thing.name.lower()].id for thing in things if thing.name.lower() in there}
