"""How a motor is worked, as Fitting's drawing tab asks it: throttle, lock, controller, extension
lead, the bank's bay.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.fit.as_set import THROTTLES, AsSet
from jolvek.core.fit.controls import runs
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.measured_trim import hull_aft_m
from jolvek.web.kit.display import Units
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr

WORDS = {
    "": msg("as the motor comes"),
    "cable": msg("remote, by cable"),
    "wireless": msg("remote, wireless"),
}
NAMES = {"throttle_m": "cable", "controller_ahead_m": "controller", "lead_m": "lead"}


@dataclass(frozen=True)
class Controls:
    """What the form shows: texts as typed, and what applies to this setup at all."""

    throttle: str
    words: dict[str, str]
    cable: str
    cable_hint: str
    locked: bool
    rudder: bool
    controller: str | None
    lead: str | None
    bay: str
    bays: tuple[str, ...]
    trim: str


def controls_of(f: Fitted, u: Units) -> Controls:
    """The form's values for a setup; None and empty for what does not apply to it."""
    s, need = f.fitting, runs(f).throttle_m
    hint = (
        tr("the boat needs %(need)s", need=u.full(need, "length"))
        if need
        else tr("type the helm's place on Boat")
    )
    clip = f.battery.id in f.motor.pack_ids
    placed = tuple(b.name for b in f.need.site.bays)
    return Controls(
        s.throttle,
        WORDS,
        length_text(s.throttle_m, u),
        hint,
        s.locked,
        bool(f.need.site.rudder_chord_m) or f.need.hull.fam.sails,
        controller=length_text(s.controller_ahead_m, u) if f.motor.style == "pod" else None,
        lead=length_text(s.lead_m, u) if clip else None,
        bay=s.bay,
        bays=placed if len(placed) > 1 and not f.clips_on else (),
        trim=trim_text(s),
    )


def trim_text(s: AsSet) -> str:
    """The trim as it was measured; empty where it was not."""
    return "" if s.trim_deg is None else f"{s.trim_deg:.1f}"


def length_text(value_m: float | None, u: Units) -> str:
    """A length as its field shows it; empty where it is not set."""
    if value_m is None:
        return ""
    unit = "" if u["length"] == "ft" else f" {u['length']}"
    return u.entry(value_m, "length") + unit


def controls_from(fitting: AsSet, f: Fitted, read: Reader) -> AsSet:
    """The fitting with what the form says of how she is worked; untouched where it holds nothing of
    it.
    """
    if "throttle" not in read.args:
        return fitting
    lengths: dict[str, Any] = {}
    for key, name in NAMES.items():
        typed = read.args.get(name)
        old = getattr(fitting, key)
        if typed is None or typed == length_text(old, read.u):
            continue
        value = read.figure(name, "length", *AsSet.RANGES[key])
        lengths[key] = old if name in read.refused else value
    bays = ("", *(b.name for b in f.need.site.bays))
    return replace(
        fitting,
        throttle=read.one_of("throttle", ("", *THROTTLES), "") if read.args["throttle"] else "",
        locked=bool(read.args.get("locked")),
        bay=read.one_of("bay", bays, fitting.bay) if read.args.get("bay") else _no_bay(read, f),
        **lengths,
        **_trim(f, read),
    )


def _trim(f: Fitted, read: Reader) -> dict[str, Any]:
    """The trim as measured with the weights as they stand, where the form says another."""
    typed = read.args.get("trim")
    if typed is None or typed == trim_text(f.fitting):
        return {}
    found = read.figure("trim", "angle", *AsSet.RANGES["trim_deg"])
    if "trim" in read.refused:
        return {}
    return {"trim_deg": found, "hull_aft_m": 0.0 if found is None else hull_aft_m(f, found)}


def _no_bay(read: Reader, f: Fitted) -> str:
    """Any bay, where the form asks; as it is kept where it does not."""
    return "" if "bay" in read.args else f.fitting.bay
