"""What is sent without a connection waits on the device, is listed, and is sent later, once."""

from contextlib import closing

import pytest
from playwright.sync_api import expect

from jolvek.store import db, handovers, offers, trials
from tests.browser.test_offer import tick_and_send
from tests.web.steps import picture, pin


@pytest.fixture
def kept(fitted_server, tmp_path_factory):
    folder = next(tmp_path_factory.getbasetemp().glob("fitted*"))
    with closing(db.connect(folder / "jolvek.db")) as conn:
        yield conn


@pytest.fixture
def away(browser, fitted_server):
    """A phone that loses its connection, with what is done by hand there."""
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    page.context_offline = context.set_offline
    yield page
    context.close()


def waits(page, n, *words):
    box = page.locator("#outbox")
    expect(box).to_contain_text(f"{n} kept on this device")
    for word in words:
        expect(box).to_contain_text(word)


def test_a_customers_yes_waits_and_counts_once(page, away, fitted_server, kept):
    tick_and_send(page, fitted_server, 3)
    page.get_by_role("button", name="New link").click()
    away.goto(page.locator("#customer-link").input_value())
    away.context_offline(True)
    away.get_by_label("Your name, as your signature").fill("Runa Vik")
    away.get_by_label("I have read the cautions").check()
    away.get_by_role("button", name="Accept").tap()
    waits(away, 1, "Accept")
    away.context_offline(False)
    expect(away.locator("main")).to_contain_text("You have accepted this offer")
    expect(away.locator("#outbox")).to_be_hidden()
    sent = offers.of_enquiry(kept, 3)[0]
    assert [x.kind for x in offers.events(kept, sent.id)] == ["accepted"]


def test_a_step_with_its_photo_and_a_run_wait_together(away, fitted_server, kept):
    address = f"{fitted_server}/enquiry/5"
    away.goto(f"{address}/trial")
    away.context_offline(True)
    away.locator("#power").fill("400")
    away.locator("#speed").fill("2.5")
    away.get_by_role("button", name="Take this run").tap()
    waits(away, 1, "Take this run")
    away.context_offline(False)
    expect(away.locator("#outbox")).to_be_hidden()
    away.goto(f"{address}/handover")
    row = away.locator(".act-list li").first
    key = row.locator("input[name=step]").first.get_attribute("value")
    away.context_offline(True)
    row.get_by_text("Note, photo, not needed").tap()
    photo = {"name": "seat.png", "mimeType": "image/png", "buffer": picture((60, 40)).read()}
    row.get_by_label("Photo").set_input_files(photo)
    row.get_by_role("button", name="Done, with these").tap()
    waits(away, 1, "Done: ", "with a photo")
    away.context_offline(False)
    expect(away.locator("#outbox")).to_be_hidden()
    act = handovers.acts(kept, 5)[key]
    assert act.state == "done" and act.photo
    assert len(trials.runs(kept, trials.latest(kept, 5).id)) == 1


def test_what_is_refused_later_says_why_and_can_be_discarded(away, fitted_server):
    away.goto(f"{fitted_server}/enquiry/6/trial")
    away.context_offline(True)
    away.locator("#power").fill("much")
    away.get_by_role("button", name="Take this run").tap()
    waits(away, 1)
    away.context_offline(False)
    waits(away, 1, "Refused")
    away.get_by_role("button", name="Discard", exact=True).tap()
    expect(away.locator("#outbox")).to_be_hidden()


def test_the_worker_keeps_what_did_not_get_through(browser, fitted_server):
    """A phone that believes it has a connection, where the shop cannot be reached."""
    context = browser.new_context(service_workers="allow")
    page = context.new_page()
    page.goto(f"{fitted_server}/enquiry/4/trial")
    page.evaluate("navigator.serviceWorker.ready")
    page.wait_for_function("navigator.serviceWorker.controller !== null")
    page.goto(f"{fitted_server}/enquiry/4/trial")
    page.locator("#power").fill("300")
    page.evaluate("Object.defineProperty(navigator, 'onLine', { get: () => true })")
    context.set_offline(True)
    page.locator("#speed").fill("2.1")
    page.get_by_role("button", name="Take this run").click()
    expect(page.locator("h1")).to_have_text("Kept on this device")
    context.set_offline(False)
    page.get_by_role("link", name="Back to the page").click()
    expect(page.locator("#outbox")).to_be_hidden()
    expect(page.locator("main")).to_contain_text("300 W")
    context.close()


def test_what_is_sent_twice_counts_once(client, conn):
    form = {"power": "400", "speed": "2.5", "heading": ""}
    head = {"X-Sent-Later": "0123456789abcdef01234567"}
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})
    for _ in range(2):
        assert client.post("/enquiry/2/trial/run", data=form, headers=head).status_code < 400
    assert len(trials.runs(conn, trials.latest(conn, 2).id)) == 1
