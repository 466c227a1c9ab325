"""Electricity: what every device uses, what charges it, and when it dies; played from stay to stay over the whole tour."""

from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import Thing
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import Bank, Cells, Charger, Device
from omnifer.core.supplies.ride import Ride
from omnifer.core.supplies.stretches import Stretch, stretches

Array = NDArray[np.float64]
LONG_STAY_H = 6.0
"""A stay at a plug so long lets one change what is plugged in: outputs then limit the power, not the number of devices [h]."""
JUST_WH = 1e-6
BANKS = ""
"""All banks together, where devices have identifiers."""


@dataclass(frozen=True)
class Death:
    """A device that has run down: from where, on which day, until it is charged again."""

    thing: Thing
    from_km: float
    day: int
    hour: float
    """Wall clock, beyond 24 after midnight [h]."""
    to_km: float
    to_day: int


@dataclass(frozen=True)
class Charge:
    """A stay at a plug.

    Attributes
    ----------
    hours, wanted_h : float
        At the plug, and what would fill everything [h].
    got_wh : float
        From the wall [Wh].
    left_wh : float
        In the banks on leaving [Wh].
    first : tuple of str
        What is plugged in where there is not room for all, by identifier, what takes the most first; `BANKS` are the banks.
    """

    stop: Stop
    day: int
    hours: float
    wanted_h: float
    got_wh: float
    left_wh: float
    first: tuple[str, ...] = ()


@dataclass(frozen=True)
class Power:
    """Electricity along a tour. Energy of banks is by their labels."""

    devices: list[Thing]
    capacity_wh: float
    daily_wh: float
    """What all devices use on a mean day [Wh]."""
    hub_wh: float
    panel_wh: float
    """Over the whole tour [Wh]."""
    panel_days: int
    """Days on which something would have died without the panel."""
    knots_km: Array
    stored_wh: Array
    """In the banks, or where there are none in the devices, at the ends of all stretches [Wh]."""
    charges: list[Charge]
    deaths: list[Death]
    sets_used: dict[str, int]
    """Sets of cells by device."""

    @property
    def dead_days(self) -> set[int]:
        """Days on which anything is dead."""
        return {day for death in self.deaths for day in range(death.day, death.to_day + 1)}

    def at(self, km: Array, leaving: NDArray[np.bool_]) -> Array:
        """What is stored at each moment [Wh]."""
        knots = self.knots_km
        after = np.where(leaving, np.searchsorted(knots, km, side="right"), np.searchsorted(knots, km, side="left"))
        b = np.clip(after, 1, knots.size - 1)
        a = b - 1
        wide = np.where(knots[b] > knots[a], knots[b] - knots[a], 1.0)
        share = np.clip((km - knots[a]) / wide, 0, 1)
        share = np.where((knots[b] == knots[a]) & leaving, 1.0, share)
        return np.asarray(self.stored_wh[a] + share * (self.stored_wh[b] - self.stored_wh[a]))


def plan(ride: Ride) -> Power | None:
    """Electricity of a tour; None where nothing on board uses any."""
    devices = _by_need(ride.things(Device))
    if not devices:
        return None
    every = list(stretches(ride))
    power = _Play(ride, devices).run(every)
    if not power.panel_wh:
        return power
    without = _Play(ride, devices).run([replace(stretch, panel_wh=0.0) for stretch in every])
    return replace(power, panel_days=len(without.dead_days - power.dead_days))


def staying_longer(ride: Ride, extra_h: dict[str, float]) -> Power | None:
    """Electricity of a tour that stays so much longer at the plugs of some stops, by identifier."""
    devices = _by_need(ride.things(Device))
    every = [
        replace(s, plug_h=s.plug_h + extra_h.get(s.plug.id, 0.0)) if s.plug is not None and s.plug_h > 0 else s
        for s in stretches(ride)
    ]
    return _Play(ride, devices).run(every) if devices else None


def using(ride: Ride, times: float) -> Power | None:
    """Electricity of a tour whose devices use so many times what is reckoned."""
    devices = _by_need(ride.things(Device))
    return _Play(ride, devices, times).run(list(stretches(ride))) if devices else None


def _by_need(devices: list[Thing]) -> list[Thing]:
    """What finds the way first, then what is seen, then the rest: so they are charged where there is not enough for all."""

    def need(thing: Thing) -> tuple[bool, bool]:
        role = thing.role
        assert isinstance(role, Device)
        return not role.navigates, not role.light

    return sorted(devices, key=need)


