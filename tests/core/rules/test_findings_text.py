"""How findings are written: a figure that misses its limit never reads the same as it."""

import pytest

from jolvek.core.rules.findings import find, say


@pytest.mark.parametrize(
    ("rule", "figure", "limit", "told"),
    [
        ("below-reserve", 19.6, 20.0, "19.6 %; 20.0 %"),
        ("below-reserve", 12.2, 20.0, "12 %; 20 %"),
        ("speed-missed", 1.791, 1.801, "3.48\u00a0kn at best; 3.50\u00a0kn"),
        ("speed-missed", 1.5, 1.801, "2.9\u00a0kn at best; 3.5\u00a0kn"),
    ],
)
def test_a_figure_beside_its_limit_shows_as_many_decimals_as_tell_them_apart(
    rule, figure, limit, told
):
    assert told in say(find(rule, figure, limit), {"speed": "kn"}).text


def test_what_differs_by_next_to_nothing_ends_in_some_decimals():
    assert "20.00 %; 20.00 %" in find("below-reserve", 19.999999, 20.0).text
