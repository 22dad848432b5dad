"""What is sold beside motor, battery, mount and charger: panels, propellers, accessories."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked

ACCESSORIES = (
    "gauge",
    "throttle",
    "cover",
    "cable",
    "fuse",
    "switch",
    "steering",
    "safety",
    "adapter",
    "other",
)
MEASURES = ("", "voltage", "charge")


@dataclass(frozen=True)
class Panel:
    """One solar panel: rated W, sizes in m, kg, volts at 25 °C."""

    RANGES: ClassVar[checked.Ranges] = {
        "rated_w": (1, 2000),
        "length_m": (0.1, 5),
        "width_m": (0.1, 5),
        "mass_kg": (0.1, 100),
        "open_v": (1, 400),
        "working_v": (1, 400),
    }

    rated_w: float
    length_m: float | None = None
    width_m: float | None = None
    mass_kg: float | None = None
    open_v: float | None = None
    working_v: float | None = None  # at most power
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "panel")


@dataclass(frozen=True)
class Propeller:
    """One propeller: diameter and pitch in m, blades, the motors it goes on."""

    RANGES: ClassVar[checked.Ranges] = {
        "diameter_m": (0.08, 1),
        "pitch_m": (0.03, 1),
        "blades": (2, 7),
    }
    TEXTS: ClassVar[checked.Counts] = {"motor_ids": 60}

    diameter_m: float
    pitch_m: float
    blades: int = 3
    motor_ids: tuple[str, ...] = ()
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "propeller")


@dataclass(frozen=True)
class Accessory:
    """One accessory: its kind, and what it is for in a few words."""

    RANGES: ClassVar[checked.Ranges] = {
        "mass_kg": (0, 500),
        "cable_m": (0.1, 60),
    }
    CHOICES: ClassVar[checked.Choices] = {"kind": ACCESSORIES, "measures": MEASURES}
    TEXTS: ClassVar[checked.Counts] = {"text": 400}

    kind: str
    text: str = ""
    mass_kg: float | None = None
    cable_m: float | None = None  # of a throttle or a lead: how far it reaches
    measures: str = ""  # of a gauge: voltage alone, or the charge that flows
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "accessory")
