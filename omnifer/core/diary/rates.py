"""Rates that the days of a tour teach, with their certainty: offered as defaults of the next, never taken by themselves."""

import datetime as dt
import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from omnifer.core.diary.felt import felt_colder, nights_felt
from omnifer.core.diary.journal import Journal, Told, on_road, placed
from omnifer.core.diary.now import Replanned
from omnifer.core.diary.tended import about_part, done_at
from omnifer.core.model import practice
from omnifer.core.model.assessment import Assessment, Day
from omnifer.core.model.debrief import LearnedRate, Sure
from omnifer.core.model.diary import GONE
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Text
from omnifer.core.model.roles import UsedUp
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs.care import OILS, interval_of
from omnifer.core.needs.wear import WORN
from omnifer.core.physics import learning
from omnifer.core.physics.learning import Belief
from omnifer.core.physics.weather import NINE_IN_TEN
from omnifer.core.sentence import celsius, fine_number, kelvin, number, say, share
from omnifer.core.supplies.used_up import users_of

WORTH_DAYS = 10.0
"""An assumption is worth so many person-days of own use: after as many a default has moved half-way; proposal."""
WORTH_KM = 600.0
"""The same of kilometres; proposal."""
SURE, FAIR = 0.1, 0.25
"""Relative standard deviations up to which a rate is called sure, and fair; proposal."""
DIFFER = 0.5
"""How far people differ in what they use, as a part of the usual: an assumption of small things and fuel is worth no more, so
that the interval told holds the true rate nine times in ten [-]; practice, tuned by `bench.calibration`."""
DAY_KM, DAY_CLIMB_M, PACK_MIN = 20.0, 350.0, 6.0
"""How far single days differ from each other, as standard deviations [km, m, min]; practice."""
PORTION = {name: spec.portion for name, spec in CARRIED.items()} | {"power": 5.0, "g": 5.0, "ml": 5.0, "pieces": 1.0, "pads": 0.5}
"""What is taken at one time [l, kg, kg, Wh, g, ml, -, mm]: use is counted in such portions, so that single days differ as days
do; proposal."""
WIDTH_OF = {
    "water_times": "water_width", "food_times": "food_width", "fuel_times": "fuel_width", "power_times": "power_width"
}  # fmt: skip
"""The width of what a rehearsal draws of each learned factor."""
WORTH_OILINGS, FEW_OILINGS, OILING_KM = 3.0, 3, 80.0
"""An assumed interval is worth so many own ones, of fewer nothing is said, and so far single ones differ [-, -, km]; practice."""
WORTH_PARTS, LIVES_DIFFER = 2.0, 0.35
"""A usual life of parts is worth so many own ones, and single ones differ by such a part of it [-, -]; practice."""
PAD_MM = 2.0
"""Of a pair of pads from new to 1.5 mm left [mm]; practice."""


@dataclass(frozen=True)
class _Days:
    """The days that were ridden, and what was noted on them."""

    sheet: TourSheet
    plan: Assessment
    days: list[Day]
    entries: list[Told]
    set_out: dt.date

    @property
    def riders(self) -> int:
        return max(len(self.sheet.riders), 1)

    @property
    def length_km(self) -> float:
        return self.plan.road.length_km if self.plan.road is not None else 0.0

    @property
    def km(self) -> float:
        return sum(day.distance_km for day in self.days)

    def noted(self, verbs: tuple[str, ...], about: str) -> tuple[float, list[Day]]:
        """What was noted in all, and on which days."""
        found = [t for t in self.entries if t.entry.verb in verbs and t.entry.about == about]
        numbers = {(t.date - self.set_out).days + 1 for t in found}
        return sum(t.entry.amount if t.entry.amount is not None else 1.0 for t in found), [
            day for day in self.days if day.number in numbers
        ]  # fmt: skip

    def aboard(self, about: str) -> list[Day]:
        """The days on which something was carried: until it was sent home, lost or given away."""
        gone = [(t.date - self.set_out).days + 1 for t in self.entries if t.entry.verb in GONE and t.entry.about == about]
        return [day for day in self.days if not gone or day.number <= min(gone)]

    def ran_out(self, about: str) -> int | None:
        """The day on which something is first noted as used up."""
        days = [(t.date - self.set_out).days + 1 for t in self.entries if t.entry.verb == "ran_out" and t.entry.about == about]
        return min(days, default=None)

    def lump(self, verbs: tuple[str, ...], about: str) -> float:
        """What one note stands for: where less than every other day has one, what is used up since the last is not told."""
        amounts = [t.entry.amount if t.entry.amount is not None else 1.0
                   for t in self.entries if t.entry.verb in verbs and t.entry.about == about]  # fmt: skip
        return float(np.median(amounts)) if 0 < len(amounts) < len(self.aboard(about)) / 2 else 0.0


