"""What bikes ask for on the way: oil, a wash, air, and a look at bolts, straps and spokes, day by day."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from omnifer.core.model.needs import CareKind, CareTask
from omnifer.core.model.part import Lube
from omnifer.core.model.practice import Practice
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike
from omnifer.core.needs.asking import Asking
from omnifer.core.needs.wear import BY_KIND, Days, part_on
from omnifer.core.sentence import km, number, say

DIRTY_KM = 5.0
"""So much sand or mud on a day asks for a wash [km]; practice."""
WASH_DAYS = 3
"""Where every day is dirty one washes so often [d]; practice."""
SOFT_TIMES = 0.5
"""Sand and mud take so much more of what is on a chain [-]; practice."""


@dataclass(frozen=True)
class Oil:
    """How a kind of oil goes: how far on a dry road, and how much more of it a wet day takes [-]; practice."""

    interval_km: str
    """The default that says how far."""
    rain: float
    words: str


OILS: dict[Lube, Oil] = {
    "wet": Oil("oil_wet_km", 1.0, "wipe it before: wet oil takes up dust"),
    "dry": Oil("oil_dry_km", 3.0, "rain washes dry oil off: at once after a wet day"),
    "wax": Oil("oil_wax_km", 2.0, "wax goes on a clean, dry chain, and dries overnight"),
}
Since = Mapping[CareKind, float]
"""Where each was done last [km]; what is not there was done at the start."""


def interval_of(bike: Bike, usual: Practice) -> float:
    """How far the oil on a bike's chain lasts on a dry road [km]."""
    return float(getattr(usual, OILS[bike.lube].interval_km))


def care_of(a: Asking, since: Since | None = None) -> list[CareTask]:
    """What is to be done on which evening, in the order of days; each from where it was done last.

    Parameters
    ----------
    since : mapping, optional
        Where each was done last [km]; None: nothing was since the start.
    """
    done = since or {}
    tasks = [*_oil(a, done), *_wash(a, done), *_looks(a, done), *_renewals(a)]
    return sorted(tasks, key=lambda task: task.day)


def _oil(a: Asking, done: Since) -> Iterator[CareTask]:
    """Chains that ask for the same oil on the same evening are one task."""
    due: dict[tuple[int, Lube], list[Bike]] = {}
    ridden = np.array([day.distance_km for day in a.days])
    for bike in a.tour.rig.bikes:
        taken = ridden * (1 + OILS[bike.lube].rain * a.rain) * (1 + SOFT_TIMES * part_on(a, "soft"))
        for day in _each(taken, interval_of(bike, a.tour.practice), a, done.get("oil", 0.0)):
            due.setdefault((day, bike.lube), []).append(bike)
    for (day, lube), bikes in due.items():
        far = km(interval_of(bikes[0], a.tour.practice))
        yield CareTask(
            day=a.days[day].number, kind="oil", bike_ids=[bike.id for bike in bikes],
            words=say("Oil the chain" if len(a.tour.rig.bikes) == 1 else "Oil the chain of {bikes}",
                      bikes=" and ".join(bike.name for bike in bikes)),
            because=say("some {far} on it, less in rain; " + OILS[lube].words, far=far),
        )  # fmt: skip


def _each(taken: Days, interval: float, a: Asking, from_km: float) -> Iterator[int]:
    """Days at whose end an interval is over, counted from where it was done last, place by place in the list of days."""
    ahead = np.clip((a.end_km - from_km) / np.maximum(a.end_km - a.start_km, 1e-6), 0, 1)
    gone = 0.0
    for day, more in enumerate((taken * ahead).tolist()):
        gone += more
        if gone >= interval and more > 0 and day < len(a.days) - 1:
            yield day
            gone = 0.0


def _wash(a: Asking, done: Since) -> Iterator[CareTask]:
    """After sand, mud and dust: at the end of a row of such days, and every few days of it."""
    ridden = np.array([day.distance_km for day in a.days])
    soft = part_on(a, "soft") * ridden >= DIRTY_KM
    dirty = (soft | (a.hazard("dust") & a.riding)) & (a.end_km > done.get("clean", 0.0))
    row = 0
    for day, is_dirty in enumerate(dirty.tolist()):
        row = row + 1 if is_dirty else 0
        ends = (day + 1 == len(dirty) or not dirty[day + 1]) and (row == 1 or row % WASH_DAYS != 1)
        if row and (ends or row % WASH_DAYS == 0) and day < len(dirty) - 1:
            yield _of_all(a, day, "clean", say("Brush chain, rims and discs"),
                          say("sand and mud" if soft[day] else "dust"))  # fmt: skip


def _looks(a: Asking, done: Since) -> Iterator[CareTask]:
    """Bolts and straps, air, and spokes, each at its time."""
    usual, days = a.tour.practice, np.ones(len(a.days))
    every: tuple[tuple[CareKind, Text, Text], ...] = (
        ("look", say("Bolts and straps"), say("every {n:day|days}", n=number(usual.look_days))),
        ("pressure", say("Air in the tyres, by a gauge"), say("a tyre loses some every week")),
    )
    for kind, words, because in every:
        for day in _each(days, usual.look_days, a, done.get(kind, 0.0)):
            yield _of_all(a, day, kind, words, because)
    ridden = np.array([day.distance_km for day in a.days])
    for day in _each(ridden, usual.spokes_look_km, a, done.get("spokes", 0.0)):
        far = say("every {far}: a loose one breaks its neighbours", far=km(usual.spokes_look_km))
        yield _of_all(a, day, "spokes", say("Feel for loose spokes"), far)


def _renewals(a: Asking) -> Iterator[CareTask]:
    """Parts that are renewed on the way."""
    for bike in a.tour.rig.bikes:
        for part in bike.parts:
            at = part.renewed_km
            if at is None or part.kind not in BY_KIND or at > float(a.end_km[-1]):
                continue
            day = min(int(np.searchsorted(a.end_km, at)), len(a.days) - 1)
            yield CareTask(
                day=a.days[day].number, kind="renew", bike_ids=[bike.id], part=part.kind,
                words=say("New {part} on {bike}", part=BY_KIND[part.kind].words, bike=bike.name),
                because=say("at {at}, as planned", at=km(at)),
            )  # fmt: skip


def _of_all(a: Asking, day: int, kind: CareKind, words: Text, because: Text) -> CareTask:
    return CareTask(
        day=a.days[day].number, kind=kind, bike_ids=[bike.id for bike in a.tour.rig.bikes], words=words, because=because
    )
