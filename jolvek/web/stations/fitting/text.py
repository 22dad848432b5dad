"""How the motor hangs and how the boat lies, in a sentence."""

from __future__ import annotations

from jolvek.core.base.messages import msg
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.leg import Leg
from jolvek.core.fit.trim import Attitude
from jolvek.core.products.unknown import shaft_unknown
from jolvek.web.kit.display import Units
from jolvek.web.kit.figures import marked
from jolvek.web.kit.language import decimal, tr

AIR = {
    "none": msg("it will not draw air"),
    "in turns": msg("it draws air in turns"),
    "always": msg("it draws air"),
}


SHORT = msg("the shaft is too short for this transom")


LEVEL_DEG = 0.3  # less trim than that nobody sees, nor the model


def mm(x: float, u: Units) -> str:
    """A short length: mm, or feet and inches where those are chosen."""
    return str(u.full(x, "length")) if u["length"] == "ft" else f"{1000 * x:.0f} mm"


def least_water(f: Fitted, x: Leg, u: Units) -> str:
    runs = tr("Runs in %(needs)s of water", needs=u.full(x.needs_m, "length"))
    if x.shallow_m is None or x.up_m is None:
        return f"{runs}; {f.mount.spec.general.shallows}."
    shallow, up = u.full(x.shallow_m, "length"), u.full(x.up_m, "length")
    return tr(
        "%(runs)s, %(shallow)s on shallow drive, %(up)s tilted up.",
        runs=runs,
        shallow=shallow,
        up=up,
    )


def answer(f: Fitted, x: Leg, shaft: float, planned: Attitude, u: Units, letter: str = "") -> str:
    """Leg and trim in one sentence; `*words*` are the ones to stress. With the letter of a setup
    that stands as it is kept, its figures carry their keys.
    """
    how = lies(f.attitude, "*")
    if f.weights == f.planned_weights:
        text = tr("The boat lies %(how)s.", how=how)
        return f"{_hangs(f, x, shaft, u, letter)} {text}"
    before = f"{abs(planned.trim_deg):.1f}"
    text = tr("The boat lies %(how)s, %(before)s° before the move.", how=how, before=before)
    return f"{_hangs(f, x, shaft, u, letter)} {text}"


def _hangs(f: Fitted, x: Leg, shaft: float, u: Units, letter: str) -> str:
    hub = marked(letter, "leg.hub", mm(x.hub_m, u)) if letter else mm(x.hub_m, u)
    values = {"kind": f.mount.spec.general.name, "hub": hub, "shaft": mm(shaft, u)}
    if f.mount.spec.fixed:
        return tr(
            "The mount (%(kind)s) holds the hub *%(shaft)s* below the hull and *%(hub)s* under"
            " water: %(air)s.",
            air=AIR[x.air],
            **values,
        )
    if f.leg is None and shaft_unknown(f.motor) and f.fitting.pole_m is None:
        return tr(
            "The motor’s shaft length is *not given*: the drawing shows %(shaft)s, which would set"
            " the hub %(hub)s under water.",
            **values,
        )
    if f.leg is None:
        return tr(
            "The mount (%(kind)s) sets the hub *%(hub)s* under water on a shaft of %(shaft)s.",
            **values,
        )
    values |= {"plate": mm(abs(x.plate_m), u), "air": AIR[x.air] if x.plate_m >= 0 else SHORT}
    if x.plate_m >= 0:
        return tr(
            "The plate sits *%(plate)s* below the hull bottom and the hub *%(hub)s* under water:"
            " %(air)s.",
            **values,
        )
    return tr(
        "The plate sits *%(plate)s* ABOVE the hull bottom and the hub *%(hub)s* under water:"
        " %(air)s.",
        **values,
    )


def lies(lying: Attitude, stress: str = "") -> str:
    """How she lies; what the model cannot tell from level is level."""
    way = tr("by the stern") if lying.trim_deg >= 0 else tr("by the bow")
    level = abs(lying.trim_deg) < LEVEL_DEG
    deg = decimal(f"{abs(lying.trim_deg):.1f}")
    angle = f"{stress}{deg}°{stress} {way}"
    return (
        tr(
            "%(stress)slevel%(stress)s, %(trim_deg)s° %(way)s",
            stress=stress,
            trim_deg=deg,
            way=way,
        )
        if level
        else angle
    )
