"""Tables as CSV and spreadsheets: figures are figures, no text is run as a formula."""

import csv
import io
import zipfile
from datetime import datetime

import pytest
from openpyxl import Workbook, load_workbook

from jolvek.formats import tables
from jolvek.formats.schema import UnreadableFile
from jolvek.formats.shelf_csv import CsvRefused, value_of
from jolvek.formats.tables import MOST_BYTES, as_csv, as_xlsx, csv_of_xlsx

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


def test_a_workbook_comes_back_as_csv():
    text = csv_of_xlsx(as_xlsx([["id", "price"], ["m1", "12.5"], ["m2", ""]], "t"))
    assert list(csv.reader(io.StringIO(text))) == [["id", "price"], ["m1", "12.5"], ["m2", ""]]


@pytest.mark.parametrize("content", [b"PK", b"PK\x03\x04nonsense", as_csv(ROWS).encode()])
def test_what_is_no_workbook_is_refused_in_a_sentence(content):
    with pytest.raises(UnreadableFile, match="no spreadsheet"):
        csv_of_xlsx(content)


def broken(part):
    """A workbook whose one part holds no XML."""
    out, whole = io.BytesIO(), zipfile.ZipFile(io.BytesIO(as_xlsx(ROWS, "t")))
    with zipfile.ZipFile(out, "w") as z:
        for name in whole.namelist():
            z.writestr(name, "<nonsense" if name.endswith(part) else whole.read(name))
    return out.getvalue()


@pytest.mark.parametrize("part", ["workbook.xml", "sheet1.xml", "styles.xml", "Types].xml", "rels"])
def test_a_workbook_with_a_broken_part_is_refused_in_a_sentence(part):
    with pytest.raises(UnreadableFile, match="no spreadsheet"):
        csv_of_xlsx(broken(part))


def test_rows_beyond_the_most_are_refused_and_empty_ones_do_not_count(monkeypatch):
    monkeypatch.setattr(tables, "MOST_ROWS", 300)
    book = Workbook()
    sheet = book.active
    sheet.append(["id", "valid_to"])
    sheet.cell(310, 1, "m1")
    sheet.cell(310, 2, datetime(2027, 3, 31))
    out = io.BytesIO()
    book.save(out)
    assert csv_of_xlsx(out.getvalue()).split() == ["id,valid_to", "m1,2027-03-31"]
    with pytest.raises(UnreadableFile, match="more than 300 rows"):
        csv_of_xlsx(as_xlsx([["id"]] * 302, "t"))


def test_a_workbook_that_unpacks_to_too_much_is_refused():
    bomb = io.BytesIO()
    with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("xl/workbook.xml", b"0" * (MOST_BYTES + 1))
    with pytest.raises(UnreadableFile, match="unpacked"):
        csv_of_xlsx(bomb.getvalue())


@pytest.mark.parametrize(
    ("key", "text", "value"),
    [
        ("mass_kg", "55 lb", 24.948),
        ("shaft_length_m", "600 mm", 0.6),
        ("input_power_w", "2.4 kW", 2400.0),
        ("static_thrust_n", "55 lbf", 244.65),
        ("claimed_speed_m_s", "5 kn", 2.5722),
        ("claimed_runtime_s", "1 h 20", 4800.0),
        ("capacity_ah", "100", 100.0),
    ],
)
def test_a_shelf_cell_takes_units_as_the_stations_do(key, text, value):
    assert value_of(text, {"type": "number"}, key) == pytest.approx(value, rel=1e-4)


@pytest.mark.parametrize(
    ("key", "text"), [("mass_kg", "55 kn"), ("capacity_ah", "9 lb"), ("price", "x")]
)
def test_a_unit_that_does_not_belong_is_refused(key, text):
    with pytest.raises(CsvRefused, match=key):
        value_of(text, {"type": "number"}, key)
