"""Any number of products, and the pinned setups, in one table: on the page and as files."""

import csv
import io
import re
from dataclasses import replace

import pytest
from openpyxl import load_workbook

from jolvek import demo
from jolvek.core.base import units
from jolvek.core.predict.streams import settings_w
from jolvek.formats.tables import as_xlsx
from jolvek.store import enquiries as store
from jolvek.store import setups
from jolvek.store import shelf as shelf_store
from jolvek.web.desk.catalogue.compare import compare_page
from jolvek.web.desk.catalogue.facts import follows, missing
from jolvek.web.kit.figures import unmarked
from jolvek.web.kit.worked import work_out
from jolvek.web.stations.side_by_side.full import full_table
from tests.web.pages.made import ALL, AT_SEA, METRIC
from tests.web.pages.test_later_stations import bare, worked

SHELF = demo.shelf()


def column(page, key):
    return [c.key for c in page.shown].index(key)


@pytest.mark.parametrize("u", ALL.values(), ids=ALL)
def test_figures_stand_in_the_users_units(u):
    page = compare_page("motors", SHELF.motors, [], u)
    at = column(page, "input_power_w")
    assert page.shown[at].unit == u["power"]
    for (_, _, cells), motor in zip(page.rows, SHELF.motors, strict=True):
        assert cells[at] == u.number(motor.spec.input_power_w, "power")


def test_what_follows_from_what_is_stated_stands_beside_it():
    motors = compare_page("motors", SHELF.motors, ["shaft_hp"], METRIC)
    hp = 0.85 * SHELF.motors[0].spec.input_power_w / 745.7
    assert float(motors.rows[0][2][0]) == pytest.approx(hp, rel=1e-3)
    packs = compare_page("batteries", SHELF.batteries, ["price_per_kwh", "energy_wh"], METRIC)
    first = SHELF.batteries[0]
    energy, price = (float(x.replace("\u202f", "")) for x in packs.rows[0][2])
    assert energy * price / 1000 == pytest.approx(first.price, rel=1e-3)


def test_columns_are_chosen_and_unknown_ones_left_out(client):
    page = client.get("/catalogue/motors/compare?col=mass_kg&col=nonsense").text
    table = page[page.index("<table") :]
    assert "static thrust" not in table and "mass" in table
    assert page.count('name="id"') == len(SHELF.motors)
    heads = re.findall(r'<th scope="col"[^>]*>(.*?)</th>', table, re.S)
    assert [re.sub(r"<.*?>|\s+", " ", h).split() for h in heads] == [["Product"], ["mass", "kg"]]


@pytest.mark.parametrize("kind", ["motors", "batteries", "mounts", "chargers", "panels"])
def test_every_kind_is_compared_as_page_csv_and_spreadsheet(client, kind):
    ids = [x.id for x in getattr(SHELF, kind)][:2]
    query = "&".join(f"id={i}" for i in ids)
    assert client.get(f"/catalogue/{kind}/compare?{query}").status_code == 200
    text = client.get(f"/catalogue/{kind}/compare?{query}&form=csv").text
    rows = list(csv.reader(io.StringIO(text)))
    book = client.get(f"/catalogue/{kind}/compare?{query}&form=xlsx").data
    sheet = load_workbook(io.BytesIO(book)).active
    assert len(rows) == sheet.max_row == 1 + len(ids)
    assert rows[1][0] == sheet["A2"].value == getattr(SHELF, kind)[0].title
    assert client.get(f"/catalogue/{kind}/compare?{query}&form=exe").status_code == 404


@pytest.mark.parametrize("u", ALL.values(), ids=ALL)
def test_the_setups_stand_at_full_half_lowest_and_wanted(app, u):
    w = worked(1)
    with app.app_context():
        table = full_table([w], u)
    groups = unmarked(dict(table.groups))
    for which, name in enumerate(("At full power", "At half power", "At the lowest step")):
        power = settings_w(w.performance)[which]
        speed = next(cells[0] for row, _, cells in groups[name] if row == "speed")
        assert speed == u.number(float(w.performance.speed_at_w(power)), "speed")
    wanted = next(c[0] for row, _, c in groups["At the wanted speed"] if row == "speed")
    assert wanted == u.number(w.wish_or_top_m_s, "speed")
    per_kwh = next(c[0] for row, _, c in groups["Battery"] if row == "a kWh costs")
    bank = w.fitted.bank
    each = 1000 * bank.packs * w.fitted.battery.price / bank.energy_wh
    assert per_kwh.replace("\u202f", "") == f"€{each:.0f}"


