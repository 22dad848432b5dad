"""A product to scale: a motor from the side, a battery from two sides, a quarter of a metre."""

from __future__ import annotations

from typing import Any

from markupsafe import Markup

from jolvek.core.electric.battery import Battery
from jolvek.core.fit.leg import HEAD_M, SKEG_M
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import HUB_BELOW_PLATE
from jolvek.core.products.shelf import Item
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings.leg_drawing import Sheet, scale_bar
from jolvek.web.kit.drawings.outboard_drawing import outboard
from jolvek.web.kit.drawings.svg import picture, rect, text
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 300.0, 260.0
UNSET_SHAFT_M = 0.45  # of an adjustable shaft, drawn


def product_view(item: Item[Any], u: Units) -> Markup | str:
    """The drawing of a motor on a shaft, or of a battery of stated size; empty for the rest."""
    spec = item.spec
    if isinstance(spec, Motor) and spec.style not in ("fin", "pod"):
        return _motor(item, u)
    if isinstance(spec, Battery) and spec.length_m and spec.width_m and spec.height_m:
        return _battery(spec, spec.length_m, spec.width_m, spec.height_m, u)
    return ""


def _motor(item: Item[Any], u: Units) -> Markup:
    shaft = item.shafts_m[0] if item.shafts_m else UNSET_SHAFT_M
    d = item.spec.propulsor().diameter_m
    tall = HEAD_M + shaft + (HUB_BELOW_PLATE + 0.5) * d + SKEG_M
    scale = (HEIGHT - 50) / tall
    s = Sheet(scale, 12 + HEAD_M * scale, 0.45 * WIDTH, 0.0, WIDTH, HEIGHT)
    label = tr(
        "%(title)s to scale: shaft %(shaft)s mm, propeller %(x)s mm",
        title=item.title,
        shaft=f"{1000 * shaft:.0f}",
        x=f"{1000 * d:.0f}",
    )
    parts = [outboard(s.head_x, s.top, shaft, d, scale, item.spec.style == "pole"), scale_bar(s, u)]
    return picture(WIDTH, HEIGHT, "drawing product-view", label, parts, data_scale=f"{scale:.4f}")


def _battery(b: Battery, long_m: float, wide_m: float, high_m: float, u: Units) -> Markup:
    scale = min((WIDTH - 70) / (long_m + wide_m), (HEIGHT - 90) / high_m)
    s = Sheet(scale, 0.0, 0.0, 0.0, WIDTH, HEIGHT)
    base = HEIGHT - 50
    front, side = long_m * scale, wide_m * scale
    words = " × ".join(str(u.number(x, "length")) for x in (long_m, wide_m, high_m))
    label = tr("Battery to scale, %(words)s %(x)s", words=words, x=u["length"])
    parts = [
        rect(10, base - high_m * scale, front, high_m * scale, "pack"),
        rect(40 + front, base - high_m * scale, side, high_m * scale, "pack"),
        text(10 + front / 2, base + 14, "front", "dimtext", "middle"),
        text(40 + front + side / 2, base + 14, "side", "dimtext", "middle"),
        scale_bar(s, u),
    ]
    return picture(WIDTH, HEIGHT, "drawing product-view", label, parts, data_scale=f"{scale:.4f}")
