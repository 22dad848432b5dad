"""All boats in service: the list, letters, calendar, recalls, fleet, steps, figures; and a boat's
own page by her sticker, her new owner, a customer's copy and erasure.
"""

import io
import json
import re
from datetime import date, timedelta
from email import message_from_bytes
from email.policy import SMTP

import pytest
from icalendar import Calendar
from PIL import Image
from pypdf import PdfReader

from jolvek.store import (
    bookings,
    care,
    due_list,
    enquiries,
    handovers,
    outbox,
    owners,
    recalls,
    service_faults,
)
from jolvek.web import edge
from jolvek.web.kit.accounts import links


@pytest.fixture
def desk(client, conn, working):
    working.backup(conn)
    client.post("/play", data={"role": "owner"})
    return client


@pytest.fixture
def boats(desk, conn):
    return {title: number for number, title in care.in_service(conn, 100)}


@pytest.fixture
def perle(boats):
    return boats["Hire launch Perle"]


def mails(conn):
    sql = "SELECT mail FROM outbox ORDER BY id"
    return [message_from_bytes(bytes(r["mail"]), policy=SMTP) for r in conn.execute(sql)]


def test_the_list_of_what_is_due_by_span_as_page_and_table(desk, conn, boats):
    page = desk.get("/care?span=due").text
    assert "After the season" in page and "Club safety boat" in page
    steps = due_list.count(conn, date.today())[0]
    assert f"{steps} steps of care due now" in page
    rows = desk.get("/care/list.csv?span=due").text.splitlines()
    assert len(rows) == steps + 1 and rows[0].startswith("due,boat")
    assert len(desk.get("/care/list.csv?span=quarter").text.splitlines()) > len(rows)
    assert "three months" in desk.get("/care?span=quarter").text
    assert desk.get("/care?span=nonsense").status_code == 200


def test_owners_are_written_to_once_about_a_step(desk, conn, boats, perle):
    text = desk.post("/care/letters", data={"span": "due"}, follow_redirects=True).text
    assert "3 owners written to. Without a mail address: 1" in text
    found = mails(conn)
    assert {m["To"] for m in found} == {"hire@ullmere.example"} and len(found) == 3
    body = found[0].get_body().get_content()
    assert "After the season" in body and "Caution: Never charge lithium below freezing" in body
    way = re.search(r"http://\S+/b/\S+", body)[0]
    assert desk.get(way.split("localhost")[1]).status_code == 200
    desk.post("/care/letters", data={"span": "due"})
    assert len(mails(conn)) == 3 and outbox.unposted(conn) == []
    text = {(x.enquiry_id, x.step) for x in due_list.lines(conn, date.today()) if x.reminded}
    left = {(x.enquiry_id, x.step) for x in due_list.lines(conn, date.today(), told=False)}
    assert text and left and not left & text  # a limit never falls on those already told
    desk.post(f"/enquiry/{perle}/aftercare/done", data={"step": "lay-up"})
    assert "2026" in desk.get("/care?span=due").text


def test_the_server_works_out_by_itself_what_changed(desk, app, conn, boats, perle):
    settings, today = app.config["SETTINGS"], date.today()
    assert due_list.left(conn, today) == len(boats)
    edge.keep_care(settings, today)
    assert due_list.left(conn, today) == 0 and due_list.count(conn, today)[1] == len(boats)
    conn.execute("UPDATE setup_item SET data = '{}' WHERE kind = 'motor'")
    conn.execute("UPDATE setup SET shaft_m = 0.6")
    edge.keep_care(settings, today)  # setups that cannot be read hold nobody up
    assert due_list.left(conn, today) == 0
    assert desk.get("/care").status_code == 200 and desk.get("/care/fleet").status_code == 200


def test_the_calendar_is_read_by_its_address_alone_until_it_is_shut(desk, app, conn, boats):
    desk.get("/care")
    way = re.search(r"/care/feed/[^<\s]+\.ics", desk.get("/care").text)[0]
    stranger = app.test_client()
    events = Calendar.from_ical(stranger.get(way).data).walk("VEVENT")
    until = date.today() + timedelta(days=92)
    assert len(events) == due_list.count(conn, until)[0]
    uids = [str(e["uid"]) for e in events]
    assert len(set(uids)) == len(uids)
    again = [str(e["uid"]) for e in Calendar.from_ical(stranger.get(way).data).walk("VEVENT")]
    assert again == uids
    assert b"Ullmere" not in stranger.get(way).data  # boats, not people
    assert stranger.get(way.replace(".ics", "x.ics")).status_code == 404
    desk.post("/care/feed")
    assert stranger.get(way).status_code == 404


