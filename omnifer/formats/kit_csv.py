"""The kit as a spreadsheet: read as riders keep theirs, written so that it reads back the same."""

import re
from collections.abc import Collection
from dataclasses import replace

from pydantic import Field, ValidationError

from omnifer.core.kit.told import (
    USUAL_L_PER_KG,
    KitAnswer,
    KitQuestion,
    answered,
    made_known,
    questions_of,
    told_of,
    unknown_in,
)
from omnifer.core.model.kit import Thing
from omnifer.core.model.library import known_by
from omnifer.core.model.quantities import Noun
from omnifer.formats.kit_cells import Names, Shown
from omnifer.formats.kit_columns import WRITTEN, ColumnChoice, ColumnRead, columns_of, is_amount, known
from omnifer.formats.kit_rows import MOST_TOLD, Reading, RowProblem
from omnifer.formats.problem import InputProblem, what_of
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
    questions: list[KitQuestion] = Field(description="What the names leave open and much hangs on, the most consequential first")
    kinds: dict[str, str] = Field(description="What each thing is taken for, by its identifier; not of those in doubt")
    here: list[str] = Field(description="Identifiers of those things whose name the kit has already")
    remarks: list[str]


def read_kit_csv(
    text: str, riders: dict[str, str], kit: tuple[Thing, ...] = (), choices: tuple[ColumnChoice, ...] = (),
    answers: tuple[KitAnswer, ...] = (),
) -> KitPreview:  # fmt: skip
    """Understand a kit sheet.

    Parameters
    ----------
    riders : dict
        Rider identifiers by lower-case name.
    kit : tuple of Thing, optional
        What is there already: new things get other identifiers, and those of the same name are told.
    choices : tuple of ColumnChoice, optional
        What the rider says of columns.
    answers : tuple of KitAnswer, optional
        What the rider says of things.

    Raises InputProblem where there is no table at all.
    """
    sheet = read_sheet(text, known)
    alone = max((len(row) for row in sheet.rows), default=0) < 2
    if not any(map(known, sheet.headings)) and (alone or any(map(is_amount, sheet.headings))):
        sheet = replace(sheet, first=-1)
    rows = [row for _, row in sheet.lines]
    decimal_comma = sheet.delimiter != "," and any(re.search(r"\d,\d", cell) for row in rows for cell in row)
    columns = columns_of(sheet.headings, rows, choices, decimal_comma)
    if not any(c.field == "name" for c in columns):
        shown = ", ".join(repr(c.heading) for c in columns[:6])
        where = f"line {max(sheet.first, 0) + 1}"
        raise InputProblem(f"No column holds the names of the things; the headings are {shown}", where, "Call one column 'name'.")
    read = Reading(columns, decimal_comma, riders, {thing.id for thing in kit})
    read.said = {answer.thing_id: str(answer.value) for answer in answers if answer.asks == "kind"}
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
    open_to = [(thing, read.told[thing.id]) for thing in read.things]
    things = _answered(read.things, answers, riders.values())
    return KitPreview(
        delimiter=sheet.delimiter, decimal_comma=decimal_comma, columns=columns, things=things, problems=read.problems,
        doubts=read.doubts, aside=read.aside, here=[t.id for t in things if t.name.casefold() in names],
        questions=[] if "does" in read.fields else questions_of(open_to, riders),
        kinds={thing.id: kind for thing, told in open_to if (kind := told.kind) is not None},
        remarks=_remarks(read),
    )  # fmt: skip


def as_owned_before(preview: KitPreview, owned: dict[str, Thing], answers: tuple[KitAnswer, ...] = ()) -> KitPreview:
    """A list of which the rider's own library knows some things by their names: they are as they are there, and nothing is asked
    of them. What is answered goes before."""
    said = {answer.thing_id for answer in answers}
    known = {t.id: owned[t.name.lower()] for t in preview.things if t.id not in said and t.name.lower() in owned}
    if not known:
        return preview
    things = [known_by(thing, known[thing.id]) if thing.id in known else thing for thing in preview.things]
    return preview.model_copy(update={"things": things, "questions": [q for q in preview.questions if q.thing_id not in known]})


def known_kit(kit: tuple[Thing, ...], riders: tuple[str, ...], answers: tuple[KitAnswer, ...]) -> tuple[Thing, ...]:
    """A kit in which things that said nothing say what their names tell and their rider answers. Raises InputProblem."""
    said = {answer.thing_id: str(answer.value) for answer in answers if answer.asks == "kind"}
    found = {}
    for thing, told in unknown_in(kit):
        if thing.id in said:
            told = told_of(thing.name, thing.mass_kg, thing.group, said[thing.id])
        if told.kind is not None:
            found[thing.id] = made_known(thing, told, riders)
    return tuple(_answered([found.get(thing.id, thing) for thing in kit], answers, riders))


def _answered(things: list[Thing], answers: tuple[KitAnswer, ...], riders: Collection[str]) -> list[Thing]:
    """The things as a rider's answers make them, others of the same name alike. Raises InputProblem where one cannot be."""
    by_id = {thing.id: thing for thing in things}
    meant = [(answer, by_id[answer.thing_id].name) for answer in answers if answer.asks != "kind" and answer.thing_id in by_id]
    for thing, answer in ((thing, answer) for answer, name in meant for thing in things if thing.name == name):
        try:
            by_id[thing.id] = answered(by_id[thing.id], answer, riders)
        except ValueError as error:
            why = what_of(error.errors()[0]) if isinstance(error, ValidationError) else str(error)
            raise InputProblem(f"{thing.name}: {why}", thing.name, "Correct it, or leave it as it is.") from None
    return [by_id[thing.id] for thing in things]


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


def kit_table(things: tuple[Thing, ...], riders: dict[str, str]) -> list[list[Shown]]:
    """The kit as rows of cells under their headings, which `read_kit_csv` reads back. `riders` gives names by identifier."""
    names = Names(riders, {thing.id: thing.name for thing in things})
    headings: list[Shown] = [f"{name} {column.of.base}" if column.of else name for name, column in WRITTEN.items()]
    return [headings, *([c.write(getattr(thing, c.into), names) for c in WRITTEN.values()] for thing in things)]


def write_kit_csv(things: tuple[Thing, ...], riders: dict[str, str]) -> str:
    """The kit as a sheet that `read_kit_csv` reads back. `riders` gives names by identifier."""
    sheet = SheetWriter()
    for row in kit_table(things, riders):
        sheet.row(["" if cell is None else cell if isinstance(cell, str) else f"{cell:g}" for cell in row])
    return sheet.text()
