"""What is on board of a supply now, by what was noted of it; what was not noted went as planned."""

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from omnifer.core.diary.journal import Told
from omnifer.core.model.assessment import Moments
from omnifer.core.model.lanes import AtStop, Lane

NEAR_FILL_KM = 3.0
"""What is noted as taken on so near a place is what was taken on there [km]; practice."""
SAME_KM = 1e-3
USE = ("used", "ate", "drank")
TAKEN = ("filled", "bought")
COUNTED = ("left", "ran_out")
NOTED = (*USE, *TAKEN, *COUNTED)
"""Entries that say something of a supply."""


@dataclass(frozen=True)
class PlannedLevel:
    """One supply as the plan has it: how much is used up to each kilometre, and what leaves each place where some is taken on."""

    lane: Lane
    moments: Moments
    taken: dict[float, tuple[float, float]]
    """By kilometre: taken on there, and on board on leaving."""

    @classmethod
    def of(cls, lane: Lane, moments: Moments, stops: Sequence[AtStop]) -> "PlannedLevel":
        """Of a lane and the places of the plan."""
        deeds = ((stop.at_km, deed) for stop in stops for deed in stop.deeds if deed.lane == lane.key and deed.amount > 0)
        return cls(lane, moments, {at_km: (deed.amount, deed.leaves) for at_km, deed in deeds})

    def stock(self, km: float, leaving: bool = False) -> float:
        """What the plan has on board on reaching or leaving a place [its unit]."""
        at = zip(self.moments.km, self.moments.leaving, strict=True)
        passed = [k for k, (there, left) in enumerate(at) if there < km or (there == km and (leaving or not left))]
        k = passed[-1] if passed else 0
        return self.lane.stock[k] if len(self.lane.stock) > 1 else self.lane.stock[0]

    def used(self, from_km: float, to_km: float) -> float:
        """What the plan uses between two places, the nights there included [its unit]."""
        if to_km <= from_km:
            return 0.0
        before, after = np.interp([from_km, to_km], *self._used_along)
        return float(after - before)

    @cached_property
    def _used_along(self) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Kilometres, and what is used up to each."""
        km = np.array(self.moments.km)
        fallen = -np.diff(np.broadcast_to(self.lane.stock, km.size))
        for at_km, (amount, _) in self.taken.items():
            fallen[(np.abs(km[:-1] - at_km) < SAME_KM) & (np.diff(km) < SAME_KM)] += amount
        return km, np.concatenate([[0.0], np.cumsum(np.maximum(fallen, 0.0))])


def aboard(plan: PlannedLevel, noted: Sequence[Told], days: Iterable[tuple[dt.date, float, float, bool]]) -> float:
    """How much there is of a supply where the party is [its unit].

    Day by day: what a day used is what was noted, or, where nothing was, what the plan uses on those kilometres. A place where
    the plan takes some on is passed as planned unless something was noted near it. Who used more than there was has taken on
    what nobody noted, and has what the plan has there.

    Parameters
    ----------
    noted : sequence of Told
        What was noted of it, in order.
    days : iterable of (date, km, km, bool)
        From setting out: where each began, where it ended or has come to, and whether it is over.
    """
    filled_at = [told.entry.km for told in noted if told.entry.verb in TAKEN and told.entry.km is not None]
    coming = sorted(km for km in plan.taken if not any(abs(km - at) <= NEAR_FILL_KM for at in filled_at))
    amount = plan.stock(0.0, leaving=True)
    for date, from_km, to_km, over in days:
        today = [told for told in noted if told.date == date]
        told_use = any(told.entry.verb in USE for told in today)
        at_km = from_km
        for told in [*today, None]:
            there = to_km if told is None else min(max(told.entry.km if told.entry.km is not None else at_km, at_km), to_km)
            while coming and coming[0] < there - NEAR_FILL_KM / 2:
                place = coming.pop(0)
                amount -= 0.0 if told_use else plan.used(at_km, place)
                amount, at_km = max(amount, plan.taken[place][1]), max(place, at_km)
            amount -= 0.0 if told_use else plan.used(at_km, there)
            at_km = there
            if told is not None:
                amount = _after(told, amount, plan.stock(there))
        if over and to_km <= from_km and not told_use:
            amount -= plan.lane.a_day
        amount = max(amount, 0.0)
    return amount


def _after(told: Told, amount: float, as_planned: float) -> float:
    """What there is once something was noted."""
    said = told.entry.amount or 0.0
    if told.entry.verb in COUNTED:
        return said if told.entry.verb == "left" else 0.0
    if told.entry.verb in TAKEN:
        return max(amount, 0.0) + said
    return amount - said if said <= amount else as_planned
