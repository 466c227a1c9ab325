"""Loads and the tours that they make: a load decides how fast a tour is ridden and which vessels bear its water, and so what
is on board when. What is proposed or repaired is held against the tour that it makes."""

from collections import Counter, deque
from collections.abc import Collection, Iterator
from dataclasses import replace

from omnifer.core.load.explain import breaks_at
from omnifer.core.load.keep import lacking
from omnifer.core.load.proposal import EFFORT, ROUNDS, Proposal, advice, leaving_out, proposing
from omnifer.core.load.repair import repair
from omnifer.core.model.load import Load
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.supplies.stock import Stock
from omnifer.core.voyage import play

SETTLED = 3
"""Searches at most, until a load holds on the tour that it makes."""
FILLED = (0.75, 0.5, 0.25)
"""Parts to which vessels are filled where not all comes along, as far as it takes [-]."""
PROGRESS = (0.0, 0.8, 0.9, 1.0)
"""How much of all is behind when each of them begins [-]; most loads settle with the first."""


def propose_load(
    tour: TourSheet, profile: Profile | None, rounds: int = ROUNDS, effort: float = EFFORT, advise: bool = True
) -> Proposal:
    """The best load found for the whole tour: the last of `load_proposals`."""
    return deque(load_proposals(tour, profile, rounds, effort, advise), maxlen=1)[0]


def load_proposals(
    tour: TourSheet, profile: Profile | None, rounds: int = ROUNDS, effort: float = EFFORT, advise: bool = True
) -> Iterator[Proposal]:
    """Ever better loads; see `omnifer.core.load.proposal.proposing`.

    Where the one found breaks a limit on its own tour, it is searched again for what that tour has on board, without the
    vessels that find no place; what breaks one even then does not say that it holds.

    Parameters
    ----------
    advise : bool
        Where something stays out, say at the end which single change would mend most; it takes some searches more.
    """
    out: dict[str, int] = {}
    rest, stock, start = tour, stock_unloaded(tour, profile), None
    for turn in range(SETTLED):
        for found in proposing(rest, stock, rounds if turn == 0 else max(1, rounds // 4), effort, start):
            whole = leaving_out(found, out) if out else found
            done = PROGRESS[turn] + found.done * (PROGRESS[turn + 1] - PROGRESS[turn])
            yield whole.model_copy(update={"done": round(done, 3)})
        dry = _vessels_out(rest, found)
        then = lacking(rest, dry)
        loaded = then.model_copy(update={"load": found.load})
        then_stock = stock_of(loaded, profile)
        weak = breaks_at(loaded, then_stock)
        settled = found.holds and not weak
        if settled or not found.holds or turn == SETTLED - 1:
            break
        out |= dry
        stock = replace(then_stock, besides=stock.besides).watching(weak)
        rest, start = then, found.load
    whole = whole.model_copy(update={"holds": settled, "done": 1.0})
    if not whole.complete and whole.holds and (less := _filled_less(tour, profile, whole)) is not None:
        whole = less
    yield whole
    if advise and not (whole.complete and whole.holds):
        yield whole.model_copy(update={"change": advice(rest, stock, found, sum(out.values()))})


def _filled_less(tour: TourSheet, profile: Profile | None, found: Proposal) -> Proposal | None:
    """The load in which vessels that stay out, or sacks for whose sake food does, come along less full; None where that brings
    nothing in, or where not water alone is too much."""
    large = {t.id for t in tour.kit if t.holds_water_l and t.inside is None and t.id not in found.reasons}
    soft = {t.id for t in tour.kit if t.soft_vessel}
    less_full = large & (found.out.keys() | (soft if found.food_out_tenths else set()))
    too_much = found.out.keys() - large
    best = found
    for part in FILLED if less_full and not too_much else ():
        if best.complete:
            break
        kit = tuple(t.model_copy(update={"holds_water_l": part * t.holds_water_l}) if t.id in less_full else t for t in tour.kit)
        less = tour.model_copy(update={"kit": kit})
        then = deque(proposing(less, stock_unloaded(less, profile), 1, 0, found.load), maxlen=1)[0]
        loaded = less.model_copy(update={"load": then.load})
        if then.holds and _brings_in(then, best) and not breaks_at(loaded, stock_of(loaded, profile)):
            litres = {t.id: t.holds_water_l for t in kit if t.id in less_full}
            told = tuple(p.model_copy(update={"filled_l": litres.get(p.thing_id)}) for p in then.load.placements)
            best = then.model_copy(
                update={"load": then.load.model_copy(update={"placements": told}), "bound": None, "proven": False}
            )
    return None if best is found else best


def _brings_in(then: Proposal, before: Proposal) -> bool:
    """Whether less stays out, and nothing that came along before."""
    left, was = (Counter(p.out) + Counter(food=p.food_out_tenths) for p in (then, before))
    return left < was


def _vessels_out(tour: TourSheet, found: Proposal) -> dict[str, int]:
    """Vessels that a proposal leaves out, with what lies in them."""
    water = {thing.id for thing in tour.kit if thing.holds_kg > 0}
    theirs = water | {thing.id for thing in tour.kit if thing.inside in water}
    return {thing_id: n for thing_id, n in found.out.items() if thing_id in theirs}


def repaired_load(tour: TourSheet, profile: Profile | None, in_hand: Collection[str]) -> Proposal:
    """The standing load put right by few moves; see `omnifer.core.load.repair.repair`."""
    stock = stock_unloaded(tour, profile, as_filled=True)
    found = repair(tour, stock, in_hand)
    if found.holds and (weak := breaks_at(tour.model_copy(update={"load": found.load}), stock)):
        found = repair(tour, stock.watching(weak), in_hand)
    return found


def stock_unloaded(tour: TourSheet, profile: Profile | None, as_filled: bool = False) -> Stock:
    """Supplies along the tour with every vessel of the kit on board, brimful or as the load fills them."""
    told = {p.thing_id: p.filled_l for p in tour.load.placements if as_filled and p.filled_l is not None}
    kit = tuple(t.model_copy(update={"holds_water_l": told[t.id]}) if t.id in told else t for t in tour.kit)
    return stock_of(tour.model_copy(update={"load": Load(), "kit": kit}), profile)


def stock_of(tour: TourSheet, profile: Profile | None) -> Stock:
    """Supplies along the tour as it is loaded."""
    if profile is None or not tour.riders:
        return Stock.none(tour)
    voyage = play(tour, profile)
    return Stock.of(tour, voyage.stock, voyage.at_km)
