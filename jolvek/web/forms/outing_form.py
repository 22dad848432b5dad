"""What Day out's address asks: what may come otherwise, speeds of legs, and when to be home."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from jolvek.core.base import units
from jolvek.core.day.otherwise import Switches
from jolvek.core.enquiry.need import MOST_LEGS
from jolvek.web.view.display import Units

WIND_FROM_H = 13.0
HEAVIER, AGED, COLD_C = 0.15, 0.2, 2.0
MOST_WIND_M_S, MOST_STREAM_M_S = 30.0, 6.0
SWITCH_WORDS = {
    "heavier": f"{HEAVIER:.0%} heavier".replace("%", " %"),
    "foul": "foul bottom",
    "aged": f"battery {AGED:.0%} aged".replace("%", " %"),
    "cold": f"battery at {COLD_C:.0f} °C",
    "spare": "a spare battery aboard",
    "all": "all pinned setups",
    "sim": "simulated tide and wind",
}


@dataclass(frozen=True)
class Asked:
    """Switches, spare, simulated weather, speeds of legs (m/s by number), hours to arrive in; what
    was refused by field.
    """

    switches: Switches
    spare: bool
    simulated: bool
    everyone: bool
    speeds: dict[int, float]
    arrive_h: float | None
    refused: dict[str, str]


def asked_from(args: Mapping[str, str], u: Units) -> Asked:
    """Read the address; what cannot be read is told beside its field."""
    refused: dict[str, str] = {}

    def figure(key: str, quantity: str, low: float, high: float) -> float | None:
        text = args.get(key, "").strip()
        if not text:
            return None
        try:
            value = units.parse(text, quantity, u[quantity])
        except units.NotAQuantity as error:
            refused[key] = str(error)
            return None
        if not low <= value <= high:
            allowed = f"{u.full(low, quantity)} to {u.full(high, quantity)}"
            refused[key] = f"read “{text}”; allowed is {allowed}"
            return None
        return value

    wind = figure("wind", "speed", 0, MOST_WIND_M_S)
    hour = figure("from", "clock", 0, 24)
    stream = figure("stream", "speed", 0, MOST_STREAM_M_S)
    numbers = range(1, MOST_LEGS + 1)
    speeds = {i: v for i in numbers if (v := figure(f"v{i}", "speed", 0.2, 20)) is not None}
    switches = Switches(
        wind if args.get("wind_on") or wind else None,
        WIND_FROM_H if hour is None else hour,
        "out" if args.get("against") == "out" else "home",
        stream or 0.0,
        HEAVIER if args.get("heavier") else 0.0,
        "weed" if args.get("foul") else "",
        AGED if args.get("aged") else 0.0,
        COLD_C if args.get("cold") else None,
    )
    on = {key: bool(args.get(key)) for key in ("spare", "sim", "all")}
    arrive = figure("arrive", "duration", 300, 400 * 3600)
    hours = arrive / 3600 if arrive else None
    return Asked(switches, on["spare"], on["sim"], on["all"], speeds, hours, refused)
