"""What is sold beside motor, battery, mount and charger: panels, propellers, accessories."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.errors import ValueRefused

ACCESSORIES = (
    "gauge",
    "throttle",
    "cover",
    "cable",
    "fuse",
    "switch",
    "steering",
    "safety",
    "other",
)


@dataclass(frozen=True)
class Panel:
    """One solar panel: rated W, sizes in m, kg."""

    rated_w: float
    length_m: float | None = None
    width_m: float | None = None
    mass_kg: float | None = None
    name: str = ""

    def __post_init__(self) -> None:
        if not 1 <= self.rated_w <= 2000:
            raise ValueRefused("panel.rated_w", self.rated_w, "1 to 2000 W")


@dataclass(frozen=True)
class Propeller:
    """One propeller: diameter and pitch in m, blades, the motors it goes on."""

    diameter_m: float
    pitch_m: float
    blades: int = 3
    motor_ids: tuple[str, ...] = ()
    name: str = ""

    def __post_init__(self) -> None:
        for key, low, high in (("diameter_m", 0.08, 1), ("pitch_m", 0.03, 1), ("blades", 2, 7)):
            if not low <= getattr(self, key) <= high:
                raise ValueRefused(f"propeller.{key}", getattr(self, key), f"{low:g} to {high:g}")


@dataclass(frozen=True)
class Accessory:
    """One accessory: its kind, and what it is for in a few words."""

    kind: str
    text: str = ""
    mass_kg: float | None = None
    name: str = ""

    def __post_init__(self) -> None:
        if self.kind not in ACCESSORIES:
            raise ValueRefused("accessory.kind", self.kind, "one of " + ", ".join(ACCESSORIES))
