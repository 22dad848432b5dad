"""The motor's leg in the water: plate, hub and tip depth, air and ground, the sweep of its tilt,
the pod's wedge.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.messages import msg
from jolvek.core.hydro.hull import Hull
from jolvek.core.products.mounting import HUB_BELOW_PLATE, HUB_COVER_M, PLATE_BELOW_M

SKEG_M = 0.03  # below the blades
HEAD_M = 0.32  # motor's head above its seat
GROUND_M = 0.05  # water under the skeg that one keeps
TIP_GAP = 0.15  # of the diameter, between blades and hull; common practice, no source
# how far the plate may stand over the hull's bottom while the upper blade tip is well covered: on
# the plane, where the water leaves at the bottom, and afloat; common practice, no source
ABOVE_PLANING_M, ABOVE_M = 0.025, 0.06
TIP_COVER = 0.25  # of the diameter: less, and it draws air in turns; common practice, no source
SHALLOW_DEG, UP_DEG = 20.0, 85.0  # common practice, no source
STANDARD_SHAFTS_M = (0.381, 0.508, 0.635)  # 15, 20, 25 in


@dataclass(frozen=True)
class Leg:
    """Depths in m: plate below the hull bottom (or where one would be), the rest below the loaded
    waterline at the motor; None where it does not tilt.
    """

    plate_m: float
    hub_m: float
    tip_m: float  # upper blade tip; negative: out of the water
    lowest_m: float
    needs_m: float  # least water under way
    shallow_m: float | None  # in shallow drive
    up_m: float | None  # tilted fully up; the hull's own draught where the leg is higher
    air: str  # none | in turns | always


def leg(shaft_m: float, seat_m: float, draught_aft_m: float, diameter_m: float) -> Leg:
    """Where the leg ends up: seat above the hull bottom in m, upright, draught at the stern in m.

    The motor's own trim is taken to bring the shaft upright. Geometry; the limits for air are
    common practice (10 cm over the hub, a quarter of the diameter over the tip).

    >>> x = leg(0.381, 0.36, 0.16, 0.27)
    >>> round(1000 * x.plate_m), round(1000 * x.hub_m), round(1000 * x.tip_m), x.air
    (21, 348, 213, 'none')
    >>> leg(0.381, 0.508, 0.12, 0.27).air
    'in turns'
    """
    plate = shaft_m - seat_m
    hub = draught_aft_m + plate + HUB_BELOW_PLATE * diameter_m
    tip, lowest = hub - diameter_m / 2, hub + diameter_m / 2 + SKEG_M
    reach = shaft_m + (HUB_BELOW_PLATE + 0.5) * diameter_m + SKEG_M
    above = seat_m - draught_aft_m  # seat above the water

    def tilted(degrees: float) -> float:
        return max(reach * float(np.cos(np.radians(degrees))) - above, draught_aft_m)

    shallow, up = tilted(SHALLOW_DEG) + GROUND_M, tilted(UP_DEG)
    air = _air(hub, diameter_m)
    return Leg(plate, hub, tip, lowest, lowest + GROUND_M, shallow, up_m=up, air=air)


def _air(hub_m: float, diameter_m: float) -> str:
    tip = hub_m - diameter_m / 2
    if tip < 0 or hub_m < HUB_COVER_M:
        return "always"
    return msg("in turns") if tip < TIP_COVER * diameter_m else "none"


def above_m(hull: Hull, draught_m: ArrayLike, plate_m: ArrayLike, diameter_m: ArrayLike) -> Array:
    """How far above the hull's bottom the plate may stand in m, all broadcast: nothing where the
    upper blade tip is not covered by a quarter of the diameter at a draught in m.

    >>> dinghy = Hull("rigid_dinghy", 3.2, 1.45, 65)
    >>> above_m(dinghy, 0.13, [-0.02, -0.12], 0.26).tolist()
    [0.025, 0.0]
    """
    diameter = np.asarray(diameter_m)
    plate = np.asarray(plate_m, dtype=float)
    tip = np.asarray(draught_m) + plate + (HUB_BELOW_PLATE - 0.5) * diameter
    most = ABOVE_PLANING_M if hull.fam.planes else ABOVE_M
    return np.where(tip >= TIP_COVER * diameter, most, 0.0)


def under_hull(draught_m: float, diameter_m: float) -> Leg:
    """A fin or a pod fixed under a hull that draws so much there (m): its blades clear the bottom
    by 0.15 of the propeller's diameter (m), and it does not tilt.

    Geometry; the gap is common practice.

    >>> x = under_hull(0.10, 0.16)
    >>> round(1000 * x.hub_m), round(1000 * x.lowest_m), x.shallow_m, x.air
    (204, 314, None, 'none')
    """
    below = (0.5 + TIP_GAP) * diameter_m
    hub = draught_m + below
    plate = below - HUB_BELOW_PLATE * diameter_m
    tip, lowest = hub - diameter_m / 2, hub + diameter_m / 2 + SKEG_M
    air = _air(hub, diameter_m)
    return Leg(plate, hub, tip, lowest, lowest + GROUND_M, None, up_m=None, air=air)


@dataclass(frozen=True)
class ShaftChoice:
    """One shaft length and what it does."""

    shaft_m: float
    leg: Leg
    says: str


def shaft_choices(
    shafts_m: tuple[float, ...],
    seat_m: float,
    draught_aft_m: float,
    diameter_m: float,
) -> list[ShaftChoice]:
    """What each shaft length does on this transom; standard lengths where the motor names none.

    >>> [c.says for c in shaft_choices((0.381, 0.508), 0.36, 0.16, 0.27)]
    ['right', 'deep: drag, and it grounds 123 mm earlier']
    """
    out = []
    for shaft in shafts_m or STANDARD_SHAFTS_M:
        x = leg(shaft, seat_m, draught_aft_m, diameter_m)
        if x.plate_m < 0:
            says = msg("%(plate)s mm too short", plate=f"{-1000 * x.plate_m:.0f}")
        elif x.air != "none":
            says = msg("draws air ") + x.air
        elif x.plate_m > 0.1:
            says = (
                msg(
                    "deep: drag, and it grounds %(plate_below)s mm earlier",
                    plate_below=f"{1000 * (x.plate_m - PLATE_BELOW_M):.0f}",
                )
                if x.plate_m < 0.3
                else msg("far too deep")
            )
        else:
            says = "right" if x.plate_m >= JUST_M else msg("just long enough")
        out.append(ShaftChoice(shaft, x, says))
    return out


def largest_tilt_deg(room_ahead_m: float | None, head_m: float = HEAD_M) -> float:
    """How far the motor tilts before its head meets a knee or bulkhead `room_ahead_m` ahead of the
    seat; degrees.

    >>> largest_tilt_deg(None), round(largest_tilt_deg(0.16))
    (85.0, 30)
    """
    if room_ahead_m is None or room_ahead_m >= head_m:
        return UP_DEG
    return float(min(np.degrees(np.arcsin(max(room_ahead_m, 0.0) / head_m)), UP_DEG))


TILLER_M, ARM_M = (
    0.60,
    0.55,
)  # tiller ahead of its pivot; how far a seated person reaches; common practice, no source


def tiller_gap_m(helm_ahead_m: float, pivot_ahead_m: float = -0.06) -> float:
    """How far in m the tiller is out of the helm's reach, negative within it; m ahead of the stern.

    >>> round(tiller_gap_m(2.4), 2)
    1.31
    """
    return abs(helm_ahead_m - (pivot_ahead_m + TILLER_M)) - ARM_M


def tiller_reach(helm_ahead_m: float, pivot_ahead_m: float = -0.06) -> str:
    """In words, whether the helm's seat reaches the tiller: m ahead of the stern for both.

    >>> tiller_reach(0.8), tiller_reach(2.4)
    ('in reach', 'out of reach by 1.31 m: a tiller extension or remote throttle')
    """
    gap = tiller_gap_m(helm_ahead_m, pivot_ahead_m)
    return (
        msg("in reach")
        if gap <= 0
        else msg(
            "out of reach by %(gap)s m: a tiller extension or remote throttle", gap=f"{gap:.2f}"
        )
    )


JUST_M = 0.01  # less plate below the bottom is on the short side
PINS = 4  # holes of a usual clamp; common practice, no source


def trim_pin(
    rake_deg: float, pins: int = PINS, first_deg: float = 4.0, step_deg: float = 4.0
) -> int:
    """The pin hole, counted from the transom, that brings the shaft nearest upright on a transom of
    that rake.

    Common practice: the second or third hole on most transoms, hardly ever the first.

    >>> trim_pin(9.0), trim_pin(14.0)
    (2, 3)
    """
    return int(np.clip(round((rake_deg - first_deg) / step_deg) + 1, 1, pins))


RUDDER_MOST_DEG = 40.0  # to either side; common practice, no source
LIFTED_CHORDS = 2.5  # how far aft a lifted blade reaches; common practice, no source


def rudder_clearance_m(
    offset_m: float,
    behind_m: float,
    diameter_m: float,
    chord_m: float,
    most_deg: float = RUDDER_MOST_DEG,
) -> float:
    """Least distance in m between a rudder blade swinging ± `most_deg` on the centre line and the
    propeller's disc.

    The disc stands `behind_m` aft of the rudder's hinge with its centre `offset_m` off; negative:
    it strikes.

    >>> round(rudder_clearance_m(0.32, 0.20, 0.26, 0.30), 2)
    0.02
    >>> rudder_clearance_m(0.15, 0.2, 0.26, 0.3) < 0
    True
    """
    off, radius = abs(offset_m), diameter_m / 2
    if chord_m > behind_m:  # the blade sweeps through the disc's plane, this far to each side
        swept = behind_m * np.tan(min(np.radians(most_deg), np.arccos(behind_m / chord_m)))
        if off - radius < swept:
            return -float(radius - max(0.0, off - swept))
    angles = np.radians(np.linspace(-most_deg, most_deg, 161))
    along = np.linspace(0, chord_m, 121)
    x, y = along[:, None] * np.cos(angles), along[:, None] * np.sin(angles)
    beside = np.maximum(np.abs(y - off) - radius, 0.0)
    return float(np.hypot(beside, x - behind_m).min())


@dataclass(frozen=True)
class Wedge:
    """A pod's wedge: angle in degrees and the thickness of its thick end over the thin one, m;
    which end is thick.
    """

    angle_deg: float
    rise_m: float
    thick_end: str


def pod_wedge(slope_deg: float, base_m: float = 0.25) -> Wedge:
    """The wedge that levels a pod's shaft where the bottom rises aft by `slope_deg` over a base of
    `base_m`.

    >>> w = pod_wedge(6.0)
    >>> round(1000 * w.rise_m), w.thick_end
    (26, 'aft')
    """
    return Wedge(
        abs(slope_deg),
        float(base_m * np.tan(np.radians(abs(slope_deg)))),
        "aft" if slope_deg > 0 else "forward",
    )
