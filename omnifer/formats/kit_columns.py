"""The columns of a kit sheet: what each holds, in which unit, and where that is unsure and is asked."""

import re
from typing import Literal

from pydantic import Field

from omnifer.core.kit.plausible import too_heavy
from omnifer.core.model.quantities import Noun
from omnifer.formats.measures import GRAMS_PER, LITRES_PER, MILLIMETRES_PER, measure, number

FieldName = Literal[
    "name", "group", "count", "mass", "volume", "longest", "thick", "reach", "dry", "wet", "natures", "not_with", "rider",
    "holds_water", "soft_vessel", "salts", "fuel", "food", "guessed", "price", "inside", "because", "total_mass",
    "pressed", "bag", "may_stay", "does", "where", "closed", "serves", "fit", "condition", "held", "spare", "must",
    "unused_tours", "year", "last_time",
]  # fmt: skip

HEADINGS: dict[FieldName, tuple[str, ...]] = {
    "name": (
        "name", "thing", "what", "description", "article", "item", "gear", "object", "bezeichnung", "gegenstand", "artikel",
        "ausrüstung", "was", "objet", "nom", "désignation", "matériel", "nombre", "objeto", "artículo", "oggetto", "nome",
        "cosa", "naam", "voorwerp", "nazwa", "rzecz",
    ),
    "group": (
        "group", "kit", "category", "set", "section", "kategorie", "gruppe", "bereich", "catégorie", "groupe", "categoría",
        "grupo", "categoria", "gruppo", "categorie", "groep", "kategoria", "grupa",
    ),
    "count": (
        "count", "number", "qty", "quantity", "pieces", "pcs", "how many", "anzahl", "no", "stück", "stk", "menge", "nombre de",
        "quantité", "qté", "cantidad", "quantità", "aantal", "ilość", "x",
    ),
    "mass": (
        "mass", "weight", "wt", "gewicht", "masse", "poids", "peso", "waga", "kg", "g", "gram", "grams", "gramm", "lb", "lbs",
        "oz",
    ),
    "volume": (
        "volume", "packed volume", "vol", "litres", "liters", "volumen", "packvolumen", "liter", "litros", "litri", "inhoud",
        "objętość", "l", "ml",
    ),
    "pressed": ("pressed", "compressed", "least volume", "stuffed"),
    "longest": ("longest", "length", "longest side", "longest rigid side", "mm", "cm", "laenge", "länge", "longueur", "largo",
                "lunghezza", "lengte"),
    "thick": ("thick", "thickness", "middle side", "dicke", "stärke", "épaisseur", "grosor", "spessore", "dikte"),
    "reach": ("reach", "when", "needed", "access", "wann", "quand"),
    "dry": ("dry", "must stay dry", "keep dry", "trocken", "sec", "seco", "asciutto"),
    "wet": ("wet", "gets wet"),
    "natures": ("natures", "nature", "is"),
    "not_with": ("not_with", "not with", "keep from", "apart from"),
    "rider": ("rider", "who", "carried by", "owner", "carrier", "wer", "fahrer", "qui", "quién", "chi", "wie", "kto"),
    "holds_water": ("holds_water", "holds water", "water", "holds"),
    "soft_vessel": ("soft_vessel", "soft vessel", "soft"),
    "salts": ("salts", "for salts"),
    "fuel": ("fuel",),
    "food": ("food",),
    "guessed": ("guessed", "guess", "estimate", "geschätzt"),
    "price": ("price", "cost", "preis", "prix", "precio", "prezzo", "prijs", "cena"),
    "inside": ("inside", "rides in", "packed in", "nested in"),
    "bag": ("bag", "is a bag"),
    "may_stay": ("may_stay", "may stay", "optional", "if there is room"),
    "does": ("does", "role", "does for the supplies"),
    "where": ("where", "whereabouts"),
    "closed": ("closed", "stays shut"),
    "serves": ("serves", "is for"),
    "fit": ("fit", "fits"),
    "condition": ("condition",),
    "held": ("held",),
    "spare": ("spare", "is a spare"),
    "must": ("must", "must come"),
    "unused_tours": ("unused_tours", "unused on tours"),
    "last_time": ("last_time", "last time"),
    "year": ("year", "bought in"),
    "because": (
        "because", "why", "reason", "note", "notes", "remark", "comment", "comments", "bemerkung", "notiz", "kommentar", 
        "remarque", "nota", "opmerking", "uwagi",
    ),
    "total_mass": (
        "total", "total weight", "total mass", "sum", "gesamtgewicht", "summe", "poids total", "peso total", "peso totale",
    ),
}  # fmt: skip
UNITS: dict[FieldName, dict[str, float]] = {
    "mass": GRAMS_PER, "total_mass": GRAMS_PER, "volume": LITRES_PER, "pressed": LITRES_PER, "holds_water": LITRES_PER,
    "longest": MILLIMETRES_PER, "thick": MILLIMETRES_PER,
}  # fmt: skip
BASE: dict[FieldName, str] = {
    "mass": "kg", "total_mass": "kg", "volume": "l", "pressed": "l", "holds_water": "l", "longest": "mm", "thick": "mm"
}  # fmt: skip
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
        cells = [row[n] for row in rows if n < len(row) and row[n]]
        ask = ""
        if n in chosen:
            field, unit = chosen[n].field, chosen[n].unit
        else:
            field, unit = _field_and_unit(heading)
            ask = "no heading known here" if field is None and cells else ""
            if field is not None and any(f == field and (f not in UNITS or u == unit) for f, u in seen):
                ask = f"there is a column for {field.replace('_', ' ')} already"
                field = None
        if field in UNITS and unit not in UNITS[field]:
            unit, doubt = _unit_of(field, cells, decimal_comma)
            ask = "" if n in chosen else doubt
        if field is not None:
            seen.add((field, unit))
        unit = unit if field in UNITS else ""
        found.append(
            ColumnRead(heading=heading or f"column {n + 1}", field=field, unit=unit, ask=ask, shows=(cells or [""])[0][:40])
        )
    return _by_content(found, rows, decimal_comma) if not any(column.field == "name" for column in found) else found


def is_amount(cell: str, decimal_comma: bool = False) -> bool:
    """Whether a cell is a number or a mass, and no word."""
    try:
        measure(cell, GRAMS_PER, "kg", decimal_comma)
    except ValueError:
        return False
    return True


def _by_content(found: list[ColumnRead], rows: list[list[str]], decimal_comma: bool) -> list[ColumnRead]:
    """Where no heading is one for names: the first column of words holds them, and the first of amounts the masses; asked."""
    columns = [[row[n] for row in rows if n < len(row) and row[n]] for n in range(len(found))]
    amounts = [sum(is_amount(cell, decimal_comma) for cell in cells) for cells in columns]
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
    field = next((f for f, words in HEADINGS.items() if any(n in words for n in (said, bare, stem))), None)
    if field in UNITS and not unit and bare in UNITS[field] | _GRAMS:
        unit = bare
    return field, _GRAMS.get(unit, unit)


def _unit_of(field: FieldName, cells: list[str], decimal_comma: bool) -> tuple[str, str]:
    """The unit of a column that has none in its heading: what most cells have that have one, else what makes sense."""
    base, units = BASE[field], UNITS[field]
    own = [u for cell in cells if (u := re.sub(r"[\d\s.,~+-]|ca\.?", "", cell.lower())) in units]
    bare = list[float]()
    for cell in cells:
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
