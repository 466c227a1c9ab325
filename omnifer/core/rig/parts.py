"""Compartments, pockets and nets: what they weigh counts for the bag they are part of, what they take of its room too."""

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.rig import Bike, Carrier


def parts_of(bike: Bike, carrier: Carrier) -> list[Carrier]:
    """The compartments, pockets and nets of a carrier."""
    return [part for part in bike.carriers if part.hangs_on == carrier.id]


def whole_of(bike: Bike, carrier: Carrier) -> Carrier:
    """The carrier that a part belongs to; any other one itself."""
    return next((whole for whole in bike.carriers if whole.id == carrier.hangs_on), carrier)


def _taken_l(bike: Bike, carrier: Carrier) -> float:
    return sum(part.volume_l for part in parts_of(bike, carrier) if KINDS[part.kind].part == "inner")


def room_l(bike: Bike, carrier: Carrier) -> float:
    """Litres that go into a carrier with ease, what its inner compartments take left out."""
    return max(carrier.volume_l - _taken_l(bike, carrier), 0.0)


def brim_l(bike: Bike, carrier: Carrier) -> float:
    """Litres that go into a carrier at most, what its inner compartments take left out."""
    return max(carrier.brim_l - _taken_l(bike, carrier), 0.0)
