"""What the rider of a rehearsal does: rows are plays, and one step goes on by one place for all of them.

The policy, in the order in which a place is reached:

1. Riders who reach the night of their plan sleep there, unless they are behind: then they ride on while it is light.
2. To reach water or the night of the plan they ride a while into the dark. Whoever is at water in the last hours of light and
   would not even then reach the next stays there; whoever does not reach it camps at dusk. Who wants no wild camp stays at a
   site, hut or room, and else rides on to one. The plan is caught up with later, first of all with its days of rest.
3. An illness is waited out where there is everything, and the ride goes on from where it began. After too many days that were too
   long one rests for a day.
4. Where the plan fills and buys, they fill and buy as planned, if the source has water and the shop is open. On a day that is
   hotter or slower than planned they fill so much more water; whoever will be in the dark before the next fills for a night
   without any. Before a shut shop, with too little for the way to the next, they wait a day for it. At a source that the plan
   does not count on and that has water, and at a shop that happens to be open, they take what the way to the next sure place
   asks for.
5. With less food than the way to the next sure place takes they eat so much less, down to two thirds; with less than half of the
   water that it takes they drink two thirds.
6. With nothing left they go on without, up to the next place that the plan counts on: those hours are counted.
7. A fault that parts, tool and hand on board mend costs half an hour; one that they do not mend, and that stops a bike, a day.

Nothing ends a play. With no widths, all of this is the plan.
"""

import numpy as np

from omnifer.core.model.quantities import ROUNDING
from omnifer.core.model.supplies import CARRIED
from omnifer.core.rehearsal.course import COLDEST_C, DAY_H, HEAD_MS, HEADWINDS, HOTTEST_C, Array, Bools, Course, Ints, Shop
from omnifer.core.rehearsal.drawn import Draws
from omnifer.core.rehearsal.fate import SPELLS
from omnifer.core.rehearsal.hand import Hand
from omnifer.core.rehearsal.kept import Plays

A_MOMENT_H = 1e-6
"""What is lost in rounding of hours [h]."""


def rehearse(course: Course, draws: Draws) -> Plays:
    """Play a course as often as was drawn."""
    return _Party(course, draws).gone()


