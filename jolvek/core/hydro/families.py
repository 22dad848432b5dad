"""Hull families: one table of starting parameters, used wherever a boat's own figure is not known.

The coefficients are Jolvek's own, tried against speeds measured on the water (tests/reference);
sizes and masses are common practice, no source. A sea trial replaces them for a boat.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg, words
from jolvek.core.hydro.friction import ROUGHNESS_ALLOWANCE

SMOOTH = 0.00015  # ΔC_f of moulded hulls without paint; from memory
# noses cut from a cone, flat after ends, the motor's pod and its struts between the tubes; by the
# sums of Hoerner 1965, from memory
BLUNT_TUBES = 0.35
TUBE_OVERHANG = 0.09  # 0.25 to 0.3 m on a tender; common practice, no source


@dataclass(frozen=True)
class Family:
    """Starting parameters of one kind of hull; lengths m, masses kg, areas m², the rest ratios."""

    id: str
    name: str
    waterline_length_ratio: float  # L / length overall
    waterline_beam_ratio: float  # B / beam overall (one body: of its own beam)
    block_coefficient: float
    form_factor: float  # k in C_f (1 + k)
    transom_share: float  # immersed transom area / (B T)
    planes: bool
    bodies: int
    typical_length_m: float
    typical_beam_m: float
    typical_mass_kg: float
    length_min_m: float
    length_max_m: float
    depth_m: float  # keel to sheer amidships at the typical length
    windage_m2: float  # drag area C_d A of the empty boat, head to wind
    person_windage_m2: float
    body_beam_ratio: float = 1.0  # of one body, to beam overall; for several bodies
    thrust_law: bool = False  # light paddled hulls, judged by thrust per weight
    deadrise_deg: float = 0.0
    roughness: float = ROUGHNESS_ALLOWANCE  # ΔC_f of the bottom
    blunt_drag: float = 0.0  # C_D of the ends of tubes and what hangs between, on their section
    sails: bool = False

    def __post_init__(self) -> None:
        words(self, "name")

    @property
    def tube_overhang(self) -> float:
        """How far the tubes of an inflatable reach past her transom, share of the length."""
        return TUBE_OVERHANG if self.id in ("inflatable_soft", "inflatable_air", "rib") else 0.0

    @property
    def inflated(self) -> bool:
        """Whether floor and tubes are air: no holes in them."""
        return self.id.startswith("inflatable")

    @property
    def label(self) -> str:
        """Its name within a sentence."""
        return self.name if self.name.isupper() else msg(self.name.lower())


def _family(*fields: object, **more: object) -> Family:
    return Family(*fields, **more)  # type: ignore[arg-type]


# fmt: off
FAMILIES: dict[str, Family] = {
    family.id: family
    for family in (
        # id, name, L/LOA, B/BOA, Cb, k, a_t, planes, bodies,
        # L, B, mass, Lmin, Lmax, depth, CdA, CdA/person
        _family("kayak", "Kayak", .95, .90, .48, .05, .02, False, 1,
                3.7, .78, 34, 2.4, 8, .33, .05, .25, thrust_law=True, roughness=SMOOTH),
        _family("canoe", "Canoe", .95, .90, .46, .12, .0, False, 1,
                4.8, .92, 32, 3, 9, .36, .08, .3, thrust_law=True, roughness=SMOOTH),
        _family("board", "Board", .97, .95, .60, .15, .1, False, 1,
                3.3, .82, 14, 2.4, 6, .16, .03, .4, thrust_law=True, roughness=SMOOTH),
        _family("sailing_dinghy", "Sailing dinghy", .93, .80, .42, .20, .3, False, 1,
                4.3, 1.65, 130, 2.2, 7, .55, .35, .25, sails=True),
        _family("rigid_dinghy", "Rigid dinghy or tender", .92, .80, .48, .30, .7, True, 1,
                3.2, 1.45, 65, 1.8, 6, .52, .25, .25, deadrise_deg=8.0),
        _family("inflatable_soft", "Inflatable, soft floor", .88, .72, .50, .60, 1.0, False, 1,
                2.6, 1.5, 28, 1.8, 5, .42, .25, .25),
        _family("inflatable_air", "Inflatable, air floor", .88, .72, .50, .50, 1.0, True, 1,
                2.9, 1.55, 38, 1.8, 6, .42, .25, .25, deadrise_deg=5.0),
        _family("rib", "RIB", .89, .70, .50, .40, .8, True, 1,
                3.6, 1.75, 110, 2.2, 9, .62, .35, .25, deadrise_deg=16.0),
        _family("flat_bottom", "Flat-bottom boat", .93, .80, .60, .40, .8, True, 1,
                4.3, 1.6, 130, 2.4, 9, .5, .3, .25, deadrise_deg=0.0),
        _family("skiff", "Shallow skiff", .94, .85, .50, .36, .8, True, 1,
                4.3, 1.35, 75, 2.8, 7, .42, .2, .3, deadrise_deg=4.0),
        _family("cabin", "Cabin boat or launch", .88, .85, .42, .25, .3, False, 1,
                6.5, 2.3, 1400, 3.5, 15, 1.2, 4.0, .1),
        _family("keelboat", "Keel sailing boat", .85, .85, .38, .20, .0, False, 1,
                7.5, 2.5, 2400, 4, 15, 1.3, 4.0, .1, sails=True),
        _family("multihull", "Multihull", .95, 1.0, .42, .25, .0, False, 2,
                6.7, 4.2, 650, 3.5, 15, .9, 2.0, .2, body_beam_ratio=.13, sails=True),
        _family("pontoon", "Pontoon boat", .93, 1.0, .75, .30, .5, False, 2,
                6.0, 2.5, 700, 3, 12, .62, 5.0, .1, body_beam_ratio=.245, blunt_drag=BLUNT_TUBES),
    )
}
# fmt: on


def family(family_id: str) -> Family:
    """The family of that id; raises ValueRefused naming the known ids.

    >>> family("rib").planes
    True
    """
    try:
        return FAMILIES[family_id]
    except KeyError:
        raise ValueRefused("hull.family", family_id, msg("one of ") + ", ".join(FAMILIES)) from None


def typical_beam_m(fam: Family, length_m: float) -> float:
    """Beam overall in m to expect at a length overall in m; common practice, no source.

    >>> round(typical_beam_m(family("kayak"), 3.7), 2)
    0.78
    """
    return float(fam.typical_beam_m * (length_m / fam.typical_length_m) ** 0.6)


def typical_mass_kg(fam: Family, length_m: float) -> float:
    """Light mass in kg to expect at a length overall in m; common practice, no source.

    >>> round(typical_mass_kg(family("pontoon"), 6.0))
    700
    """
    return float(fam.typical_mass_kg * (length_m / fam.typical_length_m) ** 2.2)
