"""The Shelf's pages: edits with history and undo, price lists with a preview of every row, all or
nothing.
"""

import io
import json
import re

import pytest

from jolvek.core.products.plain import product_plain
from jolvek.formats import shelf_csv, shelf_file
from jolvek.store import shelf as store
from tests.web.steps import forms_to


def csv_of(shelf, kind="batteries"):
    return shelf_csv.write(shelf, kind)


def send(client, text, kind="batteries", name="list.csv"):
    content = text if isinstance(text, bytes) else text.encode()
    return client.post(
        "/catalogue/import", data={"kind": kind, "file": (io.BytesIO(content), name)}
    )


def confirm(client, preview, **more):
    form = dict(re.findall(r'name="(token|kind)" value="([^"]*)"', preview.text))
    return client.post("/catalogue/import/confirm", data={**form, **more})


def test_a_product_is_changed_with_history_and_undone(client, conn, shelf):
    battery = shelf.batteries[0]
    form = {
        k: shelf_csv.cell(product_plain(battery).get(k)) for k in shelf_csv.columns("batteries")
    }
    assert (
        client.post("/catalogue/batteries/item", data={**form, "price": "199,50"}).status_code
        == 303
    )
    assert store.get(conn, "batteries", battery.id).price == 199.5
    page = client.get(f"/catalogue/batteries/item/{battery.id}").text
    assert "price:" in page and "→ 199.5" in page
    client.post(f"/catalogue/undo/{store.batches(conn)[0].id}")
    assert store.get(conn, "batteries", battery.id).price == battery.price


SELECTED = ("chemistry", "monitor")


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"price": "cheap"}, "allowed is a number"),
        ({"capacity_ah": "-4"}, "capacity_ah"),
        ({"chemistry": "soup"}, "chemistry"),
        ({"maker": ""}, "maker"),
        ({"monitor": "maybe"}, "yes or no"),
    ],
)
def test_a_wrong_product_comes_back_with_422_at_its_field(client, shelf, change, says):
    form = {
        k: shelf_csv.cell(product_plain(shelf.batteries[0]).get(k))
        for k in shelf_csv.columns("batteries")
    }
    answer = client.post("/catalogue/batteries/item", data={**form, **change})
    assert answer.status_code == 422 and says in answer.text
    assert all(f'value="{v}"' in answer.text for k, v in change.items() if v and k not in SELECTED)


def test_discontinued_products_leave_the_shortlist_but_stay_on_the_shelf(client, conn, shelf):
    motor = next(m for m in shelf.motors if m.title in client.get("/enquiry/2/shortlist").text)
    form = {k: shelf_csv.cell(product_plain(motor).get(k)) for k in shelf_csv.columns("motors")}
    client.post(
        "/catalogue/motors/item", data={**form, "discontinued": "yes"}, follow_redirects=True
    )
    assert motor.title not in client.get("/enquiry/2/shortlist").text
    assert motor.title not in client.get("/catalogue/motors").text.split("Latest changes")[0]
    assert motor.title in client.get("/catalogue/motors?all=1").text


def test_claims_are_checked_on_the_product(client, shelf):
    motor = next(m for m in shelf.motors if m.claimed_hp and m.claimed_hp > 1)
    text = client.get(f"/catalogue/motors/item/{motor.id}").text
    assert "hp claimed" in text and "Claims check" in text


def test_an_export_comes_back_unchanged(client, conn, shelf):
    for kind in store.KINDS:
        preview = send(client, client.get(f"/catalogue/{kind}/export.csv").data, kind)
        assert re.search(r"<strong>0</strong> new, <strong>0</strong> changed", preview.text), kind
    whole = send(client, client.get("/catalogue/export.json").data, name="shelf.json")
    assert "<strong>0</strong> new, <strong>0</strong> changed" in whole.text
    assert shelf_file.read(json.dumps(shelf_file.write(shelf))) == shelf


