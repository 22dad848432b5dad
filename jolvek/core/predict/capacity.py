"""What a boat without a plate may carry, and how much power: estimates for orientation.

The builder's plate and local codes decide; where there is one, nothing here is asked.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.units import FOOT_M
from jolvek.core.hydro.floating import TUBE_LENGTH, awash_kg
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict import power_limit
from jolvek.core.rules.findings import Finding, find

FRESH_KG_M3 = 1000.0
# of what floats her at the sheer, less her own mass: 33 CFR 183.35 with an outboard, 183.37 without
# or with no more than 2 hp; from memory
WITH_OUTBOARD, PADDLED = 0.2, 0.3
BOARD = 0.4  # one stands on a board in the wet; common practice, no source
TUBES = 0.75  # of the buoyancy of an inflatable's chambers, less her mass; ISO 6185, from memory
LOGS = 0.55  # of a pontoon boat's tubes, less her mass; common practice, no source
# diameter of the tubes over the beam; their length goes round both sides and the bow; common
# practice, no source
TUBE_BEAM, TUBE_ALONG = 0.255, 0.85
SQUARE_FEET = 15.0  # of length times beam for each person; common practice, no source
PADDLED_M = 4.5  # paddled hulls shorter than this are for one; common practice, no source
# of the people that the sizes alone give; common practice, no source
DECKED = {"cabin": 0.5, "keelboat": 0.5, "multihull": 0.25}
SMALL_MOTOR_W = 1500.0  # 2 hp
PERSON_KG = 75.0  # ISO 14946, from memory
GEAR_KG = 25.0  # beside each person on a decked boat; common practice, no source
TRANSOM_SHARE = 0.8  # of the beam, where the transom's width is not given; common practice


def _tubes_m3(hull: Hull) -> float:
    across = TUBE_BEAM * hull.beam_m
    along = 2 * TUBE_ALONG * hull.length_m + hull.beam_m - 2 * across
    return float(np.pi / 4 * across**2 * along)


def most_people(hull: Hull) -> int:
    """People that a hull without a plate is likely made for.

    Length times beam in feet over 15, fewer on decked boats, one on a short kayak or board; common
    practice, no source.

    >>> [most_people(Hull(*x)) for x in (("rigid_dinghy", 2.9, 1.45, 55), ("kayak", 3.7, .78, 34))]
    [3, 1]
    """
    room = hull.length_m * hull.beam_m / FOOT_M**2 / SQUARE_FEET
    if hull.family in ("kayak", "board"):
        return 1 if hull.length_m < PADDLED_M else 2
    return max(int(DECKED.get(hull.family, 1.0) * room + 0.1), 1)


def most_load_kg(hull: Hull, power_w: float = 0.0) -> float:
    """Mass in kg of people, gear, motor and batteries that a hull without a plate likely bears.

    Open boats by 33 CFR 183.35 and 183.37, inflatables by the form of ISO 6185 with tubes as usual
    (all from memory), decked boats by ISO 14946's 75 kg a person and their gear.

    >>> round(most_load_kg(Hull("kayak", 3.7, 0.78, 34)), -1)
    170.0
    >>> round(most_load_kg(Hull("rib", 3.6, 1.75, 110)), -1)
    710.0
    """
    if hull.family in DECKED:
        return most_people(hull) * (PERSON_KG + GEAR_KG) + 0.05 * hull.mass_kg
    if hull.fam.inflated or hull.family == "rib":
        return max(TUBES * FRESH_KG_M3 * _tubes_m3(hull) - hull.mass_kg, PERSON_KG)
    if hull.family == "pontoon":
        section = np.pi / 4 * hull.body_waterline_beam_m**2
        tubes = section * TUBE_LENGTH * hull.length_m * hull.body_count
        return float(max(LOGS * FRESH_KG_M3 * tubes - hull.mass_kg, PERSON_KG))
    paddled = hull.fam.thrust_law or power_w <= SMALL_MOTOR_W
    share = BOARD if hull.family == "board" else PADDLED if paddled else WITH_OUTBOARD
    return max(share * (awash_kg(hull, FRESH_KG_M3) - hull.mass_kg), PERSON_KG)


def most_power_w(hull: Hull, width_m: float | None = None, remote: bool = False) -> float | None:
    """Power in W of a small open boat without a plate by `power_limit`; None where no formula is
    meant for her. Inflatables by their beam overall: common practice, no source.

    >>> round(most_power_w(Hull("rib", 3.0, 1.6, 70)) or 0), most_power_w(Hull("kayak", 3, .7, 20))
    (11185, None)
    """
    if hull.fam.inflated and hull.fam.planes or hull.family == "rib":
        width = hull.beam_m
    elif power_limit.applies(hull):
        width = width_m or TRANSOM_SHARE * hull.beam_m
    else:
        return None
    if hull.length_m >= power_limit.LONGEST_M:
        return None
    flat = hull.family == "flat_bottom"
    return power_limit.most_w(hull.length_m, width, flat, remote, hull.transom_m)


@dataclass(frozen=True)
class Plate:
    """What of a boat's plate is known beside her power, and what the formula for power asks."""

    load: bool = False
    people: bool = False
    width_m: float | None = None  # of the transom
    remote: bool = False  # steered by a wheel


def without_plate(
    hull: Hull, load: Load, power_w: float, carried_kg: float, plate: Plate | None = None
) -> list[Finding]:
    """Where power, load or people are more than a boat without a plate is likely made for.

    >>> rib = Hull("rib", 3.0, 1.6, 70)
    >>> [f.rule for f in without_plate(rib, Load(5), 12000.0, 460.0)]
    ['formula-power', 'formula-people']
    """
    known, out = plate or Plate(), []
    most_w = most_power_w(hull, known.width_m, known.remote)
    if hull.max_power_w is None and most_w is not None and power_w > most_w * (1 + 1e-9):
        out.append(find("formula-power", power_w, most_w))
    most_kg = most_load_kg(hull, power_w)
    if not known.load and carried_kg > most_kg:
        out.append(find("formula-load", carried_kg, most_kg, over=carried_kg - most_kg))
    if not known.people and load.people > most_people(hull):
        out.append(find("formula-people", load.people, most_people(hull)))
    return out
