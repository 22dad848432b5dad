"""The phone: installed, read again without connection, its lean as the transom's rake."""

import json
import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import serving
from tests.web.steps import STATIONS

SIZE = {"width": 390, "height": 844}


@pytest.fixture(scope="module")
def dealer(tmp_path_factory, working):
    with serving(tmp_path_factory.mktemp("phone"), working) as root:
        yield root


@pytest.fixture
def phone(browser):
    context = browser.new_context(viewport=SIZE, has_touch=True, service_workers="allow")
    yield context
    context.close()


def test_it_can_be_installed(page, dealer):
    page.goto(dealer)
    way = page.locator("link[rel=manifest]").get_attribute("href")
    result = page.request.get(dealer + way)
    assert result.headers["content-type"].startswith("application/manifest+json")
    manifest = json.loads(result.body())
    assert manifest["display"] == "standalone" and manifest["start_url"] == "/"
    sizes = {icon["sizes"]: page.request.get(dealer + icon["src"]) for icon in manifest["icons"]}
    assert set(sizes) == {"192x192", "512x512"}
    assert all(x.ok and x.headers["content-type"] == "image/png" for x in sizes.values())


def test_a_page_that_was_open_is_read_without_connection_until_another_comes_in(phone, dealer):
    page = phone.new_page()
    page.goto(f"{dealer}/enquiry/14/aftercare")
    page.evaluate("navigator.serviceWorker.ready")
    page.wait_for_function("navigator.serviceWorker.controller !== null")
    page.goto(f"{dealer}/enquiry/14/aftercare")  # through the worker
    expect(page.locator("#offline")).to_be_hidden()
    phone.set_offline(True)
    page.goto(f"{dealer}/enquiry/14/aftercare")
    page.get_by_role("link", name="Owner", exact=True).tap()
    expect(page.get_by_role("heading", name="Owner: Ferrowick Sailing")).to_be_visible()
    expect(page.locator("#offline")).to_contain_text("this is the page as it was at")
    page.goto(f"{dealer}/enquiry/9/handover")
    expect(page.locator("h1")).to_have_text("No connection")
    phone.set_offline(False)
    page.goto(dealer)
    page.get_by_role("button", name="reader").click()
    expect(page.locator(".demo-bar")).to_contain_text(", reader.")
    page.wait_for_function("caches.has('jolvek-pages').then((x) => !x)")
    phone.set_offline(True)
    page.goto(f"{dealer}/enquiry/14/aftercare")
    expect(page.locator("h1")).to_have_text("No connection")


def test_the_head_of_a_page_leaves_the_screen_to_its_answer(phone, dealer):
    page = phone.new_page()
    for path in ("/care/fleet", "/enquiry/14/aftercare"):
        page.goto(dealer + path)
        assert page.locator("header").bounding_box()["height"] < 90, path


def saves(answer):
    """It saves itself; what it answers while one types is another request."""
    return answer.request.method == "POST" and not answer.url.endswith("/answer")


def test_the_lean_of_the_phone_is_rake_and_trim_and_a_hand_that_shakes_is_refused(phone, dealer):
    page = phone.new_page()
    page.add_init_script("DeviceOrientationEvent.requestPermission = async () => 'granted'")
    page.goto(f"{dealer}/enquiry/2/boat")
    button = page.get_by_role("button", name=re.compile("Rake from the phone"))
    expect(button).to_be_visible()
    send = """(values) => values.forEach((beta) => window.dispatchEvent(
      new DeviceOrientationEvent('deviceorientation', {beta})))"""
    button.tap()
    page.wait_for_timeout(100)
    page.evaluate(send, [70 + 3 * (i % 2) for i in range(12)])
    result = page.locator("[data-lean-told]").first
    expect(result).to_contain_text("not still")
    button.tap()
    page.wait_for_timeout(100)
    with page.expect_response(saves):
        page.evaluate(send, [76.0 + 0.1 * (i % 3) for i in range(12)])
    expect(result).to_contain_text("Taken: 13.9°")
    expect(page.get_by_label("Rake", exact=True)).to_have_value("13.9")
    page.reload()
    expect(page.get_by_label("Rake", exact=True)).to_have_value(re.compile("^13.9|^14"))
    page.goto(f"{dealer}/enquiry/9/fitting")
    page.get_by_role("button", name=re.compile("Trim from the phone")).tap()
    page.wait_for_timeout(100)
    with page.expect_response(saves):
        page.evaluate(send, [-1.2 - 0.1 * (i % 3) for i in range(12)])
    page.reload()
    expect(page.get_by_label("Trim as measured")).to_have_value("-1.3")
    expect(page.locator(".fit-side figcaption")).to_contain_text("1.3° by the bow")
    expect(page.locator("#fitting")).to_contain_text("more by the bow")
    assert page.evaluate("document.documentElement.scrollWidth") <= SIZE["width"]
    words = page.locator(".leg-view text, .weights-view text").all()
    assert min(x.bounding_box()["height"] for x in words) > 11


@pytest.mark.parametrize("station", ("side-by-side", "day-out", "fitting", "aftercare"))
def test_the_head_takes_little_of_the_screen_and_its_line_opens_on_the_boat(phone, dealer, station):
    """Menu, job and stations: at most 120 px of 844, the demo's own bar aside."""
    page = phone.new_page()
    page.goto(f"{dealer}/enquiry/9/{station}")
    bar = page.locator(".demo-bar").bounding_box()["height"]
    assert page.locator("main").bounding_box()["y"] - bar <= 120
    answer = page.locator("main .answer").first.bounding_box()
    assert answer["y"] < SIZE["height"] / 2
    assert not page.locator("#boat-card").is_visible()
    page.locator("#job-bar > summary").tap()
    expect(page.locator("#boat-card")).to_contain_text("Draught")
    page.get_by_role("button", name="Menu").tap()
    expect(page.get_by_role("link", name="Counter")).to_be_visible()


NARROW, COUNTER = {"width": 320, "height": 700}, {"width": 1280, "height": 800}
TABS = ("fitting?tab=sheet", "fitting?tab=wiring", "fitting?tab=mounts")


@pytest.mark.parametrize("size", (SIZE, NARROW, COUNTER), ids=("phone", "narrow", "counter"))
def test_longer_words_of_another_language_hide_nothing(browser, tmp_path, working, size):
    """No page moves sideways in German, and the buttons that keep a setup are on the screen."""
    with serving(tmp_path, working) as root:
        context = browser.new_context(viewport=size)
        page = context.new_page()
        page.goto(root)
        if size is not COUNTER:
            page.get_by_role("button", name="Menu").click()
        page.locator("details.units summary").click()
        page.locator("details.units select[name=language]").select_option("de")
        page.locator("details.units button").click()
        expect(page.locator("html")).to_have_attribute("lang", "de")
        for station in (*STATIONS, *TABS, "handover", "trial", "aftercare"):
            page.goto(f"{root}/enquiry/5/{station}")
            wide = page.evaluate("document.documentElement.scrollWidth")
            assert wide <= size["width"], (station, wide)
        page.goto(f"{root}/enquiry/5/shortlist")
        buttons = page.locator("#list button").all()
        right = max(b["x"] + b["width"] for x in buttons if (b := x.bounding_box()))
        assert right <= size["width"]
        context.close()
