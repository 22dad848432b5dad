"""What each chemistry gives: usable share, voltages, cold, cycles."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg, words

REFERENCE_C = 20.0


@dataclass(frozen=True)
class Chemistry:
    """Ratios of one chemistry. Voltages are shares of nominal, `resistance_h` is R·Ah/V_nominal in
    hours.
    """

    id: str
    name: str
    usable: float  # share of the rated charge that may be drawn: lead stops at half, for its life
    advised_depth: float  # deepest discharge advised as a habit
    peukert: float
    rated_h: float  # discharge time at which the capacity is stated
    full_ratio: float  # straight off the charger
    empty_ratio: float  # under load at the end
    resistance_h: float
    ocv: tuple[float, ...]  # open-circuit voltage at SoC 0, 10, … 100 %, before scaling to mean 1
    cold_loss_per_k: float  # capacity lost per kelvin below 20 °C
    wh_per_kg: tuple[float, float]
    cycles: tuple[tuple[float, float], ...]  # (depth, cycles to 80 %)
    calendar_years: float
    max_c_rate: float  # continuous, where the maker says nothing
    charge_efficiency: float
    lithium: bool
    cell_v: float  # nominal of one cell, to infer how many a label means
    cell_full_v: float  # at the end of its charge; common practice, no source

    def __post_init__(self) -> None:
        words(self, "name")


# fmt: off
_LEAD_OCV = (.915, .935, .952, .967, .981, .994, 1.006, 1.018, 1.029, 1.040, 1.052)


CHEMISTRIES: dict[str, Chemistry] = {
    c.id: c for c in (
        Chemistry("lfp", "Lithium iron phosphate", 1.0, .9, 1.03, 1.0, 1.14, .875, .035,
                  (.80, .965, .985, .995, 1.0, 1.002, 1.005, 1.012, 1.018, 1.022, 1.06),
                  .007, (70, 180), ((.5, 6000), (.8, 3500), (1.0, 2500)), 12, 1.0, .97, True,
                  3.2, 3.65),
        Chemistry("nmc", "Lithium NMC or NCA", 1.0, .9, 1.05, 1.0, 1.135, .81, .030,
                  (.83, .925, .955, .972, .985, .997, 1.013, 1.035, 1.062, 1.092, 1.135),
                  .008, (90, 260), ((.5, 2000), (.8, 1000), (1.0, 600)), 10, 1.5, .97, True,
                  3.65, 4.2),
        Chemistry("agm", "Lead-acid, AGM", .5, .5, 1.12, 20.0, 1.075, .875, .050, _LEAD_OCV,
                  .010, (22, 42), ((.3, 1200), (.5, 600), (.8, 300)), 6, .5, .85, False,
                  2.0, 2.43),
        Chemistry("gel", "Lead-acid, gel", .5, .5, 1.12, 20.0, 1.075, .875, .060, _LEAD_OCV,
                  .010, (22, 42), ((.3, 1400), (.5, 750), (.8, 400)), 7, .4, .85, False,
                  2.0, 2.4),
        Chemistry("flooded", "Lead-acid, flooded", .5, .5, 1.25, 20.0, 1.06, .875, .060, _LEAD_OCV,
                  .012, (22, 42), ((.3, 1000), (.5, 500), (.8, 250)), 5, .33, .80, False,
                  2.0, 2.43),
    )
}


def chemistry(chemistry_id: str) -> Chemistry:
    """The chemistry of that id; raises ValueRefused naming the known ids.

    >>> chemistry("agm").usable
    0.5
    """
    try:
        return CHEMISTRIES[chemistry_id]
    except KeyError:
        raise ValueRefused(
            "battery.chemistry", chemistry_id, msg("one of ") + ", ".join(CHEMISTRIES)
        ) from None


def temperature_factor(chem: Chemistry, temperature_c: float) -> float:
    """Share of the rated capacity left at a battery temperature in °C (−20 to 50); never above 1.

    >>> round(temperature_factor(chemistry("agm"), 0.0), 2)
    0.8
    """
    return float(np.clip(1 - chem.cold_loss_per_k * (REFERENCE_C - temperature_c), 0.3, 1.0))


def end_soc(chem: Chemistry, reserve: float) -> float:
    """State of charge at which a day must end: the reserve, or what the chemistry forbids to draw.

    >>> end_soc(chemistry("lfp"), 0.2), end_soc(chemistry("agm"), 0.2)
    (0.2, 0.5)
    """
    return max(reserve, 1.0 - chem.usable)


def cycle_life(chem: Chemistry, depth: ArrayLike) -> Array:
    """Cycles to 80 % of capacity at a depth of discharge (0.05–1), on a log-log line through the
    table.

    >>> round(float(cycle_life(chemistry("agm"), 0.5)))
    600
    """
    table = np.array(chem.cycles)
    x, y = np.log(table[:, 0]), np.log(table[:, 1])
    d = np.log(np.clip(depth, 0.05, 1.0))
    low = y[0] + (d - x[0]) * (y[1] - y[0]) / (x[1] - x[0])
    return np.asarray(np.exp(np.where(d < x[0], low, np.interp(d, x, y))))
