"""The motor's leg at the transom to scale, from the side: plate, propeller, waterlines, tilt."""

from __future__ import annotations

from dataclasses import dataclass
from math import cos, radians, sin, tan

from markupsafe import Markup

from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hanging import BEHIND_M, seat_m
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.fit.leg import HEAD_M, SHALLOW_DEG, SKEG_M, UP_DEG, Leg, largest_tilt_deg
from jolvek.core.products.mounting import HUB_BELOW_PLATE, TRANSOM_PLACES
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings.outboard_drawing import BOARD_M, outboard
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, rect, text
from jolvek.web.kit.language import tr

BAR_M = 0.25  # the scale bar


@dataclass(frozen=True)
class Sheet:
    """Where things lie: px per m, the seat's y, the transom's foot and its lean in px, width."""

    scale: float
    top: float
    foot: float
    lean: float
    width: float
    height: float

    def y(self, below_seat_m: float) -> float:
        """The y in px of so many m below the seat."""
        return self.top + below_seat_m * self.scale

    @property
    def head_x(self) -> float:
        """The x in px of the motor's head."""
        return self.foot - self.lean - BEHIND_M * self.scale


@dataclass(frozen=True)
class Dim:
    """A dimension line: x, from and to in m below the seat, its words and where they stand: beside,
    above, below.
    """

    x: float
    top: float
    bottom: float
    words: str
    where: str = "beside"


def short_length(u: Units, metres: float) -> str:
    """Millimetres, or feet where those are chosen."""
    return str(u.full(metres, "length")) if u["length"] == "ft" else f"{1000 * metres:.0f} mm"


def _sheet(f: Fitted, shaft_m: float, width: float, height: float) -> Sheet:
    reach = shaft_m + (HUB_BELOW_PLATE + 0.5) * f.performance.propulsor.diameter_m + SKEG_M
    scale = (height - 54) / (HEAD_M + reach + 0.10)
    lean = tan(radians(f.need.site.rake_deg)) * seat_m(f.need, f.mount.spec) * scale
    return Sheet(scale, 30 + HEAD_M * scale, width * 0.60, lean, width, height)


BESIDE, LABEL_PX = 0.25, 16.0  # where a figure stands along its line; height of a label


def leg_view(
    f: Fitted, u: Units, bare_draught_m: float, width: float = 470.0, height: float = 430.0
) -> Markup:
    """Transom, motor, plate, propeller and waterlines from the side, with dimensions and a scale
    bar.
    """
    x, shaft = hung_leg(f)
    s = _sheet(f, shaft, width, height)
    d, seat = f.performance.propulsor.diameter_m, seat_m(f.need, f.mount.spec)
    water, bare = s.y(seat - f.transom_draught_m), s.y(seat - bare_draught_m)
    reach = shaft + (HUB_BELOW_PLATE + 0.5) * d + SKEG_M
    parts = [
        rect(0, water, width, height - 22 - water, "sea"),
        _boat_at_the_mount(f, s),
        line(0, water, width, water, "water"),
        line(s.foot, bare, width, bare, "water before"),
        _tilt(s, reach, largest_tilt_deg(f.need.site.room_ahead_m)),
        *_blade(f, s, seat),
        outboard(s.head_x, s.top, shaft, d, s.scale, f.motor.spec.style == "pole"),
        *(dimension(dim, s) for dim in _dimensions(f, x, shaft, s, u)),
        scale_bar(s, u),
        text(width - 6, _water_label_y(s, seat, water), tr("waterline"), "watertext", "end"),
    ]
    where = tr("below") if x.plate_m >= 0 else tr("above")
    label = tr(
        "The motor's leg from the side: plate %(plate)s %(where)s the hull bottom, hub %(hub)s "
        "and upper blade tip %(tip)s below the loaded waterline; %(lower)s",
        plate=short_length(u, abs(x.plate_m)),
        where=where,
        hub=short_length(u, x.hub_m),
        tip=short_length(u, x.tip_m),
        lower=f.mount.spec.general.name.lower(),
    )
    at = {"scale": f"{s.scale:.4f}", "shaft": f"{shaft * s.scale:.2f}"}
    at |= {"water-y": f"{water:.2f}", "bottom-y": f"{s.y(seat):.2f}"}
    data = {f"data-{key}": value for key, value in at.items()}
    return picture(width, height, "drawing leg-view", label, parts, **data)


def _blade(f: Fitted, s: Sheet, seat: float) -> list[str]:
    """The rudder's blade behind the transom, as deep as it goes, where its depth is known."""
    site = f.need.site
    if not (site.rudder_chord_m and site.rudder_depth_m):
        return []
    if f.mount.spec.general.place not in TRANSOM_PLACES:
        return []
    wide, top, low = site.rudder_chord_m * s.scale, s.y(0.1), s.y(seat + site.rudder_depth_m)
    x = s.foot - s.lean - wide
    return [rect(x, top, wide, min(low, s.height - 24) - top, "rudder-blade", title="rudder")]


