"""What Fitting's address asks: shaft, installation, weights on trial; refusals by field."""

from __future__ import annotations

from dataclasses import replace

from jolvek.core.electric.netlist import SCHOOLS_12V, TAKE_OFFS, Loads12V, Plan
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.trim import Weight, moved
from jolvek.web.forms.reader import Reader

RUN_M, LOAD_A, LOAD_S = (0.2, 30.0), (0.0, 200.0), (60.0, 240 * 3600.0)
BEHIND_STERN_M = 0.5  # how far behind the stern a weight may be put


def plan_from(read: Reader) -> Plan:
    """The installation asked for: run, take-off, engine space, 12 V loads and their school."""
    plan, usual = Plan(), Loads12V()
    load = read.figure("load", "current", *LOAD_A)
    time = read.figure("hours", "duration", *LOAD_S)
    school = read.one_of("school", SCHOOLS_12V, usual.school)
    run = read.figure("run", "length", *RUN_M)
    return Plan(
        plan.run_m if run is None else run,
        read.one_of("take", TAKE_OFFS, plan.take_off),
        bool(read.args.get("engine")),
        Loads12V(load or 0.0, usual.hours if time is None else time / 3600, school),
    )


def fitted_from(fitted: Fitted, read: Reader) -> Fitted:
    """The setup in hand with the shaft and installation on trial."""
    text, shaft = read.args.get("shaft", ""), fitted.shaft_m
    if text:
        offered = {f"{s:g}": s for s in fitted.motor.shafts_m}
        if text in offered:
            shaft = offered[text]
        else:
            names = ", ".join(offered) or "none: it is adjustable"
            read.refused["shaft"] = f"read “{text}”; allowed is {names}"
    plan = replace(plan_from(read), solar_w=fitted.plan.solar_w, sun=fitted.plan.sun)
    return replace(fitted, shaft_m=shaft, plan=plan)


def weight_key(name: str) -> str:
    """The field's name of a weight."""
    return "w-" + name.replace(" ", "-")


def weights_from(f: Fitted, read: Reader) -> list[Weight]:
    """The weights with those moved that the address moves."""
    out = f.weights
    for w in f.weights:
        place = read.figure(weight_key(w.name), "length", -BEHIND_STERN_M, f.need.hull.length_m)
        if place is not None and w.name != "motor":
            out = moved(out, w.name, place)
    return out
