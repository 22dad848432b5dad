"""A bank: equal packs in series and parallel, with its window of voltage, its limits and its
runtime.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.chemistry import Chemistry, temperature_factor
from jolvek.core.electric.discharge import delivered_share
from jolvek.core.rules.findings import Finding, find

FREEZING_C = 0.0


@dataclass(frozen=True)
class Bank:
    """`series` × `parallel` packs of one kind. `ageing` is the share of capacity lost (0–0.5)."""

    battery: Battery
    series: int = 1
    parallel: int = 1
    ageing: float = 0.0
    temperature_c: float = 20.0

    def __post_init__(self) -> None:
        for key in ("series", "parallel"):
            value = getattr(self, key)
            if not (isinstance(value, int) and 1 <= value <= 16):
                raise ValueRefused(f"bank.{key}", value, msg("a whole number from 1 to 16"))

    @property
    def chem(self) -> Chemistry:
        """The packs' chemistry."""
        return self.battery.chem

    @property
    def takes_charge(self) -> bool:
        """Whether it may be charged as cold as it is: lithium never below freezing (common
        practice, no source); it gives all the same.
        """
        return takes_charge(self.chem, self.temperature_c)

    @property
    def packs(self) -> int:
        """How many packs."""
        return self.series * self.parallel

    @property
    def nominal_v(self) -> float:
        """Nominal voltage: packs in series add volts."""
        return self.series * self.battery.nominal_voltage_v

    @property
    def capacity_ah(self) -> float:
        """Capacity: packs in parallel add amp-hours."""
        return self.parallel * self.battery.capacity_ah

    @property
    def energy_wh(self) -> float:
        """Rated energy."""
        return self.nominal_v * self.capacity_ah

    @property
    def mass_kg(self) -> float:
        """All packs."""
        return self.packs * self.battery.weight_kg

    @property
    def full_v(self) -> float:
        """Voltage straight off the charger."""
        return self.series * self.battery.full_v

    @property
    def charge_v(self) -> float:
        """The highest voltage it is charged with."""
        return self.series * self.battery.charge_v

    @property
    def empty_v(self) -> float:
        """Voltage under load when empty."""
        return self.series * self.battery.empty_v

    @property
    def continuous_a(self) -> float:
        """Continuous current limit of all strings together."""
        return self.parallel * self.battery.continuous_a

    @property
    def peak_a(self) -> float:
        """Peak current limit of all strings together."""
        return self.parallel * self.battery.peak_a

    @cached_property
    def capacity_factor(self) -> float:
        """What cold and age leave of the capacity."""
        return temperature_factor(self.chem, self.temperature_c) * (1 - self.ageing)


def takes_charge(chem: Chemistry, temperature_c: float) -> bool:
    """Whether such cells may be charged as cold as they are.

    >>> lfp, agm = (Battery(name, 25.6, 50).chem for name in ("lfp", "agm"))
    >>> takes_charge(lfp, -1.0), takes_charge(agm, -1.0)
    (False, True)
    """
    return not (chem.lithium and temperature_c < FREEZING_C)


def rating(volts: float, amp_hours: float) -> str:
    """What stands on the label of a battery.

    >>> rating(25.6, 50)
    '25.6 V 50 Ah'
    """
    return msg("%(volts)s V %(ah)s Ah", volts=f"{volts:g}", ah=f"{amp_hours:g}")


def layout(bank: Bank) -> str:
    """The bank in words.

    >>> layout(Bank(Battery("lfp", 48, 60), 1, 2))
    '2 × 48 V 60 Ah in parallel = 48 V 120 Ah'
    """
    b = bank.battery
    one = rating(b.nominal_voltage_v, b.capacity_ah)
    if bank.packs == 1:
        return one
    values = {"n": bank.packs, "one": one, "whole": rating(bank.nominal_v, bank.capacity_ah)}
    if bank.series == 1:
        return msg("%(n)s × %(one)s in parallel = %(whole)s", **values)
    if bank.parallel == 1:
        return msg("%(n)s × %(one)s in series = %(whole)s", **values)
    values |= {"series": bank.series, "parallel": bank.parallel}
    return msg(
        "%(n)s × %(one)s %(series)s in series, %(parallel)s in parallel = %(whole)s", **values
    )


def runtime_s(
    bank: Bank,
    power_w: ArrayLike,
    reserve: float = 0.2,
    motor_min_v: float = 0.0,
    start: float = 1.0,
) -> Array:
    """Seconds the bank holds a constant power (W, any shape) until the reserve must be kept.

    From the charge `start`. Ends earlier where lead reaches half, or the voltage falls to the
    motor's lowest. No load → inf.

    >>> float((runtime_s(Bank(Battery("lfp", 25.6, 50)), 1000.0, 0.0) / 60).round())
    75.0
    """
    p = np.asarray(power_w, dtype=float)
    share = delivered_share(
        bank.battery.chemistry,
        p / bank.energy_wh,
        reserve,
        motor_min_v / bank.nominal_v,
        bank.capacity_factor,
        start,
    )
    with np.errstate(divide="ignore"):
        return np.asarray(
            np.where(p > 0, 3600.0 * share * bank.energy_wh / np.where(p > 0, p, 1.0), np.inf)
        )


def current_a(bank: Bank, power_w: ArrayLike) -> Array:
    """Current in A at nominal voltage for a power in W (any shape): what spec sheets compare.

    >>> float(current_a(Bank(Battery("lfp", 24, 100)), 2400))
    100.0
    """
    return np.asarray(np.asarray(power_w, dtype=float) / bank.nominal_v)


HOT_C, COLD_C = 45.0, 5.0
BAY_WARMER_C = 10.0  # than the air, closed and in the sun; common practice, no source
VOLTS_DANGEROUS = 60.0  # DC: touching it can kill; IEC 60364-4-41, from memory


def weather(bank: Bank, in_bay: bool = False) -> list[Finding]:
    """What heat and cold do to the bank, which a bay makes warmer.

    >>> [f.rule for f in weather(Bank(Battery("lfp", 25.6, 50), temperature_c=0.0))]
    ['bank-cold']
    """
    hot_c = bank.temperature_c + (BAY_WARMER_C if in_bay else 0.0)
    if hot_c > HOT_C:
        return [find("bank-hot", hot_c, HOT_C)]
    if bank.temperature_c < COLD_C:
        return [
            find(
                "bank-cold",
                bank.temperature_c,
                COLD_C,
                share=temperature_factor(bank.chem, bank.temperature_c),
            )
        ]
    return []