@dataclass
class _Play:
    """One play over the stretches; levels of devices and of all banks together change as it goes."""

    ride: Ride
    devices: list[Thing]
    times: float = 1.0
    levels: list[float] = field(init=False)
    pool: float = field(init=False)
    at_km: float = 0.0
    day: int = 1

    def __post_init__(self) -> None:
        self.usual = self.ride.tour.practice
        self.roles = [thing.role for thing in self.devices if isinstance(thing.role, Device)]
        self.counts = [thing.count for thing in self.devices]
        self.fulls = [role.battery_wh * n for role, n in zip(self.roles, self.counts, strict=True)]
        self.levels = [full * role.charged for full, role in zip(self.fulls, self.roles, strict=True)]
        self.banks = [(t.role, t.count) for t in self.ride.things(Bank) if isinstance(t.role, Bank)]
        self.bank_wh = sum(role.holds_wh * n for role, n in self.banks)
        self.bank_count = sum(n for _, n in self.banks)
        self.pool = sum(role.holds_wh * n * role.charged for role, n in self.banks)
        spare = [(t.role.set_wh, t.count) for t in self.ride.things(Cells) if isinstance(t.role, Cells)]
        self.sets = sum(n for _, n in spare)
        self.sets_used = {t.id: 0 for t, role in zip(self.devices, self.roles, strict=True) if role.fed_by == "cells"}
        self.dying: dict[int, tuple[float, int, float]] = {}
        self.deaths: list[Death] = []

    @property
    def stored(self) -> float:
        return self.pool if self.bank_wh else sum(self.levels)

    def run(self, every: list[Stretch]) -> Power:
        """Play all stretches."""
        knots, stored, charges = [0.0], [self.stored], list[Charge]()
        used = hub = panel = 0.0
        end = self.ride.nodes.length_km
        for stretch in every:
            self.at_km, self.day = stretch.to_km, stretch.day
            used += self.use(stretch)
            hub, panel = hub + stretch.hub_wh, panel + stretch.panel_wh
            if stretch.plug is not None and stretch.plug_h > 0:
                charges.append(self._charge(stretch, stretch.plug))
            elif stretch.camping:
                self.top_up()
            knots.append(stretch.to_km)
            stored.append(self.stored)
        for d, begun in self.dying.items():
            self.deaths.append(Death(self.devices[d], *begun, end, self.day))
        return Power(
            self.devices, self.bank_wh or sum(self.fulls), used / self.ride.days.count, hub, panel, 0,
            np.array(knots), np.array(stored), charges, sorted(self.deaths, key=lambda d: d.from_km), self.sets_used,
        )  # fmt: skip

    def use(self, s: Stretch) -> float:
        """What the devices use on a stretch, out of what hub and panel give, themselves and the banks."""
        given = s.hub_wh + s.panel_wh
        total, harder = 0.0, 1 / self.usual.cold_battery if s.frost else 1.0
        for d, (role, n) in enumerate(zip(self.roles, self.counts, strict=True)):
            part = {"riding": s.riding, "camp": s.camping, "always": s.hours / 24}[role.used]
            use = self.times * self.usual.power_times * n * (role.daily_wh * part + role.wh_a_dark_hour * s.dark_h)
            total += use
            if role.fed_by == "hub" or use == 0:
                continue
            use *= harder
            if role.fed_by == "cable" and given > 0:
                from_given = min(given, use / self.usual.charging)
                given -= from_given
                use -= from_given * self.usual.charging
            self.levels[d] -= use
            if self.levels[d] < -JUST_WH:
                self._run_low(d, role, n, s, use)
        if given > 0:
            self._store(given * self.usual.charging)
        return total

    def _store(self, kept: float) -> None:
        """What hub and panel give beyond what is used: into the banks, then into the devices, what finds the way first."""
        into_banks = min(kept, self.bank_wh - self.pool)
        self.pool, kept = self.pool + into_banks, kept - into_banks
        for d, role in enumerate(self.roles):
            if role.fed_by == "cable" and kept > JUST_WH:
                drawn = min(kept, self.fulls[d] - self.levels[d])
                self.levels[d], kept = self.levels[d] + drawn, kept - drawn
                self._alive_again(d, drawn > JUST_WH)

    def _run_low(self, d: int, role: Device, n: int, s: Stretch, use: float) -> None:
        """A device below nothing is fed by a bank, or gets a new set of cells; else it dies where it did."""
        lacking = -self.levels[d]
        if role.fed_by == "cells":
            while self.levels[d] < 0 and self.sets >= n and role.battery_wh > 0:
                self.sets -= n
                self.sets_used[self.devices[d].id] += n
                self.levels[d] += role.battery_wh * n
        else:
            yields = self.usual.bank_usable * self.usual.charging
            drawn = min(lacking / yields, self.pool)
            self.pool -= drawn
            self.levels[d] += drawn * yields
        if self.levels[d] < -JUST_WH:
            if d not in self.dying:
                left = 1 - min(-self.levels[d] / use, 1.0)
                self.dying[d] = s.from_km + left * (s.to_km - s.from_km), s.day, s.start_h + left * s.hours
            self.levels[d] = 0.0

    def top_up(self) -> None:
        """In camp the banks fill the devices, what finds the way first."""
        yields = self.usual.bank_usable * self.usual.charging
        for d, role in enumerate(self.roles):
            if role.fed_by == "cable" and self.pool > 0:
                drawn = min((self.fulls[d] - self.levels[d]) / yields, self.pool)
                self.pool -= drawn
                self.levels[d] += drawn * yields
                self._alive_again(d, drawn > JUST_WH)

    def _alive_again(self, d: int, charged: bool) -> None:
        if charged and d in self.dying:
            self.deaths.append(Death(self.devices[d], *self.dying.pop(d), self.at_km, self.day))

    def _charge(self, s: Stretch, stop: Stop) -> Charge:
        """A stay at a plug: as many outputs as sockets and chargers give. A short stay feeds what takes the most in its time."""
        outputs, watts = self.outputs(stop)
        keeps, hours = self.usual.charging, s.plug_h
        bank_w = self.bank_watts(watts)
        cabled = [d for d, role in enumerate(self.roles) if role.fed_by == "cable"]
        lacks = {d: (self.fulls[d] - self.levels[d]) / keeps for d in cabled}
        bank_lacks = (self.bank_wh - self.pool) / keeps
        wanted = sum(lacks.values()) + bank_lacks
        takes: list[tuple[float, int | None, int]] = [
            (min(lacks[d], watts * hours * self.counts[d]), d, self.counts[d]) for d in cabled
        ]
        if self.bank_wh:
            takes.append((min(bank_lacks, bank_w * hours), None, self.bank_count))
        if hours < LONG_STAY_H:
            takes.sort(key=lambda take: -take[0])
        left = outputs if hours < LONG_STAY_H else len(self.devices) + self.bank_count
        budget = start = outputs * watts * hours
        fed, waiting = list[str](), False
        for most, d, count in takes:
            if most <= JUST_WH:
                continue
            if left <= 0:
                waiting = True
                continue
            fed.append(BANKS if d is None else self.devices[d].id)
            drawn = min(most * min(left / count, 1.0), budget)
            budget, left = budget - drawn, left - count
            if d is None:
                self.pool += drawn * keeps
            else:
                self.levels[d] += drawn * keeps
                self._alive_again(d, drawn > JUST_WH)
        self.top_up()
        fastest = min(outputs * watts, bank_w or outputs * watts)
        wanted_h = wanted / fastest if fastest else float("inf")
        return Charge(stop, s.day, hours, wanted_h, start - budget, self.pool, tuple(fed) if waiting else ())

    def bank_watts(self, output_w: float) -> float:
        """What all banks take at outputs of so much [W]."""
        return sum(min(role.takes_w, output_w) * n for role, n in self.banks)

    def outputs(self, stop: Stop) -> tuple[int, float]:
        """How many outputs there are at a plug, and what one gives [W]."""
        fit = [
            (t.role.outputs, t.role.output_w)
            for t in self.ride.things(Charger)
            for _ in range(t.count)
            if isinstance(t.role, Charger) and (not stop.plug_shape or not t.role.plugs or stop.plug_shape in t.role.plugs)
        ]
        best = sorted(fit, reverse=True)[: stop.plug_outlets]
        total = sum(n for n, _ in best)
        return total, (sum(n * w for n, w in best) / total if total else 0.0)


