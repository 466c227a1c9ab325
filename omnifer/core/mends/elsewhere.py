"""What rides elsewhere so that a trouble ends: a move, an exchange, the load put right around it."""

from collections.abc import Iterator
from dataclasses import replace
from functools import cached_property

import numpy as np

from omnifer.core.findings import cases_of, look_for_cases
from omnifer.core.load.explain import placing_of
from omnifer.core.load.formulate import formulate
from omnifer.core.load.nesting import as_one, holds_kg, nested_in
from omnifer.core.load.problem import Placing, Problem, Score, evaluate
from omnifer.core.load.proposal import answer_of
from omnifer.core.load.repair import HABIT_OF_REPAIR, put_right
from omnifer.core.load.settle import stock_unloaded
from omnifer.core.mends.change import checked, mended, otherwise_placed
from omnifer.core.mends.trial import LESS, Trial
from omnifer.core.model.finding import Mend
from omnifer.core.model.quantities import Text
from omnifer.core.sentence import kg, litres, number, say

HEAVIEST = 25
"""Things of a bike that are tried elsewhere, at most."""
TRIES = 12
"""Of each sort of change the cheapest so many are looked at."""
FEW = 10
"""A load put right by more moves than this is a new load."""
NAMED = 4
"""Moves told by name."""
FIRMLY = 10
"""Times the usual price of what the aims say, while a trouble of an aim is put right [-]."""


_Moved = tuple[tuple[int, int, int], ...]
"""Thing, and the carriers that it leaves and comes to, by their numbers."""
_Change = tuple[int, Placing, _Moved]


