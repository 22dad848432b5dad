"""Day out and Fitting under the hand: the wind after lunch, a leg dragged, a battery dragged,
labels that keep clear.
"""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.looks import fits_and_reads
from tests.browser.test_whole_job import pin_two

PAGES = [
    "day-out",
    "day-out?wind=18&from=9:30&all=1",
    "fitting",
    "fitting?tab=wiring&load=3",
    "fitting?tab=sheet",
    "fitting?tab=mounts",
]
OVERLAPS = """(root) => {
  const found = [];
  for (const svg of document.querySelectorAll(root)) {
    const shown = [...svg.querySelectorAll('text')].filter((t) => t.textContent.trim());
    const texts = shown.map((t) => [t.textContent, t.getBoundingClientRect()]);
    const frame = svg.getBoundingClientRect();
    texts.forEach(([a, x], i) => {
      if (x.left < frame.left - 1 || x.right > frame.right + 1)
        found.push(`${a} leaves the picture`);
      texts.slice(i + 1).forEach(([b, y]) => {
        const w = Math.min(x.right, y.right) - Math.max(x.left, y.left);
        const h = Math.min(x.bottom, y.bottom) - Math.max(x.top, y.top);
        if (w > 2 && h > 3) found.push(`${a} over ${b}`);
      });
    });
  }
  return found;
}"""


@pytest.fixture
def ready(page, server):
    for number in (1, 2, 3, 4, 5, 6):
        page.goto(f"{server}/enquiry/{number}/side-by-side")
        if page.get_by_text("Nothing is pinned yet").count():
            pin_two(page, server, number)
    return page


def test_does_she_get_home_when_the_wind_gets_up_is_answered_in_three_clicks(ready, server):
    page = ready
    page.goto(f"{server}/enquiry/2/day-out")
    before = page.locator("#day .answer").inner_text()
    page.locator("#from").fill("9:15")
    page.locator("#wind").fill("22")
    expect(page.locator("#day .answer")).not_to_have_text(before)
    expect(page.locator("#day .basis").first).to_contain_text("the wind takes")
    page.locator("#wind").focus()
    page.keyboard.press("Home")
    expect(page.locator("#day .basis").first).not_to_contain_text("the wind takes")


def test_a_leg_is_dragged_faster(ready, server):
    page = ready
    page.goto(f"{server}/enquiry/3/day-out")
    before = float(page.locator("#v1").input_value())
    box = page.locator(".legband[data-leg='1'] rect").bounding_box()
    page.mouse.move(box["x"] + 30, box["y"] + 100)
    page.mouse.down()
    page.mouse.move(box["x"] + 30, box["y"] + 60, steps=4)
    page.mouse.up()
    assert float(page.locator("#v1").input_value()) > before
    expect(page).to_have_url(re.compile(r"v1="))


def test_a_battery_is_dragged_and_trim_follows(ready, server):
    page = ready
    page.goto(f"{server}/enquiry/2/fitting")
    before = page.locator("#fitting dd").first.inner_text()
    box = page.locator(".weight[data-weight^='battery'] rect").first.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 + 90, box["y"] + box["height"] / 2, steps=4)
    page.mouse.up()
    expect(page.locator("#fitting dd").first).not_to_have_text(before)
    expect(page.locator("#fitting .answer")).to_contain_text("before the move")


@pytest.mark.parametrize("path", PAGES)
def test_widths_themes_and_axe(ready, server, path):
    fits_and_reads(ready, f"{server}/enquiry/4/{path}")


@pytest.mark.parametrize("width", [390, 1280])
def test_no_label_lies_on_another_for_any_demo_boat(ready, server, width):
    page = ready
    page.set_viewport_size({"width": width, "height": 800})
    for number in (1, 2, 3, 4, 5, 6):
        for path, root in (
            ("fitting", ".leg-view, .weights-view"),
            ("fitting?tab=wiring", ".wiring"),
            ("day-out", ".day, .strip"),
        ):
            page.goto(f"{server}/enquiry/{number}/{path}")
            assert page.evaluate(OVERLAPS, root) == [], f"enquiry {number}, {path}"
