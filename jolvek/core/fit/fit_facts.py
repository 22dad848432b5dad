"""What the hard rules ask of a boat, of motors on mounts, and of whole setups, in arrays."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.site import Site
from jolvek.core.fit.hanging import seat_m
from jolvek.core.fit.leg import LIFTED_CHORDS, above_m, rudder_clearance_m
from jolvek.core.fit.trim import HEEL_MOST_DEG, TRIM_MOST_DEG
from jolvek.core.hydro.floating import awash_kg, float_at
from jolvek.core.hydro.hull import Hull
from jolvek.core.hydro.seaway import most_wind_m_s
from jolvek.core.products.boat_model import FIN_BOXES
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import PLACES, TRANSOM_PLACES, Mount
from jolvek.core.products.shelf import Item
from jolvek.core.rules.facts import DriveFacts, NeedFacts, SetupFacts

SCREWED = ("rail", "track")  # where a mount is held by screws into the hull
BEHIND_M = 0.20  # propeller's disc aft of the transom
TRANSOM_MAY_BE_OFF_M = 0.15  # where its height is only estimated; common practice, no source
LEG_M = 0.08  # width of a leg; common practice, no source
TILTED_M = 0.45  # further aft that the propeller stands with the motor up; common practice


def need_facts(need: Need) -> NeedFacts:
    """The facts of a boat and her people.

    >>> from jolvek.core.hydro.hull import Load
    >>> need_facts(Need(Hull("kayak", 3.7, 0.78, 34), Load(1))).most_people
    inf
    """
    site = need.site
    return NeedFacts(
        need.load.people,
        _most(site.max_people),
        np.nan if site.model_year is None else site.model_year,
        site.approval_from_year or 0,
        site.approval_to_year or 9999,
        max(abs(leg.wind_m_s) for leg in need.day.trip),
        most_wind_m_s=most_wind_m_s(need.hull.length_m),
        length_m=need.hull.length_m,
    )


@dataclass(frozen=True)
class Hung:
    """Motors with their shafts (P,): what mount and boat ask of them; a shaft of nan adjusts."""

    power_w: Array
    thrust_n: Array
    motor_kg: Array
    diameter_m: Array
    shaft_m: Array
    styles: Sequence[str]


def one_hung(motor: Item[Motor], shaft_m: float | None, density_kg_m3: float) -> Hung:
    """One motor with its shaft in m (None: it adjusts), to be hung on one boat.

    >>> from jolvek.core.products.shelf import sample
    >>> one_hung(sample().motors[0], None, 1026.0).power_w.tolist()
    [1200.0]
    """
    spec, one = motor.spec, np.ones(1)
    prop = spec.propulsor(density_kg_m3)
    thrust = prop.drive.thrust_n(spec.input_power_w, 0.0, density_kg_m3)
    shaft = np.nan if shaft_m is None else shaft_m
    kilos, wide = spec.weight_kg * one, prop.diameter_m * one
    power = spec.input_power_w * one
    return Hung(power, thrust * one, kilos, wide, shaft * one, [motor.style])


def drive_facts(need: Need, hung: Hung, mounts: Sequence[Mount]) -> DriveFacts:
    """The facts of motors (P, 1) on mounts (1, K) of a boat.

    >>> from jolvek.core.hydro.hull import Load
    >>> one = np.array([1.0])
    >>> hung = Hung(900 * one, 300 * one, 20 * one, 0.26 * one, 0.5 * one, ["outboard"])
    >>> need = Need(Hull("rib", 3.6, 1.75, 110, transom_height_m=0.4), Load(2))
    >>> drive_facts(need, hung, [Mount("transom_clamp", 60, 2000)]).plate_m.round(2).tolist()
    [[0.11]]
    """
    site, hull = need.site, need.hull
    kinds = [k.general for k in mounts]
    power, thrust, kilos, shaft = (
        x[:, None] for x in (hung.power_w, hung.thrust_n, hung.motor_kg, hung.shaft_m)
    )
    placed = [_has_place(site, hull, k) for k in mounts]
    behind = _row(k.place in TRANSOM_PLACES for k in kinds) > 0
    seat = _row(seat_m(need, k) for k in mounts)
    fits = np.array([[style in k.styles for k in kinds] for style in hung.styles], dtype=bool)
    return DriveFacts(
        power,
        thrust,
        kilos,
        kilos + _row(k.mass_kg for k in mounts),
        np.where(behind, shaft - seat, np.nan),
        _rudder_gaps_m(need, hung.diameter_m, mounts),
        fits.reshape(power.size, len(mounts)),
        np.array(placed, dtype=bool)[None],
        _row(k.place == "transom" for k in kinds) > 0,
        _row(k.transom_min_m for k in mounts),
        _row(k.transom_max_m for k in mounts),
        _row(k.max_motor_kg for k in mounts),
        _row(k.max_thrust_n for k in mounts),
        _most(hull.max_power_w),
        _most(site.approval_power_w),
        _most(site.approval_thrust_n),
        _most(site.max_motor_kg),
        np.nan if site.transom_thickness_m is None else site.transom_thickness_m,
        _words(hung.styles)[:, None],
        _words(" or ".join(k.styles) for k in kinds)[None],
        *_feet(site, mounts),
        0.0 if hull.transom_height_m else TRANSOM_MAY_BE_OFF_M,
        *_wanted_places(site, hull, mounts),
        above_m=_above_m(need, hung, shaft - seat),
    )


def _above_m(need: Need, hung: Hung, plate_m: Array) -> Array:
    """How far each plate (P, K) may stand over the bottom, at the draught with people and motor."""
    mass = need.hull.mass_kg + need.load.total_kg + hung.motor_kg
    draught = float_at(need.hull, mass, need.water.density_kg_m3).draught_m
    return above_m(need.hull, draught[:, None], plate_m, hung.diameter_m[:, None])


def setup_facts(
    need: Need, displacement_kg: Any, trim_deg: Any = 0.0, heel_deg: Any = 0.0
) -> SetupFacts:
    """The facts of setups by all that floats, in kg of any shape, and how she lies.

    >>> from jolvek.core.hydro.hull import Load
    >>> setup_facts(Need(Hull("kayak", 3.7, 0.78, 34), Load(1)), 134.0).carried_kg
    100.0
    """
    carried = displacement_kg - need.hull.mass_kg
    sinks = awash_kg(need.hull, need.water.density_kg_m3)
    most = (TRIM_MOST_DEG, HEEL_MOST_DEG)
    load = _most(need.site.max_load_kg)
    return SetupFacts(displacement_kg, carried, sinks, load, trim_deg, heel_deg, *most)


def _feet(site: Site, mounts: Sequence[Mount]) -> tuple[Array, Array, float, float, str]:
    """Length and width in m of the mounts' feet and of the boat's fin box, and its name; nan where
    not known.
    """
    name, long, wide = FIN_BOXES.get(site.fin_box, ("", np.nan, np.nan))
    lengths = _row(_given(k.foot_length_m) for k in mounts)
    return lengths, _row(_given(k.foot_width_m) for k in mounts), long, wide, name


def _wanted_places(site: Site, hull: Hull, mounts: Sequence[Mount]) -> tuple[Any, Any]:
    """In words: the places that each mount goes on, and those that the boat has."""
    wanted = (" or ".join(PLACES[p] for p in k.general.places) for k in mounts)
    return _words(wanted)[None], _words(_places_there(site, hull, k) for k in mounts)[None]


def _given(value: float | None) -> float:
    return np.nan if value is None else value


def _most(limit: float | None) -> float:
    return np.inf if limit is None else limit


def _row(values: Iterable[float | bool]) -> Array:
    """One figure a mount, as (1, K)."""
    return np.array(list(values), dtype=float)[None]


def _words(values: Iterable[str]) -> Any:
    return np.array(list(values), dtype=object)


def _has_place(site: Site, hull: Hull, mount: Mount) -> bool:
    kind = mount.general
    there = any(place in usable_places(site, hull) for place in kind.places)
    return there and (not kind.families or hull.family in kind.families)


def usable_places(site: Site, hull: Hull) -> tuple[str, ...]:
    """The places that take a mount: on what holds air nothing is screwed to rails or tracks.

    >>> usable_places(Site(("rail", "pad"), construction="inflatable"), Hull("kayak", 3.4, 0.9, 18))
    ('pad',)
    """
    holds_air = hull.fam.inflated or site.construction == "inflatable"
    return tuple(p for p in site.places if not (holds_air and p in SCREWED))


def _places_there(site: Site, hull: Hull, mount: Mount) -> str:
    kind, there = mount.general, ", ".join(PLACES[p] for p in usable_places(site, hull))
    if any(p in usable_places(site, hull) for p in kind.places) and not _has_place(
        site, hull, mount
    ):
        return msg(
            "%(there)s, but %(lower)ss are not made for this kind of hull",
            there=there,
            lower=kind.name.lower(),
        )
    return there or msg("no mounting place")


def _rudder_gaps_m(need: Need, diameter_m: Array, mounts: Sequence[Mount]) -> Array:
    """Least distance (P, K) between a stern-hung rudder at any angle and the motor at the transom,
    blade and motor down and up; nan where there is none.
    """
    chord = need.site.rudder_chord_m
    out = np.full((diameter_m.size, len(mounts)), np.nan)
    if not chord:
        return out
    lifted = LIFTED_CHORDS * chord if need.site.rudder_lifts else chord
    wide, place = np.unique(np.round(diameter_m, 3), return_inverse=True)
    gaps: dict[float, Array] = {}
    for k, mount in enumerate(mounts):
        if mount.general.place in TRANSOM_PLACES:
            off = mount.offset_m
            if off not in gaps:
                each = [_gap_m(off, d, chord, lifted) for d in wide.tolist()]
                gaps[off] = np.array(each)[place]
            out[:, k] = gaps[off]
    return out


@lru_cache(maxsize=4096)
def _gap_m(offset_m: float, diameter_m: float, chord_m: float, lifted: float) -> float:
    return min(
        rudder_clearance_m(offset_m, BEHIND_M, diameter_m, chord_m),
        rudder_clearance_m(offset_m, BEHIND_M, LEG_M, lifted),
        rudder_clearance_m(offset_m, BEHIND_M + TILTED_M, diameter_m, lifted),
    )
