"""What stands in the wind: hull, people and canopy."""

from __future__ import annotations

from jolvek.core.hydro.hull import Hull

# of frame, cloth and the air it stops, over its area, head to wind; common practice, no source
CANOPY = 0.10


def drag_area_m2(hull: Hull, people: int) -> float:
    """C_d A in m² of boat, people and canopy head to wind, scaled from the family's typical boat.

    Common practice, no source.

    >>> round(drag_area_m2(Hull("kayak", 3.7, 0.78, 34), 1), 2)
    0.3
    >>> pontoon = Hull("pontoon", 6.0, 2.5, 700, canopy_m2=6.0)
    >>> round(drag_area_m2(pontoon, 2), 2)
    5.8
    """
    fam = hull.fam
    scale = (hull.length_m / fam.typical_length_m) * (hull.beam_m / fam.typical_beam_m)
    canopy = CANOPY * (hull.canopy_m2 or 0.0)
    return float(fam.windage_m2 * scale + fam.person_windage_m2 * people + canopy)
