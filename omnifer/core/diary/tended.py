"""What was done for the bikes on the way, and what they ask for now."""

from collections.abc import Iterable

from omnifer.core.diary.journal import Journal, on_road, placed
from omnifer.core.model.diary import Verb
from omnifer.core.model.needs import CareKind, CareTask
from omnifer.core.model.part import BikePart
from omnifer.core.model.rig import Bike
from omnifer.core.model.stance import WeekPressure
from omnifer.core.needs.asking import Asking
from omnifer.core.needs.care import care_of
from omnifer.core.needs.wear import BY_KIND
from omnifer.core.sentence import bar, say

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


def due(asking: Asking | None, journal: Journal, day: int, pressures: Iterable[WeekPressure] = ()) -> list[CareTask]:
    """What is to be done on the evening of a day; of what was noted once it is also what is overdue. Air is told in figures."""
    if asking is None or not on_road(journal):
        return []
    last = {kind: places[-1] for kind, places in done_at(journal).items()}
    found: dict[tuple[CareKind, tuple[str, ...]], CareTask] = {}
    for task in care_of(asking, last):
        overdue = task.day < day and task.kind in last
        if task.kind not in ASKED_ALREADY and (task.day == day or overdue):
            told = _with_figures(task, asking, day, pressures) if task.kind == "pressure" else task
            found.setdefault((task.kind, tuple(task.bike_ids)), told)
    renewed = {told.entry.about for told in on_road(journal) if told.entry.verb == "mended"}
    return [t for t in found.values() if t.part is None or about_part(t.part, t.bike_ids[0]) not in renewed]


def _with_figures(task: CareTask, asking: Asking, day: int, pressures: Iterable[WeekPressure]) -> CareTask:
    """Air in the tyres for the days that come, bike by bike."""
    coming = [week for week in pressures if week.from_day <= day + 1 <= week.to_day]
    names = {bike.id: bike.name for bike in asking.tour.rig.bikes}
    if not coming:
        return task
    figures = {f"{end}{k}": bar(value) for k, week in enumerate(coming)
               for end, value in (("front", week.front_bar), ("rear", week.rear_bar))}  # fmt: skip
    words = "; ".join(
        (f"{{bike{k}}} " if len(coming) > 1 else "") + f"{{front{k}}} in front, {{rear{k}}} behind" for k in range(len(coming))
    )
    bikes = {f"bike{k}": names[week.bike_id] for k, week in enumerate(coming)}
    return task.model_copy(update={"words": say("Air: " + words, **figures, **bikes)})


def about_part(kind: str, bike_id: str) -> str:
    """What the entry of a part that was renewed is about."""
    return f"{kind}:{bike_id}"


def with_renewed(bike: Bike, journal: Journal) -> Bike:
    """A bike with the parts that were renewed on the way, each where it was renewed last."""
    for told, at_km in placed(journal):
        kind = next((kind for kind in BY_KIND if told.entry.about == about_part(kind, bike.id)), None)
        if told.entry.verb == "mended" and kind is not None:
            before = bike.part(kind)
            bike = bike.with_part(BikePart.model_validate(before.model_dump() | {"renewed_km": at_km}))
    return bike
