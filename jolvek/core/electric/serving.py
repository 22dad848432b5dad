"""How a charger serves a bank: across its ends, by a lead to each pack, or the packs in turn
ashore; never across more volts than it gives.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array, Index
from jolvek.core.electric.charge_time import charge_time_h
from jolvek.core.electric.chemistry import Chemistry

WAYS = ("", "bank", "each", "turn")  # not at all, on the bank, a lead to each pack, ashore in turn
NOMINAL_WITHIN = 0.1  # of the label, where the end of the charge is not stated
LEAST, MOST = 0.97, 1.001  # of the full voltage of lithium; common practice, no source


def suits(
    nominal_v: Any, full_v: Any, lithium: Any, charger_v: Any, charge_voltage_v: Any
) -> Array:
    """Whether a charger's volts are those of a bank or pack: by the end of the charge where it is
    stated (nan: it is not), else by the label. Broadcasts.

    >>> suits(48.1, 54.6, True, 48.0, 58.8).item(), suits(51.8, 58.8, True, 48.0, 58.8).item()
    (False, True)
    """
    near = np.abs(np.asarray(nominal_v) / charger_v - 1) <= NOMINAL_WITHIN
    share = np.asarray(charge_voltage_v) / full_v
    exact = (share >= LEAST) & (share <= MOST)
    return np.asarray(np.where(lithium & ~np.isnan(charge_voltage_v), exact, near))


def ways(
    series: Any,
    parallel: Any,
    pack_v: Any,
    pack_full_v: Any,
    lithium: Any,
    speaks: Any,
    charger_v: Any,
    charge_voltage_v: Any,
    outputs: Any,
) -> Index:
    """Index into WAYS for banks and chargers; broadcasts. A charger for single packs is wired only
    where each pack of the bank has its own isolated output.

    >>> four = (4, 1, 12.8, 14.6, True, True, 12.0, 14.6)
    >>> WAYS[int(ways(*four, 4))], WAYS[int(ways(*four, 1))]
    ('each', 'turn')
    """
    volts = (series * np.asarray(pack_v), series * np.asarray(pack_full_v))
    bank = speaks & suits(*volts, lithium, charger_v, charge_voltage_v)
    pack = speaks & suits(pack_v, pack_full_v, lithium, charger_v, charge_voltage_v)
    single = np.where(np.asarray(outputs) >= np.asarray(series) * parallel, 2, 3)
    return np.asarray(np.where(bank, 1, np.where(pack, single, 0)))


def outputs_used(series: Any, parallel: Any, outputs: Any) -> Array:
    """How many outputs charge a bank together: one across a string, one to each single pack.

    >>> outputs_used(np.array([1, 2]), np.array([3, 1]), 4).tolist()
    [3, 1]
    """
    return np.asarray(np.where(np.asarray(series) == 1, np.minimum(outputs, parallel), 1))


def hours(
    way: Any,
    series: Any,
    parallel: Any,
    ah: Any,
    current_a: Any,
    outputs: Any,
    chem: Chemistry,
    start_soc: float,
) -> Array:
    """Hours to full by a way of serving, every pack in turn counted; inf where it does not serve.

    >>> from jolvek.core.electric.chemistry import chemistry
    >>> lfp = chemistry("lfp")
    >>> each, turn = (hours(way, 4, 1, 100.0, 20.0, 4, lfp, 0.2).item() for way in (2, 3))
    >>> round(each, 1), turn == each
    (4.4, True)
    """
    packs = np.asarray(series) * parallel
    together = current_a * outputs_used(series, parallel, outputs)
    at_once = charge_time_h(np.asarray(parallel) * ah, together, chem, start_soc)
    one = charge_time_h(ah, current_a, chem, start_soc)
    rounds = np.where(np.asarray(way) == 3, np.ceil(packs / np.asarray(outputs)), 1)
    way = np.asarray(way)
    return np.asarray(np.where(way == 0, np.inf, np.where(way == 1, at_once, rounds * one)))
