"""Getting over the hump: the power to plane with this load and with fewer people, and how to say
it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.hull import ADULT_KG
from jolvek.core.hydro.propulsor import Propulsor
from jolvek.core.hydro.resistance import Resistance, table
from jolvek.core.predict.drag import drag_n
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

PLANING_FROUDE = 2.0  # volumetric, from here on she planes
HUMP_MARGIN = 0.10  # thrust to spare over resistance on the way there


def planing_power_w(
    resistance: Resistance,
    displacement_kg: float,
    propulsor: Propulsor,
    drag: Callable[[Array], Array],
) -> float | None:
    """Input power in W to plane at this displacement (kg) with 10 % thrust to spare over `drag` (N
    at speeds in m/s); None: cannot plane.

    The dearest speed up to volumetric Fn 2 decides. The pitch is taken as right for the speed.

    >>> from jolvek.core.hydro.hull import Hull; from jolvek.core.hydro.water import Water
    >>> from jolvek.core.hydro.propulsor import fit
    >>> from jolvek.core.hydro.resistance import total_n
    >>> r = table(Hull("rigid_dinghy", 2.9, 1.45, 60), Water(), 250.0)
    >>> 4000 < planing_power_w(r, 250.0, fit(5000), lambda v: total_n(r, v, 250.0)) < 5500
    True
    """
    if not resistance.planing_capable:
        return None
    edge = resistance.planing_speed_m_s(displacement_kg, PLANING_FROUDE)
    speed = np.linspace(0.3, 1.0, 60) * edge
    thrust = np.maximum(drag(speed), 0.0) * (1 + HUMP_MARGIN)
    return float(propulsor.drive.power_w(thrust, speed, resistance.water.density_kg_m3).max())


@dataclass(frozen=True)
class Advice:
    """What planing takes on one boat: W with this load, with one person less, alone; None where she
    cannot.
    """

    can: bool
    power_w: float | None
    one_less_w: float | None
    alone_w: float | None


def advice(setup: Setup) -> Advice:
    """The power to plane with everybody, with one person less, and with the helm alone.

    The motor is taken to weigh what one of that power weighs where it is larger than the setup's.
    Validity as `planing_power_w`; a hull that cannot plane gives none.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> a = advice(Setup(Hull("rigid_dinghy", 2.9, 1.45, 55), Load(2, 150), Motor(5000)))
    >>> a.can, a.one_less_w < a.power_w
    (True, True)
    >>> advice(Setup(Hull("kayak", 3.7, .78, 34), Load(1), Motor(500))).power_w
    """
    if not setup.hull.fam.planes:
        return Advice(False, None, None, None)
    load = setup.load
    each = load.crew_kg / load.people if load.people else ADULT_KG

    def power(people: int) -> float | None:
        lighter = replace(setup, load=replace(load, people=people, people_kg=each * people))
        watts = setup.motor.input_power_w
        for _ in range(3):
            motor = (
                setup.motor
                if watts <= setup.motor.input_power_w
                else Motor(watts, voltage_v=setup.motor.voltage_v)
            )
            mass = replace(lighter, motor=motor).displacement_kg
            asked = replace(lighter, motor=motor)
            r = table(setup.hull, setup.water, mass, lighter.load)
            prop = motor.propulsor(setup.water.density_kg_m3, setup.hull.efficiency_factor)
            found = planing_power_w(r, mass, prop, partial(drag_n, asked, r))
            watts = found or watts
        return found

    return Advice(
        True,
        power(load.people),
        power(load.people - 1) if load.people > 1 else None,
        power(1) if load.people > 2 else None,
    )
