"""One finding, and changes tried against it: what is left of it, and what they bring besides."""

from collections.abc import Callable, Iterable, Mapping, Set
from math import inf

from omnifer.core.assess import situation_of
from omnifer.core.findings import SPECS, all_drafts, cases_of, harm, is_small, look_for
from omnifer.core.findings.gather import worst_first
from omnifer.core.findings.placing import misplaced
from omnifer.core.findings.situation import Draft, Situation
from omnifer.core.load.explain import placing_of
from omnifer.core.load.formulate import formulate
from omnifer.core.load.keep import shelf_of
from omnifer.core.load.problem import evaluate
from omnifer.core.load.settle import repaired_load, stock_unloaded
from omnifer.core.mends.change import checked, mended, otherwise_placed
from omnifer.core.model.finding import GRADES, Finding, FindingKind, Mend
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import joined, number, say

Look = Callable[[FindingKind, Situation], dict[str, Draft]]
"""What there is of a kind of trouble, gathered or each alone."""
ALL_OF_IT = 0.99
"""What leaves more of it than this does not help [-]."""
LESS = 0.7
"""What leaves no more of a trouble than this helps, though it does not end it [-]."""
WORSE, SOME = 1.5, 0.01
"""Trouble is told as worse by a mend from so many times its size, and so much more [-]."""
BRINGS_NAMED = 2
"""Of what a mend brings so much is told in full."""


class Trial:
    """One finding, and changes tried against it."""

    def __init__(self, here: Situation, road: Profile | None, finding: Finding, look: Look = look_for) -> None:
        self.here, self.tour, self.road, self.finding, self.look = here, here.tour, road, finding, look
        self.spec = SPECS[finding.kind]
        self._then: dict[str, Situation] = {}
        self.names = {thing.id: thing.name for thing in self.tour.kit} | {c.id: c.name for c in self.tour.carriers}

    def left(self, then: Situation) -> float:
        """How much of the finding is left in another situation, over how much there is [-]."""
        found = self.look(self.finding.kind, then)
        about = set(self.finding.thing_ids)
        same = [
            d for key, d in found.items() if key == self.finding.id or (self.spec.loaded == "things" and about == set(d.things))
        ]
        if not same:
            return 0.0
        return max(d.size for d in same) / self.finding.size if self.finding.size > 0 else 1.0

    def left_loaded(self, tour: TourSheet) -> float:
        """How much of it is left on the tour loaded otherwise; more than all where as much is in the wrong place then."""
        then = self.here.loaded_otherwise(tour, self.road)
        spared = 1 if self.spec.loaded == "things" else 0
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
            left = self.left(self._with(mend))
            if left < ALL_OF_IT:
                found.append((left, checked(mend, mend.name, mend.consequence, left)))
        return [mend for _, mend in sorted(found, key=lambda f: f[0] > 0)]

    def _with_room(self, mend: Mend) -> Mend:
        """A mend that brings something along, the rest put right around it where it would break a limit or a rule."""
        tour = mended(self.tour, mend)
        if not (mend.things or mend.moves) or not tour.load.placements or self.breaks(tour) <= self.breaks(self.tour):
            return mend
        found = repaired_load(tour, self.road, ())
        moves = otherwise_placed(self.tour.load, found.load)
        others = len({p.thing_id for p in moves} - {t.id for t in mend.things} - {p.thing_id for p in mend.moves})
        if found.holds and not set(found.out) - set(shelf_of(self.tour)):
            why = say("{others:thing moves|things move} to make room", others=number(others)) if others else None
        else:
            moves, why = mend.moves, say("no bag has room for it as they are packed")
        told = joined([mend.consequence, why]) if why is not None else mend.consequence
        return Mend.model_validate(mend.model_dump() | {"moves": moves, "consequence": told})

    def breaks(self, tour: TourSheet) -> int:
        """By how much the load of a tour breaks limits and rules."""
        problem = formulate(tour, stock_unloaded(tour, self.road))
        return evaluate(problem, placing_of(tour, problem)).broken

    def as_a_whole(self, mends: Iterable[Mend]) -> list[Mend]:
        """Each with what it brings besides: first what brings nothing, last what brings worse than it ends."""
        before, judged = all_drafts(self.here), []
        own = {self.finding.id, *(case.id for case in cases_of(self.finding, self.here))}
        for mend in mends:
            brings = self._brought(before, own, mend) if mend.changes else []
            worse = bool(brings) and GRADES.index(brings[0].grade) < GRADES.index(self.finding.grade)
            judged.append((bool(brings) + worse, _saying(mend, brings)))
        return [mend for _, mend in sorted(judged, key=lambda entry: entry[0])]

    def _with(self, mend: Mend) -> Situation:
        """What findings look at once a mend is taken."""
        change = mend.model_dump_json(exclude={"name", "consequence"})
        if change not in self._then:
            tour = mended(self.tour, mend)
            # What rides elsewhere is judged by the load alone where the trouble is one of the load.
            moved = Mend(name=mend.name, consequence=mend.consequence, moves=mend.moves, food=mend.food)
            only_loaded = mend == moved and self.spec.loaded is not None
            self._then[change] = self.here.loaded_otherwise(tour, self.road) if only_loaded else situation_of(tour, self.road)
        return self._then[change]

    def _brought(self, before: Mapping[str, Draft], own: Set[str], mend: Mend) -> list[Draft]:
        """Trouble as bad as the finding, or that slows, and that is new or worse by a mend; what makes its own thing needless."""
        told = max(GRADES.index(self.finding.grade), GRADES.index("slows_you"))
        news = {thing.id for thing in mend.things} - {thing.id for thing in self.tour.kit}
        found = []
        for key, draft in all_drafts(self._with(mend)).items():
            was = before.get(key)
            worse = was is None or GRADES.index(draft.grade) < GRADES.index(was.grade) or draft.size > was.size * WORSE + SOME
            bad = GRADES.index(draft.grade) <= told and not is_small(draft)
            needless = was is None and SPECS[draft.kind].needless and news & set(draft.things)
            itself = draft.kind == self.finding.kind and (key in own or SPECS[draft.kind].loaded == "things")
            if not itself and ((worse and bad) or needless):
                found.append(draft)
        return sorted(found, key=lambda draft: (worst_first(draft)[0], harm(draft)))


def _saying(mend: Mend, brings: list[Draft]) -> Mend:
    """A mend that says what it brings."""
    if not brings:
        return mend
    told = [draft.sentence for draft in brings[:BRINGS_NAMED]]
    if len(brings) > BRINGS_NAMED:
        told.append(say("{more} more.", more=number(len(brings) - BRINGS_NAMED)))
    return mend.model_copy(update={"consequence": joined([mend.consequence, joined(told, " ")], "; it brings: ")})