def rates_of(
    sheet: TourSheet, plan: Assessment, made: Replanned, journal: Journal, into: TourSheet | None = None
) -> list[LearnedRate]:
    """Every rate of which something was noted. The order of entries does not matter; without any there is none.

    Parameters
    ----------
    into : TourSheet, optional
        The tour that they are offered to; None: none yet.
    """
    here = made.ridden.here
    days = [day for day in made.rest.days if day.number < here.day or (here.arrived and day.number <= here.day)]
    told = _Days(sheet, plan, days, on_road(journal), here.set_out)
    if not days or not told.entries:
        return []
    of_use = (*_supplies(told), *_small(told), *_faults(told), *_oil(told, journal), *_lives(told, journal))
    return [_offered(rate, into) for rate in (*of_use, *_days(told, made), *_nights(told), *_packing(told))]


def _offered(rate: LearnedRate, into: TourSheet | None) -> LearnedRate:
    """A rate, marked where the tour it is offered to says the same already."""
    if into is None:
        return rate
    match rate.takes:
        case "own_value":
            taken = abs(into.own_values.get(rate.takes_key, -1e9) - rate.takes_value) < 1e-3
        case "thing_rate":
            mine = [t.role for t in into.kit if t.name == rate.takes_key and isinstance(t.role, UsedUp)]
            taken = bool(mine) and all(abs(role.rate - rate.takes_value) < 1e-3 for role in mine)
        case "cut":
            taken = into.road.cut.by == "distance" and abs(into.road.cut.distance_km - rate.takes_value) < 0.1
        case _:
            taken = False
    return rate.model_copy(update={"taken": taken})


def _rate(
    key: str, name: str, unit: str, per: str, assumed: float, belief: Belief, noted: Text, takes: str = "nothing",
    takes_key: str = "", takes_value: float = 0.0,
) -> LearnedRate:  # fmt: skip
    off = belief.sd / abs(belief.mean) if belief.mean else 1.0
    sure: Sure = "sure" if off <= SURE else "fair" if off <= FAIR else "a_hint"
    return LearnedRate(
        key=key, name=name, unit=unit, per=per, assumed=round(assumed, 4), mean=round(belief.mean, 4), low=round(belief.low, 4),
        high=round(belief.high, 4), sure=sure, noted=noted, takes=takes, takes_key=takes_key, takes_value=round(takes_value, 4),
    )  # fmt: skip


def _learned(assumed: float, worth: float, used: float, units: float, portion: float, lump: float = 0.0) -> Belief:
    """A rate of use that is counted in portions, and noted in lumps of so much where these are larger."""
    found = learning.rate(assumed / portion, worth, used / portion, units, max(lump / portion, 1.0))
    return Belief(found.mean * portion, found.sd * portion, found.low * portion, found.high * portion)


def _times(told: _Days, key: str, belief: Belief, assumed: float) -> float:
    """A factor of the rider's own: what it was, times what was learned over what was assumed, within what can be."""
    return _within(key, float(getattr(told.sheet.practice, key)) * belief.mean / assumed)


def _within(key: str, value: float) -> float:
    """A value of the rider's own, within what it can be."""
    limits = practice.fields()[key][1]
    return float(min(max(value, limits["least"]), limits["most"]))


def _conditions(days: list[Day], what: str) -> Text:
    warm = sum(d.mean_max_c for d in days) / len(days)
    wet = sum(d.rain_chance for d in days) / len(days)
    return say("{days:day|days} of {what}, at {warm} by day, rain on {wet} of them", days=number(len(days)), what=what,
               warm=celsius(warm), wet=share(wet))  # fmt: skip


