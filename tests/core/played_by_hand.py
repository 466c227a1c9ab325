"""A second simulator of rehearsals, one play at a time in plain loops, sharing no code with the first but the course it rides."""

import math
import random
from dataclasses import fields, is_dataclass
from types import SimpleNamespace

import numpy as np


def normals(dice, days, kept):
    found = [dice.gauss(0, 1)]
    for _ in range(days - 1):
        found.append(kept * found[-1] + math.sqrt(1 - kept * kept) * dice.gauss(0, 1))
    return found


def geometric(dice, mean):
    length = 1
    while dice.random() < 1 - 1 / mean:
        length += 1
    return length


def plain(thing):
    """The same in plain lists."""
    if is_dataclass(thing):
        return SimpleNamespace(**{f.name: plain(getattr(thing, f.name)) for f in fields(thing)})
    if isinstance(thing, dict):
        return {name: plain(one) for name, one in thing.items()}
    if isinstance(thing, list):
        return [plain(one) for one in thing]
    return thing.tolist() if isinstance(thing, np.ndarray) else thing


class Play:
    """One play of a course, given in plain lists."""

    def __init__(self, course, dice):
        self.c, self.u, self.dice = course, course.usual, dice
        u, days = self.u, 60
        self.high = normals(dice, days, u.day_kept)
        own = normals(dice, days, u.day_kept)
        self.low = [u.high_with_low * h + math.sqrt(1 - u.high_with_low**2) * o for h, o in zip(self.high, own, strict=True)]
        self.year, self.climate, dry_year = u.year_k * dice.gauss(0, 1), dice.gauss(0, 1), dice.gauss(0, 1)
        self.wind = [[math.sqrt(-math.log(1 - dice.random())) * 2 / math.sqrt(math.pi) for _ in range(4)] for _ in range(days)]
        self.blows_from = [dice.uniform(0, 2 * math.pi) for _ in range(days)]

        def times(tour, day):
            whole = tour * dice.gauss(0, 1)
            return [math.exp(whole + day * dice.gauss(0, 1)) for _ in range(days)]

        self.pace = times(u.pace_width, u.pace_day_width)
        self.takes = {"water": times(u.water_width, u.water_day_width), "food": times(u.food_width, u.food_day_width),
                      "fuel": times(u.fuel_width, u.fuel_day_width)}  # fmt: skip
        self.ill = [geometric(dice, u.ill_days) if dice.random() < u.ill_per_100_days / 100 else 0 for _ in range(days)]
        r = u.sources_together
        self.source = {s.place: math.sqrt(r) * dry_year + math.sqrt(1 - r) * dice.gauss(0, 1) for s in course.sources}
        self.shut = {s.place: dice.random() < s.failing for s in course.shops}
        self.day, self.hour, self.wet, self.long, self.behind = 0, float(course.start_h[0]), 0, 0, 0
        self.set_out, self.colder = self.hour, 0.0
        self.has = {name: float(s.leaving[0]) for name, s in course.stores.items()}
        self.out = dict.fromkeys(self.has, False)
        self.without = {name: [0.0] * (len(s.gap_km) - 1) for name, s in course.stores.items()}
        self.lacked = {name: [0.0] * (len(s.gap_km) - 1) for name, s in course.stores.items()}
        self.planned = {name: float(s.planned[0]) for name, s in course.stores.items()}
        self.rain(0)

    def rain(self, place):
        share = self.c.rain[min(place, len(self.c.rain) - 1)]
        self.wet = int(self.dice.random() < share + self.u.rain_kept * (self.wet - share))

    def off(self, spread, unsure, number):
        return spread * (math.sqrt(1 - unsure**2) * number + unsure * self.climate) + self.year

    def hot(self, piece):
        air = self.c.riding
        high = air.high_c[piece] + self.off(air.high_k[piece], air.unsure[piece], self.high[self.day])
        return high - self.u.wet_cools_k * (self.wet - self.c.rain[piece]) if self.c.rain[piece] > 0 else high

    def longer(self, piece):
        """Riding takes so many times as planned."""
        c, times = self.c, self.pace[self.day]
        if c.wind_ms[piece] > 0:
            spell = self.wind[min(self.day + int(self.hour // 24), 59)][int(self.hour % 24 // 6)]
            head = c.wind_ms[piece] * spell * math.cos(self.blows_from[self.day] - (0 if c.bearing is None else c.bearing[piece]))
            at = min(max(head / 3 + 4, 0), 7.999999)
            row = c.in_wind[piece]
            times *= row[int(at)] + (at - int(at)) * (row[int(at) + 1] - row[int(at)])
        if c.unpaved[piece] and self.wet:
            times *= self.u.mud_times
        return times * (self.u.heat_times if self.hot(piece) > self.u.hot_index_c else 1)

    def hours(self, piece):
        return self.c.tour.road.pause_factor * self.c.riding_h[piece] * self.longer(piece) + self.c.other_h[piece]

    def thirst(self, piece):
        riding, c = self.c.riding, self.c
        low = riding.low_c[piece] + self.off(riding.low_k[piece], riding.unsure[piece], self.low[self.day])
        air = low + (self.hot(piece) - low) * c.share[piece]

        def litres(degrees):
            at = min(max(degrees + 40, 0), 99.999999)
            row = c.thirst[piece]
            return row[int(at)] + (at - int(at)) * (row[int(at) + 1] - row[int(at)])

        return litres(air) / litres(c.planned_c[piece])

    def wet_source(self, place):
        for s in self.c.sources:
            if s.place == place:
                chance = s.chance[self.day]
                return 0.5 * (1 + math.erf(self.source[place] / math.sqrt(2))) < chance
        return True

    def open(self, place, came, hour, sleeps):
        for s in self.c.shops:
            if s.place != place:
                continue
            if self.shut[place]:
                return False

            def at(h, stop=s.stop):
                return any(a - self.u.morning_wait_h <= h <= b for a, b in stop.open_hours)

            if s.near_night:
                return not all(s.shut[d] for d in (max(came - 1, 0), came, max(self.day, came + 1)))
            if not sleeps:
                return not s.shut[came] and at(hour)
            evening = not s.shut[came] and hour <= s.stop.open_hours[-1][1]
            between = any(not s.shut[d] for d in range(came + 1, self.day))
            return evening or between or (not s.shut[self.day] and at(self.c.start_h[place]))
        return True

    def use(self, name, place, piece, amount, hours, saves):
        store, has = self.c.stores[name], self.has[name]
        gap = store.gap[piece]
        self.lacked[name][gap] += max(amount - has, 0)
        if saves and name != "fuel" and has < self.planned[name] - 0.005:
            lasts = has / max(store.ahead[place], amount, 1e-12)
            if name == "food":
                amount *= min(max(lasts, self.u.ration), 1)
            elif lasts < self.u.rations_below:
                amount *= self.u.ration
        part = 1.0
        if amount > has + 0.005 and not self.out[name]:
            self.out[name] = True
            part = 1 - has / max(amount, 1e-12)
        if self.out[name]:
            self.without[name][gap] += hours * part
        self.has[name] = max(has - amount, 0)

    def arrive(self, place):
        c, u = self.c, self.u
        came, hour = self.day, self.hour
        to = int(c.better[place])
        ride = c.tour.road.pause_factor * sum(c.riding_h[place:to]) * self.longer(place) + sum(c.other_h[place:to])
        dark = self.hour + ride > c.until_h[to] + u.into_dark_h + 1e-6
        late = self.hour + self.hours(place) > c.until_h[place + 1] + 1e-6 and dark and c.wild
        night = c.night[place] >= 0
        if c.good[place] and not night and dark and self.hour > c.until_h[place] - u.settles_h:
            late = True
        sleeps = (self.day <= c.day[place] or late) if night else late
        for name, store in c.stores.items():
            if not sleeps and store.passing[place]:
                self.use(name, place, place - 1, store.passing[place] * self.takes[name][self.day], 0, False)
        if sleeps:
            self.sleep(place, came, hour)
        for name, store in c.stores.items():
            self.fill(name, store, place, came, hour, sleeps, dark)

    def sleep(self, place, came, hour):
        c, u = self.c, self.u
        as_planned = max(int(c.rests[place]) - max(came - int(c.day[place]), 0), 0)
        self.long = self.long + 1 if hour - self.set_out > c.long_h + 1e-6 else 0
        tired = self.long >= u.long_days_borne and not as_planned
        if tired or as_planned:
            self.long = 0
        well = as_planned + tired
        ill = self.ill[came + 1 + well]
        todays = {name: self.takes[name][came] for name in c.stores}
        self.day, self.hour = came + 1 + well + ill, float(c.start_h[place])
        self.set_out = self.hour
        for name, store in c.stores.items():
            handed = not math.isnan(store.leaving[place])
            if handed and (self.wet_source(place) if name == "water" else name != "food" or self.open(place, came, hour, True)):
                self.out[name] = False
            days = as_planned if name == "food" else well
            amount = store.night[place] + days * store.rest[place]
            if name == "water" and not self.wet_source(place):
                most = max(range(len(store.night)), key=lambda k: store.night[k])
                amount = store.night[most] + days * store.rest[most]
            self.use(name, place, place - 1, amount * todays[name], 24 - hour + c.start_h[place] + 24 * days, True)
        for more in range(well + ill + 1):
            low = c.nights.low_c[place] + self.off(c.nights.low_k[place], c.nights.unsure[place], self.low[came + more])
            if not c.indoors[place] and not math.isnan(c.bears_c[place]):
                self.colder = max(self.colder, c.bears_c[place] - low if c.bears_c[place] - low > 0.005 else 0)
        behind = self.day - int(c.day[place + 1])
        if "food" in c.stores:
            self.use("food", place, place - 1, c.extra_food * todays["food"] * max(behind - self.behind - ill, 0), 0, False)
        self.behind = max(self.behind, behind)
        self.rain(place)

    def fill(self, name, store, place, came, hour, sleeps, dark):
        c, has, leaving = self.c, self.has[name], store.leaving[place]
        met = {"water": [s.place for s in c.sources], "food": [s.place for s in c.shops]}.get(name, [])
        had = True
        if name == "water":
            had = self.wet_source(place)
        elif name == "food" and place in met:
            had = self.open(place, came, hour, sleeps)
            if not had and not math.isnan(leaving) and has < self.u.ration * store.ahead[place]:
                self.day, self.hour, had = self.day + 1, float(c.start_h[place]), True
                self.set_out = self.hour
                self.rain(place)
        if math.isnan(leaving):
            if had and place in met:
                self.has[name] = max(has, store.wanted[place])
        elif had:
            more = 0.0
            if name == "water" and c.watered[place]:
                today = self.longer(place) * self.thirst(place) * self.takes["water"][self.day]
                camps = dark and not sleeps and c.wild
                more = store.ahead[place] * max(today - 1, 0) + (max(store.night) if camps else 0)
            wanted = max(has, leaving, min(leaving + more, store.capacity[place]))
            self.has[name] = min(wanted, has + store.offer[place])
            self.out[name] = False
        self.planned[name] = float(store.planned[place])

    def ride(self):
        c = self.c
        for piece in range(len(c.riding_h)):
            if piece:
                self.arrive(piece)
            times, hours = self.longer(piece), self.hours(piece)
            for name, store in c.stores.items():
                amount = store.used[piece] * self.takes[name][self.day]
                if name == "water":
                    amount *= times * self.thirst(piece)
                self.use(name, piece, piece, amount, hours, True)
            self.hour += hours
        return self


def outcomes(course, plays, seed, thirst_l):
    """How many of so many plays have each outcome, and in the mean how late they arrive [d]."""
    dice, found, late = random.Random(seed), {}, 0.0
    matters = {"water": (thirst_l, 0), "food": (0, 8), "fuel": (0, 12)}
    course = plain(course)
    for _ in range(plays):
        play = Play(course, dice).ride()
        for name, key in (("water", "dry"), ("food", "hungry"), ("fuel", "fuelless")):
            if name in course.stores:
                lacks, hours = matters[name]
                bad = any(h > 0 and h >= hours and x > lacks for h, x in zip(play.without[name], play.lacked[name], strict=True))
                found[key] = found.get(key, 0) + bad
        found["cold"] = found.get("cold", 0) + (play.colder > 0)
        behind = math.floor(play.day + play.hour / 24) - int(course.day[-1])
        found["late"] = found.get("late", 0) + (behind >= 1)
        late += play.day + play.hour / 24
    return found, late / plays
