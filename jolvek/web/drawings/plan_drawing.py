"""The boat seen from above to scale: outline, bays, seats and motor, as SVG."""

from __future__ import annotations

from markupsafe import Markup, escape

from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.trim import seats_m
from jolvek.core.hydro.hull import Hull
from jolvek.web.drawings.boat_drawing import View, smooth

_FULL = (
    (0.0, 0.86),
    (0.25, 0.97),
    (0.5, 1.0),
    (0.75, 0.86),
    (0.92, 0.45),
    (1.0, 0.03),
)  # share of length, share of half beam
_SHARP = (
    (0.0, 0.04),
    (0.15, 0.45),
    (0.4, 0.95),
    (0.55, 1.0),
    (0.75, 0.8),
    (0.92, 0.35),
    (1.0, 0.02),
)
_SQUARE = ((0.0, 0.96), (0.3, 1.0), (0.8, 1.0), (0.97, 0.9), (1.0, 0.6))
_OUTLINE = {
    "kayak": _SHARP,
    "canoe": _SHARP,
    "board": _SHARP,
    "pontoon": _SQUARE,
    "flat_bottom": _SQUARE,
}


def plan_view(
    hull: Hull,
    people: int,
    bays: tuple[Bay, ...],
    title: str,
    width: float = 520.0,
    motor: tuple[float, float] | None = None,
    packs: tuple[tuple[str, float, float, float, float], ...] = (),
) -> Markup:
    """The plan; `motor` is (ahead, to starboard) in m, `packs` (name, ahead, to starboard, length,
    width) in m. Starboard is down.
    """
    scale = (width - 24) / (hull.length_m + 0.4)
    half = 0.5 * hull.beam_m * scale
    view = View(scale, 12 + 0.25 * scale, half + 12)
    sides = [
        [
            view.at(x * hull.length_m, side * y * 0.5 * hull.beam_m)
            for x, y in _OUTLINE.get(hull.family, _FULL)
        ]
        for side in (1, -1)
    ]
    parts = [f'<path d="{smooth(sides[0])}{smooth(list(reversed(sides[1])), "L")}Z" class="hull"/>']
    x0, y0 = view.at(0, 0)
    parts.append(
        f'<line x1="{x0:.1f}" x2="{view.at(hull.length_m, 0)[0]:.1f}" y1="{y0:.1f}" y2="{y0:.1f}"'
        ' class="centre"/>'
    )
    for ahead in seats_m(hull, min(people, 12)):
        x, y = view.at(ahead, 0)
        parts.append(f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{0.13 * scale:.1f}" class="person"/>')
    for bay in bays:
        x, y = view.at(
            (bay.ahead_m or 0.3 * hull.length_m) - bay.length_m / 2, bay.width_m / 2 - bay.off_m
        )
        parts.append(
            f'<rect x="{x:.1f}" y="{y:.1f}" width="{bay.length_m * scale:.1f}"'
            f' height="{bay.width_m * scale:.1f}"'
            f' class="bay"><title>{escape(bay.name)}</title></rect>'
        )
    for name, ahead, off, length, wide in packs:
        x, y = view.at(ahead - length / 2, wide / 2 - off)
        parts.append(
            f'<rect x="{x:.1f}" y="{y:.1f}" width="{length * scale:.1f}"'
            f' height="{wide * scale:.1f}" class="pack"><title>{escape(name)}</title></rect>'
        )
    if motor:
        x, y = view.at(motor[0], -motor[1])
        parts.append(
            f'<g class="motor"><rect x="{x - 0.12 * scale:.1f}" y="{y - 0.08 * scale:.1f}"'
            f' width="{0.2 * scale:.1f}" height="{0.16 * scale:.1f}" rx="3"/></g>'
        )
    label = escape(title)
    return Markup(
        f'<svg viewBox="0 0 {width:.0f} {2 * half + 24:.0f}" class="drawing plan-view" role="img"'
        f' data-scale="{scale:.4f}"'
        f' aria-label="{label}"><title>{label}</title>{"".join(parts)}</svg>'
    )