def _supplies(told: _Days) -> Iterator[LearnedRate]:
    lanes = {lane.key: lane for lane in (told.plan.stores.lanes if told.plan.stores else ())}
    drunk, days = told.noted(("drank",), "water")
    hours = sum(day.riding_hours for day in days) * told.riders
    planned_h = sum(day.riding_hours for day in told.plan.days) * told.riders
    planned_l = sum(gap.riding for gap in told.plan.gaps if gap.supply == "water")
    if drunk > 0 and hours > 0 and planned_l > 0:
        assumed = planned_l / planned_h
        worth = WORTH_DAYS * planned_h / max(len(told.plan.days) * told.riders, 1)
        belief = _learned(assumed, worth, drunk, hours, PORTION["water"])
        yield _rate("water", "Water riding", "volume", "an hour", assumed, belief, _conditions(days, "water"), "own_value",
                    "water_times", _times(told, "water_times", belief, assumed))  # fmt: skip
    eaten, days = told.noted(("ate",), "food")
    if eaten > 0 and days and "food" in lanes and lanes["food"].a_day > 0:
        assumed = lanes["food"].a_day / told.riders
        belief = _learned(assumed, WORTH_DAYS, eaten, len(days) * told.riders, PORTION["food"])
        yield _rate("food", "Food", "mass", "a person-day", assumed, belief, _conditions(days, "food"), "own_value", "food_times",
                    _times(told, "food_times", belief, assumed))  # fmt: skip
    burnt, _ = told.noted(("used",), "fuel")
    if burnt > 0 and "fuel" in lanes and lanes["fuel"].a_day > 0:
        assumed, days = lanes["fuel"].a_day, told.days
        worth = min(WORTH_DAYS, _as_people_differ(assumed, PORTION["fuel"]))
        belief = _learned(assumed, worth, burnt, len(days), PORTION["fuel"], told.lump(("used",), "fuel"))
        yield _rate("fuel", "Fuel", "mass", "a day", assumed, belief, _conditions(days, "fuel"), "own_value", "fuel_times",
                    _times(told, "fuel_times", belief, assumed))  # fmt: skip
    charged, _ = told.noted(("charged",), "power")
    if charged > 0 and "power" in lanes and lanes["power"].a_day > 0:
        assumed = lanes["power"].a_day
        # Hub and panel give what they give: what the wall gave beyond the plan was used beyond the plan.
        used = assumed * len(told.days) + charged - _from_walls(told)
        belief = _learned(assumed, WORTH_DAYS, max(used, 0.0), len(told.days), PORTION["power"])
        yield _rate("power", "Electricity", "energy", "a day", assumed, belief, _conditions(told.days, "charging"), "own_value",
                    "power_times", _times(told, "power_times", belief, assumed))  # fmt: skip


def _as_people_differ(assumed: float, portion: float) -> float:
    """How many units an assumption is worth of which people differ by a part of it."""
    return portion / (assumed * DIFFER**2) if assumed > 0 else WORTH_DAYS


def _from_walls(told: _Days) -> float:
    """What the plan takes out of plugs on the days that were ridden [Wh]."""
    last = told.days[-1].number
    stops = told.plan.stores.stops if told.plan.stores else ()
    return sum(deed.amount for stop in stops if stop.day <= last for deed in stop.deeds if deed.verb == "charge")


def _small(told: _Days) -> Iterator[LearnedRate]:
    """What is used up: wipes, cream, paper, oil, tablets."""
    for thing in told.sheet.kit:
        role = thing.role
        if not isinstance(role, UsedUp):
            continue
        used, noted = told.noted(("used",), thing.id)
        days, lump = told.aboard(thing.id), told.lump(("used",), thing.id)
        ended = told.ran_out(thing.id)
        if ended is not None:
            # All that there was has been used up by then, whatever was noted of it.
            more, _ = told.noted(("bought",), thing.id)
            days, lump = [day for day in days if day.number <= ended], 0.0
            used, noted = max(used, role.holds * (thing.count + more)), noted or days
        # What was treated is not noted: of tablets a litre nothing is learned.
        if not noted or not days or role.per == "litre_treated":
            continue
        if role.per == "person_day":
            units, worth, per = float(len(days) * users_of(told.sheet, thing)), WORTH_DAYS, "a person-day"
        else:
            units, worth, per = sum(day.distance_km for day in days), WORTH_KM, "a kilometre"
        if units <= 0:
            continue
        portion = PORTION[role.unit]
        worth = min(worth, _as_people_differ(role.rate, portion))
        belief = _learned(role.rate, worth, used, units, portion, lump)
        yield _rate(thing.id, thing.name, role.unit, per, role.rate, belief, _conditions(days, thing.name.lower()), "thing_rate",
                    thing.name, belief.mean)  # fmt: skip


