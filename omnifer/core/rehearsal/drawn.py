"""What is drawn: a row for each, with what it is, how it is distributed, and which defaults are its widths."""

from dataclasses import dataclass
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray
from scipy import special

from omnifer.core.model.practice import Practice
from omnifer.core.physics.chance import drawn_together, kept_from_day_to_day, rayleigh
from omnifer.core.physics.spares import CLUSTERED
from omnifer.core.rehearsal.fate import DAYS, EVENTS, SPELLS, Array, Fate

NO_WIDTHS, AS_WIDE = 0.0, 1.0
"""How wide everything is drawn: not at all, and as it is."""


@dataclass(frozen=True)
class Drawn:
    """A row of the table."""

    name: str
    words: str
    how: str
    widths: tuple[str, ...]
    """Defaults that say how wide it is, or how likely."""


DRAWN = (
    Drawn("year", "how warm the year is", "normal, one for the tour", ("year_k",)),
    Drawn("climate", "how far the climate that was looked up is off", "normal, one for the tour; its width is told with it", ()),
    Drawn("wet year", "how wet the year is", "normal, one for the tour; sources dry up with it", ("sources_together",)),
    Drawn("warmth", "each day's high and low", "normal about the month's means, kept from day to day",
          ("day_kept", "high_with_low", "wet_cools_k")),
    Drawn("rain", "wet and dry days", "a chain of two states that keeps the month's rain days", ("rain_kept", "mud_times")),
    Drawn("wind", "the wind of every six hours, and where it blows from on a day",
          "Weibull of shape 2 about the month's mean; any direction", ()),
    Drawn("heat", "a day too hot for noon", "follows from the day's high", ("heat_times",)),
    Drawn("pace", "the riders' pace", "lognormal, one for the tour", ("pace_width",)),
    Drawn("pace of the day", "the pace of each day", "lognormal", ("pace_day_width",)),
    Drawn("thirst", "what the riders drink beside what is reckoned", "lognormal, for the tour and each day",
          ("water_width", "water_day_width")),
    Drawn("hunger", "what they eat beside what is reckoned", "lognormal, for the tour and each day",
          ("food_width", "food_day_width")),
    Drawn("fuel", "what they burn beside what is reckoned", "lognormal, for the tour and each day",
          ("fuel_width", "fuel_day_width")),
    Drawn("power", "what they draw beside what is reckoned", "lognormal, for the tour", ("power_width",)),
    Drawn("source", "whether a source has water", "its chance, together with others in dry years",
          ("seasonal_wet", "unsure_wet", "sources_together")),
    Drawn("shop", "whether a shop is open when it should be", "its chance", ("shop_shut",)),
    Drawn("fault", "what breaks, and where", "Poisson over the kilometres, in clusters where faults come so",
          ("mending_h", "stranded_days")),
    Drawn("illness", "days of illness", "Poisson, geometric length", ("ill_per_100_days", "ill_days")),
    Drawn("rest", "a day of rest after days that were too long", "follows from the days ridden",
          ("long_day_times", "long_days_borne")),
    Drawn("rations", "saving when it runs short", "follows from what is left", ("rations_below", "ration")),
)  # fmt: skip


