"""What WCAG 2.2 asks beyond axe: focus, keys, reflow, spacing, colours, motion, headings, targets.
Each test says its criterion; docs/accessibility.md says what was looked at by hand.
"""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import serving
from tests.browser.looks import no_violations

PAGES = (
    "/",
    "/enquiry/2/boat",
    "/enquiry/2/waters",
    "/enquiry/9/shortlist",
    "/enquiry/9/side-by-side",
    "/enquiry/9/day-out",
    "/enquiry/9/fitting",
    "/enquiry/9/offer",
    "/enquiry/9/handover",
    "/enquiry/14/trial",
    "/enquiry/14/aftercare",
    "/catalogue/",
    "/care",
    "/care/fleet",
    "/assortment",
    "/rules",
)


@pytest.fixture(scope="module")
def dealer(tmp_path_factory, working):
    with serving(tmp_path_factory.mktemp("everyone"), working) as root:
        yield root


# what has the focus: its ring, whether it lies on the screen, and whether something covers it
FOCUSED = """() => {
  const e = document.activeElement;
  if (!e || e === document.body) return null;
  const s = getComputedStyle(e), b = e.getBoundingClientRect();
  const about = e.closest('.family') || e;
  const ring = Math.max(parseFloat(s.outlineWidth) || 0,
    parseFloat(getComputedStyle(about).outlineWidth) || 0);
  const seen = b.bottom > 0 && b.top < innerHeight && b.width > 0;
  const x = Math.min(Math.max(b.left + b.width / 2, 1), innerWidth - 2);
  const y = Math.min(Math.max(b.top + b.height / 2, 1), innerHeight - 2);
  const top = document.elementFromPoint(x, y);
  const free = top && (e.contains(top) || top.contains(e) || top.closest('label')?.contains(e));
  return {what: e.outerHTML.slice(0, 90), ring, seen, free: !!free, id: e.id || e.outerHTML};
}"""


@pytest.mark.parametrize("path", ["/enquiry/9/shortlist", "/care/fleet"])
def test_the_focus_has_a_ring_and_is_never_covered(page, dealer, path):
    """2.4.7, 2.4.11 and 2.4.13: each stop of the tab key, to the page's end."""
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(dealer + path)
    page.locator("body").press("Tab")
    seen = set()
    for _ in range(150):
        now = page.evaluate(FOCUSED)
        if now is None or now["id"] in seen:
            break
        seen.add(now["id"])
        assert now["ring"] >= 3 and now["seen"] and now["free"], now
        page.keyboard.press("Tab")
    assert len(seen) > 12


def test_single_keys_can_be_switched_off_and_never_act_from_a_field(page, dealer):
    """2.1.4: radio, tick box, select and field keep their keys; a switch for all of it."""
    page.goto(f"{dealer}/enquiry/2/boat")
    for kind in ("input[type=radio]", "input[type=checkbox]:visible", "select", "input.input"):
        page.locator(f"main {kind}").first.focus()
        page.keyboard.press("3")
        page.wait_for_timeout(60)
        assert page.url.endswith("/boat"), kind
    page.locator(".keys summary").click()
    page.get_by_label("These keys act").uncheck()
    page.goto(f"{dealer}/enquiry/2/boat")
    page.locator("h1, .answer").first.click()
    page.keyboard.press("3")
    page.wait_for_timeout(150)
    assert page.url.endswith("/boat")
    page.locator(".keys summary").click()
    page.get_by_label("These keys act").check()
    page.locator(".keys summary").click()
    page.locator("main").focus()
    page.keyboard.press("3")
    page.wait_for_url("**/shortlist")


SPACED = """* { line-height: 1.5 !important; letter-spacing: .12em !important;
  word-spacing: .16em !important } p { margin-bottom: 2em !important }"""
CUT = """() => [...document.querySelectorAll('main .button, main label, main th, main h1, main h2')]
  .filter((e) => e.checkVisibility() && e.scrollWidth > e.clientWidth + 2
    && getComputedStyle(e).overflow !== 'visible').map((e) => e.outerHTML.slice(0, 80))"""
ADOPT = """(css) => { const s = new CSSStyleSheet(); s.replaceSync(css);
  document.adoptedStyleSheets = [s]; }"""
LEVELS = """() => [...document.querySelectorAll('h1,h2,h3,h4,h5,h6')]
  .filter((e) => e.checkVisibility()).map((e) => Number(e.tagName[1]))"""
UNNAMED = """() => [...document.querySelectorAll('main svg')].filter((e) => e.checkVisibility()
  && !e.closest('[aria-hidden=true]') && e.getAttribute('aria-hidden') !== 'true'
  && !e.getAttribute('aria-label') && !e.querySelector('title')
  && !e.closest('[aria-label], button, a, label')).map((e) => e.outerHTML.slice(0, 90))"""


# every run looks at those that hold most; `pytest -m thorough` at all
EACH_RUN = ("/", "/enquiry/9/shortlist", "/enquiry/9/fitting", "/enquiry/9/offer", "/assortment")
AT_TIMES = [
    path if path in EACH_RUN else pytest.param(path, marks=pytest.mark.thorough) for path in PAGES
]


