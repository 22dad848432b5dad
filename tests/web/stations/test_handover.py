"""The handover: steps by two people, each act once; serial numbers; faults; the signed record."""

import io
import re
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import pytest
from icalendar import Calendar
from pypdf import PdfReader

from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.handover_owner import papers
from jolvek.store import enquiries, handovers, owners
from jolvek.store.shop import Shop
from jolvek.web.kit.dates import day
from jolvek.web.stations.handover.record import warranty_end
from tests.web.steps import picture

HERE, TRIAL = "/enquiry/5/handover", "/enquiry/5/trial"
AFAR = {"Accept": "application/json"}


@pytest.fixture
def shop(client, pinned_conn):
    client.post("/play", data={"role": "advisor"})
    return client


@pytest.fixture
def pinned_conn(conn, pinned):
    pinned.backup(conn)
    return conn


def keys(page):
    return re.findall(r'name="step"\s+value="([^"]+)"', page)


def all_done(client):
    for key in keys(client.get(HERE).text):
        client.post(f"{HERE}/step", data={"step": key, "state": "done"})


def all_numbered(client):
    for i, what in enumerate(re.findall(r'name="what"\s+value="([^"]+)"', client.get(HERE).text)):
        if what not in ("key", "magnet"):
            client.post(f"{HERE}/serial", data={"what": what, "number": f"S{i:03d}"})


def test_each_step_says_who_and_when_and_an_act_counts_once(shop, conn):
    page = shop.get(HERE).text
    assert "Warning:" in page and "Kill cord off" in page
    act = {"step": "unpack", "state": "done", "op": "phone-1-0001", "at": "2026-11-26T08:00:00Z"}
    for _ in range(3):
        result = shop.post(f"{HERE}/step", data=act, headers=AFAR)
        assert result.status_code == 200 and result.json["kept"]
    assert conn.execute("SELECT count(*) FROM handover_act").fetchone()[0] == 1
    kept = handovers.acts(conn, 5)["unpack"]
    assert kept.who == "Eskil Holmgard" and kept.at.startswith("2026-11-26T08:00")
    shop.post("/play", data={"role": "rigger"})
    late = {"step": "unpack", "state": "open", "op": "phone-2-0001", "at": "2026-11-26T07:00:00Z"}
    shop.post(f"{HERE}/step", data=late, headers=AFAR)  # done before, sent after
    assert handovers.acts(conn, 5)["unpack"].state == "done"
    later = (datetime.now(UTC) + timedelta(days=3)).isoformat()
    future = {"step": "serials", "state": "done", "op": "phone-2-0002", "at": later}
    shop.post(f"{HERE}/step", data=future, headers=AFAR)
    assert handovers.acts(conn, 5)["serials"].at < (datetime.now(UTC)).isoformat()


def test_the_headline_names_the_next_step_and_finished_groups_fold(shop):
    def opened():
        page = shop.get(HERE).text
        headline = re.search(r"Next: <strong>([^<]+)</strong>", page).group(1)
        group = r'<details class="step-group"\s+(open)?[^>]*>.*?<h2>([^<]+)'
        groups = re.findall(group, page, re.S)
        return headline, [name for is_open, name in groups if is_open]

    assert opened() == ("Unpack and compare with the order", ["Unpack"])
    for key in ("unpack", "serials"):
        shop.post(f"{HERE}/step", data={"step": key, "state": "done"})
    assert opened() == ("Charge the battery fully", ["Charge"])
    all_done(shop)
    page = shop.get(HERE).text
    assert re.search(r"All <strong>\d+ steps</strong> of setup A are\s+done", page)
    assert "step-group" in page and "Done, next" not in page


def test_only_a_lithium_battery_is_reported_to_the_insurer():
    by_chemistry = {}
    for chemistry in ("lfp", "gel"):
        fitted = sample_fitted()
        spec = replace(fitted.battery.spec, chemistry=chemistry)
        with_it = replace(fitted, battery=replace(fitted.battery, spec=spec))
        by_chemistry[chemistry] = {s.key: s.details for s in papers(with_it)}["insurer"]
    assert by_chemistry == {
        "lfp": "About the motor and the lithium battery.",
        "gel": "About the motor.",
    }


