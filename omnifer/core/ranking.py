"""What each thing costs on this tour, whether to keep it, what a lighter one would cost, and what to post: all in one pass."""

import datetime as dt
from collections.abc import Callable, Iterable, Mapping, Sequence
from functools import partial
from typing import Literal

import numpy as np
from pydantic import Field

from omnifer.core.assess import minutes_a_day, minutes_by_rider, situation_of
from omnifer.core.findings.situation import Situation
from omnifer.core.load.prices import cost_of_things
from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Thing, Whereabouts
from omnifer.core.model.needs import Fault
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.roles import BedLayer, SleepingBag, UsedUp
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs.parcels import ERRAND_MIN, PostStop, Sendable, Sent, parcels, post_stops
from omnifer.core.needs.safe import COMFORT
from omnifer.core.physics.spares import running_out
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import fine_kg, joined, minutes, number, say, share
from omnifer.core.spared import spared
from omnifer.core.stages import Reading

Verdict = Literal[
    "must_come", "comes", "insurance", "comfort", "probably_not", "post_ahead", "post_home", "buy_there", "not_said"
]  # fmt: skip
Way = Literal["home", "ahead"]
UNUSED_TOURS, RARE = 2, 0.02
"""Unused on so many of the last tours, and needed with less chance than this, a thing probably stays [-]; practice."""
INSURANCE: frozenset[str] = frozenset(
    {"first_aid", "blanket", "messenger", "whistle", "emergency_card", "copies", "cash", "bank_card", "bear_spray", "medicine"}
)
"""Services that are carried in the hope of no use. Never left on "never used" alone."""
A_WEEK_D = 7
"""Days at either end of the tour on which a thing is not needed that make it worth a word [d]; practice."""


class Standing(Noun):
    """One kind of thing on this tour: its price on the same days, and whether it comes."""

    thing_id: str
    mass_kg: float
    volume_l: float
    minutes_a_day: float | None = Field(description="Of the party, on the same days [min/d]; None while the tour has no road")
    kj_a_day: float | None = Field(description="Work of all riders for it [kJ/d]")
    money: float | None
    uses: int | None = Field(description="Days or nights on which it is needed; None: nobody said what for")
    minutes_a_use: float | None
    verdict: Verdict
    ground: Text = Field(description="Why, in one line")


class Parcel(Noun):
    """One parcel: what, where, when, and what it saves."""

    way: Way
    stop_id: str
    place: str
    day: int
    date: dt.date
    thing_ids: list[str]
    mass_kg: float
    volume_l: float
    saves_min: float
    costs_min: float = Field(description="The errand, and the parcel's price in minutes")
    price: float | None
    send_from: dt.date | None = Field(description="Sent ahead: no earlier, or it goes back before it is fetched")
    send_by: dt.date | None = Field(description="Sent ahead: no later, or it comes too late")
    mend: Mend


class Ranking(Noun):
    """The whole kit by its price, and the parcels that pay."""

    things: list[Standing]
    parcels: list[Parcel]
    minutes_a_kg: float | None = Field(description="What a kilogram more costs the party on the mean [min/d]")
    days: int


class Step(Noun):
    """One rung of the ladder: what a kilogram, a litre or a minute a day less costs by it."""

    thing_id: str
    name: str = Field(description="Of what would come instead; empty: it is left")
    saves_kg: float
    saves_l: float
    money: float
    money_a_kg: float | None
    money_a_litre: float | None
    money_a_minute: float | None


def rank(tour: TourSheet, road: Profile | None) -> Ranking:
    """Every thing's price and verdict, worked out from one ride of the tour."""
    here = situation_of(tour, road)
    saved = _saved(here)
    cost, work = (cost_of_things(tour, {r: both[n] for r, both in saved.items()}, 4) for n in (0, 1))
    sent = _parcels(here, road, cost)
    ways = {thing_id: parcel.way for parcel in sent for thing_id in parcel.thing_ids}
    things = [_standing(here, thing, cost.get(thing.id), work.get(thing.id), ways.get(thing.id)) for thing in tour.kit]
    things = _as_one_plan(tour, road, things)
    by_rider = minutes_by_rider(tour, here.voyage)
    mean = sum(by_rider.values()) / len(by_rider) if by_rider else None
    return Ranking(things=things, parcels=sent, minutes_a_kg=None if mean is None else round(mean, 3), days=len(here.days))


