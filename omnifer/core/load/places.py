"""Where one thing could go now: every carrier, whether it fits there with what is already in it, and if not why."""

from pydantic import Field

from omnifer.core.load.rules import clash, steps_too_deep, why_not
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.sentence import kg, litres, say


class PlaceFor(Noun):
    """One carrier for one thing."""

    carrier_id: str
    fits: bool
    reason: Text | None = Field(description="Why it does not fit, or what speaks against it")
    deep: int = Field(description="How many moments later than wanted a hand finds it there")


def places_for(thing: Thing, bikes: list[BikeLoad]) -> list[PlaceFor]:
    """All carriers for one more of a thing, those that fit and are in reach first."""
    places = []
    for bike in bikes:
        for held in bike.contents:
            reason = why_not(thing, held.carrier, bike.bike)
            if reason is None:
                full = float(held.borne_kg.max()) + thing.mass_kg + thing.holds_water_l
                over_kg = full - held.carrier.limit_kg
                over_l = float(held.pressed_l.max()) + thing.least_l - held.brim_l
                clashes = (clash(thing, other) for other, _ in held.inside if other.id != thing.id)
                if over_l > 1e-6:
                    reason = say("{over} too big for the room left", over=litres(over_l))
                elif over_kg > 1e-6:
                    reason = say("over its limit by {over}", over=kg(over_kg))
                else:
                    reason = next((c for c in clashes if c is not None), None)
            deep = steps_too_deep(thing, held.carrier)
            note = say("found later than it is wanted") if reason is None and deep else reason
            places.append(PlaceFor(carrier_id=held.carrier.id, fits=reason is None, reason=note, deep=deep))
    return sorted(places, key=lambda place: (not place.fits, place.deep))