def test_five_thousand_rows_with_forty_faults_name_every_fault_and_write_nothing(
    client, conn, shelf
):
    rows = ["id;maker;name;price;chemistry;nominal_voltage_v;capacity_ah;mass_kg"]
    faults = [";x;y;1", "dear", "lfp2", "=1+1"]
    for i in range(5000):
        price, chem, ah, ident = f"{200 + i % 50},50", "lfp", f"{50 + i % 100}", f"made-{i}"
        if i % 125 == 7:
            bad = (i // 125) % 4
            price = faults[1] if bad == 1 else price
            chem = faults[2] if bad == 2 else chem
            ah = faults[3] if bad == 3 else ah
            ident = "made-0" if bad == 0 else ident
        rows.append(f"{ident};Ånvil;Pack {i};{price};{chem};12,8;{ah};11,5")
    before = store.version(conn)
    preview = send(client, "\r\n".join(rows).encode("cp1252"))
    assert (
        preview.status_code == 200
        and "<strong>40</strong> wrong" in preview.text
        and "<strong>4960</strong> new" in preview.text
    )
    lines = {
        int(n)
        for n in re.findall(
            r'<tr><td class="n">(\d+)</td><td>Pack',
            preview.text.split("Wrong</h2>")[1].split("</table>")[0],
        )
    }
    assert lines == {i + 2 for i in range(5000) if i % 125 == 7}
    assert (
        "allowed is an id used once only" in preview.text
        and "a formula is not taken" in preview.text
        and store.version(conn) == before
    )
    refused = confirm(client, preview)
    assert (
        refused.status_code == 422
        and "nothing was written" in refused.text
        and store.version(conn) == before
    )
    assert (
        confirm(client, send(client, "\r\n".join(rows[:1001]).encode("cp1252")), leave_out="1")
    ).status_code == 303
    assert (
        store.get(conn, "batteries", "made-1").maker == "Ånvil"
        and store.get(conn, "batteries", "made-1").price == 201.5
    )
    store.undo(conn, store.batches(conn)[0].id)
    assert store.get(conn, "batteries", "made-1") is None


@pytest.mark.parametrize(
    "encode",
    [
        lambda t: t.encode("utf-8-sig"),
        lambda t: t.encode("cp1252"),
        lambda t: t.replace(",", ";").encode(),
        lambda t: t.replace(",", "\t").encode(),
    ],
    ids=["BOM", "Windows-1252", "semicolons", "tabs"],
)
def test_files_as_offices_write_them_are_read(shelf, encode):
    text = "id,maker,name,price,rated_w\np-1,Böe,Sheet,120,55\n"
    rows = shelf_csv.read(encode(text), "panels", shelf)
    assert [(r.state, r.item.maker, r.item.spec.rated_w) for r in rows] == [("new", "Böe", 55)]


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "empty"),
        (b"PK\x03\x04\x00\x00", "no spreadsheet that can be read"),
        (b"\x7fELF\x00\x00", "bytes that no text has"),
        (b"x" * 6_000_000, "larger than 4 MB"),
    ],
    ids=["empty", "zip", "binary", "6 MB"],
)
def test_files_that_cannot_be_read_are_refused_at_the_field(client, content, says):
    answer = send(client, content, "panels")
    assert answer.status_code == 422 and re.search(rf'id="file-error">[^<]*{says}', answer.text)


def test_a_formula_in_a_name_is_written_so_that_no_sheet_runs_it(shelf):
    from dataclasses import replace

    odd = replace(shelf, panels=(replace(shelf.panels[0], name="=HYPERLINK(1)"),))
    text = shelf_csv.write(odd, "panels")
    assert "'=HYPERLINK(1)" in text
    assert shelf_csv.read(text.encode(), "panels", odd)[0].state == "same"


def test_a_preview_that_is_gone_is_said(client):
    answer = client.post("/catalogue/import/confirm", data={"token": "0" * 32, "kind": "motors"})
    assert answer.status_code == 422 and "the preview is gone" in answer.text
    assert (
        client.post(
            "/catalogue/import/confirm", data={"token": "../../etc", "kind": "motors"}
        ).status_code
        == 422
    )


def test_an_unlikely_price_is_asked_about_in_form_and_preview(client, conn, shelf):
    item = shelf.motors[7]
    fields = forms_to(client, f"/catalogue/motors/item/{item.id}", "/catalogue/motors/item")[0]
    asked = client.post("/catalogue/motors/item", data=fields | {"price": "2.899"})
    assert asked.status_code == 422 and "more than 30 %" in asked.text
    assert store.get(conn, "motors", item.id).price == item.price
    sure = asked.text.split('name="sure" value="')[1].split('"')[0]
    again = client.post("/catalogue/motors/item", data=fields | {"price": "2.899", "sure": sure})
    assert again.status_code == 303
    text = shelf_csv.write(shelf, "motors").replace(f",{item.price:g},", f",{2 * item.price:g},", 1)
    upload = {"file": (io.BytesIO(text.encode()), "list.csv"), "kind": "motors"}
    page = client.post("/catalogue/import", data=upload, content_type="multipart/form-data").text
    assert "Please check" in page and "I have checked the 1 figure" in page


def test_a_german_form_reads_and_shows_its_own_signs(client, conn, shelf):
    client.get("/")
    conn.execute("UPDATE person SET language = 'de'")
    item = next(x for x in shelf.motors if x.spec.mass_kg and x.spec.mass_kg % 1)
    fields = forms_to(client, f"/catalogue/motors/item/{item.id}", "/catalogue/motors/item")[0]
    assert fields["mass_kg"] == f"{item.spec.mass_kg:g}".replace(".", ",")
    price = f"{item.price * 1.1:.0f}"
    typed = f"{price[:-3]}.{price[-3:]}" if len(price) > 3 else f"{price},00 €"
    assert client.post("/catalogue/motors/item", data=fields | {"price": typed}).status_code == 303
    kept = store.get(conn, "motors", item.id)
    assert kept.price == float(price) and kept.spec.mass_kg == item.spec.mass_kg
