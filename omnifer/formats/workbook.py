"""Workbooks of spreadsheet programs: XLSX and ODS in, XLSX out. Formulas are never run: what stands in a cell is what was last
shown there."""

import datetime as dt
import io
import re
import zipfile
from collections.abc import Iterable

from pydantic import Field

from omnifer.core.model.quantities import Noun
from omnifer.formats.problem import InputProblem
from omnifer.formats.sheet import MOST_BYTES, decoded

ZIP = b"PK\x03\x04"
MOST_UNPACKED_BYTES = 40 * 2**20
"""Of all parts of a workbook together [bytes]."""
MOST_PARTS = 2000
MOST_SHEETS = 30
MOST_ROWS, MOST_COLUMNS = 20_000, 500
"""Of a sheet, counted from its first cell."""
_CELL = re.compile(rb'\br="([A-Z]{1,3})(\d{1,9})"')
_REPEATED = re.compile(rb'number-(?:columns|rows)-repeated="(\d{1,12})"[^>]*office:value-type')
CHUNK_BYTES = 2**20
TOO_FAR = "A cell stands further out than row {rows:,} or column {columns}"


class SheetOfBook(Noun):
    """One sheet of a workbook as text, its cells with tabs between them."""

    name: str
    text: str = Field(description="Rows of cells, tabs between them")


def sheets_of(content: bytes) -> list[SheetOfBook]:
    """The sheets of a file that hold anything; one without a name where it is no workbook but text.

    Raises InputProblem where it cannot be one, or where laying it out would take too much.
    """
    if not content.startswith(ZIP):
        return [SheetOfBook(name="", text=decoded(content))]
    _checked(content)
    from python_calamine import CalamineError, CalamineWorkbook  # only who brings a workbook waits for it

    try:
        book = CalamineWorkbook.from_filelike(io.BytesIO(content))
        names = book.sheet_names[:MOST_SHEETS]
        found = [SheetOfBook(name=name, text=_text(book.get_sheet_by_name(name).to_python())) for name in names]
    except (CalamineError, ValueError, OSError) as error:
        raise InputProblem("This workbook cannot be read", "field file", "Save it as XLSX, ODS or CSV once more.") from error
    filled = [sheet for sheet in found if sheet.text.strip()]
    if not filled:
        raise InputProblem("No sheet of this workbook holds anything", "field file", "Choose another file.")
    return filled


def _checked(content: bytes) -> None:
    """Look at a packed file before anything of it is laid out."""
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as book:
            parts = book.infolist()
            if len(parts) > MOST_PARTS or sum(part.file_size for part in parts) > MOST_UNPACKED_BYTES:
                most = MOST_UNPACKED_BYTES // 2**20
                raise InputProblem(
                    f"Unpacked, this workbook is larger than {most} MB", "field file", "Keep the list alone in it."
                )
            for part in parts:
                if part.filename.startswith("xl/worksheets/") or part.filename == "content.xml":
                    _near(book, part)
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, OSError) as error:
        raise InputProblem("This workbook is damaged, or locked with a password", "field file", "Save it once more.") from error


def _near(book: zipfile.ZipFile, part: zipfile.ZipInfo) -> None:
    """Refuse a sheet with a cell far out: laid out it would fill the memory with empty ones."""
    rest, read = b"", 0
    with book.open(part) as stream:
        while chunk := stream.read(CHUNK_BYTES):
            read += len(chunk)
            if read > MOST_UNPACKED_BYTES:
                raise InputProblem("This workbook unpacks to more than it says", "field file", "Save it once more.")
            rest = rest[-200:] + chunk
            far = any(int(row) > MOST_ROWS or _column(letters) > MOST_COLUMNS for letters, row in _CELL.findall(rest))
            if far or any(int(times) > MOST_ROWS for times in _REPEATED.findall(rest)):
                what = TOO_FAR.format(rows=MOST_ROWS, columns=MOST_COLUMNS)
                raise InputProblem(what, "field file", "Delete what stands there, or copy the list into a new workbook.")


def _column(letters: bytes) -> int:
    number = 0
    for letter in letters:
        number = 26 * number + letter - 64
    return number


def _text(rows: Iterable[Iterable[object]]) -> str:
    lines = ["\t".join(_cell(cell) for cell in row).rstrip("\t") for row in rows]
    text = "\n".join(lines).strip("\n")
    if len(text.encode()) > MOST_BYTES:
        raise InputProblem("A sheet is larger than 2 MB", "field file", "Leave out pictures and other sheets.")
    return text


def _cell(value: object) -> str:
    match value:
        case None:
            return ""
        case bool():
            return "yes" if value else ""
        case float():
            return f"{value:.10g}"
        case dt.datetime() | dt.date() | dt.time():
            return value.isoformat()
        case _:
            return re.sub(r"[\t\r\n]+", " ", str(value)).strip()


def workbook_of(title: str, rows: Iterable[Iterable[object]]) -> bytes:
    """A workbook of one sheet; words stay words whatever they begin with, numbers are numbers."""
    from openpyxl import Workbook
    from openpyxl.cell import WriteOnlyCell

    book = Workbook(write_only=True)
    sheet = book.create_sheet(re.sub(r"[\[\]:*?/\\]", " ", title)[:31] or "Kit")
    for row in rows:
        cells = []
        for value in row:
            cell = WriteOnlyCell(sheet, value=value)
            if isinstance(value, str):
                cell.value, cell.data_type = re.sub(r"[\x00-\x08\x0b\x0c\x0e-\x1f]", "", value), "s"
            cells.append(cell)
        sheet.append(cells)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
