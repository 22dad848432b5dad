"""Tables of text as CSV and as a spreadsheet (Office Open XML, by openpyxl)."""

from __future__ import annotations

import csv
import io
import re
import zipfile
from collections.abc import Iterable, Sequence

from openpyxl import Workbook, load_workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter
from openpyxl.utils.exceptions import InvalidFileException

from jolvek.formats.schema import UnreadableFile

XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
_RUNS = ("=", "+", "-", "@", "\t", "\r")  # what a spreadsheet would take for a formula
_FIGURE = re.compile(r"-?\d[\d\u202f\u00a0]*(\.\d+)?")
_WIDEST = 48
MOST_BYTES, MOST_ROWS, MOST_COLUMNS = 60_000_000, 20_000, 200


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
    return "'" + cell if cell.startswith(_RUNS) and len(cell) > 1 else cell


def as_xlsx(rows: Sequence[Sequence[str]], title: str) -> bytes:
    """Rows as a workbook of one sheet, the first row its head; what reads as a figure is one."""
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
        if size > MOST_BYTES:
            raise UnreadableFile(f"file: {size} bytes unpacked, allowed are {MOST_BYTES}")
        book = load_workbook(io.BytesIO(content), read_only=True, data_only=True)
        most = {"max_row": MOST_ROWS, "max_col": MOST_COLUMNS}
        read = book.worksheets[0].iter_rows(**most, values_only=True)
        rows = [["" if x is None else x for x in row] for row in read]
        wide = max((i for i, x in enumerate(rows[0], 1) if x != ""), default=0) if rows else 0
        out = io.StringIO()
        csv.writer(out).writerows(row[:wide] for row in rows if any(x != "" for x in row))
        return out.getvalue()
    except (zipfile.BadZipFile, InvalidFileException, KeyError, IndexError, ValueError) as error:
        raise UnreadableFile(f"file: no spreadsheet that can be read ({error})") from None


def _value(cell: str) -> str | float:
    bare = _safe(cell)
    return float(bare) if _FIGURE.fullmatch(bare) else bare
