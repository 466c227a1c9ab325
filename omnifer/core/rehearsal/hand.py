"""One supply as everybody has it in hand: used, saved, run out of and filled up; every array has a row a play."""

import numpy as np

from omnifer.core.model.practice import Practice
from omnifer.core.model.quantities import ROUNDING
from omnifer.core.rehearsal.course import DAY_H, Array, Bools, Course, Ints, Store
from omnifer.core.rehearsal.kept import Kept


class Hand:
    """One supply in everybody's hand."""

    def __init__(self, store: Store, course: Course, plays: int, met: frozenset[int]) -> None:
        self.store, self.course, self.met = store, course, met
        """Besides where the plan takes it on, it may be had at these places."""
        self.level, self.planned = np.zeros(plays), 0.0
        self.without = np.zeros(plays, dtype=bool)
        gaps = store.gap_km.size - 1
        self.kept = Kept(
            np.zeros((plays, course.places), dtype=np.float32), np.zeros((plays, gaps)), np.zeros((plays, gaps)),
            np.zeros((plays, gaps)), np.zeros((plays, gaps)), np.full((plays, gaps), np.nan),
        )  # fmt: skip

    def begins(self, begin: int) -> None:
        """At the start with what is taken along; under way as on arriving, with what is on board as planned."""
        planned = self.store.planned
        self.level[:] = max(planned[begin - 1] - self.store.used[begin - 1], 0.0) if begin else planned[0]
        self.kept.level[:, :begin] = planned[:begin]
        self.noted(begin)

    def uses(self, place: int, amount: float, who: Bools, times: Array) -> None:
        """Some of it goes at once."""
        if amount:
            self._take(place, np.where(who, amount * times, 0.0), np.zeros(times.size), None)

    def sleeps(
        self, place: int, stays: Bools, rests: Ints, times: Array, dry: Bools | None, hours: Array, usual: Practice | None
    ) -> None:
        """A night and days of rest; at a source that turns out dry they take what they take anywhere."""
        store = self.store
        amount = (store.night[place] + rests * store.rest[place]) * times
        if dry is not None and dry.any():
            somewhere = int(np.argmax(store.night))
            amount = np.where(dry, (store.night[somewhere] + rests * store.rest[somewhere]) * times, amount)
        self._take(place, np.where(stays, amount, 0.0), np.where(stays, hours + DAY_H * rests, 0.0), usual)

    def lacks(self, place: int, part: float) -> Bools:
        """Who would have less than a part of what the way to the next place takes, where the plan takes it on."""
        if np.isnan(self.store.leaving[place]):
            return np.zeros(self.level.size, dtype=bool)
        return np.asarray(self.level < part * self.store.ahead[place])

    def comes_to(self, place: int, had: Bools) -> None:
        """Who spends the night where it is handed over is not without it that night."""
        if not np.isnan(self.store.leaving[place]):
            self.without &= ~had

    def _take(self, place: int, amount: Array, hours: Array, usual: Practice | None) -> None:
        """Some of it goes at a place, before that hands anything over."""
        self._asked(place - 1, amount)
        amount = self._saved(place, amount, usual)
        self._lacking(place - 1, amount, hours)
        self.level = np.maximum(self.level - amount, 0.0)

    def rides(self, piece: int, amount: Array, hours: Array, usual: Practice | None) -> None:
        """What a piece of the road takes, rationed where it is running short."""
        self._asked(piece, amount)
        amount = self._saved(piece, amount, usual)
        self._lacking(piece, amount, hours)
        self.level = np.maximum(self.level - amount, 0.0)

    def _saved(self, place: int, amount: Array, usual: Practice | None) -> Array:
        """What is taken of an amount once those who run short ration; what was planned is never rationed."""
        if usual is None:
            return amount
        lasts = self.level / np.maximum(np.maximum(self.store.ahead[place], amount), 1e-12)
        if self.store.name == "food":
            part = np.clip(lasts, usual.ration, 1.0)
        else:
            part = np.where(lasts < usual.rations_below, usual.ration, 1.0)
        return np.where(self.level < self.planned - ROUNDING, amount * part, amount)

    def _asked(self, piece: int, amount: Array) -> None:
        gap = self.store.gap[piece]
        self.kept.asked[:, gap] += amount
        self.kept.lacking[:, gap] += np.maximum(amount - self.level, 0.0)

    def _lacking(self, piece: int, amount: Array, hours: Array) -> None:
        """Count the hours without, from where it ended on."""
        if not amount.any() and not self.without.any():
            return
        ends = (amount > self.level + ROUNDING) & ~self.without
        part = np.where(ends, 1 - self.level / np.maximum(amount, 1e-12), 1.0)
        self.without |= ends
        gap = self.store.gap[piece]
        self.kept.without_h[:, gap] += np.where(self.without, hours * part, 0.0)
        new = self.without & np.isnan(self.kept.without_km[:, gap])
        self.kept.without_km[new, gap] = self.course.km[piece]

    def arrived(self, place: int) -> None:
        """At the end of the road all is had."""
        self.without[:] = False

    def fills(self, place: int, had: Bools, more: Array | float = 0.0) -> None:
        """Fill as planned, and so much more as fits; where the plan does not, what the way to the next sure place asks for."""
        store = self.store
        leaving = store.leaving[place]
        if np.isnan(leaving):
            if place in self.met:
                self.level = np.where(had, np.maximum(store.wanted[place], self.level), self.level)
            return
        if store.anew[place]:
            self.level = np.full(self.level.size, leaving)
            self.without[:] = False
            return
        self.kept.foreseen[:, store.gap[place]] = more
        wanted = np.maximum(self.level, np.maximum(leaving, np.minimum(leaving + more, store.capacity[place])))
        filled = np.minimum(wanted, self.level + store.offer[place])
        self.level = np.where(had, filled, self.level)
        self.without &= ~had

    def noted(self, place: int) -> None:
        """Write down what is on board, and look up what was planned."""
        self.planned = float(self.store.planned[place])
        self.kept.level[:, place] = self.level
