"""What a tour means: the answer of the core, as screens and the command line read it."""

import datetime as dt
from typing import Literal

from pydantic import Field

from omnifer.core.model.camp import Camp
from omnifer.core.model.finding import Finding, FindingKind, Question
from omnifer.core.model.lanes import StoresTold
from omnifer.core.model.needs import Ask, CareTask, Fault, Layers, Sleeper, Wardrobe, WornPart
from omnifer.core.model.quantities import CarriedSupply, Noun, Quantity, Text
from omnifer.core.model.road import Station, ZoneStretch
from omnifer.core.model.stance import WeekPressure
from omnifer.core.model.trace import BikeTrace


class ProfileLine(Noun):
    """The road's height, thinned for drawing."""

    km: list[float]
    elevation_m: list[float]
    lat_deg: list[float] | None
    lon_deg: list[float] | None


class Day(Noun):
    """One day of the tour. Clock hours are those of the wall clock of the place, summer time included."""

    number: int
    date: dt.date
    rest: bool = Field(description="Spent without riding at the place where the day before ended")
    from_km: float
    to_km: float
    distance_km: float
    ascent_m: float
    descent_m: float
    highest_m: float
    lowest_m: float
    riding_hours: float
    pause_hours: float
    transfer_hours: float
    detour_km: float = Field(description="Off the road to stops and back, besides the distance")
    walking_km: float = Field(description="Too steep or too soft to ride")
    start_h: float
    arrive_h: float
    daylight_hours: float | None
    sunrise_h: float | None
    sunset_h: float | None
    dusk_h: float | None = Field(description="End of civil twilight")
    sun: Literal["crosses", "stays_up", "stays_down"] | None = Field(description="The horizon; None: no place is known")
    day_high_c: float = Field(description="Hot day to plan for")
    night_low_c: float = Field(description="Cold night to plan for, where the day ends")
    mean_max_c: float
    mean_min_c: float
    spread_min_k: float = Field(description="Standard deviation of the night's minimum; 0: only the night to plan for is known")
    width_k: float = Field(description="How far its means may be off: a standard deviation [K]")
    night_around_k: float = Field(
        description="Nine of ten nights lie within so much of the mean, what is not known of the place counted; 0: not known [K]"
    )
    wind_chill_c: float | None = Field(description="Felt on the coldest descent after a cold night; None: no long descent")
    heat_index_c: float
    hot: bool = Field(description="So hot that riding at noon is unwise")
    dark: bool = Field(description="Arrives after sunset, or has no sun at all")
    starts_dark: bool = Field(description="Sets out before sunrise")
    humidity_pct: float
    rain_chance: float
    wind_ms: float
    night_at: str = Field(description="Name of the stop at which the night is spent; empty: a dry or wild camp")
    night_past: str = Field(description="The last place passed before a night that is at no stop; empty: none has a name")
    night_past_km: float = Field(description="How far behind it lies [km]")
    night_water: bool = Field(description="Sure water where the night is spent")
    night_set_km: float | None = Field(description="Where the rider has set the night that ends it; None: nowhere")
    steepest: float


class Missed(Noun):
    """A supply that is there but does not count when the rider passes."""

    stop_id: str
    name: str
    at_km: float
    why: Text


GapSupply = Literal[CarriedSupply, "plugs", "bike_shop", "laundry"]


class Gap(Noun):
    """A stretch between two places that supply one thing. Amounts are 0 for what is not carried."""

    supply: GapSupply
    from_km: float
    to_km: float
    from_name: str
    to_name: str
    day: int
    days: int = Field(description="Calendar days from leaving to arriving, both counted")
    hours: float
    nights: int
    riding: float = Field(description="Needed while riding [l or kg]")
    camp: float = Field(description="Needed for nights away from a source [l]; food: carried on from shop to shop [kg]")
    reserve: float = Field(description="To be left on reaching its end [l or kg]")
    onward: float = Field(description="For stretches behind it, whose first place gives too little [l or kg]")
    need: float = Field(description="On board when leaving [l or kg]")
    holds: float | None = Field(description="What the vessels hold [l]; None: not limited")
    missed: list[Missed] = Field(description="Sources in between that do not count, and why")
    governs: bool = Field(description="The longest of its kind")

    @property
    def short(self) -> float:
        """How much more is needed than fits [l or kg]."""
        return 0.0 if self.holds is None else max(0.0, self.need - self.holds)


class Passing(Noun):
    """When a stop is passed, and what of it cannot be used then."""

    stop_id: str
    day: int
    date: dt.date
    hour: float
    stays: bool
    shop_shut: Text | None = Field(description="Why a food shop cannot be used or counted on; None: it can, or there is none")
    water_fails: Text | None