def sticker(app, number):
    with app.test_request_context():
        return f"/b/{links.token('boat', number)}"


def test_a_boats_own_page_takes_a_trip_once_and_a_fault_and_names_nobody(desk, app, conn, perle):
    way, stranger = sticker(app, perle), app.test_client()
    page = stranger.get(way)
    assert page.status_code == 200 and "noindex" in page.headers["X-Robots-Tag"]
    for name in ("Ullmere Boats", "hire@ullmere", "Ivar", "Hire launch"):
        assert name not in page.text
    assert "Look behind the propeller" in page.text and "swollen pack" in page.text
    assert "slow goes far" in page.text and "Write down the serial" not in page.text
    assert re.search(r"Capacity about <strong>\d+ %", page.text)
    op = re.search(r'name="op"\s+value="(\w+)"', page.text)[1]
    before = len(care.trips(conn, perle))
    form = {"op": op, "hours": "2 h", "charge_from": "90 %", "charge_to": "60 %"}
    for _ in range(2):
        assert stranger.post(f"{way}/trip", data=form).status_code == 303
    assert len(care.trips(conn, perle)) == before + 1
    assert care.trips(conn, perle)[0].who == "owner"
    assert stranger.post(f"{way}/trip", data={"op": op}).status_code == 422
    picture = io.BytesIO()
    Image.new("RGB", (60, 40), "red").save(picture, "PNG")
    picture.seek(0)
    fault = {"kind": "wet", "part": "motor", "why": "drips", "photo": (picture, "a.png")}
    assert stranger.post(f"{way}/fault", data=fault).status_code == 303
    result = service_faults.of_enquiry(conn, perle)[0]
    assert (result.found_by, result.why) == ("owner", "drips") and result.photo
    photo = f"/enquiry/{perle}/aftercare/parts/photo/{result.photo}"
    assert desk.get(photo).mimetype == "image/jpeg"
    assert desk.get(photo.replace(".jpg", "x.jpg")).status_code == 404
    for _ in range(2):  # pressed twice it is one fault
        stranger.post(f"{way}/fault", data={"kind": "vibrates", "why": "at speed"})
    assert sum(f.why == "at speed" for f in service_faults.of_enquiry(conn, perle)) == 1
    bad = {"kind": "wet", "photo": (io.BytesIO(b"no picture"), "a.png")}
    assert "not a PNG or JPEG" in stranger.post(f"{way}/fault", data=bad).text
    events = Calendar.from_ical(stranger.get(f"{way}/care.ics").data).walk("VEVENT")
    assert events


def test_a_sticker_is_of_one_boat_and_can_be_shut(desk, app, conn, boats, perle):
    way, stranger = sticker(app, perle), app.test_client()
    assert stranger.get(way[:-2]).status_code == 404
    with app.test_request_context():
        other = links.token("recall", perle)
    assert stranger.get(f"/b/{other}").status_code == 404  # signed, but for something else
    label = desk.get(f"/enquiry/{perle}/aftercare/label.pdf")
    reader = PdfReader(io.BytesIO(label.data))
    text = reader.pages[0].extract_text()
    assert len(reader.pages) == 1 and "kill cord out" in text and "Ullmere" not in text
    assert "/StructTreeRoot" in reader.trailer["/Root"]
    desk.post(f"/enquiry/{perle}/aftercare/shut")
    assert (
        stranger.get(way).status_code == 404
        and stranger.get(sticker(app, perle)).status_code == 200
    )


