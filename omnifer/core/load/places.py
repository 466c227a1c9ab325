"""Where things in hand could go now: every carrier, whether they fit there with what is already in it, and if not why."""

from collections.abc import Iterator, Sequence

from pydantic import Field

from omnifer.core.load.limits import InHand, Loaded, fits
from omnifer.core.load.nesting import as_one
from omnifer.core.load.rules import FOOD, clash, spot_of, steps_too_deep, why_not
from omnifer.core.load.trace import CarrierContents
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.rig import Bike
from omnifer.core.sentence import say


class PlaceFor(Noun):
    """One carrier for what is in hand."""

    carrier_id: str
    fits: bool
    reason: Text | None = Field(description="Why it does not fit, or what speaks against it")
    deep: int = Field(description="How many moments later than wanted a hand finds it there")


def places_for(loaded: Loaded, in_hand: Sequence[InHand]) -> list[PlaceFor]:
    """All carriers for all that is in hand, those that it fits and is in reach first."""
    places = []
    for bike in loaded.bikes:
        for inside in bike.contents:
            reason = next(against(loaded, bike.bike, inside, in_hand), None)
            deep = max((steps_too_deep(held.thing, inside.carrier) for held in in_hand), default=0)
            note = say("found later than it is wanted") if reason is None and deep else reason
            places.append(PlaceFor(carrier_id=inside.carrier.id, fits=reason is None, reason=note, deep=deep))
    return sorted(places, key=lambda place: (not place.fits, place.deep))


def against(loaded: Loaded, bike: Bike, inside: CarrierContents, in_hand: Sequence[InHand]) -> Iterator[Text]:
    """Reasons against putting all that is in hand, with what rides in it, into a carrier."""
    whole = {thing.id: thing for thing in as_one(loaded.tour).kit}
    things, spot = [whole[held.thing.id] for held in in_hand], spot_of(bike, inside.carrier)
    for thing in things:
        if (reason := why_not(thing, spot)) is not None:
            yield reason if len(things) == 1 else _named(thing.name, reason)
    for limit, over in fits(loaded, in_hand, inside.carrier.id):
        yield limit.over_by(over)
    ids = {thing.id for thing in things}
    beside = [whole[other.id] for other, _ in inside.inside if other.inside is None and other.id not in ids] + things
    if inside.food_kg.any():
        beside.append(FOOD)
    for thing in things:
        yield from (reason for other in beside if other is not thing and (reason := clash(thing, other)) is not None)


def _named(name: str, reason: Text) -> Text:
    return Text(words="{thing}: " + reason.words, figures=reason.figures, names=reason.names | {"thing": name})
