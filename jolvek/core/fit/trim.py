"""Weights and where they sit: trim, heel, stability, the best place for the battery, and what a
side mount does.

Form coefficients, wall-sided hulls, the bare boat taken as level. A boat with people who move is
trimmed by them.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from jolvek.core.base.messages import msg
from jolvek.core.base.units import GRAVITY_M_S2
from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.level import lies
from jolvek.core.hydro.floating import level_m
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.places import seats_m
from jolvek.core.hydro.water import Water

# seat above the floor, floor above the keel as a share of the depth; common practice, no source
SEAT_M = {"canoe": 0.20, "board": 0.12, "pontoon": 0.45}
THWART_M = 0.35
SOLES = {"cabin": 0.4, "keelboat": 0.6, "multihull": 0.75, "pontoon": 1.12}
PERSON_CG_M = 0.25  # above the seat
PEDAL_RUDDER_M2 = 0.02  # blade of a kayak's rudder; common practice, no source
RUDDER_LIFT = 0.8  # side force coefficient before it stalls
PADDLE_ARM_M = 1.0
LEAST_AHEAD_M, MOST_AHEAD = 0.1, 0.85  # where a battery may stand, the latter of the length
YAW_MUCH = 1.0  # of what the helm answers
TRIM_MOST_DEG, HEEL_MOST_DEG = 8.0, 15.0  # more is refused
HEEL_HELD_DEG = 30.0  # where wall-sided hulls end


@dataclass(frozen=True)
class Weight:
    """One thing aboard: kg, metres ahead of the stern, to starboard of the centre line, above the
    keel.
    """

    name: str
    mass_kg: float
    ahead_m: float
    off_m: float = 0.0
    above_m: float = 0.3


@dataclass(frozen=True)
class Attitude:
    """How the loaded boat lies. Trim is positive by the stern, heel positive to starboard,
    degrees.
    """

    displacement_kg: float
    draught_m: float
    draught_aft_m: float
    draught_fore_m: float
    trim_deg: float
    heel_deg: float
    trim_asked_deg: float  # what the sums give before they are held to where they are valid
    heel_asked_deg: float
    ahead_m: float  # centre of all weights
    above_m: float
    gm_m: float  # transverse metacentric height
    gm_long_m: float
    moment_to_trim_nm: float  # per degree


def sole_m(hull: Hull) -> float:
    """Floor above the keel in m: a pontoon boat's deck, a larger boat's cockpit; else the bottom.

    >>> sole_m(Hull("rigid_dinghy", 3.2, 1.45, 65))
    0.0
    """
    return SOLES.get(hull.family, 0.0) * hull.depth_m


def seat_above_keel_m(hull: Hull) -> float:
    """Seat above the keel in m: low in a narrow kayak, on deck of a wide one, else as high as a
    thwart over the floor.

    >>> seat_above_keel_m(Hull("rigid_dinghy", 3.2, 1.45, 65))
    0.35
    """
    if hull.family == "kayak":
        return float(np.clip(0.02 + 0.25 * (hull.beam_m - 0.6), 0.02, 0.2))
    return sole_m(hull) + SEAT_M.get(hull.family, THWART_M)


def crew(hull: Hull, load: Load) -> list[Weight]:
    """People in their seats and gear amidships, as weights.

    >>> [w.name for w in crew(Hull("canoe", 4.8, 0.9, 32), Load(2, 150, 10))]
    ['person 1', 'person 2', 'gear']
    """
    height = seat_above_keel_m(hull) + PERSON_CG_M
    each = load.crew_kg / load.people if load.people else 0.0
    seats = [
        load.seat_kg[i] if i < len(load.seat_kg) else (80.0 if load.seat_kg else each)
        for i in range(load.people)
    ]
    out = [
        Weight(msg("person %(i)s", i=i), kg, x, 0.0, height)
        for i, (x, kg) in enumerate(zip(seats_m(hull, load.people), seats, strict=True), 1)
    ]
    if load.gear_kg:
        out.append(Weight(msg("gear"), load.gear_kg, 0.5 * hull.length_m, 0.0, sole_m(hull) + 0.2))
    return out


def attitude(
    hull: Hull, weights: Sequence[Weight], water: Water | None = None, hull_aft_m: float = 0.0
) -> Attitude:
    """Draughts, trim and heel of the hull with these weights (the hull's own mass is added at 0.45
    depth, level or so far aft of it).

    KB and BM = I/∇ by the family's `Shape`, bodies' distance by Steiner. Valid to about 8° of trim
    and 30° of heel; beyond, the angles are held there.

    >>> h = Hull("rigid_dinghy", 3.2, 1.45, 65)
    >>> a = attitude(h, [Weight("one aft", 80, 0.3)])
    >>> 2 < a.trim_deg < 6, a.heel_deg
    (True, 0.0)
    """
    water = water or Water()
    level = level_m(hull)
    own = Weight("hull", hull.mass_kg, level - hull_aft_m, 0.0, 0.45 * hull.depth_m)
    items = [own, *weights]
    mass = sum(w.mass_kg for w in items)
    ahead, off, above = (
        sum(w.mass_kg * getattr(w, k) for w in items) / mass
        for k in ("ahead_m", "off_m", "above_m")
    )
    x = lies(hull, mass, ahead, off, above, water.density_kg_m3)
    asked, heeled, draught = float(x.trim_deg), float(x.heel_deg), float(x.draught_m)
    trim = float(np.clip(asked, -TRIM_MOST_DEG, TRIM_MOST_DEG))
    heel = float(np.clip(heeled, -HEEL_HELD_DEG, HEEL_HELD_DEG))
    slope = float(np.tan(np.radians(trim)))
    return Attitude(
        mass,
        draught,
        draught + slope * level,
        draught - slope * (hull.waterline_m - level),
        trim,
        heel,
        trim_asked_deg=asked,
        heel_asked_deg=heeled,
        ahead_m=ahead,
        above_m=above,
        gm_m=float(x.gm_m),
        gm_long_m=float(x.gm_long_m),
        moment_to_trim_nm=float(mass * GRAVITY_M_S2 * x.gm_long_m * np.tan(np.radians(1))),
    )


def places_m(weights: Sequence[Weight], kind: str) -> tuple[float, ...]:
    """Where the weights of a kind stand, m ahead of the stern.

    >>> places_m([Weight("person 1", 80, 1.2), Weight("gear", 20, 1.6)], "person")
    (1.2,)
    """
    return tuple(w.ahead_m for w in weights if w.name.split()[0] == kind)


def moments_kg_m(weights: Sequence[Weight]) -> tuple[float, float, float]:
    """Sums of mass times place: ahead, off, above.

    >>> moments_kg_m([Weight("a", 2.0, 1.0, 0.5, 0.25)])
    (2.0, 1.0, 0.5)
    """
    ahead, off, above = (
        sum(w.mass_kg * getattr(w, key) for w in weights) for key in ("ahead_m", "off_m", "above_m")
    )
    return ahead, off, above


def best_place_m(
    hull: Hull, weights: Sequence[Weight], name: str, low_m: float, high_m: float
) -> float:
    """Where between two places (m ahead of the stern) the named weight trims the boat most level.

    Raises KeyError for an unknown name.

    >>> h = Hull("rigid_dinghy", 3.2, 1.45, 65)
    >>> best_place_m(h, [Weight("helm", 80, 0.8), Weight("battery", 20, 0.3)], "battery", 0.2, 2.4)
    2.4
    """
    mover = next((w for w in weights if w.name == name), None)
    if mover is None:
        raise KeyError(name)
    others = [w for w in weights if w is not mover]
    level = level_m(hull)
    moment = sum(w.mass_kg * (level - w.ahead_m) for w in others)
    return float(np.clip(level + moment / max(mover.mass_kg, 1e-6), low_m, high_m))


def best_stowed_m(
    hull: Hull, weights: Sequence[Weight], name: str, bays: Sequence[Bay]
) -> tuple[float, str]:
    """The same within the bays: where, and the name of the bay; anywhere where there are none.

    >>> from jolvek.core.enquiry.site import Bay
    >>> h, helm = Hull("rigid_dinghy", 3.2, 1.45, 65), Weight("helm", 80, 0.8)
    >>> aft = Bay("aft locker", 0.6, 0.4, 0.3, None, 0.5)
    >>> best_stowed_m(h, [helm, Weight("battery", 20, 0.3)], "battery", [aft])
    (0.8, 'aft locker')
    """
    best = best_place_m(hull, weights, name, LEAST_AHEAD_M, MOST_AHEAD * hull.length_m)
    inside = [
        (float(np.clip(best, b.ahead_m - b.length_m / 2, b.ahead_m + b.length_m / 2)), b.name)
        for b in bays
        if b.ahead_m is not None
    ]
    if not inside:
        return best, ""
    return min(inside, key=lambda x: abs(x[0] - best))


def moved(
    weights: Sequence[Weight], name: str, ahead_m: float, off_m: float | None = None
) -> list[Weight]:
    """The same weights with one of them elsewhere.

    >>> moved([Weight("battery", 20, 0.3)], "battery", 1.2)[0].ahead_m
    1.2
    """
    return [
        (
            replace(w, ahead_m=ahead_m, off_m=w.off_m if off_m is None else off_m)
            if w.name == name
            else w
        )
        for w in weights
    ]


@dataclass(frozen=True)
class Yaw:
    """What an off-centre thrust does: moment N·m, the force that answers it at the helm, and what
    the helm can give.
    """

    moment_nm: float
    helm_force_n: float
    helm_most_n: float
    paddle_force_n: float

    @property
    def answered(self) -> bool:
        """Whether the helm holds her straight."""
        return self.helm_force_n <= YAW_MUCH * self.helm_most_n


# N at the paddle on an arm of 1 m: from where a paddler notes it, and where it tires; common
# practice, no source
PADDLE_NOTED_N, PADDLE_TIRES_N = 5.0, 15.0


def paddle_text(force_n: float) -> str:
    """What a side pull asks of a paddler, in a customer's words.

    >>> paddle_text(2.0), paddle_text(30.0)[-21:]
    ('hardly felt: a touch of the paddle now and then', 'mount over the middle')
    """
    if force_n < PADDLE_NOTED_N:
        return msg("hardly felt: a touch of the paddle now and then")
    if force_n < PADDLE_TIRES_N:
        return msg("keep the paddle in on the motor’s side every few strokes")
    return msg(
        "the paddle is in on the motor’s side nearly all the time: less power, a rudder, or a"
        " mount over the middle"
    )


def yaw(
    thrust_n: float,
    offset_m: float,
    hull: Hull,
    speed_m_s: float,
    rudder_m2: float = PEDAL_RUDDER_M2,
    density_kg_m3: float = 1026.0,
) -> Yaw:
    """The turning moment of a thrust beside the centre line, and the rudder or paddle force that
    answers it.

    The rudder works at the stern on an arm of 0.45 of the waterline; its most is ½ρV²A·0.8 at the
    boat's speed. Statics and a plate's lift; Jolvek's own estimate.

    >>> y = yaw(60.0, 0.42, Hull("kayak", 3.75, 0.84, 36), 1.7)
    >>> round(y.moment_nm, 1), y.answered
    (25.2, True)
    """
    moment = thrust_n * abs(offset_m)
    arm = 0.45 * hull.waterline_m
    most = 0.5 * density_kg_m3 * speed_m_s**2 * rudder_m2 * RUDDER_LIFT
    return Yaw(moment, moment / arm, float(most), moment / PADDLE_ARM_M)
