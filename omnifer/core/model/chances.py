"""How far a tour may come out otherwise than planned: the widths and chances that its rehearsal draws, a field each.

Widths of use and pace are standard deviations of the logarithm: 0.15 is about 15 % more or less.
"""

from omnifer.core.model.quantities import Noun
from omnifer.core.model.usual import usual

WEATHER_MEMORY = "practice; Wilks, Statistical Methods in the Atmospheric Sciences, time series, from memory"
NARROWED = "practice; narrowed by what was learned on tours ridden"


class Chances(Noun):
    """Every width and chance."""

    year_k: float = usual(1.0, 0.5, 1.5, "K", "One year is warmer or colder than another, all months alike", least=0)
    day_kept: float = usual(
        0.65, 0.6, 0.8, "share", "Of a day's warmth beyond the usual, what the next day keeps", WEATHER_MEMORY, least=0, most=0.98
    )  # fmt: skip
    high_with_low: float = usual(0.5, 0.3, 0.7, "share", "How far a warm night follows a warm day", least=0, most=0.98)
    rain_kept: float = usual(
        0.3, 0.15, 0.45, "share", "How far a wet day brings another", WEATHER_MEMORY, least=0, most=0.95
    )  # fmt: skip
    wet_cools_k: float = usual(3.0, 1.0, 5.0, "K", "A wet day's high below that of a dry one", least=0)
    mud_times: float = usual(1.15, 1.05, 1.4, "times", "Riding time on gravel and softer ground on a wet day", least=1)
    heat_times: float = usual(1.15, 1.05, 1.3, "times", "Riding time on a day too hot to ride at noon", least=1)
    pace_width: float = usual(0.08, 0.04, 0.15, "", "Pace of these riders, beyond what is reckoned", NARROWED, least=0)
    pace_day_width: float = usual(0.1, 0.05, 0.2, "", "Pace from day to day", least=0)
    water_width: float = usual(0.15, 0.05, 0.25, "", "Water of these riders", NARROWED, least=0)
    water_day_width: float = usual(0.15, 0.1, 0.25, "", "Water from day to day, in the same weather", least=0)
    food_width: float = usual(0.1, 0.05, 0.2, "", "Food of these riders", NARROWED, least=0)
    food_day_width: float = usual(0.1, 0.05, 0.2, "", "Food from day to day", least=0)
    fuel_width: float = usual(0.15, 0.05, 0.3, "", "Fuel of these riders", NARROWED, least=0)
    fuel_day_width: float = usual(0.2, 0.1, 0.4, "", "Fuel from day to day", least=0)
    power_width: float = usual(0.15, 0.05, 0.3, "", "Electricity of these riders", NARROWED, least=0)
    seasonal_wet: float = usual(0.85, 0.7, 0.95, "share", "A seasonal source has water in its months", least=0, most=1)
    unsure_wet: float = usual(0.5, 0.3, 0.7, "share", "A source that nobody is sure of has water", least=0, most=1)
    sources_together: float = usual(0.3, 0.1, 0.6, "share", "How far sources dry up in the same years", least=0, most=0.98)
    shop_shut: float = usual(0.03, 0.01, 0.1, "share", "A shop is shut when it should be open", least=0, most=1)
    mending_h: float = usual(0.5, 0.3, 1.0, "hours", "By the road for a fault that is mended with what is on board", least=0)
    stranded_days: float = usual(1.0, 0.5, 2.0, "days", "Pushed, hitched and waited, for a fault that nothing on board mends")
    ill_per_100_days: float = usual(1.5, 0.5, 4.0, "per 100 days", "Illnesses that keep a rider in bed", least=0)
    ill_days: float = usual(2.0, 1.0, 3.0, "days", "How long an illness lasts", least=1)
    long_day_times: float = usual(
        1.25, 1.15, 1.5, "times", "A day on the road so much longer than the usual one tires", least=1
    )  # fmt: skip
    long_days_borne: float = usual(3.0, 2.0, 5.0, "days", "So many of them in a row, and a day of rest is wanted", least=1)
    into_dark_h: float = usual(
        1.5, 0.5, 3.0, "hours", "So long one rides in the dark to reach water or the night of the plan", least=0
    )  # fmt: skip
    settles_h: float = usual(
        3.0, 2.0, 4.0, "hours", "So long before dark one stays at water rather than camp farther on without", least=0
    )  # fmt: skip
    rations_below: float = usual(0.5, 0.3, 0.7, "share", "With less than this of what is needed one rations", least=0, most=1)
    ration: float = usual(0.67, 0.5, 0.8, "share", "Of the usual, what is then drunk and eaten", least=0.2, most=1)
