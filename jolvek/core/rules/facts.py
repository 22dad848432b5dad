"""Facts that the hard rules are asked of, by scope: arrays that broadcast, SI; a limit that nobody
gave is infinite, a figure that does not apply is nan.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask


@dataclass(frozen=True)
class NeedFacts:
    """The boat and her people before any motor: single figures."""

    people: float
    most_people: float
    model_year: float
    from_year: float
    to_year: float
    wind_m_s: float = 0.0  # the strongest of the day
    most_wind_m_s: float = float("inf")
    length_m: float = 0.0


@dataclass(frozen=True)
class DriveFacts:
    """Motors with their shafts (P, 1) on mounts (1, K); what is left out limits nothing."""

    power_w: Any
    thrust_n: Any = 0.0
    motor_kg: Any = 0.0
    hung_kg: Any = 0.0  # motor and mount
    plate_m: Any = np.nan  # plate below the hull bottom; nan where it does not apply
    rudder_gap_m: Any = np.nan  # between rudder and propeller; nan where there is no rudder
    style_fits: Any = True
    place_fits: Any = True
    grips: Any = False  # whether the mount grips the transom's board
    grip_least_m: Any = 0.0
    grip_most_m: Any = np.inf
    carries_kg: Any = np.inf
    takes_n: Any = np.inf
    plate_w: float = np.inf
    approved_w: float = np.inf
    approved_n: float = np.inf
    transom_kg: float = np.inf
    transom_m: float = np.nan  # thickness, nan where not known
    style: Any = ""
    styles: Any = ""  # that the mount takes
    foot_m: Any = np.nan  # of an adapter that goes into a fin box: length and width
    foot_wide_m: Any = np.nan
    slot_m: float = np.nan  # of the boat's fin box; nan where its kind is not known
    slot_wide_m: float = np.nan
    slot_name: str = ""
    estimated_m: float = 0.0  # how far a transom that is only estimated may be off
    place_needed: Any = ""
    places_there: Any = ""
    above_m: Any = 0.0  # how far the plate may stand over the hull's bottom


@dataclass(frozen=True)
class MotorFacts:
    """Motors (M,): a voltage that nobody gave is nan."""

    power_w: Array
    peak_w: Array
    nominal_v: Array
    least_v: Array
    most_v: Array
    controller_a: Array

    def of(self, rows: Index) -> MotorFacts:
        """The facts of some of them."""
        return MotorFacts(*(x[rows] for x in vars(self).values()))


@dataclass(frozen=True)
class BankFacts:
    """Banks (B,): `low_v` and `mid_v` are open-circuit volts at the reserve and at 60 % charge."""

    series: Array
    parallel: Array
    nominal_v: Array
    charge_v: Array
    low_v: Array
    mid_v: Array
    ohm: Array
    cells_a: Array  # as stated; inf where not
    usual_a: Array  # where nothing is stated; inf where it is
    bms_a: Array
    connector_a: Array
    peak_a: Array
    most_series: Array
    most_parallel: Array
    charged: Mask | bool = True  # a charger is chosen, or the customer's own suits


@dataclass(frozen=True)
class PairFacts:
    """Motors with banks (M, B): each current at the lowest voltage it is drawn at."""

    power_w: Array  # that the controller lets through
    amps: Array  # at that power
    peak_amps: Array  # at peak power; nan where there is none beside the continuous
    peak_w: Array
    at_v: Array  # the voltage of those currents
    bank_v: Array
    charge_v: Array
    low_v: Array  # under load at the reserve
    mid_v: Array  # under load at 60 % charge
    least_v: Array
    most_v: Array
    fuse_a: Array  # that the continuous current asks for
    most_fuse_a: float
    bank: BankFacts
    own_pack: Mask


@dataclass(frozen=True)
class SetupFacts:
    """Whole setups (N,): what floats."""

    displacement_kg: Any
    carried_kg: Any
    awash_kg: float
    most_carried_kg: float
    trim_deg: Any = 0.0
    heel_deg: Any = 0.0
    most_trim_deg: float = np.inf
    most_heel_deg: float = np.inf
