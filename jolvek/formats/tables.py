"""Tables of text as CSV and as a spreadsheet (Office Open XML, by openpyxl)."""

from __future__ import annotations

import csv
import io
import re
import zipfile
from collections.abc import Iterable, Sequence
from datetime import datetime
from typing import Any
from xml.parsers import expat

from jolvek.formats.budget import Budget, TooDear
from jolvek.formats.decimals import sure
from jolvek.formats.schema import UnreadableFile

XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
# what a spreadsheet might run: signs of a formula, full-width ones too, behind what cannot be seen
_UNSEEN = r"\s\u00ad\u061c\u180e\u200b-\u200f\u202a-\u202e\u2060-\u2064\u2066-\u206f\ufeff"
_SIGNS = r"-=+@\t\r\uff0d\uff1d\uff0b\uff20\u2212\ufe62\ufe63\ufe66\ufe6b"
FORMULA = re.compile(rf"[{_UNSEEN}]*[{_SIGNS}]")
_FIGURE = re.compile(r"-?\d[\d\u202f\u00a0]*(\.\d+)?")
_WIDEST = 48
MOST_BYTES, MOST_ROWS, MOST_COLUMNS = 60_000_000, 20_000, 200
MOST_READ = 30_000  # rows with the empty ones


def as_csv(rows: Iterable[Sequence[str]]) -> str:
    """Rows as CSV; a text that a spreadsheet would run as a formula is led by an apostrophe.

    >>> as_csv([["a", "=1+1"], ["-", "-2.5"]]).splitlines()
    ["a,'=1+1", '-,-2.5']
    """
    out = io.StringIO()
    csv.writer(out).writerows([_safe(cell) for cell in row] for row in rows)
    return out.getvalue()


def _safe(cell: str) -> str:
    if _FIGURE.fullmatch(cell):
        return cell.replace("\u202f", "").replace("\u00a0", "")
    return "'" + cell if FORMULA.match(cell) and len(cell) > 1 else cell


def as_xlsx(rows: Sequence[Sequence[str]], title: str) -> bytes:
    """Rows as a workbook of one sheet, the first row its head; what reads as a figure is one."""
    from openpyxl import Workbook
    from openpyxl.styles import Font
    from openpyxl.utils import get_column_letter

    book = Workbook()
    sheet = book.active
    assert sheet is not None
    sheet.title = re.sub(r"[\\/*?:\[\]]", " ", title)[:31] or "Sheet"
    for row in rows:
        sheet.append([_value(cell) for cell in row])
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for number, column in enumerate(sheet.columns, 1):
        longest = max(len(str(cell.value or "")) for cell in column)
        sheet.column_dimensions[get_column_letter(number)].width = min(longest + 2, _WIDEST)
    sheet.freeze_panes = "C2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def csv_of_xlsx(content: bytes) -> str:
    """The first sheet of a workbook as CSV, as wide as its head; empty rows are left out.

    Raises UnreadableFile for what is none, or too large.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as packed:
            size = sum(entry.file_size for entry in packed.infolist())
            if size <= MOST_BYTES:
                for name in packed.namelist():
                    if "/worksheets/" in name:
                        _count_rows(packed, name)
        if size <= MOST_BYTES:
            rows = _first_sheet(content)
    except TooDear as error:
        raise UnreadableFile(f"file: {error}") from None
    except Exception as error:  # whatever the library meets in a file that somebody broke
        raise UnreadableFile(f"file: no spreadsheet that can be read ({error})") from None
    if size > MOST_BYTES:
        raise UnreadableFile(f"file: {size} bytes unpacked, allowed are {MOST_BYTES}")
    if len(rows) > MOST_ROWS + 1:
        raise UnreadableFile(f"file: more than {MOST_ROWS} rows; split it")
    wide = max((i for i, x in enumerate(rows[0], 1) if x != ""), default=0) if rows else 0
    out = io.StringIO()
    csv.writer(out).writerows(row[:wide] for row in rows)
    return out.getvalue()


def _count_rows(packed: zipfile.ZipFile, name: str) -> None:
    """Raise TooDear where a sheet has more rows than are read, before the library takes it up."""
    budget, parser = Budget(MOST_READ), expat.ParserCreate()

    def started(tag: str, _attributes: dict[str, str]) -> None:
        if tag == "row":
            budget.spend()

    parser.StartElementHandler = started
    with packed.open(name) as stream:
        while part := stream.read(65_536):
            parser.Parse(part)
            budget.check()


def _first_sheet(content: bytes) -> list[list[Any]]:
    """The rows of a workbook's first sheet that hold something, one more than are taken at most."""
    from openpyxl import load_workbook

    book = load_workbook(io.BytesIO(content), read_only=True, data_only=True)
    sheet = book.worksheets[0]
    sheet.reset_dimensions()  # what the file says of its size may be anything
    budget, out = Budget(MOST_READ), []
    for row in sheet.iter_rows(max_col=MOST_COLUMNS, values_only=True):
        budget.spend()
        cells = [_plain(x) for x in row]
        if any(x != "" for x in cells):
            out.append(cells)
        if len(out) > MOST_ROWS + 1:
            break
    return out


def _plain(value: Any) -> Any:
    if isinstance(value, datetime):  # a cell that holds a day
        return value.date().isoformat()
    if isinstance(value, float):
        return sure(repr(value))
    return "" if value is None else value


def _value(cell: str) -> str | float:
    bare = _safe(cell)
    return float(bare) if _FIGURE.fullmatch(bare) else bare
