"""The wiring of a fitted setup: what is planned, by where things are and what is chosen."""

from __future__ import annotations

from dataclasses import replace

from jolvek.core.electric import charging
from jolvek.core.electric.netlist import Netlist
from jolvek.core.electric.wiring import install
from jolvek.core.fit import controls
from jolvek.core.fit.fit import Fit


def netlist(f: Fit) -> Netlist:
    """Bank, motor, charger, panels and 12 V loads with their cables and fuses.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> netlist(sample_fitted()).plan.run_m
    1.7
    """
    c = f.charger.spec if f.charger else None
    plan = replace(
        f.plan,
        run_m=f.run_m,
        charger_a=f.plan.charger_a or (c.current_a if c else 0.0),
        charger_outputs=c.outputs if c else 1,
        charger_way=charging.matches(f.bank, c) if c and not f.carried else "",
        solar_w=f.solar_w,
        shunt=f.gauge == "monitor",
        plugs=controls.plugs(f),
        connector_a=f.plan.connector_a or f.battery.spec.connector_max_a,
    )
    amps = float(f.pair.amps[0, 0])
    return install(f.bank, f.motor.spec.input_power_w, plan, steady_a=amps)
