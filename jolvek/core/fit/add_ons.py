"""Whether an add-on goes with a fitted setup: a propeller for this motor, a panel on this canopy, a
cable that reaches.
"""

from __future__ import annotations

from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.fit import controls
from jolvek.core.fit.fitted import Fitted
from jolvek.core.products.accessories import Accessory, Panel, Propeller
from jolvek.core.products.shelf import Item


def why_not(item: Item[Any], f: Fitted, panels_m2: float = 0.0) -> str:
    """Why an add-on does not go with a setup; empty where it does, or where nobody can tell.
    `panels_m2` of panels are among its add-ons already.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> blade = Item("p", "Sample", "P", 40.0, Propeller(0.27, 0.16, motor_ids=("m20",)))
    >>> why_not(blade, sample_fitted())
    'made for other motors'
    """
    spec = item.spec
    if isinstance(spec, Propeller):
        return _propeller(spec, f)
    if isinstance(spec, Panel):
        return _panel(spec, f, panels_m2)
    return _accessory(spec, f) if isinstance(spec, Accessory) else ""


def _propeller(spec: Propeller, f: Fitted) -> str:
    if spec.motor_ids and f.motor.id not in spec.motor_ids:
        return msg("made for other motors")
    return ""


def area_m2(spec: Panel) -> float:
    """What a panel covers; 0 where its sizes are not given.

    >>> round(area_m2(Panel(110, 1.0, 0.5)), 3)
    0.5
    """
    return (spec.length_m or 0.0) * (spec.width_m or 0.0)


def _panel(spec: Panel, f: Fitted, panels_m2: float) -> str:
    canopy, wants = f.need.hull.canopy_m2, panels_m2 + area_m2(spec)
    if canopy is None or wants <= canopy + 1e-9:
        return ""
    return msg(
        "%(wants)s m² of panels; the canopy has %(canopy)s",
        wants=f"{wants:.1f}",
        canopy=f"{canopy:.1f}",
    )


def _accessory(spec: Accessory, f: Fitted) -> str:
    need = controls.runs(f).throttle_m
    if spec.kind == "throttle" and spec.cable_m is not None and need is not None:
        short = spec.cable_m < need
        return (
            msg(
                "its cable is %(cable)s m; %(need)s m are needed",
                cable=f"{spec.cable_m:g}",
                need=f"{need:.1f}",
            )
            if short
            else ""
        )
    if spec.kind == "cable" and spec.cable_m is not None and not f.clips_on:
        run = f.netlist.plan.run_m
        short = spec.cable_m < run
        return (
            msg(
                "it is %(cable)s m long; the run is %(run)s m",
                cable=f"{spec.cable_m:g}",
                run=f"{run:g}",
            )
            if short
            else ""
        )
    if spec.kind == "adapter" and not controls.adapted(f):
        return msg("no battery of the customer’s own is joined here")
    return ""
