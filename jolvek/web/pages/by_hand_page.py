"""What a setup put together by hand does, what is to be said of it, and what pinning would send."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.electric.bank import layout
from jolvek.core.fit.fitted import Fitted
from jolvek.core.rules.findings import Finding
from jolvek.web.view.display import Units, long_hours, money


@dataclass(frozen=True)
class ByHandPage:
    """The answer, the findings, and the form to pin it."""

    answer: str
    findings: list[Finding]
    pin: dict[str, str]


def by_hand_page(f: Fitted, u: Units) -> ByHandPage:
    """One setup judged."""
    p = f.performance
    at = p.at_speed(min(f.need.day.speed_m_s, p.top_speed_m_s))
    runs = at.reason
    if at.runtime_s is not None and at.range_m is not None:
        runs = f"*{u.full(at.range_m, 'distance')}*"
    time = f" for *{long_hours(at.runtime_s)}*" if at.runtime_s is not None else ""
    return ByHandPage(
        f"{f.motor.title} with {layout(f.bank)}: *{u.full(at.speed_m_s, 'speed')}*{time}, {runs};"
        f" top {u.full(p.top_speed_m_s, 'speed')}. *{money(f.price)}*.",
        f.findings,
        {
            "motor": f.motor.id,
            "battery": f.battery.id,
            "mount": f.mount.id,
            "charger": f.charger.id if f.charger else "",
            "series": str(f.series),
            "parallel": str(f.parallel),
            "shaft_m": str(f.shaft_m or ""),
        },
    )
