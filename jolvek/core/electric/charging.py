"""Charging: how long from one state to another, whether it is full by morning, and what must not be
charged how.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base import checked
from jolvek.core.base.arrays import Array, Index
from jolvek.core.electric.bank import FREEZING_C, Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charge_time import charge_time_h
from jolvek.core.electric.chemistry import CHEMISTRIES, end_soc
from jolvek.core.electric.serving import WAYS, outputs_used, ways
from jolvek.core.rules.findings import Finding, find

DELIVERED_SOC = 0.2  # packs arrive 10–30 % charged; common practice, no source
CHARGER_EFFICIENCY = 0.88  # mains to battery; common practice, no source
CHARGE_C_LIMIT = {True: 0.5, False: 0.2}  # usual highest charging current over capacity


@dataclass(frozen=True)
class Charger:
    """One charger: V nominal, A, the chemistries it has a programme for, kg; `outputs` for
    multi-bank units.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "voltage_v": (3, 400),
        "current_a": (0.1, 1000),
        "mass_kg": (0, 200),
        "outputs": (1, 12),
        "charge_voltage_v": (3, 500),
    }
    CHOICES: ClassVar[checked.Choices] = {"chemistries": tuple(CHEMISTRIES)}

    voltage_v: float
    current_a: float
    chemistries: tuple[str, ...]
    mass_kg: float = 1.0
    outputs: int = 1
    charge_voltage_v: float | None = None  # at the end of the charge
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "charger")

    @property
    def power_w(self) -> float:
        """Output power at nominal voltage, all outputs."""
        return self.voltage_v * self.current_a * self.outputs

    @property
    def mains_w(self) -> float:
        """What it takes from the mains at that."""
        return self.power_w / CHARGER_EFFICIENCY


def matches(bank: Bank, charger: Charger) -> str:
    """How a charger serves a bank: on the whole `bank`, `each` pack by a lead of its own, the packs
    in `turn` ashore; empty where it does not.

    >>> from jolvek.core.electric.battery import Battery
    >>> matches(Bank(Battery("agm", 12, 100), 2), Charger(12, 10, ("agm",), outputs=2))
    'each'
    """
    b = bank.battery
    stated = np.nan if charger.charge_voltage_v is None else charger.charge_voltage_v
    speaks = b.chemistry in charger.chemistries
    volts = (b.nominal_voltage_v, b.charge_v, b.chem.lithium, speaks, charger.voltage_v, stated)
    return WAYS[int(ways(bank.series, bank.parallel, *volts, charger.outputs))]


def served_how(
    batteries: Sequence[Battery], series: Index, parallel: Index, chargers: Sequence[Charger]
) -> Index:
    """The same as an index into WAYS, of every bank (B,) with every charger: (B, C).

    >>> from jolvek.core.electric.battery import Battery
    >>> served_how([Battery("agm", 12, 100)], 2, 1, [Charger(12, 10, ("agm",), outputs=2)])
    array([[2]])
    """
    known = [(b.nominal_voltage_v, b.charge_v, b.chem.lithium) for b in batteries]
    volts, full, lithium = np.array(known, dtype=float).reshape(-1, 3).T[:, :, None]
    given = [(c.voltage_v, c.charge_voltage_v or np.nan, c.outputs) for c in chargers]
    charger_v, stated, outputs = np.array(given, dtype=float).reshape(-1, 3).T
    names = tuple(CHEMISTRIES)
    spoken = np.array([[n in c.chemistries for c in chargers] for n in names], dtype=bool)
    speaks = spoken[[names.index(b.chemistry) for b in batteries]]
    layout = (np.reshape(series, (-1, 1)), np.reshape(parallel, (-1, 1)))
    return ways(*layout, volts, full, lithium.astype(bool), speaks, charger_v, stated, outputs)


def soc_after(
    bank: Bank, chargers: Sequence[Charger], hours: ArrayLike, start_soc: float = 0.2
) -> Array:
    """State of charge reached after some hours (any shape) with one or several chargers together;
    full is 0.99.

    >>> from jolvek.core.electric.battery import Battery
    >>> b, c = Bank(Battery("lfp", 25.6, 50)), Charger(24, 7, ("lfp",))
    >>> soc_after(b, [c], [0.0, 3.0, 12.0]).round(2).tolist()
    [0.2, 0.61, 0.99]
    """
    soc = np.linspace(start_soc, 0.99, 200)
    needed = _together_h(bank, chargers, start_soc, soc)
    if not np.isfinite(needed[1:]).all():
        return np.full(np.shape(hours), start_soc)
    return np.asarray(np.interp(np.asarray(hours, dtype=float), needed, soc))


def together_h(
    bank: Bank, chargers: Sequence[Charger], start_soc: float = 0.2, end_soc: float = 1.0
) -> float:
    """Hours for several chargers at once: currents of whole-bank chargers add up, pack chargers
    share out the packs.

    Chargers that do not match the bank count for nothing; inf where none does.

    >>> from jolvek.core.electric.battery import Battery
    >>> b, c = Bank(Battery("agm", 12, 100), 4), Charger(12, 10, ("agm",), outputs=2)
    >>> together_h(b, [c, c]) < together_h(b, [c])
    True
    """
    return float(_together_h(bank, chargers, start_soc, end_soc))


