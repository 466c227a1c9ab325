"""The rows of a kit sheet, one after the other: things, names of kits, totals, and what is said of them."""

import re
from dataclasses import dataclass, field
from typing import get_args

from pydantic import Field, ValidationError

from omnifer.core.kit.kinds import kinds
from omnifer.core.kit.plausible import doubt_of, too_heavy
from omnifer.core.kit.told import Told, told_of
from omnifer.core.kit.understand import domain_of, understood
from omnifer.core.model.kit import Guessable, Thing
from omnifer.core.model.quantities import Noun
from omnifer.formats.kit_cells import Cell, not_negative, stem_of
from omnifer.formats.kit_columns import COLUMNS, MASS, ColumnRead, Quantity
from omnifer.formats.measures import measure
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
_NOTHING = {"-", "–", "—", "?", "n/a", "na", "k.a.", "."}
_TOTAL = re.compile(
    r"^(sub|grand|zwischen|end)?[ -]?(total|totals|totale|totaal|summe|gesamt|somme|suma|sum|insgesamt|razem|σ|∑)\b", re.I
)
_ABOUT = re.compile(r"~|≈|\b(ca|circa|about|approx|env|environ|etwa|ungefähr|around|±)\b\.?|±", re.I)
_MASS = re.compile(r"(?<=\S)[\s(]+(\d+(?:[.,]\d+)?\s*(?:g|gr|kg|oz|lbs?))\)?\s*$", re.I)


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
            mass: float | None = round(measure(said[1], MASS.units, "g", self.decimal_comma) / 1000, 6)
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
        silent = {COLUMNS[column].into for column in self.fields if column is not None} | values.keys()
        silent -= {"name", "count", "mass_kg"}
        silent |= {"soft_vessel"} if "holds_water" in self.fields else set()
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
        assert column.field is not None
        held = COLUMNS[column.field]
        if held.of is not None:
            self._measured(column, text, held.into, held.of, values)
            return
        cell = Cell(text, self.decimal_comma, self.riders)
        value = held.read(cell)
        for doubt in cell.doubts:
            self.tell(self.doubts, line, column.heading, text, doubt)
        if held.into == "guessed" and isinstance(value, tuple):
            value = (*_guessed(values), *value)
        if value is not None:
            values[held.into] = value

    def _measured(self, column: ColumnRead, text: str, to: str, of: Quantity, values: dict[str, object]) -> None:
        """An amount with its unit; several columns may hold the mass, of which one that is filled counts."""
        plain = _ABOUT.sub("", text).strip()
        amount = not_negative(measure(plain, of.units, column.unit, self.decimal_comma))
        if of is MASS:
            amount = round(amount / 1000, 9)
        before = values.get(to)
        if isinstance(before, float) and abs(before - amount) > SAME_MASS * max(before, amount):
            raise ValueError(f"{text} is not what the column before says, {before:g} kg")
        if before is None:
            values[to] = round(amount, 6)
        if plain != text.strip() and column.field in ("mass", "volume"):
            values["guessed"] = (*_guessed(values), column.field)


def _guessed(values: dict[str, object]) -> tuple[str, ...]:
    found = values.get("guessed", ())
    return found if isinstance(found, tuple) else ()


def _identifier(name: str, used: set[str]) -> str:
    stem = stem_of(name)
    identifier, k = stem, 2
    while identifier in used:
        identifier, k = f"{stem}-{k}", k + 1
    return identifier
