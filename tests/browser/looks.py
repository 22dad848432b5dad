"""How a page is looked at: at three widths and in both themes."""

from axe_playwright_python.sync_playwright import Axe

WIDTHS = (320, 390, 768, 1280)
# Contrast of text on the nearest ground behind it: 4.5, or 3 for large text (WCAG 2.2, 1.4.3).
# Quick where axe takes seconds; disabled controls are exempt as there.
FAINT = """() => {
  const parts = (c) => (c.match(/[\\d.]+/g) || []).map(Number);
  const light = (c) => {
    const [r, g, b] = c.map((v) => v / 255)
      .map((v) => v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const ground = (e) => {
    for (; e; e = e.parentElement) {
      const c = parts(getComputedStyle(e).backgroundColor);
      if (c.length === 3 || c[3] === 1) return c.slice(0, 3);
    }
    return [255, 255, 255];
  };
  const found = new Set();
  for (const e of document.querySelectorAll('body *:not(svg *)')) {
    const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim());
    if (!own || !e.checkVisibility() || e.closest(':disabled, [aria-disabled=true]')) continue;
    const s = getComputedStyle(e), size = parseFloat(s.fontSize);
    const [a, b] = [light(parts(s.color)), light(ground(e))].sort((x, y) => y - x);
    const large = size >= 24 || (size >= 18.66 && s.fontWeight >= 700);
    const ratio = (a + 0.05) / (b + 0.05);
    if (ratio < (large ? 3 : 4.5)) found.add(`${e.tagName}.${e.className} ${ratio.toFixed(2)}`);
  }
  return [...found];
}"""


AXE = {"rules": {"color-contrast": {"enabled": False}}, "resultTypes": ["violations"]}


def no_violations(page):
    """axe without contrast, which FAINT looks at in both themes."""
    result = Axe().run(page, options=AXE)
    assert result.violations_count == 0, result.generate_report()


def fits_and_reads(page, address):
    """No width scrolls sideways, axe finds nothing, and text reads in both themes."""
    page.emulate_media(color_scheme="light")
    page.goto(address)
    for width in WIDTHS:
        page.set_viewport_size({"width": width, "height": 800})
        assert page.evaluate("document.documentElement.scrollWidth") <= width
    no_violations(page)
    reads(page)


def reads(page):
    """Text reads in both themes."""
    for scheme in ("light", "dark"):
        page.emulate_media(color_scheme=scheme)
        faint = page.evaluate(FAINT)
        assert faint == [], f"{scheme}: {faint}"
