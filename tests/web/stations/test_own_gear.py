"""The customer's own gear: typed, matched beside new things, without a price, here alone."""

import re

import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.products.own import OwnGear, own_item
from jolvek.core.products.shelf import sample
from jolvek.store import enquiries as store
from jolvek.store import own_gear, setups
from jolvek.web.kit.matches import answered, shelf_for, shelf_of
from tests.web.steps import Forms

BATTERY = {
    "kind": "batteries",
    "name": "grey block",
    "volts": "25.6",
    "ah": "100",
    "mass": "11 kg",
    "amps": "100",
    "chemistry": "lfp",
    "since": "2021",
    "health": "80",
}
MOTOR = {"kind": "motors", "name": "old Tern", "power": "1 kW", "volts": "24", "shaft": "381 mm"}


def add(client, data, number=2):
    return client.post(f"/enquiry/{number}/own", data=data)


def pin_own(client):
    """Pin the first setup of the shortlist with the customer's own battery; what was sent."""
    page = client.get("/enquiry/2/shortlist?w_price=5&w_light=0&w_range=0").text
    forms = [f["fields"] for f in Forms(page).forms if f["action"].endswith("/pin")]
    mine = next(f for f in forms if f["battery"].startswith("own-gear-"))
    mine.pop("csrf_token", None)
    client.post("/enquiry/2/pin", data=mine)
    return mine


def test_a_battery_typed_is_matched_as_it_is_now_and_costs_nothing(client, conn):
    assert add(client, BATTERY).status_code == 303
    text = client.get("/enquiry/2/own").text
    assert "Customer’s own grey block, of 2021, holds 80 % of its charge" in text
    shelf = shelf_for(conn, 2)
    mine = shelf.batteries[0]
    assert mine.own and mine.price == 0.0 and mine.spec.capacity_ah == pytest.approx(80.0)
    m = answered(store.get(conn, 2).need, shelf).match
    rows = m.supplies.battery[m.field.supply] == 0
    assert rows.any() and (~rows).any()  # beside the new ones
    packs = (m.supplies.series * m.supplies.parallel)[m.field.supply[rows]]
    assert packs.max() == 1  # the customer has one


def test_own_gear_is_seen_in_its_enquiry_alone(client, conn):
    add(client, BATTERY)
    add(client, MOTOR)
    assert "grey block" in client.get("/enquiry/2/by-hand").text
    assert "grey block" not in client.get("/enquiry/3/by-hand").text
    assert shelf_for(conn, 3) is shelf_of(conn)
    assert (
        "grey block"
        not in client.get("/catalogue/batteries").text + client.get("/find?q=grey").text
    )


def test_what_is_pinned_with_it_says_so_and_is_not_delivered_part_charged(client, conn):
    add(client, BATTERY)
    mine = pin_own(client)
    setup = setups.of_enquiry(conn, 2)[0]
    assert setup.part("battery").price == 0.0
    sheet = client.get("/enquiry/2/fitting?tab=wiring").text
    client.post("/enquiry/2/choose", data={"letter": setup.letter})
    offer = client.get("/enquiry/2/offer").text
    assert "Customer’s own grey block" in offer and "there already" in offer
    assert "part-charged" not in sheet and "delivered at" not in sheet
    client.post("/enquiry/2/own/off", data={"gear": mine["battery"].removeprefix("own-gear-")})
    assert own_gear.of_enquiry(conn, 2) == []
    assert client.get("/enquiry/2/side-by-side").status_code == 200  # the setup has its own record


@pytest.mark.parametrize(
    ("data", "told"),
    [
        (BATTERY | {"ah": "many"}, "read “many”"),
        (BATTERY | {"ah": ""}, "Ah when new: needed"),
        (BATTERY | {"health": "5"}, "read “5”"),
        (BATTERY | {"since": "1800"}, "read “1800”"),
        (BATTERY | {"chemistry": "steam"}, "read “steam”"),
        (MOTOR | {"power": "fast"}, "read “fast”"),
        (MOTOR | {"volts": "1000"}, "read “1000”"),
        ({"kind": "chargers", "volts": "24", "amps": ""}, "Charges with, A: needed"),
    ],
)
def test_what_cannot_be_is_told_at_its_field_and_what_was_typed_stays(client, conn, data, told):
    answer = add(client, data)
    assert answer.status_code == 422 and told in answer.text
    if data.get("name"):
        assert data["name"] in answer.text
    assert own_gear.of_enquiry(conn, 2) == []


def test_a_kind_that_there_is_not_is_refused(client):
    assert add(client, {"kind": "boats"}).status_code == 422


def test_a_row_that_cannot_be_read_is_told_and_can_be_taken_off(client, conn):
    add(client, MOTOR)
    with conn:
        conn.execute("UPDATE own_gear SET data = '{\"maker\": 1}'")
    page = client.get("/enquiry/2/own").text
    assert "Could not be read" in re.sub("<.*?>", "", page)
    assert client.get("/enquiry/2/shortlist").status_code == 200
    gear = own_gear.of_enquiry(conn, 2)[0]
    client.post("/enquiry/2/own/off", data={"gear": gear.id})
    assert own_gear.of_enquiry(conn, 2) == []


@pytest.mark.parametrize(
    "bad",
    [{"health": 0.1}, {"health": 1.2}, {"count": 0}, {"since_year": 1900}, {"kind": "mounts"}],
)
def test_the_record_refuses_what_cannot_be(bad):
    with pytest.raises(ValueRefused):
        OwnGear(**({"kind": "batteries", "item": sample().batteries[0]} | bad))


def test_an_own_motor_keeps_its_figures_and_loses_its_price():
    item = sample().motors[0]
    mine = own_item(OwnGear("motors", item), 3)
    assert mine.spec == item.spec and mine.price == 0.0 and mine.own and not item.own


def test_his_own_battery_has_no_price_for_a_kilowatt_hour(client):
    add(client, BATTERY)
    pin_own(client)
    html = client.get("/enquiry/2/side-by-side").text
    cells = re.search(r">a kWh costs<.*?</tr>", html, re.S)[0]
    assert re.findall(r"<td[^>]*>(.*?)</td>", cells)[0] == "–"
