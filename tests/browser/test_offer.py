"""The offer from draft to the customer's yes: by mouse at the counter, by touch on a phone."""

import re

from playwright.sync_api import expect

from tests.browser.looks import fits_and_reads


def tick_and_send(page, root, number):
    page.goto(f"{root}/enquiry/{number}/offer")
    open_ticks = page.locator("input[name=caution]:not([disabled])")
    while open_ticks.count():
        for box in open_ticks.all():
            box.check()
        page.get_by_role("button", name="Confirm the ticked items").click()
    page.locator("#send").get_by_role("button", name=re.compile("^Send")).click()
    expect(page.locator(".flash")).to_contain_text("is sent")


def test_an_offer_is_drafted_sent_and_accepted_on_a_phone(page, browser, fitted_server):
    page.goto(f"{fitted_server}/enquiry/2/offer")
    page.get_by_label("setup B").check()
    page.get_by_label("Overall discount, %").fill("5")
    page.get_by_text("Add a line").first.click()
    page.locator("#free0_text").fill("Launching")
    page.locator("#free0_price").fill("150")
    page.get_by_role("button", name="Save the draft").click()
    expect(page.locator("main")).to_contain_text("Launching")
    expect(page.locator(".alternative")).to_have_count(2)
    tick_and_send(page, fitted_server, 2)
    page.get_by_role("button", name="New link").click()
    link = page.locator("#customer-link").input_value()
    size = {"width": 390, "height": 844}
    phone = browser.new_context(viewport=size, has_touch=True, reduced_motion="reduce")
    theirs = phone.new_page()
    theirs.goto(link)
    fits_and_reads(theirs, link)
    theirs.set_viewport_size({"width": 390, "height": 844})
    expect(theirs.get_by_role("navigation", name="Main")).to_have_count(0)
    slider = theirs.get_by_label("How fast would you go?").first
    shown = theirs.locator(".steps").first.locator(".step:visible")
    before = shown.inner_text()
    slider.focus()
    theirs.keyboard.press("Home")
    expect(shown).not_to_have_text(before)
    theirs.get_by_role("link", name="Accept").tap()
    theirs.get_by_role("button", name="Accept").tap()
    expect(theirs.locator("#accept")).to_contain_text("your name, as your signature")
    expect(theirs.locator("#accept")).to_be_focused()  # what is wrong is in view
    theirs.locator("#offered-B").check()
    expect(theirs.locator("#accept")).to_contain_text("setup B")
    expect(theirs.locator("[data-offered=A]").first).to_be_hidden()
    theirs.get_by_label("Your name, as your signature").fill("Runa Vik")
    theirs.get_by_label("I have read the cautions").check()
    theirs.locator("canvas").scroll_into_view_if_needed()
    box = theirs.locator("canvas").bounding_box()
    theirs.mouse.move(box["x"] + 20, box["y"] + 20)
    theirs.mouse.down()
    theirs.mouse.move(box["x"] + 200, box["y"] + 60, steps=6)
    theirs.mouse.up()
    theirs.get_by_role("button", name="Accept").tap()
    expect(theirs.locator(".flash").first).to_contain_text("has your order")
    expect(theirs.get_by_role("button", name="Accept")).to_have_count(0)
    expect(theirs.get_by_role("link", name="Accept")).to_have_count(0)
    phone.close()
    page.reload()
    expect(page.locator("main")).to_contain_text(
        "the customer accepted setup B. Signed by Runa Vik."
    )
    expect(page.get_by_label("Signature as drawn")).to_be_visible()
    page.get_by_role("link", name="Parts to order").click()
    fits_and_reads(page, page.url)
    page.get_by_role("button", name="The rest is ordered").click()
    page.goto(fitted_server)
    expect(page.locator(".open")).to_contain_text("Waiting for handover")
