"""What Fitting's drawing shows: leg, trim and weights of the setup in hand, drawn and in words."""

from __future__ import annotations

from dataclasses import dataclass, replace

from markupsafe import Markup

from jolvek.core.base.units import FOOT_M
from jolvek.core.fit import controls
from jolvek.core.fit.controls import tiller_places_m
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hanging import seat_m
from jolvek.core.fit.hung_leg import STEP_M, hung_leg
from jolvek.core.fit.leg import PINS, Leg, pod_wedge, shaft_choices, tiller_reach, trim_pin
from jolvek.core.fit.measured_trim import off
from jolvek.core.fit.moving import top_at_centre_m_s
from jolvek.core.fit.stowage import best_place
from jolvek.core.fit.trim import Attitude, Weight, attitude, crew, paddle_text, places_m
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings.leg_drawing import leg_view
from jolvek.web.kit.drawings.plan_drawing import plan_view
from jolvek.web.kit.drawings.under_drawing import under_view
from jolvek.web.kit.drawings.weights_drawing import stern_view, weights_view
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import decimal, shown, tr
from jolvek.web.stations.fitting.controls import Controls, controls_of
from jolvek.web.stations.fitting.form import POLE_M, place_text, weight_key
from jolvek.web.stations.fitting.text import answer, least_water, lies, mm

POD_RISE_DEG = 3.0  # of the hull's bottom aft, where it is not measured; common practice, no source
SMALLEST_HEEL_DEG = 0.05


@dataclass(frozen=True)
class WeightRow:
    """One weight's slider, in shown units ahead of the stern."""

    key: str
    label: str
    low: str
    high: str
    value: str
    moved: bool


@dataclass(frozen=True)
class PoleRow:
    """The slider of an adjustable shaft, in shown units; `by_hand` where it was set."""

    low: str
    high: str
    step: str
    value: str
    by_hand: bool


@dataclass(frozen=True)
class ShaftRow:
    """One shaft to choose: its value, words, whether it is set and offered."""

    value: str
    text: str
    checked: bool
    offered: bool


@dataclass(frozen=True)
class DrawingPage:
    """The drawing tab."""

    answer: str
    basis: str
    leg_svg: Markup
    boat_svg: Markup
    stern_svg: Markup
    plan_svg: Markup
    lies: str
    heels: str
    weights: tuple[WeightRow, ...]
    figures: tuple[tuple[str, str], ...]
    shafts: tuple[ShaftRow, ...]
    pole: PoleRow | None
    pins: tuple[tuple[int, str, bool], ...]
    controls: Controls
    refused: dict[str, str]
    length_m: float


def drawing_page(f: Fitted, read: Reader, u: Units, letter: str = "") -> DrawingPage:
    """The drawing with the weights as the address puts them."""
    hull, weights, lying = f.need.hull, f.weights, f.attitude
    aft = f.fitting.hull_aft_m
    empty = attitude(hull, crew(hull, f.need.load), f.need.water, aft)
    planned = attitude(hull, f.planned_weights, f.need.water, aft)
    x, shaft = hung_leg(f)
    return DrawingPage(
        answer(f, x, shaft, planned, u, letter) + _gained(f, planned, u),
        least_water(f, x, u),
        (under_view if f.mount.spec.fixed else leg_view)(f, u, _bare_m(f, empty)),
        weights_view(f, weights, lying, empty, u),
        stern_view(f, lying),
        _plan(f, weights),
        lies=lies(lying),
        heels=_heels(lying),
        weights=tuple(_weight_row(w, f, u) for w in weights if _movable(f, w)),
        figures=_figures(f, x, lying, weights, u),
        shafts=_shafts(f, u),
        pole=_pole(f, shaft, u),
        pins=_pins(f),
        controls=controls_of(f, u),
        refused=read.refused,
        length_m=hull.length_m,
    )


