"""How a loaded bike stands, and what on it does not fit."""

from pydantic import Field

from omnifer.core.model.quantities import Noun, Side, Text


class Clash(Noun):
    """Something that does not fit, with the figures that say so."""

    rule: str
    carrier_id: str | None
    support_id: str | None = None
    thing_id: str | None = None
    sentence: Text
    reason: Text
    beyond_mm: float = Field(description="By how much it does not fit; 0 where that is no length")


class Pressure(Noun):
    """What to begin with in a tyre, and how it came about."""

    bar: float
    low_bar: float = Field(description="The rule is good to a fifth either way; never below what the tyre's maker allows")
    high_bar: float
    note: Text | None = Field(description="Where the rule does not know such a wheel, or the tyre's own least counts")


class WeekPressure(Noun):
    """What to ride with on some days, as the bike is then loaded and on the ground of those days."""

    bike_id: str
    from_day: int
    to_day: int
    front_bar: float
    rear_bar: float
    loose: float = Field(description="Part of their road that is gravel or rougher [-]")


class Stance(Noun):
    """How a loaded bike stands and rides, at the moment of the tour that is worst for each figure."""

    width_mm: float = Field(description="Overall, bags and bar")
    lift_gradient: float = Field(description="Slope at which the front wheel lifts, rider seated [-]")
    pushed_lift_gradient: float | None = Field(description="The same with the rider pushing at the bar; None: none lifts it [-]")
    pitch_over_ms2: float = Field(description="Braking at which the rear wheel lifts [m/s²]")
    spread_mm: float = Field(description="Radius of gyration about the upright axis, rider apart: how slowly it turns in [mm]")
    swinging_kg: float = Field(description="In bags that swing with every pedal stroke [kg]")
    front_tyre: Pressure
    rear_tyre: Pressure
    most_bar: float = Field(description="What tyre and rim bear [bar]")
    bolts: int = Field(description="Of racks, cages and hitches: to be checked before the start and every week")
    straps: int = Field(description="Of bags: to be checked every day")
    tied_on: int = Field(description="Parts held by ties or tape: to be looked at at every stop")
    climb_gradient: float | None = Field(description="Steepest slope ridden in the lowest gear at the power of a ramp; None: any")
    steepest: float | None = Field(description="Steepest slope of the road, smoothed [-]")
    unhitched_front_share: float | None = Field(description="Front wheel's share without the trailer; None: there is none")


class HangingPlace(Noun):
    """A free place of a bike: a support of its own, or a mount."""

    on: str = Field(description="Identifier of the support, or the mount")
    takes: str = Field(description="Kind of support, or the mount: what a carrier's template names")
    side: Side
    x: float
    y: float
