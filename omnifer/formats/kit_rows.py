"""The rows of a kit sheet, one after the other: things, names of kits, totals, and what is said of them."""

import re
from dataclasses import dataclass, field
from typing import get_args

from pydantic import Field, ValidationError

from omnifer.core.kit.kinds import kinds
from omnifer.core.kit.plausible import doubt_of, too_heavy
from omnifer.core.kit.told import Told, told_of
from omnifer.core.kit.understand import domain_of, understood
from omnifer.core.model.kit import Guessable, Nature, Thing
from omnifer.core.model.quantities import Noun, Reach
from omnifer.formats.cell import read_fit, read_role, read_where
from omnifer.formats.kit_columns import UNITS, ColumnRead, FieldName
from omnifer.formats.measures import GRAMS_PER, measure, number
from omnifer.formats.problem import what_of

SAME_SUM = 0.005
"""A row that holds the sum of those above it, but for such a part [-], is their total."""
SUMMED_ROWS = 3
"""Two things weigh what a third does by chance."""
MARKED: dict[Guessable, str] = {
    "mass": "mass_kg", "volume": "volume_l", "reach": "reach", "dry": "dry", "natures": "natures", "serves": "serves",
    "role": "role",
}  # fmt: skip
"""The field of each mark."""
ALL_OR_NONE = {"natures", "not_with", "serves", "role", "holds_water_l", "soft_vessel", "longest_mm", "where"}
"""Where a sheet has a column for one of these, an empty cell says that there is none."""
SUMS = {"name", "group", "count", "mass_kg", "volume_l", "price", "guessed"}
"""A total says no more than these; who says how dry or how near a row is to be packed means a thing."""
SAME_MASS = 0.03
"""Two masses in a row that differ by more [-] do not say the same."""
_REACH_WORDS: dict[str, Reach] = {
    "riding": "riding", "while riding": "riding", "stop": "stop", "at a stop": "stop", "day": "stop", "camp": "camp",
    "on arrival in camp": "camp", "evening": "camp", "night": "night", "overnight": "night", "sleep": "night",
    "breaks": "breaks", "only if something breaks": "breaks", "repair": "breaks", "emergency": "breaks",
}  # fmt: skip
_TRUE = {"1", "yes", "y", "x", "true", "ja", "oui", "sí", "si", "tak", "✓"}
_DRY_WORDS = {
    "any": "any", "may get damp": "any", "no": "any", "nein": "any", "non": "any", "must": "must", "must stay dry": "must",
    "keep dry": "must", "waterproof bag": "must", "own_bag": "own_bag", "own bag": "own_bag", "own dry bag": "own_bag",
    "in its own dry bag": "own_bag", "dry bag": "own_bag", **dict.fromkeys(sorted(_TRUE), "must"),
}  # fmt: skip
"""How dry a thing must stay, as riders and Omnifer's own screens say it."""
_SHARED = {"shared", "all", "both", "everybody", "alle", "beide", "gemeinsam", "tous", "compartido", "todos", "comune", "tutti"}
"""Said where a sheet names who carries a thing and everybody does."""
_NOTHING = {"-", "–", "—", "?", "n/a", "na", "k.a.", "."}
_TOTAL = re.compile(
    r"^(sub|grand|zwischen|end)?[ -]?(total|totals|totale|totaal|summe|gesamt|somme|suma|sum|insgesamt|razem|σ|∑)\b", re.I
)
_ABOUT = re.compile(r"~|≈|\b(ca|circa|about|approx|env|environ|etwa|ungefähr|around|±)\b\.?|±", re.I)
_MASS = re.compile(r"(?<=\S)[\s(]+(\d+(?:[.,]\d+)?\s*(?:g|gr|kg|oz|lbs?))\)?\s*$", re.I)
_COUNT = re.compile(
    r"(?:x\s*)?(\d+)\s*(x|pcs?|pieces?|stk|stück|stueck|st|paar|pairs?|pr|paires?|pares|paia|paar|pezzi|pièces|piezas|stuks|szt)?\.?",
    re.I,
)


VITAL = ("id", "name", "mass_kg")
"""Without these there is no thing."""
MOST_TOLD = 300
"""So many rows of a kind are told; a sheet with more that cannot be read is read no further."""