def _together_h(
    bank: Bank, chargers: Sequence[Charger], start_soc: float, end_soc: ArrayLike
) -> Array:
    """The same to states of charge of any shape."""
    whole = sum(_amps(bank, c) for c in chargers if matches(bank, c) == "bank")
    pack = [c for c in chargers if matches(bank, c) in ("each", "turn")]
    if whole:
        return charge_time_h(bank.capacity_ah, whole, bank.chem, start_soc, end_soc)
    if not pack:
        return np.full(np.shape(end_soc), np.inf)
    rounds = -(-bank.packs // sum(c.outputs for c in pack))
    slowest = min(c.current_a for c in pack)
    one = charge_time_h(bank.battery.capacity_ah, slowest, bank.chem, start_soc, end_soc)
    return np.asarray(rounds * one)


def _amps(bank: Bank, c: Charger) -> float:
    """Amps of all outputs that charge the bank together."""
    return c.current_a * float(outputs_used(bank.series, bank.parallel, c.outputs))


def at_once(bank: Bank, charger: Charger, most: int) -> int:
    """How many of a charger are of use together, up to `most`: no more than there are packs for,
    nor than the packs take in amps; one at least.

    >>> from jolvek.core.electric.battery import Battery
    >>> pack = Battery("lfp", 25.6, 100)
    >>> [at_once(Bank(pack), Charger(24, amps, ("lfp",)), 3) for amps in (10, 20, 40)]
    [3, 2, 1]
    """
    if matches(bank, charger) == "bank":
        fits = CHARGE_C_LIMIT[bank.chem.lithium] * bank.capacity_ah / _amps(bank, charger)
        return int(min(max(fits + 1e-9, 1), most))
    return min(-(-bank.packs // charger.outputs), most)


def first_charge_h(
    bank: Bank, chargers: Sequence[Charger], delivered_soc: float = DELIVERED_SOC
) -> float:
    """Hours of the first charge: packs arrive about a fifth charged (10–30 %, common practice, no
    source).

    >>> from jolvek.core.electric.battery import Battery
    >>> 5.5 < first_charge_h(Bank(Battery("nmc", 25.9, 50)), [Charger(24, 7, ("nmc",))]) < 7.0
    True
    """
    return together_h(bank, chargers, delivered_soc)


def check_charging(
    bank: Bank,
    chargers: Sequence[Charger],
    hours: float,
    start_soc: float = 0.2,
    temperature_c: float = 15.0,
    new: bool = True,
) -> list[Finding]:
    """What is to be said of charging: voltage, chemistry, current, time, frost, and, of a new
    battery, the first charge.

    >>> from jolvek.core.electric.battery import Battery
    >>> b, c = Bank(Battery("lfp", 25.6, 50)), Charger(24, 7, ("lfp",), charge_voltage_v=29.2)
    >>> [f.rule for f in check_charging(b, [c], 4.0, temperature_c=-2.0)]
    ['not-full-by-morning', 'charge-freezing', 'first-charge']
    """
    out = [f for c in chargers for f in _served(bank, c)]
    start = end_soc(bank.chem, start_soc)
    needed = together_h(bank, chargers, start)
    if np.isfinite(needed) and needed > hours:
        out.append(find("not-full-by-morning", needed, hours))
    if bank.chem.lithium and temperature_c < FREEZING_C:
        out.append(find("charge-freezing", temperature_c, 0.0))
    if new and np.isfinite(needed) and bank.chem.lithium:  # lead is delivered charged
        out.append(find("first-charge", DELIVERED_SOC, 1.0, hours=first_charge_h(bank, chargers)))
    return out


def _served(bank: Bank, c: Charger) -> list[Finding]:
    """What is to be said of one charger on a bank."""
    way, b = matches(bank, c), bank.battery
    if b.chemistry not in c.chemistries:
        return [find("charger-chemistry", chem=bank.chem.name)]
    if not way:
        return [find("charger-voltage", c.charge_voltage_v or c.voltage_v, _wanted_v(bank, c))]
    out = []
    ah, amps = (bank.capacity_ah, _amps(bank, c)) if way == "bank" else (b.capacity_ah, c.current_a)
    most = CHARGE_C_LIMIT[bank.chem.lithium] * ah
    if amps > most * (1 + 1e-9):
        out.append(find("charge-current", amps, most))
    if bank.chem.lithium and c.charge_voltage_v is None:
        full = bank.charge_v if way == "bank" else b.charge_v
        out.append(find("charge-voltage-unknown", full))
    if way == "turn":
        rounds = -(-bank.packs // c.outputs)
        out.append(find("packs-in-turn", rounds, 1.0, packs=bank.packs))
    return out


def _wanted_v(bank: Bank, c: Charger) -> float:
    """The volts a charger should have, told as it tells its own."""
    return bank.nominal_v if c.charge_voltage_v is None else bank.charge_v
