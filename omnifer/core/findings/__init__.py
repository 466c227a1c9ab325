"""What goes wrong, where, when and why, and what would mend it: one kind of trouble, one function."""

from collections.abc import Container, Iterable, Iterator, Set
from dataclasses import replace

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
    placing,
    rig,
    shops,
    slack,
    sleep,
    stores,
)
from omnifer.core.findings.gather import BUDGET, gathered, harm, is_small, keyed, told_of, worst_first
from omnifer.core.findings.situation import Check, Draft, Situation
from omnifer.core.model.finding import GRADES, Finding, FindingKind
from omnifer.core.model.quantities import Quantity, Text
from omnifer.core.sentence import number
from omnifer.core.stages import Stage

QUANTITIES: dict[FindingKind, Quantity] = {"water_gap": "volume", "over_volume": "volume", "runs_out": "count"}
"""Of need and what holds it; a mass where nothing else is said."""
SHOWN_PER_KIND = 4
"""Findings of one kind shown singly; the rest is summed up in the last."""

CHECKS: dict[Check, tuple[FindingKind, ...]] = {
    on_the_road.water_gaps: ("water_gap",),
    limits.limits_exceeded: (
        "over_volume", "over_mass", "over_support", "over_wheel", "over_system", "hitch_load", "front_lifts", "near_limit",
    ),
    limits.pressed_carriers: ("pressed",),
    rig.misfits: ("no_fit",),
    rig.stances: ("too_wide", "tyre_pressure"),
    rig.soft_ground: ("soft_ground",),
    rig.improvised: ("improvised",),
    placing.misplaced: ("not_dry", "falls_out", "left_behind", "too_deep", "too_long", "not_together"),
    placing.sides: ("sides",),
    placing.front_shares: ("front_share",),
    on_the_road.food_room: ("no_room_for_food",),
    placing.shelf: ("on_shelf",),
    shops.shops: ("shop_shut",),
    day_by_day.days: ("dark_day", "long_day", "walking"),
    day_by_day.too_few: ("too_few_days",),
    heights.nights: ("climbs_fast", "sleeps_high"),
    heights.passes: ("pass_shut",),
    slack.nights: ("no_bed",),
    slack.days_in_hand: ("no_slack", "days_left"),
    slack.wet_runs: ("wet_runs",),
    slack.long_ways: ("long_way",),
    slack.childs_loads: ("childs_load",),
    on_the_road.hot_days: ("hot_day",),
    on_the_road.cold_nights: ("cold_night",),
    on_the_road.frozen_skin: ("frostbite",),
    clothes.without_clean: ("no_clean",),
    sleep.cold: ("cold_sleep",),
    sleep.surplus: ("warm_surplus",),
    asked.unanswered: ("thin_layers", "no_shelter", "not_seen", "not_safe", "incomplete"),
    asked.unmendable: ("cannot_mend",),
    asked.cold_evenings: ("cold_evening",),
    belongings.doubles: ("twice",),
    belongings.single: ("hangs_on_one",),
    belongings.not_ready: ("untried", "worn_out", "mismatch", "to_get"),
    belongings.large: ("big_thing",),
    belongings.not_asked: ("not_asked", "idle_shelter"),
    belongings.going_home: ("may_go_home",),
    placing.guesses: ("guesses",),
    stores.fuel_gaps: ("fuel_gap",),
    stores.running_out: ("runs_out",),
    electric.dying_devices: ("device_dies",),
    fire_and_frost.untreated_water: ("untreated",),
    fire_and_frost.frost: ("filter_frost", "gas_frost", "bottles_freeze"),
    fire_and_frost.fires: ("one_fire", "wrong_fuel"),
    electric.single_points: ("single_point", "no_plug"),
    electric.idle_panel: ("panel_idle",),
    stores.snacks: ("snacks_deep",),
    stores.lost_steps: ("step_lost",),
}  # fmt: skip
"""Every check and the kinds of trouble it looks for."""


TOLD: dict[Check, Stage[dict[str, Draft]]] = {check: told_of(check) for check in CHECKS}
"""What each check finds, as a stage that is kept."""

OF_THE_KIT = frozenset(
    kind for check, kinds in CHECKS.items() if check.look.__module__ in {m.__name__ for m in (asked, belongings, clothes, sleep)}
    for kind in kinds
)  # fmt: skip
"""Trouble with what the kit is for: nights, clothes, needs, and the things themselves."""


OF_PREPARING: frozenset[FindingKind] = frozenset(
    ("on_shelf", "untried", "to_get", "twice", "not_asked", "idle_shelter", "big_thing", "guesses")
)  # fmt: skip
"""Trouble that is mended at home, and of which nobody wants to hear on the road."""


def find(situation: Situation, but: Set[FindingKind] = frozenset()) -> list[Finding]:
    """All findings but of some kinds, ranked: those set aside last, small things before them; by grade, by what they
    harm, then the day on which they bite, then size."""
    checks = [check for check, kinds in CHECKS.items() if not set(kinds) <= but]
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
        _ranked(rank, key, draft, aside.get(key), is_small(draft) or (rank > BUDGET and draft.grade != GRADES[0]))
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
    checks = (check for check, kinds in CHECKS.items() if kind in kinds)
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
        quantity=None if draft.need is None else QUANTITIES.get(draft.kind, "mass"),
    )
