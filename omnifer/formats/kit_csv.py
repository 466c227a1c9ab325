"""The kit as a spreadsheet: read as riders keep theirs, written so that it reads back the same."""

import csv
import io
import re
from typing import Literal, get_args

from pydantic import Field, ValidationError

from omnifer.core.model.kit import Nature, Thing
from omnifer.core.model.quantities import Noun, Reach
from omnifer.formats.cell import read_role, read_where, write_role, write_where
from omnifer.formats.measures import GRAMS_PER, LITRES_PER, MILLIMETRES_PER, measure, number
from omnifer.formats.problem import InputProblem, what_of
from omnifer.formats.sheet import Delimiter, read_sheet

MOST_ROWS = 2000
DEFAULT_VOLUME_PER_KG = 3.0
"""Litres for each kilogram where the sheet has no volume; practice, marked as a guess."""

FieldName = Literal[
    "name", "group", "count", "mass", "volume", "longest", "reach", "dry", "wet", "natures", "not_with", "rider",
    "holds_water", "soft_vessel", "salts", "fuel", "food", "guess", "price", "inside", "because", "total_mass",
    "pressed", "bag", "may_stay", "does", "where", "closed",
]  # fmt: skip

HEADINGS: dict[FieldName, tuple[str, ...]] = {
    "name": ("name", "thing", "what", "description", "article", "bezeichnung", "objet"),
    "group": ("group", "kit", "category", "set", "section", "kategorie"),
    "count": ("count", "number", "qty", "quantity", "pieces", "pcs", "how many", "anzahl", "no"),
    "mass": ("mass", "weight", "wt", "gewicht", "poids", "kg", "g", "gram", "grams", "lb", "oz"),
    "volume": ("volume", "packed volume", "vol", "litres", "liters", "volumen", "l", "ml"),
    "pressed": ("pressed", "compressed", "least volume", "stuffed"),
    "longest": ("longest", "length", "longest side", "longest rigid side", "mm", "cm", "laenge", "länge"),
    "reach": ("reach", "when", "needed", "access"),
    "dry": ("dry", "must stay dry", "keep dry"),
    "wet": ("wet", "gets wet"),
    "natures": ("natures", "nature", "is"),
    "not_with": ("not_with", "not with", "keep from", "apart from"),
    "rider": ("rider", "who", "carried by", "owner", "carrier"),
    "holds_water": ("holds_water", "holds water", "water", "holds"),
    "soft_vessel": ("soft_vessel", "soft vessel", "soft"),
    "salts": ("salts", "for salts"),
    "fuel": ("fuel",),
    "food": ("food",),
    "guess": ("guess", "guessed"),
    "price": ("price", "cost", "preis", "prix"),
    "inside": ("inside", "rides in", "packed in", "nested in"),
    "bag": ("bag", "is a bag"),
    "may_stay": ("may_stay", "may stay", "optional", "if there is room"),
    "does": ("does", "role", "does for the supplies"),
    "where": ("where", "whereabouts"),
    "closed": ("closed", "stays shut"),
    "because": ("because", "why", "reason", "note", "notes", "remark"),
    "total_mass": ("total", "total weight", "total mass", "sum"),
}
_UNITS: dict[FieldName, dict[str, float]] = {
    "mass": GRAMS_PER,
    "volume": LITRES_PER,
    "pressed": LITRES_PER,
    "holds_water": LITRES_PER,
    "longest": MILLIMETRES_PER,
}
_REACH_WORDS: dict[str, Reach] = {
    "riding": "riding", "while riding": "riding", "stop": "stop", "at a stop": "stop", "day": "stop", "camp": "camp",
    "on arrival in camp": "camp", "evening": "camp", "night": "night", "overnight": "night", "sleep": "night",
    "breaks": "breaks", "only if something breaks": "breaks", "repair": "breaks", "emergency": "breaks",
}  # fmt: skip
_TRUE = {"1", "yes", "y", "x", "true", "ja", "oui", "✓"}


class ColumnRead(Noun):
    """How one column was understood."""

    heading: str
    field: FieldName | None = Field(description="None: not understood, left aside")
    unit: str = ""


class RowProblem(Noun):
    """A row, or a cell of it, that could not be read."""

    row: int = Field(description="Line in the sheet, the heading being line 1")
    heading: str
    text: str
    what: str