def test_a_recall_is_written_mailed_printed_and_answered(desk, app, conn, boats, perle):
    page = desk.get("/care/recalls?batch=K25").text
    rows = desk.get("/care/recalls/holders.csv?batch=K25").text.splitlines()
    assert len(rows) > 10 and f"Write {len(rows) - 1} letters" in page
    assert "differ only in the figures" in desk.get("/care/recalls?first=TM-1&last=XM-2").text
    motor = handovers.serials(conn, perle)["motor"].product_id
    form = {"product": motor, "title": "Motor plug", "words": "Stop; bring it to us."}
    empty = desk.post("/care/recalls", data={**form, "words": " "})
    assert empty.status_code == 422 and "Motor plug" in empty.text
    assert desk.post("/care/recalls", data={**form, "product": "none"}).status_code == 422
    answer = desk.post("/care/recalls", data=form)
    one = answer.location
    assert "3 letters, 3 mailed" in desk.get(one).text
    body = mails(conn)[-1].get_body().get_content()
    assert "Stop; bring it to us." in body and "Motor plug" in mails(conn)[-1]["Subject"]
    way = re.search(r"http://\S+(/b/\S+/recall)", body)[1]
    stranger = app.test_client()
    assert "MO-" in stranger.get(way).text
    assert stranger.post(way, data={"answer": "perhaps"}).status_code == 422
    stranger.post(way, data={"answer": "stopped"})
    assert "do not use it any more" in stranger.get(way).text
    assert "Recalled" in desk.get(f"/enquiry/{perle}/aftercare").text
    paper = PdfReader(io.BytesIO(desk.get(f"{one}/letters.pdf").data))
    assert len(paper.pages) == 2 and "Bring" not in paper.pages[0].extract_text()[:5]
    assert "Stop; bring it to us." in paper.pages[1].extract_text()
    left = [x.id for x in recalls.letters(conn, 1) if not x.answer]
    for letter in left:
        desk.post(f"{one}/answer", data={"letter": letter, "answer": "come"})
    assert desk.get(f"{one}/letters.pdf").status_code == 404
    table = desk.get(f"{one}/letters.csv").text
    assert table.count("call me for a day") == 2 and "owner" in table


def test_the_fleet_has_a_plan_for_tomorrows_bookings(desk, conn, boats, perle):
    page = desk.get("/care/fleet").text
    assert "ready for 08:00" in page and "4 boats" in page
    some = desk.get("/care/fleet?whose=Ullmere+Boats").text
    assert "3 boats of Ullmere Boats" in some and "Club safety boat</a>" not in some
    weak = desk.get("/care/fleet?supply=600+W").text
    assert "not ready:" in weak and "too late" in weak
    bad = desk.get("/care/fleet?supply=much")
    assert "much" in bad.text and "expected a power" in bad.text
    tomorrow = (date.today() + timedelta(days=1)).isoformat()
    form = {"boat": perle, "on_day": tomorrow, "from_h": "9:00", "booked_hours": "2 h"}
    clash = desk.post("/care/fleet/book", data=form)
    assert clash.status_code == 422 and "it is from 8 h" in clash.text
    assert desk.post("/care/fleet/book", data=form | {"from_h": "15:00"}).status_code == 303
    mine = [b for b in bookings.on(conn, tomorrow) if b.enquiry_id == perle]
    assert [b.from_h for b in mine] == [8.0, 15.0]
    assert "the booking takes" in desk.get("/care/fleet").text  # five hours are more than a charge
    desk.post("/care/fleet/book", data={"booking": mine[1].id})
    assert len([b for b in bookings.on(conn, tomorrow) if b.enquiry_id == perle]) == 1
    for wrong, result in (({"boat": 9999}, "a boat in service"), ({"booked_hours": ""}, "needed")):
        refused = desk.post("/care/fleet/book", data=form | wrong)
        assert refused.status_code == 422 and result in refused.text
    rows = desk.get("/care/fleet/fleet.csv").text.splitlines()
    assert len(rows) == 5


