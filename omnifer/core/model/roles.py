"""What a thing does for the supplies: what it burns, holds, uses or gives. A thing has one role at most."""

from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.fuels import FuelKind
from omnifer.core.model.quantities import MassKg, Noun, OneLine, Share

EnergyWh = Annotated[float, Field(ge=0, le=20_000, description="Electric energy [Wh]")]
PowerW = Annotated[float, Field(ge=0, le=1000, description="Electric power [W]")]
Plug = Annotated[str, Field(max_length=20, description="Shape, as its rider calls it; empty: fits all"), OneLine]


class Stove(Noun):
    """Burns one kind of fuel."""

    does: Literal["stove"] = "stove"
    burns: FuelKind
    efficiency: Share | None = Field(
        None, description="Heat in the pot over heat of the fuel, still air; None: usual of the fuel"
    )
    shielded: bool = Field(True, description="Stands behind a windshield")
    exchanger: bool = Field(False, description="Its pot has a heat exchanger")
    bears_frost: bool = Field(False, description="Takes its gas liquid, or burns no gas")


class FuelVessel(Noun):
    """A bottle that is filled, or a canister that is bought whole. The thing's own mass is that of the empty vessel."""

    does: Literal["fuel_vessel"] = "fuel_vessel"
    burns: FuelKind
    holds_kg: Annotated[float, Field(gt=0, le=20, description="Fuel, filled to its line [kg]")]
    fill_price: Annotated[float, Field(ge=0, le=100_000)] | None = Field(None, description="Of a filling, or of a full canister")

    @property
    def whole(self) -> bool:
        """Whether it is bought full and never refilled."""
        return self.burns == "gas"


class FireLighter(Noun):
    """Makes fire by itself: a lighter, matches, a striker. The igniter of a stove is none."""

    does: Literal["fire_lighter"] = "fire_lighter"


class Treatment(Noun):
    """Makes water fit to drink. Tablets are used up, by the litre that they treat."""

    does: Literal["treatment"] = "treatment"
    by: Literal["press", "pump", "gravity", "boiling"]
    minutes_per_l: Annotated[float, Field(ge=0, le=60)] | None = Field(None, description="By hand; None: the usual [min/l]")
    wait_min: Annotated[float, Field(ge=0, le=600)] | None = Field(
        None, description="Until it can be drunk; None: the usual [min]"
    )
    litres_a_piece: Annotated[float, Field(gt=0, le=20)] = Field(
        0.7, description="Of a press: one filling, mostly 0.5 to 1; read it off the bottle [l]"
    )
    freezes: bool = Field(False, description="Frost destroys it once it is wet")


class Device(Noun):
    """Uses electricity."""

    does: Literal["device"] = "device"
    wh_a_day: EnergyWh = Field(0, description="On a day on which it is used [Wh]")
    wh_a_dark_hour: EnergyWh = Field(0, description="Of riding in the dark [Wh/h]")
    used: Literal["riding", "camp", "always"] = Field("always", description="riding: not on rest days")
    saver_wh_a_day: EnergyWh | None = Field(None, description="In its saver mode [Wh]; None: it has none")
    saver: bool = Field(False, description="Used in its saver mode")
    battery_wh: EnergyWh = Field(0, description="Of its own battery, or of one set of its cells [Wh]; 0: it has none")
    fed_by: Literal["cable", "cells", "hub"] = Field("cable", description="hub: runs off the dynamo alone, as lamps do")
    charged: Share = Field(1, description="Of its battery at the start, as read or noted")
    socket: Plug = Field("", description="Shape of its charging socket, as its rider calls it")
    navigates: bool = False
    light: bool = Field(False, description="To see or be seen by")

    @property
    def daily_wh(self) -> float:
        """On a day on which it is used, as it is set [Wh]."""
        return self.saver_wh_a_day if self.saver and self.saver_wh_a_day is not None else self.wh_a_day


