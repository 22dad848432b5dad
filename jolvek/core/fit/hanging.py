"""Hanging a motor on a boat: where its seat and plate come."""

from __future__ import annotations

from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.hull import Hull
from jolvek.core.products.mounting import Mount


def seat_m(hull: Hull, mount: Mount) -> float:
    """Height in m of the motor's seat above the hull bottom at the motor.

    >>> hull = Hull("rib", 3.6, 1.75, 110, transom_height_m=0.4)
    >>> round(seat_m(hull, Mount("transom_clamp", 60, 2000)), 2)
    0.4
    """
    return hull.transom_m - mount.drop_m


def plate_depth_m(hull: Hull, mount: Mount, shaft_m: float) -> float:
    """Depth in m of the anti-ventilation plate below the hull bottom; negative: above it.

    >>> h = Hull("rib", 3.6, 1.75, 110, transom_height_m=0.35)
    >>> round(plate_depth_m(h, Mount("transom_clamp", 60, 2000), 0.381), 3)
    0.031
    """
    return shaft_m - seat_m(hull, mount)


def shaft_missing_m(hull: Hull, mount: Mount, shaft_m: float) -> float:
    """How much shaft in m is missing for the plate to reach the hull bottom (0 = it does).

    25 mm below is right; down to level with the bottom is taken as just enough.

    >>> h = Hull("rib", 3.6, 1.75, 110, transom_height_m=0.5)
    >>> round(shaft_missing_m(h, Mount("transom_clamp", 60, 2000), 0.381), 3)
    0.119
    """
    return max(0.0, -plate_depth_m(hull, mount, shaft_m))


def motor_ahead_m(need: Need, mount: Mount) -> float:
    """Where the motor sits, m ahead of the stern: just behind it, behind the seat on a side bar,
    under the hull for a pod.

    >>> from jolvek.core.hydro.hull import Load
    >>> motor_ahead_m(Need(Hull("rib", 3.6, 1.75, 110), Load(2)), Mount("transom_clamp", 60, 2000))
    -0.06
    """
    length = need.hull.length_m
    return {
        "side_bar": 0.38 * length,
        "rowlock_pin": 0.45 * length,
        "fin_box": 0.12 * length,
        "pod": 0.2 * length,
        "well": 0.08 * length,
    }.get(mount.kind, -0.06)
