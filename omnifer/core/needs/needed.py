"""All that a tour asks for, worked out once: asks, faults, layers, and on which days each thing is needed."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from omnifer.core.model.assessment import Day
from omnifer.core.model.kit import Thing
from omnifer.core.model.needs import Ask, CareTask, Fault, Layers, WornPart
from omnifer.core.model.roles import Garment
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import body, care, repair, safe, wear, worn
from omnifer.core.needs.asking import Answered, Asking, Days, Wanted, answered, services_of
from omnifer.core.needs.sleep import nights_needing
from omnifer.core.voyage import Voyage

RULES = (worn.wanted, safe.sheltered, safe.seen, safe.safe, safe.companions, body.wanted)
"""Every rule says what is wanted, when and why."""


@dataclass(frozen=True, eq=False)
class Needed:
    """What a tour asks for."""

    along: Asking | None
    """The days as rules look at them; None without a road."""
    asking: Asking | None
    """The same where something says what it serves; else nothing is asked of the kit."""
    answers: list[Answered]
    idle: frozenset[str]
    """Services that a rule knows, and that no day of this tour asks for."""
    faults: list[Fault]
    layers: list[Layers]
    parts: list[WornPart]
    care: list[CareTask]

    @property
    def asks(self) -> list[Ask]:
        """Each thing asked for."""
        return [one.ask for one in self.answers]

    def days_of(self, thing: Thing) -> Days | None:
        """Days on which a thing is needed, because it answers something or because it is slept in or worn; None: nobody said.

        What stands in for something is needed on days on which that is not there: a tarp is no shelter beside a tent.
        """
        if self.asking is None:
            return None
        found = [one.days & self._wanted_of(thing, one) for one in self.answers if thing.id in one.ask.thing_ids]
        nights = nights_needing(self.asking.tour, self.asking.days, thing)
        if nights is not None:
            found.append(nights)
        if isinstance(thing.role, Garment):
            found.append(self.asking.every_day)
        if found:
            return np.asarray(np.any(found, axis=0))
        return self.asking.riding & False if set(thing.serves) and set(thing.serves) <= self.idle else None

    def _wanted_of(self, thing: Thing, one: Answered) -> Days:
        """Days on which a thing is there and nothing better for the same."""
        assert self.asking is not None
        serves = one.ask.serves
        first = min(serves.index(service) for service in services_of(thing) if service in serves)
        better = [t for t in self.asking.serving(*serves[:first]) if t.id in one.ask.thing_ids and t.id != thing.id]
        there = self.asking.there(thing, one.night)
        return there & ~np.any([self.asking.there(t, one.night) for t in better], axis=0) if better else there


def needed(tour: TourSheet, voyage: Voyage | None, days: list[Day], reached: Mapping[str, int]) -> Needed:
    """What a tour asks for; nothing while it has no road, and of the kit nothing while no thing says what it serves."""
    if voyage is None or not days:
        return Needed(None, None, [], frozenset(), [], [], [], [])
    asking = Asking(tour, voyage, days, reached)
    parts, tended = wear.worn_parts(asking), care.care_of(asking)
    if not any(thing.serves for thing in tour.kit):
        return Needed(asking, None, [], frozenset(), [], [], parts, tended)
    wanted = list(_wanted(asking))
    answers = answered(asking, wanted)
    asked = {service for one in answers for service in one.ask.serves}
    idle = {service for one in wanted for service in one.serves} - asked - safe.COMFORT
    return Needed(asking, asking, answers, frozenset(idle), repair.faults_of(asking), worn.layers_of(asking), parts, tended)


def _wanted(asking: Asking) -> Iterator[Wanted]:
    for rule in RULES:
        yield from rule(asking)
