"""Which keyboard a phone shows for a field: numbers where only a number is meant; letters where a
unit may be typed: 12 ft 6, or 2 h 30 min.
"""

from __future__ import annotations

import re

WHOLE = re.compile(r"^(people|rpm|instalments|valid_days|follow_days|count|in_stock|y_years)$")
DECIMAL = re.compile(
    r"^(power|speed|volts|people_kg|gear_kg|wind_m_s|depth_m|start_charge|end_charge|used_wh|drop_v"
    r"|charge_from|charge_to|energy_wh|temperature_c|plug_wh|cost|buying|budget|discount|deposit"
    r"|free\d+_(quantity|price|discount|tax)|off_.*|y_.*|code)$"
)
LETTERS = ("length", "time", "distance", "clock")  # quantities that people type with a unit


def keyboard(name: str) -> str:
    """For a field of that name.

    >>> keyboard("rpm"), keyboard("free0_price"), keyboard("note")
    ('numeric', 'decimal', 'text')
    """
    return "numeric" if WHOLE.match(name) else "decimal" if DECIMAL.match(name) else "text"


def keyboard_of(quantity: str) -> str:
    """For a field of that quantity, whose unit stands beside it.

    >>> keyboard_of("count"), keyboard_of("mass"), keyboard_of("length")
    ('numeric', 'decimal', 'text')
    """
    return "numeric" if quantity == "count" else "text" if quantity in LETTERS else "decimal"
