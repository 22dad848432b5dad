"""Fresh and salt water: density and viscosity over temperature."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg

SALINITY = {"fresh": 0.0, "salt": 0.035}  # kg/kg; ocean water of the ITTC tables
DEFAULT_TEMPERATURE_C = 15.0
AIR_KG_M3 = 1.225  # over it, at 15 °C


@dataclass(frozen=True)
class Water:
    """A body of water: `kind` is salt or fresh, temperature in °C (0 to 40)."""

    kind: str = "salt"
    temperature_c: float = DEFAULT_TEMPERATURE_C

    def __post_init__(self) -> None:
        if self.kind not in SALINITY:
            raise ValueRefused("water.kind", self.kind, msg("salt or fresh"))
        if not 0.0 <= self.temperature_c <= 40.0:
            raise ValueRefused("temperature_c", self.temperature_c, "0 to 40 °C")

    @property
    def density_kg_m3(self) -> float:
        """Density in kg/m³."""
        return density_kg_m3(self.temperature_c, SALINITY[self.kind])

    @property
    def viscosity_m2_s(self) -> float:
        """Kinematic viscosity in m²/s."""
        return viscosity_m2_s(self.temperature_c, SALINITY[self.kind])


def density_kg_m3(temperature_c: float, salinity: float = 0.035) -> float:
    """Density of water in kg/m³ at 1 atm; 0–40 °C, salinity 0–0.12 kg/kg.

    Source: Sharqawy, Lienhard, Zubair 2010, eq. 8, as adopted by ITTC 7.5-02-01-03 (2011).

    >>> round(density_kg_m3(15.0, 0.035), 1), round(density_kg_m3(15.0, 0.0), 1)
    (1026.0, 998.9)
    """
    t, s = temperature_c, salinity
    pure = 9.999e2 + 2.034e-2 * t - 6.162e-3 * t**2 + 2.261e-5 * t**3 - 4.657e-8 * t**4
    salt = (
        8.020e2 * s
        - 2.001 * s * t
        + 1.677e-2 * s * t**2
        - 3.060e-5 * s * t**3
        - 1.613e-5 * s**2 * t**2
    )
    return pure + salt


def viscosity_m2_s(temperature_c: float, salinity: float = 0.035) -> float:
    """Kinematic viscosity in m²/s; 0–40 °C, salinity 0–0.15 kg/kg.

    Source: Sharqawy, Lienhard, Zubair 2010, eqs. 22–23, as adopted by ITTC 7.5-02-01-03 (2011).

    >>> f"{viscosity_m2_s(15.0, 0.035):.3e}", f"{viscosity_m2_s(15.0, 0.0):.3e}"
    ('1.189e-06', '1.139e-06')
    """
    t, s = temperature_c, salinity
    pure = 4.2844e-5 + 1.0 / (0.157 * (t + 64.993) ** 2 - 91.296)
    a = 1.541 + 1.998e-2 * t - 9.52e-5 * t**2
    b = 7.974 - 7.561e-2 * t + 4.724e-4 * t**2
    return pure * (1.0 + a * s + b * s**2) / density_kg_m3(t, s)
