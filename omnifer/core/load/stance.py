"""How a loaded bike stands and rides: worst moments of the tour, from its wheel loads and centres of gravity."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.assessment import Day
from omnifer.core.model.people import Rider
from omnifer.core.model.practice import Practice
from omnifer.core.model.rig import Bike
from omnifer.core.model.stance import Pressure, Stance, WeekPressure
from omnifer.core.physics import statics, tyres
from omnifer.core.rig import riding
from omnifer.core.rig.fit import width_mm
from omnifer.core.sentence import bar, say

HOOKLESS_BAR = 5.0
"""Most that a rim without hooks bears [bar]; ETRTO."""


def stance_of(load: BikeLoad, rider: Rider, steepest: float | None, usual: Practice) -> Stance:
    """The stance of a bike over all moments.

    Parameters
    ----------
    steepest : float or None
        Steepest smoothed gradient of the road [-].
    """
    bike, seat, frame = load.bike, load.rider_centre, load.levers.frame
    mass = load.mass + load.rider_kg
    x = (load.mass * load.centre_x + load.rider_kg * seat.x) / mass / 1000
    y = (load.mass * load.centre_y + load.rider_kg * seat.y) / mass / 1000
    wheelbase = bike.wheelbase_mm / 1000
    front, rear = float(load.front.max()) + load.rider_front, float(load.rear.max()) + load.rider_rear
    trailer, hitch_m = load.trailer + load.hitch, load.levers.hitch_height_mm / 1000
    climb = riding.steepest_ridden(bike, rider, float((mass + trailer).max()), usual)
    alone = load.front / np.maximum(load.front + load.rear - load.hitch, 0.1)
    lifts = statics.front_lift_gradient(x, y, trailer / mass, hitch_m)
    pushed = float(
        statics.front_lift_gradient(
            load.centre_x / 1000, load.centre_y / 1000, trailer / load.mass, hitch_m, frame.bar.y / 1000
        ).min()
    )
    return Stance(
        width_mm=round(width_mm(bike, load.levers.boxes)),
        lift_gradient=round(float(lifts.min()), 3),
        pushed_lift_gradient=None if np.isinf(pushed) else round(pushed, 3),
        pitch_over_ms2=round(min(statics.pitch_over_deceleration(a, b, wheelbase) for a, b in zip(x, y, strict=True)), 2),
        spread_mm=round(_spread(load)),
        swinging_kg=round(sum(float(c.kg.max(initial=0)) for c in load.contents if c.carrier.sways_from_kg), 2),
        front_tyre=_pressure(front, bike),
        rear_tyre=_pressure(rear, bike),
        most_bar=borne_bar(bike),
        bolts=sum(s.bolts for s in bike.supports if not s.improvised),
        straps=sum(c.straps for c in bike.carriers),
        tied_on=sum(s.improvised for s in bike.supports) + sum(c.improvised for c in bike.carriers),
        climb_gradient=None if climb is None else round(climb, 4),
        steepest=None if steepest is None else round(steepest, 4),
        unhitched_front_share=round(float(alone.min()), 3) if frame.trailer() is not None else None,
    )


def borne_bar(bike: Bike) -> float:
    """Most that tyre and rim bear [bar]."""
    return min(bike.tyre_most_bar, HOOKLESS_BAR) if bike.hookless else bike.tyre_most_bar


def _pressure(load_kg: float, bike: Bike) -> Pressure:
    """What to begin with in a tyre at its fullest moment, never less than its maker allows nor more than tyre and rim bear.

    Its low end is not held below what they bear: a tyre that wants more even there is too narrow for its load.
    """
    by_rule, least = float(tyres.pressure(load_kg, bike.tyre_width_mm)), bike.tyre_least_bar
    note = None
    if not tyres.drawn_for(load_kg, bike.tyre_width_mm):
        note = say("The rule is drawn for 20 to 50 mm and 30 to 80 kg; here it is a guess: ask the tyre's maker.")
    elif by_rule < least:
        note = say("The rule says {by_rule}; the tyre's own least counts.", by_rule=bar(by_rule))
    low, middle, high = (max(by_rule * times, least) for times in (1 - tyres.UNSURE, 1.0, 1 + tyres.UNSURE))
    middle, high = (max(min(value, borne_bar(bike)), low) for value in (middle, high))
    return Pressure(bar=round(middle, 2), low_bar=round(low, 2), high_bar=round(high, 2), note=note)


ALIKE = {"front_bar", "rear_bar", "loose"}
"""What two looks at the tyres share that are told as one."""
LOOSE, ON_LOOSE = 0.3, 0.9
"""Where so much of the road is gravel or rougher, tyres are ridden with this part of the pressure [-]; practice."""


def pressures_of(
    load: BikeLoad, at_km: NDArray[np.float64], days: list[Day], loose: NDArray[np.float64], every: int
) -> Iterator[WeekPressure]:
    """What to ride with, look by look at the tyres; looks with the same answer are told as one.

    Parameters
    ----------
    at_km : shape (moments,)
        Of the moments of the load [km].
    loose : shape (days,)
        Part of each day's road that is gravel or rougher [-].
    every : int
        Days from one look to the next.
    """
    told: WeekPressure | None = None
    for first in range(0, len(days), every):
        week = days[first : first + every]
        then = (at_km >= week[0].from_km) & (at_km <= week[-1].to_km)
        length = np.array([day.distance_km for day in week])
        part = float((loose[first : first + every] * length).sum() / max(length.sum(), 1e-6))
        front, rear = (
            _pressure(float(wheel[then].max(initial=wheel.min())) + seated, load.bike)
            for wheel, seated in ((load.front, load.rider_front), (load.rear, load.rider_rear))
        )
        softer = ON_LOOSE if part >= LOOSE else 1.0
        here = WeekPressure(
            bike_id=load.bike.id, from_day=week[0].number, to_day=week[-1].number, loose=round(part, 1),
            front_bar=round(max(front.bar * softer, load.bike.tyre_least_bar), 1),
            rear_bar=round(max(rear.bar * softer, load.bike.tyre_least_bar), 1),
        )  # fmt: skip
        if told is not None and here.model_dump(include=ALIKE) == told.model_dump(include=ALIKE):
            told = told.model_copy(update={"to_day": here.to_day})
            continue
        if told is not None:
            yield told
        told = here
    if told is not None:
        yield told


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
