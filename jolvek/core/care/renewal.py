"""A new battery for a boat in service: which packs must not be joined to the old ones."""

from __future__ import annotations

from jolvek.core.base.messages import msg
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
        out.append(
            msg(
                "%(name)s beside %(name2)s: they charge to other voltages",
                name=new.chem.name,
                name2=b.chem.name,
            )
        )
    elif abs(new.nominal_voltage_v - b.nominal_voltage_v) > 0.1:
        out.append(
            msg(
                "%(nominal_voltage)s V beside %(nominal_voltage2)s V",
                nominal_voltage=f"{new.nominal_voltage_v:g}",
                nominal_voltage2=f"{b.nominal_voltage_v:g}",
            )
        )
    if abs(new.capacity_ah / b.capacity_ah - 1) > APART:
        out.append(
            msg(
                "%(capacity)s Ah beside %(capacity2)s Ah: one works for both",
                capacity=f"{new.capacity_ah:g}",
                capacity2=f"{b.capacity_ah:g}",
            )
        )
    if capacity < 1 - APART:
        out.append(
            msg(
                "the old packs hold %(capacity)s %%: the new one works for them",
                capacity=f"{100 * capacity:.0f}",
            )
        )
    if years > YOUNG_YEARS:
        out.append(msg("the old packs are %(years)s years old", years=f"{years:.1f}"))
    return tuple(out)
