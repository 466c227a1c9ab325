"""The tour as it was ridden up to here: its nights, what left the bikes and what came, and what is on board now.

What is not noted went as planned. The result is a tour like any other, so the rest of it is worked out by the same rules.
"""

import datetime as dt
from dataclasses import dataclass
from itertools import pairwise

from omnifer.core.diary.aboard import NOTED, PlannedLevel, aboard
from omnifer.core.diary.felt import felt_colder, nights_felt
from omnifer.core.diary.journal import Journal, Told, on_road
from omnifer.core.diary.tended import with_renewed
from omnifer.core.kit.figures import figures_of
from omnifer.core.kit.told import told_of
from omnifer.core.model.assessment import Assessment, Day
from omnifer.core.model.diary import GONE
from omnifer.core.model.kit import Thing, Whereabouts
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import Night
from omnifer.core.model.roles import SleepingBag
from omnifer.core.model.stores import Found
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.days import SAME_PLACE_KM

JUST_BEFORE_KM = 0.02
"""What is on board is counted before anything is taken on at the same place, and after the night that was spent there [km]."""
MOST = 10_000.0
"""Of a supply nobody has more, in its unit."""
MOST_ALIKE = 200
NIGHTS_NOTED, MOST_COLDER_K = 4, 10.0
"""From so many nights of which somebody said how they felt the rest of the tour is reckoned by them, within what a default bears
[-, K]; practice."""
WET_BAG_K = 8.0
"""A bag that is wet through warms so much less [K]; practice: down loses most, synthetic fill half."""
ROOFS = frozenset({"room", "hut"})
"""Where a bag dries overnight."""
BOUGHT_KG = 0.2
"""Of a thing that was bought and never weighed [kg]; practice."""


@dataclass(frozen=True)
class Here:
    """Where the party is known to be."""

    km: float
    date: dt.date
    day: int
    wall: dt.datetime | None
    set_out: dt.date
    arrived: bool


@dataclass(frozen=True)
class Ridden:
    """The tour as ridden, and what stands behind it."""

    sheet: TourSheet
    here: Here
    nights: list[tuple[int, float]]
    """Number of each day that is over, and the kilometre where it ended."""
    gone: dict[str, Told]
    """Things that left, and the entry that says so."""
    found: dict[str, tuple[float, float]]
    """Supplies of which something was noted: where last, and how much there was then [km, its unit]."""


def ridden(sheet: TourSheet, plan: Assessment, journal: Journal, length_km: float) -> Ridden:
    """The tour up to here by its entries, and the rest as it is planned."""
    here = _here(sheet, plan, journal, length_km)
    nights = _nights(plan, journal, here)
    kit, load, gone = _kit(sheet, journal)
    found = _found(sheet, plan, journal, here, nights)
    counted = tuple(
        Found(supply=name, at_km=max(km - JUST_BEFORE_KM, 0.0), amount=round(min(amount, MOST), 3))
        for name, (km, amount) in sorted(found.items())
    )
    road = sheet.road.model_copy(update={"nights": _pinned(sheet, nights, here)}) if nights else sheet.road
    stores = sheet.stores.model_copy(update={"found": counted})
    own = sheet.own_values | _own_nights(sheet, plan, journal, here)
    made = sheet.model_copy(
        update={
            "own_values": own,
            "road": road,
            "rig": sheet.rig.model_copy(update={"bikes": tuple(with_renewed(bike, journal) for bike in sheet.rig.bikes)}),
            "kit": kit,
            "load": load,
            "stores": stores,
            "start_date": here.set_out,
            "set_aside": (),
        }
    )
    # The parts are valid each; what they say of each other is checked once more.
    whole = TourSheet.model_validate({name: getattr(made, name) for name in TourSheet.model_fields})
    return Ridden(whole, here, nights, gone, found)


def _own_nights(sheet: TourSheet, plan: Assessment, journal: Journal, here: Here) -> dict[str, float]:
    """So much colder the party sleeps than its labels say, once enough nights were noted; never warmer under way."""
    nights = list(nights_felt(plan.sleepers, {day.number: day for day in plan.days}, on_road(journal), here.set_out))
    if len(nights) < NIGHTS_NOTED:
        return {}
    colder_k = min(felt_colder(sheet.practice.sleeps_colder_k, nights).mean, MOST_COLDER_K)
    return {"sleeps_colder_k": round(colder_k, 2)} if colder_k > sheet.practice.sleeps_colder_k else {}


