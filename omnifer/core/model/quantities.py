"""Field types shared by all nouns: finite, bounded, with their unit in words."""

import re
from typing import Annotated, Any, Literal, Self, TypeVar

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field


class Noun(BaseModel):
    """A frozen noun: unknown fields are refused, so that a misspelt one is never silently lost."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, json_schema_serialization_defaults_required=True)

    @classmethod
    def of_its_kinds(cls, **values: Any) -> Self:
        """One of values that are all of their kinds already, each field given: nothing is checked or filled in, which would take
        ten times as long."""
        made = cls.__new__(cls)
        for name, value in (("__dict__", values), ("__pydantic_fields_set__", set(values)), ("__pydantic_extra__", None),
                            ("__pydantic_private__", None)):  # fmt: skip
            object.__setattr__(made, name, value)
        return made


NounKind = TypeVar("NounKind", bound=Noun)


def blank_of(kind: type[NounKind]) -> NounKind:
    """A noun of which nothing is said yet: usual values, an empty text or 0 in fields that must be said. It is not checked."""
    fields = kind.model_fields
    empty = {name: field.annotation() for name, field in fields.items() if field.is_required() and field.annotation is not None}
    return kind.of_its_kinds(**{name: empty.get(name, field.default) for name, field in fields.items()})


Id = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,40}$", description="Identifier, unique among its kind in the tour")]
LONGEST_NAME = 120
UNREADABLE = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f\u2028-\u202e\u2066-\u2069\ud800-\udfff\ufdd0-\ufdef\ufffe\uffff]")
"""What nobody can read and some files cannot hold: control characters, changes of direction, halves of characters."""


def readable(text: object) -> object:
    """A text without what cannot be read; lines end as they do here."""
    return UNREADABLE.sub("", text.replace("\r\n", "\n").replace("\r", "\n")) if isinstance(text, str) else text


def on_one_line(text: object) -> object:
    """A readable text without ends of lines and without the space around it."""
    return re.sub(r"[\t\n]", " ", str(readable(text))).strip() if isinstance(text, str) else text


OneLine = BeforeValidator(on_one_line)
"""For every text that a rider or a file gives: dropped here, once, is what cannot be read."""
Name = Annotated[str, Field(min_length=1, max_length=LONGEST_NAME), OneLine]
Note = Annotated[str, Field(max_length=2000), BeforeValidator(readable)]
MassKg = Annotated[float, Field(ge=0, le=1000, description="Mass [kg]")]
VolumeL = Annotated[float, Field(ge=0, le=1000, description="Volume [l]")]
LengthMm = Annotated[float, Field(ge=0, le=10000, description="Length [mm]")]
PositionMm = Annotated[float, Field(ge=-10000, le=10000, description="Position [mm]")]
LONGEST_ROAD_KM = 50_000.0
"""More than once around the Earth; beyond it a track's points jump."""
DistanceKm = Annotated[float, Field(ge=0, le=LONGEST_ROAD_KM, description="Distance along the road [km]")]
ElevationM = Annotated[float, Field(ge=-500, le=9000, description="Height above the sea [m]")]
TemperatureC = Annotated[float, Field(ge=-60, le=60, description="Air temperature [°C]")]
Share = Annotated[float, Field(ge=0, le=1)]
Side = Literal["left", "middle", "right"]
Reach = Literal["riding", "stop", "camp", "night", "breaks"]
REACHES: tuple[Reach, ...] = ("riding", "stop", "camp", "night", "breaks")
"""The moments at which a hand must find a thing, from the most to the least urgent."""
ON_THE_WAY: frozenset[Reach] = frozenset({"riding", "stop"})
"""Moments of the day's way, at which no bag is unpacked for another."""

CarriedSupply = Literal["water", "food", "fuel"]
"""What is handed over at places, carried on and used up."""

ROUNDING = 0.005
"""What differs by no more than this is rounding, not a difference [kg, l]."""

Quantity = Literal[
    "mass",
    "volume",
    "distance",
    "elevation",
    "temperature",
    "temperature_difference",
    "share",
    "minutes",
    "hours",
    "length",
    "count",
    "grade",
    "speed",
    "pressure",
    "energy",
    "money",
]


class Figure(Noun):
    """One number in a sentence, in the base unit of its quantity.

    mass kg, volume l, distance km, elevation m, temperature and its difference °C, share and grade as fractions, length mm,
    speed km/h, pressure bar, energy Wh, money in that of the tour.
    """

    value: float
    quantity: Quantity
    decimals: int | None = Field(None, description="Where more or fewer are wanted than are usual for the quantity")


class Text(Noun):
    """A sentence whose figures are kept apart, so that each reader sees them in their own units.

    `words` holds a `{name}` where the figure or name of that key belongs.
    """

    words: str
    figures: dict[str, Figure] = {}
    names: dict[str, str] = {}

    def metric(self) -> str:
        """The sentence in metric units, for logs and the command line."""
        unit = {
            "mass": "kg",
            "volume": "l",
            "distance": "km",
            "elevation": "m",
            "temperature": "°C",
            "temperature_difference": "°C",
        }
        unit |= {
            "minutes": "min",
            "hours": "h",
            "length": "mm",
            "count": "",
            "speed": "km/h",
            "pressure": "bar",
            "energy": "Wh",
            "money": "",
        }
        shown = dict(self.names)
        for key, figure in self.figures.items():
            if figure.quantity in ("share", "grade"):
                shown[key] = f"{figure.value * 100:.0f} %"
            else:
                usual = 1 if figure.quantity in ("mass", "volume", "hours", "pressure") else 0
                decimals = usual if figure.decimals is None else figure.decimals
                shown[key] = f"{figure.value:.{decimals}f} {unit[figure.quantity]}".strip()
        return self.words.format(**shown)
