"""What the hard rules ask of banks, in arrays."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from jolvek.core.base.arrays import Index, Mask
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.chemistry import end_soc
from jolvek.core.electric.discharge import ocv_ratio
from jolvek.core.electric.serving import suits
from jolvek.core.rules.facts import BankFacts

MID_SOC = 0.6  # a bank below the motor's lowest here is of another voltage


def own_suits(batteries: Sequence[Battery], series: Index, own_charger_v: float | None) -> Mask:
    """Which banks (B,) the customer's own charger suits, or their packs one by one ashore: by the
    volts at the end of its charge; none where the customer has none.

    >>> own_suits([Battery("lfp", 25.6, 100)] * 2, np.array([1, 2]), 58.4).tolist()
    [False, True]
    """
    if own_charger_v is None:
        return np.zeros(len(batteries), dtype=bool)
    full = np.array([b.charge_v for b in batteries], dtype=float)
    lithium = np.array([b.chem.lithium for b in batteries], dtype=bool)
    whole, single = (
        suits(volts, volts, lithium, own_charger_v, own_charger_v)
        for volts in (np.asarray(series) * full, full)
    )
    return np.asarray(np.logical_or(whole, single))


def bank_facts(
    batteries: Sequence[Battery],
    series: Index,
    parallel: Index,
    kept_share: float,
    charged: Mask | bool = True,
) -> BankFacts:
    """The facts of banks (B,): a battery, packs in series, strings in parallel each, and whether
    something charges it.

    >>> one = np.array([1])
    >>> f = bank_facts([Battery("lfp", 25.6, 100, max_continuous_a=100)], one, 2 * one, 0.2)
    >>> f.charge_v.round(1).tolist(), f.cells_a.tolist()
    ([29.2], [200.0])
    """
    rows = {id(b): _pack(b, kept_share) for b in batteries}
    packs = np.array([rows[id(b)] for b in batteries], dtype=float).reshape(len(batteries), 12)
    volts, charge, low, mid, ohm, cells, usual, bms, plug, peak, most_s, most_p = packs.T
    s, p = np.asarray(series, dtype=float), np.asarray(parallel, dtype=float)
    return BankFacts(
        series=s,
        parallel=p,
        nominal_v=s * volts,
        charge_v=s * charge,
        low_v=s * low,
        mid_v=s * mid,
        ohm=ohm * s / p,
        cells_a=p * cells,
        usual_a=p * usual,
        bms_a=p * bms,
        connector_a=p * plug,
        peak_a=p * peak,
        most_series=most_s,
        most_parallel=most_p,
        charged=charged,
    )


def _pack(b: Battery, kept_share: float) -> tuple[float, ...]:
    """One pack's figures; what nobody gave limits nothing."""
    chem, inf = b.chem, np.inf
    volts, stated = b.nominal_voltage_v, b.max_continuous_a
    usual = chem.max_c_rate * b.capacity_ah
    return (
        volts,
        b.charge_v,
        b.rested_v * ocv_ratio(b.chemistry, end_soc(chem, kept_share)),
        b.rested_v * ocv_ratio(b.chemistry, MID_SOC),
        chem.resistance_h * volts / b.capacity_ah,
        stated or inf,
        usual if stated is None and b.bms_max_a is None else inf,
        b.bms_max_a or inf,
        b.connector_max_a or inf,
        b.max_peak_a or stated or inf,
        b.max_series or inf,
        b.max_parallel or inf,
    )