def _bare_m(f: Fitted, empty: Attitude) -> float:
    """Water at the motor without motor and battery aboard."""
    bare = replace(f)
    bare.__dict__["attitude"] = empty
    return bare.transom_draught_m


def _gained(f: Fitted, planned: Attitude, u: Units) -> str:
    """What moving the weights does to her top speed, where it can be told."""
    if planned.ahead_m == f.attitude.ahead_m:
        return ""
    now, then = (top_at_centre_m_s(f, x.ahead_m) for x in (planned, f.attitude))
    if u.number(abs(then - now), "speed") == u.number(0.0, "speed"):
        return tr(" The top speed stays.")
    word = "more" if then > now else "less"
    return tr(
        " That is *%(now)s %(word)s* at full power.",
        now=u.full(abs(then - now), "speed"),
        word=word,
    )


def _movable(f: Fitted, w: Weight) -> bool:
    return w.name != "motor" and not (f.clips_on and w.name.startswith("battery"))


def _weight_row(w: Weight, f: Fitted, u: Units) -> WeightRow:
    high = f.need.hull.length_m / (FOOT_M if u["length"] == "ft" else 1.0)
    label, elsewhere = weight_text(w, u), w not in f.planned_weights
    return WeightRow(weight_key(w.name), label, "0.1", f"{high:.2f}", place_text(w, u), elsewhere)


def weight_text(w: Weight, u: Units) -> str:
    """A weight by its name and mass."""
    return f"{shown(w.name)}, {u.full(w.mass_kg, 'mass')}"


def _plan(f: Fitted, weights: list[Weight]) -> Markup:
    hull, spec = f.need.hull, f.battery.spec
    motor = next(w for w in weights if w.name == "motor")
    size = (spec.length_m or 0.3, spec.width_m or 0.2)
    packs = tuple(
        (w.name, w.ahead_m, w.off_m, *size) for w in weights if w.name.startswith("battery")
    )
    title = tr("From above, with batteries and motor")
    place = (motor.ahead_m, motor.off_m)
    rudder = (f.need.site.rudder_chord_m or 0.0, f.need.site.rudder_lifts)
    return plan_view(
        hull, places_m(weights, "person"), f.need.site.bays, title, 470.0, place, packs, rudder
    )


def _figures(
    f: Fitted, x: Leg, lying: Attitude, weights: list[Weight], u: Units
) -> tuple[tuple[str, str], ...]:
    ends = (u.full(d, "length") for d in (lying.draught_aft_m, lying.draught_fore_m))
    rows = [
        (tr("Trim"), lies(lying)),
        *_measured(f, u),
        (tr("Heel"), _heels(lying)),
        (tr("Draught astern, ahead"), ", ".join(map(str, ends))),
    ]
    best_at = best_place(f)
    if best_at:
        best, bay = best_at
        text = tr("%(best)s ahead of the stern", best=u.full(best, "length")) + (
            f": {bay}" if bay else ""
        )
        rows.append((tr("Best place for the battery"), text))
    if f.leg is not None:
        rows.append((tr("Trim pin"), tr("hole %(pin)s from the transom", pin=f.pin)))
    rows.append((tr("Upper blade tip"), tr("%(tip)s under water", tip=mm(x.tip_m, u))))
    return (*rows, *_more(f, weights, u))


def _measured(f: Fitted, u: Units) -> list[tuple[str, str]]:
    """How far the trim as measured is off what the weights give."""
    found = off(f)
    if found is None:
        return []
    values = {"angle": decimal(f"{abs(found.more_deg):.1f}"), "far": mm(abs(found.aft_m), u)}
    if found.more_deg >= 0:
        text = tr("%(angle)s° more by the stern, as if all stood %(far)s further aft", **values)
    else:
        text = tr("%(angle)s° more by the bow, as if all stood %(far)s further ahead", **values)
    again = tr("; look again at what is aboard and where") if found.much else ""
    return [(tr("Measured against worked out"), text + again)]


