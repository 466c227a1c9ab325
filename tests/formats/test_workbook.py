"""Workbooks in and out against openpyxl, and what hostile ones cost before anything of them is laid out."""

import io
import zipfile

import openpyxl
import pytest

from omnifer.core.kit.told import told_of
from omnifer.core.model.kit import Thing
from omnifer.formats.kit_csv import kit_table, read_kit_csv
from omnifer.formats.problem import InputProblem
from omnifer.formats.workbook import MOST_ROWS, sheets_of, workbook_of

ODS_NAMES = (
    'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" '
    'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"'
)


def book(**sheets) -> bytes:
    made = openpyxl.Workbook()
    made.remove(made.active)
    for name, rows in sheets.items():
        sheet = made.create_sheet(name)
        for row in rows:
            sheet.append(row)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


def packed(**parts: str | bytes) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as folder:
        for name, content in parts.items():
            folder.writestr(name.replace("__", "/"), content)
    return out.getvalue()


def ods(cells: str) -> bytes:
    body = (
        f"<office:body><office:spreadsheet><table:table table:name='Kit'>{cells}</table:table></office:spreadsheet></office:body>"
    )
    return packed(
        mimetype="application/vnd.oasis.opendocument.spreadsheet",
        **{"content.xml": f"<office:document-content {ODS_NAMES} office:version='1.2'>{body}</office:document-content>"},
        **{"META-INF__manifest.xml": "<manifest:manifest xmlns:manifest='urn:oasis:names:tc:opendocument:xmlns:manifest:1.0'/>"},
    )


def test_a_kit_goes_out_and_comes_in_again_and_words_stay_words():
    kit = tuple(
        Thing.model_validate({"id": f"t{n}"} | {"volume_l": 1, **told_of(name, kg).fields})
        for n, (name, kg) in enumerate(
            (("Sleeping bag", 1.1), ("=SUM(A1:A9)", 0.2), ("Bottle 0.75 l", 0.09), ("Gas canister", 0.15))
        )
    )
    content = workbook_of("Kit: all/of it", kit_table(kit, {}))
    sheet = openpyxl.load_workbook(io.BytesIO(content)).active
    assert (sheet["A3"].data_type, sheet["A3"].value, sheet["D2"].value) == ("s", "=SUM(A1:A9)", 1.1)
    (found,) = sheets_of(content)
    again = read_kit_csv(found.text, {}).things
    assert [thing.model_dump(exclude={"id"}) for thing in again] == [thing.model_dump(exclude={"id"}) for thing in kit]


def test_sheets_that_hold_something_are_told_and_no_formula_runs():
    content = book(Empty=[], Kit=[["name", "g"], ["Tent", 2100.5], ["Two\tlines\nof it", 30]], Sums=[["all"], ["=1+1"]])
    found = sheets_of(content)
    assert [(sheet.name, sheet.text.splitlines()) for sheet in found] == [
        ("Kit", ["name\tg", "Tent\t2100.5", "Two lines of it\t30"]), ("Sums", ["all"]),
    ]  # fmt: skip
    row = "<table:table-row><table:table-cell office:value-type='string'><text:p>{}</text:p></table:table-cell></table:table-row>"
    assert [sheet.text for sheet in sheets_of(ods(row.format("Tent") + row.format("Pot")))] == ["Tent\nPot"]
    assert [sheet.text for sheet in sheets_of("Zelt;1\n".encode("utf-16"))] == ["Zelt;1\n"]


def far_out() -> bytes:
    good = io.BytesIO(book(Kit=[["name", "g"], ["Tent", 1]]))
    out = io.BytesIO()
    with zipfile.ZipFile(good) as folder, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as changed:
        for part in folder.namelist():
            text = folder.read(part)
            changed.writestr(part, text.replace(b'r="B2"', b'r="XFD1048576"') if part.startswith("xl/worksheets") else text)
    return out.getvalue()


ENTITY = b"<!DOCTYPE a [<!ENTITY x SYSTEM 'file:///etc/passwd'>]><worksheet><sheetData><row r='1'><c r='A1' t='inlineStr'><is><t>&x;</t></is></c></row></sheetData></worksheet>"
REPEATED = f"<table:table-row><table:table-cell table:number-columns-repeated='{10 * MOST_ROWS}' office:value-type='float' office:value='1'/></table:table-row>"


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (far_out(), "further out"), (packed(**{"xl__worksheets__sheet1.xml": b"0" * 50 * 2**20}), "larger than"),
        (ods(REPEATED.replace("'", '"')), "further out"), (b"PK\x03\x04" + b"\x00" * 400, "damaged"), (packed(a="b"), "cannot be read"),
        (book(Kit=[]), "No sheet"), (book(Kit=[["x" * 30_000]] * 100), "2 MB"),
    ],
    ids=["far cell", "bomb", "repeated", "damaged", "no book", "empty", "long"],
)  # fmt: skip
def test_hostile_books_are_refused_in_words(content, words):
    with pytest.raises(InputProblem, match=words):
        sheets_of(content)


def test_no_entity_is_read():
    good = io.BytesIO(book(Kit=[["name"]]))
    out = io.BytesIO()
    with zipfile.ZipFile(good) as folder, zipfile.ZipFile(out, "w") as changed:
        for part in folder.namelist():
            changed.writestr(part, ENTITY if part.startswith("xl/worksheets") else folder.read(part))
    try:
        told = " ".join(sheet.text for sheet in sheets_of(out.getvalue()))
    except InputProblem as problem:
        told = str(problem)
    assert "root:" not in told