def planned_at(days: list[Day], date: dt.date, hour: float) -> float:
    """Where the plan has the party at a wall clock's hour of a date [km]."""
    if not days or date < days[0].date:
        return 0.0
    day = next((d for d in days if d.date == date), None)
    if day is None:
        return days[-1].to_km
    if day.rest or hour <= day.start_h:
        return day.from_km if not day.rest else day.to_km
    share = 1.0 if day.arrive_h <= day.start_h else min((hour - day.start_h) / (day.arrive_h - day.start_h), 1.0)
    return day.from_km + share * (day.to_km - day.from_km)


def hour_of(wall: dt.datetime) -> float:
    """A wall clock as hours [h]."""
    return wall.hour + wall.minute / 60 + wall.second / 3600


def _here(sheet: TourSheet, plan: Assessment, journal: Journal, length_km: float) -> Here:
    begun = journal.of_verbs("set_out")
    set_out = begun[0].date if begun else sheet.start_date
    placed = [t for t in on_road(journal) if t.entry.km is not None and t.date >= set_out]
    arrived = bool(journal.of_verbs("arrived"))
    if not placed:
        return Here(0.0, set_out, 1, begun[0].wall if begun else None, set_out, arrived)
    last = placed[-1]
    at_km = min(last.entry.km or 0.0, length_km)
    newest = max((t.date for t in on_road(journal)), default=last.date)
    return Here(length_km if arrived else at_km, newest, (newest - set_out).days + 1, last.wall, set_out, arrived)


def _nights(plan: Assessment, journal: Journal, here: Here) -> list[tuple[int, float]]:
    """Where each day that is over ended: at the last place noted on it; between two such days evenly."""
    last_of: dict[int, float] = {0: 0.0}
    for told in on_road(journal):
        if told.entry.km is not None and told.date >= here.set_out:
            number = (told.date - here.set_out).days + 1
            last_of[number] = max(min(told.entry.km, here.km), max(km for n, km in last_of.items() if n <= number))
    known = sorted(last_of.items())
    nights: list[tuple[int, float]] = []
    for (a, from_km), (b, to_km) in pairwise([*known, (max(here.day, known[-1][0]), known[-1][1])]):
        nights += [(n, from_km + (to_km - from_km) * (n - a) / (b - a)) for n in range(a + 1, b + 1)]
    return [(n, round(km, 3)) for n, km in nights if n < here.day]


def _pinned(sheet: TourSheet, nights: list[tuple[int, float]], here: Here) -> tuple[Night, ...]:
    """Nights as they were, each with the rest days that followed it, then those that the plan has set further on."""
    made: list[Night] = []
    begins = 0.0
    for _, km in nights:
        if made and km - made[-1].at_km <= SAME_PLACE_KM:
            made[-1] = made[-1].model_copy(update={"rest_days": made[-1].rest_days + 1})
        elif km > SAME_PLACE_KM:
            made.append(Night(at_km=km, from_km=begins))
            begins = km
    if made and here.km - made[-1].at_km < 3 * JUST_BEFORE_KM < made[-1].at_km:
        made[-1] = made[-1].model_copy(update={"at_km": round(here.km - 3 * JUST_BEFORE_KM, 3)})
    ahead = [night for night in sheet.road.nights if night.at_km > here.km + SAME_PLACE_KM]
    return (*made, *ahead)[:400]


def _kit(sheet: TourSheet, journal: Journal) -> tuple[tuple[Thing, ...], Load, dict[str, Told]]:
    """Things that left from where they left on, and those that came from where they came on."""
    belongings, at_km = _Belongings(sheet), 0.0
    for told in on_road(journal):
        entry = told.entry
        at_km = at_km if entry.km is None else entry.km
        thing = belongings.standing(entry.about)
        if entry.verb == "bought" and entry.name and thing is None:
            belongings.come(told, at_km)
        elif thing is not None and (entry.verb in GONE or (entry.verb == "ran_out" and thing.role is None)):
            belongings.leave(told, thing, at_km)
        elif thing is not None and entry.verb == "broke":
            belongings.break_(told, thing, at_km)
        elif thing is not None and entry.verb == "wet_through" and isinstance(thing.role, SleepingBag):
            belongings.soak(told, thing, at_km)
    load = sheet.load.model_copy(update={"placements": tuple(belongings.placements)})
    return tuple(belongings.things.values()), load, belongings.gone


