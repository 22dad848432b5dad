"""The customer's yes moves the job: its setup is the current one, and no other is handed over."""

import pytest

from jolvek.store import enquiries, finding, handovers, intake, offers, setups
from tests.web.stations.test_offer_sent import (  # noqa: F401
    HERE,
    prepared,
    sent,
    shop,
    stranger,
    way,
)
from tests.web.test_reading_on import from_anywhere

STEP = {"state": "done", "op": "a step of the list"}
YES = {"do": "accepted", "name": "Runa Vik", "agree": "1", "letter": "B"}


@pytest.fixture
def accepted(sent, conn, app, shop):  # noqa: F811
    intake.add(conn, 5, "2026-11-26T09:00:00", ())
    assert stranger(app).post(way(conn, sent.id), data=YES).status_code == 303
    return shop


def current(conn):
    return next(p.letter for p in setups.of_enquiry(conn, 5) if p.chosen)


def step(client, **more):
    key = client.get("/enquiry/5/handover").text.split('name="step" value="')[1].split('"')[0]
    return client.post("/enquiry/5/handover/step", data={**STEP, "step": key, **more})


def test_what_was_accepted_is_the_current_setup_of_an_ordered_job(accepted, conn):
    assert current(conn) == "B" and enquiries.get(conn, 5).stage == "ordered"
    assert offers.draft(conn, 5)["letters"] == ["B"]
    line = next(x for x in finding.listed(conn) if x.id == 5)
    assert line.waits == "order" and not line.unseen
    page = accepted.get(HERE).text
    assert "ask again on" not in page
    assert accepted.get(f"{HERE}/{offers.of_enquiry(conn, 5)[0].id}.ics").status_code == 404
    assert "Setup B:" in accepted.get("/enquiry/5/handover").text
    assert step(accepted).status_code == 303


def test_another_setup_is_not_handed_over_and_the_page_says_the_way_out(accepted, conn):
    accepted.post("/enquiry/5/choose", data={"letter": "A"})
    page = accepted.get("/enquiry/5/handover").text
    assert "accepted setup B" in page and "send a revision" in page
    serial = {"what": "motor", "number": "X1"}
    for path, data in (("step", STEP), ("serial", serial), ("sign", {"name": "Runa"})):
        key = {"step": page.split('name="step" value="')[1].split('"')[0]} if path == "step" else {}
        answer = accepted.post(f"/enquiry/5/handover/{path}", data={**data, **key})
        assert answer.status_code == 422 and "accepted setup B" in answer.text
    assert not handovers.acts(conn, 5) and not handovers.serials(conn, 5)


def test_a_setup_that_changed_since_needs_a_revision_that_is_accepted(accepted, conn):
    motor = conn.execute("SELECT id FROM setup WHERE enquiry_id = 5 AND letter = 'B'").fetchone()
    conn.execute("UPDATE setup SET shaft_m = 0.64 WHERE id = ?", (motor["id"],))
    assert "has changed since" in accepted.get("/enquiry/5/handover").text
    assert step(accepted).status_code == 422


def test_a_signed_handover_takes_no_act_and_an_unknown_step_is_none(accepted, conn):
    assert step(accepted, step="a step of its own").status_code == 422
    conn.execute(
        "INSERT INTO handover (enquiry_id, signed_at, data, pdf) VALUES (5, 'x', '{}', x'')"
    )
    with pytest.raises(Exception, match="not signed"):  # within the transaction of the act
        handovers.act(conn, 5, handovers.Act("12345678", "x", "done", "me", "now"), "now")
    key = {"kind": "crooked", "why": "x"}
    assert accepted.post("/enquiry/5/handover/fault", data=key).status_code == 422
    assert handovers.faults(conn, 5) == []


def test_one_offer_takes_no_more_questions_than_a_customer_has(sent, conn, app):  # noqa: F811
    client, link = app.test_client(), way(conn, sent.id)

    def ask(client, where):
        return client.post(link, data={"do": "asked", "text": "?"}, environ_base=where)

    assert from_anywhere(client, 20, ask) == [303] * 12 + [429] * 8
    assert client.get(link).status_code == 200
