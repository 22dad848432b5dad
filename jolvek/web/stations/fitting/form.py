"""What Fitting's forms ask: shaft or pole, installation, weights; refusals by field."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.units import FOOT_M
from jolvek.core.electric.netlist import SCHOOLS_12V, TAKE_OFFS, Plan
from jolvek.core.fit.as_set import AS_PLANNED, AsSet, as_set_from, as_set_plain, merged
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hung_leg import STEP_M, hung_leg
from jolvek.core.fit.trim import Weight
from jolvek.formats.schema import loads
from jolvek.web.kit.display import Units
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr
from jolvek.web.stations.fitting.controls import controls_from, length_text

RUN_M, LOAD_A = AsSet.RANGES["run_m"], AsSet.RANGES["load_a"]
LOAD_S = tuple(3600 * h for h in AsSet.RANGES["load_h"])
POLE_M = AsSet.RANGES["pole_m"]
BEHIND_STERN_M = 0.5  # how far behind the stern a weight may be put
BACK = "back"  # the field that puts one thing back as planned


def fitted_from(kept: Fitted, read: Reader) -> Fitted:
    """The setup as an address or a form sets it, over what is kept with it: of a form, only what
    was changed of what it showed, so that two tabs keep what each of them moved.
    """
    seen = _seen(kept, read)
    shaft = _shaft(seen, read)
    fitting = _installed(_hung(seen.fitting, seen, read), seen, read)
    fitting = controls_from(fitting, seen, read)
    fitting = merged(seen.fitting, replace(fitting, places=_places(seen, read)), kept.fitting)
    return _as(kept, kept.shaft_m if shaft == seen.shaft_m else shaft, fitting)


def seen_text(kept: Fitted) -> str:
    """What a form shows, as its hidden field carries it."""
    return json.dumps({"shaft_m": kept.shaft_m, "fitting": as_set_plain(kept.fitting)})


def _seen(kept: Fitted, read: Reader) -> Fitted:
    """The setup as the form showed it; as it is kept where the form does not say."""
    try:
        data = loads(read.args.get("seen") or seen_text(kept))
        shaft, fitting = data["shaft_m"], as_set_from(data["fitting"])
    except (JolvekError, KeyError, TypeError):
        read.refused["seen"] = tr("the form does not say what it showed; load the page again")
        return kept
    return _as(kept, shaft if shaft in kept.motor.shafts_m else kept.shaft_m, fitting)


def _as(fitted: Fitted, shaft_m: float | None, fitting: AsSet) -> Fitted:
    plan = fitting.plan(Plan(solar_w=fitted.plan.solar_w, sun=fitted.plan.sun))
    return replace(fitted, shaft_m=shaft_m, fitting=fitting, plan=plan)


def _shaft(fitted: Fitted, read: Reader) -> float | None:
    text = read.args.get("shaft", "")
    if not text:
        return fitted.shaft_m
    offered = {f"{s:g}": s for s in fitted.motor.shafts_m}
    if text not in offered:
        names = ", ".join(offered) or tr("none: it is adjustable")
        read.refused["shaft"] = tr("read “%(text)s”; allowed is %(names)s", text=text, names=names)
        return fitted.shaft_m
    return offered[text]


def _hung(fitting: AsSet, fitted: Fitted, read: Reader) -> AsSet:
    """Height of a pole, hole of the trim pin."""
    planned = replace(fitted, fitting=AS_PLANNED)
    pole = read.figure("pole", "length", *POLE_M)
    if pole is None or abs(pole - hung_leg(fitted)[1]) < STEP_M / 2:  # as it was shown
        pole = fitting.pole_m
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
    typed = read.figure("run", "length", *RUN_M)
    run = fitting.run_m if "run" not in read.args or "run" in read.refused else typed
    whole = {"take", "school"} <= read.args.keys()  # a form, which sends no box that is not ticked
    return _bare(
        fitting,
        run_m=run if fitting.lead_m is None else fitting.run_m,  # an extension lead is the run
        take_off=read.one_of("take", TAKE_OFFS, plan.take_off),
        engine_space=bool(read.args.get("engine")) or (not whole and fitting.engine_space),
        load_a=(0.0 if whole else fitting.load_a) if load is None else load,
        load_h=plan.loads.hours if time is None else time / 3600,
        school=read.one_of("school", SCHOOLS_12V, plan.loads.school),
    )


def run_text(fitted: Fitted, u: Units) -> str:
    """The run from bank to motor as its field shows it: empty where nobody measured it."""
    return length_text(fitted.fitting.run_m, u) if fitted.fitting.run_m else ""


def _bare(fitting: AsSet, **installed: Any) -> AsSet:
    """With this installation; what of it stands as usual is as planned."""
    usual = Plan()
    as_usual = {
        "take_off": usual.take_off,
        "load_h": usual.loads.hours,
        "school": usual.loads.school,
    }
    back = {k: getattr(AS_PLANNED, k) for k, v in as_usual.items() if installed[k] == v}
    return replace(fitting, **installed | back)


def weight_key(name: str) -> str:
    """The field's name of a weight."""
    return "w-" + name.replace(" ", "-")


def place_text(w: Weight, u: Units) -> str:
    """A weight's place as its slider shows it."""
    return f"{w.ahead_m / (FOOT_M if u['length'] == 'ft' else 1.0):.2f}"


def _places(f: Fitted, read: Reader) -> tuple[tuple[str, float], ...]:
    """The weights that stand elsewhere than planned: kept, or moved by what is asked."""
    out = dict(f.fitting.places)
    for w, now in zip(f.planned_weights, f.weights, strict=True):
        key = weight_key(w.name)
        text = read.args.get(key, "").strip()
        if read.args.get(BACK) == key or text == place_text(w, read.u):
            out.pop(w.name, None)
        elif text != place_text(now, read.u) and w.name != "motor":
            place = read.figure(key, "length", -BEHIND_STERN_M, f.need.hull.length_m)
            out |= {} if place is None else {w.name: place}
    return tuple(out.items())
