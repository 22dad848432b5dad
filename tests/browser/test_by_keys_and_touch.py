"""The whole job, from the quick start to the sent offer, by keys alone and by touch alone."""

import re

from playwright.sync_api import expect

HERE = (
    "e => e && e !== document.body ? (e.getAttribute('aria-label') || "
    "(e.tagName === 'BUTTON' ? '' : e.value) || "
    "e.textContent || '').trim().slice(0, 80) + '|' + (e.name || '') + '|' + e.tagName : ''"
)
FAR = 260

CURRENT = re.compile(r"Setup\s+A\s+\(current\)|Setup A is now")


def reach(page, pattern, back=False):
    """Tab on until what has the focus says so; gives what it says."""
    for _ in range(FAR):
        page.keyboard.press("Shift+Tab" if back else "Tab")
        now = page.evaluate(f"({HERE})(document.activeElement)")
        if re.search(pattern, now):
            return now
    raise AssertionError(f"no stop of the tab key says {pattern}")


def test_the_whole_job_by_keys_alone(page, server):
    page.goto(server)
    reach(page, r"\|family\|INPUT")
    for _ in range(14):  # the arrows of a group of radios
        if page.evaluate("document.activeElement.value") == "kayak":
            break
        page.keyboard.press("ArrowRight")
    assert page.evaluate("document.activeElement.value") == "kayak"
    expect(page.locator("#quick-answer .answer")).to_contain_text("3.2 kn")  # a kayak's usual
    for name, value in (("length", "3.8"), ("people", "1"), ("speed", "3"), ("distance", "4")):
        reach(page, rf"\|{name}\|INPUT")
        page.keyboard.press("Control+A")
        page.keyboard.type(value)
    expect(page.locator("#quick-answer .answer")).to_contain_text("3.0 kn")
    reach(page, r"^Save as an enquiry")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/shortlist$"))
    reach(page, r"^Pin")
    page.keyboard.press("Enter")
    expect(page.locator("body")).to_contain_text(CURRENT)
    page.keyboard.press("Tab")
    page.locator("main").evaluate("e => e.focus()")  # as the link to the content does
    page.keyboard.press("4")
    expect(page).to_have_url(re.compile("/side-by-side"))
    power = page.locator("[data-live=power-A]")
    expect(power).not_to_be_empty()
    before = power.inner_text()
    page.keyboard.press(",")
    page.keyboard.press(",")
    expect(power).not_to_have_text(before)
    reach(page, r"^Offer A")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/offer"))
    page.locator("main").evaluate("e => e.focus()")
    page.keyboard.press("1")
    expect(page).to_have_url(re.compile("/boat$"))
    reach(page, r"\|customer\|INPUT")
    with page.expect_response(lambda r: r.request.method == "POST"):  # it saves itself
        page.keyboard.type("Runa Vik")
    page.locator("main").evaluate("e => e.focus()")
    page.keyboard.press("7")
    expect(page).to_have_url(re.compile("/offer$"))
    left = page.locator("input[name=caution]:not([disabled])")
    expect(page.locator("#send")).to_be_visible()
    for _ in range(left.count()):
        reach(page, r"\|caution\|INPUT")
        page.keyboard.press("Space")
    if left.count():
        reach(page, r"^Confirm the ticked items")
        page.keyboard.press("Enter")
        expect(left).to_have_count(0)
    reach(page, r"^Send")
    page.keyboard.press("Enter")
    expect(page.locator(".flash").first).to_contain_text("is sent")


def test_the_whole_job_by_touch_alone(browser, server):
    size = {"width": 390, "height": 844}
    options = {"viewport": size, "has_touch": True, "reduced_motion": "reduce"}
    context = browser.new_context(**options, service_workers="block")
    page = context.new_page()
    page.goto(server)
    page.locator("#quick-form .family", has_text="Kayak").tap()
    for name, value in (
        ("Length", "3.8"),
        ("Wanted speed", "3"),
        ("Distance, there and back", "4"),
    ):
        box = page.get_by_role("textbox", name=name, exact=True)
        box.tap()
        box.fill(value)
    expect(page.locator("#quick-answer .answer")).to_contain_text("3.0 kn")
    page.get_by_role("button", name="Save as an enquiry").tap()
    expect(page).to_have_url(re.compile("/shortlist$"))
    page.locator("#list").get_by_role("button", name=re.compile("^Pin")).first.tap()
    expect(page.locator("body")).to_contain_text(CURRENT)
    page.get_by_role("link", name=re.compile("^Side by side")).first.tap()
    expect(page).to_have_url(re.compile("/side-by-side"))
    chart = page.locator("#chart")
    chart.scroll_into_view_if_needed()
    box = chart.bounding_box()
    before = page.locator("[data-live=power-A]").inner_text()
    page.touchscreen.tap(box["x"] + box["width"] * 0.3, box["y"] + box["height"] * 0.3)
    expect(page.locator("[data-live=power-A]")).not_to_have_text(before)
    page.goto(re.sub("side-by-side.*", "boat", page.url))
    customer = page.locator("input[name=customer]")
    customer.tap()
    with page.expect_response(lambda r: r.request.method == "POST"):  # it saves itself
        customer.fill("Runa Vik")
    page.goto(re.sub("/boat.*", "/side-by-side", page.url))
    page.locator("main").get_by_role("button", name="Offer A").tap()
    expect(page).to_have_url(re.compile("/offer"))
    ticks = page.locator("input[name=caution]:not([disabled])")
    expect(page.locator("#send")).to_be_visible()
    for tick in ticks.all():
        tick.tap()
    if ticks.count():
        page.get_by_role("button", name="Confirm the ticked items").tap()
        expect(ticks).to_have_count(0)
    page.locator("#send").get_by_role("button", name=re.compile("^Send")).tap()
    expect(page.locator(".flash").first).to_contain_text("is sent")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    context.close()