def test_the_full_table_is_a_file_and_the_curves_are_in_shown_units(fitted, conn):
    rows = list(csv.reader(io.StringIO(fitted.get("/enquiry/2/side-by-side/table.csv").text)))
    assert rows[0][:3] == ["", "unit", "A"] and any(r[0] == "Battery: holds" for r in rows)
    book = load_workbook(io.BytesIO(fitted.get("/enquiry/2/side-by-side/table.xlsx").data))
    assert book.active.max_row == len(rows)
    assert fitted.get("/enquiry/2/side-by-side/table.pdf").status_code == 404
    curves = list(csv.reader(io.StringIO(fitted.get("/enquiry/2/side-by-side.csv").text)))
    assert curves[0][1:3] == ["speed, kn", "power, W"]
    top = max(float(r[1]) for r in curves[1:] if r[0] == "A")
    w = work_out(store.get(conn, 2).need, setups.of_enquiry(conn, 2)[0])
    near = units.to_unit(w.performance.top_speed_m_s, "speed", AT_SEA["speed"])
    assert top == pytest.approx(near, rel=1e-4)


def test_a_price_list_comes_as_a_spreadsheet_with_units(client, conn):
    head = [
        "id",
        "maker",
        "name",
        "price",
        "chemistry",
        "nominal_voltage_v",
        "capacity_ah",
        "mass_kg",
    ]
    book = as_xlsx([head, ["x1", "Made", "Brick", "410", "lfp", "12.8", "60", "14 lb"]], "list")
    data = {"kind": "batteries", "file": (io.BytesIO(book), "list.xlsx")}
    page = client.post("/catalogue/import", data=data, content_type="multipart/form-data")
    assert page.status_code == 200 and "Made Brick" in page.text
    token = re.search(r'name="token"\s+value="([0-9a-f-]+)"', page.text)[1]
    client.post("/catalogue/import/confirm", data={"kind": "batteries", "token": token})
    kept = shelf_store.get(conn, "batteries", "x1")
    assert kept.price == 410 and kept.spec.weight_kg == pytest.approx(6.35, abs=0.01)


def test_a_motors_page_says_what_follows_what_is_missing_and_where_it_stands(fitted, conn):
    motor = setups.of_enquiry(conn, 2)[0].part("motor").item
    html = fitted.get(f"/catalogue/motors/item/{motor.id}").text
    text = re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", html))
    prop = motor.spec.propulsor()
    at_rest = min(
        float(prop.drive.thrust_n(motor.spec.input_power_w, 0.0)), float(prop.room_n(0.0))
    )
    shown = dict(follows(motor, AT_SEA))
    assert bare(shown[f"Thrust at {AT_SEA.full(0.0, 'speed')}"]) == bare(
        AT_SEA.full(at_rest, "thrust", 0)
    )
    for name in ("Real horsepower", "Pitch speed", "Taken as usual", "setup A"):
        assert name in text, name
    assert 'class="drawing product-view"' in html and "data-scale" in html


def test_less_thrust_is_told_the_faster_she_goes():
    for motor in SHELF.motors:
        rows = [bare(v) for k, v in follows(motor, METRIC) if k.startswith("Thrust at")]
        figures = [float(re.sub(r"[^\d.]", "", x)) for x in rows]
        assert figures == sorted(figures, reverse=True), motor.id


def test_what_a_catalogue_leaves_out_is_named_with_its_cost():
    bare_motor = replace(
        SHELF.motors[0], spec=replace(SHELF.motors[0].spec, propeller_diameter_m=None)
    )
    assert any("± 11 % instead of ± 8 %" in result for result in missing(bare_motor))
    unsized = replace(SHELF.batteries[0], spec=replace(SHELF.batteries[0].spec, length_m=None))
    assert any("goes into a bay" in result for result in missing(unsized))