@dataclass(frozen=True)
class Draws:
    """All that was drawn, a row for each play. Days count from the start of the tour; what comes later is as on the last.

    Attributes
    ----------
    on : float
        How wide; with 0 every play is the plan.
    high, low : shape (plays, days)
        Each day's high and low about the usual, in standard deviations.
    climate, year_k : shape (plays,)
        What is not known of the climate, in its widths, and how much warmer the year is [K].
    rain, blows_from : shape (plays, days)
        Uniform; where the wind blows from [rad].
    blows : shape (plays, days * SPELLS)
        Wind over its mean.
    pace, food, water, fuel : shape (plays, days)
        Times as reckoned.
    power : shape (plays,)
        The same.
    ill : shape (plays, days)
        How long an illness lasts that begins with a morning [d]; 0 where none does.
    """

    fate: Fate
    usual: Practice
    on: float
    high: Array
    low: Array
    climate: Array
    year_k: Array
    wet_year: Array
    rain: Array
    blows: Array
    blows_from: Array
    pace: Array
    water: Array
    food: Array
    fuel: Array
    power: Array
    ill: NDArray[np.int64]

    @property
    def days(self) -> int:
        """Of each play."""
        return int(self.rain.shape[1])

    @property
    def plays(self) -> int:
        """How many."""
        return self.fate.plays

    def source(self, stop_id: str) -> Array:
        """For each play a number below which a source's chance must not fall for it to have water, shape (plays,)."""
        return drawn_together(self.fate.normal(f"source {stop_id}")[:, 0], -self.wet_year, self.usual.sources_together)

    def shop(self, stop_id: str) -> Array:
        """The same of a shop."""
        return self.fate.uniform(f"shop {stop_id}")[:, 0]

    def faults(self, kind: str, expected: float, clustered: bool) -> Array:
        """How many faults of a kind must have been expected up to where each comes, shape (plays, EVENTS); as many as there are.

        Parameters
        ----------
        expected : float
            On the whole road; faults that come in clusters come to a wheel that is good or bad all the way: negative binomial.
        """
        when = np.cumsum(-np.log1p(-self.fate.uniform(f"fault {kind}", EVENTS)), axis=1)
        if clustered and expected > 0:
            shape = expected / (CLUSTERED - 1)
            prone = special.gammaincinv(shape, self.fate.uniform(f"prone {kind}")[:, 0]) / shape
            when = when / np.maximum(prone, 1e-9)[:, None]
        return np.asarray(when / self.on if self.on else np.full(when.shape, np.inf))


def draw(fate: Fate, usual: Practice, odds: float, on: float = AS_WIDE, days: int = DAYS) -> Draws:
    """Draw all that concerns the whole tour.

    Parameters
    ----------
    odds : float
        Chance that a day is hotter, or a night colder, than is planned for: with no widths each is as planned for [-].
    on : float
        How wide everything is drawn.
    days : int
        How many are wanted; each is as it would be among more.
    """
    beyond = NormalDist().inv_cdf(1 - odds)

    def series(name: str) -> Array:
        return kept_from_day_to_day(fate.normal(name, DAYS, days), usual.day_kept)

    def one(name: str) -> Array:
        return fate.normal(name)[:, 0]

    def times(name: str, of_tour: float, of_day: float) -> Array:
        return np.exp(on * (of_tour * fate.normal(name) + of_day * fate.normal(f"{name} of the day", DAYS, days)))

    if not on:
        flat, nothing = np.ones((fate.plays, days)), np.zeros(fate.plays)
        spells = np.ones((fate.plays, days * SPELLS))
        return Draws(
            fate, usual, on, beyond * flat, -beyond * flat, nothing, nothing, nothing, flat, spells, flat, flat, flat, flat, flat,
            nothing + 1, np.zeros(flat.shape, dtype=np.int64),
        )  # fmt: skip
    high, own = series("warmth"), series("night")
    low = usual.high_with_low * high + np.sqrt(1 - usual.high_with_low**2) * own

    def uniform(name: str, each: int = 1) -> Array:
        return fate.uniform(name, DAYS * each)[:, : days * each]

    begins = uniform("illness") < on * usual.ill_per_100_days / 100
    ends = 1 - 1 / usual.ill_days
    lasts = 1 + (np.floor(np.log1p(-uniform("length of illness")) / np.log(ends)) if ends > 0 else 0)
    return Draws(
        fate, usual, on, on * high, on * low, on * one("climate"), on * usual.year_k * one("year"), one("wet year"),
        uniform("rain"), rayleigh(uniform("wind", SPELLS)), 2 * np.pi * uniform("direction"),
        times("pace", usual.pace_width, usual.pace_day_width), times("thirst", usual.water_width, usual.water_day_width),
        times("hunger", usual.food_width, usual.food_day_width), times("fuel", usual.fuel_width, usual.fuel_day_width),
        np.exp(on * usual.power_width * one("power")), (begins * lasts).astype(np.int64),
    )  # fmt: skip
