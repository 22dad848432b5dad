"""The work on stations 1 to 4 and the Shelf by mouse and keyboard, as an advisor does it."""

import re

from playwright.sync_api import expect


def keep_open(page, selector):
    page.locator(selector).evaluate("e => { e.open = true; }")


def test_the_day_is_made_of_legs_and_kept_by_itself(page, server):
    page.goto(f"{server}/enquiry/3/waters")
    page.get_by_role("button", name="Make legs: there and back").click()
    expect(page.locator("#figures tbody tr")).to_have_count(2)
    page.locator("#leg2_current").fill("1.1")
    expect(page.locator("#figures .answer")).to_contain_text("Home decides, against 1.1")
    expect(page.locator("#figures .kept")).to_contain_text(re.compile(r"Saved \d\d:\d\d"))
    page.reload()
    expect(page.locator("#leg2_current")).to_have_value("1.1")
    page.get_by_role("button", name="Remove the legs").click()
    expect(page.locator("#figures tbody tr")).to_have_count(2)  # out and home, as the day is run


def test_two_people_on_one_enquiry_overwrite_nothing_silently(browser, page, server):
    page.goto(f"{server}/enquiry/5/boat")
    other = browser.new_context().new_page()
    other.goto(f"{server}/enquiry/5/boat")
    other.get_by_role("textbox", name="Title", exact=True).fill("Theirs")
    expect(other.locator("#figures .kept")).to_be_visible()
    page.get_by_role("textbox", name="Title", exact=True).fill("Mine")
    expect(page.locator("#figures .clash")).to_contain_text("Theirs")
    expect(page.locator("#figures .clash")).to_contain_text("Mine")
    page.get_by_role("button", name="keep yours over it").click()
    expect(page.get_by_role("status").first).to_contain_text("Saved")
    expect(page.get_by_role("textbox", name="Title", exact=True)).to_have_value("Mine")
    other.context.close()


def test_the_field_is_brushed_and_the_weights_move_the_list(page, server):
    page.goto(f"{server}/enquiry/2/shortlist")
    rows = page.locator("#list tbody tr")
    before = rows.first.inner_text()
    box = page.locator("#field").bounding_box()
    page.mouse.move(box["x"] + box["width"] * 0.55, box["y"] + 20)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.98, box["y"] + box["height"] * 0.55, steps=4)
    page.mouse.up()
    expect(page.locator("#shortlist-answer")).to_contain_text("within what is chosen")
    assert float(page.locator("#price_min").input_value()) > 1000
    page.get_by_role("link", name="All again").click()
    keep_open(page, ".narrowing")
    page.locator("#w_range").focus()
    for _ in range(6):
        page.keyboard.press("ArrowRight")
    page.locator("select[name=maker]").select_option("Pellorin")
    expect(rows.first).to_contain_text("Pellorin")
    assert before != rows.first.inner_text()


def test_a_rejected_motor_answers_what_if(page, server):
    page.goto(f"{server}/enquiry/2/shortlist")
    keep_open(page, ".rejects >> nth=0")
    page.get_by_role("link", name=re.compile("^What if")).first.click()
    expect(page.locator(".what-if")).to_contain_text(re.compile("manages the day|still not"))


def test_a_setup_is_put_together_by_hand(page, server):
    page.goto(f"{server}/enquiry/6/by-hand")
    page.locator("#motor").select_option(index=12)
    page.locator("#battery").select_option("ampholt-4850|1|1")
    page.locator("#mount").select_option("stegwell-through")
    expect(page.locator("#judged .answer")).to_contain_text("nm")
    wrong = page.locator("#battery optgroup[label='Does not go'] option").first
    page.locator("#battery").select_option(wrong.get_attribute("value"))
    expect(page.locator("#judged")).to_contain_text("Stop:")
    page.locator("#battery").select_option("ampholt-4850|1|1")
    page.locator("#charger").select_option(index=1)  # the first that serves the bank
    expect(page.locator("#judged")).not_to_contain_text("Stop:")
    page.get_by_role("button", name="Pin it").click()
    expect(page.get_by_role("status")).to_contain_text("Pinned as")


def test_power_is_compared_under_a_cursor_too(page, server):
    page.goto(f"{server}/enquiry/2/shortlist")
    for _ in range(2):
        if page.locator("#list").get_by_role("button", name=re.compile("^Pin")).count():
            page.locator("#list").get_by_role("button", name=re.compile("^Pin")).first.click()
    page.goto(f"{server}/enquiry/2/side-by-side?by=power")
    speed = page.locator("[data-live=speed-A]")
    may = page.locator("[data-live=firstBand-A]")
    before, ends = speed.inner_text(), may.inner_text()
    for _ in range(12):
        page.keyboard.press(",")
    expect(speed).not_to_have_text(before)
    expect(may).not_to_have_text(ends)
    low, high = (float(x) for x in may.inner_text().split("–"))
    assert low < float(speed.inner_text()) < high
    assert "power=" in page.url
    with page.expect_download() as download:
        page.goto(f"{server}/enquiry/2/side-by-side")
        page.get_by_role("button", name="Chart as PNG").click()
    assert download.value.suggested_filename == "side-by-side.png"


def test_a_price_list_is_previewed_imported_and_taken_back(page, server):
    page.goto(f"{server}/catalogue/import")
    page.locator("#kind").select_option("panels")
    page.locator("#file").set_input_files(
        {
            "name": "list.csv",
            "mimeType": "text/csv",
            "buffer": (
                b"id,maker,name,price,rated_w\n"
                b"new-1,Halvane,Leaf 80,190,80\nbad,Halvane,Leaf,many,80\n"
            ),
        }
    )
    page.get_by_role("button", name="Show what it would change").click()
    expect(page.locator(".answer")).to_contain_text("1 new, 0 changed, 0 as they are, 1 wrong")
    expect(page.locator("table").first).to_contain_text("allowed is a number")
    page.get_by_role("button", name="Import the right ones").click()
    expect(page.locator("#products")).to_contain_text("Leaf 80")
    page.get_by_role("button", name=re.compile("^Undo: import")).first.click()
    expect(page.locator("#products")).not_to_contain_text("Leaf 80")


def test_an_enquiry_is_put_away_and_the_undo_stands_ready(page, server):
    page.goto(server)
    page.get_by_label("More on RIB that shall plane").click()
    page.get_by_role("button", name="Archive").first.click()
    page.get_by_role("button", name="Undo: take it out again").click()
    expect(page.locator(".enquiries").first).to_be_visible()
    expect(page.locator("section.open")).to_contain_text("RIB that shall plane")


def test_the_first_page_is_light(browser, server):
    page = browser.new_page()
    sizes = []
    page.on("response", lambda r: sizes.append(r.request.sizes()["responseBodySize"]))
    page.goto(server, wait_until="networkidle")
    page.close()
    assert 50_000 < sum(sizes) < 300_000


def test_a_top_shown_as_the_cursors_speed_has_figures_at_the_cursor(page, fitted_server):
    page.goto(f"{fitted_server}/enquiry/2/side-by-side")
    setups = page.evaluate("""() => JSON.parse(document.getElementById('compare-data').textContent)
      .setups.map((s) => [s.letter, s.x[s.x.length - 1]])""")
    slow, top = min(setups, key=lambda x: x[1])
    cell = page.locator(f"[data-live='power-{slow}']")
    for over, figure in ((0.04, True), (0.2, False)):
        page.locator("[data-cursor]").fill(f"{round(top, 1) + over:.2f}")
        if figure:
            expect(cell).not_to_have_text("–")
        else:
            expect(cell).to_have_text("–")
