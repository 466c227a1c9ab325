"""What the plays say: counted, with how sure that is, where it happened, and what decided it."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import cast

import numpy as np

from omnifer.core.findings.on_the_road import THIRST_SLOWS
from omnifer.core.model import practice
from omnifer.core.model.kinds_of_finding import FindingKind
from omnifer.core.model.practice import Practice
from omnifer.core.model.quantities import CarriedSupply, Quantity, Text
from omnifer.core.model.rehearsal import (
    AtGap,
    Counted,
    Decides,
    Event,
    FanPoint,
    LeftToChance,
    Outcome,
    OutcomeId,
    PlayTold,
    Range,
    Rank,
    Rehearsal,
    SupplyGap,
    Told,
)
from omnifer.core.model.supplies import CARRIED
from omnifer.core.physics.chance import wilson
from omnifer.core.rehearsal.course import Array, Bools, Course
from omnifer.core.rehearsal.drawn import DRAWN, Drawn
from omnifer.core.rehearsal.kept import Plays
from omnifer.core.sentence import celsius, number, say, whole_hours

MATTERS_H = {"food": 8.0, "fuel": 12.0}
"""Less without it is a late meal, or a cold one [h]; practice."""
LATE_DAYS = 1
"""So much later than planned is late [d]."""
DECIDES = 0.08
"""Who explains less of an outcome than this decides nothing [-]."""
LEAST_PLAYS = 10
"""Of fewer plays nobody says what decided them."""
MOST_TOLD = 3
"""Places of an outcome, and what decides it."""
HARM = {"dry": 4.0, "cold": 4.0, "stuck": 24.0, "hungry": 0.5, "dark": 6.0, "fuelless": 0.2, "late": 12.0}
"""Hours without water, degrees too cold, faults, hours without food, days dark, hours without fuel and days late, held against
each other to say which play was worse; practice."""
LEAVES_OUT = (
    "what companions, drivers and doctors do, and what a rider thinks of at the time",
    "closed roads, ferries that do not go, theft and accidents",
)
TYPED_WEATHER = "the weather was typed: it is the same on every play. Take the climate of a place to see it vary"
NO_BED = "nights too cold: nothing to sleep in is in the kit"


SPEAKS_TO: dict[OutcomeId, list[FindingKind]] = {
    "dry": ["water_gap"], "cold": ["cold_sleep", "cold_night"], "stuck": ["cannot_mend"], "hungry": ["shop_shut"],
    "dark": ["device_dies"], "fuelless": ["fuel_gap"], "late": ["no_slack"],
}  # fmt: skip
"""Findings whose trouble each outcome is."""
NAMES: dict[OutcomeId, tuple[str, str]] = {
    "dry": ("Out of water", ""), "cold": ("Too cold", ""), "stuck": ("Stopped", "faults"), "hungry": ("Out of food", ""),
    "dark": ("Run down", "days"), "fuelless": ("Out of fuel", ""), "late": ("Late", "days"),
}  # fmt: skip
"""What each outcome is called, and what is counted where it is neither hours nor degrees."""


@dataclass(frozen=True)
class Wrong:
    """An outcome as plays have it: how bad in each, 0 where it did not happen, and by gap or place."""

    id: OutcomeId
    words: Text
    quantity: Quantity
    bad: Array
    planned: bool
    where: list[tuple[str, str, float, float, Array]]
    """From, to, from and to where, and how bad in each play."""


def counted(happened: Bools) -> Counted:
    """A share of plays."""
    count, of = int(np.count_nonzero(happened)), int(happened.size)
    low, high = wilson(count, of)
    return Counted(count=count, of=of, low=round(low, 4), high=round(high, 4))


def tell(plays: Plays, plan: Plays, seed: int) -> Rehearsal:
    """All that is told of some plays, beside the plan, which is a play without any chance."""
    wrongs = list(wrongs_of(plays, plan))
    fine = np.all([wrong.bad <= 0 for wrong in wrongs], axis=0)
    return Rehearsal(
        plays=plays.count, seed=seed, fine=counted(fine), outcomes=[_outcome(plays, wrong) for wrong in wrongs],
        gaps=list(_gaps(plays)), fan=list(_fan(plays)), year=list(year_of(plays, plan)), told=_told(plays, wrongs),
        drawn=[_left_to_chance(row, plays.course.usual) for row in DRAWN], leaves_out=list(_leaves_out(plays.course)),
    )  # fmt: skip


def wrongs_of(plays: Plays, plan: Plays) -> Iterator[Wrong]:
    """Every outcome that this tour can have, the harm first."""
    yield _without(plays, plan, "water", say("Without water until work suffers"))
    course = plays.course
    if not np.isnan(course.bears_c).all():
        where = [
            (course.names[place] or "the camp", "", float(course.km[place]), float(course.km[place]),
             np.where(plays.cold_at == place, plays.colder_k, 0.0))
            for place in np.unique(plays.cold_at[plays.cold_at >= 0]).tolist()
        ]  # fmt: skip
        words = say("A night colder than what is slept in")
        yield Wrong("cold", words, "temperature_difference", plays.colder_k, bool(plan.colder_k[0] > 0), where)
    if course.risks:
        yield _stuck(plays)
    yield _without(plays, plan, "food", say("Out of food for more than a missed meal"))
    if course.dark is not None:
        yield _dark(plays, plan)
    if "fuel" in course.stores:
        yield _without(plays, plan, "fuel", say("Out of fuel for an evening and a morning"))
    late = plays.days_late.astype(float)
    moves = [(f"the {t.by}", t.from_km) for t in course.tour.road.transfers if t.from_km > 0]
    behind = [
        (name, "", km, km, np.maximum(np.floor(plays.when[:, place]) - np.floor(course.planned[place]), 0.0))
        for name, km in moves for place in [int(np.searchsorted(course.km, km))]
    ]  # fmt: skip
    yield Wrong("late", say("Later at the end than planned by a day or more"), "count", np.where(late >= LATE_DAYS, late, 0.0),
                False, behind)  # fmt: skip


def lack_that_matters(course: Course, supply: str) -> float:
    """So much of a supply may lack on a stretch without harm, in its unit: water from which no work suffers yet."""
    return THIRST_SLOWS * sum(rider.body_mass_kg for rider in course.tour.riders) if supply == "water" else 0.0


def gone_h(plays: Plays, supply: str) -> Array:
    """Hours without a supply on each stretch where that matters, shape (plays, gaps) [h]."""
    kept = plays.kept[supply]
    matters = kept.lacking > lack_that_matters(plays.course, supply)
    return np.where(matters & (kept.without_h >= MATTERS_H.get(supply, 0.0)), kept.without_h, 0.0)


def _without(plays: Plays, plan: Plays, supply: CarriedSupply, words: Text) -> Wrong:
    store, there = plays.course.stores[supply], gone_h(plays, supply)
    where = [
        (store.gap_names[gap], store.gap_names[gap + 1], float(store.gap_km[gap]), float(store.gap_km[gap + 1]), there[:, gap])
        for gap in range(there.shape[1])
    ]
    return Wrong(CARRIED[supply].runs_out, words, "hours", there.sum(axis=1), bool(gone_h(plan, supply).any()), where)


def _stuck(plays: Plays) -> Wrong:
    course = plays.course
    stops = [risk.kind for risk in course.risks if risk.kind.stops]
    many = np.sum([plays.unmended[kind.id] for kind in stops], axis=0).astype(float) if stops else np.zeros(plays.count)
    where = [
        (kind.words, "", 0.0, float(course.km[-1]), plays.unmended[kind.id].astype(float))
        for kind in stops if plays.unmended[kind.id].any()
    ]  # fmt: skip
    return Wrong("stuck", say("Stopped by a fault that nothing on board mends"), "count", many, False, where)


def _dark(plays: Plays, plan: Plays) -> Wrong:
    dark = plays.course.dark
    assert dark is not None
    step = plays.power_step
    days = dark.days[step].astype(float)
    where = [
        (name, "", float(np.nanmin(dark.first_km[there])), float(plays.course.km[-1]), np.where(there[step], days, 0.0))
        for name in dict.fromkeys(filter(None, dark.names))
        for there in [np.array([one == name for one in dark.names])]
    ]
    words = say("Days with a device that has run down")
    return Wrong("dark", words, "count", days, bool(dark.days[plan.power_step[0]] > 0), where)


def _outcome(plays: Plays, wrong: Wrong) -> Outcome:
    bad = wrong.bad[wrong.bad > 0]
    places = [at_gap(*place) for place in wrong.where if (place[4] > 0).any()]
    places.sort(key=lambda place: (-place.counted.count, place.from_km))
    return Outcome(
        id=wrong.id, supply=next((spec.name for spec in CARRIED.values() if spec.runs_out == wrong.id), None),
        name=NAMES[wrong.id][0], noun=NAMES[wrong.id][1], words=wrong.words, quantity=wrong.quantity,
        counted=counted(wrong.bad > 0),
        middle=round(float(np.median(bad)), 2) if bad.size else 0.0, worst=round(float(bad.max(initial=0.0)), 2),
        planned=wrong.planned, speaks_to=SPEAKS_TO[wrong.id], where=places[:MOST_TOLD], decides=_decides(plays, wrong.bad),
    )  # fmt: skip


def at_gap(from_name: str, to_name: str, from_km: float, to_km: float, bad: Array) -> AtGap:
    """A stretch, and how often and how badly it went wrong there."""
    there = bad[bad > 0]
    return AtGap(
        from_name=from_name, to_name=to_name, from_km=round(from_km, 1), to_km=round(to_km, 1), counted=counted(bad > 0),
        middle=round(float(np.median(there)), 2) if there.size else 0.0, worst=round(float(there.max(initial=0.0)), 2),
    )  # fmt: skip


def _decides(plays: Plays, bad: Array) -> list[Decides]:
    """Which draws explain how bad plays are: squared correlations, each by itself."""
    if np.count_nonzero(bad) < LEAST_PLAYS or np.count_nonzero(bad <= 0) < LEAST_PLAYS:
        return []
    # Ranks, so that one terrible play does not decide what decides.
    ranks = np.argsort(np.argsort(bad, kind="stable"), kind="stable").astype(float)
    ranks[bad <= 0] = ranks[bad <= 0].mean()
    found = []
    for words, drawn in plays.drivers.items():
        if drawn.std() > 0:
            share = float(np.corrcoef(ranks, drawn)[0, 1] ** 2)
            found += [Decides(words=words, share=round(share, 2))] if share >= DECIDES else []
    return sorted(found, key=lambda one: -one.share)[:MOST_TOLD]


def _gaps(plays: Plays) -> Iterator[SupplyGap]:
    for name, store in plays.course.stores.items():
        kept, gone = plays.kept[name], gone_h(plays, name)
        where = np.searchsorted(plays.course.km, store.gap_km)
        for gap in range(store.gap_km.size - 1):
            if store.gap_km[gap + 1] <= plays.course.km[plays.course.begin]:
                continue
            asked, bad = kept.asked[:, gap], gone[:, gap]
            ends = float(store.gap_km[gap]), float(store.gap_km[gap + 1])
            yield SupplyGap(
                supply=cast(CarriedSupply, name), place=at_gap(store.gap_names[gap], store.gap_names[gap + 1], *ends, bad),
                middle_use=round(float(np.median(asked)), 2), high_use=round(float(np.quantile(asked, 0.9)), 2),
                leaving=round(float(store.leaving[where[gap]]), 2),
            )  # fmt: skip


def _fan(plays: Plays) -> Iterator[FanPoint]:
    course = plays.course
    planned = course.planned
    kg = np.sum([plays.kept[n].level * store.unit_kg for n, store in course.stores.items()], axis=0)
    when, heavy = (np.quantile(of, [0.1, 0.5, 0.9], axis=0) for of in (plays.when, kg))
    for place in np.flatnonzero(np.array([bool(name) for name in course.names]) | (course.night >= 0)).tolist():
        low, middle, high = when[:, place].tolist()
        light, usual, most = heavy[:, place].tolist()
        yield FanPoint(
            km=round(float(course.km[place]), 1), name=course.names[place], planned=round(float(planned[place]), 3),
            low=round(low, 3), middle=round(middle, 3), high=round(high, 3), heavy_low_kg=round(light, 2),
            heavy_kg=round(usual, 2), heavy_high_kg=round(most, 2),
        )  # fmt: skip


def year_of(plays: Plays, plan: Plays) -> Iterator[Range]:
    """What the year may do."""

    def of(name: str, quantity: Quantity, figure: Callable[[Plays], Array], planned: bool = True) -> Range:
        low, middle, high = np.quantile(figure(plays), [0.1, 0.5, 0.9]).tolist()
        as_planned = float(figure(plan)[0]) if planned else None
        return Range(
            name=name, quantity=quantity, planned=None if as_planned is None else round(as_planned, 1),
            low=round(low, 1), middle=round(middle, 1), high=round(high, 1),
        )  # fmt: skip

    def heaviest(told: Plays) -> Array:
        stores = told.course.stores
        return np.asarray(np.sum([told.kept[n].level * s.unit_kg for n, s in stores.items()], axis=0).max(axis=1))

    yield of("Days on the way", "count", lambda told: np.floor(told.when[:, -1]) + 1)
    if plan.rests[0]:
        yield of("Days of rest as planned", "count", lambda told: told.rests.astype(float))
    yield of("Days lost to illness", "count", lambda told: told.ill.astype(float), planned=False)
    yield of("Wet days", "count", lambda told: told.wet_days.astype(float), planned=False)
    yield of("Most supplies at once", "mass", heaviest)
    if np.isfinite(plays.coldest_c).all() and np.isfinite(plan.coldest_c).all():
        yield of("Coldest night", "temperature", lambda told: told.coldest_c)
    if not np.isnan(plays.course.bears_c).all():
        yield of("Nights too cold for the bed", "count", lambda told: told.cold_nights.astype(float))
    if plays.mended:
        faults = [plays.mended[kind] + plays.unmended[kind] for kind in plays.mended]
        low, middle, high = np.round(np.quantile(np.sum(faults, axis=0), [0.1, 0.5, 0.9])).tolist()
        yield Range(name="Faults of the bikes", quantity="count", planned=None, low=low, middle=middle, high=high)


def _told(plays: Plays, wrongs: list[Wrong]) -> list[Told]:
    harm = sum(HARM[wrong.id] * wrong.bad for wrong in wrongs) + 1e-3 * plays.when[:, -1]
    order = np.argsort(harm, kind="stable")
    picks: tuple[tuple[Rank, float], ...] = (("middling", 0.5), ("bad", 0.9), ("worst", 1.0))
    return [_one(plays, wrongs, int(order[round(at * (plays.count - 1))]), rank) for rank, at in picks]


def _one(plays: Plays, wrongs: list[Wrong], row: int, rank: Rank) -> Told:
    return Told(
        number=plays.first + row, rank=rank, days_late=int(plays.days_late[row]),
        wrong=[wrong.id for wrong in wrongs if wrong.bad[row] > 0],
    )  # fmt: skip


def play_told(plays: Plays, plan: Plays, row: int) -> PlayTold:
    """One play along the road, with what happened."""
    course, wrongs = plays.course, list(wrongs_of(plays, plan))
    level = {name: np.round(plays.kept[name].level[row].astype(float), 2).tolist() for name in plays.kept}
    nothing = [0.0] * course.places
    events = sorted(_events(plays, row), key=lambda event: event.km)
    return PlayTold(
        told=_one(plays, wrongs, row, "asked"), km=np.round(course.km, 2).tolist(), names=course.names,
        when=np.round(plays.when[row], 3).tolist(),
        behind=np.round(plays.when[row] - course.planned, 3).tolist(),
        water_l=level["water"], food_kg=level["food"], fuel_kg=level.get("fuel", nothing), events=events,
    )  # fmt: skip


def _events(plays: Plays, row: int) -> Iterator[Event]:
    course = plays.course

    def at(km: float, words: Text) -> Event:
        day = float(np.interp(km, course.km, plays.when[row]))
        return Event(km=round(km, 1), day=round(day, 2), words=words)

    for name, kept in plays.kept.items():
        gone = gone_h(plays, name)[row]
        for gap in np.flatnonzero(gone).tolist():
            words = say("no {supply} for {hours}", supply=name, hours=whole_hours(float(gone[gap])))
            yield at(float(kept.without_km[row, gap]), words)
    if plays.colder_k[row] > 0:
        place = int(plays.cold_at[row])
        yield at(float(course.km[place]), say("a night of {low}", low=celsius(course.bears_c[place] - plays.colder_k[row])))
    if plays.ill_at[row] >= 0:
        yield at(float(course.km[plays.ill_at[row]]), say("ill; {days:day|days} in all", days=number(int(plays.ill[row]))))
    for risk in course.risks:
        if plays.unmended[risk.kind.id][row] and risk.kind.stops:
            yield at(float(plays.stuck_at[row]), say("stopped: {fault}", fault=risk.kind.words.lower()))


def _left_to_chance(row: Drawn, usual: Practice) -> LeftToChance:
    defaults = practice.fields()
    widths = [
        f"{defaults[key][0].description}: {getattr(usual, key):g} {'' if unit in ('', 'share') else unit}".strip()
        for key in row.widths for unit in [defaults[key][1]["unit"]]
    ]  # fmt: skip
    return LeftToChance(words=row.words, how=row.how, widths=widths)


def _leaves_out(course: Course) -> Iterator[str]:
    if not course.riding.high_k.any():
        yield TYPED_WEATHER
    if np.isnan(course.bears_c).all():
        yield NO_BED
    yield from LEAVES_OUT
