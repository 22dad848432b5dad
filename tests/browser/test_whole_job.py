"""The real work in a real browser: quick start to offer, by mouse and by keyboard, at every width,
in both themes.
"""

import re

from playwright.sync_api import expect

from tests.browser.looks import no_violations


def test_the_whole_job(page, server):
    page.goto(server)
    page.get_by_text("Inflatable, air floor").click()
    page.get_by_role("textbox", name="Length", exact=True).fill("2.9")
    page.get_by_role("textbox", name="Wanted speed", exact=True).fill("3.5")
    expect(page.locator("#quick-answer .answer")).to_contain_text("3.5")
    page.get_by_role("textbox", name="People", exact=True).fill("3")
    expect(page.locator("#quick-answer")).to_contain_text(re.compile("(29|30)\\d.kg"))
    no_violations(page)
    page.get_by_role("button", name="Save as an enquiry").click()
    expect(page).to_have_url(re.compile("/shortlist$"))  # straight on to what does it
    page.locator("#list").get_by_role("button", name=re.compile("^Pin")).nth(0).click()
    page.locator("#list").get_by_role("button", name=re.compile("^Pin")).nth(2).click()
    page.get_by_role("link", name=re.compile("^Side by side:")).click()
    power = page.locator("[data-live=power-A]")
    first = power.inner_text()
    page.keyboard.press(",")
    page.keyboard.press(",")
    expect(power).not_to_have_text(first)
    page.get_by_role("textbox", name="Speed", exact=True).fill("2.0")
    expect(page.locator("#answer-line")).to_contain_text("2.0")
    slow = page.locator("[data-live=range-A]").inner_text()
    box = page.locator("#chart").bounding_box()
    page.mouse.move(box["x"] + box["width"] * 0.4, box["y"] + 120)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.75, box["y"] + 120, steps=4)
    page.mouse.up()
    expect(page.locator("[data-live=range-A]")).not_to_have_text(slow)
    assert re.search(r"speed=\d", page.url)
    page.locator("main").get_by_role("button", name="Offer A").click()
    expect(page.get_by_role("heading", name="Your boat does your day")).to_be_visible()
    expect(page.locator(".offer-paper")).to_contain_text("likely")


def test_stations_and_units_by_keyboard(page, server):
    page.goto(f"{server}/enquiry/2/boat")
    page.locator("h2").first.click()
    page.keyboard.press("3")
    expect(page).to_have_url(re.compile("/shortlist$"))
    page.keyboard.press("2")
    expect(page).to_have_url(re.compile("/waters$"))
    page.keyboard.press("/")
    page.keyboard.type("kayak")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Found for")).to_be_visible()
    page.locator("h1").click()
    page.keyboard.press("n")
    expect(page).to_have_url(f"{server}/")
    page.locator(".units summary").press("Enter")
    page.locator("select[name=speed]").select_option("km/h")
    page.get_by_role("button", name="Use these").press("Enter")
    expect(page.locator("#quick-answer .answer")).to_contain_text("km/h")


def test_the_job_reads_without_javascript(browser, server):
    context = browser.new_context(java_script_enabled=False)
    page = context.new_page()
    page.goto(f"{server}/?family=kayak&length=3.7&people=1&speed=3&distance=6")
    expect(page.locator("#quick-answer")).to_contain_text("takes about")
    page.get_by_role("button", name="Save as an enquiry").click()
    there = page.url.split("/shortlist")[0]
    page.goto(f"{there}/boat")
    page.get_by_role("textbox", name="Gear", exact=True).fill("12")
    page.get_by_role("button", name="Save", exact=True).click()
    page.goto(f"{there}/shortlist")
    page.locator("#list").get_by_role("button", name=re.compile("^Pin")).first.click()
    page.goto(page.url.split("/shortlist")[0] + "/side-by-side?speed=2.5")
    expect(page.locator("#answer-line")).to_contain_text("2.5")
    context.close()


def test_the_silhouette_is_to_scale_and_floats_at_its_draught(page, server):
    page.goto(f"{server}/enquiry/2/boat")
    view = page.locator("#figures .side-view")
    scale, keel, water = (
        float(view.get_attribute(f"data-{k}")) for k in ("scale", "keel-y", "water-y")
    )
    shown = float(re.search(r"draws\s*([\d.]+)", view.text_content())[1])
    assert abs((keel - water) / scale - shown) < 0.006
    long, transom, draws = (x.get_attribute("d") for x in view.locator(".dim").all())
    ends = re.search(r"M([\d.]+) [\d.]+v8M([\d.]+) ", long)
    assert abs((float(ends[2]) - float(ends[1])) / scale - 2.9) < 0.01
    for line, metres in ((transom, 0.36), (draws, shown)):
        top, low = map(float, re.search(r"M[\d.]+ ([\d.]+)h8m-4 0V([\d.]+)", line).groups())
        assert abs(low - keel) < 0.1 and abs((low - top) / scale - metres) < 0.006