class RowProblem(Noun):
    """A row, or a cell of it, that could not be read, or that is asked about."""

    row: int = Field(description="Line in the sheet, from 1")
    heading: str
    text: str
    what: str


@dataclass
class Reading:
    """A sheet being read row by row."""

    columns: list[ColumnRead]
    decimal_comma: bool
    riders: dict[str, str]
    used: set[str]
    things: list[Thing] = field(default_factory=list)
    problems: list[RowProblem] = field(default_factory=list)
    doubts: list[RowProblem] = field(default_factory=list)
    aside: list[RowProblem] = field(default_factory=list)
    kits: list[str] = field(default_factory=list)
    since: list[float] = field(default_factory=list)
    """Masses of the things since the last total or kit [kg]."""
    said: dict[str, str] = field(default_factory=dict)
    """What a rider says that things are, by their identifiers."""
    told: dict[str, Told] = field(default_factory=dict)
    """What the names told, by the identifiers of the things."""

    def __post_init__(self) -> None:
        self.fields = {column.field for column in self.columns}

    def tell(self, where: list[RowProblem], line: int, heading: str, text: str, what: str) -> None:
        """Remember what is said of a cell or a row; so many times, then that there is more."""
        if len(where) < MOST_TOLD:
            where.append(RowProblem(row=line, heading=heading, text=text[:80], what=what))
        elif len(where) == MOST_TOLD:
            where.append(
                RowProblem(row=line, heading="", text="", what=f"more than {MOST_TOLD} such rows; the rest is not listed")
            )

    def row(self, line: int, row: list[str], after_gap: bool) -> None:
        """Take one row: a thing, the name of a kit, a total, or a problem."""
        values = dict[str, object]()
        before, doubts = len(self.problems), len(self.doubts)
        for column, text in zip(self.columns, row, strict=False):
            if column.field is None or not text or text.lower() in _NOTHING:
                continue
            try:
                self._cell(line, column, text, values)
            except ValueError as error:
                # A cell that cannot be read leaves its thing without that; without a name or a mass there is none.
                vital = column.field in ("name", "mass", "total_mass")
                self.tell(
                    self.problems if vital else self.doubts,
                    line,
                    column.heading,
                    text,
                    f"{error}; left out" if not vital else str(error),
                )
        name = str(values.get("name", ""))
        total = values.pop("total_mass", None)
        if "mass_kg" not in values and isinstance(total, float) and "mass" not in self.fields:
            values["mass_kg"] = round(total / int(str(values.get("count", 1))), 6)
        if self._is_total(row, name, values):
            del self.problems[before:], self.doubts[doubts:]
            self.tell(self.aside, line, "", " ".join(filter(None, row)), "the sum of the rows above")
            self.since.clear()
        elif set(values) == {"name"} and len(self.problems) == before and self._is_kit(name, after_gap):
            self.kits.append(name.strip(": "))
            self.since.clear()
        elif (thing := self._thing(line, row, values, whole=len(self.problems) == before)) is not None:
            self.things.append(thing)
            self.used.add(thing.id)
            self.since.append(thing.mass_kg * thing.count)

    def _is_total(self, row: list[str], name: str, values: dict[str, object]) -> bool:
        """Whether a row of sums says that it is a total, or names nothing known and weighs what the rows above weigh together."""
        if not values.keys() <= SUMS:
            return False
        if any(_TOTAL.match(cell) for cell in ([name] if name else row)):
            return True
        mass = values.get("mass_kg")
        summed = sum(self.since)
        return (
            isinstance(mass, float) and len(self.since) >= SUMMED_ROWS and summed > 0 and not understood(name).likeliest
            and abs(mass - summed) <= SAME_SUM * summed
        )  # fmt: skip

    def _is_kit(self, name: str, after_gap: bool) -> bool:
        """Whether a name alone names the rows below it, and is no thing whose mass nobody wrote."""
        if "group" in self.fields:
            return name.isupper() or name.endswith(":")
        if not {"mass", "total_mass"} & self.fields:
            about = domain_of(name) is not None and understood(name).kind is None
            return name.isupper() or name.endswith(":") or about
        if after_gap or not self.things or name.isupper() or name.endswith(":"):
            return True
        return bool(self.kits) and not understood(name).likeliest

    def _thing(self, line: int, row: list[str], values: dict[str, object], whole: bool) -> Thing | None:
        name = values.get("name")
        if not whole:
            return None
        if name is None:
            self.tell(self.problems, line, "name", " ".join(filter(None, row)), "the row has no name, so it is left aside")
            return None
        mass = values.get("mass_kg")
        if not isinstance(mass, float):
            mass = self._mass_by_name(str(name), values)
        if mass is None:
            self.tell(
                self.problems,
                line,
                "mass",
                "",
                f"{name} has no mass; write it in its cell or behind its name, 0 g if it weighs nothing",
            )
            return None
        if too_heavy(mass):
            what = f"{mass:g} kg is more than one thing weighs: choose the unit of the column, or add it by hand"
            self.tell(self.problems, line, "mass", str(name), what)
            return None
        if self.kits and "group" not in values:
            values["group"] = self.kits[-1][:60]
        thing_id = _identifier(str(values["name"]), self.used)
        told = self._guess(str(values["name"]), mass, values, thing_id)
        thing = self._whole(line, values | {"id": thing_id})
        if thing is None:
            return None
        self.told[thing_id] = told
        if "volume" not in thing.guessed and (doubt := doubt_of(thing.mass_kg, thing.volume_l)) is not None:
            self.tell(self.doubts, line, "volume", thing.name, doubt)
        return thing

    def _mass_by_name(self, name: str, values: dict[str, object]) -> float | None:
        """Where no cell has it: as the name says, else what such things usually weigh, a guess; None where neither is known."""
        said = _MASS.search(name)
        if said is not None:
            values["name"] = name[: said.start()].strip(" ,;:-(") or name
            mass: float | None = round(measure(said[1], GRAMS_PER, "g", self.decimal_comma) / 1000, 6)
        else:
            kind = understood(name).kind
            mass = None if kind is None else kinds()[kind].kg
            values["guessed"] = (*_guessed(values), "mass")
        if mass is not None:
            values["mass_kg"] = mass
        return mass

    def _whole(self, line: int, values: dict[str, object]) -> Thing | None:
        """The thing, without what cannot be so; None where its name or its mass cannot."""
        for _ in range(len(values)):
            try:
                return Thing.model_validate(values)
            except ValidationError as error:
                told = [
                    (str(one["loc"][0]) if one["loc"] else "", str(one.get("input", "")), what_of(one).lower())
                    for one in error.errors()
                ]
            spare = [heading for heading, *_ in told if heading in values and heading not in VITAL]
            if not spare:
                for heading, text, what in told:
                    self.tell(self.problems, line, heading, text, what)
                return None
            for heading, text, what in told:
                if heading in spare:
                    self.tell(self.doubts, line, heading, text, f"{what}; left out")
            values = {name: value for name, value in values.items() if name not in spare}
        return None

    def _guess(self, name: str, mass_kg: float, values: dict[str, object], thing_id: str) -> Told:
        """What the sheet does not say, by the name; each marked as a guess."""
        told = told_of(name, mass_kg, str(values.get("group", "")), self.said.get(thing_id))
        marks = list(_guessed(values))
        if "count" not in values:
            values |= {"count": told.fields["count"], "name": told.fields["name"], "mass_kg": told.fields["mass_kg"]}
        columns = {column: _INTO.get(column, column) for column in self.fields if column is not None}
        silent = {*columns.values(), *values} - {"name", "count", "mass_kg"}
        silent |= {"role"} if "does" in self.fields else set()
        silent |= {"holds_water_l", "soft_vessel"} if "holds_water" in self.fields else set()
        for field_name, value in told.fields.items():
            if field_name in silent and (field_name in values or field_name in ALL_OR_NONE):
                continue
            if field_name in ("name", "count", "mass_kg") or (field_name == "where" and "inside" in values):
                continue
            values[field_name] = value
            marks += [mark for mark in told.guessed if MARKED[mark] == field_name]
        if told.kind and kinds()[told.kind].each and len(self.riders) == 1 and "rider" not in self.fields:
            values["rider_id"] = next(iter(self.riders.values()))
        values["guessed"] = tuple(mark for mark in get_args(Guessable) if mark in marks)
        return told

    def _cell(self, line: int, column: ColumnRead, text: str, values: dict[str, object]) -> None:
        """Put one cell into the fields of a thing. Raises ValueError in words."""
        match column.field:
            case "mass" | "total_mass" | "volume" | "pressed" | "holds_water" | "longest" | "thick":
                self._measured(line, column, text, values)
            case "count":
                found = _COUNT.fullmatch(text.strip())
                if found is None and number(text, self.decimal_comma) % 1:
                    raise ValueError("a number of things is a whole number")
                values["count"] = int(found[1]) if found else int(number(text, self.decimal_comma))
                if found and found[2]:
                    self.tell(self.doubts, line, column.heading, text, f"read as {found[1]}")
            case "reach":
                word = text.lower()
                if word not in _REACH_WORDS:
                    raise ValueError(f"reach is one of {', '.join(get_args(Reach))}")
                values["reach"] = _REACH_WORDS[word]
            case "dry":
                word = text.lower()
                if word not in _DRY_WORDS:
                    raise ValueError(f"dry is one of {', '.join(_DRY_WORDS)}: what the thing needs, not what it is")
                values["dry"] = _DRY_WORDS[word]
            case "natures" | "not_with":
                words = tuple(w for w in re.split(r"[\s,;+]+", text.lower()) if w)
                unknown = [w for w in words if w not in get_args(Nature)]
                if unknown:
                    raise ValueError(f"{unknown[0]!r} is none of {', '.join(get_args(Nature))}")
                values[column.field] = words
            case "rider":
                if text.lower() in _SHARED:
                    return
                if text.lower() not in self.riders:
                    raise ValueError(f"no rider is called {text!r}")
                values["rider_id"] = self.riders[text.lower()]
            case "wet" | "soft_vessel" | "salts" | "fuel" | "food" | "bag" | "may_stay" | "closed" | "spare" | "must":
                values[column.field] = text.lower() in _TRUE
            case "guessed":
                marks = (
                    ("mass", "volume") if text.lower() in _TRUE else tuple(w for w in text.split() if w in get_args(Guessable))
                )
                values["guessed"] = (*_guessed(values), *marks)
            case "price":
                values["price"] = _positive(number(text, self.decimal_comma))
            case "inside":
                values["inside"] = _stem(text)
            case "does":
                values["role"] = read_role(text)
            case "serves":
                values["serves"] = tuple(re.split(r"[\s,;+]+", text.lower().strip()))
            case "fit":
                values["fit"] = read_fit(text)
            case "condition" | "held":
                values[column.field] = re.sub(r"[ -]", "_", text.lower())
            case "unused_tours" | "year":
                values[column.field] = int(number(text, self.decimal_comma))
            case "where":
                values["where"] = read_where(text)
            case "name" | "group" | "because" | "last_time":
                values[column.field] = text
            case _:
                pass

    def _measured(self, line: int, column: ColumnRead, text: str, values: dict[str, object]) -> None:
        """An amount with its unit; several columns may hold the mass, of which one that is filled counts."""
        assert column.field is not None
        plain = _ABOUT.sub("", text).strip()
        amount = _positive(measure(plain, UNITS[column.field], column.unit, self.decimal_comma))
        to = _INTO[column.field]
        if to.endswith("_kg") or to == "total_mass":
            amount = round(amount / 1000, 9)
        before = values.get(to)
        if isinstance(before, float) and abs(before - amount) > SAME_MASS * max(before, amount):
            raise ValueError(f"{text} is not what the column before says, {before:g} kg")
        if before is None:
            values[to] = round(amount, 6)
        if plain != text.strip() and column.field in ("mass", "volume"):
            values["guessed"] = (*_guessed(values), column.field)


_INTO: dict[FieldName, str] = {
    "mass": "mass_kg", "total_mass": "total_mass", "volume": "volume_l", "pressed": "pressed_l", "holds_water": "holds_water_l",
    "longest": "longest_mm", "thick": "thick_mm",
}  # fmt: skip


def _guessed(values: dict[str, object]) -> tuple[str, ...]:
    found = values.get("guessed", ())
    return found if isinstance(found, tuple) else ()


def _positive(value: float) -> float:
    if value < 0:
        raise ValueError("less than nothing")
    return round(value, 6)


def _stem(name: str) -> str:
    """A name as an identifier: things of a sheet are named in one another by their names."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:34] or "thing"


def _identifier(name: str, used: set[str]) -> str:
    stem = _stem(name)
    identifier, k = stem, 2
    while identifier in used:
        identifier, k = f"{stem}-{k}", k + 1
    return identifier
