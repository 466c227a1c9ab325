"""What helps against one finding: things moved, exchanged, put otherwise or left, another bag, another date.

Every mend that is made here has been tried: it ends the finding, or says that it only lessens it. All limits are asked with
vessels full and with what rides in a thing going along, as the search asks them.
"""

import datetime as dt
from collections.abc import Iterable, Iterator
from dataclasses import replace
from functools import cached_property
from math import inf
from typing import TypeVar

import numpy as np

from omnifer.core.assess import otherwise_loaded, situation_of
from omnifer.core.findings import find, look_for
from omnifer.core.findings.placing import misplaced
from omnifer.core.findings.situation import Situation
from omnifer.core.load.explain import placing_of
from omnifer.core.load.formulate import formulate
from omnifer.core.load.keep import shelf_of, still_standing
from omnifer.core.load.nesting import as_one, holds_kg, nested_in
from omnifer.core.load.problem import Placing, Problem, Score, evaluate
from omnifer.core.load.proposal import answer_of
from omnifer.core.load.repair import HABIT_OF_REPAIR, put_right
from omnifer.core.load.settle import repaired_load, stock_unloaded
from omnifer.core.model.carrier_kind import KINDS, LARGEST
from omnifer.core.model.finding import Finding, FindingKind, Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Carrier
from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import kg, litres, number, say, share

One = TypeVar("One", Thing, Carrier, Stop)
OF_A_BAG: frozenset[FindingKind] = frozenset({"over_mass", "over_volume", "pressed"})
OF_A_BIKE: frozenset[FindingKind] = frozenset(
    {"over_support", "over_wheel", "over_system", "hitch_load", "front_lifts", "sides", "front_share", "tyre_pressure"}
)
OF_THINGS: frozenset[FindingKind] = frozenset({"not_dry", "falls_out", "left_behind", "too_deep", "too_long", "not_together"})
OF_WHAT_IS_OUT: frozenset[FindingKind] = frozenset({"on_shelf", "no_room_for_food"})
OF_THE_LOAD = OF_A_BAG | OF_A_BIKE | OF_THINGS | OF_WHAT_IS_OUT
OF_THE_SEASON: frozenset[FindingKind] = frozenset({"cold_night", "hot_day"})
TOO_MUCH: frozenset[FindingKind] = frozenset(
    {"over_mass", "over_volume", "over_support", "over_wheel", "over_system", "on_shelf"}
)
"""What leaving a thing can end."""
SHIFTS_D = (-28, -14, 14, 28)
"""Other dates that are tried [d]."""
SMALLER = (0.9, 0.8, 0.7, 0.6)
"""Parts of its volume that a bag is tried at that does not fit [-]."""
HEAVIEST = 25
"""Things of a bike that are tried elsewhere, at most."""
TRIES = 12
"""Of each sort of change the cheapest so many are looked at."""
FEW = 10
"""A load put right by more moves than this is a new load."""
NAMED = 4
"""Moves told by name."""
ALL_OF_IT = 0.99
"""What leaves more of it than this does not help [-]."""
LESS = 0.7
"""What leaves no more of a trouble than this helps, though it does not end it [-]."""
FIRMLY = 10
"""Times the usual price of what the aims say, while a trouble of an aim is put right [-]."""


