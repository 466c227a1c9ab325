"""What was done for the bikes on the way, and what they ask for now."""

from omnifer.core.diary.journal import Journal, on_road
from omnifer.core.model.diary import Verb
from omnifer.core.model.needs import CareKind, CareTask
from omnifer.core.model.part import BikePart
from omnifer.core.model.rig import Bike
from omnifer.core.needs.asking import Asking
from omnifer.core.needs.care import care_of
from omnifer.core.needs.wear import BY_KIND

NOTED: dict[CareKind, tuple[Verb, str]] = {
    "oil": ("oiled", ""), "clean": ("washed", "bike"), "pressure": ("pressure", ""), "spokes": ("checked", "spokes"),
    "look": ("checked", "bolts-100"),
}  # fmt: skip
"""How each is noted: the verb, and what it is about; nothing: whatever it is about."""
ASKED_ALREADY: frozenset[CareKind] = frozenset({"look"})
"""What the questions of the evening ask."""


def done_at(journal: Journal) -> dict[CareKind, list[float]]:
    """Where each was done, in the order of noting [km]; an entry without a place is where the one before it was."""
    found: dict[CareKind, list[float]] = {}
    at_km = 0.0
    for told in journal.standing:
        entry = told.entry
        at_km = entry.km if entry.km is not None else at_km
        for kind, (verb, about) in NOTED.items():
            if entry.verb == verb and about in ("", entry.about):
                found.setdefault(kind, []).append(at_km)
    return found


def due(asking: Asking | None, journal: Journal, day: int) -> list[CareTask]:
    """What is to be done on the evening of a day; of what was noted once it is also what is overdue."""
    if asking is None or not on_road(journal):
        return []
    last = {kind: places[-1] for kind, places in done_at(journal).items()}
    found: dict[tuple[CareKind, tuple[str, ...]], CareTask] = {}
    for task in care_of(asking, last):
        overdue = task.day < day and task.kind in last
        if task.kind not in ASKED_ALREADY and (task.day == day or overdue):
            found.setdefault((task.kind, tuple(task.bike_ids)), task)
    renewed = {told.entry.about for told in on_road(journal) if told.entry.verb == "mended"}
    return [t for t in found.values() if t.part is None or about_part(t.part, t.bike_ids[0]) not in renewed]


def about_part(kind: str, bike_id: str) -> str:
    """What the entry of a part that was renewed is about."""
    return f"{kind}:{bike_id}"


def with_renewed(bike: Bike, journal: Journal) -> Bike:
    """A bike with the parts that were renewed on the way, each where it was renewed last."""
    at_km = 0.0
    for told in on_road(journal):
        at_km = told.entry.km if told.entry.km is not None else at_km
        kind = next((kind for kind in BY_KIND if told.entry.about == about_part(kind, bike.id)), None)
        if told.entry.verb == "mended" and kind is not None:
            before = bike.part(kind)
            bike = bike.with_part(BikePart.model_validate(before.model_dump() | {"renewed_km": at_km}))
    return bike
