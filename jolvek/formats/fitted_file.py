"""One setup on an enquiry's boat as plain data, judged as the pages judge it, and its day."""

from __future__ import annotations

from typing import Any

from jolvek.core.base.errors import ValueRefused
from jolvek.core.day.stepped import sail_out
from jolvek.core.day.voyage import Voyage
from jolvek.core.electric.netlist import Netlist, Wire
from jolvek.core.electric.network import resistance_ohm
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.job.figures import FIGURES, figure
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.products.shelf import Item, Shelf
from jolvek.core.rules.findings import Finding
from jolvek.formats import setup_file

MAINS = "mains"
AT_A_SHOP = ("price.fitted", "price.add-ons")  # by rates and add-ons that no file has


def fitted(
    need: Need,
    shelf: Shelf,
    ids: dict[str, str | None],
    series: int = 1,
    parallel: int = 1,
    shaft_m: float | None = None,
) -> Fitted:
    """The setup of products named by kind (motor, battery, mount, charger or None); the motor's
    first shaft where none is given. Raises ValueRefused for a name that is not on the shelf.
    """
    motor, battery, mount = (_named(shelf, kind, ids[kind]) for kind in _KINDS)
    charger = _named(shelf, "charger", ids["charger"]) if ids.get("charger") else None
    if shaft_m is None:
        shaft_m = next(iter(motor.shafts_m), None)
    elif motor.shafts_m and shaft_m not in motor.shafts_m:
        raise ValueRefused("shaft", shaft_m, "one of " + ", ".join(map(str, motor.shafts_m)))
    return Fitted(need, motor, battery, mount, charger, series, parallel=parallel, shaft_m=shaft_m)


_KINDS = {"motor": "motors", "battery": "batteries", "mount": "mounts"}
_SHELVES = {**_KINDS, "charger": "chargers"}


def _named(shelf: Shelf, kind: str, name: str | None) -> Item[Any]:
    known: dict[str | None, Item[Any]] = {x.id: x for x in getattr(shelf, _SHELVES[kind])}
    if name not in known:
        raise ValueRefused(kind, name, "one of " + ", ".join(sorted(map(str, known))))
    return known[name]


def answer(f: Fitted) -> dict[str, Any]:
    """What the rule book says, speeds, how she lies, every cable and fuse, and the day."""
    day, job = f.need.day, of_fitted(f)
    voyage = job.day.planned
    question = setup_file.Question(f.setup, (f.motor.spec.input_power_w,), (day.speed_m_s,), ())
    result = setup_file.answer(question)
    # of motor and boat alone, people as usual; those of the whole setup stand beside
    for key in ("findings", "trim_deg", "draught_aft_m"):
        del result[key]
    n = f.netlist
    return {
        "findings": [_said(x) for x in job.findings],
        "precautions": [_said(x) for x in f.precautions],
        "performance": result,
        "trim": {
            "trim_deg": _short(f.attitude.trim_deg),
            "heel_deg": _short(f.attitude.heel_deg),
            "draught_aft_m": _short(f.attitude.draught_aft_m),
            "draught_fore_m": _short(f.attitude.draught_fore_m),
        },
        "leg": None
        if f.leg is None
        else {"plate_m": _short(f.leg.plate_m), "hub_m": _short(f.leg.hub_m), "air": f.leg.air},
        "cables": [] if f.clips_on else [_cable(n, w) for w in n.wires if w.role != MAINS],
        "fuses": [] if f.clips_on else _fuses(n),
        "charge_h": _short(f.charge_h),
        "price": job.parts_price,
        "figures": {key: _value(figure(job, key).value) for key in FIGURES if key not in AT_A_SHOP},
        "day": {
            "done": voyage.home,
            "chance": _short(job.day.chance),
            "kept": _short(voyage.left),
            "home_s": _short(float(voyage.t_s[-1])),
        },
    }


def _said(x: Finding) -> dict[str, Any]:
    return {k: getattr(x, k) for k in ("rule", "level", "text", "cure", "source")}


def _value(value: float | str | None) -> float | str | None:
    return value if isinstance(value, str) else _short(value)


def _short(value: float | None) -> float | None:
    return None if value is None else float(f"{value:.6g}")


def _guard(n: Netlist, w: Wire) -> float | None:
    """The rating of the fuse at either end of a cable."""
    return next((n.fuses[p].rating_a for p in (w.a[0], w.b[0]) if p in n.fuses), None)


def _cable(n: Netlist, w: Wire) -> dict[str, Any]:
    return {
        "id": w.id,
        "role": w.role,
        "from": " ".join(w.a),
        "to": " ".join(w.b),
        "length_m": _short(w.length_m),
        "size_mm2": w.size.size_mm2,
        "runs": w.size.runs,
        "current_a": _short(w.current_a),
        "ampacity_a": _short(w.size.allowed_a),
        "fuse_a": _guard(n, w),
        "drop_v": _short(float(resistance_ohm(w)) * w.current_a),
    }


def _fuses(n: Netlist) -> list[dict[str, Any]]:
    return [
        {
            "id": name,
            "rating_a": fuse.rating_a,
            "volts_v": fuse.volts_v,
            "breaks_a": _short(fuse.must_break_a),
            "protects": [w.id for w in n.wires if name in (w.a[0], w.b[0])],
        }
        for name, fuse in n.fuses.items()
    ]


def day_answer(f: Fitted) -> dict[str, Any]:
    """The simulated day: a row every few minutes, its events, and sums of energy that add up."""
    v = sail_out(f)
    return {
        "done": v.done,
        "home_with_reserve": v.home,
        "rows": _rows(v),
        "events": [
            {"t_s": _short(e.t_s), "kind": e.kind, "text": e.text, "soc": _short(e.soc)}
            for e in v.events
        ],
        "energy": {
            "used_wh": _short(v.energy_wh),
            "sun_wh": _short(v.sun_wh),
            "battery_wh": _short(v.battery_wh),
            "stored_wh": _short(v.stored_wh),
        },
    }


MOST_ROWS = 400


def _rows(v: Voyage) -> list[dict[str, Any]]:
    every = -(-v.t_s.size // MOST_ROWS)
    keys = ("t_s", "soc", "power_w", "sun_w", "speed_m_s", "ground_m_s", "distance_m")
    rows = [*range(0, v.t_s.size, every)]
    rows = rows if rows[-1] == v.t_s.size - 1 else [*rows, v.t_s.size - 1]
    return [
        {**{k: _short(float(getattr(v, k)[i])) for k in keys}, "leg": int(v.leg[i])} for i in rows
    ]
