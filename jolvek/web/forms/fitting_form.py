"""What Fitting's address asks: shaft, installation, weights on trial; refusals by field."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from jolvek.core.base import units
from jolvek.core.electric.netlist import SCHOOLS_12V, TAKE_OFFS, Loads12V, Plan
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.trim import Weight, moved
from jolvek.web.view.display import Units

RUN_M, LOAD_A, LOAD_S = (0.2, 30.0), (0.0, 200.0), (60.0, 240 * 3600.0)
BEHIND_STERN_M = 0.5  # how far behind the stern a weight may be put


@dataclass
class Reader:
    """Reads typed figures from an address into SI; what cannot be read is told by field."""

    args: Mapping[str, str]
    u: Units
    refused: dict[str, str] = field(default_factory=dict)

    def figure(self, key: str, quantity: str, low: float, high: float) -> float | None:
        """A typed figure; None where it is empty or refused."""
        text = self.args.get(key, "").strip()
        if not text:
            return None
        try:
            value = units.parse(text, quantity, self.u[quantity])
        except units.NotAQuantity as error:
            self.refused[key] = str(error)
            return None
        if not low <= value <= high:
            allowed = f"{self.u.full(low, quantity)} to {self.u.full(high, quantity)}"
            self.refused[key] = f"read “{text}”; allowed is {allowed}"
            return None
        return value

    def one_of(self, key: str, known: tuple[str, ...], usual: str) -> str:
        """One of the known words."""
        word = self.args.get(key) or usual
        if word in known:
            return word
        self.refused[key] = f"read “{word}”; allowed is one of {', '.join(known)}"
        return usual


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
    return replace(fitted, shaft_m=shaft, plan=plan_from(read))


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
