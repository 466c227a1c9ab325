"""The plan at a chosen risk: of each stretch so much that it runs out no more often than is accepted for the whole tour, and
the parts to carry by the same rule."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from omnifer.core.model.quantities import ROUNDING, CarriedSupply
from omnifer.core.model.rehearsal import AtGap, Counted, RiskPlan, RiskPoint, SparesAtRisk, SparesWanted
from omnifer.core.model.stores import StoreStep
from omnifer.core.rehearsal.answers import at_gap, counted, gone_h, lack_that_matters
from omnifer.core.rehearsal.course import Array, Bools, Course, course_of, with_supply
from omnifer.core.rehearsal.kept import Plays
from omnifer.core.rehearsal.play import rehearse
from omnifer.core.rehearsal.rehearsing import SEED, drawn_for, played
from omnifer.core.rehearsal.sharing import asked_but, shared
from omnifer.core.stages import Reading
from omnifer.core.stores.buying import TIE, as_taken, solve
from omnifer.core.stores.schedule import fixed_least, steps_of, taking
from omnifer.core.stores.told import figures, filled_everywhere, kg_km, minutes_per_kg_km
from omnifer.core.supplies.carried import carried
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage, voyage_of

ACCEPTED = (0.0, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.4)
"""Shares of plays that the amounts alone may let run out: points of the curve [-]."""
WHOLE = 4
"""So many plans are played as a whole before the best of them is told."""
CLOSER = 3
"""So often the two points beside the chosen risk are halved."""
HARDLY = 0.005
"""A share of plays that no plan has to do with [-]."""
MORE_L = 1.0
"""The school that always carries a litre more for each rider [l]."""
A_PART_KG = 0.1
"""What a spare part weighs, for sharing out the risk [kg]; practice."""


def risk_plan(
    at: Reading, name: CarriedSupply, risk: float, plays: int, seed: int = SEED,
    tell: Callable[[float], None] = lambda share: None,
) -> RiskPlan:  # fmt: skip
    """The least of a supply to carry so that it runs out in no more than a share of plays, wherever vessels hold enough for it.

    Amounts are never below what is reckoned for a stretch without a reserve, nor what its rider has fixed. What a plan comes to
    is played: each point of the curve on the same fate, the chosen one with the pace that its mass leaves. Raises ValueError
    where nobody rides, KeyError where there is no such supply.
    """
    here, tour = _Here(at, name, plays, seed), at.tour
    points = list[_Tried]()
    for k, share in enumerate(ACCEPTED):
        points.append(here.tried(int(share * plays + ROUNDING)))
        tell(round(0.6 * (k + 1) / len(ACCEPTED), 2))
    # What chance takes anyway, as by shops that are shut, no amount makes rarer.
    reachable = max(risk, min(one.share for one in points) + HARDLY)
    for _ in range(CLOSER):
        best = max((one for one in points if one.share <= reachable), key=lambda one: one.failing)
        more = min((one.failing for one in points if one.failing > best.failing), default=best.failing)
        if more - best.failing < 2:
            break
        points.append(here.tried((best.failing + more) // 2))
    points.sort(key=lambda one: one.failing)
    tell(0.8)
    supply, voyage = here.supply, here.voyage
    found: tuple[float, list[StoreStep], Reading, Plays] | None = None
    # What is carried slows and makes thirsty: what holds on this pace may not hold on its own, and then the next carries more.
    for best in [one for one in reversed(points) if one.share <= reachable][:WHOLE]:
        steps = steps_of(supply, fixed_least(supply, best.supply.taken))
        then = Reading(taking(tour, steps), at.profile, at.from_km)
        reached = played(course_of(then), 0, plays, seed)
        share = here.counted(reached).count / plays
        if found is None or share < found[0]:
            found = share, steps, then, reached
        if share <= reachable:
            break
    assert found is not None
    _, steps, then, reached = found
    after = then[voyage_of]
    assert after is not None
    return RiskPlan(
        supply=name, risk=risk, plays=plays, now=here.counted(here.plays), reached=here.counted(reached),
        curve=[here.point("", one.supply, one.happened) for one in points],
        plans=[here.point(way, plan, here.happened(plan)) for way, plan in here.plans().items()], steps=steps,
        cannot=list(here.cannot()), figures=figures(taking(tour, steps), after, after.supplies),
        stands=figures(tour, voyage, voyage.supplies),
    )  # fmt: skip


@dataclass(frozen=True)
class _Tried:
    """A plan by how many plays its amounts alone may let run out, and in which it did."""

    failing: int
    supply: Supply
    happened: Bools

    @property
    def share(self) -> float:
        return float(self.happened.mean())


class _Here:
    """A supply of a tour, and what was asked of it on so many plays."""

    def __init__(self, at: Reading, name: CarriedSupply, count: int, seed: int) -> None:
        self.at, self.name, self.count, self.seed = at, name, count, seed
        self.course: Course = course_of(at)
        voyage = at[voyage_of]
        assert voyage is not None
        self.voyage: Voyage = voyage
        self.supply: Supply = voyage.supplies[name]
        self.draws = drawn_for(self.course, 0, count, seed)
        self.plays: Plays = rehearse(self.course, self.draws)
        kept = self.plays.kept[name]
        # What is seen coming where it is handed over need not have been planned.
        self.asked: Array = kept.asked - kept.foreseen - lack_that_matters(self.course, name)
        most = kept.asked.max(axis=0)
        self.full: Plays = self._played(self.with_reserve(np.maximum(most - self.supply.used, self.supply.reserve)))
        self.fits: Bools = self._fits()

    def _played(self, supply: Supply) -> Plays:
        return rehearse(with_supply(self.course, self.at, supply), self.draws)

    def _fits(self) -> Bools:
        """Stretches on which who carries the most that any play asks, or all that fits, hardly ever runs out: on others no plan
        helps."""
        gone = self._gone(self.full)
        result, so_far = np.zeros(gone.shape[1], dtype=bool), np.zeros(self.count, dtype=bool)
        for gap in np.argsort(gone.sum(axis=0), kind="stable").tolist():
            with_it = so_far | gone[:, gap]
            if with_it.mean() <= HARDLY:
                result[gap], so_far = True, with_it
        return result

    def _gone(self, plays: Plays) -> Bools:
        return np.asarray(gone_h(plays, self.name) > 0)

    def counted(self, plays: Plays) -> Counted:
        """Plays in which it runs out where it need not."""
        gone = self._gone(plays)
        # With another plan the places may be others: then all of them count.
        return counted(np.asarray((gone[:, self.fits] if gone.shape[1] == self.fits.size else gone).any(axis=1)))

    def happened(self, supply: Supply) -> Bools:
        """Plays in which it runs out where it need not, with another plan."""
        return np.asarray(self._gone(self._played(supply))[:, self.fits].any(axis=1))

    def tried(self, failing: int) -> _Tried:
        """The best schedule whose amounts alone let so many plays run out, played."""
        wanted = self.at_risk(failing)
        per_minute = 1 / max(minutes_per_kg_km(self.voyage), 1e-9)
        money = max(self.at.tour.stores.minutes_per_money * per_minute, TIE)
        best = replace(wanted, amounts=as_taken(wanted, solve(wanted, per_minute, money).take))
        return _Tried(failing, best, self.happened(best))

    def at_risk(self, failing: int) -> Supply:
        """The supply by the plain rule, with the least reserves by which its amounts let no more than so many plays run out."""
        supply, km = self.supply, np.diff(self.supply.refills.km)
        gaps = np.flatnonzero(self.fits).tolist()
        amounts = [asked_but(self.asked[:, gap], failing) for gap in gaps]
        costs = [np.maximum(amount, supply.used[gap]) * km[gap] for gap, amount in zip(gaps, amounts, strict=True)]
        reserve = supply.reserve.copy()
        for gap, amount, k in zip(gaps, amounts, shared(costs, failing), strict=True):
            reserve[gap] = max(float(amount[k] - supply.used[gap]), 0.0)
        return self.with_reserve(reserve)

    def with_reserve(self, reserve: Array) -> Supply:
        """The supply by the plain rule with another reserve on each stretch."""
        supply, refills = self.supply, self.supply.refills
        kept = np.where(refills.emptied[1:], 0.0, reserve)
        amounts = carried(refills.offers, supply.used, kept, supply.capacity, supply.terms, supply.fixed, refills.emptied)
        return replace(supply, reserve=kept, amounts=amounts)

    def plans(self) -> dict[str, Supply]:
        """Today's rule and the schools."""
        supply, tour = self.supply, self.at.tour
        water = self.name == "water"
        more = MORE_L * len(tour.riders) if water else float(supply.used.sum()) / self.voyage.days.count
        return {
            "as it is planned": supply,
            "no reserve": self.with_reserve(np.zeros(supply.reserve.size)),
            "always a litre more" if water else "always a day more": self.with_reserve(supply.reserve + more),
            "full at every place": filled_everywhere(supply),
        }

    def point(self, name: str, supply: Supply, happened: Bools) -> RiskPoint:
        """A plan that was played: how much it carries, and how often it runs out."""
        return RiskPoint(name=name, kg_km=round(kg_km(self.voyage, supply), 1), counted=counted(happened))

    def cannot(self) -> Iterator[AtGap]:
        """Stretches on which it runs out too often whatever is carried."""
        refills, bad = self.supply.refills, gone_h(self.full, self.name)
        for gap in np.flatnonzero(~self.fits).tolist():
            ends = float(refills.km[gap]), float(refills.km[gap + 1])
            yield at_gap(refills.names[gap], refills.names[gap + 1], *ends, bad[:, gap])


def spares_at_risk(plays: Plays, risk: float) -> SparesAtRisk:
    """Parts to carry so that one is lacking in no more than a share of plays, over the whole tour; the fewest such."""
    failing = int(risk * plays.count + ROUNDING)
    risks = [one for one in plays.course.risks if one.kind.part and one.able]
    wanted = [asked_but(plays.most_wanted[one.kind.id].astype(float), failing) for one in risks]
    fails = shared([amounts * A_PART_KG for amounts in wanted], failing)
    lacking: list[Bools] = [plays.most_wanted[one.kind.id] > one.mends for one in risks]
    parts = [
        SparesWanted(words=one.kind.words, stops=one.kind.stops, owned=one.mends, wanted=int(amounts[k]), short=counted(short))
        for one, amounts, k, short in zip(risks, wanted, fails, lacking, strict=True)
    ]
    together = np.any(lacking, axis=0) if lacking else np.zeros(plays.count, dtype=bool)
    return SparesAtRisk(risk=risk, parts=[part for part in parts if part.wanted or part.owned], now=counted(together))
