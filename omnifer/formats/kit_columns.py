"""The columns of a kit sheet: what each holds, in which unit, and where that is unsure and is asked."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import Field

from omnifer.core.kit.plausible import too_heavy
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Noun
from omnifer.formats import kit_cells as cells
from omnifer.formats.kit_cells import Cell, Names, Shown
from omnifer.formats.measures import GRAMS_PER, LITRES_PER, MILLIMETRES_PER, measure, number

FieldName = Literal[
    "name", "group", "count", "mass", "volume", "longest", "thick", "reach", "dry", "wet", "natures", "not_with", "rider",
    "holds_water", "soft_vessel", "salts", "fuel", "food", "guessed", "price", "inside", "because", "total_mass",
    "pressed", "bag", "may_stay", "does", "where", "closed", "serves", "fit", "condition", "held", "spare", "must",
    "unused_tours", "year", "last_time",
]  # fmt: skip


@dataclass(frozen=True)
class Quantity:
    """What a column of amounts is measured in."""

    base: str
    units: Mapping[str, float]


MASS, VOLUME, LENGTH = Quantity("kg", GRAMS_PER), Quantity("l", LITRES_PER), Quantity("mm", MILLIMETRES_PER)


@dataclass(frozen=True)
class Column:
    """One column of a kit sheet: the field of a thing it holds, headings it is known by, how its cells are read and written."""

    into: str
    words: tuple[str, ...]
    read: Callable[[Cell], object] = cells.as_text
    write: Callable[[Any, Names], Shown] = cells.plain
    of: Quantity | None = None


def _amount(of: Quantity, into: str, *words: str, write: Callable[[Any, Names], Shown] = cells.plain) -> Column:
    return Column(into, words, write=write, of=of)


def _yes(into: str, *words: str) -> Column:
    return Column(into, words, cells.as_yes)


COLUMNS: dict[FieldName, Column] = {
    "name": Column("name", (
        "name", "thing", "what", "description", "article", "item", "gear", "object", "bezeichnung", "gegenstand", "artikel",
        "ausrüstung", "was", "objet", "nom", "désignation", "matériel", "nombre", "objeto", "artículo", "oggetto", "nome",
        "cosa", "naam", "voorwerp", "nazwa", "rzecz",
    )),
    "group": Column("group", (
        "group", "kit", "category", "set", "section", "kategorie", "gruppe", "bereich", "catégorie", "groupe", "categoría",
        "grupo", "categoria", "gruppo", "categorie", "groep", "kategoria", "grupa",
    )),
    "count": Column("count", (
        "count", "number", "qty", "quantity", "pieces", "pcs", "how many", "anzahl", "no", "stück", "stk", "menge", "nombre de",
        "quantité", "qté", "cantidad", "quantità", "aantal", "ilość", "x",
    ), cells.as_count),
    "mass": _amount(
        MASS, "mass_kg", "mass", "weight", "wt", "gewicht", "masse", "poids", "peso", "waga", "kg", "g", "gram", "grams", "gramm",
        "lb", "lbs", "oz",
    ),
    "volume": _amount(
        VOLUME, "volume_l", "volume", "packed volume", "vol", "litres", "liters", "volumen", "packvolumen", "liter", "litros",
        "litri", "inhoud", "objętość", "l", "ml",
    ),
    "pressed": _amount(VOLUME, "pressed_l", "pressed", "compressed", "least volume", "stuffed", write=cells.or_nothing),
    "longest": _amount(
        LENGTH, "longest_mm", "longest", "length", "longest side", "longest rigid side", "mm", "cm", "laenge", "länge",
        "longueur", "largo", "lunghezza", "lengte",
    ),
    "thick": _amount(
        LENGTH, "thick_mm", "thick", "thickness", "middle side", "dicke", "stärke", "épaisseur", "grosor", "spessore", "dikte",
        write=cells.or_nothing,
    ),
    "reach": Column("reach", ("reach", "when", "needed", "access", "wann", "quand"), cells.as_reach),
    "dry": Column("dry", ("dry", "must stay dry", "keep dry", "trocken", "sec", "seco", "asciutto"), cells.as_dry),
    "wet": _yes("wet", "wet", "gets wet"),
    "natures": Column("natures", ("natures", "nature", "is"), cells.as_natures),
    "not_with": Column("not_with", ("not_with", "not with", "keep from", "apart from"), cells.as_natures),
    "rider": Column(
        "rider_id", ("rider", "who", "carried by", "owner", "carrier", "wer", "fahrer", "qui", "quién", "chi", "wie", "kto"),
        cells.as_rider, cells.called("riders"),
    ),
    "holds_water": _amount(VOLUME, "holds_water_l", "holds_water", "holds water", "water", "holds", write=cells.or_nothing),
    "soft_vessel": _yes("soft_vessel", "soft_vessel", "soft vessel", "soft"),
    "salts": _yes("salts", "salts", "for salts"),
    "fuel": _yes("fuel", "fuel"),
    "food": _yes("food", "food"),
    "guessed": Column("guessed", ("guessed", "guess", "estimate", "geschätzt"), cells.as_marks),
    "price": Column("price", ("price", "cost", "preis", "prix", "precio", "prezzo", "prijs", "cena"), cells.as_price),
    "inside": Column("inside", ("inside", "rides in", "packed in", "nested in"), cells.as_name, cells.called("things")),
    "bag": _yes("bag", "bag", "is a bag"),
    "may_stay": _yes("may_stay", "may_stay", "may stay", "optional", "if there is room"),
    "does": Column("role", ("does", "role", "does for the supplies"), cells.as_role, cells.role_shown),
    "where": Column("where", ("where", "whereabouts"), cells.as_where, cells.where_shown),
    "closed": _yes("closed", "closed", "stays shut"),
    "serves": Column("serves", ("serves", "is for"), cells.as_words),
    "fit": Column("fit", ("fit", "fits"), cells.as_fit, cells.fit_shown),
    "condition": Column("condition", ("condition",), cells.as_word),
    "held": Column("held", ("held",), cells.as_word),
    "spare": _yes("spare", "spare", "is a spare"),
    "must": _yes("must", "must", "must come"),
    "unused_tours": Column("unused_tours", ("unused_tours", "unused on tours"), cells.as_whole, cells.or_nothing),
    "year": Column("year", ("year", "bought in"), cells.as_whole),
    "because": Column("because", (
        "because", "why", "reason", "note", "notes", "remark", "comment", "comments", "bemerkung", "notiz", "kommentar",
        "remarque", "nota", "opmerking", "uwagi",
    )),
    "last_time": Column("last_time", ("last_time", "last time")),
    "total_mass": _amount(
        MASS, "total_mass", "total", "total weight", "total mass", "sum", "gesamtgewicht", "summe", "poids total", "peso total",
        "peso totale",
    ),
}  # fmt: skip
"""In the order in which they are written; the total of several alike is only read."""
NOT_IN_SHEETS = frozenset({"id", "instead_of", "library_id", "hung"})
"""Fields of a thing that only Omnifer's own files keep."""
WRITTEN = {name: column for name, column in COLUMNS.items() if column.into in Thing.model_fields}
_UNIT = re.compile(r"[(\[_/ ,](kg|g|gr|gramm?s?|lbs?|oz|l|ml|litres?|liter|fl oz|mm|cm|in)[)\]]?$")
_GRAMS = {"gr": "g", "gram": "g", "grams": "g", "gramm": "g"}


