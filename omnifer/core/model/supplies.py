"""What is handed over at places, carried on and used up: one row for each supply."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from omnifer.core.model.lanes import Verb
from omnifer.core.model.quantities import CarriedSupply, Quantity
from omnifer.core.model.rehearsal import OutcomeId


@dataclass(frozen=True)
class SupplySpec:
    """What planning, shopping, rehearsing and noting ask of a supply; how it is used up stands in a file of `core.supplies`."""

    name: CarriedSupply
    unit: Literal["l", "kg"]
    quantity: Quantity
    verb: Verb
    """What is done where it is handed over."""
    limited: bool
    """Whether vessels limit what can be carried."""
    rationed: bool
    """Whether less of it is used where it runs short."""
    runs_out: OutcomeId
    """What a rehearsal calls it that none is left."""
    portion: float
    """Taken at one time; proposal."""
    step: float
    """What a button adds or takes; practice."""
    a_little: float
    """So much more is tried where it runs out; practice."""


_ROWS = (
    SupplySpec("water", "l", "volume", "fill", limited=True, rationed=True, runs_out="dry",
               portion=0.5, step=0.5, a_little=1),
    SupplySpec("food", "kg", "mass", "buy", limited=False, rationed=True, runs_out="hungry",
               portion=0.25, step=0.1, a_little=0.5),
    SupplySpec("fuel", "kg", "mass", "refuel", limited=True, rationed=False, runs_out="fuelless",
               portion=0.015, step=0.01, a_little=0.1),
)  # fmt: skip
CARRIED: Mapping[str, SupplySpec] = {row.name: row for row in _ROWS}
"""By name, in the order in which screens show them; small things, which are used up by the piece, are things and have roles."""