class _Belongings:
    """What is on board, as entry after entry tells of it; entries name things as the plan does, whatever became of them."""

    def __init__(self, sheet: TourSheet) -> None:
        self.sheet = sheet
        self.things = {thing.id: thing for thing in sheet.kit}
        self.placements = list(sheet.load.placements)
        self.gone: dict[str, Told] = {}
        self._now: dict[str, str] = {thing.id: thing.id for thing in sheet.kit}
        """By the plan's name of a thing, under which one what is left of it is on board."""
        self._broken: set[str] = set()

    def standing(self, name: str) -> Thing | None:
        """What is left of a thing on board; None where nothing is, or where there never was one."""
        return self.things.get(self._now.get(name, ""))

    def come(self, told: Told, km: float) -> None:
        """Something new, in the bag that its entry names or in the roomiest one."""
        came = _bought(told, km)
        self.things[came.id] = came
        bag = _roomiest(self.sheet, told.entry.word)
        if bag is not None:
            self.placements.append(Placement(thing_id=came.id, carrier_id=bag, count=came.count))

    def leave(self, told: Told, thing: Thing, km: float) -> None:
        """So many of a thing as its entry says, or all that is left of it with what rides in it."""
        name = told.entry.about
        count = min(max(int(told.entry.amount or thing.count), 1), thing.count)
        if count < thing.count:
            thing, rest = _split(thing, count, told.entry.id.hex)
            self.things[rest.id] = rest
            self.placements = _shared_out(self.placements, thing, rest)
            self._now[name] = rest.id
        else:
            del self._now[name]
            self.gone |= dict.fromkeys((name, *(t.id for t in self.things.values() if t.inside == thing.id)), told)
        self.things[thing.id] = _from_here(_alone(thing), km)

    def break_(self, told: Told, thing: Thing, km: float) -> None:
        """What is broken serves nothing any more, and weighs until it leaves; it breaks once."""
        name = told.entry.about
        if name in self._broken:
            return
        self._broken.add(name)
        nothing = {"role": None, "serves": (), "where": (), "holds_water_l": 0, "inside": None}
        called = {"id": f"broken-{told.entry.id.hex}", "name": f"{thing.name}, broken"[:120]}
        broken = Thing.model_validate(thing.model_dump() | nothing | called)
        self._unpack(thing)
        self.placements += [p.model_copy(update={"thing_id": broken.id}) for p in self.placements if p.thing_id == thing.id]
        self.things[thing.id] = _from_here(_alone(thing), km)
        self.things[broken.id] = _only_from(broken, km)
        self._now[name] = broken.id

    def soak(self, told: Told, thing: Thing, km: float) -> None:
        """A wet bag warms less until the next night under a roof, where it dries."""
        assert isinstance(thing.role, SleepingBag)
        colder = min(thing.role.comfort_c + WET_BAG_K, 30.0)
        dry_km = min((s.at_km for s in self.sheet.road.stops if s.shelter in ROOFS and s.at_km > km), default=None)
        called = {"id": f"wet-{told.entry.id.hex}", "name": f"{thing.name}, wet"[:120], "inside": None}
        wet = Thing.model_validate(thing.model_dump() | called | {"role": thing.role.model_dump() | {"comfort_c": colder}})
        self.placements += [p.model_copy(update={"thing_id": wet.id}) for p in self.placements if p.thing_id == thing.id]
        self.things[thing.id] = _from_here(_alone(thing), km, back_km=dry_km)
        soaked = _only_from(wet, km)
        self.things[wet.id] = soaked if dry_km is None else _from_here(soaked, dry_km)

    def _unpack(self, thing: Thing) -> None:
        """What rides in a thing rides beside it from now on."""
        for inside in [t for t in self.things.values() if t.inside == thing.id]:
            self.things[inside.id] = _alone(inside)