def _water_label_y(s: Sheet, seat: float, water: float) -> float:
    """Over the line, or under it where the seat's own figure stands there."""
    taken = s.y(0) + BESIDE * (s.y(seat) - s.y(0)) + 4
    return water + 14 if abs(taken - (water - 5)) < LABEL_PX else water - 5


def _dimensions(f: Fitted, x: Leg, shaft_m: float, s: Sheet, u: Units) -> list[Dim]:
    """Transom or seat, plate (on a transom only), hub and blade tip."""
    d, seat = f.performance.propulsor.diameter_m, seat_m(f.need, f.mount.spec)
    water, hub = seat - f.transom_draught_m, shaft_m + HUB_BELOW_PLATE * d
    at_transom = f.mount.spec.general.place in TRANSOM_PLACES
    where = tr("below") if x.plate_m >= 0 else tr("above")
    plate = tr("plate %(plate)s %(where)s", plate=short_length(u, abs(x.plate_m)), where=where)
    seated = {"figure": short_length(u, seat)}
    high = tr("transom %(figure)s", **seated) if at_transom else tr("seat %(figure)s", **seated)
    return [
        Dim(s.foot + 24, 0.0, seat, high),
        *([Dim(s.foot + 62, seat, shaft_m, plate, "below")] if at_transom else []),
        Dim(
            s.head_x - 0.30 * s.scale,
            water,
            hub,
            tr("hub %(hub)s", hub=short_length(u, x.hub_m)),
            "below",
        ),
        Dim(
            s.head_x - 0.24 * s.scale,
            water,
            hub - d / 2,
            tr("tip %(tip)s", tip=short_length(u, x.tip_m)),
            "above",
        ),
    ]


def scale_bar(s: Sheet, u: Units) -> str:
    """A quarter of a metre, named in the chosen units."""
    words = short_length(u, BAR_M)
    bar, y = BAR_M * s.scale, s.height
    ends = f"M{s.width - bar - 12:.1f} {y - 12}v-5v10v-5h{bar:.1f}v-5v10"
    mark = path(ends, "scalebar", data_mm=f"{1000 * BAR_M:.0f}")
    return mark + text(s.width - bar / 2 - 12, y - 18, words, anchor="middle")


def _boat_at_the_mount(f: Fitted, s: Sheet) -> str:
    """The transom with the bottom ahead of it; for a mount elsewhere the hull passing behind and
    the bracket it hangs from.
    """
    seat = seat_m(f.need, f.mount.spec)
    bottom, top, thick = s.y(seat), s.foot - s.lean, BOARD_M * s.scale
    if f.mount.spec.general.place in TRANSOM_PLACES:
        board = f"M{s.foot:.1f} {bottom:.1f}L{top:.1f} {s.top:.1f}h{thick:.1f}"
        return (
            path(f"{board}L{s.foot + thick:.1f} {bottom:.1f}Z", "transom")
            + path(f"M{s.foot:.1f} {bottom:.1f}H{s.width}", "bottom")
            + path(poly([(top, s.y(0.02)), (s.width, s.y(-0.02))]), "sheerline")
        )
    sheer = s.y(seat - f.need.hull.depth_m)
    return (
        path(f"M0 {bottom:.1f}H{s.width}", "bottom")
        + path(f"M0 {sheer:.1f}H{s.width}", "sheerline")
        + rect(s.head_x - 0.05 * s.scale, s.y(-0.03), 0.16 * s.scale, thick, "transom")
    )


def dimension(dim: Dim, s: Sheet) -> str:
    """A dimension line with its words."""
    a, b = sorted((s.y(dim.top), s.y(dim.bottom)))
    x, y, anchor = {
        "beside": (dim.x + 6, a + BESIDE * (b - a) + 4, None),
        "above": (dim.x, a - 6, "middle"),
        "below": (dim.x, b + 15, "middle"),
    }[dim.where]
    ends = f"M{dim.x - 4:.1f} {a:.1f}h8m-4 0V{b:.1f}m-4 0h8"
    return path(ends, "dim") + text(x, y, dim.words, "dimtext", anchor)


def _tilt(sheet: Sheet, reach_m: float, most_deg: float) -> str:
    """The sweep of the lowest point, with shallow drive and the end of the tilt."""
    r = reach_m * sheet.scale

    def at(degrees: float) -> tuple[float, float]:
        return sheet.head_x - r * sin(radians(degrees)), sheet.top + r * cos(radians(degrees))

    (x0, y0), (x1, y1), (xs, ys) = at(0), at(most_deg), at(SHALLOW_DEG)
    ends = tr("stops at %(most_deg)s°", most_deg=f"{most_deg:.0f}") if most_deg < UP_DEG else ""
    sweep = f"M{x0:.1f} {y0:.1f}A{r:.1f} {r:.1f} 0 0 1 {x1:.1f} {y1:.1f}"
    words = tr("shallow %(shallow_deg)s°", shallow_deg=f"{SHALLOW_DEG:.0f}")
    return (
        path(sweep, "sweep")
        + circle(xs, ys, 3, "sweepdot")
        + text(max(xs, 4), ys + 17, words, "tilttext", "middle")
        + (text(x1 + 6, y1 - 4, ends, "tilttext") if ends else "")
    )
