"""The lines that a fitted setup brings to an offer: its parts, every cable, fuse, lug and switch of
its netlist, and its hours.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from jolvek.core.base.messages import msg
from jolvek.core.base.money import minor
from jolvek.core.deal.lines import Line
from jolvek.core.fit.checklist import work_hours
from jolvek.core.fit.controls import parts as controls_of
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.materials import bolts, materials
from jolvek.core.fit.mounting_work import drilled
from jolvek.core.products.rates import Rates

MOST_TEXT = 300


@dataclass(frozen=True)
class Priced:
    """One bought part: its words, how many, its price as the shop asks it."""

    text: str
    quantity: int
    price: float
    optional: bool = False


def lines_of(f: Fitted, parts: list[Priced], rates: Rates) -> list[Line]:
    """All lines of one setup, in the order in which they are read.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> lines = lines_of(sample_fitted(), [Priced("Motor", 1, 1500.0)], Rates(8000, 9000, 60, 450))
    >>> lines[0].amount, {x.kind for x in lines} == {"part", "wiring", "labour"}
    (150000, True)
    """
    out = [
        Line(
            "addon" if p.optional else "part",
            _short(p.text),
            Decimal(p.quantity),
            minor(p.price, rates.digits),
            tax=rates.tax,
            optional=p.optional,
        )
        for p in parts
    ]
    out += wiring_lines(f, rates)
    if drilled(f):
        x = bolts(rates)
        out.append(_taxed(_line(x.text, 1, x.price_minor, ""), rates))
    worked = [_line(f"{what} ({many})", 1, rates.piece_minor, "") for what, many in controls_of(f)]
    return [*out, *(_taxed(x, rates) for x in worked), *_labour(f, rates)]


def wiring_lines(f: Fitted, rates: Rates) -> list[Line]:
    """Cables and lugs by size, each fuse, bar and switch; none for a pack that clips on.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> [x.text for x in wiring_lines(sample_fitted(), Rates())][:2]
    ['Cable 10 mm², tinned', 'Lugs for 10 mm²']
    """
    if f.clips_on:
        return []
    found = materials(f.netlist, rates)
    return [
        Line("wiring", _short(x.text), x.quantity, x.price_minor, x.unit, tax=rates.tax)
        for x in found
    ]


def _short(text: str) -> str:
    return text if len(text) <= MOST_TEXT else text[:MOST_TEXT]


def _line(text: str, quantity: float, price_minor: int, unit: str) -> Line:
    many = Decimal(f"{quantity:.1f}") if unit else Decimal(round(quantity))
    return Line("wiring", _short(text), many, price_minor, unit)


def _taxed(x: Line, rates: Rates) -> Line:
    return Line(x.kind, x.text, x.quantity, x.price_minor, x.unit, tax=rates.tax)


def _labour(f: Fitted, rates: Rates) -> list[Line]:
    """The hours of mount and wiring, as the rigger's sheet has them."""
    wiring = work_hours(f) - f.mount.spec.hours
    return [
        Line("labour", text, Decimal(f"{round(hours, 2):g}"), price, "h", tax=rates.tax)
        for text, hours, price in (
            (msg("Mounting"), f.mount.spec.hours, rates.mounting_minor),
            (msg("Wiring"), wiring, rates.wiring_minor),
        )
        if hours
    ]
