"""What a place of a size lets one expect: chances, not facts; common practice of riders, no source."""

import math
from dataclasses import dataclass
from typing import Any

from omnifer.core.model.road import Stop, StopPart

COUNTED = 0.9
"""What is at least so likely is counted on; what is less likely is told and does not count [-]."""
TOLD = 0.3
"""What is less likely is not even told [-]."""
UNKNOWN_PEOPLE = 150
"""Of a place of which nobody says how many live there."""


@dataclass(frozen=True)
class Expectation:
    """What half of all places of a size have, and nine of ten of a larger size.

    Attributes
    ----------
    part, value
        The field of a stop, and what stands there (or among what stands there) where it is so.
    half_of, most_of : int
        People of a place so large that half, and nine in ten, have it.
    words : str
        What is had.
    """

    part: StopPart
    value: str
    half_of: int
    most_of: int
    words: str

    def chance(self, people: int) -> float:
        """How likely a place so large has it [-]; a logistic curve over the logarithm of its people."""
        steep = math.log(9) / math.log(self.most_of / self.half_of)
        return round(float(1 / (1 + (self.half_of / max(people, 1)) ** steep)), 6)


EXPECTED = (
    Expectation("water", "reliable", 150, 500, "water"),
    Expectation("shop", "basic", 300, 900, "a small shop"),
    Expectation("shop", "full", 2_000, 5_000, "a supermarket"),
    Expectation("services", "meals", 300, 1_500, "meals"),
    Expectation("services", "plugs", 500, 2_500, "a plug"),
    Expectation("services", "post", 1_500, 6_000, "a post office"),
    Expectation("services", "doctor", 3_000, 20_000, "a doctor"),
    Expectation("services", "transport", 6_000, 50_000, "a bus or train"),
    Expectation("fuels", "petrol", 1_500, 8_000, "petrol"),
    Expectation("fuels", "gas", 15_000, 80_000, "gas canisters"),
    Expectation("bike_shop", "basic", 7_000, 20_000, "a bicycle workshop"),
    Expectation("bike_shop", "full", 40_000, 150_000, "a large bicycle shop"),
    Expectation("shelter", "room", 1_200, 8_000, "a room"),
)
"""Later rows of a part go before earlier ones."""
GUESSED: tuple[StopPart, ...] = tuple(dict.fromkeys(row.part for row in EXPECTED))


def known_people(people: int) -> int:
    """Of a place; where nobody says it, as in a small one."""
    return people or UNKNOWN_PEOPLE


def parts_of(people: int) -> dict[str, Any]:
    """Fields of a stop at a place so large: what is likely enough to be counted on; less sure water is said to be unsure."""
    size = known_people(people)
    found: dict[str, Any] = {"water": "unsure", "people": people, "guessed": GUESSED}
    for row in EXPECTED:
        if row.chance(size) >= COUNTED:
            found[row.part] = (*found.get(row.part, ()), row.value) if row.part in ("services", "fuels") else row.value
    return found


def counted(stop: Stop) -> list[str]:
    """What is counted on at a stop because of its size, in words."""

    def there(row: Expectation) -> bool:
        has = getattr(stop, row.part)
        return row.part in stop.guessed and (row.value in has if row.part in ("services", "fuels") else row.value == has)

    return [row.words for row in EXPECTED if there(row)]


def perhaps(stop: Stop) -> list[tuple[Expectation, float]]:
    """What a stop may have besides what is counted on, and how likely, where nobody has said it; the likeliest of each part."""
    if stop.people is None:
        return []
    size, found = known_people(stop.people), dict[str, tuple[Expectation, float]]()
    for row in EXPECTED:
        chance = row.chance(size)
        if row.part in stop.guessed and TOLD <= chance < COUNTED:
            found.setdefault(row.part if row.part in ("shop", "bike_shop") else row.words, (row, chance))
    return list(found.values())
