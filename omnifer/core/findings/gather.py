"""One trouble, one finding: what has one cause is told once, the worst of it first; what harms little is told last."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import replace
from itertools import chain

from omnifer.core.findings.situation import Check, Draft, Situation, later
from omnifer.core.model.finding import GRADES, FindingKind, Mend
from omnifer.core.sentence import joined, say
from omnifer.core.stages import Reading, Stage

NAMED = 8
"""Cases of one cause that are named; of more it is said how many there are."""
NAMED_TOGETHER = 3
"""Mends taken together that are told by their names; of more it is said how many there are."""
MOST_MENDS = 6
"""Of what helps against all of them together."""

BUDGET = 15
"""So many findings are read; of what comes after them only what stops is told, the rest is folded as well; practice."""


def worst_first(draft: Draft) -> tuple[int, float]:
    """Orders drafts of a kind."""
    return GRADES.index(draft.grade), -draft.size


def gathered(drafts: Iterable[Draft]) -> Iterator[Draft]:
    """Drafts with those of one cause made one."""
    by_cause: dict[tuple[FindingKind, str], list[Draft]] = {}
    for draft in drafts:
        if draft.cause:
            by_cause.setdefault((draft.kind, draft.cause), []).append(draft)
        else:
            yield draft
    for found in by_cause.values():
        yield _as_one(sorted(found, key=worst_first))


def keyed(drafts: Iterable[Draft]) -> Iterator[tuple[str, Draft]]:
    """Drafts, each with what no other is called."""
    taken: Counter[str] = Counter()
    for draft in drafts:
        taken[draft.key] += 1
        yield draft.key + (f":{taken[draft.key]}" if taken[draft.key] > 1 else ""), draft


def told_of(check: Check) -> Stage[dict[str, Draft]]:
    """What a check finds, each cause once and by what it is called, as a stage; what would help is not kept."""

    def told(at: Reading) -> dict[str, Draft]:
        return {key: replace(draft, mends=()) for key, draft in keyed(gathered(check(Situation(at))))}

    return Stage(told, check.reads, named=check.look)


def _all_at_once(offered: list[list[Mend]]) -> Iterator[Mend]:
    """The first mend of each case as one, where they do not touch the same things."""
    firsts = [next((mend for mend in offers if mend.changes), None) for offers in offered]
    each = list({repr(mend): mend for mend in firsts if mend is not None}.values())
    things, moves = [t for mend in each for t in mend.things], [p for mend in each for p in mend.moves]
    starts = [start for mend in each for start in mend.starts]
    touched = [
        {t.id for t in mend.things} | {p.thing_id for p in mend.moves} | {repr(s.at_km) for s in mend.starts} for mend in each
    ]
    apart = sum(map(len, touched)) == len(set().union(*touched))
    alike = all(
        mend == Mend(name=mend.name, consequence=mend.consequence, things=mend.things, moves=mend.moves, starts=mend.starts)
        for mend in each
    )
    if len(each) > 1 and apart and alike:
        told = {repr(mend.consequence): mend.consequence for mend in each[:NAMED_TOGETHER]}
        name = joined([mend.name for mend in each]) if len(each) <= NAMED_TOGETHER else say("All {n}", n=str(len(each)))
        yield Mend(name=name, consequence=joined(told.values()), things=things, moves=moves, starts=starts)


def _as_one(found: list[Draft]) -> Draft:
    """The worst one, with the others listed in its reason, and with what helps against any of them."""
    names = tuple(sorted(replace(draft, cause="").key for draft in found))
    lead, others = replace(found[0], cases=names), found[1:]
    if not others:
        return lead
    cases = [draft.case or draft.sentence for draft in others[:NAMED]]
    if len(others) > NAMED:
        cases.append(say("{more} more", more=str(len(others) - NAMED)))
    also = joined([case.model_copy(update={"words": case.words.rstrip(".")}) for case in cases])
    told = joined([lead.reason, also.model_copy(update={"words": f"Also: {also.words}."})], " ")
    return replace(
        lead, reason=told, size=sum(d.size for d in found), things=tuple(dict.fromkeys(t for d in found for t in d.things)),
        mends=later(_against_all, found),
    )  # fmt: skip


def _against_all(found: list[Draft]) -> list[Mend]:
    """What helps against any of them, the first of each at once before all others."""
    offered = [draft.offers() for draft in found]
    mends = {repr(mend.name): mend for mend in _all_at_once(offered)}
    for mend in chain.from_iterable(offered):
        mends.setdefault(repr(mend.name), mend)
    return list(mends.values())[:MOST_MENDS]
