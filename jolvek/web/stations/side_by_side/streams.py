"""The table of streams on Side by side: what each setting of the setup in hand makes good."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.base.units import hours as clock
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.streams import HeldPlace, against_streams, settings_w
from jolvek.web.kit.display import Units

NAMES = (msg("full"), msg("half"), msg("lowest"), msg("at the cursor"))
NOT = msg("does not hold")


@dataclass(frozen=True)
class StreamRow:
    """One stream in shown units: per setting the speed over ground and the hours it lasts."""

    stream: str
    settings: tuple[tuple[str, str], ...]
    hold: str


@dataclass(frozen=True)
class Streams:
    """The table: its columns with their powers, and its rows."""

    columns: tuple[tuple[str, str], ...]
    rows: tuple[StreamRow, ...]


def streams_panel(p: Performance, chosen_w: float | None, u: Units) -> Streams:
    """For streams of 0 to 3 kn against it."""

    def cell(x: HeldPlace) -> tuple[str, str]:
        if not x.holds:
            return NOT, ""
        return u.number(x.ground_m_s, "speed"), clock(x.runtime_s)

    powers = settings_w(p, chosen_w)
    rows = (
        StreamRow(
            u.number(row.stream_m_s, "speed"),
            tuple(cell(x) for x in row.settings),
            "–" if row.hold_w is None else u.number(row.hold_w, "power"),
        )
        for row in against_streams(p, chosen_w)
    )
    columns = tuple((n, str(u.full(w, "power"))) for n, w in zip(NAMES, powers, strict=False))
    return Streams(columns, tuple(rows))
