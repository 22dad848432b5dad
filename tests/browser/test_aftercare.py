"""Aftercare in the browser: boats in their second season, at the desk and at the quay."""

import re

import pytest
from itsdangerous import URLSafeSerializer
from playwright.sync_api import expect

from tests.browser.conftest import serving
from tests.browser.looks import fits_and_reads, no_violations

PERLE, CLUB = 10, 14


@pytest.fixture(scope="module")
def quay(tmp_path_factory, working):
    with serving(tmp_path_factory.mktemp("quay"), working) as root:
        yield root


PAGES = (
    "/care",
    "/care/fleet",
    "/care/recalls?batch=K25",
    "/care/figures",
    "/care/steps",
    f"/enquiry/{PERLE}/aftercare",
    f"/enquiry/{PERLE}/aftercare/owner",
)


@pytest.mark.parametrize("path", PAGES)
def test_a_page_fits_and_reads(page, quay, path):
    fits_and_reads(page, quay + path)


def test_the_desk_logs_charges_finds_a_fault_and_passes_her_on(page, quay):
    page.goto(f"{quay}/enquiry/{CLUB}/aftercare")
    page.get_by_text("Add a trip").click()
    page.get_by_label("Under way, as 2 h 30 min").fill("much")
    page.get_by_role("button", name="Log this trip").click()
    expect(page.locator(".wrong")).to_contain_text("much")
    page.get_by_label("Under way, as 2 h 30 min").fill("30 min")
    page.get_by_label("Charge before, %").fill("95")
    page.get_by_label("Charge after, %").fill("70")
    page.get_by_role("button", name="Log this trip").click()
    expect(page.locator("#trips tbody tr").first).to_contain_text("95 – 70")
    page.get_by_text("A charge", exact=True).click()
    page.get_by_label("After, %", exact=True).fill("100")
    page.get_by_role("button", name="Log this charge").click()
    page.get_by_text("A charge", exact=True).click()
    expect(page.locator("#log")).to_contain_text("to 100 %")
    page.get_by_role("link", name="Faults").click()
    expect(page.locator("#trips")).to_be_hidden()
    page.get_by_label("What is seen").select_option(label="It does not charge")
    page.get_by_role("button", name="Record a fault").click()
    expect(page.locator("#faults")).to_contain_text("Shore power can kill")
    page.get_by_label("What was done").fill("breaker set")
    page.get_by_role("button", name="Close it").click()
    expect(page.locator("#faults")).to_contain_text("breaker set")
    page.evaluate("location.hash = '#owner'")  # as a link elsewhere on the page does
    expect(page.locator("#owner-title")).to_be_in_viewport()
    expect(page.locator("#faults")).to_be_hidden()
    page.get_by_role("link", name="Parts and spares").click()
    page.get_by_text("A part is replaced").click()
    page.get_by_label("Why").fill("seal worn")
    page.get_by_label("New serial number").fill("MO-9")
    page.get_by_role("button", name="Replaced", exact=True).click()
    expect(page.locator("#parts")).to_contain_text("Under warranty to 20 Apr 2027")
    page.get_by_text("Add a battery to the old ones").click()
    page.get_by_role("button", name="Quote it").click()
    expect(page.locator("#battery .wrong")).to_contain_text("years old")
    page.get_by_role("link", name="Owner", exact=True).click()
    page.get_by_text("The boat has a new owner").click()
    page.get_by_label("Name", exact=True).fill("Runa Vik")
    page.get_by_role("button", name="Pass it on").click()
    expect(page.get_by_role("heading", name="Owner: Runa Vik")).to_be_visible()


def test_done_in_time_by_keys_alone_takes_a_step_off_the_list(page, quay):
    page.goto(f"{quay}/care?span=due")
    row = page.get_by_role("row").filter(has_text="Hire launch Kite").filter(has_text="season")
    expect(row).to_have_count(1)
    row.get_by_role("link").focus()
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/aftercare"))
    step = page.locator(".act-list li").filter(has_text="After the season")
    step.get_by_role("button", name="Done").focus()
    page.keyboard.press("Enter")
    expect(page.locator(".flash")).to_contain_text("Noted")
    page.goto(f"{quay}/care?span=due")
    expect(row).to_have_count(0)


def test_the_owner_at_the_quay_logs_by_touch_and_a_recall_is_answered(browser, quay):
    desk = browser.new_context().new_page()
    desk.goto(f"{quay}/care/recalls?first=MO-1000&last=MO-1000")
    desk.get_by_label("Title").fill("Plug of the motor")
    desk.get_by_label("What is wrong").fill("It may warm: stop, bring it.")
    desk.get_by_role("button", name="Write 1 letter").click()
    expect(desk.get_by_role("status").last).to_contain_text("1 letter, 1 mailed, 0 answered")
    desk.get_by_role("button", name="Keep").click()
    expect(desk.get_by_role("status").last).to_contain_text("1 answered")
    phone = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True).new_page()
    sticker = URLSafeSerializer("demo", salt="jolvek-boat").dumps([PERLE, 0])  # what its code says
    phone.goto(f"{quay}/b/{sticker}")
    no_violations(phone)
    assert phone.evaluate("document.documentElement.scrollWidth") <= 390
    phone.get_by_label("Under way, as 2 h 30 min").fill("1 h")
    phone.get_by_role("button", name="Log this trip").tap()
    expect(phone.locator(".flash")).to_contain_text("Logged")
    phone.get_by_label("What is seen").select_option(label="It vibrates")
    phone.get_by_role("button", name="Record a fault").tap()
    expect(phone.locator(".flash")).to_contain_text("The shop has it")
    desk.goto(f"{quay}/enquiry/{PERLE}/aftercare")
    expect(desk.locator("#faults")).to_contain_text("by owner")
    phone.context.close()
    desk.context.close()
