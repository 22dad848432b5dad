"""What shaft speed and volts of a run say of the causes: the propeller turns as its size, the speed
and the power at the shaft make it turn, whatever the hull drags; a pack sags as its chemistry says.

The effects' sizes and scatter are Jolvek's own.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.discharge import ocv_ratio
from jolvek.core.hydro.open_water import DRIVE_EFFICIENCY, rev_at_power
from jolvek.core.hydro.propulsor import Propulsor
from jolvek.core.predict.performance import Performance
from jolvek.core.trial.runs import TrialPoint

RPM_NOISE = 0.05  # 1σ of ln shaft speed where diameter and pitch are stated
OTHER_PROPELLER = 0.45  # 1σ of ln shaft speed for each e-fold of power that another one costs
HALF_CHARGED = 0.6  # where nobody says how full the packs are
VOLTS_NOISE = 0.03  # 1σ of the share of nominal volts, the charge not being known
SAGS = 1.0  # share of nominal volts lost at full power for each unit of a worn pack or a poor joint


def expected_rpm(p: Performance, speed_m_s: float, power_w: float) -> float | None:
    """Propeller speed in rev/min at a speed and an input power; None where its size is not stated.

    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.measured import SOFT
    >>> expected_rpm(evaluate(SOFT), 1.8, 900.0) is None
    True
    """
    prop: Propulsor = p.propulsor
    sizes = ("motor.propeller_diameter_m", "motor.propeller_pitch_m")
    if any(a.name in sizes for a in prop.assumed):
        return None
    rho, shaft_w = p.setup.water.density_kg_m3, DRIVE_EFFICIENCY * power_w
    return 60 * rev_at_power(shaft_w, speed_m_s, prop.diameter_m, prop.pitch_m, rho)


def expected_v(bank: Bank, power_w: float, charge: float = HALF_CHARGED) -> float:
    """Volts of a bank at a power in W and a charge, as its chemistry sags when new.

    >>> from jolvek.core.electric.battery import Battery
    >>> bank = Bank(Battery("lfp", 25.6, 100), 1, 1)
    >>> 24.0 < expected_v(bank, 2000.0) < expected_v(bank, 100.0) < 26.5
    True
    """
    rest = ocv_ratio(bank.battery.chemistry, charge) * bank.nominal_v
    hours = power_w / bank.energy_wh  # as a share of what the bank holds
    return float(rest - bank.chem.resistance_h * hours * bank.nominal_v)


class Evidence:
    """Shaft speeds and volts of points, as the ln of their density under each cause."""

    def __init__(self, points: Sequence[TrialPoint], p: Performance, full: Array) -> None:
        self.p, self.full = p, full
        wanted = [expected_rpm(p, x.speed_m_s, x.power_w) if x.rpm else None for x in points]
        self.turning = np.array([w is not None for w in wanted], dtype=bool)
        self.off = np.array(
            [np.log((x.rpm or 1.0) / w) for x, w in zip(points, wanted, strict=True) if w]
        )
        self.shown = np.array([w for w in wanted if w])
        self.points = [x for x, yes in zip(points, self.turning, strict=True) if yes]
        bank, most = p.setup.bank, max(x.power_w for x in points)
        with_v = [x for x in points if x.volts_v] if bank else []
        self.sag = np.array(
            [(x.volts_v or 0.0) / bank.nominal_v - expected_v(bank, x.power_w) / bank.nominal_v
             for x in with_v if bank]
        )  # fmt: skip
        self.of_full = np.array([x.power_w / most for x in with_v])

    @property
    def volts(self) -> bool:
        """Whether any point has volts that can be compared."""
        return self.sag.size > 0

    def of(self, key: str, amounts: Array) -> Array:
        """ln density at amounts (K,) of a cause, but for what is common to all."""
        rpm = np.array([self._rpm(key, float(a)) for a in amounts])
        return np.asarray(rpm + np.array([self._volts(key, float(a)) for a in amounts]))

    def _rpm(self, key: str, a: float) -> float:
        if not self.off.size:
            return 0.0
        mean, spread = np.zeros_like(self.off), RPM_NOISE
        if key == "power":  # less at the shaft than the display says
            mean = -a / 3 * self.full[self.turning]
        elif key == "instrument":
            true = [
                expected_rpm(self.p, x.speed_m_s * np.exp(a), x.power_w) or 1.0 for x in self.points
            ]
            mean = np.log(np.array(true) / self.shown)
        common = (OTHER_PROPELLER * a) ** 2 if key == "propeller" else 0.0
        return _alike(self.off - mean, spread, common)

    def _volts(self, key: str, a: float) -> float:
        if not self.sag.size:
            return 0.0
        mean = -SAGS * a * self.of_full if key == "battery" else 0.0
        return _alike(self.sag - mean, VOLTS_NOISE, VOLTS_NOISE**2)


def _alike(off: Array, noise: float, common: float) -> float:
    """ln density of departures with noise of their own and a part that is common to all."""
    n, total = off.size, float(off.sum())
    alone = noise**2
    square = float(off @ off) / alone - common * total**2 / alone / (alone + n * common)
    return float(-0.5 * (square + np.log1p(n * common / alone)))