@pytest.mark.parametrize("path", AT_TIMES)
def test_a_page_reflows_takes_wider_spacing_and_has_its_headings(page, dealer, path):
    """1.4.4, 1.4.10, 1.4.12 (400 % of 1280 is 320 wide), 1.3.1 and 2.4.6, 1.1.1."""
    page.set_viewport_size({"width": 320, "height": 800})
    page.goto(dealer + path)
    for width in (320, 640):
        page.set_viewport_size({"width": width, "height": 800})
        assert page.evaluate("document.documentElement.scrollWidth") <= width, width
    levels = page.evaluate(LEVELS)
    assert levels.count(1) == 1, levels
    assert all(b - a <= 1 for a, b in zip(levels, levels[1:], strict=False)), levels
    assert page.evaluate(UNNAMED) == []
    page.set_viewport_size({"width": 320, "height": 800})
    page.evaluate(ADOPT, SPACED)  # a style element would break the page's policy
    assert page.evaluate("document.documentElement.scrollWidth") <= 320
    assert page.evaluate(CUT) == []


def test_nothing_moves_where_the_system_asks_for_calm(page, dealer):
    """2.3.3: no transition, no animation."""
    page.emulate_media(reduced_motion="reduce")
    moving = """() => [...document.querySelectorAll('*')].filter((e) => {
      const s = getComputedStyle(e);
      return s.animationName !== 'none' || s.transitionDuration.split(', ').some(
        (t) => parseFloat(t) > 0 && s.transitionProperty !== 'none');
    }).map((e) => e.outerHTML.slice(0, 80))"""
    for path in ("/", "/enquiry/9/side-by-side", "/enquiry/9/fitting"):
        page.goto(dealer + path)
        assert page.evaluate(moving) == []


def test_in_forced_colours_lines_and_rings_take_the_systems(page, dealer):
    """1.4.11 and 2.4.7 where the system sets the colours."""
    page.emulate_media(forced_colors="active")
    try:
        page.goto(f"{dealer}/enquiry/9/side-by-side")
        message = """() => {
          const probe = (c) => { const e = document.createElement('i');
            e.style.color = c; document.body.append(e);
            const v = getComputedStyle(e).color; e.remove(); return v; };
          const grid = document.querySelector('.chart .grid');
          return [getComputedStyle(grid).stroke, probe('CanvasText')];
        }"""
        line, text = page.evaluate(message)
        assert line == text
        page.locator("body").press("Tab")
        assert page.evaluate(FOCUSED)["ring"] >= 3
    finally:
        page.emulate_media(forced_colors="none")


SMALL = """(least) => [...document.querySelectorAll('button, a.button, summary, main select,'
  + 'main input:not([type=hidden])')].filter((e) => e.checkVisibility()).map((e) => {
    const about = e.matches('[type=radio], [type=checkbox]') ? e.closest('label') || e : e;
    const b = about.getBoundingClientRect();
    return [Math.round(Math.min(b.width, b.height)), e.outerHTML.slice(0, 80)];
  }).filter(([size]) => size && size < least)"""


def test_targets_are_large_enough_for_a_finger(browser, dealer):
    """2.5.8: 24 px everywhere by a coarse pointer; buttons 44."""
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    phone = context.new_page()
    for path in ("/", "/enquiry/9/shortlist", "/enquiry/14/aftercare", "/care/fleet"):
        phone.goto(dealer + path)
        assert phone.evaluate(SMALL, 24) == [], path
        low = (
            "(least) => [...document.querySelectorAll('main .button')].filter((e) =>"
            " e.checkVisibility() && e.getBoundingClientRect().height < least).length"
        )
        assert phone.evaluate(low, 43.5) == 0, path
    context.close()


def test_a_primary_button_is_read_in_forced_colours(browser, dealer):
    context = browser.new_context(forced_colors="active", viewport={"width": 390, "height": 844})
    page = context.new_page()
    page.goto(f"{dealer}/enquiry/9/handover")
    style = "(e) => { const s = getComputedStyle(e); return [s.color, s.backgroundColor]; }"
    colour, ground = page.locator(".foot-bar .is-primary").evaluate(style)
    plain = page.locator("form.serial button").first.evaluate(style)
    assert colour != ground and colour == plain[0]
    context.close()


def test_a_refused_field_is_tied_to_its_words(page, dealer):
    """3.3.1: what is wrong is told at the field, by its description or as an alert."""
    page.goto(f"{dealer}/enquiry/14/aftercare")
    page.get_by_text("Add a trip").click()
    page.get_by_label("Under way, as 2 h 30 min").fill("much")
    page.get_by_role("button", name="Log this trip").click()
    field = page.get_by_label("Under way, as 2 h 30 min")
    expect(field).to_have_attribute("aria-invalid", "true")
    result = page.locator(f"#{field.get_attribute('aria-describedby')}")
    expect(result).to_contain_text("read “much”")
    expect(page.locator(".flash")).to_have_count(0)
    page.get_by_label("Under way, as 2 h 30 min").fill("1 h")
    page.get_by_role("button", name="Log this trip").click()
    page.get_by_role("button", name="Done").first.click()
    expect(page.get_by_role("status").filter(has_text="Noted")).to_be_visible()


@pytest.mark.thorough
@pytest.mark.parametrize("path", PAGES)
@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_axe_finds_nothing_at_any_width(page, dealer, path, scheme):
    """Every page at 320, 390, 768 and 1280, light and dark."""
    page.emulate_media(color_scheme=scheme)
    page.goto(dealer + path)
    for width in (320, 390, 768, 1280):
        page.set_viewport_size({"width": width, "height": 800})
        no_violations(page)
