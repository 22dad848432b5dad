"""The handover on a phone, by touch: steps while the connection is gone, two phones at once,
numbers, the trial from a live instrument, and the signature.
"""

import re

from playwright.sync_api import expect

from jolvek.core.predict.measured import SOFT
from jolvek.standins.instrument import Hidden, Server
from tests.browser.looks import fits_and_reads

SEND = """async (keys) => {
  const token = document.querySelector("[data-afar] input[name=csrf_token]").value;
  for (const step of keys) {
    const body = new URLSearchParams({ step, state: "done", csrf_token: token });
    await fetch(location.pathname + "/step", { method: "POST", body });
  }
}"""
SIZE = {"width": 390, "height": 844}


def phone(browser):
    return browser.new_context(viewport=SIZE, has_touch=True, reduced_motion="reduce")


def done(page, key):
    """Tick a step, in its group where that is folded."""
    row = page.locator(f"#step-{key}")
    if not row.is_visible():
        page.locator(".step-group", has=row).locator("summary").first.tap()
    row.locator(".tick").tap()


def test_a_boat_is_handed_over_on_two_phones_through_a_lost_connection(browser, fitted_server):
    first, second = phone(browser), phone(browser)
    mine, theirs = first.new_page(), second.new_page()
    address = f"{fitted_server}/enquiry/2/handover"
    for page in (mine, theirs):
        page.goto(address)
    fits_and_reads(mine, address)
    mine.set_viewport_size(SIZE)
    keys = mine.locator("input[name=step]").evaluate_all("all => all.map((x) => x.value)")
    done(mine, keys[0])
    expect(mine.locator(f"#step-{keys[0]}")).to_have_class("is-done")
    first.set_offline(True)
    for key in keys[1:4]:
        done(mine, key)
        expect(mine.locator(f"#step-{key}")).to_have_class(re.compile("is-waiting"))
        expect(mine.locator(f"#step-{key} [data-act-note]")).to_contain_text("kept on this phone")
    expect(mine.locator("#outbox")).to_contain_text("3 kept on this device")
    done(theirs, keys[4])  # the other phone goes on
    expect(theirs.locator(f"#step-{keys[4]}")).to_have_class("is-done")
    first.set_offline(False)
    expect(mine.locator("#outbox")).to_be_hidden()
    for key in keys[1:4]:
        expect(mine.locator(f"#step-{key}")).to_have_class("is-done")
    theirs.reload()
    expect(theirs.locator(".act-list .is-done")).to_have_count(5)
    bare = theirs.locator(f"#step-{keys[5]}")
    theirs.locator(".step-group", has=bare).evaluate("group => { group.open = true; }")
    bare.get_by_text("Note, photo, not needed").tap()
    bare.get_by_role("button", name="Not needed because").tap()
    expect(bare.locator("[data-act-note]")).to_contain_text("why it is not needed")
    bare.get_by_label("Note").fill("the owner has them")
    bare.get_by_role("button", name="Not needed because").tap()
    expect(bare).to_have_class("is-not_needed")
    expect(bare.locator("[data-act-note]")).to_contain_text("the owner has them")
    for key in keys[6:9]:
        done(theirs, key)
        expect(theirs.locator(f"#step-{key}")).to_have_class("is-done")
    theirs.evaluate(SEND, keys[9:-1])  # the rest as the phone would send it, without the taps
    theirs.reload()
    theirs.get_by_role("button", name="Done, next").tap()
    expect(theirs.locator("h1")).to_have_text(re.compile(rf"All {len(keys)} steps .* are\s+done"))
    expect(theirs.get_by_role("button", name="Done, next")).to_be_hidden()
    expect(theirs.locator(f"#step-{keys[-1]}")).to_have_class("is-done")  # the shop has it
    theirs.reload()
    expect(theirs.locator("#left")).to_have_text(f"{len(keys)} of {len(keys)} steps done")
    for i, form in enumerate(theirs.locator("form.serial").all()):
        entry = form.locator("input[name=number]")
        if form.locator("input[name=what]").input_value() in ("key", "magnet"):
            continue
        entry.fill(f"N-{i}")
        entry.press("Enter")
        expect(theirs.locator("form.serial").nth(i)).to_contain_text("warranty to")
    theirs.get_by_label("The customer’s name").fill("Runa Vik")
    theirs.get_by_role("button", name="Hand it over").tap()
    expect(theirs.locator(".flash")).to_contain_text("handed over")
    expect(theirs.locator("h1")).to_contain_text("signed Runa Vik")
    mine.reload()
    expect(mine.locator("button.tick")).to_have_count(0)
    first.close()
    second.close()