def _as_one_plan(tour: TourSheet, road: Profile | None, things: list[Standing]) -> list[Standing]:
    """The same with what may stay tried as a whole, the heaviest first: two that stand in for each other do not both stay."""
    heaviest = sorted((s for s in things if s.verdict == "probably_not"), key=lambda s: -s.mass_kg)
    _, refused = spared(tour, road, [standing.thing_id for standing in heaviest])

    def judged(standing: Standing) -> Standing:
        lack = refused.get(standing.thing_id)
        if lack is None:
            return standing
        ground = joined([say("left with what else may stay"), lack], ": ")
        return standing.model_copy(update={"verdict": "comes", "ground": ground})

    return [judged(standing) for standing in things]


Saving = Callable[[float], float]
LESS_KG = (0.0, 0.25, 0.5, 1.0, 2.0, 4.0, 8.0)
"""Kilograms less with which the tour is ridden again: what a kilogram saves falls the more is left, for another rider is slower
then. Between them it is interpolated, beyond them it goes on as up to there."""


def _saved(here: Situation) -> dict[str, tuple[Saving, Saving]]:
    """What so many kilograms less with each rider save on the same days: minutes of the party, work of all [min/d, kJ/d]."""
    voyage = here.voyage
    if voyage is None:
        return {}
    days, power = voyage.days.km.size - 1, np.array([rider.all_day_power_w for rider in here.tour.riders])

    def ridden(rider: int, less_kg: float) -> tuple[float, float]:
        pace = voyage.ridden.lighter(rider, less_kg) if less_kg else voyage.ridden
        return float(pace.hours[-1]) * 60 / days, float(power @ pace.effort_hours[:, -1]) * 3.6 / days

    found = {}
    for n, rider in enumerate(here.tour.riders):
        minutes_, work = zip(*(ridden(n, kg) for kg in LESS_KG), strict=True)
        found[rider.id] = _between(minutes_), _between(work)
    return found


def _between(spent: tuple[float, ...]) -> Saving:
    saved = spent[0] - np.array(spent)
    return lambda kg: float(np.interp(kg, LESS_KG, saved)) * max(kg / LESS_KG[-1], 1.0)


def _standing(here: Situation, thing: Thing, minutes_a_day: float | None, kj_a_day: float | None, way: Way | None) -> Standing:
    needed = here.needed.days_of(thing)
    uses = None if needed is None else int(needed.sum())
    ground = _verdict(here, thing, uses, way)
    if uses is None and set(thing.serves) & COMFORT:
        uses = max(len(here.days) - 1, 1) if here.days else None
    days = len(here.days)
    each = None if minutes_a_day is None or not uses else round(minutes_a_day * days / uses, 2)
    return Standing(
        thing_id=thing.id, mass_kg=round(thing.mass_kg * thing.count, 3), volume_l=round(thing.volume_l * thing.count, 2),
        minutes_a_day=None if minutes_a_day is None else round(minutes_a_day, 2),
        kj_a_day=None if kj_a_day is None else round(kj_a_day, 1),
        money=None if thing.price is None else round(thing.price * thing.count, 2), uses=uses, minutes_a_use=each,
        verdict=ground[0], ground=ground[1],
    )  # fmt: skip


def _verdict(here: Situation, thing: Thing, uses: int | None, way: Way | None) -> tuple[Verdict, Text]:
    """Whether a thing comes, and the ground in one line."""
    if thing.must:
        return "must_come", say("must come, whatever it costs")
    mending = [f for f in here.needed.faults if thing.id in f.thing_ids]
    if mending:
        return _as_spare(thing, mending)
    if set(thing.serves) & INSURANCE:
        return "insurance", say("carried in the hope of no use")
    if thing.unused_tours >= UNUSED_TOURS and not uses:
        return "probably_not", say("not used on the last {n} tours, and nothing asks for it", n=number(thing.unused_tours))
    if uses == 0 and isinstance(thing.role, SleepingBag | BedLayer):
        return "probably_not", say("every night is warm enough without it, as the kit stands")
    if uses == 0 and thing.role is None:
        return _idle(here, thing)
    if uses:
        return _for_days(here, thing, uses, way)
    if thing.role is not None or thing.food or thing.holds_water_l:
        return "comes", say("used by what eats, drinks, cooks or charges")
    if thing.may_stay or set(thing.serves) & COMFORT:
        return "comfort", say("{why}", why=thing.because) if thing.because else say("because somebody likes it")
    if thing.because:
        return "comes", say("as you say: {why}", why=thing.because)
    if thing.serves:
        return "comfort", say("nothing on this road asks for it, and it is used")
    return "not_said", say("nobody said what it is for")