class Bank(Noun):
    """A battery that charges others."""

    does: Literal["bank"] = "bank"
    holds_wh: EnergyWh = Field(description="By its label: amp hours times the cell's volts [Wh]")
    takes_w: PowerW = Field(10, description="Fastest that it charges [W]")
    charged: Share = Field(1, description="At the start, as read or noted")


class Cells(Noun):
    """A set of dry or rechargeable cells for one device, spare."""

    does: Literal["cells"] = "cells"
    set_wh: EnergyWh = Field(description="Of one set, as used in its device [Wh]")


class Panel(Noun):
    """A solar panel, lying flat on the load while riding."""

    does: Literal["panel"] = "panel"
    peak_w: PowerW


class Hub(Noun):
    """A converter that charges from the hub dynamo of its owner's bike."""

    does: Literal["hub"] = "hub"
    lamps_first: bool = Field(True, description="Gives nothing while the lamps are on")


class Charger(Noun):
    """Takes electricity from the wall."""

    does: Literal["charger"] = "charger"
    outputs: Annotated[int, Field(ge=1, le=12)] = 1
    output_w: PowerW = Field(10, description="Of one output [W]")
    plugs: tuple[Plug, ...] = Field((), max_length=12, description="Shapes of wall sockets that it fits; none given: all")


class Cable(Noun):
    """A cable between charger, bank and device."""

    does: Literal["cable"] = "cable"
    ends: tuple[Plug, ...] = Field((), max_length=8, description="Sockets that it fits; none given: all")


class PaperMap(Noun):
    """Finds the way without electricity."""

    does: Literal["paper_map"] = "paper_map"


class UsedUp(Noun):
    """Something that is used up at a rate and bought by the container. The thing's own mass is that of the empty container."""

    does: Literal["used_up"] = "used_up"
    unit: Literal["g", "ml", "pieces"] = "g"
    holds: Annotated[float, Field(gt=0, le=10_000, description="In a full container, in its unit")]
    content_kg: MassKg = Field(description="Of what a full container holds [kg]")
    rate: Annotated[float, Field(ge=0, le=10_000, description="Used up, in its unit")]
    per: Literal["person_day", "km", "litre_treated"] = Field("person_day", description="What the rate is for")
    sold_at: Literal["basic", "full", "nowhere"] = Field("full", description="Smallest shop that sells it")
    waste: Share = Field(0, description="Part of its mass that is carried on to the next bin")

    @property
    def per_unit_kg(self) -> float:
        """Mass of one unit [kg]."""
        return self.content_kg / self.holds


class SleepingBag(Noun):
    """What one sleeps in."""

    does: Literal["sleeping_bag"] = "sleeping_bag"
    comfort_c: Annotated[float, Field(ge=-40, le=30, description="Comfort on its label, never the extreme [°C]")]


class BedLayer(Noun):
    """A liner, a fleece or a jacket that is worn in bed."""

    does: Literal["bed_layer"] = "bed_layer"
    warms_k: Annotated[float, Field(ge=0, le=15, description="So much colder may the night be [K]")]


class Mat(Noun):
    """What lies under a sleeper. Several lie on each other."""

    does: Literal["mat"] = "mat"
    r_value: Annotated[float, Field(ge=0, le=12, description="On its label [ft²·°F·h/Btu]")]


Piece = Literal["shirt", "shorts", "underwear", "socks"]
"""What is worn riding and changed for a clean one."""


class Garment(Noun):
    """Worn riding, and washed."""

    does: Literal["garment"] = "garment"
    piece: Piece
    dries_h: Annotated[float, Field(gt=0, le=100, description="In still air at 20 °C and half saturated [h]")] = 8


Role = Annotated[
    Garment
    | SleepingBag
    | BedLayer
    | Mat
    | Stove
    | FuelVessel
    | FireLighter
    | Treatment
    | Device
    | Bank
    | Cells
    | Panel
    | Hub
    | Charger
    | Cable
    | PaperMap
    | UsedUp,
    Field(discriminator="does"),
]
