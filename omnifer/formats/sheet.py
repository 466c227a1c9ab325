"""Rows of a pasted or uploaded sheet, whatever separates its cells."""

import csv
import io
from dataclasses import dataclass
from typing import Literal

from omnifer.formats.problem import InputProblem

MOST_BYTES = 2 * 1024 * 1024
Delimiter = Literal["\t", ";", ","]
DELIMITERS: tuple[Delimiter, ...] = ("\t", ";", ",")


@dataclass(frozen=True)
class Sheet:
    """Cells without the space around them; `first` is the row of the headings."""

    delimiter: Delimiter
    rows: list[list[str]]
    first: int

    @property
    def headings(self) -> list[str]:
        """The cells of the first row that has any."""
        return self.rows[self.first]

    @property
    def lines(self) -> list[tuple[int, list[str]]]:
        """The rows under the headings that are not empty, each with its line in the sheet, from 1."""
        return [(n, row) for n, row in enumerate(self.rows[self.first + 1 :], self.first + 2) if any(row)]


def read_sheet(text: str) -> Sheet:
    """The rows of a sheet. Raises InputProblem where there is no table."""
    if len(text.encode(errors="replace")) > MOST_BYTES:
        raise InputProblem("The sheet is larger than 2 MB", "", "Leave out pictures and other sheets.")
    lines = text.lstrip("\ufeff").replace("\x00", "").replace("\r\n", "\n").replace("\r", "\n")
    if not lines.strip():
        raise InputProblem("The sheet is empty", "", "Paste at least a heading and one row.")
    head = next(line for line in lines.splitlines() if line.strip())
    delimiter: Delimiter = max(DELIMITERS, key=head.count) if any(head.count(d) for d in DELIMITERS) else ","
    reader = csv.reader(io.StringIO(lines), delimiter=delimiter)
    try:
        rows = [[cell.strip() for cell in row] for row in reader]
    except csv.Error:
        where, mend = f"line {reader.line_num}", "Is a quotation mark left open there?"
        raise InputProblem("A cell is too long to be one", where, mend) from None
    first = next((i for i, row in enumerate(rows) if any(row)), None)
    if first is None:
        raise InputProblem("The sheet has separators and no words", "", "Paste at least a heading and one row.")
    return Sheet(delimiter, rows, first)