class ColumnChoice(Noun):
    """What the rider says that a column holds."""

    column: int = Field(ge=0, le=500, description="From 0")
    field: FieldName | None = Field(description="None: leave it aside")
    unit: str = Field("", max_length=10)


class ColumnRead(Noun):
    """How one column was understood."""

    heading: str
    field: FieldName | None = Field(description="None: not understood, left aside")
    unit: str = ""
    ask: str = Field("", description="Why the reading is unsure; empty where it is sure")
    shows: str = Field("", description="What stands in its first row that is not empty")


def quantity_of(field: FieldName | None) -> Quantity | None:
    """What a column of amounts is measured in; None: it holds no amounts."""
    return None if field is None else COLUMNS[field].of


def known(heading: str) -> bool:
    """Whether a heading says what its column holds."""
    return _field_and_unit(heading)[0] is not None


def columns_of(
    headings: list[str], rows: list[list[str]], choices: tuple[ColumnChoice, ...], decimal_comma: bool
) -> list[ColumnRead]:
    """What each column holds, as the rider or its heading says; units as the heading, the cells or the sizes have it."""
    chosen = {choice.column: choice for choice in choices}
    found, seen = list[ColumnRead](), set[tuple[FieldName, str]]()
    width = max([len(headings), *(len(row) for row in rows)])
    for n in range(width):
        heading = headings[n] if n < len(headings) else ""
        filled = [row[n] for row in rows if n < len(row) and row[n]]
        ask = ""
        if n in chosen:
            field, unit = chosen[n].field, chosen[n].unit
        else:
            field, unit = _field_and_unit(heading)
            ask = "no heading known here" if field is None and filled else ""
            if field is not None and any(f == field and (quantity_of(f) is None or u == unit) for f, u in seen):
                ask = f"there is a column for {field.replace('_', ' ')} already"
                field = None
        quantity = quantity_of(field)
        if field is not None and quantity is not None and unit not in quantity.units:
            unit, doubt = _unit_of(field, filled, decimal_comma)
            ask = "" if n in chosen else doubt
        if field is not None:
            seen.add((field, unit))
        unit = unit if quantity else ""
        found.append(
            ColumnRead(heading=heading or f"column {n + 1}", field=field, unit=unit, ask=ask, shows=(filled or [""])[0][:40])
        )
    return _by_content(found, rows, decimal_comma) if not any(column.field == "name" for column in found) else found