def test_the_shops_own_step_is_due_and_taken_back(desk, conn, boats, perle):
    motor = handovers.serials(conn, perle)["motor"].product_id
    form = {"product": motor, "text": "Grease the pivot", "kind": "months", "every": "1"}
    assert desk.post("/care/steps", data=form | {"source": "its manual, p 12"}).status_code == 303
    page = desk.get("/care?span=due").text
    assert page.count("Grease the pivot") == 3
    assert "its manual, p 12" in desk.get(f"/enquiry/{perle}/aftercare").text
    shown = desk.get(f"/care/steps?product={motor}").text
    assert "Grease the pivot" in shown and "Jolvek’s own again" in shown
    for wrong, result in (
        ({"every": "often"}, "often"),
        ({"every": ""}, "1 and more"),
        ({"text": " "}, "what is to be done"),
        ({"kind": "never"}, "never"),
    ):
        answer = desk.post("/care/steps", data=form | wrong)
        assert answer.status_code == 422 and result in answer.text
    desk.post("/care/steps", data={"product": motor, "key": "shaft", "do": "drop"})
    assert "shaft: dropped" in desk.get(f"/care/steps?product={motor}").text
    assert "Propeller off" not in desk.get(f"/enquiry/{perle}/aftercare").text
    desk.post("/care/steps", data={"product": motor, "key": "shaft", "do": "back"})
    assert "Propeller off" in desk.get(f"/enquiry/{perle}/aftercare").text
    assert desk.post("/care/steps", data={"do": "burn"}).status_code == 422


def test_figures_of_promise_and_faults_as_page_picture_and_table(desk):
    page = desk.get("/care/figures").text
    assert "RIB" in page and "promise-kept" in page and "first-fault" in page
    promise = desk.get("/care/figures/promise.csv").text.splitlines()
    middle = float(promise[1].split(",")[4])
    assert promise[1].startswith("RIB,1,3") and -0.09 < middle < -0.02  # 4 % slower, in a stream
    faults = desk.get("/care/figures/faults.csv").text
    assert "Water in motor" in faults and "It vibrates" in faults
    assert desk.get("/care/figures/else.csv").status_code == 404


def test_a_new_owner_gets_the_record_and_not_the_old_owners_page(desk, app, conn, perle):
    way, stranger = sticker(app, perle), app.test_client()
    here = f"/enquiry/{perle}/aftercare"
    bad = desk.post(f"{here}/owner", data={"new_phone": "555"})
    assert bad.status_code == 422 and "name" in bad.text and "555" in bad.text
    desk.post(f"{here}/owner", data={"new_customer": "Runa Vik", "new_mail": "runa@vik.example"})
    page = desk.get(here).text
    assert "Owner: Runa Vik" in page and "Ullmere Boats" in page  # the shop still knows
    assert stranger.get(way).status_code == 404
    assert enquiries.get(conn, perle).enquiry.mail == "runa@vik.example"


def test_a_customers_copy_holds_all_boats_as_json_and_tagged_pdf(desk, boats, perle):
    here = f"/enquiry/{perle}/aftercare/owner"
    result = json.loads(desk.get(f"{here}/copy.json").data)
    titles = [x["enquiry"][0]["title"] for x in result["enquiries"]]
    assert {"Hire launch Perle", "Hire launch Kite", "Second launch for Lake Ullmere"} <= set(
        titles
    )
    assert "Club safety boat" not in titles and "buying" not in json.dumps(result)
    club = f"/enquiry/{boats['Club safety boat']}/aftercare/owner/copy.pdf"
    reader = PdfReader(io.BytesIO(desk.get(club).data))
    assert "/StructTreeRoot" in reader.trailer["/Root"]
    assert "Ferrowick Sailing" in reader.pages[0].extract_text()


def test_erasure_asks_for_the_name_and_the_law_and_leaves_the_others(desk, app, conn, perle, boats):
    here, kite = f"/enquiry/{perle}/aftercare/owner", boats["Hire launch Kite"]
    form = {"enquiry": [perle], "name": "Ullmere Boats", "law": "1", "told": "by letter"}
    for lacking in ("name", "law", "enquiry"):
        part = {k: v for k, v in form.items() if k != lacking}
        assert desk.post(f"{here}/erase", data=part).status_code == 422
    assert enquiries.get(conn, perle).enquiry.customer == "Ullmere Boats"
    way = sticker(app, perle)
    desk.post(f"{here}/erase", data={**form, "enquiry": [perle, boats["Club safety boat"]]})
    assert enquiries.get(conn, perle).enquiry.customer == "erased"
    assert enquiries.get(conn, kite).enquiry.customer == "Ullmere Boats"
    assert enquiries.get(conn, boats["Club safety boat"]).enquiry.customer == "Ferrowick Sailing"
    assert app.test_client().get(way).status_code == 404
    assert owners.enquiries_of(conn, "erased", "")[0][0] == perle
    desk.post("/play", data={"role": "advisor"})
    assert desk.post(f"{here}/erase", data=form).status_code == 403
