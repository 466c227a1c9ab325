"""What a stove burns: all that is known of each fuel, in one row."""

from typing import Literal, NamedTuple

FuelKind = Literal["gas", "petrol", "alcohol"]


class Fuel(NamedTuple):
    """A fuel in words and figures."""

    words: str
    heating_value: float
    """Lower, of what is carried, liquid [MJ/kg]; formation enthalpies as the chemicals library has them."""
    kg_per_l: float
    """Of the liquid at 15 °C [kg/l]."""
    efficiency: str
    """The default that says how much of its heat comes into the pot."""
    shop_hours: bool = True
    """A shop sells it while it is open; else it is pumped."""


FUELS: dict[FuelKind, Fuel] = {
    "gas": Fuel("gas canisters", 45.4, 0.56, "gas_efficiency"),  # butane with propane
    "petrol": Fuel("petrol", 44.4, 0.74, "petrol_efficiency", shop_hours=False),  # octane
    "alcohol": Fuel("alcohol", 24.6, 0.79, "alcohol_efficiency"),  # ethanol of 95 % by volume
}
"""Heating values are checked against the chemicals library; densities are handbook values, from memory."""