def _idle(here: Situation, thing: Thing) -> tuple[Verdict, Text]:
    """What is needed on no day: liked, or doing what something else does, or asked for by nothing."""
    if thing.because:
        return "comfort", say("{why}", why=thing.because)
    beside = {i for ask in here.needed.asks if thing.id in ask.thing_ids for i in ask.thing_ids} - {thing.id}
    other = next((t.name for t in here.tour.kit if t.id in beside), None)
    if other is not None:
        return "probably_not", say("{other} does the same on every day that asks for it", other=other)
    return "probably_not", say("no day of this tour asks for it")


def _as_spare(thing: Thing, mending: list[Fault]) -> tuple[Verdict, Text]:
    """Insurance: the chance that it is wanted, times what its lack would do."""
    likeliest = max(mending, key=lambda f: (f.stops_you, f.expected))
    chance = max(running_out(0, f.expected) for f in mending)
    if thing.unused_tours >= UNUSED_TOURS and chance < RARE and not likeliest.stops_you:
        return "probably_not", say("wanted with a chance of {p}, and its lack only slows you", p=share(chance))
    harm = "its lack would stop you" if likeliest.stops_you else "its lack would slow you"
    return "insurance", say(f"wanted with a chance of {{p}}; {harm}", p=share(chance))


def _for_days(here: Situation, thing: Thing, uses: int, way: Way | None) -> tuple[Verdict, Text]:
    needed = here.needed.days_of(thing)
    assert needed is not None
    on, last = np.flatnonzero(needed) + 1, len(here.days)
    if isinstance(thing.role, UsedUp) and on[0] > A_WEEK_D and thing.role.sold_at != "nowhere":
        return "buy_there", say("not needed before day {day}, and sold on the way", day=number(int(on[0])))
    if way == "home":
        return "post_home", say("needed until day {day} of {days}", day=number(int(on[-1])), days=number(last))
    if way == "ahead":
        return "post_ahead", say("needed from day {day} of {days} on", day=number(int(on[0])), days=number(last))
    return "comes", say("needed on {n} of {days:day|days}", n=number(uses), days=number(last))


def _parcels(here: Situation, road: Profile | None, minutes_of: dict[str, float]) -> list[Parcel]:
    """The parcels that save most and of which nothing is missed, all of them together."""
    voyage, tour = here.voyage, here.tour
    if voyage is None:
        return []
    things = [s for thing in tour.kit if (s := _sendable(here, thing, minutes_of.get(thing.id, 0.0))) is not None]
    price = tour.stores.parcel_price
    cost = ERRAND_MIN + (price or 0.0) * tour.stores.minutes_per_money
    anyway = {how: {p.stop_id for t in tour.kit for p in t.where if p.how == how} for how in ("posted", "waiting")}
    stops = [
        PostStop(
            stop, voyage.day_of(stop.at_km, leaving=False), 0.0 if stop.id in anyway["posted"] else cost,
            0.0 if stop.id in anyway["waiting"] else cost,
        )
        for stop in post_stops(tour, voyage)
    ]  # fmt: skip
    while True:
        sent = parcels(things, stops, len(here.days))
        by_thing = {thing_id: one for one in sent for thing_id in one.thing_ids}
        _, missed = spared(tour, road, list(by_thing), partial(_all_sent, by_thing))
        if not missed:
            return [_told(here, one) for one in sent]
        things = [thing for thing in things if thing.thing_id not in missed]


def _all_sent(by_thing: Mapping[str, Sent], tour: TourSheet, ids: Sequence[str]) -> TourSheet:
    """The tour with some things posted or waiting as their parcels say."""

    def there(thing: Thing) -> Thing:
        at = by_thing[thing.id].at.stop if thing.id in ids else None
        return thing if at is None else _posted(thing, at.id, at.at_km, by_thing[thing.id].way == "home")

    return tour.model_copy(update={"kit": tuple(map(there, tour.kit))})


