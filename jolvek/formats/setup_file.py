"""jolvek-setup: one boat with one setup in, its prediction out."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import asdict, dataclass
from typing import Any

from jolvek.core.base.errors import ValueRefused
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.fit.trim import PERSON_CG_M, Attitude, Weight, attitude, crew
from jolvek.core.hydro import hull as hull_module
from jolvek.core.hydro.hull import Assumed, Hull, Load
from jolvek.core.hydro.water import Water
from jolvek.core.predict.capacity import without_plate
from jolvek.core.predict.doubt import Doubt, doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.likelihood import CONFIDENCE, in_words
from jolvek.core.predict.limits import check_performance
from jolvek.core.predict.performance import Performance, Point
from jolvek.core.predict.setup import Setup
from jolvek.core.products import motor as motor_module
from jolvek.core.products.motor import Motor
from jolvek.core.rules.findings import Finding, ordered
from jolvek.formats import schema

USUAL = (
    ("water", "salt, 15 °C", "not given"),
    ("reserve", 0.2, "a fifth is usual"),
    ("wind_m_s", 0.0, "calm"),
    ("current_m_s", 0.0, "still water"),
)
BANK_AT = 0.2  # share of the length ahead of the transom; common practice, no source


@dataclass(frozen=True)
class Place:
    """One mass in kg, m ahead of the transom and m to starboard."""

    mass_kg: float
    ahead_m: float
    off_m: float = 0.0


@dataclass(frozen=True)
class Question:
    """A setup read from a file, what is asked of it, and which keys nobody gave."""

    setup: Setup
    powers_w: tuple[float, ...]
    speeds_m_s: tuple[float, ...]
    assumed: tuple[Assumed, ...]
    confidence: float = CONFIDENCE
    places: tuple[Place, ...] = ()


def read(text: str | bytes) -> Question:
    """Read a jolvek-setup file; raises ValueRefused or UnreadableFile with one sentence."""
    data = schema.loads(text)
    schema.check_schema(data, "setup")
    return from_dict(data)


def from_dict(data: dict[str, Any]) -> Question:
    """The question in checked data."""
    motor = Motor(**data["motor"])
    assumed: list[Assumed] = []
    places = tuple(Place(**p) for p in data["load"].get("places", ()))
    load = _load(data["load"], places, assumed)
    off, wind = data.get("wind_from_deg", 0.0), data.get("wind_m_s", 0.0)
    fit = dict(data.get("fit", {}))
    drag = fit.pop("drag_factor", 1.0)
    fit |= {key: tuple(fit[key]) for key in ("trial_shape", "trial_spread") if key in fit}
    setup = Setup(
        _hull(data["hull"], fit),
        load,
        motor,
        _bank(data, motor, assumed),
        Water(data.get("water", "salt")),
        wind * math.cos(math.radians(off)),
        current_m_s=data.get("current_m_s", 0.0),
        reserve=data.get("reserve", 0.2),
        drag_factor=drag,
        wave_height_m=data.get("wave_height_m", 0.0),
        wave_from_deg=off,
        depth_m=data.get("depth_m"),
    )
    for key, value, why in USUAL:
        if key not in data:
            assumed.append(Assumed(key, value, why))
    ask = data.get("ask", {})
    powers, speeds = tuple(ask.get("powers_w", ())), tuple(ask.get("speeds_m_s", ()))
    confidence = data.get("confidence", CONFIDENCE)
    return Question(setup, powers, speeds, tuple(assumed), confidence, places)


def _hull(told: dict[str, Any], fit: dict[str, Any]) -> Hull:
    """The hull with its amas, and what a trial found of it."""
    amas = told.get("amas", {})
    made = {k: v for k, v in told.items() if k != "amas"} | fit
    if amas:
        keys = {"share": "ama_share", "length_m": "ama_length_m", "spacing_m": "body_spacing_m"}
        made = {"bodies": 3} | made | {keys[k]: v for k, v in amas.items()}
        if made["bodies"] != 3:
            raise ValueRefused("hull.amas", f"{made['bodies']:g} bodies", "3 bodies with amas")
    return Hull(**made)


def _load(told: dict[str, Any], places: tuple[Place, ...], assumed: list[Assumed]) -> Load:
    """The load with its people counted, and what stands at places weighed."""
    load = {k: v for k, v in told.items() if k != "places"}
    if places:
        load = _placed(load, places)
    if "people" not in load:
        each = hull_module.ADULT_KG
        count = max(1, round(load["people_kg"] / each)) if load.get("people_kg") else 1
        load["people"] = count
        assumed.append(Assumed("load.people", count, "not given"))
    return Load(**load)


def _placed(load: dict[str, Any], places: tuple[Place, ...]) -> dict[str, Any]:
    """The load that stands at those places; what is told beside them must agree."""
    mass = sum(p.mass_kg for p in places)
    result = load.get("people_kg", 0.0) + load.get("gear_kg", 0.0)
    if result and abs(result - mass) > 0.01 * mass + 0.5:
        raise ValueRefused("load.places", f"{mass:g} kg together", f"the {result:g} kg of the load")
    people = load.get("people", 0)
    return load if result else {**load, "people": people, "people_kg": 0.0, "gear_kg": mass}


def _bank(data: dict[str, Any], motor: Motor, assumed: list[Assumed]) -> Bank | None:
    if "battery" not in data:
        if "bank" in data:
            raise ValueRefused("bank", data["bank"], "only together with battery")
        return None
    battery, sizes = Battery(**data["battery"]), data.get("bank", {})
    series = sizes.get("series")
    if series is None:
        series = max(
            1, round((motor.voltage_v or battery.nominal_voltage_v) / battery.nominal_voltage_v)
        )
        assumed.append(Assumed("bank.series", series, "to reach the motor's voltage"))
    if "parallel" not in sizes:
        assumed.append(Assumed("bank.parallel", 1, "one string"))
    if battery.mass_kg is None:
        assumed.append(
            Assumed(
                "battery.mass_kg", round(battery.weight_kg, 1), "usual Wh per kg of the chemistry"
            )
        )
    for key, value in (
        ("max_continuous_a", battery.continuous_a),
        ("full_voltage_v", battery.full_v),
        ("empty_voltage_v", battery.empty_v),
    ):
        if getattr(battery, key) is None:
            assumed.append(Assumed(f"battery.{key}", round(value, 2), "usual for the chemistry"))
    return Bank(battery, series, sizes.get("parallel", 1))


def all_assumed(question: Question, performance: Performance) -> list[Assumed]:
    """Everything taken for what nobody gave."""
    s = question.setup
    volts = s.bank.nominal_v if s.bank else None
    return [
        *question.assumed,
        *hull_module.estimates(s.hull, s.load),
        *motor_module.estimates(s.motor, volts),
        *performance.propulsor.assumed,
    ]


def answer(question: Question) -> dict[str, Any]:
    """The prediction as the plain data of the format: powers first, then speeds, in the asked
    order.
    """
    p = evaluate(question.setup)
    d = doubt(p, question.confidence)
    points = [_point(p.at_power(x)) | _at_power(d, x) for x in question.powers_w] + [
        _point(p.at_speed(x)) | _at_speed(d, x) for x in question.speeds_m_s
    ]
    planing, lying = d.planing_band_w, _lying(question)
    return {
        "points": points,
        "top_speed_m_s": _round(p.top_speed_m_s),
        "hull_speed_m_s": _round(p.hull_speed_m_s),
        "knee": _point(p.knee, ("power_w", "speed_m_s")),
        "planes": planes(d),
        "planing_power_w": _round(p.planing_power_w),
        "planing_band_w": _pair(planing) if planing else None,
        "static_thrust_n": _round(p.static_thrust_n),
        "displacement_kg": _round(p.displacement_kg),
        "draught_m": _round(p.draught_m),
        "trim_deg": _round(lying.trim_deg),
        "draught_aft_m": _round(lying.draught_aft_m),
        "band": _round(d.speed_share(p.power_limit_w)),
        "findings": [
            {k: getattr(f, k) for k in ("rule", "level", "text", "cure", "source")}
            for f in ordered([*check_performance(p), *_without_plate(p)])
        ],
        "assumed": [asdict(a) for a in all_assumed(question, p)],
    }


def _without_plate(p: Performance) -> list[Finding]:
    s = p.setup
    carried = p.displacement_kg - s.hull.mass_kg
    return without_plate(s.hull, s.load, s.motor.input_power_w, carried)


def _point(
    point: Point,
    keys: tuple[str, ...] = ("power_w", "speed_m_s", "current_a", "runtime_s", "range_m"),
) -> dict[str, Any]:
    out = {key: _round(getattr(point, key)) for key in keys}
    return {**out, "reason": point.reason} if point.reason else out


def _lying(question: Question) -> Attitude:
    """Trim with the motor at the transom, the bank ahead of it, people where told or usual."""
    s = question.setup
    aboard = [Weight("motor", s.motor.weight_kg + s.mount_kg, -0.06, 0.0, 0.4)]
    if s.bank:
        aboard.append(Weight("bank", s.bank.mass_kg, BANK_AT * s.hull.length_m, 0.0, 0.2))
    rows = [Weight("", p.mass_kg, p.ahead_m, p.off_m, PERSON_CG_M) for p in question.places]
    return attitude(s.hull, [*aboard, *(rows or crew(s.hull, s.load))], s.water)


def planes(d: Doubt) -> bool | str:
    """Whether she planes: true, false, or open near the hump."""
    if d.planing_chance is None:
        return False
    result = in_words(d.planing_chance)
    return "open" if result == "open" else result == "likely"


def _at_power(d: Doubt, power_w: float) -> dict[str, Any]:
    """The bands at a power: speed, and range by it; the time hangs on the battery alone."""
    p = d.performance
    if not 0 < power_w <= p.power_limit_w * (1 + 1e-9):
        return {}
    out: dict[str, Any] = {"speed_band_m_s": _pair(d.speed_band_m_s(power_w))}
    if p.setup.bank:
        out["range_band_m"] = _pair(d.way_band_m(power_w))
    return out


def _at_speed(d: Doubt, speed_m_s: float) -> dict[str, Any]:
    """The bands at a speed: power, and range by it."""
    if not 0 < speed_m_s <= d.performance.top_speed_m_s * (1 + 1e-9):
        return {}
    out = {"power_band_w": _pair(d.power_band_w(speed_m_s))}
    if d.performance.setup.bank:
        out["range_band_m"] = _pair(d.range_band_m(speed_m_s))
    return out


def _pair(band: Iterable[Any]) -> list[float | None]:
    return [_round(float(x)) for x in band]


def _round(value: float | None) -> float | None:
    return None if value is None else float(f"{value:.6g}")
