"""What goes wrong, where, when and why, and what would mend it: one kind of trouble, one function."""

from collections.abc import Container, Iterable, Iterator, Set
from dataclasses import replace
from types import ModuleType
from typing import get_args

from omnifer.core.findings import (
    asked,
    belongings,
    clothes,
    day_by_day,
    electric,
    fire_and_frost,
    heights,
    limits,
    on_the_road,
    parts,
    placing,
    rig,
    shops,
    slack,
    sleep,
    stores,
)
from omnifer.core.findings.gather import BUDGET, gathered, keyed, told_of, worst_first
from omnifer.core.findings.situation import Check, Draft, Harm, Situation, Spec
from omnifer.core.model.finding import GRADES, Finding, FindingKind
from omnifer.core.model.quantities import Text
from omnifer.core.road.beside import spot
from omnifer.core.sentence import joined, km, number, say
from omnifer.core.stages import Stage

AT_KM = 0.5
"""One is still at a place so far past it [km]; practice."""
SHOWN_PER_KIND = 4
"""Findings of one kind shown singly; the rest is summed up in the last."""

OF_THE_KIT_ITSELF = (clothes, sleep, asked, belongings)
"""Topics of trouble with what the kit is for: nights, clothes, needs, and the things themselves."""
TOPICS: tuple[ModuleType, ...] = (
    on_the_road, limits, rig, placing, shops, day_by_day, heights, slack, parts, *OF_THE_KIT_ITSELF, stores, electric,
    fire_and_frost,
)  # fmt: skip
CHECKS: tuple[Check, ...] = tuple(check for topic in TOPICS for check in vars(topic).values() if isinstance(check, Check))
"""Every look for trouble."""
SPECS: dict[FindingKind, Spec] = {spec.kind: spec for check in CHECKS for spec in check.finds}
"""All that is said of each kind of trouble."""
TOLD: dict[Check, Stage[dict[str, Draft]]] = {check: told_of(check) for check in CHECKS}
"""What each check finds, as a stage that is kept."""
OF_THE_KIT = frozenset(
    kind for check in CHECKS if check.look.__module__ in {topic.__name__ for topic in OF_THE_KIT_ITSELF} for kind in check.kinds
)
OF_PREPARING = frozenset(kind for kind, spec in SPECS.items() if spec.preparing)
"""Trouble that is mended at home, and of which nobody wants to hear on the road."""


def harm(draft: Draft) -> int:
    """How bad a trouble is beside others of its grade: 0 is worst."""
    return 0 if draft.hurts else get_args(Harm).index(SPECS[draft.kind].harm)


def is_small(draft: Draft) -> bool:
    """Whether it is told among the small things."""
    return draft.grade == "worth_knowing" and SPECS[draft.kind].small


def find(situation: Situation, but: Set[FindingKind] = frozenset()) -> list[Finding]:
    """All findings but of some kinds, ranked: those set aside last, small things before them; by grade, by what they
    harm, then the day on which they bite, then size."""
    checks = [check for check in CHECKS if not check.kinds <= but]
    told = [situation.at[TOLD[check]] for check in checks]
    aside = {
        one.finding_id: one.reason
        for one in situation.tour.set_aside
        for drafts in told
        if one.finding_id in drafts and (not one.cases or set(drafts[one.finding_id].cases) <= set(one.cases))
    }
    found = (entry for drafts in told for entry in _bounded(drafts.items(), aside))
    all_ = [entry for entry in found if entry[1].kind not in but]
    all_.sort(key=lambda f: (f[0] in aside, is_small(f[1]), GRADES.index(f[1].grade), harm(f[1]), f[1].day or 0, -f[1].size))
    return [
        _ranked(
            rank, key, _named(draft, situation), aside.get(key), is_small(draft) or (rank > BUDGET and draft.grade != GRADES[0])
        )
        for rank, (key, draft) in enumerate(all_, 1)
    ]


def look_for(kind: FindingKind, situation: Situation) -> dict[str, Draft]:
    """What there is of one kind, by what findings of it are called."""
    return dict(keyed(gathered(_drafts(kind, situation))))


def cases_of(finding: Finding, situation: Situation) -> list[Finding]:
    """What a finding was gathered from, each as if it were told alone."""
    drafts = [draft for draft in _drafts(finding.kind, situation) if draft.cause and draft.key == finding.id]
    return [_ranked(finding.rank, key, draft, None, finding.small) for key, draft in keyed(map(_alone, drafts))]


def look_for_cases(kind: FindingKind, situation: Situation) -> dict[str, Draft]:
    """What there is of one kind, nothing gathered."""
    return dict(keyed(map(_alone, _drafts(kind, situation))))


def _alone(draft: Draft) -> Draft:
    return replace(draft, cause="")


def _drafts(kind: FindingKind, situation: Situation) -> Iterator[Draft]:
    checks = (check for check in CHECKS if kind in check.kinds)
    return (draft for check in checks for draft in check(situation) if draft.kind == kind)


def all_drafts(situation: Situation) -> dict[str, Draft]:
    """All trouble there is, told or not, each by itself, by what a finding of it alone would be called."""
    return {key: draft for check in CHECKS for key, draft in keyed(map(_alone, check(situation)))}


def _bounded(drafts: Iterable[tuple[str, Draft]], aside: Container[str]) -> Iterator[tuple[str, Draft]]:
    """Of each kind the worst few; the last shown says how many more there are. What is set aside is shown besides."""
    by_kind: dict[str, list[tuple[str, Draft]]] = {}
    for key, draft in drafts:
        if key in aside:
            yield key, draft
        else:
            by_kind.setdefault(draft.kind, []).append((key, draft))
    for found in by_kind.values():
        found.sort(key=lambda f: worst_first(f[1]))
        shown, rest = found[:SHOWN_PER_KIND], len(found) - SHOWN_PER_KIND
        if rest > 0:
            key, last = shown[-1]
            words = last.reason.words + " {more} more of this kind."
            figures = last.reason.figures | {"more": number(rest)}
            shown[-1] = key, replace(last, reason=Text(words=words, figures=figures, names=last.reason.names))
        yield from shown


def _named(draft: Draft, situation: Situation) -> Draft:
    """With the name of the last place passed, where its sentence does not name it: nobody knows a road by kilometres."""
    voyage = situation.voyage
    near = None if draft.at_km is None or voyage is None else spot(voyage.profile, situation.tour.road.stops, draft.at_km)
    if near is None or near[0] in draft.sentence.names.values() or draft.at_km == 0:
        return draft
    name, past = near
    there = say("{name}", name=name) if past < AT_KM else say("{past} past {name}", past=km(past), name=name)
    return replace(draft, place=joined([draft.place, there], ", "))


def _ranked(rank: int, key: str, draft: Draft, aside: str | None, small: bool) -> Finding:
    return Finding(
        id=key,
        kind=draft.kind,
        grade=draft.grade,
        rank=rank,
        size=round(draft.size, 3),
        of_kit=draft.kind in OF_THE_KIT,
        aside=aside,
        small=small,
        cases=list(draft.cases),
        sentence=draft.sentence,
        reason=draft.reason,
        place=draft.place,
        at_km=draft.at_km,
        to_km=draft.to_km,
        day=draft.day,
        bike_id=draft.bike_id,
        carrier_id=draft.carrier_id,
        thing_ids=list(draft.things),
        need=draft.need,
        holds=draft.holds,
        parts=draft.parts,
        quantity=None if draft.need is None else SPECS[draft.kind].quantity,
    )
