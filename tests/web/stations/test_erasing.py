"""A person who is erased is in no table, file or index, and every page of the job still opens; a
former owner is found for a copy and for erasure, and a new owner gets nothing of theirs.
"""

import json

import pytest

from jolvek.store import offers, owners, trail
from tests.web.stations.test_acceptance import accepted  # noqa: F401
from tests.web.stations.test_offer_sent import (  # noqa: F401
    HERE,
    prepared,
    sent,
    shop,
    stranger,
    way,
)
from tests.web.steps import STATIONS, boat_form

NAME, MAIL, NOTE = "Xanthe Quillmark", "xanthe@quillmark.example", "has a boathouse at Zorvik"
TERMS = ("Xanthe", "xanthe", "Quillmark", "quillmark", "Zorvik", "zorvik")
OTHERS = ("handover", "trial", "aftercare", "history", "by-hand", "order")
OWNER = "/enquiry/5/aftercare/owner"


@pytest.fixture
def job(sent, conn, app, shop):  # noqa: F811
    """A job of a customer with all that names them: words, offer, mail, answer, handover, trail."""
    form = boat_form(shop, 5) | {"customer": NAME, "mail": MAIL, "note": NOTE}
    shop.post("/enquiry/5/boat", data=form | {"title": f"Tender of {NAME}"})
    conn.execute("UPDATE leg SET name = 'to Zorvik' WHERE enquiry_id = 5")
    done = shop.post(f"{HERE}/send", data={"mail": "1", "after": sent.id})
    assert done.status_code == 303
    with app.test_request_context():
        link = way(conn, offers.of_enquiry(conn, 5)[0].id)
    yes = {"do": "accepted", "name": NAME, "agree": "1", "letter": "A", "text": f"from {NAME}"}
    assert stranger(app).post(link, data=yes).status_code == 303
    record = {"customer": {"customer": NAME}, "title": NAME, "steps": [], "serials": []}
    record |= {"signatures": {"customer": {"name": NAME, "drawn": ""}, "shop": {"name": "Eskil"}}}
    more = {"signed_at": "2026-11-26T09:00:00", "faults": [], "trial": None}
    conn.execute(
        "INSERT INTO handover (enquiry_id, signed_at, data, pdf) VALUES (5, ?, ?, ?)",
        ("2026-11-26T09:00:00", json.dumps(record | more), NAME.encode()),
    )
    step = trail.Step("2026", "Eskil", "advisor", "", "handover signed", "/enquiry/5/handover/sign")
    trail.add(conn, trail.Step(**{**vars(step), "detail": f"Tender of {NAME}"}))
    shop.post("/play", data={"role": "owner"})
    return shop


def left_of(app):
    """What of the person any file of the data folder still holds."""
    folder = app.config["SETTINGS"].data_dir
    files = [p for p in folder.rglob("*") if p.is_file() and "backups" not in p.parts]
    return {(p.name, t) for p in files for t in TERMS if t.encode() in p.read_bytes()}


def test_no_file_holds_the_person_and_every_page_opens(job, conn, app):
    assert len(left_of(app)) > 3
    form = {"enquiry": [5], "name": NAME, "law": "1", "told": "by letter"}
    answer = job.post(f"{OWNER}/erase", data=form)
    assert answer.status_code == 303
    assert left_of(app) == set()
    assert trail.broken_at(conn) is None
    for station in (*STATIONS, *OTHERS, "aftercare/owner"):
        assert job.get(f"/enquiry/5/{station}").status_code == 200, station
    for paper in (
        f"{HERE}/{offers.of_enquiry(conn, 5)[0].id}.pdf",
        "/enquiry/5/handover/record.pdf",
    ):
        gone = job.get(paper)
        assert gone.status_code == 410 and "erased on" in gone.text
    assert job.get("/enquiry/5/handover/record.json").status_code == 200


NEW = {"new_customer": "Bo Nyström", "new_mail": "bo@ny.example"}


def test_a_former_owner_is_found_copied_and_erased_and_the_new_one_gets_nothing_of_theirs(
    job, conn, app
):
    assert job.post(OWNER, data=NEW).status_code == 303
    copy = job.get(f"{OWNER}/copy.json").text
    assert "Bo Nystr" in copy
    assert [t for t in TERMS if t in copy] == []
    (was,) = owners.former(conn, 5)
    assert was.customer == NAME
    theirs = job.get(f"{OWNER}/copy.json?former={was.id}").text
    assert NAME in theirs and MAIL in theirs and "Bo Nystr" not in theirs
    assert NAME in job.get(OWNER).text
    form = {"former": was.id, "name": NAME, "law": "1"}
    assert job.post(f"{OWNER}/erase-former", data=form | {"law": ""}).status_code == 422
    assert job.post(f"{OWNER}/erase-former", data=form).status_code == 303
    assert left_of(app) == set()
    assert "Bo Nystr" in job.get("/enquiry/5/boat").text