class ClimateLine(Noun):
    """The weather to plan for along the drawn line of the road, a value for each of its kilometres."""

    source: Literal["stations", "typed", "grid", "latitude", "default"]
    known: bool = Field(description="The rider said what the weather is; else every figure of it is a guess")
    offered: list[Station] = Field(description="Stations that stand in for ones that the rider has not named")
    day_high_c: list[float]
    night_low_c: list[float]
    mean_max_c: list[float]
    mean_min_c: list[float]


class SupplyColumn(Noun):
    """One supply at every moment, in its unit."""

    supply: CarriedSupply
    quantity: Quantity
    stock: list[float]
    mass_kg: list[float]
    short: list[float] = Field(description="What the stretch being ridden asks for beyond what fits")


class Moments(Noun):
    """The moments along the tour at which everything is known; screens pick among them and compute nothing."""

    km: list[float]
    day: list[int]
    leaving: list[bool] = Field(description="True on the leaving side of a stop or night")
    place: list[str]
    supplies: list[SupplyColumn]
    fuel_kg: list[float]
    gear_kg: list[float]
    total_kg: list[float]
    fullest: int
    emptiest: int


class PackLayer(Noun):
    """One kind of thing in a bag."""

    place: str = Field("", description="Where in the bag, where that is more than its height")

    thing_id: str
    count: int
    mass_kg: float
    volume_l: float


class PackCard(Noun):
    """One bag as it is packed at the start."""

    bike_id: str
    carrier_id: str
    layers: list[PackLayer] = Field(description="Bottom to top: the last needed at the bottom")
    food_kg: float
    food_l: float
    water_l: float
    mass_kg: float
    volume_l: float
    room_l: float
    empty_l: float
    under: list[str] = Field(description="Bags that come off before it opens")
    under_minutes: float = Field(description="Taking them off and putting them on again [min]")
    kept_for_shopping: bool = Field(description="A load keeps room in it for what is bought on the way")


SaidAt = Literal["weather", "track", "zones", "party", "rig", "kit", "stores"]


class Assumption(Noun):
    """A default that stands in for something not known, or that its rider has overwritten."""

    name: str
    value: Text
    source: str
    key: str | None = Field(None, description="Of the default in Practice that can be overwritten; None: say more elsewhere")
    set_to: float | None = Field(None, description="What counts now")
    usual: float | None = None
    low: float | None = Field(None, description="Usual range")
    high: float | None = None
    least: float | None = Field(None, description="What a value of the rider's own can be")
    most: float | None = None
    unit: str = Field("", description="Of the figures: a quantity, or as it is")
    own: bool = Field(False, description="The rider's own value")
    said_at: SaidAt | None = Field(None, description="Where it is said, if not here")


class RoadFacts(Noun):
    """The road in figures."""

    length_km: float
    ascent_m: float
    descent_m: float
    highest_m: float
    points: int
    has_heights: bool
    riding_hours: float
    coldest_night_c: float = Field(description="What some night of the tour falls below with the chosen odds")


class Assessment(Noun):
    """Everything that follows from a tour."""

    ready: bool = Field(description="False while the tour has no road; then only the load is assessed")
    road: RoadFacts | None
    profile: ProfileLine | None
    days: list[Day]
    gaps: list[Gap]
    passings: list[Passing]
    zones: list[ZoneStretch] = Field(description="Whose wall clock holds where, in road order")
    questions: list[Question]
    wardrobes: list[Wardrobe] = Field(description="Empty: nobody said what is worn")
    sleepers: list[Sleeper] = Field(description="Empty: nobody said what is slept in")
    asks: list[Ask] = Field(description="What this tour asks for; empty: nothing says what it serves")
    faults: list[Fault]
    layers: list[Layers]
    parts: list[WornPart] = Field(description="What of the bikes wears on the way")
    care: list[CareTask] = Field(description="What the bikes ask for, evening by evening")
    pressures: list[WeekPressure] = Field(description="What every bike's tyres are ridden with, week by week")
    climate: ClimateLine | None
    moments: Moments | None
    stores: StoresTold | None
    bikes: list[BikeTrace]
    cards: list[PackCard]
    camp: Camp
    findings: list[Finding]
    assumptions: list[Assumption]
    checked: list[FindingKind] = Field(description="The kinds of trouble that were looked for")
    shelf: dict[str, int] = Field(description="How many of each thing are placed nowhere")
    minutes_a_day: dict[str, float] = Field(
        description="What each thing costs the party where it rides; empty without a road [min]"
    )
