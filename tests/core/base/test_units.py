"""Reading what people type, and showing it again."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolvek.core.base import typed_figures, units


@pytest.mark.parametrize(
    ("text", "quantity", "unit", "si"),
    [
        ("11 ft 7", "length", "m", 3.5306),
        ("11'7\"", "length", "m", 3.5306),
        ("3,55 m", "length", "ft", 3.55),
        ("3.55m", "length", "m", 3.55),
        ("3 m 55", "length", "m", 3.55),
        ("7 1/2 in", "length", "m", 0.1905),
        ("381 mm", "length", "m", 0.381),
        ("30 lb", "mass", "kg", 13.60777),
        ("11 st 4", "mass", "kg", 71.668),
        ("4 kn", "speed", "km/h", 2.05778),
        ("7.5 km/h", "speed", "kn", 2.08333),
        ("1.5 hp", "power", "W", 1118.55),
        ("1 200", "power", "W", 1200),
        ("1.1 kW", "power", "W", 1100),
        ("70 lbf", "thrust", "N", 311.376),
        ("2 h 30", "duration", "h", 9000),
        ("20", "share", "%", 0.2),
        ("20 %", "share", "%", 0.2),
        ("-3", "speed", "kn", -1.54333),
        (".5", "length", "m", 0.5),
    ],
)
def test_reads_as_people_type(text, quantity, unit, si):
    assert typed_figures.parse(text, quantity, unit) == pytest.approx(si, rel=1e-4)


@pytest.mark.parametrize(
    ("text", "quantity"),
    [
        ("abc", "length"),
        ("", "length"),
        ("3 kg", "length"),
        ("3 4", "mass"),
        ("1/0", "length"),
        ("--3", "mass"),
        ("nan", "mass"),
        ("1e5000", "mass"),
        ("5 ft -3", "length"),
        ("3,4,5", "length"),
        ("3.4.5", "mass"),
    ],
)
def test_refuses_and_says_what_was_read_and_gives_an_example(text, quantity):
    with pytest.raises(typed_figures.NotAQuantity, match="read “.*” *; expected"):
        typed_figures.parse(text, quantity, "m" if quantity == "length" else "kg")


@given(
    st.floats(0.01, 1e5),
    st.sampled_from(
        [(q, u) for q, row in units.QUANTITIES.items() for u in row.shown if u and q != "length"]
    ),
)
def test_unit_round_trip(value, choice):
    quantity, unit = choice
    typed = f"{units.to_unit(value, quantity, unit):.12g} {unit}"
    if "e" not in typed:
        assert typed_figures.parse(typed, quantity, unit) == pytest.approx(value, rel=1e-9)


@given(st.integers(12, 600))
def test_feet_and_inches_round_trip(inches):
    assert typed_figures.parse(
        units.show(inches * 0.0254, "length", "ft"), "length", "m"
    ) == pytest.approx(inches * 0.0254)


def test_figures_are_shown_with_a_thin_space_and_no_minus_zero():
    assert units.show(12345.0, "power", "W") == "12\u202f345"
    assert units.show(-0.0001, "speed", "kn") == "0.0"


@pytest.mark.parametrize(
    ("seconds", "text"), [(5999, "1:39"), (6000, "1:40"), (None, "–"), (1e9, "> 999 h")]
)
def test_hours_round_down(seconds, text):
    assert units.hours(seconds) == text
