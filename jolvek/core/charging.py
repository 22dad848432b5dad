"""Charging: how long from one state to another, and whether it is full by morning."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from jolvek.core.bank import Bank
from jolvek.core.battery import Chemistry

Array = NDArray[np.float64]
TAIL_FROM = {True: 0.90, False: 0.80}  # constant current up to here: lithium, lead
TAIL_TIME_H = {True: 0.35, False: 3.0}  # time constant of the falling current
DELIVERED_SOC = 0.2  # packs arrive 10–30 % charged; common practice, no source
CHARGE_C_LIMIT = {True: 0.5, False: 0.2}  # usual highest charging current over capacity


@dataclass(frozen=True)
class Charger:
    """One charger: V nominal, A, the chemistries it has a programme for, kg; `outputs` for multi-bank units."""

    voltage_v: float
    current_a: float
    chemistries: tuple[str, ...]
    mass_kg: float = 1.0
    outputs: int = 1
    name: str = ""

    @property
    def power_w(self) -> float:
        """Output power at nominal voltage, all outputs."""
        return self.voltage_v * self.current_a * self.outputs


def charge_time_h(capacity_ah: ArrayLike, current_a: ArrayLike, chem: Chemistry, start_soc: ArrayLike = 0.2,
                  end_soc: ArrayLike = 1.0) -> Array:
    """Hours to charge a capacity (Ah) with a current (A) between two states of charge; broadcasts.

    Constant current to 90 % (lithium) or 80 % (lead), then a current falling exponentially, taken as
    full at 99 %. Charge efficiency by chemistry. Jolvek's own simplification of CC–CV charging.

    >>> from jolvek.core.battery import chemistry
    >>> round(float(charge_time_h(50, 7.0, chemistry("lfp"))), 1)
    6.0
    """
    lithium = chem.lithium
    knee, efficiency = TAIL_FROM[lithium], chem.charge_efficiency
    start, end = np.asarray(start_soc, dtype=float), np.minimum(np.asarray(end_soc, dtype=float), 0.995)
    rate = np.asarray(current_a, dtype=float) * efficiency / np.asarray(capacity_ah, dtype=float)  # SoC per hour
    bulk = np.maximum(np.minimum(end, knee) - start, 0.0) / rate
    left0 = 1.0 - np.maximum(start, knee)
    left1 = np.maximum(1.0 - end, 0.01)
    tau = np.minimum((1 - knee) / rate, TAIL_TIME_H[lithium])  # slow chargers hardly taper
    tail = np.where(end > np.maximum(start, knee), tau * np.log(np.maximum(left0 / left1, 1.0)), 0.0)
    return np.asarray(bulk + tail)


def bank_charge_h(bank: Bank, charger: Charger, start_soc: float = 0.2, end_soc: float = 1.0) -> float:
    """Hours for one charger on a bank; a multi-output charger serves as many packs at once.

    >>> from jolvek.core.battery import Battery
    >>> b = Bank(Battery("lfp", 25.6, 50), 1, 1)
    >>> bank_charge_h(b, Charger(24, 7, ("lfp",))) < bank_charge_h(b, Charger(24, 5, ("lfp",)))
    True
    """
    if matches(bank, charger) == "pack":
        rounds = -(-bank.packs // charger.outputs)
        return rounds * float(charge_time_h(bank.battery.capacity_ah, charger.current_a, bank.chem, start_soc, end_soc))
    return float(charge_time_h(bank.capacity_ah, charger.current_a * charger.outputs, bank.chem, start_soc, end_soc))


def matches(bank: Bank, charger: Charger) -> str | None:
    """How a charger serves a bank: on the whole `bank`, `pack` by pack, or None; voltage within 10 %.

    >>> from jolvek.core.battery import Battery
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
