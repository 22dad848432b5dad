"""The hull and what floats it: sizes with the missing ones estimated, draught, wetted area,
stability.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.hydro.families import Family, family
from jolvek.core.hydro.fouling import BOTTOMS
from jolvek.core.hydro.shape import NODES

ADULT_KG = 80.0
# of a trimaran's ama afloat: length over the main hull's, beam over its, share of the mass; common
# practice, no source
AMA = (0.75, 0.6, 0.08)


@dataclass(frozen=True)
class Assumed:
    """One value that nobody gave: what was taken for it, and why."""

    name: str
    value: float | str
    why: str


TRIED = ("friction", "waves", "planing", "efficiency")  # what a trial finds, in this order
# unknowns of a prediction; what a trial leaves of their doubt is in this order
_SIZES = ("mass", "length", "beam")
UNKNOWNS = (*_SIZES, "friction", "waves", "transom", "leg", "air", "planing", "seas", "efficiency")
SPREAD = (len(UNKNOWNS) + len(NODES)) ** 2  # and of the form of the curve
SPREADS = (len(UNKNOWNS) ** 2, SPREAD)  # the first as version 0.6 kept it
FACTORS = ("friction_factor", "wave_factor", "planing_factor", "efficiency_factor")
UNTRIED: dict[str, Any] = {
    **dict.fromkeys(FACTORS, 1.0),
    "trial_shape": (),
    "trial_spread": (),
    "tried_on": "",
}


@dataclass(frozen=True)
class Hull:
    """A hull in SI. Only family, length and mass are needed; the rest follows from the family.

    `bottom` is clean, slime or weed; the four factors and what is left of their doubt come from a
    sea trial (1 and empty: untried).
    """

    RANGES: ClassVar[checked.Ranges] = {
        "length_m": (1.5, 15),
        "beam_m": (0.3, 8),
        "mass_kg": (3, 30000),
        "waterline_length_m": (0.8, 15),
        "waterline_beam_m": (0.15, 8),
        "bodies": (1, 3),
        "body_spacing_m": (0.1, 8),
        "body_beam_m": (0.08, 8),
        "chine_beam_m": (0.2, 8),
        "deadrise_deg": (0, 35),
        "transom_height_m": (0.1, 1.5),
        "keel_draught_m": (0.05, 3),
        "transom_clearance_m": (-1, 1),
        "max_power_w": (0, 1e06),
        "ama_share": (0.01, 0.6),
        "ama_length_m": (0.8, 15),
        "months_afloat": (0, 60),
        "canopy_m2": (0, 40),
        "friction_factor": (0.2, 5),
        "wave_factor": (0.2, 5),
        "planing_factor": (0.2, 5),
        "efficiency_factor": (0.4, 2.5),
    }
    COUNTS: ClassVar[checked.Counts] = {"trial_spread": SPREAD, "trial_shape": len(NODES)}
    TEXTS: ClassVar[checked.Counts] = {"tried_on": 40}
    CHOICES: ClassVar[checked.Choices] = {"bottom": tuple(BOTTOMS)}

    family: str
    length_m: float
    beam_m: float
    mass_kg: float
    waterline_length_m: float | None = None
    waterline_beam_m: float | None = None
    bodies: int | None = None
    body_spacing_m: float | None = None
    body_beam_m: float | None = None
    chine_beam_m: float | None = None
    deadrise_deg: float | None = None
    transom_height_m: float | None = None
    keel_draught_m: float | None = None  # waterline to the keel's lower edge, loaded
    transom_clearance_m: float | None = None  # its lower edge above the water; minus: under it
    max_power_w: float | None = None
    ama_share: float | None = None  # of the displacement, on a trimaran's two amas together
    ama_length_m: float | None = None  # of each, afloat
    months_afloat: float | None = None  # since the bottom was cleaned
    canopy_m2: float | None = None  # over the deck: stands in the wind, may carry panels
    bottom: str = "clean"
    friction_factor: float = 1.0
    wave_factor: float = 1.0
    planing_factor: float = 1.0
    efficiency_factor: float = 1.0  # of the propeller behind her, against what is usual
    trial_shape: tuple[float, ...] = ()  # ln of a factor on resistance at the nodes of `shape`
    trial_spread: tuple[float, ...] = ()  # covariance of the ln of UNKNOWNS and of it, row by row
    tried_on: str = ""

    def __post_init__(self) -> None:
        fam = family(self.family)
        if self.trial_shape and len(self.trial_shape) != len(NODES):
            raise ValueRefused(
                "hull.trial_shape", len(self.trial_shape), msg("%(n)s figures", n=len(NODES))
            )
        for x in self.trial_shape:
            _between("hull.trial_shape", x, -1, 1)
        if self.trial_spread and len(self.trial_spread) not in SPREADS:
            raise ValueRefused(
                "hull.trial_spread",
                len(self.trial_spread),
                msg("%(spread)s figures", spread=SPREAD),
            )
        for x in self.trial_spread:
            _between("hull.trial_spread", x, -10, 10)
        _between(
            "hull.length_m",
            self.length_m,
            fam.length_min_m,
            fam.length_max_m,
            msg(" for this kind of boat (%(name)s)", name=fam.name),
        )
        checked.check(self, "hull")
        _between("hull.beam_m", self.beam_m, 0.3, self.length_m)
        for name, low, high in (
            ("waterline_length_m", 0.5 * self.length_m, self.length_m),
            ("waterline_beam_m", 0.2 * self.beam_m, self.beam_m),
            ("body_spacing_m", 0.1, self.beam_m),
            ("body_beam_m", 0.08, self.beam_m),
            ("chine_beam_m", 0.2 * self.beam_m, self.beam_m),
            ("ama_length_m", 0.2 * self.length_m, self.length_m),
        ):
            value = getattr(self, name)
            if value is not None:
                _between(f"hull.{name}", value, low, high)

    @property
    def fam(self) -> Family:
        """The row of the family table."""
        return family(self.family)

    @property
    def waterline_m(self) -> float:
        """Waterline length L in m, given or from the family."""
        return self.waterline_length_m or self.length_m * self.fam.waterline_length_ratio

    @property
    def body_count(self) -> int:
        """Number of bodies in the water."""
        return self.bodies or self.fam.bodies

    @property
    def body_shares(self) -> tuple[tuple[float, float, float], ...]:
        """Of each body, from port: length and beam over the main body's, and its share of the mass.
        Three are a main hull with two amas.
        """
        if self.body_count == 3:
            long, wide, mass = AMA
            long = self.ama_length_m / self.waterline_m if self.ama_length_m else long
            mass = self.ama_share / 2 if self.ama_share else mass
            return ((long, wide, mass), (1.0, 1.0, 1 - 2 * mass), (long, wide, mass))
        return ((1.0, 1.0, 1 / self.body_count),) * self.body_count

    @property
    def body_waterline_beam_m(self) -> float:
        """Waterline beam B of one body in m."""
        if self.body_count > 1:
            return self.body_beam_m or min(
                self.waterline_beam_m or np.inf, self.beam_m * self.fam.body_beam_ratio
            )
        ratio = self.fam.waterline_beam_ratio if self.fam.bodies == 1 else 0.8
        return self.waterline_beam_m or self.beam_m * ratio

    @property
    def spacing_m(self) -> float:
        """Distance between the centre lines of neighbouring bodies in m; 0 for one body."""
        if self.body_count == 1:
            return 0.0
        return self.body_spacing_m or (self.beam_m - self.body_waterline_beam_m) / (
            self.body_count - 1
        )

    @property
    def chine_m(self) -> float:
        """Beam over the chines in m, for planing."""
        return self.chine_beam_m or self.body_waterline_beam_m

    @property
    def deadrise(self) -> float:
        """Deadrise in degrees, for planing."""
        return self.fam.deadrise_deg if self.deadrise_deg is None else self.deadrise_deg

    @property
    def depth_m(self) -> float:
        """Keel to sheer amidships in m, estimated from the family; a tube's diameter for
        pontoons.
        """
        if self.family == "pontoon":
            return self.body_waterline_beam_m
        return float(self.fam.depth_m * (self.length_m / self.fam.typical_length_m) ** 0.5)

    @property
    def transom_m(self) -> float:
        """Height of the motor mount above the hull bottom in m, given or estimated."""
        if self.transom_height_m:
            return self.transom_height_m
        return float(np.clip(0.9 * self.depth_m, 0.15 if self.fam.thrust_law else 0.38, 0.65))


@dataclass(frozen=True)
class Load:
    """What is aboard beside motor and bank: people (count), their mass together, gear, all kg."""

    RANGES: ClassVar[checked.Ranges] = {
        "people": (0, 60),
        "people_kg": (0, 12000),
        "gear_kg": (0, 20000),
        "seat_kg": (0, 250),
    }
    COUNTS: ClassVar[checked.Counts] = {"seat_kg": 60}

    people: int = 2
    people_kg: float | None = None
    gear_kg: float = 0.0
    seat_kg: tuple[float, ...] = ()  # each person's mass from the helm on, where known

    def __post_init__(self) -> None:
        checked.check(self, "load")

    @property
    def crew_kg(self) -> float:
        """All people together in kg; 80 kg each where not given."""
        if self.seat_kg:
            return sum(self.seat_kg[: self.people]) + ADULT_KG * max(
                0, self.people - len(self.seat_kg)
            )
        return ADULT_KG * self.people if self.people_kg is None else self.people_kg

    @property
    def total_kg(self) -> float:
        """People and gear in kg."""
        return self.crew_kg + self.gear_kg


def _between(key: str, value: float, low: float, high: float, tail: str = "") -> None:
    if not low <= value <= high:
        raise ValueRefused(key, value, f"{low:g} to {high:g}{tail}")


def estimates(hull: Hull, load: Load) -> list[Assumed]:
    """What was taken for sizes and loads that nobody gave, with the reason.

    >>> [a.name for a in estimates(Hull("kayak", 3.7, 0.78, 34), Load(1, 85))]
    ['hull.waterline_length_m', 'hull.waterline_beam_m']
    """
    several, fam = hull.body_count > 1, hull.fam
    length, beam = round(hull.waterline_m, 3), round(hull.body_waterline_beam_m, 3)
    share = msg(
        "%(waterline_length_ratio)s of the length overall, usual for this kind of hull",
        waterline_length_ratio=f"{fam.waterline_length_ratio:g}",
    )
    spacing, sides = round(hull.spacing_m, 3), msg("outer bodies at the boat's sides")
    usual = msg("usual for this kind of hull")
    usual_beam = msg("usual share of the beam overall for this kind of hull")
    part = msg(
        "%(body_beam_ratio)s of the beam overall", body_beam_ratio=f"{fam.body_beam_ratio:g}"
    )
    chine, each = round(hull.chine_m, 3), msg("%(adult)s kg each", adult=f"{ADULT_KG:.0f}")
    rows: tuple[tuple[str, bool, float | None, float, str], ...] = (
        ("hull.waterline_length_m", True, hull.waterline_length_m, length, share),
        ("hull.waterline_beam_m", not several, hull.waterline_beam_m, beam, usual_beam),
        ("hull.bodies", several, hull.bodies, hull.body_count, usual),
        ("hull.body_beam_m", several, hull.body_beam_m, beam, part),
        ("hull.body_spacing_m", several, hull.body_spacing_m, spacing, sides),
        ("hull.chine_beam_m", fam.planes, hull.chine_beam_m, chine, msg("the waterline beam")),
        ("hull.deadrise_deg", fam.planes, hull.deadrise_deg, hull.deadrise, usual),
        ("load.people_kg", True, load.people_kg, load.crew_kg, each),
    )
    return [
        Assumed(name, taken, why)
        for name, applies, given, taken, why in rows
        if applies and given is None
    ]
