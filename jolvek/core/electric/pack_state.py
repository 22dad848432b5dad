"""A bank in time: its charge stepped forward under a power drawn or given, with every loss
accounted for.
"""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from jolvek.core.electric.bank import Bank
from jolvek.core.electric.discharge import SOC_POINTS, ocv_ratio


@dataclass
class PackState:
    """A bank while it is used: state of charge, and the sums of what went where, Wh."""

    bank: Bank
    motor_min_v: float = 0.0
    soc: float = 1.0
    given_wh: float = 0.0  # to motor and loads
    taken_wh: float = 0.0  # from sun or charger
    lost_wh: float = 0.0  # in resistance, by Peukert, in charging
    _start_wh: float = field(default=0.0)

    def __post_init__(self) -> None:
        self._start_wh = self.stored_wh

    @property
    def capacity_wh(self) -> float:
        """Rated energy, less what cold and age take."""
        return self.bank.energy_wh * self.bank.capacity_factor

    @property
    def stored_wh(self) -> float:
        """Energy at open-circuit voltage between empty and the state of charge."""
        return self.capacity_wh * stored_share(self.bank.battery.chemistry, self.soc)

    @property
    def balance(self) -> float:
        """What does not add up, as a share of what was moved: 0 for a closed balance."""
        moved = max(self.given_wh + self.taken_wh, 1e-9)
        return (
            abs(self._start_wh + self.taken_wh - self.given_wh - self.lost_wh - self.stored_wh)
            / moved
        )

    def able(self, power_w: float) -> bool:
        """Whether the bank can give a power now: charge left, voltage above its own and the motor's
        lowest.
        """
        chem, power = self.bank.chem, power_w / self.bank.energy_wh
        ocv = ocv_ratio(self.bank.battery.chemistry, self.soc)
        r = chem.resistance_h / self.bank.capacity_factor
        root = ocv * ocv - 4 * r * power
        if self.soc <= 0 or root <= 0:
            return False
        volts = ocv - r * (ocv - root**0.5) / (2 * r)
        return bool(
            volts
            >= max(
                chem.empty_ratio if chem.usable < 1 else 0.0, self.motor_min_v / self.bank.nominal_v
            )
        )

    def soc_per_h(self, power_w: float) -> float:
        """Share of the charge that a power takes in an hour, with resistance and Peukert."""
        chem, factor = self.bank.chem, self.bank.capacity_factor
        r, x = chem.resistance_h / factor, power_w / self.bank.energy_wh
        ocv = ocv_ratio(self.bank.battery.chemistry, self.soc)
        rate = float(ocv - max(ocv * ocv - 4 * r * x, 0.0) ** 0.5) / (2 * r)
        peukert = max(rate * chem.rated_h / factor, 1.0) ** (chem.peukert - 1.0)
        return rate * float(peukert) / factor

    def step(self, power_w: float, hours: float) -> None:
        """Draw a power (negative: charge) for some hours; the charge never passes empty or full,
        and a bank that must not be charged (`Bank.takes_charge`) takes nothing.
        """
        if power_w <= 0:
            self._charge(-power_w, hours)
            return
        chem, factor = self.bank.chem, self.bank.capacity_factor
        r, x = chem.resistance_h / factor, power_w / self.bank.energy_wh
        soc = self.soc
        for _ in range(2):  # the voltage of the middle of the step
            ocv = ocv_ratio(self.bank.battery.chemistry, max(0.5 * (self.soc + soc), 0.0))
            rate = (ocv - max(ocv * ocv - 4 * r * x, 0.0) ** 0.5) / (2 * r)
            peukert = max(rate * chem.rated_h / factor, 1.0) ** (chem.peukert - 1.0)
            soc = max(self.soc - hours * rate * peukert / factor, 0.0)
        lasted = min(
            hours, self.soc * factor / max(rate * peukert, 1e-12)
        )  # less where it runs empty in the step
        self.soc = soc
        self.given_wh += power_w * lasted
        self.lost_wh += (
            self.bank.energy_wh * lasted * (r * rate * rate + ocv * rate * (peukert - 1.0))
        )

    def _charge(self, power_w: float, hours: float) -> None:
        if not self.bank.takes_charge:
            return
        chem_id, efficiency = self.bank.battery.chemistry, self.bank.chem.charge_efficiency
        soc = self.soc
        for _ in range(2):
            ocv = ocv_ratio(chem_id, 0.5 * (self.soc + soc))
            soc = min(self.soc + power_w * hours * efficiency / (self.capacity_wh * ocv), 1.0)
        taken = (
            (soc - self.soc) * self.capacity_wh * ocv / efficiency
        )  # less where it is full in the step
        self.soc = soc
        self.taken_wh += taken
        self.lost_wh += taken * (1 - efficiency)


def stored_share(chemistry_id: str, soc: float) -> float:
    """Share of the rated energy between empty and a state of charge, at open-circuit voltage; 1
    when full.

    >>> stored_share("lfp", 0.0), round(stored_share("lfp", 1.0), 6)
    (0.0, 1.0)
    """
    grid = np.linspace(0.0, 1.0, SOC_POINTS)
    volts = (
        np.array([ocv_ratio(chemistry_id, float(s)) for s in grid])
        if chemistry_id not in _SHARES
        else None
    )
    if volts is not None:
        steps = 0.5 * (volts[1:] + volts[:-1]) * np.diff(grid)
        _SHARES[chemistry_id] = np.concatenate(([0.0], np.cumsum(steps)))
    x = min(max(soc, 0.0), 1.0) * (SOC_POINTS - 1)
    i = min(int(x), SOC_POINTS - 2)
    table = _SHARES[chemistry_id]
    lower = ocv_ratio(chemistry_id, float(grid[i]))
    here = ocv_ratio(chemistry_id, min(max(soc, 0.0), 1.0))
    return float(table[i] + 0.5 * (lower + here) * (x - i) / (SOC_POINTS - 1))


_SHARES: dict[str, np.ndarray] = {}
