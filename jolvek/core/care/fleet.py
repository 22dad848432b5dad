"""Many boats of one place: which is charged when for tomorrow's bookings from one supply, and what
an hour of a boat costs.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.messages import msg
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.charging import CHARGER_EFFICIENCY, Charger, together_h

FULL_SOC = 0.99  # a charge ends here, as in charge_time_h


@dataclass(frozen=True)
class ToCharge:
    """A boat that is booked: her bank as it is now (its capacity with its age), charger, charge
    now, the charge that the booking takes with the reserve, and the hour of the day it begins.
    """

    RANGES: ClassVar[checked.Ranges] = {"soc": (0, 1), "needed": (0, 50), "leaves_h": (0, 48)}

    name: str
    bank: Bank
    charger: Charger | None
    soc: float
    needed: float  # share of a full charge; above 1 one charge is not enough
    leaves_h: float

    def __post_init__(self) -> None:
        checked.check(self, "to_charge")

    @property
    def wall_w(self) -> float:
        """What its charger takes from the supply."""
        return self.charger.mains_w if self.charger else 0.0

    @property
    def hours(self) -> float:
        """Hours to full; inf without a charger that serves her."""
        if self.charger is None:
            return float("inf")
        return together_h(self.bank, [self.charger], self.soc, FULL_SOC)

    @property
    def hours_needed(self) -> float:
        """Hours until she has what the booking takes."""
        if self.soc >= self.needed or self.charger is None:
            return 0.0 if self.soc >= self.needed else float("inf")
        return together_h(self.bank, [self.charger], self.soc, min(self.needed, FULL_SOC))


@dataclass(frozen=True)
class Charged:
    """When a boat stands at the supply, hours of the clock from the evening's midnight before
    (above 24: the next day); whether she is ready, and why not.
    """

    boat: ToCharge
    from_h: float
    to_h: float
    ready: bool
    why: str


def charge_plan(boats: Sequence[ToCharge], supply_w: float, begin_h: float) -> list[Charged]:
    """Who is charged when: from `begin_h` (hours, today's clock; bookings are of tomorrow, so their
    hour is 24 later), who leaves first and needs longest first, never more at once than the supply
    gives. A charge that begins runs to full. Raises nothing; a boat that cannot be ready says why.

    Earliest latest-start first; Jolvek's own rule, no proof that a better plan does not exist.

    >>> from jolvek.core.electric.battery import Battery
    >>> bank, c = Bank(Battery("lfp", 25.6, 100)), Charger(24, 20, ("lfp",))
    >>> a, b = (ToCharge(n, bank, c, 0.2, 0.9, 9) for n in "ab")
    >>> [x.ready for x in charge_plan([a, b], 10_000, 18)]
    [True, True]
    >>> two = charge_plan([a, b], 700, 18)  # one after the other
    >>> two[1].from_h >= two[0].to_h
    True
    """
    ordered = sorted(boats, key=lambda b: 24 + b.leaves_h - min(b.hours_needed, 1e6))
    busy: list[tuple[float, float, float]] = []  # from, to, W
    out = []
    for b in ordered:
        why = _against(b, supply_w)
        if b.wall_w > supply_w or b.hours in (0.0, float("inf")):
            out.append(Charged(b, begin_h, begin_h, not why, why))
            continue
        start = _first_start(busy, begin_h, b.hours, b.wall_w, supply_w)
        busy.append((start, start + b.hours, b.wall_w))
        late = start + b.hours_needed - 24 - b.leaves_h
        why = why or (
            msg("full enough %(late)s h too late", late=f"{late:.1f}") if late > 1e-9 else ""
        )
        out.append(Charged(b, start, start + b.hours, not why, why))
    return out


def _against(b: ToCharge, supply_w: float) -> str:
    if b.needed > 1:
        return msg("the booking takes %(needed)s %% of a charge", needed=f"{100 * b.needed:.0f}")
    if b.soc >= b.needed:
        return ""
    if b.charger is None or b.hours == float("inf"):
        return msg("no charger of its own charges its bank")
    if b.wall_w > supply_w:
        return msg(
            "its charger takes %(wall)s W of %(supply)s W",
            wall=f"{b.wall_w:.0f}",
            supply=f"{supply_w:.0f}",
        )
    return ""


def _first_start(
    busy: Sequence[tuple[float, float, float]], begin: float, hours: float, w: float, most_w: float
) -> float:
    """The first time from which so many W are free for so long."""
    for start in sorted({begin, *(to for _, to, _ in busy if to > begin)}):
        edges = [start, *(f for f, _, _ in busy if start < f < start + hours)]
        if all(sum(x[2] for x in busy if x[0] <= t < x[1]) + w <= most_w + 1e-6 for t in edges):
            return start
    return max((to for _, to, _ in busy), default=begin)


@dataclass(frozen=True)
class Spent:
    """What a boat's hours have cost so far: hours under way, money for energy, for the battery's
    wear, and for parts and work.
    """

    hours: float
    energy: float
    battery: float
    parts: float

    @property
    def an_hour(self) -> float | None:
        """Money an hour; None before the first."""
        return (self.energy + self.battery + self.parts) / self.hours if self.hours else None


def spent(
    hours: float,
    drawn_wh: float,
    kwh_price: float,
    charge_efficiency: float,
    parts: float,
    battery_price: float,
    life_used: float,
) -> Spent:
    """Energy at the wall (drawn over charger's and chemistry's efficiency), the share of the
    battery's price that is worn off, and what parts have cost; no interest, not the purchase
    of the rest.

    >>> round(spent(100, 90_000, 0.3, 1.0, 0, 2000, 0.1).an_hour, 2)
    2.31
    """
    wall_kwh = drawn_wh / 1000 / CHARGER_EFFICIENCY / charge_efficiency
    return Spent(hours, wall_kwh * kwh_price, battery_price * min(life_used, 1.0), parts)
