"""Boat models of the shelf: sizes, plate and approval of one model over its years, typed once."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.hull import Hull
from jolvek.core.products.mounting import PLACES

CONSTRUCTIONS = ("", "moulded", "laminate", "wood", "aluminium", "inflatable")
# what an inflatable stands on, and the pressure of its parts; common practice, no source
CHAMBERS: dict[str, str] = {
    "": "tubes about 3 psi, drop-stitch parts about 6 psi",
    "soft floor": "tubes about 3 psi",
    "air floor": "tubes about 3 psi, the floor as its valve says, about 3 to 5 psi",
    "drop-stitch": "tubes about 3 psi, drop-stitch parts about 6 psi",
}
# Slots for fins in m, length and width; from memory, and worth a measurement on the boat
FIN_BOXES: dict[str, tuple[str, float, float]] = {
    "long": ("long slot, 25 cm by 10 mm", 0.25, 0.010),
    "short": ("short slot, 20 cm by 10 mm", 0.20, 0.010),
    "side": ("side slot, 11 cm by 7 mm", 0.114, 0.0065),
    "tracking": ("kayak's tracking slot, 15 cm by 8 mm", 0.15, 0.008),
    "slide": ("air board's slide, 21 cm by 13 mm", 0.21, 0.013),
}
YEARS = (1900, 2200)
# of the boat's plate and approval, and the places for a motor
LIMITS = ("max_motor_kg", "max_load_kg", "max_people", "approval_power_w", "approval_thrust_n")


@dataclass(frozen=True)
class BoatModel:
    """One model of boat over some model years, SI; what is None the maker does not say. A model
    whose plate or approval changed has a row for each span of years.
    """

    RANGES: ClassVar[checked.Ranges] = {
        **{
            k: Hull.RANGES[k]
            for k in (
                "length_m",
                "beam_m",
                "mass_kg",
                "transom_height_m",
                "keel_draught_m",
                "max_power_w",
            )
        },
        "from_year": YEARS,
        "to_year": YEARS,
        "transom_thickness_m": (0.005, 0.3),
        "transom_width_m": (0.1, 4),
        "max_motor_kg": (1, 500),
        "max_load_kg": (1, 30000),
        "max_people": (1, 60),
        "approval_power_w": (1, 1e06),
        "approval_thrust_n": (1, 100000),
    }
    CHOICES: ClassVar[checked.Choices] = {
        "family": tuple(FAMILIES),
        "construction": CONSTRUCTIONS,
        "chambers": tuple(CHAMBERS),
        "fin_box": ("", *FIN_BOXES),
        "places": tuple(PLACES),
    }

    family: str
    length_m: float
    beam_m: float
    mass_kg: float
    from_year: int | None = None
    to_year: int | None = None
    transom_height_m: float | None = None
    transom_thickness_m: float | None = None
    transom_width_m: float | None = None
    keel_draught_m: float | None = None
    max_power_w: float | None = None
    max_motor_kg: float | None = None
    max_load_kg: float | None = None
    max_people: int | None = None
    approval_power_w: float | None = None
    approval_thrust_n: float | None = None
    construction: str = ""
    chambers: str = ""
    fin_box: str = ""
    places: tuple[str, ...] = ()
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "boat")
        Hull(self.family, self.length_m, self.beam_m, self.mass_kg)  # as the hull it will be
        if self.from_year and self.to_year and self.to_year < self.from_year:
            raise ValueRefused(
                "boat.to_year",
                self.to_year,
                msg("%(from_year)s or later", from_year=self.from_year),
            )

    def covers(self, year: int | None) -> bool:
        """Whether a hull of that model year is meant; of an unknown year any is.

        >>> BoatModel("kayak", 3.7, 0.78, 34, from_year=2018).covers(2016)
        False
        """
        if year is None:
            return True
        return (self.from_year or YEARS[0]) <= year <= (self.to_year or YEARS[1])


def of_year(models: Iterable[BoatModel], year: int | None) -> BoatModel | None:
    """The row for a hull of that year; where none covers it the latest before it, or the first, so
    that the years of its approval speak against it. None of no rows.

    >>> old, new = (BoatModel("kayak", 3.7, 0.78, 34, y, y + 4) for y in (2014, 2019))
    >>> [of_year([old, new], y) is new for y in (2015, 2020, 2030)]
    [False, True, True]
    """
    rows = sorted(models, key=lambda m: m.from_year or YEARS[0])
    fits = [m for m in rows if m.covers(year)]
    before = [m for m in rows if (m.from_year or YEARS[0]) <= (year or YEARS[1])]
    return next(iter([*reversed(fits), *reversed(before), *rows]), None)
