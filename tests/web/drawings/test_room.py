"""A chart is drawn for the screen that it is read on."""

import re

import pytest


def drawn(page, name):
    return float(re.search(rf'<svg[^>]*\bviewBox="0 0 ([\d.]+) [^>]*\bid="{name}"', page)[1])


@pytest.mark.parametrize(
    ("path", "name", "wide"),
    [("side-by-side", "chart", 570), ("day-out", "day-chart", 900), ("shortlist", "field", 900)],
)
def test_a_narrow_screen_gets_a_chart_of_its_own_width(fitted, path, name, wide):
    way = f"/enquiry/2/{path}"
    assert drawn(fitted.get(way).text, name) == wide
    fitted.set_cookie("narrow", "1")
    assert drawn(fitted.get(way).text, name) == 358
