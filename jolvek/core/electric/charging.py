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
from jolvek.core.base.arrays import Array
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.chemistry import CHEMISTRIES, Chemistry
from jolvek.core.rules.findings import Finding, find

TAIL_FROM = {True: 0.90, False: 0.80}  # constant current up to here: lithium, lead
TAIL_TIME_H = {True: 0.35, False: 3.0}  # time constant of the falling current
DELIVERED_SOC = 0.2  # packs arrive 10–30 % charged; common practice, no source
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
    }
    CHOICES: ClassVar[checked.Choices] = {"chemistries": tuple(CHEMISTRIES)}

    voltage_v: float
    current_a: float
    chemistries: tuple[str, ...]
    mass_kg: float = 1.0
    outputs: int = 1
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "charger")

    @property
    def power_w(self) -> float:
        """Output power at nominal voltage, all outputs."""
        return self.voltage_v * self.current_a * self.outputs


def charge_time_h(
    capacity_ah: ArrayLike,
    current_a: ArrayLike,
    chem: Chemistry,
    start_soc: ArrayLike = 0.2,
    end_soc: ArrayLike = 1.0,
) -> Array:
    """Hours to charge a capacity (Ah) with a current (A) between two states of charge; broadcasts.

    Constant current to 90 % (lithium) or 80 % (lead), then a current falling exponentially, taken
    as full at 99 %. Charge efficiency by chemistry. Jolvek's own simplification of CC–CV charging.

    >>> from jolvek.core.electric.chemistry import chemistry
    >>> round(float(charge_time_h(50, 7.0, chemistry("lfp"))), 1)
    6.0
    """
    lithium = chem.lithium
    knee, efficiency = TAIL_FROM[lithium], chem.charge_efficiency
    start, end = (
        np.asarray(start_soc, dtype=float),
        np.minimum(np.asarray(end_soc, dtype=float), 0.995),
    )
    rate = (
        np.asarray(current_a, dtype=float) * efficiency / np.asarray(capacity_ah, dtype=float)
    )  # SoC per hour
    bulk = np.maximum(np.minimum(end, knee) - start, 0.0) / rate
    left0 = 1.0 - np.maximum(start, knee)
    left1 = np.maximum(1.0 - end, 0.01)
    tau = np.minimum((1 - knee) / rate, TAIL_TIME_H[lithium])  # slow chargers hardly taper
    tail = np.where(
        end > np.maximum(start, knee), tau * np.log(np.maximum(left0 / left1, 1.0)), 0.0
    )
    return np.asarray(bulk + tail)


def bank_charge_h(
    bank: Bank, charger: Charger, start_soc: float = 0.2, end_soc: float = 1.0
) -> float:
    """Hours for one charger on a bank; a multi-output charger serves as many packs at once.

    >>> from jolvek.core.electric.battery import Battery
    >>> b = Bank(Battery("lfp", 25.6, 50), 1, 1)
    >>> bank_charge_h(b, Charger(24, 7, ("lfp",))) < bank_charge_h(b, Charger(24, 5, ("lfp",)))
    True
    """
    if matches(bank, charger) == "pack":
        rounds = -(-bank.packs // charger.outputs)
        return rounds * float(
            charge_time_h(
                bank.battery.capacity_ah, charger.current_a, bank.chem, start_soc, end_soc
            )
        )
    return float(
        charge_time_h(
            bank.capacity_ah, charger.current_a * charger.outputs, bank.chem, start_soc, end_soc
        )
    )


def matches(bank: Bank, charger: Charger) -> str | None:
    """How a charger serves a bank: on the whole `bank`, `pack` by pack, or None; voltage within 10
    %.

    >>> from jolvek.core.electric.battery import Battery
    >>> matches(Bank(Battery("agm", 12, 100), 2), Charger(12, 10, ("agm",), outputs=2))
    'pack'
    """
    if bank.battery.chemistry not in charger.chemistries:
        return None
    if abs(bank.nominal_v / charger.voltage_v - 1) <= 0.1:
        return "bank"
    if abs(bank.battery.nominal_voltage_v / charger.voltage_v - 1) <= 0.1:
        return "pack"
    return None


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
    needed = np.array([together_h(bank, chargers, start_soc, float(x)) for x in soc])
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
    whole = sum(c.current_a * c.outputs for c in chargers if matches(bank, c) == "bank")
    pack = [c for c in chargers if matches(bank, c) == "pack"]
    if whole:
        return float(charge_time_h(bank.capacity_ah, whole, bank.chem, start_soc, end_soc))
    if not pack:
        return float("inf")
    rounds = -(-bank.packs // sum(c.outputs for c in pack))
    slowest = min(c.current_a for c in pack)
    return rounds * float(
        charge_time_h(bank.battery.capacity_ah, slowest, bank.chem, start_soc, end_soc)
    )


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
) -> list[Finding]:
    """What is to be said of charging: voltage, chemistry, current, time, frost, and the first
    charge.

    >>> from jolvek.core.electric.battery import Battery
    >>> b, c = Bank(Battery("lfp", 25.6, 50)), Charger(24, 7, ("lfp",))
    >>> [f.rule for f in check_charging(b, [c], 4.0, temperature_c=-2.0)]
    ['not-full-by-morning', 'charge-freezing', 'first-charge']
    """
    out = []
    for c in chargers:
        if bank.battery.chemistry not in c.chemistries:
            out.append(find("charger-chemistry", chem=bank.chem.name))
        elif matches(bank, c) is None:
            out.append(find("charger-voltage", c.voltage_v, bank.nominal_v))
        else:
            ah = bank.battery.capacity_ah if matches(bank, c) == "pack" else bank.capacity_ah
            amps, most = (
                c.current_a * (1 if matches(bank, c) == "pack" else c.outputs),
                CHARGE_C_LIMIT[bank.chem.lithium] * ah,
            )
            if amps > most * (1 + 1e-9):
                out.append(find("charge-current", amps, most))
    needed = together_h(bank, chargers, start_soc)
    if np.isfinite(needed) and needed > hours:
        out.append(find("not-full-by-morning", needed, hours))
    if bank.chem.lithium and temperature_c < 0:
        out.append(find("charge-freezing", temperature_c, 0.0))
    if np.isfinite(needed):
        out.append(find("first-charge", DELIVERED_SOC, 1.0, hours=first_charge_h(bank, chargers)))
    return out
