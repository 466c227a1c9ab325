"""The kit as a spreadsheet: read as riders keep theirs, written so that it reads back the same."""

import re
from dataclasses import replace

from pydantic import Field

from omnifer.core.kit.names import USUAL_L_PER_KG
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Noun
from omnifer.formats.cell import write_fit, write_role, write_where
from omnifer.formats.kit_columns import ColumnChoice, ColumnRead, columns_of, is_amount, known
from omnifer.formats.kit_rows import MOST_TOLD, Reading, RowProblem
from omnifer.formats.problem import InputProblem
from omnifer.formats.sheet import Delimiter, SheetWriter, read_sheet

MOST_ROWS = 2000


class KitPreview(Noun):
    """What a sheet would bring, before anything is taken."""

    delimiter: Delimiter
    decimal_comma: bool
    columns: list[ColumnRead]
    things: list[Thing]
    problems: list[RowProblem] = Field(description="Left aside: could not be read")
    doubts: list[RowProblem] = Field(description="Taken, and to be looked at")
    aside: list[RowProblem] = Field(description="Rows that are no things: titles, totals")
    here: list[str] = Field(description="Identifiers of those things whose name the kit has already")
    remarks: list[str]


def read_kit_csv(
    text: str, riders: dict[str, str], kit: tuple[Thing, ...] = (), choices: tuple[ColumnChoice, ...] = ()
) -> KitPreview:
    """Understand a kit sheet.

    Parameters
    ----------
    riders : dict
        Rider identifiers by lower-case name.
    kit : tuple of Thing, optional
        What is there already: new things get other identifiers, and those of the same name are told.
    choices : tuple of ColumnChoice, optional
        What the rider says of columns.

    Raises InputProblem where there is no table at all.
    """
    sheet = read_sheet(text, known)
    if not any(map(known, sheet.headings)) and any(map(is_amount, sheet.headings)):
        sheet = replace(sheet, first=-1)
    rows = [row for _, row in sheet.lines]
    decimal_comma = sheet.delimiter != "," and any(re.search(r"\d,\d", cell) for row in rows for cell in row)
    columns = columns_of(sheet.headings, rows, choices, decimal_comma)
    if not any(c.field == "name" for c in columns):
        shown = ", ".join(repr(c.heading) for c in columns[:6])
        where = f"line {max(sheet.first, 0) + 1}"
        raise InputProblem(f"No column holds the names of the things; the headings are {shown}", where, "Call one column 'name'.")
    read = Reading(columns, decimal_comma, riders, {thing.id for thing in kit})
    for n, row in enumerate(sheet.rows[: max(sheet.first, 0)], 1):
        if any(row):
            read.tell(read.aside, n, "", " ".join(filter(None, row)), "stands above the headings")
    for line, row in sheet.lines:
        if len(read.things) >= MOST_ROWS:
            read.tell(read.problems, line, "", "", f"more than {MOST_ROWS} things; the rest is left aside")
            break
        if len(read.problems) > MOST_TOLD:
            break
        read.row(line, row, after_gap=line > 1 and not any(sheet.rows[line - 2]))
    names = {thing.name.casefold() for thing in kit}
    return KitPreview(
        delimiter=sheet.delimiter, decimal_comma=decimal_comma, columns=columns, things=read.things, problems=read.problems,
        doubts=read.doubts, aside=read.aside, here=[t.id for t in read.things if t.name.casefold() in names],
        remarks=_remarks(read),
    )  # fmt: skip


def _remarks(read: "Reading") -> list[str]:
    remarks = []
    if read.kits:
        remarks.append(f"Rows with a name alone are taken as kits: {', '.join(read.kits)}.")
    by_name = sum(bool(set(t.guessed) - {"mass"}) for t in read.things)
    if by_name:
        remarks.append(
            f"Of {by_name} in {len(read.things)} something is guessed by the name (practice) and marked ~; a name that says "
            f"nothing gets {USUAL_L_PER_KG:g} l a kilogram."
        )
    return remarks


def write_kit_csv(things: tuple[Thing, ...], riders: dict[str, str]) -> str:
    """The kit as a sheet that `read_kit_csv` reads back. `riders` gives names by identifier."""
    sheet = SheetWriter()
    sheet.row(["name", "group", "count", "mass kg", "volume l", "pressed l", "longest mm", "reach", "dry", "wet", "natures",
                     "not_with", "rider", "holds_water l", "soft_vessel", "salts", "fuel", "food", "guessed", "price", "inside",
                     "bag", "may_stay", "does", "where", "closed", "serves", "fit", "condition", "held", "spare", "must",
                     "unused_tours", "year", "because", "last_time"])  # fmt: skip
    names = {t.id: t.name for t in things}
    for t in things:
        pressed = f"{t.pressed_l:g}" if t.pressed_l else ""
        flags = [("yes" if flag else "") for flag in (t.soft_vessel, t.salts, t.fuel, t.food)]
        sheet.row(
            [t.name, t.group, t.count, f"{t.mass_kg:g}", f"{t.volume_l:g}", pressed, f"{t.longest_mm:g}", t.reach, t.dry,
             "yes" if t.wet else "", " ".join(t.natures), " ".join(t.not_with),
             riders.get(t.rider_id or "", ""), f"{t.holds_water_l:g}" if t.holds_water_l else "", *flags, " ".join(t.guessed),
             "" if t.price is None else f"{t.price:g}", names.get(t.inside or "", ""), "yes" if t.bag else "",
             "yes" if t.may_stay else "", write_role(t.role), write_where(t.where), "yes" if t.closed else "",
             " ".join(t.serves), write_fit(t.fit), t.condition, t.held, "yes" if t.spare else "", "yes" if t.must else "",
             t.unused_tours or "", t.year or "", t.because, t.last_time]
        )  # fmt: skip
    return sheet.text()