class Elsewhere(Trial):
    """One finding, and loads tried against it."""

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

    def after(self, placing: Placing) -> Mend:
        """A placing as a change of the load: what of it rides elsewhere than now."""
        load = answer_of(self.tour, self.problem, placing, self.score, None, 1.0).load
        food = None if load.food == self.tour.load.food else list(load.food)
        return Mend(name=say("-"), consequence=say("-"), moves=otherwise_placed(self.tour.load, load), food=food)

    # What rides elsewhere -------------------------------------------------------------------------------------------

    def elsewhere(self) -> list[Mend]:
        """The cheapest move that ends it, the cheapest exchange where no move does, and the load put right around it."""
        found = []
        if self.spec.loaded != "out":
            moves = list(self._moves())
            move = self._first_that_helps(moves)
            if move is not None:
                found.append(self._told_move(move))
            if move is None or move[3]:
                exchange = self._first_that_helps(list(self._exchanges()))
                if exchange is not None and not exchange[3]:
                    found.append(self._told_exchange(exchange))
        if not any("{left}" not in mend.consequence.words for mend in found):
            found += self.all_put_right()
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

    def candidates(self) -> list[tuple[int, int]]:
        """Things and the carriers that they might leave, by their numbers; pinned ones stay."""
        p, x = self.problem, self.standing.x
        at = {carrier_id: j for j, carrier_id in enumerate(p.carrier_ids)}
        outer = {thing.id: thing.inside or thing.id for thing in self.tour.kit}
        if self.spec.loaded == "bag":
            bag = self.finding.carrier_id or ""
            from_ = {at[c.id] for c in self.tour.carriers if c.id == bag or c.hangs_on == bag}
            things = set(range(len(p.thing_ids)))
        elif self.spec.loaded == "things":
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
        for i, a in self.candidates():
            for b in np.flatnonzero(self.problem.allowed[i]):
                if b != a:
                    x = self.standing.x.copy()
                    x[i, b] += x[i, a]
                    x[i, a] = 0
                    yield from self._judged(x, ((i, a, int(b)),))

    def _exchanges(self) -> Iterator[_Change]:
        """Two things, each where the other was."""
        p, x = self.problem, self.standing.x
        for i, a in self.candidates()[:TRIES]:
            for k, b in np.argwhere(x > 0):
                if b == a or k == i or p.pinned[k, b] or not p.allowed[i, b] or not p.allowed[k, a]:
                    continue
                y = x.copy()
                y[i, b] += x[i, a]
                y[i, a] = 0
                y[k, a] += x[k, b]
                y[k, b] = 0
                yield from self._judged(y, ((i, a, int(b)), (int(k), int(b), a)))

    def all_put_right(self) -> Iterator[Mend]:
        """Several moves that end it together."""
        placing, score = put_right(self._asked_more_firmly(), self.standing)
        if score.broken or evaluate(self.problem, placing).missing > self.score.missing:
            return
        mend = self.after(placing)
        moved = list(dict.fromkeys(p.thing_id for p in mend.moves))
        left = self.left_loaded(mended(self.tour, mend))
        if (not moved and mend.food is None) or len(moved) > FEW or left > LESS:
            return
        name, told = say("Move {n:thing|things}", n=number(len(moved))), self.told_moves(mend)
        if not moved:
            name = say("Divide the food otherwise")
            told = say("{parts}", parts=", ".join(f"{f.tenths} tenths in {self.names[f.carrier_id]}" for f in mend.food or ()))
        yield checked(mend, name, told, left)

    def across(self) -> list[Mend]:
        """The heaviest things of a bike that may ride on another's, until what is too much has moved."""
        bike = next(b for b in self.tour.rig.bikes if b.id == self.finding.bike_id)
        here = {k for k, carrier_id in enumerate(self.problem.carrier_ids) if carrier_id in {c.id for c in bike.carriers}}
        heavy, placing, score = self.problem.mass_g.max(axis=1, initial=0), self.standing, self.score
        too_much, moved = self.finding.size * 1000, 0
        for i, a in self.candidates():
            if moved >= too_much:
                break
            choices = []
            for b in (b for b in np.flatnonzero(self.problem.allowed[i]) if int(b) not in here):
                x = placing.x.copy()
                x[i, b] += x[i, a]
                x[i, a] = 0
                then = Placing(x, placing.food)
                judged = evaluate(self.problem, then)
                if judged.broken <= score.broken:
                    choices.append((judged.objective, int(b), then, judged))
            if choices:
                moved += int(heavy[i] * placing.x[i, a])
                _, _, placing, score = min(choices, key=lambda choice: choice[:2])
        mend = self.after(placing)
        left = self.left_loaded(mended(self.tour, mend)) if mend.moves else 1.0
        if left > LESS:
            return []
        name = say("Give {n:thing|things} to others", n=number(len(mend.moves)))
        return [checked(mend, name, self.told_moves(mend), left)]

    def told_moves(self, mend: Mend) -> Text:
        """What goes where, as far as it is told by name."""
        told = ", ".join(f"{self.names[p.thing_id]} to {self.names[p.carrier_id]}" for p in mend.moves[:NAMED])
        more = f", and {len(mend.moves) - NAMED} more" if len(mend.moves) > NAMED else ""
        return say("{moves}" + more, moves=told)

    def _asked_more_firmly(self) -> Problem:
        """The problem in which what the finding is about is dear, or not allowed."""
        p, kind = self.problem, self.finding.kind
        served = np.array([aim in ("sides", "front") for aim in p.soft_aims], dtype=bool)
        if kind in ("sides", "front_share"):
            return replace(p, soft=replace(p.soft, weight=np.where(served, FIRMLY * p.soft.weight, p.soft.weight)))
        if kind == "pressed":
            return replace(p, ease_cost=FIRMLY * p.ease_cost)
        if self.spec.loaded == "things" and kind != "not_together":
            allowed = p.allowed.copy()
            for i, a in self.candidates():
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
        return checked(mend, say("{thing} to {bag}", thing=names, bag=bag.carrier.name), consequence, left)

    def _told_exchange(self, change: tuple[Placing, _Moved, Mend, float]) -> Mend:
        _, moved, mend, left = change
        (i, a, b), (k, _, _) = moved
        one, other = (self.names[self.problem.thing_ids[n]] for n in (i, k))
        here, there = (self.names[self.problem.carrier_ids[n]] for n in (a, b))
        told = say("{one} to {there}, {other} to {here}", one=one, other=other, there=there, here=here)
        return checked(mend, say("Swap {one} and {other}", one=one, other=other), told, left)


def loaded_otherwise(trial: Elsewhere) -> list[Mend]:
    """What rides elsewhere against a finding; of one that was gathered, against each of its cases, and all of them together."""
    cases = cases_of(trial.finding, trial.here)[:NAMED]
    if len(cases) < 2:
        return trial.across() if trial.finding.kind == "childs_load" else trial.elsewhere()
    if trial.spec.loaded != "things":
        worst = Elsewhere(trial.here, trial.road, cases[0], look_for_cases)
        return [*trial.all_put_right(), *worst.elsewhere()[:1]]
    singly = [Elsewhere(trial.here, trial.road, case, look_for_cases).elsewhere()[:1] for case in cases]
    found = list({repr(mend.moves): mend for mends in singly for mend in mends if mend.moves}.values())
    moves = {(p.thing_id, p.carrier_id): p for mend in found for p in mend.moves}
    moved = {thing_id for thing_id, _ in moves}
    if len(found) < 2 or len(moved) < len(moves):
        return found
    together = Mend(name=say("-"), consequence=say("-"), moves=list(moves.values()))
    left = trial.left_loaded(mended(trial.tour, together))
    if left > LESS or trial.breaks(mended(trial.tour, together)) > trial.breaks(trial.tour):
        return found
    name = say("Move {n:thing|things}", n=number(len(moved)))
    return [checked(together, name, trial.told_moves(together), left), *found]
