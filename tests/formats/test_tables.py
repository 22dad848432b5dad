"""Tables as CSV and spreadsheets: figures are figures, no text is run as a formula."""

import csv
import io

import pytest
from openpyxl import load_workbook

from jolvek.formats.tables import as_csv, as_xlsx

ROWS = [
    ["", "unit", "A"],
    ["speed", "kn", "4.2"],
    ["price", "", "1\u202f234.5"],
    ["name", "", "=1+1"],
]


def test_csv_reads_back_and_runs_nothing():
    read = list(csv.reader(io.StringIO(as_csv(ROWS))))
    assert read == [
        ["", "unit", "A"],
        ["speed", "kn", "4.2"],
        ["price", "", "1234.5"],
        ["name", "", "'=1+1"],
    ]


def test_a_spreadsheet_has_figures_where_they_are_and_a_head_in_bold():
    sheet = load_workbook(io.BytesIO(as_xlsx(ROWS, "a/b: c"))).active
    assert [c.value for c in sheet[2]] == ["speed", "kn", 4.2]
    assert sheet["C3"].value == 1234.5 and sheet["C4"].value == "'=1+1"
    assert all(c.font.bold for c in sheet[1]) and sheet.title == "a b  c"


@pytest.mark.parametrize("text", ["=cmd()", "+1 x", "@here", "-x", "\tx", "\rx"])
def test_what_a_spreadsheet_would_run_is_led_by_an_apostrophe(text):
    assert load_workbook(io.BytesIO(as_xlsx([["h"], [text]], "t"))).active["A2"].value[0] == "'"


@pytest.mark.parametrize("text", ["-2.5", "0", "12\u202f000"])
def test_a_figure_stays_a_figure(text):
    value = load_workbook(io.BytesIO(as_xlsx([["h"], [text]], "t"))).active["A2"].value
    assert isinstance(value, int | float)
