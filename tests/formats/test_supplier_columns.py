"""A supplier's own table is read as ours, column by column, and nothing of it is guessed wrong."""

import pytest

from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.products.plain import made_id
from jolvek.formats import shelf_csv, supplier_columns
from jolvek.formats.supplier_columns import Column, translated

THEIRS = "Brand;Model;Net USD;Peak;L in mm\nHalvane;Leaf 90;1.200,50;90;680\n;;;;\n"
COLUMNS = {
    "Brand": Column("maker"),
    "Model": Column("name"),
    "Net USD": Column("price", rate=0.9),
    "Peak": Column("rated_w"),
    "L in mm": Column("length_m", "mm"),
}


def rows(shelf, text=THEIRS, columns=COLUMNS):
    return shelf_csv.read(translated(text.encode(), "panels", columns, shelf), "panels", shelf)


def test_units_rates_and_ids_are_put_in(shelf):
    (row,) = rows(shelf)
    item = row.item
    assert (row.line, row.state, item.id) == (2, "new", "halvane-leaf-90")
    assert item.price == pytest.approx(1080.45) and item.spec.length_m == pytest.approx(0.68)


def test_a_product_that_is_known_by_maker_and_name_keeps_its_id(shelf):
    known = shelf.panels[0]
    text = THEIRS.replace("Leaf 90", known.name.upper())
    assert rows(shelf, text)[0].item.id == known.id


def test_two_new_ones_of_one_name_are_one_and_ids_never_meet(shelf):
    text = THEIRS.replace(";;;;", "Halvane;Leaf 90;10;90;680")
    assert [r.state for r in rows(shelf, text)] == ["new", "wrong"]  # used once only
    taken = {x.id for x in shelf.motors}
    assert made_id("Ovrek", "p25", taken) == "ovrek-p25-2" not in taken
    assert made_id("Ünø", "—", set()) == "un"
    assert made_id("—", "…", {"product"}) == "product-2"


def test_a_left_out_column_is_not_read_and_a_figure_with_its_unit_keeps_it(shelf):
    text = THEIRS.replace("680", "27 in")
    (row,) = rows(shelf, text, {**COLUMNS, "Peak": Column("rated_w")})
    assert row.item.spec.length_m == pytest.approx(0.6858)
    bare = {k: v for k, v in COLUMNS.items() if k != "L in mm"}
    assert rows(shelf, THEIRS, bare)[0].item.spec.length_m is None


def test_a_price_that_cannot_be_read_is_told_by_its_line(shelf):
    (row,) = rows(shelf, THEIRS.replace("1.200,50", "on request"))
    assert row.state == "wrong" and "on request" in row.reason and row.line == 2


def test_names_that_come_twice_are_told_apart_and_nameless_ones_left_out(shelf):
    text = THEIRS.replace("L in mm", "Peak").replace("\n", ";x\n").replace("Peak;x", "Peak;")
    assert supplier_columns.table(text.encode())[0][3:] == ["Peak", "Peak (2)", ""]
    both = {**COLUMNS, "Peak (2)": Column("length_m", "mm")}
    assert rows(shelf, text, both)[0].item.spec.length_m == pytest.approx(0.68)


def test_two_columns_of_one_key_are_refused(shelf):
    with pytest.raises(JolvekError, match="two columns are maker"):
        rows(shelf, THEIRS, {**COLUMNS, "Model": Column("maker")})


@pytest.mark.parametrize(
    ("key", "unit", "rate"),
    [
        ("length_m", "kg", 1.0),
        ("maker", "mm", 1.0),
        ("mass_kg", "", 2.0),
        ("price", "", 0.0),
        ("price", "", 1e9),
        ("length_m", "furlong", 1.0),
    ],
)
def test_a_unit_or_rate_that_cannot_be_is_refused(key, unit, rate):
    with pytest.raises(ValueRefused):
        Column(key, unit, rate)


@pytest.mark.parametrize(
    ("head", "is_so"),
    [
        (["id", "maker", "name", "price", "rated_w"], True),
        (["maker", "name", "price", "rated_w", ""], True),
        (["maker", "name", "price"], False),
        (["maker", "name", "price", "rated_w", "colour"], False),
    ],
)
def test_a_head_of_ours_needs_no_asking(head, is_so):
    assert supplier_columns.fits(head, "panels") == is_so


def test_what_a_column_is_is_guessed_by_its_name():
    head = ["Maker", "Mass (lb)", "Width, cm", "Colour", "Mass (m)"]
    guess = supplier_columns.guessed(head, "panels")
    assert [(c.key, c.unit) for c in guess.values()] == [
        ("maker", ""),
        ("mass_kg", "lb"),
        ("width_m", "cm"),
        ("", ""),
        ("", ""),  # one column each
    ]
    theirs = supplier_columns.guessed(["Brand", "Type", "Net USD", "Weight (kg)"], "panels")
    assert [c.key for c in theirs.values()] == ["maker", "name", "price", "mass_kg"]