ADVICE: dict[FindingKind, tuple[str, str]] = {
    "walking": ("A lower gear", "turns walking into slow riding, not into speed"),
    "bottles_freeze": (
        "Take them in for the night",
        "the pot filled in the evening, bottles upside down",
    ),
    "sides": ("Carry something across", "half of the difference, in either pair of bags; no single thing that may move does it"),
    "front_share": ("Shift something dense", "no single thing that may move does it: hang a bag elsewhere or free a pin"),
    "pressed": ("Leave something bulky", "nothing that may move eases it"),
    "not_together": ("Part them by a tight bag", "no bag is free for either"),
    "left_behind": ("Take it along into every shop", "no bag that comes along or locks has room for it"),
    "too_deep": ("Change what it is wanted for", "no bag in reach has room for it"),
    "too_long": ("Lash it outside", "no bag is long enough"),
    "falls_out": ("Tie it in", "no bag that closes has room for it"),
    "no_fit": ("Another place, or another bag", "a smaller one of its kind does not fit either"),
    "hitch_load": (
        "Move the load along the trailer",
        "nearer its wheel it presses less, further forward it lifts less",
    ),
    "front_lifts": ("Push with a hand on the bar", "and take a bag off where it is steep"),
    "tyre_pressure": ("Wider tyres", "the same load then wants less pressure"),
    "over_mass": ("Leave something dense", "nothing that may move ends it; no load may be held by hope"),
    "over_volume": ("Leave something bulky", "nothing that may move ends it"),
    "over_support": ("A stronger rack, or less", "nothing that may move ends it"),
    "over_wheel": ("Less on the bike", "nothing that may move ends it"),
    "over_system": ("Less on the bike", "a trailer's wheel bears part of it elsewhere"),
    "on_shelf": ("Leave some of it, or hang one bag more", "not all of it goes in"),
    "no_room_for_food": ("Free a bag for it", "none has room for all of it"),
}
"""Said where nothing that can be tried helps; practice."""


def mended(tour: TourSheet, mend: Mend) -> TourSheet:
    """The tour as a mend would have it; not yet validated."""
    kit = tuple(_replaced(tour.kit, mend.things, add=True))
    kit = tuple(thing for thing in kit if thing.id not in mend.gone)
    moved = {placement.thing_id for placement in mend.moves} | set(mend.gone)
    placements = (*(p for p in tour.load.placements if p.thing_id not in moved), *mend.moves)
    food = tour.load.food if mend.food is None else tuple(mend.food)
    road = tour.road.model_copy(
        update={
            "stops": tuple(_replaced(tour.road.stops, mend.stops, add=True)),
            "cut": mend.cut or tour.road.cut,
            "nights": tour.road.nights if mend.nights is None else tuple(mend.nights),
            "start_hour": tour.road.start_hour if mend.start_hour is None else mend.start_hour,
        }
    )
    bikes = tuple(
        bike.model_copy(update={"carriers": tuple(_replaced(bike.carriers, mend.carriers, add=False))}) for bike in tour.rig.bikes
    )
    return tour.model_copy(
        update={
            "kit": kit, "road": road, "rig": tour.rig.model_copy(update={"bikes": bikes}),
            "load": Load(placements=placements, food=food), "stores": mend.stores or tour.stores,
            "start_date": mend.start_date or tour.start_date,
        }
    )  # fmt: skip


def _replaced(old: Iterable[One], other: Iterable[One], add: bool) -> Iterator[One]:
    new = {one.id: one for one in other}
    yield from (new.pop(one.id, one) for one in old)
    if add:
        yield from new.values()


def mends_of(tour: TourSheet, road: Profile | None, finding_id: str) -> list[Mend]:
    """All that helps against a finding. Raises KeyError where there is none that is called so."""
    here = situation_of(tour, road)
    finding = next((f for f in find(here) if f.id == finding_id), None)
    if finding is None:
        raise KeyError(finding_id)
    help_ = _Help(here, road, finding)
    found = help_.proven(finding.mends)
    if finding.kind in OF_THE_LOAD and tour.load.placements:
        found = [*help_.elsewhere(), *found, *help_.left_at_home()]
    if finding.kind in OF_THE_SEASON:
        found += help_.other_dates()
    if finding.kind in ("over_volume", "no_fit"):
        found += help_.other_bags()
    if not found and finding.kind in ADVICE:
        name, consequence = ADVICE[finding.kind]
        found = [Mend(name=say(name), consequence=say(consequence))]
    return found


_Moved = tuple[tuple[int, int, int], ...]
"""Thing, and the carriers that it leaves and comes to, by their numbers."""
_Change = tuple[int, Placing, _Moved]


