"""What a rig is to the road: its drag, and how slowly and steeply its lowest gear can be ridden."""

import numpy as np

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.people import Rider
from omnifer.core.model.practice import Practice
from omnifer.core.model.rig import Bike, TyreKind
from omnifer.core.physics import air, gearing


def drag_area_m2(bike: Bike) -> float:
    """Drag area of rider and bike with all its bags, and the trailer's [m²]."""
    bags = sum(KINDS[c.kind].drag_area_m2 if c.drag_area_m2 is None else c.drag_area_m2 for c in bike.carriers)
    return bike.drag_area_m2 + bags + sum(s.trailer.drag_area_m2 for s in bike.supports if s.trailer)


TYRE_ROLLS: dict[TyreKind, float] = {"light": 0.9, "usual": 1.0, "armoured": 1.15}
"""Rolling resistance of a kind of tyre over the usual one [-]; practice."""


def rolling_resistance(bike: Bike) -> float:
    """Rolling resistance of a bike on smooth asphalt [-]: as measured, or the usual one with such tyres."""
    known = bike.sources.get("rolling_resistance", "default") != "default"
    return bike.rolling_resistance * (1.0 if known else TYRE_ROLLS[bike.tyre_kind])


def _turn_m(bike: Bike) -> float:
    return float(gearing.development(bike.radius_mm / 1000, bike.low_chainring, bike.low_cog, bike.low_hub_ratio))


def slowest_kmh(bike: Bike, usual: Practice) -> float:
    """Speed of the slowest turn of the cranks in the lowest gear [km/h]."""
    return float(gearing.speed_kmh(_turn_m(bike), usual.slowest_cadence_rpm))


def steepest_ridden(bike: Bike, rider: Rider, mass_kg: float, usual: Practice) -> float | None:
    """Steepest slope on which the lowest gear can still be turned at the power of a ramp, at sea level; None: any slope."""
    slope = float(
        gearing.steepest_gradient(
            rider.all_day_power_w * usual.ramp_times, mass_kg, _turn_m(bike), usual.slowest_cadence_rpm, drag_area_m2(bike),
            rolling_resistance(bike), float(air.density(0.0)), usual.drivetrain_efficiency,
        )
    )  # fmt: skip
    return None if np.isinf(slope) else slope