class KitPreview(Noun):
    """What a sheet would bring, before anything is taken."""

    delimiter: Delimiter
    decimal_comma: bool
    columns: list[ColumnRead]
    things: list[Thing]
    problems: list[RowProblem]
    remarks: list[str]


def read_kit_csv(text: str, riders: dict[str, str], taken_ids: set[str] | None = None) -> KitPreview:
    """Understand a kit sheet.

    Parameters
    ----------
    riders : dict
        Rider identifiers by lower-case name.
    taken_ids : set of str, optional
        Identifiers that new things must not get.

    Raises InputProblem where there is no table at all.
    """
    sheet = read_sheet(text)
    columns = _columns(sheet.headings)
    if not any(c.field == "name" for c in columns):
        shown = ", ".join(repr(c.heading) for c in columns[:6])
        raise InputProblem(f"No column holds the names of the things; the headings are {shown}", f"line {sheet.first + 1}",
                           "Call one column 'name'.")  # fmt: skip
    decimal_comma = sheet.delimiter != "," and any(re.search(r"\d,\d", cell) for _, row in sheet.lines for cell in row)
    things: list[Thing] = []
    problems: list[RowProblem] = []
    used = set(taken_ids or ())
    for line, row in sheet.lines:
        if len(things) >= MOST_ROWS:
            problems.append(
                RowProblem(row=line, heading="", text="", what=f"more than {MOST_ROWS} things; the rest is left aside")
            )
            break
        thing = _thing(line, row, columns, decimal_comma, riders, used, problems)
        if thing is not None:
            things.append(thing)
            used.add(thing.id)
    remarks = []
    if not any(c.field == "volume" for c in columns):
        remarks.append(f"No volumes: {DEFAULT_VOLUME_PER_KG:g} l a kilogram are guessed (practice) and marked as guesses.")
    return KitPreview(
        delimiter=sheet.delimiter, decimal_comma=decimal_comma, columns=columns, things=things, problems=problems, remarks=remarks
    )


def _columns(headings: list[str]) -> list[ColumnRead]:
    result, seen = [], set()
    for heading in headings:
        unit_found = re.search(r"[(\[_/ ](kg|g|lbs?|oz|l|ml|litres?|fl oz|mm|cm|in)[)\]]?$", heading.lower())
        bare = re.sub(r"[(\[].*?[)\]]", "", heading.lower()).replace("_", " ").strip(" :")
        unit = unit_found[1] if unit_found else ""
        stem = re.sub(rf"[ /]{unit}$", "", bare) if unit else bare
        names = (heading.lower().strip(), bare, stem)
        field = next((f for f, words in HEADINGS.items() if any(n in words for n in names)), None)
        if field in ("mass", "volume", "longest") and not unit and bare in _UNITS[field]:
            unit = bare
        if field is not None and field in seen:
            field = None
        seen.add(field)
        result.append(ColumnRead(heading=heading or "(no heading)", field=field, unit=unit if field in _UNITS else ""))
    return result


class _Cell:
    """One cell being read; a refusal remembers its place."""

    def __init__(self, line: int, heading: str, problems: list[RowProblem]) -> None:
        self.line, self.heading, self.problems = line, heading, problems

    def refuse(self, text: str, what: str) -> None:
        self.problems.append(RowProblem(row=self.line, heading=self.heading, text=text[:80], what=what))


def _thing(
    line: int,
    row: list[str],
    columns: list[ColumnRead],
    decimal_comma: bool,
    riders: dict[str, str],
    used: set[str],
    problems: list[RowProblem],
) -> Thing | None:
    values: dict[str, object] = {}
    before = len(problems)
    for column, text in zip(columns, row, strict=False):
        if column.field is None or column.field == "total_mass" or not text:
            continue
        cell = _Cell(line, column.heading, problems)
        try:
            _read(column, text, decimal_comma, riders, values)
        except ValueError as error:
            cell.refuse(text, str(error))
    if "name" not in values:
        if len(problems) == before:
            _Cell(line, "name", problems).refuse(" ".join(filter(None, row)), "the row has no name, so it is left aside")
        return None
    if "mass_kg" not in values:
        if len(problems) == before:
            _Cell(line, "mass", problems).refuse("", f"{values['name']} has no mass; write 0 if it weighs nothing")
        return None
    if len(problems) > before:
        return None
    if "volume_l" not in values:
        values["volume_l"] = round(DEFAULT_VOLUME_PER_KG * float(str(values["mass_kg"])), 3)
        values["guess"] = True
    try:
        return Thing.model_validate(values | {"id": _identifier(str(values["name"]), used)})
    except ValidationError as error:
        for problem in error.errors():
            field = str(problem["loc"][0]) if problem["loc"] else ""
            _Cell(line, field, problems).refuse(str(problem.get("input", "")), what_of(problem).lower())
        return None


