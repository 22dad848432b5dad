"""Hanging a motor on a boat: where its seat and plate come, and what may go on which mount."""

from __future__ import annotations

from jolvek.core.enquiry.site import Site
from jolvek.core.hydro.hull import Hull
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import PLACES, Mount
from jolvek.core.rules.findings import Finding, find


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


def fits(
    hull: Hull, site: Site, mount: Mount, motor: Motor, style: str, thrust_n: float
) -> list[Finding]:
    """Blocks that keep this motor off this mount on this boat; an empty list when it fits.

    >>> m = Mount("transom_clamp", 10, 2000)
    >>> motor = Motor(2000, mass_kg=19)
    >>> [f.rule for f in fits(Hull("rib", 3.6, 1.75, 110), Site(), m, motor, "outboard", 500)]
    ['mount-motor-mass']
    """
    kind, out = mount.general, []
    if kind.place not in site.places or (kind.families and hull.family not in kind.families):
        has = ", ".join(PLACES[p] for p in site.places) or "no mounting place"
        if kind.place in site.places:
            has += f", but {kind.name.lower()}s are not made for this kind of hull"
        out.append(find("mount-place", needs=PLACES[kind.place], has=has))
    if style not in kind.styles:
        out.append(find("mount-style", needs=" or ".join(kind.styles), style=style))
    if motor.weight_kg > mount.max_motor_kg:
        out.append(find("mount-motor-mass", motor.weight_kg, mount.max_motor_kg))
    if thrust_n > mount.max_thrust_n:
        out.append(find("mount-thrust", thrust_n, mount.max_thrust_n))
    thick = site.transom_thickness_m
    if (
        thick is not None
        and kind.place == "transom"
        and not mount.transom_min_m <= thick <= mount.transom_max_m
    ):
        out.append(
            find(
                "mount-transom",
                1000 * thick,
                low=1000 * mount.transom_min_m,
                high=1000 * mount.transom_max_m,
            )
        )
    if site.max_motor_kg is not None and motor.weight_kg + mount.mass_kg > site.max_motor_kg:
        out.append(find("motor-mass", motor.weight_kg + mount.mass_kg, site.max_motor_kg))
    return out
