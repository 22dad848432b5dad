"""What Fitting's forms ask: shaft or pole, installation, weights; refusals by field."""

from __future__ import annotations

from dataclasses import replace

from jolvek.core.base.units import FOOT_M
from jolvek.core.electric.netlist import SCHOOLS_12V, TAKE_OFFS
from jolvek.core.fit.as_set import AS_PLANNED, AsSet
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hung_leg import STEP_M, hung_leg
from jolvek.core.fit.trim import Weight
from jolvek.web.forms.reader import Reader
from jolvek.web.view.display import Units

RUN_M, LOAD_A = AsSet.RANGES["run_m"], AsSet.RANGES["load_a"]
LOAD_S = tuple(3600 * h for h in AsSet.RANGES["load_h"])
POLE_M = AsSet.RANGES["pole_m"]
BEHIND_STERN_M = 0.5  # how far behind the stern a weight may be put
BACK = "back"  # the field that puts one thing back as planned


def fitted_from(fitted: Fitted, read: Reader) -> Fitted:
    """The setup in hand as an address or a form sets it, over what is kept with it."""
    shaft = _shaft(fitted, read)
    fitting = _installed(_hung(fitted.fitting, fitted, read), fitted, read)
    fitting = replace(fitting, places=_places(fitted, read))
    plan = fitting.plan(type(fitted.plan)(solar_w=fitted.plan.solar_w, sun=fitted.plan.sun))
    return replace(fitted, shaft_m=shaft, fitting=fitting, plan=plan)


def _shaft(fitted: Fitted, read: Reader) -> float | None:
    text = read.args.get("shaft", "")
    if not text:
        return fitted.shaft_m
    offered = {f"{s:g}": s for s in fitted.motor.shafts_m}
    if text not in offered:
        names = ", ".join(offered) or "none: it is adjustable"
        read.refused["shaft"] = f"read “{text}”; allowed is {names}"
        return fitted.shaft_m
    return offered[text]


def _hung(fitting: AsSet, fitted: Fitted, read: Reader) -> AsSet:
    """Height of a pole, hole of the trim pin."""
    planned = replace(fitted, fitting=AS_PLANNED)
    pole = read.figure("pole", "length", *POLE_M) or fitting.pole_m
    as_planned = pole is not None and abs(pole - hung_leg(planned)[1]) < STEP_M / 2
    pole = None if as_planned or read.args.get(BACK) == "pole" else pole
    hole = read.figure("pin", "count", *AsSet.RANGES["pin"])
    pin = fitting.pin if hole is None else int(hole)
    return replace(fitting, pole_m=pole, pin=None if pin == planned.pin else pin)


def _installed(fitting: AsSet, fitted: Fitted, read: Reader) -> AsSet:
    """Run, take-off, engine space, 12 V loads and their school, where the form holds them."""
    if not read.args.keys() & {"run", "take", "load", "hours", "school", "engine"}:
        return fitting
    plan = fitted.plan
    load = read.figure("load", "current", *LOAD_A)
    time = read.figure("hours", "duration", *LOAD_S)
    run = read.figure("run", "length", *RUN_M)
    whole = "run" in read.args  # of a form, where a box that is not ticked is not sent
    return replace(
        fitting,
        run_m=plan.run_m if run is None else run,
        take_off=read.one_of("take", TAKE_OFFS, plan.take_off),
        engine_space=bool(read.args.get("engine")) or (not whole and fitting.engine_space),
        load_a=(0.0 if whole else fitting.load_a) if load is None else load,
        load_h=plan.loads.hours if time is None else time / 3600,
        school=read.one_of("school", SCHOOLS_12V, plan.loads.school),
    )


def weight_key(name: str) -> str:
    """The field's name of a weight."""
    return "w-" + name.replace(" ", "-")


def place_text(w: Weight, u: Units) -> str:
    """A weight's place as its slider shows it."""
    return f"{w.ahead_m / (FOOT_M if u['length'] == 'ft' else 1.0):.2f}"


def _places(f: Fitted, read: Reader) -> tuple[tuple[str, float], ...]:
    """The weights that stand elsewhere than planned: kept, or moved by what is asked."""
    out = dict(f.fitting.places)
    for w in f.planned_weights:
        key = weight_key(w.name)
        place = read.figure(key, "length", -BEHIND_STERN_M, f.need.hull.length_m)
        if place is not None and w.name != "motor":
            out[w.name] = place
        if read.args.get(BACK) == key or read.args.get(key, "").strip() == place_text(w, read.u):
            out.pop(w.name, None)
    return tuple(out.items())