def test_done_next_goes_through_the_list_without_a_connection(browser, fitted_server):
    context = phone(browser)
    page = context.new_page()
    page.goto(f"{fitted_server}/enquiry/6/handover")
    keys = page.locator("input[name=step]").evaluate_all("all => all.map((x) => x.value)")
    texts = page.locator(".step-text").all_text_contents()
    context.set_offline(True)
    for at in range(4):
        expect(page.locator("[data-next] strong")).to_have_text(texts[at].strip())
        expect(page.locator(f"#step-{keys[at]}")).to_be_in_viewport()
        page.get_by_role("button", name="Done, next").tap()
        expect(page.locator(f"#step-{keys[at]}")).to_have_class(re.compile("is-done is-waiting"))
        page.wait_for_timeout(450)  # slower than a press by mistake
    expect(page.locator("#left")).to_have_text(f"4 of {len(keys)} steps done")
    with page.expect_file_chooser():
        page.get_by_role("link", name="Photo").tap()
    context.set_offline(False)
    expect(page.locator("#outbox")).to_be_hidden()
    page.reload()
    expect(page.locator("[data-next] strong")).to_have_text(texts[4].strip())
    context.close()


def test_a_step_that_is_refused_is_open_again_and_a_hasty_press_ticks_one(browser, fitted_server):
    context = phone(browser)
    page = context.new_page()
    page.goto(f"{fitted_server}/enquiry/4/handover")
    first = page.locator(".act-list li").first
    text = first.locator(".step-text").text_content().strip()
    why = {"kept": False, "why": "another setup was accepted"}
    page.route("**/handover/step", lambda route: route.fulfill(status=422, json=why))
    page.get_by_role("button", name="Done, next").tap()
    expect(first.locator("[data-act-note]")).to_contain_text("another setup was accepted")
    expect(first).to_have_class(re.compile("is-open"))
    expect(page.locator("[data-next] strong")).to_have_text(text)
    page.unroute("**/handover/step")
    page.wait_for_timeout(450)  # the press before was not hasty
    page.get_by_role("button", name="Done, next").dblclick()
    expect(page.locator("#left")).to_contain_text("1 of")
    expect(first).to_have_class("is-done")
    context.close()


def test_a_live_trial_is_followed_and_used(page, fitted_server):
    boat = Server(SOFT, Hidden(), (400.0,), faster=60)
    address = f"{fitted_server}/enquiry/4/trial"
    page.goto(address)
    fits_and_reads(page, address)
    page.get_by_text("From a log, a track, or an instrument").click()
    page.get_by_label("Instrument on this network").fill(f"127.0.0.1:{boat.port}")
    page.get_by_role("button", name="Listen").click()
    expect(page.locator("#live-now")).to_contain_text("2 runs in all")
    page.get_by_role("button", name="Stop listening").click()
    expect(page.locator("#live-now")).not_to_contain_text("Steady")
    page.get_by_role("button", name="Use it for this boat").click()
    expect(page.locator("main")).to_contain_text("used on every page")
    page.get_by_role("button", name="Back to untried").click()
    expect(page.locator(".flash")).to_contain_text("untried again")
    boat.close()
