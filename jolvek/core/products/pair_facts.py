"""What the hard rules ask of motors, and of motors with banks, in arrays."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from jolvek.core.base.arrays import Array, Mask
from jolvek.core.electric.wire_sizes import FUSE_SHARE, FUSES_A
from jolvek.core.products.motor import WINDOW, Motor
from jolvek.core.rules.facts import BankFacts, MotorFacts, PairFacts


def motor_facts(motors: Sequence[Motor]) -> MotorFacts:
    """The facts of motors (M,).

    >>> motor_facts([Motor(1000, voltage_v=24)]).peak_w.tolist()
    [nan]
    """
    nan, inf = np.nan, np.inf
    rows = [
        (
            m.input_power_w,
            m.peak_w if m.peak_w > m.input_power_w else nan,
            m.voltage_v or nan,
            m.voltage_min_v or nan,
            m.voltage_max_v or nan,
            m.controller_max_a or inf,
        )
        for m in motors
    ]
    return MotorFacts(*np.array(rows, dtype=float).reshape(len(rows), 6).T)


def loaded_v(open_v: Array, ohm: Array, power_w: Array) -> Array:
    """Volts of a source of an open-circuit voltage and a resistance while it gives a power; half
    the open-circuit voltage where it cannot. Broadcasts.

    >>> loaded_v(25.2, 0.009, 2400.0).round(1).item()
    24.3
    """
    return np.asarray(0.5 * (open_v + np.sqrt(np.maximum(open_v**2 - 4 * ohm * power_w, 0.0))))


def pair_facts(m: MotorFacts, b: BankFacts, own_pack: Mask) -> PairFacts:
    """The facts of every motor with every bank (M, B). Currents are those at the lowest of the
    motor's nominal voltage, the bank's, and the bank's under load at the reserve; the controller
    lets its amps through at the volts under load.

    >>> from jolvek.core.electric.bank_facts import bank_facts
    >>> from jolvek.core.electric.battery import Battery
    >>> one = np.array([1])
    >>> bank = bank_facts([Battery("lfp", 25.6, 100, max_continuous_a=100)], one, one, 0.2)
    >>> motor = motor_facts([Motor(2400, 2520, voltage_v=24)])
    >>> pair_facts(motor, bank, np.array([[True]])).peak_amps.tolist()
    [[105.0]]
    """
    power, peak, motor_v, least, most, controller = (
        x[:, None] for x in (m.power_w, m.peak_w, m.nominal_v, m.least_v, m.most_v, m.controller_a)
    )
    low, mid, ohm = b.low_v[None], b.mid_v[None], b.ohm[None]
    nominal = np.where(np.isnan(motor_v), b.nominal_v[None], motor_v)
    limits = (b.cells_a, b.usual_a, b.bms_a, b.connector_a)
    gives = np.minimum.reduce(limits)[None] * low  # a bank sags no further than its limit lets it
    power = np.minimum(power, controller * loaded_v(low, ohm, np.minimum(power, gives)))
    peak = np.minimum(peak, controller * loaded_v(low, ohm, np.minimum(peak, gives)))
    loaded = loaded_v(low, ohm, np.minimum(power, gives))
    at_v = np.minimum(np.minimum(nominal, b.nominal_v[None]), loaded)
    peak_v = np.minimum(at_v, loaded_v(low, ohm, np.minimum(peak, gives)))
    return PairFacts(
        np.broadcast_to(power, at_v.shape),
        power / at_v,
        peak / peak_v,
        peak,
        at_v,
        np.broadcast_to(b.nominal_v[None], at_v.shape),
        charge_v=np.broadcast_to(b.charge_v[None], at_v.shape),
        low_v=loaded,
        mid_v=loaded_v(mid, ohm, np.minimum(power, gives)),
        least_v=np.where(np.isnan(least), WINDOW[0] * nominal, least),
        most_v=np.where(np.isnan(most), WINDOW[1] * nominal, most),
        fuse_a=FUSE_SHARE * power / at_v,
        most_fuse_a=FUSES_A[-1],
        bank=b,
        own_pack=own_pack,
    )
