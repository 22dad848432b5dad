"""What an inspector would ask of a setup: findings where something is wrong, and the precautions
that go with every job of its kind.
"""

from __future__ import annotations

import numpy as np

from jolvek.core.electric import sun_chain
from jolvek.core.electric.bank import VOLTS_DANGEROUS
from jolvek.core.electric.compass import clear_m
from jolvek.core.electric.wire_sizes import FUSE_VOLTS
from jolvek.core.fit.fit import Fit
from jolvek.core.fit.judged import borne
from jolvek.core.rules.findings import Finding, find
from jolvek.core.rules.predicates import MOST_JOINED, MOST_STRINGS

# From memory, but where said otherwise
BMS_NEAR = 0.9  # of its limit; common practice, no source
INRUSH_V, INRUSH_W = 44.0, 1000.0  # 48 V and more than a kilowatt
BILGE_M = 0.05  # water that stands in a boat; common practice, no source
DERATES_C = 30.0  # common practice, no source
WET_TOUCH_V = 30.0
MOVES_MM = 25.0
SUPPORT_MM = 450.0
CLASS_9_WH = 100.0


def inspected(f: Fit) -> list[Finding]:
    """What is wrong, or nearly, in this setup.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> inspected(sample_fitted())
    []
    """
    out, motor, bank = _limit_near(f), f.motor.spec, f.bank
    if bank.nominal_v >= INRUSH_V and motor.input_power_w > INRUSH_W:
        out.append(find("inrush", bank.nominal_v, INRUSH_V, watts=motor.input_power_w))
    if f.need.site.petrol_aboard and not motor.ignition_protected:
        out.append(find("petrol-aboard"))
    low = min((s.bay for s in f.stowed[0]), key=lambda b: b.above_m, default=None)
    if low is not None and low.above_m < BILGE_M:
        out.append(find("bay-wet", 1000 * low.above_m, 1000 * BILGE_M, bay=low.name))
    if f.need.day.temperature_c > DERATES_C:
        out.append(find("derating", f.need.day.temperature_c, DERATES_C))
    takes = max((x.volts_v for x in f.netlist.fuses.values()), default=0.0)
    if not f.clips_on and bank.charge_v > FUSE_VOLTS[0]:
        out.append(find("fuse-volts", bank.charge_v, FUSE_VOLTS[0], takes=takes))
    plan = f.netlist.plan
    out += sun_chain.findings(plan.sun, bank, max(plan.solar_w, plan.sun.rated_w))
    if WET_TOUCH_V < bank.full_v <= VOLTS_DANGEROUS:
        out.append(find("wet-touch", bank.full_v, WET_TOUCH_V))
    return out


def _limit_near(f: Fit) -> list[Finding]:
    """A lithium bank that gives nearly what its management lets through."""
    pair, amps = f.pair, float(f.pair.amps[0, 0])
    bank = pair.bank
    limit = float(np.min([bank.cells_a, bank.bms_a, bank.connector_a]))
    if not f.bank.chem.lithium or not BMS_NEAR * limit < amps <= limit:
        return []
    strings = int(np.ceil(amps / (BMS_NEAR * limit) * f.bank.parallel - 1e-9))
    watts = BMS_NEAR * limit * float(pair.at_v[0, 0])
    most = min(float(bank.most_parallel.max()), MOST_STRINGS)
    joined = strings * f.bank.series
    cured = strings <= most and joined <= MOST_JOINED
    more = {"strings": strings, "packs": joined, "watts": watts, "cured": cured}
    return [borne(f, find("bms-cuts-off", amps, limit, **more))]


def precautions(f: Fit) -> list[Finding]:
    """What goes with every job of this kind, however good it is.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> [x.rule for x in precautions(sample_fitted())]
    ['main-fuse', 'restraint', 'polarity', 'cable-run', 'transport', 'insurer', \
'charge-watched']
    """
    out = [] if f.clips_on else _built_in(f)
    bank, pack = f.bank, f.battery.spec
    if bank.chem.lithium:
        if pack.energy_wh > CLASS_9_WH:
            out.append(find("transport", pack.energy_wh, CLASS_9_WH))
        if not f.clips_on:
            out.append(find("insurer", bank.energy_wh / 1000, 0.0))
        if f.charge_h is not None:
            out.append(find("charge-watched", f.charge_h, 0.0))
    if (
        not f.clips_on
        and f.need.day.shore_power
        and any(p.kind == "inlet" for p in f.netlist.parts)
    ):
        out.append(find("shore-side"))
    if f.need.site.construction == "aluminium":
        out.append(find("aluminium-hull"))
    if f.need.site.construction in ("wood", "laminate"):
        out.append(find("cut-edges"))
    return out


def _built_in(f: Fit) -> list[Finding]:
    """A bank with cables."""
    amps = f.netlist.motor_a
    cable = [w for w in f.netlist.wires if w.role == "plus"][-1].size
    near = clear_m(amps, cable.size_mm2 * cable.runs)
    main = max(f.netlist.fuses.values(), key=lambda x: x.rating_a)
    stands = {"breaks": main.must_break_a, "within": 1000 * main.within_m}
    out = [
        find("main-fuse", main.rating_a, main.volts_v, **stands),
        find("restraint", f.battery.spec.weight_kg, MOVES_MM),
        find("polarity", watts=f.motor.spec.input_power_w),
        find("cable-run", near, SUPPORT_MM, amps=amps),
    ]
    if f.bank.packs > 1:
        out.append(find("packs-alike", f.bank.packs, 1.0))
    return out
