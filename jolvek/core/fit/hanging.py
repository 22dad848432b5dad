"""Hanging a motor on a boat: where its seat and plate come."""

from __future__ import annotations

from math import cos, radians

from jolvek.core.enquiry.need import Need
from jolvek.core.products.mounting import Mount

BEHIND_M = 0.06  # from the transom's outer face to the shaft's middle; common practice, no source


def upright_m(need: Need) -> float:
    """Height in m of the mount's place above the hull bottom, upright: the transom is measured
    along its rake.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> round(upright_m(Need(Hull("rib", 3.6, 1.75, 110, transom_height_m=0.4), Load(2))), 3)
    0.391
    """
    return need.hull.transom_m * cos(radians(need.site.rake_deg))


def seat_m(need: Need, mount: Mount) -> float:
    """Height in m of the motor's seat above the hull bottom at the motor, upright.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> need = Need(Hull("rib", 3.6, 1.75, 110, transom_height_m=0.4), Load(2))
    >>> round(seat_m(need, Mount("transom_clamp", 60, 2000, drop_m=0.1)), 3)
    0.291
    """
    return upright_m(need) - mount.drop_m


def motor_ahead_m(need: Need, mount: Mount) -> float:
    """Where the motor sits, m ahead of the stern: just behind it, behind the seat on a side bar,
    under the hull for a pod.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> motor_ahead_m(Need(Hull("rib", 3.6, 1.75, 110), Load(2)), Mount("transom_clamp", 60, 2000))
    -0.06
    """
    length = need.hull.length_m
    return {
        "side_bar": 0.38 * length,
        "rowlock_pin": 0.45 * length,
        "fin_box": 0.12 * length,
        "pod": 0.2 * length,
        "cassette": 0.25 * length,
        "well": 0.08 * length,
    }.get(mount.kind, -BEHIND_M)


def motor_above_m(need: Need, mount: Mount) -> float:
    """Height in m of the motor's weight above the hull bottom: at its seat, or under the hull.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> kayak = Need(Hull("kayak", 3.7, 0.78, 34), Load(1))
    >>> motor_above_m(kayak, Mount("fin_box", 9, 300))
    0.0
    """
    return 0.0 if mount.fixed else need.hull.transom_m
