"""The day out against an integration of our own here, in steps of two seconds, that shares nothing
with the product but its table of chemistries.
"""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.day.stepped import sail_out
from jolvek.core.electric.battery import Battery
from jolvek.core.enquiry.need import Day, Leg, Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.products.shelf import sample

LEGS = (Leg("out", 1.4, 3000.0), Leg("about", 1.1, 2500.0), Leg("home", 1.6, 3500.0))
HULL = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.36)
NEED = Need(HULL, Load(2, 150), day=Day(1.5, 5000.0).with_legs(LEGS))
PACKS = {
    "lfp": Battery("lfp", 25.6, 40, 11.6, 60),
    "agm": Battery("agm", 24, 160, 45.0, 160),
}
STEP_S = 2.0


def open_volts(chem, soc):
    """Open-circuit voltage over nominal: the table, scaled to a mean of 1."""
    table = np.array(chem.ocv)
    return np.interp(soc, np.linspace(0, 1, table.size), table) / np.trapezoid(table, dx=0.1)


def drawn(chem, capacity_wh, soc, power_w, hours):
    """State of charge after a power for some hours: volts under load, Peukert, or charging."""
    volts, x = open_volts(chem, soc), power_w / capacity_wh
    if x <= 0:
        return min(soc - x * hours * chem.charge_efficiency / volts, 1.0)
    amps_per_ah = x / (0.5 * (volts + np.sqrt(volts**2 - 4 * chem.resistance_h * x)))
    loss = max(amps_per_ah * chem.rated_h, 1.0) ** (chem.peukert - 1)
    return soc - amps_per_ah * loss * hours


def integrated(fitted, sun_w, spare):
    chem, capacity = fitted.bank.chem, fitted.bank.energy_wh
    soc, left = 1.0, int(spare)
    if spare:  # it lies aboard and weighs
        load = fitted.need.load
        load = replace(load, gear_kg=load.gear_kg + fitted.bank.mass_kg)
        fitted = replace(fitted, need=replace(fitted.need, load=load))
    swap_at = max(fitted.need.day.reserve, 1 - chem.usable)
    for leg in LEGS:
        power = fitted.performance.at_speed(leg.speed_m_s).power_w
        for _ in range(round(leg.distance_m / leg.speed_m_s / STEP_S)):
            soc = drawn(chem, capacity, soc, power - sun_w, STEP_S / 3600)
            if left and soc <= swap_at:
                soc, left = 1.0, 0
    return soc


@pytest.mark.parametrize("spare", [False, True])
@pytest.mark.parametrize("sun_w", [0.0, 90.0])
@pytest.mark.parametrize("chemistry", PACKS)
def test_the_charge_left_is_that_of_an_integration_of_our_own(chemistry, sun_w, spare):
    made = sample()
    battery = replace(made.batteries[0], spec=PACKS[chemistry])
    fitted = Fitted(NEED, made.motors[0], battery, made.mounts[0], made.chargers[0], shaft_m=0.381)
    v = sail_out(fitted, spare=fitted.bank if spare else None, sun_at=lambda _hour: sun_w)
    assert v.done and v.left == pytest.approx(integrated(fitted, sun_w, spare), abs=0.005)
    assert v.sun_wh == pytest.approx(sun_w * sum(x.distance_m / x.speed_m_s for x in LEGS) / 3600)
    assert v.energy_wh + v.stored_wh == pytest.approx(v.battery_wh + v.sun_wh)
