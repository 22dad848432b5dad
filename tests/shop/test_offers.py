"""Offers sent, revised, answered; the job moves with them."""

from datetime import UTC, datetime

import pytest

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.shop import By
from jolvek.shop.offers import NotReady, Written
from jolvek.store import enquiries, offers, outbox, owners, setups, stock
from jolvek.store.offers import Event
from jolvek.store.stock import Stock, Wanted

CONTENT = {"alternatives": [], "customer": {}}


@pytest.fixture
def written():
    """Papers as they were asked for: (number, number before, token)."""
    seen = []

    def write(sent, before, token):
        seen.append((sent.number, before.number if before else "", token))
        return Written(
            CONTENT, {"keys": {}}, b"%PDF", "runa@vik.example", b"mail " + sent.number.encode()
        )

    write.seen = seen
    return write


def sent(conn, by, write, after=0, number=2):
    return shop.offers.send(conn, by, number, after, "2026-12-03", write)


def test_what_is_sent_is_kept_with_its_mail_link_and_stage(fitted, by, written):
    made, token = sent(fitted, by, written)
    assert (made.number, made.sent_by, made.valid_to) == ("2026-0001", "Tove", "2026-12-03")
    assert written.seen == [("2026-0001", "", token)]
    assert [x[1:] for x in outbox.unposted(fitted)] == [("runa@vik.example", b"mail 2026-0001")]
    assert enquiries.get(fitted, 2).stage == "offered"
    assert offers.linked(fitted, token).id == made.id
    link = offers.link(fitted, made.id)
    assert link.until == "2026-12-03T23:59:59"


def test_a_revision_keeps_the_number_and_needs_the_offer_before_it_seen(fitted, by, written):
    first, _ = sent(fitted, by, written)
    with pytest.raises(NotReady, match="sent just now"):
        sent(fitted, by, written)
    again, _ = sent(fitted, by, written, first.id)
    assert again.number == "2026-0001 rev. 2" and written.seen[-1][1] == "2026-0001"
    other, _ = sent(fitted, by, written, number=3)
    assert other.number == "2026-0002"
    with pytest.raises(JolvekError, match=r"0001 was revised: make the link on 2026-0001 rev. 2"):
        shop.offers.new_link(fitted, first)
    assert offers.linked(fitted, shop.offers.new_link(fitted, again)).id == again.id
    shop.offers.shut_link(fitted, again)
    assert offers.link(fitted, again.id).revoked


def test_another_that_went_out_while_the_paper_was_written_takes_the_number(fitted, by, written):
    def slow(going, before, token):
        if len(written.seen) == 0:
            written.seen.append(("", "", ""))
            shop.offers.send(
                fitted, by, 3, 0, "2026-12-03", lambda *a: Written(CONTENT, {}, b"%PDF")
            )
        return written(going, before, token)

    made, _ = sent(fitted, by, slow)
    assert made.number == "2026-0002" and [x[0] for x in written.seen[1:]] == [
        "2026-0001",
        "2026-0002",
    ]


def test_five_who_are_quicker_and_nothing_is_sent(fitted, by, written):
    def beaten(*_):
        number = shop.enquiries.begin(fitted, by, enquiries.get(fitted, 2).enquiry)
        shop.offers.send(fitted, by, number, 0, "2026-12-03", lambda *a: Written(CONTENT, {}, b"%"))
        return Written(CONTENT, {}, b"%PDF")

    with pytest.raises(NotReady, match="Others are sending"):
        sent(fitted, by, beaten)
    assert offers.of_enquiry(fitted, 2) == []


def answered(conn, made, token, kind, letter="B", read=0, refused=None):
    event = Event(0, "2026-11-05T10:00:00", kind, "Runa", "why", letter, ticked=(), seen_by="")
    return shop.answers.answer(conn, made, token, read, event, lambda done: dict(refused or {}))


def test_a_yes_makes_the_accepted_setup_the_current_one(fitted, by, written):
    made, token = sent(fitted, by, written)
    assert answered(fitted, made, token, "accepted", refused={"name": "needed"}) == {
        "name": "needed"
    }
    assert offers.events(fitted, made.id) == []
    assert answered(fitted, made, token, "accepted") == {}
    assert [p.letter for p in setups.of_enquiry(fitted, 2) if p.chosen] == ["B"]
    assert enquiries.get(fitted, 2).stage == "ordered"
    shop.offers.mark_read(fitted, by, 2)
    assert offers.events(fitted, made.id)[0].seen_by == "Tove"


def test_no_yes_to_what_the_customer_did_not_read(fitted, by, written):
    first, old = sent(fitted, by, written)
    again, _ = sent(fitted, by, written, first.id)
    opened = shop.answers.opened(
        fitted, old, datetime(2026, 11, 4, tzinfo=UTC), lambda write: write()
    )
    assert opened.id == again.id
    assert list(answered(fitted, again, old, "accepted")) == ["do"]  # the link is of the first
    assert list(answered(fitted, first, old, "declined", read=first.id)) == ["do"]
    assert answered(fitted, again, old, "asked") == {}
    assert answered(fitted, again, old, "accepted", read=again.id) == {}


def test_parts_are_held_ordered_given_back_and_leave_with_the_boat(fitted, by, written, items):
    made, _ = sent(fitted, by, written)
    motor = items["motor"]
    shop.catalogue.keep_stock(fitted, "motors", motor.id, lambda had: Stock("Vik", 3, None))
    wanted = (Wanted("motors", motor.id, 2),)
    shop.offers.order_parts(fitted, by, made, wanted, "reserve")
    assert stock.reserved(fitted, made.id) == {("motors", motor.id): 2}
    shop.offers.order_parts(fitted, by, made, wanted, "release")
    assert stock.reserved(fitted, made.id) == {}
    shop.offers.order_parts(fitted, By("Tove", "later"), made, wanted, "ordered")
    row = fitted.execute("SELECT stage, ordered_at FROM enquiry WHERE id = 2").fetchone()
    assert tuple(row) == ("ordered", "later")
    shop.offers.set_stage(fitted, by, 2, "delivered")
    assert stock.get(fitted, "motors", motor.id).in_stock == 1


def test_the_stage_ordered_orders_the_parts(fitted, by):
    shop.offers.set_stage(fitted, by, 2, "ordered")
    assert fitted.execute("SELECT ordered_at FROM enquiry WHERE id = 2").fetchone()[0] == by.at


def test_a_draft_keeps_a_language_only_where_one_is_given(fitted):
    shop.offers.keep_draft(fitted, 2, lambda stands: ({**stands, "letters": ["A"]}, "de"))
    shop.offers.keep_draft(fitted, 2, lambda stands: ({**stands, "off": 3}, ""))
    assert offers.draft(fitted, 2) == {"letters": ["A"], "off": 3}
    assert owners.language_of(fitted, 2) == "de"
