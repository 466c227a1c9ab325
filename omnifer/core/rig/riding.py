"""What a rig is to the road: its drag, and how slowly and steeply its lowest gear can be ridden."""

import numpy as np

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.people import Rider
from omnifer.core.model.practice import Practice
from omnifer.core.model.rig import Bike, Tread, TyreKind
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


TREAD_ROLLS: dict[Tread, tuple[float, ...]] = {
    "slick": (0.95, 0.98, 1.1, 1.25, 1.0), "mixed": (1.0,) * 5, "knobbly": (1.3, 1.2, 1.0, 0.85, 1.0),
}  # fmt: skip
"""Rolling resistance by tread over a mixed one, by ground in the order of `road.pace.SURFACES` [-]; practice."""
USUAL_WIDTHS_MM, NARROWEST, WIDEST = (37.0, 50.0), 0.8, 1.5
"""The resistance of rough ground is told for tyres of such widths; of ones beyond these parts of them nothing more is said
[mm, -, -]; practice."""
WIDTH_ROLLS = (0.0, 0.2, 0.4, 0.8, 0.0)
"""Resistance falls with a tyre's width to this power, by ground: it sinks in less [-]; practice."""


def ground_times(bike: Bike) -> tuple[float, ...]:
    """Rolling resistance of a bike's tyres over that of usual ones, by ground in the order of `road.pace.SURFACES` [-]."""
    narrow, wide = USUAL_WIDTHS_MM
    usual = min(max(bike.tyre_width_mm, narrow), wide)
    width = min(max(bike.tyre_width_mm / usual, NARROWEST), WIDEST)
    return tuple(tread * width**-power for tread, power in zip(TREAD_ROLLS[bike.tread], WIDTH_ROLLS, strict=True))


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
