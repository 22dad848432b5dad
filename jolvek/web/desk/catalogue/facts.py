"""What follows from a product's data: figures, what is missing and what that costs in doubt."""

from __future__ import annotations

from typing import Any

from jolvek.core.base.units import KNOT_M_S
from jolvek.core.electric.battery import Battery
from jolvek.core.predict.priors import NO_PROPELLER, PRIORS
from jolvek.core.products.motor import Motor, estimates
from jolvek.core.products.shelf import Item
from jolvek.web.kit.display import Units, money
from jolvek.web.kit.language import decimal, tr
from jolvek.web.kit.words import plain_name

AT_KNOTS = (0.0, 3.0, 5.0)
Facts = tuple[tuple[str, str], ...]


def follows(item: Item[Any], u: Units) -> Facts:
    """Name and figure of what follows from what is stated, in shown units."""
    if isinstance(item.spec, Motor):
        return _of_motor(item.spec, u)
    if isinstance(item.spec, Battery):
        return _of_battery(item, u)
    return ()


def _of_motor(motor: Motor, u: Units) -> Facts:
    prop, power = motor.propulsor(), motor.input_power_w
    thrust = []
    for knots in AT_KNOTS:
        v = knots * KNOT_M_S
        most = min(float(prop.drive.thrust_n(power, v)), float(prop.room_n(v)))
        thrust.append((tr("Thrust at %(x)s", x=u.full(v, "speed")), str(u.full(most, "thrust", 0))))
    return (
        (tr("Real horsepower, at the shaft"), decimal(f"{motor.shaft_hp:.1f} hp")),
        (tr("Pitch speed, where thrust ends"), str(u.full(prop.pitch_speed_m_s, "speed"))),
        *thrust,
        (tr("Takes while on, propeller still"), f"{prop.idle_w:.0f} W"),
        (tr("Takes banks of"), _volts(*motor.window_v())),
    )


def _of_battery(item: Item[Any], u: Units) -> Facts:
    b, amps = item.spec, item.spec.continuous_a
    return (
        (tr("Holds"), f"{b.energy_wh:.0f} Wh"),
        (tr("To be drawn without harm"), f"{b.chem.usable * b.energy_wh:.0f} Wh"),
        (
            tr("Energy for its weight"),
            tr("%(weight)s Wh per kg", weight=f"{b.energy_wh / b.weight_kg:.0f}"),
        ),
        (tr("A kWh costs"), money(round(1000 * item.price / b.energy_wh))),
        (tr("Full, empty"), decimal(f"{b.full_v:.1f} V, {b.empty_v:.1f} V")),
        (
            tr("Gives at most"),
            decimal(f"{amps:.0f} A, {amps / b.capacity_ah:.1f} C"),
        ),
    )


def _volts(low: float, high: float) -> str:
    return tr("%(low)s to %(high)s V", low=f"{low:.1f}", high=f"{high:.1f}")


def missing(item: Item[Any]) -> tuple[str, ...]:
    """What is not stated and taken as usual, and what that costs in doubt."""
    spec, out = item.spec, []
    if isinstance(spec, Motor):
        assumed = [*spec.propulsor().assumed, *estimates(spec)]
        names = dict.fromkeys(plain_name(a.name) for a in assumed if a.name != "motor.loss_factor")
        if names:
            out.append(tr("Taken as usual: %(names)s.", names=", ".join(names)))
        if spec.propeller_diameter_m is None:
            out.append(
                tr(
                    "Without the propeller's diameter thrust is known to ± %(no_propeller)s %% "
                    "instead of ± %(priors)s %%.",
                    no_propeller=f"{100 * NO_PROPELLER:.0f}",
                    priors=f"{100 * PRIORS['efficiency']:.0f}",
                )
            )
    if isinstance(spec, Battery):
        if spec.mass_kg is None:
            out.append(tr("Its mass is taken by the usual Wh per kg of its chemistry."))
        if None in (spec.length_m, spec.width_m, spec.height_m):
            out.append(tr("Without sizes nobody can say whether it goes into a bay."))
        if spec.max_continuous_a is None:
            out.append(tr("Its amps are taken as usual for its chemistry."))
    return tuple(out)
