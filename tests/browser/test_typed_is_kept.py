"""What stands in the fields is what is kept, however slow the server is, whoever's session ends."""

import re
from contextlib import closing

import pytest
from playwright.sync_api import expect

from jolvek.store import db, enquiries, people, setups
from jolvek.web.demo_shop import served
from jolvek.web.kit.accounts import passwords
from jolvek.web.settings import Settings
from tests.browser.conftest import serving

SLOW = """(() => {
  const real = window.fetch;
  window.fetch = async (way, asked) => {
    if (!String(way.url || way).includes("/health")) await new Promise((r) => setTimeout(r, 3000));
    return real(way, asked);
  };
})()"""
WORD = "mussel lantern gravel forty"


@pytest.fixture
def slow(context, fitted_server):
    """A tab whose answers are three seconds late."""
    page = context.new_page()
    page.add_init_script(SLOW)
    page.root = fitted_server
    return page


@pytest.fixture
def kept(fitted_server, tmp_path_factory):
    folder = next(tmp_path_factory.getbasetemp().glob("fitted*"))
    with closing(db.connect(folder / "jolvek.db")) as conn:
        yield conn


def test_the_counter_saves_what_stands_in_its_fields(slow, kept):
    slow.goto(slow.root)
    slow.get_by_role("textbox", name="Distance, there and back").fill("7.3")
    slow.get_by_role("button", name="Save as an enquiry").click()
    expect(slow).to_have_url(re.compile("/shortlist$"))
    number = int(re.search(r"/enquiry/(\d+)/", slow.url)[1])
    assert enquiries.get(kept, number).need.day.distance_m == pytest.approx(7.3 * 1852)
    slow.goto(slow.root)
    slow.get_by_role("textbox", name="Length", exact=True).press("Enter")
    expect(slow).to_have_url(slow.root + "/")


@pytest.mark.parametrize(
    ("station", "field", "typed", "link", "to"),
    [
        ("waters", "#speed", "2.3", "To the shortlist", "shortlist"),
        ("boat", "#gear", "37", "To the waters", "waters"),
    ],
)
def test_a_link_waits_for_the_save_of_what_was_typed(slow, kept, station, field, typed, link, to):
    slow.goto(f"{slow.root}/enquiry/3/{station}")
    slow.locator(field).fill(typed)
    slow.get_by_role("link", name=link).click()
    expect(slow.locator("#saving")).to_contain_text("Saving what you typed")
    expect(slow).to_have_url(re.compile(f"/{to}$"))
    need = enquiries.get(kept, 3).need
    found = {"#speed": need.day.speed_m_s / 0.514444, "#gear": need.load.gear_kg}[field]
    assert found == pytest.approx(float(typed), rel=1e-3)


def test_pinning_goes_by_the_filters_on_screen(slow):
    slow.goto(f"{slow.root}/enquiry/4/shortlist")
    slow.get_by_text("Filter and rank").click()
    slow.locator("#price_max").fill("4321")
    slow.get_by_role("button", name=re.compile("^Pin ")).first.click()
    expect(slow).to_have_url(re.compile("price_max=4321"))


def test_day_out_saves_and_prints_the_speeds_on_screen(slow, kept):
    slow.goto(f"{slow.root}/enquiry/6/day-out")
    slow.locator("#v1").fill("2.0")
    way = slow.get_by_role("link", name="The day as CSV")
    way.evaluate("e => e.addEventListener('click', (x) => x.preventDefault())")
    way.click()
    assert "v1=2" in way.get_attribute("href")
    slow.get_by_role("button", name="Save these speeds").click()
    expect(slow.locator(".flash")).to_contain_text("saved with these speeds")
    legs = enquiries.get(kept, 6).need.day.trip
    assert legs[0].speed_m_s == pytest.approx(2.0 * 0.514444, rel=0.01)


def test_by_hand_pins_the_parts_on_screen(slow, kept):
    slow.goto(f"{slow.root}/enquiry/5/by-hand")
    slow.locator("#motor").select_option(index=12)
    expect(slow.locator("#battery optgroup").first).to_be_attached()
    slow.locator("#battery").select_option(index=1)
    slow.locator("#mount").select_option(index=1)
    expect(slow.get_by_role("button", name="Pin it")).to_be_visible()
    slow.locator("#mount").select_option(index=2)
    chosen = slow.locator("#mount").input_value()
    slow.get_by_role("button", name="Pin it").click()
    expect(slow.locator(".flash")).to_contain_text("Pinned as")
    assert setups.of_enquiry(kept, 5)[-1].part("mount").item.id == chosen


def bay(page):
    row = page.locator("details.bay").last
    row.evaluate("e => e.open = true")
    return row.locator("input.input")


SIZES = ["Locker", "0.6", "0.4", "0.3", "30", "0.5", "0.1", "0.2", "0.5", "0.3"]