class _Party:
    """All plays, on their way; every array has a row a play."""

    def __init__(self, course: Course, draws: Draws) -> None:
        self.course, self.draws, self.usual = course, draws, course.usual
        n = draws.plays
        self.rows = np.arange(n)
        begin = course.begin
        self.day = np.full(n, course.day[begin])
        self.clock = np.full(n, course.clock_h[begin] if begin else course.start_h[0])
        self.set_out = self.clock.copy()
        self.behind = np.zeros(n, dtype=np.int64)
        self.long_days = np.zeros(n, dtype=np.int64)
        self.wet = np.zeros(n)
        # Of several at a place the one counts that the plan counts on.
        self.sources = {one.place: one for one in sorted(course.sources, key=lambda one: one.sure)}
        self.shops = {one.place: one for one in sorted(course.shops, key=lambda one: one.sure)}
        met = {"water": frozenset(self.sources), "food": frozenset(self.shops)}
        self.stores = {name: Hand(store, course, n, met.get(name, frozenset())) for name, store in course.stores.items()}
        nothing = np.zeros(n)
        count = nothing.astype(np.int64)
        self.told = Plays(
            course, draws.fate.first, np.zeros((n, course.places)), {}, nothing + np.inf, nothing.copy(), count.copy(), count - 1,
            count.copy(), count.copy(), count.copy(), count.copy(), count - 1, draws.power, np.full(n, np.nan),
        )  # fmt: skip
        self.wet_sources: dict[str, Bools] = {}
        self.lost_h, self.lost_days = self._faults()
        self._new_day(begin, np.ones(n, dtype=bool))

    def gone(self) -> Plays:
        """The whole way."""
        course = self.course
        self.told.when[:, 0] = course.start_h[0] / DAY_H
        self.told.when[:, : course.begin] = course.planned[: course.begin]
        for hand in self.stores.values():
            hand.begins(course.begin)
        for place in range(course.begin, course.places - 1):
            if place:
                self._arrived(place)
            hours = self._ride(place)
            self.clock = self.clock + hours
        last = course.places - 1
        self.told.when[:, last] = self._now()
        for hand in self.stores.values():
            hand.arrived(last)
            hand.noted(last)
        self.told.kept = {name: hand.kept for name, hand in self.stores.items()}
        self.told.drivers = self._drivers()
        return self.told

    def _drivers(self) -> dict[str, Array]:
        """What was drawn, in a number a play."""
        draws, told, days = self.draws, self.told, slice(0, self.course.days)
        broken = np.sum(list(told.unmended.values()), axis=0) if told.unmended else np.zeros(draws.plays)
        found = {
            "a warm or a cold year": draws.year_k + draws.climate, "wet days": told.wet_days.astype(float),
            "the wind": draws.blows[:, : self.course.days * SPELLS].mean(axis=1), "the pace": draws.pace[:, days].mean(axis=1),
            "how much they drink": draws.water[:, days].mean(axis=1), "how much they eat": draws.food[:, days].mean(axis=1),
            "how much they burn": draws.fuel[:, days].mean(axis=1), "how much power they draw": draws.power,
            "illness": told.ill.astype(float), "faults that nothing mends": np.asarray(broken, dtype=float),
        }  # fmt: skip
        return found | {f"the water at {name}": wet.astype(float) for name, wet in self.wet_sources.items()}

    def _now(self) -> Array:
        return self.day + self.clock / DAY_H

    def _arrived(self, place: int) -> None:
        """Sleep or not, then fill."""
        course = self.course
        self.told.when[:, place] = self._now()
        if self.lost_days[:, place].any():
            # Hitched to where there is everything, and back in the same place at the same hour.
            self.day, self.behind = self.day + self.lost_days[:, place], self.behind + self.lost_days[:, place]
            self._new_day(place, self.lost_days[:, place] > 0)
        passing, came = self.clock.copy(), self.day.copy()
        planned = bool(course.night[place] >= 0)
        behind = self.day > course.day[place]
        hours, times = self._hours(place)
        too_late = self.clock + hours > course.until_h[place + 1] + A_MOMENT_H
        dark = self._dark_before_better(place, times)
        too_late &= dark & course.wild
        if course.good[place] and not planned:
            too_late |= dark & (self.clock > course.until_h[place] - self.usual.settles_h)
        stays = (~behind | too_late) if planned else too_late
        for name, hand in self.stores.items():
            hand.uses(place, hand.store.passing[place], ~stays, self.today[name])
        if stays.any():
            self._sleep(place, stays)
        for name, hand in self.stores.items():
            camps = dark & ~stays & course.wild
            more = self._more_water(place, camps) if course.watered[place] and name == "water" else 0.0
            had = self._had(name, place, passing, came, stays)
            if name == "food":
                had |= self._waits(place, ~had & hand.lacks(place, self.usual.ration))
            hand.fills(place, had, more)
            hand.noted(place)

    def _dark_before_better(self, place: int, times: Array) -> Bools:
        """Who reaches neither a place to stay nor the night of the plan before it is dark for long."""
        course, to = self.course, int(self.course.better[place])
        riding = course.tour.road.pause_factor * course.riding_h[place:to].sum()
        there = self.clock + riding * times + course.other_h[place:to].sum()
        return np.asarray(there > course.until_h[to] + self.usual.into_dark_h + A_MOMENT_H)

    def _waits(self, place: int, waits: Bools) -> Bools:
        """A day before a shop that is shut."""
        if waits.any():
            self.day = np.where(waits, self.day + 1, self.day)
            self.clock = np.where(waits, self.course.start_h[place], self.clock)
            self.set_out = np.where(waits, self.clock, self.set_out)
            self._new_day(place, waits)
        return waits

    def _more_water(self, place: int, camps: Bools) -> Array:
        """What the day, as it is, asks for beyond the plan up to the next water, and a camp on the way."""
        store = self.stores["water"].store
        _, times = self._hours(place)
        today = times * self._thirst(place, self._air(place)) * self.today["water"]
        return np.asarray(store.ahead[place] * np.maximum(today - 1, 0) + np.where(camps, store.night.max(), 0.0))

    def _sleep(self, place: int, stays: Bools) -> None:
        """The night, days of rest as far as the plan has them and they are not behind, and rest for whoever is tired."""
        course, told, came, passing = self.course, self.told, self.day, self.clock
        behind = np.maximum(self.day - course.day[place], 0)
        as_planned = np.where(stays, np.maximum(course.rests[place] - behind, 0), 0)
        long = self.clock - self.set_out > course.long_h + A_MOMENT_H
        self.long_days = np.where(stays, np.where(long, self.long_days + 1, 0), self.long_days)
        tired = stays & (self.long_days >= self.usual.long_days_borne) & (as_planned == 0)
        self.long_days[tired | (as_planned > 0)] = 0
        well = as_planned + tired
        ill = np.where(stays, self.draws.ill[self.rows, self._today(came + 1 + well)], 0)
        rests = well + ill
        told.rests, told.tired, told.ill = told.rests + as_planned, told.tired + tired, told.ill + ill
        told.ill_at = np.where((ill > 0) & (told.ill_at < 0), place, told.ill_at)
        self.day = np.where(stays, came + 1 + rests, came)
        self.clock = np.where(stays, course.start_h[place], self.clock)
        self.set_out = np.where(stays, self.clock, self.set_out)
        for name, hand in self.stores.items():
            hand.comes_to(place, stays & self._had(name, place, passing, came, stays))
            dry = self._dry_source(place) if name == "water" else None
            # A day more than planned eats what no kilometre of the plan does; it is counted below.
            days = as_planned if name == "food" else well
            saves = self.usual if CARRIED[name].rationed else None
            hand.sleeps(place, stays, days, self.today[name], dry, self._until(place, passing), saves)
        for more in range(int(rests.max()) + 1):
            self._night(place, stays & (rests >= more), came + more)
        behind = np.where(stays, self.day - course.day[place + 1], self.behind)
        if "food" in self.stores:
            more_days = np.maximum(behind - self.behind - ill, 0)
            self.stores["food"].uses(place, course.extra_food, stays, self.today["food"] * more_days)
        self.behind = np.maximum(self.behind, behind)
        self._new_day(place, stays)

    def _until(self, place: int, came_h: Array) -> Array:
        """Hours from when they came to the morning [h]."""
        return np.asarray(DAY_H - came_h + self.course.start_h[place])

    def _night(self, place: int, slept: Bools, day: Ints) -> None:
        """How cold one of the nights is, and whether those who sleep out of doors bear it."""
        course, told, day = self.course, self.told, self._today(day)
        drawn = self.draws.low[self.rows, day]
        low = course.nights.low_c[place] + self._off(course.nights.low_k[place], course.nights.unsure[place], drawn)
        told.coldest_c = np.where(slept, np.minimum(told.coldest_c, low), told.coldest_c)
        if course.indoors[place] or np.isnan(course.bears_c[place]):
            return
        colder = np.where(slept, course.bears_c[place] - low, 0.0)
        told.cold_nights += colder > ROUNDING
        worse = colder > np.maximum(told.colder_k, ROUNDING)
        told.cold_at = np.where(worse, place, told.cold_at)
        told.colder_k = np.maximum(told.colder_k, np.where(worse, colder, 0.0))

    def _new_day(self, place: int, woken: Bools) -> None:
        """Look up what was drawn for the day that begins."""
        day, draws = self._today(self.day), self.draws
        piece = min(place, self.course.places - 2)
        p = self.course.rain[piece]
        chance = p + self.usual.rain_kept * (self.wet - p) if draws.on else np.zeros(self.rows.size)
        wet = (draws.rain[self.rows, day] < chance).astype(float)
        self.wet = np.where(woken, wet, self.wet)
        self.told.wet_days += (woken & (wet > 0)).astype(np.int64)
        self.pace = draws.pace[self.rows, day]
        self.blows_from = draws.blows_from[self.rows, day]
        self.today = {"water": draws.water[self.rows, day], "food": draws.food[self.rows, day],
                      "fuel": draws.fuel[self.rows, day]}  # fmt: skip
        self.today_low, self.today_high = draws.low[self.rows, day], draws.high[self.rows, day]

    def _today(self, day: Ints) -> Ints:
        return np.minimum(day, self.draws.days - 1)

    def _off(self, spread_k: float, unsure: float, drawn: Array) -> Array:
        """How far a high or low is off the usual [K]."""
        draws = self.draws
        if not draws.on:
            return spread_k * drawn
        return np.asarray(spread_k * (np.sqrt(1 - unsure**2) * drawn + unsure * draws.climate) + draws.year_k)

    def _hours(self, piece: int) -> tuple[Array, Array]:
        """What the clock goes on by to the next place, and how much longer than planned riding takes [h, -]."""
        course, usual, draws = self.course, self.usual, self.draws
        times = self.pace
        if draws.on:
            times = times * self._in_wind(piece)
            if course.unpaved[piece]:
                times = times * np.where(self.wet > 0, usual.mud_times, 1.0)
            times = times * np.where(self._high(piece) > usual.hot_index_c, usual.heat_times, 1.0)
        hours = course.tour.road.pause_factor * course.riding_h[piece] * times + course.other_h[piece]
        return hours + self.lost_h[:, piece], times

    def _in_wind(self, piece: int) -> Array:
        course = self.course
        mean = course.wind_ms[piece]
        if mean <= 0:
            return np.ones(self.rows.size)
        turned = self.blows_from - (course.bearing[piece] if course.bearing is not None else 0.0)
        spell = (self.clock * SPELLS / DAY_H).astype(np.int64) + self._today(self.day) * SPELLS
        blows = self.draws.blows[self.rows, np.minimum(spell, self.draws.days * SPELLS - 1)]
        head = mean * blows * np.cos(turned) / HEAD_MS + HEADWINDS
        at = np.clip(head, 0, 2 * HEADWINDS - 1e-9)
        below = at.astype(np.int64)
        row = course.in_wind[piece]
        times = row[below] + (at - below) * (row[below + 1] - row[below])
        return np.asarray(times**self.draws.on)

    def _high(self, piece: int) -> Array:
        course, air = self.course, self.course.riding
        high = air.high_c[piece] + self._off(air.high_k[piece], air.unsure[piece], self.today_high)
        if self.draws.on and course.rain[piece] > 0:
            high = high - self.usual.wet_cools_k * (self.wet - course.rain[piece])
        return np.asarray(high)

    def _ride(self, piece: int) -> Array:
        """Go on to the next place; what that takes of everything."""
        hours, times = self._hours(piece)
        for name, hand in self.stores.items():
            amount = hand.store.used[piece] * self.today[name]
            if name == "water":
                amount = amount * times * self._thirst(piece, self._air(piece))
            hand.rides(piece, amount, hours, self.usual if CARRIED[name].rationed else None)
        return hours

    def _air(self, piece: int) -> Array:
        """Air in the hour in which a piece is ridden as planned [°C]."""
        riding = self.course.riding
        low = riding.low_c[piece] + self._off(riding.low_k[piece], riding.unsure[piece], self.today_low)
        return np.asarray(low + (self._high(piece) - low) * self.course.share[piece])

    def _thirst(self, piece: int, air: Array) -> Array:
        """What is drunk in such air over what is planned [-]."""
        row = self.course.thirst[piece]

        def litres(at_c: Array) -> Array:
            at = np.clip(at_c - COLDEST_C, 0, HOTTEST_C - COLDEST_C - 1e-9)
            below = at.astype(np.int64)
            return np.asarray(row[below] + (at - below) * (row[below + 1] - row[below]))

        return np.asarray(litres(air) / litres(self.course.planned_c[piece : piece + 1]))

    def _had(self, name: str, place: int, clock: Array, day: Ints, stays: Bools) -> Bools:
        """For whom a place hands a supply over."""
        if name == "water" and place in self.sources:
            return ~self._dry_source(place)
        if name == "food" and place in self.shops:
            return self._open(self.shops[place], clock, day, stays)
        return np.ones(self.rows.size, dtype=bool)

    def _dry_source(self, place: int) -> Bools:
        one = self.sources.get(place)
        if one is None:
            return np.zeros(self.rows.size, dtype=bool)
        if not self.draws.on:
            return np.full(self.rows.size, not one.sure)
        wet = self.draws.source(one.stop.id) < one.chance[self._today(self.day)]
        self.wet_sources[one.stop.name] = wet
        return ~wet

    def _open(self, shop: Shop, clock: Array, day: Ints, stays: Bools) -> Bools:
        """Whether a shop can be used: by whom passes as by the clock; by whom sleeps there or near in the evening, on days of
        rest or in the morning."""
        stop, wait_h, today = shop.stop, self.usual.morning_wait_h, self._today(day)

        def at(hour: Array) -> Bools:
            return np.asarray(np.any([(opens - wait_h <= hour) & (hour <= closes) for opens, closes in stop.open_hours], axis=0))

        if shop.near_night:
            days = (np.maximum(day - 1, 0), day, np.maximum(self.day, day + 1))
            found = np.any([~shop.shut[self._today(one)] for one in days], axis=0)
        else:
            found = ~shop.shut[today] & at(clock)
            evening = ~shop.shut[today] & (clock <= stop.open_hours[-1][1])
            resting = np.zeros(day.size, dtype=bool)
            for more in range(1, int((self.day - day).max(initial=0))):
                resting |= (day + more < self.day) & ~shop.shut[self._today(day + more)]
            morning = ~shop.shut[self._today(self.day)] & at(np.full(day.size, self.course.start_h[shop.place]))
            found = np.where(stays, evening | resting | morning, found)
        return np.asarray(found & (self.draws.shop(stop.id) >= self.draws.on * shop.failing))

    def _faults(self) -> tuple[Array, Ints]:
        """Hours and days that faults cost, by the piece or at the place where they are met."""
        course, draws, told = self.course, self.draws, self.told
        n = draws.plays
        hours, days = np.zeros((n, course.places - 1)), np.zeros((n, course.places), dtype=np.int64)
        between = np.zeros(course.places, dtype=np.int64)
        between[course.workshops] = 1
        between = np.cumsum(between)
        for risk in course.risks:
            whole = float(risk.expected[-1] - risk.expected[course.begin])
            when = draws.faults(risk.kind.id, whole, risk.kind.clustered)
            places = np.searchsorted(risk.expected - risk.expected[course.begin], when, side="left")
            there = places < course.places
            at = np.clip(places - 1, 0, course.places - 2)
            stretch = np.where(there, between[at], -1)
            # How many of the kind came since the last workshop, where parts are had again.
            since = np.array([(stretch[:, : k + 1] == stretch[:, k : k + 1]).sum(axis=1) for k in range(when.shape[1])]).T
            told.most_wanted[risk.kind.id] = np.where(there, since, 0).max(axis=1)
            mended = there & risk.able & (since <= risk.mends)
            stopped = there & ~mended & risk.kind.stops
            told.mended[risk.kind.id] = mended.sum(axis=1)
            told.unmended[risk.kind.id] = (there & ~mended).sum(axis=1)
            rows = np.broadcast_to(self.rows[:, None], at.shape)
            np.add.at(hours, (rows[mended], at[mended]), self.usual.mending_h)
            np.add.at(days, (rows[stopped], at[stopped] + 1), int(np.ceil(self.usual.stranded_days)))
            first = np.where(stopped, course.km[at], np.inf).min(axis=1)
            told.stuck_at = np.where(np.isfinite(first), np.fmin(told.stuck_at, first), told.stuck_at)
        return hours, days
