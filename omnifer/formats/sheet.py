"""Rows of a pasted or uploaded sheet, whatever separates its cells."""

import codecs
import csv
import io
import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Literal

from omnifer.formats.problem import InputProblem

MOST_BYTES = 2 * 1024 * 1024
TITLE_ROWS = 20
"""Headings stand in one of so many rows from the top."""
COMMAS = 0.5
"""Where fewer of the rows have one [-], commas part no cells."""
Delimiter = Literal["\t", ";", ","]
DELIMITERS: tuple[Delimiter, ...] = ("\t", ";", ",")


FORMULA = re.compile(r"'*[=+\-@\t\r]")
NUMBER = re.compile(r"-?\d+([.,]\d+)?")


def guarded(cell: object) -> object:
    """A cell that no spreadsheet runs as a formula: an apostrophe goes before what begins like one; `unguarded` takes it away."""
    risky = isinstance(cell, str) and FORMULA.match(cell) and not NUMBER.fullmatch(cell)
    return f"'{cell}" if risky else cell


def unguarded(cell: str) -> str:
    """A cell as it was before it was guarded."""
    return cell[1:] if cell.startswith("'") and FORMULA.match(cell) else cell


class SheetWriter:
    """Writes rows whose cells no spreadsheet takes for formulas."""

    def __init__(self, delimiter: Delimiter = ",", end: str = "\r\n") -> None:
        self._out = io.StringIO()
        self._writer = csv.writer(self._out, delimiter=delimiter, lineterminator=end)

    def row(self, cells: Iterable[object]) -> None:
        """Write a row."""
        self._writer.writerow([guarded(cell) for cell in cells])

    def text(self) -> str:
        """All that was written."""
        return self._out.getvalue()


@dataclass(frozen=True)
class Sheet:
    """Cells without the space around them; `first` is the row of the headings, -1 without any; above it stands a title."""

    delimiter: Delimiter
    rows: list[list[str]]
    first: int

    @property
    def headings(self) -> list[str]:
        """The cells of that row; none where the sheet begins with what it holds."""
        return self.rows[self.first] if self.first >= 0 else []

    @property
    def lines(self) -> list[tuple[int, list[str]]]:
        """The rows under the headings that are not empty, each with its line in the sheet, from 1."""
        return [(n, row) for n, row in enumerate(self.rows[self.first + 1 :], self.first + 2) if any(row)]


def decoded(content: bytes) -> str:
    """The text of a file: by its byte-order mark, else as UTF-16 or UTF-8 where it can be that, else as Windows-1252."""
    for mark, encoding in ((codecs.BOM_UTF8, "utf-8-sig"), (codecs.BOM_UTF16_LE, "utf-16"), (codecs.BOM_UTF16_BE, "utf-16")):
        if content.startswith(mark):
            return content.decode(encoding, errors="replace")
    halves = {"utf-16-be": content[0::2], "utf-16-le": content[1::2]}
    for encoding, high in halves.items():
        if high and high.count(0) > len(high) / 2:
            return content.decode(encoding, errors="replace")
    try:
        return content.decode("utf-8")
    except UnicodeDecodeError:
        return content.decode("cp1252", errors="replace")


def read_sheet(text: str, known: Callable[[str], bool] = lambda heading: False) -> Sheet:
    """The rows of a sheet; its headings are the row near the top that has most of the known ones, else the first.

    Raises InputProblem where there is no table.
    """
    if len(text.encode(errors="replace")) > MOST_BYTES:
        raise InputProblem("The sheet is larger than 2 MB", "", "Leave out pictures and other sheets.")
    lines = text.lstrip("\ufeff").replace("\x00", "").replace("\r\n", "\n").replace("\r", "\n")
    if not lines.strip():
        raise InputProblem("The sheet is empty", "", "Paste at least a heading and one row.")
    near_top = [line for line in lines.splitlines() if line.strip()][:TITLE_ROWS]
    most = {d: max(line.count(d) for line in near_top) for d in DELIMITERS}
    # What parts the headings parts the rows, however many decimal commas stand in one of them.
    parted = [d for d in DELIMITERS if most[d]]
    headings = {d: max(sum(known(cell.strip()) for cell in line.split(d) if cell.strip()) for line in near_top) for d in parted}
    delimiter: Delimiter = max(parted, key=lambda d: (headings[d], most[d])) if parted else ","
    if delimiter == "," and sum("," in line for line in near_top) < len(near_top) * COMMAS:
        delimiter = "\t"  # a list of names, of which some have a comma
    reader = csv.reader(io.StringIO(lines), delimiter=delimiter)
    try:
        rows = [[unguarded(cell.strip()) for cell in row] for row in reader]
    except csv.Error:
        where, mend = f"line {reader.line_num}", "Is a quotation mark left open there?"
        raise InputProblem("A cell is too long to be one", where, mend) from None
    filled = [i for i, row in enumerate(rows) if any(row)]
    if not filled:
        raise InputProblem("The sheet has separators and no words", "", "Paste at least a heading and one row.")
    first = max(filled[:TITLE_ROWS], key=lambda i: (sum(known(cell) for cell in rows[i] if cell), -i))
    return Sheet(delimiter, rows, first)