def test_a_bay_filled_by_tab_is_no_clash_and_no_refusal(page, fitted_server):
    answers = []
    page.on("response", lambda r: answers.append(r.status) if r.url.endswith("/boat") else None)
    page.goto(f"{fitted_server}/enquiry/3/boat")
    place = page.locator("details.bay").count() - 1
    bay(page).first.focus()
    for text in SIZES:
        page.keyboard.type(text)
        page.wait_for_timeout(250)
        page.keyboard.press("Tab")
        expect(page.locator("#kept")).not_to_contain_text("another window")
    page.reload()
    row = page.locator("details.bay").nth(place).locator("input.input")
    for i, text in enumerate(SIZES):
        expect(row.nth(i)).to_have_value(text)
    assert set(answers) == {200}


def test_a_page_made_before_a_save_that_was_answered_since_shows_what_was_saved(
    page, fitted_server
):
    held = []

    def keep_back(route):
        if route.request.method == "POST" and route.request.headers.get("hx-request"):
            held.append(route)
        elif route.request.method == "GET":
            older = route.fetch()
            for post in held:
                post.fulfill(response=post.fetch())
            page.wait_for_timeout(500)
            route.fulfill(response=older)
        else:
            route.abort()

    page.goto(f"{fitted_server}/enquiry/6/boat")
    page.route("**/enquiry/6/boat", keep_back)
    page.get_by_role("textbox", name="Gear", exact=True).fill("43")
    while not held:
        page.wait_for_timeout(50)
    page.reload()
    page.unroute("**/enquiry/6/boat")
    expect(page.get_by_role("textbox", name="Gear", exact=True)).to_have_value("43")
    page.reload()
    expect(page.get_by_role("textbox", name="Gear", exact=True)).to_have_value("43")


@pytest.mark.parametrize("boxes", [2, 4])
def test_what_was_typed_just_before_a_reload_is_there_again(page, fitted_server, boxes):
    """A bay that is not finished too, which the server cannot keep."""
    page.goto(f"{fitted_server}/enquiry/4/boat")
    before = page.locator("details.bay").count()
    for field, text in zip(bay(page).all()[:boxes], SIZES, strict=False):
        field.fill(text)
    page.get_by_role("textbox", name="Gear", exact=True).fill(f"4{boxes}")
    page.reload()
    expect(page.get_by_role("textbox", name="Gear", exact=True)).to_have_value(f"4{boxes}")
    row = page.locator("details.bay").nth(before - 1).locator("input.input")
    for i in range(boxes):
        expect(row.nth(i)).to_have_value(SIZES[i])
    page.wait_for_timeout(600)
    expect(page.locator("#kept")).not_to_contain_text("another window")


def test_an_older_save_that_comes_late_undoes_nothing(client, conn):
    from tests.web.steps import boat_form

    form = boat_form(client)
    for turn, gear in (("2", "35"), ("1", "3")):
        answer = client.post("/enquiry/2/boat", data={**form, "gear": gear, "turn": turn})
        assert answer.status_code == 303
    assert enquiries.get(conn, 2).need.load.gear_kg == 35


@pytest.fixture
def signed_in(context, pinned, tmp_path):
    """A shop where one signs in, with its data."""
    with serving(tmp_path, pinned):
        pass
    conn = db.connect(tmp_path / "jolvek.db")
    number = people.add(conn, "advisor", "The advisor", "advisor", "2026-11-26T08:00:00+00:00")
    people.set_password(conn, number, passwords.kept(WORD, "advisor", "shop"))
    with served(Settings(tmp_path, "a secret of thirty-two characters", demo=False)) as root:
        page = context.new_page()
        page.goto(f"{root}/sign-in")
        sign_in(page)
        page.goto(f"{root}/enquiry/3/boat")
        yield page, conn
    conn.close()


def sign_in(page):
    page.get_by_label("Name", exact=True).fill("advisor")
    page.get_by_label("Password").fill(WORD)
    page.get_by_role("button", name="Sign in", exact=True).click()
    expect(page.locator("#sign-in-here, form[action='/sign-in']")).to_have_count(0)


def test_a_session_that_ends_while_typing_is_taken_up_in_place(signed_in):
    page, conn = signed_in
    conn.execute("DELETE FROM signed_in")
    gear = page.get_by_role("textbox", name="Gear", exact=True)
    gear.fill("61")
    expect(page.locator("#sign-in-here")).to_contain_text("Your session has ended")
    gear.fill("62")
    sign_in(page)
    expect(page.locator("#kept [role=status]")).to_contain_text("Saved")
    assert enquiries.get(conn, 3).need.load.gear_kg == 62


def test_a_form_half_filled_is_there_when_one_comes_back(page, fitted_server):
    page.goto(f"{fitted_server}/enquiry/2/offer")
    before = page.locator("#free0_text").input_value()  # what another test saved
    page.locator("#free0_text").fill("Launching at the slip")
    page.get_by_role("link", name=re.compile("Side by side")).first.click()
    page.go_back()
    expect(page.locator("#free0_text")).to_have_value("Launching at the slip")
    page.goto(f"{fitted_server}/enquiry/2/offer")
    expect(page.locator("#free0_text")).to_have_value("Launching at the slip")
    expect(page.locator(".typed-before")).to_contain_text("is back")
    page.get_by_role("button", name="Discard it").click()
    expect(page.locator("#free0_text")).to_have_value(before)
    page.reload()
    expect(page.locator("#free0_text")).to_have_value(before)
