"""Where things in hand could go now: every carrier, whether they fit there with what is already in it, and if not why."""

from collections.abc import Iterator

from pydantic import Field

from omnifer.core.load.rules import clash, spot_of, steps_too_deep, why_not
from omnifer.core.load.trace import BikeLoad, CarrierContents
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.rig import Bike
from omnifer.core.sentence import kg, litres, say

InHand = list[tuple[Thing, int]]
"""Things and how many of each."""


class PlaceFor(Noun):
    """One carrier for what is in hand."""

    carrier_id: str
    fits: bool
    reason: Text | None = Field(description="Why it does not fit, or what speaks against it")
    deep: int = Field(description="How many moments later than wanted a hand finds it there")


def places_for(in_hand: InHand, bikes: list[BikeLoad]) -> list[PlaceFor]:
    """All carriers for all that is in hand, those that it fits and is in reach first."""
    places = []
    for bike in bikes:
        for held in bike.contents:
            against = next(_against(in_hand, held, bike.bike), None)
            deep = max((steps_too_deep(thing, held.carrier) for thing, _ in in_hand), default=0)
            note = say("found later than it is wanted") if against is None and deep else against
            places.append(PlaceFor(carrier_id=held.carrier.id, fits=against is None, reason=note, deep=deep))
    return sorted(places, key=lambda place: (not place.fits, place.deep))


def _against(in_hand: InHand, held: CarrierContents, bike: Bike) -> Iterator[Text]:
    """Reasons against putting all that is in hand into a carrier."""
    for thing, _ in in_hand:
        if (reason := why_not(thing, spot_of(bike, held.carrier))) is not None:
            yield (
                reason
                if len(in_hand) == 1
                else Text(words="{thing}: " + reason.words, figures=reason.figures, names=reason.names | {"thing": thing.name})
            )
    over_l = float(held.pressed_l.max()) + sum(t.least_l * n for t, n in in_hand) - held.brim_l
    over_kg = float(held.borne_kg.max()) + sum((t.mass_kg + t.holds_water_l) * n for t, n in in_hand) - held.carrier.limit_kg
    if over_l > 1e-6:
        yield say("{over} too big for the room left", over=litres(over_l))
    if over_kg > 1e-6:
        yield say("over its limit by {over}", over=kg(over_kg))
    ids = {thing.id for thing, _ in in_hand}
    beside = [other for other, _ in held.inside if other.id not in ids] + [thing for thing, _ in in_hand]
    for thing, _ in in_hand:
        yield from (reason for other in beside if other is not thing and (reason := clash(thing, other)) is not None)