def _heels(lying: Attitude) -> str:
    """How far she heels, and to which side."""
    heel = f"{abs(lying.heel_deg):.1f}"
    if abs(lying.heel_deg) <= SMALLEST_HEEL_DEG:
        return f"{decimal(heel)}°"
    if lying.heel_deg > 0:
        return tr("%(heel)s° to starboard", heel=heel)
    return tr("%(heel)s° to port", heel=heel)


def _more(f: Fitted, weights: list[Weight], u: Units) -> list[tuple[str, str]]:
    rows, tiller = [], _tiller(f)
    if tiller:
        rows.append((tr("Tiller from the helm’s seat"), tiller))
    if f.mount.spec.kind == "pod":
        rows.append((tr("Wedge of the pod"), _wedge(f, u)))
    long = controls.runs(f)
    if long.throttle_m is not None and controls.remote(f):
        rows.append(
            (
                tr("Throttle’s cable"),
                tr("%(throttle)s from the helm", throttle=u.full(long.throttle_m, "length")),
            )
        )
    if long.phase_m is not None:
        rows.append((tr("Phase cables, each"), str(u.full(long.phase_m, "length"))))
    if f.yaw is not None:
        result = paddle_text(f.yaw.paddle_force_n)
        if f.need.hull.fam.sails or f.need.site.rudder_chord_m:
            helm, most = (u.full(n, "thrust") for n in (f.yaw.helm_force_n, f.yaw.helm_most_n))
            result = tr(
                "the rudder holds the boat with %(helm)s of the %(most)s it can give",
                helm=helm,
                most=most,
            )
        rows.append((tr("Pull to one side"), f"{f.yaw.moment_nm:.0f} N·m: {result}"))
    return rows


def _wedge(f: Fitted, u: Units) -> str:
    """What levels the pod on the hull's slope, measured or as such hulls usually rise."""
    slope = f.need.site.hull_slope_deg
    w = pod_wedge(0.5 * f.need.hull.deadrise + POD_RISE_DEG if slope is None else slope)
    text = tr(
        "%(angle_deg)s°, %(rise)s thicker %(thick_end)s",
        angle_deg=f"{w.angle_deg:.0f}",
        rise=mm(w.rise_m, u),
        thick_end=w.thick_end,
    )
    return tr("about %(text)s; measure the hull", text=text) if slope is None else text


def _tiller(f: Fitted) -> str:
    """Whether the helm reaches the tiller; empty where the motor is not steered by one."""
    places = tiller_places_m(f)
    return tiller_reach(*places) if places else ""


def _shafts(f: Fitted, u: Units) -> tuple[ShaftRow, ...]:
    if f.leg is None:
        return ()
    diameter, seat = f.performance.propulsor.diameter_m, seat_m(f.need, f.mount.spec)
    return tuple(
        ShaftRow(
            f"{c.shaft_m:g}",
            f"{mm(c.shaft_m, u)}: {c.says}",
            c.shaft_m == f.shaft_m,
            c.shaft_m in f.motor.shafts_m,
        )
        for c in shaft_choices(f.motor.shafts_m, seat, f.transom_draught_m, diameter)
    )


def _pole(f: Fitted, shaft_m: float, u: Units) -> PoleRow | None:
    """What sets an adjustable shaft; None for one of given length and for what is fixed."""
    if f.shaft_m is not None or f.mount.spec.fixed:
        return None
    unit = FOOT_M if u["length"] == "ft" else 1.0
    low, high, step, value = (f"{x / unit:.3f}" for x in (*POLE_M, STEP_M, shaft_m))
    return PoleRow(low, high, step, value, f.fitting.pole_m is not None)


def _pins(f: Fitted) -> tuple[tuple[int, str, bool], ...]:
    """The holes of the trim pin: number, words, whether set."""
    if f.leg is None:
        return ()
    right = trim_pin(f.need.site.rake_deg)
    words = {right: tr("%(right)s: right for its rake", right=right)}
    return tuple((k, words.get(k, str(k)), k == f.pin) for k in range(1, PINS + 1))