@dataclass(frozen=True)
class Needs:
    """What the banks must give between stays at plugs; all lists are over those stays, the last over the way to the end.

    Attributes
    ----------
    drawn_wh : list of float
        Out of the banks since the stay before [Wh, by the label].
    hours, watts : list of float
        At the plug, and how fast the banks then charge.
    """

    capacity_wh: float
    drawn_wh: list[float]
    stops: list[Stop | None]
    hours: list[float]
    watts: list[float]


def needs(ride: Ride) -> Needs | None:
    """What the banks must give, were they never empty; None where there are none."""
    devices = _by_need(ride.things(Device))
    play = _Play(ride, devices)
    if not devices or not play.bank_wh:
        return None
    capacity, plenty = play.bank_wh, 1e6
    play.bank_wh = play.pool = plenty
    every = list(stretches(ride))
    drawn, stops, hours, watts = list[float](), list[Stop | None](), list[float](), list[float]()
    for stretch in every:
        play.at_km, play.day = stretch.to_km, stretch.day
        play.use(stretch)
        if stretch.plug is not None and stretch.plug_h > 0:
            outputs, each = play.outputs(stretch.plug)
            drawn.append(plenty - play.pool)
            stops.append(stretch.plug)
            hours.append(stretch.plug_h)
            watts.append(min(outputs * each, play.bank_watts(each)) * ride.tour.practice.charging)
            play.pool = plenty
            play.levels = list(play.fulls)
        elif stretch.camping:
            play.top_up()
    return Needs(
        capacity, [*drawn, plenty - play.pool], [*stops, None], [*hours, 0.0], [*watts, 0.0]
    )  # fmt: skip