def _from_here(thing: Thing, km: float, back_km: float | None = None) -> Thing:
    """A thing that is away from a kilometre on, or up to another one."""
    before = [place for place in thing.where if place.from_km < km] or ([Whereabouts()] if km > 0 else [])
    back = [] if back_km is None else [Whereabouts(from_km=back_km)]
    return _being(thing, [*before, Whereabouts(from_km=km, how="home"), *back])


def _only_from(thing: Thing, km: float) -> Thing:
    """A thing that is on board from a kilometre on only."""
    return _being(thing, [Whereabouts(how="home"), Whereabouts(from_km=km)] if km > 0 else [])


def _being(thing: Thing, where: list[Whereabouts]) -> Thing:
    return Thing.model_validate(thing.model_dump() | {"where": [place.model_dump() for place in where]})


def _alone(thing: Thing) -> Thing:
    """A thing that rides in no other: what rode in one and left alone."""
    return thing if thing.inside is None else Thing.model_validate(thing.model_dump() | {"inside": None})


def _split(thing: Thing, count: int, mark: str) -> tuple[Thing, Thing]:
    """So many of a thing that go, and those that stay under a name of their own."""
    stays = thing.model_dump() | {"id": f"rest-{mark}", "count": thing.count - count}
    return Thing.model_validate(thing.model_dump() | {"count": count}), Thing.model_validate(stays)


def _shared_out(placements: list[Placement], goes: Thing, stays: Thing) -> list[Placement]:
    """Placements of a thing that was split: what stays keeps its places first."""
    left, found = stays.count, list[Placement]()
    for placement in placements:
        if placement.thing_id != goes.id:
            found.append(placement)
            continue
        kept = min(placement.count, left)
        left -= kept
        if kept:
            found.append(placement.model_copy(update={"thing_id": stays.id, "count": kept}))
        if placement.count > kept:
            found.append(placement.model_copy(update={"count": placement.count - kept}))
    return found


def _bought(told: Told, km: float) -> Thing:
    entry = told.entry
    mass_kg = entry.kg if entry.kg is not None else BOUGHT_KG
    known = told_of(entry.name, mass_kg).fields
    # Of a vessel that is bought one knows what it holds only where its name says so.
    litres = known.get("holds_water_l", 0.0) if figures_of(entry.name).litres else 0.0
    thing = Thing(
        id=f"bought-{entry.id.hex}", name=entry.name, mass_kg=mass_kg, volume_l=0.5, reach="stop" if litres else "camp",
        guessed=() if entry.kg is not None else ("mass", "volume"), serves=known.get("serves", ()), holds_water_l=litres,
        soft_vessel=bool(litres) and known["soft_vessel"],
        price=None if entry.money is None else min(entry.money, MOST), count=min(max(int(entry.amount or 1), 1), MOST_ALIKE),
    )  # fmt: skip
    return _only_from(thing, km)


def _roomiest(sheet: TourSheet, wanted: str) -> str | None:
    """The bag that the entry names, else the largest one."""
    bags = [c for c in sheet.carriers if c.volume_l > 0]
    if any(c.id == wanted for c in bags):
        return wanted
    return max(bags, key=lambda c: c.volume_l).id if bags else None


def _found(
    sheet: TourSheet, plan: Assessment, journal: Journal, here: Here, nights: list[tuple[int, float]]
) -> dict[str, tuple[float, float]]:
    """Where the party is, and how much there is of each supply of which something was noted; see `aboard`."""
    if plan.stores is None or plan.moments is None:
        return {}
    things = {thing.id for thing in sheet.kit}
    ends = [(0, 0.0), *nights, (here.day, here.km)]
    days = [
        (here.set_out + dt.timedelta(days=n - 1), from_km, max(to_km, from_km), n < here.day)
        for (_, from_km), (n, to_km) in pairwise(ends)
    ]
    found = {}
    for lane in plan.stores.lanes:
        if lane.key not in CARRIED and lane.key not in things:
            continue
        noted = [t for t in on_road(journal) if t.entry.about == lane.key and t.entry.verb in NOTED]
        if noted:
            level = PlannedLevel.of(lane, plan.moments, plan.stores.stops)
            found[lane.key] = here.km, aboard(level, noted, days)
    return found
