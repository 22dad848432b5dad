"""What the wiring of a setup takes: cables by the metre, lugs, fuses, bars and switches, with their
prices by the shop's rates.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from dataclasses import dataclass
from decimal import Decimal

from jolvek.core.base.messages import msg
from jolvek.core.base.money import rounded
from jolvek.core.electric.netlist import Netlist
from jolvek.core.electric.wire_sizes import Fuse
from jolvek.core.products.rates import Rates

LUGS_A_WIRE = 2
PIECES = {
    "switch": msg("Battery switch, %(text)s"),
    "bar": msg("Bar: %(text)s"),
    "inlet": msg("Shore inlet"),
    "converter": msg("Converter, %(text)s"),
}
WIRING_H, CABLE_H = 1.0, 0.2  # to begin with, and for each cable; common practice, no source


@dataclass(frozen=True)
class Material:
    """One line of it: its words, how much of which unit, the price of one in minor units."""

    text: str
    quantity: Decimal
    price_minor: int
    unit: str = ""

    @property
    def amount_minor(self) -> int:
        """Quantity × price, rounded as on an offer.

        >>> Material("Cable", Decimal("2.5"), 333, "m").amount_minor
        833
        """
        return rounded(self.quantity * self.price_minor)


def materials(netlist: Netlist, rates: Rates) -> list[Material]:
    """Cables and lugs by size, each fuse, bar, switch and inlet.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> [x.text for x in materials(sample_fitted().netlist, Rates())][:2]
    ['Cable 10 mm², tinned', 'Lugs for 10 mm²']
    """
    metres: defaultdict[float, float] = defaultdict(float)
    lugs: Counter[float] = Counter()
    for w in netlist.wires:
        metres[w.size.size_mm2] += w.length_m * w.size.runs
        lugs[w.size.size_mm2] += LUGS_A_WIRE * w.size.runs
    pieces = Counter(
        msg(PIECES[part.kind], text=part.text) for part in netlist.parts if part.kind in PIECES
    )
    fuses = Counter(_fuse(netlist, fuse) for fuse in netlist.fuses.values())
    if fuses:
        pieces[msg("Fuse holder")] = sum(fuses.values())
    pieces.update(fuses)
    cables = [
        Material(
            msg("Cable %(size)s mm², tinned", size=f"{size:g}"),
            Decimal(f"{metres[size]:.1f}"),
            round(rates.cable_minor * size),
            "m",
        )
        for size in sorted(metres)
    ]
    ends = [
        Material(
            msg("Lugs for %(size)s mm²", size=f"{size:g}"),
            Decimal(lugs[size]),
            rates.piece_minor // 4,
        )
        for size in sorted(lugs)
    ]
    each = [Material(t, Decimal(n), rates.piece_minor) for t, n in sorted(pieces.items())]
    return [*cables, *ends, *each]


def _fuse(netlist: Netlist, fuse: Fuse) -> str:
    """A fuse as it is ordered: amps, DC volts, and its class where the bank asks for one."""
    figures = {"rating": f"{fuse.rating_a:g}", "volts": f"{fuse.volts_v:g}"}
    if netlist.bank.chem.lithium:
        return msg("Fuse %(rating)s A, %(volts)s V DC, class T or the like", **figures)
    return msg("Fuse %(rating)s A, %(volts)s V DC", **figures)


def bolts(rates: Rates) -> Material:
    """What a mount that is bolted through takes beside itself.

    >>> bolts(Rates(piece_minor=1400)).amount_minor
    1400
    """
    return Material(msg("Bolts, backing plate and sealant, a set"), Decimal(1), rates.piece_minor)


def wiring_hours(netlist: Netlist) -> float:
    """Hours to wire so many cables into a boat, in quarters.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> wiring_hours(sample_fitted().netlist)
    1.75
    """
    cables = sum(w.role != "mains" for w in netlist.wires)
    return round(4 * (WIRING_H + CABLE_H * cables)) / 4


def hours_minor(hours: float, rate_minor: int) -> int:
    """What so many hours cost, in minor units.

    >>> hours_minor(2.5, 8000)
    20000
    """
    return rounded(Decimal(str(hours)) * rate_minor)