def _read(column: ColumnRead, text: str, decimal_comma: bool, riders: dict[str, str], values: dict[str, object]) -> None:
    """Put one cell into the fields of a thing. Raises ValueError in words."""
    match column.field:
        case "mass":
            if "~" in text:
                values["guess"] = True
            values["mass_kg"] = _positive(measure(text, GRAMS_PER, column.unit or "kg", decimal_comma) / 1000)
        case "volume":
            values["volume_l"] = _positive(measure(text, LITRES_PER, column.unit or "l", decimal_comma))
        case "pressed":
            values["pressed_l"] = _positive(measure(text, LITRES_PER, column.unit or "l", decimal_comma))
        case "holds_water":
            values["holds_water_l"] = _positive(measure(text, LITRES_PER, column.unit or "l", decimal_comma))
        case "longest":
            values["longest_mm"] = _positive(measure(text, MILLIMETRES_PER, column.unit or "mm", decimal_comma))
        case "count":
            count = number(text, decimal_comma)
            if count != int(count):
                raise ValueError("a number of things is a whole number")
            values["count"] = int(count)
        case "reach":
            word = text.lower()
            if word not in _REACH_WORDS:
                raise ValueError(f"reach is one of {', '.join(get_args(Reach))}")
            values["reach"] = _REACH_WORDS[word]
        case "dry":
            word = text.lower()
            values["dry"] = word if word in ("any", "must", "own_bag") else "must" if word in _TRUE else "any"
        case "natures" | "not_with":
            words = tuple(w for w in re.split(r"[\s,;+]+", text.lower()) if w)
            unknown = [w for w in words if w not in get_args(Nature)]
            if unknown:
                raise ValueError(f"{unknown[0]!r} is none of {', '.join(get_args(Nature))}")
            values[column.field] = words
        case "rider":
            if text.lower() not in riders:
                raise ValueError(f"no rider is called {text!r}")
            values["rider_id"] = riders[text.lower()]
        case "wet" | "soft_vessel" | "salts" | "fuel" | "food" | "guess" | "bag" | "may_stay" | "closed":
            values[column.field] = text.lower() in _TRUE
        case "price":
            values["price"] = _positive(number(text, decimal_comma))
        case "inside":
            values["inside"] = _stem(text)
        case "does":
            values["role"] = read_role(text)
        case "where":
            values["where"] = read_where(text)
        case "name" | "group" | "because":
            values[column.field] = text
        case _:
            pass


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


def write_kit_csv(things: tuple[Thing, ...], riders: dict[str, str]) -> str:
    """The kit as a sheet that `read_kit_csv` reads back. `riders` gives names by identifier."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["name", "group", "count", "mass kg", "volume l", "pressed l", "longest mm", "reach", "dry", "wet", "natures",
                     "not_with", "rider", "holds_water l", "soft_vessel", "salts", "fuel", "food", "guess", "price", "inside",
                     "bag", "may_stay", "does", "where", "closed", "because"])  # fmt: skip
    names = {t.id: t.name for t in things}
    for t in things:
        pressed = f"{t.pressed_l:g}" if t.pressed_l else ""
        flags = [("yes" if flag else "") for flag in (t.soft_vessel, t.salts, t.fuel, t.food, t.guess)]
        writer.writerow(
            [t.name, t.group, t.count, f"{t.mass_kg:g}", f"{t.volume_l:g}", pressed, f"{t.longest_mm:g}", t.reach, t.dry,
             "yes" if t.wet else "", " ".join(t.natures), " ".join(t.not_with),
             riders.get(t.rider_id or "", ""), f"{t.holds_water_l:g}" if t.holds_water_l else "", *flags,
             "" if t.price is None else f"{t.price:g}", names.get(t.inside or "", ""), "yes" if t.bag else "",
             "yes" if t.may_stay else "", write_role(t.role), write_where(t.where), "yes" if t.closed else "", t.because]
        )  # fmt: skip
    return out.getvalue()