def test_the_paper_shows_the_photos_of_the_steps(shop, conn):
    shot = {"step": "hang", "state": "done", "photo": (picture((80, 60)), "hang.png")}
    shop.post(f"{HERE}/step", data=shot, content_type="multipart/form-data")
    for key in keys(shop.get(HERE).text):
        if key != "hang":
            shop.post(f"{HERE}/step", data={"step": key, "state": "done"})
    all_numbered(shop)
    assert shop.post(f"{HERE}/sign", data={"name": "Runa Vik"}).status_code == 303
    paper = PdfReader(io.BytesIO(handovers.pdf(conn, 5)))
    assert any(image.image.size == (80, 60) for page in paper.pages for image in page.images)


def test_not_needed_says_why_and_a_photo_stays_with_its_step(shop, conn):
    bare = {"step": "insurer", "state": "not_needed", "op": "phone-1-0003"}
    refused = shop.post(f"{HERE}/step", data=bare, headers=AFAR)
    assert refused.status_code == 422 and "why it is not needed" in refused.json["why"]
    plain = shop.post(f"{HERE}/step", data=bare)
    assert plain.status_code == 422 and "why it is not needed" in plain.text
    shop.post(f"{HERE}/step", data=bare | {"note": "the club insures"})
    assert "the club insures" in shop.get(HERE).text
    shot = {"step": "hang", "state": "done", "photo": (picture((80, 60)), "hang.png")}
    shop.post(f"{HERE}/step", data=shot, content_type="multipart/form-data")
    name = handovers.acts(conn, 5)["hang"].photo
    assert shop.get(f"{HERE}/photo/{name}").mimetype == "image/jpeg"
    assert shop.get(f"/enquiry/2/handover/photo/{name}").status_code == 404
    for bad in ({"state": "lost"}, {"op": "x"}, {"step": "y" * 90}):
        result = shop.post(f"{HERE}/step", data={"step": "hang", "state": "done"} | bad)
        assert result.status_code == 422


def test_a_serial_number_belongs_to_one_piece(shop, conn):
    form = {"what": "motor", "number": " A-1 "}
    assert shop.post(f"{HERE}/serial", data=form).status_code == 303
    assert handovers.serials(conn, 5)["motor"].number == "A-1"
    other = shop.post("/enquiry/2/handover/serial", data=form | {"number": "A-1"})
    assert other.status_code == 422 and "is the motor of" in other.text
    packs = [w for w in re.findall(r'value="(pack \d+)"', shop.get(HERE).text)]
    shop.post(f"{HERE}/serial", data={"what": packs[0], "number": "P-1"})
    twice = shop.post(f"{HERE}/serial", data={"what": packs[-1], "number": "P-1"})
    assert len(packs) == 1 or (twice.status_code == 422 and "of this boat already" in twice.text)
    assert shop.post(f"{HERE}/serial", data={"what": "motor", "number": ""}).status_code == 422
    assert shop.post(f"{HERE}/serial", data={"what": "anchor", "number": "1"}).status_code == 404
    end = warranty_end(Shop(), date.today())
    assert handovers.serials(conn, 5)["motor"].warranty_to == end
    assert f"warranty to {day(end)}" in shop.get(HERE).text
    (event,) = Calendar.from_ical(shop.get(f"{HERE}/record.ics").data).walk("VEVENT")
    assert event["dtstart"].dt == date.today() + timedelta(days=14)
    assert "A-1" in event["description"]


@pytest.mark.parametrize(
    ("on", "months", "end"),
    [((2028, 2, 29), 12, "2029-02-28"), ((2026, 8, 31), 6, "2027-02-28"), ((2026, 1, 5), 0, "")],
)
def test_a_warranty_ends_on_a_day_that_there_is(on, months, end):
    assert warranty_end(Shop(warranty_months=months), date(*on)) == end


