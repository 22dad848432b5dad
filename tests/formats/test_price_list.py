"""A price list, cell by cell: what each column refuses and how figures are written."""

import csv
import io

import pytest

from jolvek.core.base.errors import JolvekError
from jolvek.core.products.plain import KINDS, product_from_plain
from jolvek.formats import shelf_csv
from jolvek.formats.shelf_schema import item_schema


def first_row(shelf, kind):
    """The first product of a kind, as {column: cell}."""
    return next(csv.DictReader(io.StringIO(shelf_csv.write(shelf, kind))))


def read(cells, kind, shelf, delimiter=","):
    out = io.StringIO()
    writer = csv.DictWriter(out, list(cells), delimiter=delimiter)
    writer.writeheader()
    writer.writerow(cells)
    return shelf_csv.read(out.getvalue().encode(), kind, shelf)[0]


def beyond(rule):
    """Cells that a column's rule refuses."""
    inner = rule.get("items", rule)
    if "enum" in inner:
        yield "no-such-word"
    if "minimum" in inner:
        yield str(inner["minimum"] - 1)
        yield str(inner["maximum"] + 1)
        yield "many"
        yield "nan"
    if inner.get("type") == "boolean":
        yield "perhaps"
    if "maxLength" in inner:
        yield "x" * (inner["maxLength"] + 1)
    if "pattern" in inner:
        yield "2026-02-30"


@pytest.mark.parametrize("kind", KINDS)
def test_each_column_refuses_what_lies_beyond_its_rule_and_names_itself(kind, shelf):
    cells, schema = first_row(shelf, kind), item_schema(kind)
    assert read(cells, kind, shelf).state == "same"
    for name, rule in schema["properties"].items():
        for bad in beyond(rule):
            row = read({**cells, name: bad}, kind, shelf)
            assert row.state == "wrong", (name, bad)
            assert name in row.reason and "allowed" in row.reason, (name, bad)
    for name in schema["required"]:
        row = read({**cells, name: ""}, kind, shelf)
        assert row.state == "wrong" and f"{name}: read None" in row.reason, name


@pytest.mark.parametrize("kind", KINDS)
def test_the_records_refuse_on_their_own_what_the_schema_refuses(kind, shelf):
    """The price list asks the record first and the schema only for its words."""
    rules = item_schema(kind)["properties"]
    plain = {
        key: shelf_csv.value_of(cell, rules[key], key)
        for key, cell in first_row(shelf, kind).items()
        if cell
    }
    for name, rule in rules.items():
        for bad in beyond(rule):
            try:
                value = shelf_csv.value_of(bad, rule, name)
            except JolvekError:
                continue
            with pytest.raises(JolvekError):
                product_from_plain(kind, {**plain, name: value})


@pytest.mark.parametrize(
    ("written", "delimiter", "price"),
    [
        ("1299", ",", 1299.0),
        ("1299.50", ",", 1299.5),
        ("1299,50", ";", 1299.5),
        ("1.299,50", ";", 1299.5),
        ("1,299.50", ",", 1299.5),
        ("1 299,50", ";", 1299.5),
        ("1\u00a0299,50", ";", 1299.5),
        ("1\u202f299,50", "\t", 1299.5),
    ],
)
def test_a_price_is_read_as_each_country_writes_it(written, delimiter, price, shelf):
    cells = {**first_row(shelf, "panels"), "price": written}
    assert read(cells, "panels", shelf, delimiter).item.price == price


@pytest.mark.parametrize("bad", ["=1+1", "+cmd", "@SUM(A1)", "=HYPERLINK(1)"])
@pytest.mark.parametrize("column", ["name", "price", "maker"])
def test_a_formula_is_refused_wherever_it_stands(bad, column, shelf):
    row = read({**first_row(shelf, "panels"), column: bad}, "panels", shelf)
    assert row.state == "wrong" and "formula" in row.reason


def test_what_changes_is_told_in_words(shelf):
    cells = first_row(shelf, "panels")
    row = read({**cells, "price": "1.5", "rated_w": "77"}, "panels", shelf)
    was = shelf.panels[0]
    assert row.state == "changed"
    assert row.changes == (
        ("price", f"{was.price}", "1.5"),
        ("rated_w", f"{was.spec.rated_w}", "77"),
    )


def test_another_kinds_id_and_an_unknown_column_are_refused(shelf):
    cells = {**first_row(shelf, "panels"), "id": shelf.motors[0].id}
    assert "another kind of product" in read(cells, "panels", shelf).reason
    with pytest.raises(shelf_csv.CsvRefused, match="column 'colour' is not known"):
        read({**cells, "colour": "red"}, "panels", shelf)
    with pytest.raises(shelf_csv.CsvRefused, match="the file is empty"):
        shelf_csv.read(b"", "panels", shelf)
    with pytest.raises(shelf_csv.CsvRefused, match="no text has"):
        shelf_csv.read(b"id\x00name", "panels", shelf)


def test_more_cells_than_columns_are_told_by_their_number(shelf):
    text = b"id,maker,name,price,rated_w\np,Made,Leaf,90,80,surplus\n"
    assert "6 cells, but 5 columns" in shelf_csv.read(text, "panels", shelf)[0].reason
