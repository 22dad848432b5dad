"""Prices and figures as shops write them: by the file's own signs, asked about where unlikely.

Source of the ways to write: common practice, no source.
"""

from dataclasses import replace

import pytest

from jolvek.formats import shelf_csv, supplier_columns, tables, unlikely
from jolvek.formats.supplier_columns import Column

GERMAN = """id;maker;name;price;mass_kg;input_power_w;style;shafts_m
a;M;A;{price};14,5;1.200;outboard;381/508 mm
b;M;B;799,-;9,125;600;outboard;0,381
"""


@pytest.mark.parametrize(
    ("written", "means"),
    [
        ("2.899", 2899.0),
        ("1.949", 1949.0),
        ("1.899,00 €", 1899.0),
        ("€ 1.899", 1899.0),
        ("1899", 1899.0),
        ("1 899,50", 1899.5),
        ("1'899.–", 1899.0),
        ("EUR 1.899,-", 1899.0),
    ],
)
def test_prices_of_a_german_list_are_what_they_say(shelf, written, means):
    first, second = shelf_csv.read(GERMAN.format(price=written).encode(), "motors", shelf)
    assert first.item.price == means and second.item.price == 799.0
    assert (first.item.spec.mass_kg, second.item.spec.mass_kg) == (14.5, 9.125)
    assert first.item.spec.input_power_w == 1200.0
    assert first.item.shafts_m == (0.381, 0.508)


def test_a_list_with_points_keeps_them_and_so_does_our_own(shelf):
    text = "id,maker,name,price,mass_kg,input_power_w,style\na,M,A,1949.00,9.125,1200,outboard\n"
    (row,) = shelf_csv.read(text.encode(), "motors", shelf)
    assert (row.item.price, row.item.spec.mass_kg) == (1949.0, 9.125)
    (row,) = shelf_csv.read(text.replace("1949.00", '"1,949.00"').encode(), "motors", shelf)
    assert row.item.price == 1949.0
    again = shelf_csv.read(shelf_csv.write(shelf, "batteries").encode(), "batteries", shelf)
    assert {r.state for r in again} == {"same"}


def test_a_spreadsheets_own_figures_are_no_thousands(shelf):
    rows = [["id", "maker", "name", "price", "mass_kg", "input_power_w", "style"]]
    rows += [["a", "M", "A", "1949", "9.125", "1200", "outboard"]]
    text = tables.csv_of_xlsx(tables.as_xlsx(rows, "list"))
    (row,) = shelf_csv.read(text.encode(), "motors", shelf)
    assert row.item.spec.mass_kg == 9.125


def test_columns_of_a_supplier_go_by_the_whole_files_signs(shelf):
    text = 'Art,Preis,Gewicht,Leistung,Schaft\nX,"1.949","14,5","1.200","381/508"\n'
    columns = {
        "Art": Column("name"),
        "Preis": Column("price"),
        "Gewicht": Column("mass_kg", "kg"),
        "Leistung": Column("input_power_w"),
        "Schaft": Column("shafts_m", "mm"),
    }
    ours = supplier_columns.translated(text.encode(), "motors", columns, shelf).decode()
    head, cells = (line.split(",") for line in ours.splitlines())
    values = dict(zip(head, cells, strict=True))
    assert (values["price"], values["mass_kg"], values["input_power_w"]) == (
        "1949",
        "14.5 kg",
        "1200",
    )
    assert values["shafts_m"] == "381 mm|508 mm"


@pytest.mark.parametrize(("factor", "asks"), [(1.29, False), (1.31, True), (0.69, True)])
def test_a_price_that_moves_by_a_third_is_asked_about(shelf, factor, asks):
    item = shelf.motors[7]
    result = unlikely.asked_about("motors", replace(item, price=factor * item.price), item)
    assert bool(result) == asks
    assert unlikely.asked_about("motors", replace(item, price=2.9), None)
    assert not any(
        unlikely.asked_about(k, x, None)
        for k in ("motors", "batteries", "chargers")
        for x in getattr(shelf, k)
    )
