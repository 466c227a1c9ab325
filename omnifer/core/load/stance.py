"""How a loaded bike stands and rides: worst moments of the tour, from its wheel loads and centres of gravity."""

import numpy as np

from omnifer.core import practice
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.people import Rider
from omnifer.core.model.stance import Stance
from omnifer.core.physics import air, gearing, statics, tyres
from omnifer.core.rig.fit import width_mm

HOOKLESS_BAR = 5.0
"""Most that a rim without hooks bears [bar]; ETRTO."""


def stance_of(load: BikeLoad, rider: Rider, steepest: float | None) -> Stance:
    """The stance of a bike over all moments.

    Parameters
    ----------
    steepest : float or None
        Steepest smoothed gradient of the road [-].
    """
    bike, seat = load.bike, load.rider_centre
    mass = load.mass + load.rider_kg
    x = (load.mass * load.centre_x + load.rider_kg * seat.x) / mass / 1000
    y = (load.mass * load.centre_y + load.rider_kg * seat.y) / mass / 1000
    wheelbase = bike.wheelbase_mm / 1000
    front, rear = float(load.front.max()) + load.rider_front, float(load.rear.max()) + load.rider_rear
    turn = gearing.development(bike.radius_mm / 1000, bike.low_chainring, bike.low_cog, bike.low_hub_ratio)
    climb = float(
        gearing.steepest_gradient(
            rider.all_day_power_w, float((mass + load.trailer).max()), turn, practice.SLOWEST_CADENCE_RPM, bike.drag_area_m2,
            bike.rolling_resistance, float(air.density(0.0)), practice.DRIVETRAIN_EFFICIENCY,
        )
    )  # fmt: skip
    hitched = load.levers.frame.trailer() is not None
    alone = load.front / np.maximum(load.front + load.rear - load.hitch, 0.1)
    lifts = [statics.front_lift_gradient(a, b) for a, b in zip(x, y, strict=True)]
    pushed = load.centre_x / load.centre_y
    return Stance(
        width_mm=round(width_mm(bike, load.levers.boxes)),
        lift_gradient=round(min(lifts), 3),
        pushed_lift_gradient=round(float(pushed.min()), 3),
        pitch_over_ms2=round(min(statics.pitch_over_deceleration(a, b, wheelbase) for a, b in zip(x, y, strict=True)), 2),
        spread_mm=round(_spread(load)),
        swinging_kg=round(sum(float(c.kg.max(initial=0)) for c in load.contents if KINDS[c.carrier.kind].swings), 2),
        front_bar=round(float(tyres.pressure(front, bike.tyre_width_mm)), 2),
        rear_bar=round(float(tyres.pressure(rear, bike.tyre_width_mm)), 2),
        most_bar=min(bike.tyre_most_bar, HOOKLESS_BAR) if bike.hookless else bike.tyre_most_bar,
        bolts=sum(s.bolts for s in bike.supports if not s.improvised),
        straps=sum(c.straps for c in bike.carriers),
        tied_on=sum(s.improvised for s in bike.supports) + sum(c.improvised for c in bike.carriers),
        climb_gradient=None if np.isinf(climb) else round(climb, 4),
        steepest=None if steepest is None else round(steepest, 4),
        unhitched_front_share=round(float(alone.min()), 3) if hitched else None,
    )


def _spread(load: BikeLoad) -> float:
    """Radius of gyration about the upright axis through the centre of gravity at the fullest moment, trailer apart [mm]."""
    worst = int(np.argmax(load.mass))
    parts = [(load.bike.mass_kg, load.bike.own_x_mm, 0.0)]
    for bag in load.contents:
        if not load.levers.on_trailer(bag.carrier):
            x, _, z = load.levers.centres[bag.carrier.id]
            parts.append((bag.carrier.mass_kg + float(bag.kg[worst]), x, z))
    kg, x, z = np.array(parts).T
    middle = float(kg @ x / kg.sum())
    return float(np.sqrt(kg @ ((x - middle) ** 2 + z**2) / kg.sum()))
