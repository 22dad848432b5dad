"""What a setup may not do, should not do, and had better know: the rule book applied to one
performance.
"""

from __future__ import annotations

import numpy as np

from jolvek.core.electric.bank import VOLTS_DANGEROUS, Bank
from jolvek.core.electric.bank_facts import bank_facts
from jolvek.core.hydro.drive import momentum_thrust_n
from jolvek.core.hydro.floating import awash_kg
from jolvek.core.hydro.propulsor import LOSS_FACTOR_BELIEVED
from jolvek.core.predict.performance import Performance
from jolvek.core.products.motor import Motor
from jolvek.core.products.pair_facts import motor_facts, pair_facts
from jolvek.core.rules import judge
from jolvek.core.rules.facts import DriveFacts, SetupFacts
from jolvek.core.rules.findings import Finding, find, ordered

AMPS_HIGH = 50.0
HALF_IS_PLENTY = 0.85  # of the top speed on half the power: the rest is bought dearly


def electrical(
    motor: Motor,
    bank: Bank,
    gauge: str = "",
    kept: float | None = None,
    own_pack: bool = True,
) -> list[Finding]:
    """Voltage window, continuous and peak current, controller, touch voltage, gauge: motor against
    bank.

    Currents as `pair_facts` has them, at the share of the charge `kept`. `gauge` is voltage,
    monitor, or empty; `own_pack` whether the motor may be joined to this battery at all.

    >>> from jolvek.core.electric.battery import Battery
    >>> [f.rule for f in electrical(Motor(2000, voltage_v=48), Bank(Battery("lfp", 48, 60), 2))][0]
    'voltage-high'
    """
    kept_share = 0.2 if kept is None else kept
    one = np.array([1])
    packs = bank_facts([bank.battery], bank.series * one, bank.parallel * one, kept_share)
    pair = pair_facts(motor_facts([motor]), packs, np.array([[own_pack]]))
    watts, volts, amps = (float(x[0, 0]) for x in (pair.power_w, pair.at_v, pair.amps))
    out = [*judge.findings("pair", pair)]
    if not any(f.rule == "voltage-low" for f in out) and pair.low_v < pair.least_v:
        out.append(find("voltage-ends-early", float(pair.low_v[0, 0]), float(pair.least_v[0, 0])))
    if watts < motor.input_power_w * (1 - 1e-9):
        most, full = motor.controller_max_a, motor.input_power_w
        out.append(find("controller-limits", amps, most, watts=watts, volts=volts, full=full))
    if bank.full_v > VOLTS_DANGEROUS:
        out.append(find("voltage-dangerous", bank.full_v, VOLTS_DANGEROUS))
    if amps >= AMPS_HIGH:
        out.append(find("high-current", amps, AMPS_HIGH))
    out.append(find("lithium-charging") if bank.chem.lithium else find("lead-ventilation"))
    return out + _gauge(bank, gauge)


def _gauge(bank: Bank, gauge: str) -> list[Finding]:
    """What shows the charge of lithium."""
    if not bank.chem.lithium or gauge not in ("", "voltage"):
        return []
    return [find("gauge-lithium" if gauge else "gauge-missing")]


def claims(performance: Performance) -> list[Finding]:
    """The catalogue's static thrust against momentum theory.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.setup import Setup
    >>> claimed = Motor(2400, propeller_diameter_m=.27, static_thrust_n=900)
    >>> p = evaluate(Setup(Hull("rib", 3.6, 1.7, 95), Load(2), claimed))
    >>> [f.rule for f in claims(p)]
    ['thrust-impossible']
    """
    motor, prop = performance.setup.motor, performance.propulsor
    if (
        motor.static_thrust_n is None
        or prop.claimed_factor is None
        or prop.claimed_factor <= LOSS_FACTOR_BELIEVED
    ):
        return []
    rho = performance.setup.water.density_kg_m3
    rule, factor = (
        ("thrust-impossible", 1.0)
        if prop.claimed_factor > 1
        else ("thrust-claim", LOSS_FACTOR_BELIEVED)
    )
    return [
        find(
            rule,
            motor.static_thrust_n,
            float(momentum_thrust_n(factor * motor.peak_w, 0.0, prop.diameter_m, rho)),
        )
    ]