class _Help:
    """One finding, and changes tried against it."""

    def __init__(self, here: Situation, road: Profile | None, finding: Finding) -> None:
        self.here, self.tour, self.road, self.finding = here, here.tour, road, finding
        self.names = {thing.id: thing.name for thing in self.tour.kit} | {c.id: c.name for c in self.tour.carriers}

    @cached_property
    def problem(self) -> Problem:
        """The placing problem, with a price for every thing that moves."""
        aims = self.tour.aims.model_copy(update={"changes": max(self.tour.aims.changes, HABIT_OF_REPAIR)})
        return formulate(self.tour.model_copy(update={"aims": aims}), stock_unloaded(self.tour, self.road))

    @cached_property
    def standing(self) -> Placing:
        """The load as it stands."""
        return placing_of(self.tour, self.problem)

    @cached_property
    def score(self) -> Score:
        """Of the load as it stands."""
        return evaluate(self.problem, self.standing)

    def left(self, then: Situation) -> float:
        """How much of the finding is left in another situation, over how much there is [-]."""
        found = look_for(self.finding.kind, then)
        about = set(self.finding.thing_ids)
        same = [
            d for key, d in found.items() if key == self.finding.id or (self.finding.kind in OF_THINGS and about == set(d.things))
        ]
        if not same:
            return 0.0
        return max(d.size for d in same) / self.finding.size if self.finding.size > 0 else 1.0

    def left_loaded(self, tour: TourSheet) -> float:
        """How much of it is left on the tour loaded otherwise; more than all where as much is in the wrong place then."""
        then = otherwise_loaded(self.here, tour, self.road)
        spared = 1 if self.finding.kind in OF_THINGS else 0
        if self._misplaced(then) > self._misplaced(self.here) - spared:
            return inf
        return self.left(then)

    def _misplaced(self, there: Situation) -> int:
        return sum(1 for _ in misplaced(there))

    def proven(self, mends: Iterable[Mend]) -> list[Mend]:
        """Of mends at hand those that help, what ends it first, each with a place for what comes along by it."""
        found = []
        for mend in mends:
            if not mend.changes:
                found.append((0.0, mend))
                continue
            mend = self._with_room(mend)
            tour = mended(self.tour, mend)
            left = self.left(situation_of(tour, self.road))
            if left < ALL_OF_IT:
                found.append((left, _checked(mend, mend.name, mend.consequence, left)))
        return [mend for _, mend in sorted(found, key=lambda f: f[0] > 0)]

    def _with_room(self, mend: Mend) -> Mend:
        """A mend that brings something along, the rest put right around it where it would break a limit or a rule."""
        tour = mended(self.tour, mend)
        if not (mend.things or mend.moves) or not tour.load.placements or self._breaks(tour) <= self._breaks(self.tour):
            return mend
        found = repaired_load(tour, self.road, ())
        moves = _otherwise(self.tour.load, found.load)
        others = len({p.thing_id for p in moves} - {t.id for t in mend.things} - {p.thing_id for p in mend.moves})
        if found.holds and not set(found.out) - set(shelf_of(self.tour)):
            words, figures = "{others:thing moves|things move} to make room", {"others": number(others)}
        else:
            moves, words, figures = mend.moves, "no bag has room for it as they are packed", {}
        told = Text(words=mend.consequence.words + "; " + words, figures=mend.consequence.figures | figures,
                    names=mend.consequence.names)  # fmt: skip
        return Mend.model_validate(mend.model_dump() | {"moves": moves, "consequence": told})

    def _breaks(self, tour: TourSheet) -> int:
        """By how much the load of a tour breaks limits and rules."""
        problem = formulate(tour, stock_unloaded(tour, self.road))
        return evaluate(problem, placing_of(tour, problem)).broken

    def after(self, placing: Placing) -> Mend:
        """A placing as a change of the load: what of it rides elsewhere than now."""
        load = answer_of(self.tour, self.problem, placing, self.score, None, 1.0).load
        food = None if load.food == self.tour.load.food else list(load.food)
        return Mend(name=say("-"), consequence=say("-"), moves=_otherwise(self.tour.load, load), food=food)

    # What rides elsewhere -------------------------------------------------------------------------------------------

    def elsewhere(self) -> list[Mend]:
        """The cheapest move that ends it, the cheapest exchange where no move does, and the load put right around it."""
        found = []
        if self.finding.kind not in OF_WHAT_IS_OUT:
            moves = list(self._moves())
            move = self._first_that_helps(moves)
            if move is not None:
                found.append(self._told_move(move))
            if move is None or move[3]:
                exchange = self._first_that_helps(list(self._exchanges()))
                if exchange is not None and not exchange[3]:
                    found.append(self._told_exchange(exchange))
        if not any("{left}" not in mend.consequence.words for mend in found):
            found += self._put_right()
        return found

    def _first_that_helps(self, changes: list[_Change]) -> tuple[Placing, _Moved, Mend, float] | None:
        """The cheapest change that ends the finding; else the one that leaves least of it, if that is much less."""
        best = None
        for _, placing, moved in sorted(changes, key=lambda c: c[0])[:TRIES]:
            mend = self.after(placing)
            left = self.left_loaded(mended(self.tour, mend))
            if left == 0:
                return placing, moved, mend, left
            if left <= LESS and (best is None or left < best[3]):
                best = placing, moved, mend, left
        return best

    def _candidates(self) -> list[tuple[int, int]]:
        """Things and the carriers that they might leave, by their numbers; pinned ones stay."""
        p, x, kind = self.problem, self.standing.x, self.finding.kind
        at = {carrier_id: j for j, carrier_id in enumerate(p.carrier_ids)}
        outer = {thing.id: thing.inside or thing.id for thing in self.tour.kit}
        if kind in OF_A_BAG:
            bag = self.finding.carrier_id or ""
            from_ = {at[c.id] for c in self.tour.carriers if c.id == bag or c.hangs_on == bag}
            things = set(range(len(p.thing_ids)))
        elif kind in OF_THINGS:
            from_ = {at[self.finding.carrier_id or ""]}
            wanted = {outer[i] for i in self.finding.thing_ids}
            things = {i for i, thing_id in enumerate(p.thing_ids) if thing_id in wanted}
        else:
            bike = next(b for b in self.tour.rig.bikes if b.id == self.finding.bike_id)
            from_ = {at[c.id] for c in bike.carriers}
            things = set(range(len(p.thing_ids)))
        pairs = [(int(i), int(j)) for i, j in np.argwhere(x > 0) if j in from_ and i in things and not p.pinned[i, j]]
        heavy = p.mass_g.max(axis=1, initial=0)
        return sorted(pairs, key=lambda pair: -heavy[pair[0]] * x[pair])[:HEAVIEST]

    def _judged(self, x: np.ndarray, moved: _Moved) -> Iterator[_Change]:
        """A placing with its price, where it breaks nothing more than what is broken already."""
        placing = Placing(x, self.standing.food)
        score = evaluate(self.problem, placing)
        if score.broken <= self.score.broken:
            yield score.objective, placing, moved

    def _moves(self) -> Iterator[_Change]:
        """All of a thing that lies in one carrier, in another."""
        for i, a in self._candidates():
            for b in np.flatnonzero(self.problem.allowed[i]):
                if b != a:
                    x = self.standing.x.copy()
                    x[i, b] += x[i, a]
                    x[i, a] = 0
                    yield from self._judged(x, ((i, a, int(b)),))

    def _exchanges(self) -> Iterator[_Change]:
        """Two things, each where the other was."""
        p, x = self.problem, self.standing.x
        for i, a in self._candidates()[:TRIES]:
            for k, b in np.argwhere(x > 0):
                if b == a or k == i or p.pinned[k, b] or not p.allowed[i, b] or not p.allowed[k, a]:
                    continue
                y = x.copy()
                y[i, b] += x[i, a]
                y[i, a] = 0
                y[k, a] += x[k, b]
                y[k, b] = 0
                yield from self._judged(y, ((i, a, int(b)), (int(k), int(b), a)))

    def _put_right(self) -> Iterator[Mend]:
        """Several moves that end it together."""
        placing, score = put_right(self._asked_more_firmly(), self.standing)
        if score.broken or evaluate(self.problem, placing).missing > self.score.missing:
            return
        mend = self.after(placing)
        moved = list(dict.fromkeys(p.thing_id for p in mend.moves))
        left = self.left_loaded(mended(self.tour, mend))
        if (not moved and mend.food is None) or len(moved) > FEW or left > LESS:
            return
        told = [f"{self.names[p.thing_id]} to {self.names[p.carrier_id]}" for p in mend.moves[:NAMED]]
        more = f", and {len(moved) - NAMED} more" if len(moved) > NAMED else ""
        name = say("Move {n:thing|things}", n=number(len(moved)))
        if not moved:
            name, told = (
                say("Divide the food otherwise"),
                [f"{f.tenths} tenths in {self.names[f.carrier_id]}" for f in mend.food or ()],
            )
        yield _checked(mend, name, say("{moves}" + more, moves=", ".join(told)), left)

    def _asked_more_firmly(self) -> Problem:
        """The problem in which what the finding is about is dear, or not allowed."""
        p, kind = self.problem, self.finding.kind
        served = np.array([aim in ("sides", "front") for aim in p.soft_aims], dtype=bool)
        if kind in ("sides", "front_share"):
            return replace(p, soft=replace(p.soft, weight=np.where(served, FIRMLY * p.soft.weight, p.soft.weight)))
        if kind == "pressed":
            return replace(p, ease_cost=FIRMLY * p.ease_cost)
        if kind in OF_THINGS and kind != "not_together":
            allowed = p.allowed.copy()
            for i, a in self._candidates():
                allowed[i, a] = False
            return replace(p, allowed=allowed)
        return p

    def _told_move(self, change: tuple[Placing, _Moved, Mend, float]) -> Mend:
        _, ((i, _, b),), mend, left = change
        thing = next(t for t in as_one(self.tour).kit if t.id == self.problem.thing_ids[i])
        count = sum(p.count for p in mend.moves if p.thing_id == thing.id and p.carrier_id == self.problem.carrier_ids[b])
        bag = next(c for bike in self.here.bikes for c in bike.contents if c.carrier.id == self.problem.carrier_ids[b])
        full_kg = (thing.mass_kg + holds_kg(thing)) * count
        names = ", ".join([thing.name, *(t.name for t in nested_in(self.tour.kit).get(thing.id, []))])
        words = "takes {mass} and {volume} with it" + (" when full" if holds_kg(thing) else "") + "; {bag} then holds {then}"
        consequence = say(words, mass=kg(full_kg), volume=litres(thing.least_l * count), bag=bag.carrier.name,
                          then=kg(float(bag.borne_kg.max()) + full_kg))  # fmt: skip
        return _checked(mend, say("{thing} to {bag}", thing=names, bag=bag.carrier.name), consequence, left)

    def _told_exchange(self, change: tuple[Placing, _Moved, Mend, float]) -> Mend:
        _, moved, mend, left = change
        (i, a, b), (k, _, _) = moved
        one, other = (self.names[self.problem.thing_ids[n]] for n in (i, k))
        here, there = (self.names[self.problem.carrier_ids[n]] for n in (a, b))
        told = say("{one} to {there}, {other} to {here}", one=one, other=other, there=there, here=here)
        return _checked(mend, say("Swap {one} and {other}", one=one, other=other), told, left)

    # What stays, and what is otherwise ------------------------------------------------------------------------------

    def left_at_home(self) -> Iterator[Mend]:
        """What may stay, and whose leaving ends it: the lightest such thing."""
        if self.finding.kind not in TOO_MUCH:
            return
        nested = nested_in(self.tour.kit)
        may = [thing for thing in self.tour.kit if thing.may_stay and thing.inside is None]
        if self.finding.kind == "on_shelf":
            out = set(self.finding.thing_ids)
            groups = [[t for t in may if t.id in out]] if any(t.id in out for t in may) else []
        else:
            riding = {i for i, _ in self._candidates()}
            there = {self.problem.thing_ids[i] for i in riding}
            groups = [[t] for t in sorted(may, key=lambda t: t.mass_kg * t.count) if t.id in there]
        for things in groups:
            gone = [inner.id for thing in things for inner in (thing, *nested.get(thing.id, []))]
            kit = tuple(t for t in self.tour.kit if t.id not in gone)
            without = self.tour.model_copy(update={"kit": kit, "load": still_standing(self.tour.load, kit, self.tour.rig)})
            left = self.left(otherwise_loaded(self.here, without, self.road))
            if left <= LESS:
                mass = sum(t.mass_kg * t.count for t in self.tour.kit if t.id in gone)
                mend = Mend(name=say("-"), consequence=say("-"), gone=gone)
                named = ", ".join(t.name for t in things[:NAMED]) + (" ..." if len(things) > NAMED else "")
                yield _checked(mend, say("Leave {things}", things=named), say("it may stay; {mass} less", mass=kg(mass)), left)
                return

    def other_dates(self) -> Iterator[Mend]:
        """The date within a month at which least of it is left."""
        if self.road is None:
            return
        found = []
        for days in SHIFTS_D:
            date = self.tour.start_date + dt.timedelta(days=days)
            then = look_for(self.finding.kind, situation_of(self.tour.model_copy(update={"start_date": date}), self.road))
            draft = then.get(self.finding.id)
            found.append((0.0 if draft is None else draft.size, abs(days), days, date, draft))
        size, _, days, date, draft = min(found, key=lambda f: f[:2])
        if size < self.finding.size * LESS:
            later = "later" if days > 0 else "earlier"
            told = say("then none is found") if draft is None else draft.sentence
            yield Mend(
                name=say(f"Set out {{weeks}} weeks {later}", weeks=number(abs(days) // 7)), consequence=told, start_date=date
            )

    def other_bags(self) -> Iterator[Mend]:
        """A larger bag of its kind, as far as such bags are made, or a smaller one where it does not fit."""
        bag = next((c for c in self.tour.carriers if c.id == self.finding.carrier_id), None)
        if bag is None:
            return
        if self.finding.kind == "no_fit":
            sizes = [round(bag.volume_l * part, 1) for part in SMALLER]
        else:
            wanted = bag.volume_l + (self.finding.need or 0) - (self.finding.holds or 0) + 0.1
            sizes = [round(wanted, 1)] if wanted <= LARGEST * KINDS[bag.kind].volume_l else []
        for volume_l in sizes:
            part = volume_l / bag.volume_l
            other = bag.model_copy(
                update={"volume_l": volume_l, "most_l": round(bag.most_l * part, 1), "size": None, "source": "default"}
            )
            mend = Mend(
                name=say("{bag} of {volume}", bag=bag.name, volume=litres(volume_l)),
                consequence=say("instead of {volume}", volume=litres(bag.volume_l)),
                carriers=[other],
            )
            if self.left_loaded(mended(self.tour, mend)) == 0:
                yield mend
                return


def _otherwise(was: Load, then: Load) -> list[Placement]:
    """Placements of the things that ride elsewhere than they did."""

    def by_thing(load: Load) -> dict[str, dict[str, int]]:
        found: dict[str, dict[str, int]] = {}
        for p in load.placements:
            there = found.setdefault(p.thing_id, {})
            there[p.carrier_id] = there.get(p.carrier_id, 0) + p.count
        return found

    before, after = by_thing(was), by_thing(then)
    return [p for p in then.placements if before.get(p.thing_id) != after[p.thing_id]]


def _checked(mend: Mend, name: Text, consequence: Text, left: float) -> Mend:
    """A mend with its words, and with how much it leaves."""
    if left > 0:
        consequence = Text(
            words=consequence.words + "; {left} of it is left", figures=consequence.figures | {"left": share(left)},
            names=consequence.names,
        )  # fmt: skip
    return Mend.model_validate(mend.model_dump() | {"name": name, "consequence": consequence})
