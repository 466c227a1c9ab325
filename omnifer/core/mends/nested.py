"""Things that go into others, where room is lacking."""

from collections.abc import Iterator

from omnifer.core.findings.mending import otherwise
from omnifer.core.load.homes import homes_of
from omnifer.core.mends.change import checked, mended
from omnifer.core.mends.elsewhere import Elsewhere
from omnifer.core.mends.trial import LESS
from omnifer.core.model.finding import Mend
from omnifer.core.model.load import Placement
from omnifer.core.sentence import litres, say


def packed_into(trial: Elsewhere) -> Iterator[Mend]:
    """The first thing whose riding in another ends a want of room, or lessens it much."""
    if not trial.spec.too_much:
        return
    at = {p.thing_id: p.carrier_id for p in trial.tour.load.placements}
    for thing, outer in homes_of(trial.tour):
        if outer.id not in at:
            continue
        mend = Mend(
            name=say("-"), consequence=say("-"), things=[otherwise(thing, inside=outer.id)],
            moves=[Placement(thing_id=thing.id, carrier_id=at[outer.id], count=thing.count)],
        )  # fmt: skip
        left = trial.left_loaded(mended(trial.tour, mend))
        if left <= LESS:
            name = say("{thing} into {outer}", thing=thing.name, outer=outer.name)
            yield checked(mend, name, say("{volume} less beside it", volume=litres(thing.volume_l * thing.count)), left)
            return
