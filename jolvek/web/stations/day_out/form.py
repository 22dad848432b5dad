"""What Day out's address asks: what may come otherwise, speeds of legs, and when to be home."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.day.scenario import Switches
from jolvek.core.enquiry.need import MOST_LEGS, Day
from jolvek.core.hydro.hull import Hull
from jolvek.core.predict.setup import RANGES
from jolvek.web.kit.display import Units
from jolvek.web.kit.fields.reader import Reader

WIND_FROM_H = 13.0
HEAVIER, AGED, COLD_C = 0.15, 0.2, 2.0
MOST_WIND_M_S, MOST_STREAM_M_S = 30.0, 6.0
SWITCH_WORDS = {
    "heavier": msg("%(share)s %% heavier", share=f"{100 * HEAVIER:.0f}"),
    "aged": msg("battery %(share)s %% aged", share=f"{100 * AGED:.0f}"),
    "cold": msg("battery at %(cold_c)s °C", cold_c=f"{COLD_C:.0f}"),
    "spare": msg("a spare battery aboard"),
    "all": msg("all pinned setups"),
    "sim": msg("simulated tide and wind"),
}


MOST_FETCH_M = 200_000.0


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
    read = Reader(args, u)
    wind = read.figure("wind", "speed", 0, MOST_WIND_M_S)
    hour = read.figure("from", "clock", 0, 24)
    stream = read.figure("stream", "speed", 0, MOST_STREAM_M_S)
    start = read.figure("charge", "share", *Day.RANGES["start_charge"])
    fetch = read.figure("fetch", "distance", 0, MOST_FETCH_M)
    depth = read.figure("depth", "length", *RANGES["depth_m"])
    tow = read.figure("tow", "length", *RANGES["tow_length_m"])
    months = read.figure("months", "count", *Hull.RANGES["months_afloat"])
    arrive = read.figure("arrive", "duration", 300, 400 * 3600)
    speeds = {i: read.figure(f"v{i}", "speed", 0.2, 20) for i in range(1, MOST_LEGS + 1)}
    switches = Switches(
        wind if args.get("wind_on") or wind else None,
        WIND_FROM_H if hour is None else hour,
        "out" if args.get("against") == "out" else "home",
        stream or 0.0,
        HEAVIER if args.get("heavier") else 0.0,
        months,
        aged=AGED if args.get("aged") else 0.0,
        temperature_c=COLD_C if args.get("cold") else None,
        start_charge=start,
        fetch_m=fetch or 0.0,
        depth_m=depth,
        tow_length_m=tow,
    )
    return Asked(
        switches,
        bool(args.get("spare")),
        bool(args.get("sim")),
        bool(args.get("all")),
        {i: v for i, v in speeds.items() if v is not None},
        arrive / 3600 if arrive else None,
        refused=read.refused,
    )