def _sendable(here: Situation, thing: Thing, minutes_a_day: float) -> Sendable | None:
    needed = here.needed.days_of(thing)
    if needed is None or not needed.any() or thing.must or thing.comes_and_goes or thing.inside or set(thing.serves) & INSURANCE:
        return None
    if isinstance(thing.role, UsedUp):
        return None
    if any(other.inside == thing.id for other in here.tour.kit) or any(thing.id in f.thing_ids for f in here.needed.faults):
        return None
    on = np.flatnonzero(needed)
    first, last = here.days[on[0]], here.days[on[-1]]
    return Sendable(
        thing.id,
        first.from_km if on[0] > 0 else 0.0,
        last.to_km if on[-1] < len(here.days) - 1 else float("inf"),
        minutes_a_day,
    )


def _told(here: Situation, sent: Sent) -> Parcel:
    stop, stores = sent.at.stop, here.tour.stores
    things = [t for t in here.tour.kit if t.id in sent.thing_ids]
    date = here.days[sent.at.day - 1].date
    mass = sum(t.mass_kg * t.count for t in things)
    home = sent.way == "home"
    cost_min = sent.at.home_min if home else sent.at.ahead_min
    changed = [_posted(thing, stop.id, stop.at_km, home) for thing in things]
    words = "Post home from {place}" if home else "Send ahead to {place}"
    mend = Mend(
        name=say(words, place=stop.name),
        consequence=say("{n:thing|things}, {mass}; saves {saves} on the tour for {costs}", n=number(len(things)),
                        mass=fine_kg(mass), saves=minutes(sent.saves_min), costs=minutes(cost_min)),
        things=changed,
    )  # fmt: skip
    return Parcel(
        way=sent.way, stop_id=stop.id, place=stop.name, day=sent.at.day, date=date, thing_ids=[t.id for t in things],
        mass_kg=round(mass, 2), volume_l=round(sum(t.volume_l * t.count for t in things), 1),
        saves_min=round(sent.saves_min, 1), costs_min=round(cost_min, 1), price=stores.parcel_price,
        send_from=None if home else date - dt.timedelta(days=stores.holding_days - 1 + stores.post_days),
        send_by=None if home else date - dt.timedelta(days=stores.post_days), mend=mend,
    )  # fmt: skip


def _posted(thing: Thing, stop_id: str, at_km: float, home: bool) -> Thing:
    where = (
        (Whereabouts(), Whereabouts(from_km=at_km, how="posted", stop_id=stop_id))
        if home
        else (Whereabouts(how="waiting", stop_id=stop_id), Whereabouts(from_km=at_km))
    )
    return Thing.model_validate(thing.model_dump() | {"where": [place.model_dump() for place in where]})


def minutes_of(tour: TourSheet, road: Profile | None) -> dict[str, float]:
    """Minutes a day that each thing costs the party; empty without a road."""
    return Reading(tour, road)[minutes_a_day]


def ladder(tour: TourSheet, cost: dict[str, float], instead: Iterable[tuple[str, Thing]]) -> list[Step]:
    """What each way to a lighter load costs for a kilogram, the cheapest first; leaving a thing that may stay costs nothing.

    Parameters
    ----------
    cost : dict
        Minutes a day of each thing, as `Assessment.minutes_a_day` [min/d].
    instead : iterable of (str, Thing)
        Things that are wished for or lie at home, each with the thing that it would replace. What is owned costs nothing.
    """
    by_id = {thing.id: thing for thing in tour.kit}
    steps = [_step(t, None, cost) for t in tour.kit if t.may_stay and not t.must and t.mass_kg > 0]
    steps += [_step(by_id[old], new, cost) for old, new in instead if old in by_id]
    saving = [s for s in steps if s.saves_kg > 0 or s.saves_l > 0]
    return sorted(saving, key=lambda s: (s.money_a_kg is None, s.money_a_kg or 0.0, -s.saves_kg))


def _step(old: Thing, new: Thing | None, cost: dict[str, float]) -> Step:
    kg, l = (getattr(old, f) - (getattr(new, f) if new else 0.0) for f in ("mass_kg", "volume_l"))  # noqa: E741
    money = 0.0 if new is None or new.held != "wished" else new.price or 0.0
    kilograms = old.mass_kg * old.count
    saved_min = cost.get(old.id, 0.0) / kilograms * kg * old.count if kilograms else 0.0

    def each(saved: float) -> float | None:
        return round(money * old.count / saved, 2) if saved > 0 else None

    return Step(
        thing_id=old.id, name=new.name if new else "", saves_kg=round(kg * old.count, 3), saves_l=round(l * old.count, 2),
        money=money * old.count, money_a_kg=each(kg * old.count), money_a_litre=each(l * old.count),
        money_a_minute=each(saved_min),
    )  # fmt: skip