def carrying(performance: Performance) -> list[Finding]:
    """Load against the hull, people's mass, plate power.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.setup import Setup
    >>> heavy = Setup(Hull("kayak", 3.7, .78, 34), Load(1, 85, 500), Motor(500))
    >>> [f.rule for f in carrying(evaluate(heavy))]
    ['awash']
    """
    s = performance.setup
    plate = np.inf if s.hull.max_power_w is None else s.hull.max_power_w
    out = judge.findings("drive", DriveFacts(s.motor.input_power_w, plate_w=plate))
    limit = awash_kg(s.hull, s.water.density_kg_m3)
    floats = SetupFacts(performance.displacement_kg, 0.0, limit, np.inf)
    out += judge.findings("setup", floats)
    if 0.5 * limit < performance.displacement_kg < limit:
        out.append(find("low-freeboard", performance.displacement_kg, 0.5 * limit, awash=limit))
    if s.load.people and s.load.people_kg is not None and s.load.people_kg / s.load.people < 40:
        each = s.load.people_kg / s.load.people
        out.append(find("people-light", each, 40.0, people=s.load.people, total=s.load.people_kg))
    return out


def running(performance: Performance) -> list[Finding]:
    """Planing, pitch, wind, current, power to waste, and the edge of the model.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.setup import Setup
    >>> upstream = Setup(Hull("canoe", 4.8, .9, 32), Load(2), Motor(500), current_m_s=4.0)
    >>> [f.rule for f in running(evaluate(upstream))]
    ['current-beats-boat']
    """
    p, out = performance, []
    motor = p.setup.motor
    fast = p.hull_speed_m_s
    if p.planing_power_w is not None and not p.planes:
        out.append(find("does-not-plane", p.power_limit_w, p.planing_power_w))
    elif p.planing_power_w is None and p.top_speed_m_s > 1.3 * fast:
        out.append(find("hull-does-not-plane"))
    if p.limited_by == "pitch":
        out.append(find("pitch-bound", p.top_speed_m_s, p.propulsor.pitch_speed_m_s))
    if p.static_thrust_n >= p.propulsor.lug_n * (1 - 1e-6):
        at_power = p.propulsor.drive.thrust_n(p.power_limit_w, 0.0, p.setup.water.density_kg_m3)
        out.append(find("propeller-lugs", p.propulsor.lug_n, float(at_power)))
    if p.top_speed_m_s > 1.6 * fast and not p.planes:
        out.append(find("beyond-tried", p.top_speed_m_s / fast, 1.6))
    if p.planes and not p.resistance.planing_holds(p.top_speed_m_s):
        out.append(find("beyond-planing", p.top_speed_m_s))
    half = float(p.speed_at_w(0.5 * p.power_limit_w)) / p.top_speed_m_s
    if half > HALF_IS_PLENTY and not p.planes:
        out.append(find("overpowered", half, HALF_IS_PLENTY))
    if p.setup.wind_m_s > 0 and p.top_speed_m_s < 1.0:
        out.append(find("weak-in-wind", p.top_speed_m_s, 1.0, wind=p.setup.wind_m_s))
    if p.setup.current_m_s > 0 and p.setup.current_m_s >= p.top_speed_m_s:
        out.append(
            find(
                "current-beats-boat",
                p.top_speed_m_s,
                p.setup.current_m_s,
                watts=motor.input_power_w,
            )
        )
    return out


def check_performance(
    performance: Performance, gauge: str = "", own_pack: bool = True
) -> list[Finding]:
    """Every finding on a setup, worst first.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.setup import Setup
    >>> p = evaluate(Setup(Hull("kayak", 3.7, 0.78, 34, max_power_w=750), Load(1), Motor(1000)))
    >>> check_performance(p)[0].rule
    'plate-power'
    """
    s = performance.setup
    bank = (
        electrical(s.motor, s.bank, gauge, s.reserve, own_pack) if s.bank else [find("no-battery")]
    )
    out = [*carrying(performance), *bank, *claims(performance), *running(performance)]
    if s.water.kind == "salt":
        out.append(find("salt-anode"))
    return ordered([*out, find("life-jacket")])