def is_amount(cell: str, decimal_comma: bool = False) -> bool:
    """Whether a cell is a number or a mass, and no word."""
    try:
        measure(cell, MASS.units, MASS.base, decimal_comma)
    except ValueError:
        return False
    return True


def _by_content(found: list[ColumnRead], rows: list[list[str]], decimal_comma: bool) -> list[ColumnRead]:
    """Where no heading is one for names: the first column of words holds them, and the first of amounts the masses; asked."""
    columns = [[row[n] for row in rows if n < len(row) and row[n]] for n in range(len(found))]
    amounts = [sum(is_amount(cell, decimal_comma) for cell in column) for column in columns]
    open_to_it = [n for n, column in enumerate(found) if column.field is None and columns[n]]
    names = next((n for n in open_to_it if amounts[n] < len(columns[n]) / 2), None)
    if names is None:
        return found
    found[names] = found[names].model_copy(update={"field": "name", "ask": "no heading known here; taken for the names"})
    mass = next((n for n in open_to_it if n != names and amounts[n] > len(columns[n]) / 2), None)
    if mass is not None and not any(column.field in ("mass", "total_mass") for column in found):
        unit, doubt = _unit_of("mass", columns[mass], decimal_comma)
        ask = f"no heading known here; taken for the mass{'; ' + doubt if doubt else ''}"
        found[mass] = found[mass].model_copy(update={"field": "mass", "unit": unit, "ask": ask})
    return found


def _field_and_unit(heading: str) -> tuple[FieldName | None, str]:
    said = heading.lower().strip()
    unit_found = _UNIT.search(said)
    bare = re.sub(r"[(\[].*?[)\]]", "", said).replace("_", " ").strip(" :")
    unit = unit_found[1] if unit_found else ""
    stem = re.sub(rf"[ /,]+{unit}$", "", bare).strip() if unit else bare
    field = next((name for name, column in COLUMNS.items() if any(n in column.words for n in (said, bare, stem))), None)
    quantity = quantity_of(field)
    if quantity and not unit and bare in (*quantity.units, *_GRAMS):
        unit = bare
    return field, _GRAMS.get(unit, unit)


def _unit_of(field: FieldName, filled: list[str], decimal_comma: bool) -> tuple[str, str]:
    """The unit of a column that has none in its heading: what most cells have that have one, else what makes sense."""
    quantity = quantity_of(field)
    assert quantity is not None
    base, units = quantity.base, quantity.units
    own = [u for cell in filled if (u := re.sub(r"[\d\s.,~+-]|ca\.?", "", cell.lower())) in units]
    bare = list[float]()
    for cell in filled:
        try:
            bare.append(number(cell.strip(" ~"), decimal_comma))
        except ValueError:
            continue
    if own and bare:
        unit = max(dict.fromkeys(own), key=own.count)
        return unit, f"numbers without a unit stand beside cells in {unit} and are read so"
    if field in ("mass", "total_mass") and bare and too_heavy(max(bare)):
        return "g", f"no unit is said; {max(bare):g} is taken as grams, since no thing weighs so many kilograms"
    return base, f"no unit is said; {base} is taken" if bare and field in ("mass", "total_mass") else ""
