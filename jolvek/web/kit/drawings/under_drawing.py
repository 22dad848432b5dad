"""A fin or a pod under the hull to scale, from the side: bottom, strut, propeller, waterlines."""

from __future__ import annotations

from markupsafe import Markup

from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.fit.leg import SKEG_M
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings.leg_drawing import Dim, Sheet, dimension, scale_bar, short_length
from jolvek.web.kit.drawings.svg import line, path, picture, rect, tag, text
from jolvek.web.kit.language import tr

ROOM_M = 0.12  # drawn above the waterline and below the skeg


def under_view(
    f: Fitted, u: Units, bare_draught_m: float, width: float = 470.0, height: float = 430.0
) -> Markup:
    """Hull bottom, motor, propeller and waterlines from the side, with dimensions and a scale bar;
    metres count down from the waterline.
    """
    x, strut = hung_leg(f)
    d = f.performance.propulsor.diameter_m
    scale = min((height - 54) / (x.lowest_m + 2 * ROOM_M), width / (3.4 * d))
    s = Sheet(scale, 30 + ROOM_M * scale, width * 0.5, 0.0, width, height)
    bottom, hub = s.y(x.hub_m - strut), s.y(x.hub_m)
    bare = bottom - bare_draught_m * scale
    label = tr(
        "%(name)s from the side: hub %(strut)s below the hull and %(hub)s under water, upper "
        "blade tip %(tip)s under water",
        name=f.mount.spec.general.name,
        strut=short_length(u, strut),
        hub=short_length(u, x.hub_m),
        tip=short_length(u, x.tip_m),
    )
    parts = [
        rect(0, s.y(0), width, height - 22 - s.y(0), "sea"),
        line(0, s.y(0), width, s.y(0), "water"),
        line(0, bare, width, bare, "water before"),
        path(f"M0 {bottom:.1f}H{width}", "bottom"),
        _motor(s, x.hub_m - strut, x.hub_m, d),
        *(dimension(dim, s) for dim in _dimensions(s, x.hub_m, x.tip_m, strut, d, u)),
        scale_bar(s, u),
        text(width - 6, s.y(0) - 5, tr("waterline"), "watertext", "end"),
        text(width - 6, bottom - 5, tr("hull"), "watertext", "end"),
    ]
    data = {
        "data-scale": f"{scale:.4f}",
        "data-hub-y": f"{hub:.2f}",
        "data-water-y": f"{s.y(0):.2f}",
    }
    return picture(width, height, "drawing leg-view", label, parts, **data)


def _dimensions(
    s: Sheet, hub_m: float, tip_m: float, strut_m: float, d: float, u: Units
) -> list[Dim]:
    """Hub and blade tip under water on the left, hub below the hull on the right."""
    left, right = s.foot - 1.3 * d * s.scale, s.foot + 0.9 * d * s.scale
    return [
        Dim(
            max(left - 60, 44.0), 0.0, hub_m, tr("hub %(hub)s", hub=short_length(u, hub_m)), "below"
        ),
        Dim(left, 0.0, tip_m, tr("tip %(tip)s", tip=short_length(u, tip_m)), "above"),
        Dim(
            right,
            hub_m - strut_m,
            hub_m,
            tr("%(strut)s below hull", strut=short_length(u, strut_m)),
            "below",
        ),
    ]


def _motor(s: Sheet, bottom_m: float, hub_m: float, d: float) -> str:
    """Strut, body with the motor in it, propeller behind, skeg below."""
    k, x, hub = s.scale, s.foot, s.y(hub_m)
    long, thick = 1.1 * d * k, 0.3 * d * k
    skeg = (d / 2 + SKEG_M) * k
    fin = f"M{x:.1f} {hub:.1f}v{skeg:.1f}h{0.2 * long:.1f}l{0.15 * long:.1f} {-skeg:.1f}z"
    parts = (
        rect(x - 0.15 * long, s.y(bottom_m), 0.35 * long, hub - s.y(bottom_m), "shaft"),
        path(fin),
        rect(x - 0.5 * long, hub - thick / 2, long, thick, rx=thick / 2),
        rect(x - 0.5 * long - 4, hub - d / 2 * k, 4, d * k, "disc", rx=2),
    )
    return tag("g", "".join(parts), cls="motor")