def _faults(told: _Days) -> Iterator[LearnedRate]:
    thousands = told.km / 1000
    faults = [f for f in told.plan.faults if f.id.partition(":")[0] in ("puncture", "tubeless") and f.gap_km > 0]
    if thousands > 0 and faults:
        assumed = sum(f.expected / f.gap_km * 1000 for f in faults)
        punctures = sum(1 for t in told.entries if t.entry.verb == "mended" and t.entry.about == "puncture")
        belief = learning.rate(assumed, WORTH_KM / 1000, punctures, thousands)
        words = say("{count} punctures on {km} km, all bikes", count=number(punctures), km=number(round(told.km)))
        yield _rate("punctures", "Punctures", "", "per 1,000 km", assumed, belief, words, "own_value", "puncture_times",
                    _times(told, "puncture_times", belief, assumed))  # fmt: skip
    worn = sum(t.entry.amount or 0.0 for t in told.entries if t.entry.verb == "wore" and t.entry.about == "pads")
    pads = [f for f in told.plan.faults if f.id.startswith("pads:") and f.gap_km > 0]
    if worn > 0 and pads and thousands > 0:
        assumed = sum(f.expected / f.gap_km * 1000 for f in pads) / len(pads) * PAD_MM
        belief = _learned(assumed, WORTH_KM / 1000, worn, thousands, PORTION["pads"])
        words = say("{mm} mm on {km} km", mm=fine_number(worn), km=number(round(told.km)))
        yield _rate("pads", "Brake pads", "mm", "per 1,000 km", assumed, belief, words, "own_value", "pad_times",
                    _times(told, "pad_times", belief, assumed))  # fmt: skip


def _oil(told: _Days, journal: Journal) -> Iterator[LearnedRate]:
    """How far a chain runs from one oiling to the next."""
    at = done_at(journal).get("oil", [])
    gaps = tuple(b - a for a, b in pairwise([0.0, *at]) if b > a)
    if len(gaps) < FEW_OILINGS or not told.sheet.rig.bikes:
        return
    bike = told.sheet.rig.bikes[0]
    key, assumed = OILS[bike.lube].interval_km, interval_of(bike, told.sheet.practice)
    belief = learning.mean(assumed, WORTH_OILINGS, gaps, OILING_KM)
    words = say("{n} oilings on {km} km", n=number(len(gaps)), km=number(round(told.km)))
    yield _rate("oil", "Chain oil", "distance", "an oiling", assumed, belief, words, "own_value", key, _within(key, belief.mean))


def _lives(told: _Days, journal: Journal) -> Iterator[LearnedRate]:
    """How far parts lasted that were renewed on the way, in kilometres of usual road, as if the road wore them evenly."""
    renewed = [(t.entry.about, at) for t, at in placed(journal) if t.entry.verb == "mended"]
    for row in WORN:
        key = f"{row.kind}_km"
        if key not in practice.fields():
            continue
        mine = {about_part(p.kind, p.bike_id): p for p in told.plan.parts if p.kind == row.kind}
        lived = tuple(mine[about].behind_km + mine[about].takes_km * min(at / max(told.length_km, 1.0), 1.0)
                      for about, at in renewed if about in mine)  # fmt: skip
        if lived:
            assumed = float(getattr(told.sheet.practice, key))
            belief = learning.mean(assumed, WORTH_PARTS, lived, LIVES_DIFFER * assumed)
            words = say("{n} renewed, in kilometres of usual road", n=number(len(lived)))
            name = f"A {row.words} lasts" if not row.words.endswith("s") else f"{row.words.capitalize()} last"
            yield _rate(key, name, "distance", "", assumed, belief, words, "own_value", key, _within(key, belief.mean))


