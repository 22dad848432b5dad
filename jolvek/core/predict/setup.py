"""One setup: a boat and its load, one motor, one bank, on one mount, in one water on one day."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import TypedDict

from jolvek.core.base.errors import ValueRefused
from jolvek.core.electric.bank import Bank
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.seaway import wave_height_m
from jolvek.core.hydro.water import Water
from jolvek.core.products.motor import Motor

RANGES = {
    "wind_m_s": (-40, 40),
    "current_m_s": (-6, 6),
    "reserve": (0, 0.9),
    "start_charge": (0.1, 1),
    "wave_height_m": (0, 50),  # all that 40 m/s of wind can raise
    "wave_from_deg": (-360, 360),
    "depth_m": (0.3, 1000),
    "tow_length_m": (1.8, 6),
}


class Waves(TypedDict, total=False):
    """The fields of a setup that say how the sea runs."""

    wave_height_m: float
    wave_from_deg: float


def raised(wind_m_s: float, fetch_m: float) -> Waves:
    """Waves that a wind (against her, minus behind) raises over a fetch of open water in m.

    >>> raised(8.0, 0.0), raised(-8.0, 2000.0)["wave_from_deg"]
    ({}, 180.0)
    """
    if not fetch_m:
        return {}
    height = float(wave_height_m(abs(wind_m_s), fetch_m))
    return {"wave_height_m": height, "wave_from_deg": 0.0 if wind_m_s >= 0 else 180.0}


@dataclass(frozen=True)
class Setup:
    """Everything a prediction needs. Wind and current in m/s are against the boat; reserve is a
    share.
    """

    hull: Hull
    load: Load
    motor: Motor
    bank: Bank | None = None
    water: Water = field(default_factory=Water)
    wind_m_s: float = 0.0
    current_m_s: float = 0.0
    reserve: float = 0.2
    mount_kg: float = 0.0
    keep_s: float = 0.0  # of running kept on top of the reserve, by the school of hours
    drag_factor: float = 1.0  # on all resistance: a boat that is harder or easier to drive
    wave_height_m: float = 0.0  # significant
    wave_from_deg: float = 0.0  # off the bow
    depth_m: float | None = None  # of the water; None: deep
    tow_length_m: float | None = None  # of a dinghy in tow
    start_charge: float = 1.0  # share of the rated charge she sets out with

    def __post_init__(self) -> None:
        for key, (low, high) in RANGES.items():
            value = getattr(self, key)
            if value is not None and not low <= value <= high:
                raise ValueRefused(key, value, f"{low:g} to {high:g}")

    @property
    def displacement_kg(self) -> float:
        """Hull, people, gear, motor, mount and bank in kg."""
        bank = self.bank.mass_kg if self.bank else 0.0
        return self.hull.mass_kg + self.load.total_kg + self.motor.weight_kg + self.mount_kg + bank
