"""A new battery for a boat in service: which packs must not be joined to the old ones."""

from __future__ import annotations

from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery

APART = 0.05  # of capacity beyond which packs do not share their work; common practice, no source
YOUNG_YEARS = (
    0.5  # up to this age most makers let a pack of the same model be added; common practice
)


def against_joining(bank: Bank, capacity: float, years: float, new: Battery) -> tuple[str, ...]:
    """Why a new pack may not be joined to a bank whose capacity (share of the rated) and age are
    these; empty only for the same model, young and hardly worn, and then by the maker's leave.

    >>> old = Battery("lfp", 25.6, 100)
    >>> against_joining(Bank(old), 0.99, 0.2, old)
    ()
    >>> len(against_joining(Bank(old), 0.85, 3.0, Battery("nmc", 25.9, 50)))
    4
    """
    b, out = bank.battery, []
    if new.chemistry != b.chemistry:
        out.append(f"{new.chem.name} beside {b.chem.name}: they charge to other voltages")
    elif abs(new.nominal_voltage_v - b.nominal_voltage_v) > 0.1:
        out.append(f"{new.nominal_voltage_v:g} V beside {b.nominal_voltage_v:g} V")
    if abs(new.capacity_ah / b.capacity_ah - 1) > APART:
        out.append(f"{new.capacity_ah:g} Ah beside {b.capacity_ah:g} Ah: one works for both")
    if capacity < 1 - APART:
        out.append(f"the old packs hold {100 * capacity:.0f} %: the new one works for them")
    if years > YOUNG_YEARS:
        out.append(f"the old packs are {years:.1f} years old")
    return tuple(out)
