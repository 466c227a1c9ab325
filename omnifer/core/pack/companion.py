"""One page a rider: which bag holds what the companion may have to find; and the straps, counted."""

from collections.abc import Iterator

from omnifer.core.model.assessment import Assessment, PackCard
from omnifer.core.model.kit import Thing
from omnifer.core.model.pack import RiderPage, Straps, WhereIs
from omnifer.core.model.people import Rider
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import is_mine

ELSEWHERE: dict[str, str] = {"worn": "worn", "pocket": "in a pocket", "fixed": "fixed to the bike"}
"""What is in no bag is told as this."""
SPARE_STRAPS = 2
"""Straps besides those that are needed; practice."""
WANTED: tuple[tuple[str, tuple[str, ...], tuple[str, ...]], ...] = (
    ("First aid", ("first_aid",), ()),
    ("Rain jackets", (), ("rain_jacket", "rain_cape")),
    ("Warm layer", (), ("warm_jacket", "fleece")),
    ("Papers and money", ("papers",), ("passport", "cash", "bank_card")),
    ("Tools", (), ("keys", "spanner", "levers")),
    ("Tubes and pump", (), ("tube", "pump", "patches")),
    ("Lamp", (), ("torch",)),
    ("Medicine", (), ("medicine",)),
    ("Emergency call", (), ("messenger", "whistle")),
    ("Tent", ("shelter",), ()),
)
"""What is sought in a hurry, by natures and by what serves it; practice."""
ORDER = {words: n for n, (words, _, _) in enumerate(WANTED)}


def rider_pages(tour: TourSheet, found: Assessment) -> list[RiderPage]:
    """A page for each rider."""
    things = {thing.id: thing for thing in tour.kit}
    cards = {card.carrier_id: card for card in found.cards}
    return [
        RiderPage(
            rider_id=rider.id, name=rider.name,
            lines=sorted(
                (
                    *(line for bike in tour.rig.bikes if bike.rider_id == rider.id for line in _lines(bike, cards, things)),
                    *_on_the_body(tour, rider),
                ),
                key=lambda line: ORDER[line.words],
            ),
        )
        for rider in tour.riders
    ]  # fmt: skip


def _lines(bike: Bike, cards: dict[str, PackCard], things: dict[str, Thing]) -> Iterator[WhereIs]:
    for words, natures, serves in WANTED:
        for carrier in bike.carriers:
            layers = cards[carrier.id].layers
            for depth, layer in enumerate(reversed(layers)):
                thing = things[layer.thing_id]
                if set(natures) & set(thing.natures) or set(serves) & set(thing.serves):
                    yield WhereIs(
                        words=words,
                        thing=thing.name,
                        bike=bike.name,
                        carrier_id=carrier.id,
                        bag=carrier.name,
                        mark=_mark(carrier),
                        step="on top" if depth == 0 else f"under {depth} {'thing' if depth == 1 else 'things'}",
                    )


def _on_the_body(tour: TourSheet, rider: Rider) -> Iterator[WhereIs]:
    """What is sought and rides in no bag: worn, in a pocket, fixed to the bike."""
    bike = next((bike for bike in tour.rig.bikes if bike.rider_id == rider.id), None)
    for words, natures, serves in WANTED:
        for thing in tour.located:
            how = thing.where[0].how if thing.where else "packed"
            sought = set(natures) & set(thing.natures) or set(serves) & set(thing.serves)
            if bike is not None and sought and how in ELSEWHERE and is_mine(tour, thing, rider.id):
                yield WhereIs(words=words, thing=thing.name, bike=bike.name, carrier_id="", bag=ELSEWHERE[how], mark="", step="")


def _mark(carrier: Carrier) -> str:
    return ", ".join(part for part in (carrier.side if carrier.side != "middle" else "", carrier.colour) if part)


def straps_of(tour: TourSheet) -> list[Straps]:
    """The straps of each bike, and the bags that stop with one of them."""
    return [
        Straps(
            bike_id=bike.id, needed=sum(c.straps for c in bike.carriers), spare=SPARE_STRAPS,
            hang=[c.name for c in bike.carriers if c.straps > 0],
        )
        for bike in tour.rig.bikes
    ]  # fmt: skip