def _days(told: _Days, made: Replanned) -> Iterator[LearnedRate]:
    """Kilometres and climb of a riding day; days of rest are none."""
    riding = [day for day in told.days if not day.rest and day.distance_km > 0]
    planned = [day for day in told.plan.days if not day.rest]
    if len(riding) < 3 or not planned or not made.ridden.nights:
        return
    for key, name, unit, values, usual, spread in (
        ("km_a_day", "Kilometres", "distance", [d.distance_km for d in riding], [d.distance_km for d in planned], DAY_KM),
        ("climb_a_day", "Climb", "elevation", [d.ascent_m for d in riding], [d.ascent_m for d in planned], DAY_CLIMB_M),
    ):
        assumed = sum(usual) / len(usual)
        belief = learning.mean(assumed, WORTH_DAYS, tuple(values), spread)
        takes, value = ("cut", belief.mean) if key == "km_a_day" else ("nothing", 0.0)
        yield _rate(key, name, unit, "a riding day", assumed, belief, _conditions(riding, "riding"), takes, "", value)


def _nights(told: _Days) -> Iterator[LearnedRate]:
    nights = list(nights_felt(told.plan.sleepers, {day.number: day for day in told.days}, told.entries, told.set_out))
    if nights:
        assumed = told.sheet.practice.sleeps_colder_k
        belief = felt_colder(assumed, nights)
        cold, margin = sum(felt < 0 for _, _, felt in nights), sum(margin for margin, _, _ in nights) / len(nights)
        words = say("{count:night|nights}, {cold} of them cold; they were {spare} warmer than is borne",
                    count=number(len(nights)), cold=number(cold), spare=kelvin(margin))  # fmt: skip
        rate = _rate("sleep", "Nights felt colder by", "temperature_difference", "", assumed, belief, words, "own_value",
                     "sleeps_colder_k", _within("sleeps_colder_k", belief.mean))  # fmt: skip
        sure: Sure = "sure" if belief.sd < 0.5 else "fair" if belief.sd < 1 else "a_hint"
        yield rate.model_copy(update={"sure": sure})


def _packing(told: _Days) -> Iterator[LearnedRate]:
    noted = [t.entry.amount for t in told.entries if t.entry.verb == "packed_in" and t.entry.amount]
    if noted and told.plan.camp.minutes > 0:
        assumed = told.plan.camp.minutes
        belief = learning.mean(assumed, WORTH_DAYS, tuple(noted), PACK_MIN)
        words = say("{count:morning|mornings} by the clock", count=number(len(noted)))
        yield _rate("packing", "Packing", "minutes", "a morning", assumed, belief, words, "own_value", "packing_times",
                    _times(told, "packing_times", belief, assumed))  # fmt: skip


def taking(sheet: TourSheet, rate: LearnedRate) -> TourSheet | None:
    """A tour that reckons with a learned rate; None where nothing of it would."""
    match rate.takes:
        case "own_value":
            learned = {rate.takes_key: rate.takes_value} | _narrowed(sheet, rate)
            return sheet.model_copy(update={"own_values": sheet.own_values | learned})
        case "cut":
            cut = sheet.road.cut.model_copy(update={"by": "distance", "distance_km": rate.takes_value})
            return sheet.model_copy(update={"road": sheet.road.model_copy(update={"cut": cut})})
        case "thing_rate" if any(t.name == rate.takes_key and isinstance(t.role, UsedUp) for t in sheet.kit):
            return sheet.model_copy(update={"kit": tuple(_with_rate(t, rate) for t in sheet.kit)})
        case _:
            return None


def _narrowed(sheet: TourSheet, rate: LearnedRate) -> dict[str, float]:
    """How little is left to chance once a rate is learned: the width that a rehearsal draws, where that gets narrower."""
    key = WIDTH_OF.get(rate.takes_key)
    if key is None or rate.low <= 0:
        return {}
    width = _within(key, math.log(rate.high / rate.low) / (2 * NINE_IN_TEN))
    return {key: round(width, 3)} if width < getattr(sheet.practice, key) else {}


def _with_rate(thing: Thing, rate: LearnedRate) -> Thing:
    if thing.name != rate.takes_key or not isinstance(thing.role, UsedUp):
        return thing
    role = thing.role.model_copy(update={"rate": rate.takes_value})
    return Thing.model_validate(thing.model_dump() | {"role": role.model_dump()})
