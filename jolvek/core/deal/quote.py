"""The lines that a fitted setup brings to an offer: its parts, every cable, fuse, lug and switch of
its netlist, and its hours.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from dataclasses import dataclass
from decimal import Decimal

from jolvek.core.base.told import tell
from jolvek.core.deal.lines import Line
from jolvek.core.deal.money import minor
from jolvek.core.fit.checklist import work_hours
from jolvek.core.fit.controls import parts as controls_of
from jolvek.core.fit.fitted import Fitted

LUGS_A_WIRE = 2
MOST_TEXT = 300


@dataclass(frozen=True)
class Rates:
    """The shop's rates, money in minor units: hours, cable by metre and mm², pieces; tax in %."""

    mounting_minor: int = 0
    wiring_minor: int = 0
    cable_minor: int = 0
    piece_minor: int = 0
    tax: Decimal = Decimal(0)
    digits: int = 2


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
    metres: defaultdict[float, float] = defaultdict(float)
    lugs: Counter[float] = Counter()
    for w in f.netlist.wires:
        metres[w.size.size_mm2] += w.length_m * w.size.runs
        lugs[w.size.size_mm2] += LUGS_A_WIRE * w.size.runs
    pieces = Counter(
        f"{part.kind.capitalize()}, {part.text}"
        for part in f.netlist.parts
        if part.kind in ("fuse", "switch", "bar", "inlet")
    )
    out = [
        _line(
            tell("Cable %(size)s mm², tinned", size=f"{size:g}"),
            metres[size],
            round(rates.cable_minor * size),
            "m",
        )
        for size in sorted(metres)
    ]
    out += [
        _line(
            tell("Lugs for %(size)s mm²", size=f"{size:g}"), lugs[size], rates.piece_minor // 4, ""
        )
        for size in sorted(lugs)
    ]
    out += [_line(text, count, rates.piece_minor, "") for text, count in sorted(pieces.items())]
    return [_taxed(x, rates) for x in out]


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
        Line("labour", text, Decimal(str(hours)), price, "h", tax=rates.tax)
        for text, hours, price in (
            (tell("Mounting"), f.mount.spec.hours, rates.mounting_minor),
            (tell("Wiring"), wiring, rates.wiring_minor),
        )
        if hours
    ]