def test_a_fault_is_closed_or_accepted_by_name_before_she_is_signed(shop, conn):
    shop.post(f"{HERE}/fault", data={"kind": "vibrates"})
    shop.post(f"{HERE}/fault", data={"kind": "vibrates"})
    (fault,) = handovers.faults(conn, 5)
    page = shop.get(HERE).text
    assert "Switch off, magnet out" in page and "another propeller" in page
    all_done(shop)
    all_numbered(shop)
    refused = shop.post(f"{HERE}/sign", data={"name": "Runa Vik"})
    assert refused.status_code == 422 and "A fault is open: It vibrates" in refused.text
    bare = shop.post(f"{HERE}/fault", data={"fault": fault.id, "state": "closed"})
    assert bare.status_code == 422 and "a word what was done" in bare.text
    shop.post(f"{HERE}/fault", data={"fault": fault.id, "state": "accepted", "cure": "spare comes"})
    assert handovers.faults(conn, 5)[0].done_by == "Eskil Holmgard"
    assert "Accepted as it is, Eskil Holmgard" in shop.get(HERE).text
    assert shop.post(f"{HERE}/sign", data={"name": "Runa Vik"}).status_code == 303


def test_a_signed_handover_is_frozen_as_paper_and_record(shop, conn):
    refused = shop.post(f"{HERE}/sign", data={"name": "Runa"})
    assert "steps are open" in refused.text and "No serial number yet" in refused.text
    all_done(shop)
    all_numbered(shop)
    for w, v in ((300, 1.7), (700, 2.2)):
        shop.post(f"{TRIAL}/run", data={"power": f"{w} W", "speed": f"{v} m/s"})
    assert "signature" in shop.post(f"{HERE}/sign", data={"name": " "}).text
    strokes = {"name": "Runa Vik", "signature": "1,1 200,90"}
    assert shop.post(f"{HERE}/sign", data=strokes).status_code == 303
    result, paper = handovers.signed(conn, 5), handovers.pdf(conn, 5)
    assert enquiries.get(conn, 5).stage == "delivered"
    text = " ".join(" ".join(p.extract_text() for p in PdfReader(io.BytesIO(paper)).pages).split())
    for part in ("Runa Vik", "S000", "Eskil Holmgard", "promise against measured", "Kill cord"):
        assert part in text
    assert PdfReader(io.BytesIO(paper)).trailer["/Root"]["/MarkInfo"]["/Marked"]
    again = shop.post(f"{HERE}/step", data={"step": "unpack", "state": "open"}, headers=AFAR)
    assert again.status_code == 422 and "The handover is signed" in again.json["why"]
    shop.post(f"{HERE}/serial", data={"what": "motor", "number": "Z"})
    assert shop.post(f"{HERE}/sign", data=strokes).status_code == 422
    assert handovers.signed(conn, 5) == result == shop.get(f"{HERE}/record.json").json
    assert shop.get(f"{HERE}/record.pdf").data == paper
    assert result["format"] == "jolvek-handover" and result["trial"]["rows"]
    assert shop.get("/enquiry/2/handover/record.pdf").status_code == 404


def test_the_signed_paper_speaks_the_customers_language_and_the_shop_its_own(shop, conn):
    owners.set_language(conn, 5, "nl")
    conn.commit()
    all_done(shop)
    all_numbered(shop)
    signed = shop.post(f"{HERE}/sign", data={"name": "Runa Vik", "signature": "1,1 200,90"})
    assert signed.status_code == 303, signed.text
    reader = PdfReader(io.BytesIO(handovers.pdf(conn, 5)))
    text = " ".join(" ".join(p.extract_text() for p in reader.pages).split())
    assert reader.trailer["/Root"]["/Lang"] == "nl"
    assert "Overdracht" in text and "Handover" not in text
    assert '<html lang="en"' in shop.get(HERE).text
