"""A supplier's price list: asked once what its columns are, remembered, and shown before it is
written.
"""

import io
import re

from jolvek.store import shelf, suppliers
from tests.web.steps import boat_form

THEIRS = "Brand;Model;Net;Peak;Long\nHalvane;Leaf 90;120;90;680\n"


def send(client, text=THEIRS, supplier="Nordwind"):
    form = {"kind": "panels", "supplier": supplier, "file": (io.BytesIO(text.encode()), "list.csv")}
    return client.post("/catalogue/import", data=form)


def told(page, **changes):
    hidden = dict(re.findall(r'name="(token|kind|name|supplier)"\s+value="([^"]*)"', page.text))
    keys = {"key0": "maker", "key1": "name", "key2": "price", "key3": "rated_w", "key4": "length_m"}
    return {**hidden, **keys, "unit4": "mm", "rate2": "1.1", **changes}


def test_columns_are_asked_once_and_remembered_by_the_supplier(client, conn):
    asked = send(client)
    assert asked.status_code == 200 and "What are the columns of" in asked.text
    preview = client.post("/catalogue/import/columns", data=told(asked))
    assert "*1* new" not in preview.text and "<strong>1</strong> new" in preview.text
    form = dict(re.findall(r'name="(token|kind)" value="([^"]*)"', preview.text))
    assert client.post("/catalogue/import/confirm", data=form).status_code == 303
    new = next(x for x in shelf.load(conn).panels if x.name == "Leaf 90")
    assert (new.price, new.spec.length_m) == (132.0, 0.68)
    again = send(client, THEIRS.replace("120", "150"))
    assert "<strong>1</strong> changed" in again.text  # not asked any more
    assert suppliers.names(conn) == ["Nordwind"]
    assert "What are the columns of" in send(client, supplier="Another").text


def test_a_new_column_of_a_known_supplier_is_asked_with_the_old_ones_filled_in(client):
    client.post("/catalogue/import/columns", data=told(send(client)))
    asked = send(client, THEIRS.replace("Long", "Long;Heft").replace("680", "680;2")).text
    assert "What are the columns of" in asked
    assert re.search(r'<option value="length_m"\s+selected', asked)


def test_a_unit_that_cannot_be_is_told_at_its_column_and_nothing_is_lost(client):
    page = client.post("/catalogue/import/columns", data=told(send(client), unit4="furlong"))
    assert page.status_code == 422 and "furlong" in page.text and "unit of length" in page.text
    assert re.search(r'<option value="rated_w"\s+selected', page.text)
    assert client.post("/catalogue/import/columns", data=told(page)).status_code == 200


def test_a_file_that_is_gone_is_said(client):
    page = client.post("/catalogue/import/columns", data={"kind": "panels", "token": "a" * 32})
    assert page.status_code == 422 and "the file is gone" in page.text
    assert client.post("/catalogue/import/columns", data={"kind": "panels"}).status_code == 422


def test_what_is_remembered_and_cannot_be_read_is_asked_anew(client, conn):
    with conn:
        suppliers.keep(conn, "Nordwind", "panels", {"Brand": {"key": "x", "rate": -1}})
    assert "What are the columns of" in send(client).text


def test_a_new_product_gets_its_id_from_the_program(client, conn):
    page = client.get("/catalogue/panels/new").text
    assert 'name="id"' not in page
    form = {"maker": "Halvane", "name": "Leaf 70", "price": "90", "rated_w": "70"}
    made = client.post("/catalogue/panels/item", data=form)
    assert made.location.endswith("/catalogue/panels/item/halvane-leaf-70")
    assert client.post("/catalogue/panels/item", data=form).location.endswith("leaf-70-2")
    assert client.post("/catalogue/panels/item", data={**form, "name": ""}).status_code == 422


def test_choices_are_ticked_and_lists_typed_with_semicolons(client, conn):
    page = client.get("/catalogue/boats/new").text
    assert re.search(r'type="checkbox"\s+name="places"\s+value="pad"', page)
    form = {"maker": "Corran", "name": "Tern", "family": "kayak", "length_m": "3.6"}
    form |= {"beam_m": "0.8", "mass_kg": "31", "places": ["pad", "fin_box"]}
    client.post("/catalogue/boats/item", data=form)
    assert shelf.get(conn, "boats", "corran-tern").spec.places == ("pad", "fin_box")
    motor = shelf.load(conn).motors[0]
    from jolvek.core.products.plain import product_plain
    from jolvek.formats import shelf_csv

    kept = {k: shelf_csv.cell(product_plain(motor).get(k)) for k in shelf_csv.columns("motors")}
    client.post("/catalogue/motors/item", data={**kept, "in_box": "propeller; spare pin"})
    assert shelf.get(conn, "motors", motor.id).in_box == ("propeller", "spare pin")
    assert "propeller; spare pin" in client.get(f"/catalogue/motors/item/{motor.id}").text


def test_boats_are_known_and_not_sold_and_their_years_are_years(client):
    page = client.get("/catalogue/boats").text
    assert "€0" not in page and ">2019<" in page and "2\u202f019" not in page
    one = client.get("/catalogue/boats/item/merle-angler-19").text
    assert "€" not in one and "fin_box, rail, stern_deck" in one


def test_our_own_columns_without_ids_get_them_and_are_not_asked(client):
    text = "maker,name,price,rated_w,\nHalvane,Leaf 60,80,60,\n"
    assert "<strong>1</strong> new" in send(client, text, supplier="").text


def test_a_nameless_column_is_not_asked_about_for_ever(client):
    with_one = THEIRS.replace("Long\n", "Long;\n").replace("680\n", "680;\n")
    client.post("/catalogue/import/columns", data=told(send(client, with_one)))
    assert "What are the columns of" not in send(client, with_one).text


def test_a_cell_that_no_table_can_hold_is_refused_in_a_sentence(client):
    page = send(client, f"Brand;Model\nA;{'x' * 200_000}\n")
    assert page.status_code == 422 and "cannot be read as a table" in page.text


def test_a_boat_whose_measured_waterline_is_no_models_still_opens(client):
    long = {"length": "5.2", "waterline_length": "5.0", "model": "Merle Angler 375"}
    assert client.post("/enquiry/1/boat", data=boat_form(client, 1) | long).status_code == 303
    assert "stands in the catalogue" in client.get("/enquiry/1/boat").text
    client.post("/enquiry/1/boat/model", data={"model": "Merle Angler 375"})
    assert 'value="3.75"' in client.get("/enquiry/1/boat").text
