"""What stays at home, another date, another bag."""

import datetime as dt
from collections.abc import Iterator

from omnifer.core.assess import situation_of
from omnifer.core.findings import look_for
from omnifer.core.load.keep import still_standing
from omnifer.core.load.nesting import nested_in
from omnifer.core.mends.change import checked, mended
from omnifer.core.mends.elsewhere import NAMED, Elsewhere
from omnifer.core.mends.trial import LESS
from omnifer.core.model.carrier_kind import KINDS, LARGEST
from omnifer.core.model.finding import Mend
from omnifer.core.sentence import kg, litres, number, say

SHIFTS_D = (-28, -14, 14, 28)
"""Other dates that are tried [d]."""
SMALLER = (0.9, 0.8, 0.7, 0.6)
"""Parts of its volume that a bag is tried at that does not fit [-]."""


def left_at_home(trial: Elsewhere) -> Iterator[Mend]:
    """What may stay, and whose leaving ends it: the lightest such thing."""
    if not trial.spec.too_much:
        return
    nested = nested_in(trial.tour.kit)
    may = [thing for thing in trial.tour.kit if thing.may_stay and thing.inside is None]
    if trial.finding.kind == "on_shelf":
        out = set(trial.finding.thing_ids)
        groups = [[t for t in may if t.id in out]] if any(t.id in out for t in may) else []
    else:
        riding = {i for i, _ in trial.candidates()}
        there = {trial.problem.thing_ids[i] for i in riding}
        groups = [[t] for t in sorted(may, key=lambda t: t.mass_kg * t.count) if t.id in there]
    for things in groups:
        gone = [inner.id for thing in things for inner in (thing, *nested.get(thing.id, []))]
        kit = tuple(t for t in trial.tour.kit if t.id not in gone)
        without = trial.tour.model_copy(update={"kit": kit, "load": still_standing(trial.tour.load, kit, trial.tour.rig)})
        left = trial.left(trial.here.loaded_otherwise(without, trial.road))
        if left <= LESS:
            mass = sum(t.mass_kg * t.count for t in trial.tour.kit if t.id in gone)
            mend = Mend(name=say("-"), consequence=say("-"), gone=gone)
            named = ", ".join(t.name for t in things[:NAMED]) + (" ..." if len(things) > NAMED else "")
            yield checked(mend, say("Leave {things}", things=named), say("it may stay; {mass} less", mass=kg(mass)), left)
            return


def other_dates(trial: Elsewhere) -> Iterator[Mend]:
    """The date within a month at which least of it is left."""
    if trial.road is None:
        return
    found = []
    for days in SHIFTS_D:
        date = trial.tour.start_date + dt.timedelta(days=days)
        then = look_for(trial.finding.kind, situation_of(trial.tour.model_copy(update={"start_date": date}), trial.road))
        draft = then.get(trial.finding.id)
        found.append((0.0 if draft is None else draft.size, abs(days), days, date, draft))
    size, _, days, date, draft = min(found, key=lambda f: f[:2])
    if size < trial.finding.size * LESS:
        later = "later" if days > 0 else "earlier"
        told = say("then none is found") if draft is None else draft.sentence
        yield Mend(name=say(f"Set out {{weeks}} weeks {later}", weeks=number(abs(days) // 7)), consequence=told, start_date=date)


def other_bags(trial: Elsewhere) -> Iterator[Mend]:
    """A larger bag of its kind, as far as such bags are made, or a smaller one where it does not fit."""
    bag = next((c for c in trial.tour.carriers if c.id == trial.finding.carrier_id), None)
    if bag is None:
        return
    if trial.finding.kind == "no_fit":
        sizes = [round(bag.volume_l * part, 1) for part in SMALLER]
    else:
        wanted = bag.volume_l + (trial.finding.need or 0) - (trial.finding.holds or 0) + 0.1
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
        if trial.left_loaded(mended(trial.tour, mend)) == 0:
            yield mend
            return
